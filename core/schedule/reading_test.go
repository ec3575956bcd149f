package schedule_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
)

// evening is a training of three players: a jog for all, hops for two of them, a
// talk before, and one who comes late.
func evening() *plan.Document {
	jog := drill.Drill{Code: "jog", Name: "Jog", Aim: "Pulse up", Phases: []drill.Phase{drill.Raise}, Effort: 0.5,
		Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 120, Target: 240, Max: 300, Step: 30}}
	hops := drill.Drill{Code: "hops", Name: "Hops", Aim: "Springy feet", Phases: []drill.Phase{drill.Potentiate},
		Effort: 0.9, Unit: "hops", ContactsPerUnit: 2,
		Dose: drill.Dose{Kind: drill.Count, ActSeconds: 15}, Range: drill.Range{Min: 2, Target: 4, Max: 6, Step: 1}}
	return &plan.Document{
		Format: plan.Format,
		Title:  "Thursday",
		Kind:   plan.Training,
		Party: plan.Party{Players: []plan.Player{{ID: "p1", Roster: 11, First: "Ada", Last: "Moss"},
			{ID: "p2", Roster: 12, First: "Bo", Last: "Lind"}, {ID: "p3", First: "Cy", Late: 120}},
			Units:        []plan.Unit{{ID: "u", Name: "Pair", Players: []string{"p1", "p2"}}},
			Restrictions: []plan.Restriction{{Player: "p2", MaxMinutes: 20}}},
		Site: plan.Site{Place: "Tidegate"},
		Hours: plan.Hours{StartName: "Start", Start: clock.Start{Local: "2026-11-26T18:50", Zone: "Europe/London"},
			Open: clock.BeforeStart(1200), Margin: 120},
		Work: plan.Work{Fixed: []plan.Fixed{{ID: "talk", Name: "Talk", Who: []string{plan.Everyone},
			Span: plan.Span{From: clock.BeforeStart(1100), To: clock.BeforeStart(1000)}, Active: true}},
			Method: plan.DefaultMethod, Blocks: []plan.Block{
				{ID: "jog", Name: "Jog", Phase: drill.Raise, Who: []string{plan.Everyone}, Priority: plan.Must,
					Excusable: true, Items: []plan.Item{{Drill: jog}}},
				{ID: "hops", Name: "Hops", Phase: drill.Potentiate, Who: []string{"u"}, Priority: plan.Could,
					Items: []plan.Item{{Drill: hops}}},
			}},
	}
}

func fitted(t testing.TB, d *plan.Document) *schedule.Schedule {
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	return s
}

func ExampleFit() {
	d := evening()
	s, _ := schedule.Fit(context.Background(), d, 0)
	for _, b := range s.Blocks(d) {
		fmt.Println(b.Name, b.Start.ToGo(), clock.Duration(b.Length()), b.Doses())
	}
	// Output:
	// Jog 8′40″ 4:20 [4 min]
	// Hops 4′20″ 2:20 [4 hops, 2 in turn]
}

func TestABlockIsReadWithItsSchedule(t *testing.T) {
	d := evening()
	s := fitted(t, d)
	blocks := s.Blocks(d)
	jog, hops := &blocks[0], &blocks[1]
	assert.Equal(t, []string{"p1", "p2"}, hops.Members)
	assert.True(t, hops.Has("p2"))
	assert.False(t, hops.Has("p3"))
	assert.Equal(t, 4, hops.Amount(0))
	assert.LessOrEqual(t, jog.End, hops.Start, "the phases come in their order")
	assert.Equal(t, 4, (&schedule.Block{Block: hops.Block}).Amount(0), "and stands at its target")
}

func TestAnEventSaysWhatItIs(t *testing.T) {
	d := evening()
	events := fitted(t, d).Events(d)
	require.Len(t, events, 2)
	byName := map[string]schedule.Event{}
	for _, e := range events {
		byName[e.Name] = e
	}
	talk, late := byName["Talk"], byName["Not there yet"]
	assert.Equal(t, []any{clock.Offset(-1100), clock.Offset(-1000), true, ""},
		[]any{talk.Start, talk.End, talk.Active, talk.Late()})
	assert.Equal(t, []any{"p3", clock.Offset(-1200), clock.Offset(-1080)}, []any{late.Late(), late.Start, late.End})
}

