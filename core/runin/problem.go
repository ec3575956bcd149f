// Package runin fits a warm-up to the minutes there are: it decides for every
// block how long it runs, whether it runs at all, and when it starts, so that
// everybody is done just before the start.
//
// A [Problem] states players, blocks, fixed events, resources and walks; [Fit]
// answers with a [Result]: the plan of the greatest value, among equals the one of the
// least idle, among equals the latest. So nothing is shortened or left out while there
// are minutes for it. The rules and both figures are those of [Score], which checks any
// result against its problem from first principles and is what the tests trust.
//
// # How it searches
//
// Players with the same blocks, fixed events and window form a strand; a schedule is built from
// the due times backwards, strand by strand. A state is the set of blocks not yet decided, with
// the earliest moment that each strand and resource is taken from, and by when each has to be
// done at each place so as to walk to what comes next. Each step adds the block that ends next
// before all placed ones, at one of its levels, as late as it can go; the blocks that would have
// had to follow it are thereby left out. Every schedule in which no block can move later is
// reached by just one such sequence, and no other schedule is better, with one exception: a block
// that goes on without those called away may gain from starting earlier, so for these each
// earlier start at which less is missed is tried as well.
//
// A state that is no better than another one with the same blocks open is
// dropped, and so is one whose upper bound is not above the best plan known. While
// nothing else has to be dropped, the answer is proven best.
//
// The search has two phases. The first is for the value alone. Where everything fits in
// full, nothing has to be searched: the sum of all targets is a bound that is reached. The
// second keeps that value and looks for less idle; what the value has no room for, levels
// too short and blocks that would be missed, is ruled out before it begins.
//
// The bounds are a Lagrangian relaxation: each strand plans for itself, by dynamic programming
// over the sets of its blocks still open and the time, so that order, levels and waiting within a
// strand are exact; multipliers, moved by subgradient steps (Polyak 1969, Camerini et al. 1975),
// charge strands that disagree about a block they share, and what wants more of a resource than
// there is. In the second phase a mean idle minute weighs a little beside the value, and what the
// bound leaves over the value is the idle that no plan is without.
//
// Where the layers grow too wide, the least promising states go, and what is
// found is improved by annealing: drafts, which are an order of blocks and a
// level for each, are changed a little at a time and placed as above. Where much of what is
// optional finds no room, what lies around a moment is then planned anew, with some of what
// is left out, again and again.
//
// # What is proven
//
// Bound and IdleBound hold whatever the steps. Forty times the default steps, a second or
// so, proved all of twenty made-up problems of 16 blocks and six groups, value and idle; the
// default steps found the best of 19 or 20 of them and proved six. On 28 to 40 blocks
// hardly anything is proven: the default's value lay 0.1 to 0.4 % below the best of runs of
// five seconds in the mean.
//
// Searching and annealing spend a number of steps and use fixed seeds, so that the same problem
// has the same answer on any machine.
package runin

import "cuestart/core/clock"

// Problem is what has to be fitted. Times are whole seconds relative to the
// start, negative before it.
type Problem struct {
	Grid      int        `json:"grid"`   // starts are multiples of it
	Phases    []string   `json:"phases"` // in the method's order
	Players   []Player   `json:"players"`
	Resources []Resource `json:"resources"`
	Fixed     []Fixed    `json:"fixed"`
	Walks     []Walk     `json:"walks,omitempty"`
	Blocks    []Block    `json:"blocks"`
}

// Walk is the way between two places, both ways alike. Between places of which no walk is stated
// there is none.
type Walk struct {
	From    string `json:"from"`
	To      string `json:"to"`
	Seconds int    `json:"seconds"`
}

// Player can work from Open until Due.
type Player struct {
	ID   string       `json:"id"`
	Open clock.Offset `json:"open"`
	Due  clock.Offset `json:"due"`
}

// Resource is a zone, a kind of kit, a leader or a named partner.
type Resource struct {
	ID       string            `json:"id"`
	Capacity int               `json:"capacity"`
	Free     [][2]clock.Offset `json:"free,omitempty"`  // none: always
	Walks    bool              `json:"walks,omitempty"` // it goes from block to block, as a leader does
}

