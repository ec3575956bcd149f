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

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/demo"
	"cuestart/demo/demotest"
	"cuestart/mariadb"
	"cuestart/mariadb/mariadbtest"
	"cuestart/store"
)

var server *mariadb.Server

func TestMain(m *testing.M) { os.Exit(mariadbtest.Run(m, &server)) }

func open(t *testing.T, name string) *store.Store {
	return demotest.Open(t, server.DSN, name)
}

var wednesday = time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)

// fitted is the demo's match with line-out throws set to n.
func fitted(t *testing.T, session *store.Session, n int) store.Fitted {
	d := session.Document.Clone()
	said, err := d.SetDose("lineout", 0, n)
	require.NoError(t, err)
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	return store.Fitted{Document: d, Schedule: s, Summary: said, By: 1}
}

func TestAPlanComesBackAsItWasAndCanBeUndone(t *testing.T) {
	ctx, s := context.Background(), open(t, "undo")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap), "a second time changes nothing")
	sessions, all, err := s.Sessions.Sessions(ctx, 1, wednesday, 2)
	require.NoError(t, err)
	require.Len(t, sessions, 2)
	assert.Equal(t, 3, all)
	assert.Equal(t, []string{"Brackwater v Fellmoor", "Tuesday training"},
		[]string{sessions[0].Digest.Title, sessions[1].Digest.Title})

	at := func() *store.Session {
		session, err := s.Sessions.Session(ctx, 1, 1)
		require.NoError(t, err)
		return session
	}
	throws := func() int { return at().Document.Block("lineout").Items[0].Drill.Range.Target }
	first := at()
	again, err := schedule.Fit(ctx, first.Document, schedule.AtOnce)
	require.NoError(t, err)
	assert.Equal(t, again.Result, first.Schedule.Result, "what is stored is what was fitted")
	assert.ErrorIs(t, s.Sessions.Undo(ctx, 1, 1, first.Revision), store.ErrNothing)

	change := func(session *store.Session, throws int) (*store.Session, error) {
		return s.Sessions.ChangePlan(ctx, 1, session, fitted(t, first, throws))
	}
	second, err := change(first, 10)
	require.NoError(t, err)
	kept := at()
	assert.Equal(t, []any{kept.Revision, kept.Head, kept.Undo, kept.Redo, kept.Document, kept.Schedule.Result},
		[]any{second.Revision, second.Head, second.Undo, second.Redo, second.Document, second.Schedule.Result},
		"what is returned is what is kept")
	_, err = change(second, 11)
	require.NoError(t, err)
	_, err = change(second, 12)
	assert.ErrorIs(t, err, store.ErrStale)
	assert.Equal(t, 11, throws())
	require.NoError(t, s.Sessions.Undo(ctx, 1, 1, 3))
	assert.Equal(t, 10, throws())
	assert.Equal(t, "Line-out throws: 11 throws", at().Redo)
	require.NoError(t, s.Sessions.Redo(ctx, 1, 1, 4))
	assert.Equal(t, 11, throws())
	assert.ErrorIs(t, s.Sessions.Redo(ctx, 1, 1, 5), store.ErrNothing)
	require.NoError(t, s.Sessions.Undo(ctx, 1, 1, 5))
	_, err = change(at(), 8)
	require.NoError(t, err, "a change after an undo")
	assert.Empty(t, at().Redo)
	require.NoError(t, s.Sessions.Undo(ctx, 1, 1, 7))
	assert.Equal(t, 10, throws(), "goes back to what it was made from")
}

