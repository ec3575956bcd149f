package pitch

import (
	"os"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/web/shell"
)

// toldOf is what the script, or a template's expression, says itself.
var toldOf = regexp.MustCompile(`told\(\s*(?:[a-z.]+ \? )?["']([^"']+)["'](?: : ["']([^"']+)["'])?`)

// Whatever the page's script says itself is among the words that it is given, and in each language.
func TestTheScriptSpeaksEachLanguage(t *testing.T) {
	pieces, n := shell.TongueOf("es").Pieces(), 0
	for _, file := range []string{"pitch.js", "pitch.html", "different.html"} {
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		for _, m := range toldOf.FindAllStringSubmatch(string(text), -1) {
			for _, says := range m[1:] {
				if says == "" {
					continue
				}
				n++
				assert.Contains(t, spoken, says, file)
				assert.NotEmpty(t, pieces[says], "%s: %s", file, says)
			}
		}
	}
	assert.GreaterOrEqual(t, n, len(spoken), "all that is given is said")
	assert.Empty(t, words(shell.TongueOf("en")))
}
