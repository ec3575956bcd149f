package share

import (
	"fmt"

	"cuestart/core/ground"
)

// Lengths of a plan of a ground, in mm.
const (
	groundStep   = 4.2 // from one line in a place to the next
	groundInset  = 2.0
	groundNarrow = 18.0 // places as narrow as that are written beside
)

// Ground draws the plan of a ground to scale, at most so high, with lines written in each
// place below its name; what has no room is counted.
func (p *Paper) Ground(places []ground.Place, lines [][]string, high float64) {
	low, top := ground.Bounds(places)
	each := min(p.width()/max(1, top.X-low.X), high/max(1, top.Y-low.Y))
	p.Together((top.Y-low.Y)*each + 6)
	y0 := p.pdf.GetY() + 2
	at := func(q ground.Point) (x, y float64) { return paperEdge + (q.X-low.X)*each, y0 + (q.Y-low.Y)*each }
	p.artifact(func() {
		for _, place := range places {
			corners := place.Corners()
			p.pdf.MoveTo(at(corners[3]))
			for _, c := range corners {
				p.pdf.LineTo(at(c))
			}
			p.pdf.DrawPath("D")
		}
	})
	for i, place := range places {
		from, to := ground.Bounds(places[i : i+1])
		x, y := at(from)
		wide, deep := (to.X-from.X)*each-2*groundInset, (to.Y-from.Y)*each-2*groundInset
		p.write(append([]string{place.Name}, lines[i]...), x+groundInset, y+groundInset, wide, deep)
	}
	p.pdf.SetXY(paperEdge, y0+(top.Y-low.Y)*each+3)
}

// write puts lines into a box, the first one larger, as many as it has room for; in one that
// is narrow they stand upright.
func (p *Paper) write(lines []string, x, y, wide, deep float64) {
	upright := wide < groundNarrow && deep > wide
	if upright {
		wide, deep = deep, wide
	}
	most := max(1, int(deep/groundStep))
	if len(lines) > most {
		lines = append(lines[:max(1, most-1):max(1, most-1)],
			fmt.Sprintf("+ %d more", len(lines)-max(1, most-1)))[:most]
	}
	for n, line := range lines {
		line = p.clean(line)
		size := 10.0
		if n == 0 {
			size = 12
		}
		p.pdf.SetFont("figure", "", size)
		for text := []rune(line); len(text) > 1 && p.pdf.GetStringWidth(line) > wide; line = string(text) + "…" {
			text = text[:len(text)-1]
		}
		p.mark("P", func() {
			if !upright {
				p.at(x, y+float64(n)*groundStep, line)
				return
			}
			p.pdf.TransformBegin()
			p.pdf.TransformRotate(90, x, y+wide)
			p.at(x, y+wide+float64(n)*groundStep, line)
			p.pdf.TransformEnd()
		})
	}
}
