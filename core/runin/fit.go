package runin

import (
	"context"
	"fmt"
	"math"
	"slices"
	"sync"

	"cuestart/core/clock"
)

// Version changes when the same problem may get another answer.
const Version = 2

// DefaultSteps is how many steps Fit spends on a problem unless told otherwise.
// A step is a draft tried by annealing, a block placed by the search or a
// hundred and fifty places of a table, and takes a microsecond or two, so that
// a squad's match day takes a tenth of a second.
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
	if steps <= 0 {
		steps = DefaultSteps(p)
	}
	m := newModel(p)
	s := newSearcher(ctx, m)
	s.steps = steps
	whole := s.solve()
	if s.best != nil || s.musts == 0 {
		return s.result(true, whole), nil
	}
	return s.partial(steps, whole), nil
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

// partial answers a problem whose musts do not fit: by how much, why, and the
// best plan that there is when musts too may be left out.
func (s *searcher) partial(steps int, proven bool) *Result {
	short := s.shortest(steps, false)
	result := s.most(steps)
	if short.best != nil {
		result.ShortBy = max(0, -int(short.bestScore)*short.unit)
		result.Binds, result.Why = s.binding(short)
		return result
	}
	if freed := s.shortest(steps, true); freed.best != nil {
		result.Binds, result.Why = s.binding(freed)
		result.Why += fmt.Sprintf("; what they need would have to be free %s earlier too", clock.Duration(-int(freed.bestScore)*freed.unit))
		return result
	}
	result.Why = "the musts cannot all be placed, however early the work begins: a pin, a link, a fixed event or a resource stands in the way"
	for i := range s.problem.Blocks {
		b := &s.problem.Blocks[i]
		for _, need := range b.Needs {
			for _, r := range s.problem.Resources {
				if b.Must && r.ID == need.Resource && r.Capacity < need.Amount {
					result.Why = fmt.Sprintf("%s, a must, needs %d of %s, which holds %d", b.ID, need.Amount, r.ID, r.Capacity)
				}
			}
		}
	}
	return result
}

// mustBonus is what keeping a must is worth over its gain when not all of them
// can be kept: more than all else, so that as many as can be are.
const mustBonus = 50

// most is the best plan that keeps as many musts as can be. Its bound is its
// score if it is proven best among such plans, and else holds for every plan
// that may leave musts out.
func (s *searcher) most(steps int) *Result {
	model := newModel(s.problem)
	bonus := func(by float64) {
		for i := range model.blocks {
			for l := range model.blocks[i].levels {
				if model.blocks[i].must {
					model.blocks[i].levels[l].gain += by
				}
			}
		}
	}
	rest := newSearcher(s.ctx, model)
	rest.steps, rest.musts = steps, 0
	bonus(mustBonus)
	whole := rest.solve()
	bonus(-mustBonus)
	result := rest.result(false, true)
	if !whole {
		result.Bound = max(result.Score, rest.newRelaxation().descend(result.Score, effort(len(rest.blocks)).descend))
	}
	return result
}

// shortest finds how much earlier all would have to open for the musts to fit
// at their shortest; with freed, resources too are free from any early moment.
func (s *searcher) shortest(steps int, freed bool) *searcher {
	lowered := *s.problem
	lowered.Players = slices.Clone(lowered.Players)
	for i := range lowered.Players {
		lowered.Players[i].Open = -2 * horizon
	}
	if freed {
		lowered.Resources = slices.Clone(lowered.Resources)
		for i := range lowered.Resources {
			if free := slices.Clone(lowered.Resources[i].Free); len(free) > 0 {
				free[0][0] = -2 * horizon
				lowered.Resources[i].Free = free
			}
		}
	}
	short := newSearcher(s.ctx, newModel(&lowered))
	short.shortfall = true
	// The strands of the lowered problem are those of the problem but for the
	// open times: what counts is the latest of a strand's players.
	for k := range short.strands {
		st := &short.strands[k]
		st.open = math.MinInt
		for _, player := range st.players {
			st.open = max(st.open, short.at(s.problem.Players[player].Open))
		}
	}
	short.steps = steps
	short.solve()
	return short
}

// binding says in one sentence what keeps the musts from fitting, and whom.
func (s *searcher) binding(short *searcher) (players []string, why string) {
	worst, by := 0, math.MinInt
	for k := range short.strands {
		first := short.strands[k].due
		for _, i := range short.blocksOf(k) {
			if l := short.best.level[i]; l >= 0 {
				first = min(first, short.best.end[i]-short.blocks[i].levels[l].seconds)
			}
		}
		if n := short.strands[k].open - first; n > by {
			worst, by = k, n
		}
	}
	strand := &short.strands[worst]
	for _, player := range strand.players {
		players = append(players, s.problem.Players[player].ID)
	}
	need := 0
	for _, i := range short.blocksOf(worst) {
		if b := &short.blocks[i]; b.must {
			need += b.levels[0].seconds
		}
	}
	room := strand.due - strand.open - overlap(strand.closed, strand.open, strand.due)
	if need > room {
		return players, fmt.Sprintf("the musts at their shortest take %s, and there are %s", clock.Duration(need*short.unit), clock.Duration(room*short.unit))
	}
	return players, fmt.Sprintf("the musts take %s of %s, but fixed events, links, joint blocks or resources leave them no place to stand", clock.Duration(need*short.unit), clock.Duration(room*short.unit))
}

