package pen

import (
	"fmt"
	"slices"

	"cuestart/core/plan"
)

// between makes an event for everybody that stands among the lines a fence: what stands
// above it lies before it, what stands below after it. It says where that cannot be, since
// the fence above is later.
func (w *writer) between(name string) (problem string) {
	i := slices.IndexFunc(w.doc.Fixed, func(f plan.Fixed) bool { return f.Name == name })
	if i < 0 || len(w.above) == 0 || !slices.Contains(w.doc.Fixed[i].Who, plan.Everyone) {
		return ""
	}
	if last := w.doc.Event(w.fence); last != nil && !w.follows(last, &w.doc.Fixed[i]) {
		return fmt.Sprintf("%s is earlier than %s, which stands above it: what stands between them is held by neither",
			name, last.Name)
	}
	if !w.holdsAbove(&w.doc.Fixed[i]) {
		return ""
	}
	w.end()
	for _, id := range w.above {
		if b := w.doc.Block(id); b != nil && b.Pin == nil && b.Hold.Until == nil && b.Hold.Before == "" {
			b.Hold.Before = w.doc.Fixed[i].ID
		}
	}
	w.fence, w.above = w.doc.Fixed[i].ID, nil
	return ""
}

// follows tells whether an event begins once another is over; where it does not, what stands
// between them in the list is held no more.
func (w *writer) follows(last, f *plan.Fixed) bool {
	start, err := w.doc.Start.Resolve()
	if err != nil {
		return true
	}
	to, err := last.Span.To.Offset(start)
	from, other := f.Span.From.Offset(start)
	if err != nil || other != nil || from >= to {
		return true
	}
	for _, id := range w.above {
		if b := w.doc.Block(id); b != nil && b.Hold.After == last.ID {
			b.Hold.After = ""
		}
	}
	w.fence, w.above = "", nil
	return false
}

// holdsAbove tells whether there is time before an event for the least of what stands above it:
// else it is told for itself, and is no fence.
func (w *writer) holdsAbove(f *plan.Fixed) bool {
	start, err := w.doc.Start.Resolve()
	if err != nil {
		return false
	}
	from, err := f.Span.From.Offset(start)
	if err != nil {
		return false
	}
	open, err := w.doc.Open.Offset(start)
	if err != nil {
		return false
	}
	least := map[string]int{}
	for _, id := range w.above {
		b := w.doc.Block(id)
		if b == nil {
			continue
		}
		amounts := b.Targets()
		for n := range amounts {
			amounts[n] = b.Items[n].Drill.Range.Min
		}
		for _, player := range w.doc.Members(b.Who) {
			if least[player] += b.Seconds(amounts, w.doc.Group(b)); least[player] > int(from-open) {
				return false
			}
		}
	}
	return true
}
