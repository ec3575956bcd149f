// Package keep holds use cases; see package planner for how they lie.
package keep

import (
	"cuestart/planner"
	"cuestart/planner/books"
)

// Keep is what clubs keep: squad, ground, kit, fixtures, rulings, who is hurt. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Keep struct {
	base  *planner.Base
	books *books.Books
}

// New is a door to them.
func New(base *planner.Base, books *books.Books) *Keep {
	return &Keep{base: base, books: books}
}
