// Package place is where the club trains and plays, with what and led by whom,
// who signs in, and what its sport is like.
package place

import (
	"embed"
	"fmt"
	"html/template"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, template.FuncMap{
	"venue": func(v keep.Venue, coach bool, units measure.System) venue { return venue{v, coach, units} },
})

// venue is a ground with its zones, for who may change it or not.
type venue struct {
	keep.Venue
	Coach bool
	measure.System
}

type groundBody struct {
	Venues   []keep.Venue
	Kit      []planner.Entry[club.Kit]
	Staff    []planner.Entry[club.Staff]
	Needs    []string // kit that the drill book asks for and that is not counted
	Form     *form
	Coach    bool
	Units    measure.System
	Problems plan.Problems
}

// form is the one thing that is open for change. Numbers are as they were sent.
type form struct {
	Kind    club.Kind
	ID      uint64
	Owner   uint64 // of a zone: its venue
	Edition uint32
	Venue   club.Venue
	Zone    club.Zone
	Kit     club.Kit
	Staff   club.Staff

	Capacity, Lanes, Metres, Pieces string
	measure.System
}

// Air is that under the roof of a zone, as the club's thermometers show it; "" where it is not said.
func (f *form) Air() string {
	if f.Zone.Celsius == nil {
		return ""
	}
	return fmt.Sprintf("%.3g", f.Thermometer(*f.Zone.Celsius))
}

// opened are the kinds of thing that the page changes.
var opened = []club.Kind{club.KindVenue, club.KindZone, club.KindKit, club.KindStaff}

// Title says what the form is about.
func (f *form) Title() string {
	if f.ID != 0 {
		return f.thing().Label()
	}
	return map[club.Kind]string{club.KindVenue: "A new ground", club.KindZone: "A new zone",
		club.KindKit: "Kit to count", club.KindStaff: "Who leads"}[f.Kind]
}

// thing is what the form holds.
func (f *form) thing() club.Thing {
	switch f.Kind {
	case club.KindVenue:
		return f.Venue
	case club.KindZone:
		return f.Zone
	case club.KindKit:
		return f.Kit
	}
	return f.Staff
}

// Ground is the page.
func (in Room) Ground(r *shell.Request) (shell.Answer, error) { return in.groundPage(r, nil, nil) }

