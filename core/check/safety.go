package check

import (
	"fmt"
	"math"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/core/warmth"
)

// restriction finds drills that a ruling touches and for which nothing stands
// in; the player leaves them out, and the coach should know.
func restriction(r *reading) {
	for _, v := range today.Versions(r.day) {
		b := r.day.Block(v.Block)
		known := b.Items[v.Item].Drill
		if v.Drill != nil || !r.isKept(v.Block) {
			continue
		}
		player := v.Player
		r.add(v.Block, fmt.Sprintf("%s leaves out %s: %s", r.names([]string{player}), known.Name, v.Reason), []string{player},
			"Give it without "+r.names([]string{player}), func(d *plan.Document) bool { return without(d, v.Block, player) })
	}
	for _, rule := range r.Document.Restrictions {
		if rule.MaxMinutes == 0 {
			continue
		}
		if load, ok := r.carried[rule.Player]; ok && load.Seconds > rule.MaxMinutes*60 {
			r.add("", fmt.Sprintf("%s works %d minutes: %d at most are ruled", r.names([]string{rule.Player}), load.Seconds/60, rule.MaxMinutes), []string{rule.Player},
				"Take out what matters least to them", func(d *plan.Document) bool { return relieve(d, r, rule) })
		}
	}
}

// without takes one player out of a block's audience.
func without(d *plan.Document, block, player string) bool {
	b := d.Block(block)
	if b == nil {
		return false
	}
	rest := slices.DeleteFunc(d.Members(b.Who), func(id string) bool { return id == player })
	if len(rest) == 0 {
		return drop(block)(d)
	}
	b.Who = rest
	return true
}

// relieve takes the player out of blocks, the least willing kept first, until
// the ruled minutes hold.
func relieve(d *plan.Document, r *reading, rule plan.Restriction) bool {
	left := r.carried[rule.Player].Seconds - rule.MaxMinutes*60
	done := false
	for _, priority := range []plan.Priority{plan.Could, plan.Should, plan.Must} {
		for b := range r.kept() {
			if left > 0 && b.Priority == priority && b.Has(rule.Player) {
				left -= b.Load().Seconds
				done = without(d, b.ID, rule.Player) || done
			}
		}
	}
	return done
}

func (r *reading) isKept(block string) bool {
	return slices.ContainsFunc(r.blocks, func(b schedule.Block) bool { return b.ID == block && b.Kept })
}

// deepCold finds deep, static or full work that starts on a cold body.
func deepCold(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		if at := s.At(x.From - float64(s.From)); x.Drill.Deep() && at < deepFrom {
			r.add(x.Block.ID, fmt.Sprintf("%s starts at %.1f °C over rest", x.Drill.Name, at), s.Players,
				"Take "+x.Drill.Name+" out here", takeOut(x.Block.ID, x.Drill.Code), drop(x.Block.ID))
		}
	}
}

func staticLong(r *reading) {
	for b, n := range r.drills() {
		k := b.Items[n].Drill
		if held := k.HeldSeconds(b.Amount(n)); held >= drill.StaticTooLong {
			r.add(b.ID, fmt.Sprintf("%s holds one muscle for %.0f s", k.Name, held), nil, "Hold it 15 s, once",
				alter(b.ID, k.Code, func(k *drill.Drill) {
					k.Dose.Sets, k.Dose.HoldSeconds, k.Range = 1, min(15, k.Dose.HoldSeconds), drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}
				}), takeOut(b.ID, k.Code))
		}
	}
}

func juniorCollision(r *reading) {
	if r.grade() != drill.Junior {
		return
	}
	for b, n := range r.drills() {
		if k := b.Items[n].Drill; k.Collision {
			r.add(b.ID, k.Name+" is body contact at full effort", nil, "Take "+k.Name+" out", takeOut(b.ID, k.Code), drop(b.ID))
		}
	}
}

// hardJump is a jump that needs even, dry ground.
func hardJump(k drill.Drill) bool { return k.ContactsPerUnit > 0 && k.Effort >= drill.HardEffort }

func wetJumps(r *reading) {
	if !r.Document.Today.Wet && !r.Document.Today.Uneven {
		return
	}
	for b, n := range r.drills() {
		if k := b.Items[n].Drill; hardJump(k) && !r.covered(b) {
			r.add(b.ID, k.Name+" on wet or uneven ground", nil, "Take the jumps out", takeAll(b.ID, hardJump), takeOut(b.ID, k.Code))
		}
	}
}

// covered tells whether the block's place stays dry and even.
func (r *reading) covered(b *schedule.Block) bool {
	z := r.day.Zone(b.Zone)
	return z != nil && z.Covered
}

