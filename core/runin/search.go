package runin

import (
	"cmp"
	"context"
	"math"
	"math/bits"
)

const (
	eps  = 1e-9
	same = 1e-7 // of two values
)

// state is a partial plan, built backwards from the due times.
type state struct {
	open   uint64  // blocks not yet decided
	taken  []int   // by the blocks placed so far; see layout
	gain   float64 // of the placed blocks
	hope   float64 // the gain, and that of all open blocks in full
	worked int     // player-units of work that lie after the first block of their strand
	bound  float64 // no completion scores more
	last   int     // end of the block placed last: later ones end no later
	sum    int     // of all starts: the later the better, among equals
	view   view
	tables []*table // of each strand's open blocks, where known

	from  *state
	block int
	level int
	end   int
}

// found is a whole plan: what each block is to be, and where it ends.
type found struct {
	level []int // by block; -1: left out
	end   []int
	sum   int // of all starts
	value float64
	idle  int // player-units
}

// beats tells whether f is the better plan: of greater value, else of less idle, else
// later.
func (f *found) beats(g *found) bool {
	switch {
	case g == nil:
		return true
	case math.Abs(f.value-g.value) > same:
		return f.value > g.value
	case f.idle != g.idle:
		return f.idle < g.idle
	}
	return f.sum > g.sum
}

// searcher explores the states of a model layer by layer.
type searcher struct {
	*model
	musts   uint64
	steps   int // left to spend
	ctx     context.Context
	stopped bool
	sooner  sooner
	spare   []*state // to be used again

	// shortfall: instead of the score, keep only the musts, at their shortest,
	// and find how much earlier all would have to open.
	shortfall bool

	relaxation *relaxation // bounds the score; nil for a shortfall

	valueAlone bool // the idle is not looked at

	plenty bool    // more steps may be spent where they are of use
	step   float64 // what scores less than that over the best is not looked for
	floor  float64 // what has no hope of that gain is not looked for either

	best      *found  // nil: nothing yet
	bestScore float64 // by what the search is aimed at
	dropped   float64 // the highest bound of a state that this run dropped unexplored
	lowest    float64 // the lowest such bound of all runs: no plan scores more
	whole     bool    // nothing was dropped: what is best is proven

	valueBound float64 // no plan has a greater value
	idleBound  int     // and none of that value less idle
}

func newSearcher(ctx context.Context, m *model) *searcher {
	s := &searcher{model: m, sooner: sooner{}, ctx: ctx, bestScore: math.Inf(-1), floor: math.Inf(-1),
		valueBound: math.Inf(1)}
	for i := range m.blocks {
		if m.blocks[i].must {
			s.musts |= 1 << i
		}
	}
	return s
}

// root is the state in which nothing is placed.
func (s *searcher) root() *state {
	root := &state{open: 1<<len(s.blocks) - 1, taken: make([]int, s.size), last: 2 * horizon, block: len(s.blocks),
		tables: make([]*table, len(s.strands))}
	s.nothing(root.taken)
	if s.shortfall {
		root.open &= s.musts
	}
	root.hope = s.full()
	return root
}

// run searches with layers of at most width states and reports whether nothing was dropped for
// width, steps or time.
func (s *searcher) run(width int) bool {
	whole := true
	s.dropped = math.Inf(-1)
	layers := make([][]*state, len(s.blocks)+1)
	spent := 0
	if s.relaxation != nil {
		spent = s.relaxation.spent()
	}
	root := s.root()
	root.bound = s.boundOf(root)
	layers[bits.OnesCount64(root.open)] = []*state{root}
	for n := len(s.blocks); n >= 0; n-- {
		layer, complete := s.promising(layers[n], width)
		whole = whole && complete
		for _, from := range layer {
			if s.hopeless(from) {
				continue
			}
			if s.steps <= 0 || s.over() {
				s.drop(from)
				whole = false
				continue
			}
			s.expand(from, func(next *state) {
				left := bits.OnesCount64(next.open)
				layers[left] = append(layers[left], next)
			})
			if x := s.relaxation; x != nil {
				now := x.spent()
				s.steps -= now - spent
				spent = now
			}
		}
		layers[n] = nil
	}
	s.lowest = min(s.lowest, s.dropped)
	return whole
}

// hopeless tells whether nothing that t leads to is worth looking for.
func (s *searcher) hopeless(t *state) bool {
	return math.IsInf(t.bound, -1) || t.hope < s.floor || s.best != nil && t.bound <= s.bestScore+max(eps, s.step)
}

func (s *searcher) over() bool {
	if !s.stopped && s.steps%64 == 0 && s.ctx.Err() != nil {
		s.stopped = true
	}
	return s.stopped
}

func (s *searcher) drop(t *state) { s.dropped = max(s.dropped, t.bound) }

