package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/planner/diary"
	"cuestart/store"
)

// A coach makes the run-in of a new match from nothing: it is there, fitted, with a reason for
// each block and without a stop.
func TestASessionInAMinute(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	interactions := 0
	act := func(do func()) { interactions++; do() }
	act(func() { b.click(`a[href="/sessions/new"]`) })
	b.until(`document.querySelector("#title")`)
	act(func() { b.fill("#title", "Brackwater v Hollinmere") })
	act(func() { b.set("#start", "2026-12-12T14:30") })
	act(func() { b.click("form details summary") })
	act(func() { b.set(`select[data-is][name="is-`+playerNamed(t, "Mara")+`"]`, "out") })
	assert.Contains(t, b.text("form details summary"), "30 of 31")
	act(func() { b.click("#make") })
	b.until(`location.pathname.startsWith("/sessions/") && document.querySelector("#verdict")`)
	assert.Less(t, interactions, 12)
	assert.Contains(t, b.text("#verdict"), "It fits")
	assert.NotContains(t, b.text("main"), "Do not run it")
	var id uint64
	fmt.Sscanf(eval[string](b, `location.pathname`), "/sessions/%d", &id)
	made, err := p.Boards.Board(context.Background(), 1, id)
	require.NoError(t, err)
	assert.Zero(t, check.Count(made.Findings).Stops)
	assert.Len(t, made.Document.Players, 30)
	assert.Len(t, made.Document.Restrictions, 0, "the demo's ruling ends before that day")
	for _, block := range made.Document.Blocks {
		assert.NotEmpty(t, block.Why, block.ID)
	}
	b.run(`document.querySelector(".chart a[data-block]").dispatchEvent(new MouseEvent("click", {bubbles: true, cancelable: true}))`)
	b.until(`document.querySelector("#chosen h2")`)
	assert.Contains(t, b.text("#chosen"), "Pulse first", "why it is there")

	// The day turns cold; one of its factors is switched off again.
	b.click("#to-day")
	b.set("#air", "3")
	b.until(`document.querySelector("#factor-cold-raise")`)
	b.run(`document.querySelector("#factor-cold-raise").click()`)
	b.until(`document.querySelector("#factor-cold-raise")?.textContent.trim() == "Use it"`)

	// It is kept as a routine, and its cost is shown at once.
	b.click("#to-")
	b.until(`document.querySelector("#to-[aria-current]")`)
	b.run(`document.querySelector("#drawer-routine summary").click()`)
	b.fill("#routine-name", "Match day")
	b.run(`document.querySelector("#routine-name").form.requestSubmit()`)
	b.until(`location.pathname == "/routines" && document.querySelector("main")?.innerText.includes("ground contacts")`)
	b.click("#take-back")
	b.until(`!document.querySelector("main").innerText.includes("Match day\n")`)
}

// playerNamed is the id of the player of that first name.
func playerNamed(t *testing.T, first string) string {
	players, err := store.Entries[club.Player](context.Background(), storeOf(t).Clubs, 1)
	require.NoError(t, err)
	for _, k := range players {
		if k.Is.First == first {
			return fmt.Sprint(k.ID)
		}
	}
	t.Fatal("there is no " + first)
	return ""
}

