// Package planner is what the use cases of the product stand on: who may do what, what the
// store keeps as they name it, and the change that plans follow. The use cases lie in a
// package each for each part of the work, with one type that is their door:
//
//	staff      who signs in: accounts, letters, what is written down, terms
//	books      drills, pictures, routines, the club's sport
//	keep       squad, ground, kit, fixtures, rulings, who is hurt, and taking back
//	boards     a session's plan: opened, changed, fitted, judged, undone
//	whatif     what would come of something, and taking it
//	reach      what is published, links, and what people say from their phones
//	pitchside  while a session runs
//	learn      log, tests, week
//	diary      sessions to come, and new ones
//	wording    a plan in its coach's words
//
// Each may use those above it in this list. Package office puts them together.
package planner

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"cuestart/core/club"
	"cuestart/store"
)

// What the store keeps, as those above the planner name it.
type (
	// Account is somebody of a club who signs in.
	Account = store.Account
	// Role is what an account may do.
	Role = store.Role
	// Team is a squad of a club by its name alone.
	Team = store.Squad
	// Entry is a thing of a club as it is kept.
	Entry[T club.Thing] = store.Entry[T]
	// Change is what is to become of a thing.
	Change = store.Change
	// Session is a match or training session with the plan in force.
	Session = store.Session
	// Publication is what is shared of a session.
	Publication = store.Publication
	// Secrets are what proves who somebody is.
	Secrets = store.Secrets
	// SignIn is a browser that is signed in.
	SignIn = store.SignIn
	// Invitation is somebody who was asked to join the staff, and has not yet.
	Invitation = store.Invitation
	// Letter is a message to somebody.
	Letter = store.Letter
	// Audited is something that somebody did that the club's head can look up.
	Audited = store.Audited
	// News is what is new of a session.
	News = store.News
	// Terms are how long a club keeps what it need not keep.
	Terms = store.Terms
)

// The roles.
const (
	Coach     = store.Coach
	Assistant = store.Assistant
	Medical   = store.Medical
)

// Errors that callers tell apart.
var (
	ErrNotFound = store.ErrNotFound
	ErrStale    = store.ErrStale
	ErrTaken    = store.ErrTaken
	ErrNothing  = store.ErrNothing
	ErrDone     = store.ErrDone
	ErrMany     = store.ErrMany
	ErrWaits    = store.ErrWaits

	// ErrForbidden is that an account's role does not allow something ([May]).
	ErrForbidden = errors.New("your role does not allow this")
	// ErrUnproved is that the password has to be given again first.
	ErrUnproved = errors.New("the password has to be given again")
)

// Once names a change by an account, so that one that is sent twice is made once.
func Once(ctx context.Context, account uint64, token string) context.Context {
	return store.WithOnce(ctx, store.Once{Account: account, Token: token})
}

// IsFull tells whether an error is that of a full disk.
func IsFull(err error) bool { return store.IsFull(err) }

// Base is what each use case stands on. All of a process stand on the same one.
type Base struct {
	Now   func() time.Time
	Nudge func() // is called when something is new for who has a page open; nil: they find it themselves

	// Follow looks at what plans follow of what a club keeps, before that is changed; then has
	// them follow the change, once it is made.
	Follow func(ctx context.Context, clubID uint64) (then func(ctx context.Context, by Account) error, err error)
	// Erased lets go what is kept in memory of somebody who was erased.
	Erased func()

	store *store.Store
}

// NewBase is a base on the real clock. Nothing follows what is kept, and nothing is let go, until
// that is set.
func NewBase(s *store.Store) *Base {
	return &Base{store: s, Now: time.Now, Erased: func() {},
		Follow: func(context.Context, uint64) (func(context.Context, Account) error, error) {
			return func(context.Context, Account) error { return nil }, nil
		}}
}

// Tell tells those who have a page open that something is new.
func (b *Base) Tell() {
	if b.Nudge != nil {
		b.Nudge()
	}
}

// News are the sessions of which something is new in the last few seconds, by the id of
// what is new.
func (b *Base) News(ctx context.Context) (map[uint64]News, error) { return b.store.Shares.News(ctx) }

// Ping tells whether the database answers.
func (b *Base) Ping(ctx context.Context) error { return b.store.Ping(ctx) }

// MedicalLimit is how long a sign-in is good without the password where it is about rulings.
const MedicalLimit = 30 * time.Minute

// Prove tells whether who is signed in has proved lately enough who they are, to see
// and make rulings; using what it is asked for counts as that.
func (b *Base) Prove(ctx context.Context, who Account) (bool, error) {
	since := b.Now().Sub(who.Proved)
	if since > MedicalLimit {
		return false, nil
	}
	if since > time.Minute {
		return true, b.store.Accounts.Seen(ctx, who.SignIn, b.Now(), true)
	}
	return true, nil
}

// PlayerID is a player of the club as plans name them.
func PlayerID(id uint64) string { return fmt.Sprintf("p%d", id) }

// FullName is a name to compare by: in small letters, with single spaces.
func FullName(first, last string) string {
	return strings.Join(strings.Fields(strings.ToLower(first+" "+last)), " ")
}

// CutDay parts a local time such as 2026-11-28T15:00 into its day and its hour.
func CutDay(local string) (day, hour string, ok bool) {
	if len(local) < len("2026-11-28T15:00") {
		return local, "", false
	}
	return local[:10], local[11:], true
}
