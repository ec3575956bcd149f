package keep

import (
	"context"
	"errors"

	"cuestart/core/club"
	"cuestart/planner"
)

// Fixtures lists the club's matches and trainings without a plan, the oldest
// entry first.
func (kp *Keep) Fixtures(ctx context.Context, clubID uint64) ([]planner.Entry[club.Fixture], error) {
	return planner.Entries[club.Fixture](ctx, kp.base, clubID)
}

// Fixture returns a fixture of the club, or ErrNotFound.
func (kp *Keep) Fixture(ctx context.Context, clubID, id uint64) (*planner.Entry[club.Fixture], error) {
	all, err := kp.Fixtures(ctx, clubID)
	if err != nil {
		return nil, err
	}
	if f := planner.Find(all, id); f != nil {
		return f, nil
	}
	return nil, planner.ErrNotFound
}

// Planned takes a fixture off the list that has its run-in now; one that is gone
// already is no failure.
func (kp *Keep) Planned(ctx context.Context, by planner.Account, id uint64) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	f, err := kp.Fixture(ctx, by.ClubID, id)
	if err == nil {
		_, err = kp.base.Save(ctx, by, "a fixture got its run-in", planner.Change{ID: id, Is: f.Is, Gone: true})
	}
	if errors.Is(err, planner.ErrNotFound) {
		return nil
	}
	return err
}
