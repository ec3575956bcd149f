package e2e

import (
	"bytes"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/measure"
)

// A club that nobody knows, in feet: from the first page to a published plan of its own list of
// twelve in 25 presses at the most, with its players pasted as they were sent; and what is
// said in feet is in feet on the board, the player's phone, the sheet and the PDF.
func TestAFirstClubFindsItsWay(t *testing.T) {
	base, p := site(t, false)
	presses := 0
	b := newBrowser(t, base)
	press := func(selector string) { t.Helper(); presses++; b.click(selector) }
	b.open("/")
	b.until(`location.pathname == "/welcome"`)
	assert.NotEmpty(t, eval[string](b, `document.querySelector("[name=time_zone]").value`),
		"the browser knows where it is")
	b.shot("welcome")
	for field, value := range map[string]string{"club": "Hollinmere", "squad": "Firsts", "name": "Ada Quill",
		"email": "ada@hollinmere.example", "password": "three words here"} {
		presses++ // into the field
		b.fill("[name="+field+"]", value)
	}
	presses += 3
	b.set("[name=time_zone]", "America/Chicago")
	b.set("[name=sport]", "baseball")
	b.set("[name=units]", "ft")
	press("main .act-first")
	b.until(`location.pathname == "/today"`)
	assert.Contains(t, b.text("main"), "Outfield grass (8 lanes, 165 ft)")
	b.shot("today-empty")

	text, err := os.ReadFile("../book/testdata/squads.json")
	require.NoError(t, err)
	var squads map[string]struct{ Text string }
	require.NoError(t, json.Unmarshal(text, &squads))
	presses++ // the names are pasted
	b.run(fmt.Sprintf(`document.querySelector("#names").value = %q`, squads["baseball"].Text))
	press("#take-names")
	b.until(`document.body.innerText.includes("20 players are in")`)
	press("#count-kit")
	b.until(`document.body.innerText.includes("5 things counted")`)
	press("#first-session")
	b.until(`location.pathname == "/sessions/new"`)
	presses++
	b.fill("[name=title]", "Hollinmere v Brackwater")
	presses++
	b.run(`document.querySelector("[name=from][value=empty]").click()`)
	press("main .act-first")
	presses++ // the list is pasted
	b.until(`document.querySelector("#words")`)
	b.paste("High knees 60 ft x2\nCarioca 60 ft each way\nLeg swings 10 each way\nWalking lunges 10\nBand pull " +
		"aparts 15\nSkips 90 ft x2\nBuild ups 90 ft, 50 70 90 %\n" +
		"Pitchers: long toss 10 each at 60 ft\nInfield: ground balls 8\nJog pole to pole\nOutfield: fly balls " +
		"6\nSprints 30 ft x3")
	b.until(`document.querySelectorAll(".word-is").length == 12`)
	press("#plan-it")
	b.until(`document.querySelector("#board")`)
	b.click("#drawer-holds summary")
	b.until(`document.querySelector("#drawer-holds dl")`)
	board := eval[string](b, `document.querySelector("main").textContent`)
	assert.Contains(t, board, "of 90 ft")
	assert.Contains(t, board, "feet at 90 % and over")
	assert.Contains(t, board, "°F")
	assert.NotRegexp(t, `\d m\b|°C`, board, "nothing is in metres")
	b.shot("first-run-in")
	var id uint64
	_, err = fmt.Sscanf(eval[string](b, "location.pathname"), "/sessions/%d", &id)
	require.NoError(t, err)
	press("#publish")
	b.until(`document.querySelector("#publish-now")`)
	press("#publish-now")
	b.until(`!document.querySelector("#publish-now")`)
	t.Logf("%d presses", presses)
	assert.LessOrEqual(t, presses, 25)
	coach, _, err := p.Staff.AccountByEmail(t.Context(), "ada@hollinmere.example")
	require.NoError(t, err)
	made, err := p.Boards.Board(t.Context(), coach.ClubID, id)
	require.NoError(t, err)
	phone := newBrowser(t, base)
	phone.size(390, 844)
	phone.open(ownLinks(t, p, made)[made.Document.Players[0].ID])
	phone.run(`document.querySelectorAll("details").forEach(d => d.open = true)`)
	assert.Contains(t, phone.text("main"), "60 ft")
	assert.NotRegexp(t, `\d m\b`, phone.text("main"))
	b.open(fmt.Sprintf("/sessions/%d/sheet", id))
	assert.Contains(t, b.text("body"), "60 ft")
	pdf, err := base64.StdEncoding.DecodeString(eval[string](b, `(() => { const x = new XMLHttpRequest(); x.open("GET", location.pathname + ".pdf", false);
		x.overrideMimeType("text/plain; charset=x-user-defined"); x.send(); return btoa([...x.responseText].map(c => String.fromCharCode(c.charCodeAt(0) & 255)).join("")) })()`))
	require.NoError(t, err)
	program := exec.Command("pdftotext", "-", "-")
	program.Stdin = bytes.NewReader(pdf)
	paper, err := program.Output()
	require.NoError(t, err)
	assert.Contains(t, string(paper), "60 ft")
	assert.NotRegexp(t, `\d m\b`, string(paper))

	b.open("/ground")
	b.click(`a[href^="/ground-plan/"]`)
	b.until(`document.querySelector("#laid")?._x_dataStack`)
	assert.NotRegexp(t, `\d m\b|[Mm]etres`, b.text("#laid"))
	b.set("[name^=long-]", "60")
	b.until(`document.querySelector("#laid .ground").textContent.includes("60 ×")`)
	g, err := p.Keep.Ground(t.Context(), coach.ClubID)
	require.NoError(t, err)
	assert.InDelta(t, 60*measure.Foot, g.Venues[0].Zones[0].Is.Lies.Long, 1e-9)
}
