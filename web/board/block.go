package board

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
	"cuestart/core/today"
	"cuestart/core/warmth"
	"cuestart/planner/boards"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// chosen is the block that is open for change.
type chosen struct {
	row
	Aim, Why    string
	Says        string     // what it is for, if the aim says nothing
	Because     string     // why it is in the plan
	Versions    []string   // who does it otherwise, as medical staff ruled
	Cost        string     // what it leaves in each player, and what it takes
	Held        string     // where it is held
	HoldCost    string     // what that costs
	Said        []saidPart // who, where, led by whom, when, as it is said
	SaidProblem string
	Note        string // what was said of it and not understood
	Typed       string // a line that was refused
	Next        string // id of the block listed after it
	Phases      []drill.Phase
	Stations    string
	Items       []item
	Priority    plan.Priority
	Priorities  []plan.Priority
	Before      string // the block that it can go before; "": it comes first
	After       string // the block that it can go after; "": it comes last
	Cautions    []string
	Problem     string // what was wrong with what was said of it
	Drawers     drawers
	List        string // the line of the list that it is in; "": it is of the run-in
	Run         runForm
	Form        plan.Form
}

// KeyOf is the key that picks priority n.
func (c *chosen) KeyOf(n int) string { return strconv.Itoa(n + 1) }

// item is a drill of the block.
type item struct {
	Index      int
	Look       chalk.Drawn
	Code, Name string
	Words      string
	Tell       string // what the players are told about it
	Planned    string // what it comes to today, where that is not what was asked for
	Problem    string
	Less, More bool
	Up, Down   bool
	Minds      string         // what to mind where it stands: above juniors, needs warm
	Stands     []boards.Stand // what may stand in for it
	Toggles    []toggle       // how it may be done otherwise
	Chips      shell.Chips    // what it is, of a drill of the club's own
	Forms      []formed       // who does it in another form
	Easier     string         // what its easier form is called; "": there is none
	Harder     string
	Others     []formed // who may be put on one
}

// formed is a player who does a drill in another form, or may.
type formed struct{ ID, Name, Way string }

// formsOf are the players of a block who do its drill n in another form, and the others.
func formsOf(d *plan.Document, b *schedule.Block, n int) (forms, others []formed) {
	for _, id := range b.Members {
		p := d.Player(id)
		if way := p.Forms[b.Items[n].Drill.Code]; way != "" {
			forms = append(forms, formed{id, p.ShortName(), way})
		} else {
			others = append(others, formed{id, p.ShortName(), ""})
		}
	}
	return forms, others
}

// Nth is the place of the drill in its block, from 1.
func (i item) Nth() int { return i.Index + 1 }

// chosenOf is block i of the run-in, or of a list with a line of its own: d holds its
// blocks, and blocks are these as they are timed.
func chosenOf(page *body, board *boards.Board, d *plan.Document, blocks []schedule.Block, i int, is row) *chosen {
	b := &blocks[i]
	found := &chosen{row: is, Aim: b.Aim, Says: b.Says(), Because: b.Block.Why, Why: b.Cut, Priority: b.Priority,
		Priorities: plan.Priorities,
		Cost:       cost(b), Versions: today.Says(d, b.ID), Held: d.HeldWords(b.Block),
		Said: saidOf(d, b.Block), Note: b.Note,
		SaidProblem: cmp.Or(page.Problems.At(plan.AtBlock(b.ID, "said")), page.Problems.At(plan.AtBlock(b.ID, "hold"))),
		Phases:      append(slices.Clone(plan.Methods[d.Method].Phases), drill.Own)}
	if i+1 < len(d.Blocks) {
		found.Next = d.Blocks[i+1].ID
	}
	if b.Stations > 0 {
		found.Stations = strconv.Itoa(b.Stations)
	}
	for n := range b.Items {
		one := itemOf(page, b, n)
		one.on(board, d, b)
		found.Items = append(found.Items, one)
		found.Cautions = plan.AddCaution(found.Cautions, b.Items[n].Drill.Caution)
	}
	found.Run, found.Form = runOf(d, b, page), b.Form
	if before := d.Neighbour(i, -1); before != nil {
		found.Before = before.Name
	}
	if after := d.Neighbour(i, 1); after != nil {
		found.After = after.Name
	}
	for _, field := range []string{"name", "who", "zone", "stations"} {
		if what := page.Problems.At(plan.AtBlock(b.ID, field)); what != "" && found.Problem == "" {
			found.Problem = what
		}
	}
	return found
}

