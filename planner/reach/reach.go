// Package reach holds use cases; see package planner for how they lie.
package reach

import (
	"cuestart/kept"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/store"
)

// Reach is what is published of sessions, to whom, and what they say from their phones. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Reach struct {
	base     *planner.Base
	people   store.People
	sessions store.Sessions
	shares   store.Shares
	books    *books.Books
	keep     *keep.Keep
	boards   *boards.Boards

	editions kept.Cache[store.Numbered, *store.Edition]
	links    kept.Cache[string, *store.Link]
	rulings  kept.Cache[uint64, keep.Ruled] // by club
	turns    kept.Cache[string, map[string]store.Turn]
	shown    kept.Cache[uint64, *books.Book] // by club, for phones
	readers  readers
}

// New is a door to them.
func New(base *planner.Base, s *store.Store, books *books.Books, keep *keep.Keep, boards *boards.Boards) *Reach {
	return &Reach{base: base, people: s.People, sessions: s.Sessions, shares: s.Shares, books: books, keep: keep,
		boards: boards}
}
