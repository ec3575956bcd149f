package runin

import (
	"fmt"
	"math"
	"slices"

	"cuestart/core/clock"
)

// Beats tells whether r is the better of two answers to a problem: the musts fit, else
// its value is greater, else its idle less.
func (r *Result) Beats(other *Result) bool {
	if r.Feasible != other.Feasible {
		return r.Feasible
	}
	if math.Abs(r.Value-other.Value) > same {
		return r.Value > other.Value
	}
	return r.Idle < other.Idle
}

// Proven tells whether no plan is better.
func (r *Result) Proven() bool { return r.Bound <= r.Value+same && r.IdleBound >= r.Idle }

// result writes the best state as the answer of a problem that all musts fit.
func (s *searcher) result() *Result {
	p := s.problem
	r := &Result{Feasible: true, Stopped: s.stopped, Blocks: make([]Scheduled, len(p.Blocks))}
	for i := range p.Blocks {
		r.Blocks[i] = Scheduled{ID: p.Blocks[i].ID}
	}
	if s.best != nil {
		for i, level := range s.best.level {
			if level >= 0 {
				end := clock.Offset(s.best.end[i] * s.unit)
				r.Blocks[i].Kept, r.Blocks[i].Level = true, level-s.blocks[i].once
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
	r.Bound, r.IdleBound = r.Value, min(r.Idle, s.idleBound*s.unit)
	if s.valueBound > r.Value+same {
		r.Bound = s.valueBound
	}
	for i := range r.Blocks {
		r.Blocks[i].Why = s.why(r, i)
	}
	return r
}

// measure fills in the figures of r from its blocks.
func (m *model) measure(r *Result) {
	first := make([]int, len(m.strands))
	for k := range m.strands {
		first[k] = m.strands[k].due
	}
	worked := 0
	for i := range r.Blocks {
		if !r.Blocks[i].Kept {
			continue
		}
		sc, b := &r.Blocks[i], &m.blocks[i]
		from, to := m.at(sc.Start), m.at(sc.End)
		r.Value += b.levels[sc.Level+b.once].gain * b.attended(to-from, m.missed(b, from, to))
		for _, k := range b.strands {
			if b.phase >= 0 {
				first[k] = min(first[k], from)
			}
			if away := overlap(m.strands[k].closed, from, to); b.excusable && away > 0 {
				for _, player := range m.strands[k].players {
					sc.Missed = append(sc.Missed, Missed{m.problem.Players[player].ID, away * m.unit})
				}
			}
		}
		m.sortMissed(sc.Missed)
	}
	for i := range r.Blocks {
		if !r.Blocks[i].Kept {
			continue
		}
		from, to := m.at(r.Blocks[i].Start), m.at(r.Blocks[i].End)
		for _, k := range m.blocks[i].strands {
			if from < first[k] {
				continue
			}
			seconds := to - from
			if m.blocks[i].excusable {
				seconds -= overlap(m.strands[k].closed, from, to)
			}
			worked += len(m.strands[k].players) * seconds
		}
	}
	for k := range m.strands {
		r.Idle += len(m.strands[k].players) * m.idleBefore(&m.strands[k], first[k])
	}
	r.Idle -= worked
	r.Idle *= m.unit
}

func (m *model) sortMissed(missed []Missed) {
	order := map[string]int{}
	for i := range m.problem.Players {
		order[m.problem.Players[i].ID] = i
	}
	slices.SortFunc(missed, func(a, b Missed) int { return order[a.Player] - order[b.Player] })
}

// why says in a few words what became of block i.
func (m *model) why(r *Result, i int) string {
	from, sc := &m.problem.Blocks[i], &r.Blocks[i]
	longest, least := from.Levels[len(from.Levels)-1].Seconds, clock.Lasting(from.Levels[0].Seconds)
	switch {
	case !sc.Kept && from.Must:
		return fmt.Sprintf("left out: even its shortest, %s, does not fit beside what must be done", least)
	case !sc.Kept:
		return fmt.Sprintf("left out: no room for its shortest, %s", least)
	case sc.Level < len(from.Levels)-1:
		return fmt.Sprintf("shortened from %s to %s", clock.Lasting(longest),
			clock.Lasting(from.level(sc.Level).Seconds))
	case from.Pin != nil:
		return "in full, at its pin"
	}
	return "in full"
}
