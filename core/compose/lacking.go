package compose

import (
	"context"
	"slices"
	"strings"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// completed is the plan in which each joint and plane that is still untouched is taken in
// by one drill in the place of another, where nothing else gets worse for it.
func (c *composer) completed(ctx context.Context, m *Made) (*Made, error) {
	for _, lack := range c.lacks(m, m.Document) {
		next := c.takeIn(m, &lack)
		if next == nil {
			continue
		}
		made, err := c.fitted(ctx, next)
		if err != nil {
			return nil, err
		}
		was, tally := check.Count(m.Findings), check.Count(made.Findings)
		if tally.Stops <= was.Stops && tally.Warns <= was.Warns &&
			len(c.lacks(made, next)) < len(c.lacks(m, m.Document)) {
			m = made
		}
	}
	c.doc = m.Document
	return m, nil
}

// lacks are the joints and planes that a document lacks, fitted as m is, or what the club says that
// every warm-up must have; as often as drills of it are missing.
func (d *day) lacks(m *Made, doc *plan.Document) (list []check.Principle) {
	for _, principle := range check.Principles(check.Input{Document: doc, Schedule: m.Schedule, Sport: d.Sport.Key,
		Own: d.Sport.PrinciplesOf(d.Kind)}) {
		if principle.Lacks() && strings.Contains(principle.ID, " ") {
			list = append(list, slices.Repeat([]check.Principle{principle}, principle.Missing)...)
		}
	}
	return list
}

// takeIn is the plan with a drill that touches what is lacking in the place of one that can
// be spared; nil where there is none.
func (c *composer) takeIn(m *Made, lack *check.Principle) *plan.Document {
	own := strings.HasPrefix(lack.ID, "own ")
	touches := func(k drill.Drill) bool { return lack.Is(&k) }
	before := len(c.lacks(m, m.Document))
	warm := false
	for _, b := range m.Schedule.Blocks(m.Document) {
		if !b.Kept || b.Phase == drill.Potentiate && !own || b.Phase == drill.Own ||
			!slices.Contains(b.Who, plan.Everyone) {
			continue
		}
		for n := range b.Items {
			seconds := int(b.Items[n].Drill.Work(b.Items[n].Drill.Range.Target, b.Group))
			k := c.best(b.Phase, touches, max(30, seconds), b.Group, newCoverage(), warm)
			if k == nil {
				break
			}
			next := m.Document.Clone()
			next.Block(b.ID).Items[n] = c.item(*k)
			if next.Validate() == nil && len(c.lacks(m, next)) < before {
				return next
			}
		}
		warm = warm || b.Phase == drill.Raise
	}
	return nil
}
