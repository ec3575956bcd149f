package store_test

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/conduct"
	"cuestart/demo"
	"cuestart/demo/demotest"
	"cuestart/store"
)

var coach = store.Account{ID: 1, ClubID: 1, Role: store.Coach, Name: "Ines Varley"}

func done(n int) store.Arriving {
	return store.Arriving{Event: conduct.Event{ID: fmt.Sprint("e", n), By: "Ines", At: wednesday.UnixMilli() + int64(n),
		Kind: conduct.Done, Block: "raise"}}
}

// Phones send at once, the same and more: every event is kept once, in the order in which it
// came in, and the plan is that of the first.
func TestEventsJoin(t *testing.T) {
	ctx, s := context.Background(), open(t, "events")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	_, err := s.Runs.Run(ctx, 1, 1)
	assert.ErrorIs(t, err, store.ErrNotFound, "nobody has pressed yet")
	var all sync.WaitGroup
	for phone := range 4 {
		all.Go(func() {
			var events []store.Arriving
			for n := range 30 {
				events = append(events, done(n+10*phone))
			}
			for range 3 {
				_, _, err := s.Runs.JoinEvents(ctx, coach, 1, events, wednesday)
				assert.NoError(t, err)
			}
		})
	}
	all.Wait()
	events, last, _, err := s.Runs.Events(ctx, 1, 0)
	require.NoError(t, err)
	assert.Len(t, events, 60)
	assert.Equal(t, uint32(60), last)
	met := map[string]bool{}
	for _, e := range events {
		assert.False(t, met[e.ID])
		met[e.ID] = true
	}
	rest, last, _, err := s.Runs.Events(ctx, 1, 55)
	require.NoError(t, err)
	assert.Len(t, rest, 5)
	assert.Equal(t, uint32(60), last)
	none, last, _, err := s.Runs.Events(ctx, 1, 60)
	require.NoError(t, err)
	assert.Empty(t, none)
	assert.Equal(t, uint32(60), last, "who has all stays there")

	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	_, err = s.Sessions.ChangePlan(ctx, 1, session, fitted(t, session, 6))
	require.NoError(t, err)
	is, err := s.Runs.Run(ctx, 1, 1)
	require.NoError(t, err)
	assert.NotEqual(t, 6, is.Document.Block("lineout").Items[0].Drill.Range.Target,
		"the run keeps the plan that it began with")
	for _, other := range []store.Account{{ID: 1, ClubID: 2}, {ID: 1}} {
		_, _, err = s.Runs.JoinEvents(ctx, other, 1, []store.Arriving{done(99)}, wednesday)
		assert.ErrorIs(t, err, store.ErrNotFound)
	}
	_, err = s.Runs.Run(ctx, 2, 1)
	assert.ErrorIs(t, err, store.ErrNotFound)
	news, err := s.Shares.News(ctx)
	require.NoError(t, err)
	for _, n := range news {
		assert.True(t, n.Staff, "no player's phone is woken by a press")
	}
}

