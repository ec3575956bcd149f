package web_test

import (
	"bytes"
	"compress/flate"
	"compress/zlib"
	"context"
	"encoding/xml"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/planner"
	"cuestart/planner/office"
	"cuestart/planner/reach"
)

// What is planted, and who may read it.
const (
	plantedReason = "torn-meniscus-of-1998"    // of a ruling: medical staff, at its player
	plantedPain   = "sharp-behind-the-kneecap" // said by a player: medical staff, at what was said
	plantedRuling = "nothing overhead"         // what is ruled: staff, leaders, the player
	plantedHurt   = "out, hurt"                // staff
	plantedTitle  = `Cup <evil a="b">&'1'`     // everybody, but as it was typed
	plantedClub   = "Penhallick"               // nobody of another club
)

// fragments are the parts of pages that scripts ask for by themselves.
var fragments = map[string]string{"/sessions/:session": "board", "/sessions/:session/told": "told",
	"/sessions/:session/moment": "moment", "/sessions/:session/people": "matrix", "/sessions/:session/better": "better",
	"/sessions/:session/what-if": "whatif", "/drills": "found", "/ground-plan/:id": "laid"}

// door is a way that routes.go puts there.
type door struct{ method, group, path string }

// routesOf reads the map of the site, so that a further route is tried too.
func routesOf(t *testing.T) (all []door) {
	text, err := os.ReadFile("routes.go")
	require.NoError(t, err)
	for _, m := range regexp.MustCompile(`(?m)^\s*(?:open\.May\(planner\.(\w+)\)|(\w+))\.(Get|Post)\("([^"]*[^"/]|/)"`).FindAllStringSubmatch(string(text),
		-1) {
		all = append(all, door{m[3], m[1] + m[2], m[4]})
	}
	for _, m := range regexp.MustCompile(`"([a-z.]+)":\s+sheet\.`).FindAllStringSubmatch(string(text), -1) {
		all = append(all, door{"Get", "club", "/sessions/:session/" + m[1]})
	}
	for _, name := range []string{"csv", "json", "svg"} {
		all = append(all, door{"Get", "club", "/week." + name})
	}
	for _, m := range regexp.MustCompile(`open\.(Get|Post)\(way(?:\+"([^"]+)")?,`).FindAllStringSubmatch(string(text),
		-1) {
		all = append(all, door{m[1], "open", "/r/:token/:player" + m[2]},
			door{m[1], "open", "/r/:token/:player/:key" + m[2]})
	}
	require.Greater(t, len(all), 200)
	return all
}

// planted is a site in which something stands that not everybody may read, with what the
// parts of addresses are.
func planted(t *testing.T, name string) (base string, p *office.Office, parts map[string]string) {
	base, p = site(t, name)
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	coach := planner.Account{ID: 1, ClubID: 1, Role: planner.Coach, Name: "Ines Varley"}
	medical := planner.Account{ID: 2, ClubID: 1, Role: planner.Medical, Name: "Signe Aldous", Proved: now}
	b, err = p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		d.Title = plantedTitle
		return "titled", nil
	})
	require.NoError(t, err)
	player := b.Document.Player("p14")
	_, err = p.Save(ctx, medical, "ruled",
		planner.Change{Owner: player.Roster, Is: club.Restriction{NoOverhead: true, From: "2026-11-01",
			Reason: plantedReason}})
	require.NoError(t, err)
	b, err = p.Boards.TakeRulings(ctx, coach, 1)
	require.NoError(t, err)
	b, err = p.Reach.Publish(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	own, err := p.Reach.Shared(ctx, reach.Way{Token: b.Publication.Token, Person: "p15"})
	require.NoError(t, err)
	require.NoError(t, p.Reach.Tell(ctx, own, planner.Word{Once: "w", Kind: planner.Pain, Says: plantedPain}))
	running, err := p.Pitchside.Running(ctx, 1, 1)
	require.NoError(t, err)
	earlier := p.Now
	p.Now = func() time.Time { return b.Schedule.Start.Add(-40 * time.Minute) }
	stand, err := running.Stand(p.Now())
	require.NoError(t, err)
	is := conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: "hurt"}
	made, err := stand.Propose(ctx, is, 300)
	require.NoError(t, err)
	_, err = p.Pitchside.Pressed(ctx, coach, 1,
		[]conduct.Event{{ID: "x", At: p.Now().UnixMilli(), Kind: conduct.Change, Is: &is, Placed: made.Placed}})
	require.NoError(t, err)
	p.Now = earlier
	hurt, err := p.Keep.OpenHurt(ctx, coach)
	require.NoError(t, err)
	require.Len(t, hurt, 2)
	routines, err := p.Books.Routines(ctx, 1)
	require.NoError(t, err)
	require.NoError(t, p.Books.HandOut(ctx, coach, routines[0].ID))
	handed, err := storeOf(t).Clubs.HandedOut(ctx, 1, routines[0].ID)
	require.NoError(t, err)
	parts = map[string]string{":session": "1", ":block": "lineout", ":token": b.Publication.Token, ":player": "p14",
		":key": "none", ":squad": "1", ":list": "after-1", ":word": "1", ":person": "p14", ":handed": handed,
		":code": "high-knees", ":kind": "kit", ":id": "1", ":hurt": fmt.Sprint(hurt[0].ID),
		":routine": fmt.Sprint(routines[0].ID), ":roster": fmt.Sprint(player.Roster), ":venue": "1"}
	return base, p, parts
}

