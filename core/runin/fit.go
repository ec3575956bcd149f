package runin

import (
	"context"
	"fmt"
	"math"
	"slices"

	"cuestart/core/clock"
)

// Version changes when the same problem may get another answer.
const Version = 1

// DefaultSteps is how many steps Fit spends unless told otherwise: enough to
// prove a small problem, and a few tens of milliseconds of work.
const DefaultSteps = 150_000

// Fit finds the plan of the greatest score, spending at most steps steps
// (DefaultSteps if steps is 0). The same problem and steps give the same
// answer on any machine, unless ctx ends first: then the answer is the best
// plan so far and says so. An impossible problem is an answer, Feasible false;
// an error means that the problem itself is malformed.
func Fit(ctx context.Context, p *Problem, steps int) (*Result, error) {
	if err := p.Validate(); err != nil {
		return nil, err
	}
	if steps <= 0 {
		steps = DefaultSteps
	}
	m := newModel(p)
	s := newSearcher(ctx, m)
	s.steps = steps
	whole := s.solve()
	if s.best != nil || s.musts == 0 {
		return s.result(true, whole), nil
	}
	return s.partial(steps, whole), nil
}

// solve searches in layers of growing width until one search dropped nothing,
// and reports whether one did.
func (s *searcher) solve() (whole bool) {
	if !s.shortfall {
		s.price()
	}
	if s.musts == 0 || s.shortfall && s.musts == 0 {
		s.consider(s.root())
	}
	for width := 60; s.steps > 0 && !s.stopped; width *= 6 {
		if s.run(width) {
			return true
		}
	}
	return false
}

// partial answers a problem whose musts do not fit: by how much, why, and the
// best plan that there is when musts too may be left out.
func (s *searcher) partial(steps int, proven bool) *Result {
	lowered := *s.problem
	lowered.Players = slices.Clone(lowered.Players)
	for i := range lowered.Players {
		lowered.Players[i].Open = -2 * horizon
	}
	short := newSearcher(s.ctx, newModel(&lowered))
	short.shortfall = true
	// The strands of the lowered problem are those of the problem but for the
	// open times: what counts is the latest of a strand's players.
	for k := range short.strands {
		st := &short.strands[k]
		st.open = math.MinInt
		for _, player := range st.players {
			st.open = max(st.open, int(s.problem.Players[player].Open))
		}
	}
	short.steps = steps
	short.solve()

	rest := newSearcher(s.ctx, s.model)
	rest.steps, rest.musts = steps, 0
	whole := rest.solve()
	result := rest.result(false, whole)
	result.Why = s.binding(short)
	if short.best != nil {
		result.ShortBy = short.short(short.best)
	}
	return result
}

// binding says in one sentence what keeps the musts from fitting.
func (s *searcher) binding(short *searcher) string {
	if short.best == nil {
		return "the musts cannot all be placed, however early the work begins: a pin, a link, a fixed event or a resource stands in the way"
	}
	worst, by := 0, math.MinInt
	for k := range short.strands {
		if n := short.strands[k].open - short.best.places[3*k]; n > by {
			worst, by = k, n
		}
	}
	strand := &short.strands[worst]
	need := 0
	for i := range short.blocks {
		if b := &short.blocks[i]; b.must && slices.Contains(b.strands, worst) {
			need += b.levels[0].seconds
		}
	}
	room := strand.due - strand.open - overlap(strand.closed, strand.open, strand.due)
	who := s.problem.Players[strand.players[0]].ID
	if n := len(strand.players); n > 1 {
		who = fmt.Sprintf("%s and %d more", who, n-1)
	}
	if need > room {
		return fmt.Sprintf("%s: the musts at their shortest take %s, and there are %s", who, clock.Duration(need), clock.Duration(room))
	}
	return fmt.Sprintf("%s: the musts take %s of %s, but fixed events, links, joint blocks or resources leave them no place to stand", who, clock.Duration(need), clock.Duration(room))
}

