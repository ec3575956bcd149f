package schedule

import (
	"math"
	"slices"
	"strconv"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// The list is the order: each block gets a stage of its own, loose neighbours share
// one. What a few do at a minute or in a slot that a coach sets takes its place by that
// among what more people do, once it lies so far from where the list would have it that
// both cannot be meant.
const (
	earlierBy = 300 // seconds by which a held block lies before what the list has before it
	laterBy   = 120 // seconds by which it ends after what the list has after it would have to begin
)

// stages gives each block of the compiled problem its stage.
func (c *Compiled) stages(d *plan.Document) {
	stage, loose := 0, false
	for _, i := range c.order(d) {
		b := &d.Blocks[i]
		if b.Phase == drill.Own && (b.Loose || b.Timed() && !slices.Contains(b.Who, plan.Everyone)) {
			continue // own time at its own time: nobody waits from it on
		}
		if !loose || !b.Loose {
			stage++
			c.Problem.Phases = append(c.Problem.Phases, strconv.Itoa(stage))
		}
		loose = b.Loose
		c.Problem.Blocks[i].Phase = strconv.Itoa(stage)
	}
}

// order lists the blocks, by index, as they are run.
func (c *Compiled) order(d *plan.Document) []int {
	order := d.MethodOrder()
	if d.Format >= 2 {
		slices.Sort(order)
	}
	for i := range d.Blocks {
		if d.Blocks[i].Timed() && !c.between(d, order, i) {
			order = c.byMinute(d, order, i)
		}
	}
	for i := range d.Blocks { // what follows another is run after it, wherever it is listed
		for _, id := range append(slices.Clone(d.Blocks[i].After), d.Blocks[i].Hold.Straight) {
			first := slices.IndexFunc(d.Blocks, func(b plan.Block) bool { return b.ID == id })
			if at := slices.Index(order, i); first >= 0 && slices.Index(order, first) > at {
				order = slices.Delete(order, at, at+1)
				order = slices.Insert(order, slices.Index(order, first)+1, i)
			}
		}
	}
	return order
}

// between tells whether the timed block i stands where its minute puts it: behind another that is timed
// earlier, for players of its own, with room between the two for what the list has there.
func (c *Compiled) between(d *plan.Document, order []int, i int) bool {
	from, _ := c.when(i)
	room := 0
	for n := slices.Index(order, i) - 1; n >= 0; n-- {
		j := order[n]
		if !c.together(i, j) {
			continue
		}
		room += c.wanted(j)
		if d.Blocks[j].Timed() {
			before, _ := c.when(j)
			return before < from && int(from-before) >= room
		}
	}
	return false
}

// together tells whether somebody does both blocks.
func (c *Compiled) together(i, j int) bool {
	return slices.ContainsFunc(c.Problem.Blocks[i].Players, func(player string) bool {
		return slices.Contains(c.Problem.Blocks[j].Players, player)
	})
}

// byMinute moves the timed block i where its minute puts it among those that share
// players with it.
func (c *Compiled) byMinute(d *plan.Document, order []int, i int) []int {
	from, to := c.when(i)
	natural := c.natural(i, order, d)
	at := slices.Index(order, i)
	for n, j := range order[:at] {
		if start, known := natural[j]; known && start >= from+earlierBy {
			order = slices.Delete(order, at, at+1)
			return slices.Insert(order, n, i)
		}
	}
	for n := len(order) - 1; n > at; n-- {
		if start, known := natural[order[n]]; known && start < to-laterBy {
			order = slices.Insert(order, n+1, i)
			return slices.Delete(order, at, at+1)
		}
	}
	return order
}

// when is the time that block i is held at, at the length that it is meant to have.
func (c *Compiled) when(i int) (from, to clock.Offset) {
	b := &c.Problem.Blocks[i]
	if b.Pin != nil {
		return *b.Pin, *b.Pin + clock.Offset(c.wanted(i))
	}
	return *b.Window[0], *b.Window[1]
}

// wanted is how long block i is at its target, in seconds.
func (c *Compiled) wanted(i int) int {
	seconds := 0
	for _, l := range c.Problem.Blocks[i].Levels {
		if seconds == 0 || l.Value <= 1 {
			seconds = l.Seconds
		}
	}
	return seconds
}

// natural is when the blocks that players of block i do with others would start,
// packed towards each player's due time without it; timed ones are passed over.
func (c *Compiled) natural(i int, order []int, d *plan.Document) map[int]clock.Offset {
	starts := map[int]clock.Offset{}
	for _, player := range c.Problem.Blocks[i].Players {
		at := c.due(player)
		for n := len(order) - 1; n >= 0; n-- {
			j := order[n]
			b := &c.Problem.Blocks[j]
			if j == i || d.Blocks[j].Timed() || !slices.Contains(b.Players, player) {
				continue
			}
			at = c.clear(player, at, c.wanted(j), b.Excusable)
			if known, ok := starts[j]; c.wider(j, i) && (!ok || at < known) {
				starts[j] = at
			}
		}
	}
	return starts
}

// wider tells whether block j is done by people who are not in block i.
func (c *Compiled) wider(j, i int) bool {
	return slices.ContainsFunc(c.Problem.Blocks[j].Players, func(id string) bool {
		return !slices.Contains(c.Problem.Blocks[i].Players, id)
	})
}

func (c *Compiled) due(player string) clock.Offset {
	for _, p := range c.Problem.Players {
		if p.ID == player {
			return p.Due
		}
	}
	return math.MinInt32
}

// clear is the latest start, ending by end, of so many seconds in which the player is
// not called away.
func (c *Compiled) clear(player string, end clock.Offset, seconds int, excusable bool) clock.Offset {
	for moved := !excusable; moved; {
		moved = false
		for _, f := range c.Problem.Fixed {
			if slices.Contains(f.Players, player) && f.Start < end && end-clock.Offset(seconds) < f.End {
				end, moved = f.Start, true
			}
		}
	}
	return end - clock.Offset(seconds)
}
