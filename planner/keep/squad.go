package keep

import (
	"context"
	"errors"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
)

// Squad is a squad with who belongs to it.
type Squad struct {
	planner.Team
	Players []planner.Entry[club.Player] // by number, then by name
	Units   []planner.Entry[club.Unit]
	Rulings []planner.Entry[club.Restriction]
}

// Player returns a player of the squad, or nil.
func (s *Squad) Player(id uint64) *planner.Entry[club.Player] { return planner.Find(s.Players, id) }

// Unit returns a unit of the squad, or nil.
func (s *Squad) Unit(id uint64) *planner.Entry[club.Unit] { return planner.Find(s.Units, id) }

// In lists the rulings for a player that hold on a day, 2026-11-28, or on some
// later one.
func (s *Squad) In(player uint64, day string) (holds, later []planner.Entry[club.Restriction]) {
	for _, r := range s.Rulings {
		switch {
		case r.Owner != player:
		case r.Is.Holds(day):
			holds = append(holds, r)
		case r.Is.From > day:
			later = append(later, r)
		}
	}
	return holds, later
}

// Teams lists the squads of a club, the oldest first.
func (kp *Keep) Teams(ctx context.Context, clubID uint64) ([]planner.Team, error) {
	return kp.clubs.Squads(ctx, clubID)
}

// AddSquad makes a further squad of a club. It fails with [plan.Problems] at
// "squad", and with ErrTaken where the name is another squad's.
func (kp *Keep) AddSquad(ctx context.Context, by planner.Account, name string, grade drill.Grade) (uint64, error) {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return 0, err
	}
	var wrong plan.Problems
	if what := plan.NameProblem(name); what != "" {
		wrong.Add("squad", what)
	}
	if !slices.Contains(drill.Grades, grade) {
		wrong.Add("squad", "pick a level")
	}
	if err := wrong.Err(); err != nil {
		return 0, err
	}
	return kp.clubs.AddSquad(ctx, by.ClubID, name, string(grade))
}

// Squad returns a squad of the club, its first where id is 0; or ErrNotFound.
func (kp *Keep) Squad(ctx context.Context, clubID, id uint64) (*Squad, error) {
	if id == 0 {
		squads, err := kp.clubs.Squads(ctx, clubID)
		if err != nil || len(squads) == 0 {
			return nil, errors.Join(err, planner.ErrNotFound)
		}
		id = squads[0].ID
	}
	found, err := kp.clubs.Squad(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	s := &Squad{Team: found}
	players, err := planner.Entries[club.Player](ctx, kp.base, clubID)
	if err != nil {
		return nil, err
	}
	s.Players = slices.DeleteFunc(players, func(k planner.Entry[club.Player]) bool { return k.Owner != id })
	slices.SortStableFunc(s.Players, func(a, b planner.Entry[club.Player]) int {
		rank := func(p club.Player) int { return (p.Number + 999) % 1000 } // those without a number last
		if n := rank(a.Is) - rank(b.Is); n != 0 {
			return n
		}
		return strings.Compare(a.Is.Last+a.Is.First, b.Is.Last+b.Is.First)
	})
	if s.Units, err = planner.Entries[club.Unit](ctx, kp.base, clubID); err != nil {
		return nil, err
	}
	s.Units = slices.DeleteFunc(s.Units, func(k planner.Entry[club.Unit]) bool { return k.Owner != id })
	rulings, err := planner.Entries[club.Restriction](ctx, kp.base, clubID)
	for _, r := range rulings {
		if s.Player(r.Owner) != nil {
			s.Rulings = append(s.Rulings, r)
		}
	}
	return s, err
}

// RemovePlayer takes a player out, with their place in units. Rulings stay behind unseen, so that
// taking it back restores them.
func (kp *Keep) RemovePlayer(ctx context.Context, by planner.Account, squad *Squad, id uint64) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	player := squad.Player(id)
	if player == nil {
		return planner.ErrNotFound
	}
	changes := append([]planner.Change{{ID: id, Edition: player.Edition, Is: player.Is, Gone: true}},
		squad.leaving(id)...)
	_, err := kp.base.Save(ctx, by, player.Is.Label()+" leaves the squad", changes...)
	return err
}

// leaving are the changes of units that a player is no longer in.
func (s *Squad) leaving(id uint64) (changes []planner.Change) {
	for _, u := range s.Units {
		if !slices.Contains(u.Is.Players, id) {
			continue
		}
		u.Is.Players = slices.DeleteFunc(slices.Clone(u.Is.Players), func(other uint64) bool { return other == id })
		changes = append(changes, planner.Change{ID: u.ID, Edition: u.Edition, Is: u.Is, Gone: len(u.Is.Players) == 0})
	}
	return changes
}

// Trials lists the tests of a squad's players, the oldest first.
func (kp *Keep) Trials(ctx context.Context, clubID uint64, squad *Squad) ([]planner.Entry[club.Trial], error) {
	all, err := planner.Entries[club.Trial](ctx, kp.base, clubID)
	return slices.DeleteFunc(all, func(t planner.Entry[club.Trial]) bool { return squad.Player(t.Owner) == nil }), err
}
