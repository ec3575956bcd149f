package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"encoding/base64"
	"encoding/json"
	"errors"
	"strings"
	"time"

	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/store/db"
)

// Publication is what is shared of a session.
type Publication struct {
	Number int    // counts what was published of the session; 0: nothing yet
	Head   uint32 // the edition of the plan that was published
	At     time.Time
	Token  string // of the link in force; "": it was withdrawn
	Secret string // that people's own keys to it are made of
	Season bool   // the link shows the squad's next session once this one is over
}

// Published tells what is shared of a session.
func (s Shares) Published(ctx context.Context, session uint64) (publication Publication, err error) {
	return published(ctx, s.queries, session)
}

func published(ctx context.Context, q *db.Queries, session uint64) (publication Publication, err error) {
	row, err := q.NewestPublication(ctx, session)
	if errors.Is(err, sql.ErrNoRows) {
		return publication, nil
	} else if err != nil {
		return publication, err
	}
	publication = Publication{Number: int(row.Number), Head: row.Head, At: row.PublishedAt}
	link, err := q.LiveLink(ctx, session)
	if errors.Is(err, sql.ErrNoRows) {
		return publication, nil
	}
	publication.Token, publication.Secret, publication.Season = link.Token, link.Secret, link.Season
	return publication, err
}

// Check judges a plan that is about to be published, by what is ruled at that moment. An
// error of it is what is returned, and nothing is published.
type Check func(d *plan.Document, is Ruled) error

// Publish shares the plan in force, under the link that is there or else a new one, if check
// lets it. What medical staff rule meanwhile waits until that is decided, so no ruling is
// passed over. It returns the link's token. It fails with ErrStale where revision is not the session's any more.
func (s Shares) Publish(ctx context.Context, clubID, id uint64, revision uint32,
	check Check) (token string, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		is, at, err := holdRuled(ctx, q, clubID, id)
		if err != nil {
			return err
		}
		if at.Revision != revision {
			return ErrStale
		}
		in, err := edition(ctx, q, id, uint32(at.Head.Int32))
		if err != nil {
			return err
		}
		if err := publish(ctx, q, id, in.document, is, check); err != nil {
			return err
		}
		link, err := q.LiveLink(ctx, id)
		token = link.Token
		return err
	})
	return token, err
}

// publish puts out the plan in force of a session that is locked, with what is ruled held.
func publish(ctx context.Context, q *db.Queries, id uint64, d *plan.Document, is Ruled, check Check) error {
	if err := check(d, is); err != nil {
		return err
	}
	if err := q.AddPublication(ctx, id); err != nil {
		return err
	}
	_, err := q.LiveLink(ctx, id)
	if errors.Is(err, sql.ErrNoRows) {
		err = q.AddLink(ctx, db.AddLinkParams{Token: newToken(), SessionID: id, Secret: hashOf(newToken())})
	}
	return errors.Join(err, q.AddNews(ctx, db.AddNewsParams{SessionID: id}))
}

// newToken is 256 random bits in letters that a link may hold.
func newToken() string {
	bits := make([]byte, 32)
	rand.Read(bits) // never fails
	return base64.RawURLEncoding.EncodeToString(bits)
}

// isToken tells whether a text may be a link's token: what else comes in is none, and the
// database need not be asked.
func isToken(text string) bool {
	return len(text) == 43 && !strings.ContainsFunc(text, func(r rune) bool {
		return (r < 'a' || r > 'z') && (r < 'A' || r > 'Z') && (r < '0' || r > '9') && r != '-' && r != '_'
	})
}

// Withdraw ends the link that a session is shared by, so that it shows nothing any more.
func (s Shares) Withdraw(ctx context.Context, clubID, id uint64) error {
	return s.onLink(ctx, clubID, id, func(q *db.Queries, token string) error { return q.WithdrawLink(ctx, token) })
}

// SetSeason has the link that a session is shared by show the squad's next session once
// this one is over, or end a day after it.
func (s Shares) SetSeason(ctx context.Context, clubID, id uint64, season bool) error {
	return s.onLink(ctx, clubID, id, func(q *db.Queries, token string) error {
		return q.SetSeason(ctx, db.SetSeasonParams{Season: season, Token: token})
	})
}

// RenewKey gives a person a new key to the link of a session; the old one is good no
// more. With gone they have none until it is renewed.
func (s Shares) RenewKey(ctx context.Context, clubID, id uint64, person string, gone bool) error {
	return s.onLink(ctx, clubID, id, func(q *db.Queries, token string) error {
		if gone {
			return q.WithdrawKey(ctx, db.WithdrawKeyParams{Token: token, Person: person})
		}
		return q.RenewKey(ctx, db.RenewKeyParams{Token: token, Person: person})
	})
}

