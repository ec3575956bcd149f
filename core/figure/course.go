package figure

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// Course is a piece of ground from above: what stands on it and who runs where. Places are
// metres, x across the picture and y up it.
type Course struct {
	Marks []Mark `json:"marks,omitempty"`
	Ways  []Way  `json:"ways"`           // 1 to 6
	Feet  []Foot `json:"feet,omitempty"` // single steps, in order
}

// Mark is what stands on the ground.
type Mark struct {
	Is string `json:"is"` // one of Marks
	At Place  `json:"at"`
	To Place  `json:"to,omitempty"` // the other end of a line, the other corner of a box or a ladder
}

// Marks are the things that stand on a course.
var Marks = []string{"ball", "box", "cone", "hurdle", "ladder", "line", "other", "player"}

// Way is where somebody goes.
type Way struct {
	By   string  `json:"by,omitempty"`   // "other", "ball", or nobody in particular: who does the drill
	Over []Place `json:"over"`           // 2 to 24 places
	Easy bool    `json:"easy,omitempty"` // walked or jogged
	Bent bool    `json:"bent,omitempty"` // in a curve through its places
}

// Place is metres across, and up.
type Place []float64

// Foot is where a foot lands.
type Foot struct {
	At   Place `json:"at"`
	Left bool  `json:"left,omitempty"`
}

// Point is the place as a point.
func (p Place) Point() Point { return Point{p[0], p[1]} }

// validate says what no course is.
func (c *Course) validate() error {
	if c == nil || len(c.Ways) == 0 || len(c.Ways) > 6 {
		return fmt.Errorf("course: from above there are 1 to 6 ways to go")
	}
	if len(c.Marks) > 24 || len(c.Feet) > 24 {
		return fmt.Errorf("course: no more than 24 marks and 24 steps")
	}
	for _, m := range c.Marks {
		if !slices.Contains(Marks, m.Is) {
			return fmt.Errorf("course: %q is none of %s", m.Is, strings.Join(Marks, ", "))
		}
		both := []string{"line", "box", "ladder"}
		if !m.At.holds() || len(m.To) > 0 && !m.To.holds() || slices.Contains(both, m.Is) && len(m.To) == 0 {
			return fmt.Errorf("course: the %s stands at two numbers of metres, a line and a box between two places", m.Is)
		}
	}
	for _, w := range c.Ways {
		if len(w.Over) < 2 || len(w.Over) > 24 || slices.ContainsFunc(w.Over, func(p Place) bool { return !p.holds() }) {
			return fmt.Errorf("course: a way goes over 2 to 24 places, each two numbers of metres")
		}
	}
	if slices.ContainsFunc(c.Feet, func(f Foot) bool { return !f.At.holds() }) {
		return fmt.Errorf("course: a step is at two numbers of metres")
	}
	return nil
}

// holds tells whether a place is one, within 100 m.
func (p Place) holds() bool {
	return len(p) == 2 && !slices.ContainsFunc(p, func(n float64) bool { return !within(n, -100, 100) })
}

// Box is the room of a course, in metres.
func (c *Course) Box() Box {
	x := Box{math.Inf(1), math.Inf(-1), math.Inf(-1), math.Inf(1)}
	add := func(p Place) {
		if len(p) == 2 {
			x = Box{min(x.Left, p[0]), max(x.Right, p[0]), max(x.Top, p[1]), min(x.Bottom, p[1])}
		}
	}
	for _, m := range c.Marks {
		add(m.At)
		add(m.To)
	}
	for _, w := range c.Ways {
		for _, p := range w.Over {
			add(p)
		}
	}
	return x
}
