package warmth_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/plan"
	"cuestart/core/warmth"
)

// The colder the air, the sooner warmth is lost; layers always help; what nobody
// knows is taken as a mild day.
func TestAirDecidesHowWarmthIsLost(t *testing.T) {
	last := 0.0
	for _, celsius := range []float64{-5, 8, 18, 26} {
		air := warmth.Air{Celsius: celsius}
		assert.Greater(t, air.Tau(), last, "%g °C", celsius)
		last = air.Tau()
		air.Layers = true
		assert.InDelta(t, last*warmth.Layers, air.Tau(), 1e-9)
	}
	cold := 2.0
	assert.Equal(t, warmth.Air{Celsius: 18}, warmth.AirOf(&plan.Document{}))
	assert.Equal(t, warmth.Air{Celsius: 2, Layers: true},
		warmth.AirOf(&plan.Document{Site: plan.Site{Today: plan.Conditions{Celsius: &cold, Layers: true}}}))
}

// What is read of a curve agrees with the curve: its peak is its highest point,
// the time above a level is where it lies above it.
func TestACurveIsReadAsItRuns(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var pieces []warmth.Piece
		total := 0.0
		for range rapid.IntRange(1, 8).Draw(t, "pieces") {
			p := warmth.Piece{Effort: rapid.Float64Range(0, 1).Draw(t, "effort"),
				Seconds: float64(rapid.IntRange(1, 900).Draw(t, "seconds"))}
			pieces, total = append(pieces, p), total+p.Seconds
		}
		c := warmth.Run(pieces, warmth.Air{Celsius: rapid.Float64Range(-10, 35).Draw(t, "air")})
		assert.InDelta(t, total, c.Seconds(), 1e-6)
		assert.InDelta(t, c.End(), c.At(total), 1e-9)
		assert.Zero(t, c.At(0), "from rest")
		peak, above := 0.0, 0.0
		const step = 0.5
		level := rapid.Float64Range(0.2, 4).Draw(t, "level")
		for s := 0.0; s < total; s += step {
			at := c.At(s)
			peak = max(peak, at)
			if at > level {
				above += step
			}
			assert.GreaterOrEqual(t, at, 0.0)
			assert.LessOrEqual(t, at, warmth.Full)
		}
		assert.InDelta(t, max(peak, c.End()), c.Peak(), 0.02)
		assert.InDelta(t, above, c.SecondsAbove(level), 2*step*float64(len(pieces)+1))
		first, ever := c.FirstAbove(level)
		assert.Equal(t, c.Peak() > level, ever)
		if ever {
			assert.InDelta(t, level, c.At(first), 0.02)
		}
	})
}
