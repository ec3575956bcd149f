package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/store/db"
)

// MostEvents is how many events of a session are kept: more are no session. That somebody is
// hurt is kept beyond it.
const MostEvents = 20_000

// mostJoined is how many bytes of events are handed out at once.
const mostJoined = 900_000

// Run is a session that runs, or ran.
type Run struct {
	conduct.Plan                // as it was at the first press
	Followed     *plan.Document // what the pitch side put in force last; nil: nothing yet
	Seen         uint32         // how many events that followed
	Due          bool           // a change is still to be put in force
	Trouble      string         // why it could not be; "": it could, or was not tried
	Clash        string         // what somebody had changed otherwise on the board meanwhile
}

// Run fails with ErrNotFound where nobody has pressed yet.
func (s Runs) Run(ctx context.Context, clubID, session uint64) (*Run, error) {
	row, err := s.queries.Run(ctx, db.RunParams{SessionID: session, ClubID: clubID})
	if err != nil {
		return nil, known(err)
	}
	run := &Run{Seen: row.FollowedEvents, Due: row.DueBy.Valid, Trouble: row.Trouble, Clash: row.Clash}
	if row.Followed.Valid {
		run.Followed = new(plan.Document)
		err = json.Unmarshal([]byte(row.Followed.String), run.Followed)
	}
	if err := errors.Join(err, json.Unmarshal([]byte(row.Document), &run.Document),
		json.Unmarshal([]byte(row.Schedule), &run.Schedule)); err != nil {
		return nil, fmt.Errorf("a stored plan cannot be read: %w", err)
	}
	return run, nil
}

// Told is what the pitch side and the board are to be told of what was put in force: why it
// was not, and what the board had otherwise. Both are "" where nothing is amiss.
func (s Runs) Told(ctx context.Context, session uint64) (trouble, clash string, err error) {
	row, err := s.queries.RunSays(ctx, session)
	if errors.Is(err, sql.ErrNoRows) {
		return "", "", nil
	}
	if row.Due && row.Trouble == "" {
		row.Trouble = "the change is on its way"
	}
	return row.Trouble, row.Clash, err
}

// Events are what was pressed of a session and came in after so many: as many as one answer
// holds. Last is how many have come in by the last of them; more, that there are further ones.
// The session has to be known to be the club's.
func (s Runs) Events(ctx context.Context, session uint64,
	after uint32) (list []conduct.Event, last uint32, more bool, err error) {
	last = after
	for size, page := 0, together; size < mostJoined; {
		rows, err := s.queries.RunEvents(ctx, db.RunEventsParams{SessionID: session, Arrived: last, Limit: int32(page)})
		if err != nil {
			return nil, last, false, err
		}
		for _, row := range rows {
			if size += len(row.Content); size > mostJoined && list != nil {
				return list, last, true, nil
			}
			var e conduct.Event
			if err := json.Unmarshal([]byte(row.Content), &e); err != nil {
				return nil, last, false, fmt.Errorf("a stored event cannot be read: %w", err)
			}
			list, last = append(list, e), row.Arrived
		}
		if len(rows) < page {
			return list, last, false, nil
		}
	}
	return list, last, true, nil
}

// AllEvents are all that was pressed of a session.
func (s Runs) AllEvents(ctx context.Context, session uint64) (all []conduct.Event, last uint32, err error) {
	for more := true; more && err == nil; {
		var some []conduct.Event
		some, last, more, err = s.Events(ctx, session, last)
		all = append(all, some...)
	}
	return all, last, err
}

// Arriving is an event that comes in, with what follows from it.
type Arriving struct {
	conduct.Event
	Hurt    []Hurt // who is hurt by it
	Changes bool   // the plan in force is to follow it
}

