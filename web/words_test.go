package web

import (
	"encoding/json"
	"fmt"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/store"
)

func squad(n int) *plan.Document {
	d := &plan.Document{Margin: 300, StartName: "Kick-off"}
	for i := 1; i <= n; i++ {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i), Number: i, First: fmt.Sprint("Name", i), Last: "Z"})
	}
	d.Units = []plan.Unit{{ID: "u", Name: "Line-out", Players: []string{"p1", "p2"}}}
	return d
}

func TestNumbersAreWrittenAsACoachDoes(t *testing.T) {
	d := squad(12)
	for want, ids := range map[string][]string{"1–3": {"p3", "p1", "p2"}, "4 5": {"p4", "p5"}, "1 3–5 9": {"p9", "p1", "p4", "p5", "p3"}, "7 +1": {"p7", "gone"}, "": nil} {
		assert.Equal(t, want, numbers(d, ids))
	}
	assert.Equal(t, "Whole squad", who(d, []string{plan.Everyone}))
	assert.Equal(t, "Line-out, Name5 Z.", who(d, []string{"u", "p5", "gone"}))
	short := func(text string) bool { return len(text) <= 14 }
	assert.Equal(t, "Name1 +2", firstNames(d, []string{"p1", "p2", "p3"}, short))
	assert.Equal(t, "everybody", firstNames(d, d.Members([]string{plan.Everyone}), short))
}

func TestTheVerdictNamesWhatWasCut(t *testing.T) {
	d := squad(3)
	d.Blocks = []plan.Block{{ID: "a", Name: "Raise", Phase: drill.Raise}, {ID: "b", Name: "Bands"}, {ID: "c", Name: "Sprints", Phase: drill.Potentiate}}
	s := &schedule.Schedule{Result: &runin.Result{Feasible: true, Blocks: []runin.Scheduled{
		{ID: "a", Kept: true, Start: -1500, End: -900, Missed: []runin.Missed{{Player: "p2", Seconds: 90}}},
		{ID: "b", Why: "a should"},
		{ID: "c", Kept: true, Start: -900, End: -300, Why: "2 sprints, not 4: 1:00 shorter"}}}}
	v := judge(d, s)
	assert.True(t, v.Holds)
	assert.Equal(t, "It holds, with less.", v.Head)
	assert.Equal(t, "1 shortened, 1 left out", v.Line)
	assert.Equal(t, []cut{{"Bands is left out", "a should"}, {"Sprints is shortened", "2 sprints, not 4: 1:00 shorter"}, {"Name2 Z. misses 1:30 of Raise", "called away meanwhile; the rest goes on"}}, v.Cuts)
	s.Result.Blocks[1] = runin.Scheduled{ID: "b", Kept: true, Start: -950, End: -900}
	s.Result.Blocks[2].Why = ""
	assert.Equal(t, "all in full, from 25 to 5 to go", judge(d, s).Line)
	s.Result.Feasible, s.Result.ShortBy, s.Result.Why, s.Result.Binds = false, 120, "the musts take 9:00", []string{"p1", "p2"}
	v = judge(d, s)
	assert.False(t, v.Holds)
	assert.Equal(t, "Open 2:00 sooner, or give up a must. The musts take 9:00. Tightest for 1 2 Name1, Name2", v.Line)
}

