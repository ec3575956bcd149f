package runin

import (
	"context"
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/today"
)

// maxDosings bounds the lengths that a block is offered in: a drill of many
// small steps is offered in evenly spread ones.
const maxDosings = 8

// Dosing is one length of a block: the amount of each of its drills.
type Dosing struct {
	Amounts []int
	Seconds int
	Value   float64 // 0.6 with all at their minimum, 1 with all at their target
}

// Dosings lists the lengths of the block for group, the shortest first: from
// the minimum to the target of its drills, or with spare to their maximum, all
// turned up together.
func Dosings(b *plan.Block, group drill.Group, spare bool) []Dosing {
	steps := 1
	ranges := make([]drill.Range, len(b.Items))
	for i, item := range b.Items {
		ranges[i] = item.Drill.Range
		if spare {
			ranges[i].Target = ranges[i].Max
		}
		steps = max(steps, ranges[i].Steps())
	}
	steps = min(steps, maxDosings)
	var dosings []Dosing
	for n := range steps {
		share := 1.0
		if steps > 1 {
			share = float64(n) / float64(steps-1)
		}
		d := Dosing{Amounts: make([]int, len(b.Items))}
		for i, item := range b.Items {
			d.Amounts[i] = ranges[i].At(share)
			d.Value += item.Drill.Range.Worth(d.Amounts[i]) / float64(len(b.Items))
		}
		if steps == 1 { // nothing to turn: it is done as meant, or not at all
			d.Value = 1
		}
		d.Seconds = b.Seconds(d.Amounts, group)
		if last := len(dosings) - 1; last >= 0 && dosings[last].Seconds == d.Seconds {
			dosings[last] = d // more for the same time
			continue
		}
		dosings = append(dosings, d)
	}
	return dosings
}

// Compiled is a plan document made into a problem.
type Compiled struct {
	Problem Problem
	Start   time.Time
	Dosings [][]Dosing // by block, in the order of the document
}

// Compile makes the problem of a document. It fails with [plan.Problems] where
// the document is not valid.
func Compile(d *plan.Document) (*Compiled, error) {
	if err := d.Validate(); err != nil {
		return nil, err
	}
	d = today.Apply(d)
	start, err := d.Start.Resolve()
	if err != nil {
		return nil, err
	}
	c := &Compiled{Start: start, Problem: Problem{Grid: clock.Grid}}
	for _, phase := range plan.Methods[d.Method].Phases {
		c.Problem.Phases = append(c.Problem.Phases, string(phase))
	}
	open, err := d.Open.Offset(start)
	if err != nil {
		return nil, err
	}
	for _, p := range d.Players {
		due := clock.Offset(p.DueShift - d.Margin)
		c.Problem.Players = append(c.Problem.Players, Player{ID: p.ID, Open: min(open, due), Due: due})
		if until := min(open+clock.Offset(p.Late), due); until > open {
			// Nobody waits for who comes late: they are called away until then.
			c.Problem.Fixed = append(c.Problem.Fixed, Fixed{ID: latePrefix + p.ID, Players: []string{p.ID}, Start: open, End: until})
		}
	}
	for _, f := range d.Fixed {
		window, err := f.Span.Window(start)
		if err != nil {
			return nil, err
		}
		if members := d.Members(f.Who); len(members) > 0 {
			c.Problem.Fixed = append(c.Problem.Fixed, Fixed{ID: f.ID, Players: members, Start: window.From, End: window.To, Active: f.Active})
		}
	}
	if err := c.resources(d); err != nil {
		return nil, err
	}
	for i := range d.Blocks {
		if err := c.block(d, &d.Blocks[i]); err != nil {
			return nil, err
		}
	}
	return c, nil
}

// latePrefix begins the id of the fixed event that a late player is held by.
const latePrefix = "late "

// Late returns the player that a fixed event of a schedule holds until their
// late arrival, or "" where the event is another one.
func Late(fixed string) string {
	if player, late := strings.CutPrefix(fixed, latePrefix); late {
		return player
	}
	return ""
}

func (c *Compiled) resources(d *plan.Document) error {
	add := func(id string, capacity int, free []plan.Span) error {
		r := Resource{ID: id, Capacity: capacity}
		for _, span := range free {
			window, err := span.Window(c.Start)
			if err != nil {
				return err
			}
			r.Free = append(r.Free, [2]clock.Offset{window.From, window.To})
		}
		c.Problem.Resources = append(c.Problem.Resources, r)
		return nil
	}
	for _, z := range d.Zones {
		if err := add(z.ID, z.Capacity, z.Free); err != nil {
			return err
		}
	}
	for _, l := range d.Leaders {
		if err := add(l.ID, 1, l.Free); err != nil {
			return err
		}
	}
	for _, name := range slices.Sorted(maps.Keys(d.Kit)) {
		c.Problem.Resources = append(c.Problem.Resources, Resource{ID: kitID(name), Capacity: d.Kit[name]})
	}
	return nil
}

func kitID(name string) string { return "kit " + name }

// kit is how much counted kit a block holds while it runs: a piece each, one
// where the group works as one, one a station where people take turns. Who is
// more than there are pieces takes turns too, so it is never more than those.
func kit(d *plan.Document, b *plan.Block, group drill.Group) (needs []Need) {
	for _, name := range slices.Sorted(maps.Keys(d.Kit)) {
		most := 0
		for _, item := range b.Items {
			if !slices.Contains(item.Drill.Kit, name) {
				continue
			}
			pieces := group.People
			switch {
			case item.Drill.Together:
				pieces = 1
			case item.Drill.Dose.Kind == drill.Count || item.Drill.Dose.Kind == drill.Grid:
				pieces = min(pieces, group.Lanes)
			}
			most = max(most, pieces)
		}
		if most = min(most, d.Kit[name]); most > 0 {
			needs = append(needs, Need{kitID(name), most})
		}
	}
	return needs
}

