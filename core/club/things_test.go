package club_test

import (
	"encoding/json"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

// one of each kind, valid.
func things() []club.Thing {
	squat := drill.Drill{Code: "squat", Name: "Squat", Aim: "Legs", Phases: []drill.Phase{drill.Activate},
		Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}}
	return []club.Thing{
		club.Player{Number: 7, First: "Ada", Last: "Ros", Foot: club.Left},
		club.Unit{Name: "Pair", Players: []uint64{1}},
		club.Restriction{NoJumps: true, From: "2026-11-25"},
		club.Venue{Name: "Tidegate", TimeZone: "Europe/London"},
		club.Zone{Name: "Near half", Capacity: 40, Lanes: 6, Opens: "13:00", Closes: "15:00"},
		club.Kit{Name: "ball", Pieces: 12},
		club.Staff{Name: "Ines Varley", Role: "Coach", Leads: true},
		club.Routine{Name: "Match day", Method: "ramp",
			Blocks: []plan.Block{{ID: "b", Name: "B", Items: []plan.Item{{Drill: squat}}}}},
		club.Fixture{UID: "x", For: plan.Match, Title: "Brackwater v Fellmoor",
			Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}},
		club.Drill{Drill: squat},
		club.Sport{Sport: sport.Sport{Key: "netball", Name: "Netball", Start: "First centre pass",
			Positions: []string{"Centre"}}},
		club.Trial{Test: "Jump height", Unit: "cm", Better: club.Higher, Day: "2026-11-20", Tries: []float64{31, 32.5}},
	}
}

// Each kind is told apart, has a label, and is the same after it was kept.
func TestEachKindIsKeptWhole(t *testing.T) {
	kinds := map[club.Kind]bool{}
	for _, thing := range things() {
		assert.NoError(t, thing.Validate(), "%T", thing)
		assert.False(t, kinds[thing.Kind()], "%s is one kind alone", thing.Kind())
		kinds[thing.Kind()] = true
		assert.NotEmpty(t, thing.Label(), thing.Kind())
		text, err := json.Marshal(thing)
		require.NoError(t, err)
		again := reflect.New(reflect.TypeOf(thing))
		require.NoError(t, json.Unmarshal(text, again.Interface()))
		assert.Equal(t, thing, again.Elem().Interface(), "%T", thing)
	}
	assert.Len(t, kinds, 12)
}

// What no two may share tells them apart, whatever else they say.
func TestWhatIsUnique(t *testing.T) {
	for _, c := range []struct {
		a, b club.Thing
		same bool
	}{
		{club.Player{Number: 7, First: "Ada"}, club.Player{Number: 7, First: "Bo"}, true},
		{club.Player{Number: 7, First: "Ada"}, club.Player{Number: 8, First: "Ada"}, false},
		{club.Unit{Name: "Pair"}, club.Unit{Name: "Pair", Players: []uint64{1}}, true},
		{club.Kit{Name: "ball"}, club.Kit{Name: "cone"}, false},
		{club.Trial{Test: "Jump", Day: "2026-11-20"}, club.Trial{Test: "Jump", Day: "2026-11-21"}, false},
		{club.Trial{Test: "Jump", Day: "2026-11-20"}, club.Trial{Test: "Jump", Day: "2026-11-20", Unit: "m"}, true},
		{club.Fixture{UID: "x", Title: "A"}, club.Fixture{UID: "x", Title: "B"}, true},
	} {
		assert.Equal(t, c.same, c.a.Unique() == c.b.Unique(), "%v, %v", c.a, c.b)
	}
	assert.Empty(t, club.Player{First: "Ada"}.Unique(), "names may come twice, and many have no number")
	assert.Empty(t, club.Restriction{NoJumps: true}.Unique(), "a player may have several")
}

func TestATestHasItsBest(t *testing.T) {
	assert.InDelta(t, 32.5, club.Trial{Better: club.Higher, Tries: []float64{31, 32.5, 30}}.Best(), 1e-9)
	assert.InDelta(t, 1.71, club.Trial{Better: club.Lower, Tries: []float64{1.8, 1.71}}.Best(), 1e-9)
	assert.Zero(t, club.Trial{}.Best())
	good := club.Trial{Test: "Sprint", Unit: "s", Better: club.Lower, Day: "2026-11-20", Tries: []float64{1.8}}
	for where, spoil := range map[string]func(*club.Trial){
		"test":   func(t *club.Trial) { t.Test = "" },
		"unit":   func(t *club.Trial) { t.Unit = strings.Repeat("x", 21) },
		"better": func(t *club.Trial) { t.Better = "longer" },
		"day":    func(t *club.Trial) { t.Day = "yesterday" },
		"tries":  func(t *club.Trial) { t.Tries = nil },
	} {
		bad := good
		spoil(&bad)
		var wrong plan.Problems
		require.ErrorAs(t, bad.Validate(), &wrong, where)
		assert.NotEmpty(t, wrong.At(where), where)
	}
	good.Tries = make([]float64, 21)
	assert.Error(t, good.Validate())
	good.Tries = []float64{1e6}
	assert.Error(t, good.Validate())
}

// A plan carries what is ruled, never when, why or by whom.
func TestARulingReachesThePlanWithoutItsReason(t *testing.T) {
	r := club.Restriction{NoOverhead: true, MaxEffort: 70, Spare: []string{"knee"}, MaxMinutes: 12, From: "2026-11-25",
		Until: "2026-11-30", Review: "2026-11-28", Reason: "a strain"}
	in := r.For("p7")
	assert.Equal(t, plan.Restriction{Player: "p7", NoOverhead: true, MaxEffort: 0.7, Spare: []string{"knee"},
		MaxMinutes: 12}, in)
	text, err := json.Marshal(in)
	require.NoError(t, err)
	for _, secret := range []string{"strain", "2026"} {
		assert.NotContains(t, string(text), secret)
	}
	for day, holds := range map[string]bool{"2026-11-24": false, "2026-11-25": true, "2026-11-30": true,
		"2026-12-01": false} {
		assert.Equal(t, holds, r.Holds(day), day)
	}
	r.Until = ""
	assert.True(t, r.Holds("2030-01-01"), "until it is lifted")
}
