package web

import (
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
)

// sheetBody is the staff's sheet: one A4 page, in the order of time.
type sheetBody struct {
	ID                           uint64
	Title, Sub, StartName, Start string
	Verdict                      verdict
	Rows                         []sheetRow
	Kit                          []kitLine
	Cautions                     []string
	Made                         string
	Cuts                         []cutLine
}

type sheetRow struct {
	at                      clock.Offset
	ToGo, Clock, Length     string
	Phase                   drill.Phase
	Fixed                   bool
	Name, Who, Numbers      string
	Dose                    []string
	Cue, Where, Leader, Cut string
	Versions                []string // who does it otherwise
}

// kitLine is a piece of kit and who carries it out.
type kitLine struct{ Kit, Who string }

func (s *Site) sheet(c *gin.Context) {
	b, err := s.Planner.Board(c.Request.Context(), account(c).ClubID, sessionID(c))
	if err != nil {
		s.failed(c, err)
		return
	}
	cuts, err := s.Planner.CutDowns(c.Request.Context(), b)
	if err != nil {
		s.failed(c, err)
		return
	}
	body := sheetOf(b)
	for n, cut := range cuts {
		minutes := clock.Offset(-cut.Minutes).MinutesToGo()
		if last := len(body.Cuts) - 1; len(cut.Says) == 0 && n > 0 {
			body.Cuts[last].DownTo = minutes
			continue
		}
		line := cutLine{Minutes: minutes, Work: clock.Duration(cut.Work), Says: strings.Join(cut.Says, ", ")}
		if n == 0 {
			line.Says = "as on the front"
		}
		body.Cuts = append(body.Cuts, line)
	}
	if last := len(body.Cuts) - 1; len(cuts) > 1 {
		body.Cuts[last].Says += "; nothing less holds the musts"
	}
	s.show(c, http.StatusOK, "sheet/sheet", b.Document.Title+" sheet", "runin", body)
}

// cutLine is what changes when there are only so many minutes, down to which
// it stays the same.
type cutLine struct{ Minutes, DownTo, Work, Says string }

func sheetOf(b *planner.Board) sheetBody {
	d, fitted := b.Document, b.Schedule
	body := sheetBody{ID: b.ID, Title: d.Title, StartName: d.StartName, Start: clock.Clock(fitted.Start, 0), Verdict: judge(d, fitted),
		Sub:  strings.Join(nonEmpty(b.SquadName, fitted.Start.Format("Monday 2 January 2006"), d.Place), " · "),
		Made: b.Made.At.In(fitted.Start.Location()).Format("Mon 2 Jan 15:04")}
	kit := map[string][]string{}
	for i := range fitted.Result.Blocks {
		r, block := &fitted.Result.Blocks[i], &d.Blocks[i]
		if !r.Kept {
			continue
		}
		row := sheetRow{at: r.Start, ToGo: r.Start.ToGo(), Clock: clock.Clock(fitted.Start, r.Start), Length: clock.Duration(int(r.End - r.Start)), Phase: block.Phase,
			Name: block.Name, Who: who(d, block.Who), Where: zoneName(d, block.Zone), Leader: leaderName(d, block.Leader), Cut: r.Why}
		if members := d.Members(block.Who); len(members) < len(d.Players) {
			row.Numbers = numbers(d, members)
		}
		row.Versions = versions(d, block.ID)
		words := doses(block, fitted.Amounts[i])
		for n, item := range block.Items {
			row.Dose = append(row.Dose, item.Drill.Name+": "+words[n])
			for _, piece := range item.Drill.Kit {
				kit[piece] = append(kit[piece], d.Members(block.Who)...)
			}
			body.Cautions = warn(body.Cautions, item.Drill.Caution)
		}
		body.Rows = append(body.Rows, row)
	}
	for _, f := range fitted.Fixed {
		row := sheetRow{at: f.Start, ToGo: f.Start.ToGo(), Clock: clock.Clock(fitted.Start, f.Start), Length: clock.Duration(int(f.End - f.Start)), Fixed: true, Name: fixedName(d, f.ID), Who: who(d, f.Players)}
		for _, known := range d.Fixed {
			if known.ID == f.ID {
				row.Name, row.Who = known.Name, who(d, known.Who)
			}
		}
		body.Rows = append(body.Rows, row)
	}
	slices.SortStableFunc(body.Rows, func(x, y sheetRow) int { return int(x.at - y.at) })
	for piece, members := range kit {
		body.Kit = append(body.Kit, kitLine{piece, numbersOf(d, members)})
	}
	slices.SortFunc(body.Kit, func(x, y kitLine) int { return strings.Compare(x.Kit, y.Kit) })
	return body
}

// numbersOf is the numbers of players, each once, or "everybody".
func numbersOf(d *plan.Document, members []string) string {
	members = d.Members(members)
	if len(members) == len(d.Players) {
		return "everybody"
	}
	return numbers(d, members)
}
