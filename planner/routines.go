package planner

import (
	"context"
	"errors"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/compose"
	"cuestart/core/plan"
)

// Routines lists what the club keeps to use again, the oldest first.
func (p *Planner) Routines(ctx context.Context, clubID uint64) ([]Entry[club.Routine], error) {
	return entries[club.Routine](ctx, p, clubID)
}

// Routine returns a routine of the club, or ErrNotFound.
func (p *Planner) Routine(ctx context.Context, clubID, id uint64) (*Entry[club.Routine], error) {
	all, err := p.Routines(ctx, clubID)
	if err != nil {
		return nil, err
	}
	if r := find(all, id); r != nil {
		return r, nil
	}
	return nil, ErrNotFound
}

// Keep is what is kept as a routine, and how it is called.
type Keep struct {
	Name, For, Season string
	Only              []string // ids of blocks; none: all of them
}

// SaveRoutine keeps a session's blocks as a routine, in place of one of that
// name, which remembers how it was. It fails with [plan.Problems], ErrForbidden
// and ErrNotFound.
func (p *Planner) SaveRoutine(ctx context.Context, by Account, session uint64, keep Keep) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	d, err := p.Document(ctx, by.ClubID, session)
	if err != nil {
		return err
	}
	all, err := p.Routines(ctx, by.ClubID)
	if err != nil {
		return err
	}
	name := keep.Name
	routine := club.NewRoutine(d, name, keep.For, keep.Only...)
	routine.Season = keep.Season
	change := Change{Is: routine}
	if i := slices.IndexFunc(all, func(r Entry[club.Routine]) bool { return r.Is.Name == name }); i >= 0 {
		routine.Was, routine.Slots = all[i].Is.Blocks, all[i].Is.Slots
		if routine.Validate() != nil {
			routine.Slots = nil // they named drills that are gone
		}
		change = Change{ID: all[i].ID, Edition: all[i].Edition, Is: routine}
	}
	if err := p.keepOwn(ctx, by, d); err != nil {
		return err
	}
	_, err = p.Save(ctx, by, name+" kept as a routine", change)
	return err
}

// PutRoutine puts the blocks of a routine into a plan beside its own. It fails as
// [Planner.Change] does.
func (p *Planner) PutRoutine(ctx context.Context, by Account, id uint64, revision uint32, routine uint64) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	found, err := p.Routine(ctx, by.ClubID, routine)
	if errors.Is(err, ErrNotFound) {
		return nil, plan.In("routine", "this routine is no longer there")
	} else if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		before := len(d.Blocks)
		says, err := found.Is.Into(d)
		if err != nil {
			return "", err
		}
		if len(d.Blocks) == before {
			return "", plan.In("routine", "nobody of this routine's units is here today")
		}
		d.Note(says...)
		return found.Is.Name + " put in", nil
	})
}

// SetSlot sets which drills take turns in a place of a routine; fewer than two
// keep the place as it is. It fails with [plan.Problems], ErrStale where the
// routine is not edition any more, ErrForbidden and ErrNotFound.
func (p *Planner) SetSlot(ctx context.Context, by Account, routine uint64, edition uint32, slot club.Slot) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	found, err := p.Routine(ctx, by.ClubID, routine)
	if err != nil {
		return err
	}
	r := found.Is
	r.Slots = slices.DeleteFunc(slices.Clone(r.Slots), func(s club.Slot) bool { return s.Block == slot.Block && s.Item == slot.Item })
	if len(slot.Pool) > 1 {
		r.Slots = append(r.Slots, slot)
	}
	_, err = p.Save(ctx, by, r.Name+": what takes turns", Change{ID: routine, Edition: edition, Is: r})
	return err
}

// RemoveRoutine takes a routine out. It fails with ErrForbidden and ErrNotFound.
func (p *Planner) RemoveRoutine(ctx context.Context, by Account, id uint64) (name string, err error) {
	if err := May(by, ToKeep); err != nil {
		return "", err
	}
	r, err := p.Routine(ctx, by.ClubID, id)
	if err != nil {
		return "", err
	}
	_, err = p.Save(ctx, by, r.Is.Name+" is no longer kept", Change{ID: id, Is: r.Is, Gone: true})
	return r.Is.Name, err
}

// UsualDay is a day of the club's first squad at its first ground, without
// blocks: what the cost of a routine is worked out for.
func (p *Planner) UsualDay(ctx context.Context, clubID uint64) (*plan.Document, error) {
	ground, err := p.Ground(ctx, clubID)
	if err != nil {
		return nil, err
	}
	n := NewSession{Kind: plan.Match, Title: "A usual day", Start: clock.StartAt(p.Now()), Players: 20}
	if len(ground.Venues) > 0 {
		n.Venue = ground.Venues[0].ID
	}
	brief, _, err := p.brief(ctx, clubID, n)
	if err != nil {
		return nil, err
	}
	for _, player := range brief.Players { // who does not begin is not known: the first fifteen do
		if len(brief.Players) > 15 && player.Number > 15 {
			brief.Bench = append(brief.Bench, player.ID)
		}
	}
	day, _, err := compose.Day(brief)
	return day, err
}
