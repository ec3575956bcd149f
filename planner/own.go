package planner

import (
	"context"
	"errors"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// keepOwn makes the drills of a plan that the book does not have the club's own, to be
// completed: the plan was published, run, logged or kept. Until then they are the plan's
// alone, so that what is undone, corrected or discarded leaves nothing behind.
func (p *Planner) keepOwn(ctx context.Context, by Account, d *plan.Document) error {
	book, err := p.Book(ctx, by.ClubID)
	if err != nil {
		return err
	}
	var changes []Change
	seen := map[string]bool{}
	blocks := slices.Clone(d.Blocks)
	for _, l := range d.Lists {
		blocks = append(blocks, l.Blocks...)
	}
	for _, b := range blocks {
		for _, item := range b.Items {
			k := item.Drill
			if say.IsOwn(k.Code) && !book.has(k.Code) && !seen[k.Code] {
				seen[k.Code] = true
				changes = append(changes, Change{Is: club.Drill{Drill: k, Draft: true}})
			}
		}
	}
	if len(changes) == 0 {
		return nil
	}
	_, err = p.store.Save(ctx, by, drill.Number(len(changes), "drills")+" of your own", changes...)
	if errors.Is(err, ErrTaken) {
		return nil // somebody else kept them at the same moment
	}
	return err
}

// has tells whether the club has a drill of that code, or had it and took it out.
func (b *Book) has(code string) bool {
	_, known := b.Find(code)
	return known || b.Own[code].ID != 0
}

// Describe has a drill of the club's own be what was said of it, chip by chip: in the plan of
// a session, in the drill book from then on, and in the plans of sessions to come. It fails as
// [Planner.Change] does, and with ErrForbidden.
func (p *Planner) Describe(ctx context.Context, by Account, id uint64, revision uint32, block string, item int, said map[movement.Chip]string) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	var was, is drill.Drill
	board, err := p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		b := d.Block(block)
		if b == nil || item >= len(b.Items) {
			return "", plan.ErrNoSuchBlock
		}
		was, is = b.Items[item].Drill.Clone(), b.Items[item].Drill.Clone()
		at := plan.AtItem(block, item)
		if !say.IsOwn(was.Code) {
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
	return board, p.bookDescribed(ctx, by, was, is)
}

// bookDescribed keeps in the book what a drill of the club's own is described as.
func (p *Planner) bookDescribed(ctx context.Context, by Account, was, is drill.Drill) error {
	book, err := p.Book(ctx, by.ClubID)
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
	_, err = p.Save(ctx, by, is.Name+" described", Change{ID: own.ID, Edition: own.Edition, Is: next})
	return err
}

// fillForms has the plan know what those do who do a drill in another form.
func (b *Book) fillForms(d *plan.Document) {
	for i := range d.Players {
		if len(d.Players[i].Forms) == 0 {
			continue
		}
		for block := range d.AllBlocks() {
			for n := range block.Items {
				b.fillForm(&block.Items[n], d.Players[i].Forms[block.Items[n].Drill.Code], d.Grade)
			}
		}
	}
}

// fillForm has an item know its easier or its harder form, with as many as were said.
func (b *Book) fillForm(item *plan.Item, way string, grade drill.Grade) {
	form, stand := b.Easier, &item.Easier
	if way == plan.Harder {
		form, stand = b.Harder, &item.Harder
	}
	if is, ok := form(item.Drill); ok && way != "" { // anew each time: the dose may be another now
		with := item.As(plan.Item{Drill: is.For(grade)})
		*stand = &with.Drill
	}
}

// PutForm puts a player on another form of a drill of a plan, or with "" on the usual one: in
// this plan, and whenever that drill comes again. It fails as [Planner.Change] does, and with
// a sentence where the drill has no such form.
func (p *Planner) PutForm(ctx context.Context, by Account, id uint64, revision uint32, block string, item int, player, way string) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	book, err := p.Book(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	roster, code := uint64(0), ""
	board, err := p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		b, who := d.Block(block), d.Player(player)
		if b == nil || item >= len(b.Items) || who == nil || way != "" && way != plan.Easier && way != plan.Harder {
			return "", plan.ErrNoSuchBlock
		}
		is := &b.Items[item]
		roster, code = who.Roster, is.Drill.Code
		if book.fillForm(is, way, d.Grade); way == plan.Easier && is.Easier == nil || way == plan.Harder && is.Harder == nil {
			return "", plan.In(plan.AtItem(block, item), "no %s form of %s is known: put another drill in, or write one", way, is.Drill.Name)
		}
		return d.PutForm(player, code, way), nil
	})
	if err != nil || roster == 0 {
		return board, err
	}
	players, err := entries[club.Player](ctx, p, by.ClubID)
	if err != nil {
		return nil, err
	}
	k := find(players, roster)
	if k == nil {
		return board, nil
	}
	next := k.Is
	next.Forms = next.WithForm(code, way)
	if next == k.Is {
		return board, nil
	}
	if _, err = p.Save(ctx, by, next.Label()+" put on another form", Change{ID: k.ID, Owner: k.Owner, Edition: k.Edition, Is: next}); err != nil {
		return nil, err
	}
	return p.Board(ctx, by.ClubID, id)
}

