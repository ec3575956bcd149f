package schedule

import (
	"fmt"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/today"
)

// ShortListID is the id of the short list of a player who comes late: no block of a
// document has such a one.
func ShortListID(player string) string { return "catch-up " + player }

// own is the group of somebody who waits for nobody.
var own = drill.Group{People: 1, Lanes: 1}

// All are the document's blocks, as [Schedule.Blocks] has them, and after them the short
// lists of players who come late: the pulse, then what they missed of their list at its
// least, in its order, as much as fits between their coming and the first block that needs
// them, or that they join. Such a list is never longer than what they missed, and moves nobody: it takes the
// place of waiting, or of the start of a block that they join late.
func (s *Schedule) All(d *plan.Document) []Block {
	blocks := s.Blocks(d)
	var lists []Block
	for _, w := range s.Fixed {
		player := w.Late()
		if player == "" || d.Player(player) == nil || d.Block("late-"+player) != nil { // an older plan holds one
			continue
		}
		c := s.coming(d, blocks, player, w.End)
		if list, ok := c.shortList(d); ok {
			lists = append(lists, list)
			c.joins(list.End)
		}
	}
	return append(blocks, lists...)
}

// Lateness says what a late player misses: how long after the first of their blocks they
// come, and how many seconds of those they miss until then; 0, 0 where they miss nothing.
func (s *Schedule) Lateness(d *plan.Document, player string) (after, missed int) {
	for _, w := range s.Fixed {
		if w.Late() == player {
			c := s.coming(d, s.Blocks(d), player, w.End)
			if len(c.blocks) > 0 && c.blocks[0].Start < w.End {
				after = int(w.End - c.blocks[0].Start)
			}
			return after, c.missed
		}
	}
	return 0, 0
}

// LateWords says what lateness means: "Comes 8:00 min after work begins, misses 6:00 min".
func LateWords(after, missed int) string {
	if missed <= 0 {
		return "Misses nothing"
	}
	return fmt.Sprintf("Comes %s after work begins, misses %s", clock.Lasting(after), clock.Lasting(missed))
}

// coming is a player's coming late.
type coming struct {
	player string
	here   clock.Offset
	blocks []*Block // theirs that are kept, in the order of time
	missed int      // seconds of those before they come
	until  clock.Offset
}

// coming reads what a player who is there from here on misses, and until when nothing needs
// them.
func (s *Schedule) coming(d *plan.Document, blocks []Block, player string, here clock.Offset) coming {
	c := coming{player: player, here: here, until: -clock.Offset(d.Margin)}
	for _, p := range s.Players {
		if p.ID == player {
			c.until = p.Due
		}
	}
	for _, w := range s.Fixed {
		switch held := w.Late() == "" && slices.Contains(w.Players, player); {
		case held && w.Start <= c.here && c.here < w.End:
			c.here = w.End
		case held && w.Start > here:
			c.until = min(c.until, w.Start)
		}
	}
	for i := range blocks {
		b := &blocks[i]
		if !b.Kept || !b.Has(player) {
			continue
		}
		c.blocks = append(c.blocks, b)
		c.missed += max(0, int(min(b.End, here)-b.Start))
		if b.Start >= here && !goesOn(d, b.Block) {
			c.until = min(c.until, b.Start)
		}
	}
	slices.SortStableFunc(c.blocks, func(a, b *Block) int { return int(a.Start - b.Start) })
	return c
}

// shortList is what the player makes up; false where nothing fits, or nothing was missed.
func (c *coming) shortList(d *plan.Document) (Block, bool) {
	p := d.Player(c.player)
	list := &plan.Block{ID: ShortListID(c.player), Name: "Catch-up", Phase: drill.Own, Who: []string{c.player},
		Priority: plan.Should}
	from := clock.Offset(clock.CeilTo(float64(c.here), clock.Grid))
	owed := c.owed(d)
	room := min(c.missed, int(c.joining(from, owed)-from))
	var amounts []int
	warm, cold := 0.0, len(owed) > 0 && pulse(owed[0])
	for n, one := range owed {
		if cold && warm < warmAfter && (one.Drill.Deep() || one.Drill.Static || one.Drill.NeedsWarm ||
			one.Drill.Effort >= drill.HardEffort) {
			continue
		}
		for _, is := range leasts(one, cold && n == 0) {
			list.Items = append(list.Items, is.item)
			amounts = append(amounts, is.amount)
			if list.Seconds(amounts, own) <= room {
				if one.Drill.Effort >= drill.DynamicEffort {
					warm += list.Work(len(amounts)-1, is.amount, own)
				}
				break
			}
			list.Items, amounts = list.Items[:len(list.Items)-1], amounts[:len(amounts)-1]
		}
	}
	if len(list.Items) == 0 {
		return Block{}, false
	}
	list.Aim = fmt.Sprintf("What %s misses, at its least", p.ShortName())
	return Block{Block: list, Kept: true, Start: from, End: from + clock.Offset(list.Seconds(amounts, own)),
		Members: []string{c.player}, Group: own, amounts: amounts}, true
}

