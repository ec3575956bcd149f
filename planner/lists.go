package planner

import (
	"context"
	"slices"

	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// Lists are the plan's lists, each timed from its own line.
func (b *Board) Lists() []schedule.Line { return schedule.Lists(b.Document) }

// FillList puts into a list of the plan what one of its kind usually holds, and adds the
// list where it is not there. It fails as [Planner.Change] does.
func (p *Planner) FillList(ctx context.Context, by Account, id uint64, revision uint32, when plan.When) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	session, err := p.session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	brief, err := p.briefOf(ctx, by.ClubID, session.Document)
	if err != nil {
		return nil, err
	}
	usual, err := compose.Usual(brief, when)
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		for _, b := range usual {
			if bench := slices.IndexFunc(d.Units, func(u plan.Unit) bool { return u.Name == plan.Bench }); when == plan.OnBench && bench >= 0 {
				b.Who = []string{d.Units[bench].ID}
			}
			if _, err := d.InsertInto(when, b); err != nil {
				return "", err
			}
		}
		return "what is usual", nil
	})
}
