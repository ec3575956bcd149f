package office_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/whatif"
	"cuestart/store"
)

// At every second each player is in one group, which does what the schedule has them do;
// a place holds who is there; walks are told where the ground was laid out.
func TestAMomentOfTheRunIn(t *testing.T) {
	p := open(t, "moment", true)
	b := board(t, p, 1)
	walks, lost := 0, 0
	for at := clock.Offset(-3600); at <= 0; at += 35 {
		m := b.MomentOf(at)
		seen := map[string]int{}
		there := map[string]int{}
		for _, g := range m.Groups {
			for _, id := range g.Players {
				seen[id]++
			}
			if g.Block != nil {
				assert.True(t, g.Block.Start <= at && at < g.Block.End)
				assert.Empty(t, g.Event)
				there[g.Block.Zone] += len(g.Players)
			}
			if g.Next != nil {
				assert.Greater(t, g.Next.Start, at)
			}
			if g.Until != 0 {
				assert.Greater(t, g.Until, at)
			}
			if w := g.Walk; w != nil {
				walks++
				assert.NotEqual(t, g.Block.Zone, g.Next.Zone)
				assert.Equal(t, w.There < w.Needs, w.Tight())
				assert.InDelta(t, float64(w.Metres)/1.4, w.Needs, 1)
			}
		}
		assert.Len(t, seen, len(b.Document.Players))
		for _, place := range m.Places {
			assert.Equal(t, there[place.ID], place.People, place.Name)
			if place.LostIn > 0 {
				lost++
			}
		}
	}
	assert.Positive(t, walks)
	assert.Positive(t, lost, "the ground is lost at ten to go")
}

// Where the club lays a place anew, plans that were made before show it there, and a plan
// that is changed takes it along; a place of another ground is not touched.
func TestTheGroundIsLaidOnce(t *testing.T) {
	p := open(t, "laid", true)
	g, err := p.Keep.Ground(ctx, 1)
	require.NoError(t, err)
	venue := g.Venues[0]
	to := plan.Lie{X: 10, Y: 20, Long: 30, Wide: 15, Turn: 45}
	require.NoError(t, p.Keep.Lay(ctx, coach, venue.ID, map[uint64]plan.Lie{venue.Zones[3].ID: to, 9999: to}))
	assert.ErrorIs(t, p.Keep.Lay(ctx, coach, 77, nil), planner.ErrNotFound)
	assert.ErrorIs(t, p.Keep.Lay(ctx, store.Account{ID: 1, ClubID: 2, Role: store.Coach}, venue.ID, nil),
		planner.ErrNotFound)
	var wrong plan.Problems
	require.ErrorAs(t, p.Keep.Lay(ctx, coach, venue.ID, map[uint64]plan.Lie{venue.Zones[3].ID: {Long: 900, Wide: 1}}),
		&wrong)
	b := board(t, p, 1)
	assert.Equal(t, to, b.Ground()[3].Lie)
	assert.NotEqual(t, to, *b.Document.Zone("hall").Lies, "the plan is as it was")
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 1,
		func(d *plan.Document) (string, error) { return d.SetPriority("bands", plan.Could) })))
	assert.Equal(t, to, *board(t, p, 1).Document.Zone("hall").Lies)
	said, err := p.Keep.TakeBack(ctx, coach)
	require.NoError(t, err)
	assert.Equal(t, "the plan of Tidegate", said)
}

// A change that was made on an older plan joins what was changed since. On the same block it
// says who did what, and is made all the same where that is insisted on; a ruling made
// meanwhile stays in force.
func TestChangesJoin(t *testing.T) {
	p := open(t, "joins", true)
	ranks := func(block string, to plan.Priority) boards.Edit {
		return func(d *plan.Document) (string, error) { return d.SetPriority(block, to) }
	}
	physio := store.Account{ID: 2, ClubID: 1, Role: store.Medical}
	_, err := p.Save(ctx, physio, "ruled", store.Change{Owner: players(t, p)["Mara"].ID,
		Is: club.Restriction{NoOverhead: true, From: "2026-11-25", Until: "2026-11-30"}})
	require.NoError(t, err)
	require.NoError(t, does(p.Boards.TakeRulings(ctx, coach, 1)))
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 1, ranks("bands", plan.Could))))
	b := board(t, p, 1)
	assert.Len(t, b.Document.Restrictions, 1, "who planned on the older plan takes no ruling away")
	assert.Equal(t, plan.Could, b.Document.Block("bands").Priority)
	assert.EqualValues(t, 3, b.Revision)

	err = does(p.Boards.Change(ctx, coach, 1, 1, ranks("bands", plan.Must)))
	var contested *boards.Contested
	require.ErrorAs(t, err, &contested)
	assert.Equal(t, []string{"Bands"}, contested.Names)
	assert.Equal(t, "Bands is a could", contested.Did)
	assert.Equal(t, "Bands is a must", contested.Mine)
	assert.Contains(t, err.Error(), "changed Bands meanwhile")
	assert.EqualValues(t, 3, board(t, p, 1).Revision, "nothing is changed")
	require.NoError(t, does(p.Boards.Change(boards.Insist(ctx), coach, 1, 1, ranks("bands", plan.Must))))
	b = board(t, p, 1)
	assert.Equal(t, plan.Must, b.Document.Block("bands").Priority)
	assert.Len(t, b.Document.Restrictions, 1)
	assert.ErrorIs(t, does(p.Boards.Change(ctx, coach, 1, 77, ranks("bands", plan.Must))), store.ErrStale)
	// The same change by both is no clash, and nothing more to keep.
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 3, ranks("bands", plan.Must))))
	assert.EqualValues(t, 4, board(t, p, 1).Revision)
}

