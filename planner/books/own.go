package books

import (
	"context"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/planner"
)

// Has tells whether the club has a drill of that code, or had it and took it out.
func (b *Book) Has(code string) bool {
	_, known := b.Find(code)
	return known || b.Own[code].ID != 0
}

// FillForms has the plan know what those do who do a drill in another form.
func (b *Book) FillForms(d *plan.Document) {
	for i := range d.Players {
		if len(d.Players[i].Forms) == 0 {
			continue
		}
		for block := range d.AllBlocks() {
			for n := range block.Items {
				b.FillForm(&block.Items[n], d.Players[i].Forms[block.Items[n].Drill.Code], d.Grade)
			}
		}
	}
}

// FillForm has an item know its easier or its harder form, with as many as were said.
func (b *Book) FillForm(item *plan.Item, way string, grade drill.Grade) {
	form, stand := b.Easier, &item.Easier
	if way == plan.Harder {
		form, stand = b.Harder, &item.Harder
	}
	if is, ok := form(item.Drill); ok && way != "" { // anew each time: the dose may be another now
		with := item.As(plan.Item{Drill: is.For(grade)})
		*stand = &with.Drill
	}
}

// OwnDrill is a drill of the club's own, to be changed, and the book that it stands in.
func (bk *Books) OwnDrill(ctx context.Context, clubID uint64,
	code string) (book *Book, own planner.Entry[club.Drill], err error) {
	if book, err = bk.Book(ctx, clubID); err != nil {
		return nil, own, err
	}
	own, has := book.Own[code]
	if !has || own.Is.Gone || !pen.IsOwn(code) {
		return nil, own, planner.ErrNotFound
	}
	return book, own, nil
}

// AlsoCalled are the other names of a drill, with more of them.
func AlsoCalled(d *drill.Drill, names ...string) []string {
	also := slices.Clone(d.Also)
	for _, name := range names {
		name = strings.ToLower(strings.TrimSpace(name))
		if name != "" && name != strings.ToLower(d.Name) && !slices.Contains(also, name) {
			also = append(also, name)
		}
	}
	return also
}