// onLink changes the link in force of a session of the club, if it has one.
func (s Shares) onLink(ctx context.Context, clubID, id uint64, do func(q *db.Queries, token string) error) error {
	return s.within(ctx, func(q *db.Queries) error {
		if _, err := q.LockSession(ctx, db.LockSessionParams{ID: id, ClubID: clubID}); err != nil {
			return known(err)
		}
		at, err := q.LiveLink(ctx, id)
		if errors.Is(err, sql.ErrNoRows) {
			return nil // it is withdrawn already
		} else if err != nil {
			return err
		}
		return errors.Join(do(q, at.Token), q.AddNews(ctx, db.AddNewsParams{SessionID: id}))
	})
}

// Turn is how often a person's key to a link was renewed, and whether it is withdrawn.
type Turn struct {
	Number    uint32
	Withdrawn bool
}

// Turns are those of everybody whose key was ever renewed, by person.
func (s Shares) Turns(ctx context.Context, token string) (map[string]Turn, error) {
	rows, err := s.queries.PersonKeys(ctx, token)
	turns := map[string]Turn{}
	for _, row := range rows {
		turns[row.Person] = Turn{row.Turn, row.Withdrawn}
	}
	return turns, err
}

// How long after its session's start a link is good, unless it is for a season; and
// from when on one for a season shows the next session.
const (
	linkAfter   = 24 * time.Hour
	seasonAfter = 3 * time.Hour
)

// Link is what a link leads to.
type Link struct {
	Token   string
	Secret  string // that people's own keys are made of
	Season  bool
	ClubID  uint64
	SquadID uint64
	Session uint64
	Number  int  // of the newest publication
	Removed bool // its session was called off
}

// Link finds what a link leads to, or ErrNotFound: where it never was, was withdrawn, or
// is over. Of a session that was called off calendars are still to learn that.
func (s Shares) Link(ctx context.Context, token string, now time.Time) (*Link, error) {
	if !isToken(token) {
		return nil, ErrNotFound
	}
	row, err := s.queries.Link(ctx, token)
	if err != nil {
		return nil, known(err)
	}
	link := &Link{Token: token, Secret: row.Secret, Season: row.Season, ClubID: row.ClubID, SquadID: row.SquadID,
		Session: row.SessionID, Number: int(row.Number), Removed: row.Removed}
	if row.Season {
		link.Removed = false
		next, err := s.queries.NextPublished(ctx, db.NextPublishedParams{SquadID: row.SquadID,
			StartAt: now.Add(-seasonAfter)})
		if errors.Is(err, sql.ErrNoRows) {
			var last db.LastPublishedRow
			last, err = s.queries.LastPublished(ctx, row.SquadID)
			next = db.NextPublishedRow(last)
		}
		link.Session, link.Number = next.ID, int(next.Number)
		return link, known(err)
	}
	if link.Number == 0 || now.After(row.StartAt.Add(linkAfter)) {
		return nil, ErrNotFound
	}
	return link, nil
}

// Edition is what was published of a session at one time. It is never changed, but by
// what forgets a person.
type Edition struct {
	Session  uint64
	Number   int
	At       time.Time
	Document *plan.Document
	Schedule *schedule.Schedule
}

// Edition returns publication number of a session, or ErrNotFound.
func (s Shares) Edition(ctx context.Context, session uint64, number int) (*Edition, error) {
	row, err := s.queries.Publication(ctx, db.PublicationParams{SessionID: session, Number: uint32(number)})
	if err != nil {
		return nil, known(err)
	}
	is := &Edition{Session: session, Number: number, At: row.PublishedAt, Document: new(plan.Document),
		Schedule: new(schedule.Schedule)}
	if err := json.Unmarshal([]byte(row.Document), is.Document); err != nil {
		return nil, err
	}
	return is, json.Unmarshal([]byte(row.Schedule), is.Schedule)
}

// Numbered names a publication of a session.
type Numbered struct {
	Session uint64
	Number  int
}

// OfSquad is the newest publication of a session of a squad.
type OfSquad struct {
	Numbered
	Removed bool // the session is called off
}

// PublishedOfSquad lists the newest publication of each session of a squad that starts
// after a moment, those called off among them, in the order of time.
func (s Shares) PublishedOfSquad(ctx context.Context, squad uint64, after time.Time) (list []OfSquad, err error) {
	rows, err := s.queries.PublishedOfSquad(ctx, db.PublishedOfSquadParams{SquadID: squad, StartAt: after})
	for _, row := range rows {
		list = append(list, OfSquad{Numbered{row.ID, int(row.Number)}, row.Removed})
	}
	return list, err
}
