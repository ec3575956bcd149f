package planner

import (
	"context"

	"cuestart/core/club"
)

// HandOut makes a link to a page of a routine's drills, for whoever has it. It fails with
// ErrNotFound.
func (p *Planner) HandOut(ctx context.Context, by Account, routine uint64) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	if _, err := p.Routine(ctx, by.ClubID, routine); err != nil {
		return err
	}
	_, err := p.store.HandOut(ctx, by.ClubID, routine)
	return err
}

// HandedOut is the link by which a routine is handed out; "": it is not.
func (p *Planner) HandedOut(ctx context.Context, clubID, routine uint64) (token string, err error) {
	return p.store.HandedOut(ctx, clubID, routine)
}

// Handed is the routine that a link hands out, as it is kept now, and the club whose it
// is. It fails with ErrNotFound, also where the routine is kept no more.
func (p *Planner) Handed(ctx context.Context, token string) (clubID uint64, routine *Entry[club.Routine], err error) {
	clubID, id, err := p.store.Handed(ctx, token)
	if err != nil {
		return 0, nil, err
	}
	routine, err = p.Routine(ctx, clubID, id)
	return clubID, routine, err
}

// WithdrawHanded ends the link by which a routine is handed out.
func (p *Planner) WithdrawHanded(ctx context.Context, by Account, routine uint64) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	return p.store.WithdrawHanded(ctx, by.ClubID, routine)
}
