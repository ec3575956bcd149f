package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/plan"
)

// What a block says follows its drills; what a coach wrote stays as they wrote it.
func TestWhatABlockSaysFollowsItsDrills(t *testing.T) {
	d := document()
	other := throws()
	other.Code, other.Aim = "hops", "Springy feet"
	for i, aim := range []string{"", d.Blocks[1].Aims(), "My own words"} {
		d.Blocks[i].Aim, d.Blocks[i].Why = aim, "Put there for a reason"
	}
	before := d.Clone()
	for i := range d.Blocks {
		d.Blocks[i].Items = []plan.Item{{Drill: other}}
	}
	d.Follow(before)
	assert.Equal(t, []string{"Springy feet", "Springy feet", "My own words"},
		[]string{d.Blocks[0].Says(), d.Blocks[1].Says(), d.Blocks[2].Says()})
	assert.Empty(t, d.Blocks[0].Why+d.Blocks[1].Why+d.Blocks[2].Why, "the reason was the old drill's")
	same := d.Clone()
	same.Blocks[0].Why, d.Blocks[0].Why = "kept", "kept"
	same.Blocks[0].Items[0].Drill.Range.Target++
	same.Follow(d)
	assert.Equal(t, "kept", same.Blocks[0].Why, "another dose is no other drill")
}

// Who comes late is said by the clock, and stays so when the opening moves.
func TestAnArrivalIsATimeOnTheClock(t *testing.T) {
	d := document() // opens at 14:20
	said, err := d.SetArrival("p2", "14:32")
	require.NoError(t, err)
	assert.Equal(t, "Bo Ó. comes at 14:32", said)
	assert.Equal(t, 12*60, d.Player("p2").Late)
	_, err = d.SetHead(plan.HeadFields{Title: d.Title, StartName: d.StartName, Method: d.Method,
		Open: clock.BeforeStart(3000)})
	require.NoError(t, err)
	assert.Equal(t, "14:32", d.Arrival(d.Player("p2")))
	assert.Equal(t, 22*60, d.Player("p2").Late)
	_, err = d.SetStart(clock.Start{Local: "2026-11-28T15:15", Zone: "Europe/London"})
	require.NoError(t, err)
	assert.Equal(t, "14:32", d.Arrival(d.Player("p2")))
	said, err = d.SetArrival("p2", "14:00")
	require.NoError(t, err)
	assert.Equal(t, "Bo Ó. is in time", said, "before the opening")
	for _, wrong := range []string{"25:00", "soon"} {
		_, err = d.SetArrival("p2", wrong)
		assert.Error(t, err, wrong)
	}
	_, err = d.SetArrival("gone", "14:32")
	assert.Error(t, err)
	assert.Empty(t, d.Arrival(d.Player("p1")))
}

// What a mend did is said from the two plans, so that it cannot say anything else.
func TestADifferenceIsSaid(t *testing.T) {
	other := throws()
	other.Code, other.Name = "hops", "Hops"
	later := clock.BeforeStart(900)
	for says, edit := range map[string]func(d *plan.Document){
		"":      func(*plan.Document) {},
		"A out": func(d *plan.Document) { d.Remove("a") },
		"New added for the whole squad": func(d *plan.Document) {
			d.Blocks = append(d.Blocks, plan.Block{ID: "new", Name: "New", Who: []string{plan.Everyone}})
		},
		"B for the whole squad":                func(d *plan.Document) { d.Block("b").Who = []string{plan.Everyone} },
		"A on any ground":                      func(d *plan.Document) { d.Block("a").Zone = "" },
		"Eve leads A":                          func(d *plan.Document) { d.Block("a").Leader = "eve" },
		"A at 1 station":                       func(d *plan.Document) { d.Block("a").Stations = 1 },
		"A is a must":                          func(d *plan.Document) { d.Block("a").Priority = plan.Must },
		"A may move":                           func(d *plan.Document) { d.Block("a").Pin = &later },
		"work ends 10 min before the start":    func(d *plan.Document) { d.Margin = 600 },
		"layers on while waiting":              func(d *plan.Document) { d.Today.Layers = true },
		"a drink every 10 min":                 func(d *plan.Document) { d.Today.DrinkEvery = 10 },
		"Ada M. is due 3 min before the start": func(d *plan.Document) { d.Players[0].DueShift = 120 },
		"Hops in A":                            func(d *plan.Document) { d.AddItem("a", plan.Item{Drill: other}) },
		throws().Name + " out of A; Hops in A": func(d *plan.Document) {
			d.Block("a").Items = []plan.Item{{Drill: other}}
		},
		"A out; B out; C out; 2 more changes": func(d *plan.Document) {
			d.Blocks, d.Margin = nil,
				600
			d.Today.Layers = true
		},
	} {
		d := document()
		to := d.Clone()
		edit(to)
		if says == "A may move" { // it was pinned before
			d, to = to, d
		}
		assert.Equal(t, says, d.Difference(to))
	}
	d := document()
	to := d.Clone()
	k := &to.Block("a").Items[0].Drill
	k.Range.Target = k.Range.Min
	assert.Contains(t, d.Difference(to), k.Words(k.Range.Min)+", not ")
	k.Range.Target = d.Block("a").Items[0].Drill.Range.Target
	k.Range.Min++
	assert.Contains(t, d.Difference(to), "no less than")
}

// A plan keeps few and short notes, each once.
func TestNotesAreFewAndOnce(t *testing.T) {
	d := document()
	for n := range 30 {
		d.Note("same", string(rune('a'+n)))
	}
	assert.Len(t, d.Notes, 20)
	assert.Equal(t, string(rune('a'+29)), d.Notes[19], "the newest stay")
	long := ""
	for range 400 {
		long += "é"
	}
	d.Note(long)
	assert.Len(t, []rune(d.Notes[19]), 300)
	require.NoError(t, d.Validate())
	said, err := d.SeenNotes()
	require.NoError(t, err)
	assert.NotEmpty(t, said)
	assert.Empty(t, d.Notes)
	d.Notes = []string{"two\nlines"}
	assert.Error(t, d.Validate())
}

// A roof, or a floor that is laid indoors, keeps the weather out.
func TestIndoorsIsToldByRoofAndFloor(t *testing.T) {
	d := document()
	in := func(change func(z *plan.Zone)) bool {
		d.Zones[0] = plan.Zone{ID: "pitch", Name: "Pitch", Capacity: 5, Lanes: 2}
		change(&d.Zones[0])
		return d.Indoors(d.Block("a"))
	}
	assert.False(t, in(func(*plan.Zone) {}))
	assert.True(t, in(func(z *plan.Zone) { z.Covered = true }))
	d.Block("a").Zone = ""
	assert.False(t, in(func(*plan.Zone) {}), "nobody knows where")
	assert.Equal(t, []plan.Restriction(nil), d.Ruled("p1"))
	d.Restrictions = []plan.Restriction{{Player: "p1", NoJumps: true}, {Player: "p2"}, {Player: "p1", MaxEffort: 0.5}}
	assert.Len(t, d.Ruled("p1"), 2, "all that is ruled for them")
}
