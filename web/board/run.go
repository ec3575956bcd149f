package board

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
	"cuestart/web/shell"
)

// runForm is how the chosen block is run.
type runForm struct {
	Words   string // in words; "": its drills one after the other
	Pace    string // that it is planned longer or shorter than its doses come to; "": it is not
	Many    bool   // it has drills to choose from, or to go round
	Forms   []press
	Split   plan.Split
	Splits  []shell.Choice
	Rounds  string
	Rest    string
	Change  string
	Pick    string
	On      []shell.Choice // the days on which it is run; none: it makes no difference
	OnNow   plan.Turn
	Groups  []groupLine // who begins where, or does what; where that is open
	Grouped bool        // there are some
	Problem string
}

// press is a way to run a block that one press takes.
type press struct {
	Value, Name string
	On          bool
}

// groupLine is a station or a drill to choose, with who begins there or does it.
type groupLine struct {
	Name   string
	People []groupPlayer
}

// groupPlayer is one of a group; Own tells that they chose it.
type groupPlayer struct {
	ID, Name string
	Own      bool
}

// toggle is a way to do a drill that one press takes, or takes back.
type toggle struct {
	Name, Value string
	On          bool
}

var formNames = map[plan.Form]string{plan.InOrder: "in order", plan.AtStations: "stations", plan.ByChoice: "a choice"}

var splitNames = map[plan.Split]string{plan.Evenly: "counted off", plan.ByPosition: "by position",
	plan.ByLevel: "by level", plan.ByHand: "by hand"}

func runOf(d *plan.Document, b *schedule.Block, page *body) runForm {
	run := runForm{Words: b.How(speech.English), Many: len(b.Items) > 1, Split: b.Split, OnNow: b.On,
		Grouped: b.Form != plan.InOrder}
	if b.Pace > 0 {
		run.Pace = b.PaceWords()
	}
	for _, form := range plan.Forms {
		run.Forms = append(run.Forms, press{string(form), formNames[form], form == b.Form})
	}
	for _, split := range plan.Splits {
		if split != plan.ByHand || b.Split == plan.ByHand {
			run.Splits = append(run.Splits, shell.Choice{Value: string(split), Label: splitNames[split]})
		}
	}
	asked := d.Block(b.ID) // today it may be fewer
	for _, field := range []struct {
		of   int
		into *string
	}{{asked.Rounds, &run.Rounds}, {b.RoundRest, &run.Rest}, {b.Change, &run.Change}, {b.Pick, &run.Pick}} {
		if field.of > 0 {
			*field.into = strconv.Itoa(field.of)
		}
	}
	if asked.LeastRounds > 0 {
		run.Rounds = fmt.Sprintf("%d-%d", asked.LeastRounds, asked.Rounds)
	}
	if d.Turns != (plan.Turns{}) || b.On != plan.Usual {
		for _, turn := range []plan.Turn{plan.Usual, plan.First, plan.Later} {
			label := "every day"
			if turn != plan.Usual {
				label = "only: " + d.Turns.Name(turn)
			}
			run.On = append(run.On, shell.Choice{Value: string(turn), Label: label})
		}
	}
	for _, field := range []string{"form", "rounds", "change", "pick", "groups", "choice", "on", "turns"} {
		if what := page.Problems.At(plan.AtBlock(b.ID, field)); what != "" {
			run.Problem = what
		}
	}
	return run
}

// groups fills in who begins at each station, or does each drill of a choice.
func (run *runForm) groups(d *plan.Document, b *plan.Block) {
	for i, team := range d.Groups(b) {
		line := groupLine{Name: b.Items[i].Drill.Name}
		for _, id := range team {
			p := d.Player(id)
			line.People = append(line.People,
				groupPlayer{id, strings.TrimSpace(d.Numbers([]string{id}) + " " + p.ShortName()),
					slices.Contains(b.Choices[id], i) || b.Split == plan.ByHand})
		}
		run.Groups = append(run.Groups, line)
	}
}

// togglesOf are how drill n of a block may be done otherwise.
func togglesOf(b *schedule.Block, n int) (list []toggle) {
	k := &b.Items[n].Drill
	sided := k.Dose.Sides == 2 && (k.Dose.Kind == drill.Reps || k.Dose.Kind == drill.Hold)
	if k.Dose.OwnSide || sided && k.Serves(drill.Sport) { // a craft has a side
		list = append(list, toggle{"own side", "own", k.Dose.OwnSide})
	}
	list = append(list, toggle{"never shorten", "exact", k.Dose.Exact})
	if n > 0 && b.Form == plan.InOrder && (k.Quiet() || b.Items[n].Alongside) {
		list = append(list, toggle{"alongside", "beside", b.Items[n].Alongside})
	}
	return list
}

// roundsIn reads how many rounds there are, and how few will do: "3", "2-3".
func roundsIn(f *shell.Form) (least, rounds int) {
	said := strings.FieldsFunc(f.Raw("rounds"), func(r rune) bool { return r == '-' || r == '–' || r == ' ' })
	if len(said) != 2 {
		return 0, f.IntOr("rounds", 0, 1, 20)
	}
	least, wrong := strconv.Atoi(said[0])
	rounds, other := strconv.Atoi(said[1])
	if wrong != nil || other != nil || least < 1 || rounds < least || rounds > 20 {
		f.Refuse("rounds", "say how many rounds, such as 3 or 2-3")
	}
	return least, rounds
}

