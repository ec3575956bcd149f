package runin

import (
	"math"
	"math/rand/v2"
	"slices"

	"cuestart/core/clock"
)

// How the neighbourhood of a crowded plan is searched: so many times, so many kept blocks and
// so many left out free in each, with so many steps.
const (
	neighbourhoods = 100
	freeKept       = 12
	freeOut        = 10
	freeSteps      = 10_000
)

// neighbours looks for a better value near the best plan, where that is not proven: what lies
// around a moment, and some of what is left out, is planned anew while all else stays where it
// is. So several blocks change places at once, which drafts seldom do: a large neighbourhood
// search (Shaw 1998).
func (s *searcher) neighbours() {
	dice := rand.New(rand.NewPCG(7, 7))
	for range neighbourhoods {
		if s.best == nil || s.worthy() || s.stopped {
			return
		}
		free := s.around(dice)
		near, index := s.near(free)
		m := newSearcher(s.ctx, newModel(near))
		m.steps, m.valueAlone = freeSteps, true
		m.best = s.narrowed(m, index)
		m.solve()
		if m.best != nil && m.best.value > s.best.value+same {
			s.take(s.widened(m, index))
		}
		s.stopped = s.ctx.Err() != nil
	}
}

// around are the blocks that lie next to a kept one, and some of those left out.
func (s *searcher) around(dice *rand.Rand) uint64 {
	var kept, out []int
	for i, level := range s.best.level {
		if level >= 0 {
			kept = append(kept, i)
		} else {
			out = append(out, i)
		}
	}
	if len(kept) == 0 {
		return math.MaxUint64
	}
	start := func(i int) int { return s.best.end[i] - s.blocks[i].levels[s.best.level[i]].seconds }
	middle := start(kept[dice.IntN(len(kept))])
	slices.SortStableFunc(kept, func(a, b int) int { return abs(start(a)-middle) - abs(start(b)-middle) })
	dice.Shuffle(len(out), func(i, j int) { out[i], out[j] = out[j], out[i] })
	free := uint64(0)
	for _, i := range kept[:min(freeKept, len(kept))] {
		free |= 1 << i
	}
	for _, i := range out[:min(freeOut, len(out))] {
		free |= 1 << i
	}
	return free
}

func abs(n int) int { return max(n, -n) }

// near is the problem with nothing but the free blocks to decide: the others stay where they
// are, or out; index is where its blocks stand in the whole.
func (s *searcher) near(free uint64) (*Problem, []int) {
	near := *s.problem
	near.Blocks = nil
	var index []int
	for i := range s.problem.Blocks {
		level, b := s.best.level[i], s.problem.Blocks[i]
		if free&(1<<i) == 0 {
			if level < 0 {
				continue
			}
			is := s.blocks[i].levels[level]
			pin := clock.Offset((s.best.end[i] - is.seconds) * s.unit)
			b.Pin, b.Must, b.Once, b.Levels, b.Window = &pin, true, nil, []Level{b.level(level - s.blocks[i].once)},
				Window{}
		}
		near.Blocks, index = append(near.Blocks, b), append(index, i)
	}
	for i := range near.Blocks {
		near.Blocks[i].After = slices.DeleteFunc(slices.Clone(near.Blocks[i].After), func(id string) bool {
			return !slices.ContainsFunc(near.Blocks, func(o Block) bool { return o.ID == id })
		})
	}
	return &near, index
}

// narrowed is the best plan as one of what is near it.
func (s *searcher) narrowed(m *searcher, index []int) *found {
	f := &found{level: make([]int, len(index)), end: make([]int, len(index)), value: s.best.value, idle: math.MaxInt32}
	for n, i := range index {
		level := s.best.level[i]
		f.end[n] = s.best.end[i] * s.unit / m.unit
		if level >= 0 && len(m.blocks[n].levels) != len(s.blocks[i].levels) {
			level = m.blocks[n].once
		}
		if f.level[n] = level; level >= 0 {
			f.sum += f.end[n] - m.blocks[n].levels[level].seconds
		}
	}
	return f
}

// widened is what was found near the best plan as a plan of the whole.
func (s *searcher) widened(m *searcher, index []int) *found {
	f := &found{level: make([]int, len(s.blocks)), end: make([]int, len(s.blocks)), idle: math.MaxInt32}
	for i := range f.level {
		f.level[i] = -1
	}
	for n, i := range index {
		level := m.best.level[n]
		if level < 0 {
			continue
		}
		if len(m.blocks[n].levels) != len(s.blocks[i].levels) { // it stayed as it was
			level = s.best.level[i]
		}
		f.level[i], f.end[i] = level, m.best.end[n]*m.unit/s.unit
		is := &s.blocks[i].levels[level]
		start := f.end[i] - is.seconds
		f.value += is.gain * s.blocks[i].attended(is.seconds, s.missed(&s.blocks[i], start, f.end[i]))
		f.sum += start
	}
	return f
}
