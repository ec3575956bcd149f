package drill

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/pattern"
	"cuestart/core/speech"
)

// BreathSeconds is how long a breath of a hold takes, in and out.
const BreathSeconds = 4

// Part is a named part of a drill: forward, left, low.
type Part struct {
	Name string `json:"name"`
	Reps int    `json:"reps,omitempty"` // 0: as often as the dose says
}

// Leg is a drill on the way of a [Line].
type Leg struct {
	Name   string  `json:"name"`
	Code   string  `json:"code,omitempty"`
	Metres float64 `json:"metres"`
	Speed  float64 `json:"speed"` // m/s
	Back   bool    `json:"back,omitempty"`
}

func (d Dose) clone() Dose {
	d.Efforts, d.Parts, d.Tempo, d.Legs = slices.Clone(d.Efforts), slices.Clone(d.Parts), slices.Clone(d.Tempo),
		slices.Clone(d.Legs)
	d.Counts = slices.Clone(d.Counts)
	for i := range d.Counts {
		d.Counts[i] = slices.Clone(d.Counts[i])
	}
	return d
}

// Uses is which sides somebody uses: the hand that throws, the foot that kicks, the side of the
// bat, where that is not the hand's.
type Uses struct{ Hand, Foot, Bats Way }

// of is the side that a drill's own side is for them.
func (u Uses) of(d Drill) Way {
	switch {
	case d.Batted() && u.Bats != "":
		return u.Bats
	case d.Handed():
		return u.Hand
	}
	return u.Foot
}

// batWords tell that something is done with a bat.
var batWords = pattern.Must(`(?i)\b(?:bat|bats|batting|batter|swings?|tee|soft toss|hitting|bunts?|slap)\b`)

// Batted tells whether a drill's own side is the side of the bat.
func (d Drill) Batted() bool {
	return d.Handed() && (batWords.MatchString(d.Name) || slices.Contains(d.Kit, "bat"))
}

// Handed tells whether a drill's own side is a hand, rather than a foot.
func (d Drill) Handed() bool {
	return d.Overhead || slices.ContainsFunc([]string{"shoulder", "elbow", "wrist"},
		func(joint string) bool { return slices.Contains(d.Regions, joint) })
}

// Own is the drill as a player does it who uses those sides: on their own side, or
// on both where they use both.
func (d Drill) Own(uses Uses) Drill {
	if !d.Dose.OwnSide {
		return d
	}
	switch side := uses.of(d); side {
	case Left, Right:
		d.Dose.Only = side
	case Both:
		d.Dose.OwnSide, d.Dose.Sides = false, 2
	}
	return d
}

// rep is the seconds of a rep: the sum of its tempo, where it has one.
func (d Dose) rep() (seconds float64) {
	for _, s := range d.Tempo {
		seconds += s
	}
	if seconds > 0 {
		return seconds
	}
	return d.RepSeconds
}

// held is the seconds of a hold.
func (d Dose) held() float64 {
	if d.Breaths > 0 {
		return float64(d.Breaths * BreathSeconds)
	}
	return d.HoldSeconds
}

// inParts is the reps of a set and side, over all parts. Those with a number of their
// own have their share of it when the dose is turned.
func (d Dose) inParts() (reps int) {
	if len(d.Parts) == 0 {
		return d.Reps
	}
	most := d.mostReps()
	for _, p := range d.Parts {
		if p.Reps == 0 || most == 0 {
			reps += d.Reps
		} else {
			reps += scaled(p.Reps, d.Reps, most)
		}
	}
	return reps
}

func (d Dose) mostReps() (most int) {
	for _, p := range d.Parts {
		most = max(most, p.Reps)
	}
	return most
}

// scaled is a number w of a target, at an amount of it: at least one.
func scaled(w, amount, target int) int {
	return max(1, int(math.Floor(float64(w*amount)/float64(target)+0.5)))
}

// tries are all tries of a grid.
func (d Dose) tries() (n int) {
	most := d.mostTries()
	if most == 0 {
		return d.Cells * d.Tries
	}
	for _, row := range d.Counts {
		for _, w := range row {
			if w > 0 {
				n += scaled(w, d.Tries, most)
			}
		}
	}
	return n
}

func (d Dose) mostTries() (most int) {
	for _, row := range d.Counts {
		for _, w := range row {
			most = max(most, w)
		}
	}
	return most
}

// trip is the seconds of one trip of a line, with the turn where there is a way back.
func (d Dose) trip() (seconds float64) {
	back := false
	for _, leg := range d.Legs {
		seconds += leg.Metres / leg.Speed
		back = back || leg.Back
	}
	if back {
		seconds += d.TurnSeconds
	}
	return seconds
}

// Reach is how far out a line leads, in metres, or its way back where that is longer.
func (d Dose) Reach() float64 {
	out, back := 0.0, 0.0
	for _, leg := range d.Legs {
		if leg.Back {
			back += leg.Metres
		} else {
			out += leg.Metres
		}
	}
	return math.Max(out, back)
}

