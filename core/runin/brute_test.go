package runin_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/runin"
)

// tiny makes a problem so small that every plan of it can be tried.
func tiny(seed uint64) *runin.Problem {
	r := rand.New(rand.NewPCG(seed, 7))
	const grid = 60
	p := &runin.Problem{Grid: grid, Phases: []string{"raise", "sport"}}
	minutes := 7 + r.IntN(4)
	for i := range 3 {
		p.Players = append(p.Players, runin.Player{ID: fmt.Sprint("p", i), Open: clock.Offset(-60 * (minutes + 2)),
			Due: clock.Offset(-120 + 60*r.IntN(2))})
	}
	p.Resources = []runin.Resource{{ID: "r", Capacity: 1 + r.IntN(3)}}
	if r.IntN(3) == 0 {
		p.Resources[0].Free = [][2]clock.Offset{{-3600, clock.Offset(-60 * (3 + r.IntN(3)))},
			{clock.Offset(-60 * (2 + r.IntN(2))), 0}}
	}
	some := func() []string {
		if r.IntN(2) == 0 {
			return []string{runin.Everyone}
		}
		ids := []string{"p0", "p1", "p2"}
		r.Shuffle(3, func(i, j int) { ids[i], ids[j] = ids[j], ids[i] })
		return ids[:1+r.IntN(2)]
	}
	for i := range r.IntN(3) {
		from := clock.Offset(-60 * (2 + r.IntN(minutes)))
		p.Fixed = append(p.Fixed, runin.Fixed{ID: fmt.Sprint("f", i), Players: some(), Start: from,
			End: from + clock.Offset(30+30*r.IntN(4)), Active: r.IntN(2) == 0, Excused: r.IntN(4) == 0})
	}
	for i := range 4 {
		b := runin.Block{ID: fmt.Sprint("b", i), Phase: []string{"raise", "raise", "sport", "sport", ""}[r.IntN(5)],
			Players: some(), Weight: []float64{1, 3, 9}[r.IntN(3)],
			Must: r.IntN(5) == 0, Loose: r.IntN(2) == 0, Excusable: r.IntN(3) == 0}
		shortest := 60 + 60*r.IntN(2)
		b.Levels = []runin.Level{{Seconds: shortest, Value: 0.6}}
		if r.IntN(3) > 0 {
			b.Levels = append(b.Levels, runin.Level{Seconds: shortest + 60*(1+r.IntN(2)) - 20*r.IntN(2), Value: 1})
		}
		if r.IntN(2) == 0 {
			b.Needs = []runin.Need{{Resource: "r", Amount: 1 + r.IntN(2)}}
		}
		if i > 0 && r.IntN(5) == 0 {
			b.After = []string{fmt.Sprint("b", r.IntN(i))}
		}
		if r.IntN(8) == 0 {
			pin := clock.Offset(-60 * (3 + r.IntN(minutes)))
			b.Pin = &pin
		}
		if r.IntN(4) == 0 {
			b.Window[r.IntN(2)] = moment(-60 * (3 + r.IntN(minutes)))
		}
		p.Blocks = append(p.Blocks, b)
	}
	if r.IntN(2) == 0 {
		walking(p, r)
	}
	return p
}

// walking gives the blocks and fixed events of a problem places, and what they need
// legs.
func walking(p *runin.Problem, r *rand.Rand) {
	places := []string{"near", "far", "hall", ""}
	p.Walks = []runin.Walk{{From: "near", To: "far", Seconds: 20 + r.IntN(50)},
		{From: "hall", To: "near", Seconds: 50 + r.IntN(50)}, {From: "far", To: "hall", Seconds: 70 + r.IntN(60)}}
	p.Resources[0].Walks = p.Resources[0].Capacity == 1
	for i := range p.Blocks {
		p.Blocks[i].Place = places[r.IntN(4)]
	}
	for i := range p.Fixed {
		p.Fixed[i].Place = places[r.IntN(4)]
	}
}

func moment(at int) *clock.Offset { o := clock.Offset(at); return &o }

// best is the greatest value of all plans of p that break no rule and, at that value,
// the least idle; any: there is such a plan.
func best(p *runin.Problem) (value float64, idle int, any bool) {
	every(p, func(v float64, i int) {
		if !any || v > value+1e-7 || v > value-1e-7 && i < idle {
			value, idle, any = v, i, true
		}
	})
	return value, idle, any
}

