package pattern_test

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/pattern"
)

// A pattern finds what its expression finds: all that are written in the reader, on all lines that it learned from.
func TestAPatternFindsWhatItsExpressionFinds(t *testing.T) {
	file, err := os.ReadFile("../say/testdata/said.tsv")
	require.NoError(t, err)
	lines := strings.Split(string(file), "\n")
	n := 0
	for _, expression := range written(t) {
		re, err := regexp.Compile(expression)
		if err != nil {
			continue // a piece of one that is put together
		}
		p := pattern.Must(expression)
		for i := n % 11; i < len(lines); i += 11 {
			line := lines[i]
			require.Equal(t, re.MatchString(line), p.MatchString(line), "%s on %q", expression, line)
			require.Equal(t, re.FindAllStringSubmatchIndex(line, -1), p.FindAllStringSubmatchIndex(line, -1),
				"%s on %q", expression, line)
		}
		n++
	}
	assert.Greater(t, n, 150)
}

// written are the expressions that stand in the reader's code.
func written(t *testing.T) (all []string) {
	files, err := filepath.Glob("../[sh][ae][ya]*/*.go")
	require.NoError(t, err)
	quoted := regexp.MustCompile("(?:Must|spaced)\\(`([^`]+)`\\)")
	for _, name := range files {
		file, err := os.ReadFile(name)
		require.NoError(t, err)
		for _, m := range quoted.FindAllStringSubmatch(string(file), -1) {
			all = append(all, m[1])
		}
	}
	return all
}

// Whatever letters an expression has, and whatever text it is tried on.
func TestAnyPatternFindsWhatItsExpressionFinds(t *testing.T) {
	letter := rapid.SampledFrom(strings.Split("a b k s S K 1 # é × \u017f \u212a", " "))
	text := rapid.Custom(func(t *rapid.T) string {
		return strings.Join(rapid.SliceOfN(letter, 0, 5).Draw(t, "text"),
			"")
	})
	var expression func(deep int) *rapid.Generator[string]
	expression = func(deep int) *rapid.Generator[string] {
		return rapid.Custom(func(t *rapid.T) string {
			if deep == 0 {
				return rapid.OneOf(rapid.Map(text, regexp.QuoteMeta),
					rapid.SampledFrom([]string{`\d`, `[ab]`, `[^a]`, `.`, `\b`, `^`, `$`})).Draw(t, "piece")
			}
			sub := func() string { return expression(deep-1).Draw(t, "part") }
			return rapid.SampledFrom([]func() string{
				func() string { return sub() + sub() }, func() string { return "(?:" + sub() + "|" + sub() + ")" },
				func() string { return "(" + sub() + ")?" },
				func() string { return "(?:" + sub() + ")*" }, func() string { return "(?:" + sub() + ")+" },
				func() string { return "(?:" + sub() + "){1,3}" },
			}).Draw(t, "made")()
		})
	}
	rapid.Check(t, func(t *rapid.T) {
		is := rapid.SampledFrom([]string{"", "(?i)"}).Draw(t, "case") + expression(3).Draw(t, "expression")
		on := text.Draw(t, "text")
		assert.Equal(t, regexp.MustCompile(is).FindStringSubmatchIndex(on),
			pattern.Must(is).FindStringSubmatchIndex(on), "%s on %q", is, on)
	})
}

// A pattern is not tried on a text without its words.
func ExampleMust() {
	steps := pattern.Must(`(?i)\b(\d+) (?:steps?|paces?)\b`)
	steps.MatchString("hold 30 s")     // neither "step" nor "pace" is there: the expression is not tried
	steps.MatchString("6 Paces a leg") // it is
}
