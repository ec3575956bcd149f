// Package heard says in words what a coach's line was taken for, wherever lines are read: at the
// foot of the board, and beside the coach's own words.
package heard

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/core/speech"
	"cuestart/web/shell"
)

// Line is a line and what it became.
type Line struct {
	Said, Became string
	Beside       string // who, where, led by whom, when, as far as it was said
	Lasts        string
	Phase        *drill.Phase
	Yours        []Yours  // its drills that are the coach's own
	Doubts       []string // what the coach should look at
}

// Yours is a drill of the coach's own, by what is taken of its words.
type Yours struct {
	Is    string // moving further · hip, turning · 3 s a rep; "": nothing is known of it
	Block string // where its chips are; "": it is not in the plan yet
}

// YoursOf is what an own drill of a block is taken for.
func YoursOf(k *drill.Drill, block string) Yours {
	is := shell.Joined(" · ", movement.Says(k, movement.For), movement.Says(k, movement.Works))
	if is != "" {
		is = shell.Joined(" · ", is, movement.Says(k, movement.Fast))
	}
	return Yours{is, block}
}

// Doubt tells whether the coach should look at it.
func (l Line) Doubt() bool { return len(l.Doubts) > 0 }

// WorkOf is how many seconds some drills of a block take, in all its rounds.
func WorkOf(d *plan.Document, b *plan.Block, items []int) (seconds float64) {
	group := d.Group(b)
	for _, n := range items {
		if !b.Alongside(n) {
			seconds += b.Work(n, b.Items[n].Drill.Range.Target, group)
		}
	}
	if b.Form == "" {
		seconds *= float64(max(1, b.Rounds))
	}
	return seconds
}

// Of shows one line.
func Of(d *plan.Document, became *pen.Became) (shown Line) {
	l := &became.Line
	shown.Said = say.AsTyped(l.Said)
	switch l.Is {
	case say.IsPhase:
		phase, _ := drill.PhaseOf(l.Phase)
		shown.Became, shown.Phase = phase.Name()+" from here on", &phase
		if l.List != "" {
			shown.Became, shown.Phase = "A list of its own from here on", nil
		}
	case say.IsFixed:
		if shown.Became = "Fixed: " + l.Name; l.From == nil || l.To == nil {
			shown.Became = "Kept as a note: " + l.Name
			break
		}
		shown.Beside = clock.Offset(*l.From).ToGo() + " to " + clock.Offset(*l.To).ToGo() + " to go"
	case say.IsBlock:
		shown.Became = "A block: " + shell.Joined(", ", l.Name, rounds(l))
		if l.Name == "" {
			shown.Became = "For the lines below"
		}
	case say.IsStock:
		shown.Became = stockWords(l.Stock)
	case say.IsBring:
		shown.Became = "To carry out: " + l.Name
	case say.IsNote:
		shown.Became = "Kept as a note"
		shown.Doubts = append(shown.Doubts, "No drill was found in it")
	}
	shown.does(d, became)
	shown.doubts(became)
	return shown
}

// does fills in the drills that a line became, in one block or in several.
func (shown *Line) does(d *plan.Document, became *pen.Became) {
	var parts []string
	seconds := 0.0
	for _, placed := range append(slices.Clone(became.Before), pen.Placed{Block: became.Block, Items: became.Items}) {
		b := d.Block(placed.Block)
		if b == nil || len(placed.Items) == 0 {
			continue
		}
		for _, n := range placed.Items {
			k := b.Items[n].Drill
			words := k.Name + ": " + k.Words(k.Range.Target)
			if steps := became.Line.StepsSaid(); became.Line.Is == say.IsCombo && steps != "" &&
				slices.Contains(k.Cues, steps) {
				words += ", each " + steps
			}
			parts = append(parts, words)
			if pen.IsOwn(k.Code) {
				shown.Yours = append(shown.Yours, YoursOf(&k, placed.Block))
			}
		}
		seconds += WorkOf(d, b, placed.Items)
		shown.Phase = &b.Phase
	}
	if b := d.Block(became.Block); b != nil && len(became.Items) > 0 {
		shown.Became = strings.Join(parts, "; ")
		shown.Lasts = clock.Lasting(int(seconds + 0.5))
		shown.Beside = beside(d, b, &became.Line)
	}
}

// stockWords say how much there is today: "There are today: 20 × hurdle".
func stockWords(stock map[string]int) string {
	var parts []string
	for _, name := range slices.Sorted(maps.Keys(stock)) {
		parts = append(parts, fmt.Sprintf("%d × %s", stock[name], name))
	}
	return "There are today: " + strings.Join(parts, ", ")
}

func rounds(l *say.Line) string {
	if l.Rounds == 0 {
		return ""
	}
	b := plan.Block{Rounds: l.Rounds, LeastRounds: l.LeastRounds}
	return b.RoundWords(speech.English, l.Rounds)
}

// beside is who does it, where, led by whom and when, as far as the line says so.
func beside(d *plan.Document, b *plan.Block, l *say.Line) string {
	parts := []string{rounds(l)}
	if len(l.Who) > 0 {
		parts = append(parts, d.Audience(b.Who))
	}
	if l.Where != "" {
		parts = append(parts, d.ZoneName(b.Zone))
	}
	if l.Leader != "" {
		parts = append(parts, d.LeaderName(b.Leader))
	}
	parts = append(parts, d.HeldWords(b), strings.Join(l.Cues, "; "))
	return shell.Joined(" · ", parts...)
}

// doubts are what the coach should look at.
func (h *Line) doubts(became *pen.Became) {
	l := &became.Line
	if became.Problem != "" {
		h.Doubts = append(h.Doubts, became.Problem)
	}
	list := l.Drills
	if l.Is == say.IsDrill {
		list = []say.Line{*l}
	}
	for _, line := range list {
		if line.Code == "" && became.Block != "" && len(line.Likely) > 0 {
			h.Doubts = append(h.Doubts, "Or did you mean "+strings.Join(line.Likely, ", ")+"?")
		}
		if line.Note != "" && l.Is == say.IsDrills {
			h.Doubts = append(h.Doubts, "Kept as a note: "+line.Note)
		}
	}
	if l.Note != "" && l.Is != say.IsNote {
		h.Doubts = append(h.Doubts, "Kept as a note: "+l.Note)
	}
}
