// Package planner joins the store and the core in the use cases of the product:
// open a board, change it, publish it, make a new session, keep what a club has.
package planner

import (
	"context"
	"time"

	"cuestart/core/club"
	"cuestart/core/verdict"
	"cuestart/kept"
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
)

// Once names a change by an account, so that one that is sent twice is made once.
func Once(ctx context.Context, account uint64, token string) context.Context {
	return store.WithOnce(ctx, store.Once{Account: account, Token: token})
}

// IsFull tells whether an error is that of a full disk.
func IsFull(err error) bool { return store.IsFull(err) }

// tried is how many steps each of the many fits may take that are tried for a mend, or for a
// plan that is composed.
const tried = 3_000

// Planner runs the use cases. Its methods may be called concurrently. Each takes
// the club that asks, or the account; what is another club's is not there.
type Planner struct {
	Now     func() time.Time
	Weather Weather // nil: there is no forecast
	Port    Port    // of measuring devices; nil: there are none
	Nudge   func()  // is called when something is new for who has a page open; nil: they find it themselves
	Follow  func(ctx context.Context, clubID uint64) (then func(context.Context, Account) error, err error)
	Erased  func()

	store     *store.Store
	playbooks playbooks
	editions  kept.Cache[store.Numbered, *store.Edition]
	links     kept.Cache[string, *store.Link]
	rulings   kept.Cache[uint64, ruled] // by club
	turns     kept.Cache[string, map[string]store.Turn]
	books     kept.Cache[uint64, *Book]             // by club, for phones
	pictures  kept.Cache[uint64, map[string]string] // stamps, by club
	likely    kept.Cache[string, verdict.Likely]    // by session and revision
	better    kept.Cache[string, *Better]           // the same
	dragged   kept.Cache[string, *store.Session]    // by club, session and revision
	readers   readers
}

// New is a planner on the real clock.
func New(s *store.Store) *Planner {
	p := &Planner{store: s, Now: time.Now}
	p.Follow, p.Erased = p.follows, p.forget
	return p
}

// News are the sessions of which something is new in the last few seconds, by the id of
// what is new.
func (p *Planner) News(ctx context.Context) (map[uint64]News, error) { return p.store.News(ctx) }

// nudge tells those who have a page open that something is new.
func (p *Planner) nudge() {
	if p.Nudge != nil {
		p.Nudge()
	}
}

// Ping tells whether the database answers.
func (p *Planner) Ping(ctx context.Context) error { return p.store.Ping(ctx) }
