package board

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/core/warmth"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

// drawers are the parts of the board that are closed until somebody wants them:
// each is filled only where it is open.
type drawers struct {
	Block    bool // of the chosen block: who, where, drills
	Head     *headForm
	Fixed    *fixedForm
	People   *peopleForm
	Day      *dayForm
	Routine  *routineForm
	Carry    *carryForm
	Lists    bool
	Found    bool
	Holds    *holdsForm
	Everyone []shell.Choice // whom something fixed may be for
}

// headForm is what is said of the session as a whole.
type headForm struct {
	Title, Place, StartName, Method, Open string
	Methods                               []shell.MethodChoice
	Order                                 string // how the method would list the blocks; "": it is so
	Problem                               string
}

// fixedForm is what the day holds.
type fixedForm struct {
	Events  []event
	Places  []shell.Choice
	Problem string
}

// event is a fixed event, open for change.
type event struct {
	ID, Name, Who, WhoName, From, To, Zone string
	Active                                 bool
}

// peopleForm is who is there.
type peopleForm struct {
	Players []playerLine
	Roles   []roleLine
	Match   bool // some may not begin
	Problem string
}

// playerLine is a player of the plan, and whether they come in time.
type playerLine struct {
	ID, Name, Ruling string
	Arrives          string // the time on the clock, if late
	Lateness         string // what they miss so
	Over             bool   // late, and works on over the line-up
	Bench            bool   // does not begin
}

// dayForm is the day's conditions, and what they do to the doses.
type dayForm struct {
	shell.Day
	Factors []shell.Tick
	Facing  string
}

// routineForm keeps the blocks as a routine.
type routineForm struct {
	Problem string
	Kept    []shell.Choice // those that there are
	Chosen  *chosen        // the block that may be kept alone
}

// drawersOf fills the drawers that are open: those that the page's script says
// are, the one that the address asks for, and one with a problem in it.
func (in Room) drawersOf(r *shell.Request, board *boards.Board, page *body) (open drawers) {
	d, wrong := board.Document, page.Problems
	asked := append(strings.Split(r.Header("X-Open"), ","), r.Query("drawer"))
	wanted := func(name string, problems ...string) bool {
		return slices.Contains(asked, name) || slices.ContainsFunc(problems, func(p string) bool { return p != "" })
	}
	open.Block = page.Chosen != nil && wanted("block", page.Chosen.Problem)
	if head := headProblem(wrong); wanted("session", head) {
		open.Head = &headForm{Title: d.Title, Place: d.Place, StartName: d.StartName, Method: d.Method,
			Open:    shell.MomentText(d.Open, board.Schedule.Start),
			Methods: shell.Methods(), Problem: head, Order: methodOrder(d)}
	}
	if page.Tab == tabTimes {
		open.Fixed, open.Everyone = in.fixedOf(r, board, wrong.At("fixed"))
	}
	if problem := cmp.Or(wrong.At("players"), wrong.At("roles")); page.Tab == tabPeople {
		open.People = &peopleForm{Players: playerLines(board), Roles: rolesOf(d),
			Match: d.Kind == plan.Match && len(d.Players) > 1, Problem: problem}
	}
	if page.Tab == tabDay {
		open.Day = &dayForm{shell.DayOf(d.Today, d.Measure), factorTicks(d), facingText(d)}
	}
	if page.Tab == tabKit {
		open.Carry = carryOf(d, board.Blocks, wrong.At("bring"))
	}
	if wanted("holds") {
		open.Holds = holdsOf(board)
	}
	open.Lists, open.Found = page.Tab == tabLists, wanted("found")
	for _, f := range page.Findings {
		open.Found = open.Found || f.Problem != "" // why it may not be kept so is said there
	}
	if page.Chosen != nil && wanted("groups", wrong.At(plan.AtBlock(page.Chosen.ID, "groups")),
		wrong.At(plan.AtBlock(page.Chosen.ID, "choice"))) {
		page.Chosen.Run.groups(d, d.Block(page.Chosen.ID))
	}
	if wanted("routine", wrong.At("routine")) {
		page.offer(in, r)
		open.Routine = &routineForm{wrong.At("routine"), page.Routines, page.Chosen}
	}
	return open
}

