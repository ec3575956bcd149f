package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The ground is arranged once by hand and stays so; under the ruler it shows who stands
// where, a block is dragged to another place on it, and a phone shows where one goes.
func TestTheGroundAndTheRuler(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/ground-plan/1")
	b.until(`document.querySelector("#laid")?._x_dataStack`)
	lie := func(zone int) float64 {
		g, err := p.Keep.Ground(t.Context(), 1)
		require.NoError(t, err)
		return g.Venues[0].Zones[zone].Is.Lies.X
	}
	was := lie(3)
	hall := eval[[]float64](b,
		`(() => { const r = [...document.querySelectorAll("[data-zone]")].at(-1).querySelector("rect").getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`)
	b.mouse("mousePressed", hall[0], hall[1], false)
	b.mouse("mouseMoved", hall[0]+10, hall[1]+20, false)
	b.mouse("mouseMoved", hall[0]+30, hall[1]+40, false)
	b.mouse("mouseReleased", hall[0]+30, hall[1]+40, false)
	require.Eventually(t, func() bool { return lie(3) > was }, 5*time.Second, 50*time.Millisecond)
	b.click(`[aria-label="Turn Hall by 15 degrees"]`)
	b.until(`[...document.querySelectorAll("[name^=turn-]")].at(-1).value == "15"`)
	b.set("[name^=long-]", "900")
	b.until(`document.querySelector("main [role=alert]")?.innerText.includes("between 1 and 500 m")`)
	assert.Equal(t, "900", eval[string](b, `document.querySelector("[name^=long-]").value`), "what was written stays")

	signal(t, false)
	b.set("[name^=long-]", "51")
	b.until(`!document.querySelector("#no-answer").hidden`)
	assert.Equal(t, "51", eval[string](b, `document.querySelector("[name^=long-]").value`))
	signal(t, true)

	b.open("/sessions/1")
	b.until(`document.querySelector("[x-data=ruler]")?._x_dataStack`)
	b.run(`document.querySelector("[data-key=m]").click()`)
	b.until(`document.querySelector("[data-panel]").innerText.includes("to go")`)
	before := b.text("[data-panel] h2")
	b.run(`document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true }))`)
	b.until(fmt.Sprintf(`document.querySelector("[data-panel] h2").innerText != %q`, before))
	b.run(`document.querySelector("svg.chart").dispatchEvent(new KeyboardEvent("keydown", { key: "Escape", bubbles: true }))`)
	b.until(`document.querySelector("[data-panel]").hidden`)

	b.open("/sessions/1?lanes=ground")
	b.until(`document.querySelector("input[data-second]") && document.querySelector("[data-panel] [data-move]")`)
	b.run(`(() => { const f = document.querySelector("input[data-second]"); f.value = -900; f.dispatchEvent(new Event("input", { bubbles: true })) })()`)
	b.until(`document.querySelector('[data-move="high"]')`)
	assert.Contains(t, b.text("[data-panel]"), "Pell")
	at := eval[[]float64](b, `(() => { const c = document.querySelector('[data-move="high"]').getBoundingClientRect(), z = document.querySelector('[data-zone="near"] rect').getBoundingClientRect();
		return [c.x + c.width / 2, c.y + c.height / 2, z.x + z.width / 2, z.y + 20] })()`)
	b.mouse("mousePressed", at[0], at[1], false)
	for n := 1.0; n <= 6; n++ {
		b.mouse("mouseMoved", at[0]+(at[2]-at[0])*n/6, at[1]+(at[3]-at[1])*n/6, false)
	}
	b.until(`document.querySelector("[data-carries]").textContent.includes("High balls: Near half")`)
	b.mouse("mouseReleased", at[2], at[3], false)
	b.at(2)
	assert.Equal(t, "near", document(t, p, 1).Block("high").Zone)

	_, _, team := published(t, p)
	b.open(team + "/p15")
	assert.Equal(t, 1, eval[int](b,
		`document.querySelectorAll('li[data-key] svg.ground[aria-label^="You are here: Far half. Next: Near half"]').length`))
}
