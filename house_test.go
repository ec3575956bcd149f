// Package cuestart_test holds the rules of the house: which folder may import
// which, how deep code nests, how wide a template is. docs/architecture.md draws
// the first.
package cuestart_test

import (
	"bufio"
	"encoding/json"
	"go/ast"
	"go/parser"
	"go/token"
	"go/types"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// mayImport lists, for each folder, the folders of the house that it may use: the newcomer's
// map. The packages of core are in order: each may use those before it, and so the solver,
// runin, only the clock. A use case's package may use those named, a room of web the use cases
// named and never another room; only the site, web itself, knows them all.
var mayImport = map[string][]string{
	"cmd": {"core", "book", "store", "mariadb", "planner/office", "web", "web/chalk", "web/shell", "demo", "share",
		"live", "standin", "docs"},
	"book":    {"core"},
	"store":   {"core", "mariadb"},
	"mariadb": {},
	"docs":    {},
	"kept":    {},
	"share":   {"core", "docs"},
	"live":    {"core", "planner"},
	"standin": {},
	"field":   {"core"},
	"demo":    {"core", "book", "store"},
	"e2e":     {},

	"planner":           {"core", "store"},
	"planner/staff":     useCase(),
	"planner/books":     useCase(),
	"planner/keep":      useCase("books"),
	"planner/boards":    useCase("books", "keep"),
	"planner/whatif":    useCase("boards"),
	"planner/reach":     useCase("books", "keep", "boards"),
	"planner/pitchside": useCase("keep", "boards", "reach"),
	"planner/learn":     useCase("books", "keep", "boards", "pitchside"),
	"planner/diary":     useCase("books", "keep", "boards", "learn"),
	"planner/wording":   useCase("books", "boards", "diary"),
	"planner/office": useCase("staff", "books", "keep", "boards", "whatif", "reach", "pitchside", "learn", "diary",
		"wording"),

	"web":        {"planner"},
	"web/assets": {},
	"web/chalk":  {"core"},
	"web/chart":  {"core"},
	"web/heard":  {"core", "web/shell"},
	"web/shell": {"core", "live", "planner", "planner/office", "planner/boards", "planner/keep", "planner/staff",
		"web/assets"},
	"web/account":   room("staff", "keep"),
	"web/board":     room("boards", "whatif", "reach", "diary", "wording", "books", "keep", "pitchside"),
	"web/book":      room("books", "diary", "wording", "learn"),
	"web/files":     room("keep", "books", "staff", "diary"),
	"web/links":     room("boards", "reach"),
	"web/otherwise": room("boards", "whatif"),
	"web/log":       room("learn", "keep", "staff", "boards"),
	"web/people":    room("keep", "books", "staff"),
	"web/phone":     room("reach", "books"),
	"web/pitch":     room("pitchside", "keep"),
	"web/place":     room("keep", "books"),
	"web/sheet":     room("boards", "books", "reach"),
	"web/today":     room("diary", "boards", "keep", "books", "learn"),
	"web/words":     room("wording", "boards", "books"),
}

// useCase is what a package of use cases may import: those of others that are named, and what
// they all stand on.
func useCase(others ...string) []string {
	may := []string{"core", "book", "kept", "store", "planner"}
	for _, name := range others {
		may = append(may, "planner/"+name)
	}
	return may
}

// room is what a room of the site may import: the use cases that are named, and what all rooms
// stand on.
func room(touches ...string) []string {
	may := []string{"core", "book", "field", "kept", "planner", "share", "web/assets", "web/chalk", "web/chart",
		"web/heard", "web/shell"}
	for _, name := range touches {
		may = append(may, "planner/"+name)
	}
	return may
}

var coreOrder = []string{"pattern", "speech", "figure", "clock", "measure", "trial", "stake", "runin", "odds", "pace",
	"drill", "movement", "plan", "ground", "sport", "club", "today", "schedule", "list", "warmth", "conduct", "check",
	"verdict", "compose", "week", "hear", "say", "pen"}

// coreAvoids is what core never touches: files, network, processes.
var coreAvoids = []string{"os", "net", "net/http", "os/exec", "database/sql", "math/rand", "io/fs", "embed", "syscall"}

// place is the folder that a package of the house belongs to by the rule: the
// first part of its path, for web and planner the first two.
func place(path string) string {
	parts := strings.Split(path, "/")
	if (parts[0] == "web" || parts[0] == "planner") && len(parts) > 1 {
		return parts[0] + "/" + parts[1]
	}
	return parts[0]
}

func TestFoldersImportOnlyWhatTheyMay(t *testing.T) {
	out, err := exec.Command("go", "list", "-json=ImportPath,Imports", "./...").Output()
	require.NoError(t, err)
	decoder := json.NewDecoder(strings.NewReader(string(out)))
	used := map[string]bool{}
	for decoder.More() {
		var p struct {
			ImportPath string
			Imports    []string
		}
		require.NoError(t, decoder.Decode(&p))
		from := strings.TrimPrefix(p.ImportPath, "cuestart/")
		for _, name := range p.Imports {
			to, ours := strings.CutPrefix(name, "cuestart/")
			assert.True(t, allowed(from, to, ours, name), "%s imports %s", from, name)
			used[place(from)+" "+place(to)] = true
		}
	}
	for from, list := range mayImport {
		for _, to := range list {
			if strings.HasPrefix(to, "planner/") {
				assert.True(t, used[from+" "+to], "%s may import %s and does not: take it off the map", from, to)
			}
		}
	}
}

// allowed tells whether the package from may import to, whose whole path is name.
func allowed(from, to string, ours bool, name string) bool {
	if place(from) == "core" {
		return ours && within(from, to) || !ours && !slices.Contains(coreAvoids, name) &&
			(!strings.Contains(name, ".") || strings.HasPrefix(name, "gonum.org/"))
	}
	return !ours || place(from) == place(to) || from == "web" && strings.HasPrefix(to, "web/") ||
		slices.Contains(mayImport[place(from)], place(to))
}

// within tells whether a package of core may use another: one before it, or its
// own parts.
func within(from, to string) bool {
	a, b := strings.Split(from, "/"), strings.Split(to, "/")
	i, j := slices.Index(coreOrder, a[1]), slices.Index(coreOrder, b[min(1, len(b)-1)])
	return b[0] == "core" && j >= 0 && (j < i || i == j && len(a) > len(b))
}

// Limits of how code reads.
const (
	deepest = 4   // ifs, loops, switches and functions within each other
	longest = 50  // lines of a function
	widest  = 140 // columns of a template's line
	columns = 120 // of a line of code, a tab being four; a raw string, a table or a pattern, may be wider
)

func TestCodeIsNarrow(t *testing.T) {
	for _, name := range code(t) {
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		files := token.NewFileSet()
		file, err := parser.ParseFile(files, name, text, 0)
		require.NoError(t, err)
		raw := map[int]bool{} // lines that a raw string reaches into
		ast.Inspect(file, func(n ast.Node) bool {
			if s, ok := n.(*ast.BasicLit); ok && strings.HasPrefix(s.Value, "`") {
				for l := files.Position(s.Pos()).Line; l <= files.Position(s.End()).Line; l++ {
					raw[l] = true
				}
			}
			if m, ok := n.(*ast.MapType); ok {
				key, isName := m.Key.(*ast.Ident)
				assert.False(t, isName && key.Name == "bool", "%s: say it with an if", files.Position(m.Pos()))
			}
			return true
		})
		for n, line := range strings.Split(string(text), "\n") {
			wide := utf8.RuneCountInString(strings.ReplaceAll(line, "\t", "    "))
			assert.True(t, wide <= columns || raw[n+1], "%s:%d has %d columns", name, n+1, wide)
		}
	}
}

// code lists the files that people write.
func code(t *testing.T) []string {
	return slices.DeleteFunc(sources(t, ".go"), func(name string) bool {
		return strings.HasSuffix(name, "_gen.go") || strings.HasPrefix(name, "store/db/")
	})
}

func TestNothingNestsDeepOrRunsLong(t *testing.T) {
	files := token.NewFileSet()
	for _, name := range sources(t, ".go") {
		if strings.HasSuffix(name, "_test.go") || strings.HasSuffix(name, "_gen.go") {
			continue
		}
		file, err := parser.ParseFile(files, name, nil, 0)
		require.NoError(t, err)
		for _, d := range file.Decls {
			f, ok := d.(*ast.FuncDecl)
			if !ok || f.Body == nil {
				continue
			}
			lines := files.Position(f.End()).Line - files.Position(f.Pos()).Line + 1
			assert.LessOrEqual(t, lines, longest, "%s: %s is long: it is two things", files.Position(f.Pos()),
				f.Name.Name)
			assert.LessOrEqual(t, depth(f.Body), deepest, "%s: %s nests too deep", files.Position(f.Pos()), f.Name.Name)
		}
	}
}

// mostMethods is how many methods a type may have.
const mostMethods = 40

// mostUnnamed is how many values a struct may be given without the names of their fields.
const mostUnnamed = 3

func TestTypesStaySmallAndValuesNameTheirFields(t *testing.T) {
	files, methods, structs := token.NewFileSet(), map[string]int{}, map[string]bool{}
	var parsed []*ast.File
	for _, name := range sources(t, ".go") {
		if strings.HasSuffix(name, "_test.go") || strings.HasSuffix(name, "_gen.go") {
			continue
		}
		file, err := parser.ParseFile(files, name, nil, 0)
		require.NoError(t, err)
		parsed = append(parsed, file)
		ast.Inspect(file, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.FuncDecl:
				if n.Recv != nil {
					methods[filepath.Dir(name)+" "+strings.TrimPrefix(types.ExprString(n.Recv.List[0].Type), "*")]++
				}
			case *ast.TypeSpec:
				if _, is := n.Type.(*ast.StructType); is {
					structs[file.Name.Name+"."+n.Name.Name] = true
				}
			}
			return true
		})
	}
	for name, n := range methods {
		assert.LessOrEqual(t, n, mostMethods, "%s is more than one thing", name)
	}
	for _, file := range parsed {
		ast.Inspect(file, func(n ast.Node) bool {
			l, ok := n.(*ast.CompositeLit)
			if !ok || len(l.Elts) <= mostUnnamed {
				return true
			}
			if _, named := l.Elts[0].(*ast.KeyValueExpr); named || l.Type == nil {
				return true
			}
			of := types.ExprString(l.Type)
			assert.False(t, structs[of] || structs[file.Name.Name+"."+of], "%s: which field is which?",
				files.Position(l.Pos()))
			return true
		})
	}
}

