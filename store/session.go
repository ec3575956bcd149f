package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"
	"unicode/utf8"

	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/store/db"
)

// Session is a match or training session with the plan in force.
type Session struct {
	ID        uint64
	SquadName string
	Revision  uint32 // counts every change: a write has to name the one it was made on
	Head      uint32 // number of the edition of the plan in force
	Published bool
	Document  *plan.Document
	Schedule  *schedule.Schedule // nil where it was fitted by another version of the engine
	Made      Made
	Undo      string // what undo would take back, or ""
	Redo      string // what redo would bring back, or ""
}

// Made says how an edition of a plan came about.
type Made struct {
	Summary string
	At      time.Time
}

// Fitted is a plan ready to be stored: the document, and its schedule.
type Fitted struct {
	Document *plan.Document
	Schedule *schedule.Schedule
	Summary  string // what changed, in a few words
	By       uint64 // account; 0: nobody
}

// AddSession makes a session with its first plan.
func (s *Store) AddSession(ctx context.Context, clubID, squadID uint64, first Fitted) (uint64, error) {
	var id int64
	err := s.within(ctx, func(q *db.Queries) (err error) {
		id, err = q.AddSession(ctx, db.AddSessionParams{SquadID: squadID, Kind: db.TeamSessionKind(first.Document.Kind), Title: first.Document.Title,
			StartAt: first.Schedule.Start.UTC(), TimeZone: first.Document.Start.Zone})
		if err != nil {
			return err
		}
		return addEdition(ctx, q, uint64(id), 1, sql.NullInt32{}, first)
	})
	return uint64(id), err
}

func addEdition(ctx context.Context, q *db.Queries, session uint64, number uint32, parent sql.NullInt32, f Fitted) error {
	document, err := json.Marshal(f.Document)
	if err != nil {
		return err
	}
	fitted, err := json.Marshal(f.Schedule)
	if err != nil {
		return err
	}
	for len(f.Summary) > 0 && utf8.RuneCountInString(f.Summary) > 200 {
		f.Summary = string([]rune(f.Summary)[:199]) + "…"
	}
	return q.AddEdition(ctx, db.AddEditionParams{SessionID: session, Number: number, Parent: parent, Document: document, Schedule: fitted,
		Engine: runin.Version, Summary: f.Summary, MadeBy: sql.NullInt64{Int64: int64(f.By), Valid: f.By > 0}})
}

func read(document, fitted json.RawMessage, engine uint32) (*plan.Document, *schedule.Schedule, error) {
	d := new(plan.Document)
	if err := json.Unmarshal(document, d); err != nil {
		return nil, nil, fmt.Errorf("a stored plan cannot be read: %w", err)
	}
	if engine != runin.Version {
		return d, nil, nil
	}
	s := new(schedule.Schedule)
	if err := json.Unmarshal(fitted, s); err != nil {
		return nil, nil, fmt.Errorf("a stored schedule cannot be read: %w", err)
	}
	return d, s, nil
}

// Sessions lists the sessions of a club that start at or after from, the
// nearest first, fifty at most.
func (s *Store) Sessions(ctx context.Context, clubID uint64, from time.Time) ([]Session, error) {
	rows, err := s.queries.SessionsFrom(ctx, db.SessionsFromParams{ClubID: clubID, StartAt: from.UTC()})
	if err != nil {
		return nil, err
	}
	sessions := make([]Session, len(rows))
	for i, row := range rows {
		sessions[i] = Session{ID: row.ID, SquadName: row.SquadName, Revision: row.Edition, Published: row.Publications > 0}
		if sessions[i].Document, sessions[i].Schedule, err = read(row.Document, row.Schedule, row.Engine); err != nil {
			return nil, err
		}
	}
	return sessions, nil
}

// Session returns a session of the club, or ErrNotFound.
func (s *Store) Session(ctx context.Context, clubID, id uint64) (*Session, error) {
	row, err := s.queries.Session(ctx, db.SessionParams{ID: id, ClubID: clubID})
	if err != nil {
		return nil, known(err)
	}
	found := &Session{ID: row.ID, SquadName: row.SquadName, Revision: row.Edition, Head: row.Head, Made: Made{row.Summary, row.MadeAt}}
	if found.Document, found.Schedule, err = read(row.Document, row.Schedule, row.Engine); err != nil {
		return nil, err
	}
	if row.Parent.Valid {
		found.Undo = row.Summary
	}
	next, err := s.queries.NextEdition(ctx, db.NextEditionParams{SessionID: id, Parent: sql.NullInt32{Int32: int32(row.Head), Valid: true}})
	if err != nil && !errors.Is(err, sql.ErrNoRows) {
		return nil, err
	}
	found.Redo = next.Summary
	return found, nil
}

// Remove takes a session off every list, and what its links show with it, or
// brings it back. It fails with ErrNotFound.
func (s *Store) Remove(ctx context.Context, clubID, id uint64, gone bool) error {
	n, err := int64(0), error(nil)
	if gone {
		n, err = s.queries.RemoveSession(ctx, db.RemoveSessionParams{ID: id, ClubID: clubID})
	} else {
		n, err = s.queries.RestoreSession(ctx, db.RestoreSessionParams{ID: id, ClubID: clubID})
	}
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}

