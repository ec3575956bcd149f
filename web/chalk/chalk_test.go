package chalk_test

import (
	"encoding/xml"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/figure"
	"cuestart/web/chalk"
)

// whole tells whether a text is well-formed.
func whole(t *testing.T, text, name string) {
	d := xml.NewDecoder(strings.NewReader(text))
	for {
		if _, err := d.Token(); err == io.EOF {
			return
		} else if !assert.NoError(t, err, name) {
			return
		}
	}
}

func TestFiguresAreSmallWholeAndSayTheirWords(t *testing.T) {
	for _, d := range book.Drills() {
		f := book.Figure(d.Code)
		if f == nil {
			assert.Empty(t, chalk.Of(f, &d).Moving()+chalk.Of(f, &d).Small()+chalk.Of(f, &d).Still())
			continue
		}
		d.Cues = append(d.Cues, `"Up" & <over>`)
		drawn := chalk.Of(f, &d)
		still, moving := string(drawn.Still()), string(drawn.Moving())
		assert.LessOrEqual(t, len(still), 2500, d.Code)
		assert.LessOrEqual(t, len(moving), 6000, d.Code)
		assert.Contains(t, still, `&#34;Up&#34; &amp; &lt;over&gt;"`, d.Code)
		assert.NotContains(t, still+moving, "NaN", d.Code)
		assert.Equal(t, drawn.Moves(), strings.Contains(moving, "<animate"), d.Code)
		if !drawn.Moves() {
			assert.Equal(t, still, moving, "what is held stays as it is")
		}
		assert.NotContains(t, still+moving, "style=", "the content policy allows none")
		assert.Len(t, drawn.Faults(), len(f.NotSo))
		for _, text := range []string{still, moving, string(drawn.Small()), chalk.File(f, d.Name)} {
			whole(t, text, d.Code)
		}
		if f.View != figure.Above {
			whole(t, string(chalk.Bench(f, f.Poses[0], nil)), d.Code)
		}
	}
}
