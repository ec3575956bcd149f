package say_test

import (
	"encoding/json"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/say"
)

// No number that somebody says is lost: the plan that a line makes says it too, as a
// dose, a place, a minute or a note.
func TestNoNumberIsLost(t *testing.T) {
	var cases struct {
		Lines []struct{ Line string }
	}
	text, err := os.ReadFile("testdata/more.json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &cases))
	numbers, bullet := regexp.MustCompile(`\d+`), regexp.MustCompile(`^\d+[.)] `)
	for _, c := range cases.Lines {
		d := empty()
		d.Fixed = nil
		became := write(d, c.Line)
		printed := strings.Join(say.Print(d, book.Drills()), "\n")
		for _, b := range became {
			printed += " " + b.Problem
		}
		if strings.Contains(c.Line, "2 x 20 m") && len(became) == 1 && became[0].Line.Is == say.IsLegs {
			continue // a zone out, a zone back
		}
		if len(d.Blocks) == 0 && len(d.Fixed) == 0 {
			continue // a heading alone
		}
		said := numbers.FindAllString(printed, -1)
		for _, one := range numbers.FindAllString(bullet.ReplaceAllString(c.Line, ""), -1) {
			n, err := strconv.Atoi(one)
			require.NoError(t, err)
			same := []string{strconv.Itoa(n), strconv.Itoa(2 * n), strconv.Itoa(60 * n), strconv.Itoa(n / 60)} // there and back, minutes, seconds
			assert.True(t, slices.ContainsFunc(same, func(s string) bool { return slices.Contains(said, s) }), "%s of %q is lost:\n%s", one, c.Line, printed)
		}
	}
}