// address is a route with its parts filled in.
func address(r door, parts map[string]string) string {
	path := r.path
	for from, to := range map[string]string{"/hurt/:id": "/hurt/:hurt", "/routines/:id": "/routines/:routine",
		"/players/:id": "/players/:roster", "/handed/:token": "/handed/:handed", "/rulings/:player": "/rulings/:roster",
		"/join/:token":  "/join/none",
		"/reset/:token": "/reset/none", "/ground-plan/:id": "/ground-plan/:venue"} {
		path = strings.Replace(path, from, to, 1)
	}
	return regexp.MustCompile(`:[a-z]+`).ReplaceAllStringFunc(path, func(part string) string {
		if parts[part] == "" {
			return "part-without-a-value" + part
		}
		return parts[part]
	})
}

// fetched is what somebody gets: a page, a file as text, or the first events of a stream.
func (v *visitor) fetched(method, path string, part ...string) (status int, kind, text string) {
	within, cancel := context.WithTimeout(v.t.Context(), 20*time.Second)
	defer cancel()
	request, err := http.NewRequestWithContext(within, strings.ToUpper(method), v.base+path, strings.NewReader(""))
	require.NoError(v.t, err)
	for _, name := range part {
		request.Header.Set("X-Part", name)
	}
	if method == "Post" {
		request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	}
	answer, err := v.http.Do(request)
	require.NoError(v.t, err, path)
	defer answer.Body.Close()
	if strings.HasSuffix(path, "/live") { // it never ends: what it says first
		time.AfterFunc(300*time.Millisecond, cancel)
	}
	body, _ := io.ReadAll(answer.Body)
	kind = answer.Header.Get("Content-Type")
	if kind == "application/pdf" {
		body = unpacked(body)
	}
	return answer.StatusCode, kind, string(body) + " " + answer.Header.Get("Location")
}

// unpacked is a PDF with the plain text of its streams behind it.
func unpacked(file []byte) []byte {
	all := slices.Clone(file)
	for _, part := range bytes.Split(file, []byte("stream\n"))[1:] {
		if in, err := zlib.NewReader(bytes.NewReader(part)); err == nil {
			text, _ := io.ReadAll(in)
			all = append(all, text...)
		} else if text, err := io.ReadAll(flate.NewReader(bytes.NewReader(part))); err == nil {
			all = append(all, text...)
		}
	}
	return all
}

