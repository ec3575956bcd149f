package web_test

import (
	"encoding/base64"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/conduct"
	"cuestart/demo"
	"cuestart/standin/gate"
)

// What a phone at the pitch side sends and gets: presses of who may press, in a form or not at
// all; the plan with what was pressed; nothing of another club.
func TestThePitchSideIsForItsCoaches(t *testing.T) {
	base, p := site(t, "pitchside")
	p.Now = func() time.Time { return time.Date(2026, 11, 28, 14, 30, 0, 0, time.UTC) }
	coach, ulla, physio, other, nobody := visit(t, base, demo.Email), visit(t, base, "assistant@brackwater.example"),
		visit(t, base, demo.MedicalEmail), visit(t, base, stranger), visit(t, base, "")
	press := func(v *visitor, events string) (int, string) {
		status, text, _ := v.post("/pitch/1/press", url.Values{"events": {events}, "have": {"0"}})
		return status, text
	}
	event := func(id, block string) string {
		text, err := json.Marshal([]conduct.Event{{ID: id, By: "somebody else", At: p.Now().UnixMilli(),
			Kind: conduct.Done, Block: block}})
		require.NoError(t, err)
		return string(text)
	}
	status, text := press(coach, event("a", "raise"))
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, text, `"by":"Ines Varley"`, "who pressed is who is signed in")
	status, text = press(ulla, event("b", "bands"))
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, text, `"id":"a"`, "what others pressed comes with it")
	status, _ = press(physio, event("c", "raise"))
	assert.Equal(t, http.StatusForbidden, status)
	status, _ = press(other, event("c", "raise"))
	assert.Equal(t, http.StatusNotFound, status)
	status, _ = press(nobody, event("c", "raise"))
	assert.Equal(t, http.StatusSeeOther, status)
	for _, broken := range []string{"", "{}", "[{", `[{"at":"x"}]`} {
		status, text = press(coach, broken)
		assert.Equal(t, http.StatusUnprocessableEntity, status, broken)
		assert.Contains(t, text, "It stays on the phone")
	}
	status, text = press(coach, `[{"id":"z","at":1,"kind":"dance"}]`)
	assert.Equal(t, http.StatusOK, status)
	assert.Contains(t, text, "nobody knows what was pressed")
	for _, path := range []string{"/pitch/1", "/pitch/1/plan.json"} {
		for v, want := range map[*visitor]int{coach: 200, physio: 200, other: 404, nobody: 303} {
			status, _, _ := v.get(path)
			assert.Equal(t, want, status, path)
		}
	}
	shown := page(t, physio, "/pitch/1")
	assert.Contains(t, shown, `disabled`, "medical staff look on")
	var kept struct {
		Begun  bool            `json:"begun"`
		Last   int             `json:"last"`
		Events []conduct.Event `json:"events"`
	}
	require.NoError(t, json.Unmarshal([]byte(page(t, coach, "/pitch/1/plan.json")), &kept))
	assert.True(t, kept.Begun)
	assert.Contains(t, words(page(t, coach, "/sessions/1")), "This session is running")
	assert.Len(t, kept.Events, 2)
	assert.Equal(t, 2, kept.Last)
}

// The core comes packed and is kept; only its own script may run it.
func TestTheCoreIsSent(t *testing.T) {
	base, _ := site(t, "core")
	answer, err := http.Get(base + "/pitch/field.js")
	require.NoError(t, err)
	defer answer.Body.Close()
	script, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	assert.Contains(t, answer.Header.Get("Content-Security-Policy"), "wasm-unsafe-eval")
	path := strings.Split(string(script), `"`)[3]
	require.True(t, strings.HasSuffix(path, "/field.wasm"), path)
	core, err := http.Get(base + path)
	require.NoError(t, err)
	defer core.Body.Close()
	content, err := io.ReadAll(core.Body)
	require.NoError(t, err)
	assert.Equal(t, "\x00asm", string(content[:4]))
	assert.Equal(t, "application/wasm", core.Header.Get("Content-Type"))
	assert.Contains(t, core.Header.Get("Cache-Control"), "immutable")
	keeper := page(t, visit(t, base, ""), "/pitch/keeper.js")
	assert.Contains(t, keeper, path)
	status, text, _ := visit(t, base, "").get("/sign-in")
	assert.Equal(t, 200, status)
	assert.NotContains(t, text, "field.wasm")
}