// crowded is a plan that a few steps do not fit best.
func crowded() *plan.Document {
	d := &plan.Document{
		Format: plan.Format,
		Title:  "Crowded",
		Kind:   plan.Training,
		Hours: plan.Hours{StartName: "Start", Start: clock.Start{Local: "2026-12-05T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(2400), Margin: 300},
		Work: plan.Work{Method: plan.DefaultMethod},
	}
	for i := range 4 {
		d.Zones = append(d.Zones, plan.Zone{ID: fmt.Sprint("z", i), Name: fmt.Sprint("Box ", i), Capacity: 8, Lanes: 4})
		d.Leaders = append(d.Leaders, plan.Leader{ID: fmt.Sprint("l", i), Name: fmt.Sprint("Leader ", i)})
	}
	for i := range 36 {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i), Number: i + 1, First: fmt.Sprint("Name", i)})
	}
	for i := range 36 {
		seconds := 60 + 30*(i*7%5)
		who := []string{fmt.Sprint("p", i), fmt.Sprint("p", (i*5+3)%36), fmt.Sprint("p", (i*11+7)%36)}
		d.Blocks = append(d.Blocks, plan.Block{ID: fmt.Sprint("b", i), Name: fmt.Sprint("Block ", i), Aim: "Ready",
			Phase: drill.Sport, Loose: true, Who: who, Zone: fmt.Sprint("z", i%4), Leader: fmt.Sprint("l", (i+i/4)%4),
			Priority: plan.Priorities[i%3],
			Items: []plan.Item{{Drill: drill.Drill{Code: "x", Name: "Work", Aim: "Ready",
				Phases: []drill.Phase{drill.Sport}, Effort: 0.6, Dose: drill.Dose{Kind: drill.Time},
				Range: drill.Range{Min: seconds / 2, Target: seconds, Max: seconds, Step: 15}}}}})
	}
	return d
}

// What a longer search finds is offered in words and put in place by a press alone; once
// the plan is another, it is no more offered.
func TestABetterFitIsOffered(t *testing.T) {
	p := open(t, "better", true)
	id, err := p.Diary.AddPlan(ctx, coach, 1, crowded())
	require.NoError(t, err)
	was := board(t, p, id)
	require.False(t, was.Schedule.Result.Proven())
	found, err := p.WhatIf.Better(ctx, 1, id)
	require.NoError(t, err)
	require.NotNil(t, found)
	assert.Regexp(t, `less waiting|fits in too|longer|shorter|a calmer order`, found.Says)
	assert.Equal(t, was.Schedule, board(t, p, id).Schedule, "nothing is put in place by itself")
	assert.ErrorIs(t, does(p.WhatIf.TakeBetter(ctx, coach, id, was.Revision+1)), store.ErrStale)
	is, err := p.WhatIf.TakeBetter(ctx, coach, id, was.Revision)
	require.NoError(t, err)
	assert.True(t, is.Schedule.Result.Beats(was.Schedule.Result))
	assert.Equal(t, was.Document.Blocks, is.Document.Blocks)
	assert.Contains(t, is.Undo, "a better fit")
	assert.ErrorIs(t, does(p.WhatIf.TakeBetter(ctx, coach, id, is.Revision)), planner.ErrNothing,
		"there is none above it")
	require.NoError(t, does(p.Boards.Undo(ctx, coach, id, is.Revision)))
	assert.Equal(t, was.Schedule.Result.Value, board(t, p, id).Schedule.Result.Value)
	_, err = p.WhatIf.Better(ctx, 2, id)
	assert.ErrorIs(t, err, planner.ErrNotFound, "another club's is not there")
}

// What is supposed is another board, and leaves the plan alone until it is taken.
func TestSupposingChangesNothing(t *testing.T) {
	p := open(t, "suppose", true)
	b := board(t, p, 1)
	what := whatif.Supposed{Is: schedule.IfLeader, ID: "pell"}
	then, err := p.WhatIf.Suppose(ctx, 1, b, what)
	require.NoError(t, err)
	assert.Equal(t, "without Pell", then.Said)
	assert.NotEmpty(t, then.Changes)
	assert.Nil(t, then.Document.Leader("pell"))
	for _, block := range then.Document.Blocks {
		assert.NotEqual(t, "pell", block.Leader)
	}
	assert.NotNil(t, board(t, p, 1).Document.Leader("pell"))
	assert.NotPanics(t, func() { p.Boards.Likely(then.Board) }, "and is judged as any board is")
	is, err := p.WhatIf.TakeSupposed(ctx, coach, 1, 1, what)
	require.NoError(t, err)
	assert.Equal(t, then.Document.Blocks, is.Document.Blocks)
	assert.Equal(t, "taken: without Pell", is.Undo)
	_, err = p.WhatIf.TakeSupposed(ctx, coach, 1, is.Revision, whatif.Supposed{Is: schedule.IfStart, Minutes: -10000})
	assert.Error(t, err, "a start that has passed")
}
