package compose

import (
	"context"
	"slices"
	"strings"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// bettered is the plan without what the fit had no room for, mended until a coach would
// find nothing to put right, or nothing that one change puts right.
func (c *composer) bettered(ctx context.Context, m *Made) (*Made, error) {
	tried, tries := map[string]bool{}, 0
	for n := 0; n < warnsAtMost && tries < triesAtMost; n++ {
		in := check.Input{Document: m.Document, Schedule: m.Schedule, Book: c.Book, Steps: c.Steps}
		if next := withoutLeftOut(in); next != nil {
			fresh, err := c.fitted(ctx, next)
			if err != nil {
				return nil, err
			}
			if check.Count(fresh.Findings).Stops <= check.Count(m.Findings).Stops {
				m = fresh
				continue
			}
		}
		i := slices.IndexFunc(m.Findings,
			func(f check.Finding) bool { return f.Severity == check.Warn && !tried[f.Rule+f.Where] })
		if i < 0 {
			break
		}
		f := m.Findings[i]
		tried[f.Rule+f.Where] = true
		better, err := c.change(ctx, in, f, m, &tries)
		if err != nil {
			return nil, err
		}
		if better != nil {
			m, tried = better, map[string]bool{}
		}
	}
	c.doc = m.Document
	return m, nil
}

// change is the first change for a warning after which there is less to warn of; nil
// where there is none.
func (c *composer) change(ctx context.Context, in check.Input, f check.Finding, m *Made, tries *int) (*Made, error) {
	was := check.Count(m.Findings)
	for _, way := range c.ways(ctx, in, f) {
		next := way()
		if next == nil || next.Validate() != nil {
			continue
		}
		*tries++
		made, err := c.fitted(ctx, next)
		if err != nil {
			return nil, err
		}
		if tally := check.Count(made.Findings); tally.Stops <= was.Stops && tally.Warns < was.Warns &&
			made.Schedule.Result.Feasible == m.Schedule.Result.Feasible {
			return made, nil
		}
	}
	return nil, nil
}

// fitted is a document of the composer's with its schedule and findings.
func (d *day) fitted(ctx context.Context, doc *plan.Document) (*Made, error) {
	d.doc = doc
	d.say()
	fitted, err := schedule.Fit(ctx, doc, d.Steps)
	if err != nil {
		return nil, err
	}
	return &Made{Document: doc, Schedule: fitted,
		Findings: check.Check(check.Input{Document: doc, Schedule: fitted, Book: d.Book, Steps: d.Steps})}, nil
}

// ways are the changes that may put a warning right: the check's own, and where that is
// not enough what only somebody does who plans anew.
func (c *composer) ways(ctx context.Context, in check.Input, f check.Finding) (list []func() *plan.Document) {
	on := func(edit func(d *plan.Document)) {
		list = append(list, func() *plan.Document {
			next := in.Document.Clone()
			c.doc = next
			edit(next)
			return next
		})
	}
	list = append(list, func() *plan.Document {
		next, _, _ := check.Mend(ctx, in, f.Rule, f.Where)
		return next
	})
	switch f.Rule {
	case "missed-must": // who is called away does not hold up the rest
		on(func(d *plan.Document) { d.SetPriority(f.Where, plan.Should) })
	case "cooling":
		for _, seconds := range []int{180, 300, 480} {
			on(func(d *plan.Document) { c.filler(len(d.Blocks), f.Players, seconds) })
		}
	case "cool-start", "no-full":
		for _, edit := range c.warmer(in, f.Rule) {
			on(edit)
		}
	case "queue": // more trips, and less of them is waiting
		on(func(d *plan.Document) {
			if b := d.Block(f.Where); b != nil {
				for i := range b.Items {
					b.Items[i].Drill.Range.Min = b.Items[i].Drill.Range.Target
				}
			}
		})
		fallthrough
	case "too-far", "grid-untried", "contacts", "static-last":
		on(func(d *plan.Document) {
			if b := d.Block(f.Where); b != nil && b.Priority != plan.Must {
				d.Remove(b.ID)
			}
		})
	}
	return list
}

// sharp ends with rising strides, where nothing else is at full effort.
func (c *composer) sharp(d *plan.Document) {
	if b, k := d.Block("finish"), c.byCode["strides-rising"]; b != nil && c.usable(k, len(d.Members(b.Who))) == "" {
		b.Items = []plan.Item{c.item(k)}
	}
}

// lastWait is how many seconds before the start what holds everybody is a wait that cools.
const lastWait = 20 * 60

// keepMoving has everybody move on in what holds them all before the start.
func keepMoving(d *plan.Document) {
	for i := range d.Fixed {
		f := &d.Fixed[i]
		if slices.Contains(f.Who, plan.Everyone) && !f.Active && f.Span.From.Clock == "" &&
			f.Span.From.Before <= lastWait && f.Span.To.Before > 0 {
			f.Active = true
			d.Note("Keep everybody moving during " + f.Name + ": they cool there")
		}
	}
}

// warmer are the changes after which everybody may be warm, and was at full effort, at the
// start: the mildest first.
func (c *composer) warmer(in check.Input, rule string) (list []func(d *plan.Document)) {
	wear := func(*plan.Document) {}
	if rule == "no-full" {
		list = append(list, c.sharp)
	} else {
		if air := in.Document.Today.Air(); (air == plan.Cold || air == plan.Cool) && !in.Document.Today.Layers {
			wear = layers
			list = append(list, layers)
		}
		list = append(list, func(d *plan.Document) { wear(d); keepMoving(d) },
			func(d *plan.Document) { wear(d); keepMoving(d); longerFinish(d) })
	}
	return append(list,
		func(d *plan.Document) { wear(d); firmFinish(d) },
		func(d *plan.Document) { wear(d); longerFinish(d) },
		func(d *plan.Document) { wear(d); longerFinish(d); slower(d) },
		func(d *plan.Document) { wear(d); longerFinish(d); slower(d); dropOne(d); d.Margin = min(d.Margin, 180) },
		func(d *plan.Document) {
			wear(d)
			for n := 0; n < plan.MaxBlocks; n++ {
				dropOne(d)
			}
			for range 3 {
				longerFinish(d)
			}
			slower(d)
			d.Margin = min(d.Margin, 180)
		})
}

// layers has everybody wear something warm while they wait.
func layers(d *plan.Document) {
	d.Today.Layers = true
	d.Note("Warm layers on whenever they wait: it is cold")
}

// firmFinish keeps the last hard minutes of the plan from being cut.
func firmFinish(d *plan.Document) {
	if b := d.Block("finish"); b != nil {
		b.Items[0].Drill.Range.Min = b.Items[0].Drill.Range.Target
	}
}

// longerFinish makes the last hard minutes of the plan longer: the finish, or else the last
// block of everybody.
func longerFinish(d *plan.Document) {
	b := d.Block("finish")
	for i := range d.Blocks {
		if last := &d.Blocks[i]; d.Block("finish") == nil && slices.Contains(last.Who, plan.Everyone) &&
			len(last.Items) == 1 {
			b = last
		}
	}
	if b != nil {
		r := &b.Items[0].Drill.Range
		r.Target = min(r.Max, (r.Target+r.Max+1)/2)
		r.Min = r.Target // what warms last is not what gives way
	}
}

// slower shortens what is slow before that.
func slower(d *plan.Document) {
	for i := range d.Blocks {
		if b := &d.Blocks[i]; b.Phase == drill.Activate || b.Phase == drill.Mobilise {
			for n := range b.Items {
				b.Items[n].Drill.Range.Target = b.Items[n].Drill.Range.Min
			}
		}
	}
}

// dropOne takes the block out that is given up most willingly.
func dropOne(d *plan.Document) {
	for _, p := range []plan.Priority{plan.Could, plan.Should} {
		for i := range d.Blocks {
			if d.Blocks[i].Priority == p && d.Blocks[i].Phase != drill.Raise && d.Blocks[i].ID != "finish" {
				d.Remove(d.Blocks[i].ID)
				return
			}
		}
	}
}

// withoutLeftOut is the plan without the blocks that had no room; nil where all have.
func withoutLeftOut(in check.Input) *plan.Document {
	next := in.Document.Clone()
	var gone []string
	for _, b := range in.Schedule.Blocks(in.Document) {
		if !b.Kept && b.Priority != plan.Must {
			next.Remove(b.ID)
			gone = append(gone, strings.ToLower(b.Name))
		}
	}
	if len(gone) == 0 || len(next.Blocks) == 0 {
		return nil
	}
	next.Note("No time for " + and(gone))
	return next
}
