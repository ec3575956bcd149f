package web_test

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/demo/demotest"
	"cuestart/planner"
	"cuestart/web"
	"cuestart/web/shell"
)

// Nothing is kept of strangers, they are told apart from the site's own name, and a HEAD
// is answered as a GET is.
func TestAStrangerLeavesNothing(t *testing.T) {
	base, _ := site(t, "stranger")
	nobody := visit(t, base, "")
	for _, path := range []string{"/today", "/sign-in", "/sign-in?back=" + strings.Repeat("x", 5000), "/r/aaaa",
		"/join/aaaa", "/forgot", "/welcome", "/me"} {
		nobody.get(path)
	}
	nobody.post("/sign-in", url.Values{"email": {"who@else.example"}, "password": {"wrong"}})
	var left int
	require.NoError(t, siteOf(t).raw.QueryRow("SELECT COUNT(*) FROM sessions").Scan(&left))
	assert.Zero(t, left)

	ask := func(method, host string) *http.Response {
		request, err := http.NewRequest(method, base+"/sign-in", nil)
		require.NoError(t, err)
		request.Host = host
		answer, err := http.DefaultClient.Do(request)
		require.NoError(t, err)
		answer.Body.Close()
		return answer
	}
	assert.Equal(t, http.StatusMisdirectedRequest, ask("GET", "evil.example").StatusCode)
	assert.Equal(t, http.StatusOK, ask("GET", "localhost:8080").StatusCode)
	assert.Equal(t, http.StatusOK, ask("HEAD", "127.0.0.1").StatusCode)
}

// Who guesses locks themselves out, and at an account from wherever they do; a browser by which
// its owner has signed in is not locked out, nor by those who guess behind the same address, as
// in a club's Wi-Fi. What is written down of it holds no part of a link.
func TestGuessingHitsTheGuesser(t *testing.T) {
	_, p := site(t, "guess")
	var log bytes.Buffer
	signIns, end := storeOf(t).SignIns()
	defer end()
	listening := httptest.NewServer(web.Handler(shell.Config{Office: p, SignIns: signIns, Hashing: demotest.Cheap,
		Proxies: []string{"127.0.0.1"}, Log: slog.New(slog.NewTextHandler(&log, nil))}))
	defer listening.Close()
	known := ""
	as := func(from, email, password, browser string) int {
		form := url.Values{"email": {email}, "password": {password}}
		request, err := http.NewRequest("POST", listening.URL+"/sign-in", strings.NewReader(form.Encode()))
		require.NoError(t, err)
		request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		request.Header.Set("X-Forwarded-For", from)
		if browser != "" {
			request.AddCookie(&http.Cookie{Name: "known", Value: browser})
		}
		client := http.Client{CheckRedirect: func(*http.Request, []*http.Request) error {
			return http.ErrUseLastResponse
		}}
		answer, err := client.Do(request)
		require.NoError(t, err)
		answer.Body.Close()
		for _, c := range answer.Cookies() {
			if c.Name == "known" {
				known = c.Value
			}
		}
		return answer.StatusCode
	}
	try := func(from, password string) int { return as(from, demo.Email, password, "") }
	const wifi = "198.51.100.7"
	require.Equal(t, http.StatusSeeOther, try(wifi, demo.Password))
	require.Len(t, known, 43)
	for range 10 {
		assert.Equal(t, http.StatusUnauthorized, try("203.0.113.9", "guess"))
	}
	assert.Equal(t, http.StatusTooManyRequests, try("203.0.113.9", demo.Password), "also with the right one")
	assert.Equal(t, http.StatusTooManyRequests, try("203.0.113.77", "guess"), "also from elsewhere")
	assert.Equal(t, http.StatusSeeOther, as(wifi, demo.Email, demo.Password, known), "the owner is not locked out")
	for n := range 70 {
		as(wifi, fmt.Sprintf("nobody%d@x.example", n), "guess", "")
	}
	assert.Equal(t, http.StatusTooManyRequests, as(wifi, demo.MedicalEmail, demo.Password, ""),
		"sixty wrong ones behind one address")
	assert.Equal(t, http.StatusSeeOther, as(wifi, demo.Email, demo.Password, known), "but for who is known there")
	assert.Equal(t, http.StatusTooManyRequests, as(wifi, demo.MedicalEmail, demo.Password, known),
		"known for one account is for no other")
	for range 10 {
		assert.Equal(t, http.StatusUnauthorized, as(wifi, demo.Email, "guess", known))
	}
	assert.Equal(t, http.StatusTooManyRequests, as(wifi, demo.Email, demo.Password, known),
		"a known browser guesses no more either")
	token := strings.Repeat("s3cret", 7)
	for _, path := range []string{"/r/" + token + "/p1/" + token, "/handed/" + token + "/steps", "/reset/" + token,
		"/join/" + token} {
		_, err := http.Get(listening.URL + path)
		require.NoError(t, err)
	}
	assert.NotContains(t, log.String(), token)
}

