package store_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/demo"
	"cuestart/demo/demotest"
	"cuestart/store"
)

// Cut-downs and digests go with the plan in force, and with the engine that made
// them.
func TestWhatIsWorkedOutGoesWithItsPlan(t *testing.T) {
	ctx, s := context.Background(), open(t, "workedout")
	_, raw := older(t, "workedout", 18)
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	first, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	cuts, err := s.Sessions.Cuts(ctx, first)
	require.NoError(t, err)
	assert.Nil(t, cuts, "none were made")
	made := []schedule.Cut{{Minutes: 2400, Work: 900}, {Less: 300, Minutes: 2100, Work: 800,
		Says: []string{"no throws"}}}
	require.NoError(t, s.Sessions.SetCuts(ctx, first, made))
	cuts, err = s.Sessions.Cuts(ctx, first)
	require.NoError(t, err)
	assert.Equal(t, made, cuts)

	second, err := s.Sessions.ChangePlan(ctx, 1, first, fitted(t, first, 12))
	require.NoError(t, err)
	cuts, err = s.Sessions.Cuts(ctx, second)
	require.NoError(t, err)
	assert.Nil(t, cuts, "of another plan")
	require.NoError(t, s.Sessions.Undo(ctx, 1, 1, second.Revision))
	back, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	cuts, err = s.Sessions.Cuts(ctx, back)
	require.NoError(t, err)
	assert.Equal(t, made, cuts, "of the plan that is in force again")

	_, err = raw.Exec("UPDATE plan_edition SET engine = ?", runin.Version-1)
	require.NoError(t, err)
	old, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	assert.Nil(t, old.Schedule, "an older engine's")
	cuts, err = s.Sessions.Cuts(ctx, old)
	require.NoError(t, err)
	assert.Nil(t, cuts)
}

// What came before is told by digests alone, the latest first.
func TestEarlierPlansOfItsKindAreTold(t *testing.T) {
	ctx, s := context.Background(), open(t, "earlier")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	match, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	earlier, err := s.Sessions.Earlier(ctx, 3, 6)
	require.NoError(t, err)
	require.Len(t, earlier, 5, "the match before the match away and those of the month, and no training")
	assert.Equal(t, match.Document.Content(), earlier[0])
	earlier, err = s.Sessions.Earlier(ctx, 1, 6)
	require.NoError(t, err)
	assert.Len(t, earlier, 4)
	require.NoError(t, s.Sessions.Remove(ctx, 1, 1))
	earlier, err = s.Sessions.Earlier(ctx, 3, 6)
	require.NoError(t, err)
	assert.Len(t, earlier, 4, "what was removed was never held")
	recent, err := s.Sessions.Recent(ctx, 1, 1)
	require.NoError(t, err)
	assert.Len(t, recent, 6)
}

// What nobody can ask for any more is deleted; what can still be taken back stays.
func TestTidyingKeepsWhatCanBeTakenBack(t *testing.T) {
	ctx, s := context.Background(), open(t, "tidy")
	_, raw := older(t, "tidy", 18)
	coach, squad, err := s.Clubs.Found(ctx, "Hollinmere", "Netball", "Firsts", "club",
		store.Account{Email: "c@h.example", Name: "C", Role: store.Coach}, "hash")
	require.NoError(t, err)
	for _, name := range []string{"Ada", "Bea", "Cleo"} {
		_, err = s.Clubs.Save(ctx, coach, name, store.Change{Owner: squad, Is: club.Player{First: name}})
		require.NoError(t, err)
	}
	token := ""
	write := func(made string) store.Letter { token = made; return store.Letter{To: "x@h.example"} }
	_, err = s.Accounts.Invite(ctx, coach, "Soon", "s@h.example", store.Assistant, time.Now(), write)
	require.NoError(t, err)
	_, err = s.Accounts.Invite(ctx, coach, "Late", "l@h.example", store.Assistant, time.Now().Add(-60*24*time.Hour),
		write)
	require.NoError(t, err)
	_, err = raw.Exec("UPDATE thing_change SET made_at = NOW(6) - INTERVAL 3 DAY WHERE summary = 'Ada'")
	require.NoError(t, err)
	_, err = raw.Exec("UPDATE thing_change SET made_at = NOW(6) - INTERVAL 30 HOUR WHERE summary = 'Bea'")
	require.NoError(t, err)
	require.NoError(t, s.Tidy(ctx))
	count := func(table string) (n int) {
		require.NoError(t, raw.QueryRow("SELECT COUNT(*) FROM "+table).Scan(&n))
		return n
	}
	assert.Equal(t, 2, count("thing_change"))
	assert.Equal(t, 1, count("invitation"))
	assert.Equal(t, 3, count("player"), "what was changed stays as it is")
	_, err = s.Accounts.Invited(ctx, token, time.Now())
	assert.ErrorIs(t, err, store.ErrNotFound)
	said, err := s.Clubs.TakeBack(ctx, coach)
	require.NoError(t, err)
	assert.Equal(t, "Cleo", said)
	_, err = s.Clubs.TakeBack(ctx, coach)
	assert.ErrorIs(t, err, store.ErrNothing, "Bea's was yesterday")
}

