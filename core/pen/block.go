package pen

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// merged is what holds for a line: what it says, and of what it does not say the
// heading it stands under.
func (w *writer) merged(l *say.Line) say.Line {
	m := *l
	h := w.head
	if h == nil {
		return m
	}
	if m.Who == nil {
		m.Who, m.Not = h.Who, append(slices.Clone(m.Not), h.Not...)
	}
	if m.Where == "" {
		m.Where = h.Where
	}
	if m.Leader == "" {
		m.Leader = h.Leader
	}
	if m.Priority == "" {
		m.Priority = h.Priority
	}
	if m.At == nil && m.Window == nil && m.Before+m.After+m.StraightAfter == "" {
		m.At, m.Window, m.Before, m.After, m.StraightAfter, m.Clocks = h.At, h.Window, h.Before, h.After,
			h.StraightAfter, h.Clocks
	}
	if m.Rounds == 0 {
		m.Rounds, m.LeastRounds, m.RestSeconds = h.Rounds, h.LeastRounds, h.RestSeconds
	}
	m.Loose = m.Loose || h.Loose
	if m.Forms == (say.Forms{}) {
		m.Forms = h.Forms
	}
	return m
}

// When is when a line is held, in one form; "" where it is not.
func When(l *say.Line) string {
	at := func(p *int) string {
		if p == nil {
			return ""
		}
		return strconv.Itoa(*p)
	}
	if l.Window != nil {
		return at(l.At) + "|" + at(l.Window[0]) + "/" + at(l.Window[1])
	}
	return at(l.At)
}

// together is what the lines of one block have in common.
func together(l *say.Line, phase drill.Phase) string {
	return strings.Join([]string{string(phase), strings.Join(l.Who, ",") + "-" + strings.Join(l.Not, ","), l.Where,
		l.Leader, l.Priority, When(l), l.Before, l.After, l.StraightAfter, strconv.Itoa(l.Rounds),
		fmt.Sprint(l.Forms)}, "|")
}

// into is the block that a line belongs to: the one that is being filled, or a new one.
func (w *writer) into(l *say.Line, phase drill.Phase, name string) (*plan.Block, string) {
	key := together(l, phase)
	if w.head != nil && w.head.Name != "" || w.head == nil && l.Para {
		// a heading's, or a paragraph's lines are one block, whatever phases they are of
		key = together(l, "")
	}
	if b := w.doc.Block(w.block); b != nil && w.only {
		if len(b.Items) >= plan.MaxItems {
			return nil, fmt.Sprintf("a block has %d drills at most", plan.MaxItems)
		}
		return b, ""
	}
	if b := w.doc.Block(w.block); b != nil && w.key == key && len(b.Items) < plan.MaxItems {
		return b, ""
	}
	w.end()
	if len(w.doc.Blocks) >= plan.MaxBlocks {
		return nil, fmt.Sprintf("a plan has %d blocks at most", plan.MaxBlocks)
	}
	return w.begin(l, phase, name, key)
}

