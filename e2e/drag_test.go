package e2e

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
)

// mouse sends what a mouse does; shift tells whether that key is held.
func (b *browser) mouse(kind input.DispatchMouseEventType, x, y float64, shift bool) {
	p := input.DispatchMouseEventParams{Type: kind, X: x, Y: y, Button: "left", Buttons: 1, ClickCount: 1}
	if shift {
		p.Modifiers = 8
	}
	_, err := chromedp.Call(b.ctx, input.DispatchMouseEvent, p)
	require.NoError(b.t, err)
}

// takes drags a block of the chart by so many minutes, says what is said meanwhile, and lets
// go.
func (b *browser) takes(block string, minutes float64, shift bool) (says string) {
	b.t.Helper()
	at := eval[[]float64](b, fmt.Sprintf(`(() => {
		const r = document.querySelector('a[data-block="%s"] rect').getBoundingClientRect(), svg = document.querySelector("svg.chart"), d = svg.dataset;
		const each = (d.line - d.left) / -d.from * svg.getBoundingClientRect().width / svg.viewBox.baseVal.width;
		return [r.x + r.width / 2, r.y + Math.min(r.height / 2, 150), each * 60] })()`, block))
	b.mouse("mousePressed", at[0], at[1], shift)
	for n := 1.0; n <= 8; n++ {
		b.mouse("mouseMoved", at[0]+at[2]*minutes*n/8, at[1]+n, shift)
	}
	b.until(`document.querySelector("[data-says]")?.textContent.includes(";") || document.querySelector("[data-says][data-refused]")`)
	time.Sleep(300 * time.Millisecond) // what was asked last is answered
	says = b.text("[data-says]")
	b.shot("dragged")
	b.mouse("mouseReleased", at[0]+at[2]*minutes, at[1]+8, shift)
	return says
}

// A block is dragged before another and stays there; one is held where it is dropped with
// Shift; what cannot be is refused there, with the reason, and nothing moves.
func TestABlockIsDragged(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1")
	b.until(`document.querySelector('a[data-block="bands"]')`)
	order := func() (ids []string) {
		for _, block := range document(t, p, 1).Blocks {
			ids = append(ids, block.ID)
		}
		return ids
	}
	before := order()
	says := b.takes("bands", 7.5, false)
	assert.Contains(t, says, "before Jumps, sprints")
	assert.Contains(t, says, "Moving range 2:15 earlier")
	b.until(`document.querySelector("[name=revision]").value == "2"`)
	after := order()
	assert.NotEqual(t, before, after)
	b.open("/sessions/1")
	assert.Equal(t, after, order(), "it is still there")
	assert.Empty(t, eval[string](b, `document.querySelector('a[data-block="bands"]').getAttribute("transform") ?? ""`))

	says = b.takes("jumps", -1, true)
	assert.Contains(t, says, "held at 2")
	b.until(`document.querySelector("[name=revision]").value == "3"`)
	assert.NotNil(t, document(t, p, 1).Block("jumps").Pin)
	b.until(`document.querySelector(".notch")`)

	says = b.takes("team", 9.5, true)
	assert.Contains(t, says, "lies outside the work")
	time.Sleep(300 * time.Millisecond)
	assert.Equal(t, "3", eval[string](b, `document.querySelector("[name=revision]").value`), "nothing was changed")
	assert.Equal(t, after, order())
	assert.Equal(t, "/sessions/1", eval[string](b, "location.pathname + location.search"), "a drag opens no block")
	b.click(`a[data-block="bands"]`)
	b.until(`location.search == "?block=bands"`)
}

// One press puts somebody into a block, one takes them out; a unit goes at once; the page
// stays where it is and the board has it.
func TestWhoDoesWhat(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1")
	b.click("#people")
	b.until(`document.querySelector("[x-data=matrix]")?._x_dataStack`) // its script is there
	press := func(cell string) {
		b.run(fmt.Sprintf(`document.querySelector('[name=put][value="%s"]').click()`, cell))
	}
	at := func(block string) []string { d := document(t, p, 1); return d.Members(d.Block(block).Who) }
	before := len(at("high"))
	press("in high p1")
	press("in high p2") // a quick hand
	b.until(`document.querySelector('[name=put][value="out high p2"]')`)
	assert.Len(t, at("high"), before+2)
	assert.Equal(t, 1, eval[int](b, `document.querySelectorAll('[value="out high p1"].matrix-alone').length`), "an exception stands out")
	press("out high p1")
	b.until(`document.querySelector('[name=put][value="in high p1"]')`)
	assert.Len(t, at("high"), before+1)
	press("out bands *")
	b.until(`document.querySelector("[role=alert]")?.innerText.includes("take the block out instead")`)
	assert.Len(t, at("bands"), 23)
	assert.Equal(t, "/sessions/1/people", eval[string](b, "location.pathname"))
	b.open("/sessions/1?block=high")
	assert.Contains(t, eval[string](b, `document.querySelector("#block-said").value`), "Back three, #2")
}

// A finger drags as a mouse does, on a tablet held upright.
func TestABlockIsDraggedByTouch(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.do(chromedp.EmulateViewport(820, 1180, chromedp.EmulateTouch))
	b.open("/sessions/1")
	b.until(`document.querySelector("[x-data=drag]")?._x_dataStack && document.querySelector("[data-screen]").dataset.screen == "narrow"`)
	at := eval[[]float64](b, `(() => { const r = document.querySelector('a[data-block="bands"] rect').getBoundingClientRect(), n = document.querySelector('a[data-block="jumps"] rect').getBoundingClientRect();
		return [r.x + r.width / 2, r.y + 120, n.x - r.x] })()`)
	touch := func(kind input.DispatchTouchEventType, points ...*input.TouchPoint) {
		_, err := chromedp.Call(b.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: points})
		require.NoError(t, err)
	}
	touch("touchStart", &input.TouchPoint{X: at[0], Y: at[1]})
	for n := 1.0; n <= 8; n++ {
		touch("touchMove", &input.TouchPoint{X: at[0] + at[2]*n/8, Y: at[1]})
		time.Sleep(30 * time.Millisecond)
	}
	b.until(`document.querySelector("[data-says]")?.textContent.includes("before Jumps")`)
	touch("touchEnd")
	b.until(`document.querySelector("[name=revision]").value == "2"`)
	d := document(t, p, 1)
	place := func(id string) int { return slices.IndexFunc(d.Blocks, func(b plan.Block) bool { return b.ID == id }) }
	assert.Equal(t, place("jumps")-1, place("bands"), "it stands before the jumps")
	assert.Equal(t, "/sessions/1", eval[string](b, "location.pathname + location.search"))
}
