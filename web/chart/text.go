package chart

import (
	"fmt"
	"html/template"
	"slices"
	"strings"
)

// textLine is a line of text in the chart.
type textLine struct {
	X, Y   int
	Class  string
	Text   string
	Anchor string // start, middle or end; "" is start
	Upward bool   // written from the bottom to the top, for narrow blocks
}

// At is where the line stands, and which way it runs from there.
func (l textLine) At() template.HTMLAttr {
	at := fmt.Sprintf(`x="%d" y="%d"`, l.X, l.Y)
	if l.Upward {
		at = fmt.Sprintf(`transform="translate(%d %d) rotate(-90)"`, l.X, l.Y)
	}
	if l.Anchor != "" {
		at += ` text-anchor="` + l.Anchor + `"`
	}
	return template.HTMLAttr(at)
}

// Sizes of text and the room around it.
const (
	nameSize   = 16
	smallSize  = 15
	tinySize   = 13 // across in a narrow block, which reads better than upwards
	tinyStep   = 14
	tinyLeft   = 3
	tinyMargin = 2  // widths are estimated on the wide side
	lineStep   = 19 // from one line of a block to the next
	textPad    = 9  // left of a block's text
	textRight  = 3
	edgeWidth  = 3 // of a block's coloured edge
	letterDrop = 26
	letterGap  = 4
	letterRoom = 30  // that a letter takes of a block's height
	fullHeight = 60  // from which a block says all in lines
	tallEnough = 150 // from which a block that is written upwards has a letter
	wideEnough = 34  // and its length
	upWidth    = 20  // least width and height of a box to write upwards in
	upHeight   = 56
	besideGap  = 6
	leastCut   = 2 // letters below which a cut text says nothing
)

// write puts the texts in: inside their boxes where they fit, else in the free room beside. A
// block in several pieces says all in its tallest, and its name in the others if it fits.
func (c *Chart) write() {
	for i := range c.Blocks {
		b := &c.Blocks[i]
		tallest := 0
		for n := range b.Pieces {
			if b.Pieces[n].H > b.Pieces[tallest].H {
				tallest = n
			}
		}
		for n := range b.Pieces {
			b.Pieces[n].Lines = c.blockLines(b, b.Pieces[n].box, n == tallest)
		}
	}
	for i := range c.Fixed {
		f := &c.Fixed[i]
		lines, whole := fitText(f.name, f.box)
		if !whole {
			lines = c.elsewhere(f.name, f.box, lines)
		}
		f.Lines = lines
	}
}

// blockLines is what a piece of a block says; one that is not the tallest says
// nothing rather than half of it.
func (c *Chart) blockLines(b *chartBlock, at box, tallest bool) []textLine {
	lines, whole := blockText(b, at)
	if whole {
		return lines
	}
	if !tallest {
		return c.beside(b.name, at)
	}
	return c.elsewhere(b.name, at, lines)
}

// elsewhere is a text beside its box, or apart from it, or what of it has room within.
func (c *Chart) elsewhere(text string, at box, within []textLine) []textLine {
	if beside := c.beside(text, at); beside != nil {
		return beside
	}
	if apart := c.apart(text, at); apart != nil {
		c.named = append(c.named, text)
		return apart
	}
	if slices.Contains(c.named, text) {
		return nil // better than half of what is said in full for another
	}
	return within
}

// gap is the free room on one line of the chart.
type gap struct{ left, right int }

// narrow takes the room of other, at the height mid, from the gap around b.
func (g *gap) narrow(b, other box, mid int) {
	if other == b || other.Y > mid || other.Y+other.H < mid {
		return
	}
	switch {
	case other.X+other.W <= b.X+1:
		g.left = max(g.left, other.X+other.W)
	case other.X >= b.X+b.W-1:
		g.right = min(g.right, other.X)
	case other.X > b.X: // it lies on something to its right
		g.right = b.X + b.W
	default:
		g.left = b.X
		if other.X+other.W > b.X+b.W {
			g.right = b.X + b.W
		}
	}
}

// beside writes a text in the free room left or right of a box, if there is any.
func (c *Chart) beside(text string, b box) []textLine {
	need := int(textWidth(text, nameSize)) + 2*besideGap
	mid := b.Y + min(b.H, c.laneHeight)/2
	free := gap{c.Left, c.LineX}
	c.boxes(func(other box) { free.narrow(b, other, mid) })
	line := textLine{Y: mid + besideGap, Class: "name", Text: text}
	switch {
	case b.X-free.left >= need:
		line.X, line.Anchor = b.X-besideGap, "end"
	case free.right-b.X-b.W >= need:
		line.X = b.X + b.W + besideGap
	default:
		return nil
	}
	kept := box{X: line.X, Y: mid - besideGap, W: need, H: 2 * besideGap}
	if line.Anchor == "end" {
		kept.X -= need
	}
	c.said = append(c.said, kept)
	return []textLine{line}
}

