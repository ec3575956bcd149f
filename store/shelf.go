package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/store/db"
)

// kept is a thing as it lies on its shelf.
type kept struct {
	id, owner uint64
	edition   uint32
	is        club.Thing
}

// shelf is where things of one kind lie. Each method fails with the driver's
// errors; what is another club's, or removed, is not there.
type shelf interface {
	list(ctx context.Context, q *db.Queries, clubID uint64) ([]kept, error)
	// lock reads a thing, which nobody else can change until the transaction ends.
	lock(ctx context.Context, q *db.Queries, clubID, id uint64) (kept, error)
	// add puts a thing there, under its id where it was there before and under a
	// new one where that is 0.
	add(ctx context.Context, q *db.Queries, clubID uint64, k kept) (id uint64, err error)
	// change puts a thing in place of what is there.
	change(ctx context.Context, q *db.Queries, clubID uint64, k kept) error
	remove(ctx context.Context, q *db.Queries, clubID, id uint64) error
	// read is the thing that a JSON text says.
	read(body []byte) (club.Thing, error)
}

var shelves = map[club.Kind]shelf{
	club.KindPlayer:      players{},
	club.KindRestriction: rulings{},
	club.KindTrial:       trials{},
	club.KindUnit:        things[club.Unit]{},
	club.KindVenue:       things[club.Venue]{},
	club.KindZone:        things[club.Zone]{},
	club.KindKit:         things[club.Kit]{},
	club.KindStaff:       things[club.Staff]{},
	club.KindRoutine:     things[club.Routine]{},
	club.KindFixture:     things[club.Fixture]{},
	club.KindDrill:       things[club.Drill]{},
	club.KindSport:       things[club.Sport]{},
	club.KindTarget:      things[club.Target]{},
}

// read is the thing of a type that a JSON text says.
func read[T club.Thing](body []byte) (club.Thing, error) {
	var is T
	err := json.Unmarshal(body, &is)
	if err != nil {
		err = fmt.Errorf("a stored %s cannot be read: %w", is.Kind(), err)
	}
	return is, err
}

// things is the shelf of those kinds that are kept as documents.
type things[T club.Thing] struct{}

func (things[T]) kind() string {
	var zero T
	return string(zero.Kind())
}

func (things[T]) read(body []byte) (club.Thing, error) { return read[T](body) }

func (t things[T]) list(ctx context.Context, q *db.Queries, clubID uint64) ([]kept, error) {
	rows, err := q.Things(ctx, db.ThingsParams{ClubID: clubID, Kind: t.kind()})
	list := make([]kept, len(rows))
	for i, row := range rows {
		list[i] = kept{id: row.ID, owner: uint64(row.Owner.Int64), edition: row.Edition}
		if list[i].is, err = t.read(row.Body); err != nil {
			return nil, err
		}
	}
	return list, err
}

func (t things[T]) lock(ctx context.Context, q *db.Queries, clubID, id uint64) (kept, error) {
	row, err := q.ThingForUpdate(ctx, db.ThingForUpdateParams{ClubID: clubID, ID: id})
	if err == nil && row.Kind != t.kind() {
		err = sql.ErrNoRows
	}
	if err != nil {
		return kept{}, err
	}
	is, err := t.read(row.Body)
	return kept{id: row.ID, owner: uint64(row.Owner.Int64), edition: row.Edition, is: is}, err
}

func (t things[T]) add(ctx context.Context, q *db.Queries, clubID uint64, k kept) (uint64, error) {
	body, err := json.Marshal(k.is)
	if err != nil {
		return 0, err
	}
	in := db.AddThingParams{ID: k.id, ClubID: clubID, Kind: t.kind(), UniqueAs: text(k.is.Unique()), Body: body}
	owner := sql.NullInt64{Int64: int64(k.owner), Valid: true}
	switch k.is.Kind() {
	case club.KindUnit:
		in.SquadID = owner
	case club.KindZone:
		if _, err := (things[club.Venue]{}).lock(ctx, q, clubID, k.owner); err != nil { // the key asks only for a thing
			return 0, err
		}
		in.VenueID = owner
	}
	id, err := q.AddThing(ctx, in)
	return uint64(id), err
}

func (things[T]) change(ctx context.Context, q *db.Queries, clubID uint64, k kept) error {
	body, err := json.Marshal(k.is)
	if err != nil {
		return err
	}
	return q.ChangeThing(ctx, db.ChangeThingParams{UniqueAs: text(k.is.Unique()), Body: body, ClubID: clubID, ID: k.id})
}

func (things[T]) remove(ctx context.Context, q *db.Queries, clubID, id uint64) error {
	return q.RemoveThing(ctx, db.RemoveThingParams{ClubID: clubID, ID: id})
}

