// Package today is which sessions come, which plans do not hold yet and why; and
// the form of a new session.
package today

import (
	"embed"
	"fmt"
	"slices"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/verdict"
	"cuestart/planner/diary"
	"cuestart/planner/learn"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, nil)

// How many cuts a card shows, and how many sessions and fixtures the page lists;
// sessions also where all are asked for.
const (
	cardCuts      = 3
	sessionsShown = 50
	allShown      = 1000
	fixturesShown = 8
)

type body struct {
	Over     []past // that nobody has written up yet
	Cards    []card
	Fixtures []fixture // without a run-in yet
	More     int       // fixtures beyond those shown
	Further  int       // sessions beyond those shown
	Edits    bool
	Removed  uint64          // session that was just removed
	Hurt     []shell.HurtRow // who is hurt, and has no answer yet
	First    *first          // of a club that has no session yet
	Problems plan.Problems
}

// card is a session to come.
type card struct {
	ID                     uint64
	Title, Sub, Day, Clock string
	StartName, Away        string
	Verdict                verdict.Verdict
	More                   int // cuts beyond those shown
	Shared                 bool
	Late                   string   // that its moment has gone, or ""
	Newer                  []string // rulings that the plan does not hold yet
}

// past is a session that is over, and waits for how it went.
type past struct {
	ID         uint64
	Title, Day string
}

// overFor is how many days a session that is over waits here; then it waits in the log.
const overFor = 7

// fixture is a fixture that has no run-in yet.
type fixture struct {
	ID                             uint64
	Title, Kind, Day, Clock, Place string
}

// Show is the sessions to come.
func (in Room) Show(r *shell.Request) (shell.Answer, error) { return in.page(r, nil) }

// page is the sessions to come; after a refused form with its problems.
func (in Room) page(r *shell.Request, wrong plan.Problems) (*shell.Page, error) {
	most := sessionsShown
	if r.Query("all") != "" {
		most = allShown
	}
	sessions, further, err := in.Boards.Sessions(r.Context(), r.Club(), most)
	if err != nil {
		return nil, err
	}
	waiting, err := in.Diary.ToCome(r.Context(), r.Club(), sessions)
	if err != nil {
		return nil, err
	}
	b := body{Problems: wrong, Further: further, Edits: r.Coach(), Removed: r.QueryID("removed"),
		More: max(0, len(waiting)-fixturesShown)}
	hurt, err := in.Keep.OpenHurt(r.Context(), r.By)
	if err != nil {
		return nil, err
	}
	b.Hurt = shell.HurtRows(r, hurt)
	if len(sessions) == 0 {
		if b.First, err = in.firstOf(r); err != nil {
			return nil, err
		}
	}
	b.Fixtures = fixturesOf(waiting[:min(len(waiting), fixturesShown)])
	if b.Over, err = in.over(r); err != nil {
		return nil, err
	}
	for _, s := range sessions {
		if s.Start.Before(r.Now()) {
			continue // what is over is not warmed up for any more
		}
		one := card{ID: s.ID, Title: s.Title, Day: s.Start.Format("Monday 2 January"), Clock: clock.Clock(s.Start, 0),
			StartName: s.StartName,
			Away:      away(s.Start.Sub(r.Now())), Verdict: s.Verdict, Shared: s.Published, Newer: s.Newer,
			Late: s.Verdict.Late(s.Start, r.Now(), s.StartName),
			Sub:  shell.Joined(" · ", s.Squad, s.Place, drill.Number(s.Players, "players")),
			More: max(0, len(s.Verdict.Cuts)-cardCuts)}
		one.Verdict.Cuts = one.Verdict.Cuts[:min(len(one.Verdict.Cuts), cardCuts)]
		b.Cards = append(b.Cards, one)
	}
	return &shell.Page{Screens: screens, Name: "today", Title: "Today", Nav: "today", Body: b}, nil
}

func fixturesOf(waiting []diary.ToCome) (list []fixture) {
	for _, f := range waiting {
		one := fixture{ID: f.ID, Title: f.Is.Title, Kind: string(f.Is.For), Day: f.At.Format("Mon 2 Jan"),
			Clock: f.At.Format("15:04"), Place: f.Is.Place}
		if f.Is.Day {
			one.Clock = "hour not known"
		}
		list = append(list, one)
	}
	return list
}

// over are the sessions of the last days, of all squads, that nobody has written up, the latest first.
func (in Room) over(r *shell.Request) (list []past, err error) {
	if !r.Coach() {
		return nil, nil
	}
	squads, err := in.Keep.Teams(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	var open []learn.WeekSession
	for _, squad := range squads {
		of, err := in.Learn.PastUnlogged(r.Context(), r.Club(), squad.ID, overFor)
		if err != nil {
			return nil, err
		}
		open = append(open, of...)
	}
	slices.SortStableFunc(open, func(a, b learn.WeekSession) int { return b.Day.Compare(a.Day) })
	for _, s := range open {
		list = append(list, past{ID: s.ID, Title: s.Title, Day: s.Day.Format("Mon 2 Jan")})
	}
	return list, nil
}

// away says how far off a start is, in the largest units that matter.
func away(left time.Duration) string {
	switch minutes := int(left.Minutes()); {
	case minutes < 120:
		return "in " + drill.Number(minutes, "minutes")
	case minutes < 48*60:
		return fmt.Sprintf("in %d hours", minutes/60)
	default:
		return fmt.Sprintf("in %d days", minutes/60/24)
	}
}
