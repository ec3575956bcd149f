package say

import (
	"strconv"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

// Near is how a line could be meant as well as it was taken, and the line that says so.
type Near struct{ Answer, Line string }

// number of a line with nothing behind it that says what it counts.
var bareOf = pattern.Must(`(\d+)(?: ?(?:each|ea|a|per|e/s|l/r|/)\b.*)?$`)

// held are names of what nobody does ten times: a bare number of it is seconds.
var held = Spaced(`\b(?:planks?|wall~sits?|hang|iso|stretch|hold|pigeon)$`)

// ridden are what is done for minutes: a bare number of it is those.
var ridden = Spaced(`\b(?:bike|exercise~bike|rower|erg|ergs|treadmill|cross~trainer)$`)

// seconds takes a bare number of what is held for seconds: "wall sit 45", "plank 3 x 20".
func (l *Line) seconds(text string) {
	d := l.Dose
	if l.Is == IsDrill && d != nil && d.Kind == drill.Reps && d.Sets <= 1 && d.Reps >= 2 && d.Reps <= 20 &&
		ridden.MatchString(l.Name) && l.bare(text) != nil {
		d.Kind, d.Seconds, d.Reps, d.Sets, d.Sides = drill.Time, 60*d.Reps, 0, 0, nil
		return
	}
	if l.Is != IsDrill || d == nil || d.Kind != drill.Reps || d.Reps < 10 || d.Directions > 1 || l.bare(text) == nil ||
		!held.MatchString(l.Name) {
		return
	}
	d.Kind, d.HoldSeconds, d.Reps, d.Sets = drill.Hold, float64(d.Reps), max(1, d.Sets), 1
}

// bare is where the number of a line stands that says not what it counts, as a match of bareOf; nil where
// there is none.
func (l *Line) bare(text string) []int {
	d := l.Dose
	if d == nil || d.Breaths > 0 || len(d.Parts) > 0 || d.Tempo != nil || d.Kind == drill.Reps && d.HoldSeconds > 0 {
		return nil
	}
	at := bareOf.FindStringSubmatchIndex(text)
	if at == nil {
		return nil
	}
	if n := text[at[2]:at[3]]; n != strconv.Itoa(d.Reps) && n != strconv.Itoa(int(d.HoldSeconds)) &&
		!(d.Kind == drill.Time && n == strconv.Itoa(d.Seconds/60)) {
		return nil
	}
	return at
}

// NearOf are the two readings of a line whose number may be seconds or times, metres or times: of what is
// held, of what goes somewhere. Nil where the line says which.
func NearOf(l *Line, text string) []Near {
	at := l.bare(text)
	if l.Is != IsDrill || at == nil {
		return nil
	}
	d, n, with := l.Dose, text[at[2]:at[3]], func(unit string) string { return text[:at[3]] + unit + text[at[3]:] }
	u, moves := movement.Of(l.Name)
	switch {
	case d.Kind == drill.Time && ridden.MatchString(l.Name):
		return []Near{{n + " min", with(" min")}, {n + " times", with(" reps")}}
	case (d.Kind == drill.Reps || d.Kind == drill.Hold) && held.MatchString(l.Name) && n != "1":
		return []Near{{n + " s held", with(" s")}, {n + " times", with(" reps")}}
	case d.Kind == drill.Reps && moves && u.Travels && d.Reps >= 10 && d.Sets <= 1:
		return []Near{{n + " m", with(" m")}, {n + " times", with(" reps")}}
	}
	return nil
}
