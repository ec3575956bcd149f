package planner

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
)

// Drop is where a block is dragged to: so that it would begin at a moment, among its
// neighbours or held there.
type Drop struct {
	Block string
	At    clock.Offset
	Hold  bool
}

// Dragged is what dropping a block would bring.
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

// Drag tells what dropping a block of a session's plan would bring; nothing is changed. It
// fails with ErrNotFound.
func (p *Planner) Drag(ctx context.Context, clubID, id uint64, to Drop) (Dragged, error) {
	session, err := p.session(ctx, clubID, id)
	if err != nil {
		return Dragged{}, err
	}
	d := session.Document.Clone()
	var wrong plan.Problems
	if _, err := to.edit(session.Schedule)(d); errors.As(err, &wrong) {
		return Dragged{Says: wrong[0].What, Refused: true}, nil
	} else if err != nil {
		return Dragged{}, err
	}
	fitted, err := p.fit(ctx, d, p.begun(session))
	if errors.As(err, &wrong) {
		return Dragged{Says: wrong[0].What, Refused: true}, nil
	} else if err != nil {
		return Dragged{}, err
	}
	if session.Schedule.Result.Feasible && !fitted.Result.Feasible {
		return Dragged{Says: "it does not fit there: " + fitted.Result.Why, Refused: true}, nil
	}
	return to.says(d, session.Schedule, fitted), nil
}

// Drop puts a block where it was dragged. It fails as [Planner.Change] does.
func (p *Planner) Drop(ctx context.Context, by Account, id uint64, revision uint32, to Drop) (*Board, error) {
	session, err := p.session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, to.edit(session.Schedule))
}

// holdStep is what a moment that is dropped on is rounded to, in seconds.
const holdStep = 30

// edit is the change that drops the block, by how the blocks stand now. One that was held
// at a moment and is dropped among its neighbours is let go.
func (to Drop) edit(s *schedule.Schedule) Edit {
	return func(d *plan.Document) (string, error) {
		b := d.Block(to.Block)
		if b == nil {
			return "", plan.ErrNoSuchBlock
		}
		if to.Hold {
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

// says tells where the block would stand and what else would move.
func (to Drop) says(d *plan.Document, was, is *schedule.Schedule) (made Dragged) {
	i := slices.IndexFunc(d.Blocks, func(b plan.Block) bool { return b.ID == to.Block })
	var where, others []string
	if to.Hold {
		where = append(where, "held "+d.HeldWords(&d.Blocks[i]))
	} else {
		for _, side := range []struct {
			word string
			by   int
		}{{"after ", -1}, {"before ", 1}} {
			if next := d.Neighbour(i, side.by); next != nil {
				where = append(where, side.word+next.Name)
			}
		}
	}
	before := was.Result.Blocks
	for n, now := range is.Result.Blocks {
		old := scheduled(before, now.ID)
		if now.ID == to.Block || old.Kept != now.Kept || now.Kept && abs(now.Start-old.Start)+abs(now.End-old.End) > 0 {
			made.Moves = append(made.Moves, Moved{now.ID, now.Start, now.End, !now.Kept})
		}
		name := d.Blocks[n].Name
		switch {
		case now.ID == to.Block && !now.Kept:
			where = append(where, "there is no room for it")
		case now.ID == to.Block:
		case old.Kept && !now.Kept:
			others = append(others, name+" is left out")
		case now.Kept && abs(now.Start-old.Start) >= least:
			others = append(others, fmt.Sprintf("%s %s %s", name, clock.Duration(int(abs(now.Start-old.Start))), map[bool]string{true: "later", false: "earlier"}[now.Start > old.Start]))
		}
	}
	if len(others) > 3 {
		others = append(others[:2], fmt.Sprintf("%d more move", len(others)-2))
	}
	if len(others) == 0 {
		others = []string{"nothing else moves"}
	}
	made.Says = strings.Join(where, ", ") + "; " + strings.Join(others, ", ")
	return made
}

func scheduled(blocks []runin.Scheduled, id string) runin.Scheduled {
	if i := slices.IndexFunc(blocks, func(b runin.Scheduled) bool { return b.ID == id }); i >= 0 {
		return blocks[i]
	}
	return runin.Scheduled{}
}

func abs(o clock.Offset) clock.Offset { return max(o, -o) }
