package check_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/warmth"
)

// Whom medical staff allow so many minutes gives up what matters least, until
// they hold.
func TestRuledMinutesHold(t *testing.T) {
	d := sound()
	most := loads(input(t, d))["p1"].Seconds / 60
	require.Greater(t, most, 4)
	for minutes := most - 1; minutes >= 2; minutes -= 3 {
		d := sound()
		d.Restrictions = []plan.Restriction{{Player: "p1", MaxMinutes: minutes}}
		in := input(t, d)
		findings := check.Check(in)
		i := slices.IndexFunc(findings, func(f check.Finding) bool { return f.Rule == "restriction" && f.Where == "" })
		require.GreaterOrEqual(t, i, 0, "%d minutes", minutes)
		assert.False(t, findings[i].Excusable())
		next, _, err := check.Mend(context.Background(), in, "restriction", "")
		require.NoError(t, err, "%d minutes", minutes)
		left := loads(input(t, next))["p1"].Seconds
		assert.LessOrEqual(t, left, 60*minutes)
		assert.Equal(t, len(d.Players), len(next.Players), "nobody else is touched")
	}
}

func loads(in check.Input) map[string]drill.Load {
	all := map[string]drill.Load{}
	for _, s := range warmth.Strands(in.Document, in.Schedule) {
		for _, p := range s.Players {
			all[p] = s.Load()
		}
	}
	return all
}