// JoinEvents keeps what was pressed of a session of the club, each event once however often
// it is sent, in one transaction with what follows: who is hurt, and that the plan in force
// has to follow. Full lists what was not kept, for there are too many. The first event begins
// the run: the plan in force is kept with it. It fails with ErrNotFound.
func (s Runs) JoinEvents(ctx context.Context, by Account, session uint64, events []Arriving,
	now time.Time) (fresh, full []Arriving, err error) {
	tx, err := s.pool.BeginTx(ctx, nil)
	if err != nil {
		return nil, nil, err
	}
	defer tx.Rollback()
	q := s.queries.WithTx(tx)
	for _, e := range events {
		if e.Hurt != nil { // what is published meanwhile waits, or is waited for
			if _, err := q.LockClub(ctx, by.ClubID); err != nil {
				return nil, nil, known(err)
			}
			break
		}
	}
	if _, err := q.LockSession(ctx, db.LockSessionParams{ID: session, ClubID: by.ClubID}); err != nil {
		return nil, nil, known(err)
	}
	if err := q.BeginRun(ctx, db.BeginRunParams{BegunAt: now.UTC(), ID: session}); err != nil {
		return nil, nil, err
	}
	had, err := q.RunOnces(ctx, session)
	if err != nil {
		return nil, nil, err
	}
	fresh, full = sorted(had, events)
	last, err := q.LastArrived(ctx, session)
	if err == nil {
		err = addEvents(ctx, tx, session, by.ID, uint32(last), fresh, now.UTC())
	}
	if err == nil {
		err = follows(ctx, q, by, session, fresh)
	}
	if err != nil {
		return nil, nil, err
	}
	return fresh, full, tx.Commit()
}

// sorted are the events that are new, and those for which there is no room.
func sorted(had []string, events []Arriving) (fresh, full []Arriving) {
	known := map[string]bool{}
	for _, once := range had {
		known[once] = true
	}
	for _, e := range events {
		switch {
		case known[e.ID]:
		case len(known) >= MostEvents && e.Hurt == nil:
			full = append(full, e)
		default:
			known[e.ID] = true
			fresh = append(fresh, e)
		}
	}
	return fresh, full
}

// follows keeps what follows from events.
func follows(ctx context.Context, q *db.Queries, by Account, session uint64, fresh []Arriving) error {
	if len(fresh) == 0 {
		return nil
	}
	changes := false
	for _, e := range fresh {
		changes = changes || e.Changes
		for _, h := range e.Hurt {
			if err := addHurt(ctx, q, session, h); err != nil {
				return err
			}
		}
	}
	if changes {
		if err := q.RunDue(ctx, db.RunDueParams{DueBy: sql.NullInt64{Int64: int64(by.ID), Valid: true},
			SessionID: session}); err != nil {
			return err
		}
	}
	return q.AddNews(ctx, db.AddNewsParams{SessionID: session, Staff: true})
}

// together is how many events one statement adds or reads.
const together = 500

func addEvents(ctx context.Context, tx *sql.Tx, session, account uint64, last uint32, events []Arriving,
	now time.Time) error {
	for from := 0; from < len(events); from += together {
		part := events[from:min(from+together, len(events))]
		values := make([]any, 0, 8*len(part))
		for i, e := range part {
			content, err := json.Marshal(e.Event)
			if err != nil {
				return err
			}
			values = append(values, session, last+uint32(from+i)+1, e.ID, account, string(e.Kind),
				time.UnixMilli(e.At).UTC(), now, string(content))
		}
		marks := strings.TrimSuffix(strings.Repeat("(?, ?, ?, ?, ?, ?, ?, ?),", len(part)), ",")
		if _, err := tx.ExecContext(ctx,
			"INSERT INTO run_event (session_id, arrived, once, account_id, kind, pressed_at, made_at, content) "+
				"VALUES "+marks,
			values...); err != nil {
			return err
		}
	}
	return nil
}

// Due is a session whose plan in force does not follow its pitch side yet.
type Due struct{ Session, Club, By uint64 }

