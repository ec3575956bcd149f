package check_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

func timed(code string, phase drill.Phase, effort float64, seconds int, more func(*drill.Drill)) drill.Drill {
	d := drill.Drill{Code: code, Name: code, Aim: "why", Phases: []drill.Phase{phase}, Effort: effort,
		Dose:  drill.Dose{Kind: drill.Time},
		Range: drill.Range{Min: seconds / 2, Target: seconds, Max: 2 * seconds, Step: 15}}
	if more != nil {
		more(&d)
	}
	return d
}

// book is what mends may take from.
var book = []drill.Drill{
	timed("jog", drill.Raise, 0.5, 300, func(d *drill.Drill) {
		d.Regions, d.Planes = []string{"knee"},
			[]string{"front"}
	}),
	timed("sway", drill.Mobilise, 0.4, 120, func(d *drill.Drill) {
		d.Regions, d.Planes = []string{"hip", "neck"},
			[]string{"side", "turn"}
	}),
	timed("strides", drill.Potentiate, 0.8, 60, func(d *drill.Drill) { d.Qualities = []string{"sprint"} }),
	timed("sprint", drill.Potentiate, 0.95, 45, nil),
	timed("game", drill.Sport, 0.75, 180, nil),
}

func block(id string, phase drill.Phase, drills ...drill.Drill) plan.Block {
	b := plan.Block{ID: id, Name: id, Aim: "aim", Phase: phase, Who: []string{plan.Everyone}, Zone: "pitch",
		Leader: "eve", Priority: plan.Must, Excusable: true}
	for _, d := range drills {
		b.Items = append(b.Items, plan.Item{Drill: d})
	}
	return b
}

// sound is a plan in which nothing is found.
func sound() *plan.Document {
	air := 18.0
	d := &plan.Document{
		Format: plan.Format,
		Title:  "A v B",
		Kind:   plan.Match,
		Party:  plan.Party{Leaders: []plan.Leader{{ID: "eve", Name: "Eve"}}},
		Site: plan.Site{Today: plan.Conditions{Celsius: &air},
			Zones: []plan.Zone{{ID: "pitch", Name: "Pitch", Capacity: 10, Lanes: 4},
				{ID: "hall", Name: "Hall", Capacity: 2, Lanes: 1}}},
		Hours: plan.Hours{StartName: "Start", Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(45 * 60), Margin: 300},
		Work: plan.Work{Method: plan.DefaultMethod, Stresses: []string{"knee", "hip"}},
	}
	for n := range 4 {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", n), Number: n + 1, First: fmt.Sprint("P", n),
			Last: "Q"})
	}
	d.Blocks = []plan.Block{block("raise", drill.Raise, book[0]), block("move", drill.Mobilise, book[1]),
		block("quick", drill.Potentiate, book[2], book[3]), block("play", drill.Sport, book[4])}
	return d
}

func input(t require.TestingT, d *plan.Document) check.Input {
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	return check.Input{Document: d, Schedule: s, Book: book}
}

func hold(seconds float64) drill.Drill {
	return drill.Drill{Code: "hold", Name: "hold", Aim: "why", Static: true, EndRange: true, Effort: 0.1,
		Phases: []drill.Phase{drill.Mobilise},
		Dose:   drill.Dose{Kind: drill.Hold, Sets: 1, Sides: 2, HoldSeconds: seconds},
		Range:  drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}}
}

func throws(n int, more func(*drill.Drill)) drill.Drill {
	d := drill.Drill{Code: "throws", Name: "throws", Aim: "why", Overhead: true, Effort: 0.7,
		Phases: []drill.Phase{drill.Sport}, Unit: "throws",
		Dose: drill.Dose{Kind: drill.Count, ActSeconds: 3}, Range: drill.Range{Min: n, Target: n, Max: n, Step: 1}}
	if more != nil {
		more(&d)
	}
	return d
}

