package web_test

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"mime/multipart"
	"net/http"
	"net/url"
	"os/exec"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	otherical "github.com/emersion/go-ical"
	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/office"
)

// reached is the demo's match, published: the team's link, and people's own by their ids.
func reached(t *testing.T, p *office.Office, coach *visitor) (team string, own map[string]string, b *boards.Board) {
	return published(t, p, coach, "1")
}

// published is a session of that id, published.
func published(t *testing.T, p *office.Office, coach *visitor,
	session string) (team string, own map[string]string, b *boards.Board) {
	id, err := strconv.ParseUint(session, 10, 64)
	require.NoError(t, err)
	b, err = p.Boards.Board(ctx, 1, id)
	require.NoError(t, err)
	coach.post("/sessions/"+session+"/publish", url.Values{"revision": {itoa(b.Revision)}})
	b, err = p.Boards.Board(ctx, 1, id)
	require.NoError(t, err)
	players, leaders, err := p.Reach.OwnLinks(ctx, b)
	require.NoError(t, err)
	team, own = "/r/"+b.Publication.Token, map[string]string{}
	for _, l := range append(players, leaders...) {
		own[l.Person] = team + l.Path
	}
	return team, own, b
}

// What is said from a phone comes once, to whom it is for: pain to medical staff alone.
func TestWhatIsSaidFromAPhoneComesToWhomItIsFor(t *testing.T) {
	base, p := site(t, "words")
	coach, medical, nobody := visit(t, base, demo.Email), visit(t, base, demo.MedicalEmail), visit(t, base, "")
	team, own, _ := reached(t, p, coach)
	say := func(path string, fields url.Values) int {
		status, _, _ := nobody.post(path+"/say", fields)
		return status
	}
	late := url.Values{"kind": {"late"}, "says": {"14:20"}, "once": {"a1"},
		"pressed": {fmt.Sprint(now.Add(-10 * time.Minute).UnixMilli())}}
	assert.Equal(t, http.StatusNoContent, say(own["p15"], late))
	assert.Equal(t, http.StatusNoContent, say(own["p15"], late), "sent twice")
	assert.Equal(t, http.StatusNoContent,
		say(own["p15"], url.Values{"kind": {"pain"}, "says": {"knee, left"}, "once": {"a2"}, "pressed": {"1"}}))
	assert.Equal(t, http.StatusNoContent,
		say(team+"/p10", url.Values{"kind": {"sore"}, "says": {"calf, right"}, "once": {"a3"}}))
	for _, wrong := range []url.Values{{"kind": {"king"}, "once": {"x"}}, {"kind": {"late"}},
		{"kind": {"late"}, "once": {"x"}, "says": {strings.Repeat("x", 5000)}}} {
		assert.Equal(t, http.StatusUnprocessableEntity, say(own["p15"], wrong))
	}
	assert.Equal(t, http.StatusNotFound, say(strings.Replace(own["p15"], "/p15/", "/p14/", 1), late),
		"a key is one person's")
	seen := words(page(t, coach, "/sessions/1/told"))
	assert.Equal(t, 1, strings.Count(seen, "will be there at 14:20"))
	assert.Contains(t, seen, "10:32 Mara T. will be there", "as of when it was pressed")
	assert.Contains(t, seen, "Mara Tolland wants to see medical staff before going on")
	assert.NotContains(t, seen, "knee", "what hurts is for medical staff")
	assert.Contains(t, seen, "tight: calf, right (by the team's link)")
	found := regexp.MustCompile(`/hurt/\d+`).FindString(page(t, medical, "/sessions/1/told"))
	assert.NotContains(t, page(t, medical, "/sessions/1/told"), "knee", "it is read one by one")
	assert.Contains(t, words(page(t, medical, found)), "knee, left")
	assert.NotContains(t, page(t, coach, found), "knee")
	stranger := visit(t, base, stranger)
	for _, path := range []string{"/sessions/1/told", "/sessions/1/live", "/sessions/1/links", "/sessions/1/codes",
		"/sessions/1/sheet.pdf", "/sessions/1/cards.pdf", "/sessions/1/handout", "/sessions/1/board.svg",
		"/sessions/1/plan.csv", "/sessions/1/publish"} {
		status, _, _ := stranger.get(path)
		assert.Equal(t, http.StatusNotFound, status, path)
	}
	told := page(t, coach, "/sessions/1/told")
	for _, id := range regexp.MustCompile(`/words/(\d+)`).FindAllStringSubmatch(told, -1) {
		coach.post("/sessions/1/words/"+id[1], url.Values{"plan": {"yes"}})
	}
	assert.NotContains(t, words(page(t, coach, "/sessions/1/told")), "14:20")
	assert.Contains(t, words(page(t, medical, "/sessions/1/told")), "Mara Tolland wants to see", "until it is answered")
	status, _, _ := coach.post(found, url.Values{"answer": {"on"}})
	assert.Equal(t, http.StatusForbidden, status)
	status, _, _ = medical.post(found, url.Values{"answer": {"on"}})
	assert.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, page(t, medical, "/sessions/1/told"), "Mara Tolland")
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	assert.NotZero(t, b.Document.Player("p15").Late)
}

