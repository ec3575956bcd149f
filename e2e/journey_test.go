package e2e

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/store"
)

// A coach moves the start, turns a dose, shares the plan and prints the sheet;
// a player reads her own times on a phone.
func TestFromSignInToAPlayersPhone(t *testing.T) {
	base, _ := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.click(`a[href="/sessions/1"]`)
	b.until(`location.pathname == "/sessions/1"`)
	assert.Equal(t, "It fits, but look at 3 things.", b.text("#verdict"))
	before := eval[string](b, `document.querySelector("#wide-block-jumps").getAttribute("aria-label")`)

	// Twenty minutes earlier: the ground is free no sooner, so the plan gives way.
	b.set("#start", "2026-11-28T14:40")
	b.until(`document.querySelector(".start-time").textContent == "14:40"`)
	assert.Contains(t, b.text("#verdict"), "Fits, without Neck holds.")
	assert.Contains(t, b.text("[aria-label='What to look at']"), "Left out: ")
	b.click("#undo")
	b.until(`document.querySelector("#start").value.endsWith("15:00")`)
	b.set("#start", "2026-11-28T15:20")
	b.until(`document.querySelector(".start-time").textContent == "15:20"`)
	assert.Equal(t, "It fits, but look at 3 things.", b.text("#verdict"))

	// A finding is mended with one press, another kept with a reason.
	b.click("#drawer-found summary")
	b.until(`document.querySelector("[aria-label=Findings]")`)
	findings := `[...document.querySelectorAll("[aria-label=Findings] li")].map(e => e.textContent).join("\n")`
	assert.Contains(t, eval[string](b, findings), "High balls: 3 people share 1 lane")
	b.run(`document.querySelector('form[action$="/mend"]:has([value=queue]) button').click()`)
	b.until(`!document.querySelector("[aria-label=Findings]").textContent.includes("share 1 lane")`)
	b.click("#undo")
	b.until(`document.querySelector("[aria-label=Findings]").textContent.includes("share 1 lane")`)

	// More throws take more seconds, and everything before them starts sooner.
	b.run(`document.querySelector("#wide-block-lineout").dispatchEvent(new MouseEvent("click", {bubbles: true, cancelable: true}))`)
	b.until(`document.querySelector("#chosen h2")?.textContent == "Line-out"`)
	b.click("#more-0")
	b.click("#more-0") // without waiting for the first
	b.until(`document.querySelector("#chosen ul .figure").textContent == "11 throws"`)
	assert.NotContains(t, eval[string](b, `document.querySelector("#wide-block-jumps").getAttribute("aria-label")`),
		regexp.MustCompile(`[\d′″]+ to [\d′″]+ to go`).FindString(before))
	assert.Equal(t, "more-0", eval[string](b, `document.activeElement.id`), "the keyboard stays where it was")
	b.do(chromedp.KeyEvent("z"))
	b.until(`document.querySelector("#chosen ul .figure").textContent == "10 throws"`)

	jumps := strings.Fields(eval[string](b,
		`document.querySelector("#wide-block-jumps").getAttribute("aria-label").split(": ")[1]`))[0]
	b.click("#publish")
	b.click("#publish-now")
	b.until(`document.querySelector("#share-link")`)
	link := eval[string](b, `document.querySelector("#share-link").value`)
	assert.Contains(t, b.text("[role=status] span"), "Plan 1 is published")

	b.open("/sessions/1/sheet")
	pdf, err := chromedp.Run(b.ctx, chromedp.PrintToPDF(chromedp.PDFPreferCSSPageSize()))
	require.NoError(t, err)
	assert.Equal(t, 2, bytes.Count(pdf, []byte("/Type /Page\n")), "one page, and the cut-downs on its back")
	assert.Contains(t, b.text("main"), "that is the shortest")
	if *shots != "" {
		file := filepath.Join(t.TempDir(), "sheet.pdf")
		require.NoError(t, os.WriteFile(file, pdf, 0o600))
		require.NoError(t, exec.Command("pdftoppm", "-png", "-r", "80", "-f", "1", "-l", "1", "-singlefile", file,
			filepath.Join(*shots, "sheet-print")).Run())
		require.NoError(t, exec.Command("pdftoppm", "-png", "-r", "80", "-f", "2", "-l", "2", "-singlefile", file,
			filepath.Join(*shots, "sheet-back")).Run())
	}

	phone := newBrowser(t, base) // another browser: nobody is signed in
	phone.size(390, 844)
	phone.open(link)
	phone.click(`a[href$="/p15"]`)
	phone.until(`document.querySelector("[data-countdown]")`)
	text := phone.text("main")
	assert.Contains(t, text, "Mara T. · 15")
	assert.NotContains(t, text, "Tolland")
	assert.Contains(t, text, "High balls")
	assert.NotContains(t, text, "Line-out")
	assert.Contains(t, text, "15:20")
	list := func() string {
		return eval[string](phone,
			`[...document.querySelectorAll("summary .figure")].map(e => e.textContent).join(" ")`)
	}
	assert.Contains(t, list(), jumps, "her jumps and sprints begin when the board says")
	counted := phone.text("[data-countdown]")
	assert.NotEqual(t, "nothing", counted)

	b.open("/sessions/1/links")
	b.click("#withdraw")
	b.until(`document.querySelector("main")?.innerText.includes("link was withdrawn")`)
	phone.open(link)
	assert.Contains(t, phone.text("main"), "This link shows nothing")
}

