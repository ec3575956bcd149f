package list

import (
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/speech"
)

// Words say how much of the drill a person does, and how they share it: "12 reps, 4 lines
// of 11", "60 s, turn 2 of 3", "2 min, alongside".
func (d *Doing) Words(say speech.Say) string {
	words := d.Drill.WordsIn(say, d.Amount)
	switch {
	case d.Beside:
		return words + ", " + say("alongside")
	case d.Turn > 0:
		return words + ", " + say("turn %d of %d", d.Turn, d.Turns)
	case d.Turns > 0:
		return words + ", " + say("%s of %d", drill.NumberIn(say, d.Turns, "turns"), d.AtOnce)
	}
	if lines := d.Drill.Lines(say, d.group); lines != "" {
		return words + ", " + lines
	}
	return words
}

// How says how the block is run, for one person: where they begin, what they chose.
func (e *Entry) How(say speech.Say) string {
	if e.Block == nil {
		return ""
	}
	how := e.Block.How(say)
	if e.Block.Form == plan.AtStations && len(e.Way) > 0 {
		return how + ", " + say("you begin at %s", e.Block.Items[e.Way[0]].Drill.Name)
	}
	return how
}
