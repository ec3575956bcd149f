package e2e

import (
	"encoding/csv"
	"encoding/json"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/standin/gate"
)

// A test before and after: typed, from the simulated gate, from a file; the log by one press;
// the week's gap filled; each in a browser as a coach does it.
func TestWhatIsLearntFromASession(t *testing.T) {
	base, p := site(t, true)
	p.Learn.Port = gate.Port{}
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/4/tests?test=Sprint+10+m")
	for i, tries := range []string{"1,92 1.9", "2.01", "1.95"} {
		b.set("tbody tr:nth-child("+string(rune('1'+i))+") input[name^=before]", tries)
	}
	for i := range 3 {
		b.run(`document.querySelectorAll("tbody tr input[name^=after]")[` + string(rune('0'+i)) + `].focus()`)
		b.click("#gate")
		b.until(`!document.querySelector("#gate").disabled && document.querySelectorAll("tbody tr input[name^=after]")[` +
			string(rune('0'+i)) + `].value`)
	}
	b.click("#keep")
	b.until(`document.querySelector("main").innerText.includes("The squad:")`)
	assert.Contains(t, b.text("main"), "n 3")
	p.Learn.Port = gate.Port{Mood: gate.Garbled}
	b.click("#gate")
	b.until(`document.querySelector(".problem")?.textContent.includes("no result")`)
	b.open("/sessions/4/tests")
	assert.Contains(t, b.text("main"), "1.26 cm better", "the test that was done that day")

	b.open("/sessions/2/log")
	b.open("/log")
	b.click(`main form button.act:not(.act-small)`)
	b.until(`document.querySelector(".notice + form, p.notice")`)
	assert.Contains(t, b.text("main"), "the same players")

	b.open("/week")
	first := b.text("form[action='/week/fill']")
	assert.Contains(t, first, "Put it in")
	b.click("form[action='/week/fill'] button")
	b.until(`document.querySelector("[role=status]")?.textContent.includes("put into")`)
	b.open("/sessions/1")
	assert.Contains(t, b.text("main"), "Saved")

	cookies := evalPromise(b, `fetch("/sessions/4/log.csv").then(r => r.text())`)
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(cookies, "\ufeff"))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, "Rising loop", rows[1][2])
	var log map[string]any
	require.NoError(t, json.Unmarshal([]byte(evalPromise(b, `fetch("/sessions/4/log.json").then(r => r.text())`)),
		&log))
	assert.Equal(t, "2026-11-21", log["day"])
	assert.Contains(t, evalPromise(b, `fetch("/week.svg").then(r => r.text())`), "<svg xmlns")
	assert.Contains(t, evalPromise(b, `fetch("/week.csv").then(r => r.text())`), "neck,strength")
	b.open("/sessions/4/report")
	assert.Contains(t, b.text("main"), "Scrum")
}

// On the evening of a match its players say how hard it was, and the log shows it; what they
// felt is there next time, why somebody is hurt is not.
func TestPlayersSayHowHardItWas(t *testing.T) {
	base, p := site(t, true)
	_, links, _ := published(t, p)
	beforeStart(p, -time.Hour)
	phone := newBrowser(t, base)
	phone.size(390, 844)
	phone.open(links["p15"])
	phone.until(`document.querySelector("[data-effort]") && !document.querySelector("[data-effort]").hidden`)
	phone.click(`[data-hard="7"]`)
	phone.until(`document.querySelector('[data-hard="7"]').getAttribute("aria-pressed") == "true" && document.querySelector("[data-notice=sent]")`)
	coach := newBrowser(t, base)
	coach.signIn()
	coach.open("/sessions/1/log")
	assert.Equal(t, "7", eval[string](coach, `document.querySelector("[name=effort-p15]").value`))
	coach.click("#as-is")
	coach.until(`document.querySelector("main").innerText.includes("Kept by")`)
	answer, err := http.Get(base + "/sessions/1/log")
	require.NoError(t, err)
	defer answer.Body.Close()
	assert.Equal(t, "/sign-in", answer.Request.URL.Path, "a log is for who is signed in")
}
