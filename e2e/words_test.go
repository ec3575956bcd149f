package e2e

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/planner"
)

// paste pastes lines into the first line of a plan's words.
func (b *browser) paste(lines string) {
	b.t.Helper()
	b.until(`document.querySelector(".word-row textarea")`)
	b.run(fmt.Sprintf(`(() => { const to = document.querySelector(".word-row textarea"); to.focus(); const clip = new DataTransfer(); clip.setData("text/plain", %q);
		to.dispatchEvent(new ClipboardEvent("paste", {clipboardData: clip, bubbles: true, cancelable: true})) })()`, lines))
}

// typed are the lines of the words as they stand.
func (b *browser) typed() string {
	return eval[string](b, `[...document.querySelectorAll(".word-row textarea")].map(e => e.value).join("\n")`)
}

// fortyLines are a warm-up as somebody has it in a phone's notes.
const fortyLines = `Saturday warm up - home

Get going - near half
1. easy jog to the 22 and back x 4
2. side shuffles 20 m, 2 each way
3. high knees 15 m
4. heel kicks 15 m
5. skips 2 x 20 m
6. carioca 20 m each way
7. backpedal 20 m

Loosen up (backs)
- leg swings 10 each leg
- worlds gretest 3 a side
- lateral lunges 6 e/s, stay low
- Harbour wobble 8
- hip circles 5 each way
- arm circles 10
- inchworms 5
- ankle rocks 8 a side

Switch on
- clams 12 a side
- glute bridges 12
- dead bug 6 a side
- plank 30 s
- band walks 10 m each way
- calf raises 12
- shoulder taps 10

Jumps, done by 15
3 pogos then sprint 10 m, 4 times
broad jumps 5, stick the last
build-ups 40 m, 60 / 75 / 90
falling starts 3 x 10 m

team talk 12 to 9
scrum engagement x 4, Pell
line-out throws 5 5 3 to front middle back
passing in fours 2 min
kicks at posts 2 each`

