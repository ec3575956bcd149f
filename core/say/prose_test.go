package say_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/book"
	"cuestart/core/say"
)

func TestSentencesArePartedWhereTheyEnd(t *testing.T) {
	for text, want := range map[string][]string{
		"jog 3 min. Then squats 10. And then lunges 6 a side": {"jog 3 min.", "squats 10.", "lunges 6 a side"},
		"throws 5 (high; quick. Look up); kicks 3":            {"throws 5 (high; quick. Look up)", "kicks 3"},
		`"Over; and out" 5. "A. B" 2`:                         {`"Over; and out" 5.`, `"A. B" 2`},
		"note: as it was; all of it. Yes":                     {"note: as it was; all of it. Yes"},
		"walk 1.5 min, vs. them":                              {"walk 1.5 min, vs. them"},
		"4 lanes: skips 20 m; jog 20 m. Squats 5": {"4 lanes: skips 20 m", "4 lanes: jog 20 m.",
			"Squats 5"},
		"1. Jog": {"1. Jog"},
		"Easy first. 50 out I roll my hips and calves, 5 min. Then bike 4 min": {"Easy first.",
			"roll hips and calves, 5 min, at 50", "bike 4 min"},
		"12 out, two sprints": {"two sprints, at 12"},
		"we throw 6 each":     {"throw 6 each"},
		"no. 10 throws":       {"no. 10 throws"},
		"":                    {""},
		"jog\r\n\r\nsquats":   {"jog", "", "squats"},
		" ; ":                 {""},
	} {
		assert.Equal(t, want, say.Lines(text), text)
	}
}

// Nothing typed is lost where it is parted.
func TestPartingLosesNoWord(t *testing.T) {
	word := rapid.SampledFrom([]string{"jog", "Squats", "10", "(tall; quick)", `"A. B"`, "then", ";", "4 lanes:",
		"end.", "Next", "no. 3", "\n"})
	rapid.Check(t, func(t *rapid.T) {
		text := strings.Join(rapid.SliceOfN(word, 1, 12).Draw(t, "words"), " ")
		all := strings.Join(say.Lines(text), " ")
		for _, one := range []string{"jog", "Squats", "10", "(tall; quick)", `"A. B"`, "end", "3"} {
			if strings.Count(all, one) < strings.Count(text, one) {
				t.Fatalf("%q lost %q: %q", text, one, all)
			}
		}
	})
}

func TestHowMuchThereIsIsRead(t *testing.T) {
	r := say.NewReader(say.Context{Book: book.Drills(), Kit: []string{"hurdle", "medicine ball", "step box"}})
	for text, want := range map[string]map[string]int{
		"I have ten ropes and twenty hurdles": {"rope": 10, "hurdle": 20},
		"we've got 6 medicine balls today":    {"medicine ball": 6},
		"there are 3 step boxes, 12 hurdles":  {"step box": 3, "hurdle": 12},
		"Have: 4 tees":                        nil, // that is a block of this name
		"we have fun with the ball":           nil,
		"hurdles 5":                           nil,
	} {
		l := r.Read(text)
		assert.Equal(t, want, l.Stock, text)
		assert.Equal(t, want != nil, l.Is == say.IsStock, text)
	}
}

// A list after the end is called as it was said, and printed so.

// What makes no sense is not made sense of silently: it stays to be looked at.

// Players of a position are named by it before a colon, also where that word is a direction.
func TestPositionsAreNamed(t *testing.T) {
	r := say.NewReader(say.Context{Positions: []string{"Forward", "Back"}})
	for line, who := range map[string][]string{"forwards: lifts 6 a side": {"Forward"},
		"Backs: strikes 6 a side": {"Back"}, "forward: lunges 6": nil, "lunges 8 forwards and 8 back": nil} {
		assert.Equal(t, who, r.Read(line).Who, line)
	}
}
