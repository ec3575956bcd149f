package runin_test

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/runin"
	"cuestart/core/runin/runintest"
)

type vector struct {
	Title   string        `json:"title"`
	Problem runin.Problem `json:"problem"`
	Best    struct {
		Feasible bool    `json:"feasible"`
		Value    float64 `json:"value"`
		Idle     int     `json:"idle"`
		ShortBy  int     `json:"short_by"`
	} `json:"best"`
}

func vectors(t testing.TB) map[string]vector {
	files, err := filepath.Glob("testdata/fit-*.json")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	all := map[string]vector{}
	for _, file := range files {
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		var v vector
		require.NoError(t, json.Unmarshal(text, &v))
		all[filepath.Base(file)] = v
	}
	return all
}

func TestFitAgreesWithTheKnownAnswers(t *testing.T) {
	for name, v := range vectors(t) {
		t.Run(name, func(t *testing.T) {
			r, err := runin.Fit(context.Background(), &v.Problem, 0)
			require.NoError(t, err)
			value, idle, err := runin.Score(&v.Problem, r)
			require.NoError(t, err)
			t.Logf("%s: value %.4f of %.4f, idle %d to %d", v.Title, r.Value, r.Bound, r.IdleBound, r.Idle)
			assert.InDelta(t, value, r.Value, 1e-6)
			assert.Equal(t, idle, r.Idle)
			assert.Equal(t, v.Best.Feasible, r.Feasible)
			assert.Equal(t, v.Best.ShortBy, r.ShortBy, r.Why)
			if v.Best.Feasible {
				assert.InDelta(t, v.Best.Value, r.Value, 0.001)
				assert.Equal(t, v.Best.Idle, r.Idle)
				assert.GreaterOrEqual(t, r.Bound, v.Best.Value-0.001)
				assert.LessOrEqual(t, r.IdleBound, v.Best.Idle)
			}
		})
	}
}

// A link against the order of phases leaves no order that holds both blocks:
// one of them goes.
func TestFitDropsWhatALinkForbids(t *testing.T) {
	for _, blocks := range []int{2, 12, 24} {
		p := &runin.Problem{Grid: 5, Phases: []string{"raise", "sport"},
			Players: []runin.Player{{ID: "p", Open: -3600}}}
		for i := range blocks {
			p.Blocks = append(p.Blocks, runin.Block{ID: fmt.Sprint("b", i), Phase: p.Phases[min(i, 1)],
				Players: []string{"p"}, Weight: 3, Levels: []runin.Level{{Seconds: 60, Value: 1}}})
		}
		p.Blocks[0].After = []string{"b1"}
		r, err := runin.Fit(context.Background(), p, 0)
		require.NoError(t, err)
		assert.InDelta(t, 3*float64(blocks-1), r.Value, 1e-9)
		assert.False(t, r.Blocks[0].Kept && r.Blocks[1].Kept)
	}
}

// A crowded problem, left to itself, gets more drafts than one that is told its
// steps: never a worse plan, the same each time, no rule broken, and none below what a
// constraint solver found in two minutes.
func TestACrowdedProblemGetsMoreDrafts(t *testing.T) {
	better, solver := 0, map[uint64]float64{2: 40.995, 4: 72.168}
	for seed := range uint64(6) {
		p := runintest.Problem(seed, runintest.Tight)
		told, err := runin.Fit(context.Background(), p, runin.DefaultSteps(p))
		require.NoError(t, err)
		left := fit(t, p)
		assert.GreaterOrEqual(t, left.Value, max(told.Value-1e-6, solver[seed]-0.0001), seed)
		if left.Value > told.Value {
			better++
		}
		if seed == 0 {
			assert.Equal(t, left, fit(t, p))
		}
	}
	assert.Positive(t, better, "or they are for nothing")
}

// What a constraint solver found in two minutes is found in a few seconds: the proven best of
// middle ones, and as much as it had of crowded ones.
func TestNothingIsBelowASolver(t *testing.T) {
	for _, c := range []struct {
		name  string
		seed  uint64
		size  runintest.Size
		value float64
	}{{name: "middle", seed: 0, size: runintest.Middle, value: 47.2087},
		{name: "middle", seed: 13, size: runintest.Middle, value: 53.5065},
		{name: "crowded", seed: 1, size: runintest.Crowded, value: 106.0962}} {
		p := runintest.Problem(c.seed, c.size)
		r, err := runin.Fit(context.Background(), p, 0)
		require.NoError(t, err)
		value, _, err := runin.Score(p, r)
		require.NoError(t, err, "%s %d", c.name, c.seed)
		assert.InDelta(t, value, r.Value, 1e-6)
		assert.GreaterOrEqual(t, value, c.value-0.0001, "%s %d", c.name, c.seed)
	}
}
