// Package demo fills an empty database with the invented club Brackwater: its
// squads, its ground Tidegate, and the sessions of the days to come.
package demo

import (
	"context"
	"fmt"
	"slices"
	"time"

	"github.com/alexedwards/argon2id"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/store"
)

// The sign-ins of the demo's coach and physiotherapist, with one password.
const (
	Email        = "coach@brackwater.example"
	MedicalEmail = "physio@brackwater.example"
	Password     = "warm before deep"
)

// zone is the time zone of the demo's grounds.
const zone = "Europe/London"

// Fill makes the demo club in an empty database, with sessions after now, its password hashed at that cost. A
// database that has a club is left alone.
func Fill(ctx context.Context, s *store.Store, now time.Time, cost *argon2id.Params) error {
	if empty, err := s.Clubs.Empty(ctx); err != nil || !empty {
		return err
	}
	hash, err := argon2id.CreateHash(Password, cost)
	if err != nil {
		return err
	}
	coach, firstTeam, err := s.Clubs.Found(ctx, "Brackwater", "Rugby union", "Women's first team", "club",
		store.Account{Email: Email, Name: "Ines Varley", Role: store.Coach}, hash)
	if err != nil {
		return err
	}
	juniors, err := s.Clubs.AddSquad(ctx, coach.ClubID, "Under 16", "junior")
	if err != nil {
		return err
	}
	players, err := keep(ctx, s, coach, hash, firstTeam, juniors, now)
	if err != nil {
		return err
	}
	location, err := time.LoadLocation(zone)
	if err != nil {
		return err
	}
	now = now.In(location)
	saturday := next(now, time.Saturday, 15, 0)
	plans := []*plan.Document{HomeMatch(saturday), Training(next(now, time.Tuesday, 18, 50)),
		awayMatch(next(saturday.Add(time.Hour), time.Saturday, 14, 30))}
	fitted := make([]*schedule.Schedule, len(plans))
	for n, d := range plans {
		for i := range d.Players {
			d.Players[i].Roster = players[slices.IndexFunc(first,
				func(p club.Player) bool { return p.Number == d.Players[i].Number })]
		}
		if fitted[n], err = schedule.Fit(ctx, d, schedule.AtOnce); err != nil {
			return fmt.Errorf("the demo's %s: %w", d.Title, err)
		}
		if _, err := s.Sessions.AddSession(ctx, coach.ClubID, firstTeam,
			store.Fitted{Document: d, Schedule: fitted[n], Summary: "made", By: coach.ID}); err != nil {
			return err
		}
	}
	for n, d := range plans[:2] {
		if err := month(ctx, s, coach, firstTeam, d, fitted[n]); err != nil {
			return err
		}
	}
	return learnt(ctx, s, coach.ClubID, firstTeam, players, fitted[0].Start)
}

// guests are whom the club has played at home lately, the latest first.
var guests = []string{"Saltmarsh", "Tarn End", "Quarry Lane", "Emberley"}

// month adds a plan's like of the last four weeks, and keeps it as a routine. The same
// plan in the same minutes is fitted as it is.
func month(ctx context.Context, s *store.Store, coach store.Account, squad uint64, d *plan.Document,
	fitted *schedule.Schedule) error {
	name, kept := "Match day, home", "home matches"
	if d.Kind == plan.Training {
		name, kept = "Main session", "Tuesdays"
	}
	if _, err := s.Clubs.Fill(ctx, coach.ClubID, store.Change{Is: club.NewRoutine(d, name, kept)}); err != nil {
		return err
	}
	for week, guest := range guests {
		past, was := d.Clone(), *fitted
		at := fitted.Start.AddDate(0, 0, -7*(week+1))
		past.Start.Local, past.Restrictions = at.Format("2006-01-02T15:04"), nil
		if was.Start = at; d.Kind == plan.Match {
			past.Title = "Brackwater v " + guest
		}
		id, err := s.Sessions.AddSession(ctx, coach.ClubID, squad,
			store.Fitted{Document: past, Schedule: &was, Summary: "made", By: coach.ID, At: at.AddDate(0, 0, -2)})
		if err != nil {
			return err
		}
		if d.Kind == plan.Training && week == 0 {
			continue // it is still to be logged
		}
		if err := logged(ctx, s, coach, id, squad, past, &was, week); err != nil {
			return err
		}
	}
	return nil
}

