package web_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
)

// What is typed is shown as it was typed, wherever it comes up, and never runs.
func TestNothingThatIsTypedRuns(t *testing.T) {
	base, p := site(t, "typed")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	const evil = `<img src=x onerror=alert(1)>"'{{.}}`
	typed := url.QueryEscape(evil)
	for _, c := range []struct{ path, form string }{
		{"/squad/1/players", "first=" + typed + "&last=" + typed + "&position=" + typed + "&notes=" + typed + "&number=88"},
		{"/squad/1/units", "name=" + typed + "&players=17"},
		{"/squads", "name=" + typed + "&grade=club"},
		{"/ground/zone", "name=" + typed + "&of=1&capacity=9&lanes=1&surface=" + typed},
		{"/ground/kit", "name=" + typed + "&pieces=2"},
		{"/ground/staff", "name=" + typed + "&role=" + typed},
		{"/drills/new", "name=" + typed + "&aim=" + typed + "&kind=time&phases=raise&min=30&target=30&max=60&step=5&effort=50&cues=" + typed},
		{"/sessions/1/head", "revision=1&title=" + typed + "&place=" + typed + "&start_name=" + typed + "&method=ramp&open=55"},
		{"/sessions/1/blocks/lineout", "revision=2&name=" + typed + "&aim=" + typed + "&who=&zone=&leader="},
		{"/sessions/1/fixed", "revision=3&name=" + typed + "&who=*&from=60&to=55"},
		{"/sessions/1/routine", "name=" + typed + "&for=" + typed},
		{"/sessions/1/publish", "revision=4"},
	} {
		form, err := url.ParseQuery(c.form)
		require.NoError(t, err)
		status, text, _ := coach.post(c.path, form)
		assert.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status, "%s: %s", c.path, problemIn(text))
	}
	b, err := p.Board(ctx, 1, 1)
	require.NoError(t, err)
	require.Equal(t, evil, b.Document.Title)
	shared := "/r/" + b.Publication.Token
	shown := 0
	for path, who := range map[string]*visitor{"/today": coach, "/squad?squad=1": coach, "/squad?unit=new": coach, "/ground": coach, "/drills?q=onerror": coach, "/routines": coach, "/sessions/1": coach,
		"/sessions/1?block=lineout&drawer=day": coach, "/sessions/1/sheet": coach, "/sessions/new?squad=1": coach, shared: nobody, shared + "/p2": nobody} {
		text := page(t, who, path)
		assert.NotContains(t, text, "<img src=x", path)
		assert.NotContains(t, text, `"'{{.}}"`, path)
		shown += strings.Count(text, "&lt;img src=x")
	}
	assert.Greater(t, shown, 20, "or nothing of it was looked at")
}

// Every answer forbids what a page of this site never does.
func TestEveryAnswerIsFenced(t *testing.T) {
	base, _ := site(t, "fenced")
	coach := visit(t, base, demo.Email)
	for _, path := range []string{"/sign-in", "/today", "/sessions/1", "/nothing", "/export/squad.csv?squad=1", "/assets/x/app.css"} {
		answer, err := coach.http.Get(base + path)
		require.NoError(t, err)
		answer.Body.Close()
		policy := answer.Header.Get("Content-Security-Policy")
		assert.Contains(t, policy, "default-src 'none'", path)
		assert.NotContains(t, policy, "unsafe", path)
		assert.Equal(t, "nosniff", answer.Header.Get("X-Content-Type-Options"), path)
	}
	for _, origin := range []string{"https://elsewhere.example", "null"} {
		request, err := http.NewRequest("POST", base+"/sessions/1/undo", strings.NewReader("revision=1"))
		require.NoError(t, err)
		request.Header.Set("Origin", origin)
		request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		answer, err := coach.http.Do(request)
		require.NoError(t, err)
		answer.Body.Close()
		assert.Equal(t, http.StatusForbidden, answer.StatusCode, origin)
	}
	out, _, _ := coach.post("/sign-out", nil)
	assert.Equal(t, http.StatusSeeOther, out)
	status, _, to := coach.get("/today")
	assert.Equal(t, []any{http.StatusSeeOther, "/sign-in?back=%2Ftoday"}, []any{status, to}, "signed out is out")
}

// Fields that were never on the page, twice there, or of any length, do no harm.
func TestAFormOfAnyKindIsAnswered(t *testing.T) {
	base, p := site(t, "anyform")
	coach := visit(t, base, demo.Email)
	values := []string{"", "0", "-1", "99999999999999999999", "NaN", "1e309", strings.Repeat("9", 5000), "\x00", "\xff\xfe", "ten", "2026-13-45", "@25:61", "*", "p99", "lineout", "../../etc", "' OR 1=1 --"}
	for _, path := range []string{"head", "timing", "spare", "day", "factor", "fixed", "players", "mend", "keep", "hear", "write", "principle", "relist", "blocks/lineout", "blocks/lineout/said", "blocks/lineout/write", "blocks/lineout/items",
		"blocks/lineout/dose", "blocks/lineout/priority", "blocks/lineout/order", "blocks/lineout/form", "blocks/raise/form", "blocks/raise/group", "turn", "roles", "facing", "bring", "lists", "lists/after-1", "lists/after-1/write", "put"} {
		for n, v := range values {
			form := url.Values{"revision": {"1"}}
			for i, field := range []string{"title", "start", "margin", "shift", "use", "air", "wind", "factor", "name", "who", "from", "to", "id", "player", "late", "rule", "where", "reason", "drill", "priority", "item", "by", "amount", "stations", "open", "method", "text", "said", "into", "before", "phase",
				"form", "split", "rounds", "rest", "change", "pick", "pressed", "on", "turn", "facing", "bring", "when", "line", "length", "every", "also", "without", "gone", "routine"} {
				if (i+n)%3 > 0 {
					form[field] = []string{v, values[(n+i)%len(values)]}
				}
			}
			status, text, _ := coach.post("/sessions/1/"+path, form)
			assert.Contains(t, []int{200, 303, 404, 409, 413, 422}, status, "%s %q", path, v)
			assert.NotContains(t, text, "panic", "%s %q", path, v)
		}
	}
	for _, id := range []string{"0", "-1", "99999999999999999999", "x", "%00", "1%27", "1;2"} {
		for _, path := range []string{"/sessions/%s", "/sessions/%s/sheet", "/squad?squad=%s", "/squad?player=%s", "/routines/%s/routine.json", "/ground?edit=zone&id=%s", "/sessions/new?fixture=%s", "/r/%s/p1"} {
			status, text, _ := coach.get(fmt.Sprintf(path, id))
			assert.Contains(t, []int{200, 400, 404}, status, path+" "+id)
			assert.NotContains(t, text, "SQL syntax", path)
		}
	}
	b, err := p.Board(ctx, 1, 1)
	require.NoError(t, err)
	assert.NoError(t, b.Document.Validate(), "whatever was taken, the plan holds together")
}
