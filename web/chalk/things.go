package chalk

import (
	"math"

	"cuestart/core/figure"
)

// standing draws what stands around.
func (w *writer) standing(f *figure.Figure) {
	for _, p := range f.Props {
		switch p.Is {
		case "wall":
			w.add(`<path class="fig-thing" stroke-width="3" d="M%s 3V%s"/>`, n(p.At), n(-max(p.High, 100)))
		case "post":
			w.add(`<path class="fig-thing" stroke-width="2" d="M%s 3V%s"/>`, n(p.At), n(-max(p.High, 90)))
		case "box":
			w.add(`<rect class="fig-box" x="%s" y="%s" width="%s" height="%s"/>`, n(p.At), n(-p.High), n(p.Wide), n(p.High+2))
		case "hurdle":
			w.add(`<path class="fig-thing" stroke-width="2" d="M%s 3V%sm-5 0h10"/>`, n(p.At), n(-p.High))
		case "line":
			w.add(`<path class="fig-line" d="M%s 0v6"/>`, n(p.At))
		case "partner":
			w.body(f, f.Partner(p), "fig-partner")
		}
	}
}

// held draws what hangs on the joints of a body.
func (w *writer) held(f *figure.Figure, b figure.Body) {
	for _, p := range f.Props {
		if p.In == "" {
			continue
		}
		if p.Is == "band" {
			w.add(`<path class="fig-band" d="%s"/>`, band(p, b))
			continue
		}
		w.add(`<g transform="translate(%s)">`, at(b.At(p.In)))
		w.thing(p)
		w.add("</g>")
	}
}

// band is the way of a band.
func band(p figure.Prop, b figure.Body) string { return "M" + at(b.At(p.In)) + "L" + at(p.Tied(b)) }

// thing draws what is held, from the joint.
func (w *writer) thing(p figure.Prop) {
	switch p.Is {
	case "roller":
		w.add(`<circle class="fig-box" cx="%s" cy="%s" r="5.5"/>`, n(p.At), n(5.5+2-p.High))
	case "ball":
		w.add(`<circle class="fig-ball" cx="%s" cy="%s" r="%s"/>`, n(p.At), n(-p.High), n(max(p.Wide, 7)/2))
	case "stick":
		sin, cos := math.Sincos(p.Turn * math.Pi / 180)
		w.add(`<path class="fig-thing" stroke-width="2.6" d="M%s %sL%s %s"/>`, n(-p.At*sin), n(-p.At*cos), n((p.Wide-p.At)*sin), n((p.Wide-p.At)*cos))
	}
}

// course draws a piece of ground from above, 110 long.
func (w *writer) course(c *figure.Course, title string, moving bool) {
	box := c.Box()
	scale := 110 / max(1, box.Right-box.Left, (box.Top-box.Bottom)*1.3)
	place := func(p figure.Place) figure.Point { return figure.Point{X: p[0] * scale, Y: p[1] * scale} }
	left, top := box.Left*scale-9, -box.Top*scale-9
	w.frame(left, top, (box.Right-box.Left)*scale+18, (box.Top-box.Bottom)*scale+18, title)
	for _, m := range c.Marks {
		w.mark(m, place, scale)
	}
	for _, f := range c.Feet {
		class := "fig-foot"
		if f.Left {
			class += " fig-left"
		}
		p := place(f.At)
		w.add(`<path class="%s" d="M%s %sv-3.5"/>`, class, n(p.X), n(-p.Y+1.7))
	}
	for i, way := range c.Ways {
		points := make([]figure.Point, len(way.Over))
		for k, p := range way.Over {
			points[k] = place(p)
		}
		w.way(way, points, moving && i == 0)
	}
}

func (w *writer) way(way figure.Way, points []figure.Point, moving bool) {
	class := "fig-way"
	switch {
	case way.By != "":
		class = "fig-" + map[bool]string{true: "flight", false: "other"}[way.By == "ball"]
	case way.Easy:
		class += " fig-easy"
	}
	d := path(points)
	if way.Bent {
		d = bent(points)
	}
	w.add(`<path class="%s" d="%s"/>`, class, d)
	end := len(points) - 1
	if way.By == "" {
		w.tip(points[end-1], points[end])
	}
	if moving {
		w.add(`<circle class="fig-dot fig-moving" r="4.5"><animateMotion dur="4s" repeatCount="indefinite" path="%s"/></circle>`, d)
	}
}

// bent is a curve through its points: each piece leaves in the direction of its
// neighbours.
func bent(points []figure.Point) string {
	d := "M" + at(points[0])
	of := func(i int) figure.Point { return points[max(0, min(i, len(points)-1))] }
	for i := range len(points) - 1 {
		a, b, c, e := of(i-1), of(i), of(i+1), of(i+2)
		out := figure.Point{X: b.X + (c.X-a.X)/6, Y: b.Y + (c.Y-a.Y)/6}
		in := figure.Point{X: c.X - (e.X-b.X)/6, Y: c.Y - (e.Y-b.Y)/6}
		d += "C" + at(out) + " " + at(in) + " " + at(c)
	}
	return d
}

// mark draws what stands on a course.
func (w *writer) mark(m figure.Mark, place func(figure.Place) figure.Point, scale float64) {
	p := place(m.At)
	x, y := p.X, -p.Y
	switch m.Is {
	case "line":
		w.add(`<path class="fig-ground" d="M%sL%s"/>`, at(p), at(place(m.To)))
	case "box":
		to := place(m.To)
		w.add(`<path class="fig-ground" d="M%sH%sV%sH%sZ"/>`, at(p), n(to.X), n(-to.Y), n(x))
	case "ladder":
		to := place(m.To)
		w.add(`<path class="fig-rail" d="M%sH%sM%s %sH%s`, at(p), n(to.X), n(x), n(-to.Y), n(to.X))
		for rung := x; rung <= to.X+0.1; rung += 0.5 * scale {
			w.add("M%s %sV%s", n(rung), n(y), n(-to.Y))
		}
		w.add(`"/>`)
	case "cone":
		w.add(`<path class="fig-tip fig-cone" d="M%s %sl3.5 6h-7z"/>`, n(x), n(y-4))
	case "hurdle":
		w.add(`<path class="fig-thing" stroke-width="2" d="M%s %sv10"/>`, n(x), n(y-5))
	case "ball":
		w.add(`<circle class="fig-ball" cx="%s" cy="%s" r="3"/>`, n(x), n(y))
	default:
		w.add(`<circle class="fig-%s" cx="%s" cy="%s" r="4.5"/>`, m.Is, n(x), n(y))
	}
}
