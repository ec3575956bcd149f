package runin

import (
	"math"
	"math/rand/v2"
	"slices"
)

// draft is a plan as annealing changes it: the order in which blocks are
// placed, from the due times backwards, and what each is to be. Every plan in
// which no block can move later is what some draft comes to.
type draft struct {
	order []int
	level []int // by block; -1: left out
	pick  []int // by block: which of the ends worth trying, the latest being 0
}

func (d *draft) copyFrom(e *draft) {
	copy(d.order, e.order)
	copy(d.level, e.level)
	copy(d.pick, e.pick)
}

func (d *draft) clone() *draft {
	return &draft{slices.Clone(d.order), slices.Clone(d.level), slices.Clone(d.pick)}
}

// annealer improves drafts. Its arrays are reused from draft to draft.
type annealer struct {
	*searcher
	random *rand.Rand

	free    []int // by strand: the moment before which it is free
	first   []int // by strand: start of its first block that has a phase
	pending []int // by strand: player-seconds of work outside the order, before first
	unit    []int // by exclusive resource: the moment before which it is free
	link    []int // by block: the moment by which it must have ended
	uses    [][]use
	end     []int // by block: where it ended, if it was placed
	placed  []bool
	pos     []int // by block: its place in the order
}

// mustPenalty is what a must that finds no place costs: more than any block is
// worth, yet little enough that annealing finds its way through.
const mustPenalty = 40

func newAnnealer(s *searcher) *annealer {
	a := &annealer{searcher: s, random: rand.New(rand.NewPCG(20, 26))}
	n := len(s.blocks)
	a.free, a.first, a.pending = make([]int, len(s.strands)), make([]int, len(s.strands)), make([]int, len(s.strands))
	a.unit, a.link = make([]int, len(s.units)), make([]int, n)
	a.uses = make([][]use, len(s.shared))
	a.end, a.placed, a.pos = make([]int, n), make([]bool, n), make([]int, n)
	return a
}

// score places the blocks of the draft one after the other, each as late as it
// can go before the ones placed already, and returns what the plan scores, less
// a penalty for musts that found no place.
func (a *annealer) score(d *draft) float64 {
	for k := range a.free {
		a.free[k], a.first[k], a.pending[k] = a.strands[k].due, a.strands[k].due, 0
	}
	for u := range a.unit {
		a.unit[u] = 2 * horizon
	}
	for i := range a.link {
		a.link[i], a.placed[i] = 2*horizon, false
	}
	for r := range a.uses {
		a.uses[r] = a.uses[r][:0]
	}
	value, worked := 0.0, 0
	for _, i := range d.order {
		b := &a.blocks[i]
		if d.level[i] >= 0 {
			if gain, w, ok := a.put(i, b, b.levels[d.level[i]], d.pick[i]); ok {
				value += gain
				worked += w
				continue
			}
		}
		if a.musts&(1<<i) != 0 {
			value -= mustPenalty
		}
	}
	idle := 0
	for k := range a.strands {
		idle += len(a.strands[k].players) * a.idleBefore(&a.strands[k], a.first[k])
	}
	return value - a.lambda*float64(idle-worked)
}

// put places block i; it returns its gain and the player-seconds of work that
// now lie after the first block of their strand.
func (a *annealer) put(i int, b *block, l level, pick int) (gain float64, worked int, ok bool) {
	limit := a.link[i]
	for _, k := range b.strands {
		limit = min(limit, a.free[k])
	}
	for _, u := range b.units {
		limit = min(limit, a.unit[u])
	}
	for _, sh := range b.shares {
		free := a.problem.Resources[a.shared[sh.resource]].Capacity - sh.amount
		for _, u := range a.uses[sh.resource] {
			if free -= u.amount; free < 0 {
				limit = min(limit, u.start)
				break
			}
		}
	}
	end, missed := 0, 0
	switch {
	case b.pinned:
		end = b.pin + l.seconds
		if at, fits := a.latest(b, l.seconds, end); !fits || at != end || end > limit {
			return 0, 0, false
		}
		missed = a.missed(b, end-l.seconds, end)
	case b.excusable:
		ends := a.ends(b, l.seconds, limit)
		if len(ends) == 0 {
			return 0, 0, false
		}
		end = ends[min(pick, len(ends)-1)]
		missed = a.missed(b, end-l.seconds, end)
	default:
		if end, ok = a.latest(b, l.seconds, limit); !ok {
			return 0, 0, false
		}
	}
	start := end - l.seconds
	a.end[i], a.placed[i] = end, true
	for _, k := range b.strands {
		a.free[k] = start
		n := len(a.strands[k].players)
		work := n * l.seconds
		if missed > 0 {
			work -= n * overlap(a.strands[k].closed, start, end)
		}
		if b.phase < 0 {
			a.pending[k] += work
			continue
		}
		worked += work + a.pending[k]
		a.first[k], a.pending[k] = start, 0
	}
	for _, u := range b.units {
		a.unit[u] = start
	}
	for _, j := range b.linked {
		a.link[j] = min(a.link[j], start)
	}
	for _, sh := range b.shares {
		uses := append(a.uses[sh.resource], use{start, sh.amount})
		for n := len(uses) - 1; n > 0 && uses[n].start < uses[n-1].start; n-- {
			uses[n], uses[n-1] = uses[n-1], uses[n]
		}
		a.uses[sh.resource] = uses
	}
	return l.gain * (1 - float64(missed)/float64(b.people*l.seconds)), worked, true
}