// keep fills in what the club keeps between sessions, and returns the ids of the
// first team's players.
func keep(ctx context.Context, s *store.Store, coach store.Account, hash string, firstTeam, juniors uint64,
	now time.Time) (players []uint64, err error) {
	if err := places(ctx, s, coach.ClubID); err != nil {
		return nil, err
	}
	players, err = s.Clubs.Fill(ctx, coach.ClubID, of(firstTeam, first)...)
	if err != nil {
		return nil, err
	}
	if _, err := s.Clubs.Fill(ctx, coach.ClubID, of(juniors, under16)...); err != nil {
		return nil, err
	}
	units := of(firstTeam, []club.Unit{
		{Name: "Throw and catch", Players: []uint64{players[1], players[3], players[4]}},
		{Name: "Place kickers", Players: []uint64{players[9], players[14]}},
	})
	if _, err := s.Clubs.Fill(ctx, coach.ClubID, append(units, trials(players, now)...)...); err != nil {
		return nil, err
	}
	token := ""
	_, err = s.Accounts.Invite(ctx, coach, "Signe Aldous", MedicalEmail, store.Medical, now,
		func(made string) store.Letter {
			token = made
			return store.Letter{To: MedicalEmail, Subject: "Brackwater invites you to Cue Start",
				Body: "Hello Signe Aldous,\n\nyou have joined already: this letter is here to show what one " +
					"looks like.\n"}
		})
	if err != nil {
		return nil, err
	}
	if _, err := s.Accounts.Join(ctx, token, hash, now); err != nil {
		return nil, err
	}
	_, err = s.Clubs.Fill(ctx, coach.ClubID,
		store.Change{Owner: players[24], Is: club.Restriction{NoJumps: true, MaxEffort: 80,
			From:  now.Format(time.DateOnly),
			Until: now.AddDate(0, 0, 12).Format(time.DateOnly), Review: now.AddDate(0, 0, 7).Format(time.DateOnly)}})
	return players, err
}

// of are things of an owner as changes.
func of[T club.Thing](owner uint64, list []T) (changes []store.Change) {
	for _, one := range list {
		changes = append(changes, store.Change{Owner: owner, Is: one})
	}
	return changes
}

// places fills in the ground, its zones, the kit and the staff.
func places(ctx context.Context, s *store.Store, clubID uint64) error {
	venue, err := s.Clubs.Fill(ctx, clubID, store.Change{Is: club.Venue{Name: "Tidegate", TimeZone: zone}})
	if err != nil {
		return err
	}
	_, err = s.Clubs.Fill(ctx, clubID, slices.Concat(of(venue[0], ground), of(0, kit), of(0, staff))...)
	return err
}

// trials are the jump tests of some players, a month ago and last week.
func trials(players []uint64, now time.Time) (changes []store.Change) {
	for _, jumper := range []struct {
		player         int
		october, later []float64
	}{
		{0, []float64{30.2, 31.5, 31.1}, []float64{31, 32.1, 31.8}},
		{9, []float64{34.9, 36.2, 35.8}, []float64{36.4, 36.8, 35.9}},
		{14, []float64{37.1, 38.4, 38}, []float64{38.2, 38.9, 38.6}},
		{24, []float64{32.6, 33.9, 33.5}, []float64{33.1, 34.2, 33.3}},
	} {
		jump := func(ago int, tries []float64) store.Change {
			return store.Change{Owner: players[jumper.player],
				Is: club.Trial{Test: "Jump height", Unit: "cm", Better: club.Higher,
					Day: now.AddDate(0, 0, -ago).Format(time.DateOnly), Tries: tries}}
		}
		changes = append(changes, jump(29, jumper.october), jump(8, jumper.later))
	}
	return changes
}

// next is the first moment after now on that weekday at that time.
func next(now time.Time, day time.Weekday, hour, minute int) time.Time {
	at := time.Date(now.Year(), now.Month(), now.Day(), hour, minute, 0, 0, now.Location())
	for at.Weekday() != day || !at.After(now) {
		at = time.Date(at.Year(), at.Month(), at.Day()+1, hour, minute, 0, 0, now.Location())
	}
	return at
}

