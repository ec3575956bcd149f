package runin

import (
	"context"
	"slices"
	"sync"
)

// Version changes when the same problem may get another answer.
const Version = 4

// DefaultSteps is how many steps Fit spends on a problem unless told otherwise.
// A step is a draft tried by annealing, a block placed by the search or five
// hundred places of a table, and takes a microsecond or two, so that a squad's
// match day takes a tenth of a second. Where over a third of what is optional
// finds no room, Fit left to itself spends three times that.
func DefaultSteps(p *Problem) int {
	return effort(len(p.Blocks)).all()
}

// Fit finds the plan of the greatest score, spending at most steps steps
// ([DefaultSteps] if steps is 0). The same problem and steps give the same
// answer on any machine, unless ctx ends first: then the answer is the best
// plan so far and says so. An impossible problem is an answer, Feasible false;
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
	m := newModel(p)
	s := newSearcher(ctx, m)
	s.steps = steps
	whole := s.solve()
	if plenty && !whole && s.crowded() {
		s.again(more * len(p.Blocks) * len(p.Blocks))
	}
	if s.best != nil || s.musts == 0 {
		return s.result(true, whole)
	}
	return s.partial(steps, whole)
}

// work is how many steps go where.
type work struct {
	quick   int // drafts, for a first plan
	aside   int // drafts, on a thread of their own
	descend int // into lowering the bound
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
		part := func(n int) int { return n * steps / all }
		return work{part(w.quick), part(w.aside), part(w.descend), part(w.search), part(w.after)}
	}
	more := (steps - all) / 5
	return work{w.quick, w.aside + more, w.descend + more, w.search + 3*more, w.after}
}

// widest is how many states of a layer are kept at most; it bounds memory to
// some hundred megabytes.
const widest = 200_000

// solve looks for the best plan, by annealing and by search, and reports
// whether it is proven best. What two threads find does not depend on which is
// faster.
func (s *searcher) solve() (whole bool) {
	if s.musts == 0 {
		s.consider(s.root())
	}
	if len(s.blocks) == 0 {
		return true // nothing is planned: there is nothing to look for
	}
	if s.shortfall {
		s.lowest = s.boundOf(s.root())
		return s.widen()
	}
	w := effort(len(s.blocks)).of(s.steps)
	s.take(s.chain(s.ctx, 0, w.quick, nil))
	var annealed *found
	var score float64
	var aside sync.WaitGroup
	first := s.best
	ctx, proven := context.WithCancel(s.ctx)
	defer proven()
	aside.Go(func() { annealed, score = s.chain(ctx, 1, w.aside, first) })
	s.steps = w.search
	if s.tangled {
		s.steps += w.after
		w.after = 0
	}
	s.relaxation = s.newRelaxation()
	// A narrow search gives the bound a better target, a better bound the
	// search a better guide.
	s.lowest = s.relaxation.descend(s.bestScore, w.descend/8)
	whole = s.lowest <= s.bestScore+eps || s.steps > 0 && s.run(10)
	if !whole && w.descend > 500 {
		s.lowest = min(s.lowest, s.relaxation.descend(s.bestScore, w.descend*7/8))
		whole = s.lowest <= s.bestScore+eps || s.steps > 0 && s.widen()
	}
	if whole {
		proven() // no draft can do better
	} else {
		s.take(s.chain(s.ctx, 2, w.after, s.best))
	}
	aside.Wait()
	s.take(annealed, score)
	s.stopped = s.stopped || s.ctx.Err() != nil
	return whole || s.lowest <= s.bestScore+eps
}

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

// again spends more drafts on a crowded problem: half on chains that begin anew,
// half on the best so far.
func (s *searcher) again(drafts int) {
	type one struct {
		plan  *found
		score float64
	}
	var fresh, better one
	var aside sync.WaitGroup
	aside.Go(func() { fresh.plan, fresh.score = s.chain(s.ctx, 3, drafts/2, nil) })
	better.plan, better.score = s.chain(s.ctx, 4, drafts/2, s.best)
	aside.Wait()
	s.take(fresh.plan, fresh.score)
	s.take(better.plan, better.score)
	s.stopped = s.stopped || s.ctx.Err() != nil
}

// more is how many drafts a crowded problem gets beside its steps, per square of
// its blocks.
const more = 200

// take makes the plan f the best if it is.
func (s *searcher) take(f *found, score float64) {
	if f != nil && score > s.bestScore+eps {
		s.best, s.bestScore = f, score
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

// chain anneals in a few runs of so many drafts together, each from what the
// one before came to and less hot, the first from the plan from if there is
// one. It returns the best plan in which every must has its place, if any; none
// for a tangled model, which is left to the search.
func (s *searcher) chain(ctx context.Context, seed uint64, drafts int, from *found) (best *found, bestScore float64) {
	const runs = 4
	if s.tangled {
		return nil, 0
	}
	a := newAnnealer(s, seed)
	d := a.begin()
	if from != nil {
		a.adopt(d, from)
	}
	hot := 3.0
	for range runs {
		better, score := a.cool(ctx, d, drafts/runs, hot, 0.05)
		if (best == nil || score > bestScore+eps) && a.holds(better) {
			best, bestScore = a.read(better), score
		}
		d = better
		hot *= 0.6
	}
	return best, bestScore
}
