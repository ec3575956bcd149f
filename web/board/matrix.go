package board

import (
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/planner/boards"
	"cuestart/web/shell"
)

// matrix is who is at which block: a row for everybody, for each unit and each player, a
// column a block, in the order of time.
type matrix struct {
	ID       uint64
	Title    string
	Revision uint32
	Columns  []matrixColumn
	Rows     []matrixRow
	Edits    bool
	Problem  string
}

type matrixColumn struct {
	Name, At string
	Phase    string
	Letter   string
	People   int
}

type matrixRow struct {
	Name, Numbers string
	Unit          bool // everybody, or a unit
	Cells         []matrixCell
}

// matrixCell is whether somebody is at a block.
type matrixCell struct {
	Put   string // what a press sends: in or out, block, who
	In    bool
	Some  bool // of a unit
	Alone bool // the player is named by themselves
	Away  bool // they are called away meanwhile
	Label string
}

// To is the address of something under the session.
func (m *matrix) To(under ...string) string { return shell.Session(m.ID, under...) }

// People is the page of people and blocks.
func (in Room) People(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	return peoplePage(r, b, ""), nil
}

func peoplePage(r *shell.Request, b *boards.Board, problem string) *shell.Page {
	m := matrixOf(b)
	m.Edits, m.Problem = r.Coach(), problem
	return &shell.Page{Screens: screens, Name: "matrix", Part: "matrix", Title: b.Document.Title + ", who does what",
		Nav: "runin", Body: m}
}

// Put puts somebody into a block, or takes them out.
func (in Room) Put(r *shell.Request) (shell.Answer, error) {
	how, rest, _ := strings.Cut(r.Form.Raw("put"), " ")
	block, who, _ := strings.Cut(rest, " ")
	b, err := in.Boards.Change(r.Insisting(), r.By, r.ParamID("session"), r.Form.Count("revision"),
		func(d *plan.Document) (string, error) { return d.Put(block, []string{who}, how == "in") })
	if err == nil && r.Wants("matrix") {
		return peoplePage(r, b, ""), nil
	}
	return r.Changed(err, shell.Go(shell.Session(r.ParamID("session"), "people")),
		func(wrong plan.Problems) (*shell.Page, error) {
			now, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
			if err != nil {
				return nil, err
			}
			return peoplePage(r, now, wrong[0].What), nil
		})
}

func matrixOf(b *boards.Board) *matrix {
	d := b.Document
	m := &matrix{ID: b.ID, Title: d.Title, Revision: b.Revision}
	order := make([]int, len(b.Blocks))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(x, y int) int { // those left out come last
		at := func(i int) int {
			if !b.Blocks[i].Kept {
				return 1
			}
			return int(b.Blocks[i].Start)
		}
		return at(x) - at(y)
	})
	everybody := matrixRow{Name: "Everybody", Unit: true}
	for _, i := range order {
		block := &b.Blocks[i]
		column := matrixColumn{Name: block.Name, Phase: block.Phase.Key(), Letter: block.Phase.Letter(),
			People: len(block.Members)}
		if block.Kept {
			column.At = block.Start.ToGo()
		}
		m.Columns = append(m.Columns, column)
		everybody.Cells = append(everybody.Cells, cellOf(b, i, plan.Everyone, "Everybody"))
	}
	m.Rows = append(m.Rows, everybody)
	for _, u := range d.Units {
		row := matrixRow{Name: u.Name, Numbers: d.Numbers(u.Players), Unit: true}
		for _, i := range order {
			row.Cells = append(row.Cells, cellOf(b, i, u.ID, u.Name))
		}
		m.Rows = append(m.Rows, row)
	}
	for _, p := range d.Players {
		row := matrixRow{Name: p.ShortName(), Numbers: d.Numbers([]string{p.ID})}
		for _, i := range order {
			row.Cells = append(row.Cells, cellOf(b, i, p.ID, p.ShortName()))
		}
		m.Rows = append(m.Rows, row)
	}
	return m
}

// cellOf is who, a player or a unit, at block i.
func cellOf(b *boards.Board, i int, who, name string) (c matrixCell) {
	d, block := b.Document, &b.Blocks[i]
	of, in := d.Members([]string{who}), 0
	members := d.Members(block.Who)
	for _, p := range of {
		if slices.Contains(members, p) {
			in++
		}
	}
	c.In, c.Some = len(of) > 0 && in == len(of), in > 0 && in < len(of)
	c.Alone = slices.Contains(block.Who, who) && d.Player(who) != nil
	how := "in "
	c.Label = name + " into " + block.Name
	if c.In {
		how, c.Label = "out ", name+" out of "+block.Name
	}
	c.Put = how + block.ID + " " + who
	for _, missed := range block.Missed {
		if missed.Player == who {
			c.Away = true
			c.Label += ", misses " + clock.Lasting(missed.Seconds)
		}
	}
	return c
}
