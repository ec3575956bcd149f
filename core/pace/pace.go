// Package pace is a team's own pace: by how much its runs of a drill or block last longer or
// shorter than they were planned, and how sure that is.
//
// With x = ln(actual ÷ planned) of each run, normal within a team and normal between teams,
// the team's mu is the mean after these runs (normal with a normal prior; Gelman et al. 2013,
// Bayesian Data Analysis, chapter 2).
package pace

import "math"

// Spreads of the logarithm of actual ÷ planned.
const (
	Within  = 0.12 // from one run of a team to the next
	Between = 0.15 // from one team to another
)

// When a pace is offered to be planned with.
const (
	offerRuns = 3
	offerMu   = 0.05
)

// Pace is what runs say of a team.
type Pace struct {
	Runs  int
	Mu    float64 // of the logarithm; 0 before the first run
	Sigma float64 // of the logarithm of the next run
}

// Of is the pace of runs, by their ratios of actual to planned length. Ratios that are not
// greater than zero say nothing and are passed over.
func Of(ratios []float64) Pace {
	p, sum := Pace{}, 0.0
	for _, r := range ratios {
		if x := math.Log(r); r > 0 && !math.IsInf(x, 0) && !math.IsNaN(x) {
			p.Runs++
			sum += x
		}
	}
	weight := float64(p.Runs)/(Within*Within) + 1/(Between*Between)
	p.Mu = sum / (Within * Within) / weight
	p.Sigma = math.Sqrt(Within*Within + 1/weight)
	return p
}

// Times is what planned lengths are multiplied by to be the team's own.
func (p Pace) Times() float64 { return math.Exp(p.Mu) }

// Offered tells whether it is sure and great enough to be offered: it is never taken by
// itself.
func (p Pace) Offered() bool { return p.Runs >= offerRuns && math.Abs(p.Mu) > offerMu }
