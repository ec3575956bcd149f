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
				counted := 0
				for _, row := range d.Dose.Counts {
					for _, n := range row {
						counted += n
					}
				}
				text += fmt.Sprintf(" %d", max(d.Dose.Reps, d.Dose.Acts, d.Dose.Trips, counted))
			}
			all = append(all, text)
		}
	}
	return all
}

// One thing after the other, each with how many of it, are drills of their own, and no number is added to another's.
func TestARowOfDrillsKeepsEachItsNumber(t *testing.T) {
	for line, want := range map[string][]string{
		"leg swings 10, hips 8, shoulders 6 each way": {"leg swings 10", "hips 8", "shoulders 6"},
		"spiderman 3/side, hamstring sweep 6/side, squat w reach 8": {"spiderman 3", "hamstring sweep 6",
			"squat w reach 8"},
		"5 squats, 4 lunges, 3 push ups":                        {"squats 5", "lunges 4", "push ups 3"},
		"high catches 3 each and direct hits 4":                 {"high catches 3", "direct hits 4"},
		"ground balls right 5, left 5":                          {"ground balls 5"},
		"plank 30 s, dead bug 8, bridges 10":                    {"plank 1", "dead bug 8", "bridges 10"},
		"throws from nine metres 12, from the wings 8 a side":   {"throws 28"},
		"form shots 5 spots x 3":                                {"form shots 15"},
		"shots at 3 targets, 6":                                 {"shots 6"},
		"squats 10 lunges 8 shoulder taps 6":                    {"squats 10", "lunges 8", "shoulder taps 6"},
		"10 push ups 8 sit ups 6 squats":                        {"push ups 10", "sit ups 8", "squats 6"},
		"shots 10 left 6 right":                                 {"shots 16"},
		"jog, high knees, side steps, 10 m each there and back": {"jog 2", "high knees 2", "side steps 2"},
		"knee hugs, quad pulls, inchworms: to halfway":          {"knee hugs 1", "quad pulls 1", "inchworms 1"},
		"boxes of 6, 2 touch, 3 min":                            {"boxes of 6 0"},
		"rucks, 3 each pod":                                     {"rucks 3"},
	} {
		assert.Equal(t, want, told("rugby union", "15:00", line), line)
	}
	assert.Equal(t, []string{"Bowling 18"}, told("cricket", "15:00", "Bowling: 3 overs building up"))
	assert.Equal(t, []string{"shooters: shoot 20", "mids: long pass 10"},
		told("netball", "15:00", "shooters shoot 20, mids long pass 10"))
}

// What is said of a line by its clock and a word before a colon is a heading that holds there.
func TestALabelBehindAClockHeadsItsLine(t *testing.T) {
	assert.Equal(t, []string{"Raise", "jog 4", "side steps 2", "Activate", "band walks 10", "bridges 8", "Speed",
		"sprints 2", "bounds 4"}, told("rugby union", "14:30",
		"1.50 Raise: jog x4, side steps x2", "1.58 Activate: band walks 10 each way, bridges 8",
		"2.02 Speed: sprints 2 x 20 m, bounds 4"))
}

// Lines may be counted whatever stands behind the number, and a number that nobody runs lengths is how far.
func TestCountedLinesAndFarNumbers(t *testing.T) {
	assert.Equal(t, []string{"jumps 5", "squats 5", "1v1 rush 5"},
		told("hockey", "15:00", "1 jumps 5", "2 squats 5", "3 1v1 rush 5"))
	plays, _ := book.Sport("athletics")
	r := say.NewReader(say.Context{Book: book.Drills(), Sport: plays.Key, Plays: &plays})
	assert.InDelta(t, 800, r.Read("jog 800").Dose.Metres, 0.1)
	assert.Equal(t, 2, r.Read("glute bridge SL 8 each").Dose.Sides)
}

