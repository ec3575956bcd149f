package web_test

import (
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// texts are the texts of files put together, without those of tests.
func texts(t *testing.T, patterns ...string) string {
	var all strings.Builder
	for _, pattern := range patterns {
		names, err := filepath.Glob(pattern)
		require.NoError(t, err)
		require.NotEmpty(t, names, pattern)
		for _, name := range names {
			if strings.HasSuffix(name, "_test.go") && !strings.Contains(pattern, "_test") {
				continue
			}
			text, err := os.ReadFile(name)
			require.NoError(t, err)
			all.Write(append(text, '\n'))
		}
	}
	return all.String()
}

// camel is what scripts call a data- name: data-told-many is toldMany.
func camel(name string) string {
	parts := strings.Split(strings.TrimPrefix(name, "data-"), "-")
	for i := 1; i < len(parts); i++ {
		parts[i] = strings.ToUpper(parts[i][:1]) + parts[i][1:]
	}
	return strings.Join(parts, "")
}

// dashed is the other way round.
func dashed(name string) string {
	return "data-" + strings.ToLower(regexp.MustCompile(`[A-Z]`).ReplaceAllString(name, "-$0"))
}

// Every data- name that a page writes is read by a script, a style or a browser test, and every
// one that a script reads is written by a page, or by a script.
func TestPagesAndScriptsKnowTheSameNames(t *testing.T) {
	name := regexp.MustCompile(`\bdata-[a-z0-9]+(?:-[a-z0-9]+)*`)
	pages, scripts := texts(t, "*/*.html", "*/*.go"), texts(t, "*/*.js")
	looked := texts(t, "*/*.css", "*_test.go", "*/*_test.go", "../e2e/*_test.go")
	written, read := map[string]bool{}, map[string]bool{}
	for _, n := range name.FindAllString(pages, -1) {
		written[n] = true
	}
	for _, n := range name.FindAllString(scripts, -1) {
		read[n] = true
	}
	for _, m := range regexp.MustCompile(`dataset\.(\w+)|dataset\[[^\]]*"(\w+)"[^\]]*"(\w+)"`).FindAllStringSubmatch(scripts,
		-1) {
		for _, n := range m[1:] {
			if n != "" {
				read[dashed(n)] = true
			}
		}
	}
	require.Greater(t, len(read), 100)
	word := func(text, n string) bool { return regexp.MustCompile(n + `(?:[^a-z0-9-]|$)`).MatchString(text) }
	for n := range written {
		// const { name } = part.dataset
		spread := regexp.MustCompile(`\b` + camel(n) + `\b[^=]*=[^=]*dataset\b`).MatchString(scripts)
		styled := strings.Contains(pages, "data-["+strings.TrimPrefix(n, "data-"))
		assert.True(t, read[n] || spread || styled || word(looked, n), "%s is written and nobody reads it", n)
	}
	for n := range read {
		by := regexp.MustCompile(`dataset\.` + camel(n) + ` = |toggleAttribute\("` + n + `"|setAttribute\("` + n + `"`)
		assert.True(t, written[n] || by.MatchString(scripts), "%s is read and nobody writes it", n)
	}
}

// What a script reads of an answer are fields of the type that is written there, and the other
// way round.
func TestAnswersAndScriptsKnowTheSameFields(t *testing.T) {
	for _, c := range []struct {
		file, kind string   // of the Go type
		script     string   // that reads it
		reads      []string // patterns whose first group is a field that is read
	}{
		{"phone/live.go", "update", "phone/live.js phone/player.js", []string{`\bupdate\.(\w+)`}},
		{"phone/live.go", "newItem", "phone/player.js", []string{`update\.items\.map\(\(\{ ([\w, ]+) \}\)`}},
		{"phone/leader.go", "ticked", "phone/grid.js",
			[]string{`dataset\.ticks \|\| "\[\]"\)\.map\(\(\{ ([\w, ]+) \}\)`}},
		{"phone/steps.go", "step", "phone/follow.js", []string{`\b(?:s|step|p|[^.]next)\.(\w+)`}},
		{"board/join.go", "said", "board/board.js", []string{`const \{ ([\w, ]+) \} = this\.newest`}},
		{"../field/field.go", "Proposal", "pitch/pitch.js pitch/different.html",
			[]string{`proposal\.(\w+)`, `const \{ ([\w, ]+) \} = this\.proposal`}},
		{"../field/field.go", "TopUp", "pitch/pitch.js pitch/different.html", []string{`\bup\.(\w+)`}},
		{"../field/view.go", "View", "pitch/*.js pitch/*.html", []string{`\bview\.(\w+)`}},
		{"../field/view.go", "Card", "pitch/pitch.js pitch/*.html", []string{`\b(?:c|card)\.(\w+)`}},
		{"../field/view.go", "Drill", "pitch/pitch.js pitch/*.html", []string{`\b(?:d|drill)\.(\w+)`}},
		{"../field/view.go", "Row", "pitch/*.html", []string{`\brow\.(\w+)`}},
		{"../field/view.go", "Cell", "pitch/pitch.js pitch/*.html", []string{`\bcell\.(\w+)`}},
		{"../field/view.go", "Fixed", "pitch/*.html", []string{`\be\.(name|who|to)\b`}},
		{"../field/view.go", "Idle", "pitch/*.html", []string{`\b(?:i|idle)\.(\w+)`}},
		{"../field/view.go", "Dispute", "pitch/*.html", []string{`\bd\.(says|held)\b`}},
		{"../field/view.go", "Absent", "pitch/*.html", []string{`\bo\.(\w+)`}},
		{"../field/view.go", "ListLine", "pitch/pitch.js pitch/*.html", []string{`\b(?:l|list)\.(\w+)`}},
		{"../field/view.go", "Choice", "pitch/*.html", []string{`\b(?:p|z)\.(\w+)`}},
		{"phone/wall.go", "strand", "phone/wall.js", []string{`\bs\.(\w+)`}},
		{"phone/wall.go", "onWall", "phone/wall.js", []string{`\b(?:is|e|next)\??\.(\w+)`}},
		{"../planner/whatif/drag.go", "Dragged", "board/drag.js", []string{`show\(\{ ([\w, ]+) \}`}},
		{"../planner/whatif/drag.go", "Moved", "board/drag.js", []string{`\bmove\.(\w+)`}},
		{"log/tests.go", "gateReading", "log/tests.js", []string{`\bis\.(\w+)`}},
	} {
		fields, read := fieldsOf(t, c.file, c.kind), map[string]bool{}
		script := texts(t, strings.Fields(c.script)...)
		for _, pattern := range c.reads {
			for _, m := range regexp.MustCompile(pattern).FindAllStringSubmatch(script, -1) {
				for _, n := range strings.Split(m[1], ", ") {
					read[n] = true
				}
			}
		}
		for _, f := range fields {
			assert.True(t, read[f], "%s of %s is written and %s does not read it", f, c.kind, c.script)
		}
		for n := range read {
			ours := slices.Contains(fields, n) || slices.Contains(scriptsOwn[c.kind], n)
			assert.True(t, ours, "%s is read of a %s by %s and is not there", n, c.kind, c.script)
		}
	}
}

// scriptsOwn are fields that a script adds itself, or that other answers of the same question have.
var scriptsOwn = map[string][]string{
	"update": {"now", "reload"},
	"View":   {"error"}, // of the worker
	"step":   {"id", "item", "move", "event"},
	"Card":   {"filter"},
	"Drill":  {"says", "held"}, // of a dispute
}

// fieldsOf are the fields of a type as JSON names them.
func fieldsOf(t *testing.T, file, kind string) (fields []string) {
	text, err := os.ReadFile(file)
	require.NoError(t, err)
	body := regexp.MustCompile(`(?s)\btype ` + kind + ` struct \{(.*?)\n\t?\}`).FindSubmatch(text)
	require.NotNil(t, body, "%s in %s", kind, file)
	for _, m := range regexp.MustCompile("`json:\"(\\w+)").FindAllSubmatch(body[1], -1) {
		fields = append(fields, string(m[1]))
	}
	require.NotEmpty(t, fields)
	return fields
}