func TestOnlyOneOfManyAtOnceChangesAPlan(t *testing.T) {
	ctx, s := context.Background(), open(t, "race")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	next := fitted(t, session, 10)
	var won, stale int
	var mu sync.Mutex
	var all sync.WaitGroup
	for range 8 {
		all.Go(func() {
			_, err := s.Sessions.ChangePlan(ctx, 1, session, next)
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
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	token, err := s.Shares.Publish(ctx, 1, 1, 1, anything)
	require.NoError(t, err)
	assert.Len(t, token, 43, "256 bits")
	_, err = s.Sessions.ChangePlan(ctx, 1, session, fitted(t, session, 12))
	require.NoError(t, err)
	is, err := shared(ctx, s, token, soon)
	require.NoError(t, err)
	assert.Equal(t, 9, is.Document.Block("lineout").Items[0].Drill.Range.Target)
	_, err = s.Shares.Publish(ctx, 1, 1, 1, anything)
	assert.ErrorIs(t, err, store.ErrStale)
	same, err := s.Shares.Publish(ctx, 1, 1, 2, anything)
	require.NoError(t, err)
	assert.Equal(t, token, same, "the link stays")
	is, err = shared(ctx, s, token, soon)
	require.NoError(t, err)
	assert.Equal(t, 12, is.Document.Block("lineout").Items[0].Drill.Range.Target)
	assert.Equal(t, 2, is.Number)

	require.NoError(t, s.Shares.Withdraw(ctx, 1, 1))
	_, err = shared(ctx, s, token, soon)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = shared(ctx, s, "nothing", soon)
	assert.ErrorIs(t, err, store.ErrNotFound)
	other, err := s.Shares.Publish(ctx, 1, 1, 2, anything)
	require.NoError(t, err)
	assert.NotEqual(t, token, other, "a withdrawn link never comes back")
}

func TestAnotherClubsThingsAreNotThere(t *testing.T) {
	ctx, s := context.Background(), open(t, "clubs")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	for name, err := range map[string]error{
		"read": func() error { _, err := s.Sessions.Session(ctx, 2, 1); return err }(),
		"change": func() error {
			_, err := s.Sessions.ChangePlan(ctx, 2, session,
				fitted(t, session, 10))
			return err
		}(),
		"undo":     s.Sessions.Undo(ctx, 2, 1, 1),
		"withdraw": s.Shares.Withdraw(ctx, 2, 1),
		"publish":  func() error { _, err := s.Shares.Publish(ctx, 2, 1, 1, anything); return err }(),
	} {
		assert.ErrorIs(t, err, store.ErrNotFound, name)
	}
	_, err = s.Sessions.Latest(ctx, 2, 1, plan.Match, func(*plan.Document) bool { return true })
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, _, err = s.Clubs.Found(ctx, "Second", "x", "y", "club",
		store.Account{Email: "a@b.example", Name: "A", Role: store.Coach}, "hash")
	assert.ErrorIs(t, err, store.ErrTaken, "only the first club is made without an invitation")
}

func TestThingsAreKeptWholeAndTakenBack(t *testing.T) {
	ctx, s := context.Background(), open(t, "things")
	coach, squad, err := s.Clubs.Found(ctx, "Hollinmere", "Netball", "Firsts", "club",
		store.Account{Email: "c@h.example", Name: "C", Role: store.Coach}, "hash")
	require.NoError(t, err)
	players := func() []store.Entry[club.Player] {
		list, err := store.Entries[club.Player](ctx, s.Clubs, coach.ClubID)
		require.NoError(t, err)
		return list
	}
	ada, bea := club.Player{Number: 7, First: "Ada", Last: "Ros"}, club.Player{Number: 8, First: "Bea", Last: "Lind"}
	ids, err := s.Clubs.Save(ctx, coach, "two players", store.Change{Owner: squad, Is: ada},
		store.Change{Owner: squad, Is: bea})
	require.NoError(t, err)
	require.Len(t, players(), 2)
	bea.Number = 7
	_, err = s.Clubs.Save(ctx, coach, "all or none", store.Change{Owner: squad, Is: club.Player{First: "Cleo"}},
		store.Change{ID: ids[1], Is: bea})
	assert.ErrorIs(t, err, store.ErrTaken, "7 is Ada's")
	assert.Len(t, players(), 2)
	_, err = s.Clubs.Save(ctx, coach, "no name", store.Change{Owner: squad, Is: club.Player{}})
	assert.Error(t, err)
	ada.Position = "Centre"
	_, err = s.Clubs.Save(ctx, coach, "a centre", store.Change{ID: ids[0], Edition: 1, Is: ada})
	require.NoError(t, err)
	_, err = s.Clubs.Save(ctx, coach, "late", store.Change{ID: ids[0], Edition: 1, Is: ada})
	assert.ErrorIs(t, err, store.ErrStale)
	_, err = s.Clubs.Save(ctx, coach, "as a drill", store.Change{ID: ids[0], Is: club.Kit{Name: "ball"}})
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = s.Clubs.Save(ctx, coach, "Bea leaves", store.Change{ID: ids[1], Is: bea, Gone: true})
	require.NoError(t, err)

	for _, said := range []string{"Bea leaves", "a centre", "two players"} {
		newest, _, err := s.Clubs.Newest(ctx, coach)
		require.NoError(t, err)
		assert.Equal(t, said, newest)
		_, err = s.Clubs.TakeBack(ctx, coach)
		require.NoError(t, err)
	}
	assert.Empty(t, players())
	_, err = s.Clubs.TakeBack(ctx, coach)
	assert.ErrorIs(t, err, store.ErrNothing)

	other := coach
	other.ClubID = 99
	ids, err = s.Clubs.Save(ctx, coach, "again", store.Change{Owner: squad, Is: ada})
	require.NoError(t, err)
	_, err = s.Clubs.Save(ctx, other, "theirs", store.Change{ID: ids[0], Is: ada})
	assert.ErrorIs(t, err, store.ErrNotFound)
	physio := coach
	physio.ID, err = func() (uint64, error) {
		token := ""
		_, err := s.Accounts.Invite(ctx, coach, "Physio", "p@h.example", store.Medical, wednesday,
			func(made string) store.Letter { token = made; return store.Letter{} })
		require.NoError(t, err)
		joined, err := s.Accounts.Join(ctx, token, "hash", wednesday)
		require.NoError(t, err)
		assert.Equal(t, store.Medical, joined.Role)
		_, err = s.Accounts.Join(ctx, token, "hash", wednesday)
		assert.ErrorIs(t, err, store.ErrNotFound, "a link is used once")
		return joined.ID, nil
	}()
	require.NoError(t, err)
	ada.Notes = "left-footed on wet days"
	_, err = s.Clubs.Save(ctx, physio, "a note", store.Change{ID: ids[0], Is: ada})
	require.NoError(t, err)
	_, err = s.Clubs.TakeBack(ctx, coach)
	assert.ErrorIs(t, err, store.ErrStale, "somebody else changed it since")
}

func TestARemovedSessionIsGoneUntilItIsBroughtBack(t *testing.T) {
	ctx, s := context.Background(), open(t, "removed")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	token, err := s.Shares.Publish(ctx, 1, 1, 1, anything)
	require.NoError(t, err)
	require.NoError(t, s.Sessions.Remove(ctx, 1, 1))
	assert.ErrorIs(t, s.Sessions.Remove(ctx, 1, 1), store.ErrNotFound)
	assert.ErrorIs(t, s.Sessions.Remove(ctx, 2, 2), store.ErrNotFound, "another club's")
	_, err = s.Sessions.Session(ctx, 1, 1)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, s.Sessions.Undo(ctx, 1, 1, 1), store.ErrNotFound)
	gone, err := s.Shares.Link(ctx, token, soon)
	require.NoError(t, err)
	assert.True(t, gone.Removed)
	latest, err := s.Sessions.Latest(ctx, 1, 1, plan.Match, func(*plan.Document) bool { return true })
	require.NoError(t, err)
	assert.Equal(t, "Oxlode Vale v Brackwater", latest.Title)
	require.NoError(t, s.Sessions.Restore(ctx, 1, 1))
	_, err = s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	_, err = shared(ctx, s, token, soon)
	require.NoError(t, err, "its link is good again")
}

// soon is a moment before every link of these tests ends.
var soon = time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)

// shared is what a link shows.
func shared(ctx context.Context, s *store.Store, token string, at time.Time) (*store.Edition, error) {
	link, err := s.Shares.Link(ctx, token, at)
	if err != nil {
		return nil, err
	}
	return s.Shares.Edition(ctx, link.Session, link.Number)
}

// anything lets everything be published.
func anything(*plan.Document, store.Ruled) error { return nil }
