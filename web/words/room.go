package words

import (
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/wording"
)

// Room is what these screens may touch.
type Room struct {
	Boards  *boards.Boards
	Books   *books.Books
	Wording *wording.Wording
}
