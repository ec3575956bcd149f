// Package chart draws a plan over time: lanes of people, places or leaders, their blocks, what the
// day holds, the walks between places and how warm they are, up to the line of the start. Its
// template is in [Files].
package chart

import (
	"embed"
	"fmt"
	"html/template"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/warmth"
)

// Files hold the templates that write a chart: "chart", and what is in it.
//
//go:embed *.html
var Files embed.FS

// Plan is what is drawn.
type Plan struct {
	Document *plan.Document
	Schedule *schedule.Schedule
	Strands  []warmth.Strand // who does the same things, and how warm they are

	blocks []schedule.Block
}

// Chart is the Run-in as a drawing: lanes are strands, time runs from left to right to the start
// line. All lengths are user units of the SVG, one to a pixel at its natural width.
type Chart struct {
	View
	Width, Height int
	Left, Top     int // of the plot
	LineX         int // the start line
	LineWidth     int
	Bottom        int
	StartName     string
	StartTime     string
	LabelX        int // right end of the lane labels
	Ticks         []tick
	Grid          string // paths of the lines at the ticks, and between them
	HalfGrid      string
	Leads         string // paths from texts that stand apart to what they name
	Lanes         []lane
	Blocks        []chartBlock
	Fixed         []chartEvent
	Warmth        trace
	Walks         []way
	After         *afterLine // right of the start: what comes after the end; nil: nothing

	laneHeight int
	from       clock.Offset            // the moment at Left
	joins      map[string]clock.Offset // by player who comes late: when they join the others
	rows       []laneRow
	said       []box    // where texts stand outside their boxes
	named      []string // which of them do so
}

type tick struct {
	X           int
	ToGo, Clock string
}

type lane struct {
	Y           int
	Who, Names  string
	OneLine     bool   // there is no room for two
	Faint       bool   // it is not theirs whom the chart follows
	Href        string // follows them; "": does not
	Key         string // id of the zone or leader that the lane is; "": it is people's
	Players     string // their ids
	Drags       string // what is said while the name is dragged
	WhoY, NameY int
}

type chartBlock struct {
	ID, Phase, Label string
	Chosen, Faint    bool
	Start            int  // seconds from the start
	Drags            bool // it may be dragged: it is not of what comes after
	Href             string
	Notch            string // path of the mark of what is held; "": it may move
	Pieces           []piece

	name, letter, length string
	words                []string
}

type box struct{ X, Y, W, H int }

// At is where a rectangle of the box lies: one attribute to the template, which
// asks for it four times a block.
func (b box) At() template.HTMLAttr {
	return template.HTMLAttr(fmt.Sprintf(`x="%d" y="%d" width="%d" height="%d"`, b.X, b.Y, b.W, b.H))
}

// piece is the part of a block in adjacent lanes.
type piece struct {
	box
	Lines []textLine
}

type chartEvent struct {
	piece
	ID    string // of the fixed event; "": it is none that may be dragged
	Label string
	name  string
}

// Lengths of the drawing.
const (
	plotTop     = 62 // room for the scale of time
	labelGap    = 14 // between labels and plot
	startWidth  = 10 // of the start line
	startRoom   = 96 // left of the start line, for its name
	tickClear   = 8  // right of the labels
	footHeight  = 14 // between the lanes and the warmth
	lanesHeight = 400
	laneLeast   = 25 // a line of text
	laneTwo     = 34 // two
	laneMost    = 110

	whoAbove      = 3  // the numbers of a lane, above its middle
	namesBelow    = 13 // the names, below it
	namesAlone    = 5
	inLine        = 6
	laneTextSize  = 14
	whoSize       = 17   // of the numbers
	laneTextWider = 1.16 // the text face is wider than the figures'

	blockInset = 2 // of a block in its lanes
	eventInset = 3
	leastWidth = 3
	notch      = 8 // of the mark above what is held
)

// Times on the chart, in seconds.
const (
	leastSpan  = 600 // before the margin, where nothing is planned
	spanBefore = 20  // before the first block
	eventReach = 600 // how long before the first block an event belongs to the picture
)

