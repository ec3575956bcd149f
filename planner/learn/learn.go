// Package learn holds use cases; see package planner for how they lie.
package learn

import (
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/planner/pitchside"
	"cuestart/store"
)

// Learn is what is learnt from sessions: log, tests, week. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Learn struct {
	Port Port // of measuring devices; nil: there are none

	base      *planner.Base
	logs      store.Logs
	shares    store.Shares
	books     *books.Books
	keep      *keep.Keep
	boards    *boards.Boards
	pitchside *pitchside.Pitchside
}

// New is a door to them.
func New(base *planner.Base, s *store.Store, books *books.Books, keep *keep.Keep, boards *boards.Boards,
	pitchside *pitchside.Pitchside) *Learn {
	return &Learn{base: base, logs: s.Logs, shares: s.Shares, books: books, keep: keep, boards: boards,
		pitchside: pitchside}
}
