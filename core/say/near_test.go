package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/say"
)

// What is held is so many seconds where nobody said what was counted, and asked; pressed, it is said.
func TestANumberThatMayBeTwoThingsIsAsked(t *testing.T) {
	r := say.NewReader(say.Context{Book: book.Drills()})
	for text, want := range map[string]struct {
		reps    int
		seconds float64
		asks    []string
	}{
		"wall sit 45":           {1, 45, []string{"wall sit 45 s", "wall sit 45 reps"}},
		"plank 3 x 20":          {3, 20, []string{"plank 3 x 20 s", "plank 3 x 20 reps"}},
		"plank 30 s":            {1, 30, nil},
		"plank 20 reps":         {20, 0, nil},
		"squats 20":             {20, 0, nil},
		"bike 5":                {0, 0, []string{"bike 5 min", "bike 5 reps"}},
		"glute squeezes 12":     {12, 0, nil},
		"calf raises 12 a side": {12, 0, nil},
	} {
		l := r.Read(text)
		assert.Equal(t, want.reps, l.Dose.Reps, text)
		assert.InDelta(t, want.seconds, l.Dose.HoldSeconds, 1e-9, text)
		var asks []string
		for _, near := range say.NearOf(&l, text) {
			asks = append(asks, near.Line)
		}
		assert.Equal(t, want.asks, asks, text)
	}
}
