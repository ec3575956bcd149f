package schedule_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// twoPlaces is a plan of a jog outside, bands in the hall and hops outside, all for one, with
// the hall 70 m from the pitch.
func twoPlaces() *plan.Document {
	item := func(code string, effort float64, phase drill.Phase) []plan.Item {
		return []plan.Item{{Written: true, Drill: drill.Drill{Code: code, Name: code, Aim: "why",
			Phases: []drill.Phase{phase}, Effort: effort,
			Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 80, Target: 120, Max: 180, Step: 15}}}}
	}
	block := func(id, zone string, effort float64, phase drill.Phase) plan.Block {
		return plan.Block{ID: id, Name: id, Phase: phase, Zone: zone, Who: []string{"a"}, Priority: plan.Should,
			Items: item(id, effort, phase)}
	}
	return &plan.Document{
		Format: plan.Format,
		Title:  "A v B",
		Kind:   plan.Match,
		Party:  plan.Party{Players: []plan.Player{{ID: "a", First: "Ada"}}},
		Site: plan.Site{Zones: []plan.Zone{{ID: "pitch", Name: "Pitch", Capacity: 20, Lanes: 4, Metres: 40,
			Lies: &plan.Lie{X: 0, Y: 0, Long: 40, Wide: 20}},
			{ID: "hall", Name: "Hall", Capacity: 20, Lanes: 4, Metres: 20, Covered: true,
				Lies: &plan.Lie{X: 70, Y: 0, Long: 20, Wide: 10}}}},
		Hours: plan.Hours{Start: clock.Start{Local: "2026-11-28T15:00", Zone: "UTC"}, Open: clock.BeforeStart(1800),
			Margin: 300},
		Work: plan.Work{Method: plan.DefaultMethod, Blocks: []plan.Block{block("jog", "pitch", 0.5, drill.Raise),
			block("bands", "hall", 0.3, drill.Activate),
			block("hops", "pitch", 0.9, drill.Potentiate)}},
	}
}

// Between places that the club laid on its ground people walk, and to a talk too; where nobody
// laid them they do not.
func TestPeopleWalkBetweenPlaces(t *testing.T) {
	gaps := func(d *plan.Document) (list []int) {
		s, err := schedule.Fit(context.Background(), d, 0)
		require.NoError(t, err)
		require.True(t, s.Result.Feasible, s.Result.Why)
		blocks := s.Blocks(d)
		for i := range blocks[1:] {
			list = append(list, int(blocks[i+1].Start-blocks[i].End))
		}
		return list
	}
	d := twoPlaces()
	assert.Equal(t, 50, schedule.Walk(d, "pitch", "hall"), "70 m at 1.4 m/s")
	assert.Equal(t, []int{50, 50}, gaps(d))
	d.Fixed = []plan.Fixed{{ID: "talk", Name: "Talk", Zone: "hall", Who: []string{plan.Everyone},
		Span: plan.Span{From: clock.BeforeStart(600), To: clock.BeforeStart(500)}}}
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, s.Blocks(d)[2].Start, clock.Offset(-450), "the hops are a walk from the talk")
	d.Fixed, d.Zones[1].Lies = nil, nil
	assert.Equal(t, []int{0, 0}, gaps(d))
}

// The first warming block of each is a must, unless the coach calls it a could: with minutes
// for one thing it is that.
func TestThePulseGoesLast(t *testing.T) {
	d := twoPlaces()
	kept := func() (list []string) {
		s, err := schedule.Fit(context.Background(), d, 0)
		require.NoError(t, err)
		for _, b := range s.Blocks(d) {
			if b.Kept {
				list = append(list, b.ID)
			}
		}
		return list
	}
	d.Open = clock.BeforeStart(410)
	assert.Equal(t, []string{"jog"}, kept())
	d.Open = clock.BeforeStart(360) // less than its least: it is done once, so far as that goes
	assert.Equal(t, []string{"jog"}, kept())
	d.Open, d.Blocks[0].Priority, d.Blocks[2].Priority = clock.BeforeStart(410), plan.Could, plan.Must
	assert.Equal(t, []string{"hops"}, kept())
}
