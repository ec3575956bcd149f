package runin

import (
	"fmt"
	"slices"

	"cuestart/core/clock"
)

// result writes the best state as an answer.
func (s *searcher) result(feasible, whole bool) *Result {
	p := s.problem
	r := &Result{Feasible: feasible, Stopped: s.stopped, Blocks: make([]Scheduled, len(p.Blocks))}
	for i := range p.Blocks {
		r.Blocks[i] = Scheduled{ID: p.Blocks[i].ID}
	}
	if s.best != nil {
		for i, level := range s.best.level {
			if level >= 0 {
				end := clock.Offset(s.best.end[i] * s.unit)
				r.Blocks[i].Kept, r.Blocks[i].Level = true, level
				r.Blocks[i].Start, r.Blocks[i].End = end-clock.Offset(s.blocks[i].levels[level].seconds*s.unit), end
			}
		}
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
		r.Bound = max(r.Score, s.lowest)
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
		from, to := s.at(sc.Start), s.at(sc.End)
		missed := s.missed(b, from, to)
		r.Value += b.levels[sc.Level].gain * (1 - float64(missed)/float64(b.people*(to-from)))
		for _, k := range b.strands {
			if b.phase >= 0 {
				first[k] = min(first[k], from)
			}
			if away := overlap(s.strands[k].closed, from, to); b.excusable && away > 0 {
				for _, player := range s.strands[k].players {
					sc.Missed = append(sc.Missed, Missed{s.problem.Players[player].ID, away * s.unit})
				}
			}
		}
		s.sortMissed(sc.Missed)
	}
	for i := range r.Blocks {
		if !r.Blocks[i].Kept {
			continue
		}
		from, to := s.at(r.Blocks[i].Start), s.at(r.Blocks[i].End)
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
	r.Idle *= s.unit
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
		return fmt.Sprintf("left out: not even its shortest, %s, fits beside the other musts", clock.Lasting(from.Levels[0].Seconds))
	case !sc.Kept:
		return fmt.Sprintf("left out: its shortest, %s, is worth less than what it would displace", clock.Lasting(from.Levels[0].Seconds))
	case sc.Level < len(from.Levels)-1:
		return fmt.Sprintf("shortened from %s to %s", clock.Lasting(longest), clock.Lasting(from.Levels[sc.Level].Seconds))
	case from.Pin != nil:
		return "in full, at its pin"
	}
	return "in full"
}
