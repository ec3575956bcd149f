package e2e

import (
	"context"
	"fmt"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/planner/diary"
)

// A drill of one's own is completed where it stands, and counts; one player is put on its
// easier form by a press, and does it so on their phone, and in the next plan too.
func TestAnOwnDrillIsCompletedWhereItStands(t *testing.T) {
	base, p := site(t, true)
	ctx := context.Background()
	coach, _, err := p.Staff.AccountByEmail(ctx, demo.Email)
	require.NoError(t, err)
	b := newBrowser(t, base)
	b.signIn()
	begin := func(lines string) uint64 {
		added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Training, Title: "Own",
			Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, From: diary.FromEmpty, Minutes: 40})
		require.NoError(t, err)
		b.open(fmt.Sprintf("/sessions/%d", added.ID))
		b.write(lines)
		b.until(`document.querySelector("[id^=wide-block]")`)
		return added.ID
	}
	id := begin("jog 3 min\n\nblorp 8\n\nsingle-leg zigzag hop and stick 5 a side")
	const given = `fetch("/week.csv?day=2026-11-28").then(r => r.text())`
	week := evalPromise(b, given)
	b.until(`document.querySelector(".heard-panel a")`)
	b.run(`[...document.querySelectorAll(".heard-panel a")].find(a => a.textContent == "what does it do?").click()`)
	b.until(`document.querySelector("#chosen h2")?.textContent == "Blorp"`)
	holds := fmt.Sprintf(`fetch("/sessions/%d?drawer=holds").then(r => r.text())`, id)
	assert.Contains(t, evalPromise(b, holds), "add: turning")
	b.set("#works-0", "nothing that is known")
	b.until(`document.querySelector("#chosen").innerText.includes("Say joints, muscles or a direction")`)
	assert.Equal(t, "nothing that is known", eval[string](b, `document.querySelector("#works-0").value`),
		"what was typed stays")
	b.set("#works-0", "hips, turning")
	b.until(`!document.querySelector("#chosen").innerText.includes("Say joints, muscles or a direction")`)
	assert.NotContains(t, evalPromise(b, holds), "add: turning")
	const warmth = `[...document.querySelectorAll("path.trace")].map(p => p.getAttribute("d")).join()`
	before := eval[string](b, warmth)
	b.set("#for-0", "balance")
	b.until(`document.querySelector("#chosen .tile").textContent == "A"`)
	b.until(warmth + ` != ` + strconv.Quote(before)) // and the body is less warm for it
	assert.NotEqual(t, week, evalPromise(b, given), "the week counts it")

	b.run(`document.querySelector("[id^=wide-block][aria-label^='Single-leg zigzag']").dispatchEvent(new MouseEvent("click", {bubbles: true, cancelable: true}))`)
	b.until(`document.querySelector("#easier-for-0")`)
	b.run(`(() => { const s = document.querySelector("#easier-for-0"); s.value = [...s.options].find(o => o.text == "Mara T.").value; s.dispatchEvent(new Event("change", {bubbles: true})) })()`)
	b.until(`document.querySelector("#chosen").innerText.includes("Mara T.: Zigzag hop and stick, two feet, 5 a side")`)
	board, err := p.Boards.Board(ctx, 1, id)
	require.NoError(t, err)
	board, err = p.Reach.Publish(ctx, coach, id, board.Revision)
	require.NoError(t, err)
	phone := newBrowser(t, base)
	phone.size(390, 844)
	links := ownLinks(t, p, board)
	for _, player := range board.Document.Players {
		if player.ShortName() == "Mara T." {
			phone.open(links[player.ID])
		}
	}
	assert.Contains(t, eval[string](phone, `document.querySelector("main").textContent`),
		"Zigzag hop and stick, two feet")

	begin("single-leg zigzag hop and stick 4 a side")
	b.run(`document.querySelector("[id^=wide-block][aria-label^='Single-leg zigzag']").dispatchEvent(new MouseEvent("click", {bubbles: true, cancelable: true}))`)
	b.until(`document.querySelector("#chosen")?.innerText.includes("Mara T.: Zigzag hop and stick, two feet, 4 a side")`)
	b.open("/drills?q=blorp")
	assert.Contains(t, b.text("main"), "Blorp", "described: it is the club's")
	assert.NotContains(t, b.text("main"), "to be completed")
}
