package runin_test

import (
	"context"
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/runin"
)

type vector struct {
	Title   string        `json:"title"`
	Problem runin.Problem `json:"problem"`
	Best    struct {
		Feasible bool    `json:"feasible"`
		Score    float64 `json:"score"`
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
			score, value, idle, err := runin.Score(&v.Problem, r)
			require.NoError(t, err)
			t.Logf("%s: score %.4f bound %.4f best %.4f short %d", v.Title, r.Score, r.Bound, v.Best.Score, r.ShortBy)
			assert.InDelta(t, score, r.Score, 1e-6)
			assert.InDelta(t, value, r.Value, 1e-6)
			assert.Equal(t, idle, r.Idle)
			assert.Equal(t, v.Best.Feasible, r.Feasible)
			assert.Equal(t, v.Best.ShortBy, r.ShortBy, r.Why)
			if v.Best.Feasible {
				assert.InDelta(t, v.Best.Score, r.Score, 0.001)
				assert.GreaterOrEqual(t, r.Bound, v.Best.Score-0.001)
			}
		})
	}
}
