package schedule

import (
	"cmp"
	"math"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/stake"
)

// maxDosings bounds the lengths that a block is offered in: one of many small
// steps is offered in evenly spread ones.
const maxDosings = 8

// Dosing is one length of a block: the amount of each of its drills, and what else of it
// is smaller than planned.
type Dosing struct {
	Amounts []int
	Less    *Less
	Seconds int
	Value   float64 // how much of its worth the block has so: see package stake
}

// Less is what of a block is smaller than its plan has it, beside the amounts of its
// drills.
type Less struct {
	Rounds int    `json:"rounds,omitempty"` // so few; 0: as planned
	Items  []Trim `json:"items,omitempty"`  // by drill
}

// Trim is what of a dose is smaller than planned, beside its amount.
type Trim struct {
	Sets    int       `json:"sets,omitempty"`    // so few; 0: as planned
	Hold    float64   `json:"hold,omitempty"`    // seconds of one hold; 0: as planned
	Efforts []float64 `json:"efforts,omitempty"` // of the trips that are left; none: as planned
}

func (t Trim) none() bool { return t.Sets == 0 && t.Hold == 0 && t.Efforts == nil }

// Suits tells whether l is less of the block: it may come from a phone.
func (l *Less) Suits(b *plan.Block) bool {
	if l == nil {
		return true
	}
	if l.Rounds < 0 || l.Rounds > max(1, b.Rounds) || len(l.Items) > len(b.Items) {
		return false
	}
	for n, t := range l.Items {
		d := &b.Items[n].Drill.Dose
		if t.Sets < 0 || t.Sets > max(1, d.Sets) || !(t.Hold >= 0 && t.Hold <= d.HoldSeconds) ||
			len(t.Efforts) > drill.MaxAmount ||
			slices.ContainsFunc(t.Efforts, func(e float64) bool { return !(e > 0 && e <= 1) }) {
			return false
		}
	}
	return true
}

// Of is the block with so much less; the block itself where l is nil.
func (l *Less) Of(b *plan.Block) *plan.Block {
	if l == nil {
		return b
	}
	less := *b
	less.Rounds = cmp.Or(l.Rounds, b.Rounds)
	less.Items = slices.Clone(b.Items)
	for n, t := range l.Items[:min(len(l.Items), len(b.Items))] {
		d := &less.Items[n].Drill.Dose
		d.Sets, d.HoldSeconds = cmp.Or(t.Sets, d.Sets), cmp.Or(t.Hold, d.HoldSeconds)
		if t.Efforts != nil {
			d.Efforts = t.Efforts
		}
	}
	return &less
}

// degree is how much of a block is done: so many rounds, sets at most (but no fewer than will
// do, unless it is 0: one), and of each drill's amount a share of the way from one bound (0)
// to the other (1).
type degree struct {
	rounds, sets int
	share        float64
}

// toTarget has no dose go beyond what was planned.
const toTarget = false

// Dosings lists the lengths of the block for group, the shortest first: from the least to
// the target of its drills, or with spare to their maximum, all turned up together. Of what
// a coach wrote rounds and sets go first, down to one, then the amounts.
func Dosings(b *plan.Block, group drill.Group, spare bool) []Dosing {
	rounds, sets, steps := max(1, b.Rounds), 1, 1
	written := b.LeastRounds > 0 || slices.ContainsFunc(b.Items, func(i plan.Item) bool { return i.SetsShrink() })
	least := min(max(1, b.LeastRounds), rounds)
	for _, item := range b.Items {
		steps = max(steps, item.Drill.Range.Steps())
		if item.SetsShrink() {
			sets = max(sets, item.Drill.Dose.Sets)
		}
		if item.OneHold() {
			steps = max(steps, 2)
		}
	}
	var degrees []degree
	for n := range min(steps, maxDosings) {
		share := 1.0
		if steps > 1 {
			share = float64(n) / float64(min(steps, maxDosings)-1)
		}
		if written {
			degrees = append(degrees, degree{least, 1, share})
		} else {
			degrees = append(degrees, degree{rounds, sets, share})
		}
	}
	if written {
		for n := 2; n <= sets; n++ {
			degrees = append(degrees, degree{least, n, 1})
		}
		for n := least + 1; n <= rounds; n++ {
			degrees = append(degrees, degree{n, sets, 1})
		}
	}
	dosings := few(lengths(b, group, degrees, within))
	worth(dosings, stake.Least, stake.Target)
	if spare {
		dosings = append(dosings, spared(b, group, dosings[len(dosings)-1])...)
	}
	return dosings
}

