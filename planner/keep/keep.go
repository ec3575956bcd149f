// Package keep holds use cases; see package planner for how they lie.
package keep

import (
	"cuestart/planner"
	"cuestart/planner/books"
	"cuestart/store"
)

// Keep is what clubs keep: squad, ground, kit, fixtures, rulings, who is hurt. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Keep struct {
	base     *planner.Base
	accounts store.Accounts
	clubs    store.Clubs
	logs     store.Logs
	people   store.People
	shares   store.Shares
	books    *books.Books
}

// New is a door to them.
func New(base *planner.Base, s *store.Store, books *books.Books) *Keep {
	return &Keep{base: base, accounts: s.Accounts, clubs: s.Clubs, logs: s.Logs, people: s.People, shares: s.Shares,
		books: books}
}