// The phone counts down by itself: nothing is asked of the server meanwhile.
func TestThePhoneCountsWithoutASignal(t *testing.T) {
	base, p := site(t, true)
	token, err := storeOf(t).Shares.Publish(context.Background(), 1, 1, 1, anything)
	require.NoError(t, err)
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	minutes := 0 // to go, while they move
	for _, block := range board.Blocks {
		if block.ID == "move" {
			minutes = int(-block.Start) / 60
		}
	}
	p.Now = func() time.Time { return board.Schedule.Start.Add(-time.Duration(minutes) * time.Minute) }
	b := newBrowser(t, base)
	b.open("/r/" + token + "/p10")
	signal(t, false)
	b.until(`document.querySelector("[data-countdown]").textContent.startsWith("` + fmt.Sprint(minutes-1) + `′5")`)
	assert.Equal(t, "Moving range", b.text("details[open] b"))
	b.size(390, 844)
	b.shot("my-run-in-live")
	assert.Contains(t, b.text("details.now [data-left]"), "left")
	signal(t, true)
	wall := newBrowser(t, base)
	wall.open("/r/" + token + "/wall")
	wall.until(`document.querySelectorAll("[data-wall] tr").length > 1`)
	assert.Contains(t, wall.text("[data-wall]"), "Moving range")
	assert.Equal(t, 4, eval[int](wall,
		`document.querySelectorAll("[data-wall] tr:first-child td:nth-child(2) svg").length`),
		"with few lines there is room for its drills")
	wall.shot("wall")
	signal(t, false)
	wall.until(`document.querySelector("[data-notice=signal]")`)
	assert.Contains(t, wall.text("[data-wall]"), "Moving range", "it goes on without a line, and says so")
}

