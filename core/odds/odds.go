// Package odds says how likely a plan holds on the day. A plan has no slack by itself: the
// real length of a block is its planned one times exp(mu + sigma z), z standard normal, one a
// block a day. People work in the plan's order; a block begins at the latest of its planned
// start, its players' being free and its resources' being free.
package odds

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"

	"cuestart/core/clock"
)

// Days are how many a plan is run through, always the same ones.
const Days = 2000

// Sigma is the spread of real lengths, in the logarithm, until a team's own is known.
const Sigma = 0.12

// Tolerance is how late somebody may be done on a day that holds, in seconds.
const Tolerance = 60

// Day is a plan as it is to be run.
type Day struct {
	Due    map[string]clock.Offset // by player
	Blocks []Block
	Room   map[string]int // how much there is of a resource; one where nothing is said
}

// Block is a piece of work as it is planned.
type Block struct {
	ID         string
	Start, End clock.Offset
	Players    []string       // whom it waits for
	Needs      map[string]int // of resources
	Mu         float64        // how the team's own length differs, in the logarithm; 0 until it is known
	Sigma      float64        // the spread of the team's own length; 0: Sigma
}

// Odds are how the days went.
type Odds struct {
	Holds   float64 // the share of days on which everybody is done within the tolerance
	Median  int     // seconds late in the middle; below 0: early
	Late90  int     // on 9 days of 10 no later
	Late95  int     // on 19 of 20
	Worst   string  // the block that most often makes a day late; "": none does
	Earlier int     // seconds to begin earlier so that 19 days of 20 hold
	Empty   bool    // nothing is planned
}

// crowd are blocks by the groups of players that do the same, in the order in which work is
// done.
type crowd struct {
	blocks []step
	due    []float64 // by group
	room   []int     // by resource
}

type step struct {
	is         *Block
	start, run float64
	sigma      float64
	groups     []int
	needs      []need
}

type need struct{ resource, amount int }

// held is an amount of a resource that is in use until a moment, by a block.
type held struct {
	until  float64
	amount int
	block  int
}

// Of runs a plan through its days.
func Of(d Day) Odds {
	c := crowdOf(d)
	if len(c.blocks) == 0 {
		return Odds{Holds: 1, Empty: true}
	}
	random := rand.New(rand.NewPCG(8, 2000))
	late, blamed := make([]float64, Days), make([]int, len(c.blocks))
	run := newRun(c)
	held := 0
	for day := range late {
		run.through(random)
		if late[day] = run.late; run.late <= Tolerance {
			held++
		} else {
			blamed[run.blame()]++
		}
	}
	slices.Sort(late)
	at := func(share float64) float64 { return late[min(Days-1, int(share*Days))] }
	o := Odds{Holds: float64(held) / Days, Median: int(math.Round(at(0.5))), Late90: int(math.Round(at(0.9))),
		Late95: int(math.Round(at(0.95)))}
	if worst := slices.Index(blamed, slices.Max(blamed)); blamed[worst] > 0 {
		o.Worst = c.blocks[worst].is.ID
	}
	const step = 10
	if over := o.Late95 - Tolerance; over > 0 {
		o.Earlier = (over + step - 1) / step * step
	}
	return o
}

