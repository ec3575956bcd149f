package e2e

import (
	"database/sql"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/conduct"
	"cuestart/demo"
	"cuestart/planner"
	"cuestart/planner/reach"
)

// signInAs signs a browser in, whoever was before.
func (b *browser) signInAs(email string) {
	b.t.Helper()
	b.open("/sign-in")
	b.fill("[name=email]", email)
	b.fill("[name=password]", demo.Password)
	b.click("main button")
	b.until(`location.pathname == "/today"`)
}

// stays is all that a browser keeps, as text: storage, and the pages of its caches.
func stays(b *browser) string {
	return evalPromise(b, `(async () => {
		let all = JSON.stringify(localStorage);
		for (const name of await caches.keys()) {
			const cache = await caches.open(name);
			for (const key of await cache.keys()) if (!new URL(key.url).pathname.startsWith("/assets/")) all += " " + key.url + " " + await (await cache.match(key)).text();
		}
		return all;
	})()`)
}

// Whoever has the phone next finds nothing of who had it before: not after they signed out, not
// without a signal; what they pressed and was not sent waits for them, and is never sent in
// another's name.
func TestTheNextOnAPhoneFindsNothing(t *testing.T) {
	base, p := site(t, true)
	beforeStart(p, 40*time.Minute)
	raw, err := sql.Open("mysql", server.DSN(dbName(t)))
	require.NoError(t, err)
	defer raw.Close()
	for _, text := range []string{"INSERT INTO club (id, name, sport) VALUES (2, 'Elsewhere', 'Netball')",
		"INSERT INTO squad (id, club_id, name, grade) VALUES (20, 2, 'Firsts', 'club')",
		"INSERT INTO account (club_id, email, name, role, password_hash) SELECT 2, 'other@elsewhere.example', " +
			"'Somebody', 'coach', password_hash FROM account WHERE email = '" +
			demo.Email + "'",
		"INSERT INTO account (club_id, email, name, role, password_hash) SELECT 1, " +
			"'assistant@brackwater.example', 'Ulla Renn', 'assistant', password_hash FROM account WHERE email = '" +
			demo.Email + "'"} {
		_, err := raw.Exec(text)
		require.NoError(t, err)
	}
	phone := newBrowser(t, base)
	phone.signIn()
	pitchSide(phone)
	assert.Contains(t, stays(phone), "Tolland", "or nothing is kept at all")
	signal(t, false)
	phone.click(`[aria-label=Next] [data-do=start]`)
	phone.until(`document.querySelector("[data-sent]").textContent == "no signal · 1 to send"`)

	// The sign-in ends by itself, and another coach of the club signs in on this phone.
	signal(t, true)
	_, err = raw.Exec("UPDATE signed_in SET ended_at = NOW()")
	require.NoError(t, err)
	_, err = raw.Exec("DELETE FROM run_event")
	require.NoError(t, err)
	phone.size(1280, 800)
	phone.signInAs("other@elsewhere.example")
	require.Eventually(t, func() bool { return !strings.Contains(stays(phone), "Tolland") }, 10*time.Second,
		200*time.Millisecond, "names are gone once another account is seen")
	signal(t, false)
	assert.NotContains(t, evalPromise(phone, `fetch("/pitch/1").then(a => a.text(), () => "nothing")`), "Tolland")
	signal(t, true)

	phone.signInAs("assistant@brackwater.example")
	phone.size(390, 844)
	phone.open("/pitch/1")
	phone.until(`document.querySelector("main")?._x_dataStack?.[0].ready`)
	running, err := p.Pitchside.Running(t.Context(), 1, 1)
	require.NoError(t, err)
	if len(running.Events) == 0 { // it was not sent before the sign-in ended
		phone.until(`document.querySelector("[data-notice=others]")?.textContent.includes("Somebody else pressed")`)
		phone.shot("pitch-others")
	}
	for _, e := range running.Events {
		assert.NotEqual(t, "Ulla Renn", e.By, "never in another's name")
	}
	refused, err := p.Pitchside.Pressed(t.Context(), planner.Account{ID: 3, ClubID: 1, Role: planner.Assistant}, 1,
		[]conduct.Event{{ID: "theirs", At: p.Now().UnixMilli(), Account: 1, Kind: conduct.Done, Block: "raise"}})
	require.NoError(t, err)
	require.Len(t, refused, 1)

	// Signing out leaves nothing.
	phone.size(1280, 800)
	phone.open("/today")
	phone.run(`document.querySelector('form[action="/sign-out"]').requestSubmit()`)
	phone.until(`location.pathname == "/sign-in"`)
	assert.NotContains(t, stays(phone), "Tolland")
	assert.NotContains(t, stays(phone), "/pitch/")
}

// What a phone's press was refused for is said there, and it is not called sent, now or later.
func TestAPhoneSaysWhatWasNotKept(t *testing.T) {
	base, p := site(t, true)
	published(t, p)
	board, err := p.Boards.Board(t.Context(), 1, 1)
	require.NoError(t, err)
	p.Now = func() time.Time { return board.Schedule.Start.Add(-50 * time.Minute) }
	team, err := p.Reach.Shared(t.Context(), reach.Way{Token: board.Publication.Token, Person: "p10"})
	require.NoError(t, err)
	for n := range 12 {
		require.NoError(t, p.Reach.Tell(t.Context(), team, planner.Word{Once: strings.Repeat("x", n+1),
			Kind: planner.Late, Says: "14:20"}))
	}
	b := newBrowser(t, base)
	b.size(390, 844)
	b.open("/r/" + board.Publication.Token + "/p10")
	b.click(`[data-do=late]`)
	b.click(`[data-late]`)
	b.until(`document.querySelector("[data-notice=refused]")?.innerText.includes("very often")`)
	b.settled()
	assert.NotContains(t, b.text("main"), "Will be sent")
	assert.Empty(t, eval[string](b, `document.querySelector("[data-notice=sent]")?.innerText ?? ""`))
}