// What a form refuses it answers beside the field, with what was entered.
func TestBadInputIsASentence(t *testing.T) {
	base, p := site(t, true)
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	client := &http.Client{Jar: jar, Timeout: 10 * time.Second}
	post := func(path string, form url.Values) (int, string) {
		answer, err := client.PostForm(base+path, form)
		require.NoError(t, err)
		defer answer.Body.Close()
		text := readAll(answer)
		assert.NotContains(t, text, "goroutine")
		return answer.StatusCode, text
	}
	status, _ := post("/sessions/1/undo", url.Values{"revision": {"1"}})
	assert.Equal(t, http.StatusOK, status, "signed out: led to the sign-in page")
	status, text := post("/sign-in", url.Values{"email": {demo.Email}, "password": {"wrong"}})
	assert.Equal(t, http.StatusUnauthorized, status)
	assert.Contains(t, text, "do not belong together")
	status, _ = post("/sign-in", url.Values{"email": {" COACH@brackwater.example "}, "password": {demo.Password}})
	require.Equal(t, http.StatusOK, status)

	long := strings.Repeat("a", 10_000)
	for _, c := range []struct {
		name, path string
		form       url.Values
		status     int
		says, kept string
	}{
		{name: "a start in the past", path: "/sessions/1/timing",
			form: url.Values{"start": {"2020-01-01T15:00"}, "margin": {"10"}}, status: 422,
			says: "has passed", kept: "2020-01-01T15:00"},
		{name: "a start that is no time", path: "/sessions/1/timing",
			form: url.Values{"start": {"soon"}, "margin": {"10"}}, status: 422,
			says: "is not a date and time", kept: "soon"},
		{name: "a start that the clock change skips", path: "/sessions/1/timing",
			form: url.Values{"start": {"2027-03-28T01:30"}, "margin": {"10"}}, status: 422, says: "does not exist",
			kept: "2027-03-28T01:30"},
		{name: "a start that the clock change repeats", path: "/sessions/1/timing",
			form: url.Values{"start": {"2027-10-31T01:30"}, "margin": {"10"}}, status: 422, says: "comes twice",
			kept: "2027-10-31T01:30"},
		{name: "the ground opens after the work has to end", path: "/sessions/1/timing",
			form: url.Values{"start": {"2026-11-28T14:15"}, "margin": {"10"}}, status: 422,
			says: "the ground opens at 14:10",
			kept: "2026-11-28T14:15"},
		{name: "a margin of a day", path: "/sessions/1/timing",
			form: url.Values{"start": {"2026-11-28T15:00"}, "margin": {"1440"}}, status: 422,
			says: "between 0 and 60", kept: "1440"},
		{name: "a margin that is no number", path: "/sessions/1/timing",
			form: url.Values{"start": {"2026-11-28T15:00"}, "margin": {"ten"}}, status: 422, says: "write minutes as",
			kept: "ten"},
		{name: "a dose outside its range", path: "/sessions/1/blocks/lineout/dose",
			form:   url.Values{"item": {"0"}, "amount": {"99"}},
			status: 422, says: "goes from 5 throws to 12 throws", kept: ""},
		{name: "a dose that is no number", path: "/sessions/1/blocks/lineout/dose",
			form:   url.Values{"item": {"0"}, "amount": {"many"}},
			status: 422, says: "whole number", kept: ""},
		{name: "a block that is gone", path: "/sessions/1/blocks/nothing/remove", form: url.Values{}, status: 422,
			says: "no longer in the plan", kept: ""},
		{name: "a drill that is none in a block", path: "/sessions/1/blocks/lineout/items",
			form: url.Values{"item": {"0"}, "drill": {"nothing"}}, status: 422, says: "no longer in the book",
			kept: ""},
		{name: "nothing written", path: "/sessions/1/write", form: url.Values{"text": {" \n "}}, status: 422,
			says: "write a drill, as you say it", kept: ""},
		{name: "nobody in a block", path: "/sessions/1/blocks/lineout/said",
			form:   url.Values{"part": {"who"}, "said": {""}},
			status: 422, says: "say who does it", kept: ""},
		{name: "a hold that contradicts itself", path: "/sessions/1/blocks/lineout/said",
			form: url.Values{"part": {"who"}, "said": {"line-out, done by 30, not before 20"}}, status: 422,
			says: "leaves no time between", kept: "done by 30"},
		{name: "a hold outside the day", path: "/sessions/1/blocks/lineout/said",
			form: url.Values{"part": {"who"}, "said": {"line-out, at 170"}}, status: 422,
			says: "lies outside the work", kept: "at 170"},
		{name: "a stale revision", path: "/sessions/1/blocks/lineout/remove", form: url.Values{"revision": {"77"}},
			status: 409,
			says:   "Somebody else has just changed this plan", kept: ""},
		{name: "nothing to undo", path: "/sessions/1/undo", form: url.Values{}, status: 409,
			says: "nothing more to undo", kept: ""},
		{name: "a session of nobody", path: "/sessions/4711/undo", form: url.Values{}, status: 404,
			says: "There is nothing here", kept: ""},
		{name: "a session that is no number", path: "/sessions/x/undo", form: url.Values{}, status: 404,
			says: "There is nothing here", kept: ""},
		{name: "a name of 10,000 characters", path: "/sessions", form: url.Values{"kind": {"match"}, "title": {long},
			"start": {"2026-12-01T15:00"}, "zone": {"Europe/London"}}, status: 422,
			says: "10000 characters is too long", kept: long},
		{name: "a form of two megabytes", path: "/sessions", form: url.Values{"title": {strings.Repeat("a", 2<<20)}},
			status: 413,
			says:   "too much at once", kept: ""},
		{name: "a name too long", path: "/sessions", form: url.Values{"kind": {"match"},
			"title": {strings.Repeat("x", 90)},
			"start": {"2026-12-01T15:00"}, "zone": {"Europe/London"}}, status: 422, says: "is too long", kept: ""},
		{name: "a title of two lines", path: "/sessions", form: url.Values{"kind": {"match"}, "title": {"a\nb"},
			"start": {"2026-12-01T15:00"}, "zone": {"Europe/London"}}, status: 422, says: "one line of plain text",
			kept: ""},
		{name: "minutes that are none", path: "/sessions", form: url.Values{"kind": {"match"}, "title": {"Kept title"},
			"start": {"2026-12-01T15:00"}, "venue": {"1"}, "minutes": {"many"}}, status: 422, says: "between 5 and 180",
			kept: "Kept title"},
		{name: "air of a furnace", path: "/sessions", form: url.Values{"kind": {"match"}, "title": {"x"},
			"start": {"2026-12-01T15:00"},
			"venue": {"1"}, "air": {"400"}}, status: 422, says: "between -40 and 55", kept: "400"},
		{name: "a routine that is gone", path: "/sessions", form: url.Values{"kind": {"match"}, "title": {"x"},
			"start": {"2026-12-01T15:00"}, "venue": {"1"}, "from": {"4711"}}, status: 422, says: "no longer there",
			kept: ""},
		{name: "wind of a storm on the board", path: "/sessions/1/day", form: url.Values{"wind": {"99"}}, status: 422,
			says: "between 0 and 60", kept: "99"},
		{name: "a block at too many stations", path: "/sessions/1/blocks/lineout",
			form: url.Values{"name": {"x"}, "who": {"*"}, "stations": {"101"}}, status: 422, says: "between 1 and 100",
			kept: ""},
		{name: "an event that ends before it starts", path: "/sessions/1/fixed",
			form: url.Values{"name": {"Talk"}, "who": {"*"}, "from": {"10"}, "to": {"20"}}, status: 422,
			says: "ends before it starts", kept: ""},
		{name: "an event at no time", path: "/sessions/1/fixed",
			form: url.Values{"name": {"Talk"}, "who": {"*"}, "from": {"@25:00"},
				"to": {"20"}}, status: 422, says: "no time on the clock", kept: ""},
		{name: "an event that is gone", path: "/sessions/1/fixed", form: url.Values{"id": {"gone"}, "gone": {"yes"}},
			status: 422,
			says:   "no longer in the plan", kept: ""},
		{name: "a late player who is not in it", path: "/sessions/1/players",
			form: url.Values{"player": {"p99"}, "late": {"5"}}, status: 422,
			says: "not in the plan", kept: ""},
		{name: "a routine without a name", path: "/sessions/1/routine", form: url.Values{"name": {" "}}, status: 422,
			says: "give it a name", kept: ""},
		{name: "a player without a name", path: "/squad/1/players", form: url.Values{"last": {"Kept"}}, status: 422,
			says: "give it a name", kept: "Kept"},
		{name: "a number that is taken", path: "/squad/1/players", form: url.Values{"first": {"Nova"}, "number": {"9"}},
			status: 409,
			says:   "name or number already", kept: "Nova"},
		{name: "a player of another club's squad", path: "/squad/4711/players", form: url.Values{"first": {"Nova"}},
			status: 404,
			says:   "There is nothing here", kept: ""},
		{name: "a unit of nobody", path: "/squad/1/units", form: url.Values{"name": {"Pair"}, "players": {"4711"}},
			status: 422,
			says:   "nobody is in it", kept: "Pair"},
		{name: "a zone without room", path: "/ground/zone", form: url.Values{"name": {"Shed"}, "of": {"1"},
			"capacity": {"0"},
			"lanes":    {"1"}}, status: 422, says: "between 1 and 999", kept: "Shed"},
		{name: "a zone of no ground", path: "/ground/zone", form: url.Values{"name": {"Shed"}, "of": {"4711"},
			"capacity": {"9"},
			"lanes":    {"1"}}, status: 404, says: "There is nothing here", kept: ""},
		{name: "a ground on the moon", path: "/ground/venue",
			form: url.Values{"name": {"Shed"}, "time_zone": {"Moon/Base"}}, status: 422,
			says: "not known", kept: "Moon/Base"},
		{name: "kit that is there twice", path: "/ground/kit", form: url.Values{"name": {"tee"}, "pieces": {"4"}},
			status: 409,
			says:   "name or number already", kept: ""},
		{name: "a thing of no kind", path: "/ground/player", form: url.Values{"name": {"x"}}, status: 404,
			says: "There is nothing here", kept: ""},
		{name: "an invitation for nobody", path: "/invitations",
			form: url.Values{"name": {"x"}, "email": {"x"}, "role": {"king"}}, status: 422,
			says: "write an e-mail address", kept: ""},
		{name: "a file that is none", path: "/import", form: url.Values{"kind": {"squad"}, "squad": {"1"}}, status: 422,
			says: "pick a file first", kept: ""},
		{name: "a list without names", path: "/import", form: url.Values{"kind": {"squad"}, "squad": {"1"},
			"file64": {"bnVtYmVyCjEK"}},
			status: 422, says: "there is no column", kept: ""},
		{name: "a plan that is no plan", path: "/import", form: url.Values{"kind": {"plan"}, "squad": {"1"},
			"file64": {"e30="}}, status: 422,
			says: "missing properties", kept: ""},
		{name: "a calendar that is none", path: "/import", form: url.Values{"kind": {"calendar"}, "squad": {"1"},
			"file64": {"aGVsbG8="}},
			status: 422, says: "no calendar that can be read", kept: ""},
		{name: "a drill without numbers", path: "/drills/new",
			form: url.Values{"name": {"Ours"}, "aim": {"Kept aim"}, "kind": {"reps"},
				"phases": {"raise"}, "sets": {"some"}, "effort": {"50"}}, status: 422, says: "is no number of sets",
			kept: "Kept aim"},
		{name: "a drill of too much effort", path: "/drills/skips",
			form: url.Values{"name": {"Skips"}, "aim": {"x"}, "kind": {"time"},
				"effort": {"500"}}, status: 422, says: "between 0 and 100 per cent", kept: ""},
		{name: "a ladder that is none", path: "/drills/throws-growing",
			form: url.Values{"name": {"Throws"}, "aim": {"x"},
				"kind": {"count"}, "effort": {"50"}, "ladder": {"far"}}, status: 422, says: "no step of a ladder",
			kept: ""},
		{name: "a drill that is gone", path: "/drills/zzz/remove", form: url.Values{}, status: 404,
			says: "There is nothing here", kept: ""},
		{name: "a sport of nothing", path: "/sport", form: url.Values{"key": {"netball"}, "name": {""}}, status: 422,
			says: "a sport needs", kept: ""},
		{name: "a stale player", path: "/squad/1/players", form: url.Values{"id": {"21"}, "first": {"Nova"},
			"edition": {"77"}}, status: 409,
			says: "Somebody else has just changed this", kept: ""},
		{name: "an unknown time zone", path: "/sessions", form: url.Values{"kind": {"match"}, "title": {"x"},
			"start": {"2026-12-01T15:00"}, "zone": {"Moon/Base"}}, status: 422, says: "not known", kept: "Moon/Base"},
	} {
		for _, count := range []string{"edition", "revision"} {
			if !c.form.Has(count) {
				c.form.Set(count, "1")
			}
		}
		status, text := post(c.path, c.form)
		assert.Equal(t, c.status, status, c.name)
		assert.Contains(t, text, c.says, c.name)
		assert.Contains(t, text, c.kept, c.name)
	}
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	assert.EqualValues(t, 1, board.Revision, "nothing was changed by any of it")

	request, err := http.NewRequest("POST", base+"/sessions/1/blocks/lineout/remove", strings.NewReader("revision=1"))
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	request.Header.Set("Origin", "https://elsewhere.example")
	answer, err := client.Do(request)
	require.NoError(t, err)
	answer.Body.Close()
	assert.Equal(t, http.StatusForbidden, answer.StatusCode, "a form of another site")
	for range 12 {
		status, text = post("/sign-in", url.Values{"email": {"guess@brackwater.example"}, "password": {"x"}})
	}
	assert.Equal(t, http.StatusTooManyRequests, status)
	assert.Contains(t, text, "quarter of an hour")
}

