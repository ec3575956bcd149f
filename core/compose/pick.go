package compose

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// workCap is how many minutes of work are enough by level (Silva et al. 2018).
func workCap(grade drill.Grade) int {
	if grade == drill.Junior {
		return 15
	}
	return 25
}

// shares is how the minutes of the whole squad go to the phases, by a coach's
// rule of thumb; what a method lacks goes to the others.
var shares = map[drill.Phase]float64{drill.Raise: 0.3, drill.Activate: 0.18, drill.Mobilise: 0.24,
	drill.Potentiate: 0.28}

// blockNames is what a composed block of a phase is called.
var blockNames = map[drill.Phase]string{drill.Raise: "Raise", drill.Activate: "Activate",
	drill.Mobilise: "Moving range", drill.Potentiate: "Jumps, sprints"}

// leastRaise is how many seconds of Raise a plan has, be the rest as it may:
// most of the warmth comes within five minutes (Saltin 1968, Bishop 2003).
const leastRaise = 240

// shortWork is how many seconds of work leave no time for Activate.
const shortWork = 9 * 60

// craftShare is the most that position work may take of the minutes.
const craftShare = 0.45

// general adds the blocks of the whole squad, a phase each.
func (c *composer) general() {
	minutes := min(c.free(), workCap(c.Grade)*60)
	minutes -= min(c.busiest(), int(craftShare*float64(minutes)))
	if c.Kind == plan.Match {
		minutes -= finishSeconds
	}
	c.brisk = minutes < shortWork
	sum, weight := 0.0, map[drill.Phase]float64{}
	for _, phase := range plan.Methods[c.Method].Phases {
		w := shares[phase]
		switch {
		case phase == drill.Mobilise && (c.Today.HardYesterday || c.Today.TiredBlock):
			w *= 1.4
		case phase == drill.Potentiate && (c.Today.HardYesterday || c.Today.TiredBlock || c.Today.Light):
			w *= 0.7
		}
		weight[phase] = w
		switch { // what little time there is warms
		case !c.brisk:
		case phase == drill.Raise:
			w *= 1.4
		case phase == drill.Mobilise:
			w *= 0.5
		}
		weight[phase] = w
		if phase == drill.Activate && c.brisk {
			weight[phase], w = 0, 0
		}
		sum += w
	}
	warm := false // something of the method has raised the body before
	for _, phase := range plan.Methods[c.Method].Phases {
		if weight[phase] == 0 {
			continue
		}
		seconds := int(float64(minutes) * weight[phase] / sum)
		if phase == drill.Raise {
			seconds = max(seconds, min(leastRaise, minutes/2))
		}
		c.phase(phase, seconds, warm)
		warm = warm || phase == drill.Raise
	}
}

// softTissue begins the five stages with rolling, where there is time and a dry place for
// it.
func (c *composer) softTissue() {
	if c.Method != "five-stages" || c.Minutes < usualMinutes {
		return
	}
	b := plan.Block{ID: "tissue", Name: "Soft tissue", Phase: drill.Own, Who: []string{plan.Everyone},
		Priority: plan.Should, Excusable: true, Zone: c.zone("", len(c.doc.Players), 0),
		Why: "The method begins with what is tight"}
	for i := range c.Book {
		k := &c.Book[i]
		if slices.Contains(k.Qualities, "tissue") && k.Serves(drill.Own) && len(b.Items) < 2 &&
			c.usable(*k, len(c.doc.Players)) == "" {
			b.Items = append(b.Items, c.item(*k))
		}
	}
	if len(b.Items) > 0 {
		c.doc.Blocks = append(c.doc.Blocks, b)
	}
}

// bodies gives those who are stiff more range, and those who are hypermobile
// control instead, where minutes are left.
func (c *composer) bodies() {
	var loose []string
	for _, p := range c.doc.Players {
		if p.Loose {
			loose = append(loose, p.ID)
		}
	}
	own := func(id, name, why string, phase drill.Phase, who []string, wants func(drill.Drill) bool) {
		if len(who) == 0 || !slices.Contains(plan.Methods[c.Method].Phases, phase) {
			return
		}
		b := plan.Block{ID: id, Name: name, Why: why, Phase: phase, Who: who, Priority: plan.Could, Loose: true,
			Zone: c.zone("", len(who), 0)}
		for range 2 {
			if k := c.best(phase, wants, 120, drill.Group{People: len(who), Lanes: len(who)}, newCoverage(),
				true); k != nil {
				c.done.add(*k, c.Sport.Stresses)
				b.Items = append(b.Items, c.item(*k))
			}
		}
		if len(b.Items) > 0 {
			c.doc.Blocks = append(c.doc.Blocks, b)
		}
	}
	own("stiff", "Extra range", "More range for those who are stiff", drill.Mobilise, c.doc.Members(c.Stiff),
		func(k drill.Drill) bool { return slices.Contains(k.Qualities, "range") && !k.Ground })
	own("control", "Control", "Control, not more range, for those who are hypermobile", drill.Activate, loose,
		func(k drill.Drill) bool { return slices.Contains(k.Qualities, "stability") })
}

