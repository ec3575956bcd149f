package field_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/conduct"
	"cuestart/core/schedule"
	"cuestart/demo"
)

// asked is a moment of a session, what was pressed before, and what is different.
type asked struct {
	events []conduct.Event
	now    int64
	is     conduct.Different
}

// moments are such, whatever was pressed, whenever, whatever is different.
func moments(plan conduct.Plan, many int) []asked {
	random := rand.New(rand.NewPCG(15, 200))
	blocks, players := plan.Document.Blocks, plan.Document.Players
	cases := make([]asked, many)
	for n := range cases {
		c := &cases[n]
		c.now, c.events = start.UnixMilli()-int64(60+random.IntN(1500))*1000, []conduct.Event{}
		for k := range random.IntN(5) {
			c.events = append(c.events, conduct.Event{ID: fmt.Sprint(k), By: "x",
				At: c.now - int64(random.IntN(900))*1000, Block: blocks[random.IntN(len(blocks))].ID,
				Kind: []conduct.Kind{conduct.Begin, conduct.Done, conduct.Skip, conduct.Again}[random.IntN(4)]})
		}
		player := players[random.IntN(len(players))].ID
		c.is = []conduct.Different{{Is: conduct.IsStart, Seconds: -60 * random.IntN(8)},
			{Is: conduct.IsStart, Seconds: 600, Hold: true}, {Is: conduct.IsStart, Seconds: 900},
			{Is: conduct.IsBehind}, {Is: conduct.IsMinutes, Seconds: 180},
			{Is: conduct.IsOut, Who: []string{player}}, {Is: conduct.IsLate, Who: []string{player}, Seconds: 300},
			{Is: conduct.IsWeather, Weather: conduct.Rain}}[n%8]
	}
	return cases
}

// The core as it is compiled for a browser answers as the server does: two hundred times. That a page asks it so is
// seen in a browser.
func TestABrowsersCoreAnswersAsTheServers(t *testing.T) {
	const built = "../web/assets/built/"
	require.FileExists(t, built+"field.wasm.gz", "run sh scripts/field.sh")
	phone, plan := with(t, demo.Training)
	cases := moments(plan, 200)
	asks := [][]any{}
	for _, c := range cases {
		asks = append(asks, []any{"view", c.events, c.now}, []any{"propose", c.events, c.now, c.is})
	}
	text, err := json.Marshal(map[string]any{"plan": plan, "asks": asks})
	require.NoError(t, err)
	node := exec.CommandContext(t.Context(), "node", "testdata/ask.mjs", built+"wasm_exec.js", built+"field.wasm.gz")
	node.Stdin, node.Stderr = bytes.NewReader(text), os.Stderr
	out, err := node.Output()
	require.NoError(t, err)
	var answers []any
	require.NoError(t, json.Unmarshal(out, &answers))
	require.Len(t, answers, 2*len(cases))
	refused := 0
	for n, c := range cases {
		events, err := json.Marshal(c.events)
		require.NoError(t, err)
		is, err := json.Marshal(c.is)
		require.NoError(t, err)
		view, err := phone.View(events, c.now)
		assert.Equal(t, told(t, view, err, &refused), answers[2*n], "case %d", n)
		proposal, err := phone.Propose(events, c.now, is, schedule.AtOnce)
		assert.Equal(t, told(t, proposal, err, &refused), answers[2*n+1], "case %d: %s", n, is)
	}
	assert.Less(t, refused, 100, "most of it can be")
}

// told is an answer, or why there is none, as a page has it.
func told(t *testing.T, made []byte, err error, refused *int) (is any) {
	if err != nil {
		*refused++
		made, _ = json.Marshal(map[string]string{"error": err.Error()})
	}
	require.NoError(t, json.Unmarshal(made, &is))
	return is
}
