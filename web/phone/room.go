package phone

import (
	"cuestart/kept"
	"cuestart/planner/books"
	"cuestart/planner/reach"
)

// Room is what these screens may touch, and what they keep for a crowd.
type Room struct {
	Books *books.Books
	Reach *reach.Reach

	lists   *kept.Cache[string, keptList] // as they are written
	updates *kept.Cache[string, string]   // of a moment ago: many phones are told the same few
}

// New is a room that keeps nothing yet.
func New(b *books.Books, r *reach.Reach) Room {
	return Room{Books: b, Reach: r, lists: &kept.Cache[string, keptList]{}, updates: &kept.Cache[string, string]{}}
}
