package phone

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/web/shell"
)

// Every sentence of the pages of players and leaders, of what changed and of doses is in
// the catalogue of each other language.
func TestEverySentenceIsInTheCatalogue(t *testing.T) {
	known := shell.Texts("es")
	var said []string
	find := func(pattern, text string) {
		for _, found := range regexp.MustCompile(pattern).FindAllStringSubmatch(text, -1) {
			said = append(said, strings.ReplaceAll(found[1], `\"`, `"`))
		}
	}
	for _, files := range []string{"*.html", "*.go", "../../core/list/*.go", "../../core/drill/*.go",
		"../../planner/reach.go"} {
		names, err := filepath.Glob(files)
		require.NoError(t, err)
		for _, name := range names {
			text, err := os.ReadFile(name)
			require.NoError(t, err)
			if strings.HasSuffix(name, "_test.go") {
				continue
			}
			find(`\.(?:T|Word) "((?:[^"\\]|\\.)*)"`, string(text))
			find(`plan\.In\("word", "((?:[^"\\]|\\.)*)"`, string(text))
			find(`\b(?:say|[a-z]+\.(?:T|Word))\("((?:[^"\\]|\\.)*)"`, string(text))
		}
	}
	for _, name := range []string{"player.js", "follow.js", "live.js", "queue.js", "../shell/keep.js", "wall.js",
		"grid.js"} {
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		find(`\bsay\("((?:[^"\\]|\\.)*)"`, string(text))
	}
	said = append(said, joints...)
	assert.Greater(t, len(said), 120)
	for _, sentence := range said {
		assert.NotEmpty(t, known[sentence], "%q", sentence)
	}
}

// What the page's script says is handed to it.
func TestTheScriptKnowsItsSentences(t *testing.T) {
	handed := sentences(shell.TongueOf("en"))
	names, err := filepath.Glob("*.js")
	require.NoError(t, err)
	for _, name := range names {
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		for _, found := range regexp.MustCompile(`\bsay\("((?:[^"\\]|\\.)*)"`).FindAllStringSubmatch(string(text), -1) {
			assert.Contains(t, handed, found[1], name)
		}
	}
}

func TestAPageSpeaksSpanish(t *testing.T) {
	es := shell.TongueOf("es")
	assert.Equal(t, "2 de 3", es.T("%s of %s", "2", "3"))
	assert.Equal(t, "hace 5 min", es.T("%s min ago", "5"))
	assert.Equal(t, "izquierda", es.Word("left"))
	assert.Equal(t, "quedan 2′", es.T("%s left", "2′"))
	assert.Equal(t, "quedan %s", es.Word("%s left"), "for the page's script to put in")
	assert.Equal(t, "Nothing says this", shell.TongueOf("xx").Word("Nothing says this"))
}
