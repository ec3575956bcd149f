package pitchside

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/reach"
	"cuestart/store"
)

// Running is a session at the pitch side.
type Running struct {
	conduct.Plan
	Events  []conduct.Event `json:"events"`
	Arrived uint32          `json:"last"`           // how many events have come in, by the last of these
	More    bool            `json:"more,omitempty"` // there are further ones than fit here
	Begun   bool            `json:"begun"`          // somebody has pressed: the plan is as it was then
}

// Stand is how the session stands now.
func (r *Running) Stand(now time.Time) (*conduct.Stand, error) {
	return conduct.Of(r.Plan, r.Events, now.UnixMilli())
}

// Running is a session as it is run: by the plan of when it began, or by the one in force. It
// has as many events as a phone takes at once.
// It fails with ErrNotFound.
func (ps *Pitchside) Running(ctx context.Context, clubID, id uint64) (*Running, error) {
	r, _, err := ps.running(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	if r.Events, r.Arrived, r.More, err = ps.runs.Events(ctx, id, 0); err != nil {
		return nil, err
	}
	return r, ps.withTicks(ctx, id, r)
}

// running is a session as it is run, without events; run is nil where nobody has pressed.
func (ps *Pitchside) running(ctx context.Context, clubID, id uint64) (r *Running, run *store.Run, err error) {
	run, err = ps.runs.Run(ctx, clubID, id)
	if errors.Is(err, planner.ErrNotFound) {
		session, err := ps.boards.Session(ctx, clubID, id)
		if err != nil {
			return nil, nil, err
		}
		return &Running{Plan: conduct.Plan{Document: session.Document, Schedule: session.Schedule}}, nil, nil
	} else if err != nil {
		return nil, nil, err
	}
	return &Running{Plan: run.Plan, Begun: true}, run, nil
}

// withTicks adds the ticks of leaders' grids.
func (ps *Pitchside) withTicks(ctx context.Context, id uint64, r *Running) error {
	ticks, err := ps.shares.AllTicks(ctx, id)
	for _, w := range ticks {
		r.Events = append(r.Events, ticksOf(r.Document, w)...)
	}
	return err
}

// Whole is a session as it is run, with all its events.
func (ps *Pitchside) Whole(ctx context.Context, clubID, id uint64) (r *Running, run *store.Run, err error) {
	if r, run, err = ps.running(ctx, clubID, id); err != nil {
		return nil, nil, err
	}
	if r.Events, r.Arrived, err = ps.runs.AllEvents(ctx, id); err != nil {
		return nil, nil, err
	}
	return r, run, ps.withTicks(ctx, id, r)
}

// ticksOf are the ticks of a leader's grid as events, as if they were pressed here: always of
// the same names, so that a newer count takes the place of an older.
func ticksOf(d *plan.Document, w planner.Word) (events []conduct.Event) {
	name := d.LeaderName(strings.TrimPrefix(w.Person, reach.LeaderMark))
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
		e := conduct.Event{ID: fmt.Sprintf("tick %s %s %d %d", w.Person, w.Block, w.Item, cell), By: name,
			At: w.Pressed.UnixMilli(), Kind: conduct.Tick, Block: w.Block, Item: w.Item, Cell: cell, Tries: count}
		events = append(events, e)
		if len(parts) > 2 {
			e.ID, e.Tries = e.ID+" again", -1
			events = append(events, e)
		}
	}
	return events
}

// Arrived are the events of a session that came in after so many, as many as fit an answer,
// how many have come in by the last of them, and whether there are more.
// It fails with ErrNotFound.
func (ps *Pitchside) Arrived(ctx context.Context, clubID, id uint64,
	after uint32) (events []conduct.Event, last uint32, more bool, err error) {
	if _, _, err := ps.sessions.InForce(ctx, clubID, id); err != nil {
		return nil, 0, false, err
	}
	return ps.runs.Events(ctx, id, after)
}

// How far an event's time may be from the server's, and how long before people arrive a
// session can be pressed.
const (
	pressedAhead  = 2 * time.Minute
	pressedBehind = 72 * time.Hour
	OpensBefore   = 3 * time.Hour
)