func TestACutSaysWhatChanges(t *testing.T) {
	d := evening()
	cuts, err := schedule.Cutdowns(context.Background(), d, 0)
	require.NoError(t, err)
	require.Greater(t, len(cuts), 1)
	assert.Zero(t, cuts[0].Less)
	assert.Empty(t, cuts[0].Says, "the plan as it is")
	for n, c := range cuts[1:] {
		assert.Greater(t, c.Less, cuts[n].Less)
		assert.Equal(t, cuts[0].Minutes-c.Less, c.Minutes)
		assert.LessOrEqual(t, c.Work, cuts[n].Work)
	}
	least := cuts[len(cuts)-1]
	assert.NotEmpty(t, least.Says)
	jog := fitted(t, d).Blocks(d)[0]
	assert.Less(t, least.Work, int(jog.End-jog.Start)+140, "the could goes before the must is cut to its least")
	d.Blocks[0].Items[0].Drill.Range.Step = 0
	_, err = schedule.Cutdowns(context.Background(), d, 0)
	var wrong plan.Problems
	assert.ErrorAs(t, err, &wrong)
}

func TestWhatIsCarriedOutIsWhatIsInUseAtOnce(t *testing.T) {
	d := evening()
	each, lane := d.Blocks[0].Items[0].Drill, d.Blocks[1].Items[0].Drill
	each.Kit, lane.LaneKit = []string{"band", "boots", "wall"}, []string{"hurdle"}
	d.Blocks[0].Items[0].Drill, d.Blocks[1].Items[0].Drill = each, lane
	d.Blocks[1].Items = append(d.Blocks[1].Items, plan.Item{Drill: each})
	blocks := fitted(t, d).Blocks(d)
	assert.Equal(t, []schedule.Kit{{Name: "band", Pieces: 3}, {Name: "boots"}, {Name: "hurdle", Pieces: 1}},
		schedule.Carried(blocks), "one after the other")
	blocks[1].Start, blocks[1].End = blocks[0].Start, blocks[0].End
	assert.Equal(t, 5, schedule.Carried(blocks)[0].Pieces, "side by side")
}

func TestRoundsAreSaidWithTheirRest(t *testing.T) {
	for want, b := range map[string]plan.Block{
		"":                           {},
		"2 rounds":                   {Rounds: 2},
		"3 rounds, 30 s between":     {Rounds: 3, RoundRest: 30},
		"4 rounds, 1:30 min between": {Rounds: 4, RoundRest: 90},
	} {
		one := schedule.Block{Block: &b}
		assert.Equal(t, want, one.How(speech.English))
	}
	once := plan.Block{Rounds: 1, RoundRest: 30}
	assert.Empty(t, (&schedule.Block{Block: &once}).How(speech.English), "once is not said")
}

// Of "2–3 sets" two are done before reps go, and never one while the musts fit.
func TestSetsGoDownToWhatWillDo(t *testing.T) {
	b := &plan.Block{Items: []plan.Item{{Written: true, Drill: drill.Drill{Name: "Squats",
		Range: drill.Range{Min: 4, Target: 8, Max: 12, Step: 1},
		Dose:  drill.Dose{Kind: drill.Reps, Sets: 3, LeastSets: 2, Reps: 8, Sides: 1, RepSeconds: 3}}}}}
	assert.Equal(t, "2–3 × 8 reps", b.Items[0].Drill.Words(8))
	dosings := schedule.Dosings(b, drill.Group{People: 4, Lanes: 4}, false)
	for _, d := range dosings {
		assert.GreaterOrEqual(t, d.Less.Of(b).Items[0].Drill.Dose.Sets, 2, d.Seconds)
	}
	next := dosings[len(dosings)-2]
	assert.Equal(t, "2 × 8 reps", next.Less.Of(b).Items[0].Drill.Words(next.Amounts[0]))
}