// depth is how many statements with a body lie within each other.
func depth(n ast.Node) (most int) {
	ast.Inspect(n, func(c ast.Node) bool {
		if c == n || c == nil {
			return true
		}
		switch c.(type) {
		case *ast.IfStmt, *ast.ForStmt, *ast.RangeStmt, *ast.SwitchStmt, *ast.SelectStmt, *ast.TypeSwitchStmt,
			*ast.FuncLit:
			most = max(most, 1+depth(c))
			return false
		}
		return true
	})
	return most
}

func TestTemplatesAreNarrow(t *testing.T) {
	for _, name := range sources(t, ".html") {
		file, err := os.Open(name)
		require.NoError(t, err)
		lines := bufio.NewScanner(file)
		for n := 1; lines.Scan(); n++ {
			assert.LessOrEqual(t, utf8.RuneCountInString(lines.Text()), widest, "%s:%d", name, n)
		}
		file.Close()
	}
}

// sources lists the files of the house with an ending.
func sources(t *testing.T, ending string) (names []string) {
	require.NoError(t, filepath.WalkDir(".", func(name string, entry os.DirEntry, err error) error {
		if err == nil && entry.IsDir() && slices.Contains([]string{"node_modules", ".git", "var", "dist"},
			entry.Name()) {
			return filepath.SkipDir
		}
		if err == nil && strings.HasSuffix(name, ending) {
			names = append(names, name)
		}
		return err
	}))
	require.NotEmpty(t, names)
	return names
}

