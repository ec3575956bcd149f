package planner

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"log/slog"
	"strconv"
	"strings"
	"time"

	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/store"
)

// Running is a session at the pitch side.
type Running struct {
	conduct.Plan
	Events  []conduct.Event `json:"events"`
	Arrived uint32          `json:"last"`  // how many events have come in
	Begun   bool            `json:"begun"` // somebody has pressed: the plan is as it was then
}

// Stand is how the session stands now.
func (r *Running) Stand(now time.Time) (*conduct.Stand, error) {
	return conduct.Of(r.Plan, r.Events, now.UnixMilli())
}

// Running is a session as it is run: by the plan of when it began, or by the one in force.
// It fails with ErrNotFound.
func (p *Planner) Running(ctx context.Context, clubID, id uint64) (*Running, error) {
	r := &Running{Begun: true}
	var err error
	if r.Plan, err = p.store.Run(ctx, clubID, id); errors.Is(err, ErrNotFound) {
		session, err := p.session(ctx, clubID, id)
		if err != nil {
			return nil, err
		}
		r.Plan, r.Begun = conduct.Plan{Document: session.Document, Schedule: session.Schedule}, false
	} else if err != nil {
		return nil, err
	}
	if r.Events, r.Arrived, err = p.store.Events(ctx, id, 0); err != nil {
		return nil, err
	}
	ticks, err := p.store.AllTicks(ctx, id)
	for _, w := range ticks {
		r.Events = append(r.Events, ticksOf(r.Document, w)...)
	}
	return r, err
}

// ticksOf are the ticks of a leader's grid as events, as if they were pressed here: always of
// the same names, so that a newer count takes the place of an older.
func ticksOf(d *plan.Document, w Word) (events []conduct.Event) {
	name := d.LeaderName(strings.TrimPrefix(w.Person, LeaderMark))
	for _, tick := range strings.Fields(w.Says) {
		parts := strings.Split(tick, ":")
		if len(parts) < 2 {
			continue
		}
		cell, err := strconv.Atoi(parts[0])
		count, err2 := strconv.Atoi(parts[1])
		if err != nil || err2 != nil || cell < 0 || cell > 200 || count < 0 || count > 100 {
			continue
		}
		e := conduct.Event{ID: fmt.Sprintf("tick %s %s %d %d", w.Person, w.Block, w.Item, cell), By: name, At: w.Pressed.UnixMilli(), Kind: conduct.Tick, Block: w.Block, Item: w.Item, Cell: cell, Tries: count}
		events = append(events, e)
		if len(parts) > 2 {
			e.ID, e.Tries = e.ID+" again", -1
			events = append(events, e)
		}
	}
	return events
}

// Arrived are the events of a session that came in after so many, and how many have by now.
// It fails with ErrNotFound.
func (p *Planner) Arrived(ctx context.Context, clubID, id uint64, after uint32) ([]conduct.Event, uint32, error) {
	if _, _, err := p.store.InForce(ctx, clubID, id); err != nil {
		return nil, 0, err
	}
	return p.store.Events(ctx, id, after)
}

// How far an event's time may be from the server's.
const (
	pressedAhead  = 2 * time.Minute
	pressedBehind = 72 * time.Hour
)

// Refused is an event that was not kept, and why.
type Refused struct {
	ID   string `json:"id"`
	Says string `json:"says"`
}

// Pressed keeps what an account pressed at the pitch side, in whatever order it comes in and
// however often. A change that was taken there becomes the plan in force, and reaches those
// to whom the session is published. It fails with ErrNotFound, and with ErrForbidden for
// who may not change a plan.
func (p *Planner) Pressed(ctx context.Context, by Account, id uint64, events []conduct.Event) (refused []Refused, err error) {
	if by.Role == Medical {
		return nil, ErrForbidden
	}
	now := p.Now()
	kept := events[:0:0]
	for _, e := range events {
		if problem := e.Problem(); problem != "" {
			refused = append(refused, Refused{e.ID, "Not kept: " + problem + "."})
			continue
		}
		e.By = by.Name
		if at := time.UnixMilli(e.At); at.After(now.Add(pressedAhead)) || at.Before(now.Add(-pressedBehind)) {
			e.At = now.UnixMilli() // its clock is no clock
		}
		kept = append(kept, e)
	}
	why := map[string]string{} // by event
	for i := range kept {
		if is := kept[i].Is; is != nil && is.Why != "" {
			why[kept[i].ID] = is.Why
			if is.Why != conduct.Head { // that is for medical staff alone
				said := *is
				said.Why, kept[i].Is = "", &said
			}
		}
	}
	fresh, err := p.store.JoinEvents(ctx, by, id, kept, now)
	if err != nil {
		return nil, err
	}
	changed := false
	for _, e := range fresh {
		changed = changed || e.Kind == conduct.Change || e.Kind == conduct.Back
		if why[e.ID] != "" && e.Is.Is == conduct.IsOut {
			if err := p.tellMedical(ctx, id, e, why[e.ID]); err != nil {
				return nil, err
			}
		}
	}
	if changed {
		if err := p.follow(ctx, by, id); err != nil {
			slog.Error("a plan does not follow the pitch side", "session", id, "error", err)
		}
	}
	p.nudge()
	return refused, nil
}

// tellMedical tells medical staff, and nobody else, why somebody is out.
func (p *Planner) tellMedical(ctx context.Context, session uint64, e conduct.Event, why string) error {
	says := "out, hurt"
	if why == conduct.Head {
		says = "out after a knock to the head"
	}
	for _, player := range e.Is.Who {
		w := Word{Person: player, Once: fmt.Sprintf("%x", sha256.Sum256([]byte(e.ID+" "+player))), Kind: Pain, Says: says + ", says " + e.By, Pressed: time.UnixMilli(e.At).UTC(), Made: p.Now().UTC()}
		if err := p.store.AddWord(ctx, session, w); err != nil {
			return err
		}
	}
	return nil
}

// follow puts the plan in force as it stands at the pitch side, and publishes it where it was
// published before.
func (p *Planner) follow(ctx context.Context, by Account, id uint64) (err error) {
	running, err := p.Running(ctx, by.ClubID, id)
	if err != nil {
		return err
	}
	stand, err := running.Stand(p.Now())
	if err != nil || len(stand.Said) == 0 {
		return err
	}
	d := stand.Document
	if err := d.Validate(); err != nil {
		return err
	}
	for n := 0; n == 0 || errors.Is(err, ErrStale) && n < attempts; n++ {
		session, problem := p.store.Session(ctx, by.ClubID, id)
		if problem != nil {
			return problem
		}
		next := store.Fitted{Document: d, Schedule: stand.Schedule, Summary: fmt.Sprint("pitch side: ", stand.Said[len(stand.Said)-1]), By: by.ID}
		var changed *store.Session
		if changed, err = p.store.ChangePlan(ctx, by.ClubID, session, next); err != nil {
			continue
		}
		public, problem := p.store.Published(ctx, id)
		if problem != nil || public.Token == "" {
			return problem
		}
		_, err = p.store.Publish(ctx, by.ClubID, id, changed.Revision)
	}
	return err
}
