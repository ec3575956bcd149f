package whatif

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/store"
)

// Drop is what dragging something on the board asks for.
type Drop struct {
	Does   Does
	Block  string       // the block that is dragged, or dragged onto
	Event  string       // the fixed event that is dragged, in place of a block
	At     clock.Offset // where the block would begin
	By     int          // seconds: of work more (Doses), or by which an event moves
	Who    []string     // who is dragged onto the block: ids of players
	Zone   string       // where the block is dragged to: Goes
	Leader string       // who leads it then: Leads
}

// Does is what is done with what is dragged.
type Does string

// What a drag does.
const (
	Order   Does = "order"   // the block takes its place among its neighbours
	Hold    Does = "hold"    // the block is held there
	Doses   Does = "doses"   // its edge: the doses turn, step by step
	TakeOut Does = "out"     // the block is taken out
	Join    Does = "join"    // people do it too
	Goes    Does = "goes"    // it is done in another place
	Leads   Does = "leads"   // somebody else leads it
	Shift   Does = "shift"   // a fixed event moves
	Longer  Does = "longer"  // a fixed event ends later
	Sooner  Does = "earlier" // a fixed event begins later
)

// Dragged is what dropping would bring.
type Dragged struct {
	Says    string  `json:"says"`
	Refused bool    `json:"refused,omitempty"` // it cannot be there; Says tells why
	Moves   []Moved `json:"moves,omitempty"`   // the block itself, and what else would move
}

// Moved is a block elsewhere than it was, in seconds from the start.
type Moved struct {
	ID    string       `json:"id"`
	Start clock.Offset `json:"start"`
	End   clock.Offset `json:"end"`
	Gone  bool         `json:"gone,omitempty"` // it is left out
}

// Drag tells what a drop on a session's plan would bring; nothing is changed. It fails
// with ErrNotFound.
func (wi *WhatIf) Drag(ctx context.Context, clubID, id uint64, to Drop) (Dragged, error) {
	session, err := wi.seen(ctx, clubID, id)
	if err != nil {
		return Dragged{}, err
	}
	d := session.Document.Clone()
	var wrong plan.Problems
	did, err := to.edit(session.Schedule)(d)
	if errors.As(err, &wrong) {
		return Dragged{Says: wrong[0].What, Refused: true}, nil
	} else if err != nil {
		return Dragged{}, err
	}
	fitted, err := wi.boards.Fit(ctx, d, wi.boards.Begun(session))
	if errors.As(err, &wrong) {
		return Dragged{Says: wrong[0].What, Refused: true}, nil
	} else if err != nil {
		return Dragged{}, err
	}
	if session.Schedule.Result.Feasible && !fitted.Result.Feasible {
		return Dragged{Says: "it does not fit there: " + fitted.Result.Why, Refused: true}, nil
	}
	return to.says(did, d, session.Schedule, fitted), nil
}

// seen is a session as it is in force, read once for each revision: a drag asks for it with
// every step. It is not to be changed.
func (wi *WhatIf) seen(ctx context.Context, clubID, id uint64) (*store.Session, error) {
	revision, _, err := wi.sessions.InForce(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	return wi.dragged.Get(ctx, fmt.Sprint(clubID, " ", id, " ", revision),
		func(ctx context.Context) (*store.Session, error) { return wi.boards.Session(ctx, clubID, id) })
}

// Drop does what was dragged. It fails as [boards.Boards.Change] does.
func (wi *WhatIf) Drop(ctx context.Context, by planner.Account, id uint64, revision uint32,
	to Drop) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	session, err := wi.boards.Session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	as := session.Schedule
	if session.Revision != revision { // what was dragged is what was seen
		var d *plan.Document
		if d, as, err = wi.sessions.PlanOf(ctx, id, revision); err != nil {
			return nil, err
		}
		if as == nil {
			if as, err = wi.boards.Fit(ctx, d, wi.boards.Begun(session)); err != nil {
				return nil, err
			}
		}
	}
	return wi.boards.Change(ctx, by, id, revision, to.edit(as))
}

// holdStep is what moments that are dropped on are rounded to, in seconds.
const holdStep = 30

// edit is the change that drops it, by how the blocks stand now. A block that was held
// at a moment and is dropped among its neighbours is let go.
func (to Drop) edit(s *schedule.Schedule) boards.Edit {
	by := int(math.Round(float64(to.By)/holdStep)) * holdStep
	return func(d *plan.Document) (string, error) {
		switch to.Does {
		case Hold, Order:
			return to.place(d, s)
		case Doses:
			return today.Stretch(d, to.Block, to.By)
		case TakeOut:
			return d.Remove(to.Block)
		case Join:
			return to.join(d)
		case Goes:
			return d.SetZone(to.Block, to.Zone)
		case Leads:
			return d.SetLeader(to.Block, to.Leader)
		case Shift:
			return d.ShiftFixed(to.Event, by, by)
		case Longer:
			return d.ShiftFixed(to.Event, 0, by)
		case Sooner:
			return d.ShiftFixed(to.Event, by, 0)
		}
		return "", planner.ErrNothing
	}
}

