package runin

import (
	"context"
	"math"
	"math/rand/v2"
)

// annealer improves drafts. A draft is placed block by block; what is taken
// after each is kept, so that a change in the middle of the order only costs
// the rest of it.
type annealer struct {
	*searcher
	random *rand.Rand
	sooner sooner  // of its own: two annealers work at once
	pos    []int   // by block: its place in the order of the present draft
	rivals [][]int // by block: those that it competes with for strands or resources
	free   [][]int // by block: those rivals that may come before or after it
	people []int   // by strand: how many, where none of its fixed events keeps warm
	after  []int   // for behind

	guide float64 // what an idle player-unit costs, beside the value

	present, tried trail
	value          float64 // of the draft tried last, less what musts without a place cost
	idle           int
}

// trail is what a draft comes to, step by step; place n is before block n of
// the order is placed.
type trail struct {
	taken  [][]int // rows of what is taken; see layout
	row    []int   // by place: its row; where a block found no room, that of the place before
	value  []float64
	idle   []int
	end    []int  // by block, where placed
	placed []bool // by block
}

// mustPenalty is what a must that finds no place costs: more than any block is
// worth, yet little enough that annealing finds its way through.
const mustPenalty = 40

func newAnnealer(s *searcher, seed uint64) *annealer {
	n := len(s.blocks)
	a := &annealer{searcher: s, sooner: sooner{}, random: rand.New(rand.NewPCG(seed, 26)), pos: make([]int, n)}
	a.rivals, a.free = make([][]int, n), make([][]int, n)
	for i := range s.blocks {
		for j := range s.blocks {
			if i != j && s.blocks[i].rivals(&s.blocks[j]) {
				a.rivals[i] = append(a.rivals[i], j)
				if s.blocks[i].later&(1<<j) == 0 && s.blocks[j].later&(1<<i) == 0 {
					a.free[i] = append(a.free[i], j)
				}
			}
		}
	}
	for _, t := range []*trail{&a.present, &a.tried} {
		t.value, t.idle, t.row = make([]float64, n+1), make([]int, n+1), make([]int, n+1)
		t.end, t.placed = make([]int, n), make([]bool, n)
		all := make([]int, s.size*(n+1))
		for place := range n + 1 {
			t.taken = append(t.taken, all[place*s.size:(place+1)*s.size])
		}
		s.nothing(t.taken[0])
	}
	a.people = make([]int, len(s.strands))
	for k := range s.strands {
		a.present.idle[0] += a.waits(k, a.strands[k].due)
		if len(a.strands[k].active) == 0 {
			a.people[k] = len(s.strands[k].players)
		}
	}
	return a
}

// score places the draft from place on, on top of what the present draft came
// to before it, and returns what the plan scores, less a penalty for musts that
// found no place. It stops as soon as the score cannot reach least, and returns some score
// below it.
func (a *annealer) score(d *draft, place int, least float64) float64 {
	p, t := &a.present, &a.tried
	value, idle, rest := p.value[place], p.idle[place], a.hoped(d, place)
	t.row[place] = p.row[place]
	taken := p.taken[p.row[place]]
	for ; place < len(d.order); place++ {
		if value+rest-a.guide*float64(idle) < least {
			return math.Inf(-1)
		}
		i := d.order[place]
		t.row[place+1], t.placed[i] = t.row[place], false
		if level := d.level[i]; level >= 0 {
			next := t.taken[place+1]
			copy(next, taken)
			if gain, waits, end, ok := a.place(next, d, i); ok {
				t.row[place+1], t.placed[i], t.end[i] = place+1, true, end
				value += gain
				idle += waits
				taken = next
			}
			rest -= a.blocks[i].levels[level].gain
		}
		if !t.placed[i] && a.musts&(1<<i) != 0 {
			value -= mustPenalty
		}
		t.value[place+1], t.idle[place+1] = value, idle
	}
	a.value, a.idle = value, idle
	return value - a.guide*float64(idle)
}

// hoped is what the draft comes to from place on, if everything finds room and nobody is missed.
func (a *annealer) hoped(d *draft, place int) (value float64) {
	for _, i := range d.order[place:] {
		if level := d.level[i]; level >= 0 {
			value += a.blocks[i].levels[level].gain
		}
	}
	return value
}