// A link is renewed and withdrawn by person, and for a season leads on to the next
// session; a calendar learns of what was called off.
func TestLinksAreRenewedAndLeadOn(t *testing.T) {
	base, p := site(t, "renewed")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	team, own, b := reached(t, p, coach)
	status := func(path string) int { status, _, _ := nobody.get(path); return status }
	coach.post("/sessions/1/links/p15", nil)
	assert.Equal(t, http.StatusNotFound, status(own["p15"]), "renewed: the old one is no good")
	assert.Equal(t, http.StatusOK, status(own["p10"]))
	_, again, _ := reached(t, p, coach)
	assert.Equal(t, http.StatusOK, status(again["p15"]))
	coach.post("/sessions/1/links/l-pell", url.Values{"gone": {"yes"}})
	assert.Equal(t, http.StatusNotFound, status(own["l-pell"]))
	assert.Contains(t, page(t, coach, "/sessions/1/links"), "link withdrawn")

	coach.post("/sessions/1/season", url.Values{"season": {"yes"}})
	next, err := p.Boards.Board(ctx, 1, 2)
	require.NoError(t, err)
	coach.post("/sessions/2/publish", url.Values{"revision": {itoa(next.Revision)}})
	at := b.Schedule.Start.Add(26 * time.Hour)
	p.Now = func() time.Time { return at }
	if next.Schedule.Start.After(at) {
		assert.Contains(t, page(t, nobody, team), next.Document.Title, "the squad's next session")
	} else {
		assert.Equal(t, http.StatusOK, status(team), "good all season")
	}
	p.Now = func() time.Time { return now }
	feed := func() *otherical.Calendar {
		_, text, _ := nobody.get(again["p15"] + "/calendar.ics")
		read, err := otherical.NewDecoder(strings.NewReader(text)).Decode()
		require.NoError(t, err, text)
		return read
	}
	states := func() (states []string) {
		for _, e := range feed().Events() {
			state, err := e.Status()
			require.NoError(t, err)
			from, err := e.DateTimeStart(time.UTC)
			require.NoError(t, err)
			assert.Equal(t, "Europe/London", from.Location().String())
			states = append(states, string(state)+" "+e.Props.Get("SEQUENCE").Value)
		}
		return states
	}
	before := states()
	assert.Contains(t, before, "CONFIRMED 2")
	removed, text, _ := coach.post("/sessions/1/remove", nil)
	require.Equal(t, http.StatusSeeOther, removed, problemIn(text))
	assert.Contains(t, states(), "CANCELLED 2")
}

