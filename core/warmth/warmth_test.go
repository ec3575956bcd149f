package warmth_test

import (
	"encoding/json"
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/warmth"
)

func ExampleRun() {
	c := warmth.Run([]warmth.Piece{{Effort: 0.5, Seconds: 600}, {Effort: 0, Seconds: 480}}, warmth.Air{Celsius: 18})
	fmt.Printf("%.2f at its peak, %.2f at the end\n", c.Peak(), c.End())
	// Output: 2.07 at its peak, 1.38 at the end
}

func TestCurvesAgreeWithTheKnownAnswers(t *testing.T) {
	text, err := os.ReadFile("testdata/warmth.json")
	require.NoError(t, err)
	var cases []struct {
		warmth.Air
		Title         string         `json:"title"`
		Pieces        []warmth.Piece `json:"pieces"`
		End           float64        `json:"end"`
		Peak          float64        `json:"peak"`
		SecondsAbove2 float64        `json:"seconds_above_2"`
	}
	require.NoError(t, json.Unmarshal(text, &cases))
	require.NotEmpty(t, cases)
	for _, c := range cases {
		curve := warmth.Run(c.Pieces, c.Air)
		assert.InDelta(t, c.End, curve.End(), 1e-4, c.Title)
		assert.InDelta(t, c.Peak, curve.Peak(), 1e-4, c.Title)
		assert.InDelta(t, c.SecondsAbove2, curve.SecondsAbove(warmth.Warm), 0.1, c.Title)
	}
}

func TestACurveStaysBetweenRestAndFullAndDoesNotMindBeingCut(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pieces := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) warmth.Piece {
			return warmth.Piece{Effort: rapid.Float64Range(0, 1).Draw(t, "effort"),
				Seconds: rapid.Float64Range(1, 900).Draw(t, "seconds")}
		}), 1, 8).Draw(t, "pieces")
		air := warmth.Air{Celsius: rapid.Float64Range(-10, 40).Draw(t, "air"), Layers: rapid.Bool().Draw(t, "layers")}
		c := warmth.Run(pieces, air)
		var halves []warmth.Piece
		for _, p := range pieces {
			halves = append(halves, warmth.Piece{Effort: p.Effort, Seconds: p.Seconds / 2},
				warmth.Piece{Effort: p.Effort, Seconds: p.Seconds / 2})
		}
		cut := warmth.Run(halves, air)
		assert.InDelta(t, c.End(), cut.End(), 1e-9)
		assert.InDelta(t, c.SecondsAbove(1.5), cut.SecondsAbove(1.5), 1e-6)
		assert.True(t, c.Peak() <= warmth.Full && c.End() >= 0 && c.End() <= c.Peak()+1e-12)
		at := rapid.Float64Range(0, c.Seconds()).Draw(t, "at")
		assert.InDelta(t, c.At(at), cut.At(at), 1e-9)
		if first, ever := c.FirstAbove(1.5); ever {
			assert.InDelta(t, 1.5, max(1.5, c.At(first)), 1e-6)
		} else {
			assert.Zero(t, c.SecondsAbove(1.5))
		}
		still := warmth.Run(append(pieces, warmth.Piece{Seconds: 900}), air)
		assert.LessOrEqual(t, still.End(), c.End()+1e-12)
	})
}

func TestColdCoolsFasterAndLayersHelp(t *testing.T) {
	end := func(air warmth.Air) float64 {
		return warmth.Run([]warmth.Piece{{Effort: 0.9, Seconds: 900}, {Seconds: 900}}, air).End()
	}
	assert.Less(t, end(warmth.Air{Celsius: 5}), end(warmth.Air{Celsius: 6}))
	assert.Less(t, end(warmth.Air{Celsius: 12}), end(warmth.Air{Celsius: 18}))
	assert.Less(t, end(warmth.Air{Celsius: 18}), end(warmth.Air{Celsius: 24}))
	assert.Less(t, end(warmth.Air{Celsius: 5}), end(warmth.Air{Celsius: 5, Layers: true}))
	assert.InDelta(t, 2, warmth.Run([]warmth.Piece{{Effort: 0.9, Seconds: 3600}},
		warmth.Air{Celsius: 18}).End()-end(warmth.Air{Celsius: 18}), 0.3, "about 2 °C in 15 idle minutes (Mohr 2004)")
}
