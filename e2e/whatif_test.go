package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What might come otherwise stands beside the plan, asks who arrives when, and is taken with
// one press; undo brings the plan back.
func TestWhatIfIsComparedAndTaken(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1")
	b.click("#what-if")
	b.until(`location.pathname == "/sessions/1/what-if"`)
	b.click(`[aria-label="Kick-off 20 min earlier"]`)
	b.until(`document.querySelector("#take-if")`)
	assert.Contains(t, b.text("main"), "Neck holds: left out")
	assert.Contains(t, b.text("main"), "as now, at 14:10")
	assert.Equal(t, 2, eval[int](b, `document.querySelectorAll("svg.chart").length`))
	assert.Equal(t, "2026-11-28T15:00", document(t, p, 1).Start.Local, "nothing is changed yet")
	b.shot("what-if-1280")
	b.click(`a[href*="arrive=too"]`)
	b.until(`document.querySelector('a[href*="arrive=too"][aria-current]')`)
	b.click("#take-if")
	b.until(`location.pathname == "/sessions/1" && document.querySelector("#undo")`)
	assert.Equal(t, "2026-11-28T14:40", document(t, p, 1).Start.Local)
	b.click("#undo")
	b.at(3)
	assert.Equal(t, "2026-11-28T15:00", document(t, p, 1).Start.Local)
	b.open("/sessions/1?lanes=ground")
	b.until(`document.querySelector("[data-panel] [data-move]")`)
	b.set("input[data-second]", "-900")
	b.run(`document.querySelector("input[data-second]").dispatchEvent(new Event("input", { bubbles: true }))`)
	b.until(`document.querySelector("[data-panel] h2").innerText == "15′"`)
	b.shot("on-the-ground-1280")
	b.open("/sessions/1/what-if?if=place&id=nowhere")
	assert.Contains(t, b.text("main [role=alert]"), "not of this plan")
}
