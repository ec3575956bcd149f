package shell

import (
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"go.yaml.in/yaml/v3"
)

// What no coach says, and the page then should not: words of a house, and slips of the hand.
var (
	houseWords = regexp.MustCompile(`(?i)\b(let it rotate|ground time|a should|musts|keep as is|called away|exact)\b`)
	openEnd    = regexp.MustCompile(`[a-z]\. [A-Z].*[a-z]$`)
	lowerAfter = regexp.MustCompile(`[a-z]{2}\. [a-z]`)
	spaced     = regexp.MustCompile(`\w [.,:?!]|  `)
	countedOf  = regexp.MustCompile(`^# ([a-z]+)s$`)
)

// Every text of the catalogues is written as people write: no words of this house alone, sentences that
// begin with a capital, the last of several with a full stop as the others, and a singular for what is countedOf.
func TestTextsAreWrittenAsPeopleWrite(t *testing.T) {
	texts := map[string]string{}
	for _, name := range []string{"es.yaml", "es.coach.yaml"} {
		file, err := os.ReadFile("languages/" + name)
		require.NoError(t, err)
		require.NoError(t, yaml.Unmarshal(file, &texts))
	}
	require.Greater(t, len(texts), 2000)
	ends := []string{ // what follows stands in a link, or is closed by the page
		"Pick a player to change them. Rulings are made by medical staff alone: invite them under",
		"You can press here from %s. Until then change the plan on the",
		"Answered. Who runs the session sees it", "Kept. Plans to come follow"}
	for english, other := range texts {
		assert.NotRegexp(t, houseWords, english)
		assert.NotRegexp(t, lowerAfter, english)
		assert.NotRegexp(t, spaced, english)
		if !slices.Contains(ends, english) {
			assert.NotRegexp(t, openEnd, english)
		}
		if m := countedOf.FindStringSubmatch(english); m != nil && m[1] != "catche" {
			assert.Contains(t, texts, "# "+m[1], "one of %q", english)
		}
		assert.Equal(t, strings.Count(english, "#"), strings.Count(other, "#"), "figures of %q", english)
	}
}
