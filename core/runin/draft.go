package runin

import (
	"math"
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
	if least := math.Inf(-1); a.score(full, 0, least) > a.score(d, 0, least) {
		return full
	}
	return d
}

// adopt makes d what leads to the plan f: what it keeps is placed by when it ends, the latest
// first; what it leaves out stands behind those of its followers that are kept.
func (a *annealer) adopt(d *draft, f *found) {
	var kept, out []int
	for _, i := range d.order {
		if f.level[i] >= 0 {
			kept = append(kept, i)
		} else {
			out = append(out, i)
		}
	}
	slices.SortStableFunc(kept, func(x, y int) int { return f.end[y] - f.end[x] })
	for _, i := range out {
		at := 0
		for n, j := range kept {
			if a.blocks[i].later&(1<<j) != 0 {
				at = n + 1
			}
		}
		kept = slices.Insert(kept, at, i)
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
	level := max(a.blocks[j].low, min(d.level[i], len(a.blocks[j].levels)-1))
	d.level[i] = -1
	first := min(a.pos[i], a.pos[j])
	first = min(first, a.move(d, j, a.pos[i])) // it is still out, so that nothing holds it
	return min(first, a.admit(d, j, level))
}

// eject takes block i in full, and puts out up to three of its rivals that stand next to it.
func (a *annealer) eject(d *draft, i int) int {
	full := len(a.blocks[i].levels) - 1
	if d.level[i] == full || len(a.rivals[i]) == 0 {
		return len(d.order)
	}
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
	return min(first, a.admit(d, i, full))
}

// admit gives block i a level. One that was left out goes to the nearest place between those of
// its followers and predecessors that are kept; predecessors that stand before its
// followers go behind it.
func (a *annealer) admit(d *draft, i, level int) int {
	if d.level[i] >= 0 {
		d.level[i] = level
		return a.pos[i]
	}
	d.level[i] = level
	from, low, high := 0, 0, len(d.order)
	for n, j := range d.order {
		switch {
		case j == i:
			from = n
		case d.level[j] < 0:
		case a.blocks[i].later&(1<<j) != 0:
			low = n + 1
		case a.blocks[j].later&(1<<i) != 0:
			high = min(high, n)
		}
	}
	to := max(low, min(high, from))
	if to > from {
		to-- // it goes from before there
	}
	a.carry(d, from, to)
	if low > high {
		to = min(high, from) // what stood at high is one before where i was
		a.behind(d, i, max(0, high-1))
	}
	return min(from, to)
}

// behind puts the kept predecessors of block i, and theirs, that stand from a place of the
// order on and before it, behind it.
func (a *annealer) behind(d *draft, i, place int) {
	moved := uint64(1) << i
	a.after = a.after[:0]
	to := place
	for n := place; ; n++ {
		j := d.order[n]
		if j != i && d.level[j] >= 0 && a.blocks[j].later&moved != 0 {
			moved |= 1 << j
			a.after = append(a.after, j)
			continue
		}
		d.order[to] = j
		to++
		if j == i {
			copy(d.order[to:], a.after)
			return
		}
	}
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
	level := max(low, min(high, was+way))
	if level >= 0 && level < a.blocks[i].low {
		level = a.blocks[i].low
		if way < 0 {
			level = low
		}
	}
	switch {
	case level == was:
		return len(d.order)
	case level < 0:
		d.level[i] = -1
		return a.pos[i]
	}
	return a.admit(d, i, level)
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
// predecessors let it: those that are kept, if it is.
func (a *annealer) move(d *draft, i, to int) int {
	n := len(d.order)
	from := slices.Index(d.order, i)
	low, high := from, from
	kept := d.level[i] >= 0
	for low > 0 && !(kept && d.level[d.order[low-1]] >= 0 && a.blocks[i].later&(1<<d.order[low-1]) != 0) {
		low--
	}
	for high < n-1 && !(kept && d.level[d.order[high+1]] >= 0 && a.blocks[d.order[high+1]].later&(1<<i) != 0) {
		high++
	}
	if to = max(low, min(high, to)); to == from {
		return n
	}
	a.carry(d, from, to)
	return min(from, to)
}

// carry moves what stands at one place of the order to another.
func (a *annealer) carry(d *draft, from, to int) {
	i := d.order[from]
	for at := from; at < to; at++ {
		d.order[at] = d.order[at+1]
	}
	for at := from; at > to; at-- {
		d.order[at] = d.order[at-1]
	}
	d.order[to] = i
}
