package book

import (
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/planner/books"
	"cuestart/web/shell"
)

// The efforts of single trips are read as people write them, and refused one by one.
func TestEffortsAreReadAsTheyAreWritten(t *testing.T) {
	for text, want := range map[string][]float64{"": nil, "70": {0.7}, "70, 80, 90 %": {0.7, 0.8, 0.9},
		"70;80;100%": {0.7, 0.8, 1}, "70 80 90": {0.7, 0.8, 0.9}} {
		f, in := &drillForm{}, shell.NewForm(url.Values{"efforts": {text}})
		f.readEfforts(in)
		assert.NoError(t, in.Err(), text)
		assert.Equal(t, want, f.Drill.Dose.Efforts, text)
	}
	for _, text := range []string{"fast", "5", "101", "70 to 90", "70, -80"} {
		f, in := &drillForm{}, shell.NewForm(url.Values{"efforts": {text}})
		f.readEfforts(in)
		assert.Error(t, in.Err(), text)
		assert.Equal(t, text, f.Efforts, "what was typed stays")
	}
}

// A ladder is read rung by rung; one that is none is named, and the others stay.
func TestALadderIsReadRungByRung(t *testing.T) {
	f, in := &drillForm{}, shell.NewForm(url.Values{"ladder": {"10 m, 50 %, near\nfar away\n20 m, 70 %"}})
	f.readRungs(in)
	assert.Error(t, in.Err())
	assert.Equal(t, "10 m, 50 %, near\nfar away\n20 m, 70 %", f.Ladder)
	assert.Len(t, f.Drill.Rungs, 2)
	shown := ""
	for _, r := range f.Drill.Rungs {
		shown += r.Words(measure.System{}) + "\n"
	}
	back := &drillForm{}
	in = shell.NewForm(url.Values{"ladder": {shown}})
	back.readRungs(in)
	assert.NoError(t, in.Err())
	assert.Equal(t, f.Drill.Rungs, back.Drill.Rungs, "as it is shown")
}

// A step goes into its range.
func TestAStepIsNoLargerThanItsRange(t *testing.T) {
	for step, refused := range map[string]bool{"1": false, "3": false, "10": true} {
		f := &drillForm{Drill: drill.Drill{Dose: drill.Dose{Kind: drill.Reps}}}
		in := shell.NewForm(url.Values{"name": {"x"}, "aim": {"x"}, "kind": {"reps"}, "sets": {"1"}, "sides": {"1"},
			"rep_seconds": {"3"}, "min": {"1"}, "target": {"2"}, "max": {"4"}, "step": {step}, "effort": {"50"}})
		f.read(in)
		assert.Equal(t, refused, in.Err() != nil, step)
	}
}

// What stands in for a drill is said by its name, in capitals or not; what no drill is called is refused and stays
// as it was typed.
func TestWhatStandsInIsKnownByItsName(t *testing.T) {
	b := books.NewBook([]drill.Drill{{Code: "a", Name: "Hop"}, {Code: "b", Name: "Bound"}, {Code: "c", Name: "Hop"}},
		nil)
	f := &drillForm{Drill: drill.Drill{Code: "b", Name: "Bound", Harder: "c"}}
	in := shell.NewForm(url.Values{"easier": {"hop"}, "harder": {"Hop"}, "swap": {"hopp"}})
	f.readStandIns(in, b)
	assert.Equal(t, []string{"a", "c", ""}, []string{f.Easier, f.Harder, f.Swap}, "of two called alike the one it was")
	assert.ErrorContains(t, in.Err(), "hopp")
	f.others(b)
	assert.Equal(t, []string{"Hop", "Hop"}, f.Names)
	assert.Equal(t, "hopp", f.Stands[2].Now)
}
