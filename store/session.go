package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/core/verdict"
	"cuestart/store/db"
)

// Session is a match or training session with the plan in force.
type Session struct {
	ID        uint64
	SquadName string
	Revision  uint32 // counts every change: a write has to name the one it was made on
	Head      uint32 // number of the edition of the plan in force
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
	By      string // name of the account; "": nobody's, or of somebody who left
	Account uint64 // 0: nobody's
}

// Fitted is a plan ready to be stored: the document, and its schedule.
type Fitted struct {
	Document *plan.Document
	Schedule *schedule.Schedule
	Summary  string    // what changed, in a few words
	By       uint64    // account; 0: nobody
	At       time.Time // zero: now
}

// made is how the edition came about, to the microsecond that is kept.
func (f Fitted) made() Made {
	if f.At.IsZero() {
		f.At = time.Now()
	}
	return Made{Summary: short(f.Summary), At: f.At.UTC().Truncate(time.Microsecond), Account: f.By}
}

// AddSession makes a session of a squad with its first plan. It fails with
// ErrNotFound where the squad is another club's.
func (s Sessions) AddSession(ctx context.Context, clubID, squadID uint64, first Fitted) (uint64, error) {
	var id int64
	err := s.within(ctx, func(q *db.Queries) (err error) {
		digest, err := digestOf(first.Document, first.Schedule)
		if err != nil {
			return err
		}
		id, err = q.AddSession(ctx, db.AddSessionParams{ClubID: clubID, SquadID: squadID,
			Kind: string(first.Document.Kind), Title: first.Document.Title,
			StartAt: first.Schedule.Start.UTC(), TimeZone: first.Document.Start.Zone, Digest: digest})
		if err != nil {
			return known(err)
		}
		if err := addEdition(ctx, q, uint64(id), 1, sql.NullInt32{}, first); err != nil {
			return err
		}
		if err := q.AddRevision(ctx, db.AddRevisionParams{SessionID: uint64(id), Revision: 1, Head: 1}); err != nil {
			return err
		}
		return q.FirstHead(ctx, uint64(id))
	})
	return uint64(id), err
}

func addEdition(ctx context.Context, q *db.Queries, session uint64, number uint32, parent sql.NullInt32,
	f Fitted) error {
	document, err := json.Marshal(f.Document)
	if err != nil {
		return err
	}
	fitted, err := json.Marshal(f.Schedule)
	if err != nil {
		return err
	}
	made := f.made()
	return q.AddEdition(ctx, db.AddEditionParams{SessionID: session, Number: number, Parent: parent,
		Document: string(document), Schedule: string(fitted),
		Engine: runin.Version, Summary: made.Summary, MadeBy: sql.NullInt64{Int64: int64(f.By), Valid: f.By > 0},
		MadeAt: made.At})
}

// digested is a plan's digest with its content, which is seldom read.
type digested struct {
	*verdict.Digest
	Content []string `json:"content"`
}

// digestOf is the digest of a plan as it is kept; none without a schedule.
func digestOf(d *plan.Document, s *schedule.Schedule) (digest sql.NullString, err error) {
	if s == nil {
		return digest, nil
	}
	text, err := json.Marshal(digested{verdict.DigestOf(d, s), d.Content()})
	return sql.NullString{String: string(text), Valid: true}, err
}

func opened(document, fitted string, engine uint32) (*plan.Document, *schedule.Schedule, error) {
	d := new(plan.Document)
	if err := json.Unmarshal([]byte(document), d); err != nil {
		return nil, nil, fmt.Errorf("a stored plan cannot be read: %w", err)
	}
	if engine != runin.Version {
		return d, nil, nil
	}
	s := new(schedule.Schedule)
	if err := json.Unmarshal([]byte(fitted), s); err != nil {
		return nil, nil, fmt.Errorf("a stored schedule cannot be read: %w", err)
	}
	return d, s, nil
}

// Listed is a session as a list shows it.
type Listed struct {
	ID        uint64
	SquadName string
	Published bool
	Digest    *verdict.Digest // nil where it is yet to be made by the present engine
}

