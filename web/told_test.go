package web

import (
	"html"
	"io/fs"
	"maps"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/web/shell"
)

var (
	actionOf  = regexp.MustCompile(`(?s)\{\{.*?\}\}`)
	controlOf = regexp.MustCompile(`(?s)\{\{-?\s*(?:if|else|end|range|with|define|block|template|/\*)\b?.*?\}\}`)
	betweenOf = regexp.MustCompile(`>([^<]+)<|(?:aria-label|title|placeholder|alt)="([^"]+)"`)
	ofNumbers = regexp.MustCompile(`\d+(?:[.:,]\d+)*`)
	lettersOf = regexp.MustCompile(`\pL{3}`)
)

// What the pages of coaches say themselves is said in each other language: of the words of all
// templates at least 96 of 100. What is left are examples, names, and what stands between several of them.
func TestCoachesPagesSpeakSpanish(t *testing.T) {
	es := shell.TongueOf("es")
	all, known := 0, 0
	var missing []string
	require.NoError(t, fs.WalkDir(os.DirFS("."), ".", func(path string, _ fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".html") || strings.HasPrefix(path, "phone/") {
			return err
		}
		file, err := os.ReadFile(path)
		text := actionOf.ReplaceAllString(controlOf.ReplaceAllString(string(file), "\x00"), "Xyzzy")
		for _, m := range betweenOf.FindAllStringSubmatch(text, -1) {
			for _, piece := range strings.Split(m[1]+m[2], "\x00") {
				piece = strings.Join(strings.Fields(piece), " ")
				if !lettersOf.MatchString(strings.ReplaceAll(piece, "Xyzzy", "")) {
					continue
				}
				words := len(strings.Fields(piece))
				if all += words; es.Told(piece) != piece {
					known += words
				} else {
					missing = append(missing, path+": "+piece)
				}
			}
		}
		return err
	}))
	assert.Greater(t, all, 3000)
	assert.GreaterOrEqual(t, float64(known)/float64(all), 0.96, "%d of %d words; missing: %s", known, all,
		strings.Join(missing, "\n"))
}

// A table's sentences have the same numbers and names in each language.
func TestTablesOfCoachesAgree(t *testing.T) {
	for english, other := range shell.Texts("es", "coach") {
		assert.Equal(t, strings.Count(english, "#"), strings.Count(other, "#"), english)
		assert.Equal(t, strings.Count(english, "%s"), strings.Count(other, "%s"), english)
		assert.False(t, ofNumbers.MatchString(strings.ReplaceAll(english, "#", "")), "%q: a number is #", english)
	}
}

// Whatever is put together of pieces, no number and no name is lost in another language, and its marks
// stay what they are.
func TestNothingIsLostInSpanish(t *testing.T) {
	es := shell.TongueOf("es")
	pieces := rapid.SampledFrom(slices.Sorted(maps.Keys(shell.Texts("es", "coach"))))
	rapid.Check(t, func(t *rapid.T) {
		text := strings.Join(rapid.SliceOfN(pieces, 1, 3).Draw(t, "pieces"),
			rapid.SampledFrom([]string{". ", ", ", " · ", " "}).Draw(t, "joint"))
		for n := 11; strings.Contains(text, "#"); n++ {
			text = strings.Replace(text, "#", strconv.Itoa(n), 1)
		}
		text = strings.ReplaceAll(text, "%s", "Orla")
		said := es.Told(text)
		sorted := func(text string) []string {
			all := ofNumbers.FindAllString(text, -1)
			slices.Sort(all)
			return all
		}
		assert.Equal(t, sorted(text), sorted(said), "%q: %q", text, said)
		assert.Equal(t, strings.Count(text, "Orla"), strings.Count(said, "Orla"), "%q: %q", text, said)
		page := "<p title=\"" + html.EscapeString(text) + "\">" + html.EscapeString(text) + "</p>"
		assert.Equal(t, strings.Count(page, "<"), strings.Count(es.Page(page), "<"))
	})
}

// Text and labels are said in the language; names, scripts and what is typed stay as they are.
func TestAPageIsSaidInSpanish(t *testing.T) {
	es := shell.TongueOf("es")
	assert.Equal(t,
		`<p class="Undo" title="Deshacer">Deshacer</p><textarea>Undo</textarea><script>"Undo"</script><b translate="no">Undo<b>Undo</b></b> Deshacer`,
		es.Page(`<p class="Undo" title="Undo">Undo</p><textarea>Undo</textarea><script>"Undo"</script><b translate="no">Undo<b>Undo</b></b> Undo`))
	assert.Equal(t, "<p>\n Cabe y sobran 2:30\n</p>", es.Page("<p>\n It fits with 2:30 spare\n</p>"))
	assert.Equal(t, "<p>Escribir en Bands &amp; ball</p>", es.Page("<p>Write into Bands &amp; ball</p>"))
	assert.Equal(t, `<option>hip</option><option value="hip" selected>cadera</option>`,
		es.Page(`<option>hip</option><option value="hip" selected>hip</option>`), "what is sent stays")
	assert.Equal(t, "<p>Vuelta progresiva</p><p>Mill loop</p>", es.Page("<p>Rising loop</p><p>Mill loop</p>"),
		"the drills of the book, not a club's")
	assert.Equal(t, "<p>Undo</p>", shell.TongueOf("en").Page("<p>Undo</p>"))
}
