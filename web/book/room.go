package book

import (
	"cuestart/planner/books"
	"cuestart/planner/diary"
	"cuestart/planner/learn"
	"cuestart/planner/wording"
)

// Room is what these screens may touch.
type Room struct {
	Books   *books.Books
	Diary   *diary.Diary
	Learn   *learn.Learn
	Wording *wording.Wording
}
