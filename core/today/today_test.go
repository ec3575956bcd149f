package today_test

import (
	"encoding/json"
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/today"
)

func document(celsius float64) *plan.Document {
	block := func(id string, phase drill.Phase, target int) plan.Block {
		return plan.Block{ID: id, Phase: phase, Who: []string{plan.Everyone}, Items: []plan.Item{{Explain: 20,
			Drill: drill.Drill{Name: id, Effort: 0.9, ContactsPerUnit: 1,
				Dose:  drill.Dose{Kind: drill.Count, ActSeconds: 5},
				Range: drill.Range{Min: 2, Target: target, Max: 20, Step: 2}}}}}
	}
	return &plan.Document{
		Party: plan.Party{Players: []plan.Player{{ID: "a"}, {ID: "b"}}},
		Site:  plan.Site{Today: plan.Conditions{Celsius: &celsius}},
		Work: plan.Work{Blocks: []plan.Block{block("raise", drill.Raise, 10), block("hops", drill.Potentiate, 10),
			block("kicks", drill.Sport, 10)}},
	}
}

func ExampleFactor_Words() {
	for _, f := range today.Factors(document(4)) {
		fmt.Println(f.Words())
	}
	// Output:
	// cold, 4 °C: 30 % more Raise
	// cold, 4 °C: 25 % more Sport
}

func TestTargetsFollowTheDay(t *testing.T) {
	targets := func(d *plan.Document) (list []int) {
		for _, b := range today.Apply(d).Blocks {
			list = append(list, b.Items[0].Drill.Range.Target)
		}
		return list
	}
	for celsius, want := range map[float64][]int{4: {12, 10, 12}, 5: {12, 10, 12}, 12: {12, 10, 10}, 18: {10, 10, 10},
		24: {8, 10, 10}, 31: {8, 10, 8}} {
		assert.Equal(t, want, targets(document(celsius)), "%g °C", celsius)
	}
	d := document(18)
	d.Today.HardYesterday, d.Today.Light = true, true // 10 × 0.7 × 0.5, on a step
	assert.Equal(t, []int{10, 4, 10}, targets(d))
	d.Blocks[1].Items[0].Drill.Qualities, d.Blocks[1].Items[0].Drill.Effort = []string{"landing"}, 0.7
	assert.Equal(t, []int{10, 10, 10}, targets(d), "what teaches is not done less of")
	d.Blocks[1].Items[0].Drill.Qualities = nil
	d.Grade = drill.Junior
	assert.Equal(t, []int{10, 2, 10}, targets(d), "never below the minimum")
	assert.Equal(t, 30, today.Apply(d).Blocks[0].Items[0].Explain)
	d.Today.Off = []string{"junior", "light", "hard-yesterday"}
	assert.Equal(t, []int{10, 10, 10}, targets(d))
	assert.Equal(t, 10, d.Blocks[1].Items[0].Drill.Range.Target, "the plan itself is as it was")
}

// The vectors are those of the engine's definition.
func TestAFactorTurnsABlockInWholeSteps(t *testing.T) {
	text, err := os.ReadFile("testdata/factors.json")
	require.NoError(t, err)
	var cases []struct {
		Factor float64
		Items  []struct {
			Planned, Step, Min, Max int
			Seconds                 float64 `json:"unit_seconds"`
			Exact                   bool
		}
		Amounts []int
	}
	require.NoError(t, json.Unmarshal(text, &cases))
	require.NotEmpty(t, cases)
	for _, c := range cases {
		b := plan.Block{Phase: drill.Raise, Who: []string{plan.Everyone}}
		for _, i := range c.Items {
			b.Items = append(b.Items,
				plan.Item{Drill: drill.Drill{Dose: drill.Dose{Kind: drill.Count, ActSeconds: i.Seconds, Exact: i.Exact},
					Range: drill.Range{Min: i.Min, Target: i.Planned, Max: i.Max, Step: i.Step}}})
		}
		today.Scale(&b, c.Factor, drill.Group{People: 1, Lanes: 1})
		for n, want := range c.Amounts {
			assert.Equal(t, want, b.Items[n].Drill.Range.Target, "× %g, drill %d", c.Factor, n)
		}
	}
}

