package boards

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/store"
)

// Begun tells whether work of a session is under way or over.
func (bd *Boards) Begun(s *store.Session) bool {
	gone := clock.Offset(bd.base.Now().Sub(s.Schedule.Start) / time.Second)
	return slices.ContainsFunc(s.Schedule.Result.Blocks, func(b runin.Scheduled) bool {
		return b.Kept && b.Start <= gone
	})
}

// ToCome is a session that has not begun.
const ToCome = false

// Fit fits a plan for a session to come: where its first block lies ahead, minutes
// that have gone by are not planned into.
func (bd *Boards) Fit(ctx context.Context, d *plan.Document, begun bool) (*schedule.Schedule, error) {
	return bd.FitIn(ctx, d, begun, schedule.AtOnce)
}

// FitIn is fit in so many steps; 0: as many as such a plan is worth.
func (bd *Boards) FitIn(ctx context.Context, d *plan.Document, begun bool, steps int) (*schedule.Schedule, error) {
	start, err := d.Start.Resolve()
	if err != nil || begun {
		return schedule.Fit(ctx, d, steps)
	}
	gone := bd.base.Now().Sub(start)
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
func (bd *Boards) Units(ctx context.Context, clubID uint64, d *plan.Document) (list []plan.Unit, err error) {
	all, err := planner.Entries[club.Unit](ctx, bd.base, clubID)
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

// ChangeFor is [Boards.Change] of a block or event for who, which may be a unit that
// the plan does not know yet: it comes in with the change.
func (bd *Boards) ChangeFor(ctx context.Context, by planner.Account, id uint64, revision uint32, who string,
	edit Edit) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	if !strings.HasPrefix(who, "u") {
		return bd.Change(ctx, by, id, revision, edit)
	}
	session, err := bd.Session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	units, err := bd.Units(ctx, by.ClubID, session.Document)
	if err != nil {
		return nil, err
	}
	return bd.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		if i := slices.IndexFunc(units, func(u plan.Unit) bool { return u.ID == who }); i >= 0 && d.Unit(who) == nil {
			d.Units = append(d.Units, units[i])
		}
		return edit(d)
	})
}
