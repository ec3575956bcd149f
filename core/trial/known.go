package trial

import (
	"fmt"
	"slices"
)

// Known are the tests that are usual around a warm-up; a coach adds their own.
var Known = []Test{
	{Name: "Jump height", Unit: "cm"},
	{Name: "Sprint 10 m", Unit: "s", Lower: true},
	{Name: "Sprint 20 m", Unit: "s", Lower: true},
	{Name: "Ball speed", Unit: "m/s"},
	{Name: "Bat speed", Unit: "m/s"},
	{Name: "Reach", Unit: "cm"},
}

// farOff is how many times the usual a result may be before it is asked about.
const farOff = 4

// Problem says what is wrong with a result, or "". Others are results of the same test.
func (t Test) Problem(x float64, others []float64) string {
	switch {
	case !(x > -1e6 && x < 1e6): // NaN too
		return "a result is a number below a million"
	case x <= 0 && t.Name != "Reach":
		return fmt.Sprintf("%s %s cannot be: a result is above zero", decimal(x), t.Unit)
	case len(others) < 3:
		return ""
	}
	sorted := slices.Sorted(slices.Values(others))
	if usual := sorted[len(sorted)/2]; usual > 0 && (x > farOff*usual || x < usual/farOff && t.Name != "Reach") {
		return fmt.Sprintf("%s %s is far from the usual %s %s: is it a slip?", decimal(x), t.Unit, decimal(usual),
			t.Unit)
	}
	return ""
}
