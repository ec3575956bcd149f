package planner

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/compose"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/store"
)

// Weather forecasts the hours of a day at a place: °C, rain in mm an hour, wind
// in m/s. It may be slow, wrong or away; no plan waits for it.
type Weather interface {
	Hours(ctx context.Context, place string, day time.Time) (celsius, rain, wind [24]float64, err error)
}

// patience is how long a page waits for the forecast.
const patience = 250 * time.Millisecond

// Forecast is what the weather service says of the hour of a start; ok is false
// where it did not answer in time, or not sensibly.
func (p *Planner) Forecast(ctx context.Context, place string, start time.Time) (day plan.Conditions, ok bool) {
	if p.Weather == nil || place == "" {
		return day, false
	}
	type answer struct {
		celsius, rain, wind [24]float64
		err                 error
	}
	ctx, cancel := context.WithTimeout(ctx, patience)
	defer cancel()
	got := make(chan answer, 1)
	go func() {
		var a answer
		a.celsius, a.rain, a.wind, a.err = p.Weather.Hours(ctx, place, start)
		got <- a
	}()
	select {
	case <-ctx.Done():
		return day, false
	case a := <-got:
		hour := start.Hour()
		air, wind := a.celsius[hour], a.wind[hour]
		if a.err != nil || !(air >= -40 && air <= 55) || !(wind >= 0 && wind <= 60) || !(a.rain[hour] >= 0 && a.rain[hour] <= 200) {
			return day, false
		}
		rained := a.rain[hour] >= 0.2 || hour > 0 && a.rain[hour-1] >= 0.2
		return plan.Conditions{Celsius: &air, Wind: wind, Wet: rained}, true
	}
}

// How a new session's run-in is made.
const (
	FromNothing = "composed" // chosen and put together for the day
	FromLast    = "last"     // as the last session of its kind
)

// NewSession is what a coach states of a session to come.
type NewSession struct {
	Kind    plan.Kind
	Title   string
	Start   clock.Start
	Squad   uint64 // 0: the club's first
	Venue   uint64 // 0: away, at a usual ground of the sport
	Place   string // where there is no venue of the club
	From    string // FromNothing, FromLast, or the id of a routine
	Minutes int
	Method  string
	Turn    compose.Turn
	Captain uint64
	Out     []uint64       // players who are not there
	Bench   []uint64       // players who do not begin
	Late    map[uint64]int // minutes after the opening
	Today   plan.Conditions
	Players int // how many, where the squad has nobody yet
}

// Added is a session that was made.
type Added struct {
	ID   uint64
	Says []string // what its run-in does without, and why
}

// Add makes a session with its run-in. It fails with plan.Problems.
func (p *Planner) Add(ctx context.Context, by store.Account, n NewSession) (*Added, error) {
	if err := p.validate(n); err != nil {
		return nil, err
	}
	brief, squad, err := p.brief(ctx, by.ClubID, n)
	if err != nil {
		return nil, err
	}
	document, fitted, says, err := p.make(ctx, by.ClubID, n, squad, brief)
	if err != nil {
		return nil, err
	}
	if fitted == nil {
		if fitted, err = schedule.Fit(ctx, document, 4*atOnce); err != nil { // as much as composing takes
			return nil, err
		}
	}
	id, err := p.Store.AddSession(ctx, squad.ID, store.Fitted{Document: document, Schedule: fitted, Summary: "made", By: by.ID})
	return &Added{id, says}, err
}

func (p *Planner) validate(n NewSession) error {
	if n.Kind != plan.Match && n.Kind != plan.Training {
		return plan.Problems{{Where: "kind", What: "say whether it is a match or training"}}
	}
	if problem := plan.NameProblem(n.Title); problem != "" {
		return plan.Problems{{Where: "title", What: problem}}
	}
	if _, err := n.Start.Resolve(); err != nil {
		return plan.Problems{{Where: "start", What: err.Error()}}
	}
	return p.yetToCome(n.Start)
}

