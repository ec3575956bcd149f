package runin

import (
	"context"
	"fmt"
	"slices"

	"cuestart/core/clock"
)

// follows lists the blocks that have to end before b starts, by name.
func (b *Block) follows() []string {
	if b.Straight == "" {
		return b.After
	}
	return append(slices.Clone(b.After), b.Straight)
}

// straighten answers a problem in which blocks come straight after others. Each such
// pair is first only kept in order; where a gap is left, the second is held where
// the first ends or the first where it ends as the second starts, whichever is
// better, and where neither can be, one of them goes. A pair is closed for good
// before the next one is looked at, so what comes of several is good, not proven
// best.
func straighten(ctx context.Context, p *Problem, steps int) *Result {
	q := loosened(p)
	r := fit(ctx, q.Problem, steps)
	bound, least := r.Bound, r.IdleBound // of all plans that keep the order alone: they are more
	for _, pair := range p.pairs() {
		if !p.gap(r, pair) {
			continue
		}
		var best *Result
		var chosen closing
		for _, option := range q.closings(r, pair) {
			answer := fit(ctx, option.Problem, steps)
			if !p.gap(answer, pair) && (best == nil || answer.Beats(best)) {
				best, chosen = answer, option
			}
		}
		if best == nil {
			continue
		}
		q, r = chosen, best
		if !best.Feasible && best.Why != "" {
			best.Why += fmt.Sprintf("; %s stands straight after %s", p.Blocks[pair[1]].ID, p.Blocks[pair[0]].ID)
		}
	}
	for i, first := range q.first {
		if r.Blocks[i].Kept {
			r.Blocks[i].Level += first
		}
	}
	if r.Bound = max(bound, r.Value); r.Bound > r.Value+same {
		r.IdleBound = 0 // of plans of another value
	}
	r.IdleBound = min(r.IdleBound, least)
	return r
}

// closing is the problem on the way to having no gap, with the first level that is
// left of each block.
type closing struct {
	*Problem
	first []int
}

// loosened is the problem with its pairs only kept in order.
func loosened(p *Problem) closing {
	q := *p
	q.Blocks = slices.Clone(p.Blocks)
	for i := range q.Blocks {
		q.Blocks[i].After, q.Blocks[i].Straight = q.Blocks[i].follows(), ""
	}
	return closing{&q, make([]int, len(p.Blocks))}
}

// pairs lists the blocks of which the second comes straight after the first, by
// index; what others follow comes before those.
func (p *Problem) pairs() (list [][2]int) {
	done := map[string]bool{}
	for n := range len(p.Blocks) * len(p.Blocks) {
		i := n % len(p.Blocks)
		b := &p.Blocks[i]
		if done[b.ID] || b.Straight != "" && !done[b.Straight] {
			continue
		}
		done[b.ID] = true
		if b.Straight != "" {
			list = append(list, [2]int{slices.IndexFunc(p.Blocks, func(a Block) bool { return a.ID == b.Straight }), i})
		}
	}
	return list
}

// gap tells whether both blocks of a pair are kept with time between them.
func (p *Problem) gap(r *Result, pair [2]int) bool {
	a, b := &r.Blocks[pair[0]], &r.Blocks[pair[1]]
	return a.Kept && b.Kept && b.Start != p.straight(pair[0], pair[1], a.End)
}

// closings are the ways to leave no gap in a pair: the second where the first ends,
// the first so that it ends where the second starts, each at the levels found, and
// the one or the other left out.
func (q closing) closings(r *Result, pair [2]int) []closing {
	a, b := &r.Blocks[pair[0]], &r.Blocks[pair[1]]
	early, late := q.held(pair[0], a, a.Start), q.held(pair[0], a,
		clock.Offset(floorTo(int(b.Start-q.between(pair[0], pair[1])-(a.End-a.Start)), q.Grid)))
	return []closing{early.at(pair[1], q.straight(pair[0], pair[1], a.End)), late.at(pair[1], b.Start),
		q.without(pair[0]), q.without(pair[1])}
}

// held is the problem with block i at a moment, at the level that s has.
func (q closing) held(i int, s *Scheduled, start clock.Offset) closing {
	h := q.at(i, start)
	h.first = slices.Clone(q.first)
	h.first[i] += s.Level
	h.Blocks[i].Levels, h.Blocks[i].Once = []Level{h.Blocks[i].level(s.Level)}, nil
	return h
}

// at is the problem with block i at a moment.
func (q closing) at(i int, start clock.Offset) closing {
	next := *q.Problem
	next.Blocks = slices.Clone(q.Blocks)
	next.Blocks[i].Pin = &start
	return closing{&next, q.first}
}

// without is the problem with no room for block i.
func (q closing) without(i int) closing {
	next := *q.Problem
	next.Blocks = slices.Clone(q.Blocks)
	never := clock.Offset(-horizon)
	next.Blocks[i].Window[1] = &never
	return closing{&next, q.first}
}