// Every drill's page is whole, and the book is found in as one types.
func TestTheDrillBookIsFoundIn(t *testing.T) {
	base, _ := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	holes := evalPromise(b, fmt.Sprintf(`(async () => {
		const bad = [];
		for (const [code, name] of Object.entries(%s)) { // in the list of those that are called so: the whole is long
			const page = new DOMParser().parseFromString(await (await fetch("/drills?drill=" + code + "&q=" + encodeURIComponent(name), {headers: {"X-Part": "found"}})).text(), "text/html");
			const parts = [...page.querySelectorAll("section[tabindex] h2, section[tabindex] dd, section[tabindex] li, section[tabindex] p")].map(e => e.textContent.trim());
			if (parts.length < 15 || parts.some(p => p === "" || p === "." || p.includes("%%!"))) bad.push(code);
		}
		return bad.join(" ");
	})()`, called()))
	assert.Empty(t, holes)
	b.open("/drills")
	b.fill("#q", "band hip")
	b.until(`document.querySelector("#found p b")?.textContent > 0 && document.querySelector("#found p b").textContent < 20`)
	assert.Contains(t, b.text("#found"), "Band side-walk")
	b.fill("#q", "zzz")
	b.until(`document.querySelector("#found").innerText.includes("No drill fits")`)

	b.open("/drills/skips/edit")
	b.fill("[name=aim]", "Ours now")
	b.fill("[name=target]", "99")
	b.click("#save")
	b.until(`document.querySelector(".problem")`)
	assert.Contains(t, b.text(".problem"), "must not fall")
	assert.Equal(t, "Ours now", eval[string](b, `document.querySelector("[name=aim]").value`))
	b.fill("[name=target]", "5")
	b.click("#save")
	b.until(`document.querySelector("main")?.innerText.includes("Changed by your club")`)
	b.click("#take-back")
	b.until(`document.querySelector("[role=status]").innerText.includes("Taken back")`)
	assert.NotContains(t, b.text("main"), "Ours now")
}

// called is what each drill of the book is called, by its code, as a script has it.
func called() string {
	names := map[string]string{}
	for _, d := range book.Drills() {
		names[d.Code] = d.Name
	}
	text, _ := json.Marshal(names)
	return string(text)
}

// A list of 300 with five bad rows is refused whole, each named; mended it is
// taken over as one change.
func TestAListIsReadInOrRefusedWhole(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	file := filepath.Join(t.TempDir(), "squad.csv")
	write := func(bad map[int]string) {
		text := "\xef\xbb\xbfnumber;first name;last name;position\r\n"
		for n := 1; n <= 300; n++ {
			row, is := bad[n]
			if !is {
				row = fmt.Sprintf("%d;Nova%d;Brisk;Wing", 100+n, n)
			}
			text += row + "\r\n"
		}
		require.NoError(t, os.WriteFile(file, []byte(text), 0o600))
	}
	send := func() {
		b.open("/import?kind=squad&squad=1")
		b.do(chromedp.SetUploadFiles(chromedp.CSS("#file"), []string{file}))
		b.click("#read")
	}
	write(map[int]string{3: "x;Nova3;Brisk;Wing", 40: "140;;Brisk;Wing", 99: "101;Nova99;Brisk;Wing",
		200: "1000;Nova200;Brisk;Wing", 300: "400;" + strings.Repeat("a", 90) + ";Brisk;Wing"})
	send()
	b.until(`document.querySelector("main [role=alert]")`)
	assert.Contains(t, b.text("main [role=alert]"), "5 things are wrong")
	lines := eval[string](b,
		`[...document.querySelectorAll("tbody tr td:first-child")].map(e => e.textContent).join(" ")`)
	assert.Equal(t, "4 41 100 201 301", lines)
	squad, err := p.Keep.Squad(context.Background(), 1, 1)
	require.NoError(t, err)
	assert.Len(t, squad.Players, 31)
	write(nil)
	send()
	b.until(`document.querySelector("#take")`)
	assert.Contains(t, b.text("main h2"), "300 new")
	b.click("#take")
	b.until(`document.querySelector("main")?.innerText.includes("331 players")`)
	b.click("#take-back")
	b.until(`document.querySelector("main").innerText.includes("31 players")`)
}

