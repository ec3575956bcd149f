package web_test

import (
	"encoding/base64"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
)

// Whatever a club keeps can be made, changed and taken out, each in one press of
// undo taken back whole.
func TestWhatAClubKeepsIsTakenBackWhole(t *testing.T) {
	base, _ := site(t, "things")
	coach, physio := visit(t, base, demo.Email), visit(t, base, demo.MedicalEmail)
	player := idOf(t, coach, "/squad?squad=1", `player=(\d+)"[^>]*>\s*Mara`)
	now := func() string { return unmoved(whole(t, coach) + page(t, physio, "/squad?player="+player)) }
	before := now()
	list := base64.StdEncoding.EncodeToString([]byte("number;first name;last name\n61;Nova;Brisk\n62;Zilla;Brisk\n"))
	tests := base64.StdEncoding.EncodeToString([]byte("player;test;unit;better;day;tries\nMara " +
		"Tolland;Reach;cm;higher;2026-11-20;31,5\n"))
	matches := base64.StdEncoding.EncodeToString([]byte("kind;title;day;start;place\nmatch;Brackwater v " +
		"Hollinmere;2026-12-19;14:30;Tidegate\n"))
	for _, c := range []struct {
		name, path, form string
		by               *visitor
		shows            string // on which page
		says             string
	}{
		{name: "a player", path: "/squad/1/players",
			form: "number=61&first=Nova&last=Brisk&foot=left&hand=both&build=stiff&notes=new",
			by:   coach, shows: "/squad?squad=1", says: "Nova"},
		{name: "another number", path: "/squad/1/players", form: "id=" + player +
			"&edition=1&number=77&first=Mara&last=Tolland", by: coach,
			shows: "/squad?squad=1", says: ">77<"},
		{name: "who leaves", path: "/squad/1/players/" + player + "/remove", form: "", by: coach,
			shows: "/export/squad.csv?squad=1", says: ""},
		{name: "a unit", path: "/squad/1/units", form: "name=Wide+pair&players=" + player, by: coach,
			shows: "/squad?squad=1", says: "Wide pair"},
		{name: "a ruling", path: "/squad/1/rulings/" + player,
			form: "rules=jumps&rules=overhead&spare=knee&spare=hip&max_effort=60&max_minutes=15&from=2026-11-25&" +
				"until=2026-12-10&review=2026-12-01&reason=a+strain",
			by: physio, shows: "/squad?player=" + player, says: "a strain"},
		{name: "a zone", path: "/ground/zone",
			form: "name=Shed&of=1&capacity=9&lanes=2&metres=20&surface=wood&covered=yes", by: coach,
			shows: "/ground", says: "Shed"},
		{name: "kit", path: "/ground/kit", form: "name=sled&pieces=8", by: coach, shows: "/ground", says: "sled"},
		{name: "staff", path: "/ground/staff", form: "name=Odile+Marr&role=Goalkeeping&leads=yes", by: coach,
			shows: "/ground", says: "Odile Marr"},
		{name: "a ground without its zones", path: "/ground/venue", form: "name=Eastfield&time_zone=Europe/London",
			by: coach, shows: "/ground",
			says: "Eastfield"},
		{name: "a drill of their own", path: "/drills/new",
			form:  "name=Our+hops&aim=Quick+feet&kind=time&phases=raise&min=30&target=30&max=60&step=5&effort=50",
			by:    coach,
			shows: "/drills?q=our+hops", says: "Our hops"},
		{name: "a ground that is left", path: "/ground/venue/1/remove", form: "", by: coach, shows: "/ground",
			says: ""},
		{name: "a drill made of a line", path: "/drills/new",
			form: "name=Our+wobble&said=3+x+8+a+side,+3-1-3&phases=mobilise&effort=30",
			by:   coach, shows: "/drills?q=our+wobble", says: "3-1-3"},
		{name: "a drill that is out", path: "/drills/skips/remove", form: "", by: coach, shows: "/drills?q=skips+with",
			says: ""},
		{name: "a routine", path: "/sessions/1/routine", form: "name=Match+day&for=Home", by: coach, shows: "/routines",
			says: "Match day"},
		{name: "a list of players", path: "/import", form: "kind=squad&squad=1&take=yes&file64=" +
			url.QueryEscape(list), by: coach,
			shows: "/squad?squad=1", says: "Zilla"},
		{name: "tests", path: "/import", form: "kind=tests&squad=1&take=yes&file64=" + url.QueryEscape(tests),
			by:    coach,
			shows: "/export/tests.csv?squad=1", says: "Reach"},
		{name: "fixtures", path: "/import", form: "kind=fixtures&take=yes&file64=" + url.QueryEscape(matches),
			by: coach, shows: "/today",
			says: "Hollinmere"},
	} {
		form, err := url.ParseQuery(c.form)
		require.NoError(t, err)
		status, text, _ := c.by.post(c.path, form)
		if !assert.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status, "%s: %s", c.name, problemIn(text)) {
			continue
		}
		_, shown, _ := c.by.get(c.shows)
		assert.Contains(t, shown, c.says, c.name)
		assert.NotEqual(t, before, now(), "%s is kept", c.name)
		status, _, _ = c.by.post("/take-back", url.Values{"back": {"/today"}})
		assert.Equal(t, http.StatusSeeOther, status, c.name)
		c.by.get("/today") // what was taken back is said once
		assert.Equal(t, before, now(), "%s is taken back", c.name)
	}
}

