package schedule_test

import (
	"context"
	"testing"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
)

func TestDosingsRunFromMinimumToTarget(t *testing.T) {
	hops := drill.Drill{Dose: drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 1, RepSeconds: 10},
		Range: drill.Range{Min: 2, Target: 6, Max: 9, Step: 2}}
	rest := drill.Drill{Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 30, Target: 30, Max: 30, Step: 5}}
	b := &plan.Block{Items: []plan.Item{{Drill: hops}, {Drill: rest}}}
	dosings := schedule.Dosings(b, drill.Group{People: 1, Lanes: 1}, false)
	require.Len(t, dosings, 3)
	assert.Equal(t, []int{2, 30}, dosings[0].Amounts)
	assert.Equal(t, []int{6, 30}, dosings[2].Amounts)
	assert.InDeltaSlice(t, []float64{0.9, 0.95, 1}, []float64{dosings[0].Value, dosings[1].Value, dosings[2].Value},
		1e-9)
	assert.Equal(t, 80, dosings[0].Seconds)
	assert.Equal(t, 120, dosings[2].Seconds)
	spare := schedule.Dosings(b, drill.Group{People: 1, Lanes: 1}, true)
	last := spare[len(spare)-1]
	assert.Equal(t, []int{9, 30}, last.Amounts)
	assert.InDelta(t, 1.05, last.Value, 1e-9, "a bonus for what goes beyond its target")
}

// Nobody waits for who comes late: what the whole squad does goes on, and they
// miss their part of it.
func TestALatePlayerHoldsUpNobody(t *testing.T) {
	jog := drill.Drill{Code: "jog", Name: "Jog", Aim: "Aim", Phases: []drill.Phase{drill.Raise}, Effort: 0.5,
		Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 600, Target: 600, Max: 600, Step: 1}}
	d := &plan.Document{
		Format: plan.Format,
		Title:  "A v B",
		Kind:   plan.Match,
		Party:  plan.Party{Players: []plan.Player{{ID: "p1", First: "Ada"}, {ID: "p2", First: "Bo", Late: 200}}},
		Hours: plan.Hours{Start: clock.Start{Local: "2026-11-28T15:00", Zone: "UTC"}, Open: clock.BeforeStart(920),
			Margin: 300},
		Work: plan.Work{Method: plan.DefaultMethod,
			Blocks: []plan.Block{{ID: "all", Name: "All", Phase: drill.Raise, Who: []string{plan.Everyone},
				Priority: plan.Must, Excusable: true, Items: []plan.Item{{Drill: jog}}}}},
	}
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	require.True(t, s.Result.Feasible, s.Result.Why)
	assert.Equal(t, []runin.Missed{{Player: "p2", Seconds: 200}}, s.Result.Blocks[0].Missed)
	assert.Equal(t, "p2", s.Fixed[0].Late())
	assert.Empty(t, schedule.Window{ID: "talk"}.Late())

	d.Blocks[0].Who, d.Blocks[0].Excusable = []string{"p2"}, false // their own block is not excusable
	s, err = schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	assert.False(t, s.Result.Feasible)
}
