package store_test

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/demo"
	"cuestart/demo/demotest"
	"cuestart/store"
)

// Of many who give the same number at once one gets it; of many who change the
// same player at the same edition one does.
func TestOnlyOneOfManyAtOnceGetsANumber(t *testing.T) {
	ctx, s := context.Background(), open(t, "numbers")
	coach, squad, err := s.Clubs.Found(ctx, "Hollinmere", "Netball", "Firsts", "club",
		store.Account{Email: "c@h.example", Name: "C", Role: store.Coach}, "hash")
	require.NoError(t, err)
	race := func(change func(n int) store.Change) (won int, id uint64, refused []error) {
		var mu sync.Mutex
		var all sync.WaitGroup
		for n := range 8 {
			all.Go(func() {
				ids, err := s.Clubs.Save(ctx, coach, "a race", change(n))
				mu.Lock()
				defer mu.Unlock()
				if err != nil {
					refused = append(refused, err)
					return
				}
				won++
				id = ids[0]
			})
		}
		all.Wait()
		return won, id, refused
	}
	won, id, refused := race(func(n int) store.Change {
		return store.Change{Owner: squad, Is: club.Player{First: fmt.Sprint("P", n), Number: 7}}
	})
	assert.Equal(t, 1, won, "%v", refused)
	for _, err := range refused {
		assert.ErrorIs(t, err, store.ErrTaken)
	}
	won, _, refused = race(func(n int) store.Change {
		return store.Change{ID: id, Edition: 1, Is: club.Player{First: fmt.Sprint("Q", n), Number: 7}}
	})
	assert.Equal(t, 1, won, "%v", refused)
	for _, err := range refused {
		assert.ErrorIs(t, err, store.ErrStale)
	}
	assert.Len(t, entries[club.Player](t, s), 1)
}

// Of many who press undo at once each step is taken back once.
func TestAStepIsTakenBackOnce(t *testing.T) {
	ctx, s := context.Background(), open(t, "undorace")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	for n := 10; n <= 12; n++ {
		session, err = s.Sessions.ChangePlan(ctx, 1, session, fitted(t, session, n))
		require.NoError(t, err)
	}
	var all sync.WaitGroup
	var mu sync.Mutex
	undone := 0
	for range 6 {
		all.Go(func() {
			err := s.Sessions.Undo(ctx, 1, 1, session.Revision)
			mu.Lock()
			defer mu.Unlock()
			if err == nil {
				undone++
			} else if !errors.Is(err, store.ErrStale) {
				t.Errorf("refused for another reason: %v", err)
			}
		})
	}
	all.Wait()
	assert.Equal(t, 1, undone, "of six at the same moment")
	now, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, 11, now.Document.Block("lineout").Items[0].Drill.Range.Target)
}