// A calendar is read in as fixtures; planning one takes it off the list.
func TestAFixtureGetsItsRunIn(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	file := filepath.Join(t.TempDir(), "season.ics")
	require.NoError(t, os.WriteFile(file,
		[]byte("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:a\r\n"+
			"DTSTAMP:20260101T000000Z\r\nDTSTART;TZID=Europe/London:20261219T143000\r\nSUMMARY:Brackwater v "+
			"Holl\r\n inmere\r\nLOCATION:Tidegate\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"),
		0o600))
	b.open("/import?kind=calendar")
	b.do(chromedp.SetUploadFiles(chromedp.CSS("#file"), []string{file}))
	b.click("#read")
	b.until(`document.querySelector("#take")`)
	b.click("#take")
	b.until(`document.querySelector("main")?.innerText.includes("Fixtures without a run-in")`)
	b.click(`a[href^="/sessions/new?fixture="]`)
	b.until(`document.querySelector("#title")?.value == "Brackwater v Hollinmere"`)
	assert.Equal(t, "2026-12-19T14:30", eval[string](b, `document.querySelector("#start").value`))
	assert.Equal(t, "Tidegate", eval[string](b, `document.querySelector("#venue").selectedOptions[0].textContent`))
	b.click("#make")
	b.until(`document.querySelector("#verdict")`)
	b.open("/today")
	assert.NotContains(t, b.text("main"), "Fixtures without a run-in")
	sessions, _, err := p.Boards.Sessions(context.Background(), 1, 10)
	require.NoError(t, err)
	assert.Len(t, sessions, 4)
}

// A physiotherapist rules on the squad's page and changes nothing else; the coach sees what is
// ruled, never why.
func TestARulingIsMadeByMedicalStaff(t *testing.T) {
	base, _ := site(t, true)
	b := newBrowser(t, base)
	b.open("/sign-in")
	b.fill("[name=email]", demo.MedicalEmail)
	b.fill("[name=password]", demo.Password)
	b.click("main button")
	b.until(`location.pathname == "/today"`)
	player := playerNamed(t, "Mara")
	b.open("/squad?ruling=" + player)
	b.click("#rule")
	b.until(`document.querySelector(".problem")`)
	assert.Contains(t, b.text("main"), "Say what it rules")
	b.click("[value=overhead]")
	b.fill("[name=reason]", "a private matter")
	b.click("#rule")
	b.until(`document.querySelector("[role=status]")`)
	assert.Contains(t, b.text("main"), "nothing overhead")
	assert.Contains(t, b.text("main"), "a private matter")
	assert.Equal(t, "403", evalPromise(b,
		`fetch("/ground/kit", {method: "POST", body: new URLSearchParams({name: "x", pieces: "1"})}).then(r => String(r.status))`))

	assert.Equal(t, "403", evalPromise(b,
		`fetch("/sessions/1/blocks/lineout/remove", {method: "POST", body: new URLSearchParams({revision: "1"})}).then(r => String(r.status))`))

	coach := newBrowser(t, base)
	coach.signIn()
	assert.Contains(t, coach.text("main"), "New medical ruling: Mara T.: nothing overhead")
	coach.open("/sessions/1")
	coach.click("#take-rulings")
	coach.until(`!document.querySelector("#take-rulings")`)
	coach.open("/sessions/1?block=high")
	assert.Contains(t, coach.text("#chosen"),
		"Mara T.: Ball drop and catch, 8 catches a side, for High balls: nothing overhead")
	coach.click("#publish")
	coach.click("#publish-now")
	coach.until(`document.querySelector("#share-link")`)
	team := eval[string](coach, `document.querySelector("#share-link").value`)
	coach.open("/sessions/1/links")
	own := eval[string](coach,
		`[...document.querySelectorAll("li input")].find(e => e.ariaLabel.includes("Mara")).value`)
	coach.open(team + "/p15")
	assert.NotContains(t, eval[string](coach, `document.querySelector("main").textContent`), "Ball drop and catch",
		"not on everybody's link")
	coach.open(own)
	assert.Contains(t, eval[string](coach, `document.querySelector("main").textContent`), "Ball drop and catch",
		"her phone says so too")
	coach.open("/squad?player=" + player)
	assert.Contains(t, coach.text("main"), "nothing overhead")
	assert.NotContains(t, eval[string](coach, `document.documentElement.outerHTML`), "private matter")
	assert.Equal(t, "403", evalPromise(coach,
		`fetch("/squad/1/rulings/`+player+`", {method: "POST", body: new URLSearchParams({rules: "jumps", from: "2026-11-25"})}).then(r => String(r.status))`))
	for _, path := range []string{"/export/squad.csv?squad=1", "/export/drills.csv", "/export/fixtures.csv",
		"/sessions/1/plan.json"} {
		got := evalPromise(coach, `fetch("`+path+`").then(async r => r.status + " " + await r.text())`)
		assert.True(t, strings.HasPrefix(got, fmt.Sprint(http.StatusOK)), path)
		assert.NotContains(t, got, "private matter", path)
	}
}