// result writes the best state as an answer.
func (s *searcher) result(feasible, whole bool) *Result {
	p := s.problem
	r := &Result{Feasible: feasible, Stopped: s.stopped, Blocks: make([]Scheduled, len(p.Blocks))}
	for i := range p.Blocks {
		r.Blocks[i] = Scheduled{ID: p.Blocks[i].ID}
	}
	for t := s.best; t != nil && t.from != nil; t = t.from {
		seconds := s.blocks[t.block].levels[t.level].seconds
		r.Blocks[t.block] = Scheduled{ID: p.Blocks[t.block].ID, Kept: true, Level: t.level,
			Start: clock.Offset(t.end - seconds), End: clock.Offset(t.end)}
	}
	for k := range s.strands {
		var ids []string
		for _, player := range s.strands[k].players {
			ids = append(ids, p.Players[player].ID)
		}
		r.Strands = append(r.Strands, ids)
	}
	s.measure(r)
	r.Bound = r.Score
	if !whole {
		r.Bound = max(r.Score, s.dropped)
	}
	for i := range r.Blocks {
		r.Blocks[i].Why = s.why(r, i)
	}
	return r
}

// measure fills in the figures of r from its blocks.
func (s *searcher) measure(r *Result) {
	first := make([]int, len(s.strands))
	for k := range s.strands {
		first[k] = s.strands[k].due
	}
	worked := 0
	for i := range r.Blocks {
		if !r.Blocks[i].Kept {
			continue
		}
		sc, b := &r.Blocks[i], &s.blocks[i]
		from, to := int(sc.Start), int(sc.End)
		missed := s.missed(b, from, to)
		r.Value += b.levels[sc.Level].gain * (1 - float64(missed)/float64(b.people*(to-from)))
		for _, k := range b.strands {
			if b.phase >= 0 {
				first[k] = min(first[k], from)
			}
			if away := overlap(s.strands[k].closed, from, to); b.excusable && away > 0 {
				for _, player := range s.strands[k].players {
					sc.Missed = append(sc.Missed, Missed{s.problem.Players[player].ID, away})
				}
			}
		}
		s.sortMissed(sc.Missed)
	}
	for i := range r.Blocks {
		if !r.Blocks[i].Kept {
			continue
		}
		from, to := int(r.Blocks[i].Start), int(r.Blocks[i].End)
		for _, k := range s.blocks[i].strands {
			if from < first[k] {
				continue
			}
			seconds := to - from
			if s.blocks[i].excusable {
				seconds -= overlap(s.strands[k].closed, from, to)
			}
			worked += len(s.strands[k].players) * seconds
		}
	}
	for k := range s.strands {
		r.Idle += len(s.strands[k].players) * s.idleBefore(&s.strands[k], first[k])
	}
	r.Idle -= worked
	r.Score = r.Value - s.lambda*float64(r.Idle)
}

func (s *searcher) sortMissed(missed []Missed) {
	order := map[string]int{}
	for i := range s.problem.Players {
		order[s.problem.Players[i].ID] = i
	}
	slices.SortFunc(missed, func(a, b Missed) int { return order[a.Player] - order[b.Player] })
}

// why says in a few words what became of block i.
func (s *searcher) why(r *Result, i int) string {
	from, sc := &s.problem.Blocks[i], &r.Blocks[i]
	longest := from.Levels[len(from.Levels)-1].Seconds
	switch {
	case !sc.Kept && from.Must:
		return fmt.Sprintf("left out: not even its shortest, %s, fits beside the other musts", clock.Duration(from.Levels[0].Seconds))
	case !sc.Kept:
		return fmt.Sprintf("left out: its shortest, %s, is worth less than what it would displace", clock.Duration(from.Levels[0].Seconds))
	case sc.Level < len(from.Levels)-1:
		return fmt.Sprintf("shortened from %s to %s", clock.Duration(longest), clock.Duration(from.Levels[sc.Level].Seconds))
	case from.Pin != nil:
		return "in full, at its pin"
	}
	return "in full"
}
