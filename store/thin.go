package store

import (
	"context"
	"database/sql"
	"time"

	"cuestart/store/db"
)

// What is kept of a session's editions and publications, so that a plan that is changed
// for months stays small: all of 30 days, though no more than so many; then the last of
// each day; after a year what was published.
const (
	thinEvery   = 20 // editions
	keptAll     = 30 * 24 * time.Hour
	keptDaily   = 365 * 24 * time.Hour
	mostEdition = 2000
	mostPublic  = 500
)

// thin deletes a session's old editions, and lets what was made from one be made
// from the nearest that stays.
func thin(ctx context.Context, q *db.Queries, session uint64, head uint32, now time.Time) error {
	published, err := q.PublishedHeads(ctx, session)
	if err != nil {
		return err
	}
	needed := map[uint32]bool{head: true}
	for i, p := range published {
		daily := i > 0 && p.PublishedAt.Format(time.DateOnly) == published[i-1].PublishedAt.Format(time.DateOnly)
		if i < mostPublic && (i == 0 || now.Sub(p.PublishedAt) < keptAll || !daily) {
			needed[p.Head] = true
		} else if err := q.RemovePublication(ctx, db.RemovePublicationParams{SessionID: session,
			Number: p.Number}); err != nil {
			return err
		}
	}
	tree, err := q.EditionTree(ctx, session)
	if err != nil {
		return err
	}
	gone, moved := thinned(tree, needed, now)
	for number, parent := range moved {
		if err := q.Reparent(ctx, db.ReparentParams{Parent: parent, SessionID: session, Number: number}); err != nil {
			return err
		}
	}
	for i := len(gone) - 1; i >= 0; i-- { // what was made from another goes before it
		if err := q.RemoveEdition(ctx, db.RemoveEditionParams{SessionID: session, Number: gone[i]}); err != nil {
			return err
		}
	}
	return nil
}

// thinned says which editions of a tree, in order of their numbers, go, and what
// those that stay are made from then, where that changes. The needed stay.
func thinned(tree []db.EditionTreeRow, needed map[uint32]bool,
	now time.Time) (gone []uint32, moved map[uint32]sql.NullInt32) {
	stays, parent := map[uint32]bool{}, map[uint32]sql.NullInt32{}
	day := func(i int) string { return tree[i].MadeAt.Format(time.DateOnly) }
	for i, e := range tree {
		last := i+1 == len(tree) || day(i) != day(i+1)
		age := now.Sub(e.MadeAt)
		stays[e.Number] = needed[e.Number] || len(tree)-i <= mostEdition && (age < keptAll || last && age < keptDaily)
		parent[e.Number] = e.Parent
	}
	moved = map[uint32]sql.NullInt32{}
	for _, e := range tree {
		if !stays[e.Number] {
			gone = append(gone, e.Number)
			continue
		}
		from := e.Parent
		for from.Valid && !stays[uint32(from.Int32)] {
			from = parent[uint32(from.Int32)]
		}
		if from != e.Parent {
			moved[e.Number] = from
		}
	}
	return gone, moved
}
