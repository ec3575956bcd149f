package place

import (
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/web/shell"
)

// table is a list that is changed in rows: a row for each thing, a field for each
// column, and rows to add.
type table struct {
	columns
	Rows [][]cell
}

// columns say what a row of a table holds.
type columns struct {
	Key, Legend, Hint string
	Columns           []column
	One               bool // there is one row and no more
}

// column is a field of a row.
type column struct {
	Name, Label string
	Wide        bool
	Number      bool
	List        string         // id of the words to pick from, if any
	Choices     []shell.Choice // what to pick, if it is a choice
}

// cell is a field of a row with its value.
type cell struct {
	column
	Value string
}

var priorities = []shell.Choice{{Value: string(plan.Must), Label: "must"},
	{Value: string(plan.Should), Label: "should"}, {Value: string(plan.Could), Label: "could"}}

// phases are those that a position's routine may belong to.
var phases = []shell.Choice{{Value: "", Label: drill.Sport.Name()}, {Value: drill.Own.Key(), Label: drill.Own.Name()},
	{Value: string(drill.Raise), Label: drill.Raise.Name()},
	{Value: string(drill.Activate), Label: drill.Activate.Name()},
	{Value: string(drill.Mobilise), Label: drill.Mobilise.Name()},
	{Value: string(drill.Potentiate), Label: drill.Potentiate.Name()}}

// The tables of a sport.
var (
	positions = columns{Key: "position", Legend: "Positions",
		Hint: "As your players call them: names are found by any of these when a squad is pasted.", Columns: []column{
			{Name: "name", Label: "Position"}, {Name: "called", Label: "Also called, several with ;", Wide: true}}}
	lines = columns{Key: "line", Legend: "Lines of the ground",
		Hint: "What people run to: how far it is from where they start.", Columns: []column{
			{Name: "name", Label: "Line"}, {Name: "far", Label: "How far"},
			{Name: "also", Label: "Also called, several with ;", Wide: true},
			{Name: "across", Label: "Runs", Choices: ways}}}
	sides = columns{Key: "side", Legend: "Home and away",
		Hint: "First at home, then away: what differs there on a match day.", Columns: []column{
			{Name: "called", Label: "A match is called"}, {Name: "from", Label: "Ground ours from, min"},
			{Name: "sooner", Label: "Done sooner by, min"}, {Name: "turn", Label: "How it begins", Choices: begins}},
		One: true}
	units = columns{Key: "unit", Legend: "Units: positions that work together", Columns: []column{
		{Name: "name", Label: "Unit"}, {Name: "positions", Label: "Positions, several with ;", Wide: true},
		{Name: "also", Label: "Also called, several with ;"}}}
	due = columns{Key: "due", Legend: "Who is due earlier or later",
		Hint: "Minutes from the start, before it negative: where they are in action first, and where their " +
			"turn comes later.",
		Columns: []column{
			{Name: "who", Label: "Position or unit", List: "who"}, {Name: "first", Label: "If first", Number: true},
			{Name: "later", Label: "If later", Number: true}}}
	roles = columns{Key: "role", Legend: "Roles of the day",
		Hint: "Asked for when a session is made: the starter, the place kicker. Routines and due times may be for " +
			"them.",
		Columns: []column{
			{Name: "name", Label: "Role"}, {Name: "positions", Label: "Who may have it, several with ; (anybody)",
				Wide: true}, {Name: "of", Label: "How many", Number: true}}}
	fixed = columns{Key: "fixed", Legend: "What a match day holds", Hint: "In minutes to go.", Columns: []column{
		{Name: "name", Label: "What"}, {Name: "who", Label: "Who", List: "who"},
		{Name: "from", Label: "From", Number: true}, {Name: "to", Label: "To", Number: true}}}
	craft = columns{Key: "craft", Legend: "Routines of positions",
		Hint: "Drills by their names in the drill book; several drills or units with ; between. Own time " +
			"lies outside the order.",
		Columns: craftColumns}
	principles = columns{Key: "principle", Legend: "What every warm-up must have",
		Hint: "In your words: a game, three hip openers, running technique, power with a stuck landing, " +
			"agility. None: what is usual goes.",
		Columns: []column{
			{Name: "words", Label: "It has", Wide: true}, {Name: "kind", Label: "Before", Choices: kinds}}}
	team = columns{Key: "team", Legend: "All together, last", Columns: craftColumns, One: true}
)

var craftColumns = []column{{Name: "name", Label: "Routine"}, {Name: "for", Label: "For"},
	{Name: "drills", Label: "Drills", Wide: true, List: "drills"},
	{Name: "priority", Label: "Priority", Choices: priorities}, {Name: "stations", Label: "At once", Number: true},
	{Name: "phase", Label: "Phase", Choices: phases},
	{Name: "place", Label: "Place"}, {Name: "on", Label: "Days", Choices: days}}

// kinds are the sessions that a principle is for.
var kinds = []shell.Choice{{Value: "", Label: "every session"}, {Value: string(plan.Match), Label: "a match"},
	{Value: string(plan.Training), Label: "a training"}}

// ways are how a line is run to.
var ways = []shell.Choice{{Value: "", Label: "up the ground"}, {Value: "across", Label: "across it"}}

// begins are how a match begins at home, or away.
var begins = []shell.Choice{{Value: "", Label: "not settled"}, {Value: string(plan.First), Label: "we begin"},
	{Value: string(plan.Later), Label: "they begin"}}

// days are those on which a routine is done.
var days = []shell.Choice{{Value: "", Label: "every day"}, {Value: string(plan.First), Label: "if first"},
	{Value: string(plan.Later), Label: "if later"}}

// table is an empty table of the columns.
func (c columns) table() *table { return &table{columns: c} }

// add puts a row into the table, its values in the order of the columns.
func (t *table) add(values ...string) {
	row := make([]cell, len(t.Columns))
	for i, c := range t.Columns {
		c.Name = t.Key + "-" + c.Name
		row[i] = cell{c, values[i]}
	}
	t.Rows = append(t.Rows, row)
}

// read is the table as it was sent. Fields of a row stand at the same place of
// their lists.
func (c columns) read(f *shell.Form) *table {
	t := c.table()
	for n := range f.List(c.Key + "-" + c.Columns[0].Name) {
		values := make([]string, len(c.Columns))
		for i, column := range c.Columns {
			if list := f.List(c.Key + "-" + column.Name); n < len(list) {
				values[i] = strings.TrimSpace(list[n])
			}
		}
		t.add(values...)
	}
	return t
}

// tableRow is a row that says something.
type tableRow []cell

// rows are the rows whose first field is not empty: emptying it takes a row out.
func (t *table) rows() (list []tableRow) {
	for _, row := range t.Rows {
		if row[0].Value != "" {
			list = append(list, row)
		}
	}
	return list
}

func (r tableRow) text(column int) string { return r[column].Value }

// list is a field that holds several, parted by semicolons.
func (r tableRow) list(column int) (list []string) {
	for _, one := range strings.Split(r[column].Value, ";") {
		if one = strings.TrimSpace(one); one != "" {
			list = append(list, one)
		}
	}
	return list
}
