package say

import (
	"slices"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/pattern"
)

// notMinutes puts right what was taken for minutes to go in a line that says how much of a drill:
// where something is done from, "hitting from 4 then 2"; after how many of it, "change way after
// 2"; how hard, "40 m @ 80".
func (l *Line) notMinutes(text string) {
	if l.Is != IsDrill && l.Is != IsCombo && l.Is != IsChoice {
		return
	}
	if w := l.Window; w != nil && w[0] != nil && w[1] == nil && (l.Dose != nil || l.Is == IsCombo) {
		if m := bareFrom.FindStringSubmatch(text); m != nil && !minutesFrom.MatchString(text) && ofSpot(m, *w[0]) {
			l.Window = nil
			l.Cues = slices.DeleteFunc(l.Cues, func(cue string) bool { return strings.Contains(m[0], cue) })
			l.Cues = append(l.Cues, strings.Trim(m[1]+m[3], " ,"))
		}
	}
	if m := eachTo.FindStringSubmatch(text); m != nil && l.Window != nil && l.Is == IsDrill {
		l.Window, l.Note = nil, ""
		l.Dose = &Dose{Kind: drill.Reps, Sets: 1, Reps: number(m[2]) + number(m[3]), Sides: 1}
		l.Cues = append(slices.DeleteFunc(l.Cues, func(cue string) bool { return strings.Contains(m[1], cue) }), m[1])
	}
	if m := atThings.FindStringSubmatch(text); m != nil && l.At != nil && *l.At == -60*number(m[2]) {
		l.At, l.Name = nil, strings.TrimSpace(strings.TrimSuffix(l.Name, m[3]))
		l.Cues = append(slices.DeleteFunc(l.Cues, func(cue string) bool { return cue == m[3] }), m[1])
	}
	if m := atShare.FindStringSubmatch(text); m != nil && l.At != nil && l.Dose != nil && l.Dose.Kind == drill.Travel &&
		l.Dose.Metres > 0 {
		if share, _ := strconv.Atoi(m[1]); *l.At == -60*share {
			l.At, l.Dose.Effort = nil, float64(share)/100
		}
	}
}

// farMost is more than anybody runs lengths: "jog 800" is how far.
const farMost = 100

// farAs takes a number of lengths that nobody runs for metres.
func (l *Line) farAs() {
	if d := l.Dose; d != nil && d.Kind == drill.Travel && d.Trips >= farMost && d.Metres == 0 && d.Laps == 0 &&
		d.Sides == nil {
		d.Metres, d.Trips = float64(d.Trips), 1
	}
}

// eachTo is so many to one position or person, and so many to another: "20 sets to 4, 20 to 2".
var eachTo = pattern.Must(`(?i)\b((\d{1,2})(?: [a-z]+)? to \d,? (?:and |then )?(\d{1,2}) to \d)\b`)

// inTurn counts what is done with one side after the other as it was counted: both sides are in it.
func (l *Line) inTurn(text string) {
	d := l.Dose
	if d == nil || d.SaidSides != 2 || !alternating.MatchString(text) || eachSaid.MatchString(text) {
		return
	}
	d.SaidSides, d.Sides = 0, 1
	if d.Kind == drill.Hold && d.Reps == 1 && d.Breaths == 0 && !d.held {
		*d = Dose{Kind: drill.Time, Seconds: int(d.HoldSeconds), RestSeconds: d.RestSeconds}
	}
}

var (
	alternating = pattern.Must(`(?i)\balternat(?:e|es|ing|ely)\b`)
	eachSaid    = pattern.Must(`(?i)\b(?:each|ea|e/s|per|both|a (?:side|leg|arm|hand|foot))\b`)
)

// atThings are things to aim at, or to be at, so many of them: "shots at 3 targets", "touch the rope at 4 spots".
var atThings = pattern.Must(`(?i)\b(at (\d{1,2}) (?:different )?(spots|targets|cones|gates|markers|poles|sticks|hoops|posts|baskets|corners|points|places|positions|angles|stumps|bases|flags|nets|goals|defenders|balls))\b`)

// bareFrom is a number behind from or after, without minutes or anything else of the clock, and
// another that is joined to it.
var bareFrom = pattern.Must(`(?i)\b((?:[a-z]+ [a-z]+ )?(?:from|after) (\d{1,2}))((?:,? (?:and|then|&|or) \d{1,2})*)(?:[ ,.;)]|$)(?:points?|paces?|steps?)?`)

// minutesFrom is a number behind from or after of which the line says that they are minutes: "from 8 min".
var minutesFrom = pattern.Must(`(?i)\b(?:from|after) \d{1,2} ?(?:min|m\b|to go|out|before|'|′)`)

// atShare is a share of full effort, behind a sign or without per cent: "@ 80".
var atShare = pattern.Must(`@ ?((?:[5-9][05])|100)(?: ?[,.)]|$)`)

// ofSpot tells whether from so many, which was taken for from seconds, is a spot or a count:
// another spot is said with it, or it is so few as nobody opens a drill at.
func ofSpot(m []string, from int) bool {
	const fewest = 10
	n, _ := strconv.Atoi(m[2])
	return from == -60*n && (m[3] != "" || n < fewest)
}

// onlyPhase is a phase and how long it lasts, or where, with nothing that is done in it: "2 - ACTIVATE (mats, 6 mins)".
var onlyPhase = pattern.Must(`(?i)^(?:\d{1,2} ?[-.)–—] ?)?(raise|activate|activation|mobilise|mobilize|mobility|potentiate|potentiation)((?: ?\([^)x×]*\)|,? ~?\d{1,2} ?(?:m|mins?|minutes)\b\.?)+)$`)
