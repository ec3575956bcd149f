package e2e

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
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

// hand drags from one point of the window to another, says what is said meanwhile, and lets
// go.
func (b *browser) hand(x, y, toX, toY float64, shift bool) (says string) {
	b.t.Helper()
	b.mouse("mousePressed", x, y, shift)
	for n := 1.0; n <= 8; n++ {
		b.mouse("mouseMoved", x+(toX-x)*n/8, y+(toY-y)*n/8, shift)
	}
	b.settled() // the last move has come
	b.until(`document.querySelector("[data-says]")?.textContent.includes(";") || document.querySelector("[data-says][data-refused]")`)
	b.until(`!document.querySelector("[data-says]:not([hidden])[aria-busy]")`) // what was asked last is answered
	says = b.text("[data-says]")
	b.shot("dragged")
	b.mouse("mouseReleased", toX, toY, shift)
	return says
}

// lies is where a part of the chart lies, its left, top, width and height in the window, and
// how many pixels a minute has.
func (b *browser) lies(css string) (x, y, width, height, minute float64) {
	b.t.Helper()
	at := eval[[]float64](b, fmt.Sprintf(`(() => {
		const r = document.querySelector('%s').getBoundingClientRect(), svg = document.querySelector("svg.chart"), d = svg.dataset;
		return [r.x, r.y, r.width, r.height, (d.line - d.left) / -d.from * 60 * svg.getBoundingClientRect().width / svg.viewBox.baseVal.width] })()`, css))
	return at[0], at[1], at[2], at[3], at[4]
}

// takes drags a block of the chart by so many minutes.
func (b *browser) takes(block string, minutes float64, shift bool) (says string) {
	b.t.Helper()
	x, y, width, height, minute := b.lies(fmt.Sprintf(`a[data-block="%s"] rect`, block))
	x, y = x+width/2, y+min(height/2, 150)
	return b.hand(x, y, x+minutes*minute, y+8, shift)
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
	b.at(2)
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
	b.settled()
	assert.Equal(t, "3", eval[string](b, `document.querySelector("[name=revision]").value`), "nothing was changed")
	assert.Equal(t, after, order())
	assert.Equal(t, "/sessions/1", eval[string](b, "location.pathname + location.search"), "a drag opens no block")
	b.click(`a[data-block="bands"]`)
	b.until(`location.search == "?block=bands"`)
}

// An edge steps the dose, with the seconds following; a lane's name dropped on a block has
// them do it too; aside is out; a fixed event is moved and stretched.
func TestTheBoardIsTheForm(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1")
	b.until(`document.querySelector("[x-data=drag]")?._x_dataStack`)
	range0 := document(t, p, 1).Block("raise").Items[0].Drill.Range
	x, y, width, _, minute := b.lies(`a[data-block="raise"] rect`)
	says := b.hand(x+width-2, y+150, x+width-2-2*minute, y+150, false)
	assert.Regexp(t, `.+, [\d:]+ min, [\d:]+ (min|s) less; .*`, says)
	b.at(2)
	after := document(t, p, 1).Block("raise").Items[0].Drill.Range
	assert.Less(t, after.Target, range0.Target)
	assert.Zero(t, (range0.Target-after.Target)%range0.Step, "in whole steps")

	x, y, width, height, _ := b.lies(`[data-lane^="p1 "] rect`)
	toX, toY, wide, high, _ := b.lies(`a[data-block="high"] rect`)
	says = b.hand(x+width/2, y+height/2, toX+wide/2, toY+high/2, false)
	assert.Contains(t, says, "into High balls;")
	b.at(3)
	d := document(t, p, 1)
	assert.Contains(t, d.Members(d.Block("high").Who), "p1")

	x, y, width, height, minute = b.lies(`[data-event="toss"] rect`)
	says = b.hand(x+width/2, y+height/2, x+width/2-4*minute, y+height/2, false)
	assert.Contains(t, says, "Toss 44′ to")
	b.at(4)
	assert.Equal(t, 44*60, document(t, p, 1).Event("toss").Span.From.Before)
	x, y, width, height, minute = b.lies(`[data-event="toss"] rect`)
	b.hand(x+width-2, y+height/2, x+width-2+minute, y+height/2, false)
	b.at(5)
	assert.Equal(t, 44*60, document(t, p, 1).Event("toss").Span.From.Before, "its beginning stays")

	x, y, width, _, _ = b.lies(`a[data-block="neck"] rect`)
	says = b.hand(x+width/2, y+40, 200, y+60, false)
	assert.Contains(t, says, "Neck holds removed;")
	b.at(6)
	assert.Nil(t, document(t, p, 1).Block("neck"))
	b.click("#undo")
	b.at(7)
	assert.NotNil(t, document(t, p, 1).Block("neck"), "and back")

	// The drills of the chosen block are put in order by hand.
	b.click(`a[data-block="move"]`)
	b.until(`document.querySelector("#chosen .grip")`)
	before := document(t, p, 1).Block("move").Items
	grips := eval[[]float64](b,
		`[...document.querySelectorAll("#chosen .grip")].flatMap(g => { const r = g.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })`)
	b.mouse("mousePressed", grips[0], grips[1], false)
	for n := 1.0; n <= 12; n++ {
		b.mouse("mouseMoved", grips[0], grips[1]+(grips[3]+18-grips[1])*n/12, false)
		time.Sleep(30 * time.Millisecond)
	}
	b.mouse("mouseReleased", grips[0], grips[3]+18, false)
	b.at(8)
	after2 := document(t, p, 1).Block("move").Items
	assert.Equal(t, []string{before[1].Drill.Code, before[0].Drill.Code},
		[]string{after2[0].Drill.Code, after2[1].Drill.Code})
}

