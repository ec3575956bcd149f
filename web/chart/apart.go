package chart

import "fmt"

// apart writes a text that has no room in its box nor beside it where there is some: in a lane
// near it, else above all lanes; a thin line leads to what it names.
func (c *Chart) apart(text string, b box) []textLine {
	width := int(textWidth(text, tinySize))
	middle := b.X + b.W/2
	if middle >= c.LineX {
		return nil
	}
	for _, away := range []int{1, -1, 2, -2} {
		line, edge := b.Y+b.H+away*c.laneHeight-c.laneHeight/2, b.Y+b.H
		if away < 0 {
			line, edge = b.Y+away*c.laneHeight+c.laneHeight/2, b.Y
		}
		if line < c.Top || line > c.Bottom {
			continue
		}
		if free := c.freeAt(middle, line); free.right-free.left >= width+2*besideGap {
			x := min(max(b.X, free.left+besideGap), free.right-width-besideGap)
			return c.lead(textLine{X: x, Y: line + besideGap - 1, Class: "name-tiny", Text: text}, width, middle, edge)
		}
	}
	x := min(max(c.Left, middle-width/2), c.LineX-startRoom-width)
	above := box{X: x - besideGap, Y: c.Top - c.laneHeight, W: width + 2*besideGap, H: c.laneHeight}
	if !c.clear(above) || !c.clear(box{X: middle, Y: c.Top, W: 1, H: b.Y - c.Top - 1}) {
		return nil
	}
	return c.lead(textLine{X: x, Y: c.Top - besideGap/2, Class: "name-tiny", Text: text}, width, middle, b.Y)
}

// lead draws the line from a text to the edge of what it names, and keeps the text's room.
func (c *Chart) lead(text textLine, width, middle, edge int) []textLine {
	from := text.Y - tinySize
	if edge > text.Y {
		from = text.Y + besideGap/2
	}
	c.Leads += fmt.Sprintf("M%d %dL%d %d", min(max(middle, text.X), text.X+width), from, middle, edge)
	c.said = append(c.said, box{X: text.X - besideGap, Y: text.Y - tinySize, W: width + 2*besideGap,
		H: tinySize + besideGap})
	return []textLine{text}
}

// freeAt is the room around a point; none where something lies.
func (c *Chart) freeAt(x, y int) gap {
	free := gap{c.Left, c.LineX}
	c.boxes(func(b box) {
		switch {
		case b.Y > y+besideGap || b.Y+b.H < y-besideGap:
		case b.X+b.W <= x:
			free.left = max(free.left, b.X+b.W)
		case b.X >= x:
			free.right = min(free.right, b.X)
		default:
			free.right = free.left
		}
	})
	return free
}

// clear tells whether nothing lies in a box.
func (c *Chart) clear(at box) bool {
	clear := true
	c.boxes(func(b box) {
		if b.X < at.X+at.W && at.X < b.X+b.W && b.Y < at.Y+at.H && at.Y < b.Y+b.H {
			clear = false
		}
	})
	return clear
}

// boxes gives all that lies in the lanes, and the texts that stand apart.
func (c *Chart) boxes(give func(box)) {
	for i := range c.Blocks {
		for n := range c.Blocks[i].Pieces {
			give(c.Blocks[i].Pieces[n].box)
		}
	}
	for i := range c.Fixed {
		give(c.Fixed[i].box)
	}
	for _, b := range c.said {
		give(b)
	}
}
