package drill

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"cuestart/core/measure"
)

// Rung is a step of a distance ladder.
type Rung struct {
	Metres float64 `json:"metres"`
	Effort float64 `json:"effort"` // 0 to 1; it rises to full by the last
	Name   string  `json:"name,omitempty"`
}

// Words writes the rung as ParseRung reads it: "12 m, 50 %, easy arm".
func (r Rung) Words(in measure.System) string {
	text := fmt.Sprintf("%s, %g %%", in.Length(r.Metres), math.Round(1000*r.Effort)/10)
	if r.Name != "" {
		text += ", " + r.Name
	}
	return text
}

// ParseRung reads a rung: how far, effort in per cent, and a name if it has one.
func ParseRung(text string, in measure.System) (r Rung, err error) {
	parts := strings.SplitN(text, ",", 3)
	number := func(i int, unit string) float64 {
		if i >= len(parts) {
			return -1
		}
		n, bad := strconv.ParseFloat(strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(parts[i]), unit)), 64)
		if bad != nil || n != n {
			return -1
		}
		return n
	}
	far, ok := in.ReadLength(parts[0])
	r.Metres, r.Effort = far, number(1, "%")/100
	if !ok || r.Metres <= 0 || r.Effort < 0 || r.Effort > 1 {
		return Rung{}, fmt.Errorf("%q is no step of a ladder: write it as 12 m, 50 %%, easy arm", text)
	}
	if len(parts) == 3 {
		r.Name = strings.TrimSpace(parts[2])
	}
	return r, nil
}

// Ladder spreads amount acts over the rungs as evenly as can be; what is over
// goes to the first ones, where it is easy.
func (d Drill) Ladder(amount int) []int {
	acts := make([]int, len(d.Rungs)) // none without rungs
	for i := range acts {
		acts[i] = amount / len(acts)
		if i < amount%len(acts) {
			acts[i]++
		}
	}
	return acts
}
