package drill

import (
	"errors"
	"fmt"
	"math"
)

// Kind says how a dose is counted, and so how its seconds are worked out.
type Kind string

// The kinds of dose.
const (
	Reps   Kind = "reps"   // repetitions, in sets, of one or two sides
	Hold   Kind = "hold"   // positions held for some seconds
	Travel Kind = "travel" // trips over a distance, in waves through lanes
	Count  Kind = "count"  // acts of the sport: throws, kicks, catches
	Grid   Kind = "grid"   // every cell of a grid tried so many times
	Time   Kind = "time"   // plain time
	Line   Kind = "line"   // trips of several drills, one leg after the other, out and back
)

// Kinds lists every kind of dose, in the order that a coach meets them.
var Kinds = []Kind{Reps, Hold, Travel, Count, Grid, Time, Line}

// Flow says how the waves of a [Travel] dose follow each other.
type Flow string

// The flows of a travel dose.
const (
	Regroup    Flow = "regroup"    // everybody gathers after each trip
	Continuous Flow = "continuous" // waves go on without gathering
)

// Dose is an amount of one drill. Only the fields of its kind count; seconds may have a fraction
// (a rep of 2.5 s), the sums are rounded by the block.
type Dose struct {
	Kind Kind `json:"kind"`

	Sets          int     `json:"sets,omitempty"`           // reps, hold: 1 or more
	LeastSets     int     `json:"least_sets,omitempty"`     // reps, hold: how few will do, of "2–3 sets"; 0: not said
	Reps          int     `json:"reps,omitempty"`           // reps, hold: a set and side
	Sides         int     `json:"sides,omitempty"`          // reps, hold: 1 or 2
	RepSeconds    float64 `json:"rep_seconds,omitempty"`    // reps: the sum of the tempo
	HoldSeconds   float64 `json:"hold_seconds,omitempty"`   // hold
	SettleSeconds float64 `json:"settle_seconds,omitempty"` // hold: to take up the position
	RestSeconds   float64 `json:"rest_seconds,omitempty"`   // reps, hold: between sets

	Trips  int     `json:"trips,omitempty"`  // travel
	Metres float64 `json:"metres,omitempty"` // travel: one trip
	Speed  float64 `json:"speed,omitempty"`  // travel: m/s

	// Efforts are those of single trips, 0 to 1, where they differ; the last one
	// repeats. A trip takes Metres ÷ (effort × TopSpeed). A dose of another kind has
	// one, where somebody said it.
	Efforts  []float64 `json:"efforts,omitempty"`
	TopSpeed float64   `json:"top_speed,omitempty"` // travel with efforts: m/s at full effort

	TurnSeconds     float64 `json:"turn_seconds,omitempty"`     // travel: between trips
	IntervalSeconds float64 `json:"interval_seconds,omitempty"` // travel: between waves
	Flow            Flow    `json:"flow,omitempty"`             // travel

	Acts       int     `json:"acts,omitempty"`        // count: for each person
	Cells      int     `json:"cells,omitempty"`       // grid
	Tries      int     `json:"tries,omitempty"`       // grid: a cell
	ActSeconds float64 `json:"act_seconds,omitempty"` // count, grid

	Seconds int `json:"seconds,omitempty"` // time

	// How it was said.
	Directions int       `json:"directions,omitempty"` // reps, hold: 1 or 2; each side so often each way
	OwnSide    bool      `json:"own_side,omitempty"`   // reps, hold: on the side that a player uses
	Only       Way       `json:"only,omitempty"`       // with OwnSide: which one that is, of one player
	Parts      []Part    `json:"parts,omitempty"`      // reps, hold: named parts, each done Reps times or its own
	Tempo      []float64 `json:"tempo,omitempty"`      // reps: seconds down, held, up; their sum is a rep
	Breaths    int       `json:"breaths,omitempty"`    // hold: instead of seconds
	ByPair     bool      `json:"by_pair,omitempty"`    // count, grid: two do one act together
	Counts     [][]int   `json:"counts,omitempty"`     // grid: tries of each cell by row and column, 0: not wanted
	To         string    `json:"to,omitempty"`         // travel: the named line that each length goes to
	Share      string    `json:"share,omitempty"`      // travel: of the place's length, where that was said
	Legs       []Leg     `json:"legs,omitempty"`       // line
	Yards      bool      `json:"yards,omitempty"`      // lengths are said in yards; they are kept in metres
	Feet       bool      `json:"feet,omitempty"`       // or in feet

	// Exact: it is done as written, a protocol or a test: no factor of the day
	// touches it.
	Exact bool `json:"exact,omitempty"`
}

