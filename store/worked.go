package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"

	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/store/db"
)

// Refitted stores a schedule that a newer engine made of the plan in force, or
// the digest that is wanting.
func (s Sessions) Refitted(ctx context.Context, session *Session) error {
	fitted, err := json.Marshal(session.Schedule)
	if err != nil {
		return err
	}
	digest, err := digestOf(session.Document, session.Schedule)
	if err != nil {
		return err
	}
	return s.within(ctx, func(q *db.Queries) error {
		if err := q.Refitted(ctx, db.RefittedParams{Schedule: string(fitted), Engine: runin.Version,
			SessionID: session.ID, Number: session.Head}); err != nil {
			return err
		}
		return q.SetDigest(ctx, db.SetDigestParams{Digest: digest, ID: session.ID,
			Head: sql.NullInt32{Int32: int32(session.Head), Valid: true}})
	})
}

// Cuts are the cut-downs that are kept of a session's plan in force; nil where
// none are, or only an older engine's.
func (s Sessions) Cuts(ctx context.Context, session *Session) (cuts []schedule.Cut, err error) {
	text, err := s.queries.Cuts(ctx, db.CutsParams{SessionID: session.ID, Number: session.Head, Engine: runin.Version})
	if errors.Is(err, sql.ErrNoRows) || err == nil && !text.Valid {
		return nil, nil
	} else if err != nil {
		return nil, err
	}
	return cuts, json.Unmarshal([]byte(text.String), &cuts)
}

// SetCuts keeps the cut-downs of a session's plan in force.
func (s Sessions) SetCuts(ctx context.Context, session *Session, cuts []schedule.Cut) error {
	text, err := json.Marshal(cuts)
	if err != nil {
		return err
	}
	return s.queries.SetCuts(ctx, db.SetCutsParams{Cuts: sql.NullString{String: string(text), Valid: true},
		SessionID: session.ID, Number: session.Head, Engine: runin.Version})
}
