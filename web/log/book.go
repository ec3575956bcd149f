package log

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/trial"
	"cuestart/planner/learn"
	"cuestart/web/shell"
)

// bookBody is the logbook of a squad.
type bookBody struct {
	Squad    uint64
	Name     string
	Squads   []shell.IDChoice
	Open     []learn.WeekSession // over, and not logged
	Logs     []bookRow
	Season   string
	Seasons  []string
	Drills   []doneRow
	Routines []learn.RoutineDone
	Test     string
	Tests    []string
	Effects  []effectRow
	Against  string // two sessions set against each other
	Edits    bool
}

// bookRow is a session of the logbook.
type bookRow struct {
	ID     uint64
	Title  string
	Day    string
	Season string
	There  string
	Effort string
	Says   []string // what was different, and the note
}

// doneRow is how often a drill was done.
type doneRow struct {
	learn.Done
	Share int
}

// effectRow is what a session did to a test.
type effectRow struct {
	learn.Effect
	When       string
	One, Other bool // it is one of the two that are set against each other
}

// shown is how many days back the logbook goes, and how many of its drills are listed.
const (
	shownDays   = 365
	shownLogs   = 60
	shownDrills = 24
)

// Book is the logbook of a squad.
func (in Room) Book(r *shell.Request) (shell.Answer, error) {
	squad, err := in.Keep.Squad(r.Context(), r.Club(), r.QueryID("squad"))
	if err != nil {
		return nil, err
	}
	teams, err := in.Keep.Teams(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	b := &bookBody{Squad: squad.ID, Name: squad.Name, Season: r.Query("season"), Edits: r.Coach()}
	for _, t := range teams {
		b.Squads = append(b.Squads, shell.IDChoice{ID: t.ID, Label: t.Name})
	}
	if b.Open, err = in.Learn.PastUnlogged(r.Context(), r.Club(), squad.ID, 28); err != nil {
		return nil, err
	}
	logs, err := in.Learn.Logs(r.Context(), r.Club(), squad.ID, shownDays, shownLogs)
	if err != nil {
		return nil, err
	}
	for _, l := range logs {
		if l.Season != "" && !slices.Contains(b.Seasons, l.Season) {
			b.Seasons = append(b.Seasons, l.Season)
		}
	}
	logs = slices.DeleteFunc(logs, func(l *learn.Kept) bool { return b.Season != "" && l.Season != b.Season })
	for _, l := range logs {
		b.Logs = append(b.Logs, bookRowOf(l))
	}
	if err := b.counts(in, r, logs); err != nil {
		return nil, err
	}
	return &shell.Page{Screens: screens, Name: "book", Title: "Log", Nav: "log", Body: b}, b.effects(in, r)
}

func bookRowOf(l *learn.Kept) bookRow {
	row := bookRow{ID: l.Session, Title: l.Title, Season: l.Season, Says: l.Differs}
	if day, err := time.Parse(time.DateOnly, l.Day); err == nil {
		row.Day = day.Format("Mon 2 Jan")
	}
	there, sum, said := 0, 0, 0
	for _, p := range l.Players {
		if p.Was == "there" || p.Was == "late" {
			there++
		}
		if p.Effort >= 0 {
			sum, said = sum+p.Effort, said+1
		}
	}
	row.There = fmt.Sprintf("%d of %d there", there, len(l.Players))
	if said > 0 {
		row.Effort = fmt.Sprintf("%.1f", float64(sum)/float64(said))
	}
	for _, block := range l.Blocks {
		if block.Note != "" {
			row.Says = append(row.Says, block.Name+": "+block.Note)
		}
	}
	if l.Note != "" {
		row.Says = append(row.Says, l.Note)
	}
	return row
}

// counts fills in how often each thing was done.
func (b *bookBody) counts(in Room, r *shell.Request, logs []*learn.Kept) (err error) {
	from := r.Now().AddDate(0, 0, -shownDays)
	if b.Season != "" && len(logs) > 0 {
		if first, err := time.Parse(time.DateOnly, logs[len(logs)-1].Day); err == nil {
			from = first
		}
	}
	done, err := in.Learn.Season(r.Context(), b.Squad, from)
	if err != nil {
		return err
	}
	for i, one := range done {
		if i < shownDrills {
			b.Drills = append(b.Drills, doneRow{one, portion(float64(one.Times), float64(done[0].Times))})
		}
	}
	b.Routines, err = in.Learn.RoutinesDone(r.Context(), r.Club(), logs)
	return err
}

// effects fills in what sessions did to a test, and sets two of them against each other.
func (b *bookBody) effects(in Room, r *shell.Request) error {
	for _, t := range trial.Known {
		b.Tests = append(b.Tests, t.Name)
	}
	test := trial.Test{Name: r.Query("test")}
	if test.Name == "" {
		test.Name = trial.Known[0].Name
	}
	found, list, err := in.Learn.Effects(r.Context(), r.Club(), b.Squad, test)
	if err != nil {
		return err
	}
	if b.Test = found.Name; !slices.Contains(b.Tests, b.Test) {
		b.Tests = append(b.Tests, b.Test)
	}
	one, other, asked := -1, -1, r.QueryID("one") > 0
	for i := range list {
		row := effectRow{Effect: list[i], One: list[i].Session == r.QueryID("one"),
			Other: list[i].Session == r.QueryID("other")}
		if day, err := time.Parse(time.DateOnly, list[i].Day); err == nil {
			row.When = day.Format("Mon 2 Jan")
		}
		if b.Effects = append(b.Effects, row); !asked && i < 2 {
			b.Effects[i].One, b.Effects[i].Other = i == 0, i == 1
			continue
		}
		if b.Effects[i].One {
			one = i
		}
		if b.Effects[i].Other {
			other = i
		}
	}
	if one < 0 || other < 0 || one == other {
		return nil
	}
	c, ok := list[one].Against(&list[other], found)
	if !ok {
		b.Against = "Fewer than two players did the test around both."
		return nil
	}
	b.Against = fmt.Sprintf("%s against %s, the same players: %s", list[one].Title, list[other].Title, found.Words(c))
	if different := strings.Join(list[one].Different, "; "); other == one+1 && different != "" {
		b.Against += ". Otherwise was: " + different
	}
	return nil
}
