package demo_test

import (
	"context"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/demo"
)

func kickOff(t *testing.T) time.Time {
	at, err := clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}.Resolve()
	require.NoError(t, err)
	return at
}

func TestTheDemosMatchDayHoldsAndLandsOnTheMargin(t *testing.T) {
	d := demo.HomeMatch(kickOff(t))
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	c, err := schedule.Compile(d)
	require.NoError(t, err)
	_, _, err = runin.Score(&c.Problem, s.Result)
	require.NoError(t, err)
	assert.True(t, s.Result.Feasible)
	for i, b := range s.Result.Blocks {
		assert.True(t, b.Kept, b.ID)
		assert.Empty(t, b.Why, b.ID)
		assert.LessOrEqual(t, int(b.End), -d.Margin)
		assert.Equal(t, int(b.End-b.Start), d.Blocks[i].Seconds(s.Amounts[i], d.Group(&d.Blocks[i])))
	}
	assert.Equal(t, clock.Offset(-d.Margin), s.Result.Blocks[len(s.Result.Blocks)-1].End,
		"the team run ends at the margin")
}

func TestAWhyIsSaidOfEachCut(t *testing.T) {
	d := demo.HomeMatch(kickOff(t).Add(-20 * time.Minute)) // the ground is free no sooner
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	require.True(t, s.Result.Feasible)
	c, err := schedule.Compile(d)
	require.NoError(t, err)
	for i, b := range s.Result.Blocks {
		full := c.Dosings[i][len(c.Dosings[i])-1]
		switch {
		case !b.Kept:
			assert.Contains(t, b.Why, "no room for it", b.ID)
			assert.NotEqual(t, plan.Must, d.Blocks[i].Priority)
		case int(b.End-b.Start) < full.Seconds:
			assert.Contains(t, b.Why, ", not ", b.ID)
			assert.Contains(t, b.Why, clock.Lasting(full.Seconds-int(b.End-b.Start))+" shorter", b.ID)
		default:
			assert.Empty(t, b.Why)
		}
	}
	d = demo.HomeMatch(kickOff(t).Add(-35 * time.Minute))
	s, err = schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	assert.False(t, s.Result.Feasible)
	assert.Contains(t, s.Result.Why, "would have to be free 24:30 min earlier too",
		"the ground is the limit, not the players")
}

// Kit is short of the squad: what two blocks want at once they cannot both have.
func TestBlocksDoNotShareTheSamePieces(t *testing.T) {
	d := demo.HomeMatch(kickOff(t))
	d.Kit["ball"] = 8
	c, err := schedule.Compile(d)
	require.NoError(t, err)
	for i, want := range map[int]int{6: 1, 8: 1, 9: 4, 10: 1} {
		// line-out, high balls at one station, hands, bench touch
		assert.Contains(t, c.Problem.Blocks[i].Needs, runin.Need{Resource: "kit ball", Amount: want}, d.Blocks[i].ID)
	}
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	_, _, err = runin.Score(&c.Problem, s.Result)
	require.NoError(t, err)
}
