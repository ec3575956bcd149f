package web_test

import (
	"context"
	"html"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/demo"
)

// What is no figure, or what no body does, is said at the field, and nothing that was
// written is lost; what a club draws reaches everybody and comes back from a file.
func TestAFigureIsDrawnReadAndRefused(t *testing.T) {
	base, p := site(t, "figures")
	coach, physio := visit(t, base, demo.Email), visit(t, base, demo.MedicalEmail)
	at := "/drills/skips/figure"
	for sent, says := range map[string]string{
		`{"poses":[{"leg":[0,200]}]}`:                      "the knee does -8 to 160 degrees, not 200",
		`{"poses":[` + strings.Repeat(`{},`, 999) + `{}]}`: "a figure has 1 to 4 poses, not 1000",
		`{"poses":[{"lean":NaN}]}`:                         "this is no figure",
		`{"poses":[{"leg":[1,2,3,4]}]}`:                    "a leg has a thigh, a shank and a foot",
		`{"poses":[{"wings":[1]}]}`:                        "unknown field",
		`{}`:                                               "a figure has 1 to 4 poses, not 0",
		`{"view":"above"}`:                                 "from above there are 1 to 6 ways",
		strings.Repeat(`[`, 70_000):                        "longer than a figure",
		`{"poses":[{}],"not_so":[{"pose":{},"joint":"x","says":"y"}]}`: "is no joint",
	} {
		for _, to := range []string{at + "/try", at} {
			status, text, _ := coach.post(to, url.Values{"do": {"text"}, "text": {sent}, "figure": {sent}})
			require.Contains(t, []int{http.StatusOK, http.StatusUnprocessableEntity}, status, sent[:min(40, len(sent))])
			assert.Contains(t, words(text), says)
			assert.Contains(t, html.UnescapeString(text), sent[:min(60, len(sent))], "what was written stays")
		}
	}
	// A number beyond the body, and too many words, bring a sentence; the drawing goes on.
	status, text, _ := coach.post(at+"/try", url.Values{"figure": {`{"poses":[{"leg":[10,20]}]}`}, "at": {"0"},
		"fields": {"yes"}, "do": {"fields"}, "leg1": {"400"}, "lean": {"x"}})
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, words(text), "the knee does -8 to 160 degrees, not 400")
	assert.Contains(t, html.UnescapeString(text), `"leg":[10,160,`)
	for _, wild := range []url.Values{{"do": {"drag"}, "joint": {"hand"}, "x": {"NaN"}, "y": {"1e999"}},
		{"do": {"drag"}, "joint": {"tail"}, "x": {"1"}, "y": {"1"}}, {"do": {"add"}, "at": {"-3"}},
		{"do": {"remove"}, "go": {"77"}}, {"do": {"like"}, "like": {"nothing"}}, {"do": {"nonsense"}}} {
		wild.Set("figure", `{"poses":[{}]}`)
		status, _, _ := coach.post(at+"/try", wild)
		assert.Equal(t, http.StatusOK, status, wild.Encode())
	}
	status, _, _ = physio.post(at, url.Values{"figure": {`{"poses":[{}]}`}})
	assert.Equal(t, http.StatusForbidden, status)
	status, _, _ = coach.post("/drills/no-such/figure", url.Values{"figure": {`{"poses":[{}]}`}})
	assert.Equal(t, http.StatusNotFound, status)

	own := `{"view":"front","poses":[{"leg":[20,4],"arm":[120,10]}],"not_so":[{"pose":{"lean":20},"joint":"neck","says":"head drops"}]}`
	status, text, _ = coach.post(at, url.Values{"figure": {own}, "edition": {"0"}})
	require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	assert.Contains(t, words(page(t, coach, "/drills?drill=skips")), "Not like this: head drops")
	assert.Equal(t, own, page(t, coach, at+".json"))
	assert.Contains(t, page(t, coach, at+".svg"), `<svg xmlns="http://www.w3.org/2000/svg"`)
	file := page(t, coach, "/export/drills.csv")
	assert.Contains(t, file, strings.ReplaceAll(own, `"`, `""`))
	status, text, _ = coach.post(at, url.Values{"figure": {`{"poses":[{}]}`}, "edition": {"99"}})
	assert.Equal(t, http.StatusConflict, status, problemIn(text))
	who, _, err := p.Staff.AccountByEmail(context.Background(), demo.Email)
	require.NoError(t, err)
	bk, err := p.Books.Book(context.Background(), who.ClubID)
	require.NoError(t, err)
	skips, _ := bk.Find("skips")
	skips.Cues = []string{"Other words"}
	require.NoError(t, p.Books.SaveDrill(context.Background(), who, club.Drill{Drill: skips}, 0))
	assert.Equal(t, own, page(t, coach, at+".json"), "other words leave it as it is drawn")

	status, _, _ = coach.post(at, url.Values{"do": {"none"}})
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = coach.get(at + ".json")
	assert.Equal(t, http.StatusNotFound, status)
	status, _, _ = coach.post(at, url.Values{"do": {"book"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotEqual(t, own, page(t, coach, at+".json"))
}

// What the drill book finds prints as a list and as a poster, for who is signed in alone;
// nothing found is said.
func TestTheBookPrintsWhatItFinds(t *testing.T) {
	base, _ := site(t, "printed")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	at := "/drills/handout?phase=activate&kit=none"
	listed := words(page(t, coach, at))
	assert.Contains(t, listed, "Squat, hands ahead 8 reps Heels down. Sit between the knees.")
	assert.NotContains(t, listed, "Band side-walk", "it needs a band")
	assert.Contains(t, listed, "Not like this: heels lift")
	poster := page(t, coach, at+"&poster=yes")
	assert.NotContains(t, words(poster), "Sit between the knees.", "a poster has the figures alone")
	assert.Contains(t, poster, `aria-label="Squat, hands ahead: Heels down; Sit between the knees"`,
		"but says them to who does not see")
	assert.Contains(t, html.UnescapeString(poster), `href="?kit=none&phase=activate"`, "and leads back to the list")
	for _, file := range []string{"/drills/handout.pdf?phase=activate", "/drills/handout.pdf?q=hip&paper=Letter",
		"/drills/handout.pdf?sport=every"} {
		assert.True(t, strings.HasPrefix(page(t, coach, file), "%PDF-"), file)
	}
	assert.Contains(t, words(page(t, coach, "/drills/handout?q=nothing+is+called+so")), "No drill fits all of that")
	for _, path := range []string{at, "/drills/handout.pdf", "/drills/air-squat/figure",
		"/drills/air-squat/figure.svg"} {
		status, _, to := nobody.get(path)
		assert.Equal(t, http.StatusSeeOther, status, path)
		assert.True(t, strings.HasPrefix(to, "/sign-in"), to)
	}
	status, _, _ := visit(t, base, demo.MedicalEmail).get("/drills/air-squat/figure")
	assert.Equal(t, http.StatusForbidden, status, "medical staff do not draw")
}