// begin is a draft in the listed order, with everything at its shortest.
func (a *annealer) begin() *draft {
	n := len(a.blocks)
	d := &draft{order: make([]int, 0, n), level: make([]int, n), pick: make([]int, n)}
	done := uint64(0)
	for len(d.order) < n {
		// From the end: the last listed block whose followers are all placed.
		for i := n - 1; i >= 0; i-- {
			if done&(1<<i) == 0 && a.blocks[i].later&^done == 0 {
				d.order = append(d.order, i)
				done |= 1 << i
				break
			}
		}
	}
	return d
}

// adopt makes d what leads to the plan f.
func (a *annealer) adopt(d *draft, f *found) {
	copy(d.level, f.level)
	place := func(i int) int {
		if f.level[i] < 0 {
			return -2 * horizon
		}
		return f.end[i]
	}
	// Those left out stay where the listed order has them: before their
	// followers nothing may come.
	slices.SortStableFunc(d.order, func(x, y int) int { return place(y) - place(x) })
	kept := d.order[:0:0]
	for _, i := range d.order {
		if f.level[i] >= 0 {
			kept = append(kept, i)
		}
	}
	for _, i := range d.order {
		if f.level[i] >= 0 {
			continue
		}
		at := 0
		for n, j := range kept {
			if a.blocks[i].later&(1<<j) != 0 {
				at = n + 1
			}
		}
		kept = slices.Insert(kept, at, i)
	}
	copy(d.order, kept)
}

// holds tells whether every must of the draft finds its place.
func (a *annealer) holds(d *draft) bool {
	a.score(d)
	for i := range a.blocks {
		if a.musts&(1<<i) != 0 && !a.placed[i] {
			return false
		}
	}
	return true
}

// read is the plan that the draft comes to.
func (a *annealer) read(d *draft) *found {
	a.score(d)
	f := &found{level: make([]int, len(a.blocks)), end: make([]int, len(a.blocks))}
	for i := range a.blocks {
		f.level[i] = -1
		if a.placed[i] {
			f.level[i], f.end[i] = d.level[i], a.end[i]
			f.sum += a.end[i] - a.blocks[i].levels[d.level[i]].seconds
		}
	}
	return f
}

// cool improves the draft for rounds rounds, from temperature hot to cold,
// and returns the best that was seen.
func (a *annealer) cool(d *draft, rounds int, hot, cold float64) (*draft, float64) {
	now := a.score(d)
	best, bestScore := d.clone(), now
	next := d.clone()
	factor := math.Pow(cold/hot, 1/float64(max(1, rounds)))
	heat := hot
	for range rounds {
		next.copyFrom(d)
		a.mutate(next)
		score := a.score(next)
		if score >= now || a.random.Float64() < math.Exp((score-now)/heat) {
			d, next = next, d
			now = score
			if score > bestScore+eps {
				best.copyFrom(d)
				bestScore = score
			}
		}
		heat *= factor
	}
	return best, bestScore
}

// mutate changes the draft a little.
func (a *annealer) mutate(d *draft) {
	n := len(d.order)
	switch r := a.random.IntN(10); {
	case r < 4:
		a.turn(d, a.random.IntN(n), 0)
	case r < 6: // give to one, take from another
		a.turn(d, a.random.IntN(n), 1)
		a.turn(d, a.random.IntN(n), -1)
	case r < 9:
		a.shift(d)
	default:
		i := a.random.IntN(n)
		if a.blocks[i].excusable {
			d.pick[i] = max(0, d.pick[i]+1-2*a.random.IntN(2))
		} else {
			a.shift(d)
			a.turn(d, a.random.IntN(n), 0)
		}
	}
}

// turn changes the level of block i: up, down, or (0) either way.
func (a *annealer) turn(d *draft, i, way int) {
	low, high := -1, len(a.blocks[i].levels)-1
	if a.musts&(1<<i) != 0 {
		low = 0
	}
	if way == 0 {
		way = 1 - 2*a.random.IntN(2)
	}
	d.level[i] = max(low, min(high, d.level[i]+way))
}

// shift moves one block within the order, as far as its followers and
// predecessors let it.
func (a *annealer) shift(d *draft) {
	n := len(d.order)
	from := a.random.IntN(n)
	i := d.order[from]
	low, high := from, from
	for low > 0 && a.blocks[i].later&(1<<d.order[low-1]) == 0 {
		low--
	}
	for high < n-1 && a.blocks[d.order[high+1]].later&(1<<i) == 0 {
		high++
	}
	if low == high {
		return
	}
	to := low + a.random.IntN(high-low)
	if to >= from {
		to++
	}
	for at := from; at < to; at++ {
		d.order[at] = d.order[at+1]
	}
	for at := from; at > to; at-- {
		d.order[at] = d.order[at-1]
	}
	d.order[to] = i
}