// blocksOf lists the blocks of strand k.
func (m *model) blocksOf(k int) (blocks []int) {
	for i := range m.blocks {
		if slices.Contains(m.blocks[i].strands, k) {
			blocks = append(blocks, i)
		}
	}
	return blocks
}

// result writes the best state as an answer.
func (s *searcher) result(feasible, whole bool) *Result {
	p := s.problem
	r := &Result{Feasible: feasible, Stopped: s.stopped, Blocks: make([]Scheduled, len(p.Blocks))}
	for i := range p.Blocks {
		r.Blocks[i] = Scheduled{ID: p.Blocks[i].ID}
	}
	if s.best != nil {
		for i, level := range s.best.level {
			if level >= 0 {
				end := clock.Offset(s.best.end[i] * s.unit)
				r.Blocks[i].Kept, r.Blocks[i].Level = true, level
				r.Blocks[i].Start, r.Blocks[i].End = end-clock.Offset(s.blocks[i].levels[level].seconds*s.unit), end
			}
		}
	}
	for k := range s.strands {
		var ids []string
		for _, player := range s.strands[k].players {
			ids = append(ids, p.Players[player].ID)
		}
		r.Strands = append(r.Strands, ids)
	}
	s.measure(r)
	r.Bound = r.Score
	if !whole {
		r.Bound = max(r.Score, s.lowest)
	}
	for i := range r.Blocks {
		r.Blocks[i].Why = s.why(r, i)
	}
	return r
}

// measure fills in the figures of r from its blocks.
func (s *searcher) measure(r *Result) {
	first := make([]int, len(s.strands))
	for k := range s.strands {
		first[k] = s.strands[k].due
	}
	worked := 0
	for i := range r.Blocks {
		if !r.Blocks[i].Kept {
			continue
		}
		sc, b := &r.Blocks[i], &s.blocks[i]
		from, to := s.at(sc.Start), s.at(sc.End)
		missed := s.missed(b, from, to)
		r.Value += b.levels[sc.Level].gain * (1 - float64(missed)/float64(b.people*(to-from)))
		for _, k := range b.strands {
			if b.phase >= 0 {
				first[k] = min(first[k], from)
			}
			if away := overlap(s.strands[k].closed, from, to); b.excusable && away > 0 {
				for _, player := range s.strands[k].players {
					sc.Missed = append(sc.Missed, Missed{s.problem.Players[player].ID, away * s.unit})
				}
			}
		}
		s.sortMissed(sc.Missed)
	}
	for i := range r.Blocks {
		if !r.Blocks[i].Kept {
			continue
		}
		from, to := s.at(r.Blocks[i].Start), s.at(r.Blocks[i].End)
		for _, k := range s.blocks[i].strands {
			if from < first[k] {
				continue
			}
			seconds := to - from
			if s.blocks[i].excusable {
				seconds -= overlap(s.strands[k].closed, from, to)
			}
			worked += len(s.strands[k].players) * seconds
		}
	}
	for k := range s.strands {
		r.Idle += len(s.strands[k].players) * s.idleBefore(&s.strands[k], first[k])
	}
	r.Idle -= worked
	r.Score = r.Value - s.lambda*float64(r.Idle)
	r.Idle *= s.unit
}

func (s *searcher) sortMissed(missed []Missed) {
	order := map[string]int{}
	for i := range s.problem.Players {
		order[s.problem.Players[i].ID] = i
	}
	slices.SortFunc(missed, func(a, b Missed) int { return order[a.Player] - order[b.Player] })
}

// why says in a few words what became of block i.
func (s *searcher) why(r *Result, i int) string {
	from, sc := &s.problem.Blocks[i], &r.Blocks[i]
	longest := from.Levels[len(from.Levels)-1].Seconds
	switch {
	case !sc.Kept && from.Must:
		return fmt.Sprintf("left out: not even its shortest, %s, fits beside the other musts", clock.Duration(from.Levels[0].Seconds))
	case !sc.Kept:
		return fmt.Sprintf("left out: its shortest, %s, is worth less than what it would displace", clock.Duration(from.Levels[0].Seconds))
	case sc.Level < len(from.Levels)-1:
		return fmt.Sprintf("shortened from %s to %s", clock.Duration(longest), clock.Duration(from.Levels[sc.Level].Seconds))
	case from.Pin != nil:
		return "in full, at its pin"
	}
	return "in full"
}
