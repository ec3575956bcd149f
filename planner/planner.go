// Package planner joins the store and the core in the few use cases of the
// product: open a board, change it, publish it, read what is shared.
package planner

import (
	"context"
	"fmt"
	"reflect"
	"slices"
	"time"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/core/warmth"
	"cuestart/store"
)

// atOnce is how many steps a fit may take while somebody waits for the page.
const atOnce = 3_000

// Planner runs the use cases. Its methods may be called concurrently.
type Planner struct {
	Store   *store.Store
	Now     func() time.Time
	Weather Weather // nil: there is no forecast
}

// New is a planner on the real clock.
func New(s *store.Store) *Planner { return &Planner{Store: s, Now: time.Now} }

// Board is a session with everything that its page shows.
type Board struct {
	*store.Session
	Publication store.Publication
	Strands     []warmth.Strand // in the order of the schedule
	Findings    []check.Finding
	Drills      []drill.Drill // that its squad may do, of the club's book
	Newer       []string      // what medical staff ruled, or lifted, since the plan was made
}

// Listed is a session as the list of those to come shows it.
type Listed struct {
	store.Session
	Newer []string // what medical staff ruled, or lifted, since the plan was made
}

// Sessions lists the club's sessions to come, and those of the last twelve
// hours, with their schedules.
func (p *Planner) Sessions(ctx context.Context, clubID uint64) ([]Listed, error) {
	sessions, err := p.Store.Sessions(ctx, clubID, p.Now().Add(-12*time.Hour))
	if err != nil {
		return nil, err
	}
	all, err := p.ruled(ctx, clubID)
	if err != nil {
		return nil, err
	}
	listed := make([]Listed, len(sessions))
	for i := range sessions {
		if sessions[i].Schedule == nil {
			if sessions[i].Schedule, err = schedule.Fit(ctx, sessions[i].Document, atOnce); err != nil {
				return nil, err
			}
		}
		_, newer := all.of(sessions[i].Document)
		listed[i] = Listed{sessions[i], newer}
	}
	return listed, nil
}

