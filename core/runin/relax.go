package runin

import (
	"math"
	"slices"
)

// relaxation bounds the score by letting each strand plan for itself. A block of several strands
// is split into one copy for each. Its gain is shared out among the copies by their players;
// multipliers that sum to nothing over the copies pay a strand for a level (pay) and for a later
// start (lean), and make the strands agree; the seconds of resources have prices. What remains is
// a small exact problem for each strand: one row of blocks, in order, solved by dynamic
// programming over the blocks still open and the moment that they must end by. Whatever the
// multipliers, the strands' best values and what the resources' seconds are sold for come to no
// less than the best score.
type relaxation struct {
	*searcher
	from   int     // the first moment of all tables
	span   int     // how many moments they hold
	rows   []row   // by strand
	offers []offer // of the exclusive resources, then of the shared ones
	round  int     // of multipliers

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

var never = math.Inf(-1)

func (s *searcher) newRelaxation() *relaxation {
	x := &relaxation{searcher: s, from: 2 * horizon}
	until := -2 * horizon
	for k := range s.strands {
		x.from, until = min(x.from, s.strands[k].open), max(until, s.strands[k].due)
	}
	x.span = max(0, until-x.from) + 1
	ends := make([][][]bool, len(s.blocks))
	for i := range s.blocks {
		for n, l := range s.blocks[i].levels {
			can := make([]bool, x.span)
			if n >= s.blocks[i].low {
				can = x.canEnd(&s.blocks[i], l.seconds)
			}
			ends[i] = append(ends[i], can)
		}
	}
	for k := range s.strands {
		x.rows = append(x.rows, x.rowOf(k, ends))
	}
	for i := range s.blocks {
		x.copies = append(x.copies, nil)
		for k := range x.rows {
			for n := range x.rows[k].copies {
				if c := &x.rows[k].copies[n]; c.block == i {
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
	o := offer{at: len(x.weight), amount: make([]float64, x.span), cost: make([]float64, x.span+1),
		worth: make([]float64, x.span+1)}
	for t := range o.amount {
		x.weight = append(x.weight, 0.01)
		if overlap(closed, x.from+t, x.from+t+1) == 0 {
			o.amount[t] = float64(amount)
		}
	}
	x.offers = append(x.offers, o)
}

// rowOf is the row of strand k; ends says where each block can end at each of its
// levels.
func (x *relaxation) rowOf(k int, ends [][][]bool) row {
	strand := &x.strands[k]
	away, counts := x.awayOf(strand.closed), x.awayOf(strand.counted)
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
		for n, l := range b.levels {
			rc.levels = append(rc.levels, x.levelOf(strand, b, l, rc.part, ends[i][n], away, counts))
			x.weight = append(x.weight, 1)
		}
		x.weight = append(x.weight, float64(x.unit*x.unit)/(600*600))
		r.copies = append(r.copies, rc)
	}
	return r
}

// levelOf finds where block b can end at level l, which can says, and what each
// end brings the strand: its part of the gain, and of the waiting that it saves.
// Away and counts are the seconds that the strand is not there, and that count as missed,
// from the first moment on.
func (x *relaxation) levelOf(strand *strand, b *block, l level, part float64, can []bool, away, counts []int) rowLevel {
	both := make([]float64, 2*x.span)
	rl := rowLevel{seconds: l.seconds, first: x.span, last: -1, gain: both[:x.span], value: both[x.span:]}
	fill(both, never)
	gain := func(away, counts int) float64 {
		return part*l.gain*float64(l.seconds-counts)/float64(l.seconds) +
			x.lambda*float64(len(strand.players))*float64(l.seconds-away)
	}
	whole := gain(0, 0)
	for t, can := range can {
		if !can {
			continue
		}
		rl.gain[t] = whole
		if b.excusable {
			if gone := away[t] - away[t-l.seconds]; gone > 0 {
				rl.gain[t] = gain(gone, counts[t]-counts[t-l.seconds])
			}
		}
		rl.first, rl.last = min(rl.first, t), t
	}
	return rl
}

// awayOf counts the seconds of spans from the first moment to each.
func (x *relaxation) awayOf(spans []span) []int {
	away := make([]int, x.span)
	for _, c := range spans {
		for t := max(0, c.from-x.from); t < min(x.span-1, c.to-x.from); t++ {
			away[t+1] = 1
		}
	}
	for t := 1; t < x.span; t++ {
		away[t] += away[t-1]
	}
	return away
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
	for k := range x.rows {
		r := &x.rows[k]
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

// bound is an upper bound of what any completion of t can score.
func (x *relaxation) bound(t *state) float64 {
	bound := t.gain + x.lambda*float64(t.worked)
	last := x.index(t.last)
	for u := range x.units {
		bound += x.offers[u].worth[min(last, x.index(t.taken[x.unitAt+u]))]
	}
	for n := range x.shared {
		o := &x.offers[len(x.units)+n]
		bound += o.worth[last]
		for uses := x.uses(t.taken, n); len(uses) > 0; uses = uses[2:] {
			if from := x.index(uses[0]); from < last {
				bound -= float64(uses[1]) * (o.cost[last] - o.cost[from])
			}
		}
	}
	for k := range x.rows {
		r := &x.rows[k]
		table := t.tables[k]
		if blocks := x.strands[k].blocks; table == nil || t.from != nil && (t.open^t.from.open)&blocks != 0 {
			table = x.table(r, t.open&blocks)
			t.tables[k] = table
		}
		waiting := x.lambda * r.people * float64(x.idleBefore(&x.strands[k], t.taken[x.firstAt+k]))
		at := min(last, x.index(t.taken[k]))
		bound += max(table.aside[at]-waiting, table.phased[at]+x.lambda*float64(t.taken[x.pendingAt+k]))
		if bound == never {
			return never
		}
	}
	return bound
}

func (x *relaxation) index(at int) int { return min(max(at-x.from, 0), x.span-1) }
