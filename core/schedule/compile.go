package schedule

import (
	"maps"
	"math"
	"slices"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/today"
)

// Compiled is a plan document made into a problem.
type Compiled struct {
	Problem runin.Problem
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
	c := &Compiled{Start: start, Problem: runin.Problem{Grid: clock.Grid}}
	open, err := d.Open.Offset(start)
	if err != nil {
		return nil, err
	}
	for _, p := range d.Players {
		due := clock.Offset(p.DueShift - d.Margin)
		c.Problem.Players = append(c.Problem.Players, runin.Player{ID: p.ID, Open: min(open, due), Due: due})
		if until := min(open+clock.Offset(p.Late), due); until > open {
			// Nobody waits for who comes late: they are called away until then.
			c.Problem.Fixed = append(c.Problem.Fixed, runin.Fixed{ID: latePrefix + p.ID, Players: []string{p.ID}, Start: open, End: until})
		}
	}
	for _, f := range d.Fixed {
		window, err := f.Span.Window(start)
		if err != nil {
			return nil, err
		}
		if members := d.Members(f.Who); len(members) > 0 {
			c.Problem.Fixed = append(c.Problem.Fixed, runin.Fixed{ID: f.ID, Players: members, Start: window.From, End: window.To, Active: f.Active})
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
	c.stages(d)
	return c, nil
}

func (c *Compiled) resources(d *plan.Document) error {
	add := func(id string, capacity int, free []plan.Span) error {
		r := runin.Resource{ID: id, Capacity: capacity}
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
		c.Problem.Resources = append(c.Problem.Resources, runin.Resource{ID: kitID(name), Capacity: d.Kit[name]})
	}
	return nil
}

func kitID(name string) string { return "kit " + name }

// kit is how much counted kit a block holds while it runs: its players', and what
// stands in its lanes. Where there are fewer pieces, people take turns, so it is
// never more than those.
func kit(d *plan.Document, b *plan.Block, group drill.Group) (needs []runin.Need) {
	for _, name := range slices.Sorted(maps.Keys(d.Kit)) {
		most := 0
		for _, item := range b.Items {
			if slices.Contains(item.Drill.Kit, name) {
				most = max(most, item.Drill.Pieces(group))
			}
			if slices.Contains(item.Drill.LaneKit, name) {
				most = max(most, item.Drill.LanePieces(group))
			}
		}
		if most = min(most, d.Kit[name]); most > 0 {
			needs = append(needs, runin.Need{Resource: kitID(name), Amount: most})
		}
	}
	return needs
}

func (c *Compiled) block(d *plan.Document, from *plan.Block) error {
	group := d.Group(from)
	b := runin.Block{ID: from.ID, Players: d.Members(from.Who), Weight: from.Priority.Weight(),
		Must: from.Priority == plan.Must, Loose: from.Loose, Excusable: from.Excusable, After: from.After, Straight: from.Hold.Straight}
	window, err := d.Window(from, c.Start)
	if err != nil {
		return err
	}
	b.Window = window
	if from.Timed() && from.Priority == plan.Should {
		b.Weight = plan.Must.Weight() // who says when means it
	}
	if from.Pin != nil {
		at, err := from.Pin.Offset(c.Start)
		if err != nil {
			return err
		}
		pin := clock.Offset(math.Floor(float64(at)/clock.Grid) * clock.Grid)
		b.Pin = &pin
	}
	if from.Zone != "" {
		b.Needs = append(b.Needs, runin.Need{Resource: from.Zone, Amount: group.People})
	}
	if from.Leader != "" {
		b.Needs = append(b.Needs, runin.Need{Resource: from.Leader, Amount: 1})
	}
	b.Needs = append(b.Needs, kit(d, from, group)...)
	dosings := Dosings(from, group, d.UseSpare || from.Slot())
	for _, dosing := range dosings {
		b.Levels = append(b.Levels, runin.Level{Seconds: dosing.Seconds, Value: dosing.Value})
	}
	c.Dosings = append(c.Dosings, dosings)
	c.Problem.Blocks = append(c.Problem.Blocks, b)
	return nil
}
