package web

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
)

// chart is the Run-in as a drawing: lanes are strands, time runs from left to
// right to the start line. All lengths are user units of the SVG, one to a
// pixel at its natural width.
type chart struct {
	ID            string // keeps the patterns of two charts on a page apart
	Width, Height int
	Left, Top     int // of the plot
	LineX, LineY  int // the start line
	LineHeight    int
	Bottom        int
	StartName     string
	StartTime     string
	LabelX        int // right end of the lane labels
	Ticks         []tick
	Lanes         []lane
	laneHeight    int
	Blocks        []chartBlock
	Fixed         []chartFixed
	Warmth        trace
}

type tick struct {
	X     int
	ToGo  string // "" for a half tick
	Clock string
}

type lane struct {
	Y, Mid      int
	Who, Names  string
	WhoY, NameY int
}

type chartBlock struct {
	ID, Phase, Label string
	Chosen           bool
	Href             string
	Pieces           []piece

	name, letter, length string
	words                []string
}

type box struct{ X, Y, W, H int }

// piece is the part of a block in adjacent lanes.
type piece struct {
	box
	Lines []textLine
}

type textLine struct {
	X, Y   int
	Class  string
	Text   string
	Anchor string // start, middle or end; "" is start
	Upward bool   // written from the bottom to the top, for narrow blocks
}

type chartFixed struct {
	piece
	Label string
	name  string
}

const (
	chartTop  = 62
	lineWidth = 10
)

func newChart(b *planner.Board, id string, width, labels int, base, chosen string) chart {
	d, s := b.Document, b.Schedule
	c := chart{ID: id, Width: width, Left: labels + 14, Top: chartTop, LabelX: labels, StartName: d.StartName, StartTime: clock.Clock(s.Start, 0)}
	lanes := laneOrder(d, s)
	// A few lanes are high, many are as low as two lines of text allow.
	c.laneHeight = max(36, min(110, 400/max(1, len(lanes))))
	c.Height = c.Top + c.laneHeight*len(lanes) + warmthHeight + 14
	c.Bottom = c.Top + c.laneHeight*len(lanes)
	c.LineY, c.LineHeight = 0, c.Height
	from, to := chartSpan(d, s)
	c.LineX = width - lineWidth
	if to > 0 {
		c.LineX = c.Left + (width-lineWidth-c.Left)*int(-from)/int(to-from)
	}
	x := func(o clock.Offset) int { return c.Left + (c.LineX-c.Left)*int(o-from)/int(-from) }
	c.ticks(s, from, x)
	for i, players := range lanes {
		y := c.Top + i*c.laneHeight
		l := lane{Y: y, Mid: y + c.laneHeight/2, WhoY: y + c.laneHeight/2 - 3, NameY: y + c.laneHeight/2 + 13, Who: numbers(d, players)}
		l.Names = firstNames(d, players, func(text string) bool { return textWidth(text, 14)*1.16 <= float64(labels) })
		l.Names = cutTo(l.Names, 14, int(float64(labels)/1.16))
		if l.Who == "" {
			l.WhoY, l.Who, l.Names = y+c.laneHeight/2+5, l.Names, ""
		}
		c.Lanes = append(c.Lanes, l)
	}
	c.drawBlocks(d, s, lanes, x, base, chosen)
	c.drawFixed(d, s, lanes, from, x)
	c.write()
	c.Warmth = newTrace(b, c.Left, c.Bottom+14, c.LineX, from, x)
	return c
}

// laneOrder is the strands by the lowest number in each.
func laneOrder(d *plan.Document, s *schedule.Schedule) [][]string {
	index := map[string]int{}
	for i, p := range d.Players {
		index[p.ID] = p.Number*1000 + i
	}
	lanes := slices.Clone(s.Result.Strands)
	slices.SortFunc(lanes, func(a, b []string) int { return index[a[0]] - index[b[0]] })
	return lanes
}

// chartSpan is the time that the chart shows: from a minute before the first
// block to the start, or to the end of work after it.
func chartSpan(d *plan.Document, s *schedule.Schedule) (from, to clock.Offset) {
	from = clock.Offset(-d.Margin - 600)
	for _, r := range s.Result.Blocks {
		if r.Kept {
			from, to = min(from, r.Start), max(to, r.End)
		}
	}
	// Fixed things shortly before the first block belong to the picture.
	first := from
	for _, f := range s.Fixed {
		if f.Start < first && f.Start >= first-600 {
			from = min(from, f.Start)
		}
	}
	return floorOffset(from-20, 60), to
}

func floorOffset(o clock.Offset, step int) clock.Offset {
	n := int(o) / step
	if int(o)%step < 0 {
		n--
	}
	return clock.Offset(n * step)
}

