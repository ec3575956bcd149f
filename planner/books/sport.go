package books

import (
	"context"

	"cuestart/core/club"
	"cuestart/core/sport"
	"cuestart/planner"
)

// SaveSport saves the club's own copy of its sport.
func (bk *Books) SaveSport(ctx context.Context, by planner.Account, s sport.Sport, edition uint32) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	own, err := bk.OwnSport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	change := planner.Change{Is: club.Sport{Sport: s}}
	if own != nil {
		change.ID, change.Edition = own.ID, edition
	}
	_, err = bk.base.Save(ctx, by, s.Name+" changed", change)
	return err
}

// ResetSport brings the sport back to how it came.
func (bk *Books) ResetSport(ctx context.Context, by planner.Account) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	own, err := bk.OwnSport(ctx, by.ClubID)
	if err != nil || own == nil {
		return err
	}
	_, err = bk.base.Save(ctx, by, own.Is.Name+" as it came", planner.Change{ID: own.ID, Is: own.Is, Gone: true})
	return err
}
