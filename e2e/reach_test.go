package e2e

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/office"
)

// published is the demo's match, published, with the links of people by their ids.
func published(t *testing.T, p *office.Office) (coach planner.Account, links map[string]string, team string) {
	ctx := context.Background()
	coach, _, err := p.Staff.AccountByEmail(ctx, demo.Email)
	require.NoError(t, err)
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	b, err = p.Reach.Publish(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	return coach, ownLinks(t, p, b), "/r/" + b.Publication.Token
}

// ownLinks are people's own links of a session by their ids.
func ownLinks(t *testing.T, p *office.Office, b *boards.Board) map[string]string {
	players, leaders, err := p.Reach.OwnLinks(context.Background(), b)
	require.NoError(t, err)
	links := map[string]string{}
	for _, l := range append(players, leaders...) {
		links[l.Person] = "/r/" + b.Publication.Token + l.Path
	}
	return links
}

// A player follows drill by drill with the network cut, loads the page anew without it,
// says that she is late, and the coach sees it once there is a signal again: once.
func TestAPlayerFollowsWithoutASignal(t *testing.T) {
	base, p := site(t, true)
	_, links, _ := published(t, p)
	phone, coach := newBrowser(t, base), newBrowser(t, base)
	coach.signIn()
	coach.open("/sessions/1")
	phone.size(390, 844)
	phone.open(links["p15"])
	phone.until(`navigator.serviceWorker.controller`)
	phone.kept()

	assert.Contains(t, phone.text("[data-notice=clock]"), "min off. Ours is used", "the site's day is the test's")
	assert.Equal(t, "3 d 4 h", phone.text("[data-countdown]"), "by the server's time")

	signal(t, false)
	phone.until(`document.querySelector("[data-notice=signal]")`)
	assert.Contains(t, phone.text("[data-notice=signal]"), "No signal. This is plan 1")
	phone.open(links["p15"])
	phone.until(`document.querySelector("[data-countdown]")`)
	assert.Contains(t, phone.text("main"), "High balls", "the last edition, whole")
	phone.click(`[data-do=follow]`)
	phone.click(`[data-do=own]`)
	first := phone.text("[data-f=what]")
	assert.Contains(t, first, "left touch")
	assert.Equal(t, "2", phone.text("[data-f=figure]"))
	phone.click(`[data-do=done]`)
	phone.until(`document.querySelector("[data-f=what]").textContent != ` + quoted(first))
	phone.click(`[data-do=back]`)
	phone.until(`document.querySelector("[data-f=what]").textContent == ` + quoted(first))
	phone.shot("step-by-step")
	phone.click(`[data-do=list]`)
	phone.click(`[data-do=late]`)
	phone.click(`[data-late="14:20"]`)
	phone.until(`document.querySelector("[data-notice=queue]")`)
	assert.Contains(t, phone.text("[data-notice=queue]"), "1 to send")

	signal(t, true)
	phone.until(`!document.querySelector("[data-notice=queue]")`)
	coach.until(`document.querySelector("#told-head")?.parentElement.innerText.includes("will be there at 14:20")`)
	assert.Equal(t, 1, eval[int](coach, `document.querySelectorAll("#told-head + ul > li").length`), "once")
	coach.shot("board-told")
	coach.click(`button[name=plan]`)
	coach.until(`!document.querySelector("#told-head")`)
	b, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	assert.NotZero(t, b.Document.Player("p15").Late, "it is planned so")
}

func quoted(text string) string { return "`" + strings.ReplaceAll(text, "`", "") + "`" }

// A phone that is open when the start moves, and when doses change, says at once what is
// different for its player; the step on it stays; who has seen what is there to read.
func TestANewEditionReachesOpenPhones(t *testing.T) {
	base, p := site(t, true)
	coach, links, team := published(t, p)
	ctx := context.Background()
	phone, wall := newBrowser(t, base), newBrowser(t, base)
	phone.size(390, 844)
	phone.open(links["p15"])
	wall.open(team + "/wall")
	wall.until(`document.querySelector("[data-wall] tr")`)
	phone.click(`[data-do=follow]`)
	phone.click(`[data-do=own]`)
	phone.click(`[data-do=done]`)
	step := phone.text("[data-f=what]")

	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	start := b.Document.Start
	start.Local = strings.Replace(start.Local, "T15:00", "T15:30", 1)
	b, err = p.Boards.Change(ctx, coach, 1, b.Revision, boards.SetStart(start, p.Now()))
	require.NoError(t, err)
	b, err = p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		return d.SetDose("high", 0, 5)
	})
	require.NoError(t, err)
	_, err = p.Reach.Publish(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	began := time.Now()
	phone.until(`document.querySelector("[data-notice=edition]")`)
	assert.Less(t, time.Since(began), 10*time.Second)
	told := phone.text("[data-notice=edition]")
	assert.Contains(t, told, "Plan 2: Kick-off now 15:30")
	assert.Contains(t, told, "Rising loop now at")
	assert.Regexp(t, `and \d more changes`, told)
	assert.Equal(t, step, phone.text("[data-f=what]"), "the step under the thumb stays")
	assert.Equal(t, "Kick-off 15:30", phone.text("#follow [data-bar]"))
	wall.until(`document.querySelector("[data-bar]").innerText == "Kick-off 15:30"`)
	phone.click(`#follow [data-notice=edition] button`)
	require.Eventually(t, func() bool {
		readers, err := p.Reach.Readers(ctx, b)
		require.NoError(t, err)
		for _, r := range readers {
			if r.Person == "p15" {
				return r.Number == 2 && !r.Answered.IsZero() && r.Own
			}
		}
		return false
	}, 10*time.Second, 50*time.Millisecond)
	phone.shot("my-run-in-changed")

	editor := newBrowser(t, base)
	editor.signIn()
	editor.open("/sessions/1/links")
	assert.Contains(t, editor.text("main"), "said OK")
	assert.Contains(t, editor.text("main"), "not opened")
	editor.shot("links")
	_, err = p.Reach.Withdraw(ctx, coach, 1)
	require.NoError(t, err)
	phone.until(`document.querySelector("[data-notice=signal]")?.innerText.includes("no longer good")`)
	phone.open(links["p15"])
	assert.Contains(t, phone.text("main"), "This link shows nothing")
}

