package schedule_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// Whatever comes otherwise, the plan that answers it holds; what cannot be is said.
func TestWhatMightComeOtherwise(t *testing.T) {
	item := func(seconds int) []plan.Item {
		return []plan.Item{{Drill: drill.Drill{Code: "x", Name: "Run", Aim: "Warm", Phases: []drill.Phase{drill.Raise},
			Effort: 0.5, Range: drill.Range{Min: seconds / 2, Target: seconds, Max: seconds, Step: 30},
			Dose: drill.Dose{Kind: drill.Time}}}}
	}
	d := &plan.Document{
		Format: plan.Format,
		Title:  "A",
		Kind:   plan.Match,
		Party: plan.Party{Players: []plan.Player{{ID: "p1", Number: 1, First: "Ada"},
			{ID: "p2", Number: 2, First: "Bea"}}, Leaders: []plan.Leader{{ID: "ines", Name: "Ines"},
			{ID: "pell", Name: "Pell"}}, Bring: []plan.Bring{{What: "ice", Who: "pell"}}},
		Site: plan.Site{Zones: []plan.Zone{{ID: "field", Name: "Field", Capacity: 9, Lanes: 2},
			{ID: "hall", Name: "Hall", Capacity: 9, Lanes: 2, Covered: true}}},
		Hours: plan.Hours{StartName: "Start", Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(2400), Margin: 300},
		Work: plan.Work{Method: plan.DefaultMethod,
			Blocks: []plan.Block{{ID: "a", Name: "A", Aim: "Warm", Phase: drill.Raise, Who: []string{plan.Everyone},
				Zone: "field", Leader: "pell", Priority: plan.Must, Items: item(600)},
				{ID: "b", Name: "B", Aim: "Ready", Phase: drill.Sport, Who: []string{"p1"}, Zone: "field",
					Leader:   "pell",
					Priority: plan.Could, Items: item(480)}}},
	}
	was, err := schedule.Fit(context.Background(), d, 1000)
	require.NoError(t, err)
	for name, one := range map[string]struct {
		what schedule.Supposed
		open int // seconds before the start; 0: it cannot be
		says string
	}{
		"ten earlier, you arrive as now": {schedule.Supposed{Is: schedule.IfStart, Minutes: -10, Arrive: true}, 1800,
			"Start at 14:50"},
		"ten earlier, you come earlier": {schedule.Supposed{Is: schedule.IfStart, Minutes: -10}, 2400,
			"Start at 14:50"},
		"five later": {schedule.Supposed{Is: schedule.IfStart, Minutes: 5, Arrive: true}, 2700,
			"Start at 15:05"},
		"forty earlier": {schedule.Supposed{Is: schedule.IfStart, Minutes: -40, Arrive: true}, 0,
			"too late"},
		"twenty minutes": {schedule.Supposed{Is: schedule.IfMinutes, Minutes: 20}, 1200,
			"20 minutes before"},
		"more minutes than there are": {schedule.Supposed{Is: schedule.IfMinutes, Minutes: 45}, 0,
			"only 40 min as it is"},
		"fewer than the margin": {schedule.Supposed{Is: schedule.IfMinutes, Minutes: 4}, 0, "leaves nothing"},
		"one late": {schedule.Supposed{Is: schedule.IfLate, Minutes: 10, Who: []string{"p2"}},
			2400, "Bea 10 min late"},
		"nobody late": {schedule.Supposed{Is: schedule.IfLate, Minutes: 10}, 0, "who comes late"},
		"somebody else's player late": {schedule.Supposed{Is: schedule.IfLate, Minutes: 10, Who: []string{"gone"}},
			0, "not in the plan"},
		"only the hall":                {schedule.Supposed{Is: schedule.IfPlace, ID: "hall"}, 2400, "only Hall"},
		"only nowhere":                 {schedule.Supposed{Is: schedule.IfPlace, ID: "gone"}, 0, "not of this plan"},
		"without who leads everything": {schedule.Supposed{Is: schedule.IfLeader, ID: "pell"}, 2400, "without Pell"},
		"without somebody who is unknown": {schedule.Supposed{Is: schedule.IfLeader, ID: "gone"}, 0,
			"who is not there"},
		"nothing": {schedule.Supposed{}, 0, "what might come"},
	} {
		then := d.Clone()
		said, err := was.Suppose(then, one.what)
		if one.open == 0 {
			assert.ErrorContains(t, err, one.says, name)
			continue
		}
		require.NoError(t, err, name)
		assert.Contains(t, said, one.says, name)
		fitted, err := schedule.Fit(context.Background(), then, 1000)
		require.NoError(t, err, name)
		at, err := then.Open.Offset(fitted.Start)
		require.NoError(t, err)
		assert.Equal(t, clock.Offset(-one.open), at, name)
		if one.what.Is == schedule.IfLeader {
			assert.Equal(t, []string{"A: Ines leads", "B: Ines leads"}, was.Differences(d, then, fitted))
		}
	}
	assert.Equal(t, "pell", d.Blocks[0].Leader, "the plan itself is as it was")
}