// text is "" as none.
func text(s string) sql.NullString { return sql.NullString{String: s, Valid: s != ""} }

// players is the shelf of players. A player's row stays when they leave, so that
// whatever names it can be read.
type players struct{}

func (players) read(body []byte) (club.Thing, error) { return read[club.Player](body) }

func (players) list(ctx context.Context, q *db.Queries, clubID uint64) ([]kept, error) {
	rows, err := q.Players(ctx, clubID)
	list := make([]kept, len(rows))
	for i, row := range rows {
		list[i] = player(db.PlayerForUpdateRow(row))
	}
	return list, err
}

func (players) lock(ctx context.Context, q *db.Queries, clubID, id uint64) (kept, error) {
	row, err := q.PlayerForUpdate(ctx, db.PlayerForUpdateParams{ClubID: clubID, ID: id})
	return player(row), err
}

func player(row db.PlayerForUpdateRow) kept {
	return kept{id: row.ID, owner: row.SquadID, edition: row.Edition,
		is: club.Player{Number: int(row.Number.Int16), First: row.First,
			Last: row.Last, Position: row.Position,
			Foot: club.Side(row.Foot), Hand: club.Side(row.Hand), Bats: club.Side(row.Bats),
			Level: drill.Grade(row.Level),
			Build: club.Build(row.Build), Own: row.OwnLines, Forms: row.Forms, Notes: row.Notes}}
}

func (s players) add(ctx context.Context, q *db.Queries, clubID uint64, k kept) (uint64, error) {
	if k.id > 0 { // who left is there again
		return k.id, s.change(ctx, q, clubID, k)
	}
	p := k.is.(club.Player)
	id, err := q.AddPlayer(ctx, db.AddPlayerParams{ClubID: clubID, SquadID: k.owner, Number: shirt(p.Number),
		First: p.First, Last: p.Last, Position: p.Position,
		Foot: string(p.Foot), Hand: string(p.Hand), Bats: string(p.Bats), Level: string(p.Level),
		Build: string(p.Build), OwnLines: p.Own, Forms: p.Forms, Notes: p.Notes})
	return uint64(id), err
}

func shirt(number int) sql.NullInt16 { return sql.NullInt16{Int16: int16(number), Valid: number > 0} }

func (players) change(ctx context.Context, q *db.Queries, clubID uint64, k kept) error {
	p := k.is.(club.Player)
	return q.ChangePlayer(ctx, db.ChangePlayerParams{Number: shirt(p.Number), First: p.First, Last: p.Last,
		Position: p.Position, Foot: string(p.Foot),
		Hand: string(p.Hand), Bats: string(p.Bats), Level: string(p.Level), Build: string(p.Build), OwnLines: p.Own,
		Forms: p.Forms, Notes: p.Notes, ClubID: clubID, ID: k.id})
}

func (players) remove(ctx context.Context, q *db.Queries, clubID, id uint64) error {
	return q.RemovePlayer(ctx, db.RemovePlayerParams{ClubID: clubID, ID: id})
}

// rulings is the shelf of what medical staff ruled.
type rulings struct{}

func (rulings) read(body []byte) (club.Thing, error) { return read[club.Restriction](body) }

func (rulings) list(ctx context.Context, q *db.Queries, clubID uint64) ([]kept, error) {
	rows, err := q.Rulings(ctx, clubID)
	list := make([]kept, len(rows))
	for i, row := range rows {
		list[i] = ruling(db.RulingForUpdateRow(row))
	}
	return list, err
}

func (rulings) lock(ctx context.Context, q *db.Queries, clubID, id uint64) (kept, error) {
	row, err := q.RulingForUpdate(ctx, db.RulingForUpdateParams{ClubID: clubID, ID: id})
	return ruling(row), err
}

func ruling(row db.RulingForUpdateRow) kept {
	r := club.Restriction{NoJumps: row.NoJumps, NoOverhead: row.NoOverhead, MaxEffort: int(row.MaxEffort),
		MaxMinutes: int(row.MaxMinutes),
		From:       row.FromDay.Format(time.DateOnly), Until: dayOf(row.UntilDay), Review: dayOf(row.ReviewDay),
		Reason: row.Reason}
	if row.Spare != "" {
		r.Spare = strings.Split(row.Spare, ",")
	}
	return kept{id: row.ID, owner: row.PlayerID, edition: row.Edition, is: r}
}

func (rulings) add(ctx context.Context, q *db.Queries, clubID uint64, k kept) (uint64, error) {
	if k.id == 0 {
		if _, err := (players{}).lock(ctx, q, clubID, k.owner); err != nil { // for who has left, none is made
			return 0, err
		}
	}
	r := k.is.(club.Restriction)
	id, err := q.AddRuling(ctx, db.AddRulingParams{ID: k.id, ClubID: clubID, PlayerID: k.owner, NoJumps: r.NoJumps,
		NoOverhead: r.NoOverhead,
		MaxEffort:  uint8(r.MaxEffort), MaxMinutes: uint16(r.MaxMinutes), Spare: strings.Join(r.Spare, ","),
		FromDay: day(r.From).Time, UntilDay: day(r.Until), ReviewDay: day(r.Review), Reason: r.Reason})
	return uint64(id), err
}

