package check

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/core/warmth"
)

// missed is somebody who is called away from a block.
type missed = runin.Missed

// restriction finds drills that a ruling touches and for which nothing stands in; the player
// leaves them out, and the coach should know.
func restriction(r *reading) {
	for _, v := range today.Versions(r.day) {
		b := r.day.Block(v.Block)
		known := b.Items[v.Item].Drill
		if v.Drill != nil || !r.isKept(v.Block) {
			continue
		}
		player := v.Player
		r.add(v.Block, fmt.Sprintf("%s leaves out %s: %s", r.names([]string{player}), known.Name, v.Reason),
			[]string{player},
			"Plan it without "+r.names([]string{player}), func(d *plan.Document) bool {
				return without(d, v.Block, player)
			})
	}
	for _, rule := range r.Document.Restrictions {
		if rule.MaxMinutes == 0 {
			continue
		}
		if load, ok := r.carried[rule.Player]; ok && load.Seconds > rule.MaxMinutes*60 {
			r.add("", fmt.Sprintf("%s works %s: %d min at the most are ruled", r.names([]string{rule.Player}),
				lasting(load.Seconds), rule.MaxMinutes), []string{rule.Player},
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

// relieve takes the player out of blocks, the least willing kept first, until the ruled minutes
// hold.
func relieve(d *plan.Document, r *reading, rule plan.Restriction) bool {
	left := r.carried[rule.Player].Seconds - rule.MaxMinutes*60
	done := false
	for _, priority := range []plan.Priority{plan.Could, plan.Should, plan.Must} {
		for b := range r.kept() {
			if left > 0 && b.Priority == priority && b.Has(rule.Player) {
				left -= r.load(rule.Player, b.ID).Seconds
				done = without(d, b.ID, rule.Player) || done
			}
		}
	}
	return done
}

// load is what a block leaves in a player.
func (r *reading) load(player, block string) (sum drill.Load) {
	for k := range r.strands {
		if !slices.Contains(r.strands[k].Players, player) {
			continue
		}
		for i := range r.strands[k].Stretches {
			if x := &r.strands[k].Stretches[i]; x.Block != nil && x.Block.ID == block {
				sum = sum.Add(x.Load())
			}
		}
	}
	return sum
}

func (r *reading) isKept(block string) bool {
	return slices.ContainsFunc(r.blocks, func(b schedule.Block) bool { return b.ID == block && b.Kept })
}

// deepCold finds deep, static or full work that starts on a cold body, and
// stretches to the end of the range while the pulse is only being raised.
func deepCold(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		wants := x.Drill.Deep() || x.Drill.Static || x.Peak() >= drill.SprintEffort
		at := math.Round(10*s.At(x.From-float64(s.From))) / 10
		what := fmt.Sprintf("%s starts at about %s over rest", x.Drill.Name, r.Document.Measure.Warmer(at))
		if x.Drill.EndRange && x.Block.Phase == drill.Raise {
			what = x.Drill.Name + " goes to the end of the range while the body is only being raised"
		} else if !wants || at >= warmth.Ready {
			continue
		}
		r.add(x.Block.ID, what, s.Players, "Take "+x.Drill.Name+" out", takeOut(x.Block.ID, x.Drill.Code),
			drop(x.Block.ID))
	}
}

// staticLong adds up what each player holds, by muscle group.
func staticLong(r *reading) {
	for k := range r.strands {
		s := &r.strands[k]
		held, last := map[string]float64{}, map[string]*warmth.Stretch{}
		for i := range s.Stretches {
			x := &s.Stretches[i]
			if x.Drill == nil || !x.Drill.Static {
				continue
			}
			for _, muscle := range muscles(x.Drill) {
				held[muscle] += x.Drill.HeldSeconds(x.Amount) * x.Share
				if last[muscle] = x; held[muscle] >= drill.StaticTooLong {
					r.held(s, x, muscle, held[muscle])
				}
			}
		}
	}
}

// muscles are the groups that a static drill stretches: its regions, or what it is.
func muscles(k *drill.Drill) []string {
	if len(k.Regions) == 0 {
		return []string{k.Code}
	}
	return k.Regions
}

// held reports that one muscle is held for too long, with the stretch that makes it so.
func (r *reading) held(s *warmth.Strand, x *warmth.Stretch, muscle string, seconds float64) {
	what := fmt.Sprintf("%s holds one muscle for %.0f s", x.Drill.Name, seconds)
	if own := x.Drill.HeldSeconds(x.Amount); own < drill.StaticTooLong {
		what = fmt.Sprintf("With %s the %s is held for %.0f s in all", x.Drill.Name, muscle, seconds)
	}
	r.add(x.Block.ID, what, s.Players, "Hold it 15 s, once",
		alter(x.Block.ID, x.Drill.Code, func(k *drill.Drill) {
			if k.Dose.Kind == drill.Hold {
				k.Dose.Sets, k.Dose.HoldSeconds, k.Range = 1, min(15, k.Dose.HoldSeconds),
					drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}
			}
		}), takeOut(x.Block.ID, x.Drill.Code))
}

func juniorCollision(r *reading) {
	if r.grade() != drill.Junior {
		return
	}
	for b, n := range r.drills() {
		if k := b.Items[n].Drill; k.Collision {
			r.add(b.ID, k.Name+" is body contact at full effort", nil, "Take "+k.Name+" out", takeOut(b.ID, k.Code),
				drop(b.ID))
		}
	}
}

// Words of a surface on which nobody jumps, or lies.
var slippery, soaked = []string{"wet", "mud", "muddy", "uneven", "ice", "rutted", "slippery"},
	[]string{"wet", "mud", "muddy", "soaked"}

// is tells whether the block's ground is of that kind, by the day or by what is
// said of the place.
func (r *reading) is(b *schedule.Block, today bool, words []string) bool {
	if z := r.day.Zone(b.Zone); z != nil {
		said := strings.Fields(strings.ToLower(z.Surface))
		if slices.ContainsFunc(said, func(w string) bool { return slices.Contains(words, strings.Trim(w, ",.;")) }) &&
			!anyOf(said, "rink") {
			return true
		}
	}
	return today && !r.day.Indoors(b.Block)
}

func wetJumps(r *reading) {
	for b, n := range r.drills() {
		if k := b.Items[n].Drill; k.Jumps() && !onIce(r, b) &&
			r.is(b, r.Document.Today.Wet || r.Document.Today.Uneven, slippery) {
			r.add(b.ID, k.Name+" on wet or uneven ground", nil, "Take the jumps out", takeAll(b.ID, drill.Drill.Jumps),
				takeOut(b.ID, k.Code))
		}
	}
}

// onIce tells whether the block's place is a rink, where the sport itself is.
func onIce(r *reading, b *schedule.Block) bool {
	z := r.day.Zone(b.Zone)
	return z != nil && strings.EqualFold(z.Surface, "ice")
}

// zoneFull finds blocks that no fit can keep, since their place is too small.
func zoneFull(r *reading) {
	for i := range r.blocks {
		b := &r.blocks[i]
		if z := r.day.Zone(b.Zone); z != nil && len(b.Members) > z.Capacity {
			r.add(b.ID, fmt.Sprintf("%s is for %d people, and %s holds %d", b.Name, len(b.Members), z.Name, z.Capacity),
				nil, "Go where there is room",
				roomier(b.ID, len(b.Members), z.ID), set(b.ID, func(b *plan.Block) { b.Zone = "" }))
		}
	}
}

// roomier moves a block to the first other place that holds so many.
func roomier(block string, people int, than string) change {
	return func(d *plan.Document) bool {
		i := slices.IndexFunc(d.Zones, func(z plan.Zone) bool { return z.Capacity >= people && z.ID != than })
		if i >= 0 {
			d.Block(block).Zone = d.Zones[i].ID
		}
		return i >= 0
	}
}

func staticLast(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		after := slices.ContainsFunc(s.Stretches[n+1:], func(y warmth.Stretch) bool {
			return y.Drill != nil && y.Drill.Dynamic()
		})
		if x.Drill.Static && !after {
			r.add(x.Block.ID, "Nothing dynamic follows "+x.Drill.Name, s.Players, "Take "+x.Drill.Name+" out",
				takeOut(x.Block.ID, x.Drill.Code))
		}
	}
}

// noDrink looks at who works outdoors in the heat.
func noDrink(r *reading) {
	t := r.Document.Today
	if t.Air() != plan.Hot || t.DrinkEvery > 0 && t.DrinkEvery <= plan.DrinkEvery {
		return
	}
	for b := range r.kept() {
		if !r.day.Indoors(b.Block) {
			r.add("", fmt.Sprintf("%s, and no drink stop every %d min", r.Document.Measure.Air(*t.Celsius),
				plan.DrinkEvery), nil, "Plan a drink stop every 10 min",
				whole(func(d *plan.Document) { d.Today.DrinkEvery = plan.DrinkEvery }))
		}
	}
}

func wetGround(r *reading) {
	ground := func(k drill.Drill) bool { return k.Ground }
	for b := range r.kept() {
		if !r.is(b, r.Document.Today.Wet, soaked) || !slices.ContainsFunc(b.Items,
			func(i plan.Item) bool { return i.Drill.Ground }) {
			continue
		}
		mend, changes := "Do it standing", []change{r.instead(b.ID, ground), takeAll(b.ID, ground)}
		if !changes[0](r.Document.Clone()) {
			mend, changes = "Take the ground work out", changes[1:]
		}
		r.add(b.ID, b.Name+" goes to the ground, which is wet", nil, mend, changes...)
	}
}

// endRange finds stretches to the end by players who are loose already.
func endRange(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		if !x.Drill.EndRange && !x.Drill.Static {
			continue
		}
		for _, id := range s.Players {
			if p := r.Document.Player(id); p != nil && p.Loose {
				r.add(x.Block.ID, fmt.Sprintf("%s is hypermobile: %s stretches to the end", p.ShortName(),
					x.Drill.Name), []string{id},
					"Plan it without "+p.ShortName(), func(d *plan.Document) bool {
						return withoutLoose(d, x.Block.ID)
					})
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
