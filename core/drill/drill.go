// Package drill knows what a drill is: what it is for, how it is dosed, how long a dose takes a
// group, and what load it leaves in each player.
package drill

import (
	"cmp"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
)

// Drill is one exercise as a coach knows it. A plan carries its drills whole, so that it stands
// by itself.
type Drill struct {
	Code     string         `json:"code"`
	Name     string         `json:"name"`
	Also     []string       `json:"also,omitempty"` // what else coaches call it
	Aim      string         `json:"aim"`            // why it is there, in one line
	Phases   []Phase        `json:"phases"`
	Dose     Dose           `json:"dose"`
	Range    Range          `json:"range"`
	Unit     string         `json:"unit,omitempty"` // what is counted: lengths, throws, kicks
	Effort   float64        `json:"effort"`         // 0 to 1
	Ground   bool           `json:"ground,omitempty"`
	Kit      []string       `json:"kit,omitempty"`       // what each player carries out
	LaneKit  []string       `json:"lane_kit,omitempty"`  // what stands in each lane or at each station
	PerLane  map[string]int `json:"per_lane,omitempty"`  // how many pieces of it, where that is not one
	GroupKit []string       `json:"group_kit,omitempty"` // what the group has one of
	Space    Space          `json:"space,omitzero"`
	Cues     []string       `json:"cues,omitempty"`
	Faults   []string       `json:"faults,omitempty"` // what to look for
	Caution  string         `json:"caution,omitempty"`
	Least    Grade          `json:"least,omitempty"` // the least level that it suits
	// times of the season it is for: pre-season, finals; none: all year
	Seasons []string `json:"seasons,omitempty"`
	Sports  []string `json:"sports,omitempty"` // keys of the sports it belongs to; none: any

	// What the checks go by.
	Static    bool     `json:"static,omitempty"`     // held still, to stretch
	NeedsWarm bool     `json:"needs_warm,omitempty"` // deep, or near full effort
	EndRange  bool     `json:"end_range,omitempty"`  // stretches to the end of the range
	OneSided  bool     `json:"one_sided,omitempty"`  // works one side at a time
	ArmPump   bool     `json:"arm_pump,omitempty"`   // tires the throwing arm
	Overhead  bool     `json:"overhead,omitempty"`   // hands above the head: throws, catches
	Collision bool     `json:"collision,omitempty"`  // body contact at full effort
	Regions   []string `json:"regions,omitempty"`    // of Regions
	Planes    []string `json:"planes,omitempty"`     // of Planes
	Qualities []string `json:"qualities,omitempty"`  // of Qualities

	// Easier, Harder and Swap are codes of drills that stand in for this one.
	// Where a restriction asks for less, Easier does, or else Swap.
	Easier string `json:"easier,omitempty"`
	Harder string `json:"harder,omitempty"`
	Swap   string `json:"swap,omitempty"`

	// Together: the group does each act as one (a line-out, a scrum), so that
	// nobody waits for a turn.
	Together bool `json:"together,omitempty"`

	// Rows and Columns name the cells of a grid, Rungs the steps of a distance
	// ladder, over which the acts are spread.
	Rows    []string `json:"rows,omitempty"`
	Columns []string `json:"columns,omitempty"`
	Rungs   []Rung   `json:"rungs,omitempty"`

	// ContactsPerUnit is the number of ground contacts of one rep, trip or act.
	ContactsPerUnit float64 `json:"contacts_per_unit,omitempty"`
}

// Clone is a deep copy of the drill.
func (d Drill) Clone() Drill {
	for _, list := range []*[]string{&d.Also, &d.Kit, &d.LaneKit, &d.GroupKit, &d.Cues, &d.Faults, &d.Sports,
		&d.Seasons, &d.Regions, &d.Planes, &d.Qualities, &d.Rows, &d.Columns} {
		*list = slices.Clone(*list)
	}
	d.Phases, d.Rungs, d.Dose, d.PerLane = slices.Clone(d.Phases), slices.Clone(d.Rungs), d.Dose.clone(),
		maps.Clone(d.PerLane)
	return d
}

// Space is the ground that a lane of the drill takes, or one person where it is
// done on the spot, in metres.
type Space struct {
	Length float64 `json:"length"` // 0: on the spot
	Width  float64 `json:"width"`
}

