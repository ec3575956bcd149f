package runin

import "slices"

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

// begin is a draft in the listed order: the musts at their shortest, the rest
// left out. There is none in a tangled model.
func (a *annealer) begin() *draft {
	n := len(a.blocks)
	d := &draft{order: make([]int, 0, n), level: make([]int, n), pick: make([]int, n)}
	done := uint64(0)
	for len(d.order) < n {
		// From the end: the last listed block whose followers are all placed.
		for i := n - 1; i >= 0; i-- {
			d.level[i] = a.blocks[i].low
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

// fullest is the draft with every block in full, where that comes to more than d: mostly
// there are minutes for everything, and then nothing better has to be looked for.
func (a *annealer) fullest(d *draft) *draft {
	full := d.clone()
	for i := range full.level {
		full.level[i] = len(a.blocks[i].levels) - 1
	}
	if a.score(full, 0) > a.score(d, 0) {
		return full
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

// mutate changes the draft a little, and returns the first place of its order
// from which on it differs.
func (a *annealer) mutate(d *draft) int {
	n := len(d.order)
	i := a.random.IntN(n)
	switch r := a.random.IntN(24); {
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
	case r < 20:
		return a.exchange(d, i)
	case r < 22:
		return a.eject(d, i)
	case a.blocks[i].excusable:
		d.pick[i] = max(0, d.pick[i]+1-2*a.random.IntN(2))
		return a.pos[i]
	}
	return min(a.turn(d, i, 0), a.shift(d, i))
}

// exchange leaves block i out for one of its rivals that was, or takes it in for
// one that was in, at the level and in the place of the one that goes: one step
// at a time neither would find room.
func (a *annealer) exchange(d *draft, i int) int {
	rivals := a.rivals[i]
	if len(rivals) == 0 {
		return len(d.order)
	}
	j := rivals[a.random.IntN(len(rivals))]
	if d.level[i] < 0 {
		i, j = j, i
	}
	if d.level[i] < 0 || d.level[j] >= 0 || a.musts&(1<<i) != 0 {
		return len(d.order)
	}
	d.level[j] = max(a.blocks[j].low, min(d.level[i], len(a.blocks[j].levels)-1))
	d.level[i] = -1
	first := min(a.pos[i], a.pos[j])
	return min(first, a.move(d, j, a.pos[i]))
}

// eject takes block i in full, and puts out up to three of its rivals that stand next to it.
func (a *annealer) eject(d *draft, i int) int {
	full := len(a.blocks[i].levels) - 1
	if d.level[i] == full || len(a.rivals[i]) == 0 {
		return len(d.order)
	}
	d.level[i] = full
	first := a.pos[i]
	for range 1 + a.random.IntN(3) {
		j := a.rivals[i][a.random.IntN(len(a.rivals[i]))]
		if d.level[j] < 0 {
			continue
		}
		if a.musts&(1<<j) != 0 {
			d.level[j] = a.blocks[j].low
		} else {
			d.level[j] = -1
		}
		first = min(first, a.pos[j])
	}
	return first
}

// turn changes the level of block i: up, down, or (0) either way.
func (a *annealer) turn(d *draft, i, way int) int {
	low, high := -1, len(a.blocks[i].levels)-1
	if a.musts&(1<<i) != 0 {
		low = a.blocks[i].low
	}
	if way == 0 {
		way = 1 - 2*a.random.IntN(2)
	}
	was := d.level[i]
	d.level[i] = max(low, min(high, was+way))
	if d.level[i] >= 0 && d.level[i] < a.blocks[i].low {
		d.level[i] = a.blocks[i].low
		if way < 0 {
			d.level[i] = low
		}
	}
	if d.level[i] == was {
		return len(d.order)
	}
	return a.pos[i]
}

// shift moves block i within the order, to the place of a rival.
func (a *annealer) shift(d *draft, i int) int {
	// To the place of a rival that it may pass: passing others changes nothing.
	free := a.free[i]
	if len(free) == 0 {
		return len(d.order)
	}
	return a.move(d, i, a.pos[free[a.random.IntN(len(free))]])
}

// move brings block i to a place of the order, or as near as its followers and
// predecessors let it.
func (a *annealer) move(d *draft, i, to int) int {
	n := len(d.order)
	from := a.pos[i]
	low, high := from, from
	for low > 0 && a.blocks[i].later&(1<<d.order[low-1]) == 0 {
		low--
	}
	for high < n-1 && a.blocks[d.order[high+1]].later&(1<<i) == 0 {
		high++
	}
	if to = max(low, min(high, to)); to == from {
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
