package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"
	"unicode/utf8"

	"cuestart/core/club"
	"cuestart/store/db"
)

// Entry is a thing of a club as it is kept.
type Entry[T club.Thing] struct {
	ID      uint64
	Owner   uint64 // the thing or squad it belongs to; 0: the club
	Edition uint32 // counts its changes: a write has to name the one it was made on
	Is      T
}

// Entries lists what a club keeps of a kind, the oldest first.
func Entries[T club.Thing](ctx context.Context, s *Store, clubID uint64) ([]Entry[T], error) {
	var zero T
	rows, err := s.queries.Things(ctx, db.ThingsParams{ClubID: clubID, Kind: db.ThingKind(zero.Kind())})
	if err != nil {
		return nil, err
	}
	things := make([]Entry[T], len(rows))
	for i, row := range rows {
		things[i] = Entry[T]{ID: row.ID, Owner: row.Owner, Edition: row.Edition}
		if err := json.Unmarshal(row.Body, &things[i].Is); err != nil {
			return nil, fmt.Errorf("a stored %s cannot be read: %w", zero.Kind(), err)
		}
	}
	return things, nil
}

// Change is what is to become of a thing.
type Change struct {
	ID      uint64 // 0: it is new
	Owner   uint64 // of a new one
	Edition uint32 // that the change was made on; 0: whatever it is
	Is      club.Thing
	Gone    bool // take it out
}

// line is a change as it is written down, to be taken back.
type line struct {
	ID           uint64          `json:"id"`
	Kind         club.Kind       `json:"kind"`
	Owner        uint64          `json:"owner"`
	Before       json.RawMessage `json:"before,omitempty"` // none: it was new
	After        json.RawMessage `json:"after,omitempty"`  // none: it was taken out
	UniqueBefore string          `json:"unique_before,omitempty"`
	UniqueAfter  string          `json:"unique_after,omitempty"`
}

// Save makes changes, all or none, and writes them down under summary. It
// returns the ids of the things. It fails with [club.Thing]'s own problems,
// with ErrTaken where something unique is there already, with ErrStale where a
// thing was changed meanwhile, and with ErrNotFound.
func (s *Store) Save(ctx context.Context, by Account, summary string, changes ...Change) (ids []uint64, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		lines, err := apply(ctx, q, by.ClubID, changes)
		if err != nil {
			return err
		}
		for _, l := range lines {
			ids = append(ids, l.ID)
		}
		text, err := json.Marshal(lines)
		if err != nil {
			return err
		}
		for utf8.RuneCountInString(summary) > 200 {
			summary = string([]rune(summary)[:199]) + "…"
		}
		return q.AddThingChange(ctx, db.AddThingChangeParams{ClubID: by.ClubID, AccountID: by.ID, Summary: summary, Changes: text})
	})
	return ids, err
}

// Fill puts things into a new club as
// Save does, but they are not written down to be taken back.
func (s *Store) Fill(ctx context.Context, clubID uint64, changes ...Change) (ids []uint64, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		lines, err := apply(ctx, q, clubID, changes)
		for _, l := range lines {
			ids = append(ids, l.ID)
		}
		return err
	})
	return ids, err
}

// apply makes changes, and returns them with what was there before.
func apply(ctx context.Context, q *db.Queries, clubID uint64, changes []Change) (lines []line, err error) {
	for _, c := range changes {
		if !c.Gone {
			if err := c.Is.Validate(); err != nil {
				return nil, err
			}
		}
		l, err := change(ctx, q, clubID, c)
		if err != nil {
			return nil, err
		}
		lines = append(lines, l)
	}
	return lines, nil
}

func change(ctx context.Context, q *db.Queries, clubID uint64, c Change) (l line, err error) {
	if c.Is != nil {
		l.Kind, l.UniqueAfter = c.Is.Kind(), c.Is.Unique()
	}
	if !c.Gone {
		if l.After, err = json.Marshal(c.Is); err != nil {
			return l, err
		}
	}
	if c.ID == 0 && c.Gone {
		return l, ErrNotFound
	}
	if c.ID == 0 {
		l.Owner = c.Owner
		l.ID, err = add(ctx, q, clubID, l)
		return l, err
	}
	row, err := q.ThingForUpdate(ctx, db.ThingForUpdateParams{ClubID: clubID, ID: c.ID})
	if err != nil {
		return l, known(err)
	}
	if c.Is != nil && club.Kind(row.Kind) != c.Is.Kind() {
		return l, ErrNotFound
	}
	if c.Edition != 0 && c.Edition != row.Edition {
		return l, ErrStale
	}
	l.ID, l.Kind, l.Owner, l.Before, l.UniqueBefore = row.ID, club.Kind(row.Kind), row.Owner, row.Body, row.UniqueAs.String
	return l, put(ctx, q, clubID, l)
}

func add(ctx context.Context, q *db.Queries, clubID uint64, l line) (uint64, error) {
	id, err := q.AddThing(ctx, db.AddThingParams{ID: l.ID, ClubID: clubID, Kind: db.ThingKind(l.Kind), Owner: l.Owner, UniqueAs: unique(l.UniqueAfter), Body: l.After})
	return uint64(id), known(err)
}

// put brings a thing from what it was before to what it is after.
func put(ctx context.Context, q *db.Queries, clubID uint64, l line) error {
	if l.After == nil {
		return q.RemoveThing(ctx, db.RemoveThingParams{ClubID: clubID, ID: l.ID})
	}
	return known(q.ChangeThing(ctx, db.ChangeThingParams{UniqueAs: unique(l.UniqueAfter), Body: l.After, ClubID: clubID, ID: l.ID}))
}

func unique(as string) sql.NullString { return sql.NullString{String: as, Valid: as != ""} }

// Newest says what the account's last change of the last day was that is not
// taken back, or "".
func (s *Store) Newest(ctx context.Context, by Account) (summary string, at time.Time, err error) {
	row, err := s.queries.NewestThingChange(ctx, db.NewestThingChangeParams{ClubID: by.ClubID, AccountID: by.ID})
	if errors.Is(err, sql.ErrNoRows) {
		return "", time.Time{}, nil
	}
	return row.Summary, row.MadeAt, err
}

// TakeBack undoes the account's last change of the last day, and says which it
// was. It fails
// with ErrNothing, and with ErrStale where a thing was changed since.
func (s *Store) TakeBack(ctx context.Context, by Account) (summary string, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		row, err := q.NewestThingChange(ctx, db.NewestThingChangeParams{ClubID: by.ClubID, AccountID: by.ID})
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNothing
		} else if err != nil {
			return err
		}
		summary = row.Summary
		var lines []line
		if err := json.Unmarshal(row.Changes, &lines); err != nil {
			return err
		}
		for i := len(lines) - 1; i >= 0; i-- {
			l := lines[i]
			at, err := q.ThingForUpdate(ctx, db.ThingForUpdateParams{ClubID: by.ClubID, ID: l.ID})
			there := err == nil
			if err != nil && !errors.Is(err, sql.ErrNoRows) {
				return err
			}
			if there != (l.After != nil) || there && !bytes.Equal(at.Body, l.After) {
				return ErrStale
			}
			l.After, l.UniqueAfter = l.Before, l.UniqueBefore
			if there {
				err = put(ctx, q, by.ClubID, l)
			} else {
				_, err = add(ctx, q, by.ClubID, l)
			}
			if err != nil {
				return err
			}
		}
		return q.ThingChangeUndone(ctx, row.ID)
	})
	return summary, err
}
