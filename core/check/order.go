package check

import (
	"fmt"
	"slices"

	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// orderRule is the id of the rule that looks at the order of phases.
const orderRule = "order"

// order finds phases that stand after one that the method has later, for players who
// do both. Blocks held at a minute are where they were meant to be.
func order(r *reading) {
	phases := plan.Methods[r.Document.Method].Phases
	said := map[[2]string]bool{}
	list := slices.DeleteFunc(slices.Clone(r.blocks), func(b schedule.Block) bool {
		return !b.Kept || b.Phase == "" || b.Timed()
	})
	slices.SortStableFunc(list, func(a, b schedule.Block) int { return int(a.Start - b.Start) })
	for i := range list {
		for j := i + 1; j < len(list); j++ {
			a, b := &list[i], &list[j]
			pair := [2]string{a.Phase.Name(), b.Phase.Name()}
			if slices.Index(phases, a.Phase) <= slices.Index(phases, b.Phase) || said[pair] ||
				len(shared(a.Members, b.Members)) == 0 {
				continue
			}
			said[pair] = true
			what := fmt.Sprintf("%s comes after %s, and %s usually goes before %s", b.Name, a.Name, pair[1], pair[0])
			r.add(b.ID, what, nil, "Put into the method's order",
				func(d *plan.Document) bool { _, err := d.Relist(); return err == nil })
		}
	}
}
