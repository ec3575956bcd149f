package runin

import (
	"math"
	"math/bits"
)

// boundOf is an upper bound of what any completion of t can score: what t
// scores by itself, and the blocks still open, each taken at the level that is
// worth most at the prices of the minutes it needs, plus those minutes at
// these prices. It is -Inf where the open musts cannot all be placed.
func (s *searcher) boundOf(t *state) float64 {
	if !s.fitsMusts(t) {
		return math.Inf(-1)
	}
	if s.shortfall {
		return -float64(s.shortAtLeast(t))
	}
	bound := t.credit - s.waiting(t)
	if t.open == 0 {
		return bound
	}
	free := 0.0   // every open block at its best
	priced := 0.0 // the same, at the prices
	for open := t.open; open != 0; open &= open - 1 {
		i := bits.TrailingZeros64(open)
		most, best := s.worth(t, i)
		free += most
		priced += best
	}
	if s.prices == nil {
		return bound + free
	}
	for k := range s.strands {
		if s.prices[k] > 0 && s.strands[k].blocks&t.open != 0 {
			priced += s.prices[k] * float64(s.room(t, k))
		}
	}
	for u := range s.units {
		if price := s.prices[len(s.strands)+u]; price > 0 {
			priced += price * float64(s.unitRoom(t, u))
		}
	}
	return bound + min(free, priced)
}

// worth is the most that block i can add to t, without prices and with them.
func (s *searcher) worth(t *state, i int) (most, priced float64) {
	b := &s.blocks[i]
	price := 0.0
	if s.prices != nil {
		for _, k := range b.strands {
			price += s.prices[k]
		}
		for _, u := range b.units {
			price += s.prices[len(s.strands)+u]
		}
	}
	if s.musts&(1<<i) != 0 {
		priced = math.Inf(-1)
	}
	for _, l := range b.levels {
		gain := l.gain
		if b.phase < 0 { // it can only fill time that would be waited through
			gain += s.lambda * float64(b.people*l.seconds)
		}
		most = max(most, gain)
		priced = max(priced, gain-price*float64(l.seconds))
	}
	return most, priced
}

// room is the number of seconds that strand k has left before what is placed.
func (s *searcher) room(t *state, k int) int {
	strand := &s.strands[k]
	until := t.places[3*k]
	if until <= strand.open {
		return 0
	}
	room := until - strand.open
	for open := t.open & strand.blocks; open != 0; open &= open - 1 {
		if s.blocks[bits.TrailingZeros64(open)].excusable {
			return room // such a block may run on while somebody is away
		}
	}
	return room - overlap(strand.closed, strand.open, until)
}

// unitRoom is the number of seconds in which exclusive resource u can still
// be used by an open block.
func (s *searcher) unitRoom(t *state, u int) int {
	from, users := 2*horizon, false
	for open := t.open; open != 0; open &= open - 1 {
		b := &s.blocks[bits.TrailingZeros64(open)]
		for _, unit := range b.units {
			if unit == u {
				users = true
				from = min(from, b.closed[0].to)
			}
		}
	}
	until := min(t.places[s.unitAt(u)], t.last)
	if !users || until <= from {
		return 0
	}
	return until - from - overlap(s.closed[u], from, until)
}

// fitsMusts tells whether each strand has room for its open musts at their
// shortest.
func (s *searcher) fitsMusts(t *state) bool {
	musts := t.open & s.musts
	if musts == 0 || s.shortfall {
		return true
	}
	for k := range s.strands {
		need := 0
		for open := musts & s.strands[k].blocks; open != 0; open &= open - 1 {
			need += s.blocks[bits.TrailingZeros64(open)].levels[0].seconds
		}
		if need > 0 && need > s.room(t, k) {
			return false
		}
	}
	return true
}

// shortAtLeast is the shortfall of the worst strand when its open musts follow
// without a gap.
func (s *searcher) shortAtLeast(t *state) int {
	seconds := math.MinInt
	for k := range s.strands {
		if s.strands[k].blocks&s.musts == 0 {
			continue
		}
		first := t.places[3*k]
		for open := t.open & s.strands[k].blocks; open != 0; open &= open - 1 {
			first -= s.blocks[bits.TrailingZeros64(open)].levels[0].seconds
		}
		seconds = max(seconds, s.strands[k].open-first)
	}
	return seconds
}

// price finds good prices for the minutes of strands and exclusive resources
// by subgradient descent on the bound of the root.
func (s *searcher) price() {
	root := s.root()
	n := len(s.strands) + len(s.units)
	capacity := make([]float64, n)
	for k := range s.strands {
		capacity[k] = float64(s.room(root, k))
	}
	for u := range s.units {
		capacity[len(s.strands)+u] = float64(s.unitRoom(root, u))
	}
	s.prices = make([]float64, n)
	best, lowest := make([]float64, n), math.Inf(1)
	step := 0.02
	const rounds = 300
	for range rounds {
		bound, slope := s.relaxation(capacity)
		if bound < lowest-eps {
			lowest = bound
			copy(best, s.prices)
		} else {
			step *= 0.97
		}
		norm := 0.0
		for _, g := range slope {
			norm += g * g
		}
		if norm == 0 {
			break
		}
		for j := range s.prices {
			s.prices[j] = max(0, s.prices[j]-step*slope[j]/math.Sqrt(norm))
		}
	}
	s.prices = best
}

// relaxation is the bound of the root at the current prices, and its slope.
func (s *searcher) relaxation(capacity []float64) (bound float64, slope []float64) {
	slope = append(slope, capacity...)
	for j, c := range capacity {
		bound += s.prices[j] * c
	}
	for i := range s.blocks {
		b := &s.blocks[i]
		price := 0.0
		for _, k := range b.strands {
			price += s.prices[k]
		}
		for _, u := range b.units {
			price += s.prices[len(s.strands)+u]
		}
		best, seconds := 0.0, 0
		if s.musts&(1<<i) != 0 {
			best = math.Inf(-1)
		}
		for _, l := range b.levels {
			if gain := l.gain - price*float64(l.seconds); gain > best {
				best, seconds = gain, l.seconds
			}
		}
		bound += best
		for _, k := range b.strands {
			slope[k] -= float64(seconds)
		}
		for _, u := range b.units {
			slope[len(s.strands)+u] -= float64(seconds)
		}
	}
	return bound, slope
}
