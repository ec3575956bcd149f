package clock

import (
	"errors"
	"fmt"
	"time"
)

// localLayout is how a wall-clock moment is written, without zone: the value of an HTML
// datetime-local field.
const localLayout = "2006-01-02T15:04"

// Occurrence picks one of the two moments that a wall-clock time names in the
// hour that the autumn clock change repeats.
type Occurrence string

// The occurrences of a repeated wall-clock time.
const (
	Only   Occurrence = ""
	First  Occurrence = "first"
	Second Occurrence = "second"
)

// Errors of [Start.Resolve]. Each is wrapped with the time it speaks of.
var (
	ErrNotATime = errors.New("is not a date and time")
	ErrSkipped  = errors.New("does not exist: the clocks go forward over it that night")
	ErrRepeated = errors.New("comes twice: the clocks go back over it that night; say whether you mean the " +
		"first or the second")
)

// Start is the fixed point of a plan as the people at the ground know it: the
// wall-clock time at the venue and the zone of that clock.
type Start struct {
	Local      string     `json:"local"`                // 2026-11-28T15:00
	Zone       string     `json:"zone"`                 // IANA name of the venue's time zone
	Occurrence Occurrence `json:"occurrence,omitempty"` // needed only where Local comes twice
}

// Resolve gives the moment of the start. It fails where the zone is unknown,
// where Local is no date and time, where a clock change skips it, and where a
// clock change repeats it and Occurrence does not say which is meant.
func (s Start) Resolve() (time.Time, error) {
	zone, err := time.LoadLocation(s.Zone)
	if err != nil || s.Zone == "" {
		return time.Time{}, fmt.Errorf("the time zone %q is not known", s.Zone)
	}
	wall, err := time.Parse(localLayout, s.Local)
	if err != nil {
		return time.Time{}, fmt.Errorf("%q %w", s.Local, ErrNotATime)
	}
	if wall.Year() < 2000 || wall.Year() > 2200 {
		return time.Time{}, fmt.Errorf("%q %w: the year lies outside 2000 to 2200", s.Local, ErrNotATime)
	}
	moments := momentsOf(wall, zone)
	switch {
	case len(moments) == 0:
		return time.Time{}, fmt.Errorf("%s %w", wall.Format("15:04 on 2 January"), ErrSkipped)
	case len(moments) == 1:
		return moments[0], nil
	case s.Occurrence == First:
		return moments[0], nil
	case s.Occurrence == Second:
		return moments[1], nil
	}
	return time.Time{}, fmt.Errorf("%s %w", wall.Format("15:04 on 2 January"), ErrRepeated)
}

// momentsOf lists, earliest first, the moments at which a clock in zone shows
// wall. Offsets in force half a day either side cover every clock change.
func momentsOf(wall time.Time, zone *time.Location) []time.Time {
	var found []time.Time
	for _, nearby := range []time.Duration{-12 * time.Hour, 12 * time.Hour} {
		_, offset := wall.Add(nearby).In(zone).Zone()
		moment := wall.Add(-time.Duration(offset) * time.Second).In(zone)
		if moment.Format(localLayout) != wall.Format(localLayout) {
			continue
		}
		if len(found) == 0 || !found[0].Equal(moment) {
			found = append(found, moment)
		}
	}
	if len(found) == 2 && found[1].Before(found[0]) {
		found[0], found[1] = found[1], found[0]
	}
	return found
}

// StartAt is the Start that names moment on a clock in its own location.
func StartAt(moment time.Time) Start {
	s := Start{Local: moment.Format(localLayout), Zone: moment.Location().String()}
	wall, _ := time.Parse(localLayout, s.Local)
	if both := momentsOf(wall, moment.Location()); len(both) == 2 {
		s.Occurrence = First
		if both[1].Equal(moment.Truncate(time.Minute)) {
			s.Occurrence = Second
		}
	}
	return s
}

// Clock is the wall-clock time at offset o from start, as "14:22".
func Clock(start time.Time, o Offset) string {
	return start.Add(time.Duration(o) * time.Second).Format("15:04")
}

// Moment is a point in time of a plan: either so many seconds before the start, or a time on the
// clock that stays where it is when the start moves.
type Moment struct {
	Before int    `json:"before,omitempty"` // seconds before the start; negative after it
	Clock  string `json:"clock,omitempty"`  // 14:10 on the day of the start; wins over Before
}

// BeforeStart is the moment so many seconds before the start.
func BeforeStart(seconds int) Moment { return Moment{Before: seconds} }

// AtClock is the moment at which the venue's clock shows hhmm on the day of the start.
func AtClock(hhmm string) Moment { return Moment{Clock: hhmm} }

// Offset places the moment on the time line of start.
func (m Moment) Offset(start time.Time) (Offset, error) {
	if m.Clock == "" {
		return Offset(-m.Before), nil
	}
	clock, err := time.Parse("15:04", m.Clock)
	if err != nil {
		return 0, fmt.Errorf("%q is not a time of day such as 14:10", m.Clock)
	}
	at := time.Date(start.Year(), start.Month(), start.Day(), clock.Hour(), clock.Minute(), 0, 0, start.Location())
	return Offset(at.Sub(start) / time.Second), nil
}
