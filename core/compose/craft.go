package compose

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

// Craft is the routine of a position, as the sport tells it.
type Craft = sport.Craft

// busiest is how many seconds of position work the busiest player gets.
func (c *composer) busiest() (most int) {
	load := map[string]int{}
	for _, craft := range c.routines() {
		if craft.In() == drill.Own {
			continue // in the free time before
		}
		who := c.audience(craft)
		group := drill.Group{People: len(c.doc.Members(who)), Lanes: max(1, craft.Stations)}
		if craft.Stations == 0 {
			group.Lanes = 4
		}
		for _, code := range craft.Drills {
			if k, ok := c.byCode[code]; ok {
				for _, id := range c.doc.Members(who) {
					load[id] += int(k.Work(k.Range.At(0.5), group))
				}
			}
		}
	}
	for _, seconds := range load {
		most = max(most, seconds)
	}
	return most
}

// benchGames keep those warm who do not begin, the first that can be done today.
var benchGames = []string{"touch-game", "tail-grab", "mirror-shuffle"}

// routines are those that the session holds: in training the session itself
// brings the craft, so only what must not be left out stays, as a could.
func (c *composer) routines() []Craft {
	if c.Kind == plan.Match {
		all := slices.Clone(c.Sport.Craft)
		for _, code := range benchGames {
			if k, ok := c.byCode[code]; ok && c.usable(k, 2) == "" {
				all = append(all, Craft{Name: "Bench: " + strings.ToLower(k.Name), For: []string{sport.Bench},
					Drills: []string{code}, Priority: plan.Could})
				break
			}
		}
		return append(all, c.Sport.Team)
	}
	var some []Craft
	for _, craft := range c.Sport.Craft {
		if craft.Priority == plan.Must && craft.In() == drill.Sport {
			craft.Priority = plan.Could
			some = append(some, craft)
		}
	}
	return some
}

// audience is who does a routine: nobody waits for a player who comes late.
func (c *composer) audience(craft Craft) []string {
	who := c.everybody(craft)
	here := slices.DeleteFunc(c.doc.Members(who), func(id string) bool { return c.late(c.doc.Player(id)) })
	if len(here) < len(c.doc.Members(who)) && !slices.Contains(who, plan.Everyone) {
		return here
	}
	return who
}

func (d *day) everybody(craft Craft) []string {
	if len(craft.For) > 0 {
		return d.who(craft.For...)
	}
	if begin := d.who("Starters"); len(begin) > 0 {
		return begin
	}
	return []string{plan.Everyone}
}

// without says that a routine goes without one of its drills.
func (d *day) without(routine, drill, why string) {
	if routine == drill {
		d.says = append(d.says, fmt.Sprintf("No %s: %s", strings.ToLower(drill), why))
		return
	}
	d.says = append(d.says, fmt.Sprintf("%s without %s: %s", routine, strings.ToLower(drill), why))
}

// nobody says that there is nobody for a routine today.
func (d *day) nobody(craft Craft) {
	if slices.Contains(craft.For, sport.Bench) {
		return // all of them begin
	}
	say := fmt.Sprintf("No %s: no %s here today", strings.ToLower(craft.Name),
		strings.ToLower(strings.Join(craft.For, " or ")))
	if !slices.ContainsFunc(d.doc.Players, func(p plan.Player) bool { return p.Position != "" }) {
		say = "No blocks for positions: nobody's position is set yet"
	}
	if !slices.Contains(d.says, say) {
		d.says = append(d.says, say)
	}
}

// crafts adds the routines of positions, and the team's last block.
func (c *composer) crafts() {
	for i, craft := range c.routines() {
		if c.Minutes <= hurried && craft.Priority == plan.Must {
			craft.Priority = plan.Should // warm first
		}
		who := c.audience(craft)
		people := len(c.doc.Members(who))
		if people == 0 {
			c.nobody(craft)
			continue
		}
		team := len(craft.For) == 0
		b := plan.Block{ID: fmt.Sprintf("craft-%d", i+1), Name: craft.Name, Phase: craft.In(), Who: who,
			Priority: craft.Priority, Stations: craft.Stations, On: craft.On,
			After: c.afterRaise(craft), Loose: craft.In() == drill.Own || craft.In() == drill.Sport && !team,
			Excusable: slices.Contains(who, plan.Everyone)}
		longest := 0.0
		for _, code := range craft.Drills {
			k, ok := c.byCode[code]
			why := "your drill book no longer has it"
			if ok {
				why = c.usable(k, people)
			}
			if why != "" {
				c.without(craft.Name, nameOr(k.Name, code), why)
				continue
			}
			longest = max(longest, k.Space.Length)
			b.Items = append(b.Items, c.item(k))
		}
		if len(b.Items) == 0 {
			continue
		}
		b.Zone = c.zone(craft.Zone, people, longest)
		if z := c.doc.Zone(b.Zone); z != nil && b.Stations > 0 {
			b.Stations = min(b.Stations, max(z.Lanes, people)) // stations are the routine's own
		}
		b.Why = c.whyCraft(craft)
		c.into(&b)
		if c.unqueue(&b, people); len(b.Items) == 0 {
			continue
		}
		c.load[b.Zone] += b.Seconds(b.Targets(), c.doc.Group(&b))
		c.doc.Blocks = append(c.doc.Blocks, b)
	}
}