// A room's templates use those of the room itself, of the shell, and of the chart where it draws
// one: one that is missing shows only when its page is opened.
func TestEveryTemplateIsThere(t *testing.T) {
	used, defined := regexp.MustCompile(`\{\{-?\s*template "([^"]+)"`),
		regexp.MustCompile(`\{\{-?\s*(?:define|block) "([^"]+)"`)
	names := map[string][]string{} // of folders
	for _, name := range sources(t, ".html") {
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		for _, found := range defined.FindAllStringSubmatch(string(text), -1) {
			names[filepath.Dir(name)] = append(names[filepath.Dir(name)], found[1])
		}
	}
	for _, name := range sources(t, ".html") {
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		for _, found := range used.FindAllStringSubmatch(string(text), -1) {
			there := slices.Concat(names[filepath.Dir(name)], names["web/shell"])
			if slices.Contains(mayImport[filepath.Dir(name)], "web/chart") {
				there = append(there, names["web/chart"]...)
			}
			assert.Contains(t, there, found[1], name)
		}
	}
}

// hooks are classes that styles do not know, for scripts and tests alone.
var hooks = []string{"drawer"}

// Every class of a template is one that the built stylesheet has: a folder that
// the build does not look into shows nowhere else but on the screen.
func TestEveryClassIsInTheStyles(t *testing.T) {
	styles, err := os.ReadFile("web/assets/dist/app.css")
	require.NoError(t, err)
	phones, err := os.ReadFile("web/assets/dist/phone.css")
	require.NoError(t, err)
	known := strings.ReplaceAll(string(styles)+string(phones), `\`, "")
	templates, err := filepath.Glob("web/*/*.html")
	require.NoError(t, err)
	block := regexp.MustCompile(`\{\{-?\s*(if|else|end|with|range)\b[^}]*\}\}`)
	action := regexp.MustCompile(`\{\{[^}]*\}\}`)
	looked := 0
	for _, file := range templates {
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		plain := action.ReplaceAllString(block.ReplaceAllString(string(text), " "), "…")
		for _, list := range regexp.MustCompile(`\sclass="([^"]*)"`).FindAllStringSubmatch(plain, -1) {
			for _, class := range strings.Fields(list[1]) {
				if strings.Contains(class, "…") || slices.Contains(hooks, class) {
					continue // the rest of its name is data, or it is no style
				}
				looked++
				assert.True(t, strings.Contains(known, "."+class), "%s: .%s", file, class)
			}
		}
	}
	assert.Greater(t, looked, 500)
}
