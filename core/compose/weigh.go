package compose

import (
	"fmt"
	"math"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/today"
)

// score is what a drill would add.
func (c *composer) score(k *drill.Drill, seconds int, group drill.Group, own *coverage) (score float64) {
	score = c.covers(k, own)
	if len(k.Sports) > 0 {
		score += 0.5
	}
	if i := slices.Index(c.Recent, k.Code); i >= 0 { // the longer ago, the less it matters
		score -= 2 * (1 - float64(i)/float64(len(c.Recent)))
	}
	for range len(k.Kit) + len(k.LaneKit) {
		score -= 0.3
		if c.Kit == nil { // who knows whether it is there
			score -= 1.5
		}
	}
	// A few of like length fill a phase, rather than one long or many short ones.
	score -= 4 * math.Abs(k.Work(k.Range.Target, group)/float64(seconds)-1/float64(c.items()))
	if k.Ground {
		score--
	}
	if all := k.Work(k.Range.Target, group); all > 0 &&
		2*k.Work(k.Range.Target, drill.Group{People: 1, Lanes: 1}) < all {
		score -= 4 // more than half of it is waiting
	}
	for _, r := range c.Restrictions {
		if today.Touches(r, *k) != "" {
			score -= 0.5
			if !c.standsIn(r, k.Easier) && !c.standsIn(r, k.Swap) {
				score -= barred
			}
		}
	}
	return score
}

// covers weighs which joints and planes a drill brings that nothing before it has.
func (c *composer) covers(k *drill.Drill, own *coverage) (score float64) {
	for _, j := range k.Regions {
		switch {
		case !slices.Contains(c.Sport.Stresses, j):
		case !c.done.joint[j]:
			score += 3
		case !own.joint[j]:
			score += 1.5
		default:
			score += 0.2
		}
	}
	for _, p := range k.Planes {
		switch {
		case !c.done.plane[p]:
			score += 2
		case !own.plane[p]:
			score++
		}
	}
	return score
}

// barred is what a drill loses for each player whom a ruling bars from it: it is
// taken only where nothing else is left.
const barred = 100

func (c *composer) standsIn(r plan.Restriction, code string) bool {
	k, ok := c.byCode[code]
	return ok && today.Touches(r, k) == ""
}

// throws tells whether the sport throws soon after: what tires the arm stays out.
func (c *composer) throws() bool {
	return slices.Contains(c.Sport.Stresses, "elbow") || slices.ContainsFunc(c.Sport.Craft, func(x Craft) bool {
		return slices.ContainsFunc(x.Drills, func(code string) bool { return c.byCode[code].Throws() })
	})
}

// short says that there is too little of some kit.
func (d *day) short(kit string, needs int) string {
	if d.Kit[kit] == 0 {
		return "there is no " + kit
	}
	return fmt.Sprintf("it needs %d × %s, there are %d", needs, kit, d.Kit[kit])
}

// usable says why so many people cannot do the drill today, or "".
func (c *composer) usable(k drill.Drill, people int) string {
	switch {
	case people == 1 && k.WantsPartner():
		return "it takes a partner"
	case !k.Suits(c.Grade):
		return "it is for a higher level"
	case len(k.Sports) > 0 && !slices.Contains(k.Sports, c.Sport.Key):
		return "it belongs to another sport"
	case c.Sport.Season != "" && len(k.Seasons) > 0 && !slices.Contains(k.Seasons, c.Sport.Season):
		return "it is for another time of the season"
	case c.Grade == drill.Junior && k.Collision:
		return "no heavy contact for juniors before a match"
	case c.loose && k.EndRange:
		return "a hypermobile player needs control, not more range"
	case c.Today.Wet && k.Ground:
		return "the ground is wet"
	case (c.Today.Wet || c.Today.Uneven) && k.Jumps():
		return "jumps need even, dry ground"
	}
	for _, kit := range slices.Concat(k.Kit, k.LaneKit) {
		if drill.Machine(kit) && c.Kit[kit] < people {
			return c.short(kit, people)
		}
	}
	if c.Kit != nil {
		needs := k.Pieces(drill.Group{People: people, Lanes: 1}) // how many stations there will be is not known yet
		for _, kit := range k.Kit {
			if drill.Counted(kit) && c.Kit[kit] < needs {
				return c.short(kit, needs)
			}
		}
		for _, kit := range k.LaneKit {
			if drill.Counted(kit) && c.Kit[kit] < 1 {
				return c.short(kit, 1)
			}
		}
	}
	return ""
}