// better orders states by promise, so that every run is the same.
func better(a, b *state) int {
	return cmp.Or(cmp.Compare(b.bound, a.bound), cmp.Compare(b.gain, a.gain), cmp.Compare(b.sum, a.sum),
		cmp.Compare(a.open, b.open))
}

// expand emits every state that places one more block before those of t.
func (s *searcher) expand(t *state, emit func(*state)) {
	for open := t.open; open != 0; open &= open - 1 {
		i := bits.TrailingZeros64(open)
		b := &s.blocks[i]
		out := t.open & b.later
		if out&s.musts != 0 && (s.shortfall || !s.relaxed()) {
			continue
		}
		limit := s.limit(t.taken, i)
		for l := b.low; l < len(b.levels); l++ {
			if s.shortfall && l > 0 {
				break
			}
			for _, end := range s.ends(i, l, limit) {
				if end > t.last || end == t.last && i > t.block {
					continue
				}
				s.steps--
				if next := s.place(t, i, l, end, out); next != nil {
					emit(next)
				}
			}
		}
	}
}

// relaxed: the musts do not all fit, so they may be left out.
func (s *searcher) relaxed() bool { return s.musts == 0 }

// ends lists the ends worth trying for block i at level l, the latest first: the latest there is
// and, for an excusable block, each earlier one that somebody misses less of.
func (s *searcher) ends(i, l, limit int) []int {
	b := &s.blocks[i]
	seconds := b.levels[l].seconds
	if b.pinned {
		end := b.pin + seconds
		if at, ok := s.latest(b, seconds, end); !ok || at != end || end > limit {
			return nil
		}
		return []int{end}
	}
	end, ok := s.latest(b, seconds, limit)
	if !ok {
		return nil
	}
	if s.shortfall || !b.excusable {
		return []int{end}
	}
	return s.sooner.ends(s.model, i, l, end).at
}

// place is t with block i added at level l, ending at end, and the blocks of out left out; nil
// where that leads nowhere.
func (s *searcher) place(t *state, i, l, end int, out uint64) *state {
	b := &s.blocks[i]
	seconds := b.levels[l].seconds
	start := end - seconds
	next := s.child(t)
	next.open, next.last, next.sum = t.open&^(1<<i|out), end, t.sum+start
	next.block, next.level, next.end = i, l, end
	missed := s.missed(b, start, end)
	next.worked += s.put(next.taken, i, start, end, missed)
	if !s.shortfall {
		gain := b.levels[l].gain * b.attended(seconds, missed)
		next.gain += gain
		next.hope += gain - b.most()
		for ; out != 0; out &= out - 1 {
			next.hope -= s.blocks[bits.TrailingZeros64(out)].most()
		}
	}
	next.bound = s.boundOf(next)
	if s.hopeless(next) {
		s.spare = append(s.spare, next)
		return nil
	}
	if next.open&s.musts == 0 {
		s.consider(next)
	}
	return next
}

// child is a copy of t, made of a state that is of no use any more if there is
// one.
func (s *searcher) child(t *state) *state {
	var c *state
	if n := len(s.spare); n > 0 {
		c, s.spare = s.spare[n-1], s.spare[:n-1]
	} else {
		c = &state{taken: make([]int, len(t.taken)), tables: make([]*table, len(t.tables))}
	}
	copy(c.taken, t.taken)
	copy(c.tables, t.tables)
	c.gain, c.hope, c.worked, c.from = t.gain, t.hope, t.worked, t
	return c
}

// consider takes t, in which no must is open, as a plan of its own.
func (s *searcher) consider(t *state) {
	idle := s.waiting(t) - t.worked
	if s.shortfall {
		idle = s.short(t)
	}
	f := found{value: t.gain, idle: idle, sum: t.sum}
	if !f.beats(s.best) {
		return
	}
	s.best = s.read(t)
	s.best.value, s.best.idle = f.value, f.idle
	s.bestScore = f.value - s.lambda*float64(idle)
	if s.shortfall {
		s.bestScore = -float64(idle)
	}
}

// read is the plan that led to t.
func (m *model) read(t *state) *found {
	f := &found{level: make([]int, len(m.blocks)), end: make([]int, len(m.blocks)), sum: t.sum}
	for i := range f.level {
		f.level[i] = -1
	}
	for ; t.from != nil; t = t.from {
		f.level[t.block], f.end[t.block] = t.level, t.end
	}
	return f
}

// waiting is the player-units from each strand's first block to its due time, with the
// work in them.
func (m *model) waiting(t *state) (idle int) {
	for k := range m.strands {
		idle += len(m.strands[k].players) * m.idleBefore(&m.strands[k], t.taken[m.firstAt+k])
	}
	return idle
}

// short is the time by which the worst strand begins before it opens; negative if all have time
// to spare.
func (s *searcher) short(t *state) int {
	seconds := math.MinInt
	for k := range s.strands {
		if s.strands[k].blocks&s.musts != 0 {
			seconds = max(seconds, s.strands[k].open-t.taken[k])
		}
	}
	return seconds
}
