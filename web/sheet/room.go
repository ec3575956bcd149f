package sheet

import (
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/reach"
)

// Room is what these screens may touch.
type Room struct {
	Boards *boards.Boards
	Books  *books.Books
	Reach  *reach.Reach
}
