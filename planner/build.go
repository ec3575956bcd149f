package planner

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/store"
)

// Build puts blocks into the plan of a session in place of its own: composed for its
// day (from is FromComposed), or those of a routine, by its id. Its people, places and
// what its day holds stay. It fails as [Planner.Change] does.
func (p *Planner) Build(ctx context.Context, by Account, id uint64, revision uint32, from string) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	session, err := p.session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	brief, err := p.briefOf(ctx, by.ClubID, session.Document)
	if err != nil {
		return nil, err
	}
	squad, err := p.store.SquadOf(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	var made *compose.Made
	if from == FromComposed {
		made, err = compose.Compose(ctx, brief)
	} else {
		made, err = p.byRoutine(ctx, by.ClubID, squad, from, brief)
	}
	if err == nil {
		_, err = p.carryPace(ctx, by.ClubID, squad, made.Document)
	}
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		units := d.Units
		d.Blocks, d.Units, d.Method, d.Notes = made.Document.Blocks, made.Document.Units, made.Document.Method, made.Document.Notes
		d.Turns, d.Due = made.Document.Turns, made.Document.Due
		rename(d, units)
		return "blocks built for this day", nil
	})
}

// rename keeps what the day and the lists say of units, which were called otherwise
// before: those of the same name; what is no longer there stays.
func rename(d *plan.Document, were []plan.Unit) {
	now := map[string]string{}
	for _, was := range were {
		if i := slices.IndexFunc(d.Units, func(u plan.Unit) bool { return u.Name == was.Name }); i >= 0 {
			now[was.ID] = d.Units[i].ID
		} else if d.Unit(was.ID) == nil {
			d.Units = append(d.Units, was)
		}
	}
	in := func(ids []string) {
		for i, id := range ids {
			if is, renamed := now[id]; renamed {
				ids[i] = is
			}
		}
	}
	for i := range d.Fixed {
		in(d.Fixed[i].Who)
	}
	for i := range d.Lists {
		for n := range d.Lists[i].Blocks {
			in(d.Lists[i].Blocks[n].Who)
		}
	}
}

// briefOf is the brief of a session that is there.
func (p *Planner) briefOf(ctx context.Context, clubID uint64, d *plan.Document) (b compose.Brief, err error) {
	known, err := p.playbook(ctx, clubID)
	if err != nil {
		return b, err
	}
	start, err := d.Start.Resolve()
	if err != nil {
		return b, plan.In("start", "%s", err)
	}
	open, err := d.Open.Offset(start)
	if err != nil {
		return b, plan.In("open", "%s", err)
	}
	b = compose.Brief{Title: d.Title, Kind: d.Kind, Start: d.Start, Minutes: max(5, int(-open)/60), Method: d.Method, Place: d.Place, Grade: d.Grade, Sport: known.sport,
		Turn: d.Turn, Players: d.Players, Zones: d.Zones, Leaders: d.Leaders, Kit: d.Kit, Today: d.Today, Restrictions: d.Restrictions, Fixed: d.Fixed,
		Book: known.book.Drills, Steps: tried}
	for _, u := range d.Units {
		switch {
		case u.Name == plan.Bench:
			b.Bench = u.Players
		case u.Today:
			b.Roles = append(b.Roles, u)
		default:
			b.Units = append(b.Units, u)
		}
	}
	return b, nil
}

// begun tells whether work of a session is under way or over.
func (p *Planner) begun(s *store.Session) bool {
	gone := clock.Offset(p.Now().Sub(s.Schedule.Start) / time.Second)
	return slices.ContainsFunc(s.Schedule.Result.Blocks, func(b runin.Scheduled) bool { return b.Kept && b.Start <= gone })
}

// fit fits a plan for a session to come: where its first block lies ahead, minutes
// that have gone by are not planned into.
func (p *Planner) fit(ctx context.Context, d *plan.Document, begun bool) (*schedule.Schedule, error) {
	return p.fitIn(ctx, d, begun, schedule.AtOnce)
}

// fitIn is fit in so many steps; 0: as many as such a plan is worth.
func (p *Planner) fitIn(ctx context.Context, d *plan.Document, begun bool, steps int) (*schedule.Schedule, error) {
	start, err := d.Start.Resolve()
	if err != nil || begun {
		return schedule.Fit(ctx, d, steps)
	}
	gone := p.Now().Sub(start)
	open, err := d.Open.Offset(start)
	if err != nil || gone >= -time.Duration(d.Margin)*time.Second || gone <= time.Duration(open)*time.Second {
		return schedule.Fit(ctx, d, steps)
	}
	from := d.Clone()
	from.Open = clock.BeforeStart(int(-gone / time.Second))
	fitted, err := schedule.Fit(ctx, from, steps)
	if err != nil {
		return schedule.Fit(ctx, d, steps)
	}
	return fitted, nil
}

// Units are the club's units that players of a plan belong to and that the plan does
// not know: made since, or of another squad.
func (p *Planner) Units(ctx context.Context, clubID uint64, d *plan.Document) (list []plan.Unit, err error) {
	all, err := entries[club.Unit](ctx, p, clubID)
	for _, u := range all {
		unit := plan.Unit{ID: fmt.Sprintf("u%d", u.ID), Name: u.Is.Name}
		for _, player := range d.Players {
			if player.Roster > 0 && slices.Contains(u.Is.Players, player.Roster) {
				unit.Players = append(unit.Players, player.ID)
			}
		}
		known := slices.ContainsFunc(d.Units, func(k plan.Unit) bool { return k.ID == unit.ID || k.Name == unit.Name })
		if len(unit.Players) > 0 && !known {
			list = append(list, unit)
		}
	}
	return list, err
}

// ChangeFor is [Planner.Change] of a block or event for who, which may be a unit that
// the plan does not know yet: it comes in with the change.
func (p *Planner) ChangeFor(ctx context.Context, by Account, id uint64, revision uint32, who string, edit Edit) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	if !strings.HasPrefix(who, "u") {
		return p.Change(ctx, by, id, revision, edit)
	}
	session, err := p.session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	units, err := p.Units(ctx, by.ClubID, session.Document)
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		if i := slices.IndexFunc(units, func(u plan.Unit) bool { return u.ID == who }); i >= 0 && d.Unit(who) == nil {
			d.Units = append(d.Units, units[i])
		}
		return edit(d)
	})
}
