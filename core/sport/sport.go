// Package sport knows what is particular to a sport: what its start is called, who plays, which
// joints it stresses, when each role is due, what the day holds, and the routines of its
// positions.
package sport

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/core/trial"
)

// Everyone, as who of a [Fixed], means the whole squad.
const Everyone = "everyone"

// Bench is the name of those who do not begin.
const Bench = plan.Bench

// Sport is one sport as a club plays it.
type Sport struct {
	Key      string `json:"key"`
	Name     string `json:"name"`
	Start    string `json:"start"`              // what its start is called: Kick-off
	Training string `json:"training,omitempty"` // what the start of a training is called; "": Training
	Ground   string `json:"ground"`             // pitch, court, ice, diamond or track
	Margin   int    `json:"margin"`             // minutes before the start at which work ends
	// the time of the season that it is now: pre-season, in season, finals; "": not said
	Season         string      `json:"season,omitempty"`
	measure.System             // what its lengths, air and wind are said in
	Offers         plan.Offers `json:"offers,omitempty"` // what the day's factors do to what a coach wrote
	Stresses       []string    `json:"stresses"`         // joints
	Positions      []string    `json:"positions"`
	Units          []Unit      `json:"units"`
	Due            []Due       `json:"due"`
	First          string      `json:"first,omitempty"` // what decides who is in action first
	Begins         plan.Turns  `json:"begins,omitzero"` // what it is called to begin first, and later
	Home           Side        `json:"home,omitzero"`
	Away           Side        `json:"away,omitzero"`
	Roles          []Role      `json:"roles,omitempty"` // of the day: the starter
	Fixed          []Fixed     `json:"fixed"`
	Zones          []Zone      `json:"zones"` // of a usual ground
	Craft          []Craft     `json:"craft"`
	Team           Craft       `json:"team"` // what all who begin do last

	Called map[string][]string `json:"called,omitempty"` // what its players call each position, beside its name
	Length float64             `json:"length,omitempty"` // of a usual ground, in metres
	Width  float64             `json:"width,omitempty"`  // of a usual ground, in metres
	Lap    float64             `json:"lap,omitempty"`    // once round it, in metres, where that is measured
	Lines  []Line              `json:"lines,omitempty"`  // of a usual ground
	// its other form: indoors where it is played outdoors, outdoors where it is played indoors
	Elsewhere []Zone       `json:"elsewhere,omitempty"`
	Shape     []string     `json:"shape,omitempty"`    // how its day usually goes, as headings of a list
	Kit       []Kit        `json:"kit,omitempty"`      // what a club of it usually has
	Act       string       `json:"act,omitempty"`      // what is counted of it: throws, kicks
	Measures  []trial.Test `json:"measures,omitempty"` // what is usually measured in it
	Targets   []Target     `json:"targets,omitempty"`  // of a week, to begin with
	Example   []string     `json:"example,omitempty"`  // lines as its coaches write them

	Principles []Principle `json:"principles,omitempty"` // what every warm-up must have; none: what is usual
}

// Kit is how much of one thing a club usually has.
type Kit struct {
	Name   string `json:"name"`
	Pieces int    `json:"pieces"`
}

// Principle is something that every warm-up of a club must have, in its words.
type Principle struct {
	Words string    `json:"words"`
	Kind  plan.Kind `json:"kind,omitempty"` // of which session; "": of all
}

// PrinciplesOf are those of a kind of session; nil where the club goes by what is usual.
func (s *Sport) PrinciplesOf(kind plan.Kind) (list []string) {
	for _, p := range s.Principles {
		if p.Kind == "" || p.Kind == kind {
			list = append(list, p.Words)
		}
	}
	return list
}

// Target is what a week should hold of something: of a joint, a quality or both, or of hard work.
type Target struct {
	Region  string `json:"region,omitempty"`
	Quality string `json:"quality,omitempty"`
	Hard    bool   `json:"hard,omitempty"`
	Days    int    `json:"days"`
	AtMost  bool   `json:"at_most,omitempty"`
}

// Unit is a set of positions that works together.
type Unit struct {
	Name      string   `json:"name"`
	Also      []string `json:"also,omitempty"` // what else it is called, such as OF for the outfield
	Positions []string `json:"positions"`
}

