package say_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/say"
)

// A list is told by its marks: those go, what has lines under it is a heading under its own
// words, what only greets or says what the day is stays as a note.
func TestAListIsToldByItsMarks(t *testing.T) {
	texts := func(list ...string) (all []string) {
		for _, one := range say.Pieces(list) {
			all = append(all, one.Text)
		}
		return all
	}
	assert.Equal(t, []string{"note: MD warm-up (home) - kick off 3pm", "## Raise - from 38, middle third", "jog to the box and back x 2", "## Ball", "rondo 5v2 4 mins", "build-ups 20 m"},
		texts("MD warm-up (home) - kick off 3pm", "1. Raise - from 38, middle third", "a) jog to the box and back x 2", "2. Ball", "b) rondo 5v2 4 mins", "c) build-ups 20 m"))
	assert.Equal(t, []string{"## BANDS (2 rounds)", "pull aparts 12", "ER at side 12", "## CATCH w/ Tobin from 35", "pulldowns x5 full"},
		texts("BANDS (2 rounds)", "pull aparts 12", "ER at side 12", "CATCH w/ Tobin from 35", "pulldowns x5 full"))
	assert.Equal(t, []string{"jog 3 min", "squats 10", "sprints 3 x 20 m"}, texts("- jog 3 min", "- squats 10", "- sprints 3 x 20 m"))
	assert.Equal(t, []string{"Mobilise", "hip circles 6", "team talk 68-55"}, texts("Mobilise", "hip circles 6", "team talk 68-55"), "a phase and an event are read as such")
	assert.Equal(t, []string{"note: Hi Fenn,", "jog 3 min", "squats 10"}, texts("Hi Fenn,", "jog 3 min", "squats 10"))
	assert.Equal(t, []string{"1. Jog"}, texts("1. Jog"), "one line is no list")
	assert.Equal(t, []string{"## Calves, courtside", "calf raises 15", "## Hips", "open books 6 ea"}, texts("A. Calves, courtside", "a) calf raises 15", "B. Hips", "a) open books 6 ea"), "large letters hold small ones")
	assert.Equal(t, []string{"note: Year 8, sports hall, double lesson", "tag 3 min", "## Then balls, in pairs", "chest passes 20", "## Pairs, 20 m apart", "bounce passes 20"},
		texts("Year 8, sports hall, double lesson", "tag 3 min", "Then balls, in pairs", "chest passes 20", "Pairs, 20 m apart", "bounce passes 20"), "a class, what comes next, who it is for")
	r := say.NewReader(say.Context{})
	assert.Equal(t, "CATCH", r.Read("## CATCH w/ Tobin from 35").Name)
	assert.Equal(t, "IN THE WATER", r.Read("## IN THE WATER from 30").Name)

	d := empty()
	write(d, "1. Raise - from 38\na) jog 3 min\nb) skips 20 m\n2. Ball\na) passing in pairs 2 min\nb) throws 6\n3. Speed - done by 14\na) build-ups 3 x 20 m\nb) sprints 2 x 10 m")
	var parts []string
	for i := range d.Blocks {
		parts = append(parts, fmt.Sprint(d.Blocks[i].Name, " ", d.Blocks[i].Phase, " ", len(d.Blocks[i].Items)))
	}
	assert.Equal(t, []string{"Raise raise 2", "Ball sport 2", "Speed potentiate 2"}, parts, "each is of its own phase")
}

// A block that is full ends, and a line of several drills may lie on both sides: what it became
// names drills of one block, which are there.
func TestALineOverAFullBlockNamesWhatIsThere(t *testing.T) {
	d := empty()
	text := "Everything\n"
	for range 11 {
		text += "squats 10\n"
	}
	for _, one := range write(d, text+"jog 20 m + skips 20 m + squats 4") {
		for _, n := range one.Items {
			require.NotNil(t, d.Block(one.Block))
			assert.Less(t, n, len(d.Block(one.Block).Items))
		}
	}
	assert.Len(t, d.Blocks, 2)
}
