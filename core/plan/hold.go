package plan

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
)

// Hold is where a coach holds a block, beside the minute that [Block.Pin] sets. A
// block with From and Until stands in a slot, and takes as much of its doses as fits.
type Hold struct {
	From   *clock.Moment `json:"from,omitempty"`   // it starts no earlier
	Until  *clock.Moment `json:"until,omitempty"`  // it is done by then
	Before string        `json:"before,omitempty"` // id of a fixed event: done when that begins
	// id of a fixed event: it starts when that is over, or later
	After    string `json:"after,omitempty"`
	Straight string `json:"straight_after,omitempty"` // id of a block: it starts when that one ends
}

// Held tells whether the coach holds the block somewhere.
func (b *Block) Held() bool { return b.Pin != nil || b.Hold != (Hold{}) }

// Timed tells whether the coach said when the block runs, by a minute or a slot: then
// it takes its place in time by that, wherever the list has it.
func (b *Block) Timed() bool { return b.Pin != nil || b.Hold.From != nil && b.Hold.Until != nil }

// Slot tells whether the block stands in a slot.
func (b *Block) Slot() bool { return b.Hold.From != nil && b.Hold.Until != nil }

func (h Hold) clone() Hold {
	h.From, h.Until = pointed(h.From), pointed(h.Until)
	return h
}

// Window is what a hold leaves on the time line of start; nil: no such bound.
func (w *Work) Window(b *Block, start time.Time) (window [2]*clock.Offset, err error) {
	bound := func(edge int, m clock.Moment, tighter func(a, b clock.Offset) bool) {
		at, wrong := m.Offset(start)
		if wrong != nil {
			err = wrong
		} else if window[edge] == nil || tighter(at, *window[edge]) {
			window[edge] = &at
		}
	}
	later := func(a, b clock.Offset) bool { return a > b }
	sooner := func(a, b clock.Offset) bool { return a < b }
	if b.Hold.From != nil {
		bound(0, *b.Hold.From, later)
	}
	if b.Hold.Until != nil {
		bound(1, *b.Hold.Until, sooner)
	}
	if f := w.Event(b.Hold.After); f != nil {
		bound(0, f.Span.To, later)
	}
	if f := w.Event(b.Hold.Before); f != nil {
		bound(1, f.Span.From, sooner)
	}
	return window, err
}

// HeldWords says where a block is held, as a coach does: "at 40′", "26′ to 18′",
// "before Kit on"; "" where it is not.
func (w *Work) HeldWords(b *Block) string {
	var parts []string
	say := func(text string, args ...any) { parts = append(parts, fmt.Sprintf(text, args...)) }
	h := b.Hold
	if b.Pin != nil {
		say("at %s", momentWords(*b.Pin))
	}
	switch {
	case h.From != nil && h.Until != nil:
		say("%s to %s", momentWords(*h.From), momentWords(*h.Until))
	case h.From != nil:
		say("not before %s", momentWords(*h.From))
	case h.Until != nil:
		say("done by %s", momentWords(*h.Until))
	}
	if f := w.Event(h.Before); f != nil {
		say("before %s", f.Name)
	}
	if f := w.Event(h.After); f != nil {
		say("after %s", f.Name)
	}
	for _, id := range b.After {
		if a := w.Block(id); a != nil {
			say("after %s", a.Name)
		}
	}
	if a := w.Block(h.Straight); a != nil {
		say("straight after %s", a.Name)
	}
	return strings.Join(parts, ", ")
}

// momentWords is a moment as it was said: minutes to go, or a time on the clock.
func momentWords(m clock.Moment) string {
	if m.Clock != "" {
		return m.Clock
	}
	return clock.Offset(-m.Before).ToGo()
}

// Holds is all that holds a block.
type Holds struct {
	At *clock.Moment
	Hold
	Follows []string // ids of blocks that end first
}

// SetHold holds a block where the coach wants it, or lets it go where to is empty.
func (d *Document) SetHold(block string, to Holds) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	was := *b
	b.Pin, b.Hold, b.After = to.At, to.Hold, to.Follows
	if problem := d.holdProblem(b); problem != "" {
		b.Pin, b.Hold, b.After = was.Pin, was.Hold, was.After
		return "", In(AtBlock(block, "hold"), "%s", problem)
	}
	if words := d.HeldWords(b); words != "" {
		return fmt.Sprintf("%s is held %s", b.Name, words), nil
	}
	return b.Name + " may move", nil
}

