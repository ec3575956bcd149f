package account

import (
	"cuestart/planner/keep"
	"cuestart/planner/staff"
)

// Room is what these screens may touch.
type Room struct {
	Keep      *keep.Keep
	Staff     *staff.Staff
	Passwords *Passwords
}
