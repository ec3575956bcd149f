package planner

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/store"
)

// ErrForbidden is returned where an account's role does not allow something:
// rulings are for medical staff alone, everything else for coaches.
var ErrForbidden = errors.New("your role does not allow this")

// Keep makes changes of things that the club keeps, all or none. It fails as
// store.Keep does, and with ErrForbidden.
func (p *Planner) Keep(ctx context.Context, by store.Account, summary string, changes ...store.Change) ([]uint64, error) {
	for _, c := range changes {
		if (c.Is.Kind() == club.KindRestriction) != (by.Role == store.Medical) {
			return nil, ErrForbidden
		}
	}
	return p.Store.Keep(ctx, by, summary, changes...)
}

// Squad is a squad with who belongs to it.
type Squad struct {
	store.Squad
	Players []store.Kept[club.Player] // by number, then by name
	Units   []store.Kept[club.Unit]
	Rulings []store.Kept[club.Restriction]
}

// Player returns a player of the squad, or nil.
func (s *Squad) Player(id uint64) *store.Kept[club.Player] {
	for i := range s.Players {
		if s.Players[i].ID == id {
			return &s.Players[i]
		}
	}
	return nil
}

// In lists the rulings for a player that hold on a day, 2026-11-28, or on some
// later one.
func (s *Squad) In(player uint64, day string) (holds, later []store.Kept[club.Restriction]) {
	for _, r := range s.Rulings {
		switch {
		case r.Owner != player:
		case r.Is.Holds(day):
			holds = append(holds, r)
		case r.Is.From > day:
			later = append(later, r)
		}
	}
	return holds, later
}

