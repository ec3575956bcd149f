// Package chalk writes the figures of drills as SVG: small, still, moving, and as it is not
// done. Their tones are classes of the page's style, so that they follow its look and print.
package chalk

import (
	"fmt"
	"html/template"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/figure"
)

// Drawn is how a drill looks, for a template. What is not drawn shows nothing.
type Drawn struct {
	figure *figure.Figure
	words  string
}

// Of is how a drill looks. A screen reader is told its name and its cues.
func Of(f *figure.Figure, d *drill.Drill) Drawn {
	words := d.Name
	if len(d.Cues) > 0 {
		words += ": " + strings.Join(d.Cues, "; ")
	}
	return Drawn{f, words}
}

// Is tells whether there is a figure.
func (d Drawn) Is() bool { return d.figure != nil }

// Moves tells whether it is one that moves.
func (d Drawn) Moves() bool {
	return d.Is() && (d.figure.View == figure.Above || len(d.figure.Poses) > 1 && !d.figure.Holds)
}

// Near is the side of the body that is nearer to who looks, "left" or "right": that of a
// drill that is done one side at a time. From above there is none.
func (d Drawn) Near() string {
	switch {
	case !d.Is() || d.figure.View == figure.Above:
		return ""
	case d.figure.View == figure.Front:
		return "left"
	}
	return "right"
}

// Small is it at a glance, beside its name: a screen reader is told nothing.
func (d Drawn) Small() template.HTML {
	if !d.Is() {
		return ""
	}
	return still(d.figure.Small(), "", 0)
}

// Still is it on paper.
func (d Drawn) Still() template.HTML {
	if !d.Is() {
		return ""
	}
	return still(d.figure.Still(), d.words, large)
}

// Picture is it as strokes, for a paper; nil where it is not drawn.
func (d Drawn) Picture() *figure.Picture {
	if !d.Is() {
		return nil
	}
	return d.figure.Still()
}

// Fault is how a drill is not done, and what of it is wrong.
type Fault struct {
	Says    string
	Picture template.HTML
	Drawing *figure.Picture // the same as strokes
}

// Faults are how it is not done.
func (d Drawn) Faults() (all []Fault) {
	if !d.Is() {
		return nil
	}
	for _, w := range d.figure.NotSo {
		x := d.figure.Fault(w)
		all = append(all, Fault{w.Says, still(x, "Not like this: "+w.Says, less), x})
	}
	return all
}

// File is the figure as a file of its own, with the tones of the plain look.
func File(f *figure.Figure, words string) string {
	text := string(still(f.Still(), words, large))
	head, rest, _ := strings.Cut(text, ">")
	return strings.Replace(head, "<svg", `<svg xmlns="http://www.w3.org/2000/svg"`, 1) + "><style>" + plainStyle +
		"</style>" + rest
}

// plainStyle are the tones of a file that stands alone.
const plainStyle = ".fig{stroke-width:5.5}.fig path,.fig circle{fill:none;stroke-linecap:round;stroke-linejoin:round}" +
	".t0{stroke:#17231f}.t1{stroke:#8e928b}.t2{stroke:#5a635e}.t3{stroke:#a9aba3}.t4{stroke:#b7b8b1}" +
	".t5{stroke:#d0cec5}.t6{stroke:#707772}.t7{stroke:#f6f1e7}.t8{stroke:#d5cbb6}.t9{stroke:#c63d16}" +
	".fig " +
	".ff{stroke:none}.ff.t0{fill:#17231f}.ff.t2{fill:#5a635e}.ff.t4{fill:#b7b8b1}.ff.t7{fill:#f6f1e7}" +
	".ff.t9{fill:#c63d16}.fd{stroke-dasharray:2 4}"

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

func still(x *figure.Picture, words string, scale float64) template.HTML {
	var w writer
	w.open(x.Box, words, scale)
	for _, s := range x.Strokes {
		w.stroke(s)
	}
	return w.close()
}

// How large a picture is by itself, in pixels for a hundredth of the body's height, so that
// bodies beside each other are of one size. A page may make it smaller.
const (
	large = 1.4
	less  = 0.95
)

// open begins a picture; without words it is an ornament, without a scale as large as the
// page makes it.
func (w *writer) open(x figure.Box, words string, scale float64) {
	said := `aria-hidden="true"`
	if words != "" {
		said = `role="img" aria-label="` + template.HTMLEscapeString(words) + `"`
	}
	wide, high := x.Right-x.Left, x.Top-x.Bottom
	if scale > 0 {
		said = fmt.Sprintf(`width="%.0f" height="%.0f" %s`, wide*scale, high*scale, said)
	}
	w.add(`<svg class="fig" viewBox="%s %s %s %s" preserveAspectRatio="xMidYMax" %s>`, n(x.Left), n(-x.Top), n(wide),
		n(high), said)
}

func (w *writer) close() template.HTML {
	w.WriteString("</svg>")
	return template.HTML(w.String()) // made here of numbers, and of words that are escaped
}

// stroke writes a line, a shape or a circle.
func (w *writer) stroke(s figure.Stroke) {
	class := fmt.Sprintf("t%d", s.Tone)
	if s.Width == 0 {
		class = "ff " + class
	}
	if s.Dashed {
		class += " fd"
	}
	wide := "" // a limb's, by the style
	if s.Width > 0 && s.Width != figure.LimbWidth {
		wide = ` stroke-width="` + n(s.Width) + `"`
	}
	switch {
	case s.Radius > 0:
		w.add(`<circle class="%s"%s cx="%s" cy="%s" r="%s"/>`, class, wide, n(s.Points[0].X), n(-s.Points[0].Y),
			n(s.Radius))
	case s.Width == 0:
		w.add(`<path class="%s" d="%sZ"/>`, class, path(s.Points))
	default:
		w.add(`<path class="%s"%s d="%s"/>`, class, wide, path(s.Points))
	}
}
