// Package stake says what goes first when there are fewer minutes than a plan takes. It is the
// one place where how willingly a coach gives something up becomes a number; who fits, shortens
// or leaves out adds these up and knows nothing else of priorities.
//
// A block counts for what its priority weighs, times how much of its dose is done. The fit seeks
// the plan whose blocks count for most together. So doses shrink before drills go, a could before
// a should, and a must stays at its least at any rate. Where the musts do not fit even so, each
// thing is done once, and only then does a must go; what raises the pulse goes last of all, since
// it makes the rest safe. The example has the order.
package stake

// Priority says how willingly a coach gives a block up.
type Priority string

// The priorities.
const (
	Must   Priority = "must"
	Should Priority = "should"
	Could  Priority = "could"
)

// Priorities lists them, the heaviest first.
var Priorities = []Priority{Must, Should, Could}

// weights are what a block of each counts for with its dose as planned: one must outweighs two
// shoulds and two coulds.
var weights = map[Priority]float64{Must: 9, Should: 3, Could: 1}

// Weight is what a block of the priority counts for: 9, 3 or 1; 0: it is none.
func (p Priority) Weight() float64 { return weights[p] }

// How much of its worth a block has by the dose that is done of it; straight in between.
const (
	Once   = 0.5  // each thing done just once: where the musts do not fit otherwise
	Least  = 0.9  // all drills at their least
	Target = 1.0  // as planned
	Spare  = 1.05 // with all spare minutes that it can use
)

// Block is what decides over a block.
type Block struct {
	Priority Priority
	Timed    bool // the coach said when it is: who says when means it
	Pulse    bool // it is the first that raises somebody's pulse
}

// Must tells whether the block stays, at its least at any rate: it is a must, or what raises the
// pulse, unless the coach calls that a could.
func (b Block) Must() bool { return b.Priority == Must || b.first() }

func (b Block) first() bool { return b.Pulse && b.Priority != Could }

// Weight is what the block counts for with its dose as planned.
func (b Block) Weight() float64 {
	if b.Must() || b.Timed && b.Priority == Should {
		return Must.Weight()
	}
	return b.Priority.Weight()
}

// Lost is what it costs beside its weight to leave the block out where not all musts can be
// kept: 9, for the pulse 20; 0: it is no must.
func (b Block) Lost() float64 {
	switch {
	case b.first():
		return 20
	case b.Must():
		return 9
	}
	return 0
}
