package check

import (
	"fmt"
	"math"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
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
		if load, ok := r.loads()[rule.Player]; ok && load.Seconds > rule.MaxMinutes*60 {
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
	left := r.loads()[rule.Player].Seconds - rule.MaxMinutes*60
	done := false
	for _, priority := range []plan.Priority{plan.Could, plan.Should, plan.Must} {
		for i := range r.day.Blocks {
			b := &r.day.Blocks[i]
			if left <= 0 || b.Priority != priority || !slices.Contains(r.day.Members(b.Who), rule.Player) || r.Schedule.Amounts[i] == nil {
				continue
			}
			for n, item := range b.Items {
				left -= item.Drill.Load(r.Schedule.Amounts[i][n], r.day.Group(b)).Seconds
			}
			done = without(d, b.ID, rule.Player) || done
		}
	}
	return done
}

func (r *reading) isKept(block string) bool {
	return slices.ContainsFunc(r.Schedule.Result.Blocks, func(s runin.Scheduled) bool { return s.ID == block && s.Kept })
}

// deepCold finds deep, static or full work that starts on a cold body.
func deepCold(r *reading) {
	r.work(func(s *warmth.Strand, _ int, x *warmth.Stretch) {
		if !x.Drill.NeedsWarm && !x.Drill.Static && x.Drill.Effort < drill.SprintEffort {
			return
		}
		if at := s.At(x.From - float64(s.From)); at < deepFrom {
			r.add(x.Block.ID, fmt.Sprintf("%s starts at %.1f °C over rest", x.Drill.Name, at), s.Players,
				"Take "+x.Drill.Name+" out here", takeOut(x.Block.ID, x.Drill.Code), drop(x.Block.ID))
		}
	})
}

func staticLong(r *reading) {
	r.kept(func(b *plan.Block, _ *runin.Scheduled, amounts []int) {
		for n, item := range b.Items {
			d := item.Drill.Dose.WithAmount(amounts[n])
			held := float64(d.Sets*d.Reps) * d.HoldSeconds
			if item.Drill.Static && d.Kind == drill.Hold && held >= staticTooLong {
				code := item.Drill.Code
				r.add(b.ID, fmt.Sprintf("%s holds one muscle for %.0f s", item.Drill.Name, held), nil, "Hold it 15 s, once",
					alter(b.ID, code, func(k *drill.Drill) {
						k.Dose.Sets, k.Dose.HoldSeconds, k.Range = 1, min(15, k.Dose.HoldSeconds), drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}
					}), takeOut(b.ID, code))
			}
		}
	})
}

func juniorCollision(r *reading) {
	if r.grade() != drill.Junior {
		return
	}
	r.kept(func(b *plan.Block, _ *runin.Scheduled, _ []int) {
		for _, item := range b.Items {
			if item.Drill.Collision {
				r.add(b.ID, item.Drill.Name+" is body contact at full effort", nil, "Take "+item.Drill.Name+" out", takeOut(b.ID, item.Drill.Code), drop(b.ID))
			}
		}
	})
}

func wetJumps(r *reading) {
	if !r.Document.Today.Wet && !r.Document.Today.Uneven {
		return
	}
	r.kept(func(b *plan.Block, _ *runin.Scheduled, _ []int) {
		for _, item := range b.Items {
			if !r.covered(b) && item.Drill.ContactsPerUnit > 0 && item.Drill.Effort >= drill.HardEffort {
				code := item.Drill.Code
				r.add(b.ID, item.Drill.Name+" on wet or uneven ground", nil, "Take the jumps out", takeAll(b.ID, func(k drill.Drill) bool { return k.ContactsPerUnit > 0 && k.Effort >= drill.HardEffort }), takeOut(b.ID, code))
			}
		}
	})
}

// covered tells whether the block's place stays dry and even.
func (r *reading) covered(b *plan.Block) bool {
	z := r.day.Zone(b.Zone)
	return z != nil && z.Covered
}

// takeAll removes every drill of a block that fits, and an emptied block.
func takeAll(block string, fits func(drill.Drill) bool) change {
	return func(d *plan.Document) bool {
		b := d.Block(block)
		if b == nil {
			return false
		}
		n := len(b.Items)
		b.Items = slices.DeleteFunc(b.Items, func(i plan.Item) bool { return fits(i.Drill) })
		if len(b.Items) == 0 {
			return drop(block)(d)
		}
		return len(b.Items) < n
	}
}

