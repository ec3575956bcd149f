package sport

import (
	"slices"
	"strings"
)

// Line is a line of the ground that everybody of the sport knows by its name.
type Line struct {
	Name   string   `json:"name"`
	Also   []string `json:"also,omitempty"`   // what else it is called
	Metres float64  `json:"metres"`           // to it, from where a length begins
	Across bool     `json:"across,omitempty"` // it is run to across the ground
}

// MostMetres is the longest way to a line, or once round a ground.
const MostMetres = 2000

// Round is how far it is once round a usual ground, in metres: as it is measured, else two
// lengths and two widths less eight, for the corners that are cut.
func (s *Sport) Round() float64 {
	if s.Lap > 0 || s.Length == 0 {
		return s.Lap
	}
	return 2*(s.Length+s.Width) - 8
}

// Line is the line that a text names: "the 22", "far blue", "half way".
func (s *Sport) Line(text string) (Line, bool) {
	said := lineName(text)
	if said == "" {
		return Line{}, false
	}
	for _, l := range s.Lines {
		if lineName(l.Name) == said || slices.ContainsFunc(l.Also, func(a string) bool { return lineName(a) == said }) {
			return l, true
		}
	}
	if said == "across" && s.Width > 0 {
		return Line{Name: "across", Metres: s.Width, Across: true}, true
	}
	return Line{}, false
}

// lineName is how a line is told from others: without case, article, marks and the word line.
func lineName(text string) string {
	words := strings.FieldsFunc(strings.ToLower(strings.ReplaceAll(text, "-", " ")),
		func(r rune) bool { return r == ' ' || r == '\'' || r == '.' })
	words = slices.DeleteFunc(words, func(w string) bool {
		return len(words) > 1 && slices.Contains([]string{"the", "a", "our", "line"}, w)
	})
	return strings.Join(words, "")
}

// ground says what is wrong with the lines and measures of the usual ground.
func (s *Sport) ground(say func(text string, args ...any)) {
	s.sides(say)
	for _, metres := range []float64{s.Length, s.Width, s.Lap} {
		if metres < 0 || metres > MostMetres {
			say("a ground is between 0 and %d m long, wide and round", MostMetres)
		}
	}
	for _, l := range s.Lines {
		if l.Name == "" || !(l.Metres >= 1 && l.Metres <= MostMetres) {
			say("line %q: it needs a name, and lies between 1 and %d m away", l.Name, MostMetres)
		}
	}
	for position := range s.Called {
		if !slices.Contains(s.Positions, position) {
			say("%q is called something, and is not a position", position)
		}
	}
}