// every calls try with each plan of p that breaks no rule.
func every(p *runin.Problem, try func(value float64, idle int)) {
	r := &runin.Result{Feasible: true, Blocks: make([]runin.Scheduled, len(p.Blocks))}
	var place func(i int)
	place = func(i int) {
		if i == len(p.Blocks) {
			if value, idle, err := runin.Score(p, r); err == nil {
				try(value, idle)
			}
			return
		}
		b := &p.Blocks[i]
		r.Blocks[i] = runin.Scheduled{ID: b.ID}
		if !b.Must {
			place(i + 1)
		}
		for level, l := range b.Levels {
			for start := clock.Offset(-60 * 12); start < 0; start += clock.Offset(p.Grid) {
				s := runin.Scheduled{ID: b.ID, Kept: true, Level: level, Start: start,
					End: start + clock.Offset(l.Seconds)}
				clash := false
				for j := range i {
					clash = clash || r.Blocks[j].Kept && s.Start < r.Blocks[j].End && r.Blocks[j].Start < s.End &&
						share(p, i, j)
				}
				if outside(p, b, s) || clash || b.Pin != nil && start != *b.Pin {
					continue
				}
				s.Missed = missed(p, b, s)
				r.Blocks[i] = s
				place(i + 1)
			}
		}
		r.Blocks[i] = runin.Scheduled{ID: b.ID}
	}
	place(0)
}

func in(ids []string, id string) bool { return ids[0] == runin.Everyone || slices.Contains(ids, id) }

func share(p *runin.Problem, i, j int) bool {
	return slices.ContainsFunc(p.Players,
		func(x runin.Player) bool { return in(p.Blocks[i].Players, x.ID) && in(p.Blocks[j].Players, x.ID) })
}

func outside(p *runin.Problem, b *runin.Block, s runin.Scheduled) bool {
	return slices.ContainsFunc(p.Players,
		func(x runin.Player) bool { return in(b.Players, x.ID) && (s.Start < x.Open || s.End > x.Due) })
}

func missed(p *runin.Problem, b *runin.Block, s runin.Scheduled) (list []runin.Missed) {
	if !b.Excusable {
		return nil
	}
	for _, x := range p.Players {
		n := 0
		for t := s.Start; t < s.End; t++ {
			if in(b.Players, x.ID) &&
				slices.ContainsFunc(p.Fixed,
					func(f runin.Fixed) bool { return f.Start <= t && t < f.End && in(f.Players, x.ID) }) {
				n++
			}
		}
		if n > 0 {
			list = append(list, runin.Missed{Player: x.ID, Seconds: n})
		}
	}
	return list
}

// A block straight after another starts as that one ends, whatever else is asked for;
// what comes of it is never beyond the bound, and mostly the best there is.
func TestStraightAfterLeavesNoGap(t *testing.T) {
	found, all := 0, 0
	for seed := range uint64(120) {
		p := tiny(seed)
		p.Blocks[3].Straight = p.Blocks[0].ID
		if p.Blocks[0].Pin = nil; p.Validate() != nil {
			continue
		}
		value, idle, any := best(p)
		r := fit(t, p)
		assert.False(t, r.Feasible && !any, "seed %d: %+v", seed, r)
		if r.Feasible {
			all++
			if assert.GreaterOrEqual(t, r.Bound, value-1e-6, "seed %d", seed); r.Value > value-1e-6 && r.Idle <= idle {
				found++
			}
		}
	}
	assert.Greater(t, all, 50)
	assert.Greater(t, found, all*8/10)
}

// What Fit calls proven is what trying every plan finds; so is whether the musts fit at all.
func TestFitFindsWhatTryingEverythingFinds(t *testing.T) {
	for seed := range uint64(80) {
		p := tiny(seed)
		value, idle, any := best(p)
		r, err := runin.Fit(context.Background(), p, 0)
		require.NoError(t, err)
		require.Equal(t, any, r.Feasible, "seed %d: %s", seed, r.Why)
		_, _, err = runin.Score(p, r)
		require.NoError(t, err, "seed %d", seed)
		if any {
			assert.InDelta(t, value, r.Value, 1e-6, "seed %d", seed)
			assert.InDelta(t, value, r.Bound, 1e-6, "seed %d", seed)
			assert.Equal(t, []int{idle, idle}, []int{r.Idle, r.IdleBound}, "seed %d", seed)
			early, err := runin.Fit(context.Background(), p, 20)
			require.NoError(t, err)
			assert.GreaterOrEqual(t, early.Bound, value-1e-6, "seed %d: a search cut short may not claim too much",
				seed)
		}
	}
}
