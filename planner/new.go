package planner

import (
	"context"
	"errors"
	"slices"
	"strconv"

	"cuestart/core/clock"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/store"
)

// How a new session's run-in is made.
const (
	FromNothing = "composed" // chosen and put together for the day
	FromLast    = "last"     // as the last session of its kind
)

// NewSession is what a coach states of a session to come.
type NewSession struct {
	Kind    plan.Kind
	Title   string
	Start   clock.Start
	Squad   uint64 // 0: the club's first
	Venue   uint64 // 0: away, at a usual ground of the sport
	Place   string // where there is no venue of the club
	From    string // FromNothing, FromLast, or the id of a routine
	Minutes int
	Method  string
	Turn    compose.Turn
	Captain uint64
	Out     []uint64       // players who are not there
	Bench   []uint64       // players who do not begin
	Late    map[uint64]int // minutes after the opening
	Today   plan.Conditions
	Players int // how many, where the squad has nobody yet
}

// Added is a session that was made.
type Added struct {
	ID   uint64
	Says []string // what its run-in does without, and why
}

// Add makes a session with its run-in. It fails with plan.Problems.
func (p *Planner) Add(ctx context.Context, by Account, n NewSession) (*Added, error) {
	if err := p.validate(n); err != nil {
		return nil, err
	}
	brief, squad, err := p.brief(ctx, by.ClubID, n)
	if err != nil {
		return nil, err
	}
	made, err := p.make(ctx, by.ClubID, n, squad, brief)
	if err != nil {
		return nil, err
	}
	if made.Schedule == nil {
		if made.Schedule, err = schedule.Fit(ctx, made.Document, 4*atOnce); err != nil { // as much as composing takes
			return nil, err
		}
	}
	id, err := p.store.AddSession(ctx, by.ClubID, squad.ID, store.Fitted{Document: made.Document, Schedule: made.Schedule, Summary: "made", By: by.ID})
	return &Added{id, made.Says}, err
}

func (p *Planner) validate(n NewSession) error {
	if n.Kind != plan.Match && n.Kind != plan.Training {
		return plan.In("kind", "say whether it is a match or training")
	}
	if problem := plan.NameProblem(n.Title); problem != "" {
		return plan.In("title", "%s", problem)
	}
	if _, err := n.Start.Resolve(); err != nil {
		return plan.In("start", "%s", err)
	}
	return p.yetToCome(n.Start)
}

// make makes the plan by the way that was chosen; its schedule is nil where
// making it has not fitted it.
func (p *Planner) make(ctx context.Context, clubID uint64, n NewSession, squad *Squad, brief compose.Brief) (*compose.Made, error) {
	switch n.From {
	case FromNothing, "":
		return compose.Compose(ctx, brief)
	case FromLast:
		last, err := p.store.Latest(ctx, clubID, squad.ID, n.Kind)
		if errors.Is(err, ErrNotFound) {
			return nil, plan.In("from", "there is none of its kind yet: compose it, or take a routine")
		} else if err != nil {
			return nil, err
		}
		again(last, brief)
		return &compose.Made{Document: last}, nil
	}
	return p.byRoutine(ctx, clubID, n.From, brief)
}

// byRoutine makes the plan of a routine, by its id.
func (p *Planner) byRoutine(ctx context.Context, clubID uint64, id string, brief compose.Brief) (*compose.Made, error) {
	number, _ := strconv.ParseUint(id, 10, 64) // 0, which nothing has, if it is none
	routine, err := p.Routine(ctx, clubID, number)
	if errors.Is(err, ErrNotFound) {
		return nil, plan.In("from", "this routine is no longer there")
	} else if err != nil {
		return nil, err
	}
	document, says, err := compose.Day(brief)
	if err != nil {
		return nil, err
	}
	b, err := p.Book(ctx, clubID)
	if err != nil {
		return nil, err
	}
	says = append(says, routine.Is.Use(document, b.Find, brief.Recent)...)
	if len(document.Blocks) == 0 {
		return nil, plan.In("from", "nobody of this routine's units is here today")
	}
	return &compose.Made{Document: document, Says: says}, nil
}

// again makes a plan of the last one: its day gives way to today's, who is out
// goes, and rulings in force come in. Players are known by what the club knows them
// as, or else by their names.
func again(d *plan.Document, today compose.Brief) {
	d.Title, d.Kind, d.Start, d.Today, d.Exceptions = today.Title, today.Kind, today.Start, today.Today, nil
	if today.Place != "" {
		d.Place = today.Place
	}
	ids := map[string]string{} // of today, to those of the plan
	if len(today.Players) > 0 {
		kept := d.Players[:0]
		for _, p := range d.Players {
			if i := slices.IndexFunc(today.Players, func(now plan.Player) bool { return samePlayer(p, now) }); i >= 0 {
				now := today.Players[i]
				p.Roster, p.Late, p.Loose, ids[now.ID] = now.Roster, now.Late, now.Loose, p.ID
				kept = append(kept, p)
			}
		}
		if len(kept) > 0 {
			d.Players = kept
		}
	}
	for i := range d.Units {
		d.Units[i].Players = d.Members(d.Units[i].Players)
	}
	d.Units = slices.DeleteFunc(d.Units, func(u plan.Unit) bool { return len(u.Players) == 0 })
	for _, b := range slices.Clone(d.Blocks) {
		if len(d.Members(b.Who)) == 0 {
			d.Remove(b.ID)
		}
	}
	d.Restrictions = nil
	for _, r := range today.Restrictions {
		if id, ok := ids[r.Player]; ok {
			r.Player = id
			d.Restrictions = append(d.Restrictions, r)
		}
	}
}

// samePlayer tells whether players of two plans are one.
func samePlayer(a, b plan.Player) bool {
	if a.Roster > 0 && b.Roster > 0 {
		return a.Roster == b.Roster
	}
	return fullName(a.First, a.Last) == fullName(b.First, b.Last)
}