// begin begins a new block with a line, whose lines have key in common.
func (w *writer) begin(l *say.Line, phase drill.Phase, name, key string) (*plan.Block, string) {
	who := w.audience(l)
	if w.doc.Nobody(who) {
		who = []string{plan.Everyone}
	}
	b := plan.Block{Name: say.Short(say.Capital(name)), Phase: phase, Who: who, Priority: plan.Should,
		Excusable: slices.Contains(who, plan.Everyone), Loose: l.Loose,
		Rounds: min(l.Rounds, 20), LeastRounds: min(l.LeastRounds, 20), RoundRest: min(int(l.RestSeconds), 600),
		Form: l.Form, Split: l.Split, Change: min(l.Change, 600), Pick: min(l.Pick, plan.MaxItems), On: l.On,
		Stations: min(l.Lanes, 100)}
	if l.Priority != "" {
		b.Priority = plan.Priority(l.Priority)
	}
	// What is for others, or elsewhere, than the heading's first line is not what it names.
	if w.named = w.head != nil && w.head.Name != "" && w.headed != w.head; w.named {
		w.headed = w.head
		b.Name = say.Short(say.Capital(w.head.Name))
		b.Note = strings.TrimSpace(strings.Join(append(slices.Clone(w.head.Cues), w.head.Note), "\n"))
	}
	b.Zone, b.Leader = w.zoneID(l.Where), w.leaderID(l.Leader)
	if b.Zone == "" {
		b.Zone = w.doc.UsualZone(who)
	}
	if w.list != "" {
		b.Zone = w.zoneID(l.Where)
		id, err := w.doc.InsertInto(w.list, b)
		if err != nil {
			return nil, sentence(err)
		}
		if l := w.doc.ListOf(id); w.ends != "" {
			l.Line = w.ends
		}
		w.block, w.key = id, key
		return w.doc.Block(id), w.hold(w.doc.Block(id), l)
	}
	w.block, w.key = w.doc.Insert(b, w.before), key
	placed := w.doc.Block(w.block)
	problem := w.hold(placed, l)
	w.above = append(w.above, w.block)
	if placed.Pin == nil && placed.Hold == (plan.Hold{}) && placed.After == nil {
		placed.Hold.After = w.fence
	}
	return placed, problem
}

func (w *writer) zoneID(name string) string {
	for _, z := range w.doc.Zones {
		if z.Name == name {
			return z.ID
		}
	}
	return ""
}

// leaderID is the id of a leader by name; of a player who leads, too.
func (w *writer) leaderID(name string) string {
	for _, l := range w.doc.Leaders {
		if l.Name == name {
			return l.ID
		}
	}
	if ids := w.id(name); name != "" && len(ids) == 1 {
		return w.doc.PlayerLeads(ids[0])
	}
	return ""
}

// hold holds a new block as its line says; it returns what cannot be.
func (w *writer) hold(b *plan.Block, l *say.Line) string {
	to := plan.Holds{At: moment(l, l.At)}
	if l.Window != nil {
		to.From, to.Until = moment(l, l.Window[0]), moment(l, l.Window[1])
	}
	var lost []string
	link := func(name string, event *string, block func(id string)) {
		if name == "" {
			return
		}
		for _, f := range w.doc.Fixed {
			if event != nil && say.Fold(f.Name) == say.Fold(name) {
				*event = f.ID
				return
			}
		}
		if id := w.blockID(name, b.ID); id != "" {
			block(id)
		} else {
			lost = append(lost, fmt.Sprintf("there is no %s to go by", name))
		}
	}
	ahead := ""
	link(l.Before, &to.Hold.Before, func(id string) { ahead = id })
	link(l.After, &to.Hold.After, func(id string) { to.Follows = append(to.Follows, id) })
	link(l.StraightAfter, nil, func(id string) { to.Straight = id })
	if to.At == nil && to.Hold == (plan.Hold{}) && to.Follows == nil && ahead == "" {
		return strings.Join(lost, "; ")
	}
	id := b.ID
	if _, err := w.doc.SetHold(id, to); err != nil {
		lost = append(lost, sentence(err))
	}
	if ahead != "" {
		w.doc.Move(id, ahead)
	}
	return strings.Join(lost, "; ")
}

// blockID is the block of a name, or that begins so; the last of several, other than
// the one that asks.
func (w *writer) blockID(name, but string) string {
	for _, like := range []func(a, b string) bool{func(a, b string) bool { return a == b }, strings.HasPrefix} {
		for i := len(w.doc.Blocks) - 1; i >= 0; i-- {
			b := &w.doc.Blocks[i]
			if b.ID == but {
				continue
			}
			if like(say.Fold(b.Name), say.Fold(name)) {
				return b.ID
			}
			for _, item := range b.Items {
				if like(say.Fold(item.Drill.Name), say.Fold(name)) {
					return b.ID
				}
			}
		}
	}
	return ""
}
