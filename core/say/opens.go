package say

import (
	"fmt"
	"strconv"
	"strings"

	"cuestart/core/pattern"
	"cuestart/core/plan"
)

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
