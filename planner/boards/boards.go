// Package boards holds use cases; see package planner for how they lie.
package boards

import (
	"cuestart/core/verdict"
	"cuestart/kept"
	"cuestart/planner"
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/store"
)

// Boards are the sessions' plans: opened, changed, fitted, judged, undone. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Boards struct {
	base     *planner.Base
	clubs    store.Clubs
	logs     store.Logs
	runs     store.Runs
	sessions store.Sessions
	shares   store.Shares
	books    *books.Books
	keep     *keep.Keep

	likely kept.Cache[string, verdict.Likely] // by session and revision
}

// New is a door to them.
func New(base *planner.Base, s *store.Store, books *books.Books, keep *keep.Keep) *Boards {
	return &Boards{base: base, clubs: s.Clubs, logs: s.Logs, runs: s.Runs, sessions: s.Sessions, shares: s.Shares,
		books: books, keep: keep}
}

// Tried is how many steps each of the many fits may take that are tried for a mend, or for a
// plan that is composed.
const Tried = 3_000
