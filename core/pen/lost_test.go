package pen_test

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
	"cuestart/core/pen"
	"cuestart/core/say"
)

// No number that somebody says is lost: the plan that a line makes says it too, as a
// dose, a place, a minute or a note.
func TestNoNumberIsLost(t *testing.T) {
	var cases struct {
		Lines []struct{ Line string }
	}
	text, err := os.ReadFile("../say/testdata/more.json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &cases))
	numbers, bullet := regexp.MustCompile(`\d+`), regexp.MustCompile(`^\d+[.)] `)
	for _, c := range cases.Lines {
		d := empty()
		d.Fixed = nil
		became := write(d, c.Line)
		printed := strings.Join(pen.Print(d, book.Drills()), "\n")
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
			// there and back, minutes, seconds
			same := []string{strconv.Itoa(n), strconv.Itoa(2 * n), strconv.Itoa(60 * n), strconv.Itoa(n / 60)}
			assert.True(t, slices.ContainsFunc(same, func(s string) bool { return slices.Contains(said, s) }),
				"%s of %q is lost:\n%s", one, c.Line, printed)
		}
	}
}

// What a line says of how much is what the drill then says of itself.
func TestADoseIsSaidBackAsItWas(t *testing.T) {
	for line, says := range map[string]string{
		"press-ups 8-10":                             "8–10 reps",
		"bike 5 min, 60 %":                           "5 min at 60 %",
		"sprints 3 x 10 m at 70, 90, 100":            "3 sprints of 10 m at 70, 90, 100 %",
		"sprints 20 m x 3, rest 40 s":                "3 sprints of 20 m",
		"shots 10 from left, middle and right":       "10 in each of 3 places",
		"throws 12, at least 8":                      "8–12 throws",
		"squats 2-3 sets of 8":                       "2–3 × 8 reps",
		"squats two or three sets of 8-10":           "2–3 × 8–10 reps",
		"plank 2-3 sets of 20 seconds":               "2–3 holds of 20 s",
		"box jumps 5, flat out":                      "5 reps at 100 %",
		"plank 2-3 x 20 s":                           "2–3 holds of 20 s",
		"out with skips, back with side steps, 12 m": "1 trip: out with skips, back with side steps, 12 m",
	} {
		d := empty()
		write(d, line)
		require.Len(t, d.Blocks, 1, line)
		k := d.Blocks[0].Items[0].Drill
		assert.Equal(t, says, k.Words(k.Range.Target), line)
	}
	least := func(line string) (int, int) {
		d := empty()
		write(d, line)
		r := d.Blocks[0].Items[0].Drill.Range
		return r.Min, r.Max
	}
	for line, want := range map[string][2]int{"press-ups 8-10": {8, 10}, "throws 12, at least 8": {8, 12},
		"bike 4-5 min": {240, 300}, "jog 3 min, at least 2 min": {120, 180}} {
		low, most := least(line)
		assert.Equal(t, want, [2]int{low, most}, line)
	}
}

// What goes from side to side works both, as it was counted: nobody is told that it is one-sided.
func TestAlternatingWorksBothSides(t *testing.T) {
	for line, oneSided := range map[string]bool{"lateral lunges 10": false, "lateral lunges 5 a side": true,
		"single-leg bridges 6": true} {
		d := empty()
		write(d, line)
		assert.Equal(t, oneSided, d.Blocks[0].Items[0].Drill.OneSided, line)
	}
}
