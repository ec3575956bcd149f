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

// Who comes late makes up what they missed, the pulse first, never longer than they missed,
// and nobody else does less or anything else for it.
func TestALatePlayersShortListMovesNobody(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := written(t, 120)
		inTime, err := schedule.Fit(context.Background(), d, 0)
		require.NoError(t, err)
		first := clock.Offset(0)
		for _, b := range inTime.Blocks(d) {
			if b.Kept && b.Has("p5") {
				first = min(first, b.Start)
			}
		}
		d.Players[5].Late = max(0, 120*60+300+int(first)+rapid.IntRange(30, 1500).Draw(t, "late"))
		s, err := schedule.Fit(context.Background(), d, 0)
		require.NoError(t, err)
		was, is := inTime.Blocks(d), s.All(d)
		for i := range was {
			assert.Equal(t, was[i].Named(), is[i].Named(), was[i].Name)
		}
		after, missed := s.Lateness(d, "p5")
		at := slices.IndexFunc(is, func(b schedule.Block) bool { return b.ID == schedule.ShortListID("p5") })
		if at < 0 {
			return
		}
		list := &is[at]
		require.Positive(t, after)
		assert.LessOrEqual(t, list.Length(), missed)
		here := -clock.Offset(120*60+300) + clock.Offset(d.Players[5].Late)
		assert.GreaterOrEqual(t, list.Start, here)
		assert.LessOrEqual(t, list.End, clock.Offset(-300))
		for n, item := range list.Items {
			assert.LessOrEqual(t, list.Amount(n), item.Drill.Range.Target)
		}
		for _, b := range is[:at] {
			if b.Kept && b.Has("p5") && b.Start >= here && !b.Excusable {
				assert.GreaterOrEqual(t, b.Start, list.End, "what needs them waits for nothing")
			}
			if b.Kept && b.Has("p5") && b.Start < here && slices.ContainsFunc(b.Items,
				func(i plan.Item) bool { return i.Drill.Effort >= drill.DynamicEffort && i.Drill.Effort < 0.9 }) &&
				b.End <= here {
				assert.GreaterOrEqual(t, list.Items[0].Drill.Effort, drill.DynamicEffort, "the pulse first")
			}
		}
	})
}

// The squad runs, stretches and sprints; who comes when the stretches end runs, stretches a
// little, and joins the sprints late: their list says so, and not that they do it all.
func TestALatePlayerJoinsTheOthers(t *testing.T) {
	d := evening()
	d.Fixed = nil
	d.Players = []plan.Player{{ID: "p1", First: "Ada"}, {ID: "p2", First: "Bo"}, {ID: "p3", First: "Cy"}}
	block := func(name string, effort float64, seconds int) plan.Block {
		return plan.Block{ID: name, Name: name, Phase: drill.Raise, Who: []string{plan.Everyone}, Priority: plan.Must,
			Excusable: true, Items: []plan.Item{{Written: true,
				Drill: drill.Drill{Code: name, Name: name, Aim: "why", Phases: []drill.Phase{drill.Raise},
					Effort: effort,
					Dose:   drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: seconds * 2 / 3, Target: seconds,
						Max: seconds, Step: 5}}}}}
	}
	d.Blocks = []plan.Block{block("Run", 0.5, 240), block("Reach", 0.3, 120), block("Sprint", 0.95, 300)}
	s := fitted(t, d)
	sprint := s.Blocks(d)[2]
	open, err := d.Open.Offset(s.Start)
	require.NoError(t, err)
	d.Players[2].Late = int(sprint.Start - open)
	s = fitted(t, d)
	after, missed := s.Lateness(d, "p3")
	assert.Equal(t, []int{400, 400}, []int{after, missed})
	assert.Equal(t, "Comes 6:40 min after work begins, misses 6:40 min", schedule.LateWords(after, missed))
	list := s.All(d)[3]
	assert.Equal(t, []string{"Run: 2:40 min", "Reach: 1:20 min"}, list.Named())
	assert.Equal(t, sprint.Start, list.Start)
	assert.Equal(t, list.Length(), s.All(d)[2].Missed[0].Seconds, "of the sprints they miss what they make up")
	assert.Empty(t, s.Blocks(d)[2].Missed)
}
