// Package cuestart_test holds the house rule of which folder may import which;
// docs/architecture.md draws it.
package cuestart_test

import (
	"encoding/json"
	"os/exec"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// mayImport lists, for each folder, the folders of the house that it may use.
// The packages of core are in order: each may use those before it, and so the
// solver, runin, only the clock.
var mayImport = map[string][]string{
	"cmd":     {"core", "book", "store", "mariadb", "planner", "web", "demo", "share", "live", "standin", "docs"},
	"book":    {"core"},
	"store":   {"core", "mariadb"},
	"mariadb": {},
	"docs":    {},
	"planner": {"core", "book", "store"},
	"share":   {"core", "docs"},
	"live":    {"core", "planner"},
	"standin": {},
	"web":     {"core", "book", "planner", "share", "store"},
	"demo":    {"core", "book", "store"},
	"e2e":     {},
}

var coreOrder = []string{"clock", "runin", "drill", "plan", "sport", "club", "today", "schedule", "warmth", "check", "compose", "week", "trial"}

// coreAvoids is what core never touches: files, network, processes.
var coreAvoids = []string{"os", "net", "net/http", "os/exec", "database/sql", "math/rand", "io/fs", "embed", "syscall"}

func TestFoldersImportOnlyWhatTheyMay(t *testing.T) {
	out, err := exec.Command("go", "list", "-json=ImportPath,Imports", "./...").Output()
	require.NoError(t, err)
	decoder := json.NewDecoder(strings.NewReader(string(out)))
	for decoder.More() {
		var p struct {
			ImportPath string
			Imports    []string
		}
		require.NoError(t, decoder.Decode(&p))
		place := strings.Split(strings.TrimPrefix(p.ImportPath, "cuestart/"), "/")
		for _, name := range p.Imports {
			path, ours := strings.CutPrefix(name, "cuestart/")
			other := strings.Split(path, "/")
			switch {
			case place[0] == "core" && !ours:
				assert.False(t, slices.Contains(coreAvoids, name), "%s imports %s", p.ImportPath, name)
				assert.True(t, !strings.Contains(name, ".") || strings.HasPrefix(name, "gonum.org/"), "%s imports %s", p.ImportPath, name)
			case !ours || place[0] == other[0] && place[0] != "core":
			case place[0] == "core":
				assert.True(t, other[0] == "core" && slices.Index(coreOrder, other[1]) >= 0 && (slices.Index(coreOrder, other[1]) < slices.Index(coreOrder, place[1]) || other[1] == place[1] && len(place) > len(other)),
					"%s imports %s", p.ImportPath, name)
			default:
				allowed, known := mayImport[place[0]]
				assert.True(t, known, "the rule does not know the folder %s", place[0])
				assert.Contains(t, allowed, other[0], "%s imports %s", p.ImportPath, name)
			}
		}
	}
}
