package runin

import (
	"math"
	"slices"
)

// relaxation bounds the score by letting each strand plan for itself. A block
// of several strands is split into one copy for each. Its gain is shared out
// among the copies by their players; multipliers that sum to nothing over the
// copies pay a strand for a level (pay) and for a later start (lean), and make
// the strands agree; the seconds of resources have prices. What remains is a
// small exact problem for each strand: one row of blocks, in order, solved by
// dynamic programming over the blocks still open and the moment that they must
// end by. Whatever the multipliers, the strands' best values and what the
// resources' seconds are sold for come to no less than the best score.
type relaxation struct {
	*searcher
	from    int // the first moment of all tables
	span    int // how many moments they hold
	strands []row
	offers  []offer // of the exclusive resources, then of the shared ones
	round   int     // of multipliers

	// For each copy the pay of each level, and what each moment that it starts
	// after the middle of the tables is worth; from prices on, the price of each offer at each
	// moment. A change of one multiplier weighs as much as weight says.
	multipliers, weight []float64
	prices              int
	copies              [][]int // by block: where each copy's multipliers begin
}

// offer is what there is of a resource.
type offer struct {
	at     int       // of its multipliers
	amount []float64 // by moment
	cost   []float64 // of one of it, from the first moment to each
	worth  []float64 // of all of it, likewise
}

// row is what one strand can do by itself.
type row struct {
	people float64
	copies []rowCopy
	stop   []float64 // by the start of its first block: what the waiting from there costs
	sets   map[uint64]*table
	filled int // places of options so far
}

// rowCopy is a block as one strand sees it.
type rowCopy struct {
	block  int
	at     int     // of its multipliers: pays, then lean
	part   float64 // of the block's players
	levels []rowLevel
	best   float64 // of all values
}

type rowLevel struct {
	seconds     int
	first, last int // the ends that there are, as indexes
	gain        []float64
	value       []float64 // with what multipliers pay and prices cost
}

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

var never = math.Inf(-1)

func (s *searcher) newRelaxation() *relaxation {
	x := &relaxation{searcher: s, from: 2 * horizon}
	until := -2 * horizon
	for k := range s.model.strands {
		x.from, until = min(x.from, s.model.strands[k].open), max(until, s.model.strands[k].due)
	}
	x.span = max(0, until-x.from) + 1
	for k := range s.model.strands {
		x.strands = append(x.strands, x.rowOf(k))
	}
	for i := range s.blocks {
		x.copies = append(x.copies, nil)
		for k := range x.strands {
			for n := range x.strands[k].copies {
				if c := &x.strands[k].copies[n]; c.block == i {
					x.copies[i] = append(x.copies[i], c.at)
				}
			}
		}
	}
	x.prices = len(x.weight)
	for u := range s.units {
		x.offer(1, s.closed[u])
	}
	for _, r := range s.shared {
		x.offer(s.problem.Resources[r].Capacity, merge(s.notFree(s.problem.Resources[r].Free)))
	}
	x.multipliers = make([]float64, len(x.weight))
	x.refresh()
	return x
}

func (x *relaxation) offer(amount int, closed []span) {
	o := offer{len(x.weight), make([]float64, x.span), make([]float64, x.span+1), make([]float64, x.span+1)}
	for t := range o.amount {
		x.weight = append(x.weight, 0.01)
		if overlap(closed, x.from+t, x.from+t+1) == 0 {
			o.amount[t] = float64(amount)
		}
	}
	x.offers = append(x.offers, o)
}

func (x *relaxation) rowOf(k int) row {
	strand := &x.model.strands[k]
	r := row{people: float64(len(strand.players)), sets: map[uint64]*table{}, stop: make([]float64, x.span)}
	for t := range r.stop {
		r.stop[t] = -x.lambda * r.people * float64(x.idleBefore(strand, x.from+t))
	}
	for i := range x.blocks {
		b := &x.blocks[i]
		if !slices.Contains(b.strands, k) {
			continue
		}
		rc := rowCopy{block: i, at: len(x.weight), part: r.people / float64(b.people)}
		for _, l := range b.levels {
			rc.levels = append(rc.levels, x.levelOf(strand, b, l, rc.part))
			x.weight = append(x.weight, 1)
		}
		x.weight = append(x.weight, float64(x.unit*x.unit)/(600*600))
		r.copies = append(r.copies, rc)
	}
	return r
}

