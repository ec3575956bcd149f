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
func (p *Planner) Save(ctx context.Context, by Account, summary string, changes ...Change) ([]uint64, error) {
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
	follow, err := p.Follow(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	ids, err := p.store.Save(ctx, by, summary, changes...)
	if err != nil {
		return nil, err
	}
	return ids, follow(ctx, by)
}

// Newest says what the account's last change of the last day was that is not
// taken back, or "".
func (p *Planner) Newest(ctx context.Context, by Account) (summary string, err error) {
	if err := May(by, ToSelf); err != nil {
		return "", err
	}
	summary, _, err = p.store.Newest(ctx, by)
	return summary, err
}

// TakeBack undoes the account's last change of the last day, and says which it
// was. It fails with ErrNothing, and with ErrStale or ErrTaken where a thing was
// changed since.
func (p *Planner) TakeBack(ctx context.Context, by Account) (summary string, err error) {
	if May(by, ToKeep) != nil && May(by, ToRule) != nil { // each takes back what they did themselves
		return "", ErrForbidden
	}
	follow, err := p.Follow(ctx, by.ClubID)
	if err != nil {
		return "", err
	}
	if summary, err = p.store.TakeBack(ctx, by); err == nil {
		err = follow(ctx, by)
	}
	return summary, err
}

// find returns the entry of that id, or nil.
func find[T club.Thing](list []Entry[T], id uint64) *Entry[T] {
	for i := range list {
		if list[i].ID == id {
			return &list[i]
		}
	}
	return nil
}

// entries lists what a club keeps of a kind, the oldest first.
func entries[T club.Thing](ctx context.Context, p *Planner, clubID uint64) ([]Entry[T], error) {
	return store.Entries[T](ctx, p.store, clubID)
}
