package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/say"
)

// What a heading says of each of its lines holds for those that say nothing themselves, and for no other;
// so does what is said below them, and what is the same again.
func TestWhatAHeadingSaysOfEachLineHolds(t *testing.T) {
	type dose struct {
		trips, reps, seconds int
		metres               float64
	}
	for name, c := range map[string]struct {
		list []string
		want []dose
	}{
		"a length and how many": {[]string{"Drills. 30 m, walk back, two of each", "1. A march", "2. high knees x 4",
			"3. bounds, one only", "Sprint", "4. squats"},
			[]dose{{trips: 2, reps: 0, seconds: 0, metres: 30}, {trips: 4, reps: 0, seconds: 0, metres: 30},
				{trips: 1, reps: 0, seconds: 0, metres: 30}, {}}},
		"from a line to another": {[]string{"Dynamic (goal line to the 20 & back)", "- jog down, backpedal back",
			"- butt kicks", "- squats 8"}, []dose{{trips: 2, reps: 0, seconds: 0, metres: 18.288},
			{trips: 0, reps: 8, seconds: 0, metres: 0}}},
		"below its lines": {[]string{"Warm up", "high knees", "butt kicks", "side shuffle 10 m",
			"all 20 m there and back"}, []dose{{trips: 2, reps: 0, seconds: 0, metres: 20},
			{trips: 2, reps: 0, seconds: 0, metres: 20}, {trips: 1, reps: 0, seconds: 0, metres: 10}}},
		"at stations": {[]string{"Stations: 3 groups of 8, 45 secs at each, 15 secs to change", "star jumps",
			"bear crawl", "Then together:", "squats 10"}, []dose{{trips: 0, reps: 0, seconds: 45, metres: 0},
			{trips: 0, reps: 0, seconds: 45, metres: 0}, {trips: 0, reps: 10, seconds: 0, metres: 0}}},
		"the same again": {[]string{"Legs", "side shuffle 15 m x 4", "carioca, same again", "squats 6"},
			[]dose{{trips: 4, reps: 0, seconds: 0, metres: 15}, {trips: 4, reps: 0, seconds: 0, metres: 15},
				{trips: 0, reps: 6, seconds: 0, metres: 0}}},
	} {
		plays, _ := book.Sport("american-football")
		r := say.NewReader(say.Context{Book: book.Drills(), Sport: plays.Key, Plays: &plays})
		var got []dose
		for _, p := range r.Pieces(c.list) {
			if l := r.ReadPiece(p); l.Is == say.IsDrill {
				assert.Equal(t, p.Text, l.Said, "what is kept is what was typed")
				d := dose{}
				if l.Dose != nil {
					d = dose{trips: l.Dose.Trips, reps: l.Dose.Reps, seconds: l.Dose.Seconds, metres: l.Dose.Metres}
				}
				got = append(got, d)
			}
		}
		assert.Equal(t, c.want, got, name)
	}
}
