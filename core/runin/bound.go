package runin

import (
	"math"
	"math/bits"
)

// boundOf is an upper bound of what any completion of t can score; -Inf where
// the open musts cannot all be placed.
func (s *searcher) boundOf(t *state) float64 {
	if s.shortfall {
		return -float64(s.shortAtLeast(t))
	}
	return s.relaxation.bound(t)
}

// shortAtLeast is the shortfall of the worst strand when its open musts follow
// without a gap.
func (s *searcher) shortAtLeast(t *state) int {
	seconds := math.MinInt
	for k := range s.strands {
		if s.strands[k].blocks&s.musts == 0 {
			continue
		}
		first := t.taken[k]
		for open := t.open & s.strands[k].blocks; open != 0; open &= open - 1 {
			first -= s.blocks[bits.TrailingZeros64(open)].levels[0].seconds
		}
		seconds = max(seconds, s.strands[k].open-first)
	}
	return seconds
}
