package web

import (
	"fmt"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/warmth"
	"cuestart/planner"
)

// trace is the estimate of warmth below the lanes, on the same axis of time.
type trace struct {
	Top, Bottom, WarmY int
	Lines              []traceLine
	Label              string // of the strand that is coldest at the start
	LabelX, LabelY     int
	None               bool
}

type traceLine struct {
	Path string
	Bold bool
}

// warmthHeight is the height of the trace in the chart.
const warmthHeight = 92

// newTrace draws the strands' warmth between left and the start line at lineX.
func newTrace(b *planner.Board, left, top, lineX int, from clock.Offset, x func(clock.Offset) int) trace {
	t := trace{Top: top, Bottom: top + warmthHeight - 6}
	y := func(celsius float64) int { return t.Bottom - int(celsius/4*float64(t.Bottom-t.Top)+0.5) }
	t.WarmY = y(warmth.Warm)
	coldest := -1
	for k := range b.Strands {
		s := &b.Strands[k]
		if len(s.Stretches) > 0 && s.Due <= 0 && (coldest < 0 || s.End() < b.Strands[coldest].End()) {
			coldest = k
		}
	}
	t.None = coldest < 0
	for k := range b.Strands {
		s := &b.Strands[k]
		if len(s.Stretches) == 0 {
			continue
		}
		var path strings.Builder
		fmt.Fprintf(&path, "M%d %dH%d", left, y(0), x(max(s.From, from)))
		for o := max(s.From, from); o <= 0; o += 30 {
			fmt.Fprintf(&path, "L%d %d", x(o), y(s.Estimate(o)))
		}
		fmt.Fprintf(&path, "L%d %d", lineX, y(s.Estimate(0)))
		t.Lines = append(t.Lines, traceLine{path.String(), k == coldest})
	}
	if !t.None {
		s := &b.Strands[coldest]
		who := numbers(b.Document, s.Players)
		if who == "" || len(b.Strands) == 1 {
			who = firstNames(b.Document, s.Players, func(text string) bool { return len(text) < 24 })
		}
		t.Label = fmt.Sprintf("%s: %.1f at the line", who, s.End())
		t.LabelX, t.LabelY = lineX-8, min(t.Bottom-6, max(t.Top+10, y(s.End())+20))
	}
	return t
}
