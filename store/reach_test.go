package store_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/demo/demotest"
	"cuestart/store"
)

// reachable is the demo's first session, published.
func reachable(t *testing.T, name string) (context.Context, *store.Store, string) {
	ctx, s := context.Background(), open(t, name)
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	token, err := s.Shares.Publish(ctx, 1, 1, 1, anything)
	require.NoError(t, err)
	return ctx, s, token
}

// A link leads to its session until a day after it, or to the squad's next one; what is
// withdrawn leads nowhere, and nobody can tell.
func TestALinkLeadsOn(t *testing.T) {
	ctx, s, token := reachable(t, "links")
	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	start := session.Schedule.Start
	link, err := s.Shares.Link(ctx, token, wednesday)
	require.NoError(t, err)
	assert.Equal(t, store.Link{Token: token, Secret: link.Secret, ClubID: 1, SquadID: 1, Session: 1, Number: 1}, *link)
	for _, gone := range []struct {
		token string
		at    time.Time
	}{{token, start.Add(25 * time.Hour)}, {strings.Repeat("a", 43), wednesday}, {"", wednesday}} {
		_, err = s.Shares.Link(ctx, gone.token, gone.at)
		assert.ErrorIs(t, err, store.ErrNotFound)
	}

	require.NoError(t, s.Shares.SetSeason(ctx, 1, 1, true))
	link, err = s.Shares.Link(ctx, token, start.Add(25*time.Hour))
	require.NoError(t, err)
	assert.EqualValues(t, 1, link.Session, "the last one, where no other is published")
	sessions, _, err := s.Sessions.Sessions(ctx, 1, wednesday, 10)
	require.NoError(t, err)
	for _, later := range sessions { // of the same squad, later
		other, err := s.Sessions.Session(ctx, 1, later.ID)
		require.NoError(t, err)
		if later.ID == 1 || other.SquadName != session.SquadName || other.Schedule.Start.Before(start) {
			continue
		}
		same, err := s.Shares.Publish(ctx, 1, later.ID, other.Revision, anything)
		require.NoError(t, err)
		assert.Equal(t, token, same, "the season's link is the link of all its sessions")
		link, err = s.Shares.Link(ctx, token, wednesday)
		require.NoError(t, err)
		assert.EqualValues(t, 1, link.Session, "not before the nearer one is over")
		link, err = s.Shares.Link(ctx, token, start.Add(4*time.Hour))
		require.NoError(t, err)
		assert.Equal(t, later.ID, link.Session)
		break
	}
	require.NoError(t, s.Shares.Withdraw(ctx, 1, 1))
	_, err = s.Shares.Link(ctx, token, wednesday)
	assert.ErrorIs(t, err, store.ErrNotFound)
	require.NoError(t, s.Shares.Withdraw(ctx, 1, 1), "twice is once")
	is, err := s.Shares.Published(ctx, 1)
	require.NoError(t, err)
	assert.Empty(t, is.Token)
	assert.Equal(t, 1, is.Number, "what was published is remembered")
}

func TestAKeyIsRenewedByPerson(t *testing.T) {
	ctx, s, token := reachable(t, "keys")
	require.NoError(t, s.Shares.RenewKey(ctx, 1, 1, "p1", false))
	require.NoError(t, s.Shares.RenewKey(ctx, 1, 1, "p1", false))
	require.NoError(t, s.Shares.RenewKey(ctx, 1, 1, "p2", true))
	assert.ErrorIs(t, s.Shares.RenewKey(ctx, 2, 1, "p1", false), store.ErrNotFound, "another club's")
	turns, err := s.Shares.Turns(ctx, token)
	require.NoError(t, err)
	assert.Equal(t, map[string]store.Turn{"p1": {Number: 2}, "p2": {Number: 1, Withdrawn: true}}, turns)
	require.NoError(t, s.Shares.RenewKey(ctx, 1, 1, "p2", false), "it is given again, but never the old one")
	turns, err = s.Shares.Turns(ctx, token)
	require.NoError(t, err)
	assert.Equal(t, store.Turn{Number: 2}, turns["p2"])
}

