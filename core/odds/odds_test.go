package odds_test

import (
	"encoding/json"
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/odds"
)

func TestKnownDays(t *testing.T) {
	text, err := os.ReadFile("testdata/holds.json")
	require.NoError(t, err)
	var cases []struct {
		Title   string
		Players map[string]clock.Offset
		Blocks  []struct {
			ID         string
			Start, End clock.Offset
			Players    []string
			Needs      []string
			Mu         float64
		}
		Holds  float64
		Median int `json:"late_median"`
		Late90 int `json:"late_90"`
		Late95 int `json:"late_95"`
	}
	require.NoError(t, json.Unmarshal(text, &cases))
	for _, c := range cases {
		d := odds.Day{Due: c.Players}
		for _, b := range c.Blocks {
			needs := map[string]int{}
			for _, n := range b.Needs {
				needs[n] = 1
			}
			d.Blocks = append(d.Blocks, odds.Block{ID: b.ID, Start: b.Start, End: b.End, Players: b.Players,
				Needs: needs, Mu: b.Mu})
		}
		o := odds.Of(d)
		assert.InDelta(t, c.Holds, o.Holds, 0.03, c.Title)
		assert.InDelta(t, c.Median, o.Median, 8, c.Title)
		assert.InDelta(t, c.Late90, o.Late90, 8, c.Title)
		assert.InDelta(t, c.Late95, o.Late95, 8, c.Title)
		assert.Equal(t, o, odds.Of(d), "the days are always the same")
	}
}

// day is blocks in a row for one player, with so much slack between them.
func day(n int, slack clock.Offset) odds.Day {
	d := odds.Day{Due: map[string]clock.Offset{"a": -60}}
	at := clock.Offset(-60)
	for i := range n {
		d.Blocks = append(d.Blocks, odds.Block{ID: fmt.Sprint(i), Start: at - 240, End: at, Players: []string{"a"}})
		at -= 240 + slack
	}
	return d
}

// More slack, or fewer blocks, never make a day less likely to hold; what is opened earlier
// by as much as is said holds on 19 days of 20.
func TestSlackHelps(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n, slack := rapid.IntRange(1, 12).Draw(t, "blocks"), clock.Offset(rapid.IntRange(0, 90).Draw(t, "slack"))
		o := odds.Of(day(n, slack))
		assert.GreaterOrEqual(t, odds.Of(day(n, slack+30)).Holds, o.Holds-0.002)
		assert.LessOrEqual(t, o.Median, o.Late90)
		assert.LessOrEqual(t, o.Late90, o.Late95)
		earlier := day(n, slack)
		for i := range earlier.Blocks {
			earlier.Blocks[i].Start -= clock.Offset(o.Earlier)
			earlier.Blocks[i].End -= clock.Offset(o.Earlier)
		}
		assert.GreaterOrEqual(t, odds.Of(earlier).Holds, 0.945) // of 2,000 days, in whole seconds
	})
}

// The block that is long and sure to run over is blamed, not the one that comes last; who is
// in no block holds nobody up; two of three lanes may be in use at once.
func TestWhatMakesADayLate(t *testing.T) {
	d := day(4, 0)
	d.Blocks[2].Mu = 0.5
	assert.Equal(t, d.Blocks[2].ID, odds.Of(d).Worst)
	assert.Equal(t, odds.Odds{Holds: 1, Empty: true}, odds.Of(odds.Day{Due: map[string]clock.Offset{"a": 0}}))
	lanes := func(room int) odds.Odds {
		d := odds.Day{Due: map[string]clock.Offset{"a": 0, "b": 0, "c": 0}, Room: map[string]int{"lanes": room}}
		for _, p := range []string{"a", "b", "c"} {
			d.Blocks = append(d.Blocks, odds.Block{ID: p, Start: -300, End: 0, Players: []string{p},
				Needs: map[string]int{"lanes": 1}})
		}
		return odds.Of(d)
	}
	assert.Greater(t, lanes(3).Holds, 0.8)
	assert.Zero(t, lanes(2).Holds, "the third waits for a lane")
	assert.Less(t, lanes(3).Median, lanes(1).Median)
}

func ExampleOf() {
	due := map[string]clock.Offset{"ada": -300}
	o := odds.Of(odds.Day{Due: due, Blocks: []odds.Block{
		{ID: "jog", Start: -900, End: -600, Players: []string{"ada"}},
		{ID: "hops", Start: -600, End: -300, Players: []string{"ada"}},
	}})
	fmt.Println(o.Holds > 0.75, o.Worst != "")
	// Output: true true
}
