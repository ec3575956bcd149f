package today

import (
	"cmp"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

// form is the form of a session to come.
type form struct {
	Kind, Title, Local, Zone, Occurrence, Place string
	From, Minutes, Method, Turn, Players        string
	Squad, Venue, Captain, Fixture, Alone       uint64
	Squads, Venues                              []shell.IDChoice
	Away                                        string // what a match away is called, and what is different there
	Routines                                    []shell.Choice
	Methods                                     []shell.MethodChoice
	First                                       string // what decides who is in action first; "": nothing
	Turns                                       plan.Turns
	Roles                                       []roleField
	People                                      []present
	There                                       int
	Day                                         shell.Day
	Problems                                    plan.Problems

	squad *keep.Squad
	zones map[uint64]string // by venue: its time zone
	in    measure.System    // what the club says air and wind in
}

// roleField is a role of the day, and who has it: a field for each who may.
type roleField struct {
	Index  int
	Name   string
	Picked []uint64 // 0: nobody yet
	People []shell.IDChoice
}

// Field is the name of the field for the nth who has the role.
func (f roleField) Field(n int) string { return fmt.Sprintf("role-%d-%d", f.Index, n) }

// Label is what the field for the nth who has the role is called.
func (f roleField) Label(n int) string {
	if len(f.Picked) == 1 {
		return f.Name
	}
	return fmt.Sprintf("%s %d", f.Name, n+1)
}

// present is a player, and whether they come.
type present struct {
	ID                     uint64
	Number                 string
	Name, Position, Ruling string
	State                  string // in, bench, late, out
	Late                   string // when they arrive, on the clock
}

// way is a way to make a run-in.
type way struct{ Value, Label, Why, Now string }

// Ways are the ways to make a run-in, one of them picked.
func (f *form) Ways() []way {
	list := []way{
		{Value: diary.FromComposed, Label: "Build one for today",
			Why: "Drills that prepare what your sport needs, in the minutes you have, with every position's routine",
			Now: f.From},
		{Value: diary.FromLast, Label: "Same as last time",
			Why: "The blocks of the last one, with today's people, place and rulings",
			Now: f.From},
		{Value: diary.FromEmpty, Label: "Write it yourself",
			Why: "Line by line as you say it, or paste a list you have", Now: f.From},
	}
	for _, r := range f.Routines {
		list = append(list, way{Value: r.Value, Label: r.Label, Why: "A routine you keep", Now: f.From})
	}
	return list
}

// elsewhere is the time zone where the club has no ground yet.
const elsewhere = "Europe/London"

// mostPlayers is how many a squad without names may be planned for.
const mostPlayers = plan.MaxPlayers

// Rulings are the players whom medical staff have ruled something for.
func (f *form) Rulings() []present {
	return slices.DeleteFunc(slices.Clone(f.People), func(p present) bool { return p.Ruling == "" })
}

// New is the form of a session to come.
func (in Room) New(r *shell.Request) (shell.Answer, error) {
	f := &form{Kind: cmp.Or(r.Query("kind"), string(plan.Match)), From: cmp.Or(r.Query("from"), diary.FromComposed),
		Method:  cmp.Or(r.Query("method"), plan.DefaultMethod),
		Players: cmp.Or(r.Query("players"), "20"), Squad: r.QueryID("squad"), Title: r.Query("title"),
		Minutes: r.Query("minutes"), Local: r.Query("start"), Place: r.Query("place")}
	if err := f.fill(in, r); err != nil {
		return nil, err
	}
	if r.Query("venue") != "" {
		f.Venue = r.QueryID("venue")
	}
	if id := r.QueryID("fixture"); id != 0 {
		found, err := in.Keep.Fixture(r.Context(), r.Club(), id)
		if err != nil {
			return nil, err
		}
		f.take(found)
	}
	for _, k := range f.squad.Players {
		f.People = append(f.People, f.present(k))
	}
	f.There = len(f.People)
	f.forecast(in, r)
	if r.Query("typed") != "" { // the day was set by hand already
		_, f.Day = shell.NewForm(r.Asked()).Day()
		f.Day.Said = "As you set it"
	}
	return f.page(), nil
}

func (f *form) page() *shell.Page {
	return &shell.Page{Screens: screens, Name: "new", Title: "New session", Nav: "today", Body: f}
}

// take fills the form in from a fixture.
func (f *form) take(fixture *planner.Entry[club.Fixture]) {
	is := fixture.Is
	f.Fixture, f.Kind, f.Title, f.Place = fixture.ID, string(is.For), is.Title, is.Place
	f.Local, f.Zone, f.Occurrence = is.Start.Local, is.Start.Zone, string(is.Start.Occurrence)
	f.Venue = 0
	for _, v := range f.Venues {
		if v.Label == is.Place {
			f.Venue = v.ID
		}
	}
}

// present is a player who is there until somebody says otherwise.
func (f *form) present(k planner.Entry[club.Player]) present {
	p := present{ID: k.ID, Name: k.Is.Label(), Position: k.Is.Position, State: "in"}
	if k.Is.Number > 0 {
		p.Number = fmt.Sprint(k.Is.Number)
	}
	if len(f.Local) >= len(time.DateOnly) {
		var rules []string
		holds, _ := f.squad.In(k.ID, f.Local[:len(time.DateOnly)])
		for _, ruling := range holds {
			rules = append(rules, ruling.Is.Words())
		}
		p.Ruling = strings.Join(rules, ", ")
	}
	return p
}

// fill fills in what there is to choose from, and what is usual.
func (f *form) fill(in Room, r *shell.Request) (err error) {
	ctx := r.Context()
	if f.squad, err = in.Keep.Squad(ctx, r.Club(), f.Squad); err != nil {
		return err
	}
	f.Squad = f.squad.ID
	teams, err := in.Keep.Teams(ctx, r.Club())
	if err != nil {
		return err
	}
	for _, t := range teams {
		f.Squads = append(f.Squads, shell.IDChoice{ID: t.ID, Label: t.Name})
	}
	if err := f.ground(in, r); err != nil {
		return err
	}
	routines, err := in.Books.Routines(ctx, r.Club())
	if err != nil {
		return err
	}
	for _, k := range routines {
		f.Routines = append(f.Routines,
			shell.Choice{Value: fmt.Sprint(k.ID), Label: shell.Joined(", ", k.Is.Name, k.Is.For)})
	}
	f.Methods = shell.Methods()
	plays, err := in.Books.Sport(ctx, r.Club())
	if err != nil {
		return err
	}
	f.in = plays.System
	if len(plays.Due) > 0 || plays.Begins != (plan.Turns{}) {
		f.First, f.Turns = cmp.Or(plays.First, "It decides who is due first, and which blocks are run"), plays.Begins
	}
	f.Away = plays.Says(sport.AtTheirs)
	f.roles(plays)
	if f.Local == "" {
		f.Local = nextSaturday(r.Now(), f.Zone)
	}
	return nil
}

// roles fills in the roles of the day, each with who is likeliest: the first who plays so.
func (f *form) roles(plays *sport.Sport) {
	for i, role := range plays.Roles {
		field := roleField{Index: i, Name: role.Name}
		for _, k := range f.squad.Players {
			if len(role.Positions) == 0 || plan.PlaysOneOf(k.Is.Position, role.Positions) {
				field.People = append(field.People, shell.IDChoice{ID: k.ID, Label: k.Is.Label()})
			}
		}
		slices.SortStableFunc(field.People, func(x, y shell.IDChoice) int {
			at := func(id uint64) int {
				plays := f.squad.Player(id).Is.Position
				return slices.IndexFunc(role.Positions, func(of string) bool { return plan.Plays(plays, of) })
			}
			return at(x.ID) - at(y.ID)
		})
		for n := range max(1, role.Of) {
			var likely uint64
			if n < len(field.People) && len(role.Positions) > 0 {
				likely = field.People[n].ID
			}
			field.Picked = append(field.Picked, likely)
		}
		if len(field.People) > 0 {
			f.Roles = append(f.Roles, field)
		}
	}
}

// ground fills in the club's venues; the first is the usual one.
func (f *form) ground(in Room, r *shell.Request) error {
	ground, err := in.Keep.Ground(r.Context(), r.Club())
	if err != nil {
		return err
	}
	f.zones = map[uint64]string{}
	for i, v := range ground.Venues {
		f.Venues = append(f.Venues, shell.IDChoice{ID: v.ID, Label: v.Is.Name})
		f.zones[v.ID] = v.Is.TimeZone
		if i == 0 && f.Zone == "" {
			f.Venue, f.Zone = v.ID, v.Is.TimeZone
		}
	}
	f.Zone = cmp.Or(f.Zone, elsewhere)
	return nil
}

// nextSaturday is three o'clock on the Saturday to come, as a form writes it; ""
// where the zone is not known.
func nextSaturday(now time.Time, zone string) string {
	location, err := time.LoadLocation(zone)
	if err != nil {
		return ""
	}
	now = now.In(location)
	day := now.AddDate(0, 0, (int(time.Saturday)-int(now.Weekday())+7)%7)
	if day.Equal(now) && now.Hour() >= 15 {
		day = day.AddDate(0, 0, 7)
	}
	return day.Format(time.DateOnly) + "T15:00"
}

// start is when the session starts, as the form has it.
func (f *form) start() clock.Start {
	return clock.Start{Local: f.Local, Zone: f.Zone, Occurrence: clock.Occurrence(f.Occurrence)}
}

// forecast fills the day in from the weather service, if it answers.
func (f *form) forecast(in Room, r *shell.Request) {
	place := f.Place
	for _, v := range f.Venues {
		if v.ID == f.Venue {
			place = v.Label
		}
	}
	day, ok := plan.Conditions{}, false
	start, err := f.start().Resolve()
	if err == nil {
		day, ok = in.Diary.Forecast(r.Context(), place, start)
	}
	day.Layers = ok && (day.Air() == plan.Cold || day.Air() == plan.Cool)
	f.Day = shell.DayOf(day, f.in)
	f.Day.Said = "No forecast just now: set the day by hand, or leave it open"
	if ok {
		f.Day.Said = fmt.Sprintf("Forecast for %s, %s", place, start.Format("15:04"))
	}
}

// Forecast is the day's part of the form for another start or place, for its
// script.
func (in Room) Forecast(r *shell.Request) (shell.Answer, error) {
	f := &form{Local: r.Query("start"), Place: r.Query("place"), Zone: r.Query("zone")}
	if err := f.ground(in, r); err != nil {
		return nil, err
	}
	if f.Venue = r.QueryID("venue"); f.Venue != 0 {
		f.Zone = cmp.Or(f.zones[f.Venue], f.Zone)
	}
	f.forecast(in, r)
	p := f.page()
	p.Part = "day"
	return p, nil
}

// Add makes a session with its run-in.
func (in Room) Add(r *shell.Request) (shell.Answer, error) {
	sent := r.Form
	f := sentForm(sent)
	venue := sent.ID("venue")
	if venue != 0 {
		f.Zone = "" // it is the venue's
	}
	if err := f.fill(in, r); err != nil {
		return nil, err
	}
	if f.Venue = venue; venue != 0 {
		f.Zone = f.zones[venue]
	}
	n := diary.NewSession{Kind: plan.Kind(f.Kind), Title: f.Title, Start: f.start(), Squad: f.Squad, Venue: venue,
		Place: f.Place, From: f.From, Method: f.Method,
		Turn: plan.Turn(f.Turn), Captain: f.Captain, Minutes: sent.IntOr("minutes", 0, 5, 180), Late: map[uint64]int{}}
	if n.Title == "" {
		n.Title = map[plan.Kind]string{plan.Match: "Match", plan.Training: "Training"}[n.Kind]
	}
	if len(f.squad.Players) == 0 {
		n.Players = sent.IntOr("players", 0, 1, mostPlayers)
	}
	n.Roles = f.readRoles(sent)
	n.Today, f.Day = sent.Day()
	f.people(sent, &n)
	if n.Alone = f.Alone; n.Alone != 0 &&
		!slices.ContainsFunc(f.squad.Players, func(k planner.Entry[club.Player]) bool { return k.ID == n.Alone }) {
		sent.Refuse("alone", "this player is not in the squad")
	}
	added, err := (*diary.Added)(nil), sent.Err()
	if err == nil {
		added, err = in.Diary.Add(r.Context(), r.By, n)
	}
	if err != nil {
		return r.Changed(err, nil, func(wrong plan.Problems) (*shell.Page, error) {
			f.Problems = wrong
			return f.page(), nil
		})
	}
	if f.Fixture != 0 {
		err = in.Keep.Planned(r.Context(), r.By, f.Fixture)
	}
	if f.From == diary.FromEmpty {
		return shell.Go(shell.Session(added.ID, "words")), err
	}
	return shell.Go(shell.Session(added.ID)), err
}

// sentForm is the form as it was sent.
func sentForm(sent *shell.Form) *form {
	return &form{Kind: sent.Raw("kind"), Title: sent.Text("title"), Local: sent.Raw("start"), Zone: sent.Text("zone"),
		Occurrence: sent.Raw("occurrence"), Place: sent.Text("place"),
		From: sent.Raw("from"), Minutes: sent.Raw("minutes"), Method: sent.Raw("method"), Turn: sent.Raw("turn"),
		Players: sent.Raw("players"),
		Squad:   sent.ID("squad"), Captain: sent.ID("captain"), Fixture: sent.ID("fixture"), Alone: sent.ID("alone")}
}

// readRoles reads who has which role of the day.
func (f *form) readRoles(in *shell.Form) map[string][]uint64 {
	roles := map[string][]uint64{}
	for i := range f.Roles {
		role := &f.Roles[i]
		for n := range role.Picked {
			role.Picked[n] = in.ID(role.Field(n))
			if id := role.Picked[n]; id != 0 && !slices.Contains(roles[role.Name], id) {
				roles[role.Name] = append(roles[role.Name], id)
			}
		}
	}
	return roles
}

// lateness reads when a player arrives, on the clock, as minutes after the opening.
func (f *form) lateness(in *shell.Form, field string, n *diary.NewSession) int {
	start, err := f.start().Resolve()
	if err != nil {
		return 0 // it is said beside the start
	}
	at, err := clock.AtClock(in.Raw(field)).Offset(start)
	if err != nil {
		in.Refuse("people", "say when the late player arrives, such as %s", start.Add(-20*time.Minute).Format("15:04"))
		return 0
	}
	return min(max(1, diary.Minutes(n.Kind, n.Minutes)+int(at)/60), plan.MaxLate/60)
}

// Repeated tells whether the clocks go back over the start, so that it comes twice.
func (f *form) Repeated() bool {
	_, err := clock.Start{Local: f.Local, Zone: f.Zone}.Resolve()
	return errors.Is(err, clock.ErrRepeated)
}

// people reads who is there.
func (f *form) people(in *shell.Form, n *diary.NewSession) {
	for _, k := range f.squad.Players {
		late := fmt.Sprintf("late-%d", k.ID)
		p := f.present(k)
		p.State, p.Late = cmp.Or(in.Raw(fmt.Sprintf("is-%d", k.ID)), "in"), in.Raw(late)
		switch p.State {
		case "out":
			n.Out = append(n.Out, k.ID)
		case "bench":
			n.Bench = append(n.Bench, k.ID)
		case "late":
			n.Late[k.ID] = f.lateness(in, late, n)
		}
		f.People = append(f.People, p)
	}
	f.There = len(f.People) - len(n.Out)
}
