// Package board is the Run-in: whether the plan fits, who waits, who is wanted in
// two places, who is warm at the line; and every change of it.
package board

import (
	"embed"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/core/verdict"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/web/chart"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, template.FuncMap{"on": func(b *body, is listBody) any { return listOn{b, is} },
	"of": func(b *body, is thing) any { return thingOn{b, is} }},
	chart.Files)

// listOn is a list with the page it stands on.
type listOn struct {
	On *body
	Is listBody
}

// body is the Run-in page.
type body struct {
	ID          uint64
	Revision    uint32
	Title, Sub  string
	Verdict     verdict.Verdict
	Late        string // that its moment has gone
	Likely      verdict.Likely
	LastTime    []boards.Remembered
	Runs        bool            // it is under way: changes belong to the pitch side
	Paces       []boards.Slower // blocks that run longer or shorter here than they are planned
	Slack       int             // seconds of it in the plan
	Seek        bool            // there may be a better fit
	Findings    []finding
	Excused     []finding // those that the coach keeps
	Notes       []string  // how the plan was fitted to its day
	Day         string    // what the day has done to the doses
	Things      []thing   // to look at or to decide; the first of them, and how many are left
	First       []thing
	Rest        int
	Problems    plan.Problems // of the form that was sent, if it was refused
	Clash       *clash        // what was changed by somebody else meanwhile; nil: nothing
	Newer       []string      // rulings that the plan does not hold yet
	Over        bool          // the session has started
	Edits       bool          // who looks may change it
	Timing      timingForm
	Spare       bool
	Screen      string       // what it is drawn for: wide, narrow, phone; "" where the browser has not said
	Chart       *chart.Chart // nil on a phone, and where the ground is shown
	Ground      bool         // it is shown in place of the chart
	From        int          // when the run-in begins, in seconds from the start
	View        viewForm
	Rows        []row
	Chosen      *chosen
	Drawers     drawers
	Tab         string // the one that is open beside the plan; "": none
	Tabs        []tab
	Lists       []listBody     // after the end, at half-time, on the bench
	Turns       []turn         // how the day begins, where that makes a difference
	Told        toldBody       // what was said from phones
	Heard       *heardForm     // what lines became that were just put in
	Typed       string         // lines that were refused
	Routines    []shell.Choice // to take, where nothing is planned
	In          measure.System // what its lengths are said in
	Saved       string
	Undo, Redo  string
	Publication planner.Publication
	Fresh       bool   // what is published is the plan in force
	Seen        string // who has opened it
	Link        string
	StartName   string
	StartTime   string
	Repeated    bool     // the clocks go back over the start
	Example     []string // lines as coaches of the sport write them
	Shape       string   // what its day begins with, as a heading
}

// finding is something that the checks found.
type finding struct {
	check.Finding
	Problem string // what was wrong with the reason given
}

type timingForm struct {
	Local, Zone, Occurrence, Margin string
}

// row is a block as a line of the list that phones get.
type row struct {
	ID, Name, Who, Where, Leader, Dose, ToGo, Clock, Length string
	Phase                                                   drill.Phase
	Out, Chosen                                             bool
	start                                                   clock.Offset
}

// To is the address of something under the session.
func (b *body) To(under ...string) string { return shell.Session(b.ID, under...) }

// Pitch is where the session is run, or its log once it was.
func (b *body) Pitch() string {
	if b.Over {
		return b.To("log")
	}
	return shell.Pitch(b.ID)
}

// Open is the address of the board with a block open.
func (b *body) Open(block string) string { return shell.Block(b.ID, block) }

// step is a hidden link to the block before or after the chosen one.
type step struct{ Key, Block string }

// Prompt is what stands in the field for lines before anything is typed.
func (b *body) Prompt() string {
	if len(b.Rows) > 0 {
		return "Write a block as you say it: " + strings.Join(b.Example, ", ")
	}
	return b.Shape + ":\n" + strings.Join(b.Example, "\n")
}

// Sprinted is how far the most any player sprints is, in the club's unit.
func (b *body) Sprinted() int { return int(b.In.In(float64(b.Drawers.Holds.Carried.SprintMetres))) }

// Steps are the blocks that the keys n and p lead to.
func (b *body) Steps() (steps []step) {
	if len(b.Rows) == 0 {
		return nil
	}
	at := slices.IndexFunc(b.Rows, func(r row) bool { return r.Chosen })
	next, previous := (at+1)%len(b.Rows), (max(at, 0)+len(b.Rows)-1)%len(b.Rows)
	return []step{{"n", b.Rows[next].ID}, {"p", b.Rows[previous].ID}}
}

