package planner

import (
	"context"

	"cuestart/core/club"
	"cuestart/core/sport"
)

// SaveSport saves the club's own copy of its sport.
func (p *Planner) SaveSport(ctx context.Context, by Account, s sport.Sport, edition uint32) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	own, err := p.OwnSport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	change := Change{Is: club.Sport{Sport: s}}
	if own != nil {
		change.ID, change.Edition = own.ID, edition
	}
	_, err = p.Save(ctx, by, s.Name+" changed", change)
	return err
}

// ResetSport brings the sport back to how it came.
func (p *Planner) ResetSport(ctx context.Context, by Account) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	own, err := p.OwnSport(ctx, by.ClubID)
	if err != nil || own == nil {
		return err
	}
	_, err = p.Save(ctx, by, own.Is.Name+" as it came", Change{ID: own.ID, Is: own.Is, Gone: true})
	return err
}