// A club's copy of its sport is what the next run-in is composed by.
func TestTheSportIsTheClubsOwn(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sport")
	b.fill("[name=start]", "First kick")
	rows := func(script string) {
		b.run(`(() => { const rows = [...document.querySelectorAll("#craft [data-row]")]; const set = (row, values) => [...row.querySelectorAll("input, select")].forEach((f, i) => f.value = values[i]); ` +
			script + ` })()`)
	}
	rows(`rows.slice(1).forEach(r => r.querySelector("input").value = ""); set(rows[0], ["Nothing", "Nobody", "No such drill", "must", "", "", ""])`)
	b.click("#save-sport")
	b.until(`document.querySelector("main [role=alert]")`)
	assert.Contains(t, b.text("main"), "who is nobody")
	assert.Contains(t, b.text("main"), "there is no drill")
	b.run(`document.querySelector("#craft button").click()`)
	rows(`rows.slice(0, -1).forEach(r => r.querySelector("input").value = ""); set(rows.at(-1), ["Throws", "Hookers", "throws at a mark", "must", "2", "own", ""])`)
	b.click("#save-sport")
	b.until(`document.querySelector("[role=status]")?.innerText.includes("is saved")`)
	added, err := p.Diary.Add(context.Background(), store.Account{ID: 1, ClubID: 1, Role: store.Coach},
		diary.NewSession{Kind: plan.Match, Title: "x", Start: clock.Start{Local: "2026-12-12T15:00",
			Zone: "Europe/London"}})
	require.NoError(t, err)
	board, err := p.Boards.Board(context.Background(), 1, added.ID)
	require.NoError(t, err)
	assert.Equal(t, "First kick", board.Document.StartName)
	assert.Equal(t, "Throws", board.Document.Block("craft-1").Name)
	assert.Nil(t, board.Document.Block("craft-4"))
}

// What a plan is made of is changed on its board: a block's people and place, its drills, what
// the day holds, and who comes.
func TestABoardIsChangedInAllItsParts(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1?block=lineout")
	open := func(summary string) {
		b.run(fmt.Sprintf(`[...document.querySelectorAll("summary")].find(s => s.textContent.trim() == %q).click()`,
			summary))
	}
	said := func() string {
		session, err := storeOf(t).Sessions.Session(context.Background(), 1, 1)
		require.NoError(t, err)
		return session.Made.Summary
	}
	changes := 0
	after := func(what string) {
		t.Helper()
		changes++
		b.until(fmt.Sprintf(`document.querySelector("[name=revision]")?.value == "%d"`, changes+1))
		assert.Equal(t, what, said())
	}
	open("Name, aim, how many at once")
	b.set("#block-name", "Throws")
	after("Throws changed")
	b.set("#block-said", "line-out, far half, Dorrit Ashby")
	b.until(`document.querySelector("#chosen .problem")?.innerText.includes("Dorrit Ashby")`)
	b.set("#block-said", "line-out, far half, dorrit")
	b.until(`!document.querySelector("#chosen .problem")`)
	changes++
	b.do(chromedp.SendKeys(chromedp.CSS("#say-into"), "throws at a mark 6\n"))
	after("throws at a mark 6")
	b.run(`document.querySelector("#out-0").click()`)
	after("Line-out throws out of Throws")

	b.click("#to-times")
	b.until(`document.querySelector("#fixed-from-toss")`)
	b.set("#fixed-from-toss", "38")
	b.until(`document.querySelector(".problem")?.innerText.includes("ends before it starts")`)
	b.set("#fixed-from-toss", "42:30")
	after("Toss changed")
	b.fill("#fixed-name", "Kit check")
	b.fill("#fixed-from", "@14:12")
	b.fill("#fixed-to", "@14:15")
	b.click("#fixed-add")
	after("Kit check added")

	b.click("#to-")
	b.until(`document.querySelector("#to-[aria-current]")`)
	open("The session")
	b.set("#head-title", "Cup tie")
	after("the session's name, place, method or opening")
	b.set("#head-open", "5")
	b.until(`document.querySelector(".problem")?.innerText.includes("The ground opens at")`)
	b.set("#head-open", "@14:00")
	after("the session's name, place, method or opening")

	b.click("#to-people")
	b.until(`document.querySelector("#late-p7")`)
	b.set("#late-p7", "14:12")
	after("Tamsin O. comes at 14:12")
	b.run(`document.querySelector("#late-p9").form.querySelector("[name=out]").click()`)
	after("Pia L. is out")
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	assert.True(t, board.Schedule.Result.Feasible)
	assert.Nil(t, board.Document.Player("p9"))
	for range changes {
		b.do(chromedp.KeyEvent("z"))
	}
	b.until(`document.querySelector("#undo").disabled`)

	b.do(chromedp.KeyEvent(kb.Escape))
	b.until(`document.querySelector("#drawer-session")`)
	b.click("#drawer-session summary")
	b.until(`document.querySelector('form[action$="/sessions/1/remove"]')`)
	b.run(`document.querySelector('form[action$="/sessions/1/remove"]').requestSubmit()`)
	b.until(`document.querySelector("#restore")`)
	assert.NotContains(t, b.text("main"), "Brackwater v Fellmoor")
	b.click("#restore")
	b.until(`document.querySelector("#verdict")`)
	assert.Contains(t, b.text("#verdict"), "It fits")
}