// One press puts somebody into a block, one takes them out; a unit goes at once; the page
// stays where it is and the board has it.
func TestWhoDoesWhat(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1?tab=people")
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
	assert.Equal(t, 1, eval[int](b, `document.querySelectorAll('[value="out high p1"].matrix-alone').length`),
		"an exception stands out")
	press("out high p1")
	b.until(`document.querySelector('[name=put][value="in high p1"]')`)
	assert.Len(t, at("high"), before+1)
	press("out bands *")
	b.until(`document.querySelector("main [role=alert]")?.innerText.includes("take the block out instead")`)
	assert.Len(t, at("bands"), 23)
	assert.Equal(t, "/sessions/1/people", eval[string](b, "location.pathname"))
	b.open("/sessions/1?block=high")
	assert.Contains(t, eval[string](b, `document.querySelector("#block-said").value`), "Back three, #2")
}

// A finger does what a mouse does, on a tablet held upright: it drags a block, steps its
// dose at the edge, brings people to it, and asks for one second.
func TestTheBoardByTouch(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.do(chromedp.EmulateViewport(820, 1180, chromedp.EmulateTouch))
	b.open("/sessions/1")
	b.until(`document.querySelector("[x-data=drag]")?._x_dataStack && document.querySelector("[data-screen]").dataset.screen == "narrow"`)
	finger := func(x, y, toX, toY float64, says string) {
		t.Helper()
		touch := func(kind input.DispatchTouchEventType, points ...*input.TouchPoint) {
			_, err := chromedp.Call(b.ctx, input.DispatchTouchEvent,
				input.DispatchTouchEventParams{Type: kind, TouchPoints: points})
			require.NoError(t, err)
		}
		touch("touchStart", &input.TouchPoint{X: x, Y: y})
		for n := 1.0; n <= 8; n++ {
			touch("touchMove", &input.TouchPoint{X: x + (toX-x)*n/8, Y: y + (toY-y)*n/8})
			time.Sleep(30 * time.Millisecond)
		}

		b.until(fmt.Sprintf(`document.querySelector("[data-says]")?.textContent.includes(%q)`, says))
		touch("touchEnd")
	}
	x, y, width, _, minute := b.lies(`a[data-block="bands"] rect`)
	next, _, _, _, _ := b.lies(`a[data-block="jumps"] rect`)
	finger(x+width/2, y+120, x+width/2+next-x, y+120, "before Jumps")
	b.at(2)
	d := document(t, p, 1)
	place := func(id string) int { return slices.IndexFunc(d.Blocks, func(b plan.Block) bool { return b.ID == id }) }
	assert.Equal(t, place("jumps")-1, place("bands"), "it stands before the jumps")
	assert.Equal(t, "/sessions/1", eval[string](b, "location.pathname + location.search"))

	x, y, width, _, minute = b.lies(`a[data-block="raise"] rect`)
	finger(x+width-10, y+200, x+width-10-2*minute, y+200, "less")
	b.at(3)
	assert.Less(t, document(t, p, 1).Block("raise").Items[0].Drill.Range.Target,
		d.Block("raise").Items[0].Drill.Range.Target)

	x, y, width, height, _ := b.lies(`[data-lane^="p1 "] rect`)
	toX, toY, wide, high, _ := b.lies(`a[data-block="high"] rect`)
	finger(x+width/2, y+height/2, toX+wide/2, toY+high/2, "into High balls")
	b.at(4)

	x, y, width, _, _ = b.lies("svg.chart")
	b.do(chromedp.MouseClickXY(x+width*0.55, y+20))
	b.until(`document.querySelector("[data-panel]").innerText.includes("to go")`)
}

