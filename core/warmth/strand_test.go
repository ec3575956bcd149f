package warmth_test

import (
	"context"
	"testing"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/warmth"
)

func timed(code string, phase drill.Phase, effort float64, seconds int) drill.Drill {
	return drill.Drill{Code: code, Name: code, Aim: "why", Phases: []drill.Phase{phase}, Effort: effort,
		Dose:  drill.Dose{Kind: drill.Time},
		Range: drill.Range{Min: 30, Target: seconds, Max: 2 * seconds, Step: 30}}
}

// fitted is a plan of two drills for two players, one of whom is called away.
func fitted(t *testing.T, margin int) (*plan.Document, *schedule.Schedule) {
	block := func(id string, d drill.Drill) plan.Block {
		return plan.Block{ID: id, Name: id, Phase: d.Phases[0], Who: []string{plan.Everyone}, Priority: plan.Must,
			Excusable: true, Items: []plan.Item{{Drill: d}}}
	}
	jog, dash := timed("jog", drill.Raise, 0.5, 300), timed("dash", drill.Potentiate, 0.95, 60)
	d := &plan.Document{
		Format: plan.Format,
		Title:  "x",
		Kind:   plan.Match,
		Party:  plan.Party{Players: []plan.Player{{ID: "a", First: "A"}, {ID: "b", First: "B"}}},
		Hours: plan.Hours{Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(margin + 420), Margin: margin},
		Work: plan.Work{Fixed: []plan.Fixed{{ID: "toss", Name: "Toss", Who: []string{"b"}, Active: true,
			Span: plan.Span{From: clock.BeforeStart(margin + 300), To: clock.BeforeStart(margin + 200)}}},
			Method: plan.DefaultMethod, Blocks: []plan.Block{block("jog", jog), block("dash", dash)}},
	}
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	return d, s
}

func TestStrandsDoWhatTheScheduleSays(t *testing.T) {
	d, s := fitted(t, 300)
	strands := warmth.Strands(d, s)
	require.Len(t, strands, 2)
	for _, strand := range strands {
		at := float64(strand.From)
		for _, x := range strand.Stretches {
			assert.Equal(t, at, x.From, "without a gap")
			at = x.To
		}
		assert.Zero(t, at, "up to the start")
		assert.Equal(t, clock.Offset(-300), strand.Due)
		assert.Equal(t, 1, strand.Facts().FullLast10)
		assert.Equal(t, 320, strand.Facts().SinceFull, "the dash and its handover end at the margin")
		assert.Equal(t, 60, strand.Facts().HardSeconds)
	}
	whole, called := strands[0], strands[1]
	if called.Players[0] != "b" {
		whole, called = called, whole
	}
	assert.Equal(t, warmth.ActiveEffort, called.Effort(float64(-550-called.From)))
	assert.Equal(t, 0.5, whole.Effort(float64(-550-whole.From)))
	assert.Less(t, called.End(), whole.End())
	assert.InDelta(t, whole.End(), whole.Estimate(0), 1e-9)
}

func TestTopUpsAreTheLeastWorkThatLiftsAboveTheLine(t *testing.T) {
	d, s := fitted(t, 300)
	d.Margin = 0 // the start was put off by 25 minutes
	for i := range s.Players {
		s.Players[i].Due = 0
	}
	for i := range s.Result.Blocks {
		s.Result.Blocks[i].Start -= 1500
		s.Result.Blocks[i].End -= 1500
	}
	for i := range s.Fixed {
		s.Fixed[i].Start, s.Fixed[i].End = s.Fixed[i].Start-1500, s.Fixed[i].End-1500
	}
	strands := warmth.Strands(d, s)
	require.Less(t, strands[0].End(), warmth.Warm)
	book := []drill.Drill{timed("jog", drill.Raise, 0.5, 300), timed("skips", drill.Raise, 0.7, 240),
		timed("catch", drill.Sport, 0.9, 60)}
	tops := warmth.TopUps(d, strands, book)
	require.Len(t, tops, 2)
	for _, top := range tops {
		assert.True(t, top.Enough)
		assert.GreaterOrEqual(t, top.Estimate, warmth.Warm)
		assert.Zero(t, top.End)
		assert.NotEqual(t, "catch", top.Drill.Code, "of Raise or Potentiate only")
		fewer := warmth.TopUps(d, strands, []drill.Drill{func() drill.Drill {
			k := top.Drill
			k.Range.Max = top.Amount - k.Range.Step
			k.Range.Target = k.Range.Max
			return k
		}()})
		assert.False(t, fewer[0].Enough, "a step less is not enough")
	}
	assert.Empty(t, warmth.TopUps(d, nil, book))
}
