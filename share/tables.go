package share

import (
	"cmp"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"
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
	{"first name", []string{"first", "forename", "given name"}, func(p *club.Player, s string) error { p.First = s; return nil }, func(p *club.Player) string { return p.First }},
	{"last name", []string{"last", "surname", "family name"}, func(p *club.Player, s string) error { p.Last = s; return nil }, func(p *club.Player) string { return p.Last }},
	text("position", func(p *club.Player) *string { return &p.Position }, "pos"),
	word("foot", func(p *club.Player) *club.Side { return &p.Foot }, club.Right, club.Left, club.Both),
	word("hand", func(p *club.Player) *club.Side { return &p.Hand }, club.Right, club.Left, club.Both),
	word("level", func(p *club.Player) *drill.Grade { return &p.Level }, "", drill.Junior, drill.Club, drill.Elite),
	word("body", func(p *club.Player) *club.Build { return &p.Build }, club.Usual, club.Stiff, club.Hypermobile),
	text("notes", func(p *club.Player) *string { return &p.Notes }),
}

// ReadPlayers reads a squad from CSV. The columns are found by their names; the
// first name is needed. With any problem nothing should be taken over.
func ReadPlayers(file []byte) ([]Row[club.Player], []Problem, error) {
	return read(file, playerColumns, "first name", func() club.Player { return club.Player{Foot: club.Right, Hand: club.Right} })
}

// WritePlayers writes a squad as CSV that ReadPlayers reads back whole.
func WritePlayers(w io.Writer, players []club.Player) error {
	return writeRows(w, playerColumns, players)
}

var fixtureColumns = []column[club.Fixture]{
	text("title", func(f *club.Fixture) *string { return &f.Title }, "what", "match", "opponent"),
	word("kind", func(f *club.Fixture) *plan.Kind { return &f.For }, plan.Match, plan.Training),
	{"day", []string{"date"}, setDay, func(f *club.Fixture) string { return f.Start.Local[:10] }},
	{"start", []string{"time", "kick-off"}, setTime, getTime},
	text("place", func(f *club.Fixture) *string { return &f.Place }, "where", "venue"),
	text("time zone", func(f *club.Fixture) *string { return &f.Start.Zone }, "zone"),
	word("clock change", func(f *club.Fixture) *clock.Occurrence { return &f.Start.Occurrence }, clock.Only, clock.First, clock.Second),
	text("id", func(f *club.Fixture) *string { return &f.UID }, "uid"),
}