// View is how a chart is drawn.
type View struct {
	ID            string // what it is drawn for
	Width, Labels int    // of the chart, and of its lane labels
	Href          func(block string) string
	Chosen        string       // id of a block
	By            string       // what its lanes are: people, zones or leaders
	From          clock.Offset // when it begins; 0: with the first block
	Follow        string       // id of the player whom it follows; "": none
	Plain         bool         // without what comes after the end
	Edits         bool         // by somebody who may change the plan
	Room          [2]int       // width and height of the window's part for it, in pixels; 0: not known

	FollowHref func(players []string) string // address that follows them; nil: nobody is followed
}

// New draws a plan as it is looked at.
func New(b Plan, v View) *Chart {
	d, s := b.Document, b.Schedule
	b.blocks = s.Blocks(d)
	c := &Chart{View: v, Left: v.Labels + labelGap, Top: plotTop, LabelX: v.Labels, LineWidth: startWidth,
		StartName: d.StartName, StartTime: clock.Clock(s.Start, 0)}
	events := s.Events(d)
	from, to := Span(d, b.blocks, events)
	if c.from = from; v.From < 0 {
		c.from = v.From
	}
	c.rows = rowsOf(b, v.By)
	// A few lanes are high, many are as low as a line of text allows.
	c.laneHeight = max(laneLeast, min(laneMost, v.lanesRoom()/max(1, len(c.rows))))
	c.Bottom = c.Top + c.laneHeight*len(c.rows)
	c.Height = c.Bottom + warmthHeight + footHeight
	c.widen(&v)
	c.LineX = v.Width - startWidth
	after, beyond := afterOf(b)
	if v.Plain || v.From < 0 || c.By != ByPeople {
		beyond = 0
	}
	if beyond > 0 {
		to += clock.Offset(beyond)
	}
	if to > 0 {
		c.LineX = c.Left + (v.Width-startWidth-c.Left)*int(-c.from)/int(to-c.from)
	}
	c.scale(b)
	c.lanes(d)
	all := s.All(d)
	c.joins = joinsOf(s, all)
	c.drawBlocks(d, all, 0)
	if beyond > 0 {
		c.drawAfter(after, to)
	}
	c.drawEvents(events)
	c.walks(b)
	c.write()
	c.Warmth = c.warmth(b)
	return c
}

// lanesRoom is how high all lanes together may be: as high as the window has room for, where
// that is known.
func (v *View) lanesRoom() int {
	if v.Room[1] == 0 {
		return lanesHeight
	}
	return max(lanesHeight/2, v.Room[1]-plotTop-warmthHeight-footHeight)
}

// mostWide is how wide a chart may be, in its own units.
const mostWide = 1800

// widen makes a chart wider where the window has room beside one of that height.
func (c *Chart) widen(v *View) {
	if v.Room[1] > 0 {
		if fills := c.Height * v.Room[0] / v.Room[1]; fills > v.Width*21/20 {
			v.Width = min(fills, mostWide)
		}
	}
	c.Width = v.Width
}

// x is where a moment lies.
func (c *Chart) x(o clock.Offset) int {
	return c.Left + (c.LineX-c.Left)*int(o-c.from)/int(-c.from)
}

// Span is the time that the chart shows: from a minute before the first block to
// the start, or to the end of work after it.
func Span(d *plan.Document, blocks []schedule.Block, events []schedule.Event) (from, to clock.Offset) {
	from = clock.Offset(-d.Margin - leastSpan)
	for i := range blocks {
		if b := &blocks[i]; b.Kept {
			from, to = min(from, b.Start), max(to, b.End)
		}
	}
	// Fixed things shortly before the first block belong to the picture.
	first := from
	for _, e := range events {
		if e.Start < first && e.Start >= first-eventReach {
			from = min(from, e.Start)
		}
	}
	return floorTo(from-spanBefore, 60), to
}

func floorTo(o clock.Offset, step int) clock.Offset {
	n := int(o) / step
	if int(o)%step < 0 {
		n--
	}
	return clock.Offset(n * step)
}