// A word comes once, however often it is sent; it is taken in once; a person's words go
// with the person.
func TestAWordIsKeptOnce(t *testing.T) {
	ctx, s, _ := reachable(t, "words")
	w := store.Word{Person: "p1", Once: "x", Kind: store.WordLate, Says: "14:20", Own: true, Pressed: wednesday,
		Made: wednesday}
	for range 3 {
		require.NoError(t, s.Shares.AddWord(ctx, 1, w))
	}
	other := w
	other.Person = "p2"
	require.NoError(t, s.Shares.AddWord(ctx, 1, other), "of somebody else")
	words, err := s.Shares.Words(ctx, 1)
	require.NoError(t, err)
	require.Len(t, words, 2)
	assert.True(t, words[0].Noted.IsZero())
	require.NoError(t, s.Shares.NoteWord(ctx, 1, words[0].ID, wednesday.Add(time.Hour)))
	require.NoError(t, s.Shares.NoteWord(ctx, 1, words[0].ID, wednesday.Add(2*time.Hour)))
	words, err = s.Shares.Words(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, wednesday.Add(time.Hour), words[0].Noted.UTC())

	for n, says := range []string{"0:1", "0:2 1:1:a"} {
		require.NoError(t, s.Shares.AddWord(ctx, 1, store.Word{Person: "l-pell", Once: says, Kind: store.WordGrid,
			Block: "kicks", Says: says, Pressed: wednesday, Made: wednesday.Add(time.Duration(n))}))
	}
	ticks, err := s.Shares.Ticks(ctx, 1, "l-pell")
	require.NoError(t, err)
	require.Len(t, ticks, 1, "newer ticks replace older ones")
	assert.Equal(t, "0:2 1:1:a", ticks[0].Says)
	words, err = s.Shares.Words(ctx, 1)
	require.NoError(t, err)
	assert.Len(t, words, 2, "ticks are no words")
	said, err := s.Shares.WordsOf(ctx, 1, "p1")
	require.NoError(t, err)
	assert.Equal(t, "14:20", said[0].Says)
	said, err = s.Shares.WordsOf(ctx, 2, "p1")
	require.NoError(t, err)
	assert.Empty(t, said, "another club's")

	require.NoError(t, s.People.Erase(ctx, coach, 1, "a player"))
	require.NoError(t, s.People.FinishErasing(ctx))
	words, err = s.Shares.Words(ctx, 1)
	require.NoError(t, err)
	assert.Len(t, words, 1, "who is forgotten has said nothing")
}

// Whoever has the team's link can say so much in a player's name, and no more; that takes no
// room from what the player says by their own link, from their pain, nor from a leader's ticks,
// and each is refused with an error that can be told, never passed over.
func TestAFloodTakesNoRoomFromOthers(t *testing.T) {
	ctx, s, _ := reachable(t, "floods")
	once := 0
	word := func(kind string, own bool) error {
		once++
		return s.Shares.AddWord(ctx, 1, store.Word{Person: "p1", Once: fmt.Sprint(once), Kind: kind, Own: own,
			Pressed: wednesday, Made: wednesday})
	}
	pain := func(own bool) error {
		once++
		return s.People.AddHurt(ctx, 1, store.Hurt{Person: "p1", Name: "Orla", Once: fmt.Sprint("h", once),
			Kind: store.HurtPain, Says: "knee", Own: own, Pressed: wednesday, Made: wednesday})
	}
	until := func(say func() error) (kept int) {
		for ; kept < 400; kept++ {
			if err := say(); err != nil {
				assert.ErrorIs(t, err, store.ErrMany)
				return kept
			}
		}
		return kept
	}
	assert.Equal(t, 12, until(func() error { return word(store.WordLate, false) }))
	assert.Equal(t, 12, until(func() error { return pain(false) }))
	require.NoError(t, word(store.WordSore, false), "another kind")
	assert.Equal(t, 60, until(func() error { return word(store.WordLate, true) }))
	for range 150 {
		require.NoError(t, pain(true), "one's own")
	}
	hurt, err := s.People.HurtIn(ctx, 1, 1)
	require.NoError(t, err)
	assert.Len(t, hurt, 162)
	require.NoError(t, s.People.AddHurt(ctx, 1, store.Hurt{Person: "p1", Once: "h14", Kind: store.HurtPain,
		Made: wednesday, Pressed: wednesday}), "what was kept is kept, also when it comes again")
	for n := range 400 {
		require.NoError(t, s.Shares.AddWord(ctx, 1, store.Word{Person: "l-pell", Once: fmt.Sprint("t", n),
			Kind: store.WordGrid, Block: "kicks", Says: fmt.Sprint("0:", n), Pressed: wednesday, Made: wednesday}))
	}
	ticks, err := s.Shares.Ticks(ctx, 1, "l-pell")
	require.NoError(t, err)
	require.Len(t, ticks, 1)
	assert.Equal(t, "0:399", ticks[0].Says)
}

