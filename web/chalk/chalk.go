// Package chalk draws the figures of drills as SVG: still, moving, and as it is not done.
// Their colours are classes of the page's style, so that they follow its look and print.
package chalk

import (
	"fmt"
	"html/template"
	"strconv"
	"strings"

	"cuestart/core/figure"
)

// Widths of lines, in hundredths of the body's height.
const (
	limb  = 5.5
	trunk = 8.0
	edge  = 2.2 // of paper, around what lies before the trunk
	room  = 5.0 // around a picture
)

// writer writes the text of a picture. Up is down there: y is turned.
type writer struct{ strings.Builder }

func (w *writer) add(format string, args ...any) { fmt.Fprintf(&w.Builder, format, args...) }

// n is a number with as few digits as will do.
func n(x float64) string {
	text := strings.TrimSuffix(strconv.FormatFloat(x, 'f', 1, 64), ".0")
	if text == "-0" {
		return "0"
	}
	return text
}

func at(p figure.Point) string { return n(p.X) + " " + n(-p.Y) }

func path(points []figure.Point) string {
	text := make([]string, len(points))
	for i, p := range points {
		text[i] = at(p)
	}
	return "M" + strings.Join(text, "L")
}

// open begins a picture of that room, with the ground.
func (w *writer) open(box figure.Box, title string) {
	left, width := box.Left-room, box.Right-box.Left+2*room
	top, height := box.Top+room, box.Top-box.Bottom+room+3
	w.frame(left, -top, width, height, title)
	w.add(`<path class="fig-ground" d="M%s 3H%s"/>`, n(left), n(left+width))
}

func (w *writer) frame(left, top, width, height float64, title string) {
	w.add(`<svg class="fig" viewBox="%s %s %s %s" role="img" aria-label="%s">`, n(left), n(top), n(width), n(height), template.HTMLEscapeString(title))
}

func (w *writer) close() template.HTML {
	w.add("</svg>")
	return template.HTML(w.String()) // made here of numbers, and of a title that is escaped
}

// body draws a body.
func (w *writer) body(f *figure.Figure, b figure.Body, class string) {
	w.add(`<g class="%s">`, class)
	lines := f.Lines(b)
	for i, l := range lines {
		wide, kind := limb, ""
		if l.Trunk {
			wide = trunk
		}
		if l.Far {
			kind = ` class="fig-far"`
		}
		if i == len(lines)-1 && !f.Frontal() {
			w.head(b)
			w.add(`<path class="fig-edge" stroke-width="%s" d="%s"/>`, n(limb+edge), path(l.Points))
		}
		w.add(`<path%s stroke-width="%s" d="%s"/>`, kind, n(wide), path(l.Points))
	}
	if f.Frontal() {
		w.head(b)
	}
	w.add("</g>")
}

func (w *writer) head(b figure.Body) {
	h := b[figure.Head]
	w.add(`<circle cx="%s" cy="%s" r="%s"/>`, n(h.X), n(-h.Y), n(figure.HeadRadius))
}

// Still is a drill as it is done: its last pose in ink, the first faint, and an arrow along
// the way of what travels most.
func Still(f *figure.Figure, title string) template.HTML {
	var w writer
	if f.View == figure.Above {
		w.course(f.Course, title, false)
		return w.close()
	}
	if row := f.Strip(); row != nil {
		w.strip(f, row, title)
		return w.close()
	}
	bodies := f.Bodies()
	first, last := bodies[0], bodies[len(bodies)-1]
	if f.Goes() != 0 {
		bodies = bodies[:1]
	}
	box := f.Around(bodies)
	way := f.Farthest()
	if f.Goes() != 0 { // one step says it
		way = f.Onward(&box)
		last = first
	}
	for _, p := range way {
		box.Left, box.Right, box.Top = min(box.Left, p.X-5), max(box.Right, p.X+5), max(box.Top, p.Y+5)
	}
	w.open(box, title)
	w.standing(f)
	if len(bodies) > 1 && !f.Still {
		w.body(f, first, "fig-faint")
	}
	w.body(f, last, "fig-ink")
	w.held(f, last)
	w.arrow(way)
	return w.close()
}

// strip draws bodies beside each other, the last in ink.
func (w *writer) strip(f *figure.Figure, row []figure.Body, title string) {
	w.open(figure.BoxOf(limb, row...), title)
	for i, b := range row {
		class := "fig-ink"
		if i < len(row)-1 {
			class = "fig-before"
		}
		w.body(f, b, class)
		w.held(f, b)
	}
}

// arrow draws a way with its end.
func (w *writer) arrow(way []figure.Point) {
	if len(way) < 3 {
		return
	}
	w.add(`<path class="fig-way" d="%s"/>`, path(way))
	w.tip(way[len(way)-3], way[len(way)-1])
}

// tip draws the end of an arrow.
func (w *writer) tip(before, end figure.Point) {
	dx, dy := end.X-before.X, end.Y-before.Y
	long := max(0.1, hypot(dx, dy))
	dx, dy = dx/long, dy/long
	point := func(on, aside float64) string {
		return at(figure.Point{X: end.X + on*dx - aside*dy, Y: end.Y + on*dy + aside*dx})
	}
	w.add(`<path class="fig-tip" d="M%sL%sL%sZ"/>`, point(4, 0), point(-3, 4), point(-3, -4))
}

// NotSo is a fault: the pose, and a cross where it goes wrong.
func NotSo(f *figure.Figure, wrong figure.Wrong, title string) template.HTML {
	var w writer
	b := f.Stand(wrong.Pose)
	w.open(f.Around([]figure.Body{b}), title+": "+wrong.Says)
	w.standing(f)
	w.body(f, b, "fig-wrong")
	w.held(f, b)
	x, y := b.At(wrong.Joint).X, -b.At(wrong.Joint).Y
	w.add(`<path class="fig-cross" d="M%s %sl11 11m0-11l-11 11"/>`, n(x-5.5), n(y-5.5))
	return w.close()
}
