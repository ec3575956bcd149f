package phone

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/drill"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/web/shell"
)

// stepped is what the page's script is told of a drill's steps, without their seconds.
func stepped(t *testing.T, lang string, d drill.Drill) (all []string) {
	d.Name = "Drill"
	e := list.Alone([]plan.Block{{ID: "b", Name: "B", Items: []plan.Item{{Drill: d}}}})[0]
	for _, s := range stepsOf(shell.TongueOf(lang), &e) {
		sides := map[string]string{"left": "left", "right": "right", "izquierda": "left", "derecha": "right"}
		assert.Equal(t, s.Side, sides[s.What])
		all = append(all, strings.Join([]string{s.Figure, s.Unit, s.Kind, s.What, s.Short}, ";"))
	}
	return all
}

// A step says how much, of what, whether its time ends it, and which it is, in words a
// player says.
func TestAStepSaysWhatToDo(t *testing.T) {
	reps := drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 2, RepSeconds: 2}
	sets := drill.Dose{Kind: drill.Reps, Sets: 2, Sides: 1, RepSeconds: 2, RestSeconds: 20}
	holds := drill.Dose{Kind: drill.Hold, Sets: 1, Sides: 1, HoldSeconds: 10, SettleSeconds: 2}
	for _, c := range []struct {
		drill    drill.Drill
		says, es []string
	}{
		{drill.Drill{Dose: reps, Range: drill.Range{Target: 8}}, []string{"8;reps;;left;left", "8;reps;;right;right"},
			[]string{"8;repeticiones;;izquierda;izquierda", "8;repeticiones;;derecha;derecha"}},
		{drill.Drill{Dose: sets, Range: drill.Range{Target: 1}},
			[]string{"1;rep;;set 1 of 2;", "20;s;r;rest;rest", "1;rep;;set 2 of 2;"},
			[]string{"1;repetición;;serie 1 de 2;", "20;s;r;descanso;descanso", "1;repetición;;serie 2 de 2;"}},
		{drill.Drill{Dose: holds, Range: drill.Range{Target: 2}},
			[]string{"10;s;t;hold 1 of 2;", "10;s;t;hold 2 of 2;"}, nil},
		{drill.Drill{Dose: drill.Dose{Kind: drill.Time, Efforts: []float64{0.6}}, Range: drill.Range{Target: 150}},
			[]string{"2:30;min;t;60 % effort;"}, []string{"2:30;min;t;al 60 % de esfuerzo;"}},
		{drill.Drill{Dose: drill.Dose{Kind: drill.Travel, Metres: 60, Speed: 3}, Range: drill.Range{Target: 10}},
			[]string{"10;× 60 m;;;"}, nil},
		{drill.Drill{Dose: drill.Dose{Kind: drill.Travel, Metres: 20, Efforts: []float64{0.7, 0.9}},
			Range: drill.Range{Target: 2}}, []string{"20;m;;70 % effort · length 1 of 2;",
			"20;m;;90 % effort · length 2 of 2;"}, []string{"20;m;;al 70 % de esfuerzo · largo 1 de 2;",
			"20;m;;al 90 % de esfuerzo · largo 2 de 2;"}},
		{drill.Drill{Dose: drill.Dose{Kind: drill.Grid, Counts: [][]int{{2, 1}}, ActSeconds: 5}, Rows: []string{"22 m"},
			Columns: []string{"left", "middle"}, Range: drill.Range{Target: 2}},
			[]string{"2;times;;22 m, left;left", "1;time;;22 m, middle;middle"}, nil},
		{drill.Drill{Unit: "throws", Dose: drill.Dose{Kind: drill.Count, ActSeconds: 5}, Range: drill.Range{Target: 1}},
			[]string{"1;throw;;;"}, []string{"1;lanzamiento;;;"}},
	} {
		assert.Equal(t, c.says, stepped(t, "en", c.drill))
		if c.es != nil {
			assert.Equal(t, c.es, stepped(t, "es", c.drill))
		}
	}
}

// What is written once is shown as it is now: over, under way, next.
func TestAKeptListKnowsTheTime(t *testing.T) {
	k := keptList{items: []keptItem{{-900, -600, `<details class="mine ">a`}, {-600, -300, `<details class="mine ">b`},
		{-200, -100, `<details class="mine ">c`}}}
	for at, want := range map[int]string{
		-1000: `<details class="mine next" open="">a<details class="mine">b<details class="mine">c`,
		-600:  `<details class="mine past">a<details class="mine now" open="">b<details class="mine">c`,
		-250:  `<details class="mine past">a<details class="mine past">b<details class="mine next" open="">c`,
		0:     `<details class="mine past">a<details class="mine past">b<details class="mine past">c`,
	} {
		assert.Equal(t, want, string(k.at(at)))
	}
}