// make makes the plan by the way that was chosen. A schedule is returned where
// making it has fitted it already.
func (p *Planner) make(ctx context.Context, clubID uint64, n NewSession, squad *Squad, brief compose.Brief) (*plan.Document, *schedule.Schedule, []string, error) {
	switch n.From {
	case FromNothing, "":
		made, err := compose.Compose(ctx, brief)
		if err != nil {
			return nil, nil, nil, err
		}
		return made.Document, made.Schedule, made.Says, nil
	case FromLast:
		last, err := p.Store.Latest(ctx, clubID, squad.ID, n.Kind)
		if errors.Is(err, store.ErrNotFound) {
			return nil, nil, nil, plan.Problems{{Where: "from", What: "there is none of its kind yet: compose it, or take a routine"}}
		} else if err != nil {
			return nil, nil, nil, err
		}
		again(last, brief)
		return last, nil, nil, nil
	}
	routines, err := store.Things[club.Routine](ctx, p.Store, clubID)
	if err != nil {
		return nil, nil, nil, err
	}
	i := slices.IndexFunc(routines, func(r store.Kept[club.Routine]) bool { return fmt.Sprint(r.ID) == n.From })
	if i < 0 {
		return nil, nil, nil, plan.Problems{{Where: "from", What: "this routine is no longer there"}}
	}
	document, says, err := compose.Day(brief)
	if err != nil {
		return nil, nil, nil, err
	}
	b, err := p.Book(ctx, clubID)
	if err != nil {
		return nil, nil, nil, err
	}
	says = append(says, routines[i].Is.Use(document, b.Find, brief.Recent)...)
	if len(document.Blocks) == 0 {
		return nil, nil, nil, plan.Problems{{Where: "from", What: "nobody of this routine's units is here today"}}
	}
	return document, nil, says, nil
}

// again makes a plan of the last one: its day gives way to today's, who is out
// goes, and rulings in force come in. Players are known by their names.
func again(d *plan.Document, today compose.Brief) {
	d.Title, d.Kind, d.Start, d.Today, d.Exceptions = today.Title, today.Kind, today.Start, today.Today, nil
	if today.Place != "" {
		d.Place = today.Place
	}
	ids := map[string]string{} // of today, to those of the plan
	here := map[string]plan.Player{}
	for _, p := range today.Players {
		here[p.First+" "+p.Last] = p
	}
	if len(here) > 0 {
		kept := d.Players[:0]
		for _, p := range d.Players {
			if now, ok := here[p.First+" "+p.Last]; ok {
				p.Late, p.Loose, ids[now.ID] = now.Late, now.Loose, p.ID
				kept = append(kept, p)
			}
		}
		if len(kept) > 0 {
			d.Players = kept
		}
	}
	for i := range d.Units {
		d.Units[i].Players = d.Members(d.Units[i].Players)
	}
	d.Units = slices.DeleteFunc(d.Units, func(u plan.Unit) bool { return len(u.Players) == 0 })
	for _, b := range slices.Clone(d.Blocks) {
		if len(d.Members(b.Who)) == 0 {
			d.Remove(b.ID)
		}
	}
	d.Restrictions = nil
	for _, r := range today.Restrictions {
		if id, ok := ids[r.Player]; ok {
			r.Player = id
			d.Restrictions = append(d.Restrictions, r)
		}
	}
}

// brief gathers what the club has for a session.
func (p *Planner) brief(ctx context.Context, clubID uint64, n NewSession) (b compose.Brief, squad *Squad, err error) {
	if squad, err = p.Squad(ctx, clubID, n.Squad); err != nil {
		return b, nil, err
	}
	ground, err := p.Ground(ctx, clubID)
	if err != nil {
		return b, nil, err
	}
	drills, err := p.Book(ctx, clubID)
	if err != nil {
		return b, nil, err
	}
	plays, err := p.Sport(ctx, clubID)
	if err != nil {
		return b, nil, err
	}
	b = compose.Brief{Title: n.Title, Kind: n.Kind, Start: n.Start, Minutes: n.Minutes, Method: n.Method, Place: n.Place, Grade: drill.Grade(squad.Grade),
		Sport: plays, Turn: n.Turn, Today: n.Today, Book: drills.Drills, Steps: atOnce}
	if b.Minutes == 0 {
		b.Minutes = map[plan.Kind]int{plan.Match: 50, plan.Training: 30}[n.Kind]
	}
	p.people(&b, squad, n)
	p.place(&b, ground, n)
	recent, err := p.Store.Recent(ctx, clubID, squad.ID)
	for _, d := range recent {
		for _, block := range d.Blocks {
			for _, item := range block.Items {
				if !slices.Contains(b.Recent, item.Drill.Code) {
					b.Recent = append(b.Recent, item.Drill.Code)
				}
			}
		}
	}
	return b, squad, err
}

