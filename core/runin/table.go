package runin

// table gives, for a set of open blocks and by the moment that they must end
// by, the most that they can bring a strand.
type table struct {
	open    uint64
	round   int       // in which it was filled
	phased  []float64 // with at least one block that has a phase
	aside   []float64 // with blocks outside the order only
	next    []float64 // the better of the two, where a block with a phase begins
	options []option

	unordered bool
}

// option is a copy and level that may come next: the list of the table that it
// may raise, what can follow it, and a change of its value.
type option struct {
	copy, level int
	rest        *table
	to, from    []float64
	by          float64
}

// mostSets is how many sets of open blocks a strand may have tables for. One
// beyond that, of a strand with very many loose blocks, is taken at the best
// of every block, whatever the order.
const mostSets = 3000

// table of the strand of r for the blocks of open, of which all are its own.
func (x *relaxation) table(r *row, open uint64) *table {
	t, known := r.sets[open]
	if !known {
		t = x.newTable(r, open)
	}
	x.complete(r, t)
	return t
}

// newTable makes a table that is yet to be filled, and those of all sets that
// can follow its own.
func (x *relaxation) newTable(r *row, open uint64) *table {
	all := make([]float64, 3*x.span)
	t := &table{open: open, phased: all[:x.span], aside: all[x.span : 2*x.span], next: all[2*x.span:]}
	r.sets[open] = t
	if t.unordered = len(r.sets) > mostSets; t.unordered {
		return t
	}
	for n := range r.copies {
		c := &r.copies[n]
		b := &x.blocks[c.block]
		if open&(1<<c.block) == 0 || open&b.later&x.musts != 0 {
			continue
		}
		// Nothing that would have had to come after it stays open.
		left := open &^ (1<<c.block | b.later)
		rest, known := r.sets[left]
		if !known {
			rest = x.newTable(r, left)
		}
		for l := range c.levels {
			rl := &c.levels[l]
			switch {
			case rl.last < 0:
			case b.phase >= 0:
				t.options = append(t.options, option{copy: n, level: l, rest: rest, to: t.phased, from: rest.next,
					by: 0})
			default:
				t.options = append(t.options, option{copy: n, level: l, rest: rest, to: t.phased, from: rest.phased,
					by: 0})
				saved := x.lambda * r.people * float64(rl.seconds)
				if b.excusable {
					saved = 0 // or less than that, where somebody is away
				}
				t.options = append(t.options, option{copy: n, level: l, rest: rest, to: t.aside, from: rest.aside,
					by: -saved})
			}
		}
	}
	return t
}

// complete fills t, if this round has not done so yet.
func (x *relaxation) complete(r *row, t *table) {
	if t.round == x.round {
		return
	}
	t.round = x.round
	if t.unordered {
		x.fillUnordered(r, t)
		return
	}
	fill(t.phased, never)
	fill(t.aside, 0)
	if t.open&x.musts != 0 {
		fill(t.aside, never)
	}
	for i := range t.options {
		o := &t.options[i]
		x.complete(r, o.rest)
		rl := &r.copies[o.copy].levels[o.level]
		raise(o.to[rl.first:], rl.value[rl.first:rl.last+1], o.from[rl.first-rl.seconds:], o.by)
	}
	for i := 1; i < x.span; i++ {
		t.phased[i] = max(t.phased[i], t.phased[i-1])
		t.aside[i] = max(t.aside[i], t.aside[i-1])
	}
	for i := range t.next {
		t.next[i] = max(t.phased[i], t.aside[i]+r.stop[i])
	}
	r.filled += len(t.options) * x.span
}

// raise brings to up to value + rest + by where that is more.
func raise(to, value, rest []float64, by float64) {
	to, rest = to[:len(value)], rest[:len(value)]
	for i, v := range value {
		if v = v + (rest[i] + by); v > to[i] {
			to[i] = v
		}
	}
}

func fill(list []float64, value float64) {
	for i := range list {
		list[i] = value
	}
}

func (t *table) list(phased bool) []float64 {
	if phased {
		return t.phased
	}
	return t.aside
}

// fillUnordered takes every open block at its best, whatever the order.
func (x *relaxation) fillUnordered(r *row, t *table) {
	sum := 0.0
	for n := range r.copies {
		if c := &r.copies[n]; t.open&(1<<c.block) != 0 {
			if x.musts&(1<<c.block) != 0 {
				sum += c.best
			} else {
				sum += max(0, c.best)
			}
		}
	}
	fill(t.phased, sum)
	fill(t.aside, sum)
	fill(t.next, sum)
}