// Everything on the board can be done from the keyboard.
func TestTheBoardWorksByKeyboard(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1")
	chosen := func(name string) {
		b.t.Helper()
		b.until(`document.querySelector("#chosen h2")?.textContent == "` + name + `"`)
	}
	press := func(key string) { b.t.Helper(); b.do(chromedp.KeyEvent(key)) }
	press("n")
	chosen("Kicks at posts")
	press("n")
	chosen("Rising loop")
	press("n")
	chosen("Bands")
	press("p")
	chosen("Rising loop")
	press("-")
	b.until(`document.querySelector("#chosen ul .figure").textContent.startsWith("8 lengths of 60 m")`)
	press("3")
	b.until(`document.querySelector("#prio-could").getAttribute("aria-pressed") == "true"`)
	press("z")
	b.until(`document.querySelector("#prio-must").getAttribute("aria-pressed") == "true"`)
	press("y")
	b.until(`document.querySelector("#prio-could").getAttribute("aria-pressed") == "true"`)
	press("?")
	b.until(`document.querySelector("[role=dialog]")?.checkVisibility()`)
	b.do(chromedp.KeyEvent(kb.Escape))
	b.until(`!document.querySelector("[role=dialog]").checkVisibility()`)
	b.click("#close-block")
	b.until(`!document.querySelector("#chosen")`)

	// A reason in a finding's own field, by keyboard alone.
	b.click("#drawer-found summary")
	b.until(`document.querySelector("[aria-label=Findings]")`)
	b.run(`(() => { const d = [...document.querySelectorAll("[aria-label=Findings] li details")].at(-1); d.open = true; d.querySelector("input[name=reason]").focus() })()`)
	b.do(chromedp.KeyEvent("one kicker is enough" + kb.Enter))
	b.until(`document.body.innerText.includes("Kept: 1")`)
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	assert.Equal(t, "one kicker is enough", board.Document.Exceptions[0].Reason)
}

