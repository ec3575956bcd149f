package ground_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/ground"
	"cuestart/core/plan"
)

func ExampleArrange() {
	for _, p := range ground.Arrange([]plan.Zone{{Name: "Near half", Capacity: 40, Lanes: 8, Metres: 50},
		{Name: "Far half", Capacity: 40, Lanes: 8, Metres: 50},
		{Name: "Hall", Capacity: 30, Lanes: 5, Metres: 18, Covered: true}}) {
		fmt.Println(p.Name, p.Lie)
	}
	// Output:
	// Near half {25 10 50 20 0}
	// Far half {75 10 50 20 0}
	// Hall {9 38.5 18 13 0}
}

// However zones are, said to lie somewhere or not: those that nobody laid lie apart, and
// every one has a size that may be.
func TestPlacesLieApart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var zones []plan.Zone
		for i := range rapid.IntRange(1, 8).Draw(t, "zones") {
			z := plan.Zone{ID: fmt.Sprint("z", i), Name: rapid.SampledFrom([]string{"Half", "Strip", "Hall"}).Draw(t,
				"name"), Capacity: rapid.IntRange(1, 999).Draw(t, "holds"),
				Lanes:  rapid.IntRange(1, 99).Draw(t, "lanes"),
				Metres: float64(rapid.IntRange(0, 500).Draw(t, "metres")), Covered: rapid.Bool().Draw(t, "covered")}
			if rapid.Bool().Draw(t, "said") {
				z.Lies = &plan.Lie{X: float64(rapid.IntRange(-200, 200).Draw(t, "x")),
					Y: float64(rapid.IntRange(-200, 200).Draw(t, "y")), Long: 30, Wide: 20,
					Turn: rapid.IntRange(0, 359).Draw(t, "turn")}
			}
			zones = append(zones, z)
		}
		places := ground.Arrange(zones)
		for i, p := range places {
			assert.Empty(t, p.Lie.Problem(), p.Name)
			for _, q := range places[:i] {
				if !p.Said && !q.Said {
					overX := math.Min(p.Lie.X+p.Lie.Long/2, q.Lie.X+q.Lie.Long/2) - math.Max(p.Lie.X-p.Lie.Long/2,
						q.Lie.X-q.Lie.Long/2)
					overY := math.Min(p.Lie.Y+p.Lie.Wide/2, q.Lie.Y+q.Lie.Wide/2) - math.Max(p.Lie.Y-p.Lie.Wide/2,
						q.Lie.Y-q.Lie.Wide/2)
					assert.False(t, overX > 1e-6 && overY > 1e-6, "%s on %s", p.Name, q.Name)
				}
			}
		}
		a, b := places[0], places[len(places)-1]
		assert.InDelta(t, ground.Metres(a, b), ground.Metres(b, a), 1e-9)
		min, max := ground.Bounds(places)
		assert.True(t, min.X <= a.Lie.X && a.Lie.X <= max.X)
	})
}