// crowdOf gathers players who do the same.
func crowdOf(d Day) *crowd {
	c := &crowd{}
	groups, resources := map[string]int{}, map[string]int{}
	names := make([]string, 0, len(d.Due))
	for name := range d.Due {
		names = append(names, name)
	}
	slices.Sort(names)
	of := map[string]int{}
	for _, name := range names {
		key := make([]byte, 0, len(d.Blocks)+8)
		for i := range d.Blocks {
			in := byte('0')
			if slices.Contains(d.Blocks[i].Players, name) {
				in = '1'
			}
			key = append(key, in)
		}
		key = append(key, []byte(d.Due[name].ToGo())...)
		n, known := groups[string(key)]
		if !known {
			n = len(c.due)
			groups[string(key)] = n
			c.due = append(c.due, float64(d.Due[name]))
		}
		of[name] = n
	}
	for i := range d.Blocks {
		b := &d.Blocks[i]
		s := step{is: b, start: float64(b.Start), run: float64(b.End - b.Start), sigma: cmp.Or(b.Sigma, Sigma)}
		for _, p := range b.Players {
			if g, known := of[p]; known && !slices.Contains(s.groups, g) {
				s.groups = append(s.groups, g)
			}
		}
		for name, amount := range b.Needs {
			n, known := resources[name]
			if !known {
				n = len(c.room)
				resources[name] = n
				c.room = append(c.room, max(1, d.Room[name]))
			}
			s.needs = append(s.needs, need{n, min(amount, c.room[n])})
		}
		slices.SortFunc(s.needs, func(a, b need) int { return a.resource - b.resource })
		c.blocks = append(c.blocks, s)
	}
	slices.SortStableFunc(c.blocks, func(a, b step) int { return int(a.start - b.start) })
	return c
}

// run is one day, its room used again for the next.
type run struct {
	*crowd
	free   []float64 // when a group is free
	last   []int     // the block that it was in
	held   [][]held  // by resource
	before []int     // what a block waited for; -1: its own start
	over   []float64 // how much longer a block took than planned
	late   float64
	latest int // the block that ended last of what is late most
}

func newRun(c *crowd) *run {
	return &run{crowd: c, free: make([]float64, len(c.due)), last: make([]int, len(c.due)),
		held: make([][]held, len(c.room)), before: make([]int, len(c.blocks)), over: make([]float64, len(c.blocks))}
}

// through runs a day.
func (r *run) through(random *rand.Rand) {
	for g := range r.free {
		r.free[g], r.last[g] = math.Inf(-1), -1
	}
	for n := range r.held {
		r.held[n] = r.held[n][:0]
	}
	for i := range r.blocks {
		b := &r.blocks[i]
		at, before := b.start, -1
		for _, g := range b.groups {
			if r.free[g] > at {
				at, before = r.free[g], r.last[g]
			}
		}
		for _, n := range b.needs {
			r.forget(n.resource, b.start)
			if free, block := r.roomFor(n, at); free > at {
				at, before = free, block
			}
		}
		long := b.run * math.Exp(b.is.Mu+b.sigma*random.NormFloat64())
		r.before[i], r.over[i] = before, long-b.run
		for _, g := range b.groups {
			r.free[g], r.last[g] = at+long, i
		}
		for _, n := range b.needs {
			r.held[n.resource] = append(r.held[n.resource], held{at + long, n.amount, i})
		}
	}
	r.late, r.latest = math.Inf(-1), 0
	for g, due := range r.due {
		if late := r.free[g] - due; late > r.late && r.last[g] >= 0 {
			r.late, r.latest = late, r.last[g]
		}
	}
}

// forget gives up what is over before a moment: blocks come in the order of their starts.
func (r *run) forget(resource int, before float64) {
	kept := r.held[resource][:0]
	for _, h := range r.held[resource] {
		if h.until > before {
			kept = append(kept, h)
		}
	}
	r.held[resource] = kept
}

// roomFor is when there is room for a need, no earlier than a moment, and the block that then
// gave it free.
func (r *run) roomFor(n need, at float64) (free float64, block int) {
	block = -1
	for {
		used, next, by := 0, math.Inf(1), -1
		for _, h := range r.held[n.resource] {
			if h.until > at {
				if used += h.amount; h.until < next {
					next, by = h.until, h.block
				}
			}
		}
		if used+n.amount <= r.room[n.resource] {
			return at, block
		}
		at, block = next, by
	}
}

// blame is the block that made a day late: of those that the last one waited for, one after
// the other, the one that took most longer than planned.
func (r *run) blame() int {
	worst := r.latest
	for i := r.latest; i >= 0; i = r.before[i] {
		if r.over[i] > r.over[worst] {
			worst = i
		}
	}
	return worst
}
