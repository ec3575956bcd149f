package web

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/today"
	"cuestart/planner"
	"cuestart/store"
)

// boardBody is the Run-in page.
type boardBody struct {
	ID          uint64
	Edition     uint32
	Title, Sub  string
	Verdict     verdict
	Findings    []finding
	Kept        []finding
	Factors     []string // what the day does to the doses
	Head        headForm
	Fixed       []fixedForm
	Players     []playerLine
	Day         dayForm
	DayFactors  []tickBox
	Problems    plan.Problems // of the form that was sent, if it was refused
	Stale       bool
	Newer       []string // rulings that the plan does not hold yet
	Edits       bool     // who looks may change it
	Timing      timingForm
	Spare       bool
	Charts      []chart // for wide and for narrow screens
	Rows        []boardRow
	Chosen      *chosen
	Add         addForm
	Carried     drill.Load
	Saved       string
	Undo, Redo  string
	Publication store.Publication
	Fresh       bool // what is published is the plan in force
	Link        string
	StartName   string
	StartTime   string
}

// finding is something that the checks found.
type finding struct {
	check.Finding
	Word, Problem string // how grave it is; what was wrong with the reason given
}

var severityWords = map[check.Severity]string{check.Stop: "Do not run it so", check.Warn: "Look at", check.Note: "Mind"}

// step is a hidden link to the block before or after the chosen one.
type step struct{ Key, Block string }

// BlockProblem is what was wrong with what is said of a block.
func (b *boardBody) BlockProblem(id string) string {
	for _, field := range []string{"name", "who", "zone", "stations"} {
		if what := b.Problems.At("blocks." + id + "." + field); what != "" {
			return what
		}
	}
	return ""
}

// HeadProblem is what was wrong with what is said of the session.
func (b *boardBody) HeadProblem() string {
	for _, field := range []string{"title", "place", "start_name", "method"} {
		if what := b.Problems.At(field); what != "" {
			return what
		}
	}
	for _, p := range b.Problems { // a block of a phase that the method lacks
		if strings.HasSuffix(p.Where, ".phase") {
			return "A block stands in a phase that this method does not have: move or remove it first."
		}
	}
	return ""
}

// Steps are the blocks that the keys n and p lead to.
func (b *boardBody) Steps() (steps []step) {
	if len(b.Rows) == 0 {
		return nil
	}
	at := slices.IndexFunc(b.Rows, func(r boardRow) bool { return r.Chosen })
	next, previous := (at+1)%len(b.Rows), (max(at, 0)+len(b.Rows)-1)%len(b.Rows)
	return []step{{"n", b.Rows[next].ID}, {"p", b.Rows[previous].ID}}
}

// OutRows are the blocks that the chart cannot show, since they are left out.
func (b *boardBody) OutRows() (out []boardRow) {
	for _, r := range b.Rows {
		if r.Out {
			out = append(out, r)
		}
	}
	return out
}

// Priorities are the choices of a new block.
func (b *boardBody) Priorities() []plan.Priority { return plan.Priorities }

// Shifts are the minutes by which the start can be moved with one press.
func (b *boardBody) Shifts() []string { return []string{"-20", "-5", "+5", "+20"} }

// Minutes writes seconds as minutes and seconds.
func (b *boardBody) Minutes(seconds int) string { return clock.Duration(seconds) }

// headForm is what is said of the session as a whole.
type headForm struct {
	Title, Place, StartName, Method, Open string
	Methods                               []methodChoice
}

// fixedForm is a fixed event, open for change.
type fixedForm struct {
	ID, Name, Who, WhoName, From, To string
	Active                           bool
}

// playerLine is a player of the plan, and whether they come in time.
type playerLine struct {
	ID, Name, Ruling string
	Late             int
}

type timingForm struct {
	Local, Zone, Occurrence, Margin string
}

// boardRow is a block as a line of the list that phones and screen readers get.
type boardRow struct {
	ID, Name, Who, Where, Leader, Dose, ToGo, Clock, Length string
	Phase                                                   drill.Phase
	Out, Chosen                                             bool
}

