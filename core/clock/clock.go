// Package clock tells time the way a coach does: as minutes to go before the
// start of a match or session.
//
// Every moment of a plan is an [Offset], whole seconds from the start, negative
// before it. Clock time is only worked out for display, from a [Start] that
// knows the time zone of the venue.
package clock

import (
	"fmt"
	"strconv"
	"strings"
)

// Offset is a moment in whole seconds relative to the start: negative before
// it, zero at it, positive after it.
type Offset int

// Grid is the step in seconds on which blocks start and end.
const Grid = 5

// ToGo writes the offset as minutes to go: "38:00" is 38 minutes before the
// start, "0:00" the start itself, "+2:30" two and a half minutes after it.
func (o Offset) ToGo() string {
	if o > 0 {
		return "+" + Duration(int(o))
	}
	return Duration(int(-o))
}

// MinutesToGo writes the offset in minutes to go, as short as it can be:
// "38", "38:30", "+2".
func (o Offset) MinutesToGo() string {
	return strings.TrimSuffix(o.ToGo(), ":00")
}

// Duration writes seconds as minutes and seconds: 90 is "1:30".
// Negative seconds carry a minus sign.
func Duration(seconds int) string {
	sign := ""
	if seconds < 0 {
		sign, seconds = "-", -seconds
	}
	return fmt.Sprintf("%s%d:%02d", sign, seconds/60, seconds%60)
}

// ParseDuration reads "12", "12:30" or "0:45" as minutes and seconds and
// returns whole seconds. It refuses anything else, and more than 24 hours,
// with an error that says how to write it.
func ParseDuration(text string) (seconds int, err error) {
	minutes, rest, hasSeconds := strings.Cut(strings.TrimSpace(text), ":")
	m, err := strconv.Atoi(minutes)
	s := 0
	if err == nil && hasSeconds {
		s, err = strconv.Atoi(rest)
	}
	if err != nil || m < 0 || s < 0 || s > 59 || strings.ContainsAny(text, "+-") {
		return 0, fmt.Errorf("write minutes as 12 or 12:30")
	}
	if m > 24*60 {
		return 0, fmt.Errorf("%d minutes is more than a day", m)
	}
	return m*60 + s, nil
}

// CeilTo rounds seconds up to the next multiple of grid. A hair above a
// multiple, as floating-point sums leave it, counts as that multiple.
func CeilTo(seconds float64, grid int) int {
	const hair = 1e-9
	steps := int(seconds / float64(grid))
	if seconds > float64(steps*grid)+hair {
		steps++
	}
	return steps * grid
}

// Window is a span of time from From up to, not including, To.
type Window struct{ From, To Offset }

// Seconds is the length of the window, never negative.
func (w Window) Seconds() int { return max(0, int(w.To-w.From)) }

// Overlap is the number of seconds that two windows share.
func (w Window) Overlap(v Window) int {
	return max(0, int(min(w.To, v.To)-max(w.From, v.From)))
}
