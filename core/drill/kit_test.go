package drill_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/drill"
	"cuestart/core/measure"
)

func TestKitOfALaneIsWrittenAndReadBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var d drill.Drill
		for _, kit := range rapid.SliceOfNDistinct(rapid.SampledFrom([]string{"hurdle", "cone", "low step",
			"10 m rope"}), 0, 4, func(s string) string { return s }).Draw(t, "kit") {
			d.LaneKit = append(d.LaneKit, kit)
			if n := rapid.IntRange(2, 9).Draw(t, "pieces"); n > 2 || kit == "10 m rope" {
				// a name that begins with a number says how many
				if d.PerLane == nil {
					d.PerLane = map[string]int{}
				}
				d.PerLane[kit] = n
			}
		}
		var back drill.Drill
		back.SetLaneKit(d.LaneKitSaid())
		assert.Equal(t, d, back)
	})
}

func TestLengthsAreSaidInYards(t *testing.T) {
	k := drill.Drill{Dose: drill.Dose{Kind: drill.Travel, Metres: 20 * drill.Yard, Yards: true}}
	assert.Equal(t, "4 lengths of 20 yd", k.Words(4))
	yards := measure.System{Yards: true}
	for said, k := range map[string]drill.Drill{"4 lengths of 20 yd": {Dose: drill.Dose{Metres: 20}},
		"4 lengths of 24.1 yd": {Dose: drill.Dose{Metres: 22, To: "22"}},
		"4 laps of 437 yd":     {Unit: "laps", Dose: drill.Dose{Metres: 400}}} {
		k.Dose.Kind = drill.Travel
		assert.Equal(t, said, k.In(yards).Words(4),
			"what was not measured is evened; a line and a lap are as far as they are")
	}
	k.Dose = drill.Dose{Kind: drill.Line, Yards: true, Legs: []drill.Leg{{Name: "skips", Metres: 10 * drill.Yard},
		{Name: "jog", Metres: 20 * drill.Yard}, {Name: "walk", Metres: 5 * drill.Yard, Back: true}}}
	assert.Equal(t, "2 trips: out with skips 10 yd then jog 20 yd, back with walk 5 yd", k.Words(2))
	assert.InDelta(t, 30*drill.Yard, k.Dose.Reach(), 1e-9)
}

// An own side is a hand for what is thrown, a foot for what is kicked.
func TestAnOwnSideIsThePlayers(t *testing.T) {
	kick := drill.Drill{Regions: []string{"hip"}, Dose: drill.Dose{Kind: drill.Reps, Sets: 1, Reps: 3, Sides: 1,
		OwnSide: true, RepSeconds: 4}}
	throw := kick
	throw.Regions, throw.Overhead = []string{"shoulder"}, true
	for _, c := range []struct {
		k          drill.Drill
		hand, foot drill.Way
		want       string
	}{{k: kick, hand: drill.Right, foot: drill.Left, want: "3, left"},
		{k: throw, hand: drill.Right, foot: drill.Left, want: "3, right"},
		{k: kick, hand: drill.Right, foot: drill.Both, want: "3 a side"},
		{k: kick, hand: drill.Both, foot: "", want: "3, own side"}} {
		assert.Equal(t, c.want, c.k.Own(drill.Uses{Hand: c.hand, Foot: c.foot}).Words(3))
	}
	swing := throw
	swing.Name = "Tee swings"
	switchHitter := drill.Uses{Hand: drill.Right, Bats: drill.Both}
	assert.Equal(t, []string{"3 a side", "3, right"}, []string{swing.Own(switchHitter).Words(3),
		throw.Own(switchHitter).Words(3)}, "both sides of the bat, one arm")
	one := drill.Group{People: 4, Lanes: 4}
	both := one
	both.Sides = []drill.Uses{{Foot: drill.Both}}
	assert.Equal(t, []float64{12, 24, 12}, []float64{kick.Work(3, one), kick.Work(3, both), throw.Work(3, both)})
}
