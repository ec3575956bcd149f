package boards

import (
	"context"
	"errors"
	"slices"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/planner"
)

// KeepOwn makes the drills of a plan that the book does not have the club's own, to be
// completed: the plan was published, run, logged or kept. Until then they are the plan's
// alone, so that what is undone, corrected or discarded leaves nothing behind.
func (bd *Boards) KeepOwn(ctx context.Context, by planner.Account, d *plan.Document) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	book, err := bd.books.Book(ctx, by.ClubID)
	if err != nil {
		return err
	}
	var changes []planner.Change
	seen := map[string]bool{}
	blocks := slices.Clone(d.Blocks)
	for _, l := range d.Lists {
		blocks = append(blocks, l.Blocks...)
	}
	for _, b := range blocks {
		for _, item := range b.Items {
			k := item.Drill
			if pen.IsOwn(k.Code) && !book.Has(k.Code) && !seen[k.Code] {
				seen[k.Code] = true
				changes = append(changes, planner.Change{Is: club.Drill{Drill: k, Draft: true}})
			}
		}
	}
	if len(changes) == 0 {
		return nil
	}
	_, err = bd.clubs.Save(ctx, by, drill.Number(len(changes), "drills")+" of your own", changes...)
	if errors.Is(err, planner.ErrTaken) {
		return nil // somebody else kept them at the same moment
	}
	return err
}

// PutForm puts a player on another form of a drill of a plan, or with "" on the usual one: in
// this plan, and whenever that drill comes again. It fails as [Boards.Change] does, and with
// a sentence where the drill has no such form.
func (bd *Boards) PutForm(ctx context.Context, by planner.Account, id uint64, revision uint32, block string, item int,
	player, way string) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	book, err := bd.books.Book(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	roster, code := uint64(0), ""
	board, err := bd.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		b, who := d.Block(block), d.Player(player)
		if b == nil || item >= len(b.Items) || who == nil || way != "" && way != plan.Easier && way != plan.Harder {
			return "", plan.ErrNoSuchBlock
		}
		is := &b.Items[item]
		roster, code = who.Roster, is.Drill.Code
		if book.FillForm(is, way, d.Grade); way == plan.Easier && is.Easier == nil ||
			way == plan.Harder && is.Harder == nil {
			return "", plan.In(plan.AtItem(block, item),
				"no %s form of %s is known: put another drill in, or write one", way, is.Drill.Name)
		}
		return d.PutForm(player, code, way), nil
	})
	if err != nil || roster == 0 {
		return board, err
	}
	players, err := planner.Entries[club.Player](ctx, bd.base, by.ClubID)
	if err != nil {
		return nil, err
	}
	k := planner.Find(players, roster)
	if k == nil {
		return board, nil
	}
	next := k.Is
	next.Forms = next.WithForm(code, way)
	if next == k.Is {
		return board, nil
	}
	if _, err = bd.base.Save(ctx, by, next.Label()+" put on another form",
		planner.Change{ID: k.ID, Owner: k.Owner, Edition: k.Edition, Is: next}); err != nil {
		return nil, err
	}
	return bd.Board(ctx, by.ClubID, id)
}
