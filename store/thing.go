package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"
	"unicode/utf8"

	"cuestart/core/club"
	"cuestart/store/db"
)

// Entry is a thing of a club as it is kept.
type Entry[T club.Thing] struct {
	ID      uint64
	Owner   uint64 // the squad, venue or player it belongs to; 0: the club
	Edition uint32 // counts its changes: a write has to name the one it was made on
	Is      T
}

// Entries lists what a club keeps of a kind, the oldest of each owner first.
func Entries[T club.Thing](ctx context.Context, s Clubs, clubID uint64) ([]Entry[T], error) {
	return entries[T](ctx, s.queries, clubID)
}

func entries[T club.Thing](ctx context.Context, q *db.Queries, clubID uint64) ([]Entry[T], error) {
	var zero T
	list, err := shelves[zero.Kind()].list(ctx, q, clubID)
	entries := make([]Entry[T], len(list))
	for i, k := range list {
		entries[i] = Entry[T]{ID: k.id, Owner: k.owner, Edition: k.edition, Is: k.is.(T)}
	}
	return entries, err
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
	ID     uint64          `json:"id"`
	Kind   club.Kind       `json:"kind"`
	Owner  uint64          `json:"owner"`
	Before json.RawMessage `json:"before,omitempty"` // none: it was new
	After  json.RawMessage `json:"after,omitempty"`  // none: it was taken out
}

// Save makes changes, all or none, and writes them down under summary. It returns the ids of the
// things. It fails with [club.Thing]'s own problems, with ErrTaken where something unique is
// there already, with ErrStale where a thing was changed meanwhile, and with ErrNotFound.
func (s Clubs) Save(ctx context.Context, by Account, summary string, changes ...Change) (ids []uint64, err error) {
	err = s.within(ctx, func(q *db.Queries) (err error) {
		ids, err = save(ctx, q, by, summary, changes)
		return err
	})
	return ids, err
}

func save(ctx context.Context, q *db.Queries, by Account, summary string, changes []Change) (ids []uint64, err error) {
	lines, err := apply(ctx, q, by.ClubID, changes)
	if err != nil {
		return nil, err
	}
	for _, l := range lines {
		ids = append(ids, l.ID)
	}
	written, err := json.Marshal(lines)
	if err != nil {
		return nil, err
	}
	return ids, q.AddThingChange(ctx, db.AddThingChangeParams{ClubID: by.ClubID, AccountID: by.ID,
		Summary: short(summary), Changes: string(written)})
}

// short is a summary that fits its column.
func short(summary string) string {
	if utf8.RuneCountInString(summary) > 200 {
		return string([]rune(summary)[:199]) + "…"
	}
	return summary
}

// Fill puts things into a new club as Save does, but they are not written down to
// be taken back.
func (s Clubs) Fill(ctx context.Context, clubID uint64, changes ...Change) (ids []uint64, err error) {
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
	book := false
	var kinds []club.Kind
	for _, c := range changes {
		kinds = append(kinds, c.Is.Kind())
	}
	if err := waitsForPublishing(ctx, q, clubID, kinds...); err != nil {
		return nil, err
	}
	for _, c := range changes {
		if !c.Gone {
			if err := c.Is.Validate(); err != nil {
				return nil, err
			}
		}
		l, err := change(ctx, q, clubID, c)
		if err != nil {
			return nil, known(err)
		}
		lines, book = append(lines, l), book || inBook(l.Kind)
	}
	if book {
		err = q.BookChanged(ctx, clubID)
	}
	return lines, err
}

// inBook tells whether things of a kind change the club's drill book or sport.
func inBook(kind club.Kind) bool { return kind == club.KindDrill || kind == club.KindSport }

