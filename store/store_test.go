package store_test

import (
	"context"
	"errors"
	"os"
	"sync"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/demo"
	"cuestart/mariadb"
	"cuestart/mariadb/mariadbtest"
	"cuestart/store"
)

var server *mariadb.Server

func TestMain(m *testing.M) { os.Exit(mariadbtest.Run(m, &server)) }

func open(t *testing.T, name string) *store.Store {
	s, err := store.Open(context.Background(), server.DSN(name))
	require.NoError(t, err)
	require.NoError(t, s.Migrate(context.Background()))
	t.Cleanup(func() { s.Close() })
	return s
}

var wednesday = time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)

// fitted is the demo's match with line-out throws set to n.
func fitted(t *testing.T, session *store.Session, n int) store.Fitted {
	d := session.Document.Clone()
	said, err := d.SetDose("lineout", 0, n)
	require.NoError(t, err)
	s, err := runin.Plan(context.Background(), d, 0)
	require.NoError(t, err)
	return store.Fitted{Document: d, Schedule: s, Summary: said, By: 1}
}

func TestAPlanComesBackAsItWasAndCanBeUndone(t *testing.T) {
	ctx, s := context.Background(), open(t, "undo")
	require.NoError(t, demo.Fill(ctx, s, wednesday))
	require.NoError(t, demo.Fill(ctx, s, wednesday), "a second time changes nothing")
	sessions, err := s.Sessions(ctx, 1, wednesday)
	require.NoError(t, err)
	require.Len(t, sessions, 3)
	assert.Equal(t, []string{"Brackwater v Fellmoor", "Tuesday training", "Oxlode Vale v Brackwater"},
		[]string{sessions[0].Document.Title, sessions[1].Document.Title, sessions[2].Document.Title})

	at := func() *store.Session {
		session, err := s.Session(ctx, 1, 1)
		require.NoError(t, err)
		return session
	}
	throws := func() int { return at().Document.Block("lineout").Items[0].Drill.Range.Target }
	first := at()
	again, err := runin.Plan(ctx, first.Document, 0)
	require.NoError(t, err)
	assert.Equal(t, again.Result, first.Schedule.Result, "what is stored is what was fitted")
	assert.ErrorIs(t, s.Undo(ctx, 1, 1, first.Edition), store.ErrNothing)

	require.NoError(t, s.Change(ctx, 1, 1, 1, fitted(t, first, 10)))
	require.NoError(t, s.Change(ctx, 1, 1, 2, fitted(t, first, 11)))
	assert.ErrorIs(t, s.Change(ctx, 1, 1, 2, fitted(t, first, 12)), store.ErrStale)
	assert.Equal(t, 11, throws())
	require.NoError(t, s.Undo(ctx, 1, 1, 3))
	assert.Equal(t, 10, throws())
	assert.Equal(t, "Line-out throws: 11 throws", at().Redo)
	require.NoError(t, s.Redo(ctx, 1, 1, 4))
	assert.Equal(t, 11, throws())
	assert.ErrorIs(t, s.Redo(ctx, 1, 1, 5), store.ErrNothing)
	require.NoError(t, s.Undo(ctx, 1, 1, 5))
	require.NoError(t, s.Change(ctx, 1, 1, 6, fitted(t, first, 8)), "a change after an undo")
	assert.Empty(t, at().Redo)
	require.NoError(t, s.Undo(ctx, 1, 1, 7))
	assert.Equal(t, 10, throws(), "goes back to what it was made from")
}

func TestOnlyOneOfManyAtOnceChangesAPlan(t *testing.T) {
	ctx, s := context.Background(), open(t, "race")
	require.NoError(t, demo.Fill(ctx, s, wednesday))
	session, err := s.Session(ctx, 1, 1)
	require.NoError(t, err)
	next := fitted(t, session, 10)
	var won, stale int
	var mu sync.Mutex
	var all sync.WaitGroup
	for range 8 {
		all.Go(func() {
			err := s.Change(ctx, 1, 1, 1, next)
			mu.Lock()
			defer mu.Unlock()
			if err == nil {
				won++
			} else if errors.Is(err, store.ErrStale) {
				stale++
			}
		})
	}
	all.Wait()
	assert.Equal(t, []int{1, 7}, []int{won, stale})
}

func TestWhatIsSharedStaysUntilItIsPublishedAgain(t *testing.T) {
	ctx, s := context.Background(), open(t, "share")
	require.NoError(t, demo.Fill(ctx, s, wednesday))
	session, err := s.Session(ctx, 1, 1)
	require.NoError(t, err)
	token, err := s.Publish(ctx, 1, 1, 1)
	require.NoError(t, err)
	assert.Len(t, token, 43, "256 bits")
	require.NoError(t, s.Change(ctx, 1, 1, 1, fitted(t, session, 12)))
	shared, err := s.Shared(ctx, token)
	require.NoError(t, err)
	assert.Equal(t, 9, shared.Document.Block("lineout").Items[0].Drill.Range.Target)
	_, err = s.Publish(ctx, 1, 1, 1)
	assert.ErrorIs(t, err, store.ErrStale)
	same, err := s.Publish(ctx, 1, 1, 2)
	require.NoError(t, err)
	assert.Equal(t, token, same, "the link stays")
	shared, err = s.Shared(ctx, token)
	require.NoError(t, err)
	assert.Equal(t, 12, shared.Document.Block("lineout").Items[0].Drill.Range.Target)
	assert.Equal(t, 2, shared.Number)

	require.NoError(t, s.Withdraw(ctx, 1, 1))
	_, err = s.Shared(ctx, token)
	assert.ErrorIs(t, err, store.ErrWithdrawn)
	_, err = s.Shared(ctx, "nothing")
	assert.ErrorIs(t, err, store.ErrNotFound)
	other, err := s.Publish(ctx, 1, 1, 2)
	require.NoError(t, err)
	assert.NotEqual(t, token, other, "a withdrawn link never comes back")
}

func TestAnotherClubsThingsAreNotThere(t *testing.T) {
	ctx, s := context.Background(), open(t, "clubs")
	require.NoError(t, demo.Fill(ctx, s, wednesday))
	session, err := s.Session(ctx, 1, 1)
	require.NoError(t, err)
	for name, err := range map[string]error{
		"read":     func() error { _, err := s.Session(ctx, 2, 1); return err }(),
		"change":   s.Change(ctx, 2, 1, 1, fitted(t, session, 10)),
		"undo":     s.Undo(ctx, 2, 1, 1),
		"withdraw": s.Withdraw(ctx, 2, 1),
		"publish":  func() error { _, err := s.Publish(ctx, 2, 1, 1); return err }(),
	} {
		assert.ErrorIs(t, err, store.ErrNotFound, name)
	}
	_, _, err = s.Latest(ctx, 2, plan.Match)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, _, err = s.Found(ctx, "Second", "x", "y", "club", store.Account{Email: "a@b.example", Name: "A", Role: store.Coach}, "hash")
	assert.ErrorIs(t, err, store.ErrTaken, "only the first club is made without an invitation")
}
