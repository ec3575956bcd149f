package share

import (
	"cmp"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Row is a thing that was read from a line of a file.
type Row[T club.Thing] struct {
	Line  int
	Owner uint64 // whose it is, where who reads the file finds out
	Is    T
}

var playerColumns = []column[club.Player]{
	whole("number", func(p *club.Player) *int { return &p.Number }, "no", "nr", "shirt", "#"),
	{name: "first name", others: []string{"first", "forename", "given name", "name", "player", "full name"},
		set: func(p *club.Player, s string) error { p.First = s; return nil },
		get: func(p *club.Player) string { return p.First }},
	{name: "last name", others: []string{"last", "surname", "family name"},
		set: func(p *club.Player, s string) error { p.Last = s; return nil },
		get: func(p *club.Player) string { return p.Last }},
	text("position", func(p *club.Player) *string { return &p.Position }, "pos"),
	word("foot", func(p *club.Player) *club.Side { return &p.Foot }, club.Right, club.Left, club.Both),
	word("hand", func(p *club.Player) *club.Side { return &p.Hand }, club.Right, club.Left, club.Both),
	word("bats", func(p *club.Player) *club.Side { return &p.Bats }, "", club.Right, club.Left, club.Both),
	word("level", func(p *club.Player) *drill.Grade { return &p.Level }, "", drill.Junior, drill.Club, drill.Elite),
	word("body", func(p *club.Player) *club.Build { return &p.Build }, club.Usual, club.Stiff, club.Hypermobile),
	text("always", func(p *club.Player) *string { return &p.Own }, "own time"),
	text("notes", func(p *club.Player) *string { return &p.Notes }),
}

// ReadPlayers reads a squad from CSV. The columns are found by their names; the
// name is needed, first and last in one column or in two. With any problem nothing should be taken over.
func ReadPlayers(file []byte) ([]Row[club.Player], []Problem, error) {
	return read(file, playerColumns, "first name",
		func() club.Player { return club.Player{Foot: club.Right, Hand: club.Right} }, func(p *club.Player) {
			if first, last, two := strings.Cut(strings.TrimSpace(p.First), " "); two && p.Last == "" {
				// one column has the whole name
				p.First, p.Last = first, strings.TrimSpace(last)
			}
		})
}

// WritePlayers writes a squad as CSV that ReadPlayers reads back whole.
func WritePlayers(w io.Writer, players []club.Player) error {
	return writeRows(w, playerColumns, players)
}

var fixtureColumns = []column[club.Fixture]{
	text("title", func(f *club.Fixture) *string { return &f.Title }, "what", "match", "opponent"),
	word("kind", func(f *club.Fixture) *plan.Kind { return &f.For }, plan.Match, plan.Training),
	{name: "day", others: []string{"date"}, set: setDay, get: func(f *club.Fixture) string {
		return f.Start.Local[:10]
	}},
	{name: "start", others: []string{"time", "kick-off"}, set: setTime, get: getTime},
	text("place", func(f *club.Fixture) *string { return &f.Place }, "where", "venue"),
	text("time zone", func(f *club.Fixture) *string { return &f.Start.Zone }, "zone"),
	word("clock change", func(f *club.Fixture) *clock.Occurrence { return &f.Start.Occurrence }, clock.Only,
		clock.First, clock.Second),
	text("id", func(f *club.Fixture) *string { return &f.UID }, "uid"),
}

// ReadFixtures reads fixtures from CSV. Where no zone is given they are in zone;
// where no start is given the day is known, and the hour not yet.
func ReadFixtures(file []byte, zone string) ([]Row[club.Fixture], []Problem, error) {
	return read(file, fixtureColumns, "title", func() club.Fixture { return club.Fixture{For: plan.Match, Day: true} },
		func(f *club.Fixture) {
			f.Start.Zone = cmp.Or(f.Start.Zone, zone)
			f.UID = cmp.Or(f.UID, madeUp(f))
		})
}

// madeUp is an id for a fixture that has none: its title and day.
func madeUp(f *club.Fixture) string {
	id := strings.ToLower(f.Title) + " " + f.Start.Local
	for len(id) > 100 {
		_, size := utf8.DecodeRuneInString(id)
		id = id[size:]
	}
	return id
}

// WriteFixtures writes fixtures as CSV that ReadFixtures reads back whole.
func WriteFixtures(w io.Writer, fixtures []club.Fixture) error {
	return writeRows(w, fixtureColumns, fixtures)
}

// dayForms are the ways in which a day is written.
var dayForms = []string{"2006-01-02", "02.01.2006", "2.1.2006", "02/01/2006", "2/1/2006", "2 Jan 2006",
	"2 January 2006"}

func parseDay(cell string) (string, error) {
	for _, form := range dayForms {
		if day, err := time.Parse(form, cell); err == nil {
			return day.Format(time.DateOnly), nil
		}
	}
	return "", fmt.Errorf("%q is no day: write it as 2026-11-28 or 28.11.2026", cell)
}

func setDay(f *club.Fixture, cell string) error {
	day, err := parseDay(cell)
	if err != nil {
		return err
	}
	hour := "00:00"
	if len(f.Start.Local) == len("T15:00") { // its time came in an earlier column
		hour = f.Start.Local[1:]
	}
	f.Start.Local = day + "T" + hour
	return nil
}

func setTime(f *club.Fixture, cell string) error {
	if cell == "" {
		return nil
	}
	for _, form := range []string{"15:04", "15:04:05", "15.04", "3:04 PM", "3:04PM"} {
		if at, err := time.Parse(form, strings.ToUpper(cell)); err == nil {
			f.Day = false
			if len(f.Start.Local) < len(time.DateOnly) { // its day comes in a later column
				f.Start.Local = "T" + at.Format("15:04")
			} else {
				f.Start.Local = f.Start.Local[:10] + "T" + at.Format("15:04")
			}
			return nil
		}
	}
	return fmt.Errorf("%q is no time of day: write it as 15:00", cell)
}

func getTime(f *club.Fixture) string {
	if f.Day {
		return ""
	}
	return f.Start.Local[11:]
}

// countsOf says what of several tries counts.
func countsOf(t *club.Trial) string {
	if t.Mean {
		return "mean"
	}
	return "best"
}

var trialColumns = []column[club.Trial]{
	text("player", func(t *club.Trial) *string { return &t.Player }, "name"),
	text("test", func(t *club.Trial) *string { return &t.Test }),
	text("unit", func(t *club.Trial) *string { return &t.Unit }),
	word("better", func(t *club.Trial) *club.Direction { return &t.Better }, club.Higher, club.Lower),
	{name: "day", others: []string{"date"}, set: func(t *club.Trial, cell string) (err error) {
		t.Day,
			err = parseDay(cell)
		return err
	},
		get: func(t *club.Trial) string { return t.Day }},
	{name: "when", others: nil, set: setPart, get: func(t *club.Trial) string { return t.Part }},
	{name: "counts", others: nil, set: setCounts, get: countsOf},
	{name: "tries", others: []string{"trials", "result"}, set: setTries, get: getTries},
}

// setPart reads whether a test was done before or after a session's run-in, or neither.
func setPart(t *club.Trial, cell string) error {
	if t.Part = strings.ToLower(cell); t.Part != "" && t.Part != club.Before && t.Part != club.After {
		return fmt.Errorf("%q: write before, after, or nothing", cell)
	}
	return nil
}

func setCounts(t *club.Trial, cell string) error {
	switch strings.ToLower(cell) {
	case "", "best":
		t.Mean = false
	case "mean", "average":
		t.Mean = true
	default:
		return fmt.Errorf("%q: best or mean of the tries counts", cell)
	}
	return nil
}

// ReadTrials reads tests from CSV, a player's tries of a day a row.
func ReadTrials(file []byte) ([]Row[club.Trial], []Problem, error) {
	return read(file, trialColumns, "player", func() club.Trial { return club.Trial{Better: club.Higher} })
}

// WriteTrials writes tests as CSV that ReadTrials reads back whole.
func WriteTrials(w io.Writer, trials []club.Trial) error { return writeRows(w, trialColumns, trials) }

func setTries(t *club.Trial, cell string) error {
	t.Tries = nil
	for _, one := range strings.Split(cell, ";") {
		if one = strings.TrimSpace(one); one == "" {
			continue
		}
		x, err := strconv.ParseFloat(strings.Replace(one, ",", ".", 1), 64)
		if err != nil {
			return fmt.Errorf("%q is no number; part several tries with ;", one)
		}
		t.Tries = append(t.Tries, x)
	}
	return nil
}

func getTries(t *club.Trial) string {
	var list []string
	for _, x := range t.Tries {
		list = append(list, plain(x))
	}
	return strings.Join(list, "; ")
}

// Template writes the heading of a table of that kind: squad, fixtures, drills or
// tests. It reports whether there is such a table.
func Template(w io.Writer, kind string) (bool, error) {
	switch kind {
	case "squad":
		return true, writeRows(w, playerColumns, nil)
	case "fixtures":
		return true, writeRows(w, fixtureColumns, nil)
	case "drills":
		return true, writeRows(w, drillColumns, nil)
	case "tests":
		return true, writeRows(w, trialColumns, nil)
	}
	return false, nil
}

// read reads things of one kind, and finds what is wrong with each and what is
// there twice.
func read[T club.Thing](file []byte, columns []column[T], needed string, begin func() T,
	finish ...func(*T)) (rows []Row[T], wrong []Problem, err error) {
	t, err := readTable(file)
	if err != nil {
		return nil, nil, err
	}
	if !slices.ContainsFunc(t.head, func(name string) bool { return is(columns, needed, name) }) {
		return nil, nil, fmt.Errorf("there is no column %q; the columns are %s", needed, names(columns))
	}
	list, lines, wrong := readRows(t, columns, begin)
	bad := map[int]bool{} // said already
	for _, p := range wrong {
		bad[p.Line] = true
	}
	first := map[string]int{}
	for i := range list {
		for _, do := range finish {
			do(&list[i])
		}
		rows = append(rows, Row[T]{Line: lines[i], Is: list[i]})
		if !bad[lines[i]] {
			wrong = append(wrong, judge(rows[i], columns, first)...)
		}
	}
	slices.SortStableFunc(wrong, func(a, b Problem) int { return a.Line - b.Line })
	if n := len(wrong); n > maxProblems {
		wrong = append(wrong[:maxProblems:maxProblems], Problem{Line: wrong[maxProblems].Line,
			What: fmt.Sprintf("and %d more problems after this line", n-maxProblems)})
	}
	return rows, wrong, nil
}

// is tells whether a head names that column.
func is[T any](columns []column[T], wanted, head string) bool {
	return slices.ContainsFunc(columns, func(c column[T]) bool {
		return c.name == wanted &&
			(sameName(c.name, head) || slices.ContainsFunc(c.others, func(o string) bool { return sameName(o, head) }))
	})
}

// judge finds what is wrong with a row by itself, and whether it is there twice:
// first is the line of each that was there before.
func judge[T club.Thing](row Row[T], columns []column[T], first map[string]int) (wrong []Problem) {
	var found plan.Problems
	if err := row.Is.Validate(); errors.As(err, &found) {
		for _, p := range found {
			wrong = append(wrong, Problem{row.Line, columnOf(columns, p.Where), p.What})
		}
		return wrong
	}
	as := row.Is.Unique()
	if t, ok := any(row.Is).(club.Trial); ok {
		as = strings.ToLower(t.Player) + " " + as
	}
	if as == "" {
		return nil
	}
	if line, twice := first[as]; twice {
		wrong = append(wrong, Problem{row.Line, "", fmt.Sprintf("%s is in line %d already", strings.TrimPrefix(as, "#"),
			line)})
	}
	first[as] = row.Line
	return wrong
}

// columnOf is the column that a thing's field is read from.
func columnOf[T any](columns []column[T], field string) string {
	known := map[string]string{"first": "first name", "last": "last name", "build": "body", "regions": "joints"}
	if name, ok := known[field]; ok {
		field = name
	}
	for _, c := range columns {
		if sameName(c.name, field) {
			return c.name
		}
	}
	return field
}
