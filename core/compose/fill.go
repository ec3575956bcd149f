package compose

import (
	"fmt"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// finishSeconds is how long the last hard minutes before a match are.
const finishSeconds = 120

// finish ends a match's warm-up hard, so that nobody is cool at the start: unless the
// team's last block does that already. Where static holds come late it is what moves after
// them.
func (c *composer) finish() {
	static := plan.Methods[c.Method].StaticOnceWarm
	if c.Kind != plan.Match && !static || c.endsHard() {
		return
	}
	phases := plan.Methods[c.Method].Phases
	b := plan.Block{ID: "finish", Name: "Hard finish", Phase: phases[len(phases)-1], Who: []string{plan.Everyone},
		Priority: plan.Must, Excusable: true,
		Why: "Warm at the start, not only at the end of the work"}
	b.Zone = c.zone("", len(c.doc.Players), 0)
	group := c.doc.Group(&b)
	top := 0.0
	for i := range c.Book {
		k := c.Book[i].For(c.Grade)
		if k.Effort < drill.RisingEffort || k.Effort >= drill.SprintEffort || k.ContactsPerUnit > 0 || k.Collision ||
			c.usable(k, group.People) != "" || queues(k, group) || k.Least == drill.Elite {
			continue
		}
		game := slices.Contains(k.Qualities, "game") || k.Dose.Kind == drill.Time
		if group.People < 4 && game || len(k.Sports) > 0 && !slices.Contains(k.Sports, c.Sport.Key) ||
			k.Dose.Kind == drill.Count || k.Dose.Kind == drill.Grid || k.ArmPump {
			continue
		}
		score := k.Effort
		if game {
			score++
		}
		if score > top {
			top = score
			b.Items = []plan.Item{c.item(k)}
		}
	}
	if len(b.Items) == 0 {
		return
	}
	k := &b.Items[0].Drill
	if k.Dose.Kind == drill.Time {
		k.Range = drill.Range{Min: 60, Target: finishSeconds, Max: 300, Step: 15}
	}
	c.beforeTeam(b)
}

// beforeTeam puts a block before the team's last ones.
func (d *day) beforeTeam(b plan.Block) {
	last := []string{"finish", fmt.Sprintf("craft-%d", len(d.Sport.Craft)+1),
		fmt.Sprintf("craft-%d", len(d.Sport.Craft)+2)}
	at := slices.IndexFunc(d.doc.Blocks,
		func(o plan.Block) bool { return !o.Loose && o.Phase == b.Phase && slices.Contains(last, o.ID) })
	if at < 0 {
		at = len(d.doc.Blocks)
	}
	d.doc.Blocks = slices.Insert(d.doc.Blocks, at, b)
}

// fillFrom is how many seconds less than the busiest a group has to do before it gets
// something to keep it warm.
const fillFrom = 150

// fill gives those something easy to do who have less position work than the others, so
// that nobody stands and cools meanwhile.
func (c *composer) fill() {
	busy, groups, most := map[string]int{}, map[string][]string{}, 0
	keys := map[string]string{}
	for i := range c.doc.Blocks {
		b := &c.doc.Blocks[i]
		if b.Phase != drill.Sport || slices.Contains(b.Who, plan.Everyone) {
			continue
		}
		for _, id := range c.doc.Members(b.Who) {
			busy[id] += b.Seconds(b.Targets(), c.doc.Group(b))
			keys[id] += " " + b.ID
			most = max(most, busy[id])
		}
	}
	most = min(most, c.free()/3)
	var order []string
	for _, p := range c.doc.Players {
		key := keys[p.ID]
		if c.late(&p) || most-busy[p.ID] < fillFrom {
			continue
		}
		if groups[key] == nil {
			order = append(order, key)
		}
		groups[key] = append(groups[key], p.ID)
	}
	for n, key := range order {
		c.filler(n, groups[key], most-busy[groups[key][0]])
	}
}

// filler adds a block that keeps some players warm for about so many seconds.
func (c *composer) filler(n int, who []string, seconds int) {
	b := plan.Block{ID: fmt.Sprintf("fill-%d", n+1), Name: "Keep warm", Phase: drill.Sport, Who: who,
		Priority: plan.Could, Loose: true,
		Why: "Others have more to do: nobody stands and cools"}
	b.Zone = c.zone("", len(who), 0)
	group := c.doc.Group(&b)
	top := 0.0
	for i := range c.Book {
		k := c.Book[i].For(c.Grade)
		game := slices.Contains(k.Qualities, "game")
		if k.Effort < 0.5 || k.Effort > 0.7 || k.Dose.Kind != drill.Time && k.Dose.Kind != drill.Travel ||
			len(k.Efforts(k.Range.Target)) > 1 || k.NeedsWarm || k.Collision || k.Ground || k.ContactsPerUnit > 0 ||
			game && len(who) < 4 ||
			len(k.Sports) > 0 && !slices.Contains(k.Sports, c.Sport.Key) || slices.Contains(k.Qualities, "partner") ||
			c.usable(k, len(who)) != "" || queues(k, group) {
			continue
		}
		score := -0.5 * float64(len(k.Kit)+len(k.LaneKit))
		if game {
			score += 2
		}
		if k.Dose.Kind == drill.Time {
			score++
		}
		if c.Kit == nil && len(k.Kit)+len(k.LaneKit) > 0 {
			score -= 2
		}
		if b.Items == nil || score > top {
			top, b.Items = score, []plan.Item{c.item(k)}
		}
	}
	if len(b.Items) == 0 {
		return
	}
	k := &b.Items[0].Drill
	unit := max(1, int(k.Work(k.Range.Target, group)+0.5))
	amount := func(of int) int { return max(1, k.Range.Target*max(0, of-plan.HandoverSeconds)/unit) }
	k.Range = drill.Range{Min: amount(seconds / 3), Target: amount(seconds), Max: amount(2 * seconds),
		Step: k.Range.Step}
	c.into(&b)
	c.beforeTeam(b)
}

// endsHard tells whether the last block that everybody is in is hard.
func (d *day) endsHard() bool {
	last := d.doc.Blocks[max(0, len(d.doc.Blocks)-1)]
	if !slices.Contains(last.Who, plan.Everyone) {
		return false
	}
	seconds := 0.0
	for _, item := range last.Items {
		if item.Drill.Effort >= drill.RisingEffort {
			seconds += item.Drill.Work(item.Drill.Range.Target, d.doc.Group(&last))
		}
	}
	return seconds >= finishSeconds
}
