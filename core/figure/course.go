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
			return fmt.Errorf("course: the %s stands at two numbers of metres, a line and a box between two places",
				m.Is)
		}
	}
	for _, w := range c.Ways {
		if len(w.Over) < 2 || len(w.Over) > 24 ||
			slices.ContainsFunc(w.Over, func(p Place) bool { return !p.holds() }) {
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

// draw is the picture of a course, 110 wide at the most.
func (c *Course) draw() *Picture {
	room := c.room()
	scale := 110 / max(1, room.Right-room.Left, (room.Top-room.Bottom)*1.3)
	place := func(p Place) Point { return Point{p[0] * scale, p[1] * scale} }
	x := &Picture{Box: Box{Left: room.Left*scale - 9, Right: room.Right*scale + 9, Top: room.Top*scale + 9,
		Bottom: room.Bottom*scale - 9}}
	for _, m := range c.Marks {
		x.mark(m, place, scale)
	}
	for _, foot := range c.Feet {
		p, tone := place(foot.At), InkFar
		if foot.Left {
			tone = Ink
		}
		x.line(tone, 2.6, Point{p.X, p.Y - 1.7}, Point{p.X, p.Y + 1.8})
	}
	for _, way := range c.Ways {
		points := way.points(place)
		switch {
		case way.By != "":
			width := 2.0
			if way.By == "ball" {
				width = 1.4
			}
			x.Strokes = append(x.Strokes, Stroke{Tone: Thing, Width: width, Points: points, Dashed: true})
		case way.Easy:
			x.arrow(Flare, points)
			x.Strokes[len(x.Strokes)-2].Dashed = true
		default:
			x.arrow(Flare, points)
		}
	}
	return x
}

// Run is the way of who does the drill, as its picture has it.
func (c *Course) Run() []Point {
	room := c.room()
	scale := 110 / max(1, room.Right-room.Left, (room.Top-room.Bottom)*1.3)
	return c.Ways[0].points(func(p Place) Point { return Point{p[0] * scale, p[1] * scale} })
}

// points are the places of a way; of a bent one with some between, each piece leaving in
// the direction of its neighbours.
func (w Way) points(place func(Place) Point) (points []Point) {
	const between = 6
	of := func(i int) Point { return place(w.Over[max(0, min(i, len(w.Over)-1))]) }
	for i := range w.Over {
		points = append(points, of(i))
		if !w.Bent || i == len(w.Over)-1 {
			continue
		}
		a, b, c, d := of(i-1), of(i), of(i+1), of(i+2)
		for n := 1; n < between; n++ {
			t := float64(n) / between
			at := func(a, b, c, d float64) float64 { // Catmull and Rom
				return 0.5 * (2*b + (c-a)*t + (2*a-5*b+4*c-d)*t*t + (3*b-a-3*c+d)*t*t*t)
			}
			points = append(points, Point{at(a.X, b.X, c.X, d.X), at(a.Y, b.Y, c.Y, d.Y)})
		}
	}
	return points
}

// mark draws what stands on a course.
func (x *Picture) mark(m Mark, place func(Place) Point, scale float64) {
	at, to := place(m.At), Point{}
	if len(m.To) == 2 {
		to = place(m.To)
	}
	switch m.Is {
	case "line":
		x.line(Chalk, 2.5, at, to)
	case "box":
		x.line(Chalk, 2.5, at, Point{to.X, at.Y}, to, Point{at.X, to.Y}, at)
	case "ladder":
		x.line(InkFar, 1.2, at, Point{to.X, at.Y})
		x.line(InkFar, 1.2, Point{at.X, to.Y}, to)
		for rung := at.X; rung <= to.X+0.1; rung += 0.5 * scale {
			x.line(InkFar, 1.2, Point{rung, at.Y}, Point{rung, to.Y})
		}
	case "cone":
		x.line(Ink, 0, Point{at.X, at.Y + 4}, Point{at.X + 3.5, at.Y - 2}, Point{at.X - 3.5, at.Y - 2})
	case "hurdle":
		x.line(Thing, 2, Point{at.X, at.Y - 5}, Point{at.X, at.Y + 5})
	case "ball":
		x.circle(Ink, 1.8, 3, at)
	case "player":
		x.circle(Ink, 0, 4.5, at)
	case "other":
		x.circle(Thing, 2, 4, at)
	}
}

// room is the room of a course, in metres.
func (c *Course) room() Box {
	x := Box{Left: math.Inf(1), Right: math.Inf(-1), Top: math.Inf(-1), Bottom: math.Inf(1)}
	add := func(p Place) {
		if len(p) == 2 {
			x = x.With(Box{Left: p[0], Right: p[0], Top: p[1], Bottom: p[1]})
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
