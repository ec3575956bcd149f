package web_test

import (
	"context"
	"database/sql"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"os"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/alexedwards/argon2id"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/demo/demotest"
	"cuestart/live"
	"cuestart/mariadb"
	"cuestart/mariadb/mariadbtest"
	"cuestart/planner/boards"
	"cuestart/planner/office"
	"cuestart/store"
	"cuestart/web"
	"cuestart/web/shell"
)

var server *mariadb.Server

func TestMain(m *testing.M) { os.Exit(mariadbtest.Run(m, &server)) }

var (
	ctx = context.Background()
	now = time.Date(2026, 11, 25, 10, 42, 0, 0, time.UTC)
)

// standing is what a test's own site stands on: its database, and the same without the store.
type standing struct {
	store *store.Store
	raw   *sql.DB
}

// sites are those of the tests that run, by the test's name.
var sites sync.Map

func testOf(t *testing.T) string {
	name, _, _ := strings.Cut(t.Name(), "/")
	return name
}

func siteOf(t *testing.T) standing {
	is, _ := sites.Load(testOf(t))
	return is.(standing)
}

func storeOf(t *testing.T) *store.Store { return siteOf(t).store }

func id(n uint64) string { return strconv.FormatUint(n, 10) }

// stranger is the coach of another club.
const stranger = "coach@elsewhere.example"

// site is the site of the demo's club, beside a club with one squad and one coach who is a
// stranger. Tests with one run side by side.
func site(t *testing.T, name string) (address string, p *office.Office) {
	if testOf(t) == t.Name() {
		t.Parallel()
	}
	return alone(t, name)
}

// alone is a site of a test that nothing else may run beside.
func alone(t *testing.T, name string) (address string, p *office.Office) {
	s := demotest.Filled(t, server.DSN, name, now)
	raw, err := sql.Open("mysql", server.DSN(name))
	require.NoError(t, err)
	t.Cleanup(func() { raw.Close() })
	sites.Store(testOf(t), standing{s, raw})
	hash, err := argon2id.CreateHash(demo.Password, demotest.Cheap)
	require.NoError(t, err)
	for _, statement := range []string{
		"INSERT INTO club (id, name, sport) VALUES (2, 'Elsewhere', 'Netball')",
		"INSERT INTO squad (id, club_id, name, grade) VALUES (20, 2, 'Firsts', 'club')",
		"INSERT INTO account (club_id, email, name, role, password_hash) VALUES (2, '" + stranger +
			"', 'Somebody', 'coach', '" + hash + "')",
		"INSERT INTO account (club_id, email, name, role, password_hash) VALUES (1, " +
			"'assistant@brackwater.example', 'Ulla Renn', 'assistant', '" +
			hash + "')",
	} {
		_, err := raw.ExecContext(ctx, statement)
		require.NoError(t, err)
	}
	p = office.New(s)
	p.Now = func() time.Time { return now }
	signIns, end := s.SignIns()
	listening := httptest.NewServer(web.Handler(shell.Config{Office: p, Live: live.Over(t.Context(), p.Base),
		SignIns: signIns, Log: slog.New(slog.DiscardHandler), Hashing: demotest.Cheap}))
	t.Cleanup(func() { listening.Close(); end() })
	return listening.URL, p
}

// visitor is a browser without scripts. It follows no redirects.
type visitor struct {
	t    *testing.T
	base string
	http http.Client
}

// visit signs somebody in; "" is nobody.
func visit(t *testing.T, base, email string) *visitor {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	v := &visitor{t, base, http.Client{Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error {
		return http.ErrUseLastResponse
	}}}
	if email != "" {
		status, _, _ := v.post("/sign-in", url.Values{"email": {email}, "password": {demo.Password}})
		require.Equal(t, http.StatusSeeOther, status)
	}
	return v
}

func (v *visitor) get(path string) (status int, text, to string) {
	answer, err := v.http.Get(v.base + path)
	return v.read(answer, err)
}

func (v *visitor) post(path string, form url.Values) (status int, text, to string) {
	answer, err := v.http.PostForm(v.base+path, form)
	return v.read(answer, err)
}

func (v *visitor) read(answer *http.Response, err error) (status int, text, to string) {
	v.t.Helper()
	require.NoError(v.t, err)
	defer answer.Body.Close()
	body, err := io.ReadAll(answer.Body)
	require.NoError(v.t, err)
	return answer.StatusCode, string(body), answer.Header.Get("Location")
}