// Opens is when a session can be pressed from.
func (r *Running) Opens() time.Time {
	at := r.Schedule.Start
	if open, err := r.Document.Open.Offset(at); err == nil {
		at = at.Add(time.Duration(open) * time.Second)
	}
	return at.Add(-OpensBefore)
}

// Refused is an event that was not kept, and why.
type Refused struct {
	ID   string `json:"id"`
	Says string `json:"says"`
}

// Pressed keeps what an account pressed at the pitch side, in whatever order it comes in and
// however often, in one transaction with who is hurt by it. A change that was taken there
// becomes the plan in force, and reaches those to whom the session is published: at once, or
// as soon as it can ([Pitchside.CatchUp]). What is not kept is refused one by one, with a
// sentence. It fails with ErrNotFound, and with ErrForbidden for who may not press.
func (ps *Pitchside) Pressed(ctx context.Context, by planner.Account, id uint64,
	events []conduct.Event) (refused []Refused, err error) {
	if err := planner.May(by, planner.ToRun); err != nil {
		return nil, err
	}
	running, _, err := ps.running(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	now := ps.base.Now()
	var arriving []store.Arriving
	for _, e := range events {
		switch problem := e.Problem(); {
		case problem != "":
			refused = append(refused, Refused{e.ID, "Not kept: " + problem + "."})
		case e.Account != 0 && e.Account != by.ID:
			refused = append(refused,
				Refused{e.ID,
					"Not kept: it was pressed by somebody else on this phone. It is sent when they sign in here " +
						"again."})
		case now.Before(running.Opens()):
			refused = append(refused,
				Refused{e.ID, "Not kept: this can be pressed from " +
					running.Opens().Format("15:04, Monday 2 January") + "."})
		default:
			arriving = append(arriving, arrives(running.Document, by, e, now))
		}
	}
	fresh, full, err := ps.runs.JoinEvents(ctx, by, id, arriving, now)
	if err != nil {
		return nil, err
	}
	for _, e := range full {
		refused = append(refused,
			Refused{e.ID, fmt.Sprintf("Not kept: this session has %d presses already. Only who is hurt is still kept.",
				store.MostEvents)})
	}
	ps.base.Tell()
	if slices.ContainsFunc(fresh, func(e store.Arriving) bool { return e.Changes }) {
		ps.follow(ctx, by, id)
	}
	if len(fresh) > 0 {
		err = ps.boards.KeepOwn(ctx, by, running.Document)
	}
	return refused, err
}

// arrives is an event as it is kept, with what follows from it: why somebody is out is for
// medical staff alone, but for a knock to the head, after which nobody comes back.
func arrives(d *plan.Document, by planner.Account, e conduct.Event, now time.Time) store.Arriving {
	e.By, e.Account = by.Name, by.ID
	if at := time.UnixMilli(e.At); at.After(now.Add(pressedAhead)) || at.Before(now.Add(-pressedBehind)) {
		e.At = now.UnixMilli() // its clock is no clock
	}
	arriving := store.Arriving{Event: e, Changes: e.Kind == conduct.Change || e.Kind == conduct.Back}
	if e.Is == nil || e.Is.Why == "" {
		return arriving
	}
	why := e.Is.Why
	if why != conduct.Head {
		said := *e.Is
		said.Why, arriving.Is = "", &said
	}
	if e.Is.Is != conduct.IsOut {
		return arriving
	}
	for _, id := range e.Is.Who {
		h := store.Hurt{Person: id, Name: id, Once: fmt.Sprintf("%x", sha256.Sum256([]byte(e.ID+" "+id))),
			Kind: store.HurtOut, Says: "out, hurt", By: by.Name, Pressed: time.UnixMilli(e.At), Made: now}
		if why == conduct.Head {
			h.Kind, h.Says = store.HurtHead, "out after a knock to the head"
		}
		if player := d.Player(id); player != nil {
			h.Name, h.Roster = player.Label(), player.Roster
		}
		arriving.Hurt = append(arriving.Hurt, h)
	}
	return arriving
}