// SetForm says how a block is run.
func SetForm(r *shell.Request) Edited {
	f, block := r.Form, r.Param("block")
	at := func(field string) *shell.Form { return f.At(plan.AtBlock(block, field)) }
	least, rounds := roundsIn(at("rounds"))
	to := plan.FormFields{Form: plan.Form(f.Raw("form")), Split: plan.Split(f.Raw("split")), Rounds: rounds,
		Least:     least,
		RoundRest: at("rounds").IntOr("rest", 0, 0, 600), Change: at("change").IntOr("change", 0, 0, 600),
		Pick: at("pick").IntOr("pick", 0, 1, plan.MaxItems)}
	f.At("")
	return edits(block, func(d *plan.Document) (string, error) {
		b := d.Block(block)
		if b == nil {
			return "", plan.ErrNoSuchBlock
		}
		if f.Has("on-asked") {
			if said, err := d.SetOn(block, plan.Turn(f.Raw("on"))); err != nil || plan.Turn(f.Raw("on")) != b.On {
				return said, err
			}
		}
		if f.Has("pressed") {
			to.Form = plan.Form(strings.TrimPrefix(f.Raw("pressed"), "to "))
		}
		return d.SetForm(block, to)
	}, nil)
}

// SetGroup puts a player to another station, or to another drill of a choice.
func SetGroup(r *shell.Request) Edited {
	f, block, player := r.Form, r.Param("block"), r.Form.Raw("player")
	to := f.At(plan.AtBlock(block, "groups")).IntOr("to", -1, 0, plan.MaxItems-1)
	f.At("")
	return edits(block, func(d *plan.Document) (string, error) {
		b := d.Block(block)
		switch {
		case b == nil:
			return "", plan.ErrNoSuchBlock
		case b.Form == plan.AtStations:
			return d.SetGroup(block, player, to)
		case to < 0:
			return d.SetChoice(block, player, nil)
		}
		return d.Choose(block, player, to)
	}, nil)
}

// turn is how a day may begin.
type turn struct {
	Value, Name string
	On          bool
}

// turnsOf are how the day may begin, where the sport or a block makes a difference of it.
func turnsOf(d *plan.Document) (list []turn) {
	some := d.Turns != (plan.Turns{})
	for b := range d.AllBlocks() {
		some = some || b.On != plan.Usual
	}
	if !some || d.Kind != plan.Match &&
		!slices.ContainsFunc(d.Blocks, func(b plan.Block) bool { return b.On != plan.Usual }) {
		return nil
	}
	for _, t := range []plan.Turn{plan.First, plan.Later} {
		list = append(list, turn{string(t), d.Turns.Name(t), t == d.Turn})
	}
	return list
}

// SetTurn says how the day begins.
func SetTurn(r *shell.Request) Edited {
	to := plan.Turn(r.Form.Raw("turn"))
	return edits(r.Form.Raw("block"), func(d *plan.Document) (string, error) { return d.SetTurn(to) }, nil)
}

// SetRole says who has a role today; gone forgets the role.
func SetRole(r *shell.Request) Edited {
	f := r.Form
	if f.Has("gone") {
		return edits("", func(d *plan.Document) (string, error) { return d.RemoveRole(f.Raw("gone")) }, nil)
	}
	players := f.List("player")
	return edits("", func(d *plan.Document) (string, error) {
		if f.Has("also") || f.Has("without") { // one more, or one less
			if u := d.Unit(f.Raw("id")); u != nil {
				players = slices.DeleteFunc(append(slices.Clone(u.Players), f.Raw("also")),
					func(id string) bool { return id == "" || id == f.Raw("without") })
			}
		}
		return d.SetRole(f.Text("name"), players)
	}, nil)
}

// SetFacing says what is known of whom we meet today.
func SetFacing(r *shell.Request) Edited {
	said := r.Form.Raw("facing")
	return edits("", func(d *plan.Document) (string, error) { return d.SetFacing(said) }, func(b *body) {
		if b.Drawers.Day != nil {
			b.Drawers.Day.Facing = said
		}
	})
}

// SetBring says what is carried beside the drills' kit.
func SetBring(r *shell.Request) Edited {
	said := r.Form.Raw("bring")
	return edits("", func(d *plan.Document) (string, error) { return d.SetBring(said) }, func(b *body) {
		if b.Drawers.Carry != nil {
			b.Drawers.Carry.Bring = said
		}
	})
}

// carryForm is what is carried out: worked out from the blocks, and what else.
type carryForm struct {
	Kit     []string
	Bring   string
	Problem string
}

func carryOf(d *plan.Document, blocks []schedule.Block, problem string) *carryForm {
	c := &carryForm{Problem: problem}
	for _, k := range schedule.Carried(blocks) {
		c.Kit = append(c.Kit, k.String())
	}
	for _, b := range d.Bring {
		line := b.What
		if who := d.WhoBrings(b); who != "" {
			line += ": " + who
		}
		c.Bring += line + "\n"
	}
	return c
}

// roleLine is a role of the day, and who has it.
type roleLine struct {
	ID, Name string
	Full     bool // whoever has it next does so instead
	Players  []shell.Choice
	Rest     []shell.Choice // who may have it too
}

func rolesOf(d *plan.Document) (list []roleLine) {
	for _, u := range d.Roles() {
		line := roleLine{ID: u.ID, Name: u.Name, Full: u.Of > 0 && len(u.Players) >= u.Of}
		for _, p := range d.Players {
			choice := shell.Choice{Value: p.ID,
				Label: strings.TrimSpace(fmt.Sprint(d.Numbers([]string{p.ID}), " ", p.ShortName()))}
			if slices.Contains(u.Players, p.ID) {
				line.Players = append(line.Players, choice)
			} else {
				line.Rest = append(line.Rest, choice)
			}
		}
		list = append(list, line)
	}
	return list
}
