package chalk

import (
	"fmt"
	"html"
	"html/template"
	"math"
	"strings"

	"cuestart/core/ground"
	"cuestart/core/measure"
)

// Spot is a place on a plan of a ground, and what is to be seen of it.
type Spot struct {
	ground.Place
	Lines  []string // what is written in it, below its name
	People int      // drawn as dots, as far as there is room
	Class  string   // here, next, full, lost or ""
	Key    string   // by which script finds it; "": it does not
}

// Way is a walk on a plan of a ground.
type Way struct {
	From, To ground.Place
	Says     string
	Tight    bool // there are too few seconds for it
}

// Lengths of a plan of a ground, in its own units.
const (
	groundEdge  = 8  // around it
	groundName  = 17 // size of names
	groundLine  = 15 // of what stands below
	groundStep  = 18
	groundTight = 15 // where there is little room
	groundDot   = 3.2
	dotStep     = 9.5
	groundSmall = 60 // wide: a place whose name may stand below it
	wayShort    = 46 // of the middle of a place that a walk leads to
	bar         = 10 // metres, about, of the bar that shows the scale
)

// Ground draws a plan of a ground to scale, as wide as width and no higher than most; label
// says what it is. Its bar is in the units of in, and so is each, the width of one of them.
func Ground(label string, in measure.System, spots []Spot, ways []Way, width, most float64) template.HTML {
	if len(spots) == 0 {
		return ""
	}
	places := make([]ground.Place, len(spots))
	for i := range spots {
		places[i] = spots[i].Place
	}
	low, high := ground.Bounds(places)
	each := math.Min((width-2*groundEdge)/math.Max(1, high.X-low.X),
		(most-2*groundEdge-groundStep)/math.Max(1, high.Y-low.Y))
	height := (high.Y-low.Y)*each + 2*groundEdge + groundStep
	left := (width - (high.X-low.X)*each) / 2
	at := func(p ground.Point) (x, y float64) { return left + (p.X-low.X)*each, groundEdge + (p.Y-low.Y)*each }
	var s strings.Builder
	fmt.Fprintf(&s, `<svg class="ground" viewBox="0 0 %.0f %.0f" role="img" aria-label="%s" data-each="%.4f">`, width,
		height, html.EscapeString(label), in.Metres(1)*each)
	for _, spot := range spots {
		drawSpot(&s, spot, at, each)
	}
	for _, w := range ways {
		drawWay(&s, w, at)
	}
	for _, spot := range spots {
		low, high := ground.Bounds([]ground.Place{spot.Place})
		x, y := at(ground.Point{X: spot.Lie.X, Y: spot.Lie.Y})
		writeSpot(&s, spot, x, y, (high.X-low.X)*each, (high.Y-low.Y)*each)
	}
	shown := in.Nice(bar)
	fmt.Fprintf(&s, `<path class="bar" d="M%.1f %.1fh%.1f"/><text class="metres" x="%.1f" y="%.1f">%s</text></svg>`,
		left, height-6, shown*each, left+shown*each+6, height-1, in.Length(shown))
	return template.HTML(s.String())
}

// drawSpot draws a place: its outline, its lanes, who stands there and what is written.
func drawSpot(s *strings.Builder, spot Spot, at func(ground.Point) (x, y float64), each float64) {
	key := ""
	if spot.Key != "" {
		key = fmt.Sprintf(` data-zone="%s"`, html.EscapeString(spot.Key))
	}
	fmt.Fprintf(s, `<g class="spot %s"%s><title>%s</title>`, spot.Class, key,
		html.EscapeString(strings.Join(append([]string{spot.Name}, spot.Lines...), ", ")))
	x, y := at(ground.Point{X: spot.Lie.X, Y: spot.Lie.Y})
	long, wide := spot.Lie.Long*each, spot.Lie.Wide*each
	fmt.Fprintf(s,
		`<g transform="translate(%.1f %.1f) rotate(%d)"><rect class="spot-area" x="%.1f" y="%.1f" width="%.1f" height="%.1f"/>`,
		x, y, spot.Lie.Turn, -long/2, -wide/2, long, wide)
	if n := spot.Lanes; n > 1 && wide/float64(n) > 5 {
		s.WriteString(`<path class="spot-lanes" d="`)
		for i := 1; i < n; i++ {
			fmt.Fprintf(s, "M%.1f %.1fh%.1f", -long/2, -wide/2+wide*float64(i)/float64(n), long)
		}
		s.WriteString(`"/>`)
	}
	if spot.Has("posts") {
		fmt.Fprintf(s, `<path class="spot-posts" d="M%.1f %.1fv%.1f"/>`, long/2-2, -3*each, 6*each)
	}
	if spot.Has("wall") {
		fmt.Fprintf(s, `<path class="spot-wall" d="M%.1f %.1fh%.1f"/>`, -long/2, -wide/2, long)
	}
	s.WriteString(`</g>`)
	s.WriteString(`</g>`)
}