// place puts the block where it was dragged along the time.
func (to Drop) place(d *plan.Document, s *schedule.Schedule) (string, error) {
	b := d.Block(to.Block)
	if b == nil {
		return "", plan.ErrNoSuchBlock
	}
	if to.Does == Hold {
		at := clock.BeforeStart(max(0, (int(-to.At)+holdStep/2)/holdStep*holdStep))
		return d.SetHold(b.ID, plan.Holds{At: &at, Follows: b.After})
	}
	if b.Pin != nil || b.Hold != (plan.Hold{}) {
		if _, err := d.SetHold(b.ID, plan.Holds{Follows: b.After}); err != nil {
			return "", err
		}
	}
	return d.Move(b.ID, to.before(d, s))
}

// join has people do the block too.
func (to Drop) join(d *plan.Document) (string, error) {
	b := d.Block(to.Block)
	if b == nil {
		return "", plan.ErrNoSuchBlock
	}
	at := d.Members(b.Who)
	if !slices.ContainsFunc(d.Members(to.Who), func(p string) bool { return !slices.Contains(at, p) }) {
		return "", plan.In(plan.AtBlock(b.ID, "who"), "they do %s already", b.Name)
	}
	return d.Put(b.ID, to.Who, true)
}

// before is the block that the dropped one comes before: of those that share somebody with
// it, the first whose middle lies after its own; "" where it comes last.
func (to Drop) before(d *plan.Document, s *schedule.Schedule) string {
	var others []schedule.Block
	middle := to.At
	members := d.Members(d.Block(to.Block).Who)
	for _, b := range s.Blocks(d) {
		switch {
		case b.ID == to.Block:
			middle += clock.Offset(b.Length() / 2)
		case b.Loose && b.Phase == drill.Own: // it lies wherever there is room
		case b.Kept && slices.ContainsFunc(b.Members, func(p string) bool { return slices.Contains(members, p) }):
			others = append(others, b)
		}
	}
	slices.SortStableFunc(others, func(a, b schedule.Block) int { return int(a.Start - b.Start) })
	for _, b := range others {
		if (b.Start+b.End)/2 > middle {
			return b.ID
		}
	}
	return ""
}

// least is a move that is worth a word, in seconds.
const least = 15

// says tells what was done, where the block would stand then and what else would move.
func (to Drop) says(did string, d *plan.Document, was, is *schedule.Schedule) (dragged Dragged) {
	var others []string
	own, ownWas := scheduled(is.Result.Blocks, to.Block), scheduled(was.Result.Blocks, to.Block)
	for _, now := range is.Result.Blocks {
		before := scheduled(was.Result.Blocks, now.ID)
		moved := now.Kept && abs(now.Start-before.Start)+abs(now.End-before.End) > 0
		if now.ID == to.Block || before.Kept != now.Kept || moved {
			dragged.Moves = append(dragged.Moves, Moved{ID: now.ID, Start: now.Start, End: now.End, Gone: !now.Kept})
		}
		name := ""
		if b := d.Block(now.ID); b != nil {
			name = b.Name
		}
		switch {
		case now.ID == to.Block:
		case before.Kept && !now.Kept:
			others = append(others, name+" is left out")
		case now.Kept && !before.Kept:
			others = append(others, name+" is in")
		case now.Kept && now.Start-before.Start >= least:
			others = append(others, fmt.Sprintf("%s %s later", name, clock.Duration(int(now.Start-before.Start))))
		case now.Kept && before.Start-now.Start >= least:
			others = append(others, fmt.Sprintf("%s %s earlier", name, clock.Duration(int(before.Start-now.Start))))
		}
	}
	if len(others) > 3 {
		others = append(others[:2], fmt.Sprintf("%d more move", len(others)-2))
	}
	if len(others) == 0 {
		others = []string{"nothing else moves"}
	}
	dragged.Says = to.where(did, d, own, ownWas) + "; " + strings.Join(others, ", ")
	return dragged
}

// where tells what becomes of the block itself.
func (to Drop) where(did string, d *plan.Document, own, was runin.Scheduled) string {
	i := slices.IndexFunc(d.Blocks, func(b plan.Block) bool { return b.ID == to.Block })
	var parts []string
	switch {
	case i < 0 || to.Does == Join || to.Does == Goes || to.Does == Leads:
		parts = append(parts, did)
	case to.Does == Doses:
		parts = append(parts, did)
		by := int((own.End - own.Start) - (was.End - was.Start))
		if own.Kept && by > 0 {
			parts = append(parts, fmt.Sprintf("%s, %s more", clock.Lasting(int(own.End-own.Start)), clock.Lasting(by)))
		} else if own.Kept && by < 0 {
			parts = append(parts, fmt.Sprintf("%s, %s less", clock.Lasting(int(own.End-own.Start)), clock.Lasting(-by)))
		}
	case to.Does == Hold:
		parts = append(parts, "held "+d.HeldWords(&d.Blocks[i]))
	default:
		for _, side := range []struct {
			word string
			by   int
		}{{"after ", -1}, {"before ", 1}} {
			if next := d.Neighbour(i, side.by); next != nil {
				parts = append(parts, side.word+next.Name)
			}
		}
	}
	if i >= 0 && !own.Kept {
		parts = append(parts, "there is no room for it")
	}
	return strings.Join(parts, ", ")
}

func scheduled(blocks []runin.Scheduled, id string) runin.Scheduled {
	if i := slices.IndexFunc(blocks, func(b runin.Scheduled) bool { return b.ID == id }); i >= 0 {
		return blocks[i]
	}
	return runin.Scheduled{}
}

func abs(o clock.Offset) clock.Offset { return max(o, -o) }
