package compose

import (
	"fmt"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// shortThrow is how many metres a drill may reach so that people do it side by side
// all over a place.
const shortThrow = 20

// unqueue gives a routine so many stations that nobody waits for more than half of a
// drill; what cannot be done so is left out.
func (c *composer) unqueue(b *plan.Block, people int) {
	roomy := 0
	if z := c.doc.Zone(b.Zone); z != nil {
		roomy = z.Capacity / 2
	}
	half := (people + 1) / 2
	var kept []plan.Item
	for _, item := range b.Items {
		k := item.Drill
		if k.Dose.Kind == drill.Travel && queues(k, c.doc.Group(b)) {
			k = moving(k)
		}
		if queues(k, c.doc.Group(b)) && k.Turns() && k.Space.Length <= shortThrow && half <= roomy &&
			c.equips(k, half) {
			b.Stations = max(b.Stations, half)
		}
		if queues(k, c.doc.Group(b)) {
			c.without(b.Name, k.Name, fmt.Sprintf("%d people would queue for it", people))
			continue
		}
		item.Drill = k
		kept = append(kept, item)
	}
	if b.Items = kept; len(kept) == 0 {
		if k := c.instead(b, people); k != nil {
			b.Items = []plan.Item{c.item(*k)}
			b.Stations = 0
		}
	}
}

// equips tells whether there is kit for so many stations.
func (d *day) equips(k drill.Drill, stations int) bool {
	return d.Kit == nil || !slices.ContainsFunc(slices.Concat(k.Kit, k.LaneKit),
		func(kit string) bool { return drill.Counted(kit) && d.Kit[kit] < stations })
}

// instead is a drill of the sport in which so many people do not queue; nil where there
// is none.
func (c *composer) instead(b *plan.Block, people int) (found *drill.Drill) {
	group := c.doc.Group(b)
	group.People = people
	for i := range c.Book {
		k := &c.Book[i]
		if k.Serves(b.Phase) && slices.Contains(k.Sports, c.Sport.Key) && !k.Collision && c.usable(*k, people) == "" &&
			!queues(*k, group) &&
			!slices.ContainsFunc(c.doc.Blocks, func(o plan.Block) bool {
				return slices.ContainsFunc(o.Items, func(i plan.Item) bool { return i.Drill.Code == k.Code })
			}) {
			return k
		}
	}
	return nil
}
