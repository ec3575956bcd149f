package runin

import (
	"context"
	"slices"

	"cuestart/core/clock"
)

// cutStep is how many seconds each cut-down takes away from the one before.
const cutStep = 5 * 60

// Cut is the plan for so many seconds less than there are.
type Cut struct {
	Less    int      `json:"less"` // seconds by which all open times lie later
	Result  *Result  `json:"result"`
	Changes []Change `json:"changes"` // from the cut before, or from the full plan
}

// Change is what becomes of a block from one cut to the next.
type Change struct {
	ID  string `json:"id"`
	Was int    `json:"was"` // level; -1: left out
	Now int    `json:"now"`
}

// Cutdowns solves the problem with 5, 10, 15 … minutes less, down to the least that holds the
// musts; no block is longer in a shorter plan, and none comes back. The first entry is the full
// plan; the last one takes away exactly as much as the musts at their shortest allow. A problem
// whose musts do not fit to begin with has the full plan's answer only. Steps is as in [Fit], for
// each cut.
func Cutdowns(ctx context.Context, p *Problem, steps int) ([]Cut, error) {
	full, err := Fit(ctx, p, steps)
	if err != nil {
		return nil, err
	}
	cuts := []Cut{{Result: full}}
	if !full.Feasible {
		return cuts, nil
	}
	for _, less := range cutSteps(ctx, p, steps) {
		r, err := Fit(ctx, later(p, less).within(cuts[len(cuts)-1].Result), steps)
		if err != nil {
			return nil, err
		}
		if !r.Feasible {
			break
		}
		cuts = append(cuts, Cut{Less: less, Result: r})
	}
	carryBack(cuts)
	for n := 1; n < len(cuts); n++ {
		cuts[n].Changes = changes(cuts[n-1].Result, cuts[n].Result)
	}
	return cuts, nil
}

// carryBack gives a cut the plan of the next one, for still less time, where that
// turned out better: it holds there too. The full plan stays as it is.
func carryBack(cuts []Cut) {
	for n := len(cuts) - 1; n > 1; n-- {
		if next, at := cuts[n].Result, cuts[n-1].Result; next.Beats(at) {
			found := *next
			found.Bound, found.IdleBound = max(at.Bound, next.Value), 0
			if found.Bound == at.Bound {
				found.IdleBound = min(at.IdleBound, next.Idle)
			}
			cuts[n-1].Result = &found
		}
	}
}

// cutSteps lists how much each cut takes away.
func cutSteps(ctx context.Context, p *Problem, steps int) (list []int) {
	s := newSearcher(ctx, newModel(p))
	if s.musts == 0 {
		widest := 0
		for _, player := range p.Players {
			widest = max(widest, int(player.Due-player.Open))
		}
		for less := cutStep; less < widest; less += cutStep {
			list = append(list, less)
		}
		return list
	}
	if steps <= 0 {
		steps = DefaultSteps(p)
	}
	short := s.shortest(steps, asOpen)
	if short.best == nil {
		return nil
	}
	spare := int(short.bestScore) * short.unit
	for less := cutStep; less < spare; less += cutStep {
		list = append(list, less)
	}
	if spare > 0 {
		list = append(list, spare)
	}
	return list
}

// within is the problem in which no block is longer than in a plan of it, and none is kept
// that the plan leaves out.
func (p *Problem) within(was *Result) *Problem {
	capped := *p
	capped.Blocks = slices.Clone(p.Blocks)
	for i, s := range was.Blocks {
		b := &capped.Blocks[i]
		switch {
		case s.Kept && s.Level >= 0:
			b.Levels = b.Levels[:s.Level+1]
		case !s.Kept && !b.Must:
			never := clock.Offset(-horizon)
			b.Window[1] = &never
		}
	}
	return &capped
}

// later is the problem with all open times moved later.
func later(p *Problem, seconds int) *Problem {
	moved := *p
	moved.Players = slices.Clone(p.Players)
	for i := range moved.Players {
		moved.Players[i].Open = min(moved.Players[i].Open+clock.Offset(seconds), moved.Players[i].Due)
	}
	return &moved
}

func changes(was, now *Result) (list []Change) {
	level := func(s Scheduled) int {
		if !s.Kept {
			return -1
		}
		return s.Level
	}
	for i := range now.Blocks {
		if w, n := level(was.Blocks[i]), level(now.Blocks[i]); w != n {
			list = append(list, Change{now.Blocks[i].ID, w, n})
		}
	}
	return list
}
