package drill

import (
	"math"
	"slices"
)

// Way is the side or the direction of a [Step].
type Way string

// The ways.
const (
	Left    Way = "left"
	Right   Way = "right"
	Both    Way = "both" // of a player who uses either
	OwnSide Way = "own side"
	There   Way = "one way"
	Back    Way = "the other way"
	Rest    Way = "rest" // between sets
	Wait    Way = "wait" // for one's turn
)

// Measure says what the amount of a [Step] counts.
type Measure string

// The measures.
const (
	Times   Measure = ""        // reps, acts: of the drill's unit
	Seconds Measure = "s"       // held, or plain time
	Breaths Measure = "breaths" // held
	Metres  Measure = "m"       // one trip or leg
)

// Step is one thing to do at a time: the reps of one side, one hold, one length.
type Step struct {
	Set, Sets   int     `json:",omitempty"` // set 2 of 3; 0 where there is one
	Turn, Turns int     `json:",omitempty"` // the hold or length 2 of 6; 0 where there is one
	Ways        []Way   `json:",omitempty"` // left; the other way; a rest
	Part        string  `json:",omitempty"` // the part, leg or cell of that name
	Brief       string  `json:",omitempty"` // the part in a word, where its name is longer
	Effort      float64 `json:",omitempty"` // 0 to 1; 0: as the drill says
	Amount      int
	Measure     Measure `json:",omitempty"`
	Seconds     float64 // that one person needs for it
}

// Timed tells whether the step is over when its seconds are.
func (s Step) Timed() bool { return s.Measure == Seconds || s.Measure == Breaths }

// How many holds, and how many lengths that are all the same, are stepped one by one:
// nobody follows more.
const (
	mostTurns   = 12
	mostLengths = 6
)

// Steps takes amount of the drill apart into what is done one after the other. There is
// always one; together they last as long as one person needs for the dose.
func (d Drill) Steps(amount int) []Step {
	dose := d.Dose.WithAmount(amount)
	switch dose.Kind {
	case Reps, Hold:
		return dose.setSteps()
	case Travel:
		return dose.trips()
	case Line:
		return dose.legs()
	case Grid:
		return cellSteps(d, amount)
	case Time:
		return []Step{{Amount: amount, Measure: Seconds, Seconds: float64(amount), Effort: dose.oneEffort()}}
	}
	return []Step{{Amount: amount, Seconds: float64(amount) * dose.ActSeconds, Effort: dose.oneEffort()}}
}

// oneEffort is the effort that was said of a dose that is done at one.
func (d Dose) oneEffort() float64 {
	if len(d.Efforts) == 0 {
		return 0
	}
	return d.effort(0)
}

// setSteps are those of reps and holds: set by set, side by side, each way, part by part.
func (d Dose) setSteps() (steps []Step) {
	for set := range d.Sets {
		if set > 0 && d.RestSeconds > 0 {
			steps = append(steps, Step{Ways: []Way{Rest}, Amount: int(math.Round(d.RestSeconds)), Measure: Seconds,
				Seconds: d.RestSeconds})
		}
		for _, ways := range d.ways() {
			step := Step{Effort: d.oneEffort(), Ways: ways}
			if d.Sets > 1 {
				step.Set, step.Sets = set+1, d.Sets
			}
			steps = append(steps, d.inTurn(step)...)
		}
	}
	return steps
}

// ways are the sides, and on each the directions, that a set goes through.
func (d Dose) ways() (all [][]Way) {
	sides := [][]Way{nil}
	switch {
	case d.OwnSide && d.Only != "":
		sides = [][]Way{{d.Only}}
	case d.OwnSide:
		sides = [][]Way{{OwnSide}}
	case d.Sides == 2:
		sides = [][]Way{{Left}, {Right}}
	}
	if d.Directions != 2 {
		return sides
	}
	for _, side := range sides {
		all = append(all, append(slices.Clone(side), There), append(slices.Clone(side), Back))
	}
	return all
}

// inTurn are the parts of one side of a set: reps as one step, holds one by one.
func (d Dose) inTurn(step Step) (steps []Step) {
	parts := d.Parts
	if len(parts) == 0 {
		parts = []Part{{}}
	}
	most := d.mostReps()
	for _, part := range parts {
		reps := d.Reps
		if part.Reps > 0 {
			reps = scaled(part.Reps, d.Reps, most)
		}
		one := step
		one.Part = part.Name
		if d.Kind == Reps {
			one.Amount, one.Seconds = reps, float64(reps)*d.rep()
			steps = append(steps, one)
			continue
		}
		one.Amount, one.Measure, one.Seconds = int(math.Round(d.held())), Seconds, d.held()+d.SettleSeconds
		if d.Breaths > 0 {
			one.Amount, one.Measure = d.Breaths, Breaths
		}
		steps = append(steps, one.times(reps, mostTurns)...)
	}
	return steps
}

