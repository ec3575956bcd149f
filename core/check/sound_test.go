package check_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	shipped "cuestart/book"
	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// part is a block of a sound plan, in short.
type part struct {
	phase drill.Phase
	who   string // a unit, or "" for everybody
	codes []string
}

// soundPlan is a plan that an experienced coach would run, of drills of the book.
type soundPlan struct {
	sport, method string
	kind          plan.Kind
	minutes       int
	people        int
	covered       bool
	change        func(*plan.Document)
	parts         []part
}

func (s soundPlan) document(t *testing.T) *plan.Document {
	is, ok := shipped.Sport(s.sport)
	require.True(t, ok, s.sport)
	air := 16.0
	d := &plan.Document{
		Format: plan.Format,
		Title:  s.sport,
		Kind:   s.kind,
		Party: plan.Party{Leaders: []plan.Leader{{ID: "ann", Name: "Ann"}, {ID: "bo", Name: "Bo"},
			{ID: "cy", Name: "Cy"},
			{ID: "di", Name: "Di"}}},
		Site: plan.Site{Today: plan.Conditions{Celsius: &air, Layers: true},
			Zones: []plan.Zone{{ID: "ground", Name: "Ground", Capacity: 60, Lanes: s.people, Metres: 60,
				Covered: s.covered}}},
		Hours: plan.Hours{StartName: is.Start, Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(s.minutes * 60), Margin: 210},
		Work: plan.Work{Method: s.method, Stresses: is.Stresses},
	}
	for n := range s.people {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", n), Number: n + 1, First: fmt.Sprint("P", n),
			Last: "Q", Position: is.Positions[n%len(is.Positions)]})
	}
	for _, u := range is.Units {
		unit := plan.Unit{ID: u.Name, Name: u.Name}
		for _, p := range d.Players {
			if slices.Contains(u.Positions, p.Position) {
				unit.Players = append(unit.Players, p.ID)
			}
		}
		d.Units = append(d.Units, unit)
	}
	leaders := 0
	for n, part := range s.parts {
		b := shipped.NewBlock(fmt.Sprint("b", n), fmt.Sprint(part.phase, " ", n), part.phase, plan.Must, part.codes...)
		b.Who, b.Zone, b.Leader, b.Excusable = []string{plan.Everyone}, "ground", "ann", true
		if part.who != "" {
			leaders++
			b.Who, b.Leader, b.Excusable = []string{part.who}, d.Leaders[leaders%len(d.Leaders)].ID, false
		}
		for i := range b.Items {
			b.Items[i].Drill = b.Items[i].Drill.For(d.Grade)
		}
		d.Blocks = append(d.Blocks, b)
	}
	if s.change != nil {
		s.change(d)
	}
	return d
}

