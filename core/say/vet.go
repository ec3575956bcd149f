package say

import (
	"slices"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/pattern"
)

// notMinutes puts right what was taken for minutes to go in a line that says how much of a drill: where something is done
// from, "hitting from 4 then 2"; after how many of it, "change way after 2"; how hard, "40 m @ 80".
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
	if m := atShare.FindStringSubmatch(text); m != nil && l.At != nil && l.Dose != nil && l.Dose.Kind == drill.Travel && l.Dose.Metres > 0 {
		if share, _ := strconv.Atoi(m[1]); *l.At == -60*share {
			l.At, l.Dose.Effort = nil, float64(share)/100
		}
	}
}

// bareFrom is a number behind from or after, without minutes or anything else of the clock, and another that is joined to it.
var bareFrom = pattern.Must(`(?i)\b((?:[a-z]+ [a-z]+ )?(?:from|after) (\d{1,2}))((?:,? (?:and|then|&|or) \d{1,2})*)(?:[ ,.;)]|$)(?:points?|paces?|steps?)?`)

// minutesFrom is a number behind from or after of which the line says that they are minutes: "from 8 min".
var minutesFrom = pattern.Must(`(?i)\b(?:from|after) \d{1,2} ?(?:min|m\b|to go|out|before|'|′)`)

// atShare is a share of full effort, behind a sign or without per cent: "@ 80".
var atShare = pattern.Must(`@ ?((?:[5-9][05])|100)(?: ?[,.)]|$)`)

// ofSpot tells whether from so many, which was taken for from seconds, is a spot or a count: another spot is said with it, or
// it is so few as nobody opens a drill at.
func ofSpot(m []string, from int) bool {
	const fewest = 10
	n, _ := strconv.Atoi(m[2])
	return from == -60*n && (m[3] != "" || n < fewest)
}
