package week_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/drill"
	"cuestart/core/week"
)

var (
	neck = drill.Drill{Code: "neck", Regions: []string{"neck"}, Qualities: []string{"strength", "hold"},
		Planes: []string{"front"}, Effort: 0.4}
	sprint = drill.Drill{Code: "sprint", Regions: []string{"hip", "knee"}, Qualities: []string{"sprint"},
		Planes: []string{"front"}, Effort: 0.95}
	swing = drill.Drill{Code: "swing", Regions: []string{"hip"}, Qualities: []string{"range"},
		Planes: []string{"front", "side"}, Effort: 0.4}
)

func ExampleOwing() {
	work := []week.Work{{Player: "ada", Day: "2026-11-24", Drill: &neck, Seconds: 72},
		{Player: "ada", Day: "2026-11-26", Drill: &neck, Seconds: 72},
		{Player: "bea", Day: "2026-11-24", Drill: &neck, Seconds: 72},
		{Player: "bea", Day: "2026-11-23", Drill: &sprint, Seconds: 30},
		{Player: "bea", Day: "2026-11-24", Drill: &sprint, Seconds: 30},
		{Player: "bea", Day: "2026-11-26", Drill: &sprint, Seconds: 30}}
	targets := []week.Target{{Region: "neck", Quality: "strength", Days: 2}, {Hard: true, Days: 2, AtMost: true}}
	for _, o := range week.Owing([]string{"ada", "bea", "cleo"}, work, targets) {
		fmt.Printf("%s: %s, has %d\n", o.Player, o.Words(), o.Has)
	}
	// Output:
	// bea: neck strength on 2 days, has 1
	// cleo: neck strength on 2 days, has 0
	// bea: hard days: at most 2, has 3
}

// What a week gave is the sum of its work, whatever the order and however it is split; a day
// counts once.
func TestAWeekIsTheSumOfItsWork(t *testing.T) {
	drills := []*drill.Drill{&neck, &sprint, &swing}
	rapid.Check(t, func(t *rapid.T) {
		var work []week.Work
		var halves []week.Work
		seconds := 0.0
		for range rapid.IntRange(0, 30).Draw(t, "pieces") {
			w := week.Work{Player: rapid.SampledFrom([]string{"ada", "bea"}).Draw(t, "player"),
				Day:     rapid.SampledFrom([]string{"2026-11-23", "2026-11-24", "2026-11-25"}).Draw(t, "day"),
				Drill:   rapid.SampledFrom(drills).Draw(t, "drill"),
				Seconds: float64(rapid.IntRange(1, 600).Draw(t, "seconds"))}
			work = append(work, w)
			seconds += w.Seconds
			w.Seconds /= 2
			halves = append([]week.Work{w, w}, halves...)
		}
		whole, split := week.Of(work), week.Of(halves)
		front := 0.0
		for player, g := range whole {
			front += g.Planes["front"] // every drill of these works in it
			assert.InDelta(t, g.Planes["side"], g.Seconds[week.Cell{Region: "hip", Quality: "range"}], 1e-9)
			assert.InDelta(t, g.Seconds[week.Cell{Region: "hip", Quality: "sprint"}],
				g.Seconds[week.Cell{Region: "knee", Quality: "sprint"}], 1e-9)
			assert.Equal(t, g.Days, split[player].Days)
			assert.Equal(t, g.Hard, split[player].Hard)
			assert.LessOrEqual(t, g.Hard, g.Days)
			assert.LessOrEqual(t, g.Days, 3)
			assert.InDelta(t, g.Planes["front"], split[player].Planes["front"], 1e-6)
		}
		assert.InDelta(t, seconds, front, 1e-6)
		for _, o := range week.Owing([]string{"ada", "bea"}, work,
			[]week.Target{{Hard: true, Days: 1, AtMost: true}, {Region: "hip", Days: 2}}) {
			assert.Equal(t, o.AtMost, o.Has > o.Days)
		}
	})
}

// Whose turn it is: who waited longest, then who gives what is owed, then the first.
func TestDrillsTakeTurns(t *testing.T) {
	pool := []drill.Drill{swing, neck, sprint}
	owed := []week.Owed{{Target: week.Target{Region: "neck", Days: 2}, Player: "ada"}}
	assert.Equal(t, "neck", week.Turn(pool, nil, owed).Code, "never used, all of them: what is owed")
	assert.Equal(t, "swing", week.Turn(pool, nil, nil).Code)
	assert.Equal(t, "sprint", week.Turn(pool, map[string]string{"swing": "2026-11-20", "neck": "2026-11-21"},
		owed).Code, "never before long ago")
	assert.Equal(t, "swing",
		week.Turn(pool, map[string]string{"swing": "2026-11-20", "neck": "2026-11-21", "sprint": "2026-11-22"},
			owed).Code)
	assert.Nil(t, week.Turn(nil, nil, owed))
	owed = append(owed, week.Owed{Target: week.Target{Region: "hip", Days: 1}, Player: "ada"},
		week.Owed{Target: week.Target{Region: "hip", Days: 1}, Player: "bea"})
	codes := func(list []drill.Drill) (codes []string) {
		for _, d := range list {
			codes = append(codes, d.Code)
		}
		return codes
	}
	assert.Equal(t, []string{"swing", "sprint", "neck"}, codes(week.Fills(pool, owed)))
	owed = append(owed, week.Owed{Target: week.Target{Hard: true, Days: 1, AtMost: true}, Player: "bea", Has: 2})
	assert.Equal(t, []string{"swing", "neck"}, codes(week.Fills(pool, owed)), "nothing hard where that is full")
}