// chosen is the block that is open for change.
type chosen struct {
	boardRow
	Aim, Why   string
	Because    string   // why it is in the plan
	Versions   []string // who does it otherwise, as medical staff ruled
	Cost       string   // what it leaves in each player, and what it takes
	WhoID      string   // "": several, picked one by one
	ZoneID     string
	LeaderID   string
	Stations   int
	Zones      []audience
	Leaders    []audience
	Fits       []drill.Drill // what may be put in beside
	Several    bool          // more than one drill
	Items      []chosenItem
	Priority   plan.Priority
	Priorities []plan.Priority
	Up, Down   bool
	Before     string // the block that Up exchanges it with
	After      string // the block that Down exchanges it with
	Cautions   []string
}

// KeyOf is the key that picks priority n.
func (c *chosen) KeyOf(n int) string { return strconv.Itoa(n + 1) }

type chosenItem struct {
	Index            int
	Name, Words, Cue string
	Code             string
	Range            drill.Range
	Planned          string // what it comes to today, where that is not what was asked for
	Problem          string
	Less, More       bool
}

type addForm struct {
	Open                        bool
	Drill, Who, Phase, Priority string
	Groups                      []drillGroup
	Audiences                   []audience
}

type drillGroup struct {
	Phase  drill.Phase
	Name   string
	Drills []drill.Drill
}

// Value is what the form sends for a drill of the group.
func (g drillGroup) Value(code string) string { return tile(g.Phase) + " " + code }

type audience struct{ ID, Name string }

// part tells whether the page's script asks, for the board alone.
func part(c *gin.Context) bool { return c.GetHeader("X-Part") == "board" }

func sessionID(c *gin.Context) uint64 {
	id, _ := strconv.ParseUint(c.Param("session"), 10, 64) // 0, which nothing has, if it is none
	return id
}

func (s *Site) board(c *gin.Context) {
	s.showBoard(c, http.StatusOK, c.Query("block"), nil, nil)
}

// showBoard writes the board, after a refused form with its problems and
// whatever refill puts back into its fields.
func (s *Site) showBoard(c *gin.Context, status int, block string, refused plan.Problems, refill func(*boardBody)) {
	b, err := s.Planner.Board(c.Request.Context(), account(c).ClubID, sessionID(c))
	if err != nil {
		s.failed(c, err)
		return
	}
	body := s.boardBody(c, b, block, refused)
	if refill != nil {
		refill(body)
	}
	if part(c) {
		s.part(c, status, "board/board", "board", body)
		return
	}
	s.show(c, status, "board/board", body.Title, "runin", body)
}

