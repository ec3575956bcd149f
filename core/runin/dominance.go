package runin

import (
	"math"
	"math/bits"
	"slices"
)

// view is what of a state matters to its completions.
type view struct {
	settled float64   // gain and work, less the waiting of strands that have no block open
	places  []int     // the moments from which strands, resources and links with a block open are taken
	costs   []float64 // of each strand with a block open: its waiting, and the saving that is pending, negative
}

// promising gives the best states of a layer, at most width of them, without
// those that another one with the same blocks open equals or betters in
// everything, and tells whether no other state was dropped.
func (s *searcher) promising(layer []*state, width int) (kept []*state, complete bool) {
	slices.SortFunc(layer, better)
	groups := map[uint64][]*state{}
	compared := 0
	for n, t := range layer {
		if s.hopeless(t) {
			if t.hope < s.floor && t.bound > s.bestScore+s.step {
				s.spare = append(s.spare, t)
				continue
			}
			s.spare = append(s.spare, layer[n:]...)
			break
		}
		if len(kept) == width || s.steps <= compared/comparisonsPerStep {
			s.drop(t) // and all after it, of which none has a higher bound
			s.spare = append(s.spare, layer[n:]...)
			return kept, false
		}
		s.look(t)
		group := groups[t.open]
		if slices.ContainsFunc(group, func(k *state) bool { compared++; return s.dominates(k, t) }) {
			s.spare = append(s.spare, t)
			continue
		}
		groups[t.open] = append(group, t)
		kept = append(kept, t)
	}
	s.steps -= compared / comparisonsPerStep
	return kept, true
}

// comparisonsPerStep is how many comparisons of two states cost a step.
const comparisonsPerStep = 32

// look takes the view of t.
func (s *searcher) look(t *state) {
	v := &t.view
	v.settled, v.places, v.costs = t.gain+s.lambda*float64(t.worked), v.places[:0], v.costs[:0]
	for k := range s.strands {
		strand := &s.strands[k]
		waiting := s.lambda * float64(len(strand.players)*s.idleBefore(strand, t.taken[s.firstAt+k]))
		if strand.blocks&t.open == 0 {
			v.settled -= waiting
			continue
		}
		v.places = append(v.places, min(t.taken[k], t.last))
		v.costs = append(v.costs, waiting, -s.lambda*float64(t.taken[s.pendingAt+k]))
	}
	for u, users := range s.users {
		if users&t.open != 0 {
			v.places = append(v.places, min(t.taken[s.unitAt+u], t.last))
		}
	}
	s.lookAround(t)
	for open := t.open & s.waits; open != 0; open &= open - 1 {
		v.places = append(v.places, min(t.taken[s.linkAt+bits.TrailingZeros64(open)], t.last))
	}
}

// lookAround adds by when everybody with a block open has to be done where.
func (m *model) lookAround(t *state) {
	places := len(m.walks)
	if places == 0 {
		return
	}
	for k := range m.strands {
		if m.strands[k].blocks&t.open != 0 {
			for _, at := range t.taken[m.reachAt+k*places:][:places] {
				t.view.places = append(t.view.places, min(at, t.last))
			}
		}
	}
	for u, users := range m.users {
		if users&t.open != 0 {
			for _, at := range t.taken[m.unitReachAt+u*places:][:places] {
				t.view.places = append(t.view.places, min(at, t.last))
			}
		}
	}
}

// dominates tells whether any completion of b is open to a too, and no worse.
// Both have the same blocks open.
func (s *searcher) dominates(a, b *state) bool {
	if a.last < b.last || a.gain < b.gain-same && !math.IsInf(s.floor, -1) {
		return false
	}
	for i, place := range a.view.places {
		if place < b.view.places[i] {
			return false
		}
	}
	// A completion that begins earlier settles a strand's waiting anew; one
	// that does not keeps it. The worse of the two counts.
	ahead := a.view.settled - b.view.settled
	for i, cost := range a.view.costs {
		ahead -= max(0, cost-b.view.costs[i])
	}
	if ahead < -eps {
		return false
	}
	for r := range s.shared {
		mine, theirs := s.uses(a.taken, r), s.uses(b.taken, r)
		for n := 0; n < len(mine); n += 2 {
			if start := mine[n]; start < b.last && usedAt(mine, start) > usedAt(theirs, start) {
				return false
			}
		}
	}
	return true
}

// usedAt is the amount that uses, which last until the end, hold at a moment.
func usedAt(uses []int, moment int) (amount int) {
	for ; len(uses) > 0 && uses[0] <= moment; uses = uses[2:] {
		amount += uses[1]
	}
	return amount
}