// A list of forty lines is pasted beside what it will be: level, a question answered, edited by keys
// alone, planned, changed by hand on the board, and its words opened and edited again.
func TestWordsBesideWhatTheyWillBe(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	id := begin(b, "")
	b.open(fmt.Sprintf("/sessions/%d/words", id))
	b.paste(fortyLines)
	b.until(`document.querySelectorAll(".word-is").length >= 33`)
	assert.Equal(t, fortyLines, b.typed())
	assert.Empty(t, eval[string](b,
		`[...document.querySelectorAll(".word-row")].filter(r => { const is = r.querySelector(".word-are"); return Math.abs(r.querySelector(".word-line").getBoundingClientRect().top - is.getBoundingClientRect().top) > 1 }).map(r => r.innerText).join()`),
		"level")
	assert.Contains(t, b.text("#word-sum"), "of your")

	answer := `[...document.querySelectorAll(".word-row")].find(r => r.querySelector("textarea").value.includes("gretest"))`
	was := b.typed()
	b.run(answer + `.querySelector("[data-put]").click()`)
	b.until(`!` + answer)
	b.run(`document.querySelector(".word-row textarea").focus()`)
	b.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(2))) // with Ctrl: undo is a step
	b.until(answer)
	assert.Equal(t, was, b.typed())
	b.do(chromedp.KeyEvent("y", chromedp.KeyModifiers(2)))
	b.until(`!` + answer)
	b.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(2)))
	b.until(answer)
	where := `[...document.querySelectorAll(".word-choice button")].find(e => e.dataset.put === "Get going - Far half")`
	b.until(where)
	b.run(where + `.click()`)
	assert.Contains(t, b.typed(), "\nGet going - Far half\n1. easy jog", "where it is is changed by a press")
	b.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(2)))
	assert.Equal(t, was, b.typed())

	key := func(name string) {
		b.run(fmt.Sprintf(`document.activeElement.dispatchEvent(new KeyboardEvent("keydown", {key: %q, bubbles: true, cancelable: true}))`,
			name))
	}
	// 3. high | knees 15 m
	b.run(`(() => { const e = document.querySelectorAll(".word-row textarea")[5]; e.focus(); e.setSelectionRange(7, 7) })()`)
	key("Enter")
	assert.Equal(t, len(strings.Split(was, "\n"))+1, eval[int](b, `document.querySelectorAll(".word-row").length`))
	key("Backspace")
	assert.Equal(t, was, b.typed())
	b.click("#plan-it")
	b.until(`document.querySelector("#board")`)
	assert.Empty(t, eval[int](b, `document.querySelectorAll(".heard-panel").length`), "nothing lies over the board")

	d := document(t, p, id)
	var jog plan.Block
	for _, block := range d.Blocks {
		if block.Name == "Get going" {
			jog = block
		}
	}
	require.NotEmpty(t, jog.ID)
	session, err := p.Boards.Board(context.Background(), 1, id)
	require.NoError(t, err)
	_, err = p.Boards.Change(context.Background(), planner.Account{ID: 1, ClubID: 1, Role: planner.Coach}, id,
		session.Revision, func(d *plan.Document) (string, error) {
			at := clock.BeforeStart(50 * 60)
			d.Block(jog.ID).Pin = &at
			return d.SetDose(jog.ID, 0, 6)
		})
	require.NoError(t, err)
	b.open(fmt.Sprintf("/sessions/%d/words", id))
	planned := b.typed()
	b.run(`(() => { const e = document.querySelector(".word-row textarea"); e.value += " loud"; e.dispatchEvent(new Event("input", {bubbles: true})) })()`)
	b.until(`Object.values(sessionStorage).some(kept => kept.includes(" loud"))`)
	b.open(fmt.Sprintf("/sessions/%d/words", id))
	assert.Contains(t, b.typed(), " loud", "what was not planned is there again")
	assert.Contains(t, b.text("#words"), "Undo takes it away")
	b.run(`[...document.querySelectorAll("#words button")].find(e => e.innerText === "Undo").click()`)
	assert.Equal(t, planned, b.typed())
	again := planned
	assert.Contains(t, again, "6 x 22 m", "what was set by hand")
	assert.Contains(t, again, "at 50")
	assert.Contains(t, again, "2. side shuffles 20 m, 2 each way\n3. high knees 15 m")
	b.run(`(() => { const e = [...document.querySelectorAll(".word-row textarea")].find(e => e.value.startsWith("3. high")); e.value = "3. high knees 20 m"; e.dispatchEvent(new Event("input", {bubbles: true})) })()`)
	b.until(`document.querySelector("#words").innerText.includes("1 length of 20 m")`)
	b.click("#plan-it")
	b.until(`document.querySelector("#board")`)
	now := document(t, p, id).Block(jog.ID)
	require.NotNil(t, now, "its block is the same")
	assert.Equal(t, 50*60, now.Pin.Before)
	assert.Equal(t, 6, now.Items[0].Drill.Range.Target)
	assert.InDelta(t, 20, now.Items[2].Drill.Dose.Metres, 1e-9)

	b.open(fmt.Sprintf("/sessions/%d/words", id))
	b.paste(strings.Repeat("squats 10\n", 10000))
	b.until(`document.querySelector("main [role=alert]").innerText.includes("10000 lines")`)
	assert.Less(t, eval[int](b, `document.querySelectorAll(".word-row").length`), 100)

	drop := func(name, text string) {
		b.run(fmt.Sprintf(`(() => { const drop = new DataTransfer(); drop.items.add(new File([%q], %q));
			document.querySelector("#words").dispatchEvent(new DragEvent("drop", {dataTransfer: drop, bubbles: true, cancelable: true})) })()`, text, name))
	}
	drop("list.xlsx", "this is none")
	b.until(`document.querySelector("main [role=alert]").innerText.includes("ist.xlsx could not be read")`)
	drop("list.txt", "frog squats 8\r\nplank 30 s\r\n")
	b.until(`[...document.querySelectorAll(".word-row textarea")].slice(-2).map(e => e.value).join() === "frog squats 8,plank 30 s"`)

	b.size(390, 844)
	b.open(fmt.Sprintf("/sessions/%d/words", id))
	assert.LessOrEqual(t, eval[int](b, `document.documentElement.scrollWidth`), 390)
}

func TestAListsStartBecomesTheSessions(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	id := begin(b, "")
	day, _, _ := strings.Cut(document(t, p, id).Start.Local, "T")
	b.open(fmt.Sprintf("/sessions/%d/words", id))
	b.paste("U16s at home, kick off 7pm\n18:20 bands 10\nsprints 3 x 20 m")
	b.until(`document.querySelector("[data-starts]")`)
	b.run(`document.querySelector("[data-starts]").click()`)
	b.until(`document.querySelector(".word-are").innerText.includes("the session starts at 19:00")`)
	b.click("#plan-it")
	b.until(`document.querySelector("#board")`)
	d := document(t, p, id)
	assert.Equal(t, day+"T19:00", d.Start.Local)
	require.NotEmpty(t, d.Blocks)
	assert.Equal(t, clock.BeforeStart(40*60), *d.Blocks[0].Pin, "its times are of that start")
}
