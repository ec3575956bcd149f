package trial_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/trial"
)

var jump = trial.Test{Name: "Jump height", Unit: "cm"}

func ExampleTest_Words() {
	before, after := []float64{31, 36, 34, 40, 29}, []float64{32.5, 37, 36, 41.5, 30}
	squad, _ := jump.OfSquad(before, after, trial.Worthwhile(before))
	fmt.Println(jump.Words(squad))
	fmt.Println(jump.Words(jump.OfPlayer(31, 32.5, 1.2, 0.8)))
	sprint := trial.Test{Name: "10 m", Unit: "s", Lower: true}
	fmt.Println(sprint.Words(sprint.OfPlayer(1.82, 1.74, 0.02, 0.01)))
	fmt.Println(jump.Words(jump.OfPlayer(31, 31, 0, 0)))
	// Output:
	// 1.4 cm better (1 to 1.8), likely real, n 5
	// 1.5 cm better (-1.29 to 4.29), within noise, n 1
	// 0.08 s better (-0.127 to -0.0335), likely real, n 1
	// the same, noise not known yet, n 1
}

// By hand: differences 1, -1, 2 have the spread 1.5275, over the root of two 1.0801; of the
// results 10, 12, 14 a fifth of the spread is 0.4; changes 1, 2, 3 have the mean 2 and, with
// Student's t of 2 degrees at 95 % one-sided 2.920, the limits 2 ± 1.686.
func TestWorkedByHand(t *testing.T) {
	assert.InDelta(t, 1.0801, trial.TypicalError([]float64{10, 12, 14}, []float64{11, 11, 16}), 1e-4)
	assert.InDelta(t, 0.4, trial.Worthwhile([]float64{10, 12, 14}), 1e-12)
	c, ok := jump.OfSquad([]float64{10, 12, 14}, []float64{11, 14, 17}, 0.4)
	require.True(t, ok)
	assert.InDeltaSlice(t, []float64{2, 2 - 1.6859, 2 + 1.6859}, []float64{c.By, c.Low, c.High}, 1e-3)
	assert.True(t, c.Real())
	p := jump.OfPlayer(30, 32, 1, 0.4)
	assert.InDelta(t, 1.645*math.Sqrt2, p.High-p.By, 1e-12)
	for _, few := range [][]float64{nil, {1}} {
		_, ok := jump.OfSquad(few, few, 0)
		assert.False(t, ok, "of one there is no spread")
		assert.Zero(t, trial.TypicalError(few, few))
		assert.Zero(t, trial.Worthwhile(few))
	}
	_, ok = jump.Result(nil)
	assert.False(t, ok)
}

// What is better for a test where the lower counts is the mirror of one where the higher
// does; two routines compared the other way round say the opposite; a change that everybody
// shares exactly is real, from five on.
func TestChangesAreMirrored(t *testing.T) {
	sprint := trial.Test{Unit: "s", Lower: true}
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(2, 20).Draw(t, "players")
		result := rapid.Float64Range(-50, 50)
		before, after, mirrored, shifted := make([]float64, n), make([]float64, n), make([]float64, n),
			make([]float64, n)
		for i := range n {
			before[i], after[i] = result.Draw(t, "before"), result.Draw(t, "after")
			mirrored[i], shifted[i] = 2*before[i]-after[i], before[i]+3
		}
		up, ok := jump.OfSquad(before, after, 1)
		assert.True(t, ok)
		down, _ := sprint.OfSquad(before, mirrored, 1)
		assert.InDelta(t, up.By, -down.By, 1e-9)
		assert.InDelta(t, up.Low, -down.High, 1e-9)
		if math.Abs(up.By) > 1e-9 {
			assert.Equal(t, up.Better, down.Better)
		}
		assert.True(t, up.Low <= up.By && up.By <= up.High)
		one, _ := jump.Compared(after, before, 1)
		other, _ := jump.Compared(before, after, 1)
		assert.InDelta(t, one.By, -other.By, 1e-9)
		all, _ := jump.OfSquad(before, shifted, 1)
		assert.Equal(t, n >= 5, all.Real())
		assert.True(t, all.Better)
		assert.Contains(t, jump.Words(up), fmt.Sprintf("n %d", n), "never without n")
		best, _ := jump.Result(before)
		least, _ := sprint.Result(before)
		mean, _ := trial.Test{Mean: true}.Result(before)
		assert.True(t, least <= mean+1e-9 && mean <= best+1e-9)
	})
}

// Two players who change by the same, as a stopwatch reads it, are no proof; nor are two equal
// repeats a test without noise.
func TestEqualDifferencesProveNothing(t *testing.T) {
	test := trial.Test{Name: "Sprint", Unit: "s", Lower: true}
	c, ok := test.OfSquad([]float64{2.00, 1.90}, []float64{1.96, 1.86}, 0)
	require.True(t, ok)
	assert.False(t, c.Real(), test.Words(c))
	assert.Equal(t, "0.04 s better, noise not known yet, n 2", test.Words(c))
	assert.Zero(t, trial.TypicalError([]float64{2.00, 1.90}, []float64{1.96, 1.86}))
}