func page(t *testing.T, v *visitor, path string) string {
	status, text, _ := v.get(path)
	require.Equal(t, http.StatusOK, status, path)
	return text
}

func idOf(t *testing.T, v *visitor, path, pattern string) string {
	found := regexp.MustCompile(pattern).FindStringSubmatch(page(t, v, path))
	require.NotNil(t, found, "%s on %s", pattern, path)
	return found[1]
}

// unmoved is a page without what counts changes, and without what was said last.
func unmoved(text string) string {
	for _, pattern := range []string{`name="edition" value="\d+"`, `(?s)<form[^>]*action="/take-back".*?</form>`,
		`(?s)<[^>]*role="status".*?</[a-z]+>`} {
		text = regexp.MustCompile(pattern).ReplaceAllString(text, "")
	}
	return strings.Join(strings.Fields(text), " ")
}

// What is shared shows each player their own, to whom the link was given, until
// it is withdrawn; a session that is removed takes it along.
func TestALinkShowsWhatWasPublished(t *testing.T) {
	base, p := site(t, "links")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	board, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	ruled := board.Document.Players[3]
	status, _, _ := visit(t, base, demo.MedicalEmail).post(fmt.Sprintf("/squad/1/rulings/%d", ruled.Roster),
		url.Values{"rules": {"jumps"}, "from": {"2026-11-25"}, "reason": {"a strain"}})
	require.Equal(t, http.StatusSeeOther, status)
	coach.post("/sessions/1/rulings", url.Values{"revision": {itoa(board.Revision)}})
	board, err = p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	require.Equal(t, ruled.ID, board.Document.Restrictions[0].Player)
	status, _, _ = coach.post("/sessions/1/publish", url.Values{"revision": {itoa(board.Revision)}})
	require.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status)
	board, err = p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	link := "/r/" + board.Publication.Token
	squad := page(t, nobody, link)
	for _, player := range board.Document.Players {
		assert.Contains(t, squad, player.First)
		mine := page(t, nobody, link+"/"+player.ID)
		assert.Contains(t, mine, player.First)
		assert.Contains(t, mine, board.Document.Title)
		assert.NotContains(t, mine, "/sessions/", "no way from there to the staff's pages")
	}
	assert.NotContains(t, squad+page(t, nobody, link+"/"+ruled.ID), "strain", "why is not for all to read")
	assert.NotContains(t, squad, "no jumps", "nor what, by others")
	for _, wrong := range []string{"/r/" + strings.Repeat("a", 43), "/r/x", link + "/p99",
		link + "/" + strings.Repeat("p", 300)} {
		status, _, _ := nobody.get(wrong)
		assert.Equal(t, http.StatusNotFound, status, wrong)
	}
	removed, _, _ := coach.post("/sessions/1/remove", nil)
	require.Equal(t, http.StatusSeeOther, removed)
	status, text, _ := nobody.get(link)
	assert.Equal(t, http.StatusNotFound, status)
	_, guessed, _ := nobody.get("/r/" + strings.Repeat("a", 43))
	assert.Equal(t, words(guessed), words(text), "nothing tells an old link from a guessed one")
	coach.post("/sessions/1/restore", nil)
	assert.Equal(t, squad, page(t, nobody, link), "the link is good again")
	status, _, _ = coach.post("/sessions/1/withdraw", nil)
	require.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status)
	status, text, _ = nobody.get(link)
	assert.Equal(t, http.StatusNotFound, status)
	assert.Equal(t, words(guessed), words(text))
}

// Every page that a coach may open says what it is, and holds nothing of a
// template that went wrong.
func TestEveryPageIsWhole(t *testing.T) {
	base, _ := site(t, "pages")
	coach := visit(t, base, demo.Email)
	for path, says := range map[string]string{
		"/today": "Sessions to come", "/today?all=yes": "Sessions to come", "/sessions/new": "New session",
		"/drills": "drill", "/drills?q=zzzz": "drill", "/drills/skips/edit": "Skips",
		"/squad": "first team", "/squad?squad=2": "Under 16", "/squad?player=new": "First name", "/ground": "Tidegate",
		"/ground?edit=kit&id=new": "Pieces", "/routines": "outine",
		"/import": "Import a list", "/sport": "Rugby union", "/sport?preset=netball": "Netball",
		"/sessions/1": "Brackwater v Fellmoor", "/sessions/1?block=lineout": "Line-out",
		"/sessions/1?block=gone": "Brackwater v Fellmoor", "/sessions/1/sheet": "Brackwater v Fellmoor",
	} {
		text := page(t, coach, path)
		assert.Contains(t, strings.ToLower(text), strings.ToLower(says), path)
		assert.Contains(t, text, "</html>", path)
		for _, broken := range []string{"ZgotmplZ", "&lt;nil&gt;", "%!", "<no value>", "0001-01-01"} {
			assert.NotContains(t, text, broken, path)
		}
	}
	for path, want := range map[string]int{"/nothing": 404, "/sessions/4711": 404, "/sessions/x": 404,
		"/sessions/18446744073709551616": 404, "/squad?squad=4711": 404, "/drills/zzz/edit": 404,
		"/routines/9/routine.json": 404, "/healthz": 200, "/assets/x/y": 404} {
		status, _, _ := coach.get(path)
		assert.Equal(t, want, status, path)
	}
	_, text, _ := coach.get("/sessions/new?from=" + url.QueryEscape(`"><script>`))
	assert.NotContains(t, text, "<script>\"")
	for n := range 3 { // whose drawers are closed are filled when they are opened
		assert.Contains(t, page(t, coach, fmt.Sprintf("/sessions/%d?tab=times", n+1)), `name="active"`)
		assert.NotContains(t, page(t, coach, fmt.Sprintf("/sessions/%d", n+1)), `name="active"`)
	}
}