// A form that is sent twice is done once, and its address leads back to its page.
func TestAFormIsDoneOnce(t *testing.T) {
	base, _ := site(t, "twice")
	coach := visit(t, base, demo.Email)
	form := url.Values{"first": {"Twice"}, "last": {"Sent"}, "once": {"one"}}
	for range 2 {
		status, _, _ := coach.post("/squad/1/players", form)
		assert.Equal(t, http.StatusSeeOther, status)
	}
	assert.Equal(t, 1, strings.Count(page(t, coach, "/export/squad.csv?squad=1"), "Twice"))
	for path, to := range map[string]string{"/squad/1/players": "/squad", "/drills/skips": "/drills",
		"/sessions/1/timing": "/sessions/1", "/ground/zone": "/ground"} {
		status, _, where := coach.get(path)
		assert.Equal(t, []any{http.StatusSeeOther, to}, []any{status, where}, path)
	}
	status, _, _ := coach.get("/nothing/at/all")
	assert.Equal(t, http.StatusNotFound, status)
}

// A ruling is about a person: it outlives their leaving, and somebody of the same name is
// asked about.
func TestARulingOutlivesLeaving(t *testing.T) {
	base, p := site(t, "outlives")
	coach := visit(t, base, demo.Email)
	squad, err := p.Keep.Squad(t.Context(), 1, 1)
	require.NoError(t, err)
	require.NotEmpty(t, squad.Rulings)
	ruled := squad.Player(squad.Rulings[0].Owner)
	again := url.Values{"first": {ruled.Is.First}, "last": {ruled.Is.Last}}
	status, _, _ := coach.post("/squad/1/players/"+id(ruled.ID)+"/remove", nil)
	require.Equal(t, http.StatusSeeOther, status)
	status, text, _ := coach.post("/squad/1/players", again)
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, text, "bring them back")
	again.Set("same", "yes")
	status, _, _ = coach.post("/squad/1/players", again)
	assert.Equal(t, http.StatusSeeOther, status)
	squad, err = p.Keep.Squad(t.Context(), 1, 1)
	require.NoError(t, err)
	require.NotNil(t, squad.Player(ruled.ID))
	assert.NotEmpty(t, squad.Rulings, "with the ruling")
}