// A new ground comes with usual zones; somebody who is invited joins with a link that only the
// letter holds, and that is good once.
func TestAGroundAndAnInvitation(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/ground?edit=venue&id=new")
	b.fill("section[aria-label='A new ground'] [name=name]", "Away hall")
	b.click("#save-ground")
	b.until(`document.querySelector("section[aria-label='Away hall'] tbody")?.rows.length == 3`)
	b.open("/staff")
	b.fill("[name=name]", "Odd Fenn")
	b.fill("[name=email]", "odd@brackwater.example")
	b.click("#invite")
	b.until(`document.querySelector("main").innerText.includes("Invited, not here yet")`)
	b.shot("members-1280")
	letters, err := p.Staff.Letters(context.Background())
	require.NoError(t, err)
	link := regexp.MustCompile(`http\S+`).FindString(letters[0].Body)
	assert.NotContains(t, eval[string](b, `document.documentElement.outerHTML`), link)
	other := newBrowser(t, base)
	other.open(link)
	assert.Contains(t, other.text("main"), "assistant")
	other.fill("[name=password]", "three words of mine")
	other.click("main button")
	other.until(`location.pathname == "/today"`)
	other.open(link)
	assert.Contains(t, other.text("main"), "This invitation is over")
}

// Enter in a field does what the field says and nothing else; the last block goes,
// and the plan is built again from nothing.
func TestEnterAndTheLastBlock(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1")
	b.do(chromedp.Clear(chromedp.CSS("#margin")), chromedp.SendKeys(chromedp.CSS("#margin"), "11"+kb.Enter))
	b.until(`document.querySelector("[name=revision]").value == "2"`)
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	assert.Equal(t, 11*60, board.Document.Margin)
	assert.Equal(t, "2026-11-28T15:00", board.Document.Start.Local)

	_, err = p.Boards.Change(context.Background(), store.Account{ID: 1, ClubID: 1, Role: store.Coach}, 1,
		board.Revision, func(d *plan.Document) (string, error) {
			d.Blocks = d.Blocks[:1]
			return "one left", nil
		})
	require.NoError(t, err)
	b.open("/sessions/1?block=raise")
	b.run(`document.querySelector('form[action$="/remove"] button').click()`)
	b.until(`document.querySelector("#build")`)
	assert.Contains(t, b.text("main"), "Nothing is planned yet")
	assert.NotContains(t, b.text("main"), "Look at", "nothing is wrong with what is not there")
	b.click("#build")
	b.until(`document.querySelectorAll(".chart a").length > 5`)
}