// whyCraft says why a routine is there.
func (d *day) whyCraft(craft Craft) string {
	switch {
	case slices.Equal(craft.For, []string{sport.Bench}):
		return "Keeps those warm who do not begin"
	case len(craft.For) == 0:
		return "The team's last block, close to the start"
	}
	return fmt.Sprintf("The routine of %s in %s", and(craft.For), d.Sport.Name)
}

// hurried is how many minutes leave no time for all that a position would do.
const hurried = 20

// afterRaise links what lies outside the order behind the squad's Raise: no
// position work on a cold body.
func (d *day) afterRaise(craft Craft) []string {
	if craft.In() == drill.Own && d.doc.Block(string(drill.Raise)) != nil {
		return []string{string(drill.Raise)}
	}
	return nil
}

func nameOr(name, code string) string {
	if name == "" {
		return code
	}
	return name
}

// into fits the lengths of a block's drills into its place: over the metres there
// are, and as often as that makes the same way.
func (d *day) into(b *plan.Block) {
	z := d.doc.Zone(b.Zone)
	if z == nil || z.Metres <= 0 {
		return
	}
	for i := range b.Items {
		k := &b.Items[i].Drill
		long := k.Dose.Metres / z.Metres
		if k.Dose.Kind != drill.Travel || long <= 1 {
			continue
		}
		k.Dose.Metres = max(1, math.Floor(z.Metres))
		if k.PeakEffort(k.Range.Max) < drill.HardEffort { // a sprint is shorter there, not more often
			for _, n := range []*int{&k.Range.Min, &k.Range.Target, &k.Range.Max} {
				*n = int(math.Round(float64(*n) * long))
			}
		}
	}
}

// zone picks a place: the named one where there is one with room, else for many
// people that of most lanes, for few the least used; a place that is long enough
// before one that is not. "" where none has the room.
func (c *composer) zone(name string, people int, length float64) (id string) {
	best := 0.0
	for i, z := range c.doc.Zones {
		if z.Capacity < people {
			continue
		}
		if name != "" && z.Name == name {
			return z.ID
		}
		score := float64(1000-i) + 100*float64(min(z.Lanes, people)) - float64(c.load[z.ID])
		if 2*people >= len(c.doc.Players) { // the squad stays together
			score += float64(c.load[z.ID])
		}
		if z.Metres > 0 && float64(z.Metres) < length {
			score -= 5000
		}
		if c.Today.Wet && z.Covered {
			score += 500
		}
		if id == "" || score > best {
			id, best = z.ID, score
		}
	}
	return id
}

// lead assigns leaders: the first leads what the whole squad does, and all of them lead
// the rest, whoever has led least of it. What would hold the others up is led by its own
// players, and so is what only keeps warm.
func (d *day) lead() {
	if len(d.doc.Leaders) == 0 {
		d.says = append(d.says, "No staff yet: players lead it, so keep it simple")
		return
	}
	led := map[string]int{}
	busy, most := map[string]int{}, 0
	for i := range d.doc.Blocks {
		if b := &d.doc.Blocks[i]; !slices.Contains(b.Who, plan.Everyone) && b.Phase == drill.Sport {
			for _, id := range d.doc.Members(b.Who) {
				busy[id] += b.Seconds(b.Targets(), d.doc.Group(b))
				most = max(most, busy[id])
			}
		}
	}
	for i := range d.doc.Blocks {
		b := &d.doc.Blocks[i]
		if slices.Contains(b.Who, plan.Everyone) || b.Phase != drill.Sport && b.Phase != drill.Own {
			b.Leader = d.doc.Leaders[0].ID
			continue
		}
		if b.Phase == drill.Own || strings.HasPrefix(b.ID, "fill-") {
			continue // on their own
		}
		seconds := b.Seconds(b.Targets(), d.doc.Group(b))
		leader := slices.MinFunc(d.doc.Leaders, func(x, y plan.Leader) int { return led[x.ID] - led[y.ID] })
		if led[leader.ID] > 0 && led[leader.ID]+seconds > most {
			continue
		}
		b.Leader = leader.ID
		led[leader.ID] += seconds
	}
}