// However many sessions are over, each is thinned once a month after it, the oldest first.
func TestEverySessionIsThinned(t *testing.T) {
	ctx, s := context.Background(), open(t, "thinall")
	_, raw := older(t, "thinall", 18)
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	for range 7 { // 128 times as many
		_, err := raw.Exec(`INSERT INTO team_session (club_id, squad_id, kind, title, start_at, time_zone, revision) SELECT club_id, squad_id, kind, title, start_at, time_zone, 1 FROM team_session`)
		require.NoError(t, err)
	}
	_, err := raw.Exec("UPDATE team_session SET start_at = NOW() - INTERVAL 90 DAY")
	require.NoError(t, err)
	_, err = raw.Exec("INSERT INTO plan_edition (session_id, number, document, schedule, engine, summary) " +
		"SELECT id, 1, '{}', '{}', 1, '' FROM team_session WHERE head IS NULL")
	require.NoError(t, err)
	_, err = raw.Exec("UPDATE team_session SET head = 1 WHERE head IS NULL")
	require.NoError(t, err)
	require.NoError(t, s.Tidy(ctx))
	var once, never int
	require.NoError(t, raw.QueryRow("SELECT COUNT(*), SUM(thinned = 0) FROM team_session").Scan(&once, &never))
	assert.Greater(t, once, 1000)
	assert.Zero(t, never)
}

func TestAFullDiskIsNamed(t *testing.T) {
	for says, full := range map[*mysql.MySQLError]bool{{Number: 1021, Message: "Disk full (/tmp/#sql); waiting"}: true,
		{Number: 1114, Message: "The table 'word' is full"}:                                            true,
		{Number: 3, Message: "Error writing file './x' (Errcode: 28 \"No space left on device\")"}:     true,
		{Number: 1030, Message: "Got error 28 \"No space left on device\" from storage engine InnoDB"}: true,
		{Number: 1062, Message: "Duplicate entry '28'"}:                                                false,
		{Number: 1030, Message: "Got error 122 from storage engine"}:                                   false} {
		assert.Equal(t, full, store.IsFull(fmt.Errorf("said: %w", says)), says.Message)
	}
}