var ground = []club.Zone{
	{Name: "Near half", Capacity: 40, Lanes: 8, Metres: 50, Surface: "grass",
		Lies: &plan.Lie{X: 38, Y: 34, Long: 50, Wide: 68}},
	{Name: "Far half", Capacity: 40, Lanes: 8, Metres: 50, Surface: "grass",
		Lies: &plan.Lie{X: 88, Y: 34, Long: 50, Wide: 68}},
	{Name: "In-goal strip", Capacity: 16, Lanes: 4, Metres: 20, Surface: "grass",
		Lies: &plan.Lie{X: 6, Y: 34, Long: 68, Wide: 12, Turn: 90}},
	{Name: "Hall", Capacity: 30, Lanes: 5, Metres: 18, Surface: "wood", Covered: true,
		Lies: &plan.Lie{X: 128, Y: 18, Long: 18, Wide: 14}},
}

// kit is what the demo's club has.
var kit = []club.Kit{{Name: "light loop band", Pieces: 40}, {Name: "light band", Pieces: 40},
	{Name: "ball", Pieces: 24}, {Name: "shield", Pieces: 8}, {Name: "tee", Pieces: 2},
	{Name: "cones", Pieces: 40}, {Name: "bib", Pieces: 30}, {Name: "hurdle", Pieces: 12},
	{Name: "medicine ball", Pieces: 6}, {Name: "post", Pieces: 2}, {Name: "roller", Pieces: 10}}

var staff = []club.Staff{{Name: "Ines", Role: "S&C coach", Leads: true}, {Name: "Dorrit", Role: "forwards coach"},
	{Name: "Pell", Role: "skills coach"}, {Name: "Runa", Role: "assistant"}}

// base is what the demo's sessions have in common: people, places, leaders.
func base(start time.Time, free plan.Span) *plan.Document {
	air := 8.0
	d := &plan.Document{
		Format: plan.Format,
		Party: plan.Party{Grade: drill.Club, Kit: map[string]int{"light loop band": 24, "light band": 24, "ball": 14,
			"shield": 8, "tee": 2, "bib": 16}, Leaders: []plan.Leader{
			{ID: "ines", Name: "Ines", Role: "S&C coach"},
			{ID: "dorrit", Name: "Dorrit", Role: "forwards coach"},
			{ID: "pell", Name: "Pell", Role: "skills coach"},
			{ID: "runa", Name: "Runa", Role: "assistant"},
		}, Units: []plan.Unit{
			{ID: "u-front-five", Name: "Front five", Players: ids(1, 2, 3, 4, 5, 16, 17, 18)},
			{ID: "u-front-rows", Name: "Front rows", Players: ids(1, 2, 3, 16, 17, 18)},
			{ID: "u-lineout", Name: "Line-out", Players: ids(1, 2, 3, 4, 5, 6, 8)},
			{ID: "u-scrum", Name: "Scrum", Players: ids(1, 2, 3, 4, 5, 6, 7, 8)},
			{ID: "u-kickers", Name: "Kickers", Players: ids(10, 15)},
			{ID: "u-back-three", Name: "Back three", Players: ids(11, 14, 15)},
			{ID: "u-hands", Name: "Inside backs", Players: ids(9, 10, 12, 13)},
			{ID: "u-starters", Name: "Starters", Players: span(1, 15)},
			{ID: "u-bench", Name: plan.Bench, Players: span(16, 23), Today: true},
			{ID: "u-captain", Name: plan.Captain, Players: ids(8), Today: true, Of: 1},
			{ID: "u-place-kicker", Name: "Place kicker", Players: ids(10), Today: true, Of: 1},
		}, Turns: plan.Turns{First: "We kick off", Later: "They kick off"}},
		Site:  plan.Site{Place: "Tidegate", Today: plan.Conditions{Celsius: &air, Layers: true}},
		Hours: plan.Hours{Start: clock.StartAt(start)},
		Work: plan.Work{Method: plan.DefaultMethod, Stresses: []string{"ankle", "knee", "hip", "back", "shoulder",
			"neck"}},
	}
	for i, id := range []string{"near", "far", "strip", "hall"} {
		z := ground[i]
		d.Zones = append(d.Zones, plan.Zone{ID: id, Name: z.Name, Capacity: z.Capacity, Lanes: z.Lanes, Lies: z.Lies})
		if id != "hall" {
			d.Zones[i].Free = []plan.Span{free}
		}
	}
	for _, p := range first[:23] {
		d.Players = append(d.Players, plan.Player{ID: ids(p.Number)[0], Number: p.Number, First: p.First, Last: p.Last,
			Position: p.Position, Hand: drill.Way(p.Hand), Foot: drill.Way(p.Foot)})
	}
	return d
}