// spoiled are plans with one thing wrong, by the rule that finds it.
var spoiled = map[string]func(d *plan.Document){
	"no-fitting": func(d *plan.Document) {
		d.Zones[0].Fittings = []string{"posts"}
		d.Zones = append(d.Zones, plan.Zone{ID: "yard", Name: "Yard", Capacity: 10, Lanes: 4,
			Fittings: []string{"wall"}})
		d.Blocks[3].Items[0].Drill.Kit = []string{"wall"}
	},
	"empty-station": func(d *plan.Document) {
		d.Blocks[2].Form, d.Blocks[2].Who, d.Blocks[2].Excusable = plan.AtStations, []string{"p1"}, false
	},
	"restriction": func(d *plan.Document) {
		d.Blocks[2].Items[1].Drill.ContactsPerUnit = 1
		d.Restrictions = []plan.Restriction{{Player: "p1", NoJumps: true}}
	},
	"deep-cold": func(d *plan.Document) {
		d.Blocks = slices.Insert(d.Blocks, 0,
			block("stretch", drill.Raise,
				timed("deep", drill.Raise, 0.3, 60, func(d *drill.Drill) { d.NeedsWarm = true })))
	},
	"static-long": func(d *plan.Document) { d.Blocks[1].Items = append(d.Blocks[1].Items, plan.Item{Drill: hold(70)}) },
	"junior-collision": func(d *plan.Document) {
		d.Grade = drill.Junior
		d.Blocks[3].Items = append(d.Blocks[3].Items,
			plan.Item{Drill: timed("tackle", drill.Sport, 0.8, 20, func(d *drill.Drill) { d.Collision = true })})
	},
	"pin": func(d *plan.Document) {
		d.Blocks[0].Pin, d.Blocks[1].Pin = &clock.Moment{Before: 1500}, &clock.Moment{Before: 1400}
	},
	"leader-busy": func(d *plan.Document) {
		d.Leaders = append(d.Leaders, plan.Leader{ID: "ada", Name: "Ada"})
		for i := range 3 {
			d.Blocks[i].Leader = "ada"
		}
		d.Leaders[0].Free = []plan.Span{{From: clock.BeforeStart(2700), To: clock.BeforeStart(2600)}}
	},
	"place-busy": func(d *plan.Document) {
		d.Zones[0].Free = []plan.Span{{From: clock.BeforeStart(2700), To: clock.BeforeStart(1200)}}
		d.Zones = append(d.Zones, plan.Zone{ID: "yard", Name: "Yard", Capacity: 10, Lanes: 4})
		d.Blocks[3].Pin = &clock.Moment{Before: 600}
	},
	"partner-busy": func(d *plan.Document) {
		d.Fixed = []plan.Fixed{{ID: "physio", Name: "Physio", Who: []string{"p2"},
			Span: plan.Span{From: clock.BeforeStart(2700), To: clock.BeforeStart(360)}}}
		b := block("pair", drill.Sport, throws(40, nil))
		b.Who, b.Excusable, b.Priority = []string{"p1", "p2"}, false, plan.Could
		d.Blocks = append(d.Blocks, b)
	},
	"impossible": func(d *plan.Document) { d.Open = clock.BeforeStart(720) },
	"too-far": func(d *plan.Document) {
		d.Zones[0].Metres = 15.5
		d.Blocks[2].Items[0].Drill.Dose = drill.Dose{Kind: drill.Travel, Metres: 40, Speed: 6, TurnSeconds: 5,
			Flow: drill.Continuous}
		d.Blocks[2].Items[0].Drill.Range = drill.Range{Min: 2, Target: 3, Max: 4, Step: 1}
	},
	"above-level": func(d *plan.Document) { d.Blocks[3].Items[0].Drill.Least = drill.Elite },
	"wet-jumps":   func(d *plan.Document) { d.Today.Wet = true; d.Blocks[2].Items[0].Drill.ContactsPerUnit = 2 },
	"zone-full":   func(d *plan.Document) { d.Blocks[3].Zone, d.Blocks[3].Priority = "hall", plan.Could },
	"static-last": func(d *plan.Document) { d.Blocks[3] = block("play", drill.Sport, book[4], hold(10)) },
	"no-step":     func(d *plan.Document) { d.Blocks[2].Items = d.Blocks[2].Items[1:] },
	"no-full":     func(d *plan.Document) { d.Blocks[2].Items = d.Blocks[2].Items[:1] },
	"sharp-early": func(d *plan.Document) {
		d.Blocks = append(d.Blocks,
			block("craft", drill.Sport,
				timed("craft", drill.Sport, 0.6, 1000, func(d *drill.Drill) { d.Range.Min = 900 })))
	},
	"hard-early": func(d *plan.Document) {
		d.Blocks = append(d.Blocks, block("craft", drill.Sport, timed("craft", drill.Sport, 0.6, 1200, nil)))
	},
	"cool-start": func(d *plan.Document) {
		cold := 2.0
		d.Today.Celsius, d.Margin = &cold, 600
		d.Blocks[3].Items[0].Drill.Effort = 0.4
	},
	"cooling": func(d *plan.Document) {
		pin := clock.BeforeStart(480)
		d.Blocks[3].Pin = &pin
		d.Blocks[2].Pin = &clock.Moment{Before: 1000}
		d.Blocks[3].Loose = true
	},
	"missed-must": func(d *plan.Document) {
		d.Fixed = []plan.Fixed{{ID: "toss", Name: "Toss", Who: []string{"p2"},
			Span: plan.Span{From: clock.BeforeStart(2000), To: clock.BeforeStart(720)}}}
		d.Blocks[0].Pin = &clock.Moment{Before: 1040}
		d.Blocks[0].Items[0].Drill.Range = drill.Range{Min: 300, Target: 300, Max: 300, Step: 15}
	},
	"too-long": func(d *plan.Document) {
		d.Blocks[0].Items[0].Drill.Range = drill.Range{Min: 300, Target: 1200, Max: 1200, Step: 15}
	},
	"contacts": func(d *plan.Document) {
		k := &d.Blocks[2].Items[0].Drill
		k.Dose, k.Range, k.ContactsPerUnit = drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 1, RepSeconds: 3},
			drill.Range{Min: 3, Target: 12, Max: 12, Step: 1}, 10
	},
	"sprint-metres": func(d *plan.Document) {
		d.Blocks[2].Items[1].Drill.Dose = drill.Dose{Kind: drill.Travel, Metres: 30, Speed: 7, TurnSeconds: 5,
			Flow: drill.Regroup}
		d.Blocks[2].Items[1].Drill.Range = drill.Range{Min: 2, Target: 5, Max: 6, Step: 1}
	},
	"ground-time": func(d *plan.Document) {
		d.Blocks[0].Items[0].Drill.Ground, d.Blocks[1].Items[0].Drill.Ground = false, true
		d.Blocks[1].Items[0].Drill.Range.Target = 240
		d.Blocks[0].Items[0].Drill.Range.Target = 150
		d.Blocks[3].Items[0].Drill.Range.Target = 90
	},
	"one-side": func(d *plan.Document) {
		d.Blocks[1].Items = append(d.Blocks[1].Items,
			plan.Item{Drill: drill.Drill{Code: "swing", Name: "swing", Aim: "why", OneSided: true, Effort: 0.4,
				Phases: []drill.Phase{drill.Mobilise}, Dose: drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 1,
					RepSeconds: 2}, Range: drill.Range{Min: 4, Target: 6, Max: 8, Step: 1}}})
	},
	"arm-pump": func(d *plan.Document) {
		d.Blocks[3].Items = append(d.Blocks[3].Items,
			plan.Item{Drill: timed("pump", drill.Sport, 0.5, 30, func(d *drill.Drill) { d.ArmPump = true })},
			plan.Item{Drill: throws(5, nil)})
	},
	"queue": func(d *plan.Document) {
		d.Blocks[3].Items = append(d.Blocks[3].Items, plan.Item{Drill: throws(5, nil)})
		d.Blocks[3].Stations = 1
	},
	"kit-short": func(d *plan.Document) {
		d.Blocks[1].Items[0].Drill.Kit = []string{"band"}
		d.Kit = map[string]int{"band": 3}
		d.Blocks[1].Items = append(d.Blocks[1].Items,
			plan.Item{Drill: func() drill.Drill { k := book[1]; k.Code, k.Name = "sway2", "sway2"; return k }()})
	},
	"partner":  func(d *plan.Document) { d.Blocks[3].Who = []string{"p1", "gone"} },
	"no-drink": func(d *plan.Document) { hot := 31.0; d.Today.Celsius = &hot },
	"wet-ground": func(d *plan.Document) {
		d.Today.Wet = true
		d.Blocks[1].Items = append(d.Blocks[1].Items,
			plan.Item{Drill: timed("bridge", drill.Mobilise, 0.3, 30, func(d *drill.Drill) { d.Ground = true })})
	},
	"end-range": func(d *plan.Document) {
		d.Players[2].Loose = true
		d.Blocks[1].Items = append(d.Blocks[1].Items,
			plan.Item{Drill: timed("reach", drill.Mobilise, 0.4, 30, func(d *drill.Drill) { d.EndRange = true })})
	},
	"due-late": func(d *plan.Document) { d.Players[3].DueShift = 200 },
	"margin":   func(d *plan.Document) { d.Margin = 720 },
	"grid-untried": func(d *plan.Document) {
		kicks := drill.Drill{Code: "kicks", Name: "kicks", Aim: "why", Effort: 0.5, Phases: []drill.Phase{drill.Sport},
			Dose:  drill.Dose{Kind: drill.Grid, Cells: 3, ActSeconds: 30},
			Range: drill.Range{Min: 1, Target: 1, Max: 2, Step: 1}}
		b := block("kicks", drill.Sport, kicks)
		b.Priority, b.Who = plan.Could, []string{"p1"}
		d.Blocks = append(d.Blocks, b)
		d.Open = clock.BeforeStart(930)
	},
	"order":     func(d *plan.Document) { d.Blocks[1], d.Blocks[2] = d.Blocks[2], d.Blocks[1] },
	"no-leader": func(d *plan.Document) { d.Blocks[3].Leader = "" },
	"acts": func(d *plan.Document) {
		d.Blocks[3].Items = append(d.Blocks[3].Items, plan.Item{Drill: throws(30, nil)},
			plan.Item{Drill: throws(15, func(d *drill.Drill) { d.Code = "more" })})
		d.Open = clock.BeforeStart(3600)
	},
	"plane": func(d *plan.Document) { d.Blocks[1].Items[0].Drill.Planes = []string{"side"} },
	"joint": func(d *plan.Document) {
		d.Stresses = append(d.Stresses, "neck")
		d.Blocks[1].Items[0].Drill.Regions = []string{"hip"}
	},
	"no-aim": func(d *plan.Document) { d.Blocks[1].Aim = "" },
}