// A row of another club, or of somebody who has left, is nobody's to build on.
func TestThingsBelongWhereTheySay(t *testing.T) {
	ctx, s := context.Background(), open(t, "owners")
	_, raw := older(t, "owners", 18, "INSERT INTO club (id, name, sport) VALUES (7, 'Elsewhere', 'Netball')",
		"INSERT INTO squad (id, club_id, name, grade) VALUES (70, 7, 'Firsts', 'club')")
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap)) // there is a club: nothing is filled in
	for _, text := range []string{"INSERT INTO club (id, name, sport) VALUES (1, 'Brackwater', 'Rugby union')",
		"INSERT INTO squad (id, club_id, name, grade) VALUES (5, 1, 'Firsts', 'club')",
		"INSERT INTO account (id, club_id, email, name, role, password_hash) VALUES (1, 1, 'c@b.example', 'C', " +
			"'coach', 'x')"} {
		_, err := raw.Exec(text)
		require.NoError(t, err)
	}
	by := store.Account{ID: 1, ClubID: 1}
	ids, err := s.Clubs.Save(ctx, by, "two", store.Change{Owner: 5, Is: club.Player{First: "Ada", Number: 7}},
		store.Change{Is: club.Venue{Name: "Hall", TimeZone: "UTC"}})
	require.NoError(t, err)
	for name, c := range map[string]store.Change{
		"a player of another club's squad": {Owner: 70, Is: club.Player{First: "Nova"}},
		"a unit of another club's squad":   {Owner: 70, Is: club.Unit{Name: "Pair", Players: []uint64{ids[0]}}},
		"a zone of what is no venue":       {Owner: 4711, Is: club.Zone{Name: "Z", Capacity: 1, Lanes: 1}},
		"a test of nobody": {Owner: 4711, Is: club.Trial{Test: "Jump", Better: club.Higher,
			Day: "2026-11-01", Tries: []float64{1}}},
		"a ruling for nobody": {Owner: 4711, Is: club.Restriction{NoJumps: true, From: "2026-11-01"}},
	} {
		_, err := s.Clubs.Save(ctx, by, name, c)
		assert.ErrorIs(t, err, store.ErrNotFound, name)
	}
	ruling := store.Change{Owner: ids[0], Is: club.Restriction{NoJumps: true, From: "2026-11-01"}}
	_, err = s.Clubs.Save(ctx, by, "ruled", ruling)
	require.NoError(t, err)
	_, err = s.Clubs.Save(ctx, by, "leaves", store.Change{ID: ids[0], Is: club.Player{First: "Ada"}, Gone: true})
	require.NoError(t, err)
	_, err = s.Clubs.Save(ctx, by, "ruled again", ruling)
	assert.ErrorIs(t, err, store.ErrNotFound, "who has left")
	_, err = s.Clubs.Save(ctx, by, "her number", store.Change{Owner: 5, Is: club.Player{First: "Bea", Number: 7}})
	require.NoError(t, err, "is free again")
	_, err = s.Clubs.TakeBack(ctx, by)
	require.NoError(t, err)
	_, err = s.Clubs.TakeBack(ctx, by)
	require.NoError(t, err)
	players := entries[club.Player](t, s)
	require.Len(t, players, 1)
	assert.Equal(t, ids[0], players[0].ID, "the same player")
	assert.Len(t, entries[club.Restriction](t, s), 1, "with what was ruled")

	d := demo.HomeMatch(time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC))
	fit, err := schedule.Fit(ctx, d, 0)
	require.NoError(t, err)
	_, err = s.Sessions.AddSession(ctx, 1, 70, store.Fitted{Document: d, Schedule: fit})
	assert.ErrorIs(t, err, store.ErrNotFound, "a session of another club's squad")
	id, err := s.Sessions.AddSession(ctx, 1, 5, store.Fitted{Document: d, Schedule: fit,
		Summary: strings.Repeat("ö", 500)})
	require.NoError(t, err)
	session, err := s.Sessions.Session(ctx, 1, id)
	require.NoError(t, err)
	assert.Len(t, []rune(session.Made.Summary), 200, "a long summary is cut")
	var wrong plan.Problems
	_, err = s.Clubs.Save(ctx, by, "bad", store.Change{Owner: 5, Is: club.Player{}})
	assert.ErrorAs(t, err, &wrong)
}

func TestAFullDiskIsTold(t *testing.T) {
	for err, full := range map[error]bool{
		&mysql.MySQLError{Number: 1021, Message: "Disk full"}:                                  true,
		&mysql.MySQLError{Number: 1114, Message: "The table is full"}:                          true,
		&mysql.MySQLError{Number: 3, Message: "Error writing file (Errcode: 28 \"No space\")"}: true,
		&mysql.MySQLError{Number: 3, Message: "Error writing file (Errcode: 13)"}:              false,
		&mysql.MySQLError{Number: 1062, Message: "Duplicate entry"}:                            false,
		store.ErrNotFound: false,
	} {
		assert.Equal(t, full, store.IsFull(fmt.Errorf("saving: %w", err)), err.Error())
	}
}
