package office_test

import (
	"database/sql"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/office"
	"cuestart/store"
)

// differs presses at the pitch side that something is different, as its page does.
func differs(t *testing.T, p *office.Office, id string, is conduct.Different) {
	t.Helper()
	running, err := p.Pitchside.Running(ctx, 1, 1)
	require.NoError(t, err)
	stand, err := running.Stand(p.Now())
	require.NoError(t, err)
	made, err := stand.Propose(ctx, is, 300)
	require.NoError(t, err)
	refused, err := p.Pitchside.Pressed(ctx, coach, 1,
		[]conduct.Event{{ID: id, At: p.Now().UnixMilli(), Kind: conduct.Change, Is: &is, Placed: made.Placed}})
	require.NoError(t, err)
	require.Empty(t, refused)
}

// seen is the plan that a player sees.
func seen(t *testing.T, p *office.Office) *plan.Document {
	t.Helper()
	b := board(t, p, 1)
	d, err := db.Shares.Edition(ctx, 1, b.Publication.Number)
	require.NoError(t, err)
	return d.Document
}

func published(t *testing.T, p *office.Office) *boards.Board {
	t.Helper()
	b, err := p.Reach.Publish(ctx, coach, 1, board(t, p, 1).Revision)
	require.NoError(t, err)
	return b
}

// Whatever is published holds what medical staff have ruled by then, also from the pitch side
// of a run that began before they did; what was in stays in.
func TestThePitchSidePassesOverNoRuling(t *testing.T) {
	p := open(t, "pitchruled", true)
	first := published(t, p)
	rule := func(player string, r club.Restriction) {
		_, err := p.Save(ctx, medical, "ruled", planner.Change{Owner: first.Document.Player(player).Roster, Is: r})
		require.NoError(t, err)
	}
	had := len(first.Document.Restrictions)
	onDay(p, 40)
	differs(t, p, "one", conduct.Different{Is: conduct.IsWeather, Weather: conduct.Rain})
	rule("p14", club.Restriction{NoOverhead: true, From: "2026-11-01"})
	onDay(p, 38)
	differs(t, p, "two", conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: "hurt"})
	assert.Contains(t, seen(t, p).Restrictions, plan.Restriction{Player: "p14", NoOverhead: true})
	assert.Len(t, seen(t, p).Restrictions, had+1)
	rule("p15", club.Restriction{NoJumps: true, From: "2026-11-01"})
	_, err := p.Boards.TakeRulings(ctx, coach, 1)
	require.NoError(t, err)
	published(t, p)
	onDay(p, 36)
	differs(t, p, "three", conduct.Different{Is: conduct.IsStart, Seconds: 300, Hold: true})
	assert.Contains(t, seen(t, p).Restrictions, plan.Restriction{Player: "p15", NoJumps: true},
		"what was taken in on the board stays in")
	assert.Empty(t, board(t, p, 1).Newer)
}

// A ruling and a publication at one moment: one waits for the other.
func TestNoRulingIsRacedPast(t *testing.T) {
	p := open(t, "raced", true)
	raw, err := sql.Open("mysql", server.DSN("raced"))
	require.NoError(t, err)
	defer raw.Close()
	player := board(t, p, 1).Document.Player("p14").Roster
	raced := 0
	for n := range 25 {
		revision := board(t, p, 1).Revision
		var both sync.WaitGroup
		var problem error
		both.Go(func() {
			_, err := p.Save(ctx, medical, "ruled", planner.Change{Owner: player,
				Is: club.Restriction{MaxMinutes: n + 1, From: "2026-11-01"}})
			assert.NoError(t, err)
		})
		both.Go(func() {
			time.Sleep(time.Duration(n%5) * 300 * time.Microsecond)
			_, problem = p.Reach.Publish(ctx, coach, 1, revision)
		})
		both.Wait()
		if problem == nil {
			var passed bool
			require.NoError(t,
				raw.QueryRow("SELECT (SELECT MAX(changed_at) FROM ruling) < (SELECT MAX(published_at) FROM "+
					"publication)").Scan(&passed))
			assert.False(t, passed, "it was published after the ruling, without it")
			raced++
		}
		_, err = p.Boards.TakeRulings(ctx, coach, 1)
		require.NoError(t, err)
	}
	t.Log("published before the ruling:", raced, "of 25")
}

