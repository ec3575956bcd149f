package phone

import (
	"cuestart/planner/books"
	"cuestart/planner/reach"
)

// Room is what these screens may touch.
type Room struct {
	Books *books.Books
	Reach *reach.Reach
}
