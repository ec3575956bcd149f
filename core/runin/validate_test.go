package runin_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/runin"
)

func TestAMalformedProblemIsOneSentenceThatNamesThePlace(t *testing.T) {
	good := func() *runin.Problem {
		return &runin.Problem{Grid: 5, Phases: []string{"raise", "sport"},
			Players:   []runin.Player{{ID: "a", Open: -900, Due: 0}, {ID: "b", Open: -900, Due: 0}},
			Resources: []runin.Resource{{ID: "r", Capacity: 1, Free: [][2]clock.Offset{{-900, 0}}}},
			Fixed:     []runin.Fixed{{ID: "f", Players: []string{"a"}, Start: -600, End: -500}},
			Blocks: []runin.Block{{ID: "x", Phase: "raise", Players: []string{"*"}, Weight: 9,
				Levels: []runin.Level{{Seconds: 60, Value: 1}}, Needs: []runin.Need{{Resource: "r", Amount: 1}}},
				{ID: "y", Phase: "sport", Players: []string{"b"}, Weight: 1,
					Levels: []runin.Level{{Seconds: 60, Value: 1}}, After: []string{"x"}}}}
	}
	require.NoError(t, good().Validate())
	odd := clock.Offset(-301)
	for says, spoil := range map[string]func(*runin.Problem){
		"grid: it must lie":       func(p *runin.Problem) { p.Grid = 0 },
		"players: there are none": func(p *runin.Problem) { p.Players = nil },
		"blocks: there are 65, 64 is the most": func(p *runin.Problem) {
			p.Blocks = make([]runin.Block, 65)
		},
		`phases[1]: "raise" is there twice`:                         func(p *runin.Problem) { p.Phases[1] = "raise" },
		`players[1]: "a" is there twice`:                            func(p *runin.Problem) { p.Players[1].ID = "a" },
		`players[0]: it needs a name other than "*"`:                func(p *runin.Problem) { p.Players[0].ID = "*" },
		`players[0] "a": it ends at -950, before it begins at -900`: func(p *runin.Problem) { p.Players[0].Due = -950 },
		`players[0] "a": -700000 to 0 lies more than a week`: func(p *runin.Problem) {
			p.Players[0].Open = -700_000
		},
		`resources[0] "r": its capacity -1`: func(p *runin.Problem) { p.Resources[0].Capacity = -1 },
		`resources[0] "r": it ends at -900, before`: func(p *runin.Problem) {
			p.Resources[0].Free[0] = [2]clock.Offset{0, -900}
		},
		`fixed[0] "f": there is no player "c"`: func(p *runin.Problem) {
			p.Fixed[0].Players = []string{"c"}
		},
		`fixed[0] "f": it ends at -700, before it begins`: func(p *runin.Problem) { p.Fixed[0].End = -700 },
		`blocks[0] "x": it has no players`:                func(p *runin.Problem) { p.Blocks[0].Players = nil },
		`blocks[0] "x": there is no phase "jump"`:         func(p *runin.Problem) { p.Blocks[0].Phase = "jump" },
		`blocks[0] "x": its weight`:                       func(p *runin.Problem) { p.Blocks[0].Weight = math.NaN() },
		`blocks[0] "x": it has 0 levels`:                  func(p *runin.Problem) { p.Blocks[0].Levels = nil },
		`blocks[0] "x" levels[0]: it needs seconds`:       func(p *runin.Problem) { p.Blocks[0].Levels[0].Seconds = 0 },
		`blocks[0] "x" levels[1]: levels go from the shortest`: func(p *runin.Problem) {
			p.Blocks[0].Levels = []runin.Level{{Seconds: 60, Value: 1}, {Seconds: 90, Value: 0.9}}
		},
		"walks[0]: it needs two places": func(p *runin.Problem) {
			p.Walks = []runin.Walk{{From: "hall", Seconds: 5}}
		},
		`walks[0]: -5 seconds from "a" to "b" are not between`: func(p *runin.Problem) {
			p.Walks = []runin.Walk{{From: "a", To: "b", Seconds: -5}}
		},
		`blocks[0] "x": its pin -301 is not on the grid`: func(p *runin.Problem) { p.Blocks[0].Pin = &odd },
		`blocks[0] "x": there is no resource "q"`: func(p *runin.Problem) {
			p.Blocks[0].Needs[0].Resource = "q"
		},
		`blocks[0] "x": it needs -2 of "r"`:               func(p *runin.Problem) { p.Blocks[0].Needs[0].Amount = -2 },
		`blocks[1] "y": it comes after "z", which is not`: func(p *runin.Problem) { p.Blocks[1].After = []string{"z"} },
		"run in a circle through":                         func(p *runin.Problem) { p.Blocks[0].After = []string{"y"} },
	} {
		p := good()
		spoil(p)
		err := p.Validate()
		assert.ErrorContains(t, err, says)
		_, fitErr := runin.Fit(t.Context(), p, 0)
		assert.Equal(t, err, fitErr)
	}
}

