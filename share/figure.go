package share

import (
	"math"

	"cuestart/core/figure"
)

// inks are the tones of a figure on paper, in shares of red, green and blue.
var inks = [figure.Tones][3]int{figure.Ink: {23, 35, 31}, figure.InkFar: {150, 154, 152}, figure.Grey: {92, 100, 97},
	figure.GreyFar: {175, 178, 177},
	figure.Faint:   {192, 196, 194}, figure.FaintFar: {220, 222, 221}, figure.Thing: {120, 126, 124},
	figure.Paper: {255, 255, 255}, figure.Chalk: {205, 198, 184}, figure.Flare: {198, 61, 22}}

// picture draws a figure into a box, its ground at the bottom.
func (p *Paper) picture(x *figure.Picture, left, top, wide, high float64) {
	room := x.Box
	scale := min(wide/(room.Right-room.Left), high/(room.Top-room.Bottom), high/90)
	place := func(q figure.Point) (float64, float64) {
		return left + (q.X-room.Left)*scale, top + high - (q.Y-room.Bottom)*scale
	}
	p.pdf.SetLineCapStyle("round")
	p.pdf.SetLineJoinStyle("round")
	for _, s := range x.Strokes {
		ink := inks[s.Tone]
		p.pdf.SetDrawColor(ink[0], ink[1], ink[2])
		p.pdf.SetFillColor(ink[0], ink[1], ink[2])
		style := "D"
		if s.Width == 0 {
			style = "F"
		} else {
			p.pdf.SetLineWidth(s.Width * scale)
		}
		if s.Dashed {
			p.pdf.SetDashPattern([]float64{2 * scale, 4 * scale}, 0)
		}
		at, down := place(s.Points[0])
		if s.Radius > 0 {
			p.pdf.Circle(at, down, s.Radius*scale, style)
		} else {
			p.pdf.MoveTo(at, down)
			for _, q := range s.Points[1:] {
				p.pdf.LineTo(place(q))
			}
			p.pdf.DrawPath(style)
		}
		p.pdf.SetDashPattern(nil, 0)
	}
	p.pdf.SetDrawColor(0, 0, 0)
	p.pdf.SetFillColor(0, 0, 0)
	p.pdf.SetLineCapStyle("butt")
	p.pdf.SetLineJoinStyle("miter")
	p.pdf.SetLineWidth(0.2)
}

// linesOf is how many lines stand at least beside a picture of that width, in mm.
func (p *Paper) linesOf(wide float64) int { return int(math.Ceil(0.85 * wide / p.line)) }

// pictures draws the figures of lines, as ornaments: what they show is said beside them.
func (p *Paper) pictures(lines []Line, x, y float64) {
	for i, line := range lines {
		if line.Picture != nil {
			p.artifact(func() {
				p.picture(line.Picture, x, y+float64(i)*p.line, line.Wide-1, float64(p.linesOf(line.Wide))*p.line-0.4)
			})
		}
	}
}
