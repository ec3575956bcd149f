// Package check looks through a fitted plan as an experienced coach would and
// says what is wrong, where, why, and what would mend it.
//
// Every check is a row of [Rules]. Most look at what each player really does, at that player's
// own list; those of requests look at what was asked for, before it was fitted. A [Finding] names
// the rule and the place; a mend is a change of the plan that makes it go away without taking
// anything from anybody else, which [Mend] makes sure of by fitting and checking the changed
// plan.
package check

import (
	"context"
	"errors"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/core/warmth"
)

// Severity says how much a finding matters.
type Severity string

// The severities. A stop should not go out to players as it is.
const (
	Stop Severity = "stop"
	Warn Severity = "warn"
	Note Severity = "note"
)

// Rule is one check.
type Rule struct {
	ID       string
	Severity Severity
	Why      string // the reason, with its source where it rests on one
	find     func(*reading)
}

// Finding is one thing that a rule found.
type Finding struct {
	Rule     string   `json:"rule"`
	Severity Severity `json:"severity"`
	What     string   `json:"what"`
	Where    string   `json:"where,omitempty"`   // a block's id, or ""
	Players  []string `json:"players,omitempty"` // whom it concerns, if not all
	Why      string   `json:"why"`
	Mend     string   `json:"mend,omitempty"` // what mending it would do; "": nothing is offered
	Reason   string   `json:"kept,omitempty"` // why the coach keeps it as it is; "": it stands

	mends []change
	all   bool // it is said once for several places
}

// Excusable tells whether a coach may keep the finding as it is, with a reason.
func (f Finding) Excusable() bool { return Excusable(f.Rule) }

// Excusable tells whether a coach may keep what that rule finds. What medical
// staff ruled is never overruled.
func Excusable(rule string) bool { return rule != rulingRule }

// rulingRule is the id of the rule that looks after medical staff's rulings.
const rulingRule = "restriction"

// change is something that a mend may do to a plan; it reports whether it found anything to
// change.
type change func(*plan.Document) bool

// ReadsEarlier is how many earlier plans the checks read.
const ReadsEarlier = sameTooOften

// Input is what is checked.
type Input struct {
	Document *plan.Document
	Schedule *schedule.Schedule
	Book     []drill.Drill   // to take drills from for mends; may be empty
	Strands  []warmth.Strand // of the document on its day; nil: they are worked out
	Sport    string          // its key, for drills that belong to one
	Own      []string        // what every warm-up of the club must have, in its words; nil: what is usual
	Earlier  [][]string      // the [plan.Document.Content] of plans of the same kind that ran before, the latest first
	Steps    int             // of each fit of a mend, as in runin.Fit; 0: by the size of the problem
}

// Check looks through a fitted plan: the gravest findings first, within a
// severity in the order of Rules. In a plan that has no block yet there is nothing to
// find.
func Check(in Input) []Finding {
	if len(in.Document.Blocks) == 0 {
		return nil
	}
	r, own := read(in), written(in.Document)
	for i := range Rules {
		if r.rule = &Rules[i]; own && slices.Contains(ofPrinciple, r.rule.ID) {
			continue
		}
		from := len(r.findings)
		r.rule.find(r)
		r.once(from)
	}
	rank := map[Severity]int{Stop: 0, Warn: 1, Note: 2}
	slices.SortStableFunc(r.findings, func(a, b Finding) int { return rank[a.Severity] - rank[b.Severity] })
	return r.findings
}

// ofPrinciple are the rules that say what a warm-up usually has: of a coach's own list they
// are told among the principles alone.
var ofPrinciple = []string{orderRule, "plane", "joint"}

// written tells whether a coach wrote of the plan.
func written(d *plan.Document) bool {
	for b := range d.AllBlocks() {
		if slices.ContainsFunc(b.Items, func(i plan.Item) bool { return i.Written }) {
			return true
		}
	}
	return false
}

// read makes a plan ready for the rules.
func read(in Input) *reading {
	r := &reading{Input: in, day: today.Apply(in.Document), carried: map[string]drill.Load{}}
	all := in.Schedule.All(r.day)
	r.blocks, r.catchUps = all[:len(r.day.Blocks)], all[len(r.day.Blocks):]
	strands := in.Strands
	if strands == nil {
		strands = warmth.Strands(r.day, in.Schedule)
	}
	r.strands = warmth.Personal(r.day, in.Schedule, strands)
	for k := range r.strands {
		load := r.strands[k].Load()
		for _, p := range r.strands[k].Players {
			r.carried[p] = load
		}
	}
	return r
}

