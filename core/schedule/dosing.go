package schedule

import (
	"cuestart/core/drill"
	"cuestart/core/plan"
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
