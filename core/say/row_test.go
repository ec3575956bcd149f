package say_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/say"
)

// told is what is done in a list, a line each, with how many and for whom.
func told(sport, start string, list ...string) (all []string) {
	plays, _ := book.Sport(sport)
	r := say.NewReader(say.Context{Book: book.Drills(), Sport: plays.Key, Plays: &plays, Start: start})
	for _, l := range r.ReadAll(strings.Join(list, "\n")) {
		drills := l.Drills
		if len(drills) == 0 {
			drills = []say.Line{l}
		}
		for _, d := range drills {
			text := strings.Join(append(l.Whom, d.Name), ": ")
			if d.Dose != nil {
				text += fmt.Sprintf(" %d", max(d.Dose.Reps, d.Dose.Acts, d.Dose.Trips))
			}
			all = append(all, text)
		}
	}
	return all
}

// One thing after the other, each with how many of it, are drills of their own, and no number is added to another's.
func TestARowOfDrillsKeepsEachItsNumber(t *testing.T) {
	for line, want := range map[string][]string{
		"leg swings 10, hips 8, shoulders 6 each way":               {"leg swings 10", "hips 8", "shoulders 6"},
		"spiderman 3/side, hamstring sweep 6/side, squat w reach 8": {"spiderman 3", "hamstring sweep 6", "squat w reach 8"},
		"5 squats, 4 lunges, 3 push ups":                            {"squats 5", "lunges 4", "push ups 3"},
		"high catches 3 each and direct hits 4":                     {"high catches 3", "direct hits 4"},
		"ground balls right 5, left 5":                              {"ground balls 5"},
		"plank 30 s, dead bug 8, bridges 10":                        {"plank 1", "dead bug 8", "bridges 10"},
		"throws from nine metres 12, from the wings 8 a side":       {"throws 28"},
		"form shots 5 spots x 3":                                    {"form shots 15"},
		"shots at 3 targets, 6":                                     {"shots 6"},
	} {
		assert.Equal(t, want, told("rugby union", "15:00", line), line)
	}
	assert.Equal(t, []string{"Bowling 18"}, told("cricket", "15:00", "Bowling: 3 overs building up"))
	assert.Equal(t, []string{"shooters: shoot 20", "mids: long pass 10"}, told("netball", "15:00", "shooters shoot 20, mids long pass 10"))
}

// What is said of a line by its clock and a word before a colon is a heading that holds there.
func TestALabelBehindAClockHeadsItsLine(t *testing.T) {
	assert.Equal(t, []string{"Raise", "jog 4", "side steps 2", "Activate", "band walks 10", "bridges 8", "Speed", "sprints 2", "bounds 4"}, told("rugby union", "14:30",
		"1.50 Raise: jog x4, side steps x2", "1.58 Activate: band walks 10 each way, bridges 8", "2.02 Speed: sprints 2 x 20 m, bounds 4"))
}

// Lines may be counted whatever stands behind the number, and a number that nobody runs lengths is how far.
func TestCountedLinesAndFarNumbers(t *testing.T) {
	assert.Equal(t, []string{"jumps 5", "squats 5", "1v1 rush 5"}, told("hockey", "15:00", "1 jumps 5", "2 squats 5", "3 1v1 rush 5"))
	plays, _ := book.Sport("athletics")
	r := say.NewReader(say.Context{Book: book.Drills(), Sport: plays.Key, Plays: &plays})
	assert.InDelta(t, 800, r.Read("jog 800").Dose.Metres, 0.1)
	assert.Equal(t, 2, r.Read("glute bridge SL 8 each").Dose.Sides)
}