// coverage is what the plan prepares so far.
type coverage struct {
	joint, plane, drills map[string]bool
	contacts, sprint     int
}

func newCoverage() *coverage {
	return &coverage{joint: map[string]bool{}, plane: map[string]bool{}, drills: map[string]bool{}}
}

func (v *coverage) add(k drill.Drill, stresses []string) {
	v.drills[k.Code] = true
	for _, j := range k.Regions {
		v.joint[j] = v.joint[j] || slices.Contains(stresses, j)
	}
	for _, p := range k.Planes {
		v.plane[p] = true
	}
	l := k.Load(k.Range.Target, drill.Group{People: 1, Lanes: 1})
	v.contacts += l.Contacts
	v.sprint += l.SprintMetres
}

// How many drills a composed block has at most, and where players lead it.
const (
	itemsAtMost = 5
	itemsLed    = 3
)

func (d *day) items() int {
	if len(d.Leaders) == 0 {
		return itemsLed
	}
	return itemsAtMost
}

// phase adds the block of one phase, of about so many seconds.
func (c *composer) phase(phase drill.Phase, seconds int, warm bool) {
	b := plan.Block{ID: string(phase), Name: blockNames[phase], Phase: phase, Who: []string{plan.Everyone},
		Priority: plan.Must, Excusable: true}
	if phase == drill.Activate {
		b.Priority = plan.Should
	}
	if step := plan.Methods[c.Method].Steps[phase]; step != "" {
		b.Name, _, _ = strings.Cut(step, ",")
	}
	b.Zone = c.zone("", len(c.doc.Players), 0)
	group := drill.Group{People: len(c.doc.Players), Lanes: 1}
	if z := c.doc.Zone(b.Zone); z != nil {
		group.Lanes = z.Lanes
	}
	own := newCoverage()
	b.Items = c.itemsOf(phase, seconds, group, own, warm)
	if len(b.Items) == 0 {
		c.says = append(c.says, fmt.Sprintf("No %s block: no drill suits the place, kit and day",
			strings.ToLower(b.Name)))
		return
	}
	slices.SortStableFunc(b.Items, func(x, y plan.Item) int {
		if x.Drill.Ground != y.Drill.Ground && phase != drill.Potentiate { // down once, then up
			if x.Drill.Ground {
				return -1
			}
			return 1
		}
		return cmp.Compare(x.Drill.Effort, y.Drill.Effort)
	})
	if c.Method == "ground-up" && phase == drill.Mobilise {
		fromTheGround(b.Items)
	}
	c.into(&b)
	spent := b.Seconds(b.Targets(), group)
	b.Why = whyPhase(phase, own)
	c.load[b.Zone] += spent
	c.doc.Blocks = append(c.doc.Blocks, b)
}

// roomToLand is how many seconds there have to be for work before landings are learnt in it.
const roomToLand = 24 * 60

// itemsOf picks the drills of a phase of about so many seconds for group.
func (c *composer) itemsOf(phase drill.Phase, seconds int, group drill.Group, own *coverage, warm bool) []plan.Item {
	var b plan.Block
	steps := stepsOf(phase, c.Kind, c.Today)
	methods := c.methodSteps(phase)
	if methods != nil {
		steps = methods
	}
	if phase == drill.Potentiate && c.free() >= roomToLand && c.Grade != drill.Junior { // a landing is stuck first
		if lands := func(k drill.Drill) bool {
			return slices.Contains(k.Qualities, "landing") && k.Effort < drill.SprintEffort
		}; methods != nil {
			steps = append([]func(drill.Drill) bool{lands}, methods...)
		} else {
			steps[0] = lands
		}
	}
	if phase == drill.Potentiate && c.brisk && len(steps) > 1 {
		if k := c.best(phase, rising, max(60, seconds), group, own, warm); k != nil {
			c.done.add(*k, c.Sport.Stresses)
			return []plan.Item{c.item(*k)}
		}
		steps = []func(drill.Drill) bool{steps[0], besides[2]}
	}
	for n := 0; n < c.items(); n++ {
		wants := func(drill.Drill) bool { return true }
		if n < len(steps) {
			wants = steps[n]
		} else if phase == drill.Potentiate {
			break // few contacts, full quality
		}
		k := c.best(phase, wants, max(60, seconds), group, own, warm)
		if k == nil && n < len(steps) && phase == drill.Potentiate {
			k = c.best(phase, besides[min(n, len(besides)-1)], max(60, seconds), group, own, warm)
		}
		if k == nil {
			continue
		}
		with := plan.Block{Items: append(slices.Clone(b.Items), c.item(*k))}
		middle := (with.Seconds(with.Targets(), group) + with.Seconds(append(b.Targets(), k.Range.Min), group)) / 2
		if n >= max(1, len(steps)) && middle+plan.GapSeconds > seconds {
			break
		}
		own.add(*k, c.Sport.Stresses)
		c.done.add(*k, c.Sport.Stresses)
		b = with
	}
	return b.Items
}