// DescribeDrill has a drill of the club's own be called and be what is said of it, in the book
// and in the plans to come. Its old name stays one that lines may be written in. It fails with
// ErrNotFound, ErrForbidden, [plan.Problems] and as [Planner.Save] does.
func (p *Planner) DescribeDrill(ctx context.Context, by Account, code, name string, said map[movement.Chip]string) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	_, own, err := p.ownDrill(ctx, by.ClubID, code)
	if err != nil {
		return err
	}
	was, is := own.Is.Drill, own.Is.Drill.Clone()
	for chip, words := range said {
		if words == movement.Says(&was, chip) {
			continue
		}
		if err := movement.Set(&is, chip, words); err != nil {
			return plan.In(string(chip), "%s", err)
		}
	}
	if name = strings.TrimSpace(name); name != "" && name != was.Name {
		is.Name = name
		is.Also = alsoCalled(&is, was.Name)
	}
	next := own.Is
	next.Drill, next.Draft = is, false
	if _, err = p.Save(ctx, by, is.Name+" described", Change{ID: own.ID, Edition: own.Edition, Is: next}); err != nil {
		return err
	}
	return p.eachToCome(ctx, by, func(d *plan.Document) (string, error) { return d.Recall(was, is), nil })
}

// MergeDrill makes a drill of the club's own another one: two names of one drill. Its name
// becomes one more that the other is written by, the plans to come have that one under the
// name they were written with. It fails as [Planner.DescribeDrill] does.
func (p *Planner) MergeDrill(ctx context.Context, by Account, code, into string) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	book, own, err := p.ownDrill(ctx, by.ClubID, code)
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
	next.Also = alsoCalled(&other, append([]string{own.Is.Name}, own.Is.Also...)...)
	changes := []Change{{ID: target.ID, Edition: target.Edition, Is: next}, {ID: own.ID, Edition: own.Edition, Is: own.Is, Gone: true}}
	players, err := entries[club.Player](ctx, p, by.ClubID)
	if err != nil {
		return err
	}
	for _, k := range players { // who did it in another form does the other so
		if way := k.Is.FormsOf()[code]; way != "" {
			is := k.Is
			is.Forms = is.WithForm(code, "")
			is.Forms = is.WithForm(other.Code, way)
			changes = append(changes, Change{ID: k.ID, Owner: k.Owner, Edition: k.Edition, Is: is})
		}
	}
	if _, err = p.Save(ctx, by, own.Is.Name+" is "+other.Name, changes...); err != nil {
		return err
	}
	return p.eachToCome(ctx, by, func(d *plan.Document) (string, error) { return d.Merge(own.Is.Drill, next.Drill), nil })
}

// ownDrill is a drill of the club's own, to be changed, and the book that it stands in.
func (p *Planner) ownDrill(ctx context.Context, clubID uint64, code string) (book *Book, own Entry[club.Drill], err error) {
	if book, err = p.Book(ctx, clubID); err != nil {
		return nil, own, err
	}
	own, has := book.Own[code]
	if !has || own.Is.Gone || !say.IsOwn(code) {
		return nil, own, ErrNotFound
	}
	return book, own, nil
}

// alsoCalled are the other names of a drill, with more of them.
func alsoCalled(d *drill.Drill, names ...string) []string {
	also := slices.Clone(d.Also)
	for _, name := range names {
		name = strings.ToLower(strings.TrimSpace(name))
		if name != "" && name != strings.ToLower(d.Name) && !slices.Contains(also, name) {
			also = append(also, name)
		}
	}
	return also
}
