package compose

import (
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Usual are the blocks that a list of its kind usually holds for a session: after the
// end walking, holds for what the sport stresses, and breathing; at half-time and on the
// bench a pulse, something that moves the joints, and a rising sprint (Mohr 2004). It
// fails with [plan.Problems] where the brief does not hold.
func Usual(b Brief, when plan.When) ([]plan.Block, error) {
	c, err := newComposer(b)
	if err != nil {
		return nil, err
	}
	if when == plan.AfterEnd {
		return c.afterEnd(), nil
	}
	return c.again(), nil
}

// holdsAfter is how many muscles are held after the end.
const holdsAfter = 4

func (c *composer) afterEnd() []plan.Block {
	block := func(name string, drills ...drill.Drill) plan.Block {
		b := plan.Block{Name: name, Phase: drill.After, Who: []string{plan.Everyone}, Priority: plan.Should}
		for _, k := range drills {
			b.Items = append(b.Items, c.item(k))
		}
		b.Aim = b.Aims()
		return b
	}
	var walk, holds, calm []drill.Drill
	covered := map[string]bool{}
	for _, k := range c.Book {
		if !k.Serves(drill.After) || c.usable(k, len(c.doc.Players)) != "" {
			continue
		}
		moves := slices.Contains(k.Qualities, "calm")
		fresh := slices.ContainsFunc(k.Regions,
			func(joint string) bool { return slices.Contains(c.Sport.Stresses, joint) && !covered[joint] })
		switch {
		case moves && k.Effort >= 0.2 && len(walk) == 0:
			walk = append(walk, k)
		case moves && k.Effort < 0.2 && len(calm) == 0:
			calm = append(calm, k)
		case k.Static && fresh && len(holds) < holdsAfter:
			holds = append(holds, k)
			for _, joint := range k.Regions {
				covered[joint] = true
			}
		}
	}
	var blocks []plan.Block
	for _, one := range []struct {
		name   string
		drills []drill.Drill
	}{{"Come down", walk}, {"Holds", holds}, {"Breathe", calm}} {
		if len(one.drills) > 0 {
			blocks = append(blocks, block(one.name, one.drills...))
		}
	}
	return blocks
}

// again is one short block that brings back what waiting took.
func (c *composer) again() []plan.Block {
	b := plan.Block{Name: "Wake up again", Phase: drill.Raise, Who: []string{plan.Everyone}, Priority: plan.Should,
		Zone: c.zone("", len(c.doc.Players), 0)}
	group := drill.Group{People: len(c.doc.Players), Lanes: len(c.doc.Players)}
	anything := func(drill.Drill) bool { return true }
	for _, one := range []struct {
		phase   drill.Phase
		wants   func(drill.Drill) bool
		seconds int
		warm    bool
	}{{phase: drill.Raise, wants: anything, seconds: 60, warm: false},
		{phase: drill.Mobilise, wants: func(k drill.Drill) bool { return !k.Ground }, seconds: 45, warm: true},
		{phase: drill.Potentiate, wants: rising, seconds: 40, warm: true}} {
		if k := c.best(one.phase, one.wants, one.seconds, group, newCoverage(), one.warm); k != nil {
			b.Items = append(b.Items, c.item(*k))
		}
	}
	if len(b.Items) == 0 {
		return nil
	}
	b.Aim = b.Aims()
	return []plan.Block{b}
}
