package check_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// What one player does over the whole plan counts, not what a drill or a block
// holds; and what a thing is, not a word that stands for it.
func TestFaultsAreSeenWhereTheyLie(t *testing.T) {
	static := func(code string, seconds float64) drill.Drill {
		k := hold(seconds)
		k.Code, k.Name, k.Regions, k.EndRange = code, code, []string{"hip"}, false
		return k
	}
	rules := func(d *plan.Document) (ids []string) {
		for _, f := range check.Check(input(t, d)) {
			ids = append(ids, f.Rule)
		}
		return ids
	}
	for name, c := range map[string]struct {
		rule  string
		found bool
		spoil func(d *plan.Document)
	}{
		"static seconds add up by muscle": {"static-long", true, func(d *plan.Document) {
			d.Blocks[1].Items = append(d.Blocks[1].Items, plan.Item{Drill: static("one", 20)},
				plan.Item{Drill: static("two", 25)}, plan.Item{Drill: static("three", 20)})
		}},
		"the other side is another muscle": {"static-long", false, func(d *plan.Document) {
			d.Blocks[1].Items = append(d.Blocks[1].Items, plan.Item{Drill: static("one", 25)},
				plan.Item{Drill: static("two", 25)})
		}},
		"what stands in is judged too": {"end-range", true, func(d *plan.Document) {
			deep := timed("reach", drill.Potentiate, 0.4, 30, func(d *drill.Drill) { d.EndRange = true })
			d.Players[1].Loose = true
			d.Blocks[2].Items[0].Drill.ContactsPerUnit, d.Blocks[2].Items[0].Easier = 1, &deep
			d.Restrictions = []plan.Restriction{{Player: "p1", NoJumps: true}}
		}},
		"a plane is each player's": {"plane", true,
			func(d *plan.Document) { d.Blocks[1].Who = []string{"p0", "p1", "p2"} }},
		"to the end of the range in Raise": {"deep-cold", true, func(d *plan.Document) {
			d.Blocks[0].Items = append(d.Blocks[0].Items,
				plan.Item{Drill: timed("splits", drill.Raise, 0.3, 30, func(d *drill.Drill) { d.EndRange = true })})
		}},
		"a catch above the head is no throw": {"arm-pump", false, func(d *plan.Document) {
			catches := throws(5, func(d *drill.Drill) { d.Name, d.Unit = "high balls", "catches" })
			d.Blocks[3].Items = append(d.Blocks[3].Items,
				plan.Item{Drill: timed("pump", drill.Sport, 0.5, 30, func(d *drill.Drill) { d.ArmPump = true })},
				plan.Item{Drill: catches})
		}},
		"slow work is dynamic from 0.4 on": {"static-last", false, func(d *plan.Document) {
			d.Blocks[3] = block("play", drill.Sport, book[4], static("one", 10),
				timed("walk", drill.Sport, 0.4, 60, nil))
		}},
		"a hold is not": {"static-last", true, func(d *plan.Document) {
			brace := hold(10)
			brace.Code, brace.Static, brace.EndRange, brace.Effort = "brace", false, false, 0.6
			d.Blocks[3] = block("play", drill.Sport, book[4], static("one", 10), brace)
		}},
		"quiet minutes are no work": {"too-long", false, func(d *plan.Document) {
			d.Open = clock.BeforeStart(3600)
			d.Blocks = slices.Insert(d.Blocks, 0,
				block("quiet", drill.Own, timed("picture", drill.Own, 0.05, 1200, nil)))
		}},
		"a lane's kit counts": {"kit-short", true, func(d *plan.Document) {
			d.Kit = map[string]int{"hurdle": 2}
			d.Blocks[1].Items[0].Drill.LaneKit = []string{"hurdle"}
			d.Blocks[1].Items[0].Drill.PerLane = map[string]int{"hurdle": 3}
		}},
		"fewer lanes do where kit stands in some": {"kit-short", false, func(d *plan.Document) {
			d.Kit = map[string]int{"hurdle": 2}
			d.Blocks[1].Items[0].Drill.LaneKit = []string{"hurdle"}
		}},
		"what players own is not counted": {"kit-short", false, func(d *plan.Document) {
			d.Kit = map[string]int{"hurdle": 2}
			d.Blocks[1].Items[0].Drill.Kit, d.Blocks[1].Items[0].Drill.LaneKit = []string{"skates"}, []string{"wall"}
		}},
		"a game has one ball": {"kit-short", false, func(d *plan.Document) {
			d.Kit = map[string]int{"ball": 1}
			d.Blocks[3].Items[0].Drill.Kit, d.Blocks[3].Items[0].Drill.Qualities = []string{"ball"}, []string{"game"}
		}},
		"what nobody counted is not there": {"kit-short", true, func(d *plan.Document) {
			d.Kit = map[string]int{"hurdle": 2}
			d.Blocks[3].Items[0].Drill.Kit = []string{"ball"}
		}},
		"a bench player may be due at the start": {"due-late", false,
			func(d *plan.Document) { d.Players[3].DueShift = d.Margin }},
		"the ground is wet where it is said": {"wet-ground", true, func(d *plan.Document) {
			d.Zones[0].Surface = "grass, wet"
			d.Blocks[1].Items[0].Drill.Ground = true
		}},
		"no wind and no rain in a hall": {"wet-ground", false, func(d *plan.Document) {
			d.Today.Wet, d.Zones[0].Covered = true, true
			d.Blocks[1].Items = append(d.Blocks[1].Items,
				plan.Item{Drill: timed("bridge", drill.Mobilise, 0.3, 30, func(d *drill.Drill) { d.Ground = true })})
		}},
		"steps within a drill lead up": {"no-step", false, func(d *plan.Document) {
			k := &d.Blocks[2].Items[1].Drill
			k.Dose = drill.Dose{Kind: drill.Travel, Metres: 20, Efforts: []float64{0.7, 0.9, 1}, TopSpeed: 8,
				TurnSeconds: 20, Flow: drill.Regroup}
			k.Range = drill.Range{Min: 3, Target: 3, Max: 3, Step: 1}
			d.Blocks[2].Items = d.Blocks[2].Items[1:]
		}},
		"a leader away while it is on": {"leader-busy", true, func(d *plan.Document) {
			d.Leaders = append(d.Leaders,
				plan.Leader{ID: "ada", Name: "Ada",
					Free: []plan.Span{{From: clock.BeforeStart(5000), To: clock.BeforeStart(2650)}}})
			d.Blocks[3].Leader = "ada"
		}},
		"two pins at one place": {"place-busy", true, func(d *plan.Document) {
			d.Zones[0].Capacity = 4
			for i, id := range []string{"p0", "p1"} {
				b := block("own"+id, drill.Sport, throws(5, nil))
				b.Who, b.Pin, b.Zone, b.Leader = []string{id}, &clock.Moment{Before: 700 + 5*i}, "hall", ""
				d.Blocks = append(d.Blocks, b)
			}
			d.Zones[1].Capacity = 1
		}},
	} {
		d := sound()
		c.spoil(d)
		if got := rules(d); c.found {
			assert.Contains(t, got, c.rule, name)
		} else {
			assert.NotContains(t, got, c.rule, name)
		}
	}
}