func TestNothingIsFoundInASoundPlan(t *testing.T) {
	assert.Empty(t, check.Check(input(t, sound())))
}

func TestEachRuleFindsItsOwnAndItsMendHolds(t *testing.T) {
	for _, rule := range check.Rules {
		spoil := spoiled[rule.ID]
		if spoil == nil {
			continue // those of earlier plans have a test of their own
		}
		t.Run(rule.ID, func(t *testing.T) {
			d := sound()
			spoil(d)
			in := input(t, d)
			findings := check.Check(in)
			i := slices.IndexFunc(findings, func(f check.Finding) bool { return f.Rule == rule.ID })
			require.GreaterOrEqual(t, i, 0, "not found among %+v", findings)
			f := findings[i]
			assert.Equal(t, rule.Severity, f.Severity)
			assert.NotEmpty(t, f.What)
			if f.Rule == "pin" {
				return // what a coach holds is theirs to let go
			}
			require.NotEmpty(t, f.Mend)
			mended, said, err := check.Mend(context.Background(), in, f.Rule, f.Where)
			require.NoError(t, err, "%s: %+v", f.What, f)
			assert.NotEmpty(t, said)
			require.NoError(t, mended.Validate())
			gone(t, findings, check.Check(input(t, mended)), f)

			d.Exceptions = []plan.Exception{{Rule: f.Rule, Where: f.Where, Reason: "as agreed"}}
			kept := check.Check(input(t, d))
			want := "as agreed"
			if f.Rule == "restriction" {
				want = "" // what medical staff ruled is never overruled
			}
			assert.Equal(t, want, kept[slices.IndexFunc(kept,
				func(g check.Finding) bool { return g.Rule == f.Rule && g.Where == f.Where })].Reason)
		})
	}
}

