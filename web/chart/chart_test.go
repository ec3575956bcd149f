package chart

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
)

func TestTextStaysInItsBox(t *testing.T) {
	for _, text := range []string{"Toss", "Kicks at posts", "Referee, front rows", strings.Repeat("long", 20),
		"Ärgerlich überlange Übung", "x"} {
		for _, b := range []box{{X: 0, Y: 0, W: 20, H: 34}, {X: 0, Y: 0, W: 48, H: 34}, {X: 0, Y: 0, W: 30, H: 70},
			{X: 0, Y: 0, W: 34, H: 400}, {X: 0, Y: 0, W: 90, H: 150},
			{X: 0, Y: 0, W: 3, H: 10}} {
			lines, _ := blockText(&chartBlock{name: text, letter: "R", length: "6:55",
				words: []string{"9 lengths of 60 m"}}, b)
			fixed, _ := fitText(text, b)
			for _, l := range append(lines, fixed...) {
				size, room := 16, b.W
				if l.Class == "letter" {
					size = 26
				}
				if l.Upward {
					room = b.H
				}
				assert.LessOrEqual(t, int(textWidth(l.Text, size)*0.93), room+1, "%q in %+v", l.Text, b)
				assert.True(t, l.Y >= 0 && l.Y <= b.H+1, "%q at %d in %+v", l.Text, l.Y, b)
			}
		}
	}
	assert.Equal(t, "lo…", cutTo("longer", 16, 28))
}

// A chart puts each block where its time is, in the lanes of its players.
func TestAChartIsTrueToTheSchedule(t *testing.T) {
	d := &plan.Document{Hours: plan.Hours{Margin: 300, StartName: "Kick-off"}}
	for i := 1; i <= 4; i++ {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i), Number: i, First: fmt.Sprint("Name", i)})
	}
	d.Blocks = []plan.Block{{ID: "all", Name: "All", Phase: drill.Raise, Who: []string{plan.Everyone}},
		{ID: "some", Name: "Some", Phase: drill.Sport, Who: []string{"p1", "p4"}}, {ID: "gone", Name: "Gone"}}
	start := time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)
	s := &schedule.Schedule{Start: start, Amounts: make([][]int, 3),
		Result: &runin.Result{Strands: [][]string{{"p4"}, {"p1"}, {"p2", "p3"}}, Blocks: []runin.Scheduled{
			{ID: "all", Kept: true, Start: -1800, End: -900}, {ID: "some", Kept: true, Start: -900, End: -300},
			{ID: "gone"}}},
		Fixed: []schedule.Window{{ID: "talk", Players: []string{"p1"}, Start: -300, End: 60}}}
	href := func(block string) string { return "/b?block=" + block }
	c := New(Plan{Document: d, Schedule: s}, View{ID: "x", Width: 900, Labels: 120, Href: href, Chosen: "some"})
	require.Len(t, c.Lanes, 3)
	assert.Equal(t, []string{"1", "2 3", "4"}, []string{c.Lanes[0].Who, c.Lanes[1].Who, c.Lanes[2].Who})
	require.Len(t, c.Blocks, 2, "what is left out is not drawn")
	all, some := c.Blocks[0], c.Blocks[1]
	require.Len(t, all.Pieces, 1)
	require.Len(t, some.Pieces, 2, "lanes 1 and 3 are not side by side")
	assert.True(t, some.Chosen)
	assert.Equal(t, "/b?block=some", some.Href)
	perSecond := float64(c.LineX-all.Pieces[0].X) / 1800
	assert.InDelta(t, float64(c.LineX)-900*perSecond, some.Pieces[0].X, 2, "on one scale")
	assert.InDelta(t, 600*perSecond, some.Pieces[0].W, 2)
	assert.Equal(t, c.Lanes[2].Y+2, some.Pieces[1].Y)
	for _, f := range c.Fixed {
		assert.LessOrEqual(t, f.X+f.W, c.LineX, "the picture ends at the start")
	}
	assert.Equal(t, "15:00", c.StartTime)
	assert.True(t, slices.ContainsFunc(c.Ticks, func(t tick) bool { return t.ToGo == "20′" && t.Clock == "14:40" }))
	assert.Equal(t, clock.Offset(-1860), c.from)
}