// whole is what a club has, in the files that it can save.
func whole(t *testing.T, coach *visitor) string {
	all := ""
	for _, path := range []string{"/export/squad.csv?squad=1", "/export/tests.csv?squad=1", "/export/drills.csv",
		"/export/fixtures.csv", "/sessions/1/plan.json", "/sessions/2/plan.json", "/sessions/3/plan.json", "/ground",
		"/sport", "/routines", "/today"} {
		status, text, _ := coach.get(path)
		require.Equal(t, http.StatusOK, status, path)
		all += path + text
	}
	return all
}

// route is a request that anybody may try, and the answers that they get.
type route struct {
	method, path                          string
	form                                  string
	nobody, medical, assistant, elsewhere int // statuses; 0: as the coach, whom it is for
}

const (
	away = http.StatusSeeOther // to sign in
	no   = http.StatusForbidden
	none = http.StatusNotFound
)

// What is another club's is not there, whoever may change it in a club of theirs;
// medical staff change nothing but rulings, and nobody else makes one.
func TestWhoMayDoWhat(t *testing.T) {
	base, p := site(t, "who")
	coach := visit(t, base, demo.Email)
	visitors := map[string]*visitor{"nobody": visit(t, base, ""), "medical": visit(t, base, demo.MedicalEmail),
		"assistant": visit(t, base, "assistant@brackwater.example"), "elsewhere": visit(t, base, stranger)}
	before := whole(t, coach)
	routes := []route{
		{method: "GET", path: "/sessions/1", form: "", nobody: away, medical: 200, assistant: 200, elsewhere: none},
		{method: "GET", path: "/sessions/1/sheet", form: "", nobody: away, medical: 200, assistant: 200,
			elsewhere: none},
		{method: "GET", path: "/sessions/1/plan.json", form: "", nobody: away, medical: 200, assistant: 200,
			elsewhere: none},
		{method: "GET", path: "/squad?squad=1", form: "", nobody: away, medical: 200, assistant: 200, elsewhere: none},
		{method: "GET", path: "/export/squad.csv?squad=1", form: "", nobody: away, medical: 200, assistant: 200,
			elsewhere: none},
		{method: "GET", path: "/export/tests.csv?squad=1", form: "", nobody: away, medical: 200, assistant: 200,
			elsewhere: none},
		{method: "GET", path: "/routines/1/routine.json", form: "", nobody: away, medical: none, assistant: none,
			elsewhere: none},
		{method: "GET", path: "/sessions/new?squad=1", form: "", nobody: away, medical: no, assistant: 200,
			elsewhere: none},
		{method: "GET", path: "/import", form: "", nobody: away, medical: no, assistant: 200, elsewhere: 200},
		{method: "GET", path: "/sport", form: "", nobody: away, medical: no, assistant: 200, elsewhere: 200},
		{method: "GET", path: "/drills/skips/edit", form: "", nobody: away, medical: no, assistant: 200,
			elsewhere: 200},
		{method: "POST", path: "/squad/1/players", form: "first=Nova", nobody: away, medical: no, assistant: 0,
			elsewhere: none},
		{method: "POST", path: "/squad/1/players", form: "id=17&first=Nova&edition=1", nobody: away, medical: no,
			assistant: 0, elsewhere: none},
		{method: "POST", path: "/squad/20/players", form: "id=17&first=Nova&edition=1", nobody: away, medical: no,
			assistant: none, elsewhere: none},
		{method: "POST", path: "/squad/1/players/17/remove", form: "", nobody: away, medical: no, assistant: 0,
			elsewhere: none},
		{method: "POST", path: "/squad/1/units", form: "name=Pair&players=17", nobody: away, medical: no, assistant: 0,
			elsewhere: none},
		{method: "POST", path: "/squad/1/rulings/17", form: "rules=jumps&from=2026-11-25", nobody: away, medical: 0,
			assistant: no, elsewhere: none},
		{method: "POST", path: "/ground/zone", form: "name=Shed&of=1&capacity=9&lanes=1", nobody: away, medical: no,
			assistant: 0, elsewhere: none},
		{method: "POST", path: "/ground/zone", form: "id=2&name=Shed&of=1&capacity=9&lanes=1&edition=1", nobody: away,
			medical: no, assistant: 0, elsewhere: none},
		{method: "POST", path: "/ground/venue/1/remove", form: "", nobody: away, medical: no, assistant: 0,
			elsewhere: none},
		{method: "GET", path: "/squad/1/players/17/person.json", form: "", nobody: away, medical: 200, assistant: 200,
			elsewhere: none},
		{method: "POST", path: "/squad/1/players/17/erase", form: "sure=yes", nobody: away, medical: 0, assistant: no,
			elsewhere: none},
		{method: "GET", path: "/sessions/1/links", form: "", nobody: away, medical: 200, assistant: 200,
			elsewhere: none},
		{method: "POST", path: "/sessions/1/season", form: "season=yes", nobody: away, medical: no, assistant: 0,
			elsewhere: none},
		{method: "GET", path: "/staff", form: "", nobody: away, medical: 200, assistant: 200, elsewhere: 200},
		// the other club's own
		{method: "GET", path: "/audit", form: "", nobody: away, medical: no, assistant: no, elsewhere: 200},
		{method: "POST", path: "/invitations", form: "name=X&email=x@y.example&role=coach", nobody: away, medical: no,
			assistant: no, elsewhere: 0},
		{method: "POST", path: "/invitations/1/withdraw", form: "", nobody: away, medical: none, assistant: no,
			elsewhere: none},
		{method: "POST", path: "/invitations/1/confirm", form: "", nobody: away, medical: none, assistant: no,
			elsewhere: no},
		{method: "POST", path: "/staff/1/role", form: "role=assistant", nobody: away, medical: no, assistant: no,
			elsewhere: none},
		{method: "POST", path: "/staff/1/suspend", form: "suspended=yes", nobody: away, medical: no, assistant: no,
			elsewhere: none},
		{method: "POST", path: "/staff/1/remove", form: "", nobody: away, medical: no, assistant: no, elsewhere: none},
		{method: "POST", path: "/terms", form: "reasons=1&tests=30&sessions=30", nobody: away, medical: no,
			assistant: no, elsewhere: 0},
		{method: "GET", path: "/outbox", form: "", nobody: none, medical: none, assistant: none, elsewhere: none},
		{method: "POST", path: "/routines/1/remove", form: "", nobody: away, medical: no, assistant: none,
			elsewhere: none},
		{method: "POST", path: "/routines/1/hand-out", form: "", nobody: away, medical: no, assistant: none,
			elsewhere: none},
	}
	for _, change := range []string{"head", "timing", "spare", "day", "factor", "fixed", "players", "rulings", "mend",
		"keep", "undo", "redo", "publish", "withdraw", "routine", "remove",
		"hear", "write", "principle", "relist", "blocks/lineout", "blocks/lineout/said", "blocks/lineout/write",
		"blocks/lineout/items", "blocks/lineout/dose", "blocks/lineout/priority", "blocks/lineout/order",
		"blocks/lineout/remove",
		"turn", "roles", "facing", "bring", "lists", "lists/after-1", "lists/after-1/write", "put",
		"blocks/lineout/form", "blocks/lineout/group"} {
		routes = append(routes, route{method: "POST", path: "/sessions/1/" + change, form: "revision=1", nobody: away,
			medical: no, assistant: 0, elsewhere: none})
	}
	for _, r := range routes {
		for who, want := range map[string]int{"nobody": r.nobody, "medical": r.medical, "assistant": r.assistant,
			"elsewhere": r.elsewhere} {
			if want == 0 {
				continue
			}
			v := visitors[who]
			send := func() (int, string, string) { return v.get(r.path) }
			if r.method == "POST" {
				form, err := url.ParseQuery(r.form)
				require.NoError(t, err)
				send = func() (int, string, string) { return v.post(r.path, form) }
			}
			status, text, to := send()
			if who == "elsewhere" && r.method == "POST" && status == http.StatusUnprocessableEntity {
				status = none // its form did not hold: then nobody looks whose it is
			}
			assert.Equal(t, want, status, "%s: %s %s %s", who, r.method, r.path, r.form)
			if want == away {
				assert.True(t, strings.HasPrefix(to, "/sign-in"), r.path)
			}
			if who == "elsewhere" {
				assert.NotContains(t, text, "Brackwater", r.path)
				assert.NotContains(t, text, "Penhallick", r.path)
			}
		}
	}
	assert.Equal(t, before, whole(t, coach), "nothing of the club was changed by any of it")
	listed, _, err := p.Boards.Sessions(ctx, 2, 10)
	require.NoError(t, err)
	assert.Empty(t, listed)
}

