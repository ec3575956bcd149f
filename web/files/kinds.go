package files

import (
	"cmp"
	"errors"
	"fmt"
	"strings"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/planner/keep"
	"cuestart/share"
	"cuestart/web/shell"
)

// Each of these reads a file of one kind and finds what it would change. An error
// is a sentence about the whole file.

var errNoAnswer = errors.New("the database does not answer: try again in a moment")

// squadOf is the squad that the file is for.
func (in Room) squadOf(r *shell.Request, b *importBody) (*keep.Squad, error) {
	squad, err := in.Keep.Squad(r.Context(), r.Club(), b.Squad)
	if err != nil {
		return nil, errors.New("pick a squad")
	}
	b.Squad = squad.ID
	return squad, nil
}

func (in Room) readSquad(r *shell.Request, b *importBody, file []byte) error {
	squad, err := in.squadOf(r, b)
	if err != nil {
		return err
	}
	rows, wrong, err := share.ReadPlayers(file)
	if plays, failed := in.Books.Sport(r.Context(), r.Club()); failed == nil {
		for i := range rows {
			p := &rows[i].Is
			positions, unknown := plays.FindAll(p.Position)
			for _, one := range unknown {
				b.Unsure = append(b.Unsure, unsure(rows[i].Line, one, plays.Nearest(one, 1)[0]))
			}
			p.Position = strings.Join(positions, plan.BetweenPositions)
		}
	}
	return compare[club.Player](in, r, b, squad.ID, rows, wrong, err)
}

// unsure is what is said of a position that the sport does not have.
func unsure(line int, position, near string) wrongRow {
	return wrongRow{line, "position",
		fmt.Sprintf("%q is not a position we know: it is kept as it is, and the squad's page asks what it is "+
			"(like %s?)",
			position, near)}
}

func (in Room) readFixtures(r *shell.Request, b *importBody, file []byte) error {
	rows, wrong, err := share.ReadFixtures(file, b.Zone)
	return compare[club.Fixture](in, r, b, 0, rows, wrong, err)
}

func (in Room) readCalendar(r *shell.Request, b *importBody, file []byte) error {
	now := r.Now()
	rows, wrong, err := share.ReadCalendar(file, b.Zone, now, now.AddDate(1, 0, 0))
	return compare[club.Fixture](in, r, b, 0, rows, wrong, err)
}

func (in Room) readDrills(r *shell.Request, b *importBody, file []byte) error {
	rows, wrong, err := share.ReadDrills(file)
	if err != nil {
		return err
	}
	book, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return errNoAnswer
	}
	var drills []club.Drill
	for i := range rows {
		drill := &rows[i].Is
		if own := book.Own[drill.Code].Is; drill.Figure == nil && !drill.Plain {
			// a list of words leaves a figure alone
			drill.Figure, drill.Plain = own.Figure, own.Plain
		}
		drills = append(drills, *drill)
	}
	for _, l := range book.Unknown(drills) {
		column := map[string]string{"swap": "instead"}[l.Field]
		wrong = append(wrong, share.Problem{Line: rows[l.Index].Line, Column: cmp.Or(column, l.Field),
			What: fmt.Sprintf("there is no drill %q", l.Code)})
	}
	return compare[club.Drill](in, r, b, 0, rows, wrong, nil)
}

func (in Room) readTests(r *shell.Request, b *importBody, file []byte) error {
	squad, err := in.squadOf(r, b)
	if err != nil {
		return err
	}
	rows, wrong, err := share.ReadTrials(file)
	for i, row := range rows {
		if rows[i].Owner = playerOf(squad, row.Is.Player); rows[i].Owner == 0 {
			wrong = append(wrong, share.Problem{Line: row.Line, Column: "player",
				What: fmt.Sprintf("%q is not in %s", row.Is.Player, squad.Name)})
		}
	}
	return compare[club.Trial](in, r, b, 0, rows, wrong, err)
}

func (in Room) readRoutine(r *shell.Request, b *importBody, file []byte) error {
	routine, err := share.ReadRoutine(file)
	return compare[club.Routine](in, r, b, 0, []share.Row[club.Routine]{{Line: 1, Is: routine}}, nil, err)
}

// playerOf is the id of the squad's player of that full name; 0: there is none.
func playerOf(squad *keep.Squad, name string) uint64 {
	for _, k := range squad.Players {
		if strings.EqualFold(k.Is.Label(), strings.TrimSpace(name)) {
			return k.ID
		}
	}
	return 0
}

// compare fills the preview.
func compare[T club.Thing](in Room, r *shell.Request, b *importBody, owner uint64, rows []share.Row[T],
	wrong []share.Problem, err error) error {
	if err != nil {
		return err
	}
	for _, p := range wrong {
		b.Wrong = append(b.Wrong, wrongRow{p.Line, p.Column, p.What})
	}
	if len(wrong) > 0 {
		return nil
	}
	var incoming []keep.Incoming
	for _, row := range rows {
		incoming = append(incoming, keep.Incoming{Line: row.Line, Owner: row.Owner, Is: row.Is})
	}
	differences, clashes, err := keep.Differences[T](r.Context(), in.Keep, r.Club(), owner, incoming)
	if err != nil {
		return errNoAnswer
	}
	for _, clash := range clashes {
		b.Wrong = append(b.Wrong, wrongRow{Line: clash.Line, What: clash.What})
	}
	b.Rows = differences
	return nil
}
