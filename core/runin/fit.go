package runin

import (
	"context"
	"math"
	"slices"
	"sync"
)

// Version changes when the same problem may get another answer.
const Version = 10

// DefaultSteps is how many steps Fit spends on a problem unless told otherwise.
// A step is a draft tried by annealing, a block placed by the search or five
// hundred places of a table, and takes a microsecond or two, so that a squad's
// match day takes a tenth of a second. Left to itself Fit spends some more where the best is
// not proven, and four times that where over a third of what is optional finds no room.
func DefaultSteps(p *Problem) int {
	return effort(len(p.Blocks)).all()
}

// Fit finds the plan of the greatest value and, at that value, of the least idle,
// spending at most steps steps ([DefaultSteps] if steps is 0). The same problem and
// steps give the same answer on any machine, unless ctx ends first: then the answer is
// the best plan so far and says so. An impossible problem is an answer, Feasible false;
// an error means that the problem itself is malformed.
func Fit(ctx context.Context, p *Problem, steps int) (*Result, error) {
	if err := p.Validate(); err != nil {
		return nil, err
	}
	if slices.ContainsFunc(p.Blocks, func(b Block) bool { return b.Straight != "" }) {
		return straighten(ctx, p, steps), nil
	}
	return fit(ctx, p, steps), nil
}

// fit is Fit of a problem that is well formed and in which no block comes straight
// after another.
func fit(ctx context.Context, p *Problem, steps int) *Result {
	plenty := steps <= 0
	if plenty {
		steps = DefaultSteps(p)
	}
	s := newSearcher(ctx, newModel(p))
	s.steps, s.plenty = steps, plenty
	s.solve()
	if s.best != nil || s.musts == 0 {
		return s.result()
	}
	if s.best = s.mustsAlone(steps); s.best != nil {
		s.steps = steps
		s.solve()
		return s.result()
	}
	return s.partial(steps)
}

// mustsAlone is a plan of nothing but the musts, at their shortest: looked for by itself where
// among everything else none was found; nil where there is none.
func (s *searcher) mustsAlone(steps int) *found {
	alone := *s.problem
	alone.Blocks = nil
	var index []int
	for i := range s.problem.Blocks {
		if b := s.problem.Blocks[i]; b.Must {
			b.Levels = b.Levels[:1]
			b.After = slices.DeleteFunc(slices.Clone(b.After), func(id string) bool {
				return !slices.ContainsFunc(s.problem.Blocks, func(o Block) bool { return o.ID == id && o.Must })
			})
			alone.Blocks, index = append(alone.Blocks, b), append(index, i)
		}
	}
	m := newSearcher(s.ctx, newModel(&alone))
	m.steps = steps
	m.solve()
	if m.best == nil {
		return nil
	}
	f := &found{level: make([]int, len(s.blocks)), end: make([]int, len(s.blocks)), idle: math.MaxInt32}
	for i := range f.level {
		f.level[i] = -1
	}
	for n, i := range index {
		b := &s.blocks[i]
		f.level[i], f.end[i] = 0, m.best.end[n]*m.unit/s.unit
		start := f.end[i] - b.levels[0].seconds
		f.value += b.levels[0].gain * b.attended(b.levels[0].seconds, s.missed(b, start, f.end[i]))
		f.sum += start
	}
	return f
}

// work is how many steps go where.
type work struct {
	quick   int // drafts, for a first plan
	aside   int // drafts, on a thread of their own
	descend int // into lowering the bounds
	search  int
	after   int // drafts, when that is done
}

// effort is the work on a problem of so many blocks. Small and middle ones are
// given more than most need, so that the best is found nearly every time; large
// ones what a moment allows, which is better spent on drafts.
func effort(blocks int) work {
	switch {
	case blocks <= 10:
		return work{quick: 1_000, aside: 3_000, descend: 1_000, search: 10_000}
	case blocks <= 20:
		return work{quick: 4_000, aside: 40_000, descend: 40_000, search: 70_000}
	default:
		return work{quick: 4_000, aside: 34 * blocks * blocks, descend: 15_000, after: 24 * blocks * blocks}
	}
}

func (w work) all() int { return w.quick + w.aside + w.descend + w.search + w.after }

// of shares steps out like w. More steps than that go mostly to the search.
func (w work) of(steps int) work {
	all := w.all()
	if steps <= all {
		quick := min(w.quick, steps/2) // a moment is spent best on drafts
		part := func(n int) int { return n * (steps - quick) / (all - w.quick) }
		return work{quick: quick, aside: part(w.aside), descend: part(w.descend), search: part(w.search),
			after: part(w.after)}
	}
	more := (steps - all) / 5
	return work{quick: w.quick, aside: w.aside + more, descend: w.descend + more, search: w.search + 3*more,
		after: w.after}
}