// Each change of a board is one that undo takes back whole.
func TestEachChangeOfABoardIsTakenBackWhole(t *testing.T) {
	base, p := site(t, "changes")
	coach := visit(t, base, demo.Email)
	board := func() *boards.Board {
		b, err := p.Boards.Board(ctx, 1, 1)
		require.NoError(t, err)
		return b
	}
	first := board().Document
	for _, c := range []struct{ path, form, says string }{
		{"head", "title=Brackwater+v+Hollinmere&place=Elsewhere&start_name=Kick-off&method=ramp&open=55",
			"name, place"},
		{"timing", "start=2026-11-28T15:30&margin=10", "15:30"},
		{"timing", "shift=-5&margin=10", "14:55"},
		{"timing", "start=2026-11-28T15:00&margin=5", "done 5 min before"},
		{"spare", "use=yes", "spare"},
		{"day", "air=3&wind=8&day=wet", "day"},
		{"factor", "factor=cold-raise&on=no", "stay as they are"},
		{"fixed", "name=Photograph&who=*&from=60&to=55", "Photograph"},
		{"players", "player=p9&arrives=14:12", "12"},
		{"players", "player=p9&out=yes", "out"},
		{"write", "text=skips+20+m,+could", "skips"},
		{"write", "text=jog+3+min%0Awobbles+4+a+side", "2 lines written"},
		{"relist", "", "method"},
		{"blocks/lineout/order", "by=-1", "Line-out before"},
		{"blocks/lineout/items", "item=0&out=yes", "Line-out"},
		{"blocks/lineout/said", "said=line-out,+straight+after+scrum,+3+rounds,+in+any+order", "straight after"},
		{"blocks/lineout", "name=Throws&aim=To+hit&phase=own", "Throws"},
		{"blocks/lineout/said", "said=line-out,+far+half,+at+20", "held at 20′"},
		{"blocks/lineout/write", "into=lineout&text=kicks+at+posts", "kicks"},
		{"blocks/lineout/items", "item=0&drill=kicks-at-posts", "Kicks"},
		{"blocks/lineout/dose", "item=0&by=1", "Line-out throws"},
		{"blocks/lineout/dose", "item=0&amount=6", "6 throws"},
		{"blocks/lineout/priority", "priority=could", "could"},
		{"blocks/lineout/remove", "", "Line-out"},
		{"blocks/raise/form", "pressed=to+stations&rounds=2&rest=30", "stations"},
		{"blocks/raise/form", "pressed=to+choice&pick=2", "choice"},
		{"roles", "name=Captain&player=p9", "Captain"},
		{"roles", "id=u-bench&name=Bench&player=p16&player=p17&also=p9", "Bench"},
		{"facing", "facing=Their+ten:+left-footed", "meet"},
		{"bring", "bring=first-aid+bag:+Pell%0Aice", "bring"},
		{"lists", "when=after", "usual"},
		{"write", "text=after+the+bell:+roll+calves+30+s", "roll calves"},
		{"write", "text=we+have+20+hurdles", "20 hurdles"},
		{"write", "text=pogo+hops+2+x+10.+Then+skips+20+m", "2 lines written"},
	} {
		form, err := url.ParseQuery(c.form)
		require.NoError(t, err)
		form.Set("revision", "0")
		form.Set("revision", itoa(board().Revision))
		status, text, _ := coach.post("/sessions/1/"+c.path, form)
		if !assert.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status, "%s %s: %s", c.path, c.form,
			problemIn(text)) {
			continue
		}
		changed := board()
		assert.NotEqual(t, first, changed.Document, "%s %s", c.path, c.form)
		assert.Contains(t, strings.ToLower(changed.Undo), strings.ToLower(c.says), "%s %s", c.path, c.form)
		assert.NoError(t, changed.Document.Validate(), c.path)
		status, _, _ = coach.post("/sessions/1/undo", url.Values{"revision": {itoa(changed.Revision)}})
		assert.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status)
		after := board()
		assert.Equal(t, first, after.Document, "%s %s is taken back", c.path, c.form)
		assert.Equal(t, changed.Undo, after.Redo)
	}
}

func itoa(n uint32) string { return strconv.FormatUint(uint64(n), 10) }

// problemIn is what a page says is wrong.
func problemIn(page string) string {
	if at := strings.Index(page, `class="problem"`); at >= 0 {
		return page[at:min(len(page), at+200)]
	}
	return ""
}