// OutRows are the blocks that the chart cannot show, since they are left out.
func (b *body) OutRows() []row {
	return slices.DeleteFunc(slices.Clone(b.Rows), func(r row) bool { return !r.Out })
}

// Opened tells whether a block or a tab is open beside the plan.
func (b *body) Opened() bool { return b.Chosen != nil || b.Tab != "" }

// ShowsList tells whether the list of the blocks has room on the screen that it is drawn for: on a phone
// always, on a desk beside a chart while nothing is open, between the two never.
func (b *body) ShowsList() bool {
	return len(b.Rows) > 0 && (b.Screen == "" || b.Screen == phone || b.Screen == wide && !b.Opened())
}

// ShowsMore tells whether there is room for what else there is to say of the plan.
func (b *body) ShowsMore() bool { return b.Screen != wide || !b.Opened() }

// Shifts are the minutes by which the start can be moved with one press.
func (b *body) Shifts() []string { return []string{"-10", "-5", "+5", "+10"} }

// Middle is a moment in the middle of the run-in, in seconds from the start.
func (b *body) Middle() int { return b.From / 2 / 60 * 60 }

// Minutes writes seconds as minutes and seconds.
func (b *body) Minutes(seconds int) string { return clock.Duration(seconds) }

// Show is the board.
func (in Room) Show(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	told, err := in.toldOf(r, b)
	return in.page(r, b, r.Query("block"), nil, func(made *body) { made.Told = told }), err
}

// page is the board with a block open; after a refused form with its problems,
// and with what refill puts back into its fields.
func (in Room) page(r *shell.Request, b *boards.Board, block string, wrong plan.Problems,
	refill func(*body)) *shell.Page {
	if b.Document.Block(block) == nil {
		block = ""
	}
	made := in.bodyOf(r, b, block, wrong)
	if refill != nil {
		refill(made)
	}
	return &shell.Page{Screens: screens, Name: "page", Part: "board", Title: made.Title, Nav: "runin", Body: made}
}

// dayOf says what the day did to the doses; nothing of "as written" where the minutes that there are did something.
func dayOf(b *boards.Board) string {
	does := today.Done(b.Document)
	if does == today.AsWritten && len(b.Verdict().Cuts) > 0 {
		return ""
	}
	return does
}

func (in Room) bodyOf(r *shell.Request, b *boards.Board, block string, wrong plan.Problems) *body {
	d, fitted := b.Document, b.Schedule
	made := &body{ID: b.ID, Revision: b.Revision, Title: d.Title, Verdict: b.Verdict(),
		Late: b.Verdict().Late(fitted.Start, r.Now(), d.StartName), Likely: in.Boards.Likely(b), Paces: b.Paces(),
		LastTime: b.LastTime, Runs: b.Runs && r.Now().Before(fitted.Start), Slack: d.Slack,
		Seek: fitted.Result.Feasible && !fitted.Result.Proven(), Problems: wrong, Newer: b.Newer, Edits: r.Coach(),
		Spare: d.UseSpare, Notes: d.Notes,
		Undo: b.Undo, Redo: b.Redo, Publication: b.Publication, Day: dayOf(b),
		StartName: d.StartName, StartTime: clock.Clock(fitted.Start, 0)}
	made.Example, made.In = b.Plays().Example, d.Measure
	if shape := b.Plays().Shape; len(shape) > 0 {
		made.Shape = shape[0]
	}
	made.saved(r, b)
	made.Sub = shell.Joined(" · ", b.SquadName, fitted.Start.Format("Mon 2 January"), d.Place)
	made.Timing = timingForm{Local: d.Start.Local, Zone: d.Start.Zone, Occurrence: string(d.Start.Occurrence),
		Margin: strings.TrimSuffix(clock.Duration(d.Margin), ":00")}
	_, err := clock.Start{Local: d.Start.Local, Zone: d.Start.Zone}.Resolve()
	made.Repeated = errors.Is(err, clock.ErrRepeated) || strings.Contains(wrong.At("start"), clock.ErrRepeated.Error())
	made.Fresh = b.Publication.Number > 0 && b.Publication.Head == b.Head
	made.Seen = fmt.Sprintf("%d of %d have opened it", b.Opened, len(d.Players)+len(d.Leaders))
	if b.Publication.Token != "" {
		made.Link = r.Origin() + shell.Link(b.Publication.Token)
	}
	made.findings(b, wrong)
	made.things(b)
	made.Turns = turnsOf(d)
	made.rows(b, block)
	made.lists(b, block)
	made.tabs(r, b)
	made.Drawers = in.drawersOf(r, b, made)
	if made.Chosen != nil {
		// a figure beside it: the board stands without
		made.Chosen.HoldCost, _ = in.WhatIf.HoldCost(r.Context(), b, block)
		made.Chosen.Drawers = made.Drawers
	}
	if len(made.Rows) > 0 {
		made.draw(r, b, block)
	} else {
		made.Screen = r.Cookie("screen")
		made.offer(in, r)
	}
	return made
}

