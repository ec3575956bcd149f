package share_test

import (
	"bytes"
	"fmt"
	"os/exec"
	"strings"
	"testing"
	"time"

	"github.com/pdfcpu/pdfcpu/pkg/api"
	"github.com/pdfcpu/pdfcpu/pkg/pdfcpu/model"
	"github.com/pdfcpu/pdfcpu/pkg/pdfcpu/types"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/figure"
	"cuestart/share"
)

var printed = time.Date(2026, 11, 25, 10, 42, 0, 0, time.UTC)

// opened is a paper as another program opens it.
func opened(t *testing.T, p *share.Paper) *model.Context {
	file, err := p.PDF()
	require.NoError(t, err)
	config := model.NewDefaultConfiguration()
	config.ValidationMode = model.ValidationRelaxed
	ctx, err := api.ReadValidateAndOptimize(bytes.NewReader(file), config)
	require.NoError(t, err)
	return ctx
}

// kinds are the elements of a paper's structure, in the order in which it is read.
func kinds(t *testing.T, ctx *model.Context, of types.Object) (all []string) {
	of, err := ctx.Dereference(of)
	require.NoError(t, err)
	switch is := of.(type) {
	case types.Array:
		for _, one := range is {
			all = append(all, kinds(t, ctx, one)...)
		}
	case types.Dict:
		if kind := is.NameEntry("S"); kind != nil {
			all = append(all, *kind)
		}
		if kids, ok := is.Find("K"); ok {
			all = append(all, kinds(t, ctx, kids)...)
		}
	}
	return all
}

func structure(t *testing.T, p *share.Paper) string {
	ctx := opened(t, p)
	catalog, err := ctx.Catalog()
	require.NoError(t, err)
	root, ok := catalog.Find("StructTreeRoot")
	require.True(t, ok)
	marked, err := ctx.DereferenceDict(catalog["MarkInfo"])
	require.NoError(t, err)
	assert.Equal(t, true, *marked.BooleanEntry("Marked"))
	return strings.Join(kinds(t, ctx, root), " ")
}

func TestAPaperIsReadInItsOrder(t *testing.T) {
	p := share.NewPaper("Sheet", share.Language{Code: "en"}, share.A4, "", printed)
	p.Heading(1, "Sheet", "15:00")
	p.Text(share.Line{Text: "As of today"})
	p.Table([]share.Column{{Head: "What", Share: 1}, {Head: "Dose", Share: 2, Right: true}},
		[][]share.Cell{{{{Text: "Jog", Bold: true}}, {{Text: "4 lengths"}}}})
	assert.Equal(t, "Document H1 P P Table TR TH TH TR TD TD", structure(t, p))
}

// A table that is longer than a page goes on on the next one, under its heading again; no
// row is parted.
func TestALongTableGoesOn(t *testing.T) {
	var rows [][]share.Cell
	for n := range 120 {
		rows = append(rows, []share.Cell{{{Text: fmt.Sprint("Row ", n)}},
			{{Text: strings.Repeat("long words ", 20)}, {Text: "and a caution", Bold: true}}})
	}
	for _, size := range []share.PaperSize{share.A4, share.Letter} {
		p := share.NewPaper("Long", share.Language{Code: "en"}, size, "foot", printed)
		p.Table([]share.Column{{Head: "What", Share: 1}, {Head: "Words", Share: 3}}, rows)
		ctx := opened(t, p)
		assert.Greater(t, ctx.PageCount, 3, size)
		catalog, err := ctx.Catalog()
		require.NoError(t, err)
		all := kinds(t, ctx, catalog["StructTreeRoot"])
		heads, cells := 0, 0
		for _, kind := range all {
			switch kind {
			case "TH":
				heads++
			case "TD":
				cells++
			}
		}
		assert.Equal(t, 2*ctx.PageCount, heads)
		assert.Equal(t, 240, cells)
	}
}