// A log comes back whole, is changed by who saw it last, and goes with its session; a week, a
// season and a drill's last day are read of it.
func TestALogComesBackWhole(t *testing.T) {
	ctx, s := context.Background(), open(t, "logs")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	made, err := conduct.AsPlanned(conduct.Plan{Document: session.Document, Schedule: session.Schedule})
	require.NoError(t, err)
	made.Blocks[0].Note, made.Blocks[1].Actual, made.Blocks[1].Measured, made.Blocks[2].Pace = "ö \"x\" \\", 0, true,
		1.25
	made.Blocks[3].Drills[0].Without = []string{"p1"}
	made.Players[0].Was, made.Players[1].Effort, made.Players[2].Note = conduct.Out, 10, "knee"
	made.Differs = []string{"14:50"}
	l := &store.Log{Log: *made, Session: 1, Squad: 1, Day: "2026-11-28", Kind: "match", Title: session.Document.Title,
		Season: "finals", Note: "cold"}
	require.NoError(t, s.Logs.SaveLog(ctx, coach, l))
	assert.ErrorIs(t, s.Logs.SaveLog(ctx, coach, l), store.ErrStale, "it was made on none")
	again, err := s.Logs.Log(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, uint32(1), again.Edition)
	assert.Equal(t, "Ines Varley", again.Maker)
	assert.Equal(t, made.Blocks, again.Blocks)
	assert.ElementsMatch(t, made.Players, again.Players)
	assert.Equal(t, []string{"14:50"}, again.Differs)
	assert.Equal(t, made.Content(), again.Content)
	again.Blocks = again.Blocks[:1]
	require.NoError(t, s.Logs.SaveLog(ctx, coach, again))
	shorter, err := s.Logs.Log(ctx, 1, 1)
	require.NoError(t, err)
	assert.Len(t, shorter.Blocks, 1, "what is out of it is gone")
	_, err = s.Logs.Log(ctx, 2, 1)
	assert.ErrorIs(t, err, store.ErrNotFound)

	day := func(text string) time.Time {
		at, err := time.Parse(time.DateOnly, text)
		require.NoError(t, err)
		return at
	}
	logs, err := s.Logs.Logs(ctx, 1, 1, day("2026-11-16"), day("2026-11-30"), 9)
	require.NoError(t, err)
	require.Len(t, logs, 3)
	assert.Equal(t, uint64(1), logs[0].Session, "the latest first")
	assert.Len(t, logs[1].Blocks, 12)
	assert.NotEmpty(t, logs[1].Blocks[0].Drills)
	assert.Len(t, logs[1].Players, 23)
	few, err := s.Logs.Logs(ctx, 1, 1, day("2026-10-01"), day("2026-11-30"), 2)
	require.NoError(t, err)
	require.Len(t, few, 2)
	assert.Len(t, few[1].Blocks, 12, "of each that is read all is")
	foreign, err := s.Logs.Logs(ctx, 2, 1, day("2026-10-01"), day("2026-11-30"), 9)
	require.NoError(t, err)
	assert.Empty(t, foreign)
	counts, err := s.Logs.SeasonCounts(ctx, 1, day("2026-10-01"), day("2026-11-30"))
	require.NoError(t, err)
	assert.Equal(t, 8, counts[0].Times)
	last, err := s.Logs.LastDone(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, "2026-11-28", last["rising-loop"])
	runs, err := s.Logs.BlockRuns(ctx, 1, day("2026-10-01"))
	require.NoError(t, err)
	assert.Len(t, runs, 4, "what nobody measured is no run")
	open, err := s.Logs.Unlogged(ctx, 1, 1, day("2026-11-23"), day("2026-11-30"))
	require.NoError(t, err)
	require.Len(t, open, 1)
	assert.Equal(t, "Tuesday training", open[0].Plan.Document.Title)
}

// Who is erased is in no log, no event and no run by name; what was done stays.
func TestAnErasedPlayerIsInNoLog(t *testing.T) {
	ctx, s := context.Background(), open(t, "erasedlog")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	player := session.Document.Players[4]
	name := player.ShortName()
	note := conduct.Event{ID: "n", By: "Ines", At: 1, Kind: conduct.Note, Block: "raise",
		Says: name + " limps, " + player.Last + "'s knee: ask " + player.First + "!"}
	_, _, err = s.Runs.JoinEvents(ctx, coach, 1, []store.Arriving{{Event: note}}, wednesday)
	require.NoError(t, err)
	l, err := s.Logs.Log(ctx, 1, 4)
	require.NoError(t, err)
	l.Note, l.Differs, l.Blocks[0].Note = "without "+name+"; "+player.First+" "+player.Last+" rested",
		[]string{name + " out"}, player.Last+" late"
	require.NoError(t, s.Logs.SaveLog(ctx, coach, l))
	before, err := s.Logs.AttendedBy(ctx, 1, player.Roster)
	require.NoError(t, err)
	assert.Len(t, before, 7)
	require.NoError(t, s.People.AddHurt(ctx, 1, store.Hurt{Person: player.ID, Roster: player.Roster,
		Name: player.Label(), Once: "o", Kind: store.HurtPain, Says: "knee"}))
	require.NoError(t, s.People.Erase(ctx, coach, player.Roster, "a player"))
	require.NoError(t, s.People.FinishErasing(ctx))
	hurt, err := s.People.HurtIn(ctx, 1, 1)
	require.NoError(t, err)
	assert.Empty(t, hurt)
	run, err := s.Runs.Run(ctx, 1, 1)
	require.NoError(t, err)
	events, _, _, err := s.Runs.Events(ctx, 1, 0)
	require.NoError(t, err)
	l, err = s.Logs.Log(ctx, 1, 4)
	require.NoError(t, err)
	for _, kept := range []any{run, events, l} {
		text, err := json.Marshal(kept)
		require.NoError(t, err)
		assert.False(t, strings.Contains(string(text), name), "%T still names them", kept)
		assert.False(t, strings.Contains(string(text), player.Last), "%T still names them", kept)
	}
	assert.Len(t, l.Players, 23)
	after, err := s.Logs.AttendedBy(ctx, 1, player.Roster)
	require.NoError(t, err)
	assert.Empty(t, after)
}
