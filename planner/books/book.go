package books

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"sync"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/core/movement"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/planner"
)

// Book is the drill book as a club has it: the one that comes with Cue Start with the club's own
// changes over it, which a newer book never overwrites.
type Book struct {
	Drills []drill.Drill
	Own    map[string]planner.Entry[club.Drill] // the club's changes, by code
	byCode map[string]int
}

// Find returns the drill of that code.
func (b *Book) Find(code string) (drill.Drill, bool) {
	if i, ok := b.byCode[code]; ok {
		return b.Drills[i], true
	}
	return drill.Drill{}, false
}

// Figure returns how the drill of that code looks: as the club drew it, or as the book has
// it; nil where nobody drew it, or the club wants none.
func (b *Book) Figure(code string) *figure.Figure {
	switch own := b.Own[code].Is; {
	case own.Plain:
		return nil
	case own.Figure != nil:
		return own.Figure
	}
	return book.Figure(code)
}

// Looks is how a drill of a plan looks: as [Book.Figure], and one of the club's own that nobody
// drew as the drawn one of the book that moves alike; nil where nothing does.
func (b *Book) Looks(k *drill.Drill) *figure.Figure {
	if f := b.Figure(k.Code); f != nil || !pen.IsOwn(k.Code) || b.Own[k.Code].Is.Plain {
		return f
	}
	lead := movement.Lead(k.Name)
	if lead == "" {
		return nil
	}
	var nearest *drill.Drill
	most := 0
	for _, d := range drawn()[lead] {
		alike := 1 // what it says besides has to be said of the other too: a squat in a band is no squat
		for _, word := range movement.Beside(d.name) {
			if alike > 0 && len(word) > 3 {
				if alike++; !strings.Contains(strings.ToLower(k.Name), strings.TrimSuffix(word, "s")) {
					alike = 0
				}
			}
		}
		if alike > most {
			most, nearest = alike, d.is
		}
	}
	if nearest == nil {
		return nil
	}
	return book.Figure(nearest.Code)
}

// called is a drill of the book by one of its names.
type called struct {
	name string
	is   *drill.Drill
}

// drawn are the drills of the book that are drawn, by the movement that leads in each of their
// names.
var drawn = sync.OnceValue(func() map[string][]called {
	by := map[string][]called{}
	drills := book.Drills()
	for i := range drills {
		d := &drills[i]
		if book.Figure(d.Code) == nil {
			continue
		}
		for _, name := range append([]string{d.Name}, d.Also...) {
			lead := movement.Lead(name)
			by[lead] = append(by[lead], called{name, d})
		}
	}
	return by
})

// Written are the drills with their figures, as they are saved to a file.
func (b *Book) Written() []club.Drill {
	all := make([]club.Drill, len(b.Drills))
	for i, d := range b.Drills {
		all[i] = club.Drill{Drill: d, Figure: b.Figure(d.Code), Plain: b.Own[d.Code].Is.Plain}
	}
	return all
}

// Named returns the first drill of that name, in capitals or not.
func (b *Book) Named(name string) (drill.Drill, bool) {
	if i := slices.IndexFunc(b.Drills, func(d drill.Drill) bool { return strings.EqualFold(d.Name, name) }); i >= 0 {
		return b.Drills[i], true
	}
	return drill.Drill{}, false
}

// NewBook is a drill book with a club's changes over it.
func NewBook(drills []drill.Drill, changes []planner.Entry[club.Drill]) *Book {
	b := &Book{Own: map[string]planner.Entry[club.Drill]{}, byCode: map[string]int{}}
	var own []club.Drill
	for _, k := range changes {
		own = append(own, k.Is)
		b.Own[k.Is.Code] = k
	}
	b.Drills = club.Overlay(drills, own)
	for i, d := range b.Drills {
		b.byCode[d.Code] = i
	}
	return b
}

// Link is a place in which a drill names another.
type Link struct {
	Index       int    // of the drill
	Field, Code string // easier, harder or swap, and what it names
}

// Search lists the drills of a club's book that fit what is asked: first those that the
// writing line would take the words for, the club's own before others, then those that hold
// them.
func (bk *Books) Search(ctx context.Context, clubID uint64, q drill.Query) ([]drill.Drill, error) {
	known, err := bk.Playbook(ctx, clubID)
	if err != nil {
		return nil, err
	}
	found := q.Find(known.Book.Drills)
	if strings.TrimSpace(q.Text) == "" {
		return found, nil
	}
	means := known.Names().Means(q.Text)
	q.Text = ""
	var first []drill.Drill
	for _, d := range q.Find(known.Book.Drills) {
		if slices.Contains(means, d.Code) {
			first = append(first, d)
		}
	}
	for _, d := range found {
		if !slices.ContainsFunc(first, func(one drill.Drill) bool { return one.Code == d.Code }) {
			first = append(first, d)
		}
	}
	slices.SortStableFunc(first, func(a, b drill.Drill) int {
		rank := func(d *drill.Drill) int {
			at := slices.Index(means, d.Code)
			switch {
			case at >= 0 && at == 0:
				return 0
			case pen.IsOwn(d.Code):
				return 1
			case at > 0:
				return 2
			}
			return 3
		}
		return rank(&a) - rank(&b)
	})
	return first, nil
}

