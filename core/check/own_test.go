package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	drillbook "cuestart/book"
	"cuestart/core/check"
	"cuestart/core/drill"
)

// What a club says that every warm-up must have is found in the drills that have it, and in no others.
func TestAClubsPrinciplesAreReadFromItsWords(t *testing.T) {
	find := func(code string) *drill.Drill {
		d, ok := drillbook.Find(code)
		require.True(t, ok, code)
		return &d
	}
	for _, c := range []struct {
		words   string
		count   int
		has, no string
	}{
		{words: "a game", count: 1, has: "tag-in-the-box", no: "leg-swings"},
		{words: "three hip openers", count: 3, has: "leg-swings", no: "tag-in-the-box"},
		{words: "power with a stuck landing", count: 1, has: "hop-and-stick", no: "monster-walk"},
		{words: "2 shoulder band exercises", count: 2, has: "shoulder-band", no: "monster-walk"},
		{words: "full speed", count: 1, has: "sprints", no: "leg-swings"},
	} {
		p, err := check.ReadPrinciple(c.words)
		require.NoError(t, err, c.words)
		assert.Equal(t, c.count, p.Count, c.words)
		assert.True(t, p.Is(find(c.has)), "%s: %s", c.words, c.has)
		assert.False(t, p.Is(find(c.no)), "%s: %s", c.words, c.no)
	}
	for _, words := range []string{"", "zumba", "40 hip openers"} {
		_, err := check.ReadPrinciple(words)
		assert.Error(t, err, words)
	}
	rapid.Check(t, func(t *rapid.T) { // nothing that is said breaks it
		if p, err := check.ReadPrinciple(rapid.String().Draw(t, "words")); err == nil {
			p.Is(&drill.Drill{})
		}
	})
	for _, words := range []string{"running technique", "agility", "something for the ankles", "core", "rising runs",
		"breathing"} {
		// the book has what is said
		p, err := check.ReadPrinciple(words)
		require.NoError(t, err, words)
		n := 0
		for _, d := range drillbook.Drills() {
			if p.Is(&d) {
				n++
			}
		}
		assert.Greater(t, n, 3, words)
		assert.Less(t, n, len(drillbook.Drills())/2, words)
	}
}