// Latest returns the plan of a squad's last session of that kind, or
// ErrNotFound.
func (s *Store) Latest(ctx context.Context, clubID, squadID uint64, kind plan.Kind) (*plan.Document, error) {
	row, err := s.queries.LatestSession(ctx, db.LatestSessionParams{ClubID: clubID, SquadID: squadID, Kind: db.TeamSessionKind(kind)})
	if err != nil {
		return nil, known(err)
	}
	d := new(plan.Document)
	return d, json.Unmarshal(row, d)
}

// Recent returns the plans of a squad's last six sessions, the latest first.
func (s *Store) Recent(ctx context.Context, clubID, squadID uint64) ([]*plan.Document, error) {
	rows, err := s.queries.RecentDocuments(ctx, db.RecentDocumentsParams{ClubID: clubID, SquadID: squadID})
	if err != nil {
		return nil, err
	}
	documents := make([]*plan.Document, len(rows))
	for i, row := range rows {
		documents[i] = new(plan.Document)
		if err := json.Unmarshal(row, documents[i]); err != nil {
			return nil, fmt.Errorf("a stored plan cannot be read: %w", err)
		}
	}
	return documents, nil
}

// ChangePlan puts a new plan in force in place of the one that session holds,
// and returns the session as it is then. It fails with ErrStale, and changes
// nothing, where that revision is not in force any more.
func (s *Store) ChangePlan(ctx context.Context, clubID uint64, session *Session, next Fitted) (*Session, error) {
	changed := *session
	changed.Document, changed.Schedule, changed.Revision = next.Document, next.Schedule, session.Revision+1
	changed.Made, changed.Undo, changed.Redo = Made{next.Summary, time.Now().UTC()}, next.Summary, ""
	return &changed, s.move(ctx, clubID, session.ID, session.Revision, func(q *db.Queries, head, newest uint32) (uint32, error) {
		changed.Head = newest + 1
		parent := sql.NullInt32{Int32: int32(head), Valid: true}
		return newest + 1, addEdition(ctx, q, session.ID, newest+1, parent, next)
	})
}

// Undo puts the plan in force that the present one was made from. It fails with
// ErrNothing at the first plan, and with ErrStale where revision is not the
// session's any more.
func (s *Store) Undo(ctx context.Context, clubID, id uint64, revision uint32) error {
	return s.move(ctx, clubID, id, revision, func(q *db.Queries, head, _ uint32) (uint32, error) {
		present, err := q.Edition(ctx, db.EditionParams{SessionID: id, Number: head})
		if err == nil && !present.Parent.Valid {
			err = ErrNothing
		}
		return uint32(present.Parent.Int32), err
	})
}

// Redo brings back what the last Undo took away. It fails with ErrNothing where
// nothing was undone, and with ErrStale where revision is not the session's any
// more.
func (s *Store) Redo(ctx context.Context, clubID, id uint64, revision uint32) error {
	return s.move(ctx, clubID, id, revision, func(q *db.Queries, head, _ uint32) (uint32, error) {
		next, err := q.NextEdition(ctx, db.NextEditionParams{SessionID: id, Parent: sql.NullInt32{Int32: int32(head), Valid: true}})
		if errors.Is(err, sql.ErrNoRows) {
			err = ErrNothing
		}
		return next.Number, err
	})
}

// move changes a session's head to the one that to returns.
func (s *Store) move(ctx context.Context, clubID, id uint64, revision uint32, to func(q *db.Queries, head, newest uint32) (uint32, error)) error {
	return s.within(ctx, func(q *db.Queries) error {
		at, err := q.LockSession(ctx, db.LockSessionParams{ID: id, ClubID: clubID})
		if err != nil {
			return known(err)
		}
		if at.Edition != revision {
			return ErrStale
		}
		head, err := to(q, at.Head, uint32(at.Newest))
		if err != nil {
			return err
		}
		row, err := q.Edition(ctx, db.EditionParams{SessionID: id, Number: head})
		if err != nil {
			return known(err)
		}
		d := new(plan.Document)
		if err := json.Unmarshal(row.Document, d); err != nil {
			return err
		}
		start, err := d.Start.Resolve()
		if err != nil {
			return err
		}
		return q.SetHead(ctx, db.SetHeadParams{Head: head, Title: d.Title, StartAt: start.UTC(), TimeZone: d.Start.Zone, ID: id})
	})
}

// Refitted stores a schedule that a newer engine made of the plan in force.
func (s *Store) Refitted(ctx context.Context, session *Session) error {
	fitted, err := json.Marshal(session.Schedule)
	if err != nil {
		return err
	}
	return s.queries.Refitted(ctx, db.RefittedParams{Schedule: fitted, Engine: runin.Version, SessionID: session.ID, Number: session.Head})
}