func (c *chart) ticks(s *schedule.Schedule, from clock.Offset, x func(clock.Offset) int) {
	step := 600
	if from > -25*60 {
		step = 300
	} else if from < -100*60 {
		step = 1800
	}
	for o := floorOffset(from+clock.Offset(step/2)-1, step/2); o < 0; o += clock.Offset(step / 2) {
		t := tick{X: x(o)}
		if int(o)%step == 0 && t.X > c.Left+10 && t.X < c.LineX-96 {
			t.ToGo, t.Clock = o.MinutesToGo(), clock.Clock(s.Start, o)
		}
		c.Ticks = append(c.Ticks, t)
	}
}

// runs gathers the lanes of some players into stretches of adjacent lanes.
func runs(lanes [][]string, members []string) (stretches [][2]int) {
	for i, players := range lanes {
		if !slices.Contains(members, players[0]) {
			continue
		}
		if n := len(stretches); n > 0 && stretches[n-1][1] == i {
			stretches[n-1][1] = i + 1
		} else {
			stretches = append(stretches, [2]int{i, i + 1})
		}
	}
	return stretches
}

func (c *chart) drawBlocks(d *plan.Document, s *schedule.Schedule, lanes [][]string, x func(clock.Offset) int, base, chosen string) {
	for i := range s.Result.Blocks {
		r, b := &s.Result.Blocks[i], &d.Blocks[i]
		if !r.Kept {
			continue
		}
		words := doses(b, s.Amounts[i])
		drawn := chartBlock{ID: b.ID, Phase: tile(b.Phase), Chosen: b.ID == chosen, Href: base + "?block=" + b.ID, name: b.Name, words: words, length: clock.Duration(int(r.End - r.Start)), letter: letter(b.Phase),
			Label: fmt.Sprintf("%s, %s, %s: %s to %s to go, %s", b.Name, phaseNames[b.Phase], who(d, b.Who), r.Start.ToGo(), r.End.ToGo(), strings.Join(words, ", "))}
		left, right := x(r.Start), x(r.End)
		for _, run := range runs(lanes, d.Members(b.Who)) {
			drawn.Pieces = append(drawn.Pieces, piece{box: box{left, c.Top + run[0]*c.laneHeight + 2, max(3, right-left-1), (run[1]-run[0])*c.laneHeight - 4}})
		}
		c.Blocks = append(c.Blocks, drawn)
	}
}

func (c *chart) drawFixed(d *plan.Document, s *schedule.Schedule, lanes [][]string, from clock.Offset, x func(clock.Offset) int) {
	for _, f := range s.Fixed {
		if f.End <= from || f.Start >= 0 {
			continue
		}
		name := fixedName(d, f.ID)
		left, right := x(max(f.Start, from)), x(min(f.End, 0))
		for _, run := range runs(lanes, f.Players) {
			c.Fixed = append(c.Fixed, chartFixed{name: name, Label: fmt.Sprintf("%s: %s to %s to go", name, f.Start.ToGo(), f.End.ToGo()),
				piece: piece{box: box{left, c.Top + run[0]*c.laneHeight + 3, max(3, right-left-1), (run[1]-run[0])*c.laneHeight - 6}}})
		}
	}
}

// write puts the texts in: inside their boxes where they fit, else in the free
// room beside. A block in several pieces says all in its tallest, and its name
// in the others if it fits.
func (c *chart) write() {
	for i := range c.Blocks {
		b := &c.Blocks[i]
		tallest := 0
		for n := range b.Pieces {
			if b.Pieces[n].H > b.Pieces[tallest].H {
				tallest = n
			}
		}
		for n := range b.Pieces {
			p := &b.Pieces[n]
			lines, whole := blockText(b, p.box)
			if !whole {
				if beside := c.beside(b.name, p.box); beside != nil {
					lines = beside
				} else if n != tallest {
					lines = nil
				}
			}
			p.Lines = lines
		}
	}
	for i := range c.Fixed {
		f := &c.Fixed[i]
		lines, whole := fitText(f.name, f.box)
		if beside := c.beside(f.name, f.box); !whole && beside != nil {
			lines = beside
		}
		f.Lines = lines
	}
}

// beside writes a text in the free room left or right of a box, if there is any.
func (c *chart) beside(text string, b box) []textLine {
	need := int(textWidth(text, 16)) + 12
	mid := b.Y + min(b.H, c.laneHeight)/2
	left, right := c.Left, c.LineX
	look := func(other box) {
		if other.Y > mid || other.Y+other.H < mid {
			return
		}
		if other.X+other.W <= b.X+1 {
			left = max(left, other.X+other.W)
		} else if other.X >= b.X+b.W-1 {
			right = min(right, other.X)
		} else if other != b && other.X > b.X {
			right = b.X + b.W // it lies on something to its right
		} else if other != b {
			left = b.X
			if other.X+other.W > b.X+b.W {
				right = b.X + b.W
			}
		}
	}
	for i := range c.Blocks {
		for n := range c.Blocks[i].Pieces {
			look(c.Blocks[i].Pieces[n].box)
		}
	}
	for i := range c.Fixed {
		look(c.Fixed[i].box)
	}
	switch {
	case b.X-left >= need:
		return []textLine{{X: b.X - 6, Y: mid + 6, Class: "name", Text: text, Anchor: "end"}}
	case right-b.X-b.W >= need:
		return []textLine{{X: b.X + b.W + 6, Y: mid + 6, Class: "name", Text: text}}
	}
	return nil
}

