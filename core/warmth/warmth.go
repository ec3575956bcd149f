// Package warmth estimates how much warmer working muscle is than at rest.
//
// The warmth Δ, in °C above rest, follows dΔ/dt = (A·e − Δ)/τ, with e the effort from 0 to 1.
// Effort is constant within a piece of work, so each piece is solved exactly, without steps. It
// is an estimate to plan by, no measurement: always label it so.
package warmth

import (
	"math"

	"cuestart/core/plan"
)

// Constants of the model.
const (
	Full   = 4.5    // A: °C above rest that full effort tends to
	Rising = 4 * 60 // τ in seconds while warming (Saltin 1968; Bishop 2003: most of it within 5 minutes)
	Ready  = 1.0    // °C above rest from which deep work is taken to be prepared; a coach's default
	Warm   = 2.0    // °C above rest from which the body counts as warm
	Layers = 1.4    // what layers on multiply the falling τ by
)

// Air is what cools the players.
type Air struct {
	Celsius float64 `json:"air_celsius"`
	Layers  bool    `json:"layers"` // warm layers are worn between the pieces of work
}

// falling is τ in seconds while cooling, by band: 20 minutes (about 2 °C lost in
// 15 idle minutes, Mohr 2004), less in the cold, more in heat.
var falling = map[plan.Air]float64{plan.Cold: 14 * 60, plan.Cool: 17 * 60, plan.Mild: 20 * 60, plan.Warm: 24 * 60,
	plan.Hot: 24 * 60}

// Tau is the time in seconds in which warmth falls to 1/e of itself; layers on
// make it longer.
func (a Air) Tau() float64 {
	tau := falling[plan.AirOf(a.Celsius)]
	if a.Layers {
		tau *= Layers
	}
	return tau
}

// Piece is a time of constant effort.
type Piece struct {
	Effort  float64 `json:"effort"` // 0 to 1
	Seconds float64 `json:"seconds"`
	Air     *Air    `json:"-"` // where it is done, if not in the air of all
}

// Curve is the warmth over a run of pieces.
type Curve struct {
	pieces []Piece
	warmth []float64 // at the beginning of each piece, and at the end of the last
	air    Air
}

// Run is the curve of the pieces, one after the other, from rest.
func Run(pieces []Piece, air Air) *Curve {
	c := &Curve{pieces: pieces, warmth: make([]float64, 1, len(pieces)+1), air: air}
	for _, p := range pieces {
		c.warmth = append(c.warmth, c.after(c.warmth[len(c.warmth)-1], p, p.Seconds))
	}
	return c
}

// tau is the time constant from warmth towards what a piece's effort tends to.
func (c *Curve) tau(warmth float64, p Piece) float64 {
	switch {
	case Full*p.Effort > warmth:
		return Rising
	case p.Air != nil:
		return p.Air.Tau()
	}
	return c.air.Tau()
}

// after is the warmth after some seconds of a piece. It moves towards one target,
// so it never turns within it.
func (c *Curve) after(warmth float64, p Piece, seconds float64) float64 {
	target := Full * p.Effort
	return target + (warmth-target)*math.Exp(-seconds/c.tau(warmth, p))
}

// At is the warmth so many seconds after the beginning; before it 0, after the
// last piece what it ended with.
func (c *Curve) At(seconds float64) float64 {
	if seconds <= 0 {
		return 0
	}
	for i, p := range c.pieces {
		if seconds <= p.Seconds {
			return c.after(c.warmth[i], p, seconds)
		}
		seconds -= p.Seconds
	}
	return c.End()
}

// End is the warmth after the last piece.
func (c *Curve) End() float64 { return c.warmth[len(c.warmth)-1] }

// Peak is the highest warmth. It lies where a piece begins or ends.
func (c *Curve) Peak() (peak float64) {
	for _, w := range c.warmth {
		peak = max(peak, w)
	}
	return peak
}

// SecondsAbove is how long the warmth is above level.
func (c *Curve) SecondsAbove(level float64) (seconds float64) {
	for i, p := range c.pieces {
		from, to := c.warmth[i], c.warmth[i+1]
		switch {
		case from > level && to > level:
			seconds += p.Seconds
		case from > level || to > level:
			// The moment of crossing, by solving for it.
			target := Full * p.Effort
			crossing := c.tau(from, p) * math.Log((from-target)/(level-target))
			if from > level {
				seconds += crossing
			} else {
				seconds += p.Seconds - crossing
			}
		}
	}
	return seconds
}

// FirstAbove is the moment, in seconds from the beginning, at which warmth first exceeds level;
// false if it never does.
func (c *Curve) FirstAbove(level float64) (seconds float64, ever bool) {
	for i, p := range c.pieces {
		from, to := c.warmth[i], c.warmth[i+1]
		if from > level {
			return seconds, true
		}
		if to > level {
			target := Full * p.Effort
			return seconds + c.tau(from, p)*math.Log((from-target)/(level-target)), true
		}
		seconds += p.Seconds
	}
	return 0, false
}

// Effort is the effort at a moment, in seconds from the beginning.
func (c *Curve) Effort(seconds float64) float64 {
	for _, p := range c.pieces {
		if seconds < p.Seconds {
			return p.Effort
		}
		seconds -= p.Seconds
	}
	return 0
}

// Seconds is the length of the curve.
func (c *Curve) Seconds() (total float64) {
	for _, p := range c.pieces {
		total += p.Seconds
	}
	return total
}

// Onward is the warmth after pieces that begin at a warmth, in °C above rest.
func Onward(from float64, pieces []Piece, air Air) float64 {
	c := &Curve{air: air}
	for _, p := range pieces {
		from = c.after(from, p, p.Seconds)
	}
	return from
}