// Role is a role of the day: asked for when a session is made, and again on its board.
type Role struct {
	Name      string   `json:"name"`
	Positions []string `json:"positions,omitempty"` // who may have it; none: anybody
	Of        int      `json:"of,omitempty"`        // how many have it; 0: one
}

// Due is when a position or a unit has to be ready, in minutes from the start, before it
// negative: where it is in action first, and where its turn comes later.
type Due struct {
	Who   string `json:"who"`
	First int    `json:"first,omitempty"` // 0: as everybody
	Later int    `json:"later,omitempty"`
}

// Fixed is a thing that a match day usually holds, in minutes to go.
type Fixed struct {
	Name string `json:"name"`
	Who  string `json:"who"` // everyone, or a unit; another word, such as captain, is for the coach to fill in
	From int    `json:"from"`
	To   int    `json:"to"`
}

// Zone is a place of a usual ground.
type Zone struct {
	Name     string `json:"name"`
	Capacity int    `json:"capacity"`
	Lanes    int    `json:"lanes"`
	Metres   int    `json:"metres"`
	Surface  string `json:"surface"`
	Covered  bool   `json:"covered,omitempty"` // it is under a roof, which its surface does not tell
	After    bool   `json:"after,omitempty"`   // it is free after the start too
}

// RinkAir is the air in an ice rink, in °C.
const RinkAir = 8.0

// Plan is the zone as a plan has it, under an id: what has a floor is under a roof, and a
// rink is cold.
func (z Zone) Plan(id string) plan.Zone {
	zone := plan.Zone{ID: id, Name: z.Name, Capacity: z.Capacity, Lanes: z.Lanes, Metres: float64(z.Metres),
		Surface: z.Surface}
	zone.Covered = z.Covered || slices.Contains([]string{"wood", "hall", "rubber", "ice"}, z.Surface)
	if z.Surface == "ice" {
		air := RinkAir
		zone.Celsius = &air
	}
	return zone
}

// Craft is the routine of a position or unit.
type Craft struct {
	Name     string        `json:"name"`
	For      []string      `json:"for,omitempty"`   // units or positions; none: all who begin
	Phase    string        `json:"phase,omitempty"` // "": sport; own: outside the order
	Zone     string        `json:"zone,omitempty"`  // where the ground has one of that name
	Drills   []string      `json:"drills"`          // codes
	Priority plan.Priority `json:"priority"`
	On       plan.Turn     `json:"on,omitempty"`       // the days on which it is done; "": all
	Stations int           `json:"stations,omitempty"` // at once; 0: as many as the zone has lanes
}

// In is the phase that the routine belongs to.
func (c Craft) In() drill.Phase {
	switch c.Phase {
	case "":
		return drill.Sport
	case "own":
		return drill.Own
	}
	return drill.Phase(c.Phase)
}

// Position is the position of player n, from 0, of a squad that nobody has named: a
// single one, such as a keeper, for every eleven or so, the others in turn.
func (s *Sport) Position(n int) string {
	var single, others []string
	for _, p := range s.Positions {
		if slices.Contains(singles, strings.ToLower(p)) {
			single = append(single, p)
		} else {
			others = append(others, p)
		}
	}
	if len(single) == 0 || len(others) == 0 {
		return s.Positions[n%len(s.Positions)]
	}
	round := singleIn
	if at := n % round; at < len(single) {
		return single[at]
	}
	return others[(n-len(single)*(n/round+1))%len(others)]
}

// singles are positions of which a side has one; singleIn is in how many players one
// of each is reckoned with.
var singles = []string{"keeper", "goalkeeper", "goalie", "catcher", "setter", "libero"}

const singleIn = 11

// Bats tells whether the sport has a bat, which has a side of its own.
func (s *Sport) Bats() bool {
	return slices.Contains([]string{"baseball", "softball", "cricket"}, s.Key) ||
		slices.ContainsFunc(s.Kit, func(k Kit) bool { return k.Name == "bat" })
}

// HowMany is how many players have a role of the day; 0: any number.
func (s *Sport) HowMany(role string) int {
	if role == plan.Captain {
		return 1
	}
	for _, r := range s.Roles {
		if r.Name == role {
			return max(1, r.Of)
		}
	}
	return 0
}