// The line of the start is drawn where being cold at it is found: for a match.
func TestTheLineOfTheStartIsAMatchs(t *testing.T) {
	for kind, drawn := range map[plan.Kind]bool{plan.Match: true, plan.Training: false} {
		d := &plan.Document{
			Kind:  kind,
			Party: plan.Party{Players: []plan.Player{{ID: "p1", Number: 1, First: "Ada"}}},
			Hours: plan.Hours{StartName: "Start"},
			Work: plan.Work{Blocks: []plan.Block{{ID: "all", Name: "All", Phase: drill.Raise,
				Who: []string{plan.Everyone}}}},
		}
		s := &schedule.Schedule{Start: time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC), Amounts: make([][]int, 1),
			Result: &runin.Result{Strands: [][]string{{"p1"}},
				Blocks: []runin.Scheduled{{ID: "all", Kept: true, Start: -900, End: -300}}}}
		b := Plan{Document: d, Schedule: s}
		c := New(b, View{ID: "x", Width: 900, Labels: 120, Href: func(string) string { return "" }})
		assert.Equal(t, drawn, c.warmth(b).WarmY > 0, kind)
		assert.Positive(t, c.warmth(b).ReadyY)
	}
}

// A narrow block's name stands across in small letters, below its letter; one that is
// too long even so runs upwards.
func TestANarrowNameStandsAcross(t *testing.T) {
	at := box{X: 100, Y: 0, W: 37, H: 400}
	for name, across := range map[string]bool{"Bands": true, "Neck holds": true, "Shouldering": false} {
		lines, whole := blockText(&chartBlock{name: name, letter: "A", length: "2:15 min"}, at)
		require.NotEmpty(t, lines)
		assert.True(t, whole, name)
		upward := slices.ContainsFunc(lines, func(l textLine) bool { return l.Upward })
		assert.Equal(t, across, !upward, name)
		assert.True(t, slices.ContainsFunc(lines, func(l textLine) bool { return l.Class == "letter" }), name)
	}
}

// A label that has no room in its box nor beside it stands in a free lane near it, else above the
// lanes, over nothing; where all is taken the box says what it can.
func TestALabelWithoutRoomStandsApart(t *testing.T) {
	narrow := box{X: 300, Y: 62, W: 14, H: 25}
	for name, is := range map[string]struct {
		taken []box
		y     int
	}{
		"in the lane below":   {[]box{{100, 62, 200, 25}, {314, 62, 200, 25}}, 62 + 25 + 12},
		"above, if all below": {[]box{{100, 62, 200, 25}, {314, 62, 400, 25}, {100, 87, 700, 200}}, 62},
		"nowhere":             {[]box{{100, 30, 200, 57}, {314, 30, 400, 57}, {100, 87, 700, 200}}, 0},
	} {
		c := &Chart{Left: 100, Top: 62, Bottom: 287, LineX: 900, laneHeight: 25}
		for _, b := range append(is.taken, narrow) {
			c.Fixed = append(c.Fixed, chartEvent{piece: piece{box: b}})
		}
		lines := c.elsewhere("Neck holds", narrow, nil)
		if is.y == 0 {
			assert.Empty(t, lines, name)
			continue
		}
		require.Len(t, lines, 1, name)
		assert.Equal(t, "Neck holds", lines[0].Text, name)
		assert.InDelta(t, is.y, lines[0].Y, 8, name)
		assert.NotEmpty(t, c.Leads, name)
		again := c.elsewhere("Second one", narrow, nil)
		for _, l := range again {
			apart := max(l.X-lines[0].X, lines[0].X-l.X) > 60 || max(l.Y-lines[0].Y, lines[0].Y-l.Y) > 12
			assert.True(t, apart, "%s: %+v over %+v", name, l, lines[0])
		}
	}
}