// widest is how many states of a layer are kept at most; it bounds memory to
// some hundred megabytes.
const widest = 200_000

// solve looks for the best plan, first for its value, then for its idle, and for
// what bounds both. What two threads find does not depend on which is faster.
func (s *searcher) solve() {
	s.aim(0)
	if s.musts == 0 {
		s.consider(s.root())
	}
	if len(s.blocks) == 0 {
		s.valueBound, s.idleBound = 0, 0
		return // nothing is planned: there is nothing to look for
	}
	if s.shortfall {
		s.widen()
		return
	}
	w := effort(len(s.blocks)).of(s.steps)
	s.take(s.chain(s.ctx, 0, w.quick, forValue))
	s.valueBound = s.full()
	if !s.worthy() {
		s.phase(w.half(), 1, forValue)
		s.valueBound = min(s.valueBound, s.lowest)
		if s.whole && s.best != nil {
			s.valueBound = s.best.value
		}
		if s.plenty {
			s.again()
			if s.crowded() {
				s.neighbours()
			}
		}
	}
	if s.best != nil && !s.stopped && !s.valueAlone {
		s.leastIdle(w.half())
	}
}

// worthy tells whether the best plan's value is proven.
func (s *searcher) worthy() bool {
	return s.best != nil && s.best.value >= s.valueBound-same
}

// full is the value of everything in full.
func (m *model) full() (value float64) {
	for i := range m.blocks {
		value += m.blocks[i].most()
	}
	return value
}

// leastIdle looks for less idle at the value of the best plan. What that value has no
// room for is ruled out first: where everything fits in full, only when things
// start is left to find.
func (s *searcher) leastIdle(w work) {
	musts := s.musts
	spare := s.full() - s.best.value + same
	for i := range s.blocks {
		b := &s.blocks[i]
		if b.most() > spare {
			s.musts |= 1 << i
		}
		for b.most()-b.levels[b.low].gain > spare {
			b.low++
		}
	}
	s.aim(idleWeight)
	s.floor = s.best.value - same
	if w.after > 0 {
		w = w.half() // of a large one the value is worth more of the moment
	}
	s.phase(w, 2, forIdle)
	s.idleBound = s.best.idle
	if !s.whole {
		s.idleBound = min(s.best.idle, max(0, int(math.Ceil((s.best.value-s.lowest)/s.lambda-1e-6))))
	}
	s.musts, s.floor = musts, math.Inf(-1)
	for i := range s.blocks {
		s.blocks[i].low = 0
	}
}

// idleWeight is what a mean idle minute costs, beside the value, while plans of the same
// value are compared: little, so that hardly any of them gives up value for it.
const idleWeight = 0.05

// aim makes the search one for the value less the weight of mean idle minutes.
func (s *searcher) aim(weight float64) {
	s.lambda = s.cost(weight)
	s.step = s.lattice()
	if weight > 0 {
		s.step = 0.9 * s.lambda
	}
	s.dropped, s.lowest, s.whole, s.relaxation = math.Inf(-1), math.Inf(1), false, nil
	if s.best != nil {
		s.bestScore = s.best.value - s.lambda*float64(s.best.idle)
	}
}

// cost is what one idle player-unit costs where a mean idle minute costs weight.
func (m *model) cost(weight float64) float64 {
	return weight / 60 / float64(len(m.problem.Players)) * float64(m.unit)
}

// half is the work of one of two phases.
func (w work) half() work {
	return work{quick: w.quick, aside: w.aside / 2, descend: w.descend / 2, search: w.search / 2, after: w.after / 2}
}

