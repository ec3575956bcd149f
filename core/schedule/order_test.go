package schedule_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// own is a coach's own list for ten players, in no method's order.
func own() *plan.Document {
	d := &plan.Document{
		Format: plan.Format,
		Title:  "Own",
		Kind:   plan.Match,
		Party: plan.Party{Units: []plan.Unit{{ID: "few", Name: "Few", Players: []string{"p1", "p2"}},
			{ID: "rest", Name: "Rest", Players: []string{"p3", "p4", "p5"}}}},
		Hours: plan.Hours{StartName: "Start", Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(3600), Margin: 480},
		Work: plan.Work{Method: plan.DefaultMethod},
	}
	for _, id := range []string{"p1", "p2", "p3", "p4", "p5", "p6"} {
		d.Players = append(d.Players, plan.Player{ID: id, First: id})
	}
	d.Fixed = []plan.Fixed{{ID: "kit", Name: "Kit on", Who: []string{plan.Everyone},
		Span: plan.Span{From: clock.BeforeStart(1500), To: clock.BeforeStart(1380)}}}
	phases := []drill.Phase{drill.Potentiate, drill.Raise, drill.Sport, drill.Mobilise, drill.Raise, drill.Activate}
	for n, id := range []string{"a", "b", "c", "d", "e", "f"} {
		k := drill.Drill{Code: id, Name: id, Aim: "why", Phases: []drill.Phase{phases[n]}, Effort: 0.5,
			Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 60, Target: 120, Max: 240, Step: 30}}
		who := []string{plan.Everyone}
		if id == "c" {
			who = []string{"few"}
		}
		d.Blocks = append(d.Blocks, plan.Block{ID: id, Name: id, Aim: "why", Phase: phases[n], Who: who,
			Priority: plan.Must, Items: []plan.Item{{Drill: k}}})
	}
	return d
}

func placed(t require.TestingT, d *plan.Document) map[string]*schedule.Block {
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	require.True(t, s.Result.Feasible, s.Result.Why)
	at := map[string]*schedule.Block{}
	for _, b := range s.Blocks(d) {
		at[b.ID] = &b
	}
	return at
}

// inOrder checks that blocks which share a player run as they are listed.
func inOrder(t assert.TestingT, d *plan.Document, at map[string]*schedule.Block) {
	for i := range d.Blocks {
		for j := i + 1; j < len(d.Blocks); j++ {
			a, b := at[d.Blocks[i].ID], at[d.Blocks[j].ID]
			both := slices.ContainsFunc(a.Members, b.Has)
			assert.False(t, both && a.Kept && b.Kept && a.End > b.Start && !(d.Blocks[i].Loose && d.Blocks[j].Loose),
				"%s before %s", a.ID, b.ID)
		}
	}
}

// What everybody does at a minute stays in the list's order, also where nobody knows what it
// is good for: a boat that is carried out.
func TestWhatEverybodyDoesAtAMinuteKeepsTheOrder(t *testing.T) {
	d := own()
	carry := d.Block("d")
	pin := clock.BeforeStart(1500)
	d.Fixed, carry.Phase, carry.Pin = nil, drill.Own, &pin
	at := placed(t, d)
	inOrder(t, d, at)
	assert.Equal(t, clock.Offset(-1500), at["d"].Start)
}

// What stands between two blocks that are held runs between them, also where the second is for a few and far
// from the end.
func TestWhatIsListedBetweenTwoMinutesRunsBetweenThem(t *testing.T) {
	d := own()
	d.Fixed = nil
	first, few := clock.BeforeStart(2700), clock.BeforeStart(2100)
	d.Block("a").Pin, d.Block("c").Pin = &first, &few
	at := placed(t, d)
	inOrder(t, d, at)
	assert.Equal(t, []clock.Offset{-2700, -2100}, []clock.Offset{at["a"].Start, at["c"].Start})
	assert.Less(t, at["b"].Start, clock.Offset(-2100))
}

