// Package books holds use cases; see package planner for how they lie.
package books

import (
	"cuestart/kept"
	"cuestart/planner"
	"cuestart/store"
)

// Books are the clubs' drill books, with their pictures, routines and sports. Its methods may be called
// concurrently; each takes the club that asks, or the account: what is another club's is not
// there.
type Books struct {
	base  *planner.Base
	clubs store.Clubs

	playbooks playbooks
	pictures  kept.Cache[uint64, map[string]string] // stamps, by club
}

// New is a door to them.
func New(base *planner.Base, s *store.Store) *Books {
	return &Books{base: base, clubs: s.Clubs}
}
