package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/office"
)

// does leaves the board of a change aside.
func does(_ *boards.Board, err error) error { return err }

// ulla is the demo's assistant.
func ulla(t *testing.T, p *office.Office) planner.Account {
	account, _, err := p.Staff.AccountByEmail(t.Context(), "assistant@brackwater.example")
	require.NoError(t, err)
	return account
}

// Two coaches have one board open: each sees within a second what the other did; changes of
// different blocks are both in; on the same block the slower chooses, and nothing that is
// being written is lost.
func TestTwoCoachesOnOneBoard(t *testing.T) {
	base, p := site(t, true)
	one, two := newBrowser(t, base), newBrowser(t, base)
	one.signIn()
	assistantIn(t, two)
	for _, b := range []*browser{one, two} {
		b.open("/sessions/1?block=bands")
		b.until(`document.querySelector("[x-data=board]")?._x_dataStack`)
		b.until(`document.querySelector("[x-data=told]")._x_dataStack[0].news?.readyState == EventSource.OPEN`)
	}
	one.click("#prio-could")
	one.until(`document.querySelector("[name=revision]").value == "2"`)
	since := time.Now()
	two.until(`document.querySelector("[name=revision]").value == "2"`)
	assert.Less(t, time.Since(since), 2*time.Second)
	two.until(`!document.querySelector("#did").hidden && document.querySelector("#did").textContent.includes("Bands is a could")`)
	assert.True(t, eval[bool](one, `document.querySelector("#did").hidden`), "of one's own change nothing is said")

	// One writes into a field; the other changes another block, then the same one.
	writes := func(text string) { // and has not left the field yet
		one.run(fmt.Sprintf(`(() => { const f = document.querySelector("#block-said"); f.focus(); f.value = %q })()`,
			text))
	}
	leaves := func() {
		one.run(`document.querySelector("#block-said").dispatchEvent(new Event("change", { bubbles: true }))`)
	}
	writes("at 30")
	two.open("/sessions/1?block=neck")
	two.until(`document.querySelector("#prio-could")`)
	two.click("#prio-could")
	two.until(`document.querySelector("[name=revision]").value == "3"`)
	one.until(`document.querySelector("[x-data=board]")._x_dataStack[0].newest?.revision == 3`) // it knows
	assert.Equal(t, "at 30", eval[string](one, `document.querySelector("#block-said").value`),
		"what is being written stays")
	leaves()
	one.until(`document.querySelector("[name=revision]").value == "4"`)
	assert.NotNil(t, document(t, p, 1).Block("bands").Pin)
	assert.Equal(t, plan.Could, document(t, p, 1).Block("neck").Priority, "both are in")

	// One's line is dead for a while: what the other did meanwhile is there once it is back.
	signal(t, false)
	require.NoError(t, does(p.Boards.Change(t.Context(), ulla(t, p), 1, 4,
		func(d *plan.Document) (string, error) { return d.SetPriority("high", plan.Could) })))
	time.Sleep(300 * time.Millisecond)
	signal(t, true)
	one.until(`document.querySelector("[name=revision]").value == "5"`)

	// A second server on the same database: what is done there is seen here.
	elsewhere := office.New(storeOf(t))
	elsewhere.Now = p.Now
	since = time.Now()
	require.NoError(t, does(elsewhere.Boards.Change(t.Context(), ulla(t, p), 1, 5,
		func(d *plan.Document) (string, error) { return d.SetPriority("hands", plan.Could) })))
	one.until(`document.querySelector("[name=revision]").value == "6"`)
	assert.Less(t, time.Since(since), 3*time.Second)
	two.until(`document.querySelector("[name=revision]").value == "6"`)

	writes("at 28")
	two.open("/sessions/1?block=bands")
	two.until(`document.querySelector("#prio-must")`)
	two.click("#prio-must")
	two.until(`document.querySelector("[name=revision]").value == "7"`)
	leaves()
	one.until(`document.querySelector("#clash")`)
	assert.Contains(t, one.text("#clash"), "changed Bands too")
	one.shot("clash")
	assert.Equal(t, plan.Must, document(t, p, 1).Block("bands").Priority)
	one.click("#clash button")
	one.until(`document.querySelector("[name=revision]").value == "8" && !document.querySelector("#clash")`)
	assert.Equal(t, 28*60, document(t, p, 1).Block("bands").Pin.Before)
}
