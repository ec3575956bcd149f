package check

import (
	"fmt"
	"iter"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/warmth"
)

// reading is a plan made ready for the rules.
type reading struct {
	Input
	day      *plan.Document   // with today's factors worked in
	blocks   []schedule.Block // of day
	catchUps []schedule.Block // short lists of who comes late
	strands  []warmth.Strand  // players who really do the same
	carried  map[string]drill.Load
	asked    *requests // once they are read
	rule     *Rule
	findings []Finding
}

// add reports a finding of the present rule. A second one at the same place is taken as one with
// the first.
func (r *reading) add(where, what string, players []string, mend string, changes ...change) {
	for i := range r.findings {
		if f := &r.findings[i]; f.Rule == r.rule.ID && f.Where == where {
			f.Players = appendNew(f.Players, players...)
			return
		}
	}
	f := Finding{Rule: r.rule.ID, Severity: r.rule.Severity, What: what, Where: where, Players: slices.Clone(players),
		Why: r.Document.Measure.Text(r.rule.Why), mends: changes}
	if len(changes) > 0 {
		f.Mend = mend
	}
	f.Reason = r.excuse(f.Rule, where)
	r.findings = append(r.findings, f)
}

// excuse is the reason for which a coach keeps what the rule finds there, or "".
func (r *reading) excuse(rule, where string) string {
	for _, e := range r.Document.Exceptions {
		if e.Rule == rule && (e.Where == where || e.Where == everywhere) && Excusable(rule) {
			return e.Reason
		}
	}
	return ""
}

const (
	everywhere = "*" // the place of a finding that is said once for several
	severally  = 3   // from how many places on that is done
)

// once says a finding of several places once, instead of as often.
func (r *reading) once(from int) {
	same := r.findings[from:]
	if len(same) < severally || r.rule.ID == rulingRule {
		return
	}
	finding := Finding{Rule: same[0].Rule, Severity: same[0].Severity, Where: everywhere, Why: same[0].Why,
		Mend: same[0].Mend, all: true}
	var tries [][]change
	for _, f := range same {
		finding.Players = appendNew(finding.Players, f.Players...)
		tries = append(tries, f.mends)
		if f.Mend != finding.Mend {
			finding.Mend = "Mend all " + fmt.Sprint(len(same))
		}
	}
	finding.What = same[0].What + "; the same " + plural(len(same)-1, "time more", "times more")
	if names := r.named(same[1:]); names != "" {
		finding.What = same[0].What + "; likewise " + names
	}
	if finding.Mend != "" {
		finding.mends = together(tries)
	}
	finding.Reason = r.excuse(finding.Rule, everywhere)
	r.findings = append(r.findings[:from], finding)
}

// named are the blocks of findings, by name; "" where one is of none.
func (r *reading) named(findings []Finding) string {
	var names []string
	for _, f := range findings {
		b := r.Document.Block(f.Where)
		if b == nil {
			return ""
		}
		names = append(names, b.Name)
	}
	const most = 4
	if len(names) > most {
		names = append(names[:most-1], plural(len(names)-most+1, "more", "more"))
	}
	return listed(names)
}

// together makes of the changes of several places such that change all of them: the
// first of each, then the second.
func together(tries [][]change) (changes []change) {
	for n := range 2 {
		changes = append(changes, func(d *plan.Document) bool {
			done := false
			for _, one := range tries {
				if n < len(one) {
					done = one[n](d) || done
				}
			}
			return done
		})
	}
	return changes
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

// work are the stretches of drill work of each strand, by strand and index, but for those
// of short lists.
func (r *reading) work() iter.Seq2[*warmth.Strand, int] {
	return func(yield func(*warmth.Strand, int) bool) {
		for k := range r.strands {
			for n, x := range r.strands[k].Stretches {
				if x.Drill != nil && r.Document.Block(x.Block.ID) != nil && !yield(&r.strands[k], n) {
					return
				}
			}
		}
	}
}

// due is when a strand's work has to end, and no later than everybody's: whose
// turn comes later warms up with the others first.
func (in *Input) due(s *warmth.Strand) clock.Offset {
	return min(s.Due, clock.Offset(-in.Document.Margin))
}

// content tells whether players need no more than their own short version: they
// come late, and have one.
func (r *reading) content(players []string) bool {
	p := r.Document.Player(players[0])
	return p != nil && p.Late > 0 && r.ownBlock(p.ID)
}

// ownBlock tells whether a player is in a kept block that is for few: a catch-up of
// their own.
func (r *reading) ownBlock(player string) bool {
	if slices.ContainsFunc(r.catchUps, func(b schedule.Block) bool { return b.Has(player) }) {
		return true
	}
	for b := range r.kept() {
		missed := slices.ContainsFunc(b.Missed,
			func(m missed) bool { return m.Player == player && 2*m.Seconds > b.Length() })
		if b.Has(player) && len(b.Members) <= max(1, len(r.Document.Players)/4) && !missed {
			return true
		}
	}
	return false
}

// names writes players for a sentence: "Mara T.", "Mara T. and 3 others".
func (r *reading) names(ids []string) string {
	if len(ids) == len(r.Document.Players) && len(ids) > 1 {
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
	return p.ShortName() + " and " + plural(len(ids)-1, "other", "others")
}

// Names begins a sentence with players.
func (r *reading) Names(ids []string) string {
	text := r.names(ids)
	return strings.ToUpper(text[:1]) + text[1:]
}

func plural(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// listed writes a list for a sentence: "a, b and c".
func listed(names []string) string {
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}

func appendNew(list []string, more ...string) []string {
	for _, one := range more {
		if !slices.Contains(list, one) {
			list = append(list, one)
		}
	}
	return list
}

func anyOf(list []string, wanted string) bool { return slices.Contains(list, wanted) }

// lasting writes seconds for a sentence: "45 s", "2:30 min".
func lasting(seconds int) string { return clock.Lasting(seconds) }
