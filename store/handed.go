package store

import (
	"context"
	"database/sql"
	"errors"

	"cuestart/store/db"
)

// HandOut makes the link by which a routine of a club is handed out, or returns the one
// that there is.
func (s Clubs) HandOut(ctx context.Context, clubID, routine uint64) (token string, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		token, err = q.HandedOut(ctx, db.HandedOutParams{ClubID: clubID, Routine: routine})
		if errors.Is(err, sql.ErrNoRows) {
			token = newToken()
			return q.AddHandedOut(ctx, db.AddHandedOutParams{Token: token, ClubID: clubID, Routine: routine})
		}
		return err
	})
	return token, err
}

// HandedOut is the link by which a routine is handed out; "": it is not.
func (s Clubs) HandedOut(ctx context.Context, clubID, routine uint64) (token string, err error) {
	token, err = s.queries.HandedOut(ctx, db.HandedOutParams{ClubID: clubID, Routine: routine})
	if errors.Is(err, sql.ErrNoRows) {
		return "", nil
	}
	return token, err
}

// Handed is what a link hands out: a routine of a club. It fails with ErrNotFound where
// the link is none, or no longer good.
func (s Clubs) Handed(ctx context.Context, token string) (clubID, routine uint64, err error) {
	if !isToken(token) {
		return 0, 0, ErrNotFound
	}
	row, err := s.queries.Handed(ctx, token)
	return row.ClubID, row.Routine, known(err)
}

// WithdrawHanded ends the links by which a routine is handed out.
func (s Clubs) WithdrawHanded(ctx context.Context, clubID, routine uint64) error {
	return s.queries.WithdrawHanded(ctx, db.WithdrawHandedParams{ClubID: clubID, Routine: routine})
}
