package say_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/say"
)

// Lines of several drills under a word, times at the front, indents, minutes of a heading: each is told,
// and what is a peer of a heading stands under none.

// A block that is full ends, and a line of several drills may lie on both sides: what it became
// names drills of one block, which are there.

// An amount alone is of the heading that it stands under, and of none above that.
func TestAnAmountAloneIsOfItsHeading(t *testing.T) {
	plays, _ := book.Sport("rugby-union")
	for want, list := range map[string][]string{
		"Sprint": {"Ball", "- passing 3 min", "", "Sprint", "- 3 x 15 m, full", "- tuck jumps 5"},
		"":       {"Ball", "- passing 3 min", "- rondo 4 min", "", "Potentiate", "15 m x 3", "tuck jumps 5"},
	} {
		r := say.NewReader(say.Context{Book: book.Drills(), Sport: plays.Key, Plays: &plays})
		name := ""
		for _, p := range r.Pieces(list) {
			if l := r.ReadPiece(p); l.Is == say.IsDrill && strings.Contains(p.Text, "15 m") {
				name = l.Name
			}
		}
		assert.Equal(t, want, name, list)
	}
}