func change(ctx context.Context, q *db.Queries, clubID uint64, c Change) (l line, err error) {
	l.ID, l.Kind, l.Owner = c.ID, c.Is.Kind(), c.Owner
	on := shelves[l.Kind]
	if !c.Gone {
		if l.After, err = json.Marshal(c.Is); err != nil {
			return l, err
		}
	}
	if c.ID == 0 {
		if c.Gone {
			return l, ErrNotFound
		}
		l.ID, err = on.add(ctx, q, clubID, kept{owner: c.Owner, is: c.Is})
		return l, err
	}
	was, err := on.lock(ctx, q, clubID, c.ID)
	if err != nil {
		return l, err
	}
	if c.Edition != 0 && c.Edition != was.edition {
		return l, ErrStale
	}
	l.Owner = was.owner
	if l.Before, err = json.Marshal(was.is); err != nil {
		return l, err
	}
	if c.Gone {
		return l, on.remove(ctx, q, clubID, c.ID)
	}
	return l, on.change(ctx, q, clubID, kept{id: c.ID, is: c.Is})
}

// Newest says what the account's last change of the last day was that is not
// taken back, or "".
func (s Clubs) Newest(ctx context.Context, by Account) (summary string, at time.Time, err error) {
	row, err := s.queries.NewestSummary(ctx, db.NewestSummaryParams{ClubID: by.ClubID, AccountID: by.ID})
	if errors.Is(err, sql.ErrNoRows) {
		return "", time.Time{}, nil
	}
	return row.Summary, row.MadeAt, err
}

// TakeBack undoes the account's last change of the last day, and says which it
// was. It fails with ErrNothing, and with ErrStale where a thing was changed
// since.
func (s Clubs) TakeBack(ctx context.Context, by Account) (summary string, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		row, err := q.NewestThingChange(ctx, db.NewestThingChangeParams{ClubID: by.ClubID, AccountID: by.ID})
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNothing
		} else if err != nil {
			return err
		}
		summary = row.Summary
		var lines []line
		if err := json.Unmarshal([]byte(row.Changes), &lines); err != nil {
			return err
		}
		book := false
		var kinds []club.Kind
		for _, l := range lines {
			kinds = append(kinds, l.Kind)
		}
		if err := waitsForPublishing(ctx, q, by.ClubID, kinds...); err != nil {
			return err
		}
		for i := len(lines) - 1; i >= 0; i-- {
			if err := takeBack(ctx, q, by.ClubID, lines[i]); err != nil {
				return known(err)
			}
			book = book || inBook(lines[i].Kind)
		}
		if book {
			if err := q.BookChanged(ctx, by.ClubID); err != nil {
				return err
			}
		}
		return q.ThingChangeUndone(ctx, row.ID)
	})
	return summary, err
}

// takeBack brings one thing from what it is after a change to what it was before,
// or fails with ErrStale where it is something else by now.
func takeBack(ctx context.Context, q *db.Queries, clubID uint64, l line) error {
	on, ok := shelves[l.Kind]
	if !ok {
		return ErrStale
	}
	at, err := on.lock(ctx, q, clubID, l.ID)
	there := err == nil
	if err != nil && !errors.Is(err, sql.ErrNoRows) {
		return err
	}
	if there != (l.After != nil) {
		return ErrStale
	}
	if same, err := says(on, at.is, l.After); there && (err != nil || !same) {
		return errors.Join(err, ErrStale)
	}
	if l.Before == nil {
		return on.remove(ctx, q, clubID, l.ID)
	}
	was, err := on.read(l.Before)
	if err != nil {
		return err
	}
	back := kept{id: l.ID, owner: l.Owner, is: was}
	if there {
		return on.change(ctx, q, clubID, back)
	}
	_, err = on.add(ctx, q, clubID, back)
	return err
}

// says tells whether a thing is what was written down, however that was written.
func says(on shelf, is club.Thing, body []byte) (bool, error) {
	if is == nil || body == nil {
		return false, nil
	}
	then, err := on.read(body)
	if err != nil {
		return false, err
	}
	a, errA := json.Marshal(is)
	b, errB := json.Marshal(then)
	return bytes.Equal(a, b), errors.Join(errA, errB)
}
