package today

import (
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
)

// Room is what these screens may touch.
type Room struct {
	Boards *boards.Boards
	Books  *books.Books
	Diary  *diary.Diary
	Keep   *keep.Keep
}