// joining is when the player joins the others: at the first block after they come, if what
// they begin with is done by then, else at the next, and no later than what needs them.
func (c *coming) joining(from clock.Offset, owed []plan.Item) clock.Offset {
	if len(owed) == 0 {
		return from
	}
	begins := leasts(owed[0], notFirst)[0]
	first := &plan.Block{Items: []plan.Item{begins.item}}
	done := from + clock.Offset(first.Seconds([]int{begins.amount}, own))
	for _, b := range c.blocks {
		if b.Start >= done && b.Start < c.until {
			return b.Start
		}
	}
	return c.until
}

// warmAfter is how many seconds of work that warms a short list holds before anything in it
// that wants a warm body.
const warmAfter = 120

// least is a drill at a small amount.
type least struct {
	item   plan.Item
	amount int
}

// notFirst is a drill that a list does not begin with.
const notFirst = false

// leasts are a drill at its least and, of the one that a list begins with, also at what is
// less than that, the longer first.
func leasts(item plan.Item, begins bool) (list []least) {
	b := &plan.Block{Items: []plan.Item{item}}
	dosings := Dosings(b, own, toTarget)[:1]
	if begins {
		dosings = append(once(b, own, dosings[0]), dosings[0])
	}
	for _, dosing := range slices.Backward(dosings) {
		list = append(list, least{dosing.Less.Of(b).Items[0], dosing.Amounts[0]})
	}
	return list
}

// owed are the drills that the player missed, the first that warms before the others.
func (c *coming) owed(d *plan.Document) (items []plan.Item) {
	versions := today.Versions(d)
	for _, b := range c.blocks {
		for _, n := range b.over(c.player, c.here) {
			item := b.Items[n]
			item.Explain = 0
			at := slices.IndexFunc(versions,
				func(v today.Version) bool { return v.Block == b.ID && v.Player == c.player && v.Item == n })
			switch {
			case item.Alongside || item.Drill.Dose.ByPair:
				continue
			case at >= 0 && versions[at].Drill == nil:
				continue
			case at >= 0:
				item.Drill = *versions[at].Drill
			}
			items = append(items, item)
		}
	}
	if at := slices.IndexFunc(items, pulse); at > 0 {
		first := items[at]
		items = slices.Insert(slices.Delete(items, at, at+1), 0, first)
	}
	return items
}

// pulse tells whether a drill is one to begin with: it warms, and is not hard.
func pulse(i plan.Item) bool {
	return warming(&plan.Block{Items: []plan.Item{i}}) && i.Drill.Effort < drill.HardEffort
}

// over are the drills of the block, by index and each once, of which a player who comes then
// has missed more than half.
func (b *Block) over(player string, here clock.Offset) (items []int) {
	amounts := make([]int, len(b.Items))
	for n := range amounts {
		amounts[n] = b.Amount(n)
	}
	all, before := make([]float64, len(b.Items)), make([]float64, len(b.Items))
	at := float64(b.Start)
	for _, part := range b.Parts(amounts, b.Group, b.Ways[player]) {
		if part.Work {
			all[part.Item] += part.Seconds
			before[part.Item] += max(0, min(part.Seconds, float64(here)-at))
		}
		at += part.Seconds
	}
	for n := range all {
		if before[n] > 0 && 2*before[n] > all[n] {
			items = append(items, n)
		}
	}
	return items
}

// joins has the player miss what they do their own list meanwhile.
func (c *coming) joins(end clock.Offset) {
	for _, b := range c.blocks {
		missed := int(min(b.End, end) - b.Start)
		if missed <= 0 {
			continue
		}
		b.Missed = slices.DeleteFunc(slices.Clone(b.Missed), func(m runin.Missed) bool { return m.Player == c.player })
		b.Missed = append(b.Missed, runin.Missed{Player: c.player, Seconds: missed})
	}
}
