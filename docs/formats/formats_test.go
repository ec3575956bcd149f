package formats_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/docs/formats"
)

const problem = `{"grid": 5, "phases": ["raise"], "players": [{"id": "a", "open": -900, "due": -480}],
 "blocks": [{"id": "jog", "phase": "raise", "players": ["*"], "weight": 9, "must": true, "pin": null, "levels": [{"seconds": 180, "value": 0.6}]}]}`

func TestAFileIsReadOrRefusedInOneSentence(t *testing.T) {
	var p runin.Problem
	assert.NoError(t, formats.Read(strings.NewReader(problem), formats.Problem, &p))
	assert.Equal(t, 180, p.Blocks[0].Levels[0].Seconds)
	for change, says := range map[[2]string]string{
		{`"grid": 5`, `"grid": 0`}:              "grid: minimum: got 0, want 1",
		{`"grid": 5`, `"grid": 5, "x": 1`}:      "additional properties 'x' not allowed",
		{`"seconds": 180`, `"seconds": 1.5`}:    "blocks[0].levels[0].seconds: got number, want integer",
		{`"seconds": 180`, `"seconds": 1e99`}:   "blocks[0].levels[0].seconds",
		{`"open": -900`, `"open": "soon"`}:      "players[0].open: got string, want integer",
		{`"weight": 9`, `"weight": NaN`}:        "line 2, column",
		{`"blocks": [`, `"blocks": [[],`}:       "blocks[0]: got array, want object",
		{`"id": "a", `, ``}:                     "players[0]: missing property 'id'",
		{problem, problem + problem}:            "not one JSON value",
		{problem, ``}:                           "not one JSON value",
		{problem, strings.Repeat(`[`, 100_000)}: "",
		{problem, strings.Repeat(` `, 17<<20)}:  "larger than 16 MB",
	} {
		err := formats.Read(strings.NewReader(strings.Replace(problem, change[0], change[1], 1)), formats.Problem, &p)
		assert.ErrorContains(t, err, says, change[1][:min(40, len(change[1]))])
		assert.NotContains(t, err.Error(), "\n")
	}
}

func FuzzRead(f *testing.F) {
	f.Add(problem)
	f.Add(`{"format":1,"title":"x","kind":"match","start":{"local":"2026-11-28T15:00","zone":"UTC"},"margin":300,"method":"ramp","players":[{"id":"a","first":"A"}],"blocks":[]}`)
	f.Fuzz(func(t *testing.T, text string) {
		var p runin.Problem
		if formats.Read(strings.NewReader(text), formats.Problem, &p) == nil {
			p.Validate() // must not panic, whatever it says
		}
		d := new(plan.Document)
		if formats.Read(strings.NewReader(text), formats.Plan, d) == nil {
			d.Validate()
		}
	})
}