// Everything is done by keys: a block picked, turned, moved, held, written, ranked, taken
// out; undo; the ruler; who does what; what if; the list of the keys.
func TestTheBoardByKeys(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1")
	b.until(`document.querySelector("[x-data=drag]")?._x_dataStack`)
	keys := func(all string) { b.do(chromedp.KeyEvent(all)) }
	pick := func(name string) {
		for was := ""; was != name; was = b.text("#chosen h2") {
			keys("n")
			b.until(fmt.Sprintf(`document.querySelector("#chosen h2") && document.querySelector("#chosen h2").innerText != %q`,
				was))
		}
	}
	pick("Bands")
	before := document(t, p, 1).Block("bands").Items[0].Drill.Range
	keys("+")
	b.at(2)
	assert.Equal(t, before.Clamp(before.Target+before.Step),
		document(t, p, 1).Block("bands").Items[0].Drill.Range.Target)
	keys(">")
	b.at(3)
	keys("3")
	b.at(4)
	assert.Equal(t, plan.Could, document(t, p, 1).Block("bands").Priority)
	into := func(key string) { // what is typed is no letter of the field that it leads to
		b.run(fmt.Sprintf(`document.body.dispatchEvent(new KeyboardEvent("keydown", { key: %q, bubbles: true, cancelable: true }))`,
			key))
	}
	into("h")
	b.until(`document.activeElement.id == "block-said"`)
	keys("at 26")
	keys(kb.Enter)
	b.at(5)
	require.NotNil(t, document(t, p, 1).Block("bands").Pin)
	assert.Equal(t, 26*60, document(t, p, 1).Block("bands").Pin.Before)
	b.run("document.activeElement.blur()")
	into("w")
	b.until(`document.activeElement.id == "say"`)
	keys("press-ups 8, backs")
	keys(kb.Enter)
	b.at(6)
	assert.Equal(t, "Press-ups", document(t, p, 1).Block("b13").Name)
	b.run("document.activeElement.blur()")
	pick("Bands")
	keys("x")
	b.at(7)
	assert.Nil(t, document(t, p, 1).Block("bands"))
	keys("z")
	b.at(8)
	keys("m")
	b.until(`document.querySelector("[data-panel]").innerText.includes("to go")`)
	keys(kb.Escape)
	b.until(`document.querySelector("[data-panel]").hidden`)
	keys("?")
	b.until(`document.querySelector("[role=dialog]").innerText.includes("the ruler")`)
	keys(kb.Escape)
	keys("o")
	b.until(`location.pathname == "/sessions/1/people"`)
	b.open("/sessions/1")
	b.until(`document.querySelector("[x-data=board]")?._x_dataStack`)
	keys("i")
	b.until(`location.pathname == "/sessions/1/what-if"`)
}
