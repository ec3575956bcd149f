package drill_test

import (
	"encoding/json"
	"math"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
)

// said is a dose of the known answers, in the words of its file.
type said struct {
	drill.Dose
	Sides     any               `json:"sides"`
	Uses      string            `json:"uses"`
	Parts     []json.RawMessage `json:"parts"`
	Rows      []string          `json:"rows"`
	Out, Back []struct{ Metres, Speed float64 }
	By        string  `json:"by"`
	Amount    int     `json:"amount"`
	People    int     `json:"people"`
	Lanes     int     `json:"lanes"`
	Stations  int     `json:"stations"`
	Work      float64 `json:"work_seconds"`
	Sprint    float64 `json:"sprint_metres"`
}

func (s said) dose(t *testing.T) drill.Dose {
	d := s.Dose
	switch sides := s.Sides.(type) {
	case float64:
		d.Sides = int(sides)
	case string: // as long as its longest player needs
		d.Sides = map[string]int{"one": 1, "both": 2}[s.Uses]
	}
	for _, raw := range s.Parts {
		var p drill.Part
		if json.Unmarshal(raw, &p) != nil {
			require.NoError(t, json.Unmarshal(raw, &p.Name))
		}
		d.Parts, d.Reps = append(d.Parts, p), max(d.Reps, p.Reps)
	}
	for _, leg := range s.Out {
		d.Legs = append(d.Legs, drill.Leg{Metres: leg.Metres, Speed: leg.Speed})
	}
	for _, leg := range s.Back {
		d.Legs = append(d.Legs, drill.Leg{Metres: leg.Metres, Speed: leg.Speed, Back: true})
	}
	if d.ByPair = s.By == "pair"; s.Amount > 0 {
		d = d.WithAmount(s.Amount)
	}
	return d
}

func TestDosesAsTheyAreSaidAgreeWithTheKnownAnswers(t *testing.T) {
	text, err := os.ReadFile("testdata/dose-said.json")
	require.NoError(t, err)
	var cases []said
	require.NoError(t, json.Unmarshal(text, &cases))
	require.NotEmpty(t, cases)
	for _, c := range cases {
		d := c.dose(t)
		group := drill.Group{People: max(1, c.People), Lanes: max(1, c.Lanes, c.Stations)}
		assert.InDelta(t, c.Work, d.Work(group), 0.01, "%+v", d)
		assert.Equal(t, int(c.Sprint), drill.Drill{Dose: d, Effort: 0.5}.Load(d.Amount(), group).SprintMetres)
		assert.False(t, math.IsNaN(d.Work(group)))
	}
}

func TestDosesAreWrittenAsTheyAreSaid(t *testing.T) {
	for want, d := range map[string]drill.Drill{
		"8 each way, a side": {Dose: drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 2,
			Directions: 2}},
		"8 reps, 3-1-3": {Dose: drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 1,
			Tempo: []float64{3, 1, 3}}},
		"8 holds of 6 s, forward / left": {Dose: drill.Dose{Kind: drill.Hold, Sets: 1, Sides: 1,
			HoldSeconds: 6, Parts: []drill.Part{{Name: "forward"}, {Name: "left"}}}},
		"8 holds of 3 breaths": {Dose: drill.Dose{Kind: drill.Hold, Sets: 1, Sides: 1,
			Breaths: 3}},
		"8 catches a pair": {Unit: "catches",
			Dose: drill.Dose{Kind: drill.Count, ByPair: true}},
		"8 near left, 5 near right, 5 far right": {Rows: []string{"near", "far"},
			Columns: []string{"left", "right"}, Dose: drill.Dose{Kind: drill.Grid, Counts: [][]int{{8, 5}, {0, 5}}}},
		"8 trips: out with a then b, back with c, 18 m": {Dose: drill.Dose{Kind: drill.Line,
			Legs: []drill.Leg{{Name: "a", Metres: 18}, {Name: "b", Metres: 18}, {Name: "c", Metres: 18, Back: true}}}},
	} {
		assert.Equal(t, want, d.Words(8))
	}
}