func ids(numbers ...int) (list []string) {
	for _, n := range numbers {
		list = append(list, fmt.Sprintf("p%d", n))
	}
	return list
}

func span(from, to int) (list []string) {
	for n := from; n <= to; n++ {
		list = append(list, ids(n)...)
	}
	return list
}

// in places a block: who does it, where, led by whom.
func in(b plan.Block, who, zone, leader string) plan.Block {
	b.Who, b.Zone, b.Leader = []string{who}, zone, leader
	b.Excusable = who == plan.Everyone || who == "u-bench"
	b.Loose = b.Phase == drill.Own || b.Phase == drill.Sport && who != "u-starters"
	return b
}

// fixed is a thing of the day from so many to so many minutes to go.
func fixed(id, name, who string, from, to int) plan.Fixed {
	return plan.Fixed{ID: id, Name: name, Who: []string{who},
		Span: plan.Span{From: clock.BeforeStart(from * 60), To: clock.BeforeStart(to * 60)}}
}

func atClock(id, name, who, from, to string) plan.Fixed {
	return plan.Fixed{ID: id, Name: name, Who: []string{who},
		Span: plan.Span{From: clock.AtClock(from), To: clock.AtClock(to)}}
}

// matchBlocks are the run-in of a match day.
func matchBlocks() []plan.Block {
	kicks := in(book.NewBlock("kicks", "Kicks at posts", drill.Own, plan.Should, "kicks-at-posts"), "u-kickers", "far",
		"pell")
	kicks.Stations = 2
	high := in(book.NewBlock("high", "High balls", drill.Sport, plan.Should, "high-balls"), "u-back-three", "far",
		"pell")
	high.Stations = 1
	return []plan.Block{
		in(book.NewBlock("raise", "Rising loop", drill.Raise, plan.Must, "rising-loop", "shuffle-and-cross", "skips"),
			plan.Everyone, "near", "ines"),
		in(book.NewBlock("bands", "Bands", drill.Activate, plan.Should, "band-side-walk", "shoulder-band",
			"plank-reach"), plan.Everyone, "near", "ines"),
		in(book.NewBlock("move", "Moving range", drill.Mobilise, plan.Must, "lunge-reach", "leg-swings", "hip-circles",
			"mid-back-turns"), plan.Everyone, "near", "ines"),
		in(book.NewBlock("neck", "Neck holds", drill.Mobilise, plan.Should, "neck-holds"), "u-front-five", "strip",
			"dorrit"),
		in(book.NewBlock("jumps", "Jumps, sprints", drill.Potentiate, plan.Must, "jump-and-stick", "strides-rising",
			"sprints"), plan.Everyone, "near", "ines"),
		kicks,
		in(book.NewBlock("lineout", "Line-out", drill.Sport, plan.Must, "lineout-throws"), "u-lineout", "near",
			"dorrit"),
		in(book.NewBlock("scrum", "Scrum", drill.Sport, plan.Must, "scrum-sets"), "u-scrum", "strip", "dorrit"),
		high,
		in(book.NewBlock("hands", "Hands", drill.Sport, plan.Should, "hands-in-a-line"), "u-hands", "far", "ines"),
		in(book.NewBlock("touch", "Bench touch", drill.Sport, plan.Could, "touch-game"), "u-bench", "far", "runa"),
		in(book.NewBlock("team", "Team run", drill.Sport, plan.Must, "team-run"), "u-starters", "near", "ines"),
	}
}