// Group is who shares a dose: so many people, in so many lanes or at so many
// stations at once.
type Group struct {
	People int            `json:"people"`
	Lanes  int            `json:"lanes"`
	Stock  map[string]int `json:"-"` // kit that was counted; nil: nothing was
	Sides  []Uses         `json:"-"` // which sides they use: who uses both takes twice as long on their own sides
	Shares []int          `json:"-"` // how many do each drill of a block of choice
}

// turns is how often a lane or station is used until everybody was there once.
func (g Group) turns() float64 {
	if g.People < 1 {
		return 0
	}
	return math.Ceil(float64(g.People) / float64(max(1, g.Lanes)))
}

// Work is the time that group needs for the dose, in seconds, by the formula of its kind. A dose
// of nothing takes no time.
func (d Dose) Work(group Group) float64 {
	if d.Amount() < 1 || group.People < 1 {
		return 0
	}
	switch d.Kind {
	case Reps:
		return float64(d.Units())*d.rep() + float64(d.Sets-1)*d.RestSeconds
	case Hold:
		return float64(d.Units())*(d.held()+d.SettleSeconds) + float64(d.Sets-1)*d.RestSeconds
	case Travel, Line:
		waves := (group.turns() - 1) * d.IntervalSeconds
		turns := float64(d.Trips-1) * d.TurnSeconds
		if d.Flow == Continuous {
			return d.moving() + turns + waves
		}
		return d.moving() + float64(d.Trips)*waves + turns
	case Count, Grid:
		if d.ByPair {
			group.People = (group.People + 1) / 2
		}
		return float64(d.Units()) * d.ActSeconds * group.turns()
	case Time:
		return float64(d.Seconds)
	}
	return 0
}

// moving is how many seconds one person moves on all trips.
func (d Dose) moving() (seconds float64) {
	if d.Kind == Line {
		return float64(d.Trips) * d.trip()
	}
	if len(d.Efforts) == 0 {
		return float64(d.Trips) * d.Metres / d.Speed
	}
	top := d.TopSpeed
	if top == 0 {
		top = TopSpeed[Club]
	}
	for trip := range d.Trips {
		seconds += d.Metres / (d.effort(trip) * top)
	}
	return seconds
}

// effort is that of a trip, counted from 0, where the dose has efforts.
func (d Dose) effort(trip int) float64 { return d.Efforts[min(trip, len(d.Efforts)-1)] }

// Amount is the one number of the dose that a coach turns up and down: reps,
// trips, acts, tries or seconds, by its kind.
func (d Dose) Amount() int {
	if field := d.amount(); field != nil {
		return *field
	}
	return 0
}

// WithAmount is the dose with that number set to n.
func (d Dose) WithAmount(n int) Dose {
	if field := d.amount(); field != nil {
		*field = n
	}
	return d
}

func (d *Dose) amount() *int {
	switch d.Kind {
	case Reps, Hold:
		return &d.Reps
	case Travel, Line:
		return &d.Trips
	case Count:
		return &d.Acts
	case Grid:
		return &d.Tries
	case Time:
		return &d.Seconds
	}
	return nil
}