// whyPhase says what the phase is for today, and what it prepares.
func whyPhase(phase drill.Phase, own *coverage) string {
	var joints, planes []string
	for _, j := range drill.Regions {
		if own.joint[j] {
			joints = append(joints, j)
		}
	}
	for _, p := range drill.Planes {
		if own.plane[p] {
			planes = append(planes, p)
		}
	}
	text := map[drill.Phase]string{
		drill.Raise:      "Pulse first, then the feet",
		drill.Activate:   "Wakes what the sport needs",
		drill.Mobilise:   "Range in motion",
		drill.Potentiate: "Landings, a step below full, then full effort",
	}[phase]
	if len(joints) > 0 {
		text += "; " + and(joints)
	}
	if len(planes) > 0 {
		text += ", " + and(planes) + " plane"
	}
	return text
}

func and(words []string) string {
	if n := len(words); n > 1 {
		return strings.Join(words[:n-1], ", ") + " and " + words[n-1]
	}
	return words[0]
}

// best is the drill that adds most to a phase of so many seconds, or nil.
func (c *composer) best(phase drill.Phase, wants func(drill.Drill) bool, seconds int, group drill.Group, own *coverage,
	warm bool) *drill.Drill {
	var found *drill.Drill
	top := 0.0
	for i := range c.Book {
		k := &c.Book[i]
		if !k.Serves(phase) || c.done.drills[k.Code] || !wants(*k) || k.Together || k.Collision ||
			c.usable(*k, group.People) != "" {
			continue
		}
		if phase != drill.Potentiate && (k.NeedsWarm && !(k.Static && warm) || k.Effort > 0.65) ||
			!warm && k.Effort > 0.7 {
			continue
		}
		static := plan.Methods[c.Method].StaticOnceWarm && phase == drill.Mobilise
		if static && !k.Static { // its holds are holds, and nothing else
			continue
		}
		if k.Static && (!static || k.HeldSeconds(k.Range.Target) >= drill.StaticTooLong) || k.ArmPump && c.throws() ||
			slices.Contains(k.Qualities, "tissue") {
			continue
		}
		if queues(*k, group) && !(k.Dose.Kind == drill.Travel && !queues(moving(*k), group)) {
			continue
		}
		l := k.Load(k.Range.Target, drill.Group{People: 1, Lanes: 1})
		if limit := most[c.Grade]; c.done.contacts+l.Contacts > limit.contacts ||
			c.done.sprint+l.SprintMetres > limit.sprintMetres {
			continue
		}
		score := c.score(k, seconds, group, own)
		if k.Static {
			score += 3
		}
		if found == nil || score > top+1e-9 {
			found, top = k, score
		}
	}
	if found == nil {
		return nil
	}
	k := found.For(c.Grade)
	if queues(k, group) {
		k = moving(k)
	}
	return &k
}

// queues tells whether people wait for more than half of a drill, as the check that
// warns of it does.
func queues(k drill.Drill, group drill.Group) bool {
	k = k.For(drill.Club)
	all, own := k.Work(k.Range.Target, group), k.Work(k.Range.Target, drill.Group{People: 1, Lanes: 1})
	return !k.Together && own < all/2 && all-own >= check.QueueLeast-1
}

// moving is a drill over some length in which nobody gathers between trips.
func moving(k drill.Drill) drill.Drill {
	k.Dose.Flow = drill.Continuous
	return k
}

// The most contacts and sprint metres that the whole squad's part brings, so that position work
// has room below the level's cap.
var most = map[drill.Grade]struct{ contacts, sprintMetres int }{drill.Junior: {30, 50}, drill.Club: {60, 90},
	drill.Elite: {75, 120}}
