package planner

import (
	"context"
	"errors"

	"cuestart/core/club"
	"cuestart/store"
)

// errNoThing is returned for a change that says of nothing what it is to be: a
// bug of the caller, not of a form.
var errNoThing = errors.New("a change names no thing")

// Save makes changes of things that the club keeps, all or none, under a summary
// that names them in an undo. It fails with ErrForbidden where the account's role
// does not allow one of them, with [plan.Problems] where a thing does not hold,
// with ErrTaken, ErrStale and ErrNotFound. The plans of sessions to come follow.
func (b *Base) Save(ctx context.Context, by Account, summary string, changes ...Change) ([]uint64, error) {
	for _, c := range changes {
		if c.Is == nil {
			return nil, errNoThing
		}
		act := ToKeep
		if c.Is.Kind() == club.KindRestriction {
			act = ToRule
		}
		if err := May(by, act); err != nil {
			return nil, err
		}
	}
	follow, err := b.Follow(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	ids, err := b.store.Clubs.Save(ctx, by, summary, changes...)
	if err != nil {
		return nil, err
	}
	return ids, follow(ctx, by)
}

// Find returns the entry of that id, or nil.
func Find[T club.Thing](list []Entry[T], id uint64) *Entry[T] {
	for i := range list {
		if list[i].ID == id {
			return &list[i]
		}
	}
	return nil
}

// Entries lists what a club keeps of a kind, the oldest first.
func Entries[T club.Thing](ctx context.Context, b *Base, clubID uint64) ([]Entry[T], error) {
	return store.Entries[T](ctx, b.store.Clubs, clubID)
}