// times is a step so often: one by one, or where there are too many to follow as one.
func (s Step) times(n, most int) (steps []Step) {
	if n > most {
		s.Turns, s.Seconds = n, s.Seconds*float64(n)
		return []Step{s}
	}
	for i := range n {
		if n > 1 {
			s.Turn, s.Turns = i+1, n
		}
		steps = append(steps, s)
	}
	return steps
}

// trips are the lengths of a travel dose.
func (d Dose) trips() (steps []Step) {
	top := d.TopSpeed
	if top == 0 {
		top = TopSpeed[Club]
	}
	step := Step{Amount: int(math.Round(d.Metres)), Measure: Metres}
	if len(d.Efforts) == 0 {
		step.Seconds = d.Metres/d.Speed + d.TurnSeconds
		return step.times(d.Trips, mostLengths)
	}
	for n := range d.Trips {
		step.Turn, step.Turns = n+1, d.Trips
		step.Effort = d.effort(n)
		step.Seconds = d.Metres/(step.Effort*top) + d.TurnSeconds
		steps = append(steps, step)
	}
	return steps
}

// legs are the ways out and back of a line, trip by trip.
func (d Dose) legs() (steps []Step) {
	for trip := range d.Trips {
		for _, leg := range d.Legs {
			step := Step{Part: leg.Name, Ways: []Way{Out}, Amount: int(math.Round(leg.Metres)), Measure: Metres,
				Seconds: leg.Metres / leg.Speed}
			if leg.Back {
				step.Ways = []Way{Home}
			}
			if d.Trips > 1 {
				step.Turn, step.Turns = trip+1, d.Trips
			}
			steps = append(steps, step)
		}
	}
	return steps
}

// The ways of a line.
const (
	Out  Way = "on the way out"
	Home Way = "on the way back"
)

// Cell is one cell of a grid: how often it is tried.
type Cell struct {
	Row, Column string `json:",omitempty"`
	Tries       int
	N           int `json:"-"` // its place, counted from 0 over all cells, row by row, those not wanted too
}

// Name is what the cell is called.
func (c Cell) Name() string {
	if c.Row == "" || c.Column == "" {
		return c.Row + c.Column
	}
	return c.Row + ", " + c.Column
}

// Grid lists the cells that are tried at an amount of the drill, row by row; none where
// the drill is no grid or its cells have no names.
func (d Drill) Grid(amount int) (cells []Cell) {
	if d.Dose.Kind != Grid || len(d.Rows)+len(d.Columns) == 0 {
		return nil
	}
	rows, columns := d.Rows, d.Columns
	if len(rows) == 0 {
		rows = []string{""}
	}
	if len(columns) == 0 {
		columns = []string{""}
	}
	most := d.Dose.mostTries()
	for i, row := range rows {
		for j, column := range columns {
			tries := amount
			if most > 0 {
				tries = 0
				if i < len(d.Dose.Counts) && j < len(d.Dose.Counts[i]) && d.Dose.Counts[i][j] > 0 {
					tries = scaled(d.Dose.Counts[i][j], amount, most)
				}
			}
			if tries > 0 {
				cells = append(cells, Cell{Row: row, Column: column, Tries: tries, N: i*len(columns) + j})
			}
		}
	}
	return cells
}

// Table is the grid of the drill as it is ticked: its rows and columns, of which at least one
// each has a name or "" where there is only one kind, and each row's cells; Tries 0: that cell
// is not wanted. None where [Drill.Grid] has none.
func (d Drill) Table(amount int) (rows, columns []string, cells [][]Cell) {
	wanted := d.Grid(amount)
	if len(wanted) == 0 {
		return nil, nil, nil
	}
	if rows, columns = d.Rows, d.Columns; len(rows) == 0 {
		rows = []string{""}
	}
	if len(columns) == 0 {
		columns = []string{""}
	}
	for i, row := range rows {
		line := make([]Cell, len(columns))
		for j, column := range columns {
			line[j] = Cell{Row: row, Column: column, N: i*len(columns) + j}
		}
		cells = append(cells, line)
	}
	for _, c := range wanted {
		cells[c.N/len(columns)][c.N%len(columns)] = c
	}
	return rows, columns, cells
}

// cellSteps are the cells of a grid, one by one where they have names.
func cellSteps(d Drill, amount int) (steps []Step) {
	cells := d.Grid(amount)
	if len(cells) == 0 {
		tries := d.Dose.WithAmount(amount).Units()
		return []Step{{Amount: tries, Seconds: float64(tries) * d.Dose.ActSeconds}}
	}
	for _, c := range cells {
		brief := ""
		if len(d.Rows) == 1 {
			brief = c.Column
		} else if len(d.Columns) == 1 {
			brief = c.Row
		}
		steps = append(steps, Step{Part: c.Name(), Brief: brief, Amount: c.Tries,
			Seconds: float64(c.Tries) * d.Dose.ActSeconds})
	}
	return steps
}
