package drill_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/drill"
)

func told(d drill.Drill, amount int) string {
	var told []string
	for _, s := range d.Steps(amount) {
		one := fmt.Sprintf("%d%s", s.Amount, s.Measure)
		for _, w := range s.Ways {
			one += " " + string(w)
		}
		if s.Part != "" {
			one += " " + s.Part
		}
		if s.Turns > 0 {
			one += fmt.Sprintf(" %d/%d", s.Turn, s.Turns)
		}
		if s.Sets > 0 {
			one += fmt.Sprintf(" set %d", s.Set)
		}
		if s.Effort > 0 {
			one += fmt.Sprintf(" at %g", s.Effort)
		}
		told = append(told, one)
	}
	return strings.Join(told, "; ")
}

func TestADoseIsSteppedAsItIsDone(t *testing.T) {
	for want, d := range map[string]drill.Drill{
		"8 left; 8 right": {Dose: drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 2, RepSeconds: 2}},
		"8 left one way; 8 left the other way; 8 right one way; 8 right the " +
			"other way": {Dose: drill.Dose{Kind: drill.Reps,
			Sets: 1, Sides: 2, Directions: 2, RepSeconds: 2}},
		"8 set 1; 20s rest; 8 set 2": {Dose: drill.Dose{Kind: drill.Reps, Sets: 2, Sides: 1,
			RepSeconds: 2, RestSeconds: 20}},
		"8 own side forward; 8 own side back": {Dose: drill.Dose{Kind: drill.Reps, Sets: 1, OwnSide: true,
			RepSeconds: 2, Parts: []drill.Part{{Name: "forward"}, {Name: "back"}}}},
		"10s 1/2; 10s 2/2": {Dose: drill.Dose{Kind: drill.Hold, Sets: 1, Sides: 1,
			HoldSeconds: 10}, Range: drill.Range{Target: 2}},
		"3breaths 1/2; 3breaths 2/2": {Dose: drill.Dose{Kind: drill.Hold, Sets: 1, Sides: 1,
			Breaths: 3}, Range: drill.Range{Target: 2}},
		"20m 1/3 at 0.7; 20m 2/3 at 0.9; 20m 3/3 at 0.9": {Dose: drill.Dose{Kind: drill.Travel, Metres: 20,
			Efforts: []float64{0.7, 0.9}}, Range: drill.Range{Target: 3}},
		"18m on the way out skips 1/2; 18m on the way back heel kicks 1/2; 18m on the way out skips 2/2; 18m " +
			"on the way back heel kicks 2/2": {Dose: drill.Dose{Kind: drill.Line,
			Legs: []drill.Leg{{Name: "skips", Metres: 18, Speed: 2},
				{Name: "heel kicks", Metres: 18, Speed: 2, Back: true}}}, Range: drill.Range{Target: 2}},
		"5 front; 3 back": {Dose: drill.Dose{Kind: drill.Grid, Counts: [][]int{{5, 0, 3}}, ActSeconds: 4},
			Columns: []string{"front", "middle", "back"}, Range: drill.Range{Target: 5}},
		"9":          {Dose: drill.Dose{Kind: drill.Count, ActSeconds: 4}, Range: drill.Range{Target: 9}},
		"90s at 0.6": {Dose: drill.Dose{Kind: drill.Time, Efforts: []float64{0.6}}, Range: drill.Range{Target: 90}},
	} {
		amount := d.Range.Target
		if amount == 0 {
			amount = 8
		}
		assert.Equal(t, want, told(d, amount))
	}
}

// However a dose is said, its steps hold all of it: no rep, hold or length is lost.
func TestStepsHoldTheWholeDose(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := func(name string, low, high int) int { return rapid.IntRange(low, high).Draw(t, name) }
		d := drill.Drill{Dose: drill.Dose{Kind: rapid.SampledFrom([]drill.Kind{drill.Reps, drill.Hold, drill.Travel,
			drill.Count, drill.Time}).Draw(t, "kind"),
			Sets: n("sets", 1, 4), Sides: n("sides", 1, 2), Directions: n("directions", 0, 2), RepSeconds: 2,
			HoldSeconds: 10, SettleSeconds: 2, RestSeconds: float64(n("rest", 0, 30)),
			Metres: 20, Speed: 4, ActSeconds: 5}}
		for i := range n("parts", 0, 3) {
			d.Dose.Parts = append(d.Dose.Parts, drill.Part{Name: fmt.Sprint("part ", i), Reps: n("own", 0, 9)})
		}
		amount := n("amount", 1, 30)
		done, seconds := 0, 0.0
		for _, s := range d.Steps(amount) {
			seconds += s.Seconds
			switch {
			case len(s.Ways) > 0 && s.Ways[0] == drill.Rest:
			case s.Turns > 0 && s.Turn == 0: // too many to follow one by one
				done += s.Turns
			case s.Measure != drill.Times:
				done++
			default:
				done += s.Amount
			}
		}
		of := d.Dose.WithAmount(amount)
		assert.Equal(t, of.Units(), done)
		assert.InDelta(t, of.Work(drill.Group{People: 1, Lanes: 1}), seconds, 1e-6)
	})
}
