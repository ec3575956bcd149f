package diary

import (
	"context"
	"slices"

	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// Build puts blocks into the plan of a session in place of its own: composed for its
// day (from is FromComposed), or those of a routine, by its id. Its people, places and
// what its day holds stay. It fails as [boards.Boards.Change] does.
func (di *Diary) Build(ctx context.Context, by planner.Account, id uint64, revision uint32,
	from string) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	brief, err := di.briefOf(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	squad, err := di.logs.SquadOf(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	var made *compose.Made
	if from == FromComposed {
		made, err = compose.Compose(ctx, brief)
	} else {
		made, err = di.byRoutine(ctx, by.ClubID, squad, from, brief)
	}
	if err == nil {
		_, err = di.carryPace(ctx, by.ClubID, squad, made.Document)
	}
	if err != nil {
		return nil, err
	}
	return di.boards.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		units := d.Units
		d.Blocks, d.Units, d.Method, d.Notes = made.Document.Blocks, made.Document.Units, made.Document.Method,
			made.Document.Notes
		d.Turns, d.Due = made.Document.Turns, made.Document.Due
		rename(d, units)
		return "blocks built for this day", nil
	})
}

// rename keeps what the day and the lists say of units, which were called otherwise
// before: those of the same name; what is no longer there stays.
func rename(d *plan.Document, were []plan.Unit) {
	now := map[string]string{}
	for _, was := range were {
		if i := slices.IndexFunc(d.Units, func(u plan.Unit) bool { return u.Name == was.Name }); i >= 0 {
			now[was.ID] = d.Units[i].ID
		} else if d.Unit(was.ID) == nil {
			d.Units = append(d.Units, was)
		}
	}
	in := func(ids []string) {
		for i, id := range ids {
			if is, renamed := now[id]; renamed {
				ids[i] = is
			}
		}
	}
	for i := range d.Fixed {
		in(d.Fixed[i].Who)
	}
	for i := range d.Lists {
		for n := range d.Lists[i].Blocks {
			in(d.Lists[i].Blocks[n].Who)
		}
	}
}

// briefOf is the brief of a session that is there.
func (di *Diary) briefOf(ctx context.Context, clubID, id uint64) (b compose.Brief, err error) {
	session, err := di.boards.Session(ctx, clubID, id)
	if err != nil {
		return b, err
	}
	known, err := di.books.Playbook(ctx, clubID)
	if err != nil {
		return b, err
	}
	d := session.Document
	start, err := d.Start.Resolve()
	if err != nil {
		return b, plan.In("start", "%s", err)
	}
	open, err := d.Open.Offset(start)
	if err != nil {
		return b, plan.In("open", "%s", err)
	}
	b = compose.Brief{Title: d.Title, Kind: d.Kind, Start: d.Start, Minutes: max(5, int(-open)/60), Method: d.Method,
		Place: d.Place, Grade: d.Grade, Sport: known.Sport,
		Turn: d.Turn, Players: d.Players, Zones: d.Zones, Leaders: d.Leaders, Kit: d.Kit, Today: d.Today,
		Restrictions: d.Restrictions, Fixed: d.Fixed,
		Book: known.Book.Drills, Steps: boards.Tried}
	for _, u := range d.Units {
		switch {
		case u.Name == plan.Bench:
			b.Bench = u.Players
		case u.Today:
			b.Roles = append(b.Roles, u)
		default:
			b.Units = append(b.Units, u)
		}
	}
	return b, nil
}

// FillList puts into a list of the plan what one of its kind usually holds, and adds the
// list where it is not there. It fails as [boards.Boards.Change] does.
func (di *Diary) FillList(ctx context.Context, by planner.Account, id uint64, revision uint32,
	when plan.When) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	brief, err := di.briefOf(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	usual, err := compose.Usual(brief, when)
	if err != nil {
		return nil, err
	}
	return di.boards.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		for _, b := range usual {
			if bench := slices.IndexFunc(d.Units,
				func(u plan.Unit) bool { return u.Name == plan.Bench }); when == plan.OnBench && bench >= 0 {
				b.Who = []string{d.Units[bench].ID}
			}
			if _, err := d.InsertInto(when, b); err != nil {
				return "", err
			}
		}
		return "what is usual", nil
	})
}
