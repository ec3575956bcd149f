package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/net/html"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/demo"
	"cuestart/store"
)

// client is signed in as the demo's coach, without a browser.
func client(t *testing.T, base string) *http.Client {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	c := &http.Client{Jar: jar}
	answer, err := c.PostForm(base+"/sign-in", url.Values{"email": {demo.Email}, "password": {demo.Password}})
	require.NoError(t, err)
	answer.Body.Close()
	return c
}

// fields is what a browser would send of the form with that action, if nothing in it was touched.
func fields(t *testing.T, c *http.Client, page, action string) url.Values {
	answer, err := c.Get(page)
	require.NoError(t, err)
	defer answer.Body.Close()
	root, err := html.Parse(answer.Body)
	require.NoError(t, err)
	values, found := url.Values{}, false
	var walk func(n *html.Node, in bool)
	walk = func(n *html.Node, in bool) {
		attr := map[string]string{}
		for _, a := range n.Attr {
			attr[a.Key] = a.Val
		}
		_, checked := attr["checked"]
		switch {
		case n.Type != html.ElementNode:
		case n.Data == "form":
			in = attr["action"] == action
			found = found || in
		case !in || attr["name"] == "":
		case n.Data == "input" && (attr["type"] != "checkbox" && attr["type"] != "radio" || checked):
			values.Add(attr["name"], attr["value"])
		case n.Data == "textarea":
			values.Add(attr["name"], strings.TrimPrefix(text(n), "\n"))
		case n.Data == "select":
			values.Add(attr["name"], chosen(n))
		}
		for k := n.FirstChild; k != nil; k = k.NextSibling {
			walk(k, in)
		}
	}
	walk(root, false)
	require.True(t, found, "%s has no form for %s", page, action)
	return values
}

func text(n *html.Node) string {
	if n.Type == html.TextNode {
		return n.Data
	}
	all := ""
	for k := n.FirstChild; k != nil; k = k.NextSibling {
		all += text(k)
	}
	return all
}

// chosen is the value of a select: the option that is selected, or the first.
func chosen(n *html.Node) (value string) {
	first := true
	var walk func(n *html.Node)
	walk = func(n *html.Node) {
		if n.Data == "option" {
			own, selected := "", false
			for _, a := range n.Attr {
				if a.Key == "value" {
					own = a.Val
				}
				selected = selected || a.Key == "selected"
			}
			if selected || first {
				value = own
			}
			first = false
		}
		for k := n.FirstChild; k != nil; k = k.NextSibling {
			walk(k)
		}
	}
	walk(n)
	return value
}

// A form that is sent back as it came changes nothing: every field is shown as it is kept, and
// read as it is shown.
func TestAFormSentBackAsItCameChangesNothing(t *testing.T) {
	base, p := site(t, true)
	c := client(t, base)
	c.CheckRedirect = func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }
	ctx := context.Background()
	send := func(page, action string) {
		form := fields(t, c, base+page, action)
		answer, err := c.PostForm(base+action, form)
		require.NoError(t, err)
		body := readAll(answer)
		answer.Body.Close()
		require.Equal(t, http.StatusSeeOther, answer.StatusCode, "%s: %s", page, body)
	}
	for _, d := range book.Drills() {
		send("/drills/"+d.Code+"/edit", "/drills/"+d.Code)
	}
	now, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	require.Len(t, now.Own, len(book.Drills()))
	for _, was := range book.Drills() {
		is, ok := now.Find(was.Code)
		require.True(t, ok)
		x, _ := json.Marshal(sortedLists(was))
		y, _ := json.Marshal(sortedLists(is))
		assert.Equal(t, string(x), string(y), was.Code)
	}

	kept := func() string {
		var all bytes.Buffer
		for _, list := range []any{things[club.Player](t), things[club.Zone](t), things[club.Kit](t),
			things[club.Staff](t), things[club.Venue](t), things[club.Unit](t)} {
			text, err := json.Marshal(list)
			require.NoError(t, err)
			all.Write(text)
		}
		return all.String()
	}
	before := kept()
	for _, k := range things[club.Player](t)[:12] {
		send(fmt.Sprintf("/squad?player=%d", k.ID), "/squad/1/players")
	}
	send(fmt.Sprintf("/squad?unit=%d", things[club.Unit](t)[0].ID), "/squad/1/units")
	send(fmt.Sprintf("/ground?edit=zone&id=%d", things[club.Zone](t)[3].ID), "/ground/zone")
	send(fmt.Sprintf("/ground?edit=kit&id=%d", things[club.Kit](t)[0].ID), "/ground/kit")
	send(fmt.Sprintf("/ground?edit=staff&id=%d", things[club.Staff](t)[0].ID), "/ground/staff")
	send("/ground?edit=venue&id=1", "/ground/venue")
	after := kept()
	assert.Equal(t, withoutEditions(before), withoutEditions(after))

	board, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	for action, open := range map[string]string{"head": "drawer=session", "day": "tab=day", "fixed": "tab=times",
		"players": "tab=people", "blocks/lineout": "block=lineout&drawer=block"} {
		send("/sessions/1?"+open, "/sessions/1/"+action)
	}
	same, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, board.Document, same.Document)
	assert.Equal(t, board.Revision, same.Revision, "nothing to take back")
}

func things[T club.Thing](t *testing.T) []store.Entry[T] {
	kept, err := store.Entries[T](context.Background(), storeOf(t).Clubs, 1)
	require.NoError(t, err)
	return kept
}

// withoutEditions takes out what counts changes.
func withoutEditions(text string) string {
	return editions.ReplaceAllString(text, "")
}

var editions = regexp.MustCompile(`"Edition":\d+`)

// sortedLists is a drill whose lists stand in the order of the form's boxes.
func sortedLists(d drill.Drill) drill.Drill {
	order := func(list, all []string) (sorted []string) {
		for _, w := range all {
			if slices.Contains(list, w) {
				sorted = append(sorted, w)
			}
		}
		return sorted
	}
	d.Regions, d.Planes, d.Qualities = order(d.Regions, drill.Regions), order(d.Planes, drill.Planes),
		order(d.Qualities, drill.Qualities)
	slices.SortFunc(d.Phases, func(a, b drill.Phase) int { return strings.Compare(string(a), string(b)) })
	return d
}
