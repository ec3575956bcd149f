// Package check looks through a fitted plan as an experienced coach would and
// says what is wrong, where, why, and what would mend it.
//
// Every check is a row of [Rules]. A [Finding] names the rule and the place; a
// mend is a change of the plan that makes it go away without raising a new
// stop, which [Mend] makes sure of by fitting and checking the changed plan.
package check

import (
	"context"
	"errors"
	"iter"
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
}

// Excusable tells whether a coach may keep the finding as it is, with a reason.
func (f Finding) Excusable() bool { return Excusable(f.Rule) }

// Excusable tells whether a coach may keep what that rule finds. What medical
// staff ruled is never overruled.
func Excusable(rule string) bool { return rule != rulingRule }

// rulingRule is the id of the rule that looks after medical staff's rulings.
const rulingRule = "restriction"

// change is something that a mend may do to a plan; it reports whether it
// found anything to change.
type change func(*plan.Document) bool

// ReadsEarlier is how many earlier plans the checks read.
const ReadsEarlier = sameTooOften

// Input is what is checked.
type Input struct {
	Document *plan.Document
	Schedule *schedule.Schedule
	Book     []drill.Drill   // to take drills from for mends; may be empty
	Strands  []warmth.Strand // of the document on its day; nil: they are worked out
	Earlier  [][]string      // the [plan.Document.Content] of plans of the same kind that ran before, the latest first
	Steps    int             // of each fit of a mend, as in runin.Fit; 0: by the size of the problem
}

// Check looks through a fitted plan: the gravest findings first, within a
// severity in the order of Rules.
func Check(in Input) []Finding {
	r := &reading{Input: in, day: today.Apply(in.Document)}
	r.blocks, r.strands = in.Schedule.Blocks(r.day), in.Strands
	if r.strands == nil {
		r.strands = warmth.Strands(r.day, in.Schedule)
	}
	r.carried = schedule.Loads(r.blocks)
	for i := range Rules {
		r.rule = &Rules[i]
		r.rule.find(r)
	}
	rank := map[Severity]int{Stop: 0, Warn: 1, Note: 2}
	slices.SortStableFunc(r.findings, func(a, b Finding) int { return rank[a.Severity] - rank[b.Severity] })
	return r.findings
}

// Stops counts the findings that are stops and not kept.
func Stops(findings []Finding) (n int) {
	for _, f := range findings {
		if f.Severity == Stop && f.Reason == "" {
			n++
		}
	}
	return n
}

// ErrNoMend is returned where no single change makes the finding go away.
var ErrNoMend = errors.New("no single change mends this without spoiling something else")

// Mend returns a changed copy of the document in which the finding of that
// rule at that place is gone and no new stop has come, with what was done in a
// few words; or ErrNoMend.
func Mend(ctx context.Context, in Input, rule, where string) (*plan.Document, string, error) {
	before := Check(in)
	i := slices.IndexFunc(before, func(f Finding) bool { return f.Rule == rule && f.Where == where })
	if i < 0 {
		return nil, "", ErrNoMend
	}
	for _, apply := range before[i].mends {
		next := in.Document.Clone()
		if !apply(next) {
			continue
		}
		fitted, err := schedule.Fit(ctx, next, in.Steps)
		if err != nil || in.Schedule.Result.Feasible && !fitted.Result.Feasible {
			continue
		}
		after := Check(Input{Document: next, Schedule: fitted, Book: in.Book, Earlier: in.Earlier, Steps: in.Steps})
		if !newStop(before, after) && !slices.ContainsFunc(after, func(f Finding) bool { return f.Rule == rule && f.Where == where }) {
			return next, before[i].Mend, nil
		}
	}
	return nil, "", ErrNoMend
}

func newStop(before, after []Finding) bool {
	return slices.ContainsFunc(after, func(f Finding) bool {
		return f.Severity == Stop && !slices.ContainsFunc(before, func(g Finding) bool { return g.Rule == f.Rule && g.Where == f.Where })
	})
}

// reading is a plan made ready for the rules.
type reading struct {
	Input
	day      *plan.Document   // with today's factors worked in
	blocks   []schedule.Block // of day
	strands  []warmth.Strand
	carried  map[string]drill.Load // what the plan leaves in each player
	rule     *Rule
	findings []Finding
}

// add reports a finding of the present rule. A second one at the same place
// is taken as one with the first.
func (r *reading) add(where, what string, players []string, mend string, changes ...change) {
	for i := range r.findings {
		if f := &r.findings[i]; f.Rule == r.rule.ID && f.Where == where {
			for _, p := range players {
				if !slices.Contains(f.Players, p) {
					f.Players = append(f.Players, p)
				}
			}
			return
		}
	}
	f := Finding{Rule: r.rule.ID, Severity: r.rule.Severity, What: what, Where: where, Players: slices.Clone(players), Why: r.rule.Why, mends: changes}
	if len(changes) > 0 {
		f.Mend = mend
	}
	for _, e := range r.Document.Exceptions {
		if e.Rule == f.Rule && e.Where == where && f.Excusable() {
			f.Reason = e.Reason
		}
	}
	r.findings = append(r.findings, f)
}

// kept are the blocks that the schedule keeps.
func (r *reading) kept() iter.Seq[*schedule.Block] {
	return func(yield func(*schedule.Block) bool) {
		for i := range r.blocks {
			if r.blocks[i].Kept && !yield(&r.blocks[i]) {
				return
			}
		}
	}
}

// drills are the drills of the kept blocks, by block and index.
func (r *reading) drills() iter.Seq2[*schedule.Block, int] {
	return func(yield func(*schedule.Block, int) bool) {
		for b := range r.kept() {
			for n := range b.Items {
				if !yield(b, n) {
					return
				}
			}
		}
	}
}

// work are the stretches of drill work of each strand, by strand and index.
func (r *reading) work() iter.Seq2[*warmth.Strand, int] {
	return func(yield func(*warmth.Strand, int) bool) {
		for k := range r.strands {
			for n := range r.strands[k].Stretches {
				if r.strands[k].Stretches[n].Drill != nil && !yield(&r.strands[k], n) {
					return
				}
			}
		}
	}
}

// names writes players for a sentence: "Mara T.", "Mara T. and 3 more".
func (r *reading) names(ids []string) string {
	if len(ids) == len(r.Document.Players) {
		return "everybody"
	}
	p := r.Document.Player(ids[0])
	if p == nil {
		return "a player"
	}
	switch len(ids) {
	case 1:
		return p.ShortName()
	case 2:
		if q := r.Document.Player(ids[1]); q != nil {
			return p.ShortName() + " and " + q.ShortName()
		}
	}
	return p.ShortName() + " and " + plural(len(ids)-1, "more", "more")
}
