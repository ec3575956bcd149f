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

// ToGo writes the offset as minutes to go, which nobody takes for a time on the
// clock: "38′" is 38 minutes before the start, "4′30″" four and a half, "0′" the
// start itself, "+2′30″" two and a half minutes after it.
func (o Offset) ToGo() string {
	seconds, after := int(-o), ""
	if o > 0 {
		seconds, after = int(o), "+"
	}
	if seconds%60 == 0 {
		return fmt.Sprintf("%s%d′", after, seconds/60)
	}
	return fmt.Sprintf("%s%d′%02d″", after, seconds/60, seconds%60)
}

// Lasting writes the offset as an amount of time: "38 min", "4:30 min", "45 s".
func (o Offset) Lasting() string { return Lasting(int(-o)) }

// Duration writes seconds as minutes and seconds: 90 is "1:30".
// Negative seconds carry a minus sign.
func Duration(seconds int) string {
	sign := ""
	if seconds < 0 {
		sign, seconds = "-", -seconds
	}
	return fmt.Sprintf("%s%d:%02d", sign, seconds/60, seconds%60)
}

// Lasting writes seconds as an amount with its unit: 45 is "45 s", 90 "1:30 min",
// 300 "5 min".
func Lasting(seconds int) string {
	switch {
	case seconds < 60 && seconds > -60:
		return fmt.Sprintf("%d s", seconds)
	case seconds%60 == 0:
		return fmt.Sprintf("%d min", seconds/60)
	}
	return Duration(seconds) + " min"
}

// ParseDuration reads "12", "12:30", "0:45", or 12′30″, as minutes and seconds and
// returns whole seconds. It refuses anything else, and more than 24 hours,
// with an error that says how to write it.
func ParseDuration(text string) (seconds int, err error) {
	text = strings.TrimSpace(text)
	if plain := primes.Replace(text); plain != text {
		text = strings.TrimSuffix(plain, ":")
	}
	minutes, rest, hasSeconds := strings.Cut(text, ":")
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

// primes are the marks of minutes and seconds, as they are written and typed.
var primes = strings.NewReplacer("′", ":", "'", ":", "″", "", `"`, "")

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
