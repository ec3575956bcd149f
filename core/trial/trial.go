// Package trial judges what was measured before and after a warm-up: by how much a test
// changed for a player and for a squad, within which limits, and whether that is likely real
// or within the noise of the test (Hopkins 2000, Sports Medicine 30:1-15).
package trial

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"
)

// Test is what is measured.
type Test struct {
	Name  string `json:"name"`
	Unit  string `json:"unit"`
	Lower bool   `json:"lower,omitempty"` // the lower result is the better one, such as a sprint's time
	Mean  bool   `json:"mean,omitempty"`  // the mean of the tries counts, else the best
}

// Result is what tries come to; false where there are none.
func (t Test) Result(tries []float64) (result float64, ok bool) {
	switch {
	case len(tries) == 0:
		return 0, false
	case t.Mean:
		return stat.Mean(tries, nil), true
	case t.Lower:
		return slices.Min(tries), true
	}
	return slices.Max(tries), true
}

// Limits of what is told, two-sided.
const (
	confidence = 0.90
	z90        = 1.645
	worthwhile = 0.2 // of the spread between players, the smallest change that matters
)

// TypicalError is the noise of a test: of players who did it twice without anything between,
// the spread of the differences over √2. It wants two players at least, else it is 0.
func TypicalError(first, second []float64) float64 {
	if len(first) != len(second) || len(first) < 2 {
		return 0
	}
	differences := make([]float64, len(first))
	for i := range first {
		differences[i] = second[i] - first[i]
	}
	return spread(differences) / math.Sqrt2
}

// spread is the standard deviation of results or changes; 0 where they are all alike, but for
// what a computer's arithmetic leaves of equal ones: such say nothing of the noise.
func spread(of []float64) float64 {
	const dust = 1e-9
	is, largest := stat.StdDev(of, nil), 0.0
	for _, x := range of {
		largest = max(largest, math.Abs(x))
	}
	if is <= dust*max(1, largest) {
		return 0
	}
	return is
}

// Worthwhile is the smallest change that matters: a fifth of the spread between players.
// Fewer than two players have none.
func Worthwhile(results []float64) float64 {
	if len(results) < 2 {
		return 0
	}
	return worthwhile * spread(results)
}

// Change is by how much results differ, with its limits.
type Change struct {
	By        float64 // after less before, in the test's unit
	Low, High float64 // limits of 90 %
	N         int     // players
	Better    bool    // it goes the way that is better
	Known     bool    // there is noise to judge it by
	Small     bool    // less than the smallest that matters
}

// OfPlayer is a player's change by the test's noise, its typical error; 0: not known.
func (t Test) OfPlayer(before, after, noise, smallest float64) Change {
	c := Change{By: after - before, N: 1, Known: noise > 0}
	half := z90 * math.Sqrt2 * noise
	c.Low, c.High = c.By-half, c.By+half
	return t.judged(c, smallest)
}

// OfSquad is the mean change of players who did both; false with fewer than two.
func (t Test) OfSquad(before, after []float64, smallest float64) (Change, bool) {
	if len(before) != len(after) || len(before) < 2 {
		return Change{N: len(before)}, false
	}
	changes := make([]float64, len(before))
	for i := range before {
		changes[i] = after[i] - before[i]
	}
	return t.judged(mean(changes), smallest), true
}

// Compared is by how much more one routine changed the result than another, player by player
// who did both; false with fewer than two.
func (t Test) Compared(one, other []float64, smallest float64) (Change, bool) {
	return t.OfSquad(other, one, smallest)
}

// alikeAtLeast is how many changes that are all alike it takes to be sure at 90 % that they go
// one way: five of five by chance is 1 in 16 (sign test). Two equal ones are no proof.
const alikeAtLeast = 5

// mean is the mean of changes with limits by Student's t, which needs changes that differ.
func mean(changes []float64) Change {
	n := len(changes)
	by, spread := stat.Mean(changes, nil), spread(changes)
	half := distuv.StudentsT{Mu: 0, Sigma: 1,
		Nu: float64(n - 1)}.Quantile(1-(1-confidence)/2) * spread / math.Sqrt(float64(n))
	return Change{By: by, Low: by - half, High: by + half, N: n, Known: spread > 0 || n >= alikeAtLeast}
}

func (t Test) judged(c Change, smallest float64) Change {
	c.Better = c.By != 0 && (c.By < 0) == t.Lower
	c.Small = math.Abs(c.By) < smallest
	return c
}

// Real tells whether the change is likely real: its limits lie on one side of none.
func (c Change) Real() bool { return c.Known && (c.Low > 0 || c.High < 0) }

// Words says a change as a coach would, never without n: "1.2 cm better (0.4 to 2.0), likely
// real, n 9".
func (t Test) Words(c Change) string {
	way := "worse"
	switch {
	case c.By == 0:
		way = "the same"
	case c.Better:
		way = "better"
	}
	said := fmt.Sprintf("%s %s %s", decimal(math.Abs(c.By)), t.Unit, way)
	if c.By == 0 {
		said = way
	}
	switch {
	case !c.Known:
		said += ", noise not known yet"
	case !c.Real():
		said += fmt.Sprintf(" (%s to %s), within noise", decimal(c.Low), decimal(c.High))
	default:
		said += fmt.Sprintf(" (%s to %s), likely real", decimal(c.Low), decimal(c.High))
		if c.Small {
			said += ", too small to matter"
		}
	}
	return fmt.Sprintf("%s, n %d", said, c.N)
}

// decimal writes three significant figures, without an exponent.
func decimal(x float64) string {
	if math.Abs(x) >= 1000 {
		return fmt.Sprintf("%.0f", x)
	}
	return fmt.Sprintf("%.3g", x)
}