// ReadFixtures reads fixtures from CSV. Where no zone is given they are in zone;
// where no start is given the day is known, and the hour not yet.
func ReadFixtures(file []byte, zone string) ([]Row[club.Fixture], []Problem, error) {
	return read(file, fixtureColumns, "title", func() club.Fixture { return club.Fixture{For: plan.Match, Day: true} }, func(f *club.Fixture) {
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
var dayForms = []string{"2006-01-02", "02.01.2006", "2.1.2006", "02/01/2006", "2/1/2006", "2 Jan 2006", "2 January 2006"}

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

var trialColumns = []column[club.Trial]{
	text("player", func(t *club.Trial) *string { return &t.Player }, "name"),
	text("test", func(t *club.Trial) *string { return &t.Test }),
	text("unit", func(t *club.Trial) *string { return &t.Unit }),
	word("better", func(t *club.Trial) *club.Direction { return &t.Better }, club.Higher, club.Lower),
	{"day", []string{"date"}, func(t *club.Trial, cell string) (err error) { t.Day, err = parseDay(cell); return err }, func(t *club.Trial) string { return t.Day }},
	{"tries", []string{"trials", "result"}, setTries, getTries},
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

var drillColumns = []column[club.Drill]{
	text("code", func(d *club.Drill) *string { return &d.Code }),
	text("name", func(d *club.Drill) *string { return &d.Name }),
	several("also called", func(d *club.Drill) *[]string { return &d.Also }),
	text("aim", func(d *club.Drill) *string { return &d.Aim }),
	{"phases", nil, setPhases, getPhases},
	several("joints", func(d *club.Drill) *[]string { return &d.Regions }),
	several("planes", func(d *club.Drill) *[]string { return &d.Planes }),
	several("trains", func(d *club.Drill) *[]string { return &d.Qualities }),
	word("counted in", func(d *club.Drill) *drill.Kind { return &d.Dose.Kind }, drill.Kinds...),
	whole("least", func(d *club.Drill) *int { return &d.Range.Min }),
	whole("target", func(d *club.Drill) *int { return &d.Range.Target }),
	whole("most", func(d *club.Drill) *int { return &d.Range.Max }),
	whole("step", func(d *club.Drill) *int { return &d.Range.Step }),
	text("unit", func(d *club.Drill) *string { return &d.Unit }),
	whole("sets", func(d *club.Drill) *int { return &d.Dose.Sets }),
	whole("sides", func(d *club.Drill) *int { return &d.Dose.Sides }),
	whole("directions", func(d *club.Drill) *int { return &d.Dose.Directions }),
	yes("own side", func(d *club.Drill) *bool { return &d.Dose.OwnSide }),
	each("parts", ";", func(d *club.Drill) *[]drill.Part { return &d.Dose.Parts }, partOf, partSaid),
	each("tempo", " ", func(d *club.Drill) *[]float64 { return &d.Dose.Tempo }, secondsOf, plain),
	whole("breaths", func(d *club.Drill) *int { return &d.Dose.Breaths }),
	decimal("seconds a rep", func(d *club.Drill) *float64 { return &d.Dose.RepSeconds }),
	decimal("seconds held", func(d *club.Drill) *float64 { return &d.Dose.HoldSeconds }),
	decimal("seconds to settle", func(d *club.Drill) *float64 { return &d.Dose.SettleSeconds }),
	decimal("seconds between sets", func(d *club.Drill) *float64 { return &d.Dose.RestSeconds }),
	decimal("metres", func(d *club.Drill) *float64 { return &d.Dose.Metres }),
	decimal("metres a second", func(d *club.Drill) *float64 { return &d.Dose.Speed }),
	text("share of the place", func(d *club.Drill) *string { return &d.Dose.Share }),
	each("efforts", ";", func(d *club.Drill) *[]float64 { return &d.Dose.Efforts }, effortOf, func(e float64) string { return plain(math.Round(1000*e) / 10) }),
	decimal("metres a second at most", func(d *club.Drill) *float64 { return &d.Dose.TopSpeed }),
	each("legs", ";", func(d *club.Drill) *[]drill.Leg { return &d.Dose.Legs }, legOf, legSaid),
	decimal("seconds to turn", func(d *club.Drill) *float64 { return &d.Dose.TurnSeconds }),
	decimal("seconds between waves", func(d *club.Drill) *float64 { return &d.Dose.IntervalSeconds }),
	word("waves", func(d *club.Drill) *drill.Flow { return &d.Dose.Flow }, drill.Continuous, drill.Regroup),
	whole("cells", func(d *club.Drill) *int { return &d.Dose.Cells }),
	each("tries", ";", func(d *club.Drill) *[][]int { return &d.Dose.Counts }, triesOf, triesSaid),
	yes("in pairs", func(d *club.Drill) *bool { return &d.Dose.ByPair }),
	yes("as written", func(d *club.Drill) *bool { return &d.Dose.Exact }),
	several("rows", func(d *club.Drill) *[]string { return &d.Rows }),
	several("columns", func(d *club.Drill) *[]string { return &d.Columns }),
	each("ladder", ";", func(d *club.Drill) *[]drill.Rung { return &d.Rungs }, drill.ParseRung, drill.Rung.String),
	decimal("seconds an act", func(d *club.Drill) *float64 { return &d.Dose.ActSeconds }),
	decimal("effort", func(d *club.Drill) *float64 { return &d.Effort }),
	decimal("contacts each", func(d *club.Drill) *float64 { return &d.ContactsPerUnit }),
	yes("ground", func(d *club.Drill) *bool { return &d.Ground }),
	yes("static", func(d *club.Drill) *bool { return &d.Static }),
	yes("only warm", func(d *club.Drill) *bool { return &d.NeedsWarm }),
	yes("end of range", func(d *club.Drill) *bool { return &d.EndRange }),
	yes("one side at a time", func(d *club.Drill) *bool { return &d.OneSided }),
	yes("tires the arm", func(d *club.Drill) *bool { return &d.ArmPump }),
	yes("overhead", func(d *club.Drill) *bool { return &d.Overhead }),
	yes("body contact", func(d *club.Drill) *bool { return &d.Collision }),
	yes("as one", func(d *club.Drill) *bool { return &d.Together }),
	several("kit each", func(d *club.Drill) *[]string { return &d.Kit }),
	several("kit a lane", func(d *club.Drill) *[]string { return &d.LaneKit }),
	decimal("metres long", func(d *club.Drill) *float64 { return &d.Space.Length }),
	decimal("metres wide", func(d *club.Drill) *float64 { return &d.Space.Width }),
	several("say", func(d *club.Drill) *[]string { return &d.Cues }),
	several("look for", func(d *club.Drill) *[]string { return &d.Faults }),
	text("easier", func(d *club.Drill) *string { return &d.Easier }),
	text("harder", func(d *club.Drill) *string { return &d.Harder }),
	text("instead", func(d *club.Drill) *string { return &d.Swap }),
	text("caution", func(d *club.Drill) *string { return &d.Caution }),
	word("least level", func(d *club.Drill) *drill.Grade { return &d.Least }, drill.Junior, drill.Club, drill.Elite),
	several("sports", func(d *club.Drill) *[]string { return &d.Sports }),
}

// partOf reads a part of a dose, "left" or "left 4".
func partOf(cell string) (drill.Part, error) {
	name, reps := cell, 0
	if i := strings.LastIndexByte(cell, ' '); i > 0 {
		if n, err := strconv.Atoi(cell[i+1:]); err == nil {
			name, reps = strings.TrimSpace(cell[:i]), n
		}
	}
	return drill.Part{Name: name, Reps: reps}, nil
}

func partSaid(p drill.Part) string {
	if p.Reps == 0 {
		return p.Name
	}
	return fmt.Sprint(p.Name, " ", p.Reps)
}

// legOf reads a leg of a line: "high knees (high-knees), 18 m, 2.4 m/s,
// back", where the drill's code may be left out.
func legOf(cell string) (leg drill.Leg, err error) {
	parts := strings.Split(cell, ",")
	if leg.Back = strings.EqualFold(strings.TrimSpace(parts[len(parts)-1]), "back"); leg.Back {
		parts = parts[:len(parts)-1]
	}
	wrong := fmt.Errorf("%q is no leg: write drill, metres, metres a second, such as high knees, 18 m, 2.4 m/s, back", cell)
	if len(parts) != 3 {
		return leg, wrong
	}
	leg.Name = strings.TrimSpace(parts[0])
	if name, code, ok := strings.Cut(strings.TrimSuffix(leg.Name, ")"), " ("); ok {
		leg.Name, leg.Code = name, code
	}
	for i, field := range []*float64{&leg.Metres, &leg.Speed} {
		number, _, _ := strings.Cut(strings.TrimSpace(parts[i+1]), " ")
		if *field, err = strconv.ParseFloat(number, 64); err != nil {
			return leg, wrong
		}
	}
	return leg, nil
}

func legSaid(leg drill.Leg) string {
	said := strings.ReplaceAll(leg.Name, ",", " ")
	if leg.Code != "" {
		said += " (" + leg.Code + ")"
	}
	said += fmt.Sprintf(", %s m, %s m/s", plain(leg.Metres), plain(leg.Speed))
	if leg.Back {
		said += ", back"
	}
	return said
}

// triesOf reads the tries of a row of cells: "5 5 3".
func triesOf(cell string) (row []int, err error) {
	for _, one := range strings.Fields(cell) {
		n, err := strconv.Atoi(one)
		if err != nil {
			return nil, fmt.Errorf("%q is no row of tries: write how many in each cell, such as 5 5 3", cell)
		}
		row = append(row, n)
	}
	return row, nil
}

func triesSaid(row []int) string { return strings.Trim(fmt.Sprint(row), "[]") }

// secondsOf reads one of the numbers of a tempo.
func secondsOf(cell string) (float64, error) {
	seconds, err := strconv.ParseFloat(cell, 64)
	if err != nil || !(seconds >= 0 && seconds <= 60) {
		return 0, fmt.Errorf("%q is no tempo: write seconds down, held and up, such as 3 1 3", cell)
	}
	return seconds, nil
}

// effortOf reads the effort of a single trip in per cent.
func effortOf(cell string) (float64, error) {
	percent, err := strconv.ParseFloat(strings.TrimSpace(strings.TrimSuffix(cell, "%")), 64)
	if err != nil || !(percent >= 10 && percent <= 100) {
		return 0, fmt.Errorf("%q is no effort: write per cent of each trip, such as 70; 90; 100", cell)
	}
	return percent / 100, nil
}

func setPhases(d *club.Drill, cell string) error {
	d.Phases = nil
	for _, one := range strings.Split(cell, ";") {
		phase := drill.Phase(strings.ToLower(strings.TrimSpace(one)))
		switch phase {
		case "":
			continue
		case "own":
			phase = drill.Own
		case drill.Raise, drill.Activate, drill.Mobilise, drill.Potentiate, drill.Sport, drill.After:
		default:
			return fmt.Errorf("%q is no phase: they are raise, activate, mobilise, potentiate, sport, own, after", one)
		}
		d.Phases = append(d.Phases, phase)
	}
	return nil
}

func getPhases(d *club.Drill) string {
	var list []string
	for _, p := range d.Phases {
		if p == drill.Own {
			p = "own"
		}
		list = append(list, string(p))
	}
	return strings.Join(list, "; ")
}

// ReadDrills reads drills from CSV.
func ReadDrills(file []byte) ([]Row[club.Drill], []Problem, error) {
	begin := func() club.Drill {
		return club.Drill{Drill: drill.Drill{Phases: []drill.Phase{drill.Mobilise}, Effort: 0.4, Dose: drill.Dose{Kind: drill.Reps},
			Range: drill.Range{Min: 4, Target: 8, Max: 12, Step: 1}}}
	}
	return read(file, drillColumns, "name", begin, usual)
}

// usual fills in what a list of names and cues does not say: it is done eight times,
// to move, until the club says otherwise.
func usual(d *club.Drill) {
	if d.Range == (drill.Range{}) {
		d.Range = drill.Range{Min: 4, Target: 8, Max: 12, Step: 1}
	}
	if d.Code == "" {
		d.Code = strings.Join(strings.FieldsFunc(strings.ToLower(d.Name), func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) }), "-")
	}
	if d.Aim == "" && d.Name != "" {
		d.Aim = "Our own: say what it is for"
		if len(d.Cues) > 0 {
			d.Aim = d.Cues[0]
		}
	}
	if k := d.Dose.Kind; k == drill.Reps || k == drill.Hold {
		d.Dose.Sets, d.Dose.Sides = max(1, d.Dose.Sets), max(1, d.Dose.Sides)
	}
	if d.Dose.Kind == drill.Reps && d.Dose.RepSeconds == 0 {
		d.Dose.RepSeconds = 3
	}
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

// WriteDrills writes drills as CSV that ReadDrills reads back whole.
func WriteDrills(w io.Writer, drills []drill.Drill) error {
	list := make([]club.Drill, len(drills))
	for i, d := range drills {
		list[i].Drill = d
	}
	return writeRows(w, drillColumns, list)
}

// read reads things of one kind, and finds what is wrong with each and what is
// there twice.
func read[T club.Thing](file []byte, columns []column[T], needed string, begin func() T, finish ...func(*T)) (rows []Row[T], wrong []Problem, err error) {
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
		wrong = append(wrong[:maxProblems:maxProblems], Problem{Line: wrong[maxProblems].Line, What: fmt.Sprintf("and %d more problems after this line", n-maxProblems)})
	}
	return rows, wrong, nil
}

// is tells whether a head names that column.
func is[T any](columns []column[T], wanted, head string) bool {
	return slices.ContainsFunc(columns, func(c column[T]) bool {
		return c.name == wanted && (sameName(c.name, head) || slices.ContainsFunc(c.others, func(o string) bool { return sameName(o, head) }))
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
		wrong = append(wrong, Problem{row.Line, "", fmt.Sprintf("%s is in line %d already", strings.TrimPrefix(as, "#"), line)})
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
