package web_test

import (
	"io"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
)

// part posts a form as a script of the page does, which wants a part of a page.
func (v *visitor) part(path, wants string, form url.Values) (status int, text string) {
	asks, err := http.NewRequest("POST", v.base+path, strings.NewReader(form.Encode()))
	require.NoError(v.t, err)
	asks.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	asks.Header.Set("X-Part", wants)
	answer, err := v.http.Do(asks)
	require.NoError(v.t, err)
	defer answer.Body.Close()
	body, err := io.ReadAll(answer.Body)
	require.NoError(v.t, err)
	return answer.StatusCode, string(body)
}

// What a line is taken for is said before it is put in, and after.
func TestALineIsSaidBack(t *testing.T) {
	base, p := site(t, "write")
	coach := visit(t, base, demo.Email)
	revision := func() string {
		b, err := p.Boards.Board(ctx, 1, 1)
		require.NoError(t, err)
		return itoa(b.Revision)
	}
	before := revision()
	for line, says := range map[string][]string{
		"leg swings 8 each way a leg (no bounce)":   {"Understood as", "Leg swings", "8 each way, a side", "no bounce"},
		"jog 3 x 120 m, 50 %":                       {"Jog: 3 lengths of 120 m at 50 %"},
		"bike 5 min, 60 %":                          {"at 60 %"},
		"press-ups 8-10":                            {"Press-ups: 8–10 reps"},
		"throws 12, at least 8":                     {"Throws: 8–12 throws"},
		"sprints 3 x 20 m, rest 40 s":               {"3 sprints of 20 m"},
		"team talk 68-55":                           {"Fixed: Team talk", "68′ to 55′ to go"},
		"fixed: Photograph, all in kit 62-60":       {"Fixed: Photograph"},
		"--- Potentiate":                            {"Potentiate from here on"},
		"kicks at posts at 40, 10 and 15, far half": {"Juno", "Mara", "Far half", "at 40′"},
		"wobbles 4 a side":                          {"Wobbles: 4 a side", "yours"},
		"pogo hops 5, done by 30, not before 20":    {"leaves no time between"},
		"skips 20 m, straight after the fireworks":  {"Kept as a note: straight after the fireworks"},
		"<img src=x onerror=alert(1)> 3":            {"<img"},
		strings.Repeat("x", 5000):                   {"has 5000 letters", "Nothing is put in like this"},
		"":                                          {""},
	} {
		status, text := coach.part("/sessions/1/hear", "heard", url.Values{"text": {line}})
		assert.Equal(t, http.StatusOK, status, line)
		for _, one := range says {
			assert.Contains(t, words(text), one, line)
		}
		assert.NotContains(t, text, "<img")
	}
	assert.Equal(t, before, revision(), "hearing changes nothing")

	status, text := coach.part("/sessions/1/write", "board",
		url.Values{"revision": {before}, "text": {"skips 20 m\nfrobnicate 4\nhops 5, done by 30, not before 20"}})
	require.Equal(t, http.StatusOK, status)
	shown := words(text)
	assert.Contains(t, shown, "3 lines put in, look at 1")
	assert.Less(t, strings.Index(shown, "frobnicate"), strings.LastIndex(shown, "Put in"))
	status, text, _ = coach.get("/drills?q=frobnicate")
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, words(text), "No drill fits", "it is the plan's alone until that is used")

	status, text = coach.part("/sessions/1/write", "board", url.Values{"revision": {"77"},
		"text": {"skips 20 m, my very own words"}})
	assert.Equal(t, http.StatusConflict, status, "nobody knows on which plan that was made")
	assert.Contains(t, text, "my very own words", "and what was typed is still there")
	too := strings.Repeat("skips 20 m\n", 10000)
	status, text = coach.part("/sessions/1/write", "board", url.Values{"revision": {revision()}, "text": {too}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, words(text), "lines at a time: these are 10001")
}

// Without scripts, a line, a hold and an order are forms like any other; what is refused
// is said beside its field, with what was typed.
func TestLinesWithoutScripts(t *testing.T) {
	base, p := site(t, "plain")
	coach := visit(t, base, demo.Email)
	send := func(path string, form url.Values) (int, string, string) {
		b, err := p.Boards.Board(ctx, 1, 1)
		require.NoError(t, err)
		form.Set("revision", itoa(b.Revision))
		return coach.post("/sessions/1/"+path, form)
	}
	status, _, to := send("write", url.Values{"text": {"skips 20 m"}})
	assert.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, to, "/sessions/1")
	for _, c := range []struct{ said, says string }{
		{"line-out, at 70", "lies outside the work"},
		{"line-out, straight after line-out", "there is no Line-out to go by"},
		{"line-out, not before 12, done by 20", "no time between"},
		{"the moon, at 20", `"moon" is nobody, no place and no time`},
	} {
		status, text, _ := send("blocks/lineout/said", url.Values{"part": {"who"}, "said": {c.said}})
		assert.Equal(t, http.StatusUnprocessableEntity, status, c.said)
		assert.Contains(t, words(text), c.says, c.said)
		assert.Contains(t, text, `value="`+c.said+`"`, "what was typed stays")
	}
	status, _, _ = send("blocks/lineout/said", url.Values{"part": {"who"},
		"said": {"line-out, far half, Dorrit, 20 to 14, must"}})
	require.Equal(t, http.StatusSeeOther, status)
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	held := b.Document.Block("lineout")
	assert.Equal(t, []string{"20′ to 14′", "Far half", "must"},
		[]string{b.Document.HeldWords(held), b.Document.ZoneName(held.Zone), string(held.Priority)})
	_, text, _ := coach.get("/sessions/1/block/lineout")
	if text == "" || !strings.Contains(text, "20 to 14") {
		_, text, _ = coach.get("/sessions/1?block=lineout")
	}
	assert.Contains(t, text, "20 to 14", "the line says it again as it was said")
	for _, path := range []string{"blocks/lineout/order", "blocks/gone/order", "blocks/lineout/items",
		"blocks/gone/said", "principle"} {
		status, text, _ := send(path, url.Values{"by": {"0"}, "item": {"99"}, "drill": {"levitation"},
			"principle": {"levitation"}, "said": {"x"}})
		assert.Contains(t, []int{http.StatusUnprocessableEntity, http.StatusNotFound}, status, path)
		assert.NotContains(t, text, "panic", path)
	}
}