// groundPage is the page; after a refused form with its problems, and with what
// refill puts back into it.
func (in Room) groundPage(r *shell.Request, wrong plan.Problems, refill func(*groundBody)) (*shell.Page, error) {
	g, err := in.Keep.Ground(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	b := &groundBody{Venues: g.Venues, Kit: g.Kit, Staff: g.Staff, Coach: r.Coach(), Problems: wrong}
	drills, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	b.Units = plays.System
	b.Needs = needs(drills, plays.Key, g.Kit)
	if b.Coach {
		b.Form = formOf(g, plays.System, club.Kind(r.Query("edit")), r.Query("id"), r.QueryID("id"))
	}
	if f := b.Form; f != nil && f.ID == 0 {
		f.Owner, f.Kit.Name = r.QueryID("of"), r.Query("name")
	}
	if refill != nil {
		refill(b)
	}
	return &shell.Page{Screens: screens, Name: "ground", Title: "Ground and kit", Nav: "ground", Body: b}, nil
}

// needs is the kit that drills of the sport ask for and that is not counted; what
// players own and what places have is not asked for.
func needs(b *books.Book, sport string, counted []planner.Entry[club.Kit]) (list []string) {
	have := map[string]bool{}
	for _, k := range counted {
		have[k.Is.Name] = true
	}
	for _, d := range b.Drills {
		if len(d.Sports) > 0 && !slices.Contains(d.Sports, sport) {
			continue
		}
		for _, k := range slices.Concat(d.Kit, d.LaneKit) {
			if !have[k] && drill.Counted(k) {
				have[k] = true
				list = append(list, k)
			}
		}
	}
	slices.Sort(list)
	return list
}

// formOf is the form of what is asked for, or nil.
func formOf(g *keep.Ground, units measure.System, kind club.Kind, asked string, id uint64) *form {
	if !slices.Contains(opened, kind) {
		return nil
	}
	f := &form{System: units, Kind: kind, ID: id, Zone: club.Zone{Capacity: 30, Lanes: 6}, Kit: club.Kit{Pieces: 10},
		Venue: club.Venue{TimeZone: "Europe/London"}}
	if len(g.Venues) > 0 {
		f.Venue.TimeZone = g.Venues[0].Is.TimeZone
	}
	if asked != "new" && !f.find(g) {
		return nil
	}
	f.Capacity, f.Lanes, f.Pieces = fmt.Sprint(f.Zone.Capacity), fmt.Sprint(f.Zone.Lanes), fmt.Sprint(f.Kit.Pieces)
	if f.Zone.Metres > 0 {
		f.Metres = units.Length(f.Zone.Metres)
	}
	return f
}

// Fitted is what the zone has, in one field.
func (f *form) Fitted() string { return strings.Join(f.Zone.Fittings, "; ") }

// find fills in what is there; it reports whether it is.
func (f *form) find(g *keep.Ground) bool {
	switch f.Kind {
	case club.KindKit:
		return take(g.Kit, f.ID, &f.Kit, &f.Edition)
	case club.KindStaff:
		return take(g.Staff, f.ID, &f.Staff, &f.Edition)
	}
	for _, v := range g.Venues {
		if f.Kind == club.KindVenue && v.ID == f.ID {
			f.Venue, f.Edition = v.Is, v.Edition
			return true
		}
		if f.Kind == club.KindZone && take(v.Zones, f.ID, &f.Zone, &f.Edition) {
			f.Owner = v.ID
			return true
		}
	}
	return false
}

// take takes the entry of that id, and reports whether there is one.
func take[T club.Thing](list []planner.Entry[T], id uint64, is *T, edition *uint32) bool {
	for _, k := range list {
		if k.ID == id {
			*is, *edition = k.Is, k.Edition
			return true
		}
	}
	return false
}

// read reads the form of a kind of thing.
func read(r *shell.Request, kind club.Kind, units measure.System) *form {
	in := r.Form
	f := &form{System: units, Kind: kind, ID: in.ID("id"), Edition: in.Count("edition"), Capacity: in.Raw("capacity"),
		Lanes: in.Raw("lanes"), Metres: in.Raw("metres"), Pieces: in.Raw("pieces")}
	switch kind {
	case club.KindVenue:
		f.Venue = club.Venue{Name: in.Text("name"), TimeZone: in.Text("time_zone")}
	case club.KindZone:
		f.Owner = in.ID("of")
		f.Zone = club.Zone{Name: in.Text("name"), Capacity: in.Int("capacity", 1, club.MaxPeople),
			Lanes:  in.Int("lanes", 1, club.MaxLanes),
			Metres: metres(in, f.System), Surface: in.Text("surface"), Covered: in.Has("covered"),
			Fittings: in.Entries("fittings"), Opens: in.Text("opens"), Closes: in.Text("closes")}
		if air, said := in.Decimal("air", "write degrees, such as 16"); said {
			air = units.Celsius(air)
			f.Zone.Celsius = &air
		}
	case club.KindKit:
		f.Kit = club.Kit{Name: in.Text("name"), Pieces: in.Int("pieces", 0, club.MaxPieces)}
	case club.KindStaff:
		f.Staff = club.Staff{Name: in.Text("name"), Role: in.Text("role"), Leads: in.Has("leads"),
			Opens: in.Text("opens"), Closes: in.Text("closes")}
	}
	return f
}

// metres reads the length of a lane, in the club's unit where it says none; 0: not known.
func metres(in *shell.Form, club measure.System) float64 {
	text := in.Text("metres")
	if text == "" {
		return 0
	}
	x, ok := club.ReadLength(text)
	if !ok {
		in.Refuse("metres", "write how long it is, such as 20, 20 m or 22 yd")
	}
	return x
}

// Save saves a ground, zone, kit or staff, or adds one.
func (in Room) Save(r *shell.Request) (shell.Answer, error) {
	kind := club.Kind(r.Param("kind"))
	if !slices.Contains(opened, kind) {
		return nil, planner.ErrNotFound
	}
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	f := read(r, kind, plays.System)
	if kind == club.KindZone {
		g, err := in.Keep.Ground(r.Context(), r.Club())
		if err != nil {
			return nil, err
		}
		at := slices.IndexFunc(g.Venues, func(v keep.Venue) bool { return v.ID == f.Owner })
		if at < 0 {
			return nil, planner.ErrNotFound
		}
		for _, z := range g.Venues[at].Zones {
			if z.ID == f.ID {
				f.Zone.Lies = z.Is.Lies // the form says nothing of it
			}
		}
	}
	said, err := f.thing().Label()+" is saved", r.Form.Err()
	if err == nil {
		err = f.save(in, r, said)
	}
	return r.Saved(err, said, "/ground", func(wrong plan.Problems) (*shell.Page, error) {
		return in.groundPage(r, wrong, func(b *groundBody) { b.Form = f })
	})
}

// save saves what the form holds; a new ground gets the usual zones if wanted.
func (f *form) save(in Room, r *shell.Request, said string) error {
	ids, err := in.Keep.Save(r.Context(), r.By, said, planner.Change{ID: f.ID, Owner: f.Owner, Edition: f.Edition,
		Is: f.thing()})
	if err == nil && f.Kind == club.KindVenue && f.ID == 0 && r.Form.Has("usual") {
		err = in.Keep.UsualZones(r.Context(), r.By, ids[0])
	}
	return err
}

// Remove takes a thing out, a ground with its zones.
func (in Room) Remove(r *shell.Request) (shell.Answer, error) {
	g, err := in.Keep.Ground(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	f := formOf(g, measure.System{}, club.Kind(r.Param("kind")), r.Param("id"), r.ParamID("id"))
	if f == nil || f.ID == 0 {
		return nil, planner.ErrNotFound
	}
	changes := []planner.Change{{ID: f.ID, Is: f.thing(), Gone: true}}
	for _, v := range g.Venues {
		if f.Kind != club.KindVenue || v.ID != f.ID {
			continue
		}
		for _, z := range v.Zones {
			changes = append([]planner.Change{{ID: z.ID, Is: z.Is, Gone: true}}, changes...)
		}
	}
	said := f.thing().Label() + " is deleted"
	_, err = in.Keep.Save(r.Context(), r.By, said, changes...)
	return r.Saved(err, said, "/ground", func(wrong plan.Problems) (*shell.Page, error) {
		return in.groundPage(r, wrong, nil)
	})
}