// Nothing is lost on a phone that slept, is full, or has the page open twice.
func TestAPhoneInTrouble(t *testing.T) {
	base, p := site(t, true)
	_, links, _ := published(t, p)
	phone := newBrowser(t, base)
	phone.size(390, 844)
	phone.open(links["p4"])
	phone.click(`[data-do=follow]`)
	phone.click(`[data-do=own]`)
	running := `document.getAnimations().some(a => a.playState == "running")`
	for !eval[bool](phone, running) { // to a hold, which is over when its time is
		phone.click(`[data-do=done]`)
	}
	held := phone.text("[data-f=drill]") + phone.text("[data-f=what]")
	phone.run(`(() => { const real = Date.now; Date.now = () => real() + 200000 })()`)
	phone.until(`!(` + running + `)`)
	phone.until(`document.querySelector("[data-do=wait]").innerText == "Go on"`)
	assert.Equal(t, held, phone.text("[data-f=drill]")+phone.text("[data-f=what]"),
		"asleep through three steps: what comes next waits")
	phone.click(`[data-do=done]`)
	phone.until(`document.querySelector("[data-f=drill]").innerText + document.querySelector("[data-f=what]").innerText != ` +
		quoted(held))

	phone.run(`Storage.prototype.setItem = () => { throw new Error("full") }`)
	signal(t, false)
	phone.click(`[data-do=sore]`)
	phone.click(`[data-joint="calf, left"]`)
	phone.until(`document.querySelector("[data-notice=full]") && document.querySelector("[data-notice=queue]")`)
	signal(t, true)
	phone.until(`!document.querySelector("[data-notice=queue]")`)
	second := newBrowser(t, base)
	second.open(links["p4"])
	second.click(`[data-do=late]`)
	second.click(`[data-late]`)
	second.until(`document.querySelector("[data-notice=sent]")?.innerText.includes("Sent")`)
	words, err := storeOf(t).Shares.Words(context.Background(), 1)
	require.NoError(t, err)
	require.Len(t, words, 2, "once each, whatever was full and cut")
	assert.Equal(t, "calf, left", words[0].Says)
}

// A leader ticks a grid, marks a cell to come back to, and finds it so on another phone;
// whom the leader misses, the coach sees.
func TestALeaderTicksAGrid(t *testing.T) {
	base, p := site(t, true)
	_, links, _ := published(t, p)
	phone := newBrowser(t, base)
	phone.size(390, 844)
	phone.open(links["l-pell"])
	phone.until(`document.querySelector("[data-cell] span")?.textContent`)
	phone.run(`document.querySelectorAll("details").forEach(d => d.open = true)`)
	phone.click(`[data-cell="1"]`)
	phone.click(`[data-cell="1"]`)
	phone.click(`[data-again="2"]`)
	assert.Equal(t, "2 of 2", phone.text(`[data-cell="1"]`))
	text := phone.text("main")
	for _, says := range []string{"Say Same steps", "Look for Skips the hard side", "Kickers", "Far half"} {
		assert.Contains(t, text, says)
	}
	phone.shot("leader")
	phone.click(`[data-missing]`)
	require.Eventually(t, func() bool {
		ticks, err := storeOf(t).Shares.Ticks(context.Background(), 1, "l-pell")
		words, err2 := storeOf(t).Shares.Words(context.Background(), 1)
		require.NoError(t, err2)
		return err == nil && len(ticks) == 1 && ticks[0].Says == "1:2 2:0:a" && len(words) == 1 &&
			words[0].Kind == planner.Missing
	}, 10*time.Second, 50*time.Millisecond)
	other := newBrowser(t, base)
	other.open(links["l-pell"])
	other.until(`document.querySelector('[data-cell="1"]')?.textContent == "2 of 2"`)
	assert.True(t, eval[bool](other, `document.querySelector('[data-cell="2"]').classList.contains("again")`))
}