// phase looks for the best plan by what the search is aimed at, by annealing and by
// search, and for a bound of it.
func (s *searcher) phase(w work, seed uint64, c chainOf) {
	var annealed *found
	var aside sync.WaitGroup
	c.from = s.best
	ctx, proven := context.WithCancel(s.ctx)
	defer proven()
	aside.Go(func() { annealed = s.chain(ctx, seed, w.aside, c) })
	s.steps = w.search
	if s.tangled {
		s.steps += w.after
		w.after = 0
	}
	s.relaxation = s.newRelaxation()
	// A narrow search gives the bound a better target, a better bound the
	// search a better guide.
	s.lowest = s.relaxation.descend(s.bestScore, w.descend/8)
	s.whole = s.done() || s.steps > 0 && s.run(10)
	if !s.whole && w.descend > 500 {
		s.lowest = min(s.lowest, s.relaxation.descend(s.bestScore, w.descend*7/8))
		s.whole = s.done() || s.steps > 0 && s.widen()
	}
	if s.whole {
		proven() // no draft can do better
	}
	var meanwhile *found
	if !s.whole && w.after > 0 && s.lambda == 0 { // what is not proven soon is looked for on both threads
		meanwhile = s.chain(s.ctx, seed+10, w.aside/2, c)
	}
	aside.Wait()
	if !s.whole { // else how far it came depends on when it was stopped
		s.take(annealed)
		s.take(meanwhile)
	}
	if !s.whole && w.after > 0 {
		c.from = s.best
		aside.Go(func() { annealed = s.chain(s.ctx, seed+20, w.after/2, c) })
		meanwhile = s.chain(s.ctx, seed+30, w.after/2, c)
		aside.Wait()
		s.take(annealed)
		s.take(meanwhile)
	}
	s.whole = s.whole || s.done()
	s.stopped = s.stopped || s.ctx.Err() != nil
}

// done tells whether no plan is better than the best by what the search is aimed at.
func (s *searcher) done() bool { return s.best != nil && s.lowest <= s.bestScore+s.step }

// crowded tells whether the best plan leaves over a third of what is optional out: then
// drafts differ in what they leave out, and one chain of them seldom sees the
// best choice.
func (s *searcher) crowded() bool {
	if s.best == nil {
		return false
	}
	optional, out := 0, 0
	for i, level := range s.best.level {
		if s.musts&(1<<i) == 0 {
			optional++
			if level < 0 {
				out++
			}
		}
	}
	return 3*out > optional
}

// again spends more drafts on what is not proven, in rounds: half of each on chains that
// begin anew, half on the best so far. Beginning anew finds more than going on: what a
// chain has left out early it seldom takes in again.
func (s *searcher) again() {
	rounds := uint64(2)
	if s.crowded() {
		rounds = 8
	}
	const drafts = 50 // of each thread in a round, per square of the blocks
	n := drafts * len(s.blocks) * len(s.blocks)
	for round := range rounds {
		if s.best == nil || s.worthy() || s.stopped {
			return
		}
		var fresh *found
		var aside sync.WaitGroup
		c := forValue
		c.guide = 0.5 // packed closer than before: what is full leaves room elsewhere
		aside.Go(func() { fresh = s.chain(s.ctx, 3+10*round, n, c) })
		c.from = s.best
		better := s.chain(s.ctx, 4+10*round, n, c)
		aside.Wait()
		s.take(fresh)
		s.take(better)
		s.stopped = s.ctx.Err() != nil
	}
}

// take makes the plan f the best if it is.
func (s *searcher) take(f *found) {
	if f != nil && f.beats(s.best) {
		s.best, s.bestScore = f, f.value-s.lambda*float64(f.idle)
	}
}

// widen searches with wider and wider layers while the steps last.
func (s *searcher) widen() (whole bool) {
	for width := 10.0; ; {
		before := s.steps
		if s.run(int(width)) {
			return true
		}
		used := before - s.steps
		more := min(4, float64(s.steps)/float64(max(1, used)), widest/width)
		if s.stopped || more < 1.5 {
			return false
		}
		width *= more
	}
}

// chainOf is how a chain of drafts is run: what it starts from, by what it is guided
// (the weight of a mean idle minute, as in [searcher.aim]), how hot and how cold.
type chainOf struct {
	from             *found
	guide, hot, cold float64
}

// How drafts are changed while plans differ in value, and once only waiting is left.
var (
	forValue = chainOf{guide: 0.2, hot: 3, cold: 0.05}
	forIdle  = chainOf{guide: idleWeight, hot: 0.3, cold: 0.003}
)

// chain anneals in a few runs of so many drafts together, each from what the
// one before came to and less hot. It returns the best plan in which every must has its
// place, if any; none for a tangled model, which is left to the search.
func (s *searcher) chain(ctx context.Context, seed uint64, drafts int, c chainOf) (best *found) {
	const runs = 4
	if s.tangled {
		return nil
	}
	a := newAnnealer(s, seed)
	a.guide = s.cost(c.guide)
	d := a.begin()
	if c.from != nil {
		a.adopt(d, c.from)
	} else {
		d = a.fullest(d)
	}
	hot := c.hot
	for range runs {
		d = a.cool(ctx, d, drafts/runs, hot, c.cold)
		if f := a.read(d); f != nil && f.beats(best) {
			best = f
		}
		hot *= 0.6
	}
	return best
}
