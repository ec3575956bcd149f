package runin

import (
	"context"
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

// annealer improves drafts. A draft is placed block by block; what is taken
// after each is kept, so that a change in the middle of the order only costs
// the rest of it.
type annealer struct {
	*searcher
	random *rand.Rand
	sooner sooner  // of its own: two annealers work at once
	pos    []int   // by block: its place in the order of the present draft
	rivals [][]int // by block: those that it competes with for strands or resources
	free   [][]int // by block: those rivals that may come before or after it

	// Where in taken the parts begin.
	firstAt, pendingAt, unitAt, linkAt int
	shareAt                            []int // where each shared resource's list begins: its length, then start and amount of each use
	present, tried                     trail
}

// trail is what a draft comes to, step by step; place n is before block n of
// the order is placed.
type trail struct {
	taken  [][]int // by place: the moment each strand is free until, then where the first block of each starts, its pending work, and the moment that each resource and link is free until
	value  []float64
	worked []int
	end    []int  // by block, where placed
	placed []bool // by block
}

// mustPenalty is what a must that finds no place costs: more than any block is
// worth, yet little enough that annealing finds its way through.
const mustPenalty = 40

func newAnnealer(s *searcher, seed uint64) *annealer {
	n := len(s.blocks)
	a := &annealer{searcher: s, sooner: sooner{}, random: rand.New(rand.NewPCG(seed, 26)), pos: make([]int, n)}
	a.firstAt, a.pendingAt, a.unitAt = len(s.strands), 2*len(s.strands), 3*len(s.strands)
	a.linkAt = a.unitAt + len(s.units)
	size := a.linkAt + n
	for r := range s.shared {
		a.shareAt = append(a.shareAt, size)
		size++
		for i := range s.blocks {
			for _, sh := range s.blocks[i].shares {
				if sh.resource == r {
					size += 2
				}
			}
		}
	}
	a.rivals, a.free = make([][]int, n), make([][]int, n)
	for i := range s.blocks {
		for j := range s.blocks {
			if i != j && s.blocks[i].rivals(&s.blocks[j]) {
				a.rivals[i] = append(a.rivals[i], j)
				if s.blocks[i].later&(1<<j) == 0 && s.blocks[j].later&(1<<i) == 0 {
					a.free[i] = append(a.free[i], j)
				}
			}
		}
	}
	for _, t := range []*trail{&a.present, &a.tried} {
		t.value, t.worked = make([]float64, n+1), make([]int, n+1)
		t.end, t.placed = make([]int, n), make([]bool, n)
		all := make([]int, size*(n+1))
		for place := range n + 1 {
			t.taken = append(t.taken, all[place*size:(place+1)*size])
		}
		start := t.taken[0]
		for k := range s.strands {
			start[k], start[a.firstAt+k] = s.strands[k].due, s.strands[k].due
		}
		for i := a.unitAt; i < a.linkAt+n; i++ {
			start[i] = 2 * horizon
		}
	}
	return a
}

// score places the draft from place on, on top of what the present draft came
// to before it, and returns what the plan scores, less a penalty for musts that
// found no place.
func (a *annealer) score(d *draft, place int) float64 {
	t := &a.tried
	taken := t.taken[place]
	if place > 0 {
		copy(taken, a.present.taken[place])
		t.value[place], t.worked[place] = a.present.value[place], a.present.worked[place]
	}
	for ; place < len(d.order); place++ {
		i := d.order[place]
		next := t.taken[place+1]
		copy(next, taken)
		value, worked := t.value[place], t.worked[place]
		t.placed[i] = false
		if d.level[i] >= 0 {
			gain, w, end, ok := a.put(next, d, i)
			if ok {
				t.placed[i], t.end[i] = true, end
				value += gain
				worked += w
			}
		}
		if !t.placed[i] && a.musts&(1<<i) != 0 {
			value -= mustPenalty
		}
		t.value[place+1], t.worked[place+1] = value, worked
		taken = next
	}
	idle := 0
	for k := range a.strands {
		s := &a.strands[k]
		if first := taken[a.firstAt+k]; len(s.active) == 0 {
			idle += len(s.players) * (s.due - first)
		} else {
			idle += len(s.players) * a.idleBefore(s, first)
		}
	}
	return t.value[len(d.order)] - a.lambda*float64(idle-t.worked[len(d.order)])
}

// accept makes the draft that was placed from place on the present one.
func (a *annealer) accept(d *draft, place int) {
	p, t := &a.present, &a.tried
	for n := place; n < len(d.order); n++ {
		i := d.order[n]
		a.pos[i] = n
		p.end[i], p.placed[i] = t.end[i], t.placed[i]
		p.taken[n+1], t.taken[n+1] = t.taken[n+1], p.taken[n+1]
	}
	copy(p.value[place+1:], t.value[place+1:])
	copy(p.worked[place+1:], t.worked[place+1:])
}

// put places block i as late as it can go before what is taken; it returns its
// gain, the player-seconds of work that now lie after the first block of their
// strand, and its end.
func (a *annealer) put(taken []int, d *draft, i int) (gain float64, worked, end int, ok bool) {
	b, pick := &a.blocks[i], d.pick[i]
	l := b.levels[d.level[i]]
	limit := taken[a.linkAt+i]
	for _, k := range b.strands {
		limit = min(limit, taken[k])
	}
	for _, u := range b.units {
		limit = min(limit, taken[a.unitAt+u])
	}
	for _, sh := range b.shares {
		free := a.problem.Resources[a.shared[sh.resource]].Capacity - sh.amount
		list := taken[a.shareAt[sh.resource]:]
		for n := range list[0] {
			if free -= list[2*n+2]; free < 0 {
				limit = min(limit, list[2*n+1])
				break
			}
		}
	}
	missed := 0
	switch {
	case b.pinned:
		end = b.pin + l.seconds
		if at, fits := a.latest(b, l.seconds, end); !fits || at != end || end > limit {
			return 0, 0, 0, false
		}
		missed = a.missed(b, end-l.seconds, end)
	default:
		if end, ok = a.latest(b, l.seconds, limit); !ok {
			return 0, 0, 0, false
		}
		if b.excusable {
			choices := a.sooner.ends(a.model, i, d.level[i], end)
			n := min(pick, len(choices.at)-1)
			end, missed = choices.at[n], choices.missed[n]
		}
	}
	start := end - l.seconds
	for _, k := range b.strands {
		taken[k] = start
	}
	if b.phase < 0 {
		for _, k := range b.strands {
			away := 0
			if missed > 0 {
				away = overlap(a.strands[k].closed, start, end)
			}
			taken[a.pendingAt+k] += len(a.strands[k].players) * (l.seconds - away)
		}
	} else {
		worked = b.people*l.seconds - missed
		first, pending := taken[a.firstAt:a.pendingAt], taken[a.pendingAt:a.unitAt]
		for _, k := range b.strands {
			worked += pending[k]
			first[k], pending[k] = start, 0
		}
	}
	for _, u := range b.units {
		taken[a.unitAt+u] = start
	}
	for _, j := range b.linked {
		taken[a.linkAt+j] = min(taken[a.linkAt+j], start)
	}
	for _, sh := range b.shares {
		list := taken[a.shareAt[sh.resource]:]
		n := list[0]
		for ; n > 0 && list[2*n-1] > start; n-- {
			list[2*n+1], list[2*n+2] = list[2*n-1], list[2*n]
		}
		list[2*n+1], list[2*n+2] = start, sh.amount
		list[0]++
	}
	gain = l.gain
	if missed > 0 {
		gain *= 1 - float64(missed)/float64(b.people*l.seconds)
	}
	return gain, worked, end, true
}

// begin is a draft in the listed order: the musts at their shortest, the rest
// left out. There is none in a tangled model.
func (a *annealer) begin() *draft {
	n := len(a.blocks)
	d := &draft{order: make([]int, 0, n), level: make([]int, n), pick: make([]int, n)}
	done := uint64(0)
	for len(d.order) < n {
		// From the end: the last listed block whose followers are all placed.
		for i := n - 1; i >= 0; i-- {
			if a.musts&(1<<i) == 0 {
				d.level[i] = -1
			}
			if done&(1<<i) == 0 && a.blocks[i].later&^done == 0 {
				d.order = append(d.order, i)
				done |= 1 << i
				break
			}
		}
	}
	return d
}

// adopt makes d what leads to the plan f, unless what f leaves out would have
// no place in the order.
func (a *annealer) adopt(d *draft, f *found) {
	place := func(i int) int {
		if f.level[i] < 0 {
			return -2 * horizon
		}
		return f.end[i]
	}
	// Those left out stay where the listed order has them: before their
	// followers nothing may come.
	order := slices.Clone(d.order)
	slices.SortStableFunc(order, func(x, y int) int { return place(y) - place(x) })
	kept := order[:0:0]
	for _, i := range order {
		if f.level[i] >= 0 {
			kept = append(kept, i)
		}
	}
	for _, i := range order {
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
	done := uint64(0)
	for _, i := range kept {
		if a.blocks[i].later&^done != 0 {
			return
		}
		done |= 1 << i
	}
	copy(d.level, f.level)
	copy(d.order, kept)
}

// holds tells whether every must of the draft finds its place.
func (a *annealer) holds(d *draft) bool {
	a.score(d, 0)
	for i := range a.blocks {
		if a.musts&(1<<i) != 0 && !a.tried.placed[i] {
			return false
		}
	}
	return true
}

// read is the plan that the draft comes to.
func (a *annealer) read(d *draft) *found {
	a.score(d, 0)
	f := &found{level: make([]int, len(a.blocks)), end: make([]int, len(a.blocks))}
	for i := range a.blocks {
		f.level[i] = -1
		if a.tried.placed[i] {
			f.level[i], f.end[i] = d.level[i], a.tried.end[i]
			f.sum += f.end[i] - a.blocks[i].levels[d.level[i]].seconds
		}
	}
	return f
}

// cool improves the draft for rounds rounds, from temperature hot to cold, and
// returns the best that was seen.
func (a *annealer) cool(ctx context.Context, d *draft, rounds int, hot, cold float64) (*draft, float64) {
	d = d.clone()
	now := a.score(d, 0)
	a.accept(d, 0)
	best, bestScore := d.clone(), now
	next := d.clone()
	factor := math.Pow(cold/hot, 1/float64(max(1, rounds)))
	heat := hot
	for round := range rounds {
		if round%256 == 0 && ctx.Err() != nil {
			break
		}
		place := a.mutate(next)
		heat *= factor
		if place == len(d.order) {
			continue // nothing was changed
		}
		score := a.score(next, place)
		if score >= now || a.random.Float64() < math.Exp((score-now)/heat) {
			a.accept(next, place)
			d.copyFrom(next)
			now = score
			if score > bestScore+eps {
				best.copyFrom(d)
				bestScore = score
			}
		} else {
			next.copyFrom(d)
		}
	}
	return best, bestScore
}

// mutate changes the draft a little, and returns the first place of its order
// from which on it differs.
func (a *annealer) mutate(d *draft) int {
	n := len(d.order)
	i := a.random.IntN(n)
	switch r := a.random.IntN(20); {
	case r < 6:
		return a.turn(d, i, 0)
	case r < 12: // give to one, take from a rival
		first := a.turn(d, i, 1)
		if rivals := a.rivals[i]; len(rivals) > 0 {
			first = min(first, a.turn(d, rivals[a.random.IntN(len(rivals))], -1))
		}
		return first
	case r < 18:
		return a.shift(d, i)
	case a.blocks[i].excusable:
		d.pick[i] = max(0, d.pick[i]+1-2*a.random.IntN(2))
		return a.pos[i]
	}
	return min(a.turn(d, i, 0), a.shift(d, i))
}

// turn changes the level of block i: up, down, or (0) either way.
func (a *annealer) turn(d *draft, i, way int) int {
	low, high := -1, len(a.blocks[i].levels)-1
	if a.musts&(1<<i) != 0 {
		low = 0
	}
	if way == 0 {
		way = 1 - 2*a.random.IntN(2)
	}
	was := d.level[i]
	d.level[i] = max(low, min(high, was+way))
	if d.level[i] == was {
		return len(d.order)
	}
	return a.pos[i]
}

// shift moves block i within the order, as far as its followers and
// predecessors let it.
func (a *annealer) shift(d *draft, i int) int {
	n := len(d.order)
	from := a.pos[i]
	low, high := from, from
	for low > 0 && a.blocks[i].later&(1<<d.order[low-1]) == 0 {
		low--
	}
	for high < n-1 && a.blocks[d.order[high+1]].later&(1<<i) == 0 {
		high++
	}
	if low == high {
		return n
	}
	// To the place of a rival that it may pass: passing others changes nothing.
	free := a.free[i]
	if len(free) == 0 {
		return n
	}
	to := max(low, min(high, a.pos[free[a.random.IntN(len(free))]]))
	if to == from {
		return n
	}
	for at := from; at < to; at++ {
		d.order[at] = d.order[at+1]
	}
	for at := from; at > to; at-- {
		d.order[at] = d.order[at-1]
	}
	d.order[to] = i
	return min(from, to)
}
