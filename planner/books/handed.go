package books

import (
	"context"

	"cuestart/core/club"
	"cuestart/planner"
)

// HandOut makes a link to a page of a routine's drills, for whoever has it. It fails with
// ErrNotFound.
func (bk *Books) HandOut(ctx context.Context, by planner.Account, routine uint64) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	if _, err := bk.Routine(ctx, by.ClubID, routine); err != nil {
		return err
	}
	_, err := bk.clubs.HandOut(ctx, by.ClubID, routine)
	return err
}

// HandedOut is the link by which a routine is handed out; "": it is not.
func (bk *Books) HandedOut(ctx context.Context, clubID, routine uint64) (token string, err error) {
	return bk.clubs.HandedOut(ctx, clubID, routine)
}

// Handed is the routine that a link hands out, as it is kept now, and the club whose it
// is. It fails with ErrNotFound, also where the routine is kept no more.
func (bk *Books) Handed(ctx context.Context,
	token string) (clubID uint64, routine *planner.Entry[club.Routine], err error) {
	clubID, id, err := bk.clubs.Handed(ctx, token)
	if err != nil {
		return 0, nil, err
	}
	routine, err = bk.Routine(ctx, clubID, id)
	return clubID, routine, err
}

// WithdrawHanded ends the link by which a routine is handed out.
func (bk *Books) WithdrawHanded(ctx context.Context, by planner.Account, routine uint64) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	return bk.clubs.WithdrawHanded(ctx, by.ClubID, routine)
}
