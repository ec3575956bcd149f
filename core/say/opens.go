package say

import (
	"fmt"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/pattern"
	"cuestart/core/plan"
)

// earliest is the latest before the start that a list may have work begin, in seconds to go: what is earlier is
// no warm-up.
const earliest = -3 * 60 * 60

// opens lets a plan's work begin as early as its lines say, of which each may be said when: what a list says is
// planned, it does not lie outside. It returns which line did, -1: none.
func (r *Reader) opens(d *plan.Document, lines []Line) int {
	start, err := d.Start.Resolve()
	if err != nil {
		return -1
	}
	open, err := d.Open.Offset(start)
	if err != nil {
		return -1
	}
	first := -1
	for i := range lines {
		l := &lines[i]
		at := l.At
		if at == nil && l.Window != nil {
			at = l.Window[0]
		}
		switch {
		case at == nil || *at < earliest || clock.Offset(*at) >= open || r.ownTime(l):
		case l.Is == IsDrill || l.Is == IsDrills || l.Is == IsCombo || l.Is == IsChoice || l.Is == IsBlock ||
			l.Is == IsPhase:
			first, open = i, clock.Offset(*at)
		}
	}
	if first >= 0 {
		d.Open = clock.BeforeStart(-int(open))
	}
	return first
}

// startWords are what a start is called, beside a time of the day.
var (
	startFirst = pattern.Must(`(?i)\b(?:ko|kick[- ]?off|kick|starts?(?: at)?|start(?:ing)? time|tip(?:[- ]?off)?|throw[- ]in|first (?:serve|ball|pitch|whistle|race|bell|point)|puck drop|push[- ]?back|centre pass|bully[- ]?off)(?: is)?(?: at)?[ :,=]*(\d{1,2})(?:[:.](\d\d))? ?(am|pm)?\b`)
	startLast  = pattern.Must(`(?i)\b(\d{1,2})(?:[:.](\d\d))? ?(am|pm)? (?:ko|kick[- ]?off|kick|starts?|tip(?:[- ]?off)?|throw[- ]in|first (?:serve|ball|pitch|whistle|race|point)|puck drop|push[- ]?back|centre pass)\b`)
)

// StartSaid is the sentence about a line that says another start than the plan has; "" where none does.
func StartSaid(d *plan.Document, text string) string {
	other := OtherStart(d, text)
	start, err := d.Start.Resolve()
	if err != nil || other == "" {
		return ""
	}
	return fmt.Sprintf("Your list says %s, this session starts at %s: change one of them", other, start.Format("15:04"))
}

// OtherStart is the time of the day, as 19:00, at which a line says that it starts, where the plan starts at another.
func OtherStart(d *plan.Document, text string) string {
	start, err := d.Start.Resolve()
	hour, minute, half, says := startIn(text)
	if err != nil || !says {
		return ""
	}
	same := hour == start.Hour() || half == "" && hour < 12 && hour+12 == start.Hour()
	if same && minute == start.Minute() {
		return ""
	}
	return clockOf(hour, minute)
}

// SaysStart tells whether a line says when it starts.
func SaysStart(text string) bool {
	_, _, _, says := startIn(text)
	return says
}

// startIn is the time of the day at which a line says that it starts, and in which half of the day, where it says so.
func startIn(text string) (hour, minute int, half string, ok bool) {
	m := startFirst.FindStringSubmatch(text)
	if m == nil {
		m = startLast.FindStringSubmatch(text)
	}
	if m == nil || m[2] == "" && m[3] == "" {
		return 0, 0, "", false
	}
	hour, _ = strconv.Atoi(m[1])
	minute, _ = strconv.Atoi(m[2])
	half = strings.ToLower(m[3])
	if hour > 23 || minute > 59 || half != "" && hour > 12 {
		return 0, 0, "", false
	}
	if half != "" {
		if hour %= 12; half == "pm" {
			hour += 12
		}
	}
	return hour, minute, half, true
}
