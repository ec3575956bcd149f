package office_test

import (
	"bytes"
	"image"
	"image/png"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/figure"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/planner/office"
	"cuestart/planner/reach"
	"cuestart/store"
)

// reached is the demo's match, published, and the way of each person to it.
func reached(t *testing.T, p *office.Office) (b *boards.Board, ways map[string]reach.Way) {
	b = board(t, p, 1)
	b, err := p.Reach.Publish(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	return b, waysTo(t, p, b)
}

// waysTo are the ways of each person to a session that is published.
func waysTo(t *testing.T, p *office.Office, b *boards.Board) (ways map[string]reach.Way) {
	players, leaders, err := p.Reach.OwnLinks(ctx, b)
	require.NoError(t, err)
	ways = map[string]reach.Way{}
	for _, l := range append(players, leaders...) {
		ways[l.Person] = reach.Way{Token: b.Publication.Token, Person: l.Person, Key: l.Path[len("/"+l.Person+"/"):]}
	}
	return ways
}

var medical = store.Account{ID: 2, ClubID: 1, Role: store.Medical, Name: "Dr Ness", Proved: now}

// What is said from a phone is a sentence for the coach; pain is one for medical staff.
func TestWordsAreSentencesForWhomTheyAreFor(t *testing.T) {
	p := open(t, "sentences", true)
	b, ways := reached(t, p)
	mine, err := p.Reach.Shared(ctx, ways["p15"])
	require.NoError(t, err)
	led, err := p.Reach.Shared(ctx, ways["l-dorrit"])
	require.NoError(t, err)
	early := p.Now().Add(-time.Hour)
	for _, w := range []planner.Word{{Once: "1", Kind: planner.Late, Says: "14:20", Pressed: early},
		{Once: "2", Kind: planner.Easier, Block: "high"}, {Once: "3", Kind: planner.Sore, Says: " calf,  left ",
			Block: "high"},
		{Once: "4", Kind: planner.Pain, Says: "knee, right"}, {Once: "4", Kind: planner.Pain, Says: "knee, right"}} {
		require.NoError(t, p.Reach.Tell(ctx, mine, w))
	}
	require.NoError(t, p.Reach.Tell(ctx, led, planner.Word{Once: "5", Kind: planner.Missing, Says: "p2",
		Block: "lineout"}))
	for _, wrong := range []planner.Word{{Kind: planner.Late, Says: "14:20"},
		{Once: "6", Kind: planner.Late, Says: "soon"}, {Once: "7", Kind: "shout"},
		{Once: "9", Kind: planner.Missing, Says: "p2"}, {Once: "10", Kind: planner.Grid, Says: "0:1"},
		{Once: "8", Kind: planner.Sore, Says: string(make([]byte, 500))}} {
		var problems plan.Problems
		assert.ErrorAs(t, p.Reach.Tell(ctx, mine, wrong), &problems)
	}
	says := func(by store.Account) (all []string) {
		told, err := p.Reach.Told(ctx, by, b)
		require.NoError(t, err)
		for _, w := range told {
			all = append(all, w.Name+" "+w.Says)
		}
		return all
	}
	assert.Equal(t, []string{"Mara T. will be there at 14:20", "Mara T. does not feel High balls: wants an easier form",
		"Mara T. tight: calf, left, at High balls", "Wren A. Dorrit misses them at Line-out"}, says(coach))
	for _, by := range []store.Account{coach, medical} {
		hurt, err := p.Keep.OpenHurt(ctx, by)
		require.NoError(t, err)
		require.Len(t, hurt, 1, "sent twice is once")
		assert.Equal(t, "wants to see medical staff before going on", keep.HurtSays(hurt[0]))
		assert.Empty(t, hurt[0].Says, "a list says to nobody what hurts")
		is, err := p.Keep.HurtRead(ctx, by, hurt[0].ID)
		require.NoError(t, err)
		assert.Equal(t, by.Role == store.Medical, is.Says != "", "what hurts is for medical staff")
	}
	away, err := p.Reach.Away(ctx, led)
	require.NoError(t, err)
	assert.Equal(t, map[string]string{"p15": "14:20", "p2": ""}, away)

	told, err := p.Reach.Told(ctx, coach, b)
	require.NoError(t, err)
	assert.Equal(t, early.UTC(), told[0].Pressed.UTC(), "as of when it was pressed")
	assert.ErrorIs(t, p.Reach.TakeIn(ctx, medical, 1, told[0].ID, false), planner.ErrForbidden)
	assert.ErrorIs(t, p.Reach.TakeIn(ctx, store.Account{ID: 9, ClubID: 2, Role: store.Coach}, 1, told[0].ID, false),
		planner.ErrNotFound)
	assert.ErrorIs(t, p.Reach.TakeIn(ctx, coach, 1, 4711, false), planner.ErrNotFound)
	require.NoError(t, p.Reach.TakeIn(ctx, coach, 1, told[0].ID, true))
	assert.Len(t, says(coach), 3)
	assert.NotZero(t, board(t, p, 1).Document.Player("p15").Late)
}

// A leader sees who does what otherwise by name; the team's link sees no ruling at all.
func TestWhoMayKnowOfARuling(t *testing.T) {
	p := open(t, "knowing", true)
	b, ways := reached(t, p)
	player := b.Document.Player("p14")
	_, err := p.Save(ctx, medical, "ruled",
		planner.Change{Owner: player.Roster, Is: club.Restriction{NoOverhead: true, From: "2026-11-01"}})
	require.NoError(t, err)
	ruled := func(way reach.Way) []plan.Restriction {
		is, err := p.Reach.Shared(ctx, way)
		require.NoError(t, err)
		return is.Document.Restrictions
	}
	assert.Equal(t, []plan.Restriction{{Player: "p14", NoOverhead: true}}, ruled(ways["p14"]))
	assert.Equal(t, ruled(ways["p14"]), ruled(ways["l-pell"]))
	assert.Empty(t, ruled(ways["p15"]))
	assert.Empty(t, ruled(reach.Way{Token: b.Publication.Token, Person: "p14"}))
	_, err = p.Reach.Shared(ctx, reach.Way{Token: b.Publication.Token, Person: "l-pell"})
	assert.ErrorIs(t, err, planner.ErrNotFound, "a leader's page has a key")
	for _, way := range []reach.Way{{Token: b.Publication.Token, Person: "p99", Key: ways["p14"].Key},
		{Token: b.Publication.Token, Person: "p15", Key: ways["p14"].Key},
		{Token: "x", Person: "p14", Key: ways["p14"].Key}} {
		_, err = p.Reach.Shared(ctx, way)
		assert.ErrorIs(t, err, planner.ErrNotFound)
	}
}

// Who has opened what is known soon, and kept once.
func TestReaders(t *testing.T) {
	p := open(t, "readers", true)
	b, ways := reached(t, p)
	mine, err := p.Reach.Shared(ctx, ways["p15"])
	require.NoError(t, err)
	for range 5 {
		require.NoError(t, p.Reach.Opened(ctx, mine, 1, false))
	}
	require.NoError(t, p.Reach.Opened(ctx, mine, 99, false), "an edition that is not there is nobody's")
	reader := func() (is reach.Reader) {
		all, err := p.Reach.Readers(ctx, b)
		require.NoError(t, err)
		require.Len(t, all, len(b.Document.Players)+len(b.Document.Leaders))
		for _, r := range all {
			if r.Person == "p15" {
				is = r
			}
		}
		return is
	}
	require.Eventually(t, func() bool { return reader().Number == 1 }, 10*time.Second, 20*time.Millisecond)
	assert.True(t, reader().Answered.IsZero())
	require.NoError(t, p.Reach.Opened(ctx, mine, 1, true))
	assert.False(t, reader().Answered.IsZero())
}

// A club's figure lies over the book's, goes with other words of the drill, is given up, and
// is taken back; who may not change the book may not draw.
func TestAClubsFigureLiesOverTheBooks(t *testing.T) {
	p := open(t, "figures", true)
	shown := func() *figure.Figure {
		b, err := p.Books.Book(ctx, 1)
		require.NoError(t, err)
		return b.Figure("skips")
	}
	came := shown()
	require.NotNil(t, came)
	ours := &figure.Figure{Poses: []figure.Pose{{Lean: 10}}}
	assert.ErrorIs(t, p.Books.DrawDrill(ctx, medical, "skips", ours, 0), planner.ErrForbidden)
	assert.ErrorIs(t, p.Books.DrawDrill(ctx, coach, "no such drill", ours, 0), planner.ErrNotFound)
	assert.ErrorIs(t, p.Books.AsDrawn(ctx, coach, "skips"), planner.ErrNotFound, "there is nothing to give up")
	var problems plan.Problems
	assert.ErrorAs(t, p.Books.DrawDrill(ctx, coach, "skips",
		&figure.Figure{Poses: []figure.Pose{{Leg: figure.Limb{0, 300}}}}, 0), &problems)
	assert.Equal(t, came, shown())

	require.NoError(t, p.Books.DrawDrill(ctx, coach, "skips", ours, 0))
	assert.Equal(t, ours, shown())
	b, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	skips, _ := b.Find("skips")
	skips.Cues = []string{"Other words"}
	require.NoError(t, p.Books.SaveDrill(ctx, coach, club.Drill{Drill: skips}, b.Own["skips"].Edition))
	assert.Equal(t, ours, shown())
	assert.ErrorIs(t, p.Books.DrawDrill(ctx, coach, "skips", came, b.Own["skips"].Edition), planner.ErrStale)
	require.NoError(t, p.Books.DrawDrill(ctx, coach, "skips", nil, 0))
	assert.Nil(t, shown())
	_, err = p.Keep.TakeBack(ctx, coach)
	require.NoError(t, err)
	assert.Equal(t, ours, shown())
	require.NoError(t, p.Books.AsDrawn(ctx, coach, "skips"))
	assert.Equal(t, came, shown())
	for _, d := range b.Written() {
		assert.Equal(t, b.Figure(d.Code), d.Figure, d.Code)
	}
}

func TestAPictureIsDrawnAnew(t *testing.T) {
	p := open(t, "drawn", true)
	var file bytes.Buffer
	require.NoError(t, png.Encode(&file, image.NewRGBA(image.Rect(0, 0, 30, 2000))))
	require.NoError(t, p.Books.SetPicture(ctx, coach, "skips", file.Bytes()))
	kept, err := p.Books.Picture(ctx, 1, "skips")
	require.NoError(t, err)
	size, kind, err := image.DecodeConfig(bytes.NewReader(kept))
	require.NoError(t, err)
	assert.Equal(t, []any{13, 900, "jpeg"}, []any{size.Width, size.Height, kind})
	stamps, err := p.Books.Pictures(ctx, 1)
	require.NoError(t, err)
	assert.Len(t, stamps["skips"], 12)
	assert.ErrorIs(t, p.Books.SetPicture(ctx, medical, "skips", file.Bytes()), planner.ErrForbidden)
	assert.ErrorIs(t, p.Books.SetPicture(ctx, coach, "no such drill", file.Bytes()), planner.ErrNotFound)
	for _, wrong := range [][]byte{nil, []byte("GIF89a"), file.Bytes()[:60], []byte("<svg/>")} {
		var problems plan.Problems
		assert.ErrorAs(t, p.Books.SetPicture(ctx, coach, "skips", wrong), &problems)
	}
	require.NoError(t, p.Books.RemovePicture(ctx, coach, "skips"))
	_, err = p.Books.Picture(ctx, 1, "skips")
	assert.ErrorIs(t, err, planner.ErrNotFound)
}
