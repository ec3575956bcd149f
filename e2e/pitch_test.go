package e2e

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/conduct"
	"cuestart/core/schedule"
	"cuestart/demo"
	"cuestart/field"
	"cuestart/planner/office"
)

// beforeStart has the site's clock show so long before the demo match's start, and run on; skip
// moves it.
func beforeStart(p *office.Office, before time.Duration) (skip func(time.Duration)) {
	start := time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)
	began, moved := time.Now(), new(atomic.Int64)
	p.Now = func() time.Time { return start.Add(-before + time.Duration(moved.Load()) + time.Since(began)) }
	return func(by time.Duration) { moved.Add(int64(by)) }
}

// assistantIn adds an assistant to the demo club, and signs a browser in as her.
func assistantIn(t *testing.T, b *browser) {
	raw, err := sql.Open("mysql", server.DSN(dbName(t)))
	require.NoError(t, err)
	defer raw.Close()
	_, err = raw.Exec("INSERT INTO account (club_id, email, name, role, password_hash) SELECT club_id, "+
		"'assistant@brackwater.example', 'Ulla Renn', 'assistant', password_hash FROM account WHERE email = ?",
		demo.Email)
	require.NoError(t, err)
	b.open("/sign-in")
	b.fill("[name=email]", "assistant@brackwater.example")
	b.fill("[name=password]", demo.Password)
	b.click("main button")
	b.until(`location.pathname == "/today"`)
}

// pitchSide opens a session's pitch side and waits until the phone can do without the site.
func pitchSide(b *browser) {
	b.size(390, 844)
	b.open("/pitch/1")
	b.until(`document.querySelector("main")?._x_dataStack?.[0].ready`)
	b.until(`navigator.serviceWorker.controller`)
	require.Eventually(b.t, func() bool {
		return evalPromise(b,
			`Promise.all(["/pitch/1", "/pitch/1/plan.json", "/pitch/field.js"].map(p => caches.match(p))).then(all => String(all.every(Boolean)))`) == "true"
	}, 20*time.Second, 200*time.Millisecond)
}

// tap presses what can be pressed, wherever it is by then: cards grow and go while a plan is fitted
// anew, and a press at a place on the glass would meet what has come there meanwhile.
func tap(b *browser, css string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`(x => x?.offsetParent && !x.disabled)(document.querySelector(%q))`, css))
	b.run(fmt.Sprintf(`document.querySelector(%q).click()`, css))
}

func pressed(b *browser, text string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`[...document.querySelectorAll("button")].some(x => x.offsetParent && !x.disabled && x.textContent.trim() == %q)`,
		text))
	b.run(fmt.Sprintf(`[...document.querySelectorAll("button")].find(x => x.offsetParent && x.textContent.trim() == %q).click()`,
		text))
}

