package chalk_test

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/ground"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/web/chalk"
)

// However places lie, they are drawn within the picture, to one scale, with everybody who
// stands there where there is room, and with no text that could be markup.
func TestAGroundIsDrawnWhole(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var zones []plan.Zone
		for i := range rapid.IntRange(1, 6).Draw(t, "zones") {
			z := plan.Zone{ID: fmt.Sprint("z", i),
				Name: rapid.SampledFrom([]string{"Near half", "<b>&amp;", "Unbreakablylongnameofaplace"}).Draw(t,
					"name"), Capacity: 20, Lanes: rapid.IntRange(1, 12).Draw(t, "lanes"),
				Metres: float64(rapid.IntRange(5, 100).Draw(t, "metres"))}
			if rapid.Bool().Draw(t, "said") {
				z.Lies = &plan.Lie{X: float64(rapid.IntRange(0, 150).Draw(t, "x")),
					Y:    float64(rapid.IntRange(0, 90).Draw(t, "y")),
					Long: float64(rapid.IntRange(1, 90).Draw(t, "long")),
					Wide: float64(rapid.IntRange(1, 70).Draw(t, "wide")), Turn: rapid.IntRange(0, 359).Draw(t, "turn")}
			}
			zones = append(zones, z)
		}
		places := ground.Arrange(zones)
		spots := make([]chalk.Spot, len(places))
		people := 0
		for i, p := range places {
			spots[i] = chalk.Spot{Place: p, People: rapid.IntRange(0, 60).Draw(t, "people"),
				Lines: []string{"12 of 20", "Line-out · Dorrit"}, Class: "here", Key: p.ID}
			people += spots[i].People
		}
		ways := []chalk.Way{{From: places[0], To: places[len(places)-1], Says: "far", Tight: true}}
		drawn := string(chalk.Ground("A ground", measure.System{}, spots, ways, 600, 300))
		assert.NotContains(t, drawn, "<b>")
		assert.NotContains(t, drawn, "NaN")
		assert.NotContains(t, drawn, "Inf")
		assert.LessOrEqual(t, strings.Count(drawn, `class="one"`), people)
		assert.Equal(t, len(zones), strings.Count(drawn, `class="spot-area"`))
		var wide, high float64
		fmt.Sscanf(regexp.MustCompile(`viewBox="0 0 ([\d.]+ [\d.]+)"`).FindStringSubmatch(drawn)[1], "%f %f", &wide,
			&high)
		assert.LessOrEqual(t, high, 301.0)
		for _, found := range regexp.MustCompile(`translate\((-?[\d.]+) (-?[\d.]+)\)`).FindAllStringSubmatch(drawn,
			-1) {
			x, _ := strconv.ParseFloat(found[1], 64)
			y, _ := strconv.ParseFloat(found[2], 64)
			assert.True(t, x >= 0 && x <= wide && y >= 0 && y <= high, "%v", found)
		}
	})
	assert.Empty(t, chalk.Ground("Nothing", measure.System{}, nil, nil, 600, 300))
}

// Who stands in a place is counted in dots; what has no room is counted in words.
func TestWhoStandsThereIsCounted(t *testing.T) {
	spot := chalk.Spot{Place: ground.Place{Zone: plan.Zone{Name: "Near half", Lanes: 4},
		Lie: plan.Lie{X: 30, Y: 20, Long: 60, Wide: 40}}, People: 23, Lines: []string{"23 of 40"}}
	drawn := string(chalk.Ground("One", measure.System{Feet: true}, []chalk.Spot{spot}, nil, 600, 400))
	assert.Equal(t, 23, strings.Count(drawn, `class="one"`))
	assert.Contains(t, drawn, ">35 ft<", "the bar of a club in feet")
	for range 40 {
		spot.Lines = append(spot.Lines, "one more block")
	}
	drawn = string(chalk.Ground("One", measure.System{Feet: true}, []chalk.Spot{spot}, nil, 600, 400))
	assert.Regexp(t, `\+ \d+ more`, drawn)
	assert.Contains(t, drawn, ">Near half<")
}
