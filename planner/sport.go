package planner

import (
	"context"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/sport"
)

// Sport returns the club's sport: its copy, or the one that comes with Cue
// Start; the first of these where the club plays none that is known.
func (p *Planner) Sport(ctx context.Context, clubID uint64) (*sport.Sport, error) {
	kept, err := entries[club.Sport](ctx, p, clubID)
	if err != nil {
		return nil, err
	}
	if len(kept) > 0 {
		return &kept[0].Is.Sport, nil
	}
	name, err := p.store.Sport(ctx, clubID)
	if err != nil {
		return nil, err
	}
	known, ok := book.Sport(name)
	if !ok {
		known = book.Sports()[0]
	}
	return &known, nil
}

// OwnSport is the club's own copy of its sport; nil where it has none.
func (p *Planner) OwnSport(ctx context.Context, clubID uint64) (*Entry[club.Sport], error) {
	kept, err := entries[club.Sport](ctx, p, clubID)
	if err != nil || len(kept) == 0 {
		return nil, err
	}
	return &kept[0], nil
}

// SaveSport saves the club's own copy of its sport.
func (p *Planner) SaveSport(ctx context.Context, by Account, s sport.Sport, edition uint32) error {
	kept, err := entries[club.Sport](ctx, p, by.ClubID)
	if err != nil {
		return err
	}
	change := Change{Is: club.Sport{Sport: s}, Edition: edition}
	if len(kept) > 0 {
		change.ID = kept[0].ID
	} else {
		change.Edition = 0
	}
	_, err = p.Save(ctx, by, s.Name+" changed", change)
	return err
}

// ResetSport brings the sport back to how it came.
func (p *Planner) ResetSport(ctx context.Context, by Account) error {
	kept, err := entries[club.Sport](ctx, p, by.ClubID)
	if err != nil || len(kept) == 0 {
		return err
	}
	_, err = p.Save(ctx, by, kept[0].Is.Name+" as it came", Change{ID: kept[0].ID, Is: kept[0].Is, Gone: true})
	return err
}