// saved says when the plan was changed last, and by whom where that was somebody else.
func (b *body) saved(r *shell.Request, board *boards.Board) {
	b.Saved = "Saved " + board.Made.At.In(board.Schedule.Start.Location()).Format("15:04")
	if board.Made.By != "" && board.Made.Account != r.By.ID {
		b.Saved += " by " + board.Made.By
	}
}

// findings are what checks find, and what of it the coach keeps as it is.
func (b *body) findings(board *boards.Board, wrong plan.Problems) {
	for _, f := range board.Findings {
		one := finding{f, wrong.At(plan.AtException(f.Rule, f.Where))}
		if f.Reason != "" {
			b.Excused = append(b.Excused, one)
		} else {
			b.Findings = append(b.Findings, one)
		}
	}
}

// offer lists what an empty plan can start from.
func (b *body) offer(in Room, r *shell.Request) {
	kept, err := in.Books.Routines(r.Context(), r.Club())
	if err != nil {
		return // there is still a block to add
	}
	b.Routines = nil
	for _, k := range kept {
		b.Routines = append(b.Routines, shell.Choice{Value: strconv.FormatUint(k.ID, 10),
			Label: shell.Joined(", ", k.Is.Name, k.Is.Season)})
	}
}

// What a board is drawn for, as the browser says.
const (
	wide   = "wide"
	narrow = "narrow"
	phone  = "phone"
)

// draw draws the chart that the browser has room for.
func (b *body) draw(r *shell.Request, board *boards.Board, block string) {
	if kept := r.Cookie("screen"); kept == wide || kept == narrow || kept == phone {
		b.Screen = kept
	}
	from, _ := chart.Span(board.Document, board.Blocks, board.Schedule.Events(board.Document))
	b.From = int(from)
	if b.Screen == phone {
		return
	}
	v := chart.View{ID: wide, Width: wideWidth, Labels: wideLabels, Chosen: block}
	if b.Screen == narrow {
		v.ID, v.Width, v.Labels = narrow, narrowWidth, narrowLabels
	}
	if v = b.looked(r, board, v); v.By == chart.OnGround {
		b.Ground = true
		return
	}
	b.Chart = chart.New(drawn(board), v)
}

// rows are the blocks in the order of time, those left out last.
func (b *body) rows(board *boards.Board, chosen string) {
	for i := range board.Blocks {
		one := rowOf(board, board.Document, &board.Blocks[i])
		if one.Chosen = one.ID == chosen; one.Chosen {
			b.Chosen = chosenOf(b, board, board.Document, board.Blocks, i, one)
		}
		b.Rows = append(b.Rows, one)
	}
	slices.SortStableFunc(b.Rows, func(x, y row) int {
		if x.Out != y.Out {
			if x.Out {
				return 1
			}
			return -1
		}
		return int(x.start - y.start)
	})
}

func rowOf(board *boards.Board, d *plan.Document, b *schedule.Block) row {
	one := row{ID: b.ID, Name: b.Name, Phase: b.Phase, Who: d.Audience(b.Who), Where: d.ZoneName(b.Zone),
		Leader: d.LeaderName(b.Leader),
		Out:    !b.Kept, Dose: strings.Join(b.Named(), ", "), start: b.Start}
	if b.Kept {
		one.ToGo, one.Clock, one.Length = b.Start.ToGo(), clock.Clock(board.Schedule.Start, b.Start),
			clock.Lasting(b.Length())
	}
	return one
}

// changed answers a change: with the board as it is then, or with the board as it
// is and what was wrong.
func (in Room) changed(r *shell.Request, block string, b *boards.Board, err error,
	refill func(*body)) (shell.Answer, error) {
	again := func(wrong plan.Problems) (*shell.Page, error) {
		now, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
		if err != nil {
			return nil, err
		}
		return in.page(r, now, block, wrong, refill), nil
	}
	if c := clashOf(r, err); c != nil {
		now, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
		if err != nil {
			return nil, err
		}
		made := in.page(r, now, block, nil, func(b *body) {
			if b.Clash = c; refill != nil {
				refill(b) // what was typed is still there
			}
		})
		made.Status = http.StatusConflict
		return made, nil
	}
	if err != nil {
		return r.Changed(err, nil, again)
	}
	if r.Wants("board") {
		made := in.page(r, b, block, nil, nil)
		made.Status = http.StatusOK
		return made, nil
	}
	return shell.Go(shell.Block(b.ID, block)), nil
}