// Every route that can be opened, by every role, by somebody of another club and by nobody:
// what is in it is what they may read.
func TestEverythingThatCanBeOpenedShowsWhatItMay(t *testing.T) {
	base, p, parts := planted(t, "rights")
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	players, leaders, err := p.Reach.OwnLinks(ctx, b)
	require.NoError(t, err)
	who := map[string]*visitor{"coach": visit(t, base, demo.Email),
		"assistant": visit(t, base, "assistant@brackwater.example"), "medical": visit(t, base, demo.MedicalEmail),
		"stranger": visit(t, base, stranger), "nobody": visit(t, base, "")}
	acts := map[string]planner.Act{"club": planner.ToSee, "change": planner.ToPlan, "keep": planner.ToKeep,
		"self": planner.ToSelf, "ToRun": planner.ToRun}
	roles := map[string]planner.Role{"coach": planner.Coach, "assistant": planner.Assistant, "medical": planner.Medical}
	read := map[string]int{}
	for _, r := range routesOf(t) {
		path := address(r, parts)
		require.NotContains(t, path, "part-without-a-value", "say here what %s stands for", r.path)
		if r.method == "Post" && (r.path == "/sign-out" || strings.HasPrefix(r.path, "/me/")) {
			continue
		}
		if r.path == "/squad" {
			path = "/squad?squad=1&player=" + parts[":roster"]
		}
		for name, v := range who {
			if r.method == "Post" && r.group != "open" && name != "nobody" && name != "stranger" &&
				planner.May(planner.Account{ID: 1, Role: roles[name]}, acts[r.group]) == nil {
				continue // what they may do is tried elsewhere
			}
			status, kind, text := v.fetched(r.method, path)
			if part := fragments[r.path]; r.method == "Get" && part != "" && status == http.StatusOK {
				_, _, fragment := v.fetched("Get", path, part)
				assert.NotContains(t, fragment, "<!doctype", path+": a part of it")
				text += fragment
			}
			where := name + " " + r.method + " " + path
			assert.Less(t, status, 500, where)
			readable(t, where, kind, text)
			inside := r.group == "open" // a link is whoever's has it
			switch {
			case inside:
			case name == "nobody":
				assert.Contains(t, []int{303, 404}, status, where)
			case name == "stranger":
				assert.NotContains(t, text, plantedClub, where)
			case planner.May(planner.Account{ID: 1, Role: roles[name]}, acts[r.group]) != nil:
				assert.Equal(t, http.StatusForbidden, status, where)
			}
			for secret, at := range map[string][]string{plantedReason: {"/squad?", "/person.json"},
				plantedPain: {"/hurt/", "/person.json"}} {
				mayRead := name == "medical" &&
					slices.ContainsFunc(at, func(part string) bool { return strings.Contains(path, part) })
				if !mayRead {
					assert.NotContains(t, text, secret, where)
				} else if strings.Contains(text, secret) {
					read[secret]++
				}
			}
			if !inside && (name == "nobody" || name == "stranger") || inside {
				assert.NotContains(t, text, plantedHurt, where)
				assert.NotContains(t, text, plantedRuling, where+": by the team's link, and by nobody")
			}
		}
	}
	assert.Equal(t, map[string]int{plantedReason: 2, plantedPain: 1}, read, "or nothing was looked at")

	nobody, ruled := who["nobody"], 0
	for _, l := range append(players, leaders...) {
		for _, under := range []string{"", "/update?have=0", "/calendar.ics", "/live", "/manifest.webmanifest"} {
			path := "/r/" + b.Publication.Token + l.Path + under
			status, kind, text := nobody.fetched("Get", path)
			assert.Less(t, status, 400, path)
			readable(t, path, kind, text)
			for _, secret := range []string{plantedReason, plantedPain, plantedHurt} {
				assert.NotContains(t, text, secret, path)
			}
			if l.Person != "p14" && !strings.HasPrefix(l.Person, reach.LeaderMark) {
				assert.NotContains(t, text, plantedRuling, path)
			}
			if strings.HasPrefix(l.Person, reach.LeaderMark) && under == "" {
				ruled += strings.Count(text, "Juno") // who does it otherwise
			}
		}
	}
	assert.Positive(t, ruled, "their own link, and their leaders'")
}

// readable tells that what was typed stands in an answer as text, whatever the answer is.
func readable(t *testing.T, where, kind, text string) {
	t.Helper()
	if strings.HasPrefix(kind, "text/html") || strings.HasPrefix(kind, "image/svg") ||
		strings.HasPrefix(kind, "text/event-stream") {
		assert.NotContains(t, text, "<evil", where)
	}
	if strings.HasPrefix(kind, "image/svg") {
		in := xml.NewDecoder(strings.NewReader(strings.TrimSpace(text)))
		for err := error(nil); err == nil; {
			if _, err = in.Token(); err != nil {
				assert.ErrorIs(t, err, io.EOF, where)
			}
		}
	}
}

