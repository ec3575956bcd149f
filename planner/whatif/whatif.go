// Package whatif holds use cases; see package planner for how they lie.
package whatif

import (
	"cuestart/kept"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/store"
)

// WhatIf tells what would come of something, and takes it. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type WhatIf struct {
	base     *planner.Base
	sessions store.Sessions
	boards   *boards.Boards

	better  kept.Cache[string, *Better]        // by session and revision
	dragged kept.Cache[string, *store.Session] // by club, session and revision
}

// New is a door to them.
func New(base *planner.Base, s *store.Store, boards *boards.Boards) *WhatIf {
	return &WhatIf{base: base, sessions: s.Sessions, boards: boards}
}