// Eight cards are a page, in letters small enough that each list is on one card; what is
// too long for any goes on on the next one.
func TestCardsAreEightAPage(t *testing.T) {
	cards := func(n, lines int) *share.Paper {
		var all []share.Card
		for i := range n {
			c := share.Card{Head: fmt.Sprint("Player ", i), Sub: "A v B"}
			for k := range lines {
				c.Lines = append(c.Lines, share.Line{Text: fmt.Sprint("Line ", k)})
			}
			all = append(all, c)
		}
		p := share.NewPaper("Cards", share.Language{Code: "en"}, share.A4, "", printed)
		p.Cards(all)
		return p
	}
	for _, c := range []struct{ players, lines, pages int }{{1, 3, 1}, {8, 12, 1}, {9, 12, 2}, {8, 24, 1}, {4, 40, 1},
		{8, 40, 2}} {
		assert.Equal(t, c.pages, opened(t, cards(c.players, c.lines)).PageCount, "%d players, %d lines", c.players,
			c.lines)
	}
	assert.Equal(t, "Document Sect H2 P P Sect H2 P P", structure(t, cards(2, 2)))
}

func TestLongNamesAndOddLettersFit(t *testing.T) {
	p := share.NewPaper("Zürich′s “end” – ß", share.Language{Code: "en"}, share.A4, "", printed)
	p.Heading(1, strings.Repeat("Unbreakable", 30), "15:00")
	p.Heading(2, "", "")
	p.Text(share.Line{Text: "Ďáblík, Łukasz, 李, 38′30″"}, share.Line{})
	p.Table([]share.Column{{Head: "", Share: 1}}, nil)
	assert.Equal(t, 1, opened(t, p).PageCount)
}

func TestALinkThatIsTooLongIsNoCode(t *testing.T) {
	code, err := share.QR("https://cue.example/r/" + strings.Repeat("a", 43))
	require.NoError(t, err)
	assert.Greater(t, code.Size, 25)
	assert.Regexp(t, `^M4 4h7v1h-7z`, code.Path, "the corner mark, behind the quiet zone")
	_, err = share.QR(strings.Repeat("a", 9000))
	assert.ErrorContains(t, err, "too long")
}

// An appointment is told with the clock of its place, also where the clocks change
// between two of them.
func TestAnAgendaKnowsTheClock(t *testing.T) {
	london, err := time.LoadLocation("Europe/London")
	require.NoError(t, err)
	made := time.Date(2026, 3, 1, 9, 0, 0, 0, time.UTC)
	winter := share.Appointment{UID: "a", Sequence: 1, From: time.Date(2026, 3, 28, 14, 0, 0, 0, london),
		To: time.Date(2026, 3, 28, 15, 0, 0, 0, london), Made: made, Summary: "Winter, 15:00",
		Location: "Tidegate; the far end"}
	summer := winter
	summer.UID, summer.Summary, summer.Cancelled = "b", "Summer", true
	summer.From, summer.To = summer.From.AddDate(0, 0, 7), summer.To.AddDate(0, 0, 7)
	text := share.WriteAgenda("Run-in", []share.Appointment{winter, summer})
	for _, says := range []string{"DTSTART;TZID=Europe/London:20260328T140000",
		"DTSTART;TZID=Europe/London:20260404T140000", "TZOFFSETTO:+0100", "STATUS:CONFIRMED", "STATUS:CANCELLED",
		"SEQUENCE:1",
		"TRIGGER:-PT30M", `LOCATION:Tidegate\; the far end`, "DTSTART:20260329T010000"} {
		assert.Contains(t, text, says)
	}
	assert.Equal(t, 1, strings.Count(text, "BEGIN:VALARM"), "nobody is reminded of what is called off")
	rows, wrong, err := share.ReadCalendar([]byte(text), "UTC", made, made.AddDate(1, 0, 0))
	require.NoError(t, err)
	assert.Empty(t, wrong)
	require.NotEmpty(t, rows)
	assert.Equal(t, "2026-03-28T14:00", rows[0].Is.Start.Local, "we read what we write")
}

