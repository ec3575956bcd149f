package planner

import (
	"context"
	"errors"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// mostToCome bounds the sessions to come that follow what was put right, and how long after
// its start one is not to come any more.
const mostToCome = 60

// putRight has the plans of sessions to come follow what the club keeps by now: players who
// were put right, drills whose pace is another than in the book before. A plan that somebody
// else is changing at that moment, or that is under way, is left alone.
func (p *Planner) putRight(ctx context.Context, by Account, before *Book, players bool) error {
	if May(by, ToPlan) != nil {
		return nil
	}
	known, err := p.playbook(ctx, by.ClubID)
	if err != nil {
		return err
	}
	type pace struct{ was, is drill.Drill }
	var paces []pace
	for _, was := range before.Drills {
		probe := was.Dose
		if is, has := known.book.Find(was.Code); has && probe.TakePace(was.Dose, is.Dose) {
			paces = append(paces, pace{was, is})
		}
	}
	if !players && paces == nil {
		return nil
	}
	now := map[uint64]plan.Player{}
	if players {
		all, err := entries[club.Player](ctx, p, by.ClubID)
		if err != nil {
			return err
		}
		for _, k := range all {
			now[k.ID] = playerOf(k)
		}
	}
	units := map[string][]string{}
	for _, u := range known.sport.Units {
		units[u.Name] = u.Positions
	}
	return p.eachToCome(ctx, by, func(d *plan.Document) (string, error) {
		var are []plan.Player
		for _, was := range d.Players {
			if is, known := now[was.Roster]; known {
				are = append(are, is)
			}
		}
		said := d.PutRight(are, units)
		for _, k := range paces {
			if says := d.TakePace(k.was, k.is); says != "" {
				said = append(said, says)
			}
		}
		return strings.Join(said, ", "), nil
	})
}

// eachToCome edits the plans of all sessions to come.
func (p *Planner) eachToCome(ctx context.Context, by Account, edit Edit) error {
	sessions, _, err := p.store.Sessions(ctx, by.ClubID, p.Now(), mostToCome)
	if err != nil {
		return err
	}
	for _, s := range sessions {
		session, err := p.session(ctx, by.ClubID, s.ID)
		if err != nil || p.begun(session) {
			continue
		}
		var wrong plan.Problems
		var contested *Contested
		_, err = p.Change(ctx, by, s.ID, session.Revision, edit)
		if err != nil && !errors.As(err, &wrong) && !errors.As(err, &contested) && !errors.Is(err, ErrStale) {
			return err
		}
	}
	return nil
}

// playerOf is a player of the club as a plan has them.
func playerOf(k Entry[club.Player]) plan.Player {
	return plan.Player{ID: playerID(k.ID), Roster: k.ID, Number: k.Is.Number, First: k.Is.First, Last: k.Is.Last, Position: k.Is.Position,
		Hand: drill.Way(k.Is.Hand), Foot: drill.Way(k.Is.Foot), Level: k.Is.Level, Loose: k.Is.Build == club.Hypermobile, Own: k.Is.OwnLines()}
}