// spared are the lengths beyond the target, up to the maximum of the block's drills.
func spared(b *plan.Block, group drill.Group, full Dosing) []Dosing {
	steps := 1
	for _, item := range b.Items {
		steps = max(steps, (item.Drill.Range.Max-item.Drill.Range.Target)/max(1, item.Drill.Range.Step))
	}
	var degrees []degree
	for n := range min(steps, maxDosings) + 1 {
		degrees = append(degrees,
			degree{max(1, b.Rounds), drill.MaxAmount, float64(n) / float64(min(steps, maxDosings))})
	}
	more := lengths(b, group, degrees, func(r drill.Range, share float64) int {
		return min(r.Max, r.Target+int(share*float64(r.Max-r.Target)/float64(max(1, r.Step))+0.5)*max(1, r.Step))
	})
	more = slices.DeleteFunc(more, func(d Dosing) bool { return d.Seconds <= full.Seconds })
	all := append([]Dosing{full}, more...)
	worth(all, stake.Target, stake.Spare)
	return all[1:]
}

// once are the lengths below the least, the shortest first: down to doing each thing once,
// a quarter of a time. What is exact has none.
func once(b *plan.Block, group drill.Group, least Dosing) []Dosing {
	if slices.ContainsFunc(b.Items, func(i plan.Item) bool { return i.Drill.Dose.Exact }) {
		return nil
	}
	const steps = 4
	var degrees []degree
	for n := range steps {
		degrees = append(degrees, degree{1, 0, float64(n) / steps})
	}
	lower := lengths(b, group, degrees, func(r drill.Range, share float64) int {
		return max(1, int(share*float64(r.Min)+0.5))
	})
	for n, d := range lower {
		for i, item := range b.Items {
			if item.Drill.Dose.Kind == drill.Time {
				quarter := float64(item.Drill.Range.Target) / 4
				d.Amounts[i] = int(math.Ceil(min(float64(item.Drill.Range.Min),
					quarter+float64(n)/steps*(float64(item.Drill.Range.Min)-quarter))))
			}
		}
		lower[n].Seconds = d.Less.Of(b).Seconds(d.Amounts, group)
	}
	lower = slices.DeleteFunc(lower, func(d Dosing) bool { return d.Seconds >= least.Seconds })
	if len(lower) == 0 {
		return nil
	}
	all := append(lower, least)
	worth(all, stake.Once, stake.Least)
	return all[:len(lower)]
}

// within is the amount a share of the way from the least to the target.
func within(r drill.Range, share float64) int { return r.At(share) }

// lengths are what the degrees of a block come to, each longer than the one before; of
// those as long the one that does more.
func lengths(b *plan.Block, group drill.Group, degrees []degree,
	amount func(drill.Range, float64) int) (dosings []Dosing) {
	for _, is := range degrees {
		d := Dosing{Amounts: make([]int, len(b.Items))}
		less := Less{Items: make([]Trim, len(b.Items))}
		if is.rounds < b.Rounds {
			less.Rounds = is.rounds
		}
		for i, item := range b.Items {
			d.Amounts[i] = amount(item.Drill.Range, is.share)
			less.Items[i] = trim(item, d.Amounts[i], is)
		}
		if slices.ContainsFunc(less.Items, func(t Trim) bool { return !t.none() }) || less.Rounds > 0 {
			d.Less = &less
		}
		d.Seconds = d.Less.Of(b).Seconds(d.Amounts, group)
		if last := len(dosings) - 1; last >= 0 && dosings[last].Seconds >= d.Seconds {
			dosings[last] = d // more for the same time
			continue
		}
		dosings = append(dosings, d)
	}
	return dosings
}

// trim is what of a drill's dose is smaller at a degree, beside its amount.
func trim(item plan.Item, amount int, is degree) (t Trim) {
	d := &item.Drill.Dose
	if d.Exact {
		return t
	}
	fewest := max(1, is.sets)
	if is.sets > 0 {
		fewest = max(fewest, d.LeastSets)
	}
	if item.SetsShrink() && fewest < d.Sets {
		t.Sets = fewest
	}
	if item.OneHold() && is.share < 1 {
		t.Hold = math.Round(d.HoldSeconds * (2 + is.share) / 3)
	}
	if len(d.Efforts) > 1 && amount < item.Drill.Range.Target {
		t.Efforts = d.Hardest(item.Drill.Range.Target, amount)
	}
	return t
}

// few are at most maxDosings of the lengths, evenly spread, with the first and the last.
func few(all []Dosing) []Dosing {
	if len(all) <= maxDosings {
		return all
	}
	var some []Dosing
	for n := range maxDosings {
		some = append(some, all[n*(len(all)-1)/(maxDosings-1)])
	}
	return some
}

// worth gives the lengths their values, from that of the first to that of the last,
// straight in between; one alone is worth the last.
func worth(dosings []Dosing, from, to float64) {
	first, last := dosings[0].Seconds, dosings[len(dosings)-1].Seconds
	for n := range dosings {
		dosings[n].Value = to
		if last > first {
			dosings[n].Value = from + (to-from)*float64(dosings[n].Seconds-first)/float64(last-first)
		}
	}
}
