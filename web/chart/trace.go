package chart

import (
	"fmt"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/warmth"
)

// trace is the estimate of warmth below the lanes, on the same axis of time.
type trace struct {
	Top, Bottom    int
	WarmY          int // from which a body is warm for a match; 0: it is none
	ReadyY         int // from which deep work is prepared
	Lines          []traceLine
	Label          string // of the strand that is coldest at the start
	LabelX, LabelY int
	Ready, Deep    string // what these two are
	None           bool
}

type traceLine struct {
	Path string
	Bold bool
}

// Lengths of the trace.
const (
	warmthHeight = 92
	warmthInset  = 6
	celsiusShown = 4.0 // °C over rest from the bottom to the top
	traceStep    = 30  // seconds between two points of a line
	labelLeft    = 8   // of the start line
	labelBelow   = 22  // of the line's end
	labelTop     = 10  // least distance of the label from the top, and
	labelBottom  = 6   // from the bottom
	traceNames   = 24  // characters of names in the label
)

// warmth draws the strands' warmth between the left and the start line.
func (c *Chart) warmth(b Plan) trace {
	top := c.Bottom + footHeight
	t := trace{Top: top, Bottom: top + warmthHeight - warmthInset, Ready: b.Document.Measure.Warmer(warmth.Warm),
		Deep: b.Document.Measure.Warmer(warmth.Ready)}
	y := func(celsius float64) int { return t.Bottom - int(celsius/celsiusShown*float64(t.Bottom-t.Top)+0.5) }
	if t.ReadyY = y(warmth.Ready); b.Document.Kind == plan.Match {
		t.WarmY = y(warmth.Warm)
	}
	coldest := coldestOf(b.Strands)
	for k := range b.Strands {
		s := &b.Strands[k]
		if len(s.Stretches) == 0 {
			continue
		}
		var path strings.Builder
		from := max(s.From, c.from)
		fmt.Fprintf(&path, "M%d %dH%d", c.Left, y(s.Estimate(max(c.from, min(from, s.From)))), c.x(from))
		for o := from; o <= 0; o += traceStep {
			fmt.Fprintf(&path, "L%d %d", c.x(o), y(s.Estimate(o)))
		}
		fmt.Fprintf(&path, "L%d %d", c.LineX, y(s.Estimate(0)))
		t.Lines = append(t.Lines, traceLine{path.String(), k == coldest})
	}
	if t.None = coldest < 0; t.None {
		return t
	}
	s := &b.Strands[coldest]
	who := b.Document.Numbers(s.Players)
	if who == "" || len(b.Strands) == 1 {
		who = b.Document.FirstNames(s.Players, func(text string) bool { return len(text) < traceNames })
	}
	t.Label = fmt.Sprintf("%s: %s at the start", who, b.Document.Measure.Warmer(s.End()))
	t.LabelX, t.LabelY = c.LineX-labelLeft, min(t.Bottom-labelBottom, max(t.Top+labelTop, y(s.End())+labelBelow))
	return t
}

// coldestOf is the strand that is coldest at the start, of those that are due by
// then; -1 where there is none.
func coldestOf(strands []warmth.Strand) int {
	coldest := -1
	for k := range strands {
		s := &strands[k]
		if len(s.Stretches) > 0 && s.Due <= clock.Offset(0) && (coldest < 0 || s.End() < strands[coldest].End()) {
			coldest = k
		}
	}
	return coldest
}