func TestTextStaysInItsBox(t *testing.T) {
	for _, text := range []string{"Toss", "Kicks at posts", "Referee, front rows", strings.Repeat("long", 20), "Ärgerlich überlange Übung", "x"} {
		for _, b := range []box{{0, 0, 20, 34}, {0, 0, 48, 34}, {0, 0, 30, 70}, {0, 0, 34, 400}, {0, 0, 90, 150}, {0, 0, 3, 10}} {
			lines, _ := blockText(&chartBlock{name: text, letter: "R", length: "6:55", words: []string{"9 lengths of 60 m"}}, b)
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
	d := squad(4)
	d.Blocks = []plan.Block{{ID: "all", Name: "All", Phase: drill.Raise, Who: []string{plan.Everyone}}, {ID: "some", Name: "Some", Phase: drill.Sport, Who: []string{"p1", "p4"}}, {ID: "gone", Name: "Gone"}}
	start := time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)
	s := &schedule.Schedule{Start: start, Amounts: make([][]int, 3), Result: &runin.Result{Strands: [][]string{{"p4"}, {"p1"}, {"p2", "p3"}}, Blocks: []runin.Scheduled{
		{ID: "all", Kept: true, Start: -1800, End: -900}, {ID: "some", Kept: true, Start: -900, End: -300}, {ID: "gone"}}},
		Fixed: []schedule.Window{{ID: "talk", Players: []string{"p1"}, Start: -300, End: 60}}}
	c := newChart(&planner.Board{Session: &store.Session{Document: d, Schedule: s}}, "x", 900, 120, "/b", "some")
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
	assert.True(t, slices.ContainsFunc(c.Ticks, func(t tick) bool { return t.ToGo == "20" && t.Clock == "14:40" }))
	assert.Equal(t, clock.Offset(-1860), func() clock.Offset { from, _ := chartSpan(d, s); return from }())
}

func TestOnlyPathsOfThisSiteAreGoneBackTo(t *testing.T) {
	for path, want := range map[string]string{"/sessions/1?block=a": "/sessions/1?block=a", "//evil.example": "/today", "https://evil.example": "/today", "": "/today", "/\\evil": "/today", "/a\r\nb": "/today"} {
		assert.Equal(t, want, safePath(path))
	}
	assert.Equal(t, []string{"started", "in 30 minutes", "in 3 hours", "in 3 days"}, []string{away(-time.Second), away(30 * time.Minute), away(3*time.Hour + time.Minute), away(80 * time.Hour)})
}

func TestAnAudienceIsNamedShortly(t *testing.T) {
	d := &plan.Document{Units: []plan.Unit{{ID: "u", Name: "Line-out", Players: []string{"p1"}}}}
	var all []string
	for n := 1; n <= 9; n++ {
		id := fmt.Sprintf("p%d", n)
		all = append(all, id)
		d.Players = append(d.Players, plan.Player{ID: id, First: string(rune('A' + n - 1))})
	}
	for want, ids := range map[string][]string{
		"Whole squad":        {plan.Everyone},
		"Line-out, B":        {"u", "p2"},
		"A, B, C, D":         all[:4],
		"A, B, C and 2 more": all[:5],
		"All but I":          all[:8],
		"All but G, H, I":    all[:6],
		"":                   {"gone"},
	} {
		assert.Equal(t, want, who(d, ids))
	}
	assert.Equal(t, "Whole squad", who(d, all), "one by one")
}

func TestAMomentIsReadAsItIsWritten(t *testing.T) {
	start := time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)
	for _, text := range []string{"46", "4:30", "0", "@13:52"} {
		m, err := moment(text)
		require.NoError(t, err, text)
		assert.Equal(t, text, momentText(m, start))
	}
	for _, bad := range []string{"", "soon", "@25:00", "@", "4:99", "-3"} {
		_, err := moment(bad)
		assert.Error(t, err, bad)
	}
}

func TestASportIsReadAsItIsWritten(t *testing.T) {
	for _, s := range book.Sports() {
		b := sportBodyOf(&s)
		form := url.Values{"key": {b.Key}, "name": {b.Name}, "start": {b.Start}, "first": {b.First}, "margin": {b.Margin}, "positions": {b.Positions}, "units": {b.Units},
			"due": {b.Due}, "fixed": {b.Fixed}, "craft": {b.Craft}, "team": {b.Team}}
		for _, tick := range b.Stresses {
			if tick.On {
				form.Add("stresses", tick.Value)
			}
		}
		c, _ := gin.CreateTestContext(httptest.NewRecorder())
		c.Request = httptest.NewRequest("POST", "/sport", strings.NewReader(form.Encode()))
		c.Request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		back, wrong := readSport(c)
		require.Empty(t, wrong, s.Key)
		known := func(string) bool { return true }
		require.NoError(t, back.Validate(known))
		back.Stresses, s.Stresses = sorted(back.Stresses), sorted(s.Stresses)
		if len(s.Due) == 0 {
			s.Due = nil
		}
		x, _ := json.Marshal(s)
		y, _ := json.Marshal(back)
		assert.JSONEq(t, string(x), string(y))
	}
}

func sorted(list []string) []string {
	list = slices.Clone(list)
	slices.Sort(list)
	return list
}

func TestACautionIsSaidOnce(t *testing.T) {
	var said []string
	for _, caution := range []string{"Even, dry ground only", "Light band; stop on pain", "Even, dry ground", "even, dry ground only; a knock to the head means out", "Stop on hip pain", "", "Nothing to mind", "élan first"} {
		said = warn(said, caution)
	}
	assert.Equal(t, []string{"Even, dry ground only", "Light band", "Élan first"}, said)
}
