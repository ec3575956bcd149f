package board

import (
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/planner"
	"cuestart/web/shell"
)

// chosen is the block that is open for change.
type chosen struct {
	row
	Aim, Why   string
	Says       string   // what it is for, if the aim says nothing
	Because    string   // why it is in the plan
	Versions   []string // who does it otherwise, as medical staff ruled
	Cost       string   // what it leaves in each player, and what it takes
	WhoID      string   // "": several, picked one by one
	ZoneID     string
	LeaderID   string
	Stations   string
	Zones      []shell.Choice
	Leaders    []shell.Choice
	Fits       []drill.Drill // what may be put in beside
	Several    bool          // more than one drill
	Items      []item
	Priority   plan.Priority
	Priorities []plan.Priority
	Before     string // the block that it can go before; "": it is the first in its phase
	After      string // the block that it can go after; "": it is the last in its phase
	Cautions   []string
	Problem    string // what was wrong with what was said of it
	Drawers    drawers
}

// KeyOf is the key that picks priority n.
func (c *chosen) KeyOf(n int) string { return strconv.Itoa(n + 1) }

// item is a drill of the block.
type item struct {
	Index      int
	Code, Name string
	Words      string
	Planned    string // what it comes to today, where that is not what was asked for
	Problem    string
	Less, More bool
}

func chosenOf(page *body, board *planner.Board, i int, is row) *chosen {
	d, b := board.Document, &board.Blocks[i]
	found := &chosen{row: is, Aim: b.Aim, Says: b.Says(), Because: b.Block.Why, Why: b.Cut, Priority: b.Priority, Priorities: plan.Priorities, Several: len(b.Items) > 1,
		ZoneID: b.Zone, LeaderID: b.Leader, Cost: cost(b), Versions: today.Says(d, b.ID)}
	if len(b.Who) == 1 {
		found.WhoID = b.Who[0]
	}
	if b.Stations > 0 {
		found.Stations = strconv.Itoa(b.Stations)
	}
	for n := range b.Items {
		found.Items = append(found.Items, itemOf(page, b, n))
		found.Cautions = plan.AddCaution(found.Cautions, b.Items[n].Drill.Caution)
	}
	for n := range d.Blocks {
		if d.Blocks[n].Phase != b.Phase {
			continue
		}
		if n < i {
			found.Before = d.Blocks[n].Name
		} else if n > i && found.After == "" {
			found.After = d.Blocks[n].Name
		}
	}
	for _, field := range []string{"name", "who", "zone", "stations"} {
		if what := page.Problems.At(plan.AtBlock(b.ID, field)); what != "" && found.Problem == "" {
			found.Problem = what
		}
	}
	return found
}

func itemOf(page *body, b *schedule.Block, n int) item {
	k := b.Items[n].Drill
	one := item{Index: n, Code: k.Code, Name: k.Name, Words: k.Words(k.Range.Target),
		Less: k.Range.Target > k.Range.Min, More: k.Range.Target < k.Range.Max, Problem: page.Problems.At(plan.AtItem(b.ID, n))}
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
