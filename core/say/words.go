package say

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/pattern"
	"cuestart/core/plan"
)

// The words that lines are read by. English; another language is another table.

// phaseNames are the names of each phase, small.
var phaseNames = map[string][]string{
	"raise":    {"raise", "raising", "pulse", "pulse raiser", "pulse raise", "warm", "general warm up"},
	"activate": {"activate", "activation", "activating"},
	"mobilise": {"mobilise", "mobilize", "mobility", "mobilisation", "mobilization", "mobilising",
		"dynamic mobility"},
	"potentiate": {"potentiate", "potentiation", "potentiating", "prime", "priming"},
	"sport":      {"sport", "sport craft", "craft", "skills", "skill", "position work", "positions"},
	"own":        {"own time", "own", "alone time"},
	"after":      {"after", "afterwards", "cool down", "cooldown", "after the session"},
}

// eventNames are things of the day that are fixed, if they have a span.
var eventNames = []string{"talk", "team talk", "briefing", "ref briefing", "referee", "ref", "officials", "toss",
	"coin toss", "anthem", "anthems", "line up", "lineup", "line-up",
	"presentation", "taping", "arrival", "arrive", "kit check", "kit on", "equipment check", "photo", "team photo",
	"meeting", "kit", "check", "strip on",
	"charla", "sorteo", "agua", "hidratación", "himno", "himnos", "foto", "presentación", "vestidor", "vestuario"}

// everyoneNames mean the whole squad.
var everyoneNames = []string{"everyone", "everybody", "all", "all players", "whole squad", "the whole squad", "squad",
	"the squad", "whole team", "the team", "all together", "together", "us all"}

// actNames are sport acts, as they are counted.
var actNames = []string{"throws", "kicks", "catches", "passes", "shots", "serves", "punts", "swings", "pitches",
	"feeds", "saves", "volleys", "overheads", "smashes", "spikes", "digs", "sets", "headers",
	"crosses", "lifts", "scrums", "line-outs", "lineouts", "balls", "high balls", "deliveries", "frees", "strikes",
	"hits", "touches", "draws", "starts", "receptions", "tackles", "blocks", "dives", "corners", "penalties",
	"releases", "lay-ups", "layups", "restarts", "grubbers", "conversions", "acts", "tries", "offs", "outs"}

// unitWords are counted too, and are no part of a name that stands before them.
var repWords = `reps?|repetitions?|times|steps?|jumps?|hops?|contacts?|bounces?|turns?|strokes?|swings|goes`

// placeNames are words for places, sides and ways, which are parts of a drill.
var placeNames = strings.Fields("left right front back middle centre center near far low high short long wide " +
	"narrow inside outside in out up down forward forwards backward backwards sideways across top bottom first " +
	"second third near-post far-post forehand backhand body behind overhead round open closed line cross turn chin")

// isPlace tells whether a text is nothing but places, sides and ways.
func isPlace(text string) bool {
	list := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return r == ' ' || r == '\x01' })
	for _, w := range list {
		if !slices.Contains(placeNames, w) && w != "and" && w != "the" {
			return false
		}
	}
	return len(list) > 0
}

var smallNumbers = map[string]int{"one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7,
	"eight": 8, "nine": 9, "ten": 10, "eleven": 11, "twelve": 12,
	"thirteen": 13, "fourteen": 14, "fifteen": 15, "sixteen": 16, "seventeen": 17, "eighteen": 18, "nineteen": 19,
	"twenty": 20, "thirty": 30, "forty": 40, "forty-five": 45, "fifty": 50, "sixty": 60, "ninety": 90}

var countWords = strings.Fields("two three four five six seven eight nine ten twelve fifteen twenty")

// num is a number in digits or words, as one group.
const num = `(\d{1,4}|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen|sixteen|seventeen|eighteen|nineteen|twenty|thirty|forty-five|forty|fifty|sixty|ninety)`

// dec is a number that may have a fraction.
const dec = `(\d{1,4}(?:[.,]\d{1,2})?|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|fifteen|twenty|thirty|forty-five|forty|sixty|ninety)`

func number(text string) int {
	text = strings.ToLower(strings.TrimSpace(text))
	if n, ok := smallNumbers[text]; ok {
		return n
	}
	n, _ := strconv.Atoi(text)
	return n
}

func decimal(text string) float64 {
	if n, ok := smallNumbers[strings.ToLower(strings.TrimSpace(text))]; ok {
		return float64(n)
	}
	f, _ := strconv.ParseFloat(strings.ReplaceAll(strings.TrimSpace(text), ",", "."), 64)
	return f
}

// times is how often "once", "twice", "3 times" or "4x" mean; 0 for anything else.
func times(text string) int {
	switch text = strings.ToLower(strings.TrimSpace(text)); text {
	case "once":
		return 1
	case "twice":
		return 2
	}
	return number(strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(text, "times"), "x")))
}

// Spaced compiles a pattern whose spaces match one or more, in any case.
func Spaced(text string) *pattern.Pattern {
	return pattern.Must(`(?i)` + strings.ReplaceAll(text, "~", `[ \x01]*`))
}

var yardsOf, feetOf, inMetresOf = Spaced(`\b` + dec + `~(?:yards?|yds?)\b`),
	pattern.Must(`(?i)\b(\d+(?:\.\d+)?) ?(?:ft|feet)\b`), Spaced(`\b` + dec + `~(?:m|metres?|meters?)\b`)

// inMetres is a text with its yards, or its feet, in metres.
func inMetres(text string, of *pattern.Pattern, metres float64) string {
	return of.ReplaceAllStringFunc(text, func(m string) string {
		return fmt.Sprintf("%g m", math.Round(100*metres*decimal(of.FindStringSubmatch(m)[1]))/100)
	})
}

// Fold is a name made comparable: small, hyphens and dots as spaces, no article.
func Fold(name string) string {
	name = strings.ToLower(strings.TrimSpace(name))
	name = strings.Join(strings.FieldsFunc(name, func(r rune) bool {
		return r == ' ' || r == '-' || r == '.' || r == '\x01' || r == ':'
	}), " ")
	return strings.TrimPrefix(name, "the ")
}

// Capital is a name with its first letter large.
func Capital(name string) string {
	for i, c := range name {
		return string(unicode.ToUpper(c)) + name[i+len(string(c)):]
	}
	return name
}

// Short is a name as long as one may be.
func Short(name string) string {
	if letters := []rune(name); len(letters) > plan.MaxName {
		return string(letters[:plan.MaxName-1]) + "…"
	}
	return name
}