// Due lists those of sessions that start after a moment.
func (s Runs) Due(ctx context.Context, since time.Time) (list []Due, err error) {
	rows, err := s.queries.RunsDue(ctx, since)
	for _, row := range rows {
		list = append(list, Due{row.SessionID, row.ClubID, uint64(row.DueBy.Int64)})
	}
	return list, err
}

// Following is what the pitch side puts in force.
type Following struct {
	Fitted
	Pitch *plan.Document // the plan as it is at the pitch side, which is joined with the next change of the board
	Clash string         // what the board had otherwise
	Seen  uint32         // how many events it follows: with more, a further change is due
	Check Check          // what may be published; nil: nothing is
}

// Follow puts in force what the pitch side has come to, in place of the plan that session
// holds, publishes it where something was published before, and notes that it is done; all of
// it or nothing. It fails with ErrStale where that revision is not in force any more, and with
// what Check says.
func (s Runs) Follow(ctx context.Context, clubID uint64, session *Session, f Following) error {
	return s.within(ctx, func(q *db.Queries) error {
		is, _, err := holdRuled(ctx, q, clubID, session.ID)
		if err != nil {
			return err
		}
		if _, err := changePlan(ctx, q, clubID, session, f.Fitted); err != nil {
			return err
		}
		public, err := published(ctx, q, session.ID)
		if err == nil && public.Token != "" && f.Check != nil {
			err = publish(ctx, q, session.ID, f.Document, is, f.Check)
		}
		if err != nil {
			return err
		}
		return f.done(ctx, q, session.ID,
			sql.NullInt64{Int64: int64(f.By), Valid: f.Check == nil && public.Token != ""})
	})
}

// Republish publishes what is in force already and was not let out before, where something was
// published, and notes that it is done. It fails as [Store.Follow] does.
func (s Runs) Republish(ctx context.Context, clubID uint64, session *Session, f Following) error {
	return s.within(ctx, func(q *db.Queries) error {
		is, at, err := holdRuled(ctx, q, clubID, session.ID)
		if err != nil {
			return err
		}
		if at.Revision != session.Revision {
			return ErrStale
		}
		public, err := published(ctx, q, session.ID)
		if err == nil && public.Token != "" && public.Head != session.Head {
			err = publish(ctx, q, session.ID, f.Document, is, f.Check)
		}
		if err != nil {
			return err
		}
		return f.done(ctx, q, session.ID, sql.NullInt64{})
	})
}

// done notes that the plan in force follows, and whether a further change is due.
func (f *Following) done(ctx context.Context, q *db.Queries, session uint64, due sql.NullInt64) error {
	pitch, err := json.Marshal(f.Pitch)
	if err != nil {
		return err
	}
	last, err := q.LastArrived(ctx, session)
	if uint32(last) > f.Seen {
		due = sql.NullInt64{Int64: int64(f.By), Valid: true}
	}
	return errors.Join(err, q.RunFollowed(ctx,
		db.RunFollowedParams{Followed: sql.NullString{String: string(pitch), Valid: true}, FollowedEvents: f.Seen,
			DueBy: due, Clash: cut(f.Clash, 400), SessionID: session}))
}

// SetTrouble notes why the plan in force does not follow its pitch side, and tells who has it
// open, where it is another reason than before.
func (s Runs) SetTrouble(ctx context.Context, session uint64, trouble string) error {
	trouble = cut(trouble, 400)
	return s.within(ctx, func(q *db.Queries) error {
		was, err := q.RunSays(ctx, session)
		if err != nil || was.Trouble == trouble {
			return known(err)
		}
		return errors.Join(q.RunTrouble(ctx, db.RunTroubleParams{Trouble: trouble, SessionID: session}),
			q.AddNews(ctx, db.AddNewsParams{SessionID: session, Staff: true}))
	})
}

// HasRun tells whether somebody has pressed at the pitch side of a session.
func (s Runs) HasRun(ctx context.Context, session uint64) (bool, error) {
	n, err := s.queries.HasRun(ctx, session)
	return n > 0, err
}