// HomeMatch is the demo's main scenario.
func HomeMatch(start time.Time) *plan.Document {
	d := base(start, plan.Span{From: clock.AtClock("14:10"), To: clock.BeforeStart(600)})
	d.Title, d.Kind, d.StartName = "Brackwater v Fellmoor", plan.Match, "Kick-off"
	d.Margin, d.Open = 600, clock.AtClock("14:10")
	d.Fixed = []plan.Fixed{
		atClock("arrival", "Arrival", plan.Everyone, "13:20", "13:30"),
		atClock("taping", "Taping", "u-front-five", "13:30", "13:50"),
		atClock("talk", "Team talk", plan.Everyone, "13:52", "14:05"),
		fixed("referee", "Referee, front rows", "u-front-rows", 46, 42),
		fixed("toss", "Toss", "u-captain", 40, 38),
		fixed("inside", "Inside: drink, jersey, last word", plan.Everyone, 10, 4),
		fixed("lineup", "Line up", plan.Everyone, 4, 0),
	}
	d.Blocks = matchBlocks()
	d.Bring = []plan.Bring{{What: "first-aid bag", Who: "runa"}, {What: "ice"}}
	d.Lists = []plan.List{{ID: "after-1", Name: "After the end", When: plan.AfterEnd, Line: "Final whistle",
		Blocks: []plan.Block{
			book.NewBlock("down", "Come down", drill.After, plan.Should, "easy-walk-down"),
			book.NewBlock("holds", "Holds", drill.After, plan.Should, "static-calf", "static-thigh", "static-groin"),
			book.NewBlock("necks", "Chest and shoulders", drill.After, plan.Could, "static-chest"),
		}}}
	for i := range d.Lists[0].Blocks {
		d.Lists[0].Blocks[i].Who = []string{plan.Everyone}
	}
	d.Lists[0].Blocks[2].Who = []string{"u-front-five"}
	return d
}

func awayMatch(start time.Time) *plan.Document {
	d := base(start, plan.Span{From: clock.BeforeStart(32 * 60), To: clock.BeforeStart(480)})
	d.Title, d.Kind, d.StartName, d.Place = "Oxlode Vale v Brackwater", plan.Match, "Kick-off", "Oxlode Vale"
	d.Margin, d.Open = 480, clock.BeforeStart(32*60)
	d.Fixed = []plan.Fixed{
		fixed("bus", "Bus arrives", plan.Everyone, 90, 85),
		fixed("talk", "Team talk", plan.Everyone, 46, 35),
		fixed("referee", "Referee, front rows", "u-front-rows", 70, 66),
		fixed("toss", "Toss", "u-captain", 30, 28),
		fixed("inside", "Inside: drink, last word", plan.Everyone, 8, 3),
		fixed("lineup", "Line up", plan.Everyone, 3, 0),
	}
	d.Blocks = matchBlocks()
	return d
}

// Training is the demo's training on the same ground.
func Training(start time.Time) *plan.Document {
	d := base(start, plan.Span{From: clock.BeforeStart(40 * 60), To: clock.BeforeStart(-90 * 60)})
	d.Title, d.Kind, d.StartName = "Tuesday training", plan.Training, "Training"
	d.Margin, d.Open = 180, clock.BeforeStart(30*60)
	d.Fixed = []plan.Fixed{fixed("notes", "Notes for the day", plan.Everyone, 30, 26)}
	d.Blocks = []plan.Block{
		in(book.NewBlock("tag", "Tag in the box", drill.Raise, plan.Must, "tag-in-the-box", "shuffle-and-cross"),
			plan.Everyone, "near", "ines"),
		in(book.NewBlock("floor", "Hips and trunk", drill.Activate, plan.Should, "bridge", "plank-reach"),
			plan.Everyone, "near", "ines"),
		in(book.NewBlock("move", "Moving range", drill.Mobilise, plan.Must, "lunge-reach", "hinge", "ankle-rocks"),
			plan.Everyone, "near", "ines"),
		in(book.NewBlock("neck", "Neck holds", drill.Mobilise, plan.Should, "neck-holds"), "u-front-five", "strip",
			"dorrit"),
		in(book.NewBlock("cuts", "Cuts", drill.Potentiate, plan.Must, "bounds", "cut-and-go"), plan.Everyone, "near",
			"ines"),
		in(book.NewBlock("shields", "Shoulder on shield", drill.Sport, plan.Could, "contact-shields"), "u-scrum",
			"strip", "dorrit"),
		in(book.NewBlock("passing", "Hands", drill.Sport, plan.Could, "hands-in-a-line"), "u-hands", "far", "pell"),
	}
	return d
}