// on says what of the board a drill of a block goes with: what may stand in for it, who minds it,
// who does it in another form.
func (i *item) on(board *boards.Board, d *plan.Document, b *schedule.Block) {
	n := i.Index
	i.Stands, i.Up, i.Down = board.Stands(b.Block, n), n > 0, n+1 < len(b.Items)
	i.Minds = mindsOf(board, d, b, n)
	i.Forms, i.Others = formsOf(d, b, n)
	for _, s := range i.Stands {
		switch s.Word {
		case plan.Easier:
			i.Easier = s.Drill.Name
		case plan.Harder:
			i.Harder = s.Drill.Name
		}
	}
	i.Chips = shell.ChipsOf(&b.Items[n].Drill, n)
	i.Toggles, i.Look = togglesOf(b, n), chalk.Of(board.Looks(&b.Items[n].Drill), &b.Items[n].Drill)
}

// mindsOf says what to mind of drill n of a block where it stands: any drill may stand
// anywhere.
func mindsOf(board *boards.Board, d *plan.Document, b *schedule.Block, n int) string {
	k, minds := &b.Items[n].Drill, ""
	if !k.Suits(d.Grade) {
		minds = "above " + cmp.Or(d.Grade.Name(), drill.Club.Name())
	}
	if cold := board.Coldest(b.Start, b.Members); k.NeedsWarm && b.Kept && cold < warmth.Ready {
		minds = shell.Joined(", ", minds, "needs warm: "+d.Measure.Warmer(cold)+" by then")
	}
	return minds
}

// saidPart is a piece of the sentence that says who does a block, where, led by whom and when.
type saidPart struct {
	Part   pen.Part
	ID     string // of its field
	Before string // the words before it
	Text   string
	Name   string // of its field
	Words  []string
}

// noneOf is what stands in the sentence where nothing is said of a part, and says nothing.
var noneOf = map[pen.Part]string{pen.PartWho: "who?", pen.PartWhere: "any place", pen.PartLed: "nobody yet",
	pen.PartWhen: "when it fits"}

// saidOf is the sentence of a block.
func saidOf(d *plan.Document, b *plan.Block) []saidPart {
	is := pen.Parts(d, b)
	who := saidPart{Part: pen.PartWho, ID: "block-said", Text: is[pen.PartWho], Name: "Who",
		Words: []string{"everyone"}}
	for _, u := range d.Units {
		who.Words = append(who.Words, u.Name)
	}
	where := saidPart{Part: pen.PartWhere, ID: "block-where", Before: "in", Text: is[pen.PartWhere], Name: "Where"}
	for _, z := range d.Zones {
		where.Words = append(where.Words, z.Name)
	}
	led := saidPart{Part: pen.PartLed, ID: "block-led", Before: "led by", Text: is[pen.PartLed], Name: "Led by"}
	for _, l := range d.Leaders {
		led.Words = append(led.Words, l.Name)
	}
	when := saidPart{Part: pen.PartWhen, ID: "block-when", Text: is[pen.PartWhen], Name: "When",
		Words: []string{"at 26", "26 to 18", "done by 20"}}
	for _, f := range d.Fixed {
		when.Words = append(when.Words, "before "+f.Name)
	}
	for i := range d.Blocks {
		if a := &d.Blocks[i]; a.ID != b.ID && a.Phase != drill.After {
			when.Words = append(when.Words, "straight after "+a.Name)
		}
	}
	return []saidPart{who, where, led, when}
}

// None is what stands there where nothing is said.
func (p saidPart) None() string { return noneOf[p.Part] }

// refill puts back what was typed into a part of the sentence, and refused.
func (c *chosen) refill(part pen.Part, text string) {
	for i := range c.Said {
		if c.Said[i].Part == part {
			c.Said[i].Text = text
		}
	}
}

func itemOf(page *body, b *schedule.Block, n int) item {
	k := b.Items[n].Drill
	one := item{Index: n, Code: k.Code, Name: k.Name, Words: k.Words(k.Range.Target), Tell: strings.Join(k.Cues, "; "),
		Less: k.Range.Target > k.Range.Min, More: k.Range.Target < k.Range.Max,
		Problem: page.Problems.At(plan.AtItem(b.ID, n))}
	if spread := b.Spread(speech.English, n); spread != "" {
		one.Words += ", " + spread
	}
	if amount := b.Amount(n); amount != k.Range.Target {
		one.Planned = k.Words(amount)
	}
	return one
}

// cost says what a block leaves in each player, and the kit that it takes.
func cost(b *schedule.Block) string {
	load := b.Load()
	words := load.Words()
	if load.GroundSeconds > 0 {
		words = append(words, clock.Lasting(load.GroundSeconds)+" on the ground")
	}
	var parts []string
	if len(words) > 0 {
		parts = append(parts, "Each: "+strings.Join(words, ", "))
	}
	var kit []string
	for _, k := range schedule.Carried([]schedule.Block{*b}) {
		kit = append(kit, k.String())
	}
	if len(kit) > 0 {
		parts = append(parts, "takes "+strings.Join(kit, ", "))
	}
	return strings.Join(parts, " · ")
}
