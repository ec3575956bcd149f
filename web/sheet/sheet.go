// Package sheet is paper: the staff's sheet, cards, lists of drills, and a plan saved as a file.
package sheet

import (
	"embed"
	"fmt"
	"html/template"
	"net/url"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/ground"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
	"cuestart/core/today"
	"cuestart/core/verdict"
	"cuestart/planner/boards"
	"cuestart/web/chalk"
	"cuestart/web/chart"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, nil, chart.Files)

// body is the staff's sheet: one A4 page, in the order of time.
type body struct {
	ID                           uint64
	Title, Sub, StartName, Start string
	Verdict                      verdict.Verdict
	Groups                       []group
	By                           string // leader, place, or "" for the order of time
	Kit                          []string
	Facing                       []plan.Fact
	lists                        []group
	Made                         string
	Cuts                         []cutLine
	Ground                       template.HTML // its plan, with what happens where; "": nobody laid it out
	places                       []ground.Place
	there                        [][]string // what happens in each, in order
	in                           measure.System
	Full                         bool // each drill with what to say and to look for, and its caution
}

// group is the rows of one leader or place; all of them in the order of time.
type group struct {
	Head string
	Rows []row
	Line string // what the times of its rows go by, where that is not the start
}

// Ask is the address of the sheet, or of one of its files, with a choice made otherwise.
func (b body) Ask(file, name, value string) string {
	ask := url.Values{}
	if b.Full {
		ask.Set("cues", "yes")
	}
	if b.By != "" {
		ask.Set("by", b.By)
	}
	if ask.Set(name, value); value == "" {
		ask.Del(name)
	}
	return shell.Session(b.ID, file) + "?" + ask.Encode()
}

// To is the address of something under the session.
func (b body) To(under string) string { return shell.Session(b.ID, under) }

// Back is the address of the board.
func (b body) Back() string { return shell.Session(b.ID) }

type row struct {
	at                  clock.Offset
	ToGo, Clock, Length string
	Phase               drill.Phase
	Fixed               bool
	Name, Who, Numbers  string
	Often               string
	Drills              []told
	Note                string
	Where, Leader, Cut  string
	Versions            []string // who does it otherwise
	Cautions            []string // of its drills, each once, without what is said of everything
}

// told is a drill as a leader tells it.
type told struct {
	Name, Dose, Say, Look, Here string
	Drawn                       chalk.Drawn
}

// cutLine is what changes when there are only so many minutes, down to which it stays the same.
type cutLine struct{ Minutes, DownTo, Work, Says string }

// Show is the sheet.
func (in Room) Show(r *shell.Request) (shell.Answer, error) {
	made, err := in.asked(r)
	return &shell.Page{Screens: screens, Name: "sheet", Title: made.Title + " sheet", Nav: "runin", Body: made}, err
}

// asked is the sheet as the address asks for it.
func (in Room) asked(r *shell.Request) (made body, err error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return made, err
	}
	cuts, err := in.Boards.Cutdowns(r.Context(), b)
	if err != nil {
		return made, err
	}
	made = bodyOf(b)
	made.places, made.there = groundOf(b)
	made.in = b.Document.Measure
	made.Ground = made.drawn()
	made.Cuts, made.Full = cutLines(cuts), r.Query("cues") != ""
	if made.By = r.Query("by"); made.By == "leader" || made.By == "place" {
		made.Groups = made.grouped()
	} else {
		made.By = ""
	}
	made.Groups = append(made.Groups, made.lists...)
	return made, nil
}

// grouped parts the rows by leader or by place; what has none comes last, and events
// stand in every group.
func (b *body) grouped() (groups []group) {
	var heads []string
	by := map[string][]row{}
	var none, events []row
	for _, one := range b.Groups[0].Rows {
		head := map[string]string{"leader": one.Leader, "place": one.Where}[b.By]
		switch {
		case one.Fixed:
			events = append(events, one)
			continue
		case head == "":
			none = append(none, one)
			continue
		case by[head] == nil:
			heads = append(heads, head)
		}
		by[head] = append(by[head], one)
	}
	for _, head := range heads {
		groups = append(groups, group{Head: head, Rows: by[head]})
	}
	if len(none) > 0 {
		groups = append(groups, group{Head: map[string]string{"leader": "Led by nobody", "place": "No place"}[b.By],
			Rows: none})
	}
	if len(events) > 0 {
		groups = append(groups, group{Head: "Everybody's day", Rows: events})
	}
	return groups
}

// cutLines are the cut-downs, those that change nothing joined with the one
// before.
func cutLines(cuts []schedule.Cut) (lines []cutLine) {
	for n, cut := range cuts {
		minutes := clock.Lasting(cut.Minutes)
		if last := len(lines) - 1; len(cut.Says) == 0 && n > 0 {
			lines[last].DownTo = minutes
			continue
		}
		line := cutLine{Minutes: minutes, Work: clock.Lasting(cut.Work), Says: strings.Join(cut.Says, ", ")}
		if n == 0 {
			line.Says = "as on the front"
		}
		lines = append(lines, line)
	}
	if len(cuts) > 1 {
		lines[len(lines)-1].Says += "; that is the shortest"
	}
	return lines
}