// What was changed on the board since the first press stays when something is pressed; where
// both changed one thing the pitch side holds, and both sides are told.
func TestAPitchChangeUndoesNothingOfTheBoard(t *testing.T) {
	p := open(t, "pitchmerge", true)
	published(t, p)
	onDay(p, 45)
	differs(t, p, "one", conduct.Different{Is: conduct.IsWeather, Weather: conduct.Rain})
	b := board(t, p, 1)
	_, err := p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		return d.Remove("high")
	})
	require.NoError(t, err)
	onDay(p, 44)
	differs(t, p, "two", conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: "hurt"})
	for name, d := range map[string]*plan.Document{"in force": board(t, p, 1).Document, "published": seen(t, p)} {
		assert.Nil(t, d.Block("high"), "%s: it was taken out", name)
		assert.Nil(t, d.Player("p7"), name)
		assert.True(t, d.Today.Wet, name)
	}
	trouble, clash, err := p.Pitchside.RunTold(ctx, 1)
	require.NoError(t, err)
	assert.Empty(t, trouble+clash)

	b = board(t, p, 1)
	_, err = p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		d.Today.Wet = false
		return "dry again", nil
	})
	require.NoError(t, err)
	onDay(p, 43)
	cold := 3.0
	differs(t, p, "three", conduct.Different{Is: conduct.IsWeather, Celsius: &cold})
	is := board(t, p, 1)
	assert.False(t, is.Document.Today.Wet, "of the day, what each changed")
	b = board(t, p, 1)
	_, err = p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		warm := 20.0
		d.Today.Celsius = &warm
		return "20 °C", nil
	})
	require.NoError(t, err)
	onDay(p, 42)
	cold = 1
	differs(t, p, "four", conduct.Different{Is: conduct.IsWeather, Celsius: &cold})
	_, clash, err = p.Pitchside.RunTold(ctx, 1)
	require.NoError(t, err)
	assert.Contains(t, clash, "the pitch side's holds")
	assert.Equal(t, 1.0, *board(t, p, 1).Document.Today.Celsius)
	assert.Contains(t, board(t, p, 1).Undo, "changed on the board and at the pitch side")
}

// What was taken at the pitch side is put in force by the next start where the process was
// killed before; while something stands in the way that is said, and tried again.
func TestWhatIsDueIsFinished(t *testing.T) {
	p := open(t, "due", true)
	first := published(t, p)
	onDay(p, 40)
	is := conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: conduct.Head}
	event := conduct.Event{ID: "x", At: saturday(40), Kind: conduct.Change, Is: &is}
	_, _, err := db.Runs.JoinEvents(ctx, coach, 1,
		[]store.Arriving{{Event: event, Changes: true,
			Hurt: []store.Hurt{{Person: "p7", Roster: first.Document.Player("p7").Roster, Name: "Isla", Once: "x",
				Kind: store.HurtHead, By: "Ines", Pressed: p.Now(), Made: p.Now()}}}}, p.Now())
	require.NoError(t, err)
	assert.NotNil(t, seen(t, p).Player("p7"), "killed here")
	require.NoError(t, p.Pitchside.CatchUp(ctx))
	assert.Nil(t, seen(t, p).Player("p7"))
	due, err := db.Runs.Due(ctx, now)
	require.NoError(t, err)
	assert.Empty(t, due)

	b := board(t, p, 1)
	_, err = p.Boards.Undo(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	back := board(t, p, 1)
	require.NotNil(t, back.Document.Player("p7"))
	_, err = p.Reach.Publish(ctx, coach, 1, back.Revision)
	var wrong plan.Problems
	require.ErrorAs(t, err, &wrong, "who had a knock to the head is in no plan that is published")
	assert.Contains(t, wrong[0].What, "until medical staff have answered")
	onDay(p, 38)
	differs(t, p, "y", conduct.Different{Is: conduct.IsWeather, Weather: conduct.Rain})
	trouble, _, err := p.Pitchside.RunTold(ctx, 1)
	require.NoError(t, err)
	assert.Contains(t, trouble, "knock to the head")
	assert.True(t, board(t, p, 1).Document.Today.Wet, "it is in force, if not with the players")
	assert.False(t, seen(t, p).Today.Wet)
	require.NoError(t, p.Pitchside.CatchUp(ctx))
	before := board(t, p, 1).Head
	onDay(p, 30) // what is under way is over its time by now
	require.NoError(t, p.Pitchside.CatchUp(ctx))
	assert.Equal(t, before, board(t, p, 1).Head, "trying again makes no edition")
	_, err = p.Boards.ChangeFor(ctx, coach, 1, board(t, p, 1).Revision, "",
		func(d *plan.Document) (string, error) { return d.SetOut("p7") })
	require.NoError(t, err)
	require.NoError(t, p.Pitchside.CatchUp(ctx))
	assert.True(t, seen(t, p).Today.Wet, "tried again")
	trouble, _, err = p.Pitchside.RunTold(ctx, 1)
	require.NoError(t, err)
	assert.Empty(t, trouble)
}