func TestWhoHasSeenWhat(t *testing.T) {
	ctx, s, _ := reachable(t, "seen")
	later := wednesday.Add(time.Hour)
	require.NoError(t, s.Shares.SetSeen(ctx, 1, []store.Seen{{Person: "p1", Number: 1, At: wednesday},
		{Person: "p2", Number: 1, Own: true, At: wednesday}}, false))
	require.NoError(t, s.Shares.SetSeen(ctx, 1, []store.Seen{{Person: "p1", Number: 1, Own: true, At: later}}, true))
	require.NoError(t, s.Shares.SetSeen(ctx, 1, []store.Seen{{Person: "p1", Number: 1, At: later.Add(time.Hour)}},
		true), "answering twice is answering once")
	seen, err := s.Shares.SeenBy(ctx, 1)
	require.NoError(t, err)
	n, err := s.Shares.CountSeen(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, 2, n)
	by := map[string]store.Seen{}
	for _, is := range seen {
		by[is.Person] = is
	}
	require.Len(t, by, 2)
	assert.Equal(t, wednesday, by["p1"].At.UTC(), "when it was opened first")
	assert.Equal(t, later, by["p1"].Answered.UTC())
	assert.True(t, by["p1"].Own)
	assert.True(t, by["p2"].Answered.IsZero())
}

// What is new is found by every server for a few seconds, and by none for long.
func TestNewsAreFoundForAWhile(t *testing.T) {
	ctx, s, _ := reachable(t, "news")
	_, raw := older(t, "news", 18)
	news, err := s.Shares.News(ctx)
	require.NoError(t, err)
	assert.Len(t, news, 1)
	require.NoError(t, s.Shares.AddWord(ctx, 1, store.Word{Person: "p1", Once: "x", Kind: store.WordSore,
		Says: "calf, left", Pressed: wednesday, Made: wednesday}))
	require.NoError(t, s.Shares.AddWord(ctx, 1, store.Word{Person: "l-pell", Once: "y", Kind: store.WordGrid,
		Says: "0:1", Pressed: wednesday, Made: wednesday}))
	news, err = s.Shares.News(ctx)
	require.NoError(t, err)
	assert.Len(t, news, 2, "a tick is no news for others")
	_, err = raw.Exec("UPDATE news SET made_at = made_at - INTERVAL 2 HOUR")
	require.NoError(t, err)
	news, err = s.Shares.News(ctx)
	require.NoError(t, err)
	assert.Empty(t, news)
	require.NoError(t, s.Tidy(ctx))
	var left int
	require.NoError(t, raw.QueryRow("SELECT COUNT(*) FROM news").Scan(&left))
	assert.Zero(t, left)
}

func TestPicturesAreAClubsOwn(t *testing.T) {
	ctx, s, _ := reachable(t, "pictures")
	require.NoError(t, s.Clubs.SetPicture(ctx, 1, "skips", "aaa", []byte{1}))
	require.NoError(t, s.Clubs.SetPicture(ctx, 1, "skips", "bbb", []byte{2}))
	stamps, err := s.Clubs.Pictures(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, map[string]string{"skips": "bbb"}, stamps)
	_, err = s.Clubs.Picture(ctx, 2, "skips")
	assert.ErrorIs(t, err, store.ErrNotFound)
	require.NoError(t, s.Clubs.RemovePicture(ctx, 2, "skips"))
	content, err := s.Clubs.Picture(ctx, 1, "skips")
	require.NoError(t, err)
	assert.Equal(t, []byte{2}, content)
}