// zoneFull finds blocks that no fit can keep, since their place is too small
// or never free for so long.
func zoneFull(r *reading) {
	for i := range r.day.Blocks {
		b := &r.day.Blocks[i]
		z := r.day.Zone(b.Zone)
		if z == nil {
			continue
		}
		if people := len(r.day.Members(b.Who)); people > z.Capacity {
			id := b.ID
			r.add(id, fmt.Sprintf("%s is for %d, and %s holds %d", b.Name, people, z.Name, z.Capacity), nil, "Go where there is room", func(d *plan.Document) bool {
				for _, other := range d.Zones {
					if other.Capacity >= people {
						d.Block(id).Zone = other.ID
						return true
					}
				}
				return false
			}, set(id, func(b *plan.Block) { b.Zone = "" }))
		}
	}
}

func staticLast(r *reading) {
	r.work(func(s *warmth.Strand, n int, x *warmth.Stretch) {
		if !x.Drill.Static {
			return
		}
		after := slices.ContainsFunc(s.Stretches[n+1:], func(y warmth.Stretch) bool { return y.Drill != nil && !y.Drill.Static && y.Effort >= 0.5 })
		if !after {
			r.add(x.Block.ID, "Nothing dynamic follows "+x.Drill.Name, s.Players, "Take "+x.Drill.Name+" out", takeOut(x.Block.ID, x.Drill.Code))
		}
	})
}

func noDrink(r *reading) {
	t := r.Document.Today
	if t.Celsius == nil || *t.Celsius < heat || t.DrinkEvery > 0 && t.DrinkEvery <= drinkEvery {
		return
	}
	r.add("", fmt.Sprintf("%.4g °C, and no drink stop every %d minutes", *t.Celsius, drinkEvery), nil, "Plan a drink stop every 10 minutes",
		whole(func(d *plan.Document) { d.Today.DrinkEvery = drinkEvery }))
}

func wetGround(r *reading) {
	if !r.Document.Today.Wet {
		return
	}
	r.kept(func(b *plan.Block, _ *runin.Scheduled, _ []int) {
		if !r.covered(b) && slices.ContainsFunc(b.Items, func(i plan.Item) bool { return i.Drill.Ground }) {
			r.add(b.ID, b.Name+" goes to the ground, which is wet", nil, "Take the ground work out", takeAll(b.ID, func(k drill.Drill) bool { return k.Ground }))
		}
	})
}

func endRange(r *reading) {
	r.kept(func(b *plan.Block, _ *runin.Scheduled, _ []int) {
		for _, item := range b.Items {
			if !item.Drill.EndRange {
				continue
			}
			for _, id := range r.day.Members(b.Who) {
				if p := r.Document.Player(id); p != nil && p.Loose {
					r.add(b.ID, fmt.Sprintf("%s is hypermobile: %s stretches to the end", p.ShortName(), item.Drill.Name), []string{id},
						"Give it without "+p.ShortName(), func(d *plan.Document) bool { return withoutLoose(d, b.ID) })
				}
			}
		}
	})
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

// loads is what the schedule leaves in each player.
func (r *reading) loads() map[string]drill.Load {
	if r.carried == nil {
		r.carried = r.Schedule.Loads(r.day)
	}
	return r.carried
}

// over reports the players whose load is over a limit, the largest figure
// named, and offers to turn down or take out what fits.
func (r *reading) over(figure func(drill.Load) int, limit int, what string, fits func(drill.Drill) bool, mend string) {
	var players []string
	most := 0
	loads := r.loads()
	for _, p := range r.Document.Players {
		if n := figure(loads[p.ID]); n > limit {
			players = append(players, p.ID)
			most = max(most, n)
		}
	}
	if len(players) == 0 {
		return
	}
	r.add("", fmt.Sprintf(what, r.names(players), most, limit), players, mend,
		whole(func(d *plan.Document) {
			for i := range d.Blocks {
				for n := range d.Blocks[i].Items {
					if k := &d.Blocks[i].Items[n].Drill; fits(*k) {
						least(k)
					}
				}
			}
		}),
		whole(func(d *plan.Document) {
			share := float64(limit) / math.Max(1, float64(most))
			for i := range d.Blocks {
				for n := range d.Blocks[i].Items {
					if k := &d.Blocks[i].Items[n].Drill; fits(*k) {
						k.Range.Min = max(1, int(float64(k.Range.Min)*share))
						k.Range.Target = max(k.Range.Min, int(float64(k.Range.Target)*share))
					}
				}
			}
		}),
		func(d *plan.Document) bool { // the least willing kept goes
			for _, priority := range []plan.Priority{plan.Could, plan.Should} {
				for _, b := range d.Blocks {
					if b.Priority == priority && slices.ContainsFunc(b.Items, func(i plan.Item) bool { return fits(i.Drill) }) {
						return drop(b.ID)(d)
					}
				}
			}
			return false
		})
}