// drawWay draws a walk, up to a little before the middle of where it leads.
func drawWay(s *strings.Builder, w Way, at func(ground.Point) (x, y float64)) {
	x, y := at(ground.Point{X: w.From.Lie.X, Y: w.From.Lie.Y})
	toX, toY := at(ground.Point{X: w.To.Lie.X, Y: w.To.Lie.Y})
	far := math.Hypot(toX-x, toY-y)
	if far > 0 {
		short := math.Min(wayShort, 0.4*far)
		toX, toY = toX-(toX-x)*short/far, toY-(toY-y)*short/far
	}
	class := "way"
	if w.Tight {
		class = "way way-tight"
	}
	fmt.Fprintf(s,
		`<g class="%s"><title>%s</title><path d="M%.1f %.1fL%.1f %.1f"/><circle cx="%.1f" cy="%.1f" r="5"/></g>`, class,
		html.EscapeString(w.Says), x, y, toX, toY, toX, toY)
}

// writeSpot writes into a place, as much as it has room for, and draws its people below.
func writeSpot(s *strings.Builder, spot Spot, x, y, wide, high float64) {
	lines := append([]string{spot.Name}, spot.Lines...)
	if high <= 1.5*wide && wide < groundSmall && cut(spot.Name, wide-8, groundName) != spot.Name {
		// its name stands below it
		fmt.Fprintf(s, `<text class="spot-words" x="%.1f" y="%.1f" font-size="%d" text-anchor="middle">%s</text>`, x,
			y+high/2+groundLine, groundLine, html.EscapeString(spot.Name))
		return
	}
	upright := high > 1.5*wide && cut(spot.Name, wide-8, groundName) != spot.Name
	room, height := wide-8, high-6
	if upright {
		room, height = high-8, wide-6
	}
	step := float64(groundStep)
	if float64(len(lines))*step > height {
		step = groundTight
	}
	if most := max(1, int(height/step)); len(lines) > most {
		if more := fmt.Sprintf("+ %d more", len(lines)-most+1); most > 1 {
			lines = append(lines[:most-1:most-1], more)
		}
		lines = lines[:most]
	}
	turn := ""
	if upright {
		turn = fmt.Sprintf(` transform="rotate(-90 %.1f %.1f)"`, x, y)
	}
	dots := dotRows(spot.People, room, height-float64(len(lines))*step-4)
	top := y - (float64(len(lines))*step+float64(len(dots))*dotStep)/2
	fmt.Fprintf(s, `<g class="spot-words"%s>`, turn)
	for i, line := range lines {
		size := groundLine
		if i == 0 {
			size = groundName
		}
		fmt.Fprintf(s, `<text x="%.1f" y="%.1f" font-size="%d" text-anchor="middle">%s</text>`, x,
			top+float64(i+1)*step-4, size, html.EscapeString(cut(line, room, size)))
	}
	for r, n := range dots {
		for i := range n {
			fmt.Fprintf(s, `<circle class="one" cx="%.1f" cy="%.1f" r="%.1f"/>`, x+(float64(i)-float64(n-1)/2)*dotStep,
				top+float64(len(lines))*step+(float64(r)+0.7)*dotStep, groundDot)
		}
	}
	s.WriteString(`</g>`)
}

// dotRows are how many dots each row has, for so many people in a room; none where they
// have none.
func dotRows(people int, wide, high float64) (rows []int) {
	across := int(wide / dotStep)
	if people == 0 || across < 1 || float64((people+across-1)/max(1, across))*dotStep > high {
		return nil
	}
	across = min(across, max(6, int(math.Ceil(math.Sqrt(float64(people)*3)))))
	across = (people + (people+across-1)/across - 1) / ((people + across - 1) / across) // rows of one length
	for ; people > 0; people -= across {
		rows = append(rows, min(people, across))
	}
	return rows
}

// cut shortens a text to about a room.
func cut(text string, room float64, size int) string {
	most := int(room / (0.41 * float64(size)))
	if r := []rune(text); len(r) > most {
		return strings.TrimRight(string(r[:max(0, most-1)]), " ,") + "…"
	}
	return text
}
