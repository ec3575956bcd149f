package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"cuestart/core/conduct"
	"cuestart/store/db"
)

// MostEvents is how many events of a session are kept: more are no session.
const MostEvents = 20_000

// Run is a session that runs, or ran: its plan as it was at the first press. It fails with
// ErrNotFound where nobody has pressed yet.
func (s *Store) Run(ctx context.Context, clubID, session uint64) (conduct.Plan, error) {
	row, err := s.queries.Run(ctx, db.RunParams{SessionID: session, ClubID: clubID})
	if err != nil {
		return conduct.Plan{}, known(err)
	}
	var is conduct.Plan
	if err := json.Unmarshal([]byte(row.Document), &is.Document); err != nil {
		return is, fmt.Errorf("a stored plan cannot be read: %w", err)
	}
	return is, json.Unmarshal([]byte(row.Schedule), &is.Schedule)
}

// Events are what was pressed of a session and came in after so many; last is how many have
// by now. The session has to be known to be the club's.
func (s *Store) Events(ctx context.Context, session uint64, after uint32) (list []conduct.Event, last uint32, err error) {
	rows, err := s.queries.RunEvents(ctx, db.RunEventsParams{SessionID: session, Arrived: after})
	last = after
	for _, row := range rows {
		var e conduct.Event
		if err := json.Unmarshal([]byte(row.Content), &e); err != nil {
			return nil, last, fmt.Errorf("a stored event cannot be read: %w", err)
		}
		list, last = append(list, e), row.Arrived
	}
	return list, last, err
}

// JoinEvents keeps what was pressed of a session of the club, each event once however often
// it is sent, and returns those that were new. The first begins the run: the plan in force
// is kept with it. It fails with ErrNotFound.
func (s *Store) JoinEvents(ctx context.Context, by Account, session uint64, events []conduct.Event, now time.Time) (fresh []conduct.Event, err error) {
	tx, err := s.pool.BeginTx(ctx, nil)
	if err != nil {
		return nil, err
	}
	defer tx.Rollback()
	q := s.queries.WithTx(tx)
	if _, err := q.LockSession(ctx, db.LockSessionParams{ID: session, ClubID: by.ClubID}); err != nil {
		return nil, known(err)
	}
	if err := q.BeginRun(ctx, db.BeginRunParams{BegunAt: now.UTC(), ID: session}); err != nil {
		return nil, err
	}
	had, err := q.RunOnces(ctx, session)
	if err != nil {
		return nil, err
	}
	known := map[string]bool{}
	for _, once := range had {
		known[once] = true
	}
	for _, e := range events {
		if !known[e.ID] && len(known) < MostEvents {
			known[e.ID] = true
			fresh = append(fresh, e)
		}
	}
	last, err := q.LastArrived(ctx, session)
	if err == nil {
		err = addEvents(ctx, tx, session, by.ID, uint32(last), fresh, now.UTC())
	}
	if err == nil && len(fresh) > 0 {
		err = q.AddNews(ctx, db.AddNewsParams{SessionID: session, Staff: true})
	}
	if err != nil {
		return nil, err
	}
	return fresh, tx.Commit()
}

// together is how many events one statement adds.
const together = 500

func addEvents(ctx context.Context, tx *sql.Tx, session, account uint64, last uint32, events []conduct.Event, now time.Time) error {
	for from := 0; from < len(events); from += together {
		part := events[from:min(from+together, len(events))]
		values := make([]any, 0, 8*len(part))
		for i, e := range part {
			content, err := json.Marshal(e)
			if err != nil {
				return err
			}
			values = append(values, session, last+uint32(from+i)+1, e.ID, account, string(e.Kind), time.UnixMilli(e.At).UTC(), now, string(content))
		}
		marks := strings.TrimSuffix(strings.Repeat("(?, ?, ?, ?, ?, ?, ?, ?),", len(part)), ",")
		if _, err := tx.ExecContext(ctx, "INSERT INTO run_event (session_id, arrived, once, account_id, kind, pressed_at, made_at, content) VALUES "+marks, values...); err != nil {
			return err
		}
	}
	return nil
}

// HasRun tells whether somebody has pressed at the pitch side of a session.
func (s *Store) HasRun(ctx context.Context, session uint64) (bool, error) {
	n, err := s.queries.HasRun(ctx, session)
	return n > 0, err
}