// Has tells whether who is a position of the sport, one of its units, a role of the day,
// or the bench.
func (s *Sport) Has(who string) bool {
	return who == Bench || slices.ContainsFunc(s.Roles, func(r Role) bool { return r.Name == who }) ||
		slices.Contains(s.Positions, who) || slices.ContainsFunc(s.Units, func(u Unit) bool { return u.Name == who })
}

// OfMatch tells whether a thing of the day is one that only a match has: the toss, the
// line-up. A talk is held before training too.
func (s *Sport) OfMatch(name string) bool {
	return !strings.Contains(strings.ToLower(name), "talk") &&
		slices.ContainsFunc(s.Fixed, func(f Fixed) bool { return f.Name == name })
}

// Covers tells whether who, a position or a unit, includes the position.
func (s *Sport) Covers(who, position string) bool {
	return plan.Plays(position, who) || slices.ContainsFunc(s.Units,
		func(u Unit) bool { return u.Name == who && plan.PlaysOneOf(position, u.Positions) })
}

// Validate says what is wrong with the sport, a sentence a line, or nil. Known
// tells whether the drill book has a code.
func (s *Sport) Validate(known func(code string) bool) error {
	var wrong []error
	say := func(text string, args ...any) { wrong = append(wrong, fmt.Errorf(text, args...)) }
	if s.Key == "" || s.Name == "" || s.Start == "" || len(s.Positions) == 0 || len(s.Stresses) == 0 ||
		len(s.Zones) == 0 {
		say("a sport needs a key, a name, what its start is called, positions, stressed joints and a ground")
	}
	if s.Offers != plan.Ask && s.Offers != plan.Always && s.Offers != plan.Never {
		say("the day's factors ask, are always done or never, not %q", s.Offers)
	}
	for _, joint := range s.Stresses {
		if !slices.Contains(drill.Regions, joint) {
			say("%q is not a joint", joint)
		}
	}
	s.people(say)
	for _, d := range s.Due {
		if !s.Has(d.Who) || d.First < -60 || d.Later > 240 {
			say("due %q: it is nobody, or lies outside the day", d.Who)
		}
	}
	for _, f := range s.Fixed {
		if f.From <= f.To || f.To < 0 {
			say("%s ends before it starts", f.Name)
		}
	}
	for _, c := range append(slices.Clone(s.Craft), s.Team) {
		s.craft(c, known, say)
	}
	s.ground(say)
	if err := errors.Join(wrong...); err != nil {
		return fmt.Errorf("sport %s: %w", s.Key, err)
	}
	return nil
}

// people says what of its units and roles does not hold.
func (s *Sport) people(say func(text string, args ...any)) {
	for _, u := range s.Units {
		for _, p := range u.Positions {
			if !slices.Contains(s.Positions, p) {
				say("unit %s: %q is not a position", u.Name, p)
			}
		}
	}
	for _, r := range s.Roles {
		if r.Of < 0 || r.Of > 30 || plan.NameProblem(r.Name) != "" {
			say("role %q: it needs a name, and up to 30 players", r.Name)
		}
		for _, p := range r.Positions {
			if !slices.Contains(s.Positions, p) {
				say("role %s: %q is not a position", r.Name, p)
			}
		}
	}
}

// craft says what is wrong with the routine of a position.
func (s *Sport) craft(c Craft, known func(code string) bool, say func(text string, args ...any)) {
	if c.Name == "" {
		c.Name = "the routine without a name"
	}
	if len(c.Drills) == 0 {
		say("%s: pick at least one drill", c.Name)
	}
	if c.Priority.Weight() == 0 {
		say("%s: say whether it is a must, should or could", c.Name)
	}
	for _, who := range c.For {
		if !s.Has(who) {
			say("%s is for %q, who is nobody", c.Name, who)
		}
	}
	if c.Zone != "" && !slices.ContainsFunc(s.Zones, func(z Zone) bool { return z.Name == c.Zone }) {
		say("%s: there is no zone %q", c.Name, c.Zone)
	}
	for _, code := range c.Drills {
		if !known(code) {
			say("%s: there is no drill %q", c.Name, code)
		}
	}
}