// Sessions lists the sessions of a club that start at or after from, the nearest
// first, most at most, and counts them all.
func (s Sessions) Sessions(ctx context.Context, clubID uint64, from time.Time,
	most int) (list []Listed, all int, err error) {
	rows, err := s.queries.SessionsFrom(ctx, db.SessionsFromParams{ClubID: clubID, StartAt: from.UTC(),
		Limit: int32(most)})
	if err != nil {
		return nil, 0, err
	}
	list, all = make([]Listed, len(rows)), len(rows)
	for i, row := range rows {
		list[i] = Listed{ID: row.ID, SquadName: row.SquadName, Published: row.Published}
		if list[i].Digest, err = digest(row.Digest); err != nil {
			return nil, 0, err
		}
	}
	if len(rows) == most {
		n, err := s.queries.CountSessionsFrom(ctx, db.CountSessionsFromParams{ClubID: clubID, StartAt: from.UTC()})
		return list, int(n), err
	}
	return list, all, nil
}

// digest reads a digest of the present engine; an older one is none.
func digest(text sql.NullString) (*verdict.Digest, error) {
	if !text.Valid {
		return nil, nil
	}
	is := new(verdict.Digest)
	if err := json.Unmarshal([]byte(text.String), is); err != nil {
		return nil, fmt.Errorf("a stored digest cannot be read: %w", err)
	}
	if is.Version != verdict.DigestVersion {
		return nil, nil
	}
	return is, nil
}

// Earlier is the content of the plans of a session's squad and kind that came
// before it, the latest first, most at most.
func (s Sessions) Earlier(ctx context.Context, id uint64, most int) (content [][]string, err error) {
	rows, err := s.queries.EarlierDigests(ctx, db.EarlierDigestsParams{ID: id, Limit: int32(most)})
	for _, row := range rows {
		var is struct{ Content []string }
		if err := json.Unmarshal([]byte(row.String), &is); err != nil {
			return nil, fmt.Errorf("a stored digest cannot be read: %w", err)
		}
		content = append(content, is.Content)
	}
	return content, err
}

// Session returns a session of the club, or ErrNotFound.
func (s Sessions) Session(ctx context.Context, clubID, id uint64) (*Session, error) {
	row, err := s.queries.Session(ctx, db.SessionParams{ID: id, ClubID: clubID})
	if err != nil {
		return nil, known(err)
	}
	found := &Session{ID: row.ID, SquadName: row.SquadName, Revision: row.Revision, Head: uint32(row.Head.Int32),
		Made: Made{Summary: row.Summary, At: row.MadeAt, By: row.Maker, Account: uint64(row.MadeBy.Int64)}}
	if found.Document, found.Schedule, err = opened(row.Document, row.Schedule, row.Engine); err != nil {
		return nil, err
	}
	if row.Parent.Valid {
		found.Undo = row.Summary
	}
	next, err := s.queries.NextEdition(ctx,
		db.NextEditionParams{SessionID: id, Parent: sql.NullInt32{Int32: row.Head.Int32, Valid: true}})
	if err != nil && !errors.Is(err, sql.ErrNoRows) {
		return nil, err
	}
	found.Redo = next.Summary
	return found, nil
}

// InForce is a session's revision and how the plan in force came about, or ErrNotFound.
func (s Sessions) InForce(ctx context.Context, clubID, id uint64) (uint32, Made, error) {
	row, err := s.queries.InForce(ctx, db.InForceParams{ID: id, ClubID: clubID})
	return row.Revision, Made{Summary: row.Summary, At: row.MadeAt, By: row.Maker, Account: uint64(row.MadeBy.Int64)},
		known(err)
}

// Remove takes a session off every list, and what its links show with it. It fails with ErrNotFound.
func (s Sessions) Remove(ctx context.Context, clubID, id uint64) error {
	return one(s.queries.RemoveSession(ctx, db.RemoveSessionParams{ID: id, ClubID: clubID}))
}

// Restore brings it back. It fails with ErrNotFound.
func (s Sessions) Restore(ctx context.Context, clubID, id uint64) error {
	return one(s.queries.RestoreSession(ctx, db.RestoreSessionParams{ID: id, ClubID: clubID}))
}

