package schedule_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// halves is a plan of four players in two units, with an empty list of the kind.
func halves(t *testing.T, when plan.When) (*plan.Document, *plan.List) {
	d := &plan.Document{
		Format: plan.Format,
		Title:  "A v B",
		Kind:   plan.Match,
		Party: plan.Party{Players: []plan.Player{{ID: "a", First: "A"}, {ID: "b", First: "B"}, {ID: "c", First: "C"},
			{ID: "d", First: "D"}}, Units: []plan.Unit{{ID: "x", Name: "X", Players: []string{"a", "b"}},
			{ID: "y", Name: "Y", Players: []string{"c", "d"}}}},
		Hours: plan.Hours{StartName: "Kick-off", Start: clock.Start{Local: "2026-11-28T15:00", Zone: "UTC"},
			Open: clock.BeforeStart(2400), Margin: 300},
		Work: plan.Work{Method: plan.DefaultMethod},
	}
	id, err := d.AddList(when)
	require.NoError(t, err)
	return d, d.List(id)
}

func stretch(id, who string, least, target int) plan.Block {
	k := drill.Drill{Code: id, Name: id, Aim: "Aim", Phases: []drill.Phase{drill.After},
		Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: least, Target: target, Max: target, Step: 5}}
	return plan.Block{ID: id, Name: id, Phase: drill.After, Who: []string{who}, Priority: plan.Should,
		Items: []plan.Item{{Drill: k}}}
}

func TestWhatComesAfterRunsForwardFromTheEnd(t *testing.T) {
	d, l := halves(t, plan.AfterEnd)
	l.Blocks = []plan.Block{stretch("walk", plan.Everyone, 60, 100), stretch("x-roll", "x", 60, 100),
		stretch("y-roll", "y", 60, 40), stretch("breathe", plan.Everyone, 60, 60)}
	l.Blocks[2].Items[0].Drill.Range.Min = 40
	require.NoError(t, d.Validate())
	line := schedule.Lists(d)[0]
	var at [][2]clock.Offset
	for _, b := range line.Schedule.Blocks(line.Document) {
		at = append(at, [2]clock.Offset{b.Start, b.End})
	}
	assert.Equal(t, [][2]clock.Offset{{0, 120}, {120, 240}, {120, 180}, {240, 320}}, at,
		"the units side by side, then together")
	assert.Equal(t, 320, line.Seconds())
	assert.Empty(t, line.Findings())
}

func TestAHalfTimeListEndsAtItsMarginAndShrinksToFit(t *testing.T) {
	d, l := halves(t, plan.AtBreak)
	l.Length, l.Margin = 400, 60
	l.Blocks = []plan.Block{stretch("walk", plan.Everyone, 60, 200), stretch("sprints", plan.Everyone, 60, 200)}
	l.Blocks[1].Items[0].Drill.Effort = 0.95
	line := schedule.Lists(d)[0]
	blocks := line.Schedule.Blocks(line.Document)
	assert.EqualValues(t, -60, blocks[1].End, "a minute before the restart")
	assert.Equal(t, blocks[0].End, blocks[1].Start)
	assert.GreaterOrEqual(t, int(blocks[0].Start), -400)
	assert.Zero(t, line.Over)
	assert.Contains(t, blocks[0].Cut, "shorter")
	l.Length = 150
	line = schedule.Lists(d)[0]
	assert.Equal(t, 70, line.Over, "two times 80 and the margin in 150")
	assert.Contains(t, line.Findings()[0], "1:10 min more than there are")
}

func TestAListHasItsOwnFewRules(t *testing.T) {
	d, l := halves(t, plan.AfterEnd)
	l.Blocks = []plan.Block{stretch("calf", plan.Everyone, 1, 1)}
	k := &l.Blocks[0].Items[0].Drill
	k.Dose, k.Static = drill.Dose{Kind: drill.Hold, Sets: 1, Sides: 2, HoldSeconds: 45}, true
	assert.Contains(t, schedule.Lists(d)[0].Findings()[0], "10 to 30 s")
	k.Dose.HoldSeconds = 30
	assert.Empty(t, schedule.Lists(d)[0].Findings(), "static work is welcome here")
	l.When, l.Margin = plan.AtBreak, 0
	assert.Len(t, schedule.Lists(d)[0].Findings(), 2, "but not before play, and nothing wakes up")
}

// A unit goes on without who comes late and does as much as before; a pair waits, for one
// cannot do it alone.
func TestAUnitDoesNotWaitForWhoIsLate(t *testing.T) {
	d, _ := halves(t, plan.OnBench)
	d.Lists = nil
	d.Units[0].Players = []string{"a", "b", "c"}
	block := func(id, who string) plan.Block {
		b := stretch(id, who, 60, 240)
		b.Phase, b.Items[0].Drill.Phases = drill.Raise, []drill.Phase{drill.Raise}
		b.Pin = nil
		return b
	}
	d.Blocks = []plan.Block{block("unit", "x"), block("pair", "y")}
	at := func() (unit, pair schedule.Block) {
		blocks := fitted(t, d).Blocks(d)
		require.True(t, blocks[0].Kept && blocks[1].Kept)
		return blocks[0], blocks[1]
	}
	was, _ := at()
	d.Players[0].Late, d.Players[3].Late = 2000, 2000 // they are there 100 s before work ends
	d.Blocks[1].Items[0].Drill.Range.Min = 40
	unit, pair := at()
	assert.Equal(t, was.Length(), unit.Length(), "it is not cut down to the minutes of who is late")
	require.Len(t, unit.Missed, 1)
	assert.Equal(t, "a", unit.Missed[0].Player)
	assert.GreaterOrEqual(t, int(pair.Start), -400, "both of a pair are there")
	assert.Empty(t, pair.Missed)
}
