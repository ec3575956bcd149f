package place

import (
	"cuestart/planner/books"
	"cuestart/planner/keep"
)

// Room is what these screens may touch.
type Room struct {
	Books *books.Books
	Keep  *keep.Keep
}
