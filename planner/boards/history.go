package boards

import (
	"context"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

// Step is a change of a session's plan.
type Step = store.Step

// History returns the changes of a session's plan, the newest first. It fails with
// ErrNotFound.
func (bd *Boards) History(ctx context.Context, clubID, session uint64) ([]Step, error) {
	steps, err := bd.sessions.History(ctx, clubID, session)
	if err == nil && len(steps) == 0 {
		err = planner.ErrNotFound
	}
	return steps, err
}

// Since says what the plan of a session has otherwise than it had after a step. It fails
// with ErrNotFound.
func (bd *Boards) Since(ctx context.Context, clubID, session uint64, step int) (string, error) {
	now, err := bd.Session(ctx, clubID, session)
	if err != nil {
		return "", err
	}
	then, err := bd.sessions.PlanAt(ctx, session, step)
	if err != nil {
		return "", err
	}
	return then.Difference(now.Document), nil
}

// GoBack brings the plan of a session back to how it was after a step, as a further change
// that can be undone; what medical staff ruled since stays. It fails as [Boards.Change]
// does.
func (bd *Boards) GoBack(ctx context.Context, by planner.Account, session uint64, revision uint32, step int,
	said string) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	if _, err := bd.Session(ctx, by.ClubID, session); err != nil {
		return nil, err
	}
	then, err := bd.sessions.PlanAt(ctx, session, step)
	if err != nil {
		return nil, err
	}
	return bd.Change(ctx, by, session, revision, func(d *plan.Document) (string, error) {
		now := d.Clone()
		*d, d.Restrictions = *then.Clone(), nil
		for _, r := range then.Restrictions { // who is not in the plan any more keeps theirs
			if now.Player(r.Player) == nil {
				d.Restrictions = append(d.Restrictions, r)
			}
		}
		for _, r := range now.Restrictions {
			if d.Player(r.Player) != nil {
				d.Restrictions = append(d.Restrictions, r)
			}
		}
		return said, nil
	})
}