// Tally is how many findings stand: those that a coach keeps are not counted.
type Tally struct{ Stops, Warns, Notes int }

// Count counts findings.
func Count(findings []Finding) (t Tally) {
	for _, f := range findings {
		switch {
		case f.Reason != "":
		case f.Severity == Stop:
			t.Stops++
		case f.Severity == Warn:
			t.Warns++
		default:
			t.Notes++
		}
	}
	return t
}

// ErrNoMend is returned where no single change makes the finding go away.
var ErrNoMend = errors.New("no single change mends this without spoiling something else: change it by hand")

// Mend returns a changed copy of the document in which the finding of that rule at that place is
// gone, with what was done in a few words. It raises no stop and takes no block away that is not
// its own to take; of changes that do, one that raises no warning is preferred. It fails with
// ErrNoMend where there is none.
func Mend(ctx context.Context, in Input, rule, where string) (*plan.Document, string, error) {
	before := Check(in)
	i := slices.IndexFunc(before, func(f Finding) bool { return f.Rule == rule && f.Where == where })
	if i < 0 {
		return nil, "", ErrNoMend
	}
	var second *plan.Document
	for _, apply := range before[i].mends {
		next := in.Document.Clone()
		next.Upgrade()
		if !apply(next) || next.Validate() != nil || rule != orderRule && undoes(in.Document, next) {
			continue
		}
		next.Follow(in.Document)
		fitted, err := schedule.Fit(ctx, next, in.Steps)
		if err != nil || in.Schedule.Result.Feasible && !fitted.Result.Feasible ||
			in.Schedule.Result.Feasible && loses(in, next, fitted) {
			continue
		}
		after := Check(Input{Document: next, Schedule: fitted, Book: in.Book, Earlier: in.Earlier, Steps: in.Steps})
		if before[i].remains(after) || raises(Stop, before, after) {
			continue
		}
		if !raises(Warn, before, after) {
			return next, in.Document.Difference(next), nil
		}
		if second == nil {
			second = next
		}
	}
	if second == nil {
		return nil, "", ErrNoMend
	}
	return second, in.Document.Difference(second), nil
}

// undoes tells whether the changed plan has blocks in another order, or held
// elsewhere: what a coach did by hand is theirs to undo.
func undoes(document, next *plan.Document) bool {
	was := document.Clone()
	was.Upgrade()
	at := 0
	for i := range next.Blocks {
		b := &next.Blocks[i]
		n := slices.IndexFunc(was.Blocks, func(w plan.Block) bool { return w.ID == b.ID })
		if n < 0 {
			continue
		}
		if n < at || was.HeldWords(&was.Blocks[n]) != next.HeldWords(b) {
			return true
		}
		at = n
	}
	return false
}

// remains tells whether the finding is still there.
func (f Finding) remains(after []Finding) bool {
	return slices.ContainsFunc(after, func(g Finding) bool {
		return g.Rule == f.Rule &&
			(f.all || g.Where == f.Where && (f.Where != "" || len(f.Players) == 0 ||
				len(shared(f.Players, g.Players)) > 0))
	})
}

// raises tells whether there is a finding of that severity that was not there.
func raises(severity Severity, before, after []Finding) bool {
	return slices.ContainsFunc(after, func(f Finding) bool {
		return f.Severity == severity &&
			!slices.ContainsFunc(before,
				func(g Finding) bool { return g.Rule == f.Rule && (g.Where == f.Where || f.all) })
	})
}

// loses tells whether a block that is kept now, and that the changed plan still
// asks for, is left out there.
func loses(in Input, next *plan.Document, fitted *schedule.Schedule) bool {
	now := in.Schedule.Blocks(in.Document)
	return slices.ContainsFunc(fitted.Blocks(next), func(b schedule.Block) bool {
		return !b.Kept && slices.ContainsFunc(now, func(was schedule.Block) bool { return was.ID == b.ID && was.Kept })
	})
}
