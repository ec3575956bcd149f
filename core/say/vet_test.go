package say_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/say"
)

// From where something is done, after how many of it and how hard are no minutes to go; where minutes are said they stay.
func TestSpotsAndSharesAreNoMinutes(t *testing.T) {
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
	in := r.Read("15 in")
	assert.Equal(t, say.IsFixed, in.Is)
	assert.Equal(t, -15*60, *in.From)
}