// blockText is what a piece of a block can say in its room: letter, name, dose
// and length where all fit, less where they do not; whole is false where not
// even the name does.
func blockText(b *chartBlock, at box) (lines []textLine, whole bool) {
	const pad, line = 9, 19
	room := at.W - pad - 3
	name := wrap(b.name, 16, room)
	if at.H < 60 || widest(name, 16) > room {
		lines, whole = fitText(b.name, box{at.X + 3, at.Y, at.W - 3, at.H})
		if whole && len(lines) == 1 && lines[0].Upward && at.H >= 150 {
			lines[0].Y += 26 // below the letter
			lines = append(lines, textLine{X: at.X + at.W/2 + 2, Y: at.Y + 26, Class: "letter", Text: b.letter, Anchor: "middle"})
			if at.W >= 34 {
				lines = append(lines, textLine{X: at.X + at.W/2 + 2, Y: at.Y + at.H - 8, Class: "name", Text: b.length, Anchor: "middle"})
			}
		}
		return lines, whole
	}
	var dose []string
	if len(b.words) == 1 {
		dose = wrap(b.words[0], 16, room)
	}
	y := at.Y + 2
	if b.letter != "" && 30+(len(name)+1)*line <= at.H {
		y += 26
		lines = append(lines, textLine{X: at.X + pad, Y: y, Class: "letter", Text: b.letter})
		y += 4
	}
	if y-at.Y+(len(name)+len(dose)+1)*line > at.H || widest(dose, 16) > room {
		dose = nil
	}
	for _, text := range slices.Concat(name, dose, []string{b.length}) {
		y += line
		if y > at.Y+at.H-3 {
			break
		}
		lines = append(lines, textLine{X: at.X + pad, Y: y - 2, Class: "name", Text: text})
	}
	return lines, true
}

// fitText writes a text in a box: across in one or more lines if they fit, else
// upwards, else cut short; whole is false if it was cut.
func fitText(text string, at box) (lines []textLine, whole bool) {
	room := at.W - 7
	for _, try := range []struct {
		size, step int
		class      string
	}{{16, 18, "name"}, {15, 15, "name-small"}} {
		across := wrap(text, try.size, room)
		if widest(across, try.size) <= room && len(across)*try.step <= at.H {
			return stack(across, at.X+5, at.Y+(at.H-len(across)*try.step)/2+14, try.step, try.class), true
		}
		if at.W >= 20 && at.H >= 56 && int(textWidth(text, try.size)) <= at.H-5 {
			return []textLine{{X: at.X + at.W/2 + 5, Y: at.Y + 4, Class: try.class, Text: text, Upward: true, Anchor: "end"}}, true
		}
	}
	if at.W >= 20 && at.H >= 56 {
		return []textLine{{X: at.X + at.W/2 + 5, Y: at.Y + 7, Class: "name", Text: cutTo(text, 16, at.H-12), Upward: true, Anchor: "end"}}, false
	}
	if short := cutTo(text, 16, room); len([]rune(short)) > 2 {
		return stack([]string{short}, at.X+5, at.Y+(at.H-18)/2+14, 18, "name"), false
	}
	return nil, false
}

func stack(texts []string, x, y, step int, class string) (lines []textLine) {
	for i, text := range texts {
		lines = append(lines, textLine{X: x, Y: y + i*step, Class: class, Text: text})
	}
	return lines
}

// wrap breaks a text at spaces into lines of at most room.
func wrap(text string, size, room int) (lines []string) {
	for _, word := range strings.Fields(text) {
		if n := len(lines) - 1; n >= 0 && int(textWidth(lines[n]+" "+word, size)) <= room {
			lines[n] += " " + word
			continue
		}
		lines = append(lines, word)
	}
	return lines
}

func widest(lines []string, size int) int {
	w := 0.0
	for _, l := range lines {
		w = max(w, textWidth(l, size))
	}
	return int(w + 0.5)
}

// cutTo shortens a text so that it fits room, with an ellipsis.
func cutTo(text string, size, room int) string {
	if int(textWidth(text, size)) <= room {
		return text
	}
	runes := []rune(text)
	for n := len(runes) - 1; n > 0; n-- {
		if short := strings.TrimRight(string(runes[:n]), " ,:") + "…"; int(textWidth(short, size)) <= room {
			return short
		}
	}
	return ""
}

// textWidth estimates the width of a text in Barlow Condensed semi-bold, on the
// wide side, in the unit of size.
func textWidth(text string, size int) float64 {
	em := 0.0
	for _, r := range text {
		switch {
		case strings.ContainsRune("iljtfrI.,:;'|! ()", r):
			em += 0.27
		case strings.ContainsRune("mwMW—…", r):
			em += 0.68
		case r >= 'A' && r <= 'Z', r > 0x2E80:
			em += 0.52
		default:
			em += 0.45
		}
	}
	return em * float64(size)
}