// A block is added, and left out blocks can still be opened.
func TestABlockIsAddedAndOrdered(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1")
	b.write("ankle rocks 8 a side, kickers")
	b.until(`document.querySelector("#wide-block-b13")`)
	assert.Contains(t, eval[string](b, `document.querySelector("#wide-block-b13").getAttribute("aria-label")`),
		"Ankle rocks, Mobilise, Kickers")
	b.open("/sessions/1?block=b13")
	b.run(`document.querySelector("#sooner").click()`)
	b.until(`document.querySelector("#later")?.innerText.includes("Team run")`)
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	assert.Equal(t, []string{"touch", "b13", "team"}, []string{board.Document.Blocks[10].ID,
		board.Document.Blocks[11].ID, board.Document.Blocks[12].ID})
	b.run(`document.querySelector('form[action$="/remove"] button').click()`)
	b.until(`!document.querySelector("#wide-block-b13")`)

	b.open("/sessions/3")               // away
	b.set("#start", "2027-10-31T01:30") // in the hour that comes twice
	b.until(`document.querySelector("#occurrence")`)
	b.set("#occurrence", "second")
	b.until(`document.querySelector(".start-time").textContent == "01:30" && !document.querySelector(".problem")`)
	b.click("#undo")
	b.until(`document.querySelector(".start-time").textContent == "14:30"`)
	b.open("/sessions/1")
	b.set("#start", "2026-11-28T14:40") // so much earlier that something is left out
	b.until(`document.querySelector(".start-time").textContent == "14:40"`)
	name := b.text(`section[aria-label="The run-in"] p a.act`)
	b.click(`section[aria-label="The run-in"] p a.act`)
	b.until(`document.querySelector("#chosen")?.innerText.includes("Left out")`)
	assert.Contains(t, name, b.text("#chosen h2"))
}

// anything lets everything be published.
func anything(*plan.Document, store.Ruled) error { return nil }
