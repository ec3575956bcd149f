package people

import (
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/planner/staff"
)

// Room is what these screens may touch.
type Room struct {
	Books *books.Books
	Keep  *keep.Keep
	Staff *staff.Staff
}
