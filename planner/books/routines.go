package books

import (
	"context"
	"slices"

	"cuestart/core/club"
	"cuestart/planner"
)

// Routines lists what the club keeps to use again, the oldest first.
func (bk *Books) Routines(ctx context.Context, clubID uint64) ([]planner.Entry[club.Routine], error) {
	return planner.Entries[club.Routine](ctx, bk.base, clubID)
}

// Routine returns a routine of the club, or ErrNotFound.
func (bk *Books) Routine(ctx context.Context, clubID, id uint64) (*planner.Entry[club.Routine], error) {
	all, err := bk.Routines(ctx, clubID)
	if err != nil {
		return nil, err
	}
	if r := planner.Find(all, id); r != nil {
		return r, nil
	}
	return nil, planner.ErrNotFound
}

// SetSlot sets which drills take turns in a place of a routine; fewer than two
// keep the place as it is. It fails with [plan.Problems], ErrStale where the
// routine is not edition any more, ErrForbidden and ErrNotFound.
func (bk *Books) SetSlot(ctx context.Context, by planner.Account, routine uint64, edition uint32,
	slot club.Slot) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	found, err := bk.Routine(ctx, by.ClubID, routine)
	if err != nil {
		return err
	}
	r := found.Is
	r.Slots = slices.DeleteFunc(slices.Clone(r.Slots),
		func(s club.Slot) bool { return s.Block == slot.Block && s.Item == slot.Item })
	if len(slot.Pool) > 1 {
		r.Slots = append(r.Slots, slot)
	}
	_, err = bk.base.Save(ctx, by, r.Name+": what takes turns", planner.Change{ID: routine, Edition: edition, Is: r})
	return err
}

// RemoveRoutine takes a routine out. It fails with ErrForbidden and ErrNotFound.
func (bk *Books) RemoveRoutine(ctx context.Context, by planner.Account, id uint64) (name string, err error) {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return "", err
	}
	r, err := bk.Routine(ctx, by.ClubID, id)
	if err != nil {
		return "", err
	}
	_, err = bk.base.Save(ctx, by, r.Is.Name+" is no longer kept", planner.Change{ID: id, Is: r.Is, Gone: true})
	return r.Is.Name, err
}