// Files are opened by other makers' programs: QR codes are read, papers have embedded
// letters and tags and say what the plan says.
func TestOtherProgramsReadWhatIsSaved(t *testing.T) {
	base, p := site(t, "files")
	coach := visit(t, base, demo.Email)
	team, own, b := reached(t, p, coach)
	codes := page(t, coach, "/sessions/1/codes")
	read := map[string]bool{}
	for _, found := range regexp.MustCompile(`(?s)viewBox="0 0 (\d+) \d+".*?<path d="([^"]+)"`).FindAllStringSubmatch(codes,
		-1) {
		read[strings.TrimPrefix(decoded(t, found[1], found[2]), base)] = true
	}
	assert.Len(t, read, len(own)+1)
	for _, link := range append([]string{team}, own["p15"], own["l-pell"]) {
		assert.True(t, read[link], link)
	}
	for path, says := range map[string][]string{
		"sheet.pdf": {"Scrum sets: 5 sets", "If there is less time", "No collapse is saved"},
		"sheet.pdf?cues=yes&by=place": {"Far half", "Say Same steps. Eyes on the seam.",
			"Look for Skips the hard side."},
		"sheet.pdf?by=leader&paper=Letter": {"Dorrit", "Pell"},
		"cards.pdf":                        {"15 Mara Tolland", "2 in each of 5 places"},
		"handout.pdf":                      {"Each angle is tried before it counts", "Toes straight. Band never slack"},
	} {
		_, file, _ := coach.get("/sessions/1/" + path)
		text := outside(t, file, "pdftotext", "-", "-")
		for _, one := range says {
			assert.Contains(t, strings.Join(strings.Fields(text), " "), one, path)
		}
		fonts := strings.Split(strings.TrimSpace(outside(t, file, "pdffonts", "-")), "\n")[2:]
		assert.NotEmpty(t, fonts)
		for _, font := range fonts {
			assert.Regexp(t, `\syes\s+\w+\s+yes\s`, font, "embedded, and its letters can be searched for")
		}
		info := outside(t, file, "pdfinfo", "-")
		assert.Regexp(t, `Tagged:\s+yes`, info)
		assert.Less(t, len(file), 500_000)
	}
	_, text, _ := coach.get("/sessions/1/plan.csv")
	assert.Equal(t, strings.Count(text, "\r\n"), strings.Count(strings.TrimSpace(text), "\n")+1)
	for _, block := range b.Blocks {
		if block.Kept {
			assert.Contains(t, text, block.Name)
		}
	}
}

// outside hands a file to another program and returns what it says.
func outside(t *testing.T, file string, name string, args ...string) string {
	command := exec.Command(name, args...)
	command.Stdin = strings.NewReader(file)
	var wrong bytes.Buffer
	command.Stderr = &wrong
	out, err := command.Output()
	require.NoError(t, err, wrong.String())
	assert.Empty(t, wrong.String(), "without a warning")
	return string(out)
}

// decoded draws a QR code's path and has it read.
func decoded(t *testing.T, size, path string) string {
	var side, x, y, wide int
	fmt.Sscan(size, &side)
	const scale = 6
	drawn := image.NewGray(image.Rect(0, 0, side*scale, side*scale))
	for i := range drawn.Pix {
		drawn.Pix[i] = 255
	}
	for _, run := range strings.Split(strings.TrimSuffix(path, "z"), "z") {
		_, err := fmt.Sscanf(run, "M%d %dh%dv1", &x, &y, &wide)
		require.NoError(t, err, run)
		for i := x * scale; i < (x+wide)*scale; i++ {
			for j := y * scale; j < (y+1)*scale; j++ {
				drawn.SetGray(i, j, color.Gray{})
			}
		}
	}
	bits, err := gozxing.NewBinaryBitmapFromImage(drawn)
	require.NoError(t, err)
	result, err := qrcode.NewQRCodeReader().Decode(bits,
		map[gozxing.DecodeHintType]any{gozxing.DecodeHintType_PURE_BARCODE: true})
	require.NoError(t, err)
	return result.GetText()
}