// Units is how often the act of the drill is done by one person: all reps of all sets and sides,
// all trips, acts or tries. Plain time counts as one.
func (d Dose) Units() int {
	switch d.Kind {
	case Reps, Hold:
		return d.Sets * d.inParts() * max(1, d.Sides) * max(1, d.Directions)
	case Grid:
		return d.tries()
	case Time:
		return 1
	}
	return d.Amount()
}

// Validate says what is wrong with the dose, in one sentence, or nil.
func (d Dose) Validate() error {
	switch d.Kind {
	case Reps:
		return errors.Join(sets(d), d.said(), within("seconds a rep", d.rep(), 0.2, 120))
	case Hold:
		return errors.Join(sets(d), d.said(), within("seconds a hold", d.held(), 1, 300),
			within("seconds to settle", d.SettleSeconds, 0, 60))
	case Travel:
		if d.Flow != Regroup && d.Flow != Continuous {
			return fmt.Errorf("flow is %q: it must be regroup or continuous", d.Flow)
		}
		return errors.Join(within("metres a trip", d.Metres, 1, 500), d.pace(),
			within("seconds to turn", d.TurnSeconds, 0, 600),
			within("seconds between waves", d.IntervalSeconds, 0, 120))
	case Count:
		return within("seconds an act", d.ActSeconds, 0.2, 300)
	case Grid:
		return errors.Join(d.cells(), within("seconds an act", d.ActSeconds, 0.2, 300))
	case Line:
		return d.line()
	case Time:
		return nil
	}
	return fmt.Errorf("%q is not a kind of dose", d.Kind)
}

// pace says what is wrong with the speed or the efforts of a travel dose.
func (d Dose) pace() error {
	if len(d.Efforts) == 0 {
		return within("speed in m/s", d.Speed, 0.2, 12)
	}
	if len(d.Efforts) > MostEfforts {
		return fmt.Errorf("there are %d efforts at the most", MostEfforts)
	}
	for _, e := range d.Efforts {
		if err := within("the effort of a trip", e, 0.1, 1); err != nil {
			return err
		}
	}
	return within("top speed in m/s", d.TopSpeed, 1, 15)
}

// MostEfforts is how many trips may have an effort of their own.
const MostEfforts = 20

func sets(d Dose) error {
	return errors.Join(within("sets", float64(d.Sets), 1, 20),
		within("the least of sets", float64(d.LeastSets), 0, float64(max(0, d.Sets))),
		within("sides", float64(d.Sides), 1, 2), within("seconds of rest", d.RestSeconds, 0, 600))
}

func within(what string, value, low, high float64) error {
	if value >= low && value <= high { // false for NaN
		return nil
	}
	return fmt.Errorf("%s must lie between %g and %g", what, low, high)
}

// Counted tells whether the dose is one of reps or acts.
func (d Dose) Counted() bool {
	return d.Kind == Reps || d.Kind == Count || d.Kind == Grid || d.Kind == Hold && d.Reps > 1
}

// TakePace has the dose, where nobody gave it a pace of its own, last as one of the book does
// now, that was otherwise, and tells whether anything follows. How much is done stays.
func (d *Dose) TakePace(was, now Dose) (follows bool) {
	for _, pace := range [][3]*float64{
		{&d.RepSeconds, &was.RepSeconds, &now.RepSeconds}, {&d.SettleSeconds, &was.SettleSeconds, &now.SettleSeconds},
		{&d.Speed, &was.Speed, &now.Speed},
		{&d.TurnSeconds, &was.TurnSeconds, &now.TurnSeconds},
		{&d.IntervalSeconds, &was.IntervalSeconds, &now.IntervalSeconds},
		{&d.ActSeconds, &was.ActSeconds, &now.ActSeconds},
	} {
		if d.Kind == now.Kind && d.Tempo == nil && *pace[0] == *pace[1] && *pace[1] != *pace[2] {
			*pace[0], follows = *pace[2], true
		}
	}
	return follows
}
