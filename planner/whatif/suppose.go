package whatif

import (
	"context"
	"fmt"

	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// Supposed is something that might come otherwise on the day, see [schedule.Supposed].
type Supposed = schedule.Supposed

// Variant is a board as it would be.
type Variant struct {
	*boards.Board
	Said    string   // what was supposed
	Changes []string // what is otherwise than on the board, block by block
}

// Suppose shows the board of a session as it would be if something came otherwise; nothing
// is changed. It fails with [plan.Problems] where that cannot be, and with ErrNotFound.
func (wi *WhatIf) Suppose(ctx context.Context, clubID uint64, b *boards.Board, what Supposed) (*Variant, error) {
	d := b.Document.Clone()
	d.Upgrade()
	said, err := b.Schedule.Suppose(d, what)
	if err != nil {
		return nil, err
	}
	fitted, err := wi.boards.Fit(ctx, d, wi.boards.Begun(b.Session))
	if err != nil {
		return nil, err
	}
	session := *b.Session
	session.Document, session.Schedule, session.Revision = d, fitted, 0
	board, err := wi.boards.Show(ctx, clubID, &session)
	if err != nil {
		return nil, err
	}
	return &Variant{board, said, b.Schedule.Differences(b.Document, d, fitted)}, nil
}

// TakeSupposed puts the plan in force as it would be if something came otherwise. It fails
// as [boards.Boards.Change] does.
func (wi *WhatIf) TakeSupposed(ctx context.Context, by planner.Account, id uint64, revision uint32,
	what Supposed) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	session, err := wi.boards.Session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	return wi.boards.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		said, err := session.Schedule.Suppose(d, what)
		if err != nil {
			return "", err
		}
		return fmt.Sprintf("taken: %s", said), boards.YetToCome(d.Start, wi.base.Now())
	})
}