// holdProblem says why a hold can never be kept, or "".
func (d *Document) holdProblem(b *Block) string {
	start, err := d.Start.Resolve()
	if err != nil {
		return ""
	}
	if b.Hold.Before != "" && d.Event(b.Hold.Before) == nil || b.Hold.After != "" && d.Event(b.Hold.After) == nil {
		return "that is not among what the day holds"
	}
	window, err := d.Window(b, start)
	if err != nil {
		return err.Error()
	}
	if window[0] != nil && window[1] != nil && *window[0] >= *window[1] {
		return fmt.Sprintf("not before %s and done by %s leaves no time between", window[0].ToGo(), window[1].ToGo())
	}
	open, err := d.Open.Offset(start)
	due := d.due(b)
	switch {
	case err != nil:
		return ""
	case b.Pin != nil:
		at, err := b.Pin.Offset(start)
		if err != nil {
			return err.Error()
		}
		if at < open || at >= due {
			return fmt.Sprintf("%s lies outside the work, which runs from %s to %s", at.ToGo(), open.ToGo(), due.ToGo())
		}
		if window[0] != nil && at < *window[0] || window[1] != nil && at >= *window[1] {
			return fmt.Sprintf("at %s contradicts the rest of it", at.ToGo())
		}
	case window[0] != nil && *window[0] >= due, window[1] != nil && *window[1] <= open:
		return fmt.Sprintf("that lies outside the work, which runs from %s to %s", open.ToGo(), due.ToGo())
	}
	return d.circle(b)
}

// due is the latest moment at which somebody of the block is due.
func (d *Document) due(b *Block) clock.Offset {
	due := clock.Offset(-d.Margin)
	for _, id := range d.Members(b.Who) {
		due = max(due, clock.Offset(d.Player(id).DueShift-d.Margin))
	}
	return due
}

// follows are the blocks that end before b starts.
func (b *Block) follows() []string {
	if b.Hold.Straight == "" {
		return b.After
	}
	return append(slices.Clone(b.After), b.Hold.Straight)
}

// circle finds that b waits for itself.
func (w *Work) circle(b *Block) string {
	seen := map[string]bool{}
	var visit func(*Block) string
	visit = func(at *Block) string {
		for _, id := range at.follows() {
			next := w.Block(id)
			switch {
			case next == nil:
				return "the block that it should follow is no longer in the plan"
			case next.ID == b.ID && at == b:
				return "a block cannot follow itself"
			case next.ID == b.ID:
				return fmt.Sprintf("%s already comes after %s: both cannot come first", at.Name, b.Name)
			case !seen[id]:
				seen[id] = true
				if problem := visit(next); problem != "" {
					return problem
				}
			}
		}
		return ""
	}
	return visit(b)
}

// Unclock counts what stands at a time on the clock back from the start: a plan that is used
// on another day goes by its minutes.
func (d *Document) Unclock() {
	start, err := d.Start.Resolve()
	if err != nil {
		return
	}
	moments := []*clock.Moment{&d.Open}
	for i := range d.Fixed {
		moments = append(moments, &d.Fixed[i].Span.From, &d.Fixed[i].Span.To)
	}
	for b := range d.AllBlocks() {
		moments = append(moments, b.Pin, b.Hold.From, b.Hold.Until)
	}
	for _, m := range moments {
		if m == nil || m.Clock == "" {
			continue
		}
		if at, err := m.Offset(start); err == nil {
			*m = clock.BeforeStart(int(-at))
		}
	}
}

// Unlink forgets links to blocks and fixed events that are not in the plan.
func (w *Work) Unlink() {
	for i := range w.Blocks {
		b := &w.Blocks[i]
		b.After = slices.DeleteFunc(b.After, func(id string) bool { return w.Block(id) == nil })
		if w.Block(b.Hold.Straight) == nil {
			b.Hold.Straight = ""
		}
		for _, link := range []*string{&b.Hold.Before, &b.Hold.After} {
			if w.Event(*link) == nil {
				*link = ""
			}
		}
	}
}

// MethodOrder lists the blocks, by index, in the order of the method's phases, within
// a phase as they are listed; own time comes first.
func (w *Work) MethodOrder() []int {
	order := make([]int, len(w.Blocks))
	for i := range order {
		order[i] = i
	}
	phases := Methods[w.Method].Phases
	rank := func(i int) int {
		b := &w.Blocks[i]
		if b.Phase == drill.Own && len(b.After) > 0 { // it goes with what it follows
			if followed := w.Block(b.After[0]); followed != nil {
				b = followed
			}
		}
		return slices.Index(phases, b.Phase)
	}
	slices.SortStableFunc(order, func(i, j int) int { return rank(i) - rank(j) })
	return order
}

