// Package diary holds use cases; see package planner for how they lie.
package diary

import (
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/planner/learn"
	"cuestart/store"
)

// Diary is the sessions to come, and new ones. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Diary struct {
	Weather Weather // nil: there is no forecast

	base     *planner.Base
	logs     store.Logs
	sessions store.Sessions
	books    *books.Books
	keep     *keep.Keep
	boards   *boards.Boards
	learn    *learn.Learn
}

// New is a door to them.
func New(base *planner.Base, s *store.Store, books *books.Books, keep *keep.Keep, boards *boards.Boards,
	learn *learn.Learn) *Diary {
	return &Diary{base: base, logs: s.Logs, sessions: s.Sessions, books: books, keep: keep, boards: boards,
		learn: learn}
}