// What begins later from line to line, by minutes to go, by a time of the day in four figures or
// at the end of a line, is held there, and is no number of anything; m are minutes in a list of
// times.
func TestTimesInAListAreNoNumbers(t *testing.T) {
	times := func(sport, start string, list ...string) (all []string) {
		plays, _ := book.Sport(sport)
		r := say.NewReader(say.Context{Book: book.Drills(), Sport: plays.Key, Plays: &plays, Start: start})
		for _, l := range r.ReadAll(strings.Join(list, "\n")) {
			switch {
			case l.At != nil:
				all = append(all, fmt.Sprint(l.Name, " at ", *l.At/-60))
			case l.From != nil:
				all = append(all, fmt.Sprint(l.Name, " at ", *l.From/-60))
			case l.Dose != nil && l.Dose.Seconds > 0:
				all = append(all, fmt.Sprint(l.Name, " ", l.Dose.Seconds, " s"))
			}
		}
		return all
	}
	assert.Equal(t, []string{"kickers out at 50", "together at 40", "contact at 24", "team run at 18", "sprints at 13",
		"IN at 10"},
		times("rugby union", "14:30", "50 kickers out", "40 together", "jog 2 widths", "lunges 5e", "24 contact",
			"tackle bags 3 e/s", "18 team run 4 min", "13 sprints 10 m x 4", "10 IN"))
	assert.Equal(t, []string{"arrive at 90", "whole squad at 60", "fielding at 48", "toss at 30"},
		times("cricket", "11:00", "MATCHDAY", "0930 arrive, nets for openers", "1000 whole squad",
			"- jog round boundary", "- mobility", "1012 fielding", "- slips 10 nicks", "keepers", "1030 toss",
			"batters throw downs 15 each"))
	assert.Equal(t, []string{"pen at 20"}, times("baseball", "18:30", "pen 6:10 with Cass, 30 balls"))
	assert.Equal(t, []string{"pepper 180 s", "serve receive 240 s", "serve 180 s"},
		times("volleyball", "18:30", "pepper 3m", "serve receive 4m", "serve 3m"))
	assert.Empty(t, times("volleyball", "18:30", "side steps 3m", "skips 4m", "sprint 5m"))
	assert.Empty(t, times("handball", "18:30", "passing 3 m", "catch 4 m", "bounce pass 5 m"),
		"metres, as they are written")
	assert.Nil(t, say.NewReader(say.Context{Book: book.Drills(), Sport: "swimming",
		Start: "16:00"}).Read("4 x 25 build @30").At)
	lines := say.NewReader(say.Context{Book: book.Drills()}).ReadAll("squats 10\nlunges 8\nbridges 8\ncaps")
	assert.Equal(t, say.IsFixed, lines[3].Is, "nothing stands below it")
}

// Work and rest need no unit, and e is each side.
func TestWorkRestAndSidesInShort(t *testing.T) {
	r := say.NewReader(say.Context{Book: book.Drills()})
	for _, line := range []string{"fast feet 10 on 20 off, x5", "fast feet 5 rounds x 10 s rest 20s"} {
		d := r.Read(line).Dose
		assert.Equal(t, []any{5, 10.0, 20.0}, []any{max(d.Reps, d.Sets), d.HoldSeconds, d.RestSeconds}, line)
	}
	assert.Equal(t, 2, r.Read("leg swings 10e").Dose.Sides)
	assert.Equal(t, 2, r.Read("tackle sled 4 e shoulder").Dose.Sides)
	assert.Equal(t, "2 on 1", r.Read("2 on 1, 5 min").Name)
	assert.Equal(t, say.IsDrill, r.Read("throws 0 0 left").Is)
	assert.NotEmpty(t, r.Read("throws 0 0 left").Note, "nobody does none")
}

// The second of two games has minutes where the first has.
func TestASecondGameHasMinutesToo(t *testing.T) {
	plays, _ := book.Sport("tennis")
	r := say.NewReader(say.Context{Book: book.Drills(), Sport: plays.Key, Plays: &plays, Start: "15:00"})
	var seconds []int
	for _, d := range r.Read("mini-court three minutes, full court four, volleys ten each").Drills[:2] {
		seconds = append(seconds, d.Dose.Seconds)
	}
	assert.Equal(t, []int{180, 240}, seconds)
}

// The same once more with something else is a drill of its own.
func TestTheSameAgainIsItsOwn(t *testing.T) {
	assert.Equal(t, []string{"jogs 4", "jogs with the hurl 4"},
		told("hurling", "15:00", "Everyone jogs four widths, then with the hurl four."))
}

// A name in quotation marks is the coach's own as it stands, and may begin a sentence: "no, it is ours" puts it so.
func TestAQuotedNameBeginsASentence(t *testing.T) {
	r := say.NewReader(say.Context{Book: book.Drills(), Sport: "tennis", Start: "15:00"})
	assert.NotEmpty(t, r.Read("Shoulders with the thin band 10").Likely)
	assert.Empty(t, r.Read(`"Shoulders with the thin band" 10`).Likely, "it was asked and answered")
	assert.Equal(t, []string{"cross-steps 4", "Shoulders with the thin band 10", "Thing on two legs 5"},
		told("tennis",
			"15:00", `cross-steps four. "Shoulders with the thin band", out, in, up, ten each. "Thing on two legs" 5.`))
}
