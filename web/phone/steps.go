package phone

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/list"
	"cuestart/web/shell"
)

// step is a step of an item as the page's script follows it.
type step struct {
	From   int    `json:"from"` // seconds from the block's start
	To     int    `json:"to"`
	Drill  int    `json:"drill"` // which of the block's
	Round  int    `json:"round"`
	Figure string `json:"figure"`
	Unit   string `json:"unit"`
	Kind   string `json:"kind,omitempty"`  // "t" timed, "r" a rest; "": until it is done
	What   string `json:"what,omitempty"`  // which step it is, above its figure
	Short  string `json:"short,omitempty"` // what it is called beneath the bar
	Side   string `json:"side,omitempty"`  // that does it: left or right; "": both, or neither
}

// stepsOf are the steps of a block.
func stepsOf(tongue shell.Tongue, e *list.Entry) (all []step) {
	for _, s := range e.Steps() {
		is := step{From: s.From, To: s.To, Drill: s.Doing, Round: s.Round, Figure: fmt.Sprint(s.Amount),
			Unit: unitOf(tongue, &e.Drills[s.Doing].Drill, s.Step), Side: sideOf(s)}
		switch {
		case isRest(s.Step):
			is.Kind = "r"
		case s.Timed():
			is.Kind = "t"
		}
		if s.Measure == drill.Seconds && s.Amount >= 90 {
			is.Figure, is.Unit = fmt.Sprintf("%d:%02d", s.Amount/60, s.Amount%60), tongue.T("min")
		}
		if s.Turns > 0 && s.Turn == 0 { // too many to follow one by one
			is.Figure, is.Unit = fmt.Sprint(s.Turns), fmt.Sprintf("× %d %s", s.Amount, is.Unit)
		}
		is.What, is.Short = wordsOf(tongue, s)
		all = append(all, is)
	}
	return all
}

// sideOf is the side that does a step; "": both, or neither.
func sideOf(s list.Step) string {
	for _, w := range s.Ways {
		if w == drill.Left || w == drill.Right {
			return string(w)
		}
	}
	return ""
}

func isRest(s drill.Step) bool {
	return len(s.Ways) > 0 && (s.Ways[0] == drill.Rest || s.Ways[0] == drill.Wait)
}

// unitOf is what the figure of a step counts.
func unitOf(tongue shell.Tongue, d *drill.Drill, s drill.Step) string {
	switch s.Measure {
	case drill.Times:
		unit := d.Unit
		if unit == "" {
			unit = "times"
			if d.Dose.Kind == drill.Reps {
				unit = "reps"
			}
		}
		return strings.TrimPrefix(drill.NumberIn(tongue.Say(), s.Amount, unit), fmt.Sprint(s.Amount)+" ")
	case drill.Breaths:
		return tongue.T("breaths")
	}
	return string(s.Measure)
}

// wordsOf say which step it is: whole above its figure, "left, forward; round 2 of 3",
// and short beneath its bar.
func wordsOf(tongue shell.Tongue, s list.Step) (what, short string) {
	var parts []string
	for _, w := range s.Ways {
		parts = append(parts, tongue.Word(string(w)))
	}
	short = strings.Join(append(slices.Clone(parts), cmp.Or(s.Brief, s.Part)), " ")
	if s.Part != "" {
		parts = append(parts, s.Part)
	}
	short, what = strings.TrimSpace(short), strings.Join(parts, ", ")
	if s.Effort > 0 {
		what = join(what, tongue.T("%d %% effort", int(math.Round(100*s.Effort))))
	}
	switch {
	case s.Turns > 0 && s.Turn == 0:
	case s.Turns > 0 && s.Measure == drill.Metres:
		what = join(what, tongue.T("length %d of %d", s.Turn, s.Turns))
	case s.Turns > 0:
		what = join(what, tongue.T("hold %d of %d", s.Turn, s.Turns))
	}
	if s.Sets > 0 {
		what = join(what, tongue.T("set %d of %d", s.Set, s.Sets))
	}
	if s.Rounds > 0 {
		what = join(what, tongue.T("round %d of %d", s.Round, s.Rounds))
	}
	return what, short
}

func join(text, more string) string {
	if text == "" {
		return more
	}
	return text + " · " + more
}
