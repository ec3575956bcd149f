package today_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/today"
)

func ExampleSays() {
	d := document(18)
	d.Players[1].First, d.Players[1].Last = "Bo", "Lind"
	d.Restrictions = []plan.Restriction{{Player: "b", NoJumps: true}}
	d.Blocks[1].Items[0].Swap = &drill.Drill{Name: "bike", Dose: drill.Dose{Kind: drill.Time},
		Range: drill.Range{Target: 120}}
	fmt.Println(today.Says(d, "hops"))
	fmt.Println(today.Says(d, "kicks"))
	// Output:
	// [Bo L.: bike, 2 min, for hops: no jumps]
	// [Bo L.: leave out kicks: no jumps]
}

// Whatever the day, a target stays within its range and on a step, the plan that
// was asked stays as it is, and a factor that is switched off counts for nothing.
func TestTheDayNeverLeavesTheRange(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := document(rapid.Float64Range(-20, 40).Draw(t, "air"))
		d.Grade = rapid.SampledFrom(append(drill.Grades, "")).Draw(t, "grade")
		flag := func(name string) bool { return rapid.Bool().Draw(t, name) }
		d.Today.Wind = rapid.Float64Range(0, 30).Draw(t, "wind")
		d.Today.HardYesterday, d.Today.TiredBlock, d.Today.Light, d.Today.Wet = flag("hard"), flag("tired"),
			flag("light"), flag("wet")
		before := d.Clone()
		applied := today.Apply(d)
		assert.Equal(t, before, d)
		for i := range applied.Blocks {
			r := applied.Blocks[i].Items[0].Drill.Range
			assert.GreaterOrEqual(t, r.Target, r.Min)
			assert.LessOrEqual(t, r.Target, r.Max)
			assert.Zero(t, (r.Target-r.Min)%r.Step)
		}
		ids := map[string]bool{}
		for _, f := range today.Factors(d) {
			assert.False(t, ids[f.ID], "%s is one factor alone", f.ID)
			ids[f.ID] = true
			assert.NotEmpty(t, f.Reason)
			assert.Positive(t, f.Times)
			d.Today.Off = append(d.Today.Off, f.ID)
		}
		off := today.Apply(d)
		for i := range d.Blocks {
			assert.Equal(t, d.Blocks[i].Items[0].Drill.Range, off.Blocks[i].Items[0].Drill.Range, "all switched off")
		}
	})
}

// What stands in for a drill is never itself something that was ruled out.
func TestNothingRuledOutStandsIn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		any := func(name string) drill.Drill {
			d := drill.Drill{Name: name, Effort: rapid.Float64Range(0, 1).Draw(t, name),
				Overhead: rapid.Bool().Draw(t, name+" overhead")}
			if rapid.Bool().Draw(t, name+" jumps") {
				d.ContactsPerUnit = 2
			}
			d.Regions = []string{rapid.SampledFrom(drill.Regions).Draw(t, name+" region")}
			return d
		}
		easier, swap := any("easier"), any("swap")
		d := document(18)
		d.Blocks[0].Items[0] = plan.Item{Drill: any("drill"), Easier: &easier, Swap: &swap}
		r := plan.Restriction{Player: "a", NoJumps: rapid.Bool().Draw(t, "no jumps"),
			NoOverhead: rapid.Bool().Draw(t, "no overhead"),
			MaxEffort:  rapid.SampledFrom([]float64{0, 0.3, 0.8}).Draw(t, "most"),
			Spare:      []string{rapid.SampledFrom(drill.Regions).Draw(t, "spare")}}
		d.Restrictions = []plan.Restriction{r}
		for _, v := range today.Versions(d) {
			assert.NotEmpty(t, v.Reason)
			if v.Drill != nil {
				assert.Empty(t, today.Touches(r, *v.Drill))
			}
		}
		if today.Touches(r, d.Blocks[0].Items[0].Drill) == "" {
			assert.Empty(t, today.Says(d, "raise"))
		}
	})
}