func bodyOf(b *boards.Board) body {
	d, fitted := b.Document, b.Schedule
	made := body{ID: b.ID, Title: d.Title, StartName: d.StartName, Start: clock.Clock(fitted.Start, 0),
		Verdict: b.Verdict(),
		Sub:     shell.Joined(" · ", b.SquadName, fitted.Start.Format("Monday 2 January 2006"), d.Place),
		Made:    b.Made.At.In(fitted.Start.Location()).Format("Mon 2 Jan 15:04")}
	var rows []row
	for i := range b.Blocks {
		block := &b.Blocks[i]
		if !block.Kept {
			continue
		}
		rows = append(rows, rowOf(b, d, fitted, block))
	}
	for _, e := range fitted.Events(d) {
		rows = append(rows, row{at: e.Start, ToGo: e.Start.ToGo(), Clock: clock.Clock(fitted.Start, e.Start),
			Length: clock.Lasting(int(e.End - e.Start)),
			Fixed:  true, Name: e.Name, Who: d.Audience(e.Who)})
	}
	slices.SortStableFunc(rows, func(x, y row) int { return int(x.at - y.at) })
	made.Groups, made.lists = []group{{Rows: rows}}, listsOf(b)
	made.Facing = d.Facing
	for _, k := range schedule.Carried(b.Blocks) {
		made.Kit = append(made.Kit, k.String())
	}
	for _, k := range d.Bring {
		who := ""
		if name := d.WhoBrings(k); name != "" {
			who = " (" + name + ")"
		}
		made.Kit = append(made.Kit, k.What+who)
	}
	return made
}

// listsOf are the lists with a line of their own, each as a group.
func listsOf(b *boards.Board) (lists []group) {
	lines := b.Lists()
	for i := range lines {
		l := &lines[i]
		made := group{Head: fmt.Sprintf("%s: %s", l.Name, clock.Lasting(l.Seconds())), Line: l.Line}
		blocks := l.Schedule.Blocks(l.Document)
		for n := range blocks {
			if !blocks[n].Kept {
				continue
			}
			one := rowOf(b, l.Document, l.Schedule, &blocks[n])
			one.Clock = ""
			if l.Forward() {
				one.ToGo = clock.Duration(int(blocks[n].Start))
			}
			made.Rows = append(made.Rows, one)
		}
		if len(made.Rows) > 0 {
			lists = append(lists, made)
		}
	}
	return lists
}

func rowOf(board *boards.Board, d *plan.Document, fitted *schedule.Schedule, b *schedule.Block) row {
	one := row{at: b.Start, ToGo: b.Start.ToGo(), Clock: clock.Clock(fitted.Start, b.Start),
		Length: clock.Lasting(b.Length()), Phase: b.Phase,
		Name: b.Name, Who: d.Audience(b.Who), Where: d.ZoneName(b.Zone), Leader: d.LeaderName(b.Leader), Cut: b.Cut,
		Versions: today.Says(d, b.ID),
		Often:    b.How(speech.English), Note: b.Note}
	if len(b.Members) < len(d.Players) {
		one.Numbers = d.Numbers(b.Members)
	}
	one.Versions = append(one.Versions, d.OwnLines(b.Block, b.Members)...)
	here := b.Here(speech.English, d)
	for n, dose := range b.Named() {
		k := &b.Items[n].Drill
		it := told{Name: k.Name, Dose: strings.TrimPrefix(dose, k.Name+": "), Say: d.Quote(strings.Join(k.Cues, ". ")),
			Look: strings.Join(k.Faults, ". "), Drawn: chalk.Of(board.Looks(k), k)}
		one.Cautions = plan.AddCaution(one.Cautions, k.Caution)
		if n < len(here) {
			it.Here = here[n]
		}
		one.Drills = append(one.Drills, it)
	}
	return one
}

// Size of the plan of the ground on the sheet.
const (
	groundWide = 800
	groundHigh = 330
)

// groundOf is the plan of the ground with what happens in each place, in order; nil: nobody
// laid it out.
func groundOf(b *boards.Board) (places []ground.Place, lines [][]string) {
	places = b.Ground()
	if !slices.ContainsFunc(places, func(p ground.Place) bool { return p.Said }) {
		return nil, nil
	}
	blocks := slices.Clone(b.Blocks)
	slices.SortStableFunc(blocks, func(x, y schedule.Block) int { return int(x.Start - y.Start) })
	for _, p := range places {
		var there []string
		for _, x := range blocks {
			if x.Kept && x.Zone == p.ID {
				there = append(there, x.Start.ToGo()+" "+x.Name)
			}
		}
		lines = append(lines, there)
	}
	return places, lines
}

// drawn is the plan of the ground on the page; "": there is none.
func (b *body) drawn() template.HTML {
	spots := make([]chalk.Spot, len(b.places))
	for i, p := range b.places {
		spots[i] = chalk.Spot{Place: p, Lines: b.there[i]}
	}
	return chalk.Ground("What happens where", b.in, spots, nil, groundWide, groundHigh)
}