// Whatever phases a coach lists in whatever order, that is the order they run in, and
// moving a block, turning a dose or moving the start leaves it so.
func TestTheListIsTheOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := own()
		ids := []string{"a", "b", "c", "d", "e", "f", ""}
		for range rapid.IntRange(0, 5).Draw(t, "edits") {
			switch rapid.IntRange(0, 3).Draw(t, "edit") {
			case 0:
				d.Move(rapid.SampledFrom(ids[:6]).Draw(t, "block"), rapid.SampledFrom(ids).Draw(t, "before"))
			case 1:
				d.Step(rapid.SampledFrom(ids[:6]).Draw(t, "block"), rapid.SampledFrom([]int{-1, 1}).Draw(t, "by"))
			case 2:
				d.StepDose(rapid.SampledFrom(ids[:6]).Draw(t, "block"), 0, rapid.IntRange(-3, 3).Draw(t, "steps"))
			case 3:
				d.SetMargin(rapid.IntRange(0, 900).Draw(t, "margin"))
			}
		}
		inOrder(t, d, placed(t, d))
	})
}

func TestHoldsAreKept(t *testing.T) {
	d := own()
	moment := func(seconds int) *clock.Moment { m := clock.BeforeStart(seconds); return &m }
	hold := func(block string, to plan.Holds) {
		_, err := d.SetHold(block, to)
		require.NoError(t, err)
	}
	hold("b", plan.Holds{Hold: plan.Hold{Before: "kit"}})
	hold("d", plan.Holds{Hold: plan.Hold{After: "kit", Until: moment(900)}})
	hold("e", plan.Holds{Hold: plan.Hold{Straight: "d"}})
	at := placed(t, d)
	inOrder(t, d, at)
	assert.LessOrEqual(t, at["b"].End, clock.Offset(-1500))
	assert.GreaterOrEqual(t, at["d"].Start, clock.Offset(-1380))
	assert.LessOrEqual(t, at["d"].End, clock.Offset(-900))
	assert.Equal(t, at["d"].End, at["e"].Start)
	assert.Equal(t, "not before 20′, straight after d", func() string {
		b := d.Blocks[4].Hold
		b.From = moment(1200)
		return d.HeldWords(&plan.Block{Hold: b})
	}())

	// What a few do at a minute goes before what the list has before it, if that is for
	// more people and much later; a slot bounds a block and fills nothing.
	hold("c", plan.Holds{At: moment(2700)})
	at = placed(t, d)
	assert.Equal(t, clock.Offset(-2700), at["c"].Start)
	assert.Greater(t, at["a"].Start, at["c"].End, "a is for everybody, and packed towards the start")
	hold("c", plan.Holds{Hold: plan.Hold{From: moment(3000), Until: moment(2770)}})
	at = placed(t, d)
	assert.Equal(t, 140, at["c"].Length())

	for problem, to := range map[string]plan.Holds{
		"not before 20′ and done by 30′ leaves no time between": {Hold: plan.Hold{From: moment(1200),
			Until: moment(1800)}},
		"90′ lies outside the work, which runs from 60′ to 8′":  {At: moment(5400)},
		"that lies outside the work, which runs from 60′ to 8′": {Hold: plan.Hold{From: moment(60)}},
		"e already comes after d: both cannot come first":       {Hold: plan.Hold{Straight: "e"}},
		"a block cannot follow itself":                          {Follows: []string{"d"}},
		"that is not among what the day holds":                  {Hold: plan.Hold{Before: "toss"}},
		"at 10′ contradicts the rest of it": {At: moment(600),
			Hold: plan.Hold{Until: moment(1200)}},
		"the block that it should follow is no longer in the plan": {Follows: []string{"zz"}},
	} {
		before := d.Clone()
		_, err := d.SetHold("d", to)
		assert.ErrorContains(t, err, problem)
		assert.Equal(t, before, d)
	}
	_, err := d.RemoveFixed("kit")
	require.NoError(t, err)
	_, err = d.Remove("d")
	require.NoError(t, err)
	assert.Empty(t, d.HeldWords(d.Block("b"))+d.HeldWords(d.Block("e")), "what a hold named is gone")
}