// waits is how long those in strand k wait from first on, their work apart.
func (a *annealer) waits(k, first int) int {
	s := &a.strands[k]
	return len(s.players) * a.idleBefore(s, first)
}

// accept makes the draft that was placed from place on the present one.
func (a *annealer) accept(d *draft, place int) {
	p, t := &a.present, &a.tried
	for n := place; n < len(d.order); n++ {
		i := d.order[n]
		a.pos[i] = n
		p.end[i], p.placed[i] = t.end[i], t.placed[i]
		p.taken[n+1], t.taken[n+1] = t.taken[n+1], p.taken[n+1]
	}
	copy(p.row[place+1:], t.row[place+1:])
	copy(p.value[place+1:], t.value[place+1:])
	copy(p.idle[place+1:], t.idle[place+1:])
}

// place puts block i as late as it can go before what is taken; it returns its
// gain, the player-seconds of waiting that it adds, and its end.
func (a *annealer) place(taken []int, d *draft, i int) (gain float64, waits, end int, ok bool) {
	b := &a.blocks[i]
	l := &b.levels[d.level[i]]
	limit := a.limit(taken, i)
	var missed absence
	if b.pinned {
		end = b.pin + l.seconds
		if at, fits := a.latest(b, l.seconds, end); !fits || at != end || end > limit {
			return 0, 0, 0, false
		}
		missed = a.missed(b, end-l.seconds, end)
	} else {
		if end, ok = a.latest(b, l.seconds, limit); !ok {
			return 0, 0, 0, false
		}
		if b.excusable {
			choices := a.sooner.ends(a.model, i, d.level[i], end)
			n := min(d.pick[i], len(choices.at)-1)
			end, missed = choices.at[n], choices.missed[n]
		}
	}
	start := end - l.seconds
	if b.phase >= 0 {
		first := taken[a.firstAt:]
		for _, k := range b.strands {
			if people := a.people[k]; people > 0 {
				waits += people * (first[k] - start)
			} else {
				waits += a.waits(k, start) - a.waits(k, first[k])
			}
		}
	}
	waits -= a.put(taken, i, start, end, missed)
	return l.gain * b.attended(l.seconds, missed), waits, end, true
}

// read is the plan that the draft comes to; nil where a must finds no place in it.
func (a *annealer) read(d *draft) *found {
	a.score(d, 0, math.Inf(-1))
	f := &found{level: make([]int, len(a.blocks)), end: make([]int, len(a.blocks)), value: a.value, idle: a.idle}
	for i := range a.blocks {
		if a.musts&(1<<i) != 0 && !a.tried.placed[i] {
			return nil
		}
		f.level[i] = -1
		if a.tried.placed[i] {
			f.level[i], f.end[i] = d.level[i], a.tried.end[i]
			f.sum += f.end[i] - a.blocks[i].levels[d.level[i]].seconds
		}
	}
	return f
}

// cool improves the draft for rounds rounds, from temperature hot to cold, and
// returns the best that was seen.
func (a *annealer) cool(ctx context.Context, d *draft, rounds int, hot, cold float64) *draft {
	d = d.clone()
	now := a.score(d, 0, math.Inf(-1))
	a.accept(d, 0)
	best, bestOf := d.clone(), found{value: a.value, idle: a.idle}
	next := d.clone()
	factor := math.Pow(cold/hot, 1/float64(max(1, rounds)))
	heat := hot
	for round := range rounds {
		if round%256 == 0 && ctx.Err() != nil {
			break
		}
		place := a.mutate(next)
		heat *= factor
		if place == len(d.order) {
			continue // nothing was changed
		}
		least := now + heat*math.Log(a.random.Float64())
		if score := a.score(next, place, least); score >= least {
			a.accept(next, place)
			d.copyFrom(next)
			now = score
			if f := (found{value: a.value, idle: a.idle}); f.beats(&bestOf) {
				best.copyFrom(d)
				bestOf = f
			}
		} else {
			next.copyFrom(d)
		}
	}
	return best
}