// gone checks what every mend owes: the finding is no more, and no stop is new.
func gone(t *testing.T, before, after []check.Finding, f check.Finding) {
	has := func(list []check.Finding, f check.Finding) bool {
		return slices.ContainsFunc(list, func(g check.Finding) bool { return g.Rule == f.Rule && g.Where == f.Where })
	}
	assert.False(t, has(after, f), "%s at %q is still there", f.Rule, f.Where)
	for _, g := range after {
		assert.True(t, g.Severity != check.Stop || has(before, g), "mending %s raised %s: %s", f.Rule, g.Rule, g.What)
	}
}

// Whatever is wrong at once, a mend that is carried out keeps its word.
func TestMendsKeepTheirWordWhenSeveralThingsAreWrong(t *testing.T) {
	names := make([]string, 0, len(spoiled))
	for name := range spoiled {
		names = append(names, name)
	}
	slices.Sort(names)
	mended := 0
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 3))
		d := sound()
		for range 2 + r.IntN(3) {
			if name := names[r.IntN(len(names))]; len(d.Blocks) == 4 && len(d.Blocks[2].Items) == 2 {
				spoiled[name](d)
			}
		}
		if d.Validate() != nil {
			continue
		}
		in := input(t, d)
		findings := check.Check(in)
		if len(findings) == 0 {
			continue
		}
		f := findings[r.IntN(len(findings))]
		next, _, err := check.Mend(context.Background(), in, f.Rule, f.Where)
		if err != nil {
			assert.ErrorIs(t, err, check.ErrNoMend)
			continue
		}
		mended++
		gone(t, findings, check.Check(input(t, next)), f)
	}
	assert.Greater(t, mended, 15)
}

func TestEarlierPlansAreRead(t *testing.T) {
	in := input(t, sound())
	for range 6 {
		in.Earlier = append(in.Earlier, sound().Content())
	}
	rules := func() (ids []string) {
		for _, f := range check.Check(in) {
			ids = append(ids, f.Rule)
		}
		return ids
	}
	assert.Equal(t, []string{"same-again"}, rules())
	in.Earlier[5][0] = "other"
	assert.Empty(t, rules())
	for i := range 2 {
		in.Document.Blocks[i].Items[0].Drill.Code += "-new"
	}
	assert.Equal(t, []string{"two-changes"}, rules())
}
