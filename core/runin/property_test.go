package runin_test

import (
	"context"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/runin"
	"cuestart/core/runin/runintest"
)

func fit(t testing.TB, p *runin.Problem) *runin.Result {
	r, err := runin.Fit(context.Background(), p, 0)
	require.NoError(t, err)
	value, idle, err := runin.Score(p, r)
	require.NoError(t, err)
	assert.InDelta(t, value, r.Value, 1e-6)
	assert.Equal(t, idle, r.Idle)
	assert.GreaterOrEqual(t, r.Bound, r.Value-1e-6)
	assert.LessOrEqual(t, r.IdleBound, r.Idle)
	return r
}

// clone is a copy whose players may be changed.
func clone(p *runin.Problem) *runin.Problem {
	c := *p
	c.Players, c.Blocks, c.Fixed, c.Resources = slices.Clone(p.Players), slices.Clone(p.Blocks), slices.Clone(p.Fixed),
		slices.Clone(p.Resources)
	return &c
}

func TestNoRuleIsBrokenAtAnySize(t *testing.T) {
	for seed := range uint64(12) {
		fit(t, runintest.Problem(seed, runintest.Small))
	}
	for seed := range uint64(3) {
		fit(t, runintest.Problem(seed, runintest.Middle))
		fit(t, runintest.Problem(seed, runintest.Large))
	}
	fit(t, runintest.Problem(1, runintest.XLarge))
}

func TestWhatMustNotMatterDoesNot(t *testing.T) {
	for seed := range uint64(25) {
		p := tiny(seed)
		r := fit(t, p)

		more := clone(p)
		for i := range more.Players {
			more.Players[i].Open -= 120
		}
		if r.Feasible {
			assert.GreaterOrEqual(t, fit(t, more).Value, r.Value-1e-6, "seed %d: more minutes never lower the value",
				seed)
		}

		const by = 1800
		moved := clone(p)
		for i := range moved.Players {
			moved.Players[i].Open += by
			moved.Players[i].Due += by
		}
		for i := range moved.Fixed {
			moved.Fixed[i].Start += by
			moved.Fixed[i].End += by
		}
		for i := range moved.Resources {
			moved.Resources[i].Free = slices.Clone(moved.Resources[i].Free)
			for n := range moved.Resources[i].Free {
				moved.Resources[i].Free[n] = [2]clock.Offset{moved.Resources[i].Free[n][0] + by,
					moved.Resources[i].Free[n][1] + by}
			}
		}
		for i := range moved.Blocks {
			if pin := moved.Blocks[i].Pin; pin != nil {
				at := *pin + by
				moved.Blocks[i].Pin = &at
			}
			for n, edge := range moved.Blocks[i].Window {
				if edge != nil {
					at := *edge + by
					moved.Blocks[i].Window[n] = &at
				}
			}
		}
		m := fit(t, moved)
		for i := range r.Blocks {
			assert.Equal(t, []any{r.Blocks[i].Kept, r.Blocks[i].Level}, []any{m.Blocks[i].Kept, m.Blocks[i].Level},
				"seed %d: the same moved by half an hour", seed)
			if r.Blocks[i].Kept {
				assert.Equal(t, r.Blocks[i].Start+by, m.Blocks[i].Start, "seed %d", seed)
			}
		}

		shuffled := clone(p)
		rand.New(rand.NewPCG(seed, 5)).Shuffle(len(shuffled.Players), func(i, j int) {
			shuffled.Players[i], shuffled.Players[j] = shuffled.Players[j], shuffled.Players[i]
		})
		s := fit(t, shuffled)
		assert.InDelta(t, r.Value, s.Value, 1e-6, "seed %d: players in another order", seed)
		assert.Equal(t, r.Idle, s.Idle, "seed %d: players in another order", seed)

		for i, b := range p.Blocks {
			linked := slices.ContainsFunc(p.Blocks, func(c runin.Block) bool { return slices.Contains(c.After, b.ID) })
			if b.Must || b.Weight != 1 || linked {
				continue
			}
			without := clone(p)
			without.Blocks = slices.Delete(without.Blocks, i, i+1)
			w := fit(t, without)
			assert.Equal(t, r.Feasible, w.Feasible, "seed %d: a could never decides over a must", seed)
			assert.GreaterOrEqual(t, w.Value, r.Value-1-1e-6, "seed %d: it takes no more than its worth", seed)
		}
	}
}

func TestTheSameInputGivesTheSameAnswerAndTimeEndsIt(t *testing.T) {
	p := runintest.Problem(3, runintest.Middle)
	assert.Equal(t, fit(t, p), fit(t, p))
	ctx, cancel := context.WithTimeout(context.Background(), 5*time.Millisecond)
	defer cancel()
	r, err := runin.Fit(ctx, runintest.Problem(3, runintest.XLarge), 1<<30)
	require.NoError(t, err)
	assert.True(t, r.Stopped)
	_, _, err = runin.Score(runintest.Problem(3, runintest.XLarge), r)
	assert.NoError(t, err, "the best so far breaks no rule")
}