// A routine that is handed out is a page of its drills for whoever has the link, and
// nothing once that is withdrawn or the routine is gone.
func TestARoutineIsHandedOut(t *testing.T) {
	base, _ := site(t, "handed")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	status, text, _ := coach.post("/sessions/1/routine", url.Values{"name": {"Homework"}, "for": {"anywhere"}})
	require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	routine := "/routines/" + idOf(t, coach, "/routines", `/routines/(\d+)/handout`)
	hand := func(form url.Values) string {
		status, text, to := coach.post(routine+"/hand-out", form)
		require.Equal(t, http.StatusSeeOther, status, problemIn(text))
		return page(t, coach, to)
	}
	link := regexp.MustCompile(`value="http[^"]*(/handed/[A-Za-z0-9_-]{43})"`)
	made := link.FindStringSubmatch(hand(nil))
	require.Len(t, made, 2)
	assert.Equal(t, made[1], link.FindStringSubmatch(hand(nil))[1], "one link, however often it is asked for")
	shown := words(page(t, nobody, made[1]))
	for _, says := range []string{"Line-out throws", "Look for", "Step by step", "Stop on pain"} {
		assert.Contains(t, shown, says)
	}
	for _, never := range []string{"Ketterick", "Varley", "Sign out"} {
		assert.NotContains(t, shown, never, "drills, and nobody's name")
	}
	assert.Contains(t, page(t, nobody, made[1]+"/steps"), "data-steps")
	_, pdf, _ := nobody.get(made[1] + "/list.pdf")
	assert.True(t, strings.HasPrefix(pdf, "%PDF"))
	status, _, _ = nobody.get(made[1] + "/picture/scrum-sets")
	assert.Equal(t, http.StatusNotFound, status)

	stranger := visit(t, base, stranger)
	for _, form := range []url.Values{nil, {"gone": {"yes"}}} {
		status, _, _ = stranger.post(routine+"/hand-out", form)
		assert.Contains(t, []int{http.StatusNotFound, http.StatusSeeOther}, status)
	}
	medical, _, _ := visit(t, base, demo.MedicalEmail).post(routine+"/hand-out", url.Values{"gone": {"yes"}})
	assert.Equal(t, http.StatusForbidden, medical)
	page(t, nobody, made[1])
	hand(url.Values{"gone": {"yes"}})
	again := link.FindStringSubmatch(hand(nil))
	require.Len(t, again, 2)
	status, text, _ = coach.post(routine+"/remove", nil)
	require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	for _, gone := range []string{made[1], made[1] + "/steps", made[1] + "/list.pdf", again[1], "/handed/x",
		"/handed/" + strings.Repeat("a", 43), "/handed/%00"} {
		status, _, _ = nobody.get(gone)
		assert.Equal(t, http.StatusNotFound, status, gone)
	}
}

// Each page of a coach says what is done there, with a line of the club's own sport where lines are written.
func TestEveryPageSaysWhatIsDoneThere(t *testing.T) {
	base, _ := site(t, "help")
	coach := visit(t, base, demo.Email)
	for path, says := range map[string]string{"/today": "What comes next", "/sessions/new": "counted backwards",
		"/sessions/1": "Backs: high balls 6 each", "/sessions/1/words": "Backs: high balls 6 each",
		"/sessions/1/people": "A row for each player", "/sessions/1/moment?at=-1200": "Who stands where",
		"/sessions/1/what-if": "Nothing changes", "/sessions/1/sheet": "One page for your staff",
		"/sessions/1/links": "Publish", "/sessions/3/log": "How it went",
		"/log": "newest first", "/week": "still owes", "/drills": "Backs: high balls 6 each", "/routines": "New list:",
		"/squad": "Only medical staff", "/ground": "lanes, metres, hours"} {
		dialog := page(t, coach, path)
		_, dialog, _ = strings.Cut(dialog, `role="dialog"`)
		assert.Contains(t, dialog, says, path)
	}
}
