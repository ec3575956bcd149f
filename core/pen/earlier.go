package pen

import (
	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// earliest is the latest before the start that a list may have work begin, in seconds to go: what is earlier is
// no warm-up.
const earliest = -3 * 60 * 60

// opens lets a plan's work begin as early as its lines say, of which each may be said when: what a list says is
// planned, it does not lie outside. It returns which line did, -1: none.
func opens(r *say.Reader, d *plan.Document, lines []say.Line) int {
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
		case at == nil || *at < earliest || clock.Offset(*at) >= open || r.OwnTime(l):
		case l.Is == say.IsDrill || l.Is == say.IsDrills || l.Is == say.IsCombo || l.Is == say.IsChoice ||
			l.Is == say.IsBlock ||
			l.Is == say.IsPhase:
			first, open = i, clock.Offset(*at)
		}
	}
	if first >= 0 {
		d.Open = clock.BeforeStart(-int(open))
	}
	return first
}
