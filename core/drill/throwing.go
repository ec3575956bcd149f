package drill

import (
	"slices"
	"strings"
	"unicode"
)

// What throwing is called where it is sure, where it is when the arm goes above
// the head, and what it is not.
var (
	thrown = []string{"throw", "throws", "thrown", "throwing", "serve", "serves", "serving", "pitch", "pitches",
		"pitching", "bowl", "bowls", "bowling", "delivery", "deliveries", "smash", "smashes", "spike", "spikes", "hurl",
		"hurls", "javelin"}
	overhead = []string{"shot", "shots", "pass", "passes", "hit", "hits", "hitting", "attack", "attacks", "balls",
		"feeds", "acts", "overheads", "clears", "tries"}
	caught = []string{"catch", "catches", "blocks", "block", "lifts", "saves", "jumps", "claims", "underarm"}
)

// Throws tells whether acts of the drill are thrown or hit overarm. A catch above
// the head is no throw.
func (d Drill) Throws() bool {
	if d.Quiet() || d.ArmPump {
		return false
	}
	unit := words(d.Unit)
	has := func(of, list []string) bool {
		return slices.ContainsFunc(of, func(w string) bool { return slices.Contains(list, w) })
	}
	if has(unit, caught) || !acts(d) {
		return false
	}
	name := words(d.Name)
	if has(unit, thrown) || has(name, thrown) && !has(name, caught) {
		return true
	}
	return d.Overhead && (has(unit, overhead) || has(name, overhead))
}

// acts tells whether the drill is acts of a sport, by its dose or its phase.
func acts(d Drill) bool {
	return d.Turns() || len(d.Rungs) > 0 || slices.Contains(d.Qualities, "craft") || d.Serves(Sport) || d.Serves(Own)
}

func words(text string) []string {
	return strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return !unicode.IsLetter(r) })
}
