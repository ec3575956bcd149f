package schedule

import (
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// pulse finds the first warming block of each player, which is a must: it makes the rest safe,
// and so is cut last ([stake.Block]).
func (c *Compiled) pulse(d *plan.Document) {
	warmed := map[string]bool{}
	for _, i := range c.order(d) {
		b := &d.Blocks[i]
		if b.Phase == drill.Own || !warming(b) {
			continue
		}
		of := &c.Problem.Blocks[i]
		first := slices.ContainsFunc(of.Players, func(id string) bool { return !warmed[id] })
		if stakes := b.Stakes(plan.FirstPulse); first && stakes.Must() {
			of.Must, of.Pulse, of.Weight = true, true, stakes.Weight()
		}
		for _, id := range of.Players {
			warmed[id] = true
		}
	}
}

// warming tells whether a block raises the pulse: a drill in it moves at an effort that
// warms.
func warming(b *plan.Block) bool {
	return slices.ContainsFunc(b.Items, func(i plan.Item) bool {
		return i.Drill.Effort >= drill.DynamicEffort && !i.Drill.Static && !i.Alongside
	})
}