var soundPlans = map[string]soundPlan{
	"rugby union, RAMP": {sport: "rugby-union", method: "ramp", kind: plan.Match, minutes: 35, people: 15,
		parts: []part{
			{drill.Raise, "", []string{"easy-lengths", "shuffle-and-cross", "heel-kicks"}},
			{drill.Activate, "", []string{"monster-walk", "neck-holds", "shoulder-taps"}},
			{drill.Mobilise, "", []string{"lunge-turn-sky", "leg-swings"}},
			{drill.Potentiate, "", []string{"jump-and-stick", "strides-rising"}},
			{drill.Sport, "", []string{"team-run"}}}},
	"football, ground up, a keeper apart": {sport: "football", method: "ground-up", kind: plan.Match, minutes: 35,
		people: 12, parts: []part{
			{drill.Raise, "", []string{"rising-loop", "shuffle-and-cross", "change-of-pace"}},
			{drill.Mobilise, "", []string{"ankle-rocks", "hip-circles", "side-lunge", "lunge-turn-sky"}},
			{drill.Potentiate, "", []string{"wall-drive", "strides-rising"}},
			{drill.Sport, "Keepers", []string{"keeper-hands"}},
			{drill.Sport, "Backs", []string{"pass-pairs-feet"}},
			{drill.Sport, "", []string{"team-run"}}}},
	"handball, indoors in the cold": {sport: "handball", method: "ramp", kind: plan.Match, minutes: 32, people: 12,
		covered: true, change: func(d *plan.Document) {
			frost := -6.0
			d.Today.Celsius, d.Today.Wet = &frost, true
		}, parts: []part{
			{drill.Raise, "", []string{"easy-lengths", "mirror-shuffle", "high-knees"}},
			{drill.Activate, "", []string{"plank-walk", "air-squat"}},
			{drill.Mobilise, "", []string{"arm-circles", "lunge-turn-sky", "elbow-turns"}},
			{drill.Potentiate, "", []string{"jump-and-stick", "strides-rising"}},
			{drill.Sport, "", []string{"fast-break-runs"}}}},
	"volleyball, brief static": {sport: "volleyball", method: "brief-static", kind: plan.Match, minutes: 34, people: 10,
		covered: true, parts: []part{
			{drill.Raise, "", []string{"easy-lengths", "shuffle-and-cross", "high-knees"}},
			{drill.Activate, "", []string{"shoulder-taps", "air-squat", "mid-back-turns"}},
			{drill.Potentiate, "", []string{"jump-and-stick", "strides-rising"}},
			{drill.Mobilise, "", []string{"brief-static-hip", "brief-static-calf"}},
			{drill.Sport, "", []string{"pepper", "approach-swings", "hit-lines"}}}},
	"cricket, an opener due later": {sport: "cricket", method: "ramp", kind: plan.Match, minutes: 40, people: 11,
		change: func(d *plan.Document) { d.Players[0].DueShift = d.Margin }, parts: []part{
			{drill.Raise, "", []string{"rising-loop", "side-skips", "heel-kicks"}},
			{drill.Activate, "", []string{"band-turn-out", "single-leg-bridge"}},
			{drill.Mobilise, "", []string{"arm-circles", "side-lunge", "lunge-turn-sky", "leg-swings"}},
			{drill.Potentiate, "", []string{"strides-rising"}},
			{drill.Sport, "", []string{"throws-growing"}}}},
	"netball, a latecomer with a catch-up": {sport: "netball", method: "ramp", kind: plan.Match, minutes: 35,
		people: 10, covered: true, change: func(d *plan.Document) {
			d.Players[4].Late = 900
		}, parts: []part{
			{drill.Raise, "", []string{"easy-lengths", "shuffle-and-cross", "high-knees"}},
			{drill.Activate, "", []string{"single-leg-sit", "shoulder-taps"}},
			{drill.Mobilise, "", []string{"side-lunge", "lunge-turn-sky"}},
			{drill.Potentiate, "", []string{"jump-and-stick", "strides-rising"}},
			{drill.Sport, "", []string{"lead-pass"}}}},
	"hockey, juniors, a game": {sport: "hockey", method: "ramp", kind: plan.Training, minutes: 18, people: 12,
		change: func(d *plan.Document) { d.Grade = drill.Junior }, parts: []part{
			{drill.Raise, "", []string{"tag-in-the-box", "side-skips"}},
			{drill.Mobilise, "", []string{"wrist-circles", "ankle-rocks", "mid-back-turns"}},
			{drill.Potentiate, "", []string{"snap-down", "strides-rising"}},
			{drill.Sport, "", []string{"touch-game"}}}},
	"basketball, a player who may not jump": {sport: "basketball", method: "ramp", kind: plan.Match, minutes: 34,
		people: 10, covered: true, change: func(d *plan.Document) {
			d.Restrictions = []plan.Restriction{{Player: "p3", NoJumps: true}}
			for i := range d.Blocks {
				for n := range d.Blocks[i].Items {
					item := &d.Blocks[i].Items[n]
					if easier, ok := shipped.Find("wall-drive"); ok && item.Drill.Code == "jump-and-stick" {
						item.Easier = &easier
					}
				}
			}
		}, parts: []part{
			{drill.Raise, "", []string{"easy-lengths", "shuffle-and-cross", "heel-kicks"}},
			{drill.Activate, "", []string{"single-leg-sit", "finger-and-wrist"}},
			{drill.Mobilise, "", []string{"side-lunge", "lunge-turn-sky"}},
			{drill.Potentiate, "", []string{"jump-and-stick", "strides-rising"}},
			{drill.Sport, "", []string{"change-of-pace", "closeouts"}}}},
	"baseball, a countdown": {sport: "baseball", method: "countdown", kind: plan.Match, minutes: 45, people: 9,
		parts: []part{
			{drill.Own, "Battery", []string{"quiet-minutes"}},
			{drill.Activate, "", []string{"single-leg-sit", "wall-angels"}},
			{drill.Raise, "", []string{"rising-loop", "side-skips", "change-of-pace"}},
			{drill.Mobilise, "", []string{"arm-circles", "lunge-turn-sky", "elbow-turns"}},
			{drill.Potentiate, "", []string{"strides-rising"}},
			{drill.Sport, "", []string{"throws-growing"}}}},
	"futsal, five stages, after a hard day": {sport: "futsal", method: "five-stages", kind: plan.Training, minutes: 32,
		people: 12, covered: true, change: func(d *plan.Document) { d.Today.HardYesterday = true }, parts: []part{
			{drill.Raise, "", []string{"easy-lengths", "shadow-walk", "high-knees"}},
			{drill.Mobilise, "", []string{"hip-circles", "lunge-turn-sky", "ankle-rocks"}},
			{drill.Activate, "", []string{"single-leg-sit", "side-plank"}},
			{drill.Potentiate, "", []string{"snap-down", "mirror-partner"}},
			{drill.Sport, "", []string{"rondo-square"}}}},
	"one person alone": {sport: "football", method: "ramp", kind: plan.Match, minutes: 30, people: 1, parts: []part{
		{drill.Raise, "", []string{"easy-lengths", "shuffle-and-cross", "change-of-pace"}},
		{drill.Mobilise, "", []string{"ankle-rocks", "lunge-turn-sky"}},
		{drill.Potentiate, "", []string{"jump-and-stick", "strides-rising"}},
		{drill.Sport, "", []string{"team-run"}}}},
}

// A sound plan raises no alarm, whatever the sport and the school.
func TestSoundPlansAreLeftAlone(t *testing.T) {
	for name, s := range soundPlans {
		t.Run(name, func(t *testing.T) {
			d := s.document(t)
			in := input(t, d)
			for _, f := range check.Check(in) {
				assert.Fail(t, "a false alarm", "%s %s at %q: %s", f.Severity, f.Rule, f.Where, f.What)
			}
			for _, b := range in.Schedule.Blocks(d) {
				assert.True(t, b.Kept, b.Name)
			}
		})
	}
}
