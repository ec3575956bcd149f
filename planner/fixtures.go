package planner

import (
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"cuestart/core/club"
)

// Fixtures lists the club's matches and trainings without a plan, the oldest
// entry first.
func (p *Planner) Fixtures(ctx context.Context, clubID uint64) ([]Entry[club.Fixture], error) {
	return entries[club.Fixture](ctx, p, clubID)
}

// Fixture returns a fixture of the club, or ErrNotFound.
func (p *Planner) Fixture(ctx context.Context, clubID, id uint64) (*Entry[club.Fixture], error) {
	all, err := p.Fixtures(ctx, clubID)
	if err != nil {
		return nil, err
	}
	if f := find(all, id); f != nil {
		return f, nil
	}
	return nil, ErrNotFound
}

// ToCome is a fixture that has no run-in yet.
type ToCome struct {
	Entry[club.Fixture]
	At time.Time
}

// ToCome lists the fixtures that are still to come and that none of the sessions
// is the run-in of, the nearest first.
func (p *Planner) ToCome(ctx context.Context, clubID uint64, sessions []Listed) (list []ToCome, err error) {
	all, err := p.Fixtures(ctx, clubID)
	if err != nil {
		return nil, err
	}
	since := p.Now().Add(-stillListed)
	for _, f := range all {
		at, err := f.Is.Start.Resolve()
		if err != nil || at.Before(since) {
			continue
		}
		planned := func(s Listed) bool { return s.Start.Equal(at) && strings.EqualFold(s.Title, f.Is.Title) }
		if !slices.ContainsFunc(sessions, planned) {
			list = append(list, ToCome{f, at})
		}
	}
	slices.SortStableFunc(list, func(a, b ToCome) int { return a.At.Compare(b.At) })
	return list, nil
}

// Planned takes a fixture off the list that has its run-in now; one that is gone
// already is no failure.
func (p *Planner) Planned(ctx context.Context, by Account, id uint64) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	f, err := p.Fixture(ctx, by.ClubID, id)
	if err == nil {
		_, err = p.Save(ctx, by, "a fixture got its run-in", Change{ID: id, Is: f.Is, Gone: true})
	}
	if errors.Is(err, ErrNotFound) {
		return nil
	}
	return err
}