// one fails with ErrNotFound where no row was changed.
func one(changed int64, err error) error {
	if err == nil && changed == 0 {
		return ErrNotFound
	}
	return err
}

// Latest returns the plan of a squad's last session of that kind that fits, or
// ErrNotFound.
func (s Sessions) Latest(ctx context.Context, clubID, squadID uint64, kind plan.Kind,
	fits func(*plan.Document) bool) (*plan.Document, error) {
	rows, err := s.queries.LatestSessions(ctx, db.LatestSessionsParams{ClubID: clubID, SquadID: squadID,
		Kind: string(kind)})
	if err != nil {
		return nil, known(err)
	}
	for _, row := range rows {
		d := new(plan.Document)
		if err := json.Unmarshal([]byte(row), d); err != nil || fits(d) {
			return d, err
		}
	}
	return nil, ErrNotFound
}

// AnySession tells whether a club has a session, past or to come.
func (s Sessions) AnySession(ctx context.Context, clubID uint64) (bool, error) {
	ok, err := s.queries.AnySession(ctx, clubID)
	return ok, known(err)
}

// Recent returns the plans of a squad's last six sessions, the latest first.
func (s Sessions) Recent(ctx context.Context, clubID, squadID uint64) ([]*plan.Document, error) {
	rows, err := s.queries.RecentDocuments(ctx, db.RecentDocumentsParams{ClubID: clubID, SquadID: squadID})
	if err != nil {
		return nil, err
	}
	documents := make([]*plan.Document, len(rows))
	for i, row := range rows {
		documents[i] = new(plan.Document)
		if err := json.Unmarshal([]byte(row), documents[i]); err != nil {
			return nil, fmt.Errorf("a stored plan cannot be read: %w", err)
		}
	}
	return documents, nil
}

// ChangePlan puts a new plan in force in place of the one that session holds, and returns the
// session as it is then. It fails with ErrStale, and changes nothing, where that revision is not
// in force any more.
func (s Sessions) ChangePlan(ctx context.Context, clubID uint64, session *Session, next Fitted) (*Session, error) {
	made := next.made()
	next.At = made.At
	changed := *session
	changed.Document, changed.Schedule, changed.Revision = next.Document, next.Schedule, session.Revision+1
	changed.Made, changed.Undo, changed.Redo = made, made.Summary, ""
	return &changed, s.within(ctx, func(q *db.Queries) (err error) {
		changed.Head, err = changePlan(ctx, q, clubID, session, next)
		return err
	})
}

// changePlan puts a new plan in force, and returns the number of its edition.
func changePlan(ctx context.Context, q *db.Queries, clubID uint64, session *Session,
	next Fitted) (number uint32, err error) {
	err = move(ctx, q, clubID, session.ID, session.Revision, func(head, newest uint32) (in inForce, err error) {
		number = newest + 1
		in = inForce{number, next.Document, next.Schedule}
		if err := addEdition(ctx, q, session.ID, in.head, sql.NullInt32{Int32: int32(head), Valid: true},
			next); err != nil {
			return in, err
		}
		if in.head%thinEvery == 0 {
			err = thin(ctx, q, session.ID, in.head, next.made().At)
		}
		return in, err
	})
	return number, err
}

// Undo puts the plan in force that the present one was made from. It fails with
// ErrNothing at the first plan, and with ErrStale where revision is not the
// session's any more.
func (s Sessions) Undo(ctx context.Context, clubID, id uint64, revision uint32) error {
	return s.within(ctx, func(q *db.Queries) error {
		return move(ctx, q, clubID, id, revision, func(head, _ uint32) (inForce, error) {
			return before(ctx, q, id, head)
		})
	})
}

// before is the edition that another was made from.
func before(ctx context.Context, q *db.Queries, id uint64, head uint32) (inForce, error) {
	parent, err := q.Parent(ctx, db.ParentParams{SessionID: id, Number: head})
	if err == nil && !parent.Valid {
		err = ErrNothing
	}
	if err != nil {
		return inForce{}, err
	}
	return edition(ctx, q, id, uint32(parent.Int32))
}