// Two phones run the match for a while without a signal: one has the start called ten minutes
// earlier and a place lost, the other marks one out and ticks a grid. Once there is a signal
// again they come to the same, nothing is lost, what they disagree on is shown, and the log
// is what was done.
func TestASessionRunsWithoutASignal(t *testing.T) {
	base, p := site(t, true)
	_, links, _ := published(t, p)
	skip := beforeStart(p, 43*time.Minute)
	ines, ulla := newBrowser(t, base), newBrowser(t, base)
	ines.signIn()
	assistantIn(t, ulla)
	pitchSide(ines)
	pitchSide(ulla)

	// With a signal each sees what the other marks at once.
	since := time.Now()
	tap(ines, `[aria-label=Next] [data-do=start]`)
	ulla.until(`document.querySelector("[data-card=raise]")`)
	assert.Less(t, time.Since(since), 3*time.Second)

	signal(t, false)
	ines.open("/pitch/1")
	ines.until(`document.querySelector("main")?._x_dataStack?.[0].ready`)
	ines.until(`document.querySelector("[data-sent]").textContent.startsWith("no signal")`)
	tap(ines, `[data-ask=start]`)
	pressed(ines, "-10′")
	ines.until(`document.querySelector("[data-proposal]")`)
	assert.Contains(t, ines.text("[data-proposal]"), "Kick-off 10 min earlier: 14:50")
	ines.shot("pitch")
	tap(ines, `[data-do=take]`)
	ines.until(`document.querySelector(".startbar").textContent.includes("14:50")`)
	tap(ines, `[data-ask=place]`)
	pressed(ines, "Far half")
	ines.until(`document.querySelector("[data-proposal]")`)
	tap(ines, `[data-do=take]`)
	ines.until(`document.querySelector("[data-sent]").textContent == "no signal · 2 to send"`)

	tap(ulla, `[data-ask=who]`)
	ulla.click(`[data-pick=p7]`)
	ulla.click(`[data-out=head]`)
	ulla.until(`document.querySelector("[data-proposal]")`)
	tap(ulla, `[data-do=take]`)
	ulla.until(`document.querySelector("[aria-label='So far']").innerText.includes("stays out")`)
	ulla.click(`[data-card=kicks] button`)
	ulla.until(`[...document.querySelectorAll("[data-cell]")].some(c => c.offsetParent)`)
	ulla.run(`[...document.querySelectorAll("[data-cell]")].find(c => c.offsetParent).click()`)
	ulla.until(`document.querySelector("[data-sent]").textContent == "no signal · 2 to send"`)

	signal(t, true)
	for _, b := range []*browser{ines, ulla} {
		b.run(`dispatchEvent(new Event("online"))`)
		b.until(`document.querySelector("[data-sent]").textContent == "all sent"`)
		b.until(`document.querySelector(".startbar").textContent.includes("14:50") && document.querySelector("[aria-label='So far']").innerText.includes("stays out")`)
	}
	ines.until(`document.querySelector("[data-ask=behind]").textContent == "Fit both together"`)
	tap(ines, `[data-ask=behind]`)
	ines.until(`document.querySelector("[data-proposal]")`)
	tap(ines, `[data-do=take]`)
	ulla.until(`document.querySelector("[data-ask=behind]").textContent == "Catch up"`)
	ulla.shot("pitch-joined")

	running, err := p.Pitchside.Running(t.Context(), 1, 1)
	require.NoError(t, err)
	assert.Len(t, running.Events, 6)
	stand, err := running.Stand(p.Now())
	require.NoError(t, err)
	assert.Equal(t, -600, stand.Moved)
	assert.NotEmpty(t, stand.Disputes, "they changed the plan without knowing")
	assert.Nil(t, stand.Document.Player("p7"))
	b, err := p.Boards.Board(t.Context(), 1, 1)
	require.NoError(t, err)
	assert.Equal(t, "14:50", b.Schedule.Start.Format("15:04"), "the plan follows")
	player := newBrowser(t, base)
	player.open(links["p15"])
	player.until(`document.querySelector("[data-bar]").textContent.includes("14:50")`)

	skip(2 * time.Hour)
	ines.size(1280, 800)
	ines.open("/sessions/1/log")
	assert.Contains(t, ines.text("main"), "Kick-off 10 min earlier")
	assert.Equal(t, "out", eval[string](ines, `document.querySelector("[name=was-p7]").value`))
	ines.click("#as-is")
	ines.until(`document.querySelector("main").innerText.includes("Kept by Ines Varley")`)
	kept, err := p.Learn.Log(context.Background(), 1, 1)
	require.NoError(t, err)
	for _, one := range kept.Blocks {
		if one.Name == "Kicks at posts" {
			assert.Equal(t, "22 m line, left touch 1 of 2", one.Drills[0].Ticks)
		}
		if one.Name == "Team run" {
			assert.NotContains(t, one.Who, "p7")
		}
	}
	assert.Equal(t, conduct.Out, kept.Players[slicesIndex(kept.Players, "p7")].Was)
}

func slicesIndex(list []conduct.Attended, person string) int {
	for i, a := range list {
		if a.Person == person {
			return i
		}
	}
	return 0
}

// The core on a page answers as the server does, whatever is different; that it does so two hundred times is tried
// without a browser (see field).
func TestThePhoneAnswersAsTheServer(t *testing.T) {
	base, p := site(t, true)
	beforeStart(p, 40*time.Minute)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/pitch/2?try=1500")
	b.until(`document.querySelector("main")?._x_dataStack?.[0].ready`)
	running, err := p.Pitchside.Running(t.Context(), 1, 2)
	require.NoError(t, err)
	phone, now := field.On(running.Plan, nil), running.Schedule.Start.Add(-20*time.Minute).UnixMilli()
	events, err := json.Marshal([]conduct.Event{{ID: "1", By: "x", At: now - 60_000, Kind: conduct.Done,
		Block: running.Document.Blocks[0].ID}})
	require.NoError(t, err)
	for _, is := range []conduct.Different{{Is: conduct.IsStart, Seconds: -240}, {Is: conduct.IsBehind},
		{Is: conduct.IsOut, Who: []string{running.Document.Players[3].ID}}} {
		is, err := json.Marshal(is)
		require.NoError(t, err)
		var answers [2]any
		require.NoError(t, json.Unmarshal([]byte(evalPromise(b, fmt.Sprintf(`(async () => {
			const core = document.querySelector("main")._x_dataStack[0].core, events = %s, now = %d;
			return JSON.stringify([await core.view(events, now), await core.propose(events, now, %s)]);
		})()`, events, now, is))), &answers))
		view, err := phone.View(events, now)
		require.NoError(t, err)
		proposal, err := phone.Propose(events, now, is, schedule.AtOnce)
		require.NoError(t, err)
		for n, made := range [][]byte{view, proposal} {
			var want any
			require.NoError(t, json.Unmarshal(made, &want))
			require.Equal(t, want, answers[n], "%s", is)
		}
	}
}

// enter writes into a field that the page's script listens to.
func enter(b *browser, css, value string) {
	b.run(fmt.Sprintf(`(() => { const f = document.querySelector(%q); f.value = %q; f.dispatchEvent(new Event("input", { bubbles: true })); })()`,
		css, value))
}