// levelOf finds where block b can end at level l, and what each end brings the
// strand: its part of the gain, and of the waiting that it saves.
func (x *relaxation) levelOf(strand *strand, b *block, l level, part float64) rowLevel {
	rl := rowLevel{seconds: l.seconds, first: x.span, last: -1, gain: make([]float64, x.span), value: make([]float64, x.span)}
	fill(rl.gain, never)
	fill(rl.value, never)
	for t, can := range x.canEnd(b, l.seconds) {
		if !can {
			continue
		}
		end := x.from + t
		start := end - l.seconds
		away := 0
		if b.excusable {
			away = overlap(strand.closed, start, end)
		}
		worked := float64(l.seconds - away)
		rl.gain[t] = part*l.gain*worked/float64(l.seconds) + x.lambda*float64(len(strand.players))*worked
		rl.first, rl.last = min(rl.first, t), t
	}
	return rl
}

// canEnd tells, by index, where block b can end if it lasts so many seconds.
func (x *relaxation) canEnd(b *block, seconds int) []bool {
	can := make([]bool, x.span)
	for t := range can {
		start := x.from + t - seconds
		can[t] = t >= seconds && (x.grid <= 1 || start%x.grid == 0) && (!b.pinned || start == b.pin)
	}
	for _, c := range b.closed {
		for t := max(0, c.from+1-x.from); t < min(x.span, c.to+seconds-x.from); t++ {
			can[t] = false
		}
	}
	return can
}

// refresh brings everything up to date with multipliers and prices.
func (x *relaxation) refresh() {
	x.round++
	for n := range x.offers {
		o := &x.offers[n]
		for t, price := range x.multipliers[o.at:][:x.span] {
			o.cost[t+1] = o.cost[t] + price
			o.worth[t+1] = o.worth[t] + price*o.amount[t]
		}
	}
	for k := range x.strands {
		r := &x.strands[k]
		for n := range r.copies {
			r.filled += x.value(&r.copies[n])
		}
	}
}

// value brings the values of c up to date, and tells how many places that took.
func (x *relaxation) value(c *rowCopy) (filled int) {
	b := &x.blocks[c.block]
	c.best = never
	for l := range c.levels {
		rl := &c.levels[l]
		if rl.last < 0 {
			continue
		}
		pay, lean := x.multipliers[c.at+l], x.multipliers[c.at+len(c.levels)]
		pay -= lean * float64(rl.seconds+x.span/2)
		for t := rl.first; t <= rl.last; t++ {
			rl.value[t] = rl.gain[t] + pay + lean*float64(t)
		}
		x.needs(b, func(n, amount int) {
			price, cost := c.part*float64(amount), x.offers[n].cost
			if cost[x.span] == 0 {
				return // nothing has a price
			}
			filled += rl.last - rl.first
			for t := rl.first; t <= rl.last; t++ {
				rl.value[t] -= price * (cost[t] - cost[t-rl.seconds])
			}
		})
		filled += 2 * (rl.last - rl.first)
		c.best = max(c.best, slices.Max(rl.value[rl.first:rl.last+1]))
	}
	return filled
}

// needs calls f with each offer that block b needs, and how much of it.
func (x *relaxation) needs(b *block, f func(n, amount int)) {
	for _, u := range b.units {
		f(u, 1)
	}
	for _, sh := range b.shares {
		f(len(x.units)+sh.resource, sh.amount)
	}
}

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
				t.options = append(t.options, option{n, l, rest, t.phased, rest.next, 0})
			default:
				t.options = append(t.options, option{n, l, rest, t.phased, rest.phased, 0})
				saved := x.lambda * r.people * float64(rl.seconds)
				if b.excusable {
					saved = 0 // or less than that, where somebody is away
				}
				t.options = append(t.options, option{n, l, rest, t.aside, rest.aside, -saved})
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

// bound is an upper bound of what any completion of t can score.
func (x *relaxation) bound(t *state) float64 {
	bound := t.credit
	last := x.index(t.last)
	for u := range x.units {
		bound += x.offers[u].worth[min(last, x.index(t.places[x.searcher.unitAt(u)]))]
	}
	for n, uses := range t.shares {
		o := &x.offers[len(x.units)+n]
		bound += o.worth[last]
		for _, u := range uses {
			if from := x.index(u.start); from < last {
				bound -= float64(u.amount) * (o.cost[last] - o.cost[from])
			}
		}
	}
	for k := range x.strands {
		r := &x.strands[k]
		places := t.places[3*k : 3*k+3]
		table := t.tables[k]
		if blocks := x.model.strands[k].blocks; table == nil || t.from != nil && (t.open^t.from.open)&blocks != 0 {
			table = x.table(r, t.open&blocks)
			t.tables[k] = table
		}
		waiting := x.lambda * r.people * float64(x.idleBefore(&x.model.strands[k], places[1]))
		at := min(last, x.index(places[0]))
		bound += max(table.aside[at]-waiting, table.phased[at]+x.lambda*float64(places[2]))
		if bound == never {
			return never
		}
	}
	return bound
}

func (x *relaxation) index(at int) int { return min(max(at-x.from, 0), x.span-1) }
