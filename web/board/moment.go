package board

import (
	"fmt"
	"html/template"
	"strconv"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// momentBody is the squad at one second: what everybody does, where, how warm they are, and
// the plan of the ground.
type momentBody struct {
	ID          uint64
	At          int // seconds from the start
	Title       string
	ToGo, Clock string
	Rows        []momentRow
	Ground      template.HTML
	Says        []string // what is tight: crowds, walks, a place about to be lost
	Edits, Wide bool
	Usual       bool      // nobody laid the ground out
	Moves       []moveRow // what happens now, to be done in another place

	next map[string]string // what comes after a block, by id: for those who do not all go the same way
}

// momentRow is what a group does.
type momentRow struct {
	Who, Names, Does, Where, Next string
	Phase                         string // key; "": they are at no block
	Letter                        string
	Warm                          string
}

// moveRow is a block that may be done elsewhere.
type moveRow struct{ ID, Name, Zone string }

// Sizes of the plan of the ground beside the board.
const (
	momentWide, momentHigh = 320, 230
	groundWide, groundHigh = 906, 330 // in its place
)

// Moment shows the squad at a second of the run-in.
func (in Room) Moment(r *shell.Request) (shell.Answer, error) {
	at, err := strconv.Atoi(r.Query("at"))
	if err != nil || at > 0 || at < -farthest {
		return nil, planner.ErrNotFound
	}
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	return &shell.Page{Screens: screens, Name: "moment", Part: "moment", Title: "At " + clock.Offset(at).ToGo(),
		Nav: "runin", Body: momentOf(b, clock.Offset(at), r.Coach(), r.Query("wide") != "")}, nil
}

func momentOf(b *boards.Board, at clock.Offset, edits, wide bool) *momentBody {
	d, m := b.Document, b.MomentOf(at)
	made := &momentBody{ID: b.ID, Title: d.Title, At: int(at), ToGo: at.ToGo(),
		Clock: b.Schedule.Start.Add(time.Duration(at) * time.Second).Format("15:04:05"), Edits: edits}
	var ways []chalk.Way
	walked := map[string]bool{}
	made.next = map[string]string{}
	for i := range m.Groups {
		g := &m.Groups[i]
		made.follows(d, g)
		made.Rows = append(made.Rows, rowAt(d, g))
		if w := g.Walk; w != nil {
			there := "there is no time for it"
			if w.There > 0 {
				there = "there is " + clock.Lasting(w.There)
			}
			says := fmt.Sprintf("%s to %s: %s, a walk of %s, %s", w.From.Name, w.To.Name,
				d.Measure.Length(float64(w.Metres)), clock.Lasting(w.Needs), there)
			if !walked[says] {
				walked[says] = true
				ways = append(ways, chalk.Way{From: w.From, To: w.To, Says: says, Tight: w.Tight()})
				if w.Tight() {
					made.Says = append(made.Says, says)
				}
			}
		}
	}
	spots := make([]chalk.Spot, len(m.Places))
	made.Usual = true
	for i := range m.Places {
		made.Usual = made.Usual && !m.Places[i].Said
		spots[i] = spotOf(d, &m.Places[i], made)
	}
	made.Ground = chalk.Ground("The ground at "+at.ToGo(), d.Measure, spots, ways, momentWide, momentHigh)
	if made.Wide = wide; wide {
		made.Ground = chalk.Ground("The ground at "+at.ToGo(), d.Measure, spots, ways, groundWide, groundHigh)
	}
	return made
}

// follows notes what comes after the block that a group is at.
func (made *momentBody) follows(d *plan.Document, g *boards.Group) {
	if g.Block == nil || g.Next == nil {
		return
	}
	next := "then " + g.Next.Name
	if g.Next.Zone != g.Block.Zone {
		next = shell.Joined(", ", next, d.ZoneName(g.Next.Zone))
	}
	switch was := made.next[g.Block.ID]; {
	case was == "":
		made.next[g.Block.ID] = next
	case !strings.Contains(was, strings.TrimPrefix(next, "then ")):
		made.next[g.Block.ID] = was + "; " + strings.TrimPrefix(next, "then ")
	}
}

// spotOf is a place with what happens there, and what is tight about it.
func spotOf(d *plan.Document, p *boards.Standing, made *momentBody) chalk.Spot {
	spot := chalk.Spot{Place: p.Place, People: p.People, Key: p.ID}
	if p.People > 0 {
		spot.Class = "here"
	}
	for _, g := range p.Groups {
		spot.Lines = append(spot.Lines, shell.Joined(" · ", g.Name, d.LeaderName(g.Leader)))
		if next := made.next[g.ID]; next != "" {
			spot.Lines = append(spot.Lines, next)
		}
		made.Moves = append(made.Moves, moveRow{g.ID, g.Name, p.ID})
	}
	if p.People > 0 {
		spot.Lines = append(spot.Lines, fmt.Sprintf("%d of %d", p.People, p.Capacity))
	}
	if p.People > p.Capacity {
		spot.Class = "full"
		made.Says = append(made.Says, fmt.Sprintf("%s: %d people where %d have room", p.Name, p.People, p.Capacity))
	}
	if p.LostIn > 0 {
		spot.Class += " lost"
		spot.Lines = append(spot.Lines, "lost in "+clock.Lasting(p.LostIn))
	}
	return spot
}

func rowAt(d *plan.Document, g *boards.Group) momentRow {
	row := momentRow{Who: d.Numbers(g.Players), Warm: d.Measure.Warmer(g.Warm), Does: "free", Letter: "–"}
	row.Names = d.FirstNames(g.Players, func(text string) bool { return len(text) < 24 })
	until := ""
	if g.Until < 0 {
		until = ", until " + g.Until.ToGo()
	}
	switch {
	case g.Block != nil:
		row.Does, row.Phase, row.Letter = g.Block.Name+until, g.Block.Phase.Key(), g.Block.Phase.Letter()
		row.Where = shell.Joined(", ", d.ZoneName(g.Block.Zone), d.LeaderName(g.Block.Leader))
	case g.Event != "":
		row.Does, row.Phase = g.Event+until, "fixed"
	default:
		row.Does += until
	}
	if g.Next != nil {
		row.Next = "then " + shell.Joined(", ", g.Next.Name, d.ZoneName(g.Next.Zone))
	}
	row.Names = strings.TrimSpace(row.Names)
	return row
}

// Steps are other moments, by seconds from the start.
func (m *momentBody) Steps() (list []shell.Choice) {
	for _, by := range []int{-300, -60, 60, 300} {
		label := fmt.Sprintf("%d min on", by/60)
		if by < 0 {
			label = fmt.Sprintf("%d min back", -by/60)
		}
		list = append(list, shell.Choice{Value: strconv.Itoa(max(-farthest, min(0, m.At+by))), Label: label})
	}
	return list
}

// To is the address of something under the session.
func (m *momentBody) To(under ...string) string { return shell.Session(m.ID, under...) }
