package diary

import (
	"context"
	"errors"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// Keep is what is kept as a routine, and how it is called.
type Keep struct {
	Name, For, Season string
	Only              []string // ids of blocks; none: all of them
}

// SaveRoutine keeps a session's blocks as a routine, in place of one of that
// name, which remembers how it was. It fails with [plan.Problems], ErrForbidden
// and ErrNotFound.
func (di *Diary) SaveRoutine(ctx context.Context, by planner.Account, session uint64, keep Keep) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	d, err := di.boards.Document(ctx, by.ClubID, session)
	if err != nil {
		return err
	}
	all, err := di.books.Routines(ctx, by.ClubID)
	if err != nil {
		return err
	}
	name := keep.Name
	routine := club.NewRoutine(d, name, keep.For, keep.Only...)
	routine.Season = keep.Season
	change := planner.Change{Is: routine}
	if i := slices.IndexFunc(all, func(r planner.Entry[club.Routine]) bool { return r.Is.Name == name }); i >= 0 {
		routine.Was, routine.Slots = all[i].Is.Blocks, all[i].Is.Slots
		if routine.Validate() != nil {
			routine.Slots = nil // they named drills that are gone
		}
		change = planner.Change{ID: all[i].ID, Edition: all[i].Edition, Is: routine}
	}
	if err := di.boards.KeepOwn(ctx, by, d); err != nil {
		return err
	}
	_, err = di.base.Save(ctx, by, name+" kept as a routine", change)
	return err
}

// PutRoutine puts the blocks of a routine into a plan beside its own. It fails as
// [boards.Boards.Change] does.
func (di *Diary) PutRoutine(ctx context.Context, by planner.Account, id uint64, revision uint32,
	routine uint64) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	found, err := di.books.Routine(ctx, by.ClubID, routine)
	if errors.Is(err, planner.ErrNotFound) {
		return nil, plan.In("routine", "this routine is no longer there")
	} else if err != nil {
		return nil, err
	}
	return di.boards.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
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

// UsualDay is a day of the club's first squad at its first ground, without
// blocks: what the cost of a routine is worked out for.
func (di *Diary) UsualDay(ctx context.Context, clubID uint64) (*plan.Document, error) {
	ground, err := di.keep.Ground(ctx, clubID)
	if err != nil {
		return nil, err
	}
	n := NewSession{Kind: plan.Match, Title: "A usual day", Start: clock.StartAt(di.base.Now()), Players: 20}
	if len(ground.Venues) > 0 {
		n.Venue = ground.Venues[0].ID
	}
	brief, _, err := di.brief(ctx, clubID, n)
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
