// Package hear finds what a coach means by a line of their own list: what is done, how much,
// by whom, where, when, and what is told to players.
//
// A line is read in three steps. All pieces of it that some role explains are marked (marks.go),
// and of those that overlap the set is taken that explains most. What no role wants falls into
// chunks; whole readings, in which one or several of these are what is done and the others are
// cues, compete by a score that knows which words move people (choose.go). What was counted is
// then given the sense that the movement allows (amount.go). Which words are the name, who does it
// and what each number counts, and what kind of line it is, is learned (tagger.go, kindof.go): where
// that says otherwise than the marks, it is heard.
package hear

import (
	"cmp"
	"slices"
	"strings"

	"cuestart/core/pattern"
)

// Kind is what a line is.
type Kind string

const (
	Drill   Kind = "drill"
	Combo   Kind = "combo"  // steps that are done in turn, as one
	Choice  Kind = "choice" // one of several
	Heading Kind = "heading"
	Fixed   Kind = "fixed"
	Remark  Kind = "remark"
)

// Lexicon is what is known before a line is read.
type Lexicon interface {
	// Moves tells whether words name a movement.
	Moves(text string) bool
	// Known tells whether words are a drill's name.
	Known(name string) bool
	// Word tells whether a word stands in names of drills.
	Word(word string) bool
	// Still tells whether what is done is held in one position.
	Still(name string) bool
	// Goes tells whether who does it gets from one place to another.
	Goes(name string) bool
	// Person tells whether words name somebody, a unit or a position.
	Person(text string) bool
	// Leads tells whether words name somebody of the staff.
	Leads(text string) bool
	// Place tells whether words name a place of the ground.
	Place(text string) bool
	// Clock is how many minutes before the start a time of the day is; not ok where that is no time
	// of the day on which the start is.
	Clock(hour, minute int) (toGo float64, ok bool)
	// Line is how far it is to a line of the ground, in metres.
	Line(text string) (metres float64, ok bool)
}

// Amount is how much was said; what was not is 0.
type Amount struct {
	Sets, Reps, Least float64
	LeastSets         float64
	Sides, Ways       float64
	PartSides         bool      // the parts are the sides
	Parts             []float64 // reps of each part, where each has its own
	Hold, Breaths     float64   // seconds, breaths
	Seconds, Rest     float64
	Trips, Metres     float64
	To                string // a line of the ground
	Laps              float64
	Efforts           []float64
	Tempo             []float64
	Each              bool   // of each, of what was not said
	Counted           bool   // what is held was counted apart: ten, of 3 s each
	Unit              string // in which lengths were said: yd, ft or ""
}

// None tells whether nothing was said.
func (a *Amount) None() bool {
	return a.Reps == 0 && a.Hold == 0 && a.Breaths == 0 && a.Seconds == 0 && a.Trips == 0 && a.Laps == 0 &&
		len(a.Parts) == 0
}

// Step is what is done in turn with others.
type Step struct {
	Name   string
	Amount Amount
}

// Reading is what a line is taken to mean.
type Reading struct {
	Is      Kind
	Name    string
	Amount  Amount
	Who     []string
	Not     []string // who of them does not
	Leader  string
	Where   string
	At      *int // minutes to go
	From    *int
	To      *int
	Done    *int
	Before  string
	After   string
	Right   bool // straight after
	Every   string
	Cues    []string
	Steps   []Step
	Times   float64
	Choices []string
	Score   float64                   // how well the line is explained; below 0 hardly
	Moves   bool                      // its name is a movement's
	Numbers int                       // that no role explains
	One     bool                      // its words say that one thing is done
	Sure    float64                   // how likely it is that the line is of this kind, from 0 to 1
	Kinds   [len(KindLetters)]float64 // how likely it is of each kind
}

// Span is a part of a line, in bytes, and what it gave: name, dose, who, leader, where, when, cue.
type Span struct {
	From int    `json:"from"`
	To   int    `json:"to"`
	Gave string `json:"gave"`
}

var listMark = pattern.Must(`^\s*(?:[-*•·–—>#]+\s+|\(?\d{1,2}[.)]\s+|\d{1,2} - |\(?[A-Za-z][.)]\s+|[IVX]{1,4}\.\s+)`)

// asks are words with which something is asked of people.
var asks = pattern.Must(`(?i)\b(?:please|pls|plz)\b`)

// longestLine is of how many words and signs a line may be that is read.
const longestLine = 90

// Line is the reading that explains a line best.
func Line(line string, known Lexicon) Reading { return Readings(line, known)[0] }

// heard is a line with its words, its marks and its chunks.
func heard(line string, known Lexicon) *hearing {
	line = strings.ToValidUTF8(line, "")
	cut := len(listMark.FindString(line))
	h := &hearing{}
	h.Lexicon, h.line, h.words = known, line, split(line[cut:])
	for i := range h.words {
		h.words[i].from += cut
		h.words[i].to += cut
	}
	h.asks = asks.MatchString(line)
	if len(h.words) == 0 || len(h.words) > longestLine {
		return h
	}
	h.mark()
	h.chunk()
	h.settle()
	return h
}

// Readings are the readings of a line, one of each kind that it can be, the best first.
func Readings(line string, known Lexicon) (list []Reading) {
	h := heard(line, known)
	if len(h.words) == 0 || len(h.words) > longestLine {
		return []Reading{{Is: Remark}}
	}
	return h.sorted(h.readings())
}

// readings are those of a line that has words, by hand-set scores.
func (h *hearing) readings() (list []Reading) {
	for _, r := range []Reading{h.single(), h.ladder(), h.combo(), h.choice(), h.heading(), h.fixed(), h.remark()} {
		if r.Is != "" {
			list = append(list, r)
		}
	}
	if len(list) > 0 && list[0].Is == Drill {
		if r := h.sharing(list[0]); r.Is != "" {
			return append([]Reading{r}, slices.DeleteFunc(list, func(r Reading) bool { return r.Is.several() })...)
		}
	}
	if h.inRow {
		list = slices.DeleteFunc(list, func(r Reading) bool { return r.Is.several() })
	}
	if !slices.ContainsFunc(list, func(r Reading) bool { return r.Is.several() }) {
		if r := h.several(); r.Is != "" {
			for _, other := range list {
				r.Score = max(r.Score, other.Score)
			}
			list = append(list, r)
		}
	}
	slices.SortStableFunc(list, func(a, b Reading) int { return cmp.Compare(b.Score, a.Score) })
	return list
}
