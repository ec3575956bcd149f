package boards

import (
	"context"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/keep"
)

// TakeRulings brings a plan, as it is by now, up to what medical staff have ruled. It fails
// with ErrNotFound.
func (bd *Boards) TakeRulings(ctx context.Context, by planner.Account, id uint64) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	revision, _, err := bd.sessions.InForce(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	all, err := bd.keep.Ruled(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	b, err := bd.books.Book(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	return bd.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		keep.Hold(d, all, b)
		return "what medical staff ruled", nil
	})
}
