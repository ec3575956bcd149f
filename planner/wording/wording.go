// Package wording holds use cases; see package planner for how they lie.
package wording

import (
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/diary"
)

// Wording is plans in their coaches' words. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Wording struct {
	base   *planner.Base
	books  *books.Books
	boards *boards.Boards
	diary  *diary.Diary
}

// New is a door to them.
func New(base *planner.Base, books *books.Books, boards *boards.Boards, diary *diary.Diary) *Wording {
	return &Wording{base: base, books: books, boards: boards, diary: diary}
}