// Fixed is an event that holds its players from Start until End.
type Fixed struct {
	ID      string       `json:"id"`
	Players []string     `json:"players"` // Everyone for all
	Start   clock.Offset `json:"start"`
	End     clock.Offset `json:"end"`
	Active  bool         `json:"active,omitempty"` // it keeps them warm
	Place   string       `json:"place,omitempty"`  // "": wherever they are

	// Excused: what its players miss meanwhile is held against no block: nobody waits for
	// who comes late, and no dose is cut so that who is at the toss misses less of it.
	Excused bool `json:"excused,omitempty"`
}

// Everyone, as a player's id in a list, means all players.
const Everyone = "*"

// Block is a piece of work that runs in one go for all its players.
type Block struct {
	ID        string        `json:"id"`
	Phase     string        `json:"phase"` // "": outside the order
	Players   []string      `json:"players"`
	Weight    float64       `json:"weight"`
	Must      bool          `json:"must"`
	Loose     bool          `json:"loose,omitempty"`
	Excusable bool          `json:"excusable,omitempty"` // it goes on without those called away, not without everybody
	Pin       *clock.Offset `json:"pin,omitempty"`
	Window    Window        `json:"window,omitzero"`
	After     []string      `json:"after,omitempty"`          // each ends before it starts, if both are kept
	Straight  string        `json:"straight_after,omitempty"` // it starts when that block ends, if both are kept
	Needs     []Need        `json:"needs,omitempty"`
	Place     string        `json:"place,omitempty"` // "": wherever they are
	Levels    []Level       `json:"levels"`          // the shortest first
	// shorter still, the shortest first: for where the musts do not fit
	Once  []Level `json:"once,omitempty"`
	Pulse bool    `json:"pulse,omitempty"` // it makes the rest safe: of musts that do not fit, the last to go

	going bool // it is under way, whoever is there
}

// Window holds a block: it starts no earlier than the first moment and ends no
// later than the second; nil: there is no such bound.
type Window [2]*clock.Offset

// moved is the window so much later.
func (w Window) moved(by clock.Offset) Window {
	for i, at := range w {
		if at != nil {
			later := *at + by
			w[i] = &later
		}
	}
	return w
}

// Need is an amount of a resource that a block holds while it runs.
type Need struct {
	Resource string `json:"resource"`
	Amount   int    `json:"amount"`
}

// Level is one length a block can have, and its worth: 1 at the target dose.
type Level struct {
	Seconds int     `json:"seconds"`
	Value   float64 `json:"value"`
}

// Result is the answer to a problem.
type Result struct {
	Feasible bool    `json:"feasible"` // the musts fit
	Value    float64 `json:"value"`    // of the kept blocks
	Bound    float64 `json:"bound"`    // no plan has a greater value; equal to Value when that is proven
	Idle     int     `json:"idle"`     // player-seconds
	// no plan of that value has less; equal to Idle when that is proven
	IdleBound int         `json:"idle_bound"`
	ShortBy   int         `json:"short_by"`          // seconds that all open times would have to move earlier
	Why       string      `json:"why,omitempty"`     // where it does not fit
	Binds     []string    `json:"binds,omitempty"`   // the players of the strand that Why speaks of
	Stopped   bool        `json:"stopped,omitempty"` // ended by its context: the best plan so far
	Blocks    []Scheduled `json:"blocks"`            // in the problem's order
	Strands   [][]string  `json:"strands,omitempty"` // players by strand
}

// Scheduled says what became of a block.
type Scheduled struct {
	ID     string       `json:"id"`
	Kept   bool         `json:"kept"`
	Level  int          `json:"level"` // index into the block's levels; below 0: one of Once, -1 the longest
	Start  clock.Offset `json:"start"`
	End    clock.Offset `json:"end"`
	Missed []Missed     `json:"missed,omitempty"`
	Why    string       `json:"why"`
}

// Missed says who is called away from a block, and for how long.
type Missed struct {
	Player  string `json:"player"`
	Seconds int    `json:"seconds"`
}
