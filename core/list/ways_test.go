package list_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
)

// way is the order in which a player's entry goes through its drills, with what is waited.
func way(e *list.Entry) string {
	var all []string
	for _, s := range e.Steps() {
		name := e.Drills[s.Doing].Drill.Name
		if len(s.Ways) > 0 && s.Ways[0] == drill.Wait {
			name = "wait"
		}
		if n := len(all); n == 0 || all[n-1] != name {
			all = append(all, name)
		}
	}
	return strings.Join(all, ", ")
}

// own is a player's entry of a block.
func own(t *testing.T, d *plan.Document, player, block string) *list.Entry {
	entries := list.Of(d, fitted(t, d), player)
	for i := range entries {
		if entries[i].Key == block {
			return &entries[i]
		}
	}
	require.Fail(t, "no "+block)
	return nil
}

func TestEachBeginsAtTheirStation(t *testing.T) {
	d := evening()
	b := &d.Blocks[0]
	b.Form, b.Items = plan.AtStations, []plan.Item{{Drill: jog}, {Drill: swings}}
	assert.Equal(t, "Jog, Leg swings", way(own(t, d, "p1", "all")))
	second := own(t, d, "p2", "all")
	assert.Equal(t, "Leg swings, Jog", way(second))
	assert.Equal(t, "2 stations of 2, 24 s each, change in 15 s, you begin at Leg swings", second.How(speech.English))
}

func TestAChoiceShowsWhatAPlayerDoes(t *testing.T) {
	d := evening()
	b := &d.Blocks[0]
	b.Form, b.Items = plan.ByChoice, []plan.Item{{Drill: jog}, {Drill: swings}}
	b.Choices = plan.Choices{"p1": {1}}
	e := own(t, d, "p1", "all")
	assert.Equal(t, "Leg swings", way(e))
	assert.True(t, e.Drills[0].Other)
	assert.NotContains(t, e.Kit(), "bottle", "nobody carries out what they do not use")
	assert.Equal(t, "one of: Jog 2, Leg swings 2", e.How(speech.English))
}

func TestWhoTakesTurnsWaitsForTheirs(t *testing.T) {
	d := evening()
	d.Blocks[0].Items[0].AtOnce = 2
	first, last := own(t, d, "p1", "all"), own(t, d, "p4", "all")
	assert.Equal(t, []string{"Jog, wait", "wait, Jog"}, []string{way(first), way(last)})
	assert.Equal(t, "4 lengths of 20 m, turn 2 of 2", last.Drills[0].Words(speech.English))
	for _, e := range []*list.Entry{first, last} {
		steps := e.Steps()
		assert.LessOrEqual(t, steps[len(steps)-1].To, e.Seconds())
		for i := 1; i < len(steps); i++ {
			assert.GreaterOrEqual(t, steps[i].From, steps[i-1].To-1, "one after the other")
		}
	}
}

func TestOwnSidesAndWhatGoesAlongside(t *testing.T) {
	d := evening()
	d.Players[0].Foot, d.Players[1].Foot = drill.Left, drill.Both
	k := swings
	k.Dose.OwnSide, k.Dose.Sides = true, 1
	b := &d.Blocks[1]
	b.Items, b.Rounds = []plan.Item{{Drill: k}, {Drill: rolls, Alongside: true}}, 0
	left, both := own(t, d, "p1", "hips"), own(t, d, "p2", "hips")
	assert.Equal(t, "8, left", left.Drills[0].Words(speech.English))
	assert.Equal(t, "8 a side", both.Drills[0].Words(speech.English))
	assert.Equal(t, "6 rolls, alongside", left.Drills[1].Words(speech.English))
	assert.Equal(t, clock.CeilTo(24+20, clock.Grid), left.Seconds(),
		"as long as who uses both needs; what goes alongside costs nothing")
	assert.Equal(t, "Leg swings", way(left))
}

func TestWhatAPersonIsToldOfTheirDay(t *testing.T) {
	d := evening()
	d.Players[2].Late = 600 // after the talk has begun
	d.Players[3].Late = 100
	d.Bring = []plan.Bring{{What: "ice", Who: "p3"}, {What: "flags", Who: "ida"}, {What: "bibs"}}
	d.Blocks[2].Items[0].Drill.Cues = []string{"Throw to {catcher}"}
	d.Facing = []plan.Fact{{Name: "catcher", Says: "a left-hander"}}
	assert.NotContains(t, names(list.Of(d, fitted(t, d), "p3")), "Team talk", "it is over before they come")
	assert.Contains(t, names(list.Of(d, fitted(t, d), "p4")), "Team talk")
	assert.Equal(t, []string{"Throw to a left-hander"}, own(t, d, "p4", "arms").Drills[0].Drill.Cues)
	assert.Equal(t, []string{"ice"}, list.Brought(d, "p3"))
	assert.Equal(t, []string{"flags"}, list.Brought(d, "ida"))
}

// Who comes late may work on over the line-up, and nobody else does.
func TestALatecomerMayWorkOn(t *testing.T) {
	d := evening()
	d.Fixed = append(d.Fixed, plan.Fixed{ID: "up", Name: "Line up", Who: []string{plan.Everyone},
		Span: plan.Span{From: clock.BeforeStart(120), To: clock.BeforeStart(0)}})
	d.Players[0].Late, d.Players[0].Over = 900, true
	c, err := schedule.Compile(d)
	require.NoError(t, err)
	assert.Equal(t, []clock.Offset{0, -120}, []clock.Offset{c.Problem.Players[0].Due, c.Problem.Players[1].Due})
	for _, f := range c.Problem.Fixed {
		if f.ID == "up" {
			assert.Equal(t, []string{"p2", "p3", "p4"}, f.Players)
		}
	}
}