// A preview says what publishing changes for whom, and changes nothing itself.
func TestAPreviewSaysWhatPublishingChanges(t *testing.T) {
	base, p := site(t, "preview")
	coach := visit(t, base, demo.Email)
	assert.Contains(t, words(page(t, coach, "/sessions/1/publish")), "Nothing is published yet.")
	_, own, b := reached(t, p, coach)
	_, err := p.Boards.Change(ctx, planner.Account{ID: 1, ClubID: 1, Role: planner.Coach}, 1, b.Revision,
		func(d *plan.Document) (string, error) { return d.SetDose("high", 0, 5) })
	require.NoError(t, err)
	says := words(page(t, coach, "/sessions/1/publish"))
	assert.Contains(t, says, "What changes since plan 1")
	assert.Contains(t, says, "15 Mara Tolland")
	assert.Contains(t, says, "5 catches (2 fewer)")
	assert.Contains(t, says, "8 Hester Quillfeather as said above")
	nobody := visit(t, base, "")
	assert.Contains(t, words(page(t, nobody, own["p15"])), "7 catches", "players never see a draft")
	status, update, _ := nobody.get(own["p15"] + "/update?have=1")
	assert.Equal(t, http.StatusOK, status)
	assert.Regexp(t, `^{"now":\d+}$`, update)
}

// A club's own picture of a drill is on the phones of its players, without what the
// camera wrote into it; what is no picture is said so.
func TestAPictureIsKeptWithoutWhereItWasTaken(t *testing.T) {
	base, p := site(t, "picture")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	team, own, _ := reached(t, p, coach)
	var drawn bytes.Buffer
	require.NoError(t, jpeg.Encode(&drawn, image.NewRGBA(image.Rect(0, 0, 1800, 1200)), nil))
	place := "GPS 51.5, -0.1"
	file := append([]byte{0xff, 0xd8, 0xff, 0xe1, 0, byte(2 + len(place))},
		append([]byte(place), drawn.Bytes()[2:]...)...)
	send := func(file []byte) int {
		var body bytes.Buffer
		form := multipart.NewWriter(&body)
		part, err := form.CreateFormFile("picture", "x.jpg")
		require.NoError(t, err)
		part.Write(file)
		require.NoError(t, form.Close())
		answer, err := coach.http.Post(base+"/drills/kicks-at-posts/picture", form.FormDataContentType(), &body)
		require.NoError(t, err)
		defer answer.Body.Close()
		return answer.StatusCode
	}
	assert.Equal(t, http.StatusUnprocessableEntity, send([]byte("<svg onload=alert(1)>")))
	assert.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, send(file))
	mine := page(t, nobody, own["p15"])
	at := regexp.MustCompile(`src="(/r/[^"]+/picture/kicks-at-posts\?\w+)"`).FindStringSubmatch(mine)
	require.NotNil(t, at)
	status, kept, _ := nobody.get(at[1])
	assert.Equal(t, http.StatusOK, status)
	assert.NotContains(t, kept, "GPS")
	size, _, err := image.DecodeConfig(strings.NewReader(kept))
	require.NoError(t, err)
	assert.Equal(t, []int{900, 600}, []int{size.Width, size.Height})
	status, _, _ = nobody.get(team + "/picture/skips")
	assert.Equal(t, http.StatusNotFound, status)
	status, _, _ = visit(t, base, stranger).get("/drills/kicks-at-posts/picture.jpg")
	assert.Equal(t, http.StatusNotFound, status, "another club's")
	coach.post("/drills/kicks-at-posts/picture", url.Values{"gone": {"yes"}})
	status, _, _ = nobody.get(at[1])
	assert.Equal(t, http.StatusNotFound, status)
}