// Redo brings back what the last Undo took away. It fails with ErrNothing where
// nothing was undone, and with ErrStale where revision is not the session's any
// more.
func (s Sessions) Redo(ctx context.Context, clubID, id uint64, revision uint32) error {
	return s.within(ctx, func(q *db.Queries) error {
		return move(ctx, q, clubID, id, revision, func(head, _ uint32) (inForce, error) {
			return following(ctx, q, id, head)
		})
	})
}

// following is the newest edition that was made from another.
func following(ctx context.Context, q *db.Queries, id uint64, head uint32) (inForce, error) {
	next, err := q.NextEdition(ctx,
		db.NextEditionParams{SessionID: id, Parent: sql.NullInt32{Int32: int32(head), Valid: true}})
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNothing
	}
	if err != nil {
		return inForce{}, err
	}
	return edition(ctx, q, id, next.Number)
}

// inForce is an edition of a session's plan that is to be its head. Schedule is
// nil where it was fitted by another version of the engine.
type inForce struct {
	head     uint32
	document *plan.Document
	schedule *schedule.Schedule
}

func edition(ctx context.Context, q *db.Queries, session uint64, number uint32) (in inForce, err error) {
	row, err := q.Edition(ctx, db.EditionParams{SessionID: session, Number: number})
	if err != nil {
		return in, known(err)
	}
	in.head = number
	in.document, in.schedule, err = opened(row.Document, row.Schedule, row.Engine)
	return in, err
}

// move changes a session's head to what to returns.
func move(ctx context.Context, q *db.Queries, clubID, id uint64, revision uint32,
	to func(head, newest uint32) (inForce, error)) error {
	at, err := q.LockSession(ctx, db.LockSessionParams{ID: id, ClubID: clubID})
	if err != nil {
		return known(err)
	}
	if at.Revision != revision {
		return ErrStale
	}
	in, err := to(uint32(at.Head.Int32), uint32(at.Newest))
	if err != nil {
		return err
	}
	start, err := in.document.Start.Resolve()
	if err != nil {
		return err
	}
	digest, err := digestOf(in.document, in.schedule)
	if err != nil {
		return err
	}
	if err := numbered(ctx, q, id, revision, uint32(at.Head.Int32), in.head); err != nil {
		return err
	}
	return q.SetHead(ctx, db.SetHeadParams{Head: sql.NullInt32{Int32: int32(in.head), Valid: true},
		Title: in.document.Title, StartAt: start.UTC(), TimeZone: in.document.Start.Zone, Digest: digest, ID: id})
}

// keptRevisions is how many revisions of a session somebody may still have open.
const keptRevisions = 1000

// numbered keeps which edition was in force at a revision, and which is at the next, and
// tells who has the board open.
func numbered(ctx context.Context, q *db.Queries, session uint64, revision, was, is uint32) error {
	for n, head := range []uint32{was, is} {
		if err := q.AddRevision(ctx, db.AddRevisionParams{SessionID: session, Revision: revision + uint32(n),
			Head: head}); err != nil {
			return err
		}
	}
	if revision > keptRevisions && revision%thinEvery == 0 {
		if err := q.PurgeRevisions(ctx, db.PurgeRevisionsParams{SessionID: session,
			Revision: revision - keptRevisions}); err != nil {
			return err
		}
	}
	return q.AddNews(ctx, db.AddNewsParams{SessionID: session, Staff: true})
}

// PlanOf returns the plan that a session had at a revision with its schedule, nil where another
// engine made that; or ErrStale where the revision is not known any more. The session has to be
// known to be the club's.
func (s Sessions) PlanOf(ctx context.Context, session uint64,
	revision uint32) (*plan.Document, *schedule.Schedule, error) {
	row, err := s.queries.RevisionDocument(ctx, db.RevisionDocumentParams{SessionID: session, Revision: revision})
	if errors.Is(err, sql.ErrNoRows) {
		return nil, nil, ErrStale
	} else if err != nil {
		return nil, nil, err
	}
	return opened(row.Document, row.Schedule, row.Engine)
}
