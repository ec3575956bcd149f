// Package conduct says how a session stands while it runs. What is pressed at the pitch side
// is an [Event]; the plan as it was at the first press, with all events in the order of
// time, gives a [Stand]: what is done, under way and to come, who is waited for, what is
// different from the plan. Events are never changed and never lost, so phones that were
// apart join by putting theirs together.
package conduct

import (
	"cmp"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// Kind is what was pressed.
type Kind string

// The kinds of event.
const (
	Begin  Kind = "begin"  // a block starts now
	Done   Kind = "done"   // a block is over
	Skip   Kind = "skip"   // a block is not done, or stops here
	Again  Kind = "again"  // a block is done once more, from now on
	Change Kind = "change" // something is different, and the plan is as it was fitted again
	Tick   Kind = "tick"   // a try of a cell of a grid
	Note   Kind = "note"   // a word on a block or a player, for the log and for next time
	Line   Kind = "line"   // a list with a line of its own starts: half-time, the bench, after the end
	Back   Kind = "back"   // an event is taken back
)

var kinds = []Kind{Begin, Done, Skip, Again, Change, Tick, Note, Line, Back}

// Event is something that was pressed while a session runs.
type Event struct {
	ID      string     `json:"id"`                // names the press: one that arrives twice is one
	By      string     `json:"by"`                // who pressed
	Account uint64     `json:"account,omitempty"` // of who pressed, as the phone knew it; 0: it did not say
	At      int64      `json:"at"`                // Unix milliseconds, by the server's time as the phone knew it
	After   string     `json:"after,omitempty"`   // the last event about the same thing that the phone knew
	Kind    Kind       `json:"kind"`
	Block   string     `json:"block,omitempty"`
	Player  string     `json:"player,omitempty"`
	List    string     `json:"list,omitempty"`
	Item    int        `json:"item,omitempty"`
	Cell    int        `json:"cell,omitempty"`
	Tries   int        `json:"tries,omitempty"`  // tries that a tick adds; -1: the cell is to be come back to
	To      int64      `json:"to,omitempty"`     // of a list: its line, Unix seconds
	Of      string     `json:"of,omitempty"`     // id of the event that is taken back
	Says    string     `json:"says,omitempty"`   // a note
	Is      *Different `json:"is,omitempty"`     // what is different
	Placed  []Place    `json:"placed,omitempty"` // where the blocks are from then on
}

// Place is where a block was put when the plan was fitted again, by the clock, so that it is
// the same whatever else was changed.
type Place struct {
	Block   string `json:"block"`
	From    int64  `json:"from"` // Unix seconds
	To      int64  `json:"to"`   // Unix seconds
	Amounts []int  `json:"amounts,omitempty"`

	Less *schedule.Less `json:"less,omitempty"` // what is cut beside the amounts

	Kept  bool   `json:"kept,omitempty"`
	State State  `json:"state,omitempty"` // of what had begun: that stays as it was
	Why   string `json:"why,omitempty"`
}

// Longest texts of an event.
const (
	maxID   = 64
	MaxSays = 400
)

// Problem says what is wrong with an event as it came in, or "": whether the plan has what
// it names is judged where it is used.
func (e *Event) Problem() string {
	switch {
	case e.ID == "" || !named(e.ID) || !named(e.After) || !named(e.Of):
		return "it has no name"
	case !slices.Contains(kinds, e.Kind):
		return "nobody knows what was pressed"
	case len(e.Says) > MaxSays:
		return "it says too much"
	case len(e.Block) > 80 || len(e.Player) > 80 || len(e.List) > 80:
		return "it is about nothing in the plan"
	case e.At <= 0:
		return "it has no time"
	case e.Kind == Tick && (e.Item < 0 || e.Cell < 0 || e.Item >= plan.MaxItems || e.Cell > 200 || e.Tries < -1 ||
		e.Tries > 100):
		return "it ticks no cell"
	case e.Kind == Change && (e.Is == nil || len(e.Placed) > 2*plan.MaxBlocks):
		return "it says nothing that is different"
	case e.Kind != Change && (e.Is != nil || len(e.Placed) > 0):
		return "it says more than was pressed"
	case e.Is != nil:
		return e.Is.Problem()
	}
	return ""
}

// named tells whether a text may name an event, or is none: plain letters, figures and marks.
func named(text string) bool {
	return len(text) <= maxID && !strings.ContainsFunc(text, func(r rune) bool { return r < ' ' || r > '~' })
}

// About is what the event is about: two about the same thing that did not know of each
// other may disagree. "" where nothing can.
func (e *Event) About() string {
	switch e.Kind {
	case Begin, Done, Skip, Again:
		return "block " + e.Block
	case Change:
		return "plan"
	case Line:
		return "list " + e.List
	}
	return ""
}

// Join puts events of several phones together: each once, in the order of time, and of the
// same moment in that of their names, so that every phone comes to the same.
func Join(lists ...[]Event) (all []Event) {
	known := map[string]bool{}
	for _, list := range lists {
		for _, e := range list {
			if !known[e.ID] {
				known[e.ID] = true
				all = append(all, e)
			}
		}
	}
	slices.SortFunc(all, func(a, b Event) int { return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.ID, b.ID)) })
	return all
}

// Standing are the events that were not taken back. A knock to the head is not taken back
// at the pitch side.
func Standing(events []Event) []Event {
	gone := map[string]bool{}
	for _, e := range events {
		if e.Kind == Back {
			gone[e.Of] = true
		}
	}
	return slices.DeleteFunc(slices.Clone(events), func(e Event) bool {
		return e.Kind == Back || gone[e.ID] && !(e.Is != nil && e.Is.Why == Head)
	})
}

// Dispute is two events about the same thing that say otherwise, neither of which knew of
// the other. The later one holds.
type Dispute struct{ Held, Other Event }

// Disputes finds them, in the order of time.
func Disputes(events []Event) (list []Dispute) {
	last := map[string]int{}
	for i, e := range events {
		about := e.About()
		if about == "" {
			continue
		}
		if n, met := last[about]; met {
			if was := events[n]; e.After != was.ID && e.By != was.By && !agree(&was, &e) {
				list = append(list, Dispute{Held: e, Other: was})
			}
		}
		last[about] = i
	}
	return list
}

// near is within how many milliseconds two presses of the same thing are one.
const near = 15_000

// agree tells whether two events come to the same.
func agree(a, b *Event) bool {
	if a.Kind != b.Kind || a.Kind == Change && !a.Is.same(b.Is) {
		return false
	}
	return a.Kind == Change || a.Kind == Skip || b.At-a.At < near
}

// offset is a Unix second as a plan that starts at start has it.
func offset(unix, start int64) clock.Offset { return clock.Offset(unix - start) }
