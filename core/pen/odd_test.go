package pen_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/pattern"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// Names of which nothing is left once marks are dropped are names all the same, and no line
// breaks the reader.
func TestOddNamesBreakNothing(t *testing.T) {
	for _, name := range []string{"-", "--", "'", "(", ")", "1", "x", "%", " - ", "…", "​"} {
		d := &plan.Document{
			Party: plan.Party{Leaders: []plan.Leader{{ID: "b", Name: name}},
				Players: []plan.Player{{ID: "p", First: name, Position: name}}},
			Site: plan.Site{Zones: []plan.Zone{{ID: "a", Name: name}}},
		}
		r := say.NewReader(pen.ContextOf(d, "rugby union", book.Drills()))
		for _, line := range []string{"jog 3 x 40 m, in the gym", "squats 8, at the posts",
			"hands 3 min, far half, Pell", "-35 bands", name, name + " 3 x 10, " + name, "(", "hall: plank 40 s"} {
			assert.NotPanics(t, func() { r.ReadAll(line) }, "%q in a place called %q", line, name)
		}
	}
}

// A number that nobody means costs no more than any other: what is listed so often is never written out.
func TestHugeNumbersAreReadAtOnce(t *testing.T) {
	r := say.NewReader(say.Context{Book: book.Drills()})
	for _, line := range []string{"shots 300000000 spots x 3", "shots from 300000000 spots, 3 each",
		"3 each routine, 300000000 routines", "300000000 spots with 3 each",
		"3 in each of 300000000 places", "skips 300000000 lengths, 2 ways", "squats 300000000 sets of 300000000",
		"chest, bounce, lob, 300000000 of each"} {
		l := r.Read(line)
		assert.NotEmpty(t, l.Is, line)
		if l.Dose != nil {
			assert.Less(t, len(l.Dose.Columns)+len(l.Dose.Parts)+len(l.Dose.Counts), 100, line)
		}
	}
}

// Patterns are made when they are first tried, and none fails then.
func TestNoPatternIsBroken(t *testing.T) { assert.Empty(t, pattern.Broken()) }