func (c *Compiled) block(d *plan.Document, from *plan.Block) error {
	group := d.Group(from)
	b := Block{ID: from.ID, Phase: string(from.Phase), Players: d.Members(from.Who), Weight: from.Priority.Weight(),
		Must: from.Priority == plan.Must, Loose: from.Loose, Excusable: from.Excusable, After: from.After}
	if from.Pin != nil {
		at, err := from.Pin.Offset(c.Start)
		if err != nil {
			return err
		}
		pin := clock.Offset(math.Floor(float64(at)/clock.Grid) * clock.Grid)
		b.Pin = &pin
	}
	if from.Zone != "" {
		b.Needs = append(b.Needs, Need{from.Zone, group.People})
	}
	if from.Leader != "" {
		b.Needs = append(b.Needs, Need{from.Leader, 1})
	}
	b.Needs = append(b.Needs, kit(d, from, group)...)
	dosings := Dosings(from, group, d.UseSpare)
	for _, dosing := range dosings {
		b.Levels = append(b.Levels, Level{dosing.Seconds, dosing.Value})
	}
	c.Dosings = append(c.Dosings, dosings)
	c.Problem.Blocks = append(c.Problem.Blocks, b)
	return nil
}

// Schedule is a plan document fitted: the answer to its problem, in the
// document's terms.
type Schedule struct {
	Start   time.Time     `json:"start"`
	Result  *Result       `json:"result"`
	Amounts [][]int       `json:"amounts"` // of each drill, by block; nil where the block is left out
	Dosings [][]Dosing    `json:"-"`
	Fixed   []FixedWindow `json:"fixed"`
	Players []Player      `json:"players"` // with their windows
}

// Loads is what the schedule of d leaves in each player, by id.
func (s *Schedule) Loads(d *plan.Document) map[string]drill.Load {
	loads := map[string]drill.Load{}
	for i := range s.Result.Blocks {
		if !s.Result.Blocks[i].Kept {
			continue
		}
		b, sum := &d.Blocks[i], drill.Load{}
		group := d.Group(b)
		for n, item := range b.Items {
			sum = sum.Add(item.Drill.Load(s.Amounts[i][n], group))
		}
		for _, id := range d.Members(b.Who) {
			loads[id] = loads[id].Add(sum)
		}
	}
	return loads
}

// FixedWindow is a fixed event of the document, placed on the time line.
type FixedWindow struct {
	ID      string       `json:"id"`
	Players []string     `json:"players"`
	Start   clock.Offset `json:"start"`
	End     clock.Offset `json:"end"`
}

// Plan fits a document. It fails with [plan.Problems] where the document is
// not valid; a document whose musts do not fit is an answer. Steps is as in
// [Fit].
func Plan(ctx context.Context, d *plan.Document, steps int) (*Schedule, error) {
	c, err := Compile(d)
	if err != nil {
		return nil, err
	}
	r, err := Fit(ctx, &c.Problem, steps)
	if err != nil {
		return nil, fmt.Errorf("the plan cannot be read as a run-in: %w", err)
	}
	return c.schedule(d, r), nil
}

// schedule is the answer to the compiled problem in the terms of its document.
func (c *Compiled) schedule(d *plan.Document, r *Result) *Schedule {
	s := &Schedule{Start: c.Start, Result: r, Dosings: c.Dosings, Players: c.Problem.Players, Amounts: make([][]int, len(r.Blocks))}
	for i := range r.Blocks {
		if r.Blocks[i].Kept {
			s.Amounts[i] = c.Dosings[i][r.Blocks[i].Level].Amounts
		}
		r.Blocks[i].Why = why(&d.Blocks[i], c.Dosings[i], &r.Blocks[i])
	}
	for _, f := range c.Problem.Fixed {
		s.Fixed = append(s.Fixed, FixedWindow{f.ID, f.Players, f.Start, f.End})
	}
	return s
}

// why says in a coach's words what became of a block.
func why(b *plan.Block, dosings []Dosing, s *Scheduled) string {
	full := dosings[len(dosings)-1]
	for _, d := range dosings { // what is beyond the target is a bonus, not a cut
		if d.Value >= 1 {
			full = d
			break
		}
	}
	switch {
	case !s.Kept && b.Priority == plan.Must:
		return fmt.Sprintf("a must, and not even %s of it fits", clock.Duration(dosings[0].Seconds))
	case !s.Kept:
		return fmt.Sprintf("a %s: its %s would take minutes that others use better", b.Priority, clock.Duration(dosings[0].Seconds))
	case dosings[s.Level].Seconds >= full.Seconds:
		return ""
	}
	text := ""
	for i, item := range b.Items {
		from, to := full.Amounts[i], dosings[s.Level].Amounts[i]
		if from == to {
			continue
		}
		if text != "" {
			text += "; "
		}
		if len(b.Items) > 1 {
			text += item.Drill.Name + " "
		}
		text += fmt.Sprintf("%s, not %s", item.Drill.Words(to), item.Drill.Figure(from))
	}
	return fmt.Sprintf("%s: %s shorter", text, clock.Duration(full.Seconds-dosings[s.Level].Seconds))
}
