package log

import (
	"cmp"
	"fmt"
	"html/template"
	"io"
	"math"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/conduct"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/trial"
	"cuestart/planner/learn"
	"cuestart/share"
	"cuestart/web/shell"
)

// SaveLog saves a log as CSV or JSON.
func (in Room) SaveLog(r *shell.Request) (shell.Answer, error) {
	l, err := in.Learn.Log(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	if err := in.Staff.Audit(r.Context(), r.By, "exported", "the log of "+l.Title); err != nil {
		return nil, err
	}
	file := share.NewLogFile(l.Title, l.Day, l.Season, l.Note, &l.Log.Log)
	if strings.HasSuffix(r.Path(), ".json") {
		return shell.File{Name: "log-" + l.Day + ".json", Kind: shell.JSON,
			Write: func(w io.Writer) error { return share.WriteJSON(w, file) }}, nil
	}
	return shell.File{Name: "log-" + l.Day + ".csv", Kind: shell.CSV,
		Write: func(w io.Writer) error { return share.WriteLog(w, file) }}, nil
}

// SaveWeek saves what a week gave as CSV or JSON, or as a picture.
func (in Room) SaveWeek(r *shell.Request) (shell.Answer, error) {
	w, err := in.Learn.Week(r.Context(), r.Club(), r.QueryID("squad"), dayOf(r, r.Query("day")))
	if err != nil {
		return nil, err
	}
	if strings.HasSuffix(r.Path(), ".svg") {
		return shell.Raw{Kind: shell.SVG, Content: []byte(weekPicture(w))}, nil
	}
	if err := in.Staff.Audit(r.Context(), r.By, "exported", "a week of "+w.Squad.Name); err != nil {
		return nil, err
	}
	var lines []share.WeekLine
	for _, weekly := range w.People {
		var mine []share.WeekLine
		for cell, seconds := range w.Given[weekly.Key].Seconds {
			mine = append(mine, share.WeekLine{Player: weekly.Name, Region: cell.Region, Quality: cell.Quality,
				Minutes: math.Round(seconds/60*100) / 100})
		}
		slices.SortFunc(mine, func(a, b share.WeekLine) int {
			return cmp.Or(slices.Index(drill.Regions, a.Region)-slices.Index(drill.Regions, b.Region),
				slices.Index(drill.Qualities, a.Quality)-slices.Index(drill.Qualities, b.Quality))
		})
		lines = append(lines, mine...)
	}
	name := "week-" + w.Monday.Format("2006-01-02")
	if strings.HasSuffix(r.Path(), ".json") {
		return shell.File{Name: name + ".json", Kind: shell.JSON,
			Write: func(out io.Writer) error { return share.WriteJSON(out, lines) }}, nil
	}
	return shell.File{Name: name + ".csv", Kind: shell.CSV, Write: func(out io.Writer) error {
		return share.WriteWeek(out, lines)
	}}, nil
}

// Sizes of the picture of a week.
const (
	cellWide, cellHigh = 58, 30
	pictureLeft        = 90
	pictureTop         = 130
)

// weekPicture is the squad's mean minutes by joint and quality, as a picture that stands by
// itself: its tones are in it.
func weekPicture(w *learn.Week) string {
	b := &weekBody{}
	b.table(w)
	wide, high := pictureLeft+cellWide*len(b.Qualities)+20, pictureTop+cellHigh*len(b.Rows)+40
	var s strings.Builder
	esc := template.HTMLEscapeString
	fmt.Fprintf(&s,
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="Barlow Condensed, Arial Narrow, sans-serif" font-size="16"><rect width="%d" height="%d" fill="#f5f1e7"/>`,
		wide, high, wide, high)
	fmt.Fprintf(&s,
		`<text x="12" y="28" font-size="22" font-weight="600" fill="#16231f">%s, %s</text><text x="12" y="48" fill="#52615a">minutes by joint and quality, the mean of the squad</text>`,
		esc(w.Squad.Name), esc(w.Monday.Format("2 Jan")+" to "+w.Monday.AddDate(0, 0, 6).Format("2 January 2006")))
	for i, q := range b.Qualities {
		x := pictureLeft + cellWide*i + cellWide/2
		fmt.Fprintf(&s, `<text transform="translate(%d %d) rotate(-45)" fill="#16231f">%s</text>`, x, pictureTop-8,
			esc(q))
	}
	for j, row := range b.Rows {
		y := pictureTop + cellHigh*j
		fmt.Fprintf(&s, `<text x="12" y="%d" fill="#16231f">%s</text>`, y+20, esc(row.Region))
		for i, c := range row.Cells {
			x := pictureLeft + cellWide*i
			fmt.Fprintf(&s,
				`<rect x="%d" y="%d" width="%d" height="%d" fill="#1f7f78" fill-opacity="%.2f" stroke="#d3cbb8"/><text x="%d" y="%d" text-anchor="middle" fill="#16231f">%s</text>`,
				x, y, cellWide, cellHigh, 0.6*float64(c.Share)/100, x+cellWide/2, y+20, c.Minutes)
		}
	}
	s.WriteString(`</svg>`)
	return s.String()
}

// reportBody is one page of what was done, of the squad or of a player.
type reportBody struct {
	ID       uint64
	Title    string
	Day      string
	Name     string // of the player; "": the squad
	Blocks   []reportBlock
	Differs  []string
	Changed  []string
	There    string
	Effort   string
	Tests    []string
	Cautions []string
	Note     string
	People   []shell.Choice
}

// reportBlock is a block of the report.
type reportBlock struct {
	Name   string
	Phase  drill.Phase
	Lasted string
	Doses  []string
	Note   string
}

// To is the address of something under the session.
func (b *reportBody) To(under ...string) string { return shell.Session(b.ID, under...) }

// Report is one page of what was done, to print.
func (in Room) Report(r *shell.Request) (shell.Answer, error) {
	l, err := in.Learn.Log(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	b := &reportBody{ID: l.Session, Title: l.Title, Day: l.Start.Format("Monday 2 January 2006"), Differs: l.Differs,
		Changed: l.Changed, Note: l.Note}
	person := ""
	there, sum, said := 0, 0, 0
	for _, p := range l.Players {
		b.People = append(b.People, shell.Choice{Value: p.Person, Label: p.Name})
		if p.Person == r.Query("player") {
			person, b.Name = p.Person, p.Name
		}
		if p.Was != conduct.Away {
			there++
		}
		if p.Effort >= 0 && (r.Query("player") == "" || p.Person == r.Query("player")) {
			sum, said = sum+p.Effort, said+1
		}
	}
	b.There = fmt.Sprintf("%d of %d there", there, len(l.Players))
	if said > 0 {
		b.Effort = fmt.Sprintf("%.1f of 10", float64(sum)/float64(said))
	}
	b.blocks(l, person)
	return &shell.Page{Screens: screens, Name: "report", Title: "Report, " + l.Title, Nav: "log", Body: b},
		b.tests(in, r, l, person)
}

// blocks are those that were done, by the squad or by a person, with the cautions of their
// drills.
func (b *reportBody) blocks(l *learn.Log, person string) {
	for i := range l.Blocks {
		logged := &l.Blocks[i]
		if logged.Actual == 0 || person != "" && !slices.Contains(logged.Who, person) {
			continue
		}
		row := reportBlock{Name: logged.Name, Phase: logged.Phase, Lasted: clock.Lasting(logged.Actual),
			Note: logged.Note}
		known := l.Document.Block(logged.Block)
		for _, d := range logged.Drills {
			if person != "" && slices.Contains(d.Without, person) {
				continue
			}
			words := d.Name
			if known != nil && d.Item < len(known.Items) {
				k := &known.Items[d.Item].Drill
				words += " " + k.Words(d.Amount)
				b.Cautions = plan.AddCaution(b.Cautions, k.Caution)
			}
			row.Doses = append(row.Doses, words)
		}
		b.Blocks = append(b.Blocks, row)
	}
}

// tests are what was measured before and after.
func (b *reportBody) tests(in Room, r *shell.Request, l *learn.Log, person string) error {
	for _, known := range trial.Known {
		t, err := in.Learn.Tests(r.Context(), r.Club(), l.Session, known)
		if err != nil {
			return err
		}
		for _, tested := range t.Players {
			if person != "" && tested.Did[0] && tested.Did[1] && strings.HasSuffix(tested.Name, b.Name) {
				b.Tests = append(b.Tests, known.Name+": "+t.Test.Words(tested.Change))
			}
		}
		if person == "" && t.Both {
			b.Tests = append(b.Tests, known.Name+": "+t.Test.Words(t.Squad))
		}
	}
	return nil
}
