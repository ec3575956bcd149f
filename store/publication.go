package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"encoding/base64"
	"encoding/json"
	"errors"
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
	Season bool   // the link stays good after the session
}

// Published tells what is shared of a session.
func (s *Store) Published(ctx context.Context, session uint64) (Publication, error) {
	row, err := s.queries.NewestPublication(ctx, session)
	if errors.Is(err, sql.ErrNoRows) {
		return Publication{}, nil
	} else if err != nil {
		return Publication{}, err
	}
	return Publication{Number: int(row.Number), Head: row.Head, At: row.PublishedAt, Token: row.Token.String, Season: row.Season.Bool}, nil
}

// Publish shares the plan in force, under the link that is there or else a new
// one. It fails with ErrStale where revision is not the session's any more.
func (s *Store) Publish(ctx context.Context, clubID, id uint64, revision uint32) (token string, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		at, err := q.LockSession(ctx, db.LockSessionParams{ID: id, ClubID: clubID})
		if err != nil {
			return known(err)
		}
		if at.Revision != revision {
			return ErrStale
		}
		if err := q.AddPublication(ctx, id); err != nil {
			return err
		}
		token, err = q.LiveLink(ctx, id)
		if errors.Is(err, sql.ErrNoRows) {
			token = newToken()
			err = q.AddLink(ctx, db.AddLinkParams{Token: token, SessionID: id, Secret: hashOf(newToken())})
		}
		return err
	})
	return token, err
}

// newToken is 256 random bits in letters that a link may hold.
func newToken() string {
	bits := make([]byte, 32)
	rand.Read(bits) // never fails
	return base64.RawURLEncoding.EncodeToString(bits)
}

// Withdraw ends the session's link, so that it shows nothing any more.
func (s *Store) Withdraw(ctx context.Context, clubID, id uint64) error {
	return s.within(ctx, func(q *db.Queries) error {
		if _, err := q.LockSession(ctx, db.LockSessionParams{ID: id, ClubID: clubID}); err != nil {
			return known(err)
		}
		_, err := q.WithdrawLinks(ctx, id)
		return err
	})
}

// SetSeason lets the session's link stay good after the session, or end a day after it.
func (s *Store) SetSeason(ctx context.Context, clubID, id uint64, season bool) error {
	return s.within(ctx, func(q *db.Queries) error {
		if _, err := q.LockSession(ctx, db.LockSessionParams{ID: id, ClubID: clubID}); err != nil {
			return known(err)
		}
		return q.SetSeason(ctx, db.SetSeasonParams{Season: season, SessionID: id})
	})
}

// LinkSecret is what the players' own keys to a session's link are made of; "" where
// it has no link.
func (s *Store) LinkSecret(ctx context.Context, session uint64) (string, error) {
	secret, err := s.queries.LinkSecret(ctx, session)
	if errors.Is(err, sql.ErrNoRows) {
		return "", nil
	}
	return secret, err
}

// linkAfter is how long after its session's start a link is good, unless it was made
// for a season.
const linkAfter = 24 * time.Hour

// Shared is what a link shows.
type Shared struct {
	ClubID   uint64
	Session  uint64
	Secret   string // that players' own keys are made of
	Number   int
	At       time.Time
	Document *plan.Document
	Schedule *schedule.Schedule
}

// ErrWithdrawn is returned for a link that was good once.
var ErrWithdrawn = errors.New("this link was withdrawn")

// ErrOver is returned for a link whose session was.
var ErrOver = errors.New("this link has ended with its session")

// Shared returns what a link shows, or ErrNotFound, ErrWithdrawn or ErrOver.
func (s *Store) Shared(ctx context.Context, token string, now time.Time) (*Shared, error) {
	row, err := s.queries.Shared(ctx, token)
	if err != nil {
		return nil, known(err)
	}
	if row.WithdrawnAt.Valid {
		return nil, ErrWithdrawn
	}
	if !row.Season && now.After(row.StartAt.Add(linkAfter)) {
		return nil, ErrOver
	}
	shared := &Shared{ClubID: row.ClubID, Session: row.SessionID, Secret: row.Secret, Number: int(row.Number), At: row.PublishedAt, Document: new(plan.Document), Schedule: new(schedule.Schedule)}
	if err := json.Unmarshal([]byte(row.Document), shared.Document); err != nil {
		return nil, err
	}
	return shared, json.Unmarshal([]byte(row.Schedule), shared.Schedule)
}