// A door that needs no sign-in takes as much as its form holds, and who is signed in more.
func TestAFormIsAsLargeAsItsDoorNeeds(t *testing.T) {
	base, _ := site(t, "doors")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	large := url.Values{"email": {strings.Repeat("x", 900_000)}, "password": {"y"}}
	for _, path := range []string{"/r/%ff%fe%00/p1", "/handed/%ff", "/join/%f0%28", "/reset/%ff%ff",
		"/r/" + strings.Repeat("é", 21) + "x/p1"} {
		status, _, _ := nobody.get(path)
		assert.Equal(t, http.StatusNotFound, status, path)
	}
	for _, path := range []string{"/sign-in", "/forgot", "/welcome", "/join/x", "/reset/x", "/look", "/r/x/p1/say",
		"/sessions/1/write"} {
		status, _, _ := nobody.post(path, large)
		assert.Equal(t, http.StatusRequestEntityTooLarge, status, path)
	}
	status, _, _ := coach.post("/sessions/1/head",
		url.Values{"revision": {"1"}, "title": {strings.Repeat("x", 400_000)}})
	assert.Equal(t, http.StatusUnprocessableEntity, status, "it is read, and refused for what it says")
}

// An address to come back to leads nowhere else, whatever browsers make of it.
func TestBackLeadsNowhereElse(t *testing.T) {
	base, _ := site(t, "backs")
	for _, back := range []string{"/\t/evil.example", "/\n/evil.example", "\t//evil.example", "//evil.example",
		"/\\evil.example", "/ /evil.example", "https://evil.example", "/\x00/evil.example"} {
		v := visit(t, base, "")
		status, _, to := v.post("/sign-in", url.Values{"email": {demo.Email}, "password": {demo.Password},
			"back": {back}})
		assert.Equal(t, []any{http.StatusSeeOther, "/today"}, []any{status, to}, "%q", back)
	}
}

// A half-done sign-in, other links and other browsers end where a password is set; wrong codes
// and wrong passwords of who is signed in are counted, whatever else the form says.
func TestGuessesOfEveryKindAreCounted(t *testing.T) {
	base, p := site(t, "guesses")
	medical := visit(t, base, demo.MedicalEmail)
	all, err := p.Staff.Accounts(ctx, 1)
	require.NoError(t, err)
	physio := all[slices.IndexFunc(all, func(a planner.Account) bool { return a.Email == demo.MedicalEmail })]
	_, err = p.Staff.SetFactor(ctx, physio, "JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP")
	require.NoError(t, err)
	for path, form := range map[string]url.Values{"/again": {"present": {"wrong"}},
		"/me/password":   {"present": {"wrong"}, "password": {"a good long one"}},
		"/me/factor/off": {"present": {"wrong"}}} {
		stopped := 0
		for n := range 30 {
			form.Set("email", fmt.Sprintf("other%d@x.example", n))
			_, text, _ := medical.post(path, form)
			if strings.Contains(text, "Too many tries") {
				stopped++
			}
		}
		assert.GreaterOrEqual(t, stopped, 20, path)
	}
	half := visit(t, base, "")
	_, _, to := half.post("/sign-in", url.Values{"email": {demo.MedicalEmail}, "password": {demo.Password}})
	require.Equal(t, "/sign-in/code", to)
	stopped := 0
	for range 25 {
		if status, _, _ := half.post("/sign-in/code",
			url.Values{"code": {"000000"}}); status == http.StatusTooManyRequests {
			stopped++
		}
	}
	assert.Equal(t, 15, stopped)

	require.NoError(t, p.Staff.Forgot(ctx, demo.MedicalEmail, base))
	require.NoError(t, p.Staff.Forgot(ctx, demo.MedicalEmail, base))
	letters, err := p.Staff.Letters(ctx)
	require.NoError(t, err)
	token := func(l planner.Letter) string { return regexp.MustCompile(`/reset/(\S+)`).FindStringSubmatch(l.Body)[1] }
	_, err = p.Staff.Reset(ctx, token(letters[0]), "another")
	require.NoError(t, err)
	_, err = p.Staff.Resets(ctx, token(letters[1]))
	assert.ErrorIs(t, err, planner.ErrNotFound, "the other letter")
	status, _, to := half.post("/sign-in/code", url.Values{"code": {"000000"}})
	assert.Equal(t, []any{http.StatusSeeOther, "/sign-in"}, []any{status, to}, "what was half done begins anew")
	status, _, _ = medical.get("/today")
	assert.Equal(t, http.StatusSeeOther, status, "signed out")
}
