package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/say"
)

// From where something is done, after how many of it and how hard are no minutes to go; where
// minutes are said they stay.
func TestWhatIsNoMinuteToGoIsTakenForNone(t *testing.T) {
	plays, _ := book.Sport("volleyball")
	r := say.NewReader(say.Context{Book: book.Drills(), Sport: plays.Key, Plays: &plays})
	for _, line := range []string{"hitting from 4 then 2, 6 each", "kicks 5 from 8", "2 x 40 m strides @ 80"} {
		l := r.Read(line)
		assert.Nil(t, l.Window, line)
		assert.Nil(t, l.At, line)
		assert.NotNil(t, l.Dose, line)
	}
	assert.InDelta(t, 0.8, r.Read("2 x 40 m strides @ 80").Dose.Effort, 0.001)
	for _, line := range []string{"sprints 3 each from 8 min", "sprints 3 each from 8 to go", "From 8:"} {
		if l := r.Read(line); assert.NotNil(t, l.Window, line) {
			assert.Equal(t, -8*60, *l.Window[0], line)
		}
	}
	spots := r.Read("jog a lap, touch the rope at 4 spots")
	assert.Nil(t, spots.At)
	assert.Contains(t, spots.Cues, "at 4 spots")
	sets := r.Read("setters with Jo: 20 sets to 4, 20 to 2")
	assert.Nil(t, sets.Window)
	assert.Equal(t, 40, sets.Dose.Reps)
	assert.Equal(t, 60, r.Read("mini drill 1 min, left and right alternate").Dose.Seconds)
	assert.Equal(t, 2, r.Read("lunges 10 each leg alternating").Dose.Sides)
	assert.Equal(t, say.IsBlock, r.Read("2 - ACTIVATE (mats, 6 mins)").Is)
	in := r.Read("15 in")
	assert.Equal(t, say.IsFixed, in.Is)
	assert.Equal(t, -15*60, *in.From)
}