// Squad returns a squad of the club, its first where id is 0; or store.ErrNotFound.
func (p *Planner) Squad(ctx context.Context, clubID, id uint64) (*Squad, error) {
	if id == 0 {
		squads, err := p.Store.Squads(ctx, clubID)
		if err != nil || len(squads) == 0 {
			return nil, errors.Join(err, store.ErrNotFound)
		}
		id = squads[0].ID
	}
	found, err := p.Store.Squad(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	s := &Squad{Squad: found}
	players, err := store.Things[club.Player](ctx, p.Store, clubID)
	if err != nil {
		return nil, err
	}
	s.Players = slices.DeleteFunc(players, func(k store.Kept[club.Player]) bool { return k.Owner != id })
	slices.SortStableFunc(s.Players, func(a, b store.Kept[club.Player]) int {
		rank := func(p club.Player) int { return (p.Number + 999) % 1000 } // those without a number last
		if n := rank(a.Is) - rank(b.Is); n != 0 {
			return n
		}
		return strings.Compare(a.Is.Last+a.Is.First, b.Is.Last+b.Is.First)
	})
	if s.Units, err = store.Things[club.Unit](ctx, p.Store, clubID); err != nil {
		return nil, err
	}
	s.Units = slices.DeleteFunc(s.Units, func(k store.Kept[club.Unit]) bool { return k.Owner != id })
	rulings, err := store.Things[club.Restriction](ctx, p.Store, clubID)
	for _, r := range rulings {
		if s.Player(r.Owner) != nil {
			s.Rulings = append(s.Rulings, r)
		}
	}
	return s, err
}

// RemovePlayer takes a player out, with their place in units. Rulings stay
// behind unseen, so that taking it back restores them.
func (p *Planner) RemovePlayer(ctx context.Context, by store.Account, squad *Squad, id uint64) error {
	player := squad.Player(id)
	if player == nil {
		return store.ErrNotFound
	}
	changes := []store.Change{{ID: id, Edition: player.Edition, Is: player.Is, Gone: true}}
	for _, u := range squad.Units {
		if !slices.Contains(u.Is.Players, id) {
			continue
		}
		u.Is.Players = slices.DeleteFunc(slices.Clone(u.Is.Players), func(other uint64) bool { return other == id })
		changes = append(changes, store.Change{ID: u.ID, Edition: u.Edition, Is: u.Is, Gone: len(u.Is.Players) == 0})
	}
	_, err := p.Keep(ctx, by, player.Is.Label()+" leaves the squad", changes...)
	return err
}

// Ground is where the club trains and plays, with what, and led by whom.
type Ground struct {
	Venues []Venue
	Kit    []store.Kept[club.Kit]
	Staff  []store.Kept[club.Staff]
}

// Venue is a ground with its zones.
type Venue struct {
	store.Kept[club.Venue]
	Zones []store.Kept[club.Zone]
}

// Ground returns the club's ground, kit and staff.
func (p *Planner) Ground(ctx context.Context, clubID uint64) (*Ground, error) {
	venues, err := store.Things[club.Venue](ctx, p.Store, clubID)
	if err != nil {
		return nil, err
	}
	zones, err := store.Things[club.Zone](ctx, p.Store, clubID)
	if err != nil {
		return nil, err
	}
	g := &Ground{}
	for _, v := range venues {
		one := Venue{Kept: v}
		for _, z := range zones {
			if z.Owner == v.ID {
				one.Zones = append(one.Zones, z)
			}
		}
		g.Venues = append(g.Venues, one)
	}
	if g.Kit, err = store.Things[club.Kit](ctx, p.Store, clubID); err != nil {
		return nil, err
	}
	slices.SortFunc(g.Kit, func(a, b store.Kept[club.Kit]) int { return strings.Compare(a.Is.Name, b.Is.Name) })
	g.Staff, err = store.Things[club.Staff](ctx, p.Store, clubID)
	slices.SortStableFunc(g.Staff, func(a, b store.Kept[club.Staff]) int {
		return map[bool]int{a.Is.Leads: -1, b.Is.Leads: 1}[true]
	})
	return g, err
}

// UsualZones gives a new venue the zones of a usual ground of the club's sport.
func (p *Planner) UsualZones(ctx context.Context, by store.Account, venue uint64) error {
	plays, err := p.Sport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	var changes []store.Change
	for _, z := range plays.Zones {
		changes = append(changes, store.Change{Owner: venue, Is: club.Zone{Name: z.Name, Capacity: z.Capacity, Lanes: z.Lanes, Metres: z.Metres, Surface: z.Surface}})
	}
	_, err = p.Keep(ctx, by, "usual zones", changes...)
	return err
}

// Book is the drill book as a club has it: the one that comes with Cue Start
// with the club's own changes over it, which a newer book never overwrites.
type Book struct {
	Drills []drill.Drill
	Own    map[string]store.Kept[club.Drill] // the club's changes, by code
	byCode map[string]int
}

// Find returns the drill of that code.
func (b *Book) Find(code string) (drill.Drill, bool) {
	if i, ok := b.byCode[code]; ok {
		return b.Drills[i], true
	}
	return drill.Drill{}, false
}

// Book returns the club's drill book.
func (p *Planner) Book(ctx context.Context, clubID uint64) (*Book, error) {
	kept, err := store.Things[club.Drill](ctx, p.Store, clubID)
	if err != nil {
		return nil, err
	}
	b := &Book{Own: map[string]store.Kept[club.Drill]{}, byCode: map[string]int{}}
	var own []club.Drill
	for _, k := range kept {
		own = append(own, k.Is)
		b.Own[k.Is.Code] = k
	}
	b.Drills = club.Overlay(book.Drills(), own)
	for i, d := range b.Drills {
		b.byCode[d.Code] = i
	}
	return b, nil
}

// Link is a place in which a drill names another.
type Link struct {
	Index       int    // of the drill
	Field, Code string // easier, harder or swap, and what it names
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

// KeepDrill saves a drill as the club's own.
func (p *Planner) KeepDrill(ctx context.Context, by store.Account, d club.Drill, edition uint32) error {
	b, err := p.Book(ctx, by.ClubID)
	if err != nil {
		return err
	}
	if unknown := b.Unknown([]club.Drill{d}); len(unknown) > 0 && !d.Gone {
		return plan.Problems{{Where: unknown[0].Field, What: fmt.Sprintf("there is no drill %q to name here", unknown[0].Code)}}
	}
	said := d.Name + " changed"
	if d.Gone {
		said = d.Name + " taken out of the book"
	}
	_, err = p.Keep(ctx, by, said, store.Change{ID: b.Own[d.Code].ID, Edition: edition, Is: d})
	return err
}

// ResetDrill brings a drill back to what the book has; the club's own drill goes.
func (p *Planner) ResetDrill(ctx context.Context, by store.Account, code string) error {
	b, err := p.Book(ctx, by.ClubID)
	if err != nil {
		return err
	}
	own, ok := b.Own[code]
	if !ok {
		return store.ErrNotFound
	}
	_, err = p.Keep(ctx, by, own.Is.Name+" as it came", store.Change{ID: own.ID, Is: own.Is, Gone: true})
	return err
}

// Sport returns the club's sport: its copy, or the one that comes with Cue
// Start; the first of these where the club plays none that is known.
func (p *Planner) Sport(ctx context.Context, clubID uint64) (*sport.Sport, error) {
	kept, err := store.Things[club.Sport](ctx, p.Store, clubID)
	if err != nil {
		return nil, err
	}
	if len(kept) > 0 {
		return &kept[0].Is.Sport, nil
	}
	name, err := p.Store.Sport(ctx, clubID)
	if err != nil {
		return nil, err
	}
	known, ok := book.Sport(name)
	if !ok {
		known = book.Sports()[0]
	}
	return &known, nil
}

// Item is a drill ready for a block of a squad, with what stands in for it.
func (b *Book) Item(d drill.Drill, grade drill.Grade) plan.Item {
	item := plan.Item{Drill: d.For(grade)}
	if easier, ok := b.Find(d.Easier); ok {
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
	base := strings.Join(strings.FieldsFunc(strings.ToLower(name), func(r rune) bool { return (r < 'a' || r > 'z') && (r < '0' || r > '9') }), "-")
	base = "our-" + base
	for n, code := 2, base; ; n++ {
		if _, taken := b.byCode[code]; !taken && b.Own[code].ID == 0 {
			return code
		}
		code = fmt.Sprintf("%s-%d", base, n)
	}
}

// KeepSport saves the club's own copy of its sport.
func (p *Planner) KeepSport(ctx context.Context, by store.Account, s sport.Sport, edition uint32) error {
	kept, err := store.Things[club.Sport](ctx, p.Store, by.ClubID)
	if err != nil {
		return err
	}
	change := store.Change{Is: club.Sport{Sport: s}, Edition: edition}
	if len(kept) > 0 {
		change.ID = kept[0].ID
	} else {
		change.Edition = 0
	}
	_, err = p.Keep(ctx, by, s.Name+" changed", change)
	return err
}

// ResetSport brings the sport back to how it came.
func (p *Planner) ResetSport(ctx context.Context, by store.Account) error {
	kept, err := store.Things[club.Sport](ctx, p.Store, by.ClubID)
	if err != nil || len(kept) == 0 {
		return err
	}
	_, err = p.Keep(ctx, by, kept[0].Is.Name+" as it came", store.Change{ID: kept[0].ID, Is: kept[0].Is, Gone: true})
	return err
}
