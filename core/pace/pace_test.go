package pace_test

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/pace"
)

func ExampleOf() {
	p := pace.Of([]float64{1.10, 1.15, 1.08, 1.20})
	fmt.Printf("%.0f %% longer here, %d times: %v\n", 100*(p.Times()-1), p.Runs, p.Offered())
	// Output: 11 % longer here, 4 times: true
}

func TestKnownPaces(t *testing.T) {
	text, err := os.ReadFile("testdata/pace.json")
	require.NoError(t, err)
	var cases []struct {
		Ratios          []float64
		Mu, Pace, Sigma float64
		Offer           bool
	}
	require.NoError(t, json.Unmarshal(text, &cases))
	require.NotEmpty(t, cases)
	for _, c := range cases {
		p := pace.Of(c.Ratios)
		assert.InDelta(t, c.Mu, p.Mu, 5e-5, "%v", c.Ratios)
		assert.InDelta(t, c.Pace, p.Times(), 5e-5, "%v", c.Ratios)
		assert.InDelta(t, c.Sigma, p.Sigma, 5e-5, "%v", c.Ratios)
		assert.Equal(t, c.Offer, p.Offered(), "%v", c.Ratios)
	}
}

// A pace lies between what was planned and the mean of the runs, the nearer to the runs the
// more there are, in whatever order; with more runs it is known better, and never better
// than one run tells of the next.
func TestAPaceIsDrawnToThePlan(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ratios := rapid.SliceOfN(rapid.Float64Range(0.3, 3), 1, 30).Draw(t, "ratios")
		p, mean := pace.Of(ratios), 0.0
		for _, r := range ratios {
			mean += math.Log(r) / float64(len(ratios))
		}
		assert.LessOrEqual(t, math.Abs(p.Mu), math.Abs(mean)+1e-12)
		assert.GreaterOrEqual(t, p.Mu*mean, -1e-12)
		again := pace.Of(append(slices.Clone(ratios), ratios...))
		assert.LessOrEqual(t, math.Abs(again.Mu-mean), math.Abs(p.Mu-mean)+1e-12)
		assert.Less(t, again.Sigma, p.Sigma)
		assert.Greater(t, again.Sigma, pace.Within)
		slices.Reverse(ratios)
		assert.InDelta(t, p.Mu, pace.Of(ratios).Mu, 1e-12)
		assert.Equal(t, p.Runs, pace.Of(append(ratios, 0, -1, math.NaN(), math.Inf(1))).Runs,
			"what is no run says nothing")
	})
	none := pace.Of(nil)
	assert.Zero(t, none.Mu)
	assert.InDelta(t, math.Hypot(pace.Within, pace.Between), none.Sigma, 1e-12)
	assert.False(t, none.Offered())
}