// Who has a second factor is asked for it, each code is good once; medical pages ask for
// the password again after half an hour.
func TestMoreThanAPassword(t *testing.T) {
	base, p := site(t, "factor")
	medical := visit(t, base, demo.MedicalEmail)
	status, _, to := medical.post("/me/factor/start", nil)
	require.Equal(t, []any{http.StatusSeeOther, "/me#factor"}, []any{status, to})
	found := regexp.MustCompile(`break-all[^>]*>([A-Z2-7]{16,})<`).FindStringSubmatch(page(t, medical, "/me"))
	require.Len(t, found, 2)
	code := func() string {
		code, err := totp.GenerateCode(found[1], p.Now())
		require.NoError(t, err)
		return code
	}
	status, _, _ = medical.post("/me/factor", url.Values{"code": {"000000"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	status, shown, _ := medical.post("/me/factor", url.Values{"code": {code()}})
	require.Equal(t, http.StatusOK, status)
	recovery := regexp.MustCompile(`[A-Z2-7]{5}-[A-Z2-7]{5}`).FindAllString(shown, -1)
	require.Len(t, recovery, 10)
	assert.NotContains(t, page(t, medical, "/me"), recovery[0], "they are shown once")

	late := now.Add(10 * time.Minute)
	p.Now = func() time.Time { return late }
	again := visit(t, base, "")
	status, _, to = again.post("/sign-in", url.Values{"email": {demo.MedicalEmail}, "password": {demo.Password},
		"back": {"/squad"}})
	require.Equal(t, []any{http.StatusSeeOther, "/sign-in/code"}, []any{status, to})
	status, _, _ = again.get("/today")
	assert.Equal(t, http.StatusSeeOther, status, "not in yet")
	used := code()
	status, _, to = again.post("/sign-in/code", url.Values{"code": {used}})
	assert.Equal(t, []any{http.StatusSeeOther, "/squad"}, []any{status, to})
	third := visit(t, base, "")
	third.post("/sign-in", url.Values{"email": {demo.MedicalEmail}, "password": {demo.Password}})
	status, _, _ = third.post("/sign-in/code", url.Values{"code": {used}})
	assert.Equal(t, http.StatusUnauthorized, status, "a code is good once")
	for _, written := range []string{recovery[0], strings.ToLower(recovery[1])} {
		lost := visit(t, base, "")
		lost.post("/sign-in", url.Values{"email": {demo.MedicalEmail}, "password": {demo.Password}})
		status, _, _ = lost.post("/sign-in/code", url.Values{"code": {written}})
		assert.Equal(t, http.StatusSeeOther, status, "without the phone")
		lost.post("/sign-in", url.Values{"email": {demo.MedicalEmail}, "password": {demo.Password}})
		status, _, _ = lost.post("/sign-in/code", url.Values{"code": {written}})
		assert.Equal(t, http.StatusUnauthorized, status, "once each")
	}

	p.Now = func() time.Time { return late.Add(31 * time.Minute) }
	status, _, to = again.get("/squad?squad=1")
	assert.Equal(t, []any{http.StatusSeeOther, "/again?back=%2Fsquad%3Fsquad%3D1"}, []any{status, to})
	status, _, _ = again.get("/today")
	assert.Equal(t, http.StatusOK, status, "other pages do not ask")
	status, _, to = again.post("/again", url.Values{"present": {demo.Password}, "back": {"/squad?squad=1"}})
	assert.Equal(t, []any{http.StatusSeeOther, "/squad?squad=1"}, []any{status, to})
	status, _, _ = again.get("/squad?squad=1")
	assert.Equal(t, http.StatusOK, status)

	// A ruling that is typed when the half hour ends is kept, and sent with one press.
	p.Now = func() time.Time { return late.Add(2 * time.Hour) }
	squad, err := p.Keep.Squad(t.Context(), 1, 1)
	require.NoError(t, err)
	address := "/squad/1/rulings/" + id(squad.Players[0].ID)
	status, _, to = again.post(address, url.Values{"rules": {"jumps", "overhead"}, "reason": {"typed with care"},
		"from": {"2026-11-25"}})
	require.Equal(t, []any{http.StatusTemporaryRedirect, "/again?to=" + url.QueryEscape(address)}, []any{status, to})
	status, text, _ := again.post(to, url.Values{"rules": {"jumps", "overhead"}, "reason": {"typed with care"},
		"from": {"2026-11-25"}})
	assert.Equal(t, http.StatusOK, status)
	kept := url.Values{"kept.rules": {"jumps", "overhead"}, "kept.reason": {"typed with care"},
		"kept.from": {"2026-11-25"}, "present": {"wrong"}}
	for name := range kept {
		assert.Contains(t, text, `name="`+name+`"`)
	}
	status, text, _ = again.post(to, kept)
	assert.Equal(t, http.StatusUnauthorized, status)
	assert.Contains(t, text, `name="kept.reason" value="typed with care"`, "kept over a slip")
	kept.Set("present", demo.Password)
	status, text, _ = again.post(to, kept)
	assert.Equal(t, http.StatusOK, status)
	assert.Contains(t, text, `action="`+address+`"`)
	assert.Contains(t, text, `name="reason" value="typed with care"`)
	status, _, _ = again.post(address, url.Values{"rules": {"jumps", "overhead"}, "reason": {"typed with care"},
		"from": {"2026-11-25"}})
	assert.Equal(t, http.StatusSeeOther, status)
}

// Access is taken away at once, and what was done can be looked up by the club's head.
func TestAccessIsTakenAway(t *testing.T) {
	base, p := site(t, "taken")
	coach, assistant := visit(t, base, demo.Email), visit(t, base, "assistant@brackwater.example")
	all, err := p.Staff.Accounts(t.Context(), 1)
	require.NoError(t, err)
	var who planner.Account
	for _, a := range all {
		if a.Role == planner.Assistant {
			who = a
		}
	}
	status, _, _ := coach.post("/staff/"+id(who.ID)+"/suspend", url.Values{"suspended": {"yes"}})
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = assistant.get("/today")
	assert.Equal(t, http.StatusSeeOther, status)
	status, _, _ = assistant.post("/sign-in", url.Values{"email": {"assistant@brackwater.example"},
		"password": {demo.Password}})
	assert.Equal(t, http.StatusUnauthorized, status)
	coach.get("/export/squad.csv?squad=1")
	log := page(t, coach, "/audit")
	for _, what := range []string{"suspended", "signed in", "exported"} {
		assert.Contains(t, log, what)
	}
	status, text, _ := coach.post("/me/password", url.Values{"present": {"wrong"}, "password": {"password1234"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "that is not your password")
	other := visit(t, base, demo.Email)
	status, _, _ = coach.post("/me/password", url.Values{"present": {demo.Password},
		"password": {"four kettles on a roof"}})
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = coach.get("/today")
	assert.Equal(t, http.StatusOK, status, "this browser stays")
	status, _, _ = other.get("/today")
	assert.Equal(t, http.StatusSeeOther, status, "the others are signed out")
}

// Whatever is uploaded, however it is made, costs little and is answered soon.
func TestEveryUploadIsBounded(t *testing.T) {
	base, _ := alone(t, "uploads")
	coach := visit(t, base, demo.Email)
	const size = 700_000 // as large as a form may be, once it is written in base64
	fill := func(head, body, tail string) string {
		return head + strings.Repeat(body, (size-len(head)-len(tail))/len(body)) + tail
	}
	hostile := []string{
		fill("name,say\n", "x,y\n", ""), fill("first name", ",name", "\n"), fill("name\n", "\"", ""),
		fill("name;say\n", "=1;;;;;;;;;\n", ""),
		fill(`{"blocks":[`, `{},`, `{}]}`), fill(`{"format":1,"players":[`, `{"id":"a","first":"b"},`, `{}]}`),
		fill("", "[", ""), fill(`{"a":"`, "\\u0041", `"}`),
		fill("BEGIN:VCALENDAR\r\n",
			"BEGIN:VEVENT\r\nUID:a\r\nDTSTART:20260101T000000Z\r\nRRULE:FREQ=SECONDLY\r\nEND:VEVENT\r\n",
			"END:VCALENDAR\r\n"),
		fill("BEGIN:VCALENDAR\r\n", "BEGIN:VEVENT\r\n", ""), fill("BEGIN:VCALENDAR\r\nX:", "a\r\n ", "\r\n"),
	}
	for _, kind := range []string{"squad", "drills", "fixtures", "tests", "plan", "routine", "calendar"} {
		for n, text := range hostile {
			var before, after runtime.MemStats
			runtime.ReadMemStats(&before)
			begun := time.Now()
			status, _, _ := coach.post("/import", url.Values{"kind": {kind}, "squad": {"1"},
				"file64": {base64.StdEncoding.EncodeToString([]byte(text))}})
			runtime.ReadMemStats(&after)
			assert.Less(t, status, 500, "%s %d", kind, n)
			assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(300<<20), "%s %d", kind, n)
			assert.Less(t, time.Since(begun), 5*time.Second, "%s %d", kind, n)
			if testing.Verbose() {
				t.Logf("%s %d: %d, %d MB, %s", kind, n, status, (after.TotalAlloc-before.TotalAlloc)>>20,
					time.Since(begun).Round(time.Millisecond))
			}
		}
	}
}
