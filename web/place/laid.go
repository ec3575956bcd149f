package place

import (
	"fmt"
	"html/template"
	"math"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/ground"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/keep"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// laidBody is the plan of a ground, to be arranged.
type laidBody struct {
	ID      uint64
	Name    string
	Coach   bool
	Drawn   template.HTML
	Zones   []laidZone
	Problem string
	measure.System
}

// laidZone is a zone on it. Numbers are as they were sent.
type laidZone struct {
	ID               uint64
	Name             string
	X, Y, Long, Wide string
	Turn             string
}

// Size of the plan on its page.
const (
	laidWide = 880
	laidHigh = 480
)

// turnStep is by how many degrees a press turns a place.
const turnStep = 15

// Laid is the page on which a ground's places are arranged.
func (in Room) Laid(r *shell.Request) (shell.Answer, error) { return in.laidPage(r, "", nil) }

// laidPage is the page; after a refused form with what is wrong, and what was sent.
func (in Room) laidPage(r *shell.Request, problem string, sent map[uint64]laidZone) (*shell.Page, error) {
	v, units, err := in.venueOf(r)
	if err != nil {
		return nil, err
	}
	b := &laidBody{ID: v.ID, Name: v.Is.Name, Coach: r.Coach(), Problem: problem, System: units}
	var spots []chalk.Spot
	for i, p := range arranged(v) {
		spots = append(spots, chalk.Spot{Place: p, Key: p.ID,
			Lines: []string{tenth(units, p.Lie.Long) + " × " + tenth(units, p.Lie.Wide) + " " + units.Unit(),
				"holds " + strconv.Itoa(p.Capacity)}})
		zone := laidZone{ID: v.Zones[i].ID, Name: p.Name, X: tenth(units, p.Lie.X), Y: tenth(units, p.Lie.Y),
			Long: tenth(units, p.Lie.Long), Wide: tenth(units, p.Lie.Wide), Turn: strconv.Itoa(p.Lie.Turn)}
		if was, there := sent[zone.ID]; there {
			was.Name, was.ID = zone.Name, zone.ID
			zone = was
		}
		b.Zones = append(b.Zones, zone)
	}
	b.Drawn = chalk.Ground("The plan of "+v.Is.Name, units, spots, nil, laidWide, laidHigh)
	return &shell.Page{Screens: screens, Name: "laid", Part: "laid", Title: "The plan of " + v.Is.Name, Nav: "ground",
		Body: b}, nil
}

// venueOf is the ground that is asked for, and the units that its club uses.
func (in Room) venueOf(r *shell.Request) (*keep.Venue, measure.System, error) {
	g, err := in.Keep.Ground(r.Context(), r.Club())
	if err != nil {
		return nil, measure.System{}, err
	}
	at := slices.IndexFunc(g.Venues, func(v keep.Venue) bool { return v.ID == r.ParamID("id") })
	if at < 0 {
		return nil, measure.System{}, planner.ErrNotFound
	}
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, measure.System{}, err
	}
	return &g.Venues[at], plays.System, nil
}

// arranged are a ground's places where they lie, in the order of its zones.
func arranged(v *keep.Venue) []ground.Place {
	zones := make([]plan.Zone, len(v.Zones))
	for i, z := range v.Zones {
		zones[i] = z.Is.Plan(strconv.FormatUint(z.ID, 10))
	}
	return ground.Arrange(zones)
}

// tenth is a length of so many metres in a club's unit, to a tenth.
func tenth(in measure.System, metres float64) string {
	return strconv.FormatFloat(math.Round(10*in.In(metres))/10, 'f', -1, 64)
}

// Lay keeps where a ground's places lie.
func (in Room) Lay(r *shell.Request) (shell.Answer, error) {
	v, units, err := in.venueOf(r)
	if err != nil {
		return nil, err
	}
	f, wrong := r.Form, ""
	lies, sent := map[uint64]plan.Lie{}, map[uint64]laidZone{}
	for i, p := range arranged(v) {
		z := &v.Zones[i]
		get := func(name string) string { return f.Text(fmt.Sprintf("%s-%d", name, z.ID)) }
		if get("x") == "" {
			continue // it was added meanwhile
		}
		number := func(name string) float64 {
			x, err := strconv.ParseFloat(strings.Replace(get(name), ",", ".", 1), 64)
			if err != nil && wrong == "" {
				wrong = fmt.Sprintf("%s: %q is no number", z.Is.Name, get(name))
			}
			return x
		}
		far := func(name string, was float64) float64 {
			if get(name) == tenth(units, was) {
				return was // as it was shown: nothing is rounded twice
			}
			return units.Metres(number(name))
		}
		l := plan.Lie{X: far("x", p.Lie.X), Y: far("y", p.Lie.Y), Long: far("long", p.Lie.Long),
			Wide: far("wide", p.Lie.Wide), Turn: int(math.Round(number("turn")))}
		if f.Raw("turned") == strconv.FormatUint(z.ID, 10) {
			l.Turn += turnStep
		}
		l.Turn = (l.Turn%360 + 360) % 360
		if problem := l.Problem(); problem != "" && wrong == "" {
			wrong = z.Is.Name + ": " + units.Text(problem)
		}
		lies[z.ID] = l
		sent[z.ID] = laidZone{X: get("x"), Y: get("y"), Long: get("long"), Wide: get("wide"), Turn: get("turn")}
	}
	if wrong != "" {
		err = plan.In("lies", "%s", wrong)
	} else {
		err = in.Keep.Lay(r.Context(), r.By, v.ID, lies)
	}
	if err == nil && r.Wants("laid") {
		return in.laidPage(r, "", nil)
	}
	again := func(wrong plan.Problems) (*shell.Page, error) { return in.laidPage(r, wrong[0].What, sent) }
	return r.Changed(err, shell.Go(fmt.Sprintf("/ground-plan/%d", v.ID)), again)
}