// Board opens a session of the club, or fails with store.ErrNotFound.
func (p *Planner) Board(ctx context.Context, clubID, id uint64) (*Board, error) {
	session, err := p.Store.Session(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	if session.Schedule == nil {
		if session.Schedule, err = schedule.Fit(ctx, session.Document, atOnce); err != nil {
			return nil, err
		}
		if err := p.Store.Refitted(ctx, session); err != nil {
			return nil, err
		}
	}
	published, err := p.Store.Published(ctx, id)
	if err != nil {
		return nil, err
	}
	in, err := p.checkInput(ctx, clubID, session)
	if err != nil {
		return nil, err
	}
	plays, err := p.Sport(ctx, clubID)
	if err != nil {
		return nil, err
	}
	all, err := p.ruled(ctx, clubID)
	if err != nil {
		return nil, err
	}
	_, newer := all.of(session.Document)
	return &Board{Session: session, Newer: newer, Publication: published, Strands: warmth.Strands(today.Apply(session.Document), session.Schedule), Findings: check.Check(in),
		Drills: drill.Query{Sport: plays.Key, Grade: session.Document.Grade}.Find(in.Book)}, nil
}

// CutDowns are the plans for 5, 10, 15 … minutes less, down to the least that
// holds the musts.
func (p *Planner) CutDowns(ctx context.Context, b *Board) ([]schedule.Cut, error) {
	return schedule.Cutdowns(ctx, b.Document, atOnce)
}

func (p *Planner) checkInput(ctx context.Context, clubID uint64, session *store.Session) (check.Input, error) {
	b, err := p.Book(ctx, clubID)
	if err != nil {
		return check.Input{}, err
	}
	return check.Input{Document: session.Document, Schedule: session.Schedule, Book: b.Drills, Steps: atOnce}, nil
}

// Mend changes the plan so that a finding goes away. It fails with
// check.ErrNoMend where no single change does that, and as Change does.
func (p *Planner) Mend(ctx context.Context, by store.Account, id uint64, edition uint32, rule, where string) error {
	board, err := p.Board(ctx, by.ClubID, id)
	if err != nil {
		return err
	}
	in, err := p.checkInput(ctx, by.ClubID, board.Session)
	if err != nil {
		return err
	}
	next, said, err := check.Mend(ctx, in, rule, where)
	if err != nil {
		return err
	}
	return p.Change(ctx, by, id, edition, func(d *plan.Document) (string, error) {
		*d = *next
		return said, nil
	})
}

// Except is the edit that keeps a finding as it is, with the coach's reason.
func Except(rule, where, reason string) Edit {
	return func(d *plan.Document) (string, error) {
		if !check.Excusable(rule) {
			return "", plan.Problems{{Where: "board", What: "What medical staff ruled is never overruled: mend it, or ask them."}}
		}
		if problem := plan.NameProblem(reason); problem != "" {
			return "", plan.Problems{{Where: plan.AtException(rule, where), What: "say why in a few words"}}
		}
		d.Exceptions = append(slices.DeleteFunc(d.Exceptions, func(e plan.Exception) bool { return e.Rule == rule && e.Where == where }),
			plan.Exception{Rule: rule, Where: where, Reason: reason})
		return "kept: " + reason, nil
	}
}

// Edit changes a document in place and says what it did, as the edits of
// package plan do.
type Edit func(*plan.Document) (summary string, err error)

// Change applies edit to the plan that the caller saw as edition, fits the
// result and puts it in force. It fails with plan.Problems where the edit or
// its result does not hold, and with store.ErrStale where somebody else was
// faster; then nothing is changed.
func (p *Planner) Change(ctx context.Context, by store.Account, id uint64, edition uint32, edit Edit) error {
	session, err := p.Store.Session(ctx, by.ClubID, id)
	if err != nil {
		return err
	}
	if session.Edition != edition {
		return store.ErrStale
	}
	next := session.Document.Clone()
	summary, err := edit(next)
	if err != nil {
		return err
	}
	if reflect.DeepEqual(next, session.Document) {
		return nil
	}
	fitted, err := schedule.Fit(ctx, next, atOnce)
	if err != nil {
		return err
	}
	return p.Store.ChangePlan(ctx, by.ClubID, id, edition, store.Fitted{Document: next, Schedule: fitted, Summary: summary, By: by.ID})
}

// SetDay is the edit that sets the day's conditions.
func SetDay(day plan.Conditions) Edit {
	return func(d *plan.Document) (string, error) {
		day.Off, day.DrinkEvery = d.Today.Off, d.Today.DrinkEvery
		d.Today = day
		return "the day's conditions", nil
	}
}

// SetFactor is the edit that switches one of the day's factors off or on again.
func SetFactor(id string, on bool) Edit {
	return func(d *plan.Document) (string, error) {
		d.Today.Off = slices.DeleteFunc(d.Today.Off, func(other string) bool { return other == id })
		if !on {
			d.Today.Off = append(d.Today.Off, id)
			return "a factor of the day switched off", nil
		}
		return "a factor of the day switched on", nil
	}
}

// KeepRoutine keeps a session's blocks as a routine, in place of one of that
// name, which remembers how it was.
func (p *Planner) KeepRoutine(ctx context.Context, by store.Account, id uint64, name, kept string) error {
	session, err := p.Store.Session(ctx, by.ClubID, id)
	if err != nil {
		return err
	}
	routine := club.Keep(session.Document, name, kept)
	before, err := store.Things[club.Routine](ctx, p.Store, by.ClubID)
	if err != nil {
		return err
	}
	change := store.Change{Is: routine}
	for _, r := range before {
		if r.Is.Name == name {
			routine.Was, routine.Slots = r.Is.Blocks, r.Is.Slots
			change = store.Change{ID: r.ID, Edition: r.Edition, Is: routine}
		}
	}
	if err := routine.Validate(); err != nil && change.ID != 0 {
		routine.Slots = nil // they named drills that are gone
		change.Is = routine
	}
	_, err = p.Keep(ctx, by, name+" kept as a routine", change)
	return err
}

// Undo takes the last change back; it fails as store.Undo does.
func (p *Planner) Undo(ctx context.Context, by store.Account, id uint64, edition uint32) error {
	return p.Store.Undo(ctx, by.ClubID, id, edition)
}

// Redo brings back what Undo took away; it fails as store.Redo does.
func (p *Planner) Redo(ctx context.Context, by store.Account, id uint64, edition uint32) error {
	return p.Store.Redo(ctx, by.ClubID, id, edition)
}

// SetStart is the edit that moves the start, to a moment yet to come.
func (p *Planner) SetStart(start clock.Start) Edit {
	return func(d *plan.Document) (string, error) {
		if start.Zone == "" {
			start.Zone = d.Start.Zone
		}
		if err := p.yetToCome(start); err != nil {
			return "", err
		}
		return d.SetStart(start)
	}
}

func (p *Planner) yetToCome(start clock.Start) error {
	if at, err := start.Resolve(); err == nil && !at.After(p.Now()) {
		return plan.Problems{{Where: "start", What: fmt.Sprintf("%s has passed: pick a start that is still to come", at.Format("15:04 on 2 January"))}}
	}
	return nil
}