// scale marks the minutes to go: every ten, every five where there are few, every
// thirty where there are many, and the halves between.
func (c *Chart) scale(b Plan) {
	step := 10 * 60
	if c.from > -12*60 {
		step = 2 * 60
	} else if c.from > -25*60 {
		step = 5 * 60
	} else if c.from < -100*60 {
		step = 30 * 60
	}
	half := clock.Offset(step / 2)
	for o := floorTo(c.from+half-1, step/2); o < 0; o += half {
		x := c.x(o)
		line := fmt.Sprintf("M%d %dV%d", x, c.Top, c.Bottom)
		if int(o)%step != 0 || x <= c.Left+tickClear || x >= c.LineX-startRoom {
			c.HalfGrid += line
			continue
		}
		c.Grid += line
		c.Ticks = append(c.Ticks, tick{x, o.ToGo(), clock.Clock(b.Schedule.Start, o)})
	}
}

// drawBlocks draws blocks of a document, later by so many seconds where they go by another
// line.
func (c *Chart) drawBlocks(d *plan.Document, blocks []schedule.Block, later clock.Offset) {
	for i := range blocks {
		b := &blocks[i]
		if !b.Kept || b.End+later <= c.from {
			continue
		}
		words, open := b.Named(), c.Href(b.ID)
		short := later == 0 && d.Block(b.ID) == nil // the list of who comes late is changed by when they come
		if short && open != "" {
			open = c.Href("") + "?tab=people"
		}
		c.Blocks = append(c.Blocks, chartBlock{ID: b.ID, Phase: b.Phase.Key(), Chosen: b.ID == c.Chosen,
			Faint: c.Follow != "" && !b.Has(c.Follow), Href: open, Start: int(b.Start), Drags: later == 0 && !short,
			Label: fmt.Sprintf("%s, %s, %s: %s, %s", b.Name, b.Phase.Name(), d.Audience(b.Who), when(b, later),
				strings.Join(words, ", ")),
			name: b.Name, words: b.Doses(), length: clock.Lasting(b.Length()), letter: b.Phase.Letter(),
			Pieces: c.piecesOf(b, short, later)})
		if held := d.HeldWords(b.Block); held != "" && b.Start >= c.from {
			last := &c.Blocks[len(c.Blocks)-1]
			last.Label += ", held " + held
			last.Notch = fmt.Sprintf("M%d %dh%dl%d %dz", c.x(b.Start), c.Top-notch, 2*notch, -notch, notch)
		}
	}
}

// LaneHeight is how high a lane is.
func (c *Chart) LaneHeight() int { return c.laneHeight }

// From is when the chart begins, in seconds from the start.
func (c *Chart) From() int { return int(c.from) }

// when says from when until when a block lasts, by its line.
func when(b *schedule.Block, later clock.Offset) string {
	if later > 0 {
		return clock.Duration(int(b.Start)) + " to " + clock.Duration(int(b.End)) + " after the end"
	}
	return b.Start.ToGo() + " to " + b.End.ToGo() + " to go"
}

// AfterHeight is how far down the line of what comes after reaches.
func (c *Chart) AfterHeight() int { return c.Bottom - 30 }

// afterLine is the line that what comes after goes by.
type afterLine struct {
	X    int
	Name string
}

// afterGap is how far right of the start its line stands, in seconds of the chart: the
// match lies between.
const afterGap = 150

// afterOf is the list of what comes after the end, and how many seconds of the chart it
// takes; 0 where there is none.
func afterOf(b Plan) (after *schedule.Line, seconds int) {
	lines := schedule.Lists(b.Document)
	for i := range lines {
		if lines[i].When == plan.AfterEnd && lines[i].Seconds() > 0 {
			return &lines[i], lines[i].Seconds() + afterGap
		}
	}
	return nil, 0
}

// drawAfter draws what comes after the end right of everything before the start.
func (c *Chart) drawAfter(after *schedule.Line, to clock.Offset) {
	line := to - clock.Offset(after.Seconds())
	c.After = &afterLine{c.x(line), after.Line}
	c.drawBlocks(after.Document, after.Schedule.Blocks(after.Document), line)
}

func (c *Chart) drawEvents(events []schedule.Event) {
	for _, e := range events {
		if e.End <= c.from || e.Start >= 0 {
			continue
		}
		label := fmt.Sprintf("%s: %s to %s to go", e.Name, e.Start.ToGo(), e.End.ToGo())
		for _, p := range c.pieces(c.lanesWith(e.Players), max(e.Start, c.from), min(e.End, 0), eventInset) {
			c.Fixed = append(c.Fixed, chartEvent{ID: e.Fixed, name: e.Name, Label: label, piece: p})
		}
	}
}