func playerID(id uint64) string { return fmt.Sprintf("p%d", id) }

func (p *Planner) people(b *compose.Brief, squad *Squad, n NewSession) {
	day, _, _ := cutDay(n.Start.Local)
	for _, k := range squad.Players {
		if slices.Contains(n.Out, k.ID) {
			continue
		}
		id := playerID(k.ID)
		b.Players = append(b.Players, plan.Player{ID: id, Number: k.Is.Number, First: k.Is.First, Last: k.Is.Last, Position: k.Is.Position,
			Late: n.Late[k.ID] * 60, Loose: k.Is.Build == club.Hypermobile})
		if k.Is.Build == club.Stiff {
			b.Stiff = append(b.Stiff, id)
		}
		if slices.Contains(n.Bench, k.ID) {
			b.Bench = append(b.Bench, id)
		}
		holds, _ := squad.In(k.ID, day)
		for _, r := range holds {
			b.Restrictions = append(b.Restrictions, r.Is.For(id))
		}
	}
	if len(squad.Players) == 0 { // a squad without names: so many, in the sport's positions
		for i := range min(n.Players, plan.MaxPlayers) {
			b.Players = append(b.Players, plan.Player{ID: playerID(uint64(i + 1)), Number: i + 1, First: fmt.Sprintf("No. %d", i+1), Position: b.Sport.Positions[i%len(b.Sport.Positions)]})
		}
	}
	if n.Captain != 0 {
		b.Captain = playerID(n.Captain)
	}
	for _, u := range squad.Units {
		unit := plan.Unit{ID: fmt.Sprintf("u%d", u.ID), Name: u.Is.Name}
		for _, id := range u.Is.Players {
			unit.Players = append(unit.Players, playerID(id))
		}
		b.Units = append(b.Units, unit)
	}
}

func (p *Planner) place(b *compose.Brief, ground *Ground, n NewSession) {
	for _, v := range ground.Venues {
		if v.ID != n.Venue {
			continue
		}
		b.Place = v.Is.Name
		for _, z := range v.Zones {
			b.Zones = append(b.Zones, z.Is.Plan(fmt.Sprintf("z%d", z.ID)))
		}
	}
	if len(b.Zones) == 0 { // a ground that the club does not know
		for i, z := range b.Sport.Zones {
			b.Zones = append(b.Zones, plan.Zone{ID: fmt.Sprintf("z%d", i+1), Name: z.Name, Capacity: max(z.Capacity, 12), Lanes: z.Lanes, Metres: z.Metres, Surface: z.Surface})
		}
	}
	for _, s := range ground.Staff {
		b.Leaders = append(b.Leaders, s.Is.Plan(fmt.Sprintf("l%d", s.ID)))
	}
	if len(ground.Kit) > 0 {
		b.Kit = map[string]int{}
		for _, k := range ground.Kit {
			b.Kit[k.Is.Name] = k.Is.Pieces
		}
	}
}

// cutDay is the day of a local time, 2026-11-28T15:00.
func cutDay(local string) (day, hour string, ok bool) {
	if len(local) < len("2026-11-28T15:00") {
		return local, "", false
	}
	return local[:10], local[11:], true
}

// UsualDay is a day of the club's first squad at its first ground, without
// blocks: what the cost of a routine is worked out for.
func (p *Planner) UsualDay(ctx context.Context, clubID uint64) (*plan.Document, error) {
	ground, err := p.Ground(ctx, clubID)
	if err != nil {
		return nil, err
	}
	n := NewSession{Kind: plan.Match, Title: "A usual day", Start: clock.StartAt(p.Now()), Players: 20}
	if len(ground.Venues) > 0 {
		n.Venue = ground.Venues[0].ID
	}
	brief, _, err := p.brief(ctx, clubID, n)
	if err != nil {
		return nil, err
	}
	for _, player := range brief.Players { // who does not begin is not known: the first fifteen do
		if len(brief.Players) > 15 && player.Number > 15 {
			brief.Bench = append(brief.Bench, player.ID)
		}
	}
	day, _, err := compose.Day(brief)
	return day, err
}
