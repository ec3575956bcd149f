// Package pitchside holds use cases; see package planner for how they lie.
package pitchside

import (
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/planner/reach"
	"cuestart/store"
)

// Pitchside is a session while it runs. Its methods may be called concurrently; each takes the
// club that asks, or the account: what is another club's is not there.
type Pitchside struct {
	base     *planner.Base
	accounts store.Accounts
	people   store.People
	runs     store.Runs
	sessions store.Sessions
	shares   store.Shares
	keep     *keep.Keep
	boards   *boards.Boards
	reach    *reach.Reach
}

// New is a door to them.
func New(base *planner.Base, s *store.Store, keep *keep.Keep, boards *boards.Boards, reach *reach.Reach) *Pitchside {
	return &Pitchside{base: base, accounts: s.Accounts, people: s.People, runs: s.Runs, sessions: s.Sessions,
		shares: s.Shares, keep: keep, boards: boards, reach: reach}
}
