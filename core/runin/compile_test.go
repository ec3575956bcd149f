package runin_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
)

func ExampleFit() {
	jog := runin.Block{ID: "jog", Phase: "raise", Players: []string{"*"}, Weight: 9, Must: true, Levels: []runin.Level{{Seconds: 180, Value: 0.6}, {Seconds: 300, Value: 1}}}
	hops := runin.Block{ID: "hops", Phase: "potentiate", Players: []string{"*"}, Weight: 3, Levels: []runin.Level{{Seconds: 120, Value: 1}}}
	problem := &runin.Problem{Grid: 5, Phases: []string{"raise", "potentiate"},
		Players: []runin.Player{{ID: "ada", Open: -900, Due: -480}}, Blocks: []runin.Block{jog, hops}}
	r, _ := runin.Fit(context.Background(), problem, 0)
	for _, b := range r.Blocks {
		fmt.Println(b.ID, b.Start.ToGo(), b.End.ToGo(), b.Why)
	}
	// Output:
	// jog 15:00 10:00 in full
	// hops 10:00 8:00 in full
}

func TestDosingsRunFromMinimumToTarget(t *testing.T) {
	hops := drill.Drill{Dose: drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 1, RepSeconds: 10}, Range: drill.Range{Min: 2, Target: 6, Max: 9, Step: 2}}
	rest := drill.Drill{Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 30, Target: 30, Max: 30, Step: 5}}
	b := &plan.Block{Items: []plan.Item{{Drill: hops}, {Drill: rest}}}
	dosings := runin.Dosings(b, drill.Group{People: 1, Lanes: 1}, false)
	require.Len(t, dosings, 3)
	assert.Equal(t, []int{2, 30}, dosings[0].Amounts)
	assert.Equal(t, []int{6, 30}, dosings[2].Amounts)
	assert.InDelta(t, 1, dosings[2].Value, 1e-9)
	assert.Equal(t, 80, dosings[0].Seconds)
	assert.Equal(t, 120, dosings[2].Seconds)
	spare := runin.Dosings(b, drill.Group{People: 1, Lanes: 1}, true)
	last := spare[len(spare)-1]
	assert.Equal(t, []int{9, 30}, last.Amounts)
	assert.InDelta(t, 1.025, last.Value, 1e-9, "a bonus for the one that went beyond its target")
}