// blockText is what a piece of a block can say in its room: letter, name, dose and length where
// all fit, less where they do not; whole is false where not even the name does.
func blockText(b *chartBlock, at box) (lines []textLine, whole bool) {
	room := at.W - textPad - textRight
	name := wrap(b.name, nameSize, room)
	if at.H < fullHeight || widest(name, nameSize) > room {
		lines, whole = fitText(b.name, box{X: at.X + edgeWidth, Y: at.Y, W: at.W - edgeWidth, H: at.H})
		switch {
		case !whole || at.H < tallEnough:
		case lines[0].Upward:
			lines = upward(b, at, lines[0])
		default:
			lines = below(b, at, lines)
		}
		return lines, whole
	}
	var dose []string
	if len(b.words) == 1 {
		dose = wrap(b.words[0], nameSize, room)
	}
	y := at.Y + 2
	if b.letter != "" && letterRoom+(len(name)+1)*lineStep <= at.H {
		y += letterDrop
		lines = append(lines, textLine{X: at.X + textPad, Y: y, Class: "letter", Text: b.letter})
		y += letterGap
	}
	if y-at.Y+(len(name)+len(dose)+1)*lineStep > at.H || widest(dose, nameSize) > room {
		dose = nil
	}
	length := []string{b.length}
	if int(textWidth(b.length, nameSize)) > room {
		length = nil // it would lie over the block beside
	}
	for _, text := range slices.Concat(name, dose, length) {
		y += lineStep
		if y > at.Y+at.H-textRight {
			break
		}
		lines = append(lines, textLine{X: at.X + textPad, Y: y - 2, Class: "name", Text: text})
	}
	return lines, true
}

// upward is a name that is written upwards, with the letter above it and the
// length below.
func upward(b *chartBlock, at box, name textLine) []textLine {
	name.Y += letterDrop
	middle := at.X + at.W/2 + 2
	lines := []textLine{name, {X: middle, Y: at.Y + letterDrop, Class: "letter", Text: b.letter, Anchor: "middle"}}
	if at.W >= wideEnough && int(textWidth(b.length, nameSize)) <= at.W-2*edgeWidth {
		lines = append(lines, textLine{X: middle, Y: at.Y + at.H - 8, Class: "name", Text: b.length, Anchor: "middle"})
	}
	return lines
}

// below is a narrow block's name across, with the letter above it.
func below(b *chartBlock, at box, name []textLine) []textLine {
	y := at.Y + letterDrop + letterGap
	for i := range name {
		y += tinyStep
		name[i].Y = y
	}
	return append(name, textLine{X: at.X + at.W/2 + 2, Y: at.Y + letterDrop, Class: "letter", Text: b.letter,
		Anchor: "middle"})
}

// fitText writes a text in a box: across in one or more lines if they fit, also in
// small letters, else upwards, else cut short; whole is false if it was cut.
func fitText(text string, at box) (lines []textLine, whole bool) {
	const (
		left     = 5 // of the text in its box
		margin   = 7 // that the box has more than its text
		baseline = 14
		step     = 18
	)
	for _, try := range []struct {
		size, step, left, margin int
		class                    string
	}{{size: nameSize, step: step, left: left, margin: margin, class: "name"},
		{size: smallSize, step: smallSize, left: left, margin: margin, class: "name-small"},
		{size: tinySize, step: tinyStep, left: tinyLeft, margin: tinyMargin, class: "name-tiny"}} {
		room := at.W - try.margin
		across := wrap(text, try.size, room)
		if widest(across, try.size) <= room && len(across)*try.step <= at.H {
			return stack(across, at.X+try.left, at.Y+(at.H-len(across)*try.step)/2+baseline, try.step, try.class), true
		}
	}
	room := at.W - margin
	if at.W >= upWidth && at.H >= upHeight {
		up := textLine{X: at.X + at.W/2 + left, Y: at.Y + 4, Class: "name", Text: text, Upward: true, Anchor: "end"}
		if int(textWidth(text, nameSize)) <= at.H-left {
			return []textLine{up}, true
		}
		if up.Class = "name-small"; int(textWidth(text, smallSize)) <= at.H-left {
			return []textLine{up}, true
		}
		up.Y, up.Class, up.Text = at.Y+margin, "name", cutTo(text, nameSize, at.H-12)
		return []textLine{up}, false
	}
	if short := cutTo(text, nameSize, room); len([]rune(short)) > leastCut {
		return stack([]string{short}, at.X+left, at.Y+(at.H-step)/2+baseline, step, "name"), false
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