// The referee of the tests must itself see each broken rule.
func TestScoreSeesEachBrokenRule(t *testing.T) {
	p := &runin.Problem{Grid: 10, Phases: []string{"raise", "sport"},
		Players:   []runin.Player{{ID: "a", Open: -900, Due: -100}, {ID: "b", Open: -900, Due: -100}},
		Resources: []runin.Resource{{ID: "r", Capacity: 1, Free: [][2]clock.Offset{{-800, -200}}}},
		Fixed:     []runin.Fixed{{ID: "f", Players: []string{"b"}, Start: -760, End: -600}},
		Blocks: []runin.Block{
			{ID: "x", Phase: "raise", Players: []string{"*"}, Weight: 9, Must: true, Excusable: true,
				Levels: []runin.Level{{Seconds: 100, Value: 1}}},
			{ID: "y", Phase: "sport", Players: []string{"b"}, Weight: 1,
				Levels: []runin.Level{{Seconds: 100, Value: 1}}, Needs: []runin.Need{{Resource: "r", Amount: 1}}},
			{ID: "z", Phase: "sport", Players: []string{"a"}, Weight: 1,
				Levels: []runin.Level{{Seconds: 100, Value: 1}}, Needs: []runin.Need{{Resource: "r", Amount: 1}},
				After: []string{"y"}}}}
	plan := func() *runin.Result {
		return &runin.Result{Feasible: true,
			Blocks: []runin.Scheduled{{ID: "x", Kept: true, Start: -700, End: -600,
				Missed: []runin.Missed{{Player: "b", Seconds: 100}}},
				{ID: "y", Kept: true, Start: -500, End: -400}, {ID: "z", Kept: true, Start: -400, End: -300}}}
	}
	value, idle, err := runin.Score(p, plan())
	require.NoError(t, err)
	assert.InDelta(t, 9*0.5+2, value, 1e-9, "half of the raise is missed")
	assert.Equal(t, (600-200)+(600-100), idle, "a works 200 s of 600, b 100: the talk is not active")
	at := func(s *runin.Scheduled, start, end clock.Offset) { s.Start, s.End = start, end }
	for says, spoil := range map[string]func(*runin.Result){
		"the plan speaks of 2":            func(r *runin.Result) { r.Blocks = r.Blocks[:2] },
		"a must is left out":              func(r *runin.Result) { r.Blocks[0].Kept = false },
		"its length is not that of level": func(r *runin.Result) { r.Blocks[1].End -= 10 },
		"off the grid":                    func(r *runin.Result) { at(&r.Blocks[1], -495, -395) },
		"leaves the window of b":          func(r *runin.Result) { at(&r.Blocks[1], -190, -90) },
		"b is called away":                func(r *runin.Result) { at(&r.Blocks[1], -800, -700) },
		"somebody is in":                  func(r *runin.Result) { at(&r.Blocks[2], -650, -550) },
		"which comes first":               func(r *runin.Result) { at(&r.Blocks[2], -850, -750) },
		"before y has ended":              func(r *runin.Result) { at(&r.Blocks[2], -450, -350) },
		"r is not free":                   func(r *runin.Result) { at(&r.Blocks[2], -250, -150) },
		"missed by":                       func(r *runin.Result) { r.Blocks[0].Missed = nil },
	} {
		r := plan()
		spoil(r)
		_, _, err := runin.Score(p, r)
		assert.ErrorContains(t, err, says)
	}
	p.Blocks[2].After = nil
	r := plan()
	at(&r.Blocks[2], -450, -350)
	_, _, err = runin.Score(p, r)
	assert.ErrorContains(t, err, "r is used beyond its capacity")
}
