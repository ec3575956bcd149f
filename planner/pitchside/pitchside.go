// Package pitchside holds use cases; see package planner for how they lie.
package pitchside

import (
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/planner/reach"
)

// Pitchside is a session while it runs. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Pitchside struct {
	base   *planner.Base
	keep   *keep.Keep
	boards *boards.Boards
	reach  *reach.Reach
}

// New is a door to them.
func New(base *planner.Base, keep *keep.Keep, boards *boards.Boards, reach *reach.Reach) *Pitchside {
	return &Pitchside{base: base, keep: keep, boards: boards, reach: reach}
}
