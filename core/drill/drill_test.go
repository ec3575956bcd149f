package drill_test

import (
	"encoding/json"
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/drill"
)

func ExampleDose_Work() {
	strides := drill.Dose{Kind: drill.Travel, Trips: 4, Metres: 20, Speed: 2.5, TurnSeconds: 3, IntervalSeconds: 4,
		Flow: drill.Regroup}
	squad := drill.Group{People: 23, Lanes: 6}
	fmt.Println(strides.Work(squad))
	strides.Flow = drill.Continuous
	fmt.Println(strides.Work(squad))
	// Output:
	// 89
	// 53
}

func TestWorkAgreesWithTheKnownAnswers(t *testing.T) {
	text, err := os.ReadFile("testdata/dose.json")
	require.NoError(t, err)
	var cases []struct {
		drill.Dose
		drill.Group
		Stations    int     `json:"stations"`
		WorkSeconds float64 `json:"work_seconds"`
	}
	require.NoError(t, json.Unmarshal(text, &cases))
	require.NotEmpty(t, cases)
	for _, c := range cases {
		group := drill.Group{People: max(1, c.People), Lanes: max(c.Lanes, c.Stations)}
		assert.InDelta(t, c.WorkSeconds, c.Work(group), 1e-3, "%+v", c.Dose)
	}
}

func ranges(t *rapid.T) drill.Range {
	low := rapid.IntRange(1, 60).Draw(t, "min")
	target := low + rapid.IntRange(0, 60).Draw(t, "more")
	return drill.Range{Min: low, Target: target, Max: target + rapid.IntRange(0, 60).Draw(t, "spare"),
		Step: rapid.IntRange(1, 9).Draw(t, "step")}
}

func TestRangeNeverLeavesItsBounds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := ranges(t)
		require.NoError(t, r.Validate())
		clamped := r.Clamp(rapid.IntRange(-5, 500).Draw(t, "amount"))
		assert.True(t, clamped >= r.Min && clamped <= r.Max)
		at := r.At(rapid.Float64Range(0, 1).Draw(t, "share"))
		assert.True(t, at >= r.Min && at <= r.Target)
		if r.Target > r.Min {
			assert.InDelta(t, 0.6, r.Worth(r.Min), 1e-9)
		}
		if r.Max == r.Target {
			assert.InDelta(t, 1, r.Worth(r.Target), 1e-9)
		}
		assert.LessOrEqual(t, r.Worth(clamped), r.Worth(clamped+1))
	})
	for _, bad := range []drill.Range{{Min: 0, Target: 1, Max: 2, Step: 1}, {Min: 3, Target: 2, Max: 4, Step: 1},
		{Min: 1, Target: 2, Max: 1, Step: 1}, {Min: 1, Target: 1, Max: 1}, {Min: 1, Target: 1, Max: 1e9, Step: 1}} {
		assert.Error(t, bad.Validate(), "%+v", bad)
	}
}

func TestWordsAreACoachs(t *testing.T) {
	for want, d := range map[string]drill.Drill{
		"2 × 6 a side":      {Dose: drill.Dose{Kind: drill.Reps, Sets: 2, Sides: 2}},
		"6 lengths of 20 m": {Dose: drill.Dose{Kind: drill.Travel, Metres: 20}},
		"6 throws":          {Unit: "throws", Dose: drill.Dose{Kind: drill.Count}},
		"6 s":               {Dose: drill.Dose{Kind: drill.Time}},
		"6 reps":            {Dose: drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 1}},
		"6 strides of 30 m at 70, 90 %": {Unit: "strides", Dose: drill.Dose{Kind: drill.Travel, Metres: 30,
			Efforts: []float64{0.7, 0.9}}},
		"6 in each of 4 places": {Dose: drill.Dose{Kind: drill.Grid, Cells: 4}},
		"6 holds of 10 s":       {Dose: drill.Dose{Kind: drill.Hold, Sets: 1, Sides: 1, HoldSeconds: 10}},
	} {
		assert.Equal(t, want, d.Words(6))
	}
	assert.Equal(t, "1 catch", drill.Drill{Unit: "catches", Dose: drill.Dose{Kind: drill.Count}}.Words(1))
	assert.Equal(t, "1 throw", drill.Drill{Unit: "throws", Dose: drill.Dose{Kind: drill.Count}}.Words(1))
}

func TestLoadIsCountedFromTheDose(t *testing.T) {
	sprint := drill.Drill{Effort: 0.95, Dose: drill.Dose{Kind: drill.Travel, Metres: 20, Speed: 5, Flow: drill.Regroup}}
	load := sprint.Load(3, drill.Group{People: 12, Lanes: 12})
	assert.Equal(t, drill.Load{Seconds: 12, HardSeconds: 12, SprintMetres: 60}, load)
	kicks := drill.Drill{Effort: 0.5, Dose: drill.Dose{Kind: drill.Count, ActSeconds: 12}}
	assert.Equal(t, drill.Load{Seconds: 216, StandSeconds: 144, Acts: 6},
		kicks.Load(6, drill.Group{People: 5, Lanes: 2}))
	hops := drill.Drill{Effort: 0.8, ContactsPerUnit: 1, Dose: drill.Dose{Kind: drill.Reps, Sets: 2, Sides: 2,
		RepSeconds: 2, RestSeconds: 10}}
	assert.Equal(t, 20, hops.Load(5, drill.Group{People: 1, Lanes: 1}).Contacts)
}

func TestValidateNamesWhatIsWrong(t *testing.T) {
	good := drill.Drill{Code: "x", Name: "X", Aim: "why", Dose: drill.Dose{Kind: drill.Time},
		Range: drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}}
	require.NoError(t, good.Validate())
	for part, spoil := range map[string]func(*drill.Drill){
		"aim":     func(d *drill.Drill) { d.Aim = " " },
		"name":    func(d *drill.Drill) { d.Name = "" },
		"effort":  func(d *drill.Drill) { d.Effort = 1.1 },
		"kind":    func(d *drill.Drill) { d.Dose.Kind = "jump" },
		"speed":   func(d *drill.Drill) { d.Dose = drill.Dose{Kind: drill.Travel, Metres: 10, Flow: drill.Regroup} },
		"sides":   func(d *drill.Drill) { d.Dose = drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 3, RepSeconds: 1} },
		"minimum": func(d *drill.Drill) { d.Range.Min = -1 },
	} {
		bad := good
		spoil(&bad)
		assert.ErrorContains(t, bad.Validate(), part)
	}
}