// Stations change on one whistle: all are turned alike, or none is.
func TestStationsAreTurnedTogether(t *testing.T) {
	station := func(target int) plan.Item {
		return plan.Item{Drill: drill.Drill{Dose: drill.Dose{Kind: drill.Time},
			Range: drill.Range{Min: 20, Target: target, Max: 60, Step: 5}}}
	}
	targets := func(times float64, items ...plan.Item) (list []int) {
		b := plan.Block{Form: plan.AtStations, Items: items}
		today.Scale(&b, times, drill.Group{People: 6, Lanes: 2})
		for _, item := range b.Items {
			list = append(list, item.Drill.Range.Target)
		}
		return list
	}
	assert.Equal(t, []int{45, 45}, targets(1.15, station(40), station(40)))
	assert.Equal(t, []int{25, 25}, targets(0.6, station(40), station(40)))
	assert.Equal(t, []int{20, 20}, targets(0.1, station(40), station(40)), "no less than will do")
	assert.Equal(t, []int{60, 60}, targets(3, station(40), station(40)))
	assert.Equal(t, []int{40, 30}, targets(1.3, station(40), station(30)), "they differ: the whistle stays")
	hold := station(40)
	hold.Drill.Dose.Kind = drill.Hold
	assert.Equal(t, []int{40, 40}, targets(1.3, station(40), hold))
	exact := station(40)
	exact.Drill.Dose.Exact = true
	assert.Equal(t, []int{40, 40}, targets(1.3, station(40), exact))
	assert.Empty(t, targets(1.3))
}

func TestUnderARoofThereIsNoWeather(t *testing.T) {
	d := document(4)
	d.Today.Wind = 10
	d.Zones = []plan.Zone{{ID: "hall", Covered: true}}
	assert.Equal(t, 10, today.Apply(d).Blocks[0].Items[0].Drill.Range.Target)
	d.Zones[0].Covered = false
	assert.Equal(t, 14, today.Apply(d).Blocks[0].Items[0].Drill.Range.Target, "cold and wind")
}

func TestARestrictionPicksTheEasierThenTheSwapThenNothing(t *testing.T) {
	d := document(18)
	d.Restrictions = []plan.Restriction{{Player: "b", NoJumps: true}, {Player: "gone", NoJumps: true}}
	versions := today.Versions(d)
	require.Len(t, versions, 3)
	d.Blocks[1].Items[0].Easier = &drill.Drill{Name: "high hops", Effort: 0.9}
	d.Restrictions = append(d.Restrictions, plan.Restriction{Player: "b", MaxEffort: 0.5})
	assert.Nil(t, today.Versions(d)[1].Drill, "what stands in holds to every ruling")
	d.Restrictions = d.Restrictions[:2]
	assert.Nil(t, versions[1].Drill)
	assert.Equal(t, "no jumps", versions[1].Reason)
	d.Blocks[1].Items[0].Easier = &drill.Drill{Name: "low hops", ContactsPerUnit: 1}
	d.Blocks[1].Items[0].Swap = &drill.Drill{Name: "bike"}
	assert.Equal(t, "bike", today.Versions(d)[1].Drill.Name, "an easier version that jumps will not do")
	d.Blocks[1].Items[0].Easier.ContactsPerUnit = 0
	assert.Equal(t, "low hops", today.Versions(d)[1].Drill.Name)
	for reason, r := range map[string]plan.Restriction{"no more than 80 % effort": {MaxEffort: 0.8},
		"nothing overhead": {NoOverhead: true}, "spare the knee": {Spare: []string{"hip", "knee"}},
		"": {MaxEffort: 0.95, NoJumps: true}} {
		assert.Equal(t, reason, today.Touches(r, drill.Drill{Effort: 0.9, Overhead: true, Regions: []string{"knee"}}),
			reason)
	}
}