// One thumb does the rest: start, again, skip, undo, a note, who is late, minutes lost, the
// weather, a leader gone, the day's end; and what cannot be is said.
func TestWhatElseAThumbDoesAtThePitchSide(t *testing.T) {
	base, p := site(t, true)
	skip := beforeStart(p, 31*time.Minute)
	b := newBrowser(t, base)
	b.signIn()
	b.size(390, 844)
	b.open("/pitch/1")
	b.until(`document.querySelector("main")?._x_dataStack?.[0].ready`)
	past := func(text string) {
		t.Helper()
		b.until(fmt.Sprintf(`document.querySelector("[aria-label='So far']").innerText.includes(%q)`, text))
	}
	proposal := func() string {
		t.Helper()
		b.until(`document.querySelector("[data-proposal]")`)
		return b.text("[data-proposal]")
	}
	tap(b, `[data-card=bands] [data-do=done]`)
	past("Bands")
	tap(b, `[data-do=undo]`)
	b.until(`document.querySelector("[data-card=bands]")`)
	b.click(`[data-card=bands] button`)
	enter(b, `[data-card=bands] input`, "bands too tight")
	b.click(`[data-card=bands] form button`)
	b.until(`document.querySelector("[data-sent]").textContent == "all sent"`)
	tap(b, `[data-card=bands] [data-do=skip]`)
	past("skipped")
	tap(b, `[aria-label=Next] [data-do=start]`)
	b.until(`document.querySelector("[data-card=move]")`)

	tap(b, `[data-ask=minutes]`)
	pressed(b, "5′")
	assert.Contains(t, proposal(), "5 min lost")
	pressed(b, "Cancel")
	b.until(`!document.querySelector("[data-proposal]")`)
	tap(b, `[data-ask=minutes]`) // shut
	tap(b, `[data-ask=weather]`)
	pressed(b, "Rain")
	assert.Contains(t, proposal(), "Jump and stick")
	tap(b, `[data-do=take]`)
	past("rain: the ground is wet")
	tap(b, `[data-ask=weather]`)
	enter(b, "#celsius", "warm")
	pressed(b, "See it")
	b.until(`document.querySelector("[role=alert]").textContent.includes("Say what the thermometer shows")`)
	enter(b, "#celsius", "2")
	pressed(b, "See it")
	assert.Contains(t, proposal(), "2 °C by now")
	pressed(b, "Cancel")
	tap(b, `[data-ask=weather]`)

	tap(b, `[data-ask=who]`)
	b.click(`[data-pick=p14]`)
	b.click(`[data-pick=p13]`)
	pressed(b, "10′ late")
	assert.Contains(t, proposal(), "in 10 min")
	tap(b, `[data-do=take]`)
	tap(b, `[data-ask=place]`)
	pressed(b, "Dorrit")
	assert.Contains(t, proposal(), "without Dorrit")
	tap(b, `[data-do=take]`)
	past("without Dorrit")
	tap(b, `[data-ask=start]`)
	enter(b, "#called", "14:15")
	pressed(b, "See it")
	b.until(`document.querySelector("[role=alert]").textContent.includes("over already")`)
	enter(b, "#called", "15:30")
	pressed(b, "See it")
	text := proposal()
	assert.Contains(t, text, "Kick-off 30 min later: 15:30")
	tap(b, `[data-do=take]`)
	b.until(`document.querySelector(".startbar").textContent.includes("15:30")`)

	skip(3 * time.Hour)
	b.open("/pitch/1")
	b.until(`document.querySelector("main")?._x_dataStack?.[0].ready`)
	pressed(b, "Start it now")
	b.until(`document.querySelector("[aria-label=Now]").innerText.includes("Come down")`)
	l, err := p.Learn.Log(t.Context(), 1, 1)
	require.NoError(t, err)
	assert.Equal(t, "bands too tight", l.Blocks[1].Note)
	was := map[string]string{}
	for _, one := range l.Players {
		was[one.Person] = one.Was
	}
	assert.Equal(t, conduct.Late, was["p13"])
	assert.Len(t, l.Differs, 4)
	names := map[string]bool{}
	for _, one := range l.Blocks {
		names[one.Name] = one.Actual > 0
	}
	assert.True(t, names["Come down"], "the list after the end is in the log")
}

// A session that is days away is not pressed by mistake: it is rehearsed, and nothing is kept.
func TestARehearsalKeepsNothing(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.size(390, 844)
	b.open("/pitch/1")
	assert.Contains(t, b.text("main"), "You can press here from 11:10, Saturday 28 November")
	assert.True(t, eval[bool](b, `document.querySelector("fieldset").disabled`))
	b.click(`.notice a[href$="try=1800"]`)
	b.until(`document.querySelector("main")?._x_dataStack?.[0].ready`)
	tap(b, `[data-card] [data-do=done]`)
	b.until(`document.querySelector("[data-do=undo]").offsetParent`)
	assert.Contains(t, b.text("[data-sent]"), "nothing is kept")
	running, err := p.Pitchside.Running(t.Context(), 1, 1)
	require.NoError(t, err)
	assert.False(t, running.Begun)
}