// said checks what belongs to how a dose of reps or holds was said.
func (d Dose) said() error {
	if len(d.Parts) > 12 || len(d.Tempo) > 4 || d.Breaths < 0 || d.Breaths > 50 || d.Directions < 0 ||
		d.Directions > 2 {
		return errors.New("a dose has at most 12 parts, 2 directions, 4 numbers of tempo and 50 breaths")
	}
	for _, p := range d.Parts {
		if strings.TrimSpace(p.Name) == "" || len(p.Name) > 80 || p.Reps < 0 || p.Reps > 100 {
			return errors.New("a part has a name and up to 100 reps")
		}
	}
	return nil
}

// cells checks the cells of a grid.
func (d Dose) cells() error {
	if len(d.Counts) == 0 {
		return within("cells", float64(d.Cells), 1, 100)
	}
	n := 0
	for _, row := range d.Counts {
		for _, w := range row {
			if n++; w < 0 || w > 100 {
				return errors.New("a cell is tried up to 100 times")
			}
		}
	}
	if n > 100 || d.mostTries() == 0 {
		return errors.New("a grid has between 1 and 100 cells, and one of them is tried")
	}
	return nil
}

// line checks the legs of a line.
func (d Dose) line() error {
	if len(d.Legs) == 0 || len(d.Legs) > 12 {
		return errors.New("a line has between 1 and 12 legs")
	}
	for _, leg := range d.Legs {
		if err := errors.Join(within("metres of a leg", leg.Metres, 1, 500),
			within("speed of a leg in m/s", leg.Speed, 0.2, 12)); err != nil {
			return err
		}
	}
	if d.Flow != Regroup && d.Flow != Continuous {
		return fmt.Errorf("flow is %q: it must be regroup or continuous", d.Flow)
	}
	return errors.Join(within("seconds to turn", d.TurnSeconds, 0, 600),
		within("seconds between waves", d.IntervalSeconds, 0, 120))
}

// sideWords say on which sides and in which directions: " a side", " each way, a side".
func (d Dose) sideWords(say speech.Say) string {
	words := ""
	if d.Directions == 2 {
		words = say(" each way")
	}
	switch {
	case d.OwnSide && d.Only == Left:
		words += say(", left")
	case d.OwnSide && d.Only == Right:
		words += say(", right")
	case d.OwnSide:
		words += say(", own side")
	case d.Sides == 2 && words != "":
		words += say(", a side")
	case d.Sides == 2:
		words = say(" a side")
	}
	return words
}

// PartWords name the parts: ", forward / left / right".
func (d Dose) PartWords() string {
	if len(d.Parts) == 0 {
		return ""
	}
	names := make([]string, len(d.Parts))
	for i, p := range d.Parts {
		names[i] = p.Name
		if p.Reps > 0 {
			names[i] = fmt.Sprintf("%d %s", p.Reps, p.Name)
		}
	}
	return ", " + strings.Join(names, " / ")
}

// TempoWords are the seconds of a rep: ", 3-1-3".
func (d Dose) TempoWords() string {
	if len(d.Tempo) == 0 {
		return ""
	}
	parts := make([]string, len(d.Tempo))
	for i, s := range d.Tempo {
		parts[i] = fmt.Sprintf("%g", s)
	}
	return ", " + strings.Join(parts, "-")
}

// legWords say a line: "out with high knees, back with heel kicks, 18 m", each leg with
// its own metres where these differ.
func (d Dose) legWords(say speech.Say) string {
	var out, back []string
	same := !slices.ContainsFunc(d.Legs, func(l Leg) bool { return l.Metres != d.Legs[0].Metres })
	for _, leg := range d.Legs {
		name := leg.Name
		if !same {
			name += " " + d.Length(leg.Metres)
		}
		if leg.Back {
			back = append(back, name)
		} else {
			out = append(out, name)
		}
	}
	then := say(" then ")
	words := say("out with %s", strings.Join(out, then))
	if len(back) > 0 {
		words += say(", back with %s", strings.Join(back, then))
	}
	if !same {
		return words
	}
	return words + ", " + d.Length(d.Legs[0].Metres)
}

// countWords say a grid with a number for each cell: "5 front, 5 middle, 3 back".
func (d Drill) countWords(amount int) string {
	var cells []string
	most := d.Dose.mostTries()
	for i, row := range d.Dose.Counts {
		for j, w := range row {
			if w == 0 {
				continue
			}
			var name []string
			if i < len(d.Rows) {
				name = append(name, d.Rows[i])
			}
			if j < len(d.Columns) {
				name = append(name, d.Columns[j])
			}
			cells = append(cells, fmt.Sprintf("%d %s", scaled(w, amount, most), strings.Join(name, " ")))
		}
	}
	return strings.Join(cells, ", ")
}