// InMethodOrder tells whether the list follows the method.
func (w *Work) InMethodOrder() bool { return slices.IsSorted(w.MethodOrder()) }

// Relist lists the blocks in the method's order.
func (w *Work) Relist() (string, error) {
	order := w.MethodOrder()
	blocks := make([]Block, len(order))
	for to, from := range order {
		blocks[to] = w.Blocks[from]
	}
	w.Blocks = blocks
	return "listed in the method's order", nil
}

// Upgrade brings a document of an earlier format up to this one: until format 2 the
// method, not the list, said in which order phases come.
func (d *Document) Upgrade() {
	if d.Format < 2 {
		d.Relist()
		for i := range d.Blocks {
			if b := &d.Blocks[i]; b.Phase == drill.Own { // it might lie anywhere
				b.Loose = true
			}
		}
	}
	d.Format = Format
}

// Move moves a block in the list: before another one, or last where that is "". From
// then on it is firm: it keeps its place among its neighbours.
func (w *Work) Move(block, before string) (string, error) {
	i := slices.IndexFunc(w.Blocks, func(b Block) bool { return b.ID == block })
	if i < 0 || before != "" && w.Block(before) == nil {
		return "", ErrNoSuchBlock
	}
	if block == before {
		return "", In(AtBlock(block, ""), "%s cannot stand before itself", w.Blocks[i].Name)
	}
	b := w.Blocks[i]
	b.Loose = false
	w.Blocks = slices.Delete(w.Blocks, i, i+1)
	to, said := len(w.Blocks), b.Name+" last"
	if before != "" {
		to = slices.IndexFunc(w.Blocks, func(b Block) bool { return b.ID == before })
		said = fmt.Sprintf("%s before %s", b.Name, w.Blocks[to].Name)
	}
	w.Blocks = slices.Insert(w.Blocks, to, b)
	return said, nil
}

// Neighbour is the next block before (by -1) or after (by 1) the one at index i that
// shares a player with it; nil where there is none. Loose own time is none: it lies
// wherever there is room.
func (d *Document) Neighbour(i, by int) *Block {
	members := d.Members(d.Blocks[i].Who)
	for j := i + by; j >= 0 && j < len(d.Blocks); j += by {
		if d.Blocks[j].Loose && d.Blocks[j].Phase == drill.Own {
			continue
		}
		if slices.ContainsFunc(d.Members(d.Blocks[j].Who), func(id string) bool {
			return slices.Contains(members, id)
		}) {
			return &d.Blocks[j]
		}
	}
	return nil
}

// Step moves a block before (by -1) or after (by 1) its neighbour in the list.
func (d *Document) Step(block string, by int) (string, error) {
	if l := d.ListOf(block); l != nil {
		on := d.On(l)
		said, err := on.Step(block, by)
		l.Blocks = on.Blocks
		return said, err
	}
	i := slices.IndexFunc(d.Blocks, func(b Block) bool { return b.ID == block })
	if i < 0 {
		return "", ErrNoSuchBlock
	}
	next, where := d.Neighbour(i, by), "after"
	if by < 0 {
		where = "before"
	}
	if next == nil {
		return "", In(AtBlock(block, ""), "%s has nothing %s it", d.Blocks[i].Name, where)
	}
	said := fmt.Sprintf("%s %s %s", d.Blocks[i].Name, where, next.Name)
	before := next.ID
	if by > 0 {
		before = ""
		if at := slices.IndexFunc(d.Blocks, func(b Block) bool { return b.ID == next.ID }); at+1 < len(d.Blocks) {
			before = d.Blocks[at+1].ID
		}
	}
	_, err := d.Move(block, before)
	return said, err
}

// PlaceFor is where in the list a new block of a phase belongs: after the last one of
// its phase or an earlier one, as the method has them.
func (w *Work) PlaceFor(phase drill.Phase) int {
	phases := Methods[w.Method].Phases
	for i := len(w.Blocks) - 1; i >= 0; i-- {
		if slices.Index(phases, w.Blocks[i].Phase) <= slices.Index(phases, phase) {
			return i + 1
		}
	}
	return 0
}