func TestCutdownsGoDownToTheLeastThatHoldsTheMusts(t *testing.T) {
	p := vectors(t)["fit-10.json"].Problem
	cuts, err := runin.Cutdowns(context.Background(), &p, 20_000)
	require.NoError(t, err)
	require.Greater(t, len(cuts), 3)
	for n, cut := range cuts {
		assert.True(t, cut.Result.Feasible)
		if n > 0 && n < len(cuts)-1 {
			assert.Equal(t, 300*n, cut.Less)
		}
		if n > 0 {
			assert.LessOrEqual(t, cut.Result.Value, cuts[n-1].Result.Value+1e-6)
		}
	}
	last := cuts[len(cuts)-1]
	for i, s := range last.Result.Blocks {
		if p.Blocks[i].Must {
			assert.True(t, s.Kept)
		}
	}
	for i := range p.Players {
		p.Players[i].Open += clock.Offset(last.Less + p.Grid)
	}
	r := fit(t, &p)
	assert.False(t, r.Feasible, "not one step more")
	assert.Equal(t, p.Grid, r.ShortBy)
}

func TestWhatIsDoneStaysWhenThePlanIsFittedAgain(t *testing.T) {
	p := vectors(t)["fit-10.json"].Problem
	was := fit(t, &p)
	now := clock.Offset(-1800)
	check := func(live runin.Live) *runin.Result {
		live.Now = now
		r, err := runin.Refit(context.Background(), &p, was, live, 20_000)
		require.NoError(t, err)
		for i, s := range was.Blocks {
			if s.Kept && s.Start < now {
				assert.Equal(t, s.Start, r.Blocks[i].Start, s.ID)
				assert.Equal(t, s.End, r.Blocks[i].End, s.ID)
			} else if r.Blocks[i].Kept {
				assert.GreaterOrEqual(t, int(r.Blocks[i].Start), int(now), s.ID)
				assert.LessOrEqual(t, int(r.Blocks[i].End), -600+live.Moved, s.ID)
			}
		}
		return r
	}
	same := check(runin.Live{})
	assert.True(t, same.Feasible)
	sooner := check(runin.Live{Moved: -300})
	assert.Less(t, sooner.Value, same.Value, "five minutes less cost something")
	latest := func(r *runin.Result) (end clock.Offset) {
		end = -9999
		for _, s := range r.Blocks {
			if s.Kept {
				end = max(end, s.End)
			}
		}
		return end
	}
	assert.Equal(t, clock.Offset(-600+900), latest(check(runin.Live{Moved: 900})),
		"put off: it ends at the new due time")
	out := check(runin.Live{Out: []string{"p10"}})
	assert.True(t, out.Feasible)
	lost := check(runin.Live{Lost: []string{"in-goal"}})
	assert.False(t, lost.Feasible, "the scrum, a must, has no place")
	assert.False(t, lost.Blocks[6].Kept)
	late := check(runin.Live{Arrives: map[string]clock.Offset{"p15": -900}})
	for i, s := range late.Blocks {
		if s.Kept && s.Start >= now && slices.Contains(p.Blocks[i].Players, "p15") {
			assert.GreaterOrEqual(t, int(s.Start), -900, s.ID)
		}
	}
	_, err := runin.Refit(context.Background(), &p, was, runin.Live{Out: []string{"nobody"}}, 0)
	assert.ErrorContains(t, err, `no player "nobody"`)
}

func FuzzFit(f *testing.F) {
	f.Add(uint64(1), 3, 60, -600, 300)
	f.Fuzz(func(t *testing.T, seed uint64, at, grid, open, seconds int) {
		p := tiny(seed)
		p.Grid = grid
		p.Players[0].Open = clock.Offset(open)
		p.Blocks[0].Levels[0].Seconds = seconds
		if at >= 0 && at < len(p.Blocks) {
			p.Blocks[at].After = []string{p.Blocks[0].ID}
		}
		r, err := runin.Fit(context.Background(), p, 2000)
		if err != nil {
			return // refused in one sentence
		}
		if _, _, err := runin.Score(p, r); err != nil && seconds < 5000 && open > -50000 {
			t.Fatal(err)
		}
	})
}

// ShortBy is what it says: with all open times so much earlier the musts fit,
// with a step less they do not.
func TestShortByIsTheLeastThatHelps(t *testing.T) {
	seen := 0
	for seed := range uint64(200) {
		p := clone(tiny(seed))
		for i := range p.Players {
			p.Players[i].Open += 420
		}
		r, err := runin.Fit(context.Background(), p, 0)
		require.NoError(t, err)
		if r.Feasible || r.ShortBy == 0 {
			continue
		}
		seen++
		for _, less := range []int{0, p.Grid} {
			earlier := clone(p)
			for i := range earlier.Players {
				earlier.Players[i].Open -= clock.Offset(r.ShortBy - less)
			}
			e, err := runin.Fit(context.Background(), earlier, 0)
			require.NoError(t, err)
			assert.Equal(t, less == 0, e.Feasible, "seed %d: short by %d, opened %d earlier", seed, r.ShortBy,
				r.ShortBy-less)
		}
	}
	assert.Greater(t, seen, 10)
}
