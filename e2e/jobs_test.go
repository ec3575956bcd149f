package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is done most stands at most two presses from the board, at a desk, on a tablet and on a
// phone; a tab opens beside the plan or above it, and Escape closes what is open.
func TestTheCommonJobsAreTwoPressesAway(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	listed := `.board-list a[href$="block=move"]`
	revision := 1
	for _, screen := range []struct {
		width, height int64
		block, said   string
	}{{1280, 800, listed, "tall"}, {820, 1100, "#narrow-block-move", "slow; low"}, {390, 844, listed, "no bounce"}} {
		b.size(screen.width, screen.height)
		b.open("/sessions/1")
		b.until(`document.querySelector('` + screen.block + `')?.checkVisibility()`)
		job := func(presses ...string) {
			assert.LessOrEqual(t, len(presses), 2)
			for _, css := range presses {
				b.until("document.querySelector(`" + css + "`)")
				b.click(css)
			}
			revision++
			b.at(revision)
		}
		job(screen.block, "#more-0")
		job("#prio-could")
		b.set("#tell-0", screen.said)
		revision++
		b.at(revision)
		said := document(t, p, 1).Block("move").Items[0].Drill.Cues
		require.NotEmpty(t, said)
		assert.Contains(t, screen.said, said[0])
		job("#to-day", "#turn-first")
		assert.True(t, eval[bool](b, `document.querySelector("#tab-day").checkVisibility()`), "it stays open")
		job("#turn-first")
		if screen.width == 1280 {
			b.run(`document.activeElement.blur(); document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "Escape", bubbles: true }))`)
			b.until(`!document.querySelector("#tab-day")`)
		}
		job("#shift-10")
		for range 6 {
			job("#undo")
		}
		assert.LessOrEqual(t, eval[int](b, `document.documentElement.scrollWidth`), int(screen.width))
	}
}
