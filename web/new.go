package web

import (
	"cmp"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

// newBody is the form of a session to come.
type newBody struct {
	Kind, Title, Local, Zone, Occurrence, Place string
	From, Minutes, Method, Turn, Players        string
	Squad, Venue, Captain, Fixture              uint64
	Squads, Venues                              []idChoice
	Routines                                    []choice
	Methods                                     []methodChoice
	First                                       string // what decides who is in action first; "": nothing
	People                                      []present
	There                                       int
	Day                                         dayForm
	Problems                                    plan.Problems
}

// Rulings are the players whom medical staff have ruled something for.
func (b *newBody) Rulings() (list []present) {
	for _, p := range b.People {
		if p.Ruling != "" {
			list = append(list, p)
		}
	}
	return list
}

type idChoice struct {
	ID    uint64
	Label string
}

// wayChoice is a way to make a run-in.
type wayChoice struct{ Value, Label, Why, Now string }

type methodChoice struct{ Key, Name, Why string }

// methodChoices are the schools in the order that they are offered.
func methodChoices() (list []methodChoice) {
	for _, key := range []string{plan.DefaultMethod, "five-stages", "brief-static", "ground-up", "countdown"} {
		m := plan.Methods[key]
		list = append(list, methodChoice{key, m.Name, m.Why})
	}
	return list
}

// present is a player, and whether they come.
type present struct {
	ID                     uint64
	Number                 string
	Name, Position, Ruling string
	State                  string // in, bench, late, out
	Late                   string
}

// dayForm is the day's conditions.
type dayForm struct {
	Air, Wind string
	Said      string // what the forecast says, or that it does not
	Ticks     []tickBox
}

var dayTicks = []struct {
	name, label string
	of          func(*plan.Conditions) *bool
}{
	{"wet", "wet ground", func(t *plan.Conditions) *bool { return &t.Wet }},
	{"uneven", "uneven ground", func(t *plan.Conditions) *bool { return &t.Uneven }},
	{"layers", "warm layers while waiting", func(t *plan.Conditions) *bool { return &t.Layers }},
	{"hard_yesterday", "the day after a hard day", func(t *plan.Conditions) *bool { return &t.HardYesterday }},
	{"tired_block", "a tired block of the season", func(t *plan.Conditions) *bool { return &t.TiredBlock }},
	{"after_loss", "after a defeat", func(t *plan.Conditions) *bool { return &t.AfterLoss }},
	{"light", "a light session follows", func(t *plan.Conditions) *bool { return &t.Light }},
}

func dayFormOf(t plan.Conditions) (f dayForm) {
	if t.Celsius != nil {
		f.Air = fmt.Sprintf("%.3g", *t.Celsius)
	}
	if t.Wind > 0 {
		f.Wind = fmt.Sprintf("%.3g", t.Wind)
	}
	for _, d := range dayTicks {
		f.Ticks = append(f.Ticks, tickBox{d.name, d.label, *d.of(&t)})
	}
	return f
}

// readDay reads the day's conditions of a form.
func readDay(c *gin.Context) (t plan.Conditions, f dayForm, wrong plan.Problems) {
	for _, d := range dayTicks {
		*d.of(&t) = slices.Contains(c.PostFormArray("day"), d.name)
	}
	f = dayFormOf(t)
	f.Air, f.Wind = strings.TrimSpace(c.PostForm("air")), strings.TrimSpace(c.PostForm("wind"))
	if f.Air != "" {
		air, err := strconv.ParseFloat(strings.Replace(f.Air, ",", ".", 1), 64)
		if err != nil || !(air >= -40 && air <= 55) {
			wrong = append(wrong, plan.Problem{Where: "air", What: "the air lies between -40 and 55 °C"})
		} else {
			t.Celsius = &air
		}
	}
	if f.Wind != "" {
		var err error
		if t.Wind, err = strconv.ParseFloat(strings.Replace(f.Wind, ",", ".", 1), 64); err != nil || !(t.Wind >= 0 && t.Wind <= 60) {
			t.Wind = 0
			wrong = append(wrong, plan.Problem{Where: "wind", What: "the wind lies between 0 and 60 m/s"})
		}
	}
	return t, f, wrong
}

func (s *Site) newSession(c *gin.Context) {
	body := &newBody{Kind: string(plan.Match), From: planner.FromNothing, Method: plan.DefaultMethod, Players: "20", Squad: numberID(c.Query("squad"))}
	squad, err := s.fillNew(c, body)
	if err != nil {
		s.failed(c, err)
		return
	}
	if from := c.Query("from"); from != "" {
		body.From = from
	}
	if f := numberID(c.Query("fixture")); f != 0 {
		if err := s.fromFixture(c, f, body); err != nil {
			s.failed(c, err)
			return
		}
	}
	for _, k := range squad.Players {
		body.People = append(body.People, s.present(squad, k, body.Local))
	}
	body.There = len(body.People)
	s.forecast(c, body)
	s.show(c, http.StatusOK, "today/new", "New session", "today", body)
}

// present is a player who is there until somebody says otherwise.
func (s *Site) present(squad *planner.Squad, k store.Kept[club.Player], local string) present {
	p := present{ID: k.ID, Name: k.Is.Label(), Position: k.Is.Position, State: "in"}
	if k.Is.Number > 0 {
		p.Number = fmt.Sprint(k.Is.Number)
	}
	var rules []string
	if len(local) >= len(time.DateOnly) {
		holds, _ := squad.In(k.ID, local[:len(time.DateOnly)])
		for _, r := range holds {
			rules = append(rules, r.Is.Words())
		}
	}
	p.Ruling = strings.Join(rules, ", ")
	return p
}

// fillNew fills in what there is to choose from, and what is usual.
func (s *Site) fillNew(c *gin.Context, body *newBody) (*planner.Squad, error) {
	ctx, clubID := c.Request.Context(), account(c).ClubID
	squad, err := s.Planner.Squad(ctx, clubID, body.Squad)
	if err != nil {
		return nil, err
	}
	body.Squad = squad.ID
	squads, err := s.Planner.Store.Squads(ctx, clubID)
	if err != nil {
		return nil, err
	}
	for _, q := range squads {
		body.Squads = append(body.Squads, idChoice{q.ID, q.Name})
	}
	ground, err := s.Planner.Ground(ctx, clubID)
	if err != nil {
		return nil, err
	}
	for i, v := range ground.Venues {
		body.Venues = append(body.Venues, idChoice{v.ID, v.Is.Name})
		if i == 0 && body.Zone == "" {
			body.Venue, body.Zone = v.ID, v.Is.TimeZone
		}
	}
	routines, err := store.Things[club.Routine](ctx, s.Planner.Store, clubID)
	if err != nil {
		return nil, err
	}
	for _, r := range routines {
		body.Routines = append(body.Routines, choice{fmt.Sprint(r.ID), strings.Join(nonEmpty(r.Is.Name, r.Is.For), ", ")})
	}
	body.Methods = methodChoices()
	plays, err := s.Planner.Sport(ctx, clubID)
	if err != nil {
		return nil, err
	}
	if len(plays.Due) > 0 {
		body.First = cmp.Or(plays.First, "who begins decides who is due first")
	}
	if body.Zone == "" {
		body.Zone = "Europe/London"
	}
	if zone, err := time.LoadLocation(body.Zone); err == nil && body.Local == "" {
		now := s.Planner.Now().In(zone)
		day := now.AddDate(0, 0, (int(time.Saturday)-int(now.Weekday())+7)%7)
		if day.Equal(now) && now.Hour() >= 15 {
			day = day.AddDate(0, 0, 7)
		}
		body.Local = day.Format(time.DateOnly) + "T15:00"
	}
	return squad, nil
}

// forecast fills the day in from the weather service, if it answers.
func (s *Site) forecast(c *gin.Context, body *newBody) {
	place := body.Place
	for _, v := range body.Venues {
		if v.ID == body.Venue {
			place = v.Label
		}
	}
	start, err := clock.Start{Local: body.Local, Zone: body.Zone, Occurrence: clock.Occurrence(body.Occurrence)}.Resolve()
	day, ok := plan.Conditions{}, false
	if err == nil {
		day, ok = s.Planner.Forecast(c.Request.Context(), place, start)
	}
	body.Day = dayFormOf(day)
	body.Day.Said = "No forecast just now: set the day by hand, or leave it open"
	if ok {
		body.Day.Said = fmt.Sprintf("Forecast for %s, %s", place, start.Format("15:04"))
		if *day.Celsius <= 12 {
			body.Day.Ticks[2].On = true
		}
	}
}

// newDay is the forecast for another start or place, for the form's script.
func (s *Site) newDay(c *gin.Context) {
	body := &newBody{Local: c.Query("start"), Place: c.Query("place"), Venue: numberID(c.Query("venue")), Zone: c.Query("zone")}
	ground := s.groundOf(c)
	if ground == nil {
		return
	}
	for _, v := range ground.Venues {
		body.Venues = append(body.Venues, idChoice{v.ID, v.Is.Name})
		if v.ID == body.Venue {
			body.Zone = v.Is.TimeZone
		}
	}
	s.forecast(c, body)
	s.part(c, http.StatusOK, "today/new", "day", body)
}

func (s *Site) addSession(c *gin.Context) {
	body := &newBody{Kind: c.PostForm("kind"), Title: strings.TrimSpace(c.PostForm("title")), Local: c.PostForm("start"), Zone: strings.TrimSpace(c.PostForm("zone")),
		Occurrence: c.PostForm("occurrence"), Place: strings.TrimSpace(c.PostForm("place")), From: c.PostForm("from"), Minutes: c.PostForm("minutes"), Method: c.PostForm("method"),
		Turn: c.PostForm("turn"), Players: c.PostForm("players"), Squad: numberID(c.PostForm("squad")), Venue: numberID(c.PostForm("venue")), Captain: numberID(c.PostForm("captain")), Fixture: numberID(c.PostForm("fixture"))}
	if body.Venue != 0 {
		body.Zone = "" // it is the venue's
	}
	squad, err := s.fillNew(c, body)
	if err != nil {
		s.failed(c, err)
		return
	}
	venue := numberID(c.PostForm("venue"))
	body.Venue = venue
	if venue != 0 {
		ground, err := s.Planner.Ground(c.Request.Context(), account(c).ClubID)
		if err != nil {
			s.failed(c, err)
			return
		}
		for _, v := range ground.Venues {
			if v.ID == venue {
				body.Zone = v.Is.TimeZone
			}
		}
	}
	today, day, wrong := readDay(c)
	body.Day = day
	n := planner.NewSession{Kind: plan.Kind(body.Kind), Title: body.Title, Start: clock.Start{Local: body.Local, Zone: body.Zone, Occurrence: clock.Occurrence(body.Occurrence)},
		Squad: squad.ID, Venue: venue, Place: body.Place, From: body.From, Minutes: number(body.Minutes), Method: body.Method, Turn: compose.Turn(body.Turn), Captain: body.Captain,
		Today: today, Players: number(body.Players), Late: map[uint64]int{}}
	if n.Title == "" && n.Kind == plan.Training {
		n.Title = "Training"
	}
	if body.Minutes != "" && n.Minutes == 0 {
		wrong = append(wrong, plan.Problem{Where: "minutes", What: "a run-in takes between 5 and 180 minutes"})
	}
	for _, k := range squad.Players {
		p := s.present(squad, k, body.Local)
		p.State, p.Late = cmp.Or(c.PostForm(fmt.Sprintf("is-%d", k.ID)), "in"), c.PostForm(fmt.Sprintf("late-%d", k.ID))
		switch p.State {
		case "out":
			n.Out = append(n.Out, k.ID)
		case "bench":
			n.Bench = append(n.Bench, k.ID)
		case "late":
			n.Late[k.ID] = max(1, min(number(p.Late), 240))
		}
		body.People = append(body.People, p)
	}
	body.There = len(body.People) - len(n.Out)
	added, err := (*planner.Added)(nil), error(nil)
	if len(wrong) == 0 {
		added, err = s.Planner.Add(c.Request.Context(), *account(c), n)
	} else {
		err = wrong
	}
	var refused plan.Problems
	switch {
	case errors.As(err, &refused):
		body.Problems = refused
		s.show(c, http.StatusUnprocessableEntity, "today/new", "New session", "today", body)
	case err != nil:
		s.failed(c, err)
	default:
		if body.Fixture != 0 {
			s.planned(c, body.Fixture)
		}
		if len(added.Says) > 0 {
			s.say(c, strings.Join(added.Says, ". "))
		}
		c.Redirect(http.StatusSeeOther, fmt.Sprintf("/sessions/%d", added.ID))
	}
}

// fromFixture fills the form in from a fixture.
func (s *Site) fromFixture(c *gin.Context, id uint64, body *newBody) error {
	fixtures, err := store.Things[club.Fixture](c.Request.Context(), s.Planner.Store, account(c).ClubID)
	if err != nil {
		return err
	}
	for _, f := range fixtures {
		if f.ID != id {
			continue
		}
		body.Fixture = id
		body.Kind, body.Title, body.Local, body.Zone, body.Occurrence, body.Place = string(f.Is.For), f.Is.Title, f.Is.Start.Local, f.Is.Start.Zone, string(f.Is.Start.Occurrence), f.Is.Place
		body.Venue = 0
		for _, v := range body.Venues {
			if v.Label == f.Is.Place {
				body.Venue = v.ID
			}
		}
		return nil
	}
	return store.ErrNotFound
}

// planned takes a fixture off the list that has its run-in now.
func (s *Site) planned(c *gin.Context, id uint64) {
	_, err := s.Planner.Keep(c.Request.Context(), *account(c), "a fixture got its run-in", store.Change{ID: id, Is: club.Fixture{}, Gone: true})
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		s.Log.Error("a fixture stays on the list", "error", err)
	}
}
