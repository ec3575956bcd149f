package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// Names of which nothing is left once marks are dropped are names all the same, and no line
// breaks the reader.
func TestOddNamesBreakNothing(t *testing.T) {
	for _, name := range []string{"-", "--", "'", "(", ")", "1", "x", "%", " - ", "…", "​"} {
		d := &plan.Document{Zones: []plan.Zone{{ID: "a", Name: name}}, Leaders: []plan.Leader{{ID: "b", Name: name}}, Players: []plan.Player{{ID: "p", First: name, Position: name}}}
		r := say.NewReader(say.ContextOf(d, "rugby union", book.Drills()))
		for _, line := range []string{"jog 3 x 40 m, in the gym", "squats 8, at the posts", "hands 3 min, far half, Pell", "-35 bands", name, name + " 3 x 10, " + name, "(", "hall: plank 40 s"} {
			assert.NotPanics(t, func() { r.ReadAll(line) }, "%q in a place called %q", line, name)
		}
	}
}