// What every kind says is the same after it was kept, changed and brought back
// from being taken out, with nothing of it lost.
func TestEveryKindComesBackWhole(t *testing.T) {
	ctx, s := context.Background(), open(t, "kinds")
	coach, squad, err := s.Clubs.Found(ctx, "Hollinmere", "Netball", "Firsts", "club",
		store.Account{Email: "c@h.example", Name: "C", Role: store.Coach}, "hash")
	require.NoError(t, err)
	ids, err := s.Clubs.Save(ctx, coach, "first", store.Change{Owner: squad, Is: club.Player{First: "Ada"}},
		store.Change{Is: club.Venue{Name: "Hall", TimeZone: "UTC"}})
	require.NoError(t, err)
	player, venue := ids[0], ids[1]
	both := func(owner uint64, before, after club.Thing, now func() club.Thing) {
		t.Helper()
		ids, err := s.Clubs.Save(ctx, coach, "made", store.Change{Owner: owner, Is: before})
		require.NoError(t, err, "%T", before)
		id := ids[len(ids)-1]
		assert.Equal(t, before, now())
		_, err = s.Clubs.Save(ctx, coach, "changed", store.Change{ID: id, Edition: 1, Is: after})
		require.NoError(t, err, "%T", before)
		assert.Equal(t, after, now())
		_, err = s.Clubs.Save(ctx, coach, "out", store.Change{ID: id, Edition: 2, Is: after, Gone: true})
		require.NoError(t, err)
		assert.Nil(t, now(), "%T is out", before)
		for _, want := range []club.Thing{after, before, nil} {
			_, err := s.Clubs.TakeBack(ctx, coach)
			require.NoError(t, err, "%T", before)
			assert.Equal(t, want, now(), "%T", before)
		}
	}
	both(squad, club.Player{Number: 999, First: "Zoë", Last: "Ó \"x\" \\", Foot: club.Both, Hand: club.Left,
		Level: "elite", Build: club.Stiff, Notes: "a\nb"}, club.Player{First: "Zoë"}, func() club.Thing {
		for _, e := range entries[club.Player](t, s) {
			if e.ID != player {
				return e.Is
			}
		}
		return nil
	})
	both(player, club.Restriction{NoJumps: true, NoOverhead: true, MaxEffort: 100, MaxMinutes: 240,
		Spare: []string{"knee", "hip"}, From: "2026-01-31", Until: "2026-02-28", Review: "2026-02-01", Reason: "ö"},
		club.Restriction{Spare: []string{"ankle"}, From: "2026-01-31"}, func() club.Thing {
			is, ok := last[club.Restriction](t, s).(club.Restriction)
			if !ok {
				return nil
			}
			reasons, err := s.People.Reasons(ctx, coach, player)
			require.NoError(t, err)
			for _, is.Reason = range reasons {
			}
			return is
		})
	both(player, club.Trial{Test: "Jump", Unit: "cm", Better: club.Higher, Day: "2026-01-31",
		Tries: []float64{1.25, -3, 1e5}}, club.Trial{Test: "Sprint", Better: club.Lower, Day: "2026-02-01",
		Tries: []float64{1.7}},
		func() club.Thing { return last[club.Trial](t, s) })
	both(squad, club.Unit{Name: "Pair", Players: []uint64{player}}, club.Unit{Name: "Two", Players: []uint64{player}},
		func() club.Thing { return last[club.Unit](t, s) })
	both(venue, club.Zone{Name: "Court", Capacity: 9, Lanes: 2, Metres: 30, Surface: "wood", Opens: "09:00",
		Closes: "21:00"}, club.Zone{Name: "Far court", Capacity: 8, Lanes: 1},
		func() club.Thing { return last[club.Zone](t, s) })
	both(0, club.Kit{Name: "ball", Pieces: 9}, club.Kit{Name: "ball", Pieces: 8},
		func() club.Thing { return last[club.Kit](t, s) })
	both(0, club.Staff{Name: "Imke", Role: "Half", Leads: true}, club.Staff{Name: "Imke"},
		func() club.Thing { return last[club.Staff](t, s) })
	edition, err := s.Clubs.BookEdition(ctx, coach.ClubID)
	require.NoError(t, err)
	assert.Zero(t, edition, "none of it is in the drill book")
}

// last is the newest of a kind, or nil.
func last[T club.Thing](t *testing.T, s *store.Store) club.Thing {
	list := entries[T](t, s)
	if len(list) == 0 {
		return nil
	}
	return list[len(list)-1].Is
}

// A step back in the schema, where there is one, leaves a schema that the same
// step forward fits again.
func TestAStepBackFitsForward(t *testing.T) {
	ctx := context.Background()
	s, raw := older(t, "stepback", 5)
	for _, version := range []int64{4, 3, 2} {
		require.NoError(t, s.MigrateTo(ctx, version))
	}
	var name string
	require.NoError(t,
		raw.QueryRow("SELECT column_name FROM information_schema.columns WHERE table_schema = DATABASE() AND "+
			"table_name = 'team_session' AND column_name = 'edition'").Scan(&name))
	require.NoError(t, s.Migrate(ctx))
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	assert.Error(t, s.MigrateTo(ctx, 2), "from here there is no way back without losing something")
	_, err := s.Sessions.Session(ctx, 1, 1)
	assert.NoError(t, err, "and trying it lost nothing")
}