// fixedOf is what the day holds, and whom something fixed may be for: the plan's people, and the units
// that there are since.
func (in Room) fixedOf(r *shell.Request, board *boards.Board, problem string) (*fixedForm, []shell.Choice) {
	d := board.Document
	made := &fixedForm{Events: events(board), Problem: problem}
	for _, z := range d.Zones {
		made.Places = append(made.Places, shell.Choice{Value: z.ID, Label: z.Name})
	}
	everyone := audiences(d)
	if since, err := in.Boards.Units(r.Context(), r.Club(), d); err == nil {
		for _, u := range since {
			everyone = append(everyone, shell.Choice{Value: u.ID, Label: u.Name})
		}
	}
	return made, everyone
}

// listProblem is what was wrong with one of the lists.
func (b *body) listProblem() string {
	for _, l := range b.Lists {
		if l.Problem != "" {
			return l.Problem
		}
	}
	return b.Problems.At("lists")
}

// holdsForm is what the plan holds, and what it asks of who does most.
type holdsForm struct {
	Principles []check.Principle
	Carried    drill.Load
}

func holdsOf(board *boards.Board) *holdsForm {
	made := &holdsForm{Carried: warmth.Heaviest(board.Strands)}
	if len(board.Document.Blocks) > 0 {
		made.Principles = board.Principles()
	}
	return made
}

// facingText is what is known of today's opponent or partner, a line each.
func facingText(d *plan.Document) (text string) {
	for _, f := range d.Facing {
		text += f.Name + ": " + f.Says + "\n"
	}
	return text
}

// methodOrder names the blocks as the method would list them; "" where they are listed so.
func methodOrder(d *plan.Document) string {
	order := d.MethodOrder()
	if d.Format < 2 || slices.IsSorted(order) {
		return ""
	}
	var names []string
	for _, i := range order {
		names = append(names, d.Blocks[i].Name)
	}
	return strings.Join(names, " → ")
}

// problemsAt are the problems at places, without those that there are not.
func problemsAt(wrong plan.Problems, places ...string) (list []string) {
	for _, at := range places {
		if what := wrong.At(at); what != "" {
			list = append(list, what)
		}
	}
	return list
}

// headProblem is what was wrong with what is said of the session.
func headProblem(wrong plan.Problems) string {
	if list := problemsAt(wrong, "title", "place", "start_name", "method"); len(list) > 0 {
		return list[0]
	}
	for _, p := range wrong { // a block of a phase that the method lacks
		if strings.HasSuffix(p.Where, ".phase") && strings.HasPrefix(p.Where, "blocks.") {
			return "A block stands in a phase that this method does not have: move or remove it first."
		}
	}
	return ""
}

// audiences are the whole squad, the units and each player.
func audiences(d *plan.Document) []shell.Choice {
	list := []shell.Choice{{Value: plan.Everyone, Label: "Whole squad"}}
	for _, u := range d.Units {
		list = append(list, shell.Choice{Value: u.ID, Label: u.Name})
	}
	for _, p := range d.Players {
		name := p.ShortName()
		if p.Number > 0 {
			name = fmt.Sprintf("%d %s", p.Number, name)
		}
		list = append(list, shell.Choice{Value: p.ID, Label: name})
	}
	return list
}

func events(board *boards.Board) (list []event) {
	d, start := board.Document, board.Schedule.Start
	for _, f := range d.Fixed {
		one := event{ID: f.ID, Zone: f.Zone, Name: f.Name, WhoName: d.Audience(f.Who), Active: f.Active,
			From: shell.MomentText(f.Span.From, start), To: shell.MomentText(f.Span.To, start)}
		if len(f.Who) == 1 {
			one.Who = f.Who[0]
		}
		list = append(list, one)
	}
	return list
}

func playerLines(board *boards.Board) (list []playerLine) {
	d := board.Document
	for _, p := range d.Players {
		line := playerLine{ID: p.ID, Name: p.Label(), Arrives: d.Arrival(&p), Over: p.Over, Bench: d.OnBench(p.ID)}
		if p.Late > 0 {
			line.Lateness = schedule.LateWords(board.Schedule.Lateness(d, p.ID))
		}
		for _, r := range d.Restrictions {
			if r.Player == p.ID {
				line.Ruling = shell.Joined(", ", line.Ruling, keep.Words(r))
			}
		}
		list = append(list, line)
	}
	return list
}

// offer is what the day could do to what the coach wrote.
type offer struct{ Factors, Says string }

func offers(d *plan.Document) (list []offer) {
	for _, o := range today.Offers(d) {
		list = append(list, offer{strings.Join(o.IDs, ","), o.Says})
	}
	return list
}

func factorTicks(d *plan.Document) (list []shell.Tick) {
	for _, f := range today.Factors(d) {
		list = append(list, shell.Tick{Value: f.ID, Label: f.Words(), On: f.Holds(d)})
	}
	return list
}