func (s *Site) boardBody(c *gin.Context, b *planner.Board, block string, refused plan.Problems) *boardBody {
	d, fitted := b.Document, b.Schedule
	base := fmt.Sprintf("/sessions/%d", b.ID)
	body := &boardBody{ID: b.ID, Edition: b.Edition, Title: d.Title, Verdict: judge(d, fitted), Problems: refused,
		Timing:  timingForm{Local: d.Start.Local, Zone: d.Start.Zone, Occurrence: string(d.Start.Occurrence), Margin: strings.TrimSuffix(clock.Duration(d.Margin), ":00")},
		Carried: carried(d, fitted), Undo: b.Undo, Redo: b.Redo, Publication: b.Publication, StartName: d.StartName, StartTime: clock.Clock(fitted.Start, 0)}
	body.Sub = strings.Join(nonEmpty(b.SquadName, fitted.Start.Format("Monday 2 January"), d.Place, fmt.Sprintf("%d players", len(d.Players))), " · ")
	body.Saved = fmt.Sprintf("Saved %s", b.Made.At.In(fitted.Start.Location()).Format("15:04"))
	body.Spare, body.Newer, body.Edits = d.UseSpare, b.Newer, coach(c)
	body.Fresh = b.Publication.Number > 0 && b.Publication.Head == b.Head
	if b.Publication.Token != "" {
		body.Link = s.origin(c) + "/r/" + b.Publication.Token
	}
	if d.Block(block) == nil {
		block = ""
	}
	for _, f := range b.Findings {
		one := finding{f, severityWords[f.Severity], refused.At(plan.AtException(f.Rule, f.Where))}
		if f.Reason != "" {
			body.Kept = append(body.Kept, one)
		} else {
			body.Findings = append(body.Findings, one)
		}
	}
	body.Head = headForm{Title: d.Title, Place: d.Place, StartName: d.StartName, Method: d.Method, Open: momentText(d.Open, fitted.Start), Methods: methodChoices()}
	for _, f := range d.Fixed {
		one := fixedForm{ID: f.ID, Name: f.Name, WhoName: who(d, f.Who), From: momentText(f.Span.From, fitted.Start), To: momentText(f.Span.To, fitted.Start), Active: f.Active}
		if len(f.Who) == 1 {
			one.Who = f.Who[0]
		}
		body.Fixed = append(body.Fixed, one)
	}
	for _, p := range d.Players {
		line := playerLine{ID: p.ID, Name: p.First + " " + p.Last, Late: p.Late / 60}
		if p.Number > 0 {
			line.Name = fmt.Sprintf("%d %s", p.Number, line.Name)
		}
		for _, r := range d.Restrictions {
			if r.Player == p.ID {
				line.Ruling = strings.Join(nonEmpty(line.Ruling, planner.Words(r)), ", ")
			}
		}
		body.Players = append(body.Players, line)
	}
	body.Day = dayFormOf(d.Today)
	for _, f := range today.Factors(d) {
		on := !slices.Contains(d.Today.Off, f.ID)
		body.DayFactors = append(body.DayFactors, tickBox{f.ID, f.Words(phaseNames[f.Phase]), on})
		if !slices.Contains(d.Today.Off, f.ID) {
			effect := fmt.Sprintf("%s × %.4g", phaseNames[f.Phase], f.Times)
			if n := len(body.Factors) - 1; n >= 0 && strings.HasPrefix(body.Factors[n], f.Reason+": ") {
				body.Factors[n] += ", " + effect
			} else {
				body.Factors = append(body.Factors, f.Reason+": "+effect)
			}
		}
	}
	body.Charts = []chart{
		newChart(b, "wide", 906, 120, base, block),
		newChart(b, "narrow", 720, 112, base, block),
	}
	for i := range d.Blocks {
		row := boardRowOf(b, i)
		row.Chosen = row.ID == block
		body.Rows = append(body.Rows, row)
		if row.Chosen {
			body.Chosen = chosenOf(b, i, row, refused)
		}
	}
	slices.SortStableFunc(body.Rows, func(x, y boardRow) int {
		if x.Out != y.Out {
			return map[bool]int{false: -1, true: 1}[x.Out]
		}
		return int(startOf(b, x.ID) - startOf(b, y.ID))
	})
	body.Add = addFormOf(d, b.Drills)
	return body
}

func startOf(b *planner.Board, id string) clock.Offset {
	for _, r := range b.Schedule.Result.Blocks {
		if r.ID == id {
			return r.Start
		}
	}
	return 0
}

func boardRowOf(b *planner.Board, i int) boardRow {
	d, r := b.Document, &b.Schedule.Result.Blocks[i]
	block := &d.Blocks[i]
	row := boardRow{ID: block.ID, Name: block.Name, Phase: block.Phase, Who: who(d, block.Who), Where: zoneName(d, block.Zone), Leader: leaderName(d, block.Leader),
		Out: !r.Kept, Dose: strings.Join(doses(block, b.Schedule.Amounts[i]), ", ")}
	if r.Kept {
		row.ToGo, row.Clock, row.Length = r.Start.ToGo(), clock.Clock(b.Schedule.Start, r.Start), clock.Duration(int(r.End-r.Start))
	}
	return row
}

