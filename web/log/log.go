// Package log is what is learnt: the log of a session, tests before and after, what a week
// gave and still owes, and how often each thing was done.
package log

import (
	"embed"
	"fmt"
	"slices"
	"strconv"

	"cuestart/core/clock"
	"cuestart/core/conduct"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner/boards"
	"cuestart/planner/learn"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, nil)

// logBody is the log of a session.
type logBody struct {
	ID       uint64
	Title    string
	Day      string
	Edition  uint32
	Kept     string // who kept it; "": nobody yet
	Ran      bool
	Over     bool
	Edits    bool
	Blocks   []blockRow
	Players  []playerRow
	Felt     []boards.Felt
	Differs  []string
	Changed  []string
	Before   string
	Season   string
	Note     string
	Efforts  string // "6.5 of 10, from 12 players"
	Problems plan.Problems
	Whole    string // how long it was, and was planned
}

// blockRow is a block of a log.
type blockRow struct {
	conduct.Logged
	N        int
	PlannedT string // 4:30
	ActualT  string
	By       string // "0:40 longer"
	Who      string
	Rows     []drillRow
}

// drillRow is a drill of a block.
type drillRow struct {
	conduct.LoggedDrill
	Dose    string
	Without string
}

// playerRow is a player of a log.
type playerRow struct {
	conduct.Attended
	Effort string
}

// wases are how a player was there, as they are picked.
func (*logBody) Wases() []shell.Choice {
	return []shell.Choice{{Value: conduct.There, Label: "there"}, {Value: conduct.Late, Label: "late"},
		{Value: conduct.Out, Label: "went out"}, {Value: conduct.Away, Label: "not there"}}
}

// To is the address of something under the session.
func (b *logBody) To(under ...string) string { return shell.Session(b.ID, under...) }

// Show is the log of a session.
func (in Room) Show(r *shell.Request) (shell.Answer, error) {
	l, err := in.Learn.Log(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	return logPage(r, l, nil), nil
}

func logPage(r *shell.Request, l *learn.Log, wrong plan.Problems) *shell.Page {
	d := l.Document
	b := &logBody{ID: l.Session, Title: l.Title, Day: l.Start.Format("Monday 2 January 2006"), Edition: l.Edition,
		Kept: l.Maker, Ran: l.Ran, Over: l.Over, Edits: r.Coach(), Felt: l.Felt, Differs: l.Differs,
		Changed: l.Changed, Before: l.Before, Season: l.Season, Note: l.Note, Problems: wrong}
	if l.Edition > 0 && b.Kept == "" {
		b.Kept = "somebody who left"
	}
	planned, done := 0, 0
	for n := range l.Blocks {
		row := blockRowOf(d, &l.Blocks[n], n)
		b.Blocks = append(b.Blocks, row)
		if row.Planned > 0 {
			planned++
		}
		if row.Actual > 0 {
			done++
		}
	}
	b.Whole = fmt.Sprintf("%d of %s done", done, drill.Number(planned, "blocks"))
	if !l.Ran && !l.Over {
		b.Whole = drill.Number(planned, "blocks") + " planned"
	}
	sum, said := 0, 0
	for _, p := range l.Players {
		row := playerRow{Attended: p}
		if p.Effort >= 0 {
			row.Effort = strconv.Itoa(p.Effort)
			sum, said = sum+p.Effort, said+1
		}
		b.Players = append(b.Players, row)
	}
	if said > 0 {
		b.Efforts = fmt.Sprintf("%.1f of 10, from %s", float64(sum)/float64(said), drill.Number(said, "players"))
	}
	return &shell.Page{Screens: screens, Name: "log", Title: "Log of " + l.Title, Nav: "log", Body: b}
}

func blockRowOf(d *plan.Document, l *conduct.Logged, n int) blockRow {
	row := blockRow{Logged: *l, N: n, PlannedT: clock.Duration(l.Planned), ActualT: clock.Duration(l.Actual),
		Who: d.Audience(l.Who)}
	if len(l.Who) > 0 && len(l.Who) < len(d.Players) && len(l.Who) > 2 {
		row.Who = d.Numbers(l.Who)
	}
	if len(l.Who) == len(d.Players) {
		row.Who = "Everybody"
	}
	switch by := l.Actual - l.Planned; {
	case l.Actual == 0:
		row.By = "not done"
	case l.Planned == 0:
		row.By = "not planned"
	case by >= 5:
		row.By = clock.Lasting(by) + " longer"
	case by <= -5:
		row.By = clock.Lasting(-by) + " shorter"
	}
	known := d.Block(l.Block)
	for _, drill := range l.Drills {
		is := drillRow{LoggedDrill: drill, Without: d.Audience(drill.Without)}
		if known != nil && drill.Item < len(known.Items) {
			k := known.Items[drill.Item].Drill
			is.Dose = k.Words(drill.Amount)
		}
		row.Rows = append(row.Rows, is)
	}
	return row
}

// Save keeps a log: as it was planned, or as it is filled in.
func (in Room) Save(r *shell.Request) (shell.Answer, error) {
	l, err := in.Learn.Log(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	f := r.Form
	if f.Has("as-is") {
		err = in.Learn.KeepLog(r.Context(), r.By, l)
	} else {
		read(f, l)
		if err = f.Err(); err == nil {
			err = in.Learn.KeepLog(r.Context(), r.By, l)
		}
	}
	return r.Saved(err, "The log is kept", shell.Session(l.Session, "log"),
		func(wrong plan.Problems) (*shell.Page, error) {
			page := logPage(r, l, wrong)
			for n := range l.Blocks { // what was written stays
				if name := fmt.Sprint("actual-", n); f.Has(name) {
					page.Body.(*logBody).Blocks[n].ActualT = f.Raw(name)
				}
			}
			for n := range l.Players {
				page.Body.(*logBody).Players[n].Effort = f.Raw("effort-" + l.Players[n].Person)
			}
			return page, nil
		})
}

// read puts what a form says into a log.
func read(f *shell.Form, l *learn.Log) {
	l.Edition = uint32(f.IntOr("edition", 0, 0, 1<<30))
	l.Season, l.Note = f.Text("season"), f.Text("note")
	for n := range l.Blocks {
		b := &l.Blocks[n]
		name := func(of string) string { return of + "-" + strconv.Itoa(n) }
		f.At(b.Name)
		b.Note = f.Text(name("note"))
		b.Lasted(lasted(f, name("actual")))
		for i := range b.Drills {
			b.Drills[i].Amount = f.IntOr(fmt.Sprintf("amount-%d-%d", n, i), b.Drills[i].Amount, 0, 10000)
		}
	}
	for i := range l.Players {
		p := &l.Players[i]
		f.At(p.Name)
		if was := f.Raw("was-" + p.Person); slices.Contains([]string{conduct.There, conduct.Late, conduct.Out,
			conduct.Away}, was) {
			p.Was = was
		}
		p.Effort = f.IntOr("effort-"+p.Person, -1, 0, 10)
		p.Note = f.Text("of-" + p.Person)
	}
	f.At("")
	l.Attend(l.Document)
}

// lasted is a field of minutes, 4 or 4:30; nothing is none.
func lasted(f *shell.Form, name string) int {
	if f.Text(name) == "" {
		return 0
	}
	seconds, err := clock.ParseDuration(f.Text(name))
	if err != nil {
		f.Refuse(name, "%s", err)
	}
	return seconds
}

// portion is a part of a whole in hundredths, for a bar; at most 100.
func portion(part, whole float64) int {
	if whole <= 0 {
		return 0
	}
	return min(100, int(100*part/whole+0.5))
}