// A log that cannot be is said beside what was written; a test of −5 or 9,999 too; nothing is
// changed.
func TestALogIsAskedForWhatCannotBe(t *testing.T) {
	base, p := site(t, "logs")
	coach, physio, other := visit(t, base, demo.Email), visit(t, base, demo.MedicalEmail), visit(t, base, stranger)
	for _, wrong := range []url.Values{{"actual-0": {"for ever"}}, {"actual-0": {"600"}}, {"effort-p1": {"11"}},
		{"amount-0-0": {"-3"}}, {"season": {strings.Repeat("x", 50)}}} {
		wrong.Set("edition", "1")
		status, text, _ := coach.post("/sessions/4/log", wrong)
		assert.Equal(t, http.StatusUnprocessableEntity, status, wrong)
		assert.Contains(t, text, `role="alert"`)
	}
	_, text, _ := coach.post("/sessions/4/log", url.Values{"edition": {"1"}, "actual-0": {"for ever"}})
	assert.Contains(t, text, `value="for ever"`)
	status, _, _ := coach.post("/sessions/4/log", url.Values{"edition": {"9"}, "actual-0": {"5"}})
	assert.Equal(t, http.StatusConflict, status)
	l, err := p.Learn.Log(ctx, 1, 4)
	require.NoError(t, err)
	assert.Equal(t, uint32(1), l.Edition)

	player := "before-" + id(l.Players[0].Roster)
	for says, tries := range map[string]string{"is no number": "thirty", "above zero": "-5",
		"20 tries are the most": strings.Repeat("31 ", 21)} {
		status, text, _ := coach.post("/sessions/4/tests", url.Values{"name": {"Jump height"}, "unit": {"cm"},
			player: {tries}})
		assert.Equal(t, http.StatusUnprocessableEntity, status, says)
		assert.Contains(t, words(text), says)
		assert.Contains(t, text, `value="`+tries+`"`, "what was written stays")
	}
	status, _, _ = coach.post("/sessions/4/tests", url.Values{"name": {""}, "unit": {"cm"}, player: {"31"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	for _, wrong := range []url.Values{{"squad": {"1"}, "days": {"9"}, "region": {"neck"}},
		{"squad": {"1"}, "days": {"2"}}, {"squad": {"1"}, "days": {"2"}, "region": {"tail"}},
		{"squad": {"1"}, "days": {"2"}, "region": {"neck"}, "quality": {"strength"}}} {
		status, _, _ := coach.post("/week/targets", wrong)
		assert.Contains(t, []int{http.StatusUnprocessableEntity, http.StatusConflict}, status, wrong)
	}
	status, _, _ = coach.post("/week/targets", url.Values{"squad": {"20"}, "days": {"2"}, "region": {"neck"}})
	assert.Equal(t, http.StatusNotFound, status, "another club's squad")
	status, _, _ = coach.post("/week/fill", url.Values{"squad": {"1"}, "day": {"2026-11-25"}, "code": {"nothing"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	for _, path := range []string{"/week?day=never", "/week?day=1999-01-01&player=x",
		"/log?squad=1&test=nothing&one=4&other=4", "/sessions/4/report?player=nobody",
		"/sessions/4/tests?test=nothing"} {
		status, _, _ := coach.get(path)
		assert.Equal(t, http.StatusOK, status, path)
	}
	for _, path := range []string{"/sessions/4/log", "/sessions/4/log.csv", "/sessions/4/log.json",
		"/sessions/4/report", "/sessions/4/tests", "/week?squad=1", "/week.csv?squad=1", "/log?squad=1"} {
		status, _, _ := other.get(path)
		assert.Equal(t, http.StatusNotFound, status, path)
	}
	status, _, _ = physio.post("/sessions/4/log", url.Values{"as-is": {"yes"}})
	assert.Equal(t, http.StatusForbidden, status)
}

// The gate answers with a reading, or with what to do.
func TestTheGateIsRead(t *testing.T) {
	base, p := site(t, "gate")
	coach := visit(t, base, demo.Email)
	read := func(device string) string {
		_, text, _ := coach.post("/sessions/4/tests/read", url.Values{"device": {device}, "unit": {"s"}})
		return text
	}
	assert.Contains(t, read("gate"), "No gate or speed reading is set up")
	for mood, says := range map[gate.Mood]string{gate.Well: `"value":1.`, gate.Garbled: "no result",
		gate.Absent: "Is it plugged in"} {
		p.Learn.Port = gate.Port{Mood: mood}
		assert.Contains(t, read("gate"), says)
	}
	p.Learn.Port = gate.Port{}
	assert.Contains(t, read("speed"), "measures in m/s, and this test is in s")
	assert.Contains(t, read("kettle"), "Is it plugged in")
}

// Tests come in from a table, a row before and one after, and are saved again as CSV and JSON.
func TestTestsComeFromATable(t *testing.T) {
	base, p := site(t, "testtable")
	coach := visit(t, base, demo.Email)
	squad, err := p.Keep.Squad(ctx, 1, 1)
	require.NoError(t, err)
	table := "player;test;unit;better;day;when;tries\n"
	for i, k := range squad.Players[:3] {
		table += fmt.Sprintf("%s;Sprint 10 m;s;lower;2026-11-21;before;1,9%d\n%s;Sprint 10 "+
			"m;s;lower;2026-11-21;after;1,8%d\n",
			k.Is.Label(), i, k.Is.Label(), i)
	}
	sent := url.Values{"kind": {"tests"}, "squad": {"1"}, "file64": {base64.StdEncoding.EncodeToString([]byte(table))},
		"take": {"yes"}}
	status, _, _ := coach.post("/import", sent)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, words(page(t, coach, "/sessions/4/tests?test=Sprint+10+m")), "The squad: 0.1 s better")
	var list []map[string]any
	require.NoError(t, json.Unmarshal([]byte(page(t, coach, "/export/tests.json?squad=1")), &list))
	found := 0
	for _, one := range list {
		if one["test"] == "Sprint 10 m" && one["player"] == squad.Players[0].Is.Label() {
			found++
		}
	}
	assert.Equal(t, 2, found)
	assert.Contains(t, page(t, coach, "/export/tests.csv?squad=1"), "Sprint 10 m,s,lower,2026-11-21,before,best,1.9")
	sent.Set("file64",
		base64.StdEncoding.EncodeToString([]byte("player;test;unit;better;day;when;"+
			"tries\n"+squad.Players[0].Is.Label()+";Jump;cm;higher;2026-11-21;never;31\n")))
	_, text, _ := coach.post("/import", sent)
	assert.Contains(t, words(text), "before, after, or nothing")
}
