package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

func paced() *plan.Document {
	k := drill.Drill{Code: "sets", Name: "Sets", Aim: "why", Phases: []drill.Phase{drill.Sport}, Effort: 0.6,
		Dose: drill.Dose{Kind: drill.Count, ActSeconds: 20}, Range: drill.Range{Min: 2, Target: 5, Max: 8, Step: 1}}
	return &plan.Document{
		Work: plan.Work{Blocks: []plan.Block{{ID: "scrum", Name: "Scrum", Items: []plan.Item{{Drill: k}}}}},
	}
}

func TestABlockIsPlannedAtTheTeamsPace(t *testing.T) {
	d := paced()
	b, group := d.Block("scrum"), drill.Group{People: 8, Lanes: 8}
	was := b.Seconds([]int{5}, group)
	said, err := d.SetPace("scrum", 1.11)
	require.NoError(t, err)
	assert.Equal(t, "Scrum planned 11 % longer", said)
	assert.Equal(t, clock.CeilTo(1.11*float64(100+plan.HandoverSeconds), clock.Grid), b.Seconds([]int{5}, group))
	assert.Equal(t, "Scrum planned 11 % longer", paced().Difference(d))
	said, err = d.SetPace("scrum", 0.9)
	require.NoError(t, err)
	assert.Equal(t, "Scrum planned 10 % shorter", said)
	said, err = d.SetPace("scrum", 0)
	require.NoError(t, err)
	assert.Equal(t, "Scrum planned as its doses come to", said)
	assert.Equal(t, was, b.Seconds([]int{5}, group))
	for _, wrong := range []float64{-1, 0.1, 40} {
		_, err := d.SetPace("scrum", wrong)
		assert.ErrorAs(t, err, new(plan.Problems), wrong)
	}
	_, err = d.SetPace("ruck", 1.1)
	assert.ErrorIs(t, err, plan.ErrNoSuchBlock)
}

// Each part of a block takes as many times as long, so that steps, warmth and length agree.
func TestAPaceIsThatOfEveryPart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := paced()
		b, group := d.Block("scrum"), drill.Group{People: rapid.IntRange(1, 30).Draw(t, "people"),
			Lanes: rapid.IntRange(1, 6).Draw(t, "lanes")}
		b.Rounds, b.SetUp = rapid.IntRange(0, 3).Draw(t, "rounds"), rapid.IntRange(0, 60).Draw(t, "setup")
		amount, times := rapid.IntRange(2, 8).Draw(t, "amount"),
			rapid.Float64Range(plan.FastestPace, plan.SlowestPace).Draw(t, "times")
		plain := b.Parts([]int{amount}, group, nil)
		b.Pace = times
		for i, part := range b.Parts([]int{amount}, group, nil) {
			assert.InDelta(t, plain[i].Seconds*times, part.Seconds, 1e-9)
		}
	})
}