// Whatever is written into an appointment, no line of the calendar begins with it.
func TestAnAgendaHasNoLinesOfOthers(t *testing.T) {
	at := time.Date(2026, 3, 28, 14, 0, 0, 0, time.UTC)
	for _, end := range []string{"\r\n", "\r", "\n", "\u2028", "\x00\n", "\x0b", "\u0085"} {
		evil := "Cup" + end + "ATTENDEE:mailto:x@evil.example" + end + "END:VEVENT"
		text := share.WriteAgenda("Run-in",
			[]share.Appointment{{UID: "a", From: at, To: at.Add(time.Hour), Made: at, Summary: evil, Description: evil,
				Location: evil}})
		ends := 0
		for _, line := range strings.FieldsFunc(text,
			func(r rune) bool { return strings.ContainsRune("\r\n\u2028\u2029\x0b\u0085", r) }) {
			assert.False(t, strings.HasPrefix(line, "ATTENDEE"), "%q", end)
			if line == "END:VEVENT" {
				ends++
			}
		}
		assert.Equal(t, 1, ends, "%q", end)
	}
}

// A row, or a paragraph, that is taller than a page goes on on the next one, to its last word.
func TestARowTallerThanAPageGoesOn(t *testing.T) {
	long := []share.Line{}
	for n := range 200 {
		long = append(long, share.Line{Text: fmt.Sprint("cue number ", n)})
	}
	p := share.NewPaper("Tall", share.Language{Code: "en"}, share.A4, "foot", printed)
	p.Table([]share.Column{{Head: "What", Share: 1}, {Head: "Words", Share: 3}},
		[][]share.Cell{{{{Text: "Row"}}, long}, {{{Text: "Next"}}, {{Text: "short"}}}})
	p.Text(share.Line{Text: strings.Repeat("many words ", 3000) + "finis"})
	file, err := p.PDF()
	require.NoError(t, err)
	program := exec.Command("pdftotext", "-", "-")
	program.Stdin = bytes.NewReader(file)
	text, err := program.Output()
	require.NoError(t, err)
	for _, says := range []string{"cue number 0", "cue number 100", "cue number 199", "Next", "finis"} {
		assert.Contains(t, string(text), says)
	}
}

// A figure stands beside the lines that follow it: these go to the right of it, and the
// next one begins below it.
func TestFiguresStandBesideTheirLines(t *testing.T) {
	squat := book.Figure("air-squat").Still()
	made := func(picture *figure.Picture) *share.Paper {
		p := share.NewPaper("Drills", share.Language{Code: "en"}, share.A4, "", printed)
		var rows [][]share.Cell
		for n := range 16 {
			rows = append(rows, []share.Cell{{{Text: fmt.Sprintf("Drill %d", n), Bold: true, Picture: picture,
				Wide: 18}, {Text: "8 reps"}}, {{Text: "Heels down"}}})
		}
		p.Table([]share.Column{{Head: "Drill", Share: 2}, {Head: "Say", Share: 1}}, rows)
		return p
	}
	plain, drawn := opened(t, made(nil)), opened(t, made(squat))
	assert.Equal(t, 1, plain.PageCount)
	assert.Equal(t, 2, drawn.PageCount, "sixteen figures of 18 mm need a second page")
	assert.NotContains(t, structure(t, made(squat)), "Figure", "what they show is said beside them")
	p := made(squat)
	file, err := p.PDF()
	require.NoError(t, err)
	assert.Less(t, len(file), 80_000)
	dashed := &figure.Picture{Box: figure.Box{Left: 0, Right: 10, Top: 10},
		Strokes: []figure.Stroke{{Tone: figure.Flare, Width: 1, Points: []figure.Point{{X: 1, Y: 1}, {X: 9, Y: 9}},
			Dashed: true}, {Tone: figure.Ink, Points: []figure.Point{{X: 5, Y: 5}}, Radius: 3}}}
	opened(t, made(dashed))
}