// zoneFull finds blocks that no fit can keep, since their place is too small
// or never free for so long.
func zoneFull(r *reading) {
	for i := range r.blocks {
		b := &r.blocks[i]
		if z := r.day.Zone(b.Zone); z != nil && len(b.Members) > z.Capacity {
			r.add(b.ID, fmt.Sprintf("%s is for %d, and %s holds %d", b.Name, len(b.Members), z.Name, z.Capacity), nil, "Go where there is room",
				roomier(b.ID, len(b.Members)), set(b.ID, func(b *plan.Block) { b.Zone = "" }))
		}
	}
}

// roomier moves a block to the first place that holds so many.
func roomier(block string, people int) change {
	return func(d *plan.Document) bool {
		i := slices.IndexFunc(d.Zones, func(z plan.Zone) bool { return z.Capacity >= people })
		if i >= 0 {
			d.Block(block).Zone = d.Zones[i].ID
		}
		return i >= 0
	}
}

func staticLast(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		after := slices.ContainsFunc(s.Stretches[n+1:], func(y warmth.Stretch) bool { return y.Drill != nil && y.Drill.Dynamic() })
		if x.Drill.Static && !after {
			r.add(x.Block.ID, "Nothing dynamic follows "+x.Drill.Name, s.Players, "Take "+x.Drill.Name+" out", takeOut(x.Block.ID, x.Drill.Code))
		}
	}
}

func noDrink(r *reading) {
	t := r.Document.Today
	if t.Air() != plan.Hot || t.DrinkEvery > 0 && t.DrinkEvery <= plan.DrinkEvery {
		return
	}
	r.add("", fmt.Sprintf("%.4g °C, and no drink stop every %d minutes", *t.Celsius, plan.DrinkEvery), nil, "Plan a drink stop every 10 minutes",
		whole(func(d *plan.Document) { d.Today.DrinkEvery = plan.DrinkEvery }))
}

func wetGround(r *reading) {
	if !r.Document.Today.Wet {
		return
	}
	for b := range r.kept() {
		if !r.covered(b) && slices.ContainsFunc(b.Items, func(i plan.Item) bool { return i.Drill.Ground }) {
			r.add(b.ID, b.Name+" goes to the ground, which is wet", nil, "Take the ground work out", takeAll(b.ID, func(k drill.Drill) bool { return k.Ground }))
		}
	}
}

func endRange(r *reading) {
	for b, n := range r.drills() {
		if !b.Items[n].Drill.EndRange {
			continue
		}
		for _, id := range b.Members {
			if p := r.Document.Player(id); p != nil && p.Loose {
				r.add(b.ID, fmt.Sprintf("%s is hypermobile: %s stretches to the end", p.ShortName(), b.Items[n].Drill.Name), []string{id},
					"Give it without "+p.ShortName(), func(d *plan.Document) bool { return withoutLoose(d, b.ID) })
			}
		}
	}
}

func withoutLoose(d *plan.Document, block string) bool {
	done := false
	for _, p := range d.Players {
		if b := d.Block(block); p.Loose && b != nil && slices.Contains(d.Members(b.Who), p.ID) {
			done = without(d, block, p.ID) || done
		}
	}
	return done
}

// over reports the players whose load is over a limit, the largest figure
// named, and offers to turn down or take out what fits.
func (r *reading) over(figure func(drill.Load) int, limit int, what string, fits func(drill.Drill) bool, mend string) {
	var players []string
	most := 0
	for _, p := range r.Document.Players {
		if n := figure(r.carried[p.ID]); n > limit {
			players = append(players, p.ID)
			most = max(most, n)
		}
	}
	if len(players) == 0 {
		return
	}
	share := float64(limit) / math.Max(1, float64(most))
	r.add("", fmt.Sprintf(what, r.names(players), most, limit), players, mend,
		leastOf(fits),
		each(fits, func(k *drill.Drill) {
			k.Range.Min = max(1, int(float64(k.Range.Min)*share))
			k.Range.Target = max(k.Range.Min, int(float64(k.Range.Target)*share))
		}),
		dropLeast(fits))
}

// dropLeast takes out the block of a fitting drill that is least willingly kept.
func dropLeast(fits func(drill.Drill) bool) change {
	return func(d *plan.Document) bool {
		for _, priority := range []plan.Priority{plan.Could, plan.Should} {
			i := slices.IndexFunc(d.Blocks, func(b plan.Block) bool {
				return b.Priority == priority && slices.ContainsFunc(b.Items, func(i plan.Item) bool { return fits(i.Drill) })
			})
			if i >= 0 {
				return drop(d.Blocks[i].ID)(d)
			}
		}
		return false
	}
}
