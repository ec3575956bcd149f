package web_test

import (
	"encoding/base64"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/store"
)

// What was typed in a form stays, whatever else is chosen or goes wrong.
func TestWhatWasTypedStays(t *testing.T) {
	base, _ := site(t, "stays")
	coach := visit(t, base, demo.Email)
	other := page(t,
		coach, "/sessions/new?squad=1&kind=training&title=Kept+title&minutes=33&start=2026-12-03T18:50&venue=0&"+
			"place=Kept+place&from=empty&typed=yes&air=-7&wind=3&day=wet")
	for _, kept := range []string{`value="Kept title"`, `value="33"`, `value="2026-12-03T18:50"`, `value="Kept place"`,
		`name="air" inputmode="decimal" value="-7"`, `value="3" placeholder="wind"`} {
		assert.Contains(t, strings.Join(strings.Fields(other), " "), kept)
	}
	assert.Regexp(t, `value="wet"\s+checked`, other)
	assert.Regexp(t, `value="empty"[^>]*checked`, other)

	status, text, _ := coach.post("/sessions", url.Values{"kind": {"match"}, "title": {"Past"},
		"start": {"2026-11-20T15:00"}, "venue": {"1"}, "from": {"composed"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.NotContains(t, text, "clocks go back", "it is past, and that is all that is wrong with it")

	// A form that was refused is loaded again as its page.
	status, _, to := coach.get("/sessions/1/timing")
	assert.Equal(t, []any{http.StatusSeeOther, "/sessions/1"}, []any{status, to})
	status, _, to = coach.get("/sport")
	assert.Equal(t, []any{http.StatusOK, ""}, []any{status, to})
}

// Changing how a drill is counted leaves nothing of the old way behind, and a step goes
// into the range.
func TestADrillOfAnotherKindForgetsTheOld(t *testing.T) {
	base, p := site(t, "kinds")
	coach := visit(t, base, demo.Email)
	form := url.Values{"name": {"Our grid"}, "aim": {"x"}, "kind": {"grid"}, "phases": {"sport"}, "unit": {"kicks"},
		"rows": {"near, far"}, "columns": {"left, right"}, "cells": {"4"}, "act_seconds": {"6"},
		"min": {"1"}, "target": {"2"}, "max": {"4"}, "step": {"1"}, "effort": {"60"}}
	status, text, to := coach.post("/drills/new", form)
	require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	made, _, _ := strings.Cut(to[strings.Index(to, "drill=")+len("drill="):], "&")
	for field, value := range map[string]string{"kind": "reps", "sets": "1", "sides": "1", "rep_seconds": "3"} {
		form.Set(field, value)
	}
	form.Set("edition", "1")
	status, text, _ = coach.post("/drills/"+made, form)
	require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	book, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	is, found := book.Find(made)
	require.True(t, found)
	assert.Empty(t, is.Rows)
	assert.Empty(t, is.Columns)
	assert.Zero(t, is.Dose.Cells)
	form.Set("edition", "2")
	form.Set("step", "10")
	status, text, _ = coach.post("/drills/"+made, form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.NotContains(t, problemIn(text), made, "no code in a sentence")
}

// A position that the sport does not know stays as it was said and is asked about, once for all
// who play so: the answer is kept, for those and for the next.
func TestAnUnknownPositionIsNamed(t *testing.T) {
	base, _ := site(t, "positions")
	coach := visit(t, base, demo.Email)
	list := base64.StdEncoding.EncodeToString([]byte("number;first name;last " +
		"name;position\n81;Nova;Brisk;Hokker\n82;Zilla;Brisk;9\n83;Odd;Brisk;Wing\n"))
	_, text, _ := coach.post("/import", url.Values{"kind": {"squad"}, "squad": {"1"}, "file64": {list}})
	assert.Contains(t, words(text), `"Hokker" is not a position we know`)
	coach.post("/import", url.Values{"kind": {"squad"}, "squad": {"1"}, "take": {"yes"}, "file64": {list}})
	assert.Contains(t, words(page(t, coach, "/squad?squad=1")), "Hokker : which position is that? Hooker")
	coach.post("/squad/1/positions", url.Values{"said": {"Hokker"}, "as": {"Hooker"}})
	assert.NotContains(t, words(page(t, coach, "/squad?squad=1")), "Hokker : which")
	status, text, _ := coach.post("/squad/1/names",
		url.Values{"names": {"91 Uma Brisk - hokker / finisher\n77\n\n\nAda " + strings.Repeat("y", 300) + "\n"}})
	assert.Equal(t, http.StatusOK, status)
	assert.Contains(t, words(text), "1 player is in")
	assert.Contains(t, words(text), "a name is up to")
	assert.Contains(t, words(text), "finisher : which position is that?")
	coach.post("/squad/1/positions", url.Values{"said": {"finisher"}, "as": {""}})
	assert.Contains(t, words(page(t, coach, "/squad?squad=1")), "91 Uma Brisk Hooker / finisher",
		"a position of its own from now on")
	_, text, _ = coach.post("/squad/1/names", url.Values{"names": {strings.Repeat("Bo Brisk\n", 5000)}})
	assert.Contains(t, words(text), "200 players are read at once")
}

// A zone is as long as it is, in metres with a point or a comma, or in yards.
func TestAZonesLengthIsReadAsItIsWritten(t *testing.T) {
	base, _ := site(t, "lengths")
	coach := visit(t, base, demo.Email)
	for text, metres := range map[string]float64{"10.17": 10.17, "10,17": 10.17, "22 yd": 20.12, "22 yards": 20.12,
		"20": 20} {
		name := "Lane " + text
		status, said, _ := coach.post("/ground/zone", url.Values{"of": {"1"}, "name": {name}, "capacity": {"9"},
			"lanes": {"2"}, "metres": {text}})
		require.Equal(t, http.StatusSeeOther, status, problemIn(said))
		zones, err := store.Entries[club.Zone](ctx, storeOf(t).Clubs, 1)
		require.NoError(t, err)
		for _, z := range zones {
			if z.Is.Name == name {
				assert.InDelta(t, metres, z.Is.Metres, 0.005, text)
			}
		}
	}
	for _, text := range []string{"far", "-3", "1e9", "NaN"} {
		status, _, _ := coach.post("/ground/zone", url.Values{"of": {"1"}, "name": {"x"}, "capacity": {"9"},
			"lanes": {"2"}, "metres": {text}})
		assert.Equal(t, http.StatusUnprocessableEntity, status, text)
	}
}

// A plan whose work should have begun, or whose start has gone, says so on its board
// and on Today; minutes that are gone are not planned into.
func TestMinutesThatAreGone(t *testing.T) {
	base, p := site(t, "gone")
	before, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	at := before.Schedule.Start.Add(-25 * time.Minute)
	p.Now = func() time.Time { return at }
	coach := visit(t, base, demo.Email)
	assert.Contains(t, page(t, coach, "/sessions/1"), "Work was to begin")
	assert.Contains(t, page(t, coach, "/today"), "Work was to begin")
	_, _, to := coach.post("/sessions", url.Values{"kind": {"match"}, "title": {"Soon"}, "start": {"2026-11-28T15:00"},
		"venue": {"1"}, "squad": {"1"}, "from": {"composed"}})
	var number uint64
	fmt.Sscanf(to, "/sessions/%d", &number)
	soon, err := p.Boards.Board(ctx, 1, number)
	require.NoError(t, err, to)
	work := 0
	for _, b := range soon.Blocks {
		if b.Kept {
			work++
			assert.False(t, soon.Schedule.Start.Add(time.Duration(b.Start)*time.Second).Before(at), b.Name)
		}
	}
	assert.Positive(t, work)
	at = before.Schedule.Start.Add(3 * time.Hour)
	assert.Contains(t, page(t, coach, "/sessions/1"), "Kick-off was 3 hours ago")
}

// Every page of the demo club shows what it is for before anything is picked.
func TestNoPageOfTheDemoIsEmpty(t *testing.T) {
	base, _ := site(t, "full")
	coach := visit(t, base, demo.Email)
	for path, shows := range map[string][]string{
		"/squad":    {"Who works together"},
		"/drills":   {"What your book covers"},
		"/ground":   {"What this is for"},
		"/routines": {"Match day, home"},
		"/staff":    {"Invite somebody"},
		"/import":   {"first name", "Empty table"},
	} {
		text := words(page(t, coach, path))
		for _, s := range shows {
			assert.Contains(t, text, s, path)
		}
	}
	status, text, _ := coach.get("/export/template.csv?kind=squad")
	assert.Equal(t, http.StatusOK, status)
	assert.Contains(t, text, "first name")
}

// What a plan goes without is said on its board until the coach has read it.
func TestTheBoardSaysWhatItGoesWithout(t *testing.T) {
	base, p := site(t, "without")
	coach := visit(t, base, demo.Email)
	_, _, to := coach.post("/sessions", url.Values{"kind": {"match"}, "title": {"Cup"}, "start": {"2026-12-12T15:00"},
		"venue": {"1"}, "squad": {"1"}, "from": {"composed"}})
	require.Contains(t, to, "/sessions/")
	var number uint64
	fmt.Sscanf(to, "/sessions/%d", &number)
	b, err := p.Boards.Board(ctx, 1, number)
	require.NoError(t, err)
	hooker := ""
	for _, player := range b.Document.Players {
		if player.Position == "Hooker" {
			hooker = player.ID
		}
	}
	require.NotEmpty(t, hooker)
	_, err = p.Boards.Change(ctx, store.Account{ID: 1, ClubID: 1, Role: store.Coach}, number, b.Revision,
		func(d *plan.Document) (string, error) {
			d.Blocks = append(d.Blocks, plan.Block{ID: "alone", Name: "Darts", Phase: "own", Who: []string{hooker},
				Priority: plan.Could, Items: d.Blocks[0].Items[:1]})
			d.Blocks[len(d.Blocks)-1].Phase = d.Blocks[0].Phase
			return "darts", nil
		})
	require.NoError(t, err)
	b, err = p.Boards.Board(ctx, 1, number)
	require.NoError(t, err)
	_, text, _ := coach.post(to+"/players", url.Values{"revision": {itoa(b.Revision)}, "player": {hooker},
		"out": {"yes"}})
	if text == "" {
		text = page(t, coach, to)
	}
	assert.Contains(t, words(text), "Darts: nobody for it today")
	b, err = p.Boards.Board(ctx, 1, number)
	require.NoError(t, err)
	coach.post(to+"/notes", url.Values{"revision": {itoa(b.Revision)}})
	assert.NotContains(t, page(t, coach, to), "About this plan")
}