// A leader has who is theirs, what to say and to look for, the grid, who does what
// otherwise without why, and who is late; assistants less. Strangers have none of it.
func TestALeaderHasWhatALeaderNeeds(t *testing.T) {
	base, p := site(t, "leading")
	coach, medical, nobody := visit(t, base, demo.Email), visit(t, base, demo.MedicalEmail), visit(t, base, "")
	_, own, b := reached(t, p, coach)
	player := b.Document.Player("p14")
	status, text, _ := medical.post("/squad/1/rulings/"+id(player.Roster),
		url.Values{"rules": {"overhead"}, "from": {"2026-11-20"}, "reason": {"secret strain"}})
	require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	nobody.post(own["p11"]+"/say", url.Values{"kind": {"late"}, "says": {"14:25"}, "once": {"q"}})
	pell := words(page(t, nobody, own["l-pell"]))
	for _, says := range []string{"Pell leads", "Kickers 10 15", "Say Same steps. Eyes on the seam.",
		"Look for Skips the hard side.", "left touch", "Amara F. · 14:25", "Rosamund A. does", "instead of High balls",
		"Next place"} {
		if says == "Next place" {
			continue // both of his places are the same
		}
		assert.Contains(t, pell, says)
	}
	for _, never := range []string{"secret", "overhead", "Scrum"} {
		assert.NotContains(t, pell, never)
	}
	less := words(page(t, nobody, own["l-pell"]+"?show=simple"))
	assert.NotContains(t, less, "Look for")
	assert.Contains(t, less, "Say Same steps")
	assert.NotContains(t, words(page(t, nobody, own["l-runa"])), "Look for", "an assistant has less from the first")
	assert.Contains(t, words(page(t, nobody, own["l-runa"]+"?show=all")), "Look for")
	es := words(page(t, nobody, own["l-pell"]+"?show=all&lang=es"))
	for _, says := range []string{"Pell dirige", "Di Los mismos pasos", "Fíjate en Se salta el lado difícil",
		"otra vez", "sáb 28 nov"} {
		assert.Contains(t, es, says)
	}
	assert.Contains(t, words(page(t, nobody, own["p15"])), "Paso a paso", "the language that was picked stays")
	_, feed, _ := nobody.get(own["l-pell"] + "/calendar.ics")
	assert.Contains(t, feed, "High balls")
	assert.NotContains(t, feed, "Scrum")
}

// The wall, the script that keeps a page and the manifest hold nothing of a person.
func TestWhatEverybodyMayOpen(t *testing.T) {
	base, p := site(t, "open")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	team, own, b := reached(t, p, coach)
	wall := page(t, nobody, team+"/wall")
	assert.Contains(t, wall, "Line-out")
	assert.NotContains(t, wall, b.Document.Players[0].Last, "first names and numbers are enough")
	keeper := page(t, nobody, "/r/keeper.js")
	for _, file := range regexp.MustCompile(`"(/assets/[^"]+)"`).FindAllStringSubmatch(keeper, -1) {
		status, _, _ := nobody.get(file[1])
		assert.Equal(t, http.StatusOK, status, file[1])
	}
	assert.Contains(t, page(t, nobody, own["p15"]+"/manifest.webmanifest"), `"start_url":"`+own["p15"]+`"`)
	for _, path := range []string{team, team + "/wall", own["p15"], own["l-pell"], own["p15"] + "/calendar.ics",
		own["p15"] + "/update?have=0", own["p15"] + "/manifest.webmanifest"} {
		answer, err := nobody.http.Get(base + path)
		require.NoError(t, err)
		answer.Body.Close()
		for header, value := range map[string]string{"X-Robots-Tag": "noindex", "Cache-Control": "no-store",
			"Referrer-Policy": "no-referrer"} {
			assert.Equal(t, value, answer.Header.Get(header), path)
		}
	}
	head, err := nobody.http.Head(base + own["p15"] + "/live")
	require.NoError(t, err)
	head.Body.Close()
	assert.Equal(t, "text/event-stream", head.Header.Get("Content-Type"), "asked for its head alone, it does not go on")
}
