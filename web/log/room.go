package log

import (
	"cuestart/planner/keep"
	"cuestart/planner/learn"
	"cuestart/planner/staff"
)

// Room is what these screens may touch.
type Room struct {
	Keep  *keep.Keep
	Learn *learn.Learn
	Staff *staff.Staff
}
