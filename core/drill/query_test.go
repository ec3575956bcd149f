package drill_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/drill"
	"cuestart/core/measure"
)

func codes(drills []drill.Drill) string {
	var list []string
	for _, d := range drills {
		list = append(list, d.Code)
	}
	return strings.Join(list, " ")
}

func TestADrillIsFoundByWhatACoachKnowsOfIt(t *testing.T) {
	book := []drill.Drill{
		{Code: "walk", Name: "Band side-walk", Aim: "Hips hold the knees", Phases: []drill.Phase{drill.Activate},
			Regions: []string{"hip"}, Planes: []string{"side"}, Qualities: []string{"control"},
			Kit: []string{"light loop band"}, Least: drill.Junior, Space: drill.Space{Length: 6, Width: 1}},
		{Code: "hold", Name: "Neck holds", Aim: "Braced before the scrum",
			Phases: []drill.Phase{drill.Activate, drill.Mobilise}, Regions: []string{"neck"}, Planes: []string{"front"},
			Qualities: []string{"hold"}, Least: drill.Club},
		{Code: "sprint", Name: "Kurze Läufe", Aim: "Match speed for hips", Phases: []drill.Phase{drill.Potentiate},
			Regions: []string{"hip", "knee"}, Planes: []string{"front"}, Qualities: []string{"sprint"},
			Least: drill.Elite, Space: drill.Space{Length: 25, Width: 2}, Sports: []string{"football"}},
		{Code: "quiet", Name: "Quiet minutes", Aim: "See it go right", Phases: []drill.Phase{drill.Own},
			Qualities: []string{"calm"}},
	}
	for _, c := range []struct {
		want string
		q    drill.Query
	}{
		{"walk hold sprint quiet", drill.Query{}},
		{"walk", drill.Query{Text: "SIDE walk"}},
		{"hold", drill.Query{Text: "brace, neck"}},
		{"walk sprint", drill.Query{Text: "hip"}},
		{"sprint", drill.Query{Text: "LÄUFE"}},
		{"", drill.Query{Text: "zzz"}},
		{"walk hold", drill.Query{Phase: "activate"}},
		{"quiet", drill.Query{Phase: "own"}},
		{"hold quiet", drill.Query{Metres: -1}},
		{"walk hold quiet", drill.Query{Metres: 10}},
		{"hold sprint quiet", drill.Query{Kit: drill.NoKit}},
		{"walk", drill.Query{Kit: "light loop band", Plane: "side", Region: "hip"}},
		{"walk quiet", drill.Query{Grade: drill.Junior}},
		{"walk hold quiet", drill.Query{Sport: "rugby-union"}},
	} {
		assert.Equal(t, c.want, codes(c.q.Find(book)), "%+v", c.q)
	}
	named := append(book, drill.Drill{Code: "hips", Name: "Hip circles"})
	assert.Equal(t, "hips walk sprint", codes(drill.Query{Text: "hip"}.Find(named)),
		"whose name holds the word comes first")
}

func TestALadderIsReadAsItIsWritten(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := drill.Rung{Metres: float64(rapid.IntRange(1, 400).Draw(t, "m")) / 2,
			Effort: float64(rapid.IntRange(0, 1000).Draw(t, "e")) / 1000,
			Name:   rapid.StringMatching(`([a-z][a-z, ]{0,8}[a-z])?`).Draw(t, "name")}
		back, err := drill.ParseRung(r.Words(measure.System{}), measure.System{})
		require.NoError(t, err)
		assert.InDelta(t, r.Effort, back.Effort, 1e-9)
		r.Effort = back.Effort
		assert.Equal(t, r, back)
	})
	for _, bad := range []string{"", "12", "12 m", "0 m, 50 %", "12 m, 101 %", "far, hard", "12 m, NaN %", "-1, 50"} {
		_, err := drill.ParseRung(bad, measure.System{})
		assert.Error(t, err, bad)
	}
}

func ExampleDrill_Ladder() {
	d := drill.Drill{Rungs: []drill.Rung{{Metres: 12, Effort: 0.5}, {Metres: 15, Effort: 0.7}, {Metres: 18, Effort: 1}}}
	fmt.Println(d.Ladder(20), d.Ladder(2))
	// Output: [7 7 6] [1 1 0]
}

func TestAGridHasAsManyCellsAsItsRowsAndColumns(t *testing.T) {
	d := drill.Drill{Code: "kicks", Name: "Kicks", Aim: "Each angle",
		Dose:  drill.Dose{Kind: drill.Grid, Cells: 6, ActSeconds: 5},
		Range: drill.Range{Min: 1, Target: 2, Max: 3, Step: 1},
		Rows:  []string{"near", "far"}, Columns: []string{"left", "middle", "right"}}
	require.NoError(t, d.Validate())
	d.Dose.Cells = 5
	assert.ErrorContains(t, d.Validate(), "make 6 cells, not 5")
	d.Dose.Cells, d.Rungs = 6, []drill.Rung{{Metres: 20, Effort: 0.9}, {Metres: 10, Effort: 0.5}}
	assert.ErrorContains(t, d.Validate(), "a distance ladder grows")
}

func TestADrillSuitsALevelAndThoseAbove(t *testing.T) {
	for least, suits := range map[drill.Grade]string{"": "junior club elite", drill.Junior: "junior club elite",
		drill.Club: "club elite", drill.Elite: "elite"} {
		var list []string
		for _, g := range drill.Grades {
			if (drill.Drill{Least: least}).Suits(g) {
				list = append(list, string(g))
			}
		}
		assert.Equal(t, suits, strings.Join(list, " "), least)
	}
	assert.True(t, drill.Drill{Least: drill.Club}.Suits(""), "no level is a club's")
}
