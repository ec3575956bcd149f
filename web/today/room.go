package today

import (
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
	"cuestart/planner/learn"
)

// Room is what these screens may touch.
type Room struct {
	Boards *boards.Boards
	Books  *books.Books
	Diary  *diary.Diary
	Keep   *keep.Keep
	Learn  *learn.Learn
}
