package planner

import (
	"context"
	"fmt"

	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// Supposed is something that might come otherwise on the day, see [schedule.Supposed].
type Supposed = schedule.Supposed

// Variant is a board as it would be.
type Variant struct {
	*Board
	Said    string   // what was supposed
	Changes []string // what is otherwise than on the board, block by block
}

// Suppose shows the board of a session as it would be if something came otherwise; nothing
// is changed. It fails with [plan.Problems] where that cannot be, and with ErrNotFound.
func (p *Planner) Suppose(ctx context.Context, clubID uint64, b *Board, what Supposed) (*Variant, error) {
	d := b.Document.Clone()
	d.Upgrade()
	said, err := b.Schedule.Suppose(d, what)
	if err != nil {
		return nil, err
	}
	fitted, err := p.fit(ctx, d, p.begun(b.Session))
	if err != nil {
		return nil, err
	}
	is := *b.Session
	is.Document, is.Schedule, is.Revision = d, fitted, 0
	made, err := p.board(ctx, clubID, &is)
	if err != nil {
		return nil, err
	}
	return &Variant{made, said, b.Schedule.Differences(b.Document, d, fitted)}, nil
}

// TakeSupposed puts the plan in force as it would be if something came otherwise. It fails
// as [Planner.Change] does.
func (p *Planner) TakeSupposed(ctx context.Context, by Account, id uint64, revision uint32, what Supposed) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	session, err := p.session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		said, err := session.Schedule.Suppose(d, what)
		if err != nil {
			return "", err
		}
		return fmt.Sprintf("taken: %s", said), p.yetToCome(d.Start)
	})
}
