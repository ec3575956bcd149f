package planner

import (
	"context"
	"errors"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Squad is a squad with who belongs to it.
type Squad struct {
	Team
	Players []Entry[club.Player] // by number, then by name
	Units   []Entry[club.Unit]
	Rulings []Entry[club.Restriction]
}

// Player returns a player of the squad, or nil.
func (s *Squad) Player(id uint64) *Entry[club.Player] { return find(s.Players, id) }

// Unit returns a unit of the squad, or nil.
func (s *Squad) Unit(id uint64) *Entry[club.Unit] { return find(s.Units, id) }

// In lists the rulings for a player that hold on a day, 2026-11-28, or on some
// later one.
func (s *Squad) In(player uint64, day string) (holds, later []Entry[club.Restriction]) {
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
func (p *Planner) Teams(ctx context.Context, clubID uint64) ([]Team, error) {
	return p.store.Squads(ctx, clubID)
}

// AddSquad makes a further squad of a club. It fails with [plan.Problems] at
// "squad", and with ErrTaken where the name is another squad's.
func (p *Planner) AddSquad(ctx context.Context, by Account, name string, grade drill.Grade) (uint64, error) {
	if err := May(by, ToKeep); err != nil {
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
	return p.store.AddSquad(ctx, by.ClubID, name, string(grade))
}

// Squad returns a squad of the club, its first where id is 0; or ErrNotFound.
func (p *Planner) Squad(ctx context.Context, clubID, id uint64) (*Squad, error) {
	if id == 0 {
		squads, err := p.store.Squads(ctx, clubID)
		if err != nil || len(squads) == 0 {
			return nil, errors.Join(err, ErrNotFound)
		}
		id = squads[0].ID
	}
	found, err := p.store.Squad(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	s := &Squad{Team: found}
	players, err := entries[club.Player](ctx, p, clubID)
	if err != nil {
		return nil, err
	}
	s.Players = slices.DeleteFunc(players, func(k Entry[club.Player]) bool { return k.Owner != id })
	slices.SortStableFunc(s.Players, func(a, b Entry[club.Player]) int {
		rank := func(p club.Player) int { return (p.Number + 999) % 1000 } // those without a number last
		if n := rank(a.Is) - rank(b.Is); n != 0 {
			return n
		}
		return strings.Compare(a.Is.Last+a.Is.First, b.Is.Last+b.Is.First)
	})
	if s.Units, err = entries[club.Unit](ctx, p, clubID); err != nil {
		return nil, err
	}
	s.Units = slices.DeleteFunc(s.Units, func(k Entry[club.Unit]) bool { return k.Owner != id })
	rulings, err := entries[club.Restriction](ctx, p, clubID)
	for _, r := range rulings {
		if s.Player(r.Owner) != nil {
			s.Rulings = append(s.Rulings, r)
		}
	}
	return s, err
}

// RemovePlayer takes a player out, with their place in units. Rulings stay
// behind unseen, so that taking it back restores them.
func (p *Planner) RemovePlayer(ctx context.Context, by Account, squad *Squad, id uint64) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	player := squad.Player(id)
	if player == nil {
		return ErrNotFound
	}
	changes := append([]Change{{ID: id, Edition: player.Edition, Is: player.Is, Gone: true}}, squad.leaving(id)...)
	_, err := p.Save(ctx, by, player.Is.Label()+" leaves the squad", changes...)
	return err
}

// leaving are the changes of units that a player is no longer in.
func (s *Squad) leaving(id uint64) (changes []Change) {
	for _, u := range s.Units {
		if !slices.Contains(u.Is.Players, id) {
			continue
		}
		u.Is.Players = slices.DeleteFunc(slices.Clone(u.Is.Players), func(other uint64) bool { return other == id })
		changes = append(changes, Change{ID: u.ID, Edition: u.Edition, Is: u.Is, Gone: len(u.Is.Players) == 0})
	}
	return changes
}

// Trials lists the tests of a squad's players, the oldest first.
func (p *Planner) Trials(ctx context.Context, clubID uint64, squad *Squad) ([]Entry[club.Trial], error) {
	all, err := entries[club.Trial](ctx, p, clubID)
	return slices.DeleteFunc(all, func(t Entry[club.Trial]) bool { return squad.Player(t.Owner) == nil }), err
}
