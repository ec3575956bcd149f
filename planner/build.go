package planner

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/core/sport"
	"cuestart/store"
)

// Build puts blocks into the plan of a session in place of its own: composed for its
// day (from is FromNothing), or those of a routine, by its id. Its people, places and
// what its day holds stay. It fails as [Planner.Change] does.
func (p *Planner) Build(ctx context.Context, by Account, id uint64, revision uint32, from string) (*Board, error) {
	session, err := p.session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	brief, err := p.briefOf(ctx, by.ClubID, session.Document)
	if err != nil {
		return nil, err
	}
	var made *compose.Made
	if from == FromNothing {
		made, err = compose.Compose(ctx, brief)
	} else {
		made, err = p.byRoutine(ctx, by.ClubID, from, brief)
	}
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		d.Blocks, d.Units, d.Method = made.Document.Blocks, made.Document.Units, made.Document.Method
		return "blocks built for this day", nil
	})
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
		Players: d.Players, Units: d.Units, Zones: d.Zones, Leaders: d.Leaders, Kit: d.Kit, Today: d.Today, Restrictions: d.Restrictions, Fixed: d.Fixed,
		Book: known.book.Drills, Steps: atOnce}
	for _, u := range d.Units {
		if u.Name == sport.Bench {
			b.Bench = u.Players
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
	start, err := d.Start.Resolve()
	if err != nil || begun {
		return schedule.Fit(ctx, d, atOnce)
	}
	gone := p.Now().Sub(start)
	open, err := d.Open.Offset(start)
	if err != nil || gone >= -time.Duration(d.Margin)*time.Second || gone <= time.Duration(open)*time.Second {
		return schedule.Fit(ctx, d, atOnce)
	}
	from := d.Clone()
	from.Open = clock.BeforeStart(int(-gone / time.Second))
	fitted, err := schedule.Fit(ctx, from, atOnce)
	if err != nil {
		return schedule.Fit(ctx, d, atOnce)
	}
	return fitted, nil
}

// mostReached is how many sessions to come a new unit reaches.
const mostReached = 50

// UnitReaches brings a unit of a squad into the plans to come of its players, also
// where it was made after the plan, and its members up to date. Plans that nobody of
// it is in stay as they are.
func (p *Planner) UnitReaches(ctx context.Context, by Account, unit uint64, is club.Unit) error {
	sessions, _, err := p.store.Sessions(ctx, by.ClubID, p.Now(), mostReached)
	if err != nil {
		return err
	}
	id := fmt.Sprintf("u%d", unit)
	for _, listed := range sessions {
		session, err := p.session(ctx, by.ClubID, listed.ID)
		if err != nil {
			return err
		}
		_, err = p.Change(ctx, by, session.ID, session.Revision, func(d *plan.Document) (string, error) {
			var members []string
			for _, player := range d.Players {
				if player.Roster > 0 && slices.Contains(is.Players, player.Roster) {
					members = append(members, player.ID)
				}
			}
			return d.SetUnit(plan.Unit{ID: id, Name: is.Name, Players: members}), nil
		})
		if err != nil && !errors.Is(err, ErrStale) {
			return err
		}
	}
	return nil
}
