// Package book is the drill book and the routines that a club keeps.
package book

import (
	"embed"
	"fmt"
	"html/template"
	"net/url"
	"slices"
	"sort"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/planner/books"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, template.FuncMap{"try": tryOf})

// shownAtMost is how many drills a list shows before it asks for more words.
const shownAtMost = 300

type drillsBody struct {
	Cover   cover // where no drill is open
	Query   drill.Query
	Total   int
	Groups  []group
	More    int
	Filters []filter
	Open    *openDrill
	Edits   bool
	Plain   bool   // nothing is asked for
	Handout string // address of what fits as a list to print
}

// group is the drills of a phase that were found.
type group struct {
	Phase  drill.Phase
	Drills []found
}

type found struct {
	Code, Name, Aim, Dose, Works, Kit string
	Open                              bool
	Look                              chalk.Drawn
	Draft                             bool // made of a line, still to be completed
	Href                              string
}

// filter is one thing to look by.
type filter struct {
	Name, Label, Any, Now string
	Choices               []shell.Choice
}

// openDrill is the drill whose page is open beside the list.
type openDrill struct {
	drill.Drill
	Dose, Work, Load, Works, Level, Space string
	Marks                                 []string
	Links                                 []link
	Own                                   bool // the club has changed it
	Look                                  chalk.Drawn
	Steps                                 []step
	Close                                 string
	Picture                               string // address of the club's own picture
	Chips                                 shell.Chips
	Problem                               string   // why what was said of it is not kept
	Felt                                  []string // what players say of it
	Names                                 []string // of other drills, that one of the club's own may be the same as
}

// step is a rung of a ladder with the acts that the target puts on it.
type step struct{ What, Acts string }

type link struct{ What, Name, Href, None string }

var spaces = []shell.Choice{{Value: shell.OnTheSpot, Label: "on the spot"}, {Value: "10", Label: "up to 10 m"},
	{Value: "20", Label: "up to 20 m"}, {Value: "30", Label: "up to 30 m"}}

// Drills is the drill book.
func (in Room) Drills(r *shell.Request) (shell.Answer, error) {
	b, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	body, err := in.drillsOf(r, b)
	if err != nil {
		return nil, err
	}
	body.Edits = r.Coach()
	if body.Open != nil {
		stamps, err := in.Books.Pictures(r.Context(), r.Club())
		if err != nil {
			return nil, err
		}
		if body.Open.Felt, err = in.Learn.FeltOf(r.Context(), r.By, body.Open.Code); err != nil {
			return nil, err
		}
		if stamp := stamps[body.Open.Code]; stamp != "" {
			body.Open.Picture = shell.Picture(body.Open.Code, stamp)
		}
	}
	return &shell.Page{Screens: screens, Name: "drills", Part: "found", Title: "Drill book", Nav: "drills", Body: body},
		nil
}

func (in Room) drillsOf(r *shell.Request, b *books.Book) (*drillsBody, error) {
	q, plain := shell.DrillQuery(r)
	fit, err := in.Books.Search(r.Context(), r.Club(), q)
	if err != nil {
		return nil, err
	}
	body := &drillsBody{Query: q, Total: len(fit), Plain: plain, More: max(0, len(fit)-shownAtMost),
		Filters: filtersOf(q, r.Query("space"), b), Handout: "/drills/handout?" + r.Asked().Encode()}
	asked := r.Asked()
	body.Groups = groupsOf(b, fit[:min(len(fit), shownAtMost)], q, asked)
	if d, ok := b.Find(asked.Get("drill")); ok {
		body.Open = openOf(b, d, asked)
	} else {
		body.Cover = coverOf(b, q.Sport)
	}
	return body, nil
}

// cover is how many drills of the book work each joint in each phase.
type cover struct {
	Phases []drill.Phase
	Rows   []coverRow
}

type coverRow struct {
	Region string
	Cells  []coverCell
}

type coverCell struct {
	Count       int
	Href, Label string
}

func coverOf(b *books.Book, sport string) (c cover) {
	for _, p := range drill.Phases {
		if p.Letter() != "" {
			c.Phases = append(c.Phases, p)
		}
	}
	for _, region := range drill.Regions {
		row := coverRow{Region: region}
		for _, phase := range c.Phases {
			q := drill.Query{Phase: phase.Key(), Region: region, Sport: sport}
			n := len(q.Find(b.Drills))
			row.Cells = append(row.Cells, coverCell{n, fmt.Sprintf("/drills?phase=%s&region=%s", phase.Key(), region),
				fmt.Sprintf("%s, %s: %s", region, phase.Name(), drill.Number(n, "drills"))})
		}
		c.Rows = append(c.Rows, row)
	}
	return c
}

// groupsOf are the drills by phase: each in its first one, or in the one that is
// asked for.
func groupsOf(b *books.Book, fit []drill.Drill, q drill.Query, asked url.Values) (groups []group) {
	open := asked.Get("drill")
	for _, phase := range drill.Phases {
		one := group{Phase: phase}
		for _, d := range fit {
			in := d.Phases[0] == phase
			if q.Phase != "" {
				in = q.Phase == phase.Key() && d.Serves(phase)
			}
			if in {
				one.Drills = append(one.Drills, found{Code: d.Code, Name: d.Name, Aim: d.Aim,
					Dose: d.Words(d.Range.Target), Works: strings.Join(d.Regions, " "),
					Kit: strings.Join(slices.Concat(d.Kit, d.LaneKit), ", "), Open: d.Code == open,
					Draft: b.Own[d.Code].Is.Draft, Look: chalk.Of(b.Looks(&d), &d), Href: with(asked, "drill", d.Code)})
			}
		}
		if len(one.Drills) > 0 {
			groups = append(groups, one)
		}
	}
	if q.Text != "" { // what was meant comes first
		first := map[string]int{}
		for n, d := range fit {
			first[d.Code] = n
		}
		slices.SortStableFunc(groups, func(a, b group) int { return first[a.Drills[0].Code] - first[b.Drills[0].Code] })
	}
	return groups
}

func filtersOf(q drill.Query, space string, b *books.Book) []filter {
	kit := map[string]bool{}
	for _, d := range b.Drills {
		for _, k := range slices.Concat(d.Kit, d.LaneKit) {
			kit[k] = true
		}
	}
	kits := []shell.Choice{{Value: drill.NoKit, Label: "no kit"}}
	for _, k := range sorted(kit) {
		kits = append(kits, shell.Choice{Value: k, Label: k})
	}
	var phases []shell.Choice
	for _, p := range drill.Phases {
		phases = append(phases, shell.Choice{Value: p.Key(), Label: p.Name()})
	}
	everySport := ""
	if q.Sport == "" {
		everySport = shell.EverySport
	}
	return []filter{
		{Name: "phase", Label: "Phase", Any: "every phase", Now: q.Phase, Choices: phases},
		{Name: "region", Label: "Joint", Any: "every joint", Now: q.Region, Choices: words(drill.Regions)},
		{Name: "plane", Label: "Plane", Any: "every plane", Now: q.Plane, Choices: words(drill.Planes)},
		{Name: "quality", Label: "Trains", Any: "everything", Now: q.Quality, Choices: words(drill.Qualities)},
		{Name: "kit", Label: "Kit", Any: "any kit", Now: q.Kit, Choices: kits},
		{Name: "space", Label: "Room", Any: "any room", Now: space, Choices: spaces},
		{Name: "sport", Label: "Sport", Any: "ours", Now: everySport,
			Choices: []shell.Choice{{Value: shell.EverySport, Label: "every sport"}}},
		{Name: "level", Label: "Squad", Any: "every level", Now: string(q.Grade), Choices: grades()},
	}
}

func sorted(set map[string]bool) (list []string) {
	for one := range set {
		list = append(list, one)
	}
	sort.Strings(list)
	return list
}

func words(list []string) (choices []shell.Choice) {
	for _, w := range list {
		choices = append(choices, shell.Choice{Value: w, Label: w})
	}
	return choices
}

func grades() (list []shell.Choice) {
	for _, g := range drill.Grades {
		list = append(list, shell.Choice{Value: string(g), Label: g.Name()})
	}
	return list
}

// with is the address of the drill book with one thing asked for set.
func with(asked url.Values, key, value string) string {
	next := url.Values{}
	for k, v := range asked {
		if k != key && len(v) > 0 && v[0] != "" {
			next[k] = v[:1]
		}
	}
	if value != "" {
		next.Set(key, value)
	}
	return "/drills?" + next.Encode()
}

func openOf(b *books.Book, d drill.Drill, asked url.Values) *openDrill {
	alone, many := drill.Group{People: 1, Lanes: 1}, drill.Group{People: 24, Lanes: 6}
	k := d.For(drill.Club)
	own := b.Own[d.Code]
	o := &openDrill{Drill: d, Level: d.Least.Name(), Close: with(asked, "drill", ""), Marks: marks(d),
		Own: own.Edition > 0, Look: chalk.Of(b.Looks(&d), &d),
		Dose:  fmt.Sprintf("%s, from %s to %s", d.Words(d.Range.Target), d.Figure(d.Range.Min), d.Figure(d.Range.Max)),
		Work:  fmt.Sprintf("%.0f s for one", k.Work(k.Range.Target, alone)),
		Load:  strings.Join(k.Load(k.Range.Target, alone).Words(), ", "),
		Works: shell.Joined(" · ", strings.Join(d.Regions, ", "), planeWords(d.Planes)),
		Space: fmt.Sprintf("on the spot, %s apart", d.Dose.Length(d.Space.Width))}
	if d.Space.Width == 0 {
		o.Space = "on the spot"
	}
	if o.Chips = shell.ChipsOf(&d, 0).WithLook(&d); o.Chips.Chips != nil {
		for _, other := range b.Drills {
			o.Names = append(o.Names, other.Name)
		}
	}
	if k.Dose.Kind == drill.Travel || k.Turns() {
		o.Work += fmt.Sprintf(", %.0f s for 24 in six lanes", k.Work(k.Range.Target, many))
	}
	if d.Space.Length > 0 {
		o.Space = fmt.Sprintf("%s × %s a lane", d.Dose.Length(d.Space.Length), d.Dose.Length(d.Space.Width))
	}
	for i, n := range d.Ladder(d.Range.Target) {
		o.Steps = append(o.Steps, step{d.Rungs[i].Words(measure.System{Yards: d.Dose.Yards, Feet: d.Dose.Feet}),
			fmt.Sprint(n)})
	}
	for _, to := range []struct{ what, code, none string }{
		{"Easier", d.Easier, "this is the plainest form"},
		{"Harder", d.Harder, "this is the hardest: turn up the dose"},
		{"Instead", d.Swap, "nothing is named"},
	} {
		l := link{What: to.what, None: to.none}
		if o.Chips.Chips != nil {
			l.None = "none is known"
		}
		if other, ok := b.Find(to.code); ok {
			l.Name, l.Href = other.Name, with(asked, "drill", other.Code)
		}
		o.Links = append(o.Links, l)
	}
	return o
}

// marks say how a drill is done.
func marks(d drill.Drill) (list []string) {
	for _, f := range flags {
		if f.mark != "" && *f.of(&d) {
			list = append(list, f.mark)
		}
	}
	sort.Strings(list)
	if !d.Ground {
		list = append([]string{"standing"}, list...)
	}
	return list
}

func planeWords(planes []string) string {
	if len(planes) == 0 {
		return ""
	}
	return strings.Join(planes, ", ") + " plane"
}

// Pct is the effort in per cent.
func (o *openDrill) Pct() float64 { return 100 * o.Effort }
