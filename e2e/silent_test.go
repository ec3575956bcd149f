package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What is pressed while no answer comes, or is refused where a page has no place for the reason, is
// never silent; the next answer ends the sentence, and what was pressed before does not stop what follows.
func TestNothingFailsSilently(t *testing.T) {
	base, _ := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	said := `document.querySelector("#no-answer:not([hidden])")?.innerText.includes`
	for _, page := range []struct{ at, there, press, then string }{
		{at: "/sessions/1", there: "#board",
			press: `document.querySelector("[data-key='<'], [data-key='+'], #zoom, a[data-part]").click()`, then: ""},
		{at: "/sessions/1/people", there: "[x-data=matrix]",
			press: `document.querySelector('[value="in high p1"]').click()`,
			then:  `[value="out high p1"]`},
		{at: "/drills", there: "[x-data=finder]", press: `document.querySelector("a[data-found]").click()`,
			then: "#found [aria-current]"},
		{at: "/sessions/new", there: "[x-data=session]",
			press: `(() => { const v = document.querySelector("#venue"); v.dispatchEvent(new Event("change", {bubbles: true})) })()`,
			then:  ""},
		{at: "/ground-plan/1", there: "#laid",
			press: `document.querySelector('[aria-label="Turn Hall by 15 degrees"]').click()`, then: ""},
	} {
		b.open(page.at)
		b.until(`document.querySelector("` + page.there + `")?._x_dataStack`)
		signal(t, false)
		b.run(page.press)
		b.until(said + `("No answer from the server")`)
		signal(t, true)
		b.run(page.press)
		b.until(`document.querySelector("#no-answer").hidden`)
		if page.then != "" {
			b.until(`document.querySelector('` + page.then + `')`)
		}
	}
	b.open("/sessions/1")
	b.until(`document.querySelector("#board")?._x_dataStack`)
	b.run(`(() => { const form = document.querySelector("#undo").form; form.action += "-nowhere"; form.requestSubmit() })()`)
	b.until(said + `("There is nothing here")`)
	assert.True(t, eval[bool](b, `location.pathname === "/sessions/1" && Boolean(document.querySelector("svg.chart"))`),
		"the board stays")
}