func chosenOf(b *planner.Board, i int, row boardRow, refused plan.Problems) *chosen {
	block, r := &b.Document.Blocks[i], &b.Schedule.Result.Blocks[i]
	found := &chosen{boardRow: row, Aim: block.Aim, Because: block.Why, Why: r.Why, Priority: block.Priority, Priorities: plan.Priorities}
	if len(block.Who) == 1 {
		found.WhoID = block.Who[0]
	}
	found.ZoneID, found.LeaderID, found.Stations, found.Several = block.Zone, block.Leader, block.Stations, len(block.Items) > 1
	for _, z := range b.Document.Zones {
		found.Zones = append(found.Zones, audience{z.ID, z.Name})
	}
	for _, l := range b.Document.Leaders {
		found.Leaders = append(found.Leaders, audience{l.ID, l.Name})
	}
	for _, k := range b.Drills {
		if k.Serves(block.Phase) {
			found.Fits = append(found.Fits, k)
		}
	}
	for n, item := range block.Items {
		known := item.Drill
		line := chosenItem{Index: n, Code: known.Code, Name: known.Name, Words: known.Words(known.Range.Target), Range: known.Range,
			Less: known.Range.Target > known.Range.Min, More: known.Range.Target < known.Range.Max,
			Problem: refused.At(fmt.Sprintf("blocks.%s.items.%d", block.ID, n))}
		if amounts := b.Schedule.Amounts[i]; amounts != nil && amounts[n] != known.Range.Target {
			line.Planned = known.Words(amounts[n])
		}
		found.Cautions = warn(found.Cautions, known.Caution)
		found.Items = append(found.Items, line)
	}
	found.Cost, found.Versions = blockCost(b, i), versions(b.Document, block.ID)
	for n := range b.Document.Blocks {
		if b.Document.Blocks[n].Phase == block.Phase {
			switch name := b.Document.Blocks[n].Name; {
			case n < i:
				found.Up, found.Before = true, name
			case n > i && !found.Down:
				found.Down, found.After = true, name
			}
		}
	}
	return found
}

func addFormOf(d *plan.Document, drills []drill.Drill) addForm {
	form := addForm{Priority: string(plan.Should), Who: plan.Everyone}
	for _, phase := range append(slices.Clone(plan.Methods[d.Method].Phases), drill.Own) {
		group := drillGroup{Phase: phase, Name: phaseNames[phase]}
		for _, known := range drills {
			if known.Serves(phase) {
				group.Drills = append(group.Drills, known)
			}
		}
		form.Groups = append(form.Groups, group)
	}
	form.Audiences = append(form.Audiences, audience{plan.Everyone, "Whole squad"})
	for _, u := range d.Units {
		form.Audiences = append(form.Audiences, audience{u.ID, u.Name})
	}
	for _, p := range d.Players {
		name := p.ShortName()
		if p.Number > 0 {
			name = fmt.Sprintf("%d %s", p.Number, name)
		}
		form.Audiences = append(form.Audiences, audience{p.ID, name})
	}
	return form
}

// blockCost says what a block leaves in each player, and the kit that it takes.
func blockCost(b *planner.Board, i int) string {
	block, group, sum := &b.Document.Blocks[i], b.Document.Group(&b.Document.Blocks[i]), drill.Load{}
	var kit []string
	for n, item := range block.Items {
		amount := item.Drill.Range.Target
		if amounts := b.Schedule.Amounts[i]; amounts != nil {
			amount = amounts[n]
		}
		sum = sum.Add(item.Drill.Load(amount, group))
		for _, k := range slices.Concat(item.Drill.Kit, item.Drill.LaneKit) {
			if !slices.Contains(kit, k) {
				kit = append(kit, k)
			}
		}
	}
	words := count(sum.Contacts, "contacts", sum.SprintMetres, "m sprinted", sum.Acts, "acts")
	if sum.GroundSeconds > 0 {
		words = append(words, clock.Duration(sum.GroundSeconds)+" on the ground")
	}
	if len(words) > 0 {
		words = []string{"Each: " + strings.Join(words, ", ")}
	}
	if len(kit) > 0 {
		words = append(words, "takes "+strings.Join(kit, ", "))
	}
	return strings.Join(words, " · ")
}

func nonEmpty(words ...string) []string {
	return slices.DeleteFunc(words, func(w string) bool { return w == "" })
}

// origin is how others reach the site.
func (s *Site) origin(c *gin.Context) string {
	if s.URL != "" {
		return strings.TrimSuffix(s.URL, "/")
	}
	if s.Secure {
		return "https://" + c.Request.Host
	}
	return "http://" + c.Request.Host
}
