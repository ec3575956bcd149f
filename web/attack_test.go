package web_test

import (
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/net/html"

	"cuestart/demo"
	"cuestart/planner/office"
)

// What is typed is shown as it was typed, wherever it comes up, and never runs.
func TestNothingThatIsTypedRuns(t *testing.T) {
	base, p := site(t, "typed")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	const evil = `<img src=x onerror=alert(1)>"'{{.}}`
	typed := url.QueryEscape(evil)
	for _, c := range []struct{ path, form string }{
		{"/squad/1/players", "first=" + typed + "&last=" + typed + "&position=" + typed + "&notes=" + typed +
			"&number=88"},
		{"/squad/1/units", "name=" + typed + "&players=17"},
		{"/squads", "name=" + typed + "&grade=club"},
		{"/ground/zone", "name=" + typed + "&of=1&capacity=9&lanes=1&surface=" + typed},
		{"/ground/kit", "name=" + typed + "&pieces=2"},
		{"/ground/staff", "name=" + typed + "&role=" + typed},
		{"/drills/new", "name=" + typed + "&aim=" + typed +
			"&kind=time&phases=raise&min=30&target=30&max=60&step=5&effort=50&cues=" + typed},
		{"/sessions/1/head", "revision=1&title=" + typed + "&place=" + typed + "&start_name=" + typed +
			"&method=ramp&open=55"},
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
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	require.Equal(t, evil, b.Document.Title)
	shared := "/r/" + b.Publication.Token
	shown := 0
	for path, who := range map[string]*visitor{"/today": coach, "/squad?squad=1": coach, "/squad?unit=new": coach,
		"/ground": coach, "/drills?q=onerror": coach, "/routines": coach, "/sessions/1": coach,
		"/sessions/1?tab=day": coach, "/sessions/1/sheet": coach, "/sessions/new?squad=1": coach,
		shared: nobody, shared + "/p2": nobody} {
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
	for _, path := range []string{"/sign-in", "/today", "/sessions/1", "/nothing", "/export/squad.csv?squad=1",
		"/assets/x/app.css"} {
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

// Fields that were never on the page, twice there, or of any length, do no harm; nor does one bad field in a form that
// is good, of any on the board.
func TestAFormOfAnyKindIsAnswered(t *testing.T) {
	base, p := site(t, "anyform")
	coach := visit(t, base, demo.Email)
	values := []string{"", "0", "-1", "99999999999999999999", "NaN", "1e309", strings.Repeat("9", 5000), "\x00",
		"\xff\xfe", "ten", "2026-13-45", "@25:61", "*", "p99", "lineout", "../../etc", "' OR 1=1 --"}
	send := func(path string, form url.Values, why string) {
		status, text, _ := coach.post(path, form)
		assert.Contains(t, []int{200, 303, 404, 409, 413, 422}, status, "%s %s", path, why)
		assert.NotContains(t, text, "panic", "%s %s", path, why)
	}
	page := ""
	for _, open := range []string{"block=lineout", "drawer=found", "drawer=holds", "drawer=session", "drawer=routine",
		"tab=people", "tab=times", "tab=day", "tab=kit", "tab=lists"} {
		_, part, _ := coach.get("/sessions/1?" + open)
		page += part
	}
	tried, sent := map[string]bool{}, 0
	for _, f := range forms(t, page) {
		if !strings.HasPrefix(f.action, "/sessions/1/") || tried[f.action] || strings.HasSuffix(f.action, "/publish") ||
			f.action == "/sessions/1/remove" {
			continue
		}
		tried[f.action] = true
		all := url.Values{} // what no page sends
		for i, field := range slices.Sorted(maps.Keys(f.fields)) {
			all[field] = []string{values[(sent+i)%len(values)], "2"}
			for k := range 2 {
				bad := maps.Clone(f.fields)
				bad.Set("revision", itoa(revisionOf(t, p)))
				bad.Set(field, values[(sent+9*k)%len(values)])
				send(f.action, bad, field+" "+bad.Get(field))
			}
			sent += 2
		}
		send(f.action, all, "all of it")
	}
	assert.Greater(t, len(tried), 24, "forms of the board")
	for _, id := range []string{"0", "-1", "99999999999999999999", "x", "%00", "1%27", "1;2"} {
		for _, path := range []string{"/sessions/%s", "/sessions/%s/sheet", "/squad?squad=%s", "/squad?player=%s",
			"/routines/%s/routine.json", "/ground?edit=zone&id=%s", "/sessions/new?fixture=%s", "/r/%s/p1"} {
			status, text, _ := coach.get(fmt.Sprintf(path, id))
			assert.Contains(t, []int{200, 400, 404}, status, path+" "+id)
			assert.NotContains(t, text, "SQL syntax", path)
		}
	}
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	assert.NoError(t, b.Document.Validate(), "whatever was taken, the plan holds together")
}

// form is one of a page, with what a browser would send of it untouched.
type form struct {
	action string
	fields url.Values
}

// forms are those of a page.
func forms(t *testing.T, page string) (list []form) {
	root, err := html.Parse(strings.NewReader(page))
	require.NoError(t, err)
	var of *form
	choice := ""
	for n := range root.Descendants() {
		attr := map[string]string{}
		for _, a := range n.Attr {
			attr[a.Key] = a.Val
		}
		switch {
		case n.Data == "form" && attr["method"] == "post":
			list = append(list, form{attr["action"], url.Values{}})
			of = &list[len(list)-1]
		case n.Data == "form":
			of = nil
		case of == nil:
		case n.Data == "option":
			if _, chosen := attr["selected"]; chosen || of.fields.Get(choice) == "" {
				of.fields.Set(choice, attr["value"])
			}
		case attr["name"] == "":
		case n.Data == "select":
			choice = attr["name"]
			of.fields.Set(choice, "")
		case n.Data == "textarea" && n.FirstChild != nil:
			of.fields.Set(attr["name"], n.FirstChild.Data)
		case slices.Contains([]string{"input", "textarea", "button"}, n.Data):
			of.fields.Add(attr["name"], attr["value"])
		}
	}
	return list
}

// revisionOf is the revision that the demo's match has.
func revisionOf(t *testing.T, p *office.Office) uint32 {
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	return b.Revision
}