// What a drill works, in the words that coaches sort by.
var (
	Regions   = []string{"ankle", "knee", "hip", "back", "shoulder", "elbow", "wrist", "neck"}
	Planes    = []string{"front", "side", "turn"}
	Qualities = []string{"pulse", "coordination", "rhythm", "game", "control", "strength", "stability", "range",
		"tissue", "hold",
		"jump", "landing", "sprint", "acceleration", "change", "reaction", "craft", "calm"}
)

// Validate says what is wrong with the drill, a sentence a line, or nil.
func (d Drill) Validate() error {
	var problems []error
	if d.Code == "" || strings.TrimSpace(d.Name) == "" {
		problems = append(problems, errors.New("a drill needs a code and a name"))
	}
	if strings.TrimSpace(d.Aim) == "" {
		problems = append(problems, errors.New("a drill needs an aim in one line"))
	}
	problems = append(problems, d.For(Club).Dose.Validate(), d.Range.Validate(), within("effort", d.Effort, 0, 1),
		known("region", d.Regions, Regions), known("plane", d.Planes, Planes), known("quality", d.Qualities, Qualities))
	if n := len(d.Rows) * len(d.Columns); n > 0 && d.Dose.Kind == Grid && n != d.Dose.Cells {
		problems = append(problems, fmt.Errorf("%d rows and %d columns make %d cells, not %d", len(d.Rows),
			len(d.Columns), n, d.Dose.Cells))
	}
	for i, r := range d.Rungs {
		if !(r.Metres > 0 && r.Metres <= 200) || !(r.Effort >= 0 && r.Effort <= 1) ||
			i > 0 && (r.Metres < d.Rungs[i-1].Metres && r.Effort < d.Rungs[i-1].Effort) {
			problems = append(problems,
				errors.New("a distance ladder grows, in steps of 1 to 200 m and 0 to 100 per cent"))
			break
		}
	}
	if err := errors.Join(problems...); err != nil {
		return fmt.Errorf("%s: %w", cmp.Or(strings.TrimSpace(d.Name), d.Code), err)
	}
	return nil
}

func known(what string, words, all []string) error {
	for _, w := range words {
		if !slices.Contains(all, w) {
			return fmt.Errorf("%q is not a %s: they are %s", w, what, strings.Join(all, ", "))
		}
	}
	return nil
}

// Grade is the level of a squad.
type Grade string

// The grades.
const (
	Junior Grade = "junior"
	Club   Grade = "club"
	Elite  Grade = "elite"
)

// Grades lists them, the least first.
var Grades = []Grade{Junior, Club, Elite}

var gradeNames = map[Grade]string{Junior: "juniors", Club: "club", Elite: "elite"}

// Name is the grade as a coach says it; "" where there is no such grade.
func (g Grade) Name() string { return gradeNames[g] }

// Suits tells whether a squad of that grade ("" is club) may do the drill.
func (d Drill) Suits(grade Grade) bool {
	if grade == "" {
		grade = Club
	}
	return slices.Index(Grades, d.Least) <= slices.Index(Grades, grade)
}

// TopSpeed is the running speed in m/s that full effort means for a grade; a
// coach's estimate for planning, not a test.
var TopSpeed = map[Grade]float64{Junior: 6.5, Club: 7.5, Elite: 8.5}

// For is the drill as a squad of that grade does it: a travel dose without a
// speed of its own gets effort times the grade's top speed. What else it is called
// stays in the book.
func (d Drill) For(grade Grade) Drill {
	d.Also = nil
	top, known := TopSpeed[grade]
	if !known {
		top = TopSpeed[Club]
	}
	switch steps := len(d.Dose.Efforts) > 0; {
	case steps && d.Dose.Kind == Travel && d.Dose.TopSpeed == 0:
		d.Dose.TopSpeed = top
	case !steps && d.Dose.Kind == Travel && d.Dose.Speed == 0:
		d.Dose.Speed = d.Effort * top
	}
	return d
}

// Serves tells whether the drill belongs in the phase.
func (d Drill) Serves(phase Phase) bool {
	return slices.Contains(d.Phases, phase)
}

// Work is the time in seconds that group needs for amount of the drill.
func (d Drill) Work(amount int, group Group) float64 {
	if d.Together {
		group.People = min(group.People, 1)
	}
	group.Lanes = d.LanesIn(group)
	if d.Dose.OwnSide && slices.ContainsFunc(group.Sides, func(u Uses) bool { return u.of(d) == Both }) {
		d.Dose.Sides = 2
	}
	return d.Dose.WithAmount(amount).Work(group)
}
