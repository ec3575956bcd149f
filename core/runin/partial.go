package runin

import (
	"fmt"
	"math"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/stake"
)

// partial answers a problem whose musts do not fit: by how much, why, and the
// best plan that there is when musts too may be left out.
func (s *searcher) partial(steps int) *Result {
	short := s.shortest(steps, asOpen)
	result := s.most(steps)
	if short.best != nil {
		result.ShortBy = max(0, -int(short.bestScore)*short.unit)
		result.Binds, result.Why = s.binding(short)
		return result
	}
	if freed := s.shortest(steps, allFree); freed.best != nil {
		result.Binds, result.Why = s.binding(freed)
		result.Why += fmt.Sprintf("; what they need would have to be free %s earlier too",
			clock.Lasting(-int(freed.bestScore)*freed.unit))
		return result
	}
	result.Why = "what must be done cannot all be placed, however early work begins: a set time, an order, a fixed " +
		"time, a place or a leader is in the way"
	for i := range s.problem.Blocks {
		b := &s.problem.Blocks[i]
		for _, need := range b.Needs {
			for _, r := range s.problem.Resources {
				if b.Must && r.ID == need.Resource && r.Capacity < need.Amount {
					result.Why = fmt.Sprintf("%s, a must, needs %d of %s, which holds %d", b.ID, need.Amount, r.ID,
						r.Capacity)
				}
			}
		}
	}
	return result
}

// most is the best plan that there is when the musts do not fit: first their leasts give
// way, down to doing each thing once, and only then does a must go.
func (s *searcher) most(steps int) *Result {
	lowered := *s.problem
	lowered.Blocks = slices.Clone(lowered.Blocks)
	worth := make([]float64, len(lowered.Blocks))
	for i := range lowered.Blocks {
		b := &lowered.Blocks[i]
		b.Levels = slices.Concat(b.Once, b.Levels)
		if b.Must {
			worth[i] = stake.Block{Priority: stake.Must, Pulse: b.Pulse}.Lost()
		}
	}
	model := newModel(&lowered)
	for i := range model.blocks {
		model.blocks[i].once = len(s.problem.Blocks[i].Once)
		for l := range model.blocks[i].levels {
			model.blocks[i].levels[l].gain += worth[i]
		}
	}
	rest := newSearcher(s.ctx, model)
	rest.steps, rest.musts, rest.plenty = steps, 0, s.plenty
	rest.solve()
	model.problem = s.problem
	kept := 0.0
	for i := range model.blocks {
		for l := range model.blocks[i].levels {
			model.blocks[i].levels[l].gain -= worth[i]
		}
		if rest.best.level[i] >= 0 {
			kept += worth[i]
		}
	}
	rest.valueBound -= kept
	is := rest.result()
	is.Feasible = false
	return is
}

// Whether resources are free as they are open, or from any early moment.
const asOpen, allFree = false, true

// shortest finds how much earlier all would have to open for the musts to fit at their shortest;
// with freed, resources too are free from any early moment.
func (s *searcher) shortest(steps int, freed bool) *searcher {
	lowered := *s.problem
	lowered.Players = slices.Clone(lowered.Players)
	for i := range lowered.Players {
		lowered.Players[i].Open = -2 * horizon
	}
	if freed {
		lowered.Resources = slices.Clone(lowered.Resources)
		for i := range lowered.Resources {
			if free := slices.Clone(lowered.Resources[i].Free); len(free) > 0 {
				free[0][0] = -2 * horizon
				lowered.Resources[i].Free = free
			}
		}
	}
	short := newSearcher(s.ctx, newModel(&lowered))
	short.shortfall = true
	// The strands of the lowered problem are those of the problem but for the
	// open times: what counts is the latest of a strand's players.
	for k := range short.strands {
		st := &short.strands[k]
		st.open = math.MinInt
		for _, player := range st.players {
			st.open = max(st.open, short.at(s.problem.Players[player].Open))
		}
	}
	short.steps = steps
	short.solve()
	return short
}

// binding says in one sentence what keeps the musts from fitting, and whom.
func (m *model) binding(short *searcher) (players []string, why string) {
	worst, by := 0, math.MinInt
	for k := range short.strands {
		first := short.strands[k].due
		for _, i := range short.blocksOf(k) {
			if l := short.best.level[i]; l >= 0 {
				first = min(first, short.best.end[i]-short.blocks[i].levels[l].seconds)
			}
		}
		if n := short.strands[k].open - first; n > by {
			worst, by = k, n
		}
	}
	strand := &short.strands[worst]
	for _, player := range strand.players {
		players = append(players, m.problem.Players[player].ID)
	}
	need := 0
	for _, i := range short.blocksOf(worst) {
		if b := &short.blocks[i]; b.must {
			need += b.levels[0].seconds
		}
	}
	room := strand.due - strand.open - overlap(strand.closed, strand.open, strand.due)
	if need > room {
		return players, fmt.Sprintf("at its shortest, what must be done takes %s, and there is %s",
			clock.Lasting(need*short.unit), clock.Lasting(room*short.unit))
	}
	return players,
		fmt.Sprintf("what must be done would take %s of %s, but fixed times, shared places and leaders, and blocks "+
			"done together get in the way",
			clock.Lasting(need*short.unit), clock.Lasting(room*short.unit))
}

// blocksOf lists the blocks of strand k.
func (m *model) blocksOf(k int) (blocks []int) {
	for i := range m.blocks {
		if slices.Contains(m.blocks[i].strands, k) {
			blocks = append(blocks, i)
		}
	}
	return blocks
}