// Unknown finds where drills that are to be kept name one that is neither among
// them nor in the book, or themselves.
func (b *Book) Unknown(drills []club.Drill) (unknown []Link) {
	own := map[string]bool{}
	for _, d := range drills {
		own[d.Code] = true
	}
	for i, d := range drills {
		for _, l := range []Link{{i, "easier", d.Easier}, {i, "harder", d.Harder}, {i, "swap", d.Swap}} {
			if _, ok := b.Find(l.Code); l.Code != "" && (l.Code == d.Code || !ok && !own[l.Code]) {
				unknown = append(unknown, l)
			}
		}
	}
	return unknown
}

// SaveDrill saves a drill as the club's own.
func (bk *Books) SaveDrill(ctx context.Context, by planner.Account, d club.Drill, edition uint32) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	b, err := bk.Book(ctx, by.ClubID)
	if err != nil {
		return err
	}
	if unknown := b.Unknown([]club.Drill{d}); len(unknown) > 0 && !d.Gone {
		return plan.Problems{{Where: unknown[0].Field, What: fmt.Sprintf("there is no drill %q to name here",
			unknown[0].Code)}}
	}
	if was := b.Own[d.Code].Is; d.Figure == nil && !d.Gone { // its words are changed, not how it looks
		d.Figure, d.Plain = was.Figure, was.Plain
	}
	said := d.Name + " changed"
	if d.Gone {
		said = d.Name + " taken out of the book"
	}
	_, err = bk.base.Save(ctx, by, said, planner.Change{ID: b.Own[d.Code].ID, Edition: edition, Is: d})
	return err
}

// DrawDrill saves how a drill looks, as the club's own; a nil figure is none at all. It
// fails with ErrNotFound, ErrStale and [plan.Problems].
func (bk *Books) DrawDrill(ctx context.Context, by planner.Account, code string, f *figure.Figure,
	edition uint32) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	b, err := bk.Book(ctx, by.ClubID)
	if err != nil {
		return err
	}
	d, ok := b.Find(code)
	if !ok {
		return planner.ErrNotFound
	}
	drill := b.Own[code].Is
	drill.Drill, drill.Figure, drill.Plain = d, f, f == nil
	said := d.Name + " drawn"
	if f == nil {
		said = d.Name + " without a figure"
	}
	_, err = bk.base.Save(ctx, by, said, planner.Change{ID: b.Own[code].ID, Edition: edition, Is: drill})
	return err
}

// own is a drill of a club's own. It fails with ErrNotFound where there is none.
func (bk *Books) own(ctx context.Context, clubID uint64, code string) (own planner.Entry[club.Drill], err error) {
	b, err := bk.Book(ctx, clubID)
	if err != nil {
		return own, err
	}
	own, ok := b.Own[code]
	if !ok {
		return own, planner.ErrNotFound
	}
	return own, nil
}

// AsDrawn gives up the club's own figure of a drill for the one that the book has. It fails
// with ErrNotFound where the club has none.
func (bk *Books) AsDrawn(ctx context.Context, by planner.Account, code string) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	own, err := bk.own(ctx, by.ClubID, code)
	if err != nil {
		return err
	}
	if own.Is.Figure == nil && !own.Is.Plain {
		return planner.ErrNotFound
	}
	drill := own.Is
	drill.Figure, drill.Plain = nil, false
	_, err = bk.base.Save(ctx, by, drill.Name+" drawn as it came", planner.Change{ID: own.ID, Is: drill})
	return err
}

// ResetDrill brings a drill back to what the book has; the club's own drill goes.
func (bk *Books) ResetDrill(ctx context.Context, by planner.Account, code string) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	own, err := bk.own(ctx, by.ClubID, code)
	if err != nil {
		return err
	}
	_, err = bk.base.Save(ctx, by, own.Is.Name+" as it came", planner.Change{ID: own.ID, Is: own.Is, Gone: true})
	return err
}

// Easier is the easier form of a drill: the book's, or of one of the club's own what its
// movement says.
func (b *Book) Easier(d drill.Drill) (drill.Drill, bool) {
	if easier, ok := b.Find(d.Easier); ok {
		return easier, true
	}
	return pen.Form(d, movement.Easier(d.Name))
}

// Harder is the harder form of a drill, as [Book.Easier] is the easier one.
func (b *Book) Harder(d drill.Drill) (drill.Drill, bool) {
	if harder, ok := b.Find(d.Harder); ok {
		return harder, true
	}
	return pen.Form(d, movement.Harder(d.Name))
}

// FormOf is the easier or the harder form of a drill, by its code.
func (b *Book) FormOf(d drill.Drill, code string) (drill.Drill, bool) {
	for _, form := range []func(drill.Drill) (drill.Drill, bool){b.Easier, b.Harder} {
		if is, ok := form(d); ok && is.Code == code {
			return is, true
		}
	}
	return drill.Drill{}, false
}

// Item is a drill ready for a block of a squad, with what stands in for it.
func (b *Book) Item(d drill.Drill, grade drill.Grade) plan.Item {
	item := plan.Item{Drill: d.For(grade)}
	if easier, ok := b.Easier(d); ok {
		easier = easier.For(grade)
		item.Easier = &easier
	}
	if swap, ok := b.Find(d.Swap); ok {
		swap = swap.For(grade)
		item.Swap = &swap
	}
	return item
}

// Free makes a code of a name that no drill has yet.
func (b *Book) Free(name string) string {
	base := strings.Join(strings.FieldsFunc(strings.ToLower(name),
		func(r rune) bool { return (r < 'a' || r > 'z') && (r < '0' || r > '9') }), "-")
	base = "our-" + base
	for n, code := 2, base; ; n++ {
		if _, taken := b.byCode[code]; !taken && b.Own[code].ID == 0 {
			return code
		}
		code = fmt.Sprintf("%s-%d", base, n)
	}
}
