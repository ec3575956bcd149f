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
		p.Players = append(p.Players, runin.Player{ID: fmt.Sprint("p", i), Open: clock.Offset(-60 * (minutes + 2)), Due: clock.Offset(-120 + 60*r.IntN(2))})
	}
	p.Resources = []runin.Resource{{ID: "r", Capacity: 1 + r.IntN(3)}}
	if r.IntN(3) == 0 {
		p.Resources[0].Free = [][2]clock.Offset{{-3600, clock.Offset(-60 * (3 + r.IntN(3)))}, {clock.Offset(-60 * (2 + r.IntN(2))), 0}}
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
		p.Fixed = append(p.Fixed, runin.Fixed{ID: fmt.Sprint("f", i), Players: some(), Start: from, End: from + clock.Offset(30+30*r.IntN(4)), Active: r.IntN(2) == 0})
	}
	for i := range 4 {
		b := runin.Block{ID: fmt.Sprint("b", i), Phase: []string{"raise", "raise", "sport", "sport", ""}[r.IntN(5)], Players: some(), Weight: []float64{1, 3, 9}[r.IntN(3)],
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
	return p
}

func moment(at int) *clock.Offset { o := clock.Offset(at); return &o }

// every calls try with each plan of p that breaks no rule.
func every(p *runin.Problem, try func(score float64)) {
	r := &runin.Result{Feasible: true, Blocks: make([]runin.Scheduled, len(p.Blocks))}
	var place func(i int)
	place = func(i int) {
		if i == len(p.Blocks) {
			if score, _, _, err := runin.Score(p, r); err == nil {
				try(score)
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
				s := runin.Scheduled{ID: b.ID, Kept: true, Level: level, Start: start, End: start + clock.Offset(l.Seconds)}
				clash := false
				for j := range i {
					clash = clash || r.Blocks[j].Kept && s.Start < r.Blocks[j].End && r.Blocks[j].Start < s.End && share(p, i, j)
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
	return slices.ContainsFunc(p.Players, func(x runin.Player) bool { return in(p.Blocks[i].Players, x.ID) && in(p.Blocks[j].Players, x.ID) })
}

func outside(p *runin.Problem, b *runin.Block, s runin.Scheduled) bool {
	return slices.ContainsFunc(p.Players, func(x runin.Player) bool { return in(b.Players, x.ID) && (s.Start < x.Open || s.End > x.Due) })
}

func missed(p *runin.Problem, b *runin.Block, s runin.Scheduled) (list []runin.Missed) {
	if !b.Excusable {
		return nil
	}
	for _, x := range p.Players {
		n := 0
		for t := s.Start; t < s.End; t++ {
			if in(b.Players, x.ID) && slices.ContainsFunc(p.Fixed, func(f runin.Fixed) bool { return f.Start <= t && t < f.End && in(f.Players, x.ID) }) {
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
	best, all := 0, 0
	for seed := range uint64(120) {
		p := tiny(seed)
		p.Blocks[3].Straight = p.Blocks[0].ID
		if p.Blocks[0].Pin = nil; p.Validate() != nil {
			continue
		}
		most := -1e9
		every(p, func(score float64) { most = max(most, score) })
		r := fit(t, p)
		assert.False(t, r.Feasible && most < -1e8, "seed %d: %+v", seed, r)
		if r.Feasible {
			all++
			assert.GreaterOrEqual(t, r.Bound, most-1e-6, "seed %d", seed)
			if r.Score > most-1e-6 {
				best++
			}
		}
	}
	assert.Greater(t, all, 50)
	assert.Greater(t, best, all*8/10)
}

// What Fit calls proven is what trying every plan finds; so is whether the
// musts fit at all.
func TestFitFindsWhatTryingEverythingFinds(t *testing.T) {
	for seed := range uint64(80) {
		p := tiny(seed)
		best, any := 0.0, false
		every(p, func(score float64) {
			if !any || score > best {
				best, any = score, true
			}
		})
		r, err := runin.Fit(context.Background(), p, 0)
		require.NoError(t, err)
		require.Equal(t, any, r.Feasible, "seed %d: %s", seed, r.Why)
		score, _, _, err := runin.Score(p, r)
		require.NoError(t, err, "seed %d", seed)
		assert.InDelta(t, score, r.Score, 1e-6, "seed %d", seed)
		if any {
			assert.InDelta(t, best, r.Score, 1e-6, "seed %d", seed)
			assert.InDelta(t, best, r.Bound, 1e-6, "seed %d", seed)
			early, err := runin.Fit(context.Background(), p, 20)
			require.NoError(t, err)
			assert.GreaterOrEqual(t, early.Bound, best-1e-6, "seed %d: a search cut short may not claim too much", seed)
		}
	}
}
