package wording

import (
	"context"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
)

// Describe has a drill of the club's own be what was said of it, chip by chip: in the plan of
// a session, in the drill book from then on, and in the plans of sessions to come. It fails as
// [boards.Boards.Change] does, and with ErrForbidden.
func (wo *Wording) Describe(ctx context.Context, by planner.Account, id uint64, revision uint32, block string, item int,
	said map[movement.Chip]string) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	var was, is drill.Drill
	board, err := wo.boards.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		b := d.Block(block)
		if b == nil || item >= len(b.Items) {
			return "", plan.ErrNoSuchBlock
		}
		was, is = b.Items[item].Drill.Clone(), b.Items[item].Drill.Clone()
		at := plan.AtItem(block, item)
		if !pen.IsOwn(was.Code) {
			return "", plan.In(at, "this drill is the book's: open it to change it")
		}
		for _, chip := range movement.Chips {
			words, has := said[chip]
			if !has || words == movement.Says(&was, chip) {
				continue
			}
			if err := movement.Set(&is, chip, words); err != nil {
				return "", plan.In(at, "%s", err)
			}
		}
		return d.Redescribe(was, is), nil
	})
	if err != nil {
		return nil, err
	}
	return board, wo.bookDescribed(ctx, by, was, is)
}

// bookDescribed keeps in the book what a drill of the club's own is described as.
func (wo *Wording) bookDescribed(ctx context.Context, by planner.Account, was, is drill.Drill) error {
	book, err := wo.books.Book(ctx, by.ClubID)
	if err != nil {
		return err
	}
	own := book.Own[is.Code]
	next := own.Is
	if own.ID == 0 {
		next = club.Drill{Drill: is}
	} else if _, there := book.Find(is.Code); !there {
		return nil // it was taken out
	} else if next.Drill = own.Is.Drill.Clone(); !next.Drill.Redescribe(was, is) && !own.Is.Draft {
		return nil
	}
	next.Draft = false
	_, err = wo.base.Save(ctx, by, is.Name+" described", planner.Change{ID: own.ID, Edition: own.Edition, Is: next})
	return err
}

// DescribeDrill has a drill of the club's own be called and be what is said of it, in the book
// and in the plans to come. Its old name stays one that lines may be written in. It fails with
// ErrNotFound, ErrForbidden, [plan.Problems] and as [planner.Base.Save] does.
func (wo *Wording) DescribeDrill(ctx context.Context, by planner.Account, code, name string,
	said map[movement.Chip]string) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	_, own, err := wo.books.OwnDrill(ctx, by.ClubID, code)
	if err != nil {
		return err
	}
	was, drill := own.Is.Drill, own.Is.Drill.Clone()
	for chip, words := range said {
		if words == movement.Says(&was, chip) {
			continue
		}
		if err := movement.Set(&drill, chip, words); err != nil {
			return plan.In(string(chip), "%s", err)
		}
	}
	if name = strings.TrimSpace(name); name != "" && name != was.Name {
		drill.Name = name
		drill.Also = books.AlsoCalled(&drill, was.Name)
	}
	next := own.Is
	next.Drill, next.Draft = drill, false
	if _, err = wo.base.Save(ctx, by, drill.Name+" described", planner.Change{ID: own.ID, Edition: own.Edition,
		Is: next}); err != nil {
		return err
	}
	return wo.boards.EachToCome(ctx, by, func(d *plan.Document) (string, error) { return d.Recall(was, drill), nil })
}

// MergeDrill makes a drill of the club's own another one: two names of one drill. Its name
// becomes one more that the other is written by, the plans to come have that one under the
// name they were written with. It fails as [Wording.DescribeDrill] does.
func (wo *Wording) MergeDrill(ctx context.Context, by planner.Account, code, into string) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	book, own, err := wo.books.OwnDrill(ctx, by.ClubID, code)
	if err != nil {
		return err
	}
	other, ok := book.Find(into)
	if !ok || into == code {
		other, ok = book.Named(into)
	}
	if !ok || other.Code == code {
		return plan.In("into", "pick a drill that is in the book")
	}
	target := book.Own[other.Code]
	next := target.Is
	if target.ID == 0 {
		next = club.Drill{Drill: other.Clone()}
	}
	next.Also = books.AlsoCalled(&other, append([]string{own.Is.Name}, own.Is.Also...)...)
	changes := []planner.Change{{ID: target.ID, Edition: target.Edition, Is: next},
		{ID: own.ID, Edition: own.Edition, Is: own.Is, Gone: true}}
	players, err := planner.Entries[club.Player](ctx, wo.base, by.ClubID)
	if err != nil {
		return err
	}
	for _, k := range players { // who did it in another form does the other so
		if way := k.Is.FormsOf()[code]; way != "" {
			player := k.Is
			player.Forms = player.WithForm(code, "")
			player.Forms = player.WithForm(other.Code, way)
			changes = append(changes, planner.Change{ID: k.ID, Owner: k.Owner, Edition: k.Edition, Is: player})
		}
	}
	if _, err = wo.base.Save(ctx, by, own.Is.Name+" is "+other.Name, changes...); err != nil {
		return err
	}
	return wo.boards.EachToCome(ctx, by, func(d *plan.Document) (string, error) {
		return d.Merge(own.Is.Drill, next.Drill), nil
	})
}
