package schedule_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
)

func TestTheVerdictNamesWhatWasCut(t *testing.T) {
	d := &plan.Document{Margin: 300}
	for i := 1; i <= 3; i++ {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i), Number: i, First: fmt.Sprint("Name", i), Last: "Z"})
	}
	d.Blocks = []plan.Block{{ID: "a", Name: "Raise", Phase: drill.Raise}, {ID: "b", Name: "Bands"}, {ID: "c", Name: "Sprints", Phase: drill.Potentiate}}
	s := &schedule.Schedule{Amounts: make([][]int, 3), Result: &runin.Result{Feasible: true, Blocks: []runin.Scheduled{
		{ID: "a", Kept: true, Start: -1500, End: -900, Missed: []runin.Missed{{Player: "p2", Seconds: 90}}},
		{ID: "b", Why: "a should"},
		{ID: "c", Kept: true, Start: -900, End: -300, Why: "2 sprints, not 4: 1:00 shorter"}}}}
	v := s.Judge(d)
	assert.True(t, v.Holds)
	assert.Equal(t, "It holds, with less.", v.Head)
	assert.Equal(t, "1 shortened, 1 left out", v.Line)
	assert.Equal(t, []schedule.Less{{What: "Bands is left out", Why: "a should"}, {What: "Sprints is shortened", Why: "2 sprints, not 4: 1:00 shorter"},
		{What: "Name2 Z. misses 1:30 of Raise", Why: "called away meanwhile; the rest goes on"}}, v.Cuts)
	s.Result.Blocks[1] = runin.Scheduled{ID: "b", Kept: true, Start: -950, End: -900}
	s.Result.Blocks[2].Why = ""
	assert.Equal(t, "all in full, from 25 to 5 to go", s.Judge(d).Line)
	s.Result.Feasible, s.Result.ShortBy, s.Result.Why, s.Result.Binds = false, 120, "the musts take 9:00", []string{"p1", "p2"}
	v = s.Judge(d)
	assert.False(t, v.Holds)
	assert.Equal(t, "Open 2:00 sooner, or give up a must. The musts take 9:00. Tightest for 1 2 Name1, Name2", v.Line)
	empty := &schedule.Schedule{Result: &runin.Result{Feasible: true}}
	assert.Equal(t, "Nothing is planned yet.", empty.Judge(&plan.Document{}).Head)
}
