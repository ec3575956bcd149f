package plan_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

func TestTheAirFallsIntoBands(t *testing.T) {
	for celsius, want := range map[float64]plan.Air{-10: plan.Cold, 5: plan.Cold, 5.1: plan.Cool, 12: plan.Cool,
		12.1: plan.Mild, 23.9: plan.Mild, 24: plan.Warm, 29.9: plan.Warm, 30: plan.Hot, 45: plan.Hot} {
		assert.Equal(t, want, plan.AirOf(celsius), "%g °C", celsius)
		assert.Equal(t, want, plan.Conditions{Celsius: &celsius}.Air())
	}
	assert.Equal(t, plan.Mild, plan.Conditions{}.Air(), "nobody knows it")
}

func TestADaysAirAndWindHaveLimits(t *testing.T) {
	for _, good := range []float64{plan.AirLowest, 0, plan.AirHighest} {
		assert.Empty(t, plan.AirProblem(good))
	}
	for _, bad := range []float64{plan.AirLowest - 0.1, plan.AirHighest + 0.1, math.NaN(), math.Inf(1)} {
		assert.Contains(t, plan.AirProblem(bad), "between -40 and 55")
	}
	assert.Empty(t, plan.WindProblem(0))
	assert.Empty(t, plan.WindProblem(plan.WindHighest))
	for _, bad := range []float64{-0.1, plan.WindHighest + 0.1, math.NaN()} {
		assert.Contains(t, plan.WindProblem(bad), "between 0 and 60")
	}
}

func TestWhoMissesAThirdNeedsAShortVersion(t *testing.T) {
	assert.False(t, plan.Player{}.MissesMuch(3000))
	assert.False(t, plan.Player{Late: 1000}.MissesMuch(3000), "a third, and no more")
	assert.True(t, plan.Player{Late: 1001}.MissesMuch(3000))
}

func TestProblemsAreFoundByTheirPlace(t *testing.T) {
	var wrong plan.Problems
	assert.NoError(t, wrong.Err(), "none")
	wrong.Add(plan.AtBlock("b", "zone"), "that zone is not of this plan")
	wrong.Add(plan.AtItem("b", 2), "too much")
	require.Error(t, wrong.Err())
	assert.Equal(t, "too much", wrong.At(plan.AtItem("b", 2)))
	assert.Empty(t, wrong.At(plan.AtItem("b", 1)))
	places := []string{plan.AtBlock("b", "zone"), plan.AtBlock("c", "zone"), plan.AtBlock("b", "items"),
		plan.AtItem("b", 0), plan.AtItem("b", 1), plan.AtException("r", "b"), plan.AtException("r", "c")}
	seen := map[string]bool{}
	for _, p := range places {
		assert.False(t, seen[p], "%s names one place alone", p)
		seen[p] = true
	}
	var one plan.Problems
	assert.ErrorAs(t, plan.In("start", "%s has passed", "15:00"), &one)
	assert.Equal(t, "15:00 has passed", one.At("start"))
}

// edits are all that a coach can do to a block of the plan in one press.
func edits(t *rapid.T, d *plan.Document) (string, error) {
	block := rapid.SampledFrom(append(ids(d), "gone")).Draw(t, "block")
	item := rapid.IntRange(-1, 2).Draw(t, "item")
	switch rapid.IntRange(0, 8).Draw(t, "edit") {
	case 0:
		return d.SetDose(block, item, rapid.IntRange(-3, 40).Draw(t, "amount"))
	case 1:
		return d.StepDose(block, item, rapid.IntRange(-5, 5).Draw(t, "steps"))
	case 2:
		return d.SetPriority(block, rapid.SampledFrom([]plan.Priority{plan.Must, plan.Could, "maybe"}).Draw(t,
			"priority"))
	case 3:
		return d.Step(block, rapid.SampledFrom([]int{-1, 1}).Draw(t, "by"))
	case 4:
		return d.Remove(block)
	case 5:
		return d.Add(throws(), rapid.SampledFrom([]drill.Phase{drill.Raise, drill.Sport, "warm"}).Draw(t, "phase"),
			[]string{rapid.SampledFrom([]string{plan.Everyone, "p1", "p99"}).Draw(t, "who")}, plan.Should)
	case 6:
		return d.AddItem(block, plan.Item{Drill: throws()})
	case 7:
		return d.RemoveItem(block, item)
	}
	return d.SetLate(rapid.SampledFrom([]string{"p1", "p99"}).Draw(t, "player"),
		rapid.IntRange(-60, plan.MaxLate+60).Draw(t, "late"))
}

func ids(d *plan.Document) (list []string) {
	for _, b := range d.Blocks {
		list = append(list, b.ID)
	}
	return list
}

// Whatever is pressed, the plan holds: an edit says what it did, or changes
// nothing and says why.
func TestNoEditSpoilsAPlan(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := document()
		for range rapid.IntRange(1, 12).Draw(t, "edits") {
			before := d.Clone()
			said, err := edits(t, d)
			if err != nil {
				assert.Equal(t, before, d, "a refused edit changes nothing: %v", err)
				assert.NotEmpty(t, err.Error())
				continue
			}
			assert.NotEmpty(t, said)
			require.NoError(t, d.Validate(), said)
		}
	})
}
