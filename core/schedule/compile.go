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
	Dosings [][]Dosing // by block, in the order of Document: what is there once the least gives way, then the usual
	once    []int      // by block: how many of its dosings are of the first kind

	Document *plan.Document // what is run of it today, with today's factors
}

// Compile makes the problem of a document. It fails with [plan.Problems] where
// the document is not valid.
func Compile(d *plan.Document) (*Compiled, error) {
	if err := d.Validate(); err != nil {
		return nil, err
	}
	c := &Compiled{Document: today.Apply(d.Running()), Problem: runin.Problem{Grid: clock.Grid}}
	d = c.Document
	if err := c.day(d); err != nil {
		return nil, err
	}
	if err := c.resources(d); err != nil {
		return nil, err
	}
	for i := range d.Blocks {
		if err := c.block(d, &d.Blocks[i]); err != nil {
			return nil, err
		}
	}
	c.Problem.Walks = walks(d)
	c.stages(d)
	c.pulse(d)
	return c, nil
}

// day places the start, the players' windows and the fixed events of a document.
func (c *Compiled) day(d *plan.Document) (err error) {
	if c.Start, err = d.Start.Resolve(); err != nil {
		return err
	}
	open, err := d.Open.Offset(c.Start)
	if err != nil {
		return err
	}
	for _, p := range d.Players {
		due := clock.Offset(p.DueShift - d.Margin - d.Slack)
		if p.Over && p.Late > 0 {
			due = max(due, 0)
		}
		c.Problem.Players = append(c.Problem.Players, runin.Player{ID: p.ID, Open: min(open, due), Due: due})
		if until := min(open+clock.Offset(p.Late), due); until > open {
			// Nobody waits for who comes late: they are called away until then.
			c.Problem.Fixed = append(c.Problem.Fixed, runin.Fixed{ID: latePrefix + p.ID, Players: []string{p.ID},
				Start: open, End: until, Excused: true})
		}
	}
	for _, f := range d.Fixed {
		window, err := f.Span.Window(c.Start)
		if err != nil {
			return err
		}
		if members := held(d, f, window); len(members) > 0 {
			// of a few who are away nothing is cut; what all are away from is not done
			few := 2*len(members) <= len(d.Players)
			c.Problem.Fixed = append(c.Problem.Fixed, runin.Fixed{ID: f.ID, Players: members, Start: window.From,
				End: window.To, Active: f.Active, Excused: few, Place: f.Zone})
		}
	}
	return nil
}

// held are the players whom a fixed event holds: not those who come late and work on
// over the last of them.
func held(d *plan.Document, f plan.Fixed, window clock.Window) []string {
	return slices.DeleteFunc(d.Members(f.Who), func(id string) bool {
		p := d.Player(id)
		return p.Over && p.Late > 0 && window.To > clock.Offset(-d.Margin)
	})
}

func (c *Compiled) resources(d *plan.Document) error {
	add := func(r runin.Resource, free []plan.Span) error {
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
		if err := add(runin.Resource{ID: z.ID, Capacity: z.Capacity}, z.Free); err != nil {
			return err
		}
	}
	for _, l := range d.Leaders {
		if err := add(runin.Resource{ID: l.ID, Capacity: 1, Walks: true}, l.Free); err != nil {
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
	pieces := b.Kit(group)
	for _, name := range slices.Sorted(maps.Keys(d.Kit)) {
		if most := min(pieces[name], d.Kit[name]); most > 0 {
			needs = append(needs, runin.Need{Resource: kitID(name), Amount: most})
		}
	}
	return needs
}

func (c *Compiled) block(d *plan.Document, from *plan.Block) error {
	group, stakes := d.Group(from), from.Stakes(plan.LaterPulse)
	b := runin.Block{ID: from.ID, Place: from.Zone, Players: d.Members(from.Who), Weight: stakes.Weight(),
		Must: stakes.Must(), Loose: from.Loose, Excusable: goesOn(d, from), After: from.After,
		Straight: from.Hold.Straight}
	window, err := d.Window(from, c.Start)
	if err != nil {
		return err
	}
	b.Window = window
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
	dosings := Dosings(from, group, d.UseSpare)
	lower := once(from, group, dosings[0])
	b.Once, b.Levels = levels(lower), levels(dosings)
	c.Dosings, c.once = append(c.Dosings, append(lower, dosings...)), append(c.once, len(lower))
	c.Problem.Blocks = append(c.Problem.Blocks, b)
	return nil
}

// goesOn tells whether a block goes on without who is called away: it is such a one, or
// would have to wait for one of several who comes late.
func goesOn(d *plan.Document, b *plan.Block) bool {
	members := d.Members(b.Who)
	return b.Excusable || len(members) > 2 &&
		slices.ContainsFunc(members, func(id string) bool { return d.Player(id).Late > 0 })
}

func levels(dosings []Dosing) (list []runin.Level) {
	for _, d := range dosings {
		list = append(list, runin.Level{Seconds: d.Seconds, Value: d.Value})
	}
	return list
}

// dosing is what block i does at a level of the problem.
func (c *Compiled) dosing(i, level int) Dosing { return c.Dosings[i][c.once[i]+level] }