func (rulings) change(ctx context.Context, q *db.Queries, clubID uint64, k kept) error {
	r := k.is.(club.Restriction)
	return q.ChangeRuling(ctx, db.ChangeRulingParams{NoJumps: r.NoJumps, NoOverhead: r.NoOverhead,
		MaxEffort: uint8(r.MaxEffort), MaxMinutes: uint16(r.MaxMinutes),
		Spare: strings.Join(r.Spare, ","), FromDay: day(r.From).Time, UntilDay: day(r.Until), ReviewDay: day(r.Review),
		Reason: r.Reason, ClubID: clubID, ID: k.id})
}

func (rulings) remove(ctx context.Context, q *db.Queries, clubID, id uint64) error {
	return q.RemoveRuling(ctx, db.RemoveRulingParams{ClubID: clubID, ID: id})
}

// day is a valid day, 2026-11-28, or none for "".
func day(text string) sql.NullTime {
	at, err := time.Parse(time.DateOnly, text)
	return sql.NullTime{Time: at, Valid: err == nil}
}

func dayOf(at sql.NullTime) string {
	if !at.Valid {
		return ""
	}
	return at.Time.Format(time.DateOnly)
}

// trials is the shelf of players' tests.
type trials struct{}

func (trials) read(body []byte) (club.Thing, error) { return read[club.Trial](body) }

func (trials) list(ctx context.Context, q *db.Queries, clubID uint64) ([]kept, error) {
	rows, err := q.Trials(ctx, clubID)
	if err != nil {
		return nil, err
	}
	all, err := q.TrialTries(ctx, clubID)
	if err != nil {
		return nil, err
	}
	tries := map[uint64][]float64{}
	for _, try := range all {
		tries[try.TrialID] = append(tries[try.TrialID], try.Result)
	}
	list := make([]kept, len(rows))
	for i, row := range rows {
		list[i] = trial(db.TrialForUpdateRow(row), tries[row.ID])
	}
	return list, nil
}

func (trials) lock(ctx context.Context, q *db.Queries, clubID, id uint64) (kept, error) {
	row, err := q.TrialForUpdate(ctx, db.TrialForUpdateParams{ClubID: clubID, ID: id})
	if err != nil {
		return kept{}, err
	}
	tries, err := q.TriesOf(ctx, id)
	return trial(row, tries), err
}

func trial(row db.TrialForUpdateRow, tries []float64) kept {
	return kept{id: row.ID, owner: row.PlayerID, edition: row.Edition, is: club.Trial{Test: row.Test, Unit: row.Unit,
		Better: club.Direction(row.Better), Mean: row.Mean,
		Day: row.Day.Format(time.DateOnly), Part: row.Part, Tries: tries}}
}

func (trials) add(ctx context.Context, q *db.Queries, clubID uint64, k kept) (uint64, error) {
	t := k.is.(club.Trial)
	id, err := q.AddTrial(ctx, db.AddTrialParams{ID: k.id, ClubID: clubID, PlayerID: k.owner, Test: t.Test,
		Unit: t.Unit, Better: string(t.Better), Day: day(t.Day).Time, Part: t.Part, Mean: t.Mean})
	if err != nil {
		return 0, err
	}
	return uint64(id), addTries(ctx, q, uint64(id), t.Tries)
}

func addTries(ctx context.Context, q *db.Queries, trial uint64, tries []float64) error {
	for i, result := range tries {
		if err := q.AddTry(ctx, db.AddTryParams{TrialID: trial, Number: uint8(i + 1), Result: result}); err != nil {
			return err
		}
	}
	return nil
}

func (trials) change(ctx context.Context, q *db.Queries, clubID uint64, k kept) error {
	t := k.is.(club.Trial)
	if err := q.ChangeTrial(ctx, db.ChangeTrialParams{Test: t.Test, Unit: t.Unit, Better: string(t.Better),
		Day: day(t.Day).Time, Part: t.Part, Mean: t.Mean, ClubID: clubID, ID: k.id}); err != nil {
		return err
	}
	if err := q.RemoveTries(ctx, k.id); err != nil {
		return err
	}
	return addTries(ctx, q, k.id, t.Tries)
}

func (trials) remove(ctx context.Context, q *db.Queries, clubID, id uint64) error {
	return q.RemoveTrial(ctx, db.RemoveTrialParams{ClubID: clubID, ID: id})
}
