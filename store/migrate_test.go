package store_test

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/demo"
	"cuestart/store"
)

// older is a database at a version of the schema, with what it holds by then.
func older(t *testing.T, name string, version int64, statements ...string) (*store.Store, *sql.DB) {
	ctx := context.Background()
	s, err := store.Open(ctx, server.DSN(name))
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	require.NoError(t, s.MigrateTo(ctx, version))
	raw, err := sql.Open("mysql", server.DSN(name))
	require.NoError(t, err)
	t.Cleanup(func() { raw.Close() })
	for _, text := range statements {
		_, err := raw.ExecContext(ctx, text)
		require.NoError(t, err, text)
	}
	return s, raw
}

func entries[T club.Thing](t *testing.T, s *store.Store) []store.Entry[T] {
	list, err := store.Entries[T](context.Background(), s.Clubs, 1)
	require.NoError(t, err)
	return list
}

func TestTheFirstDatabaseKeepsItsPeopleAndPlaces(t *testing.T) {
	s, _ := older(t, "first_version", 1,
		"INSERT INTO club (id, name, sport) VALUES (1, 'Brackwater', 'Rugby union')",
		"INSERT INTO squad (id, club_id, name, grade) VALUES (5, 1, 'Firsts', 'club')",
		"INSERT INTO player (squad_id, number, first, last, position, foot, hand) VALUES (5, 9, 'Pia', "+
			"'Lindqvarn', 'Scrum-half', 'both', 'right'), (5, NULL, 'Ida', 'Ö \"x\"', '', 'left', 'right')",
		"INSERT INTO venue (id, club_id, name, time_zone) VALUES (3, 1, 'Tidegate', 'Europe/London')",
		"INSERT INTO zone (venue_id, name, capacity, lanes, metres, surface) VALUES (3, 'Hall', 30, 5, 18, 'wood')")
	require.NoError(t, s.Migrate(context.Background()))
	players := entries[club.Player](t, s)
	require.Len(t, players, 2)
	assert.Equal(t, club.Player{Number: 9, First: "Pia", Last: "Lindqvarn", Position: "Scrum-half", Foot: club.Both,
		Hand: club.Right}, players[0].Is)
	assert.EqualValues(t, 5, players[1].Owner)
	assert.Equal(t, `Ö "x"`, players[1].Is.Last)
	venues, zones := entries[club.Venue](t, s), entries[club.Zone](t, s)
	assert.Equal(t, venues[0].ID, zones[0].Owner)
	assert.Equal(t, club.Zone{Name: "Hall", Capacity: 30, Lanes: 5, Metres: 18, Surface: "wood"}, zones[0].Is)
}

// A database of the version before players had rows: what is ruled, tested and
// planned is the same afterwards, what was changed can still be taken back, and
// who has left is still known.
func TestPlayersAreMovedToRowsOfTheirOwn(t *testing.T) {
	ctx := context.Background()
	thing := func(id int, kind string, owner int, unique, body string) string {
		return fmt.Sprintf("INSERT INTO thing (id, club_id, kind, owner, unique_as, body, edition) VALUES (%d, "+
			"1, '%s', %d, NULLIF('%s', ''), '%s', 3)",
			id, kind, owner, unique, body)
	}
	change := func(id int, after bool, body string) string {
		to := "before"
		if after {
			to = "after"
		}
		return fmt.Sprintf(`INSERT INTO thing_change (club_id, account_id, summary, changes) VALUES (1, 1, 'said', '[{"id":%d,"kind":"player","owner":5,"%s":%s,"unique_%s":"#8"}]')`,
			id, to, body, to)
	}
	const bea = `{"number":8,"first":"Bea","last":"Lind"}`
	s, raw := older(t, "before_players", 2,
		"INSERT INTO club (id, name, sport) VALUES (1, 'Hollinmere', 'Netball')",
		"INSERT INTO squad (id, club_id, name, grade) VALUES (5, 1, 'Firsts', 'club'), (6, 1, 'Seconds', 'junior')",
		"INSERT INTO account (id, club_id, email, name, role, password_hash) VALUES (1, 1, 'c@h.example', 'C', "+
			"'coach', 'x')",
		thing(11, "player", 5, "#7",
			`{"number":7,"first":"Ada","last":"Ros","position":"Centre","foot":"left","level":"elite","build":"stiff","notes":"wet days"}`),
		thing(12, "player", 6, "", `{"first":"Cleo","last":"Ros"}`),
		thing(13, "player", 6, "", `{"first":"Ada","last":"ros"}`),
		thing(20, "restriction", 11, "",
			`{"no_jumps":true,"max_effort":80,"spare":["knee","hip"],"max_minutes":12,"from":"2026-11-20","until":"2026-12-01","review":"2026-11-27","reason":"a strain"}`),
		thing(21, "restriction", 14, "", `{"no_overhead":true,"from":"2026-11-20"}`),
		thing(30, "trial", 11, "Jump 2026-11-01",
			`{"test":"Jump","unit":"cm","better":"higher","day":"2026-11-01","tries":[30.25,31,30]}`),
		thing(40, "unit", 5, "Pair", `{"name":"Pair","players":[11]}`),
		thing(50, "venue", 0, "Hall", `{"name":"Hall","time_zone":"UTC"}`),
		thing(51, "zone", 50, "Court", `{"name":"Court","capacity":20,"lanes":2}`),
		thing(52, "zone", 99, "Lost", `{"name":"Lost","capacity":20,"lanes":2}`),
		change(14, true, bea), change(14, false, bea))

	d := demo.HomeMatch(time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC))
	d.Players[0].First, d.Players[0].Last = "ADA", "Ros"
	d.Players[1].First, d.Players[1].Last = "Cleo", "Ros"
	document, fitted := keptAs(t, d)
	for n := 1; n <= 2; n++ {
		_, err := raw.Exec("INSERT INTO team_session (id, squad_id, kind, title, start_at, time_zone, head, "+
			"edition) VALUES (?, 5, 'match', ?, '2026-11-28 15:00:00', 'Europe/London', 2, 2)",
			n, d.Title)
		require.NoError(t, err)
		for edition := 1; edition <= 2; edition++ {
			_, err = raw.Exec("INSERT INTO plan_edition (session_id, number, parent, document, schedule, "+
				"engine, summary, made_by) VALUES (?, ?, NULLIF(?, 0), ?, ?, ?, 'said', 1)",
				n, edition, edition-1, document, fitted, runin.Version)
			require.NoError(t, err)
		}
	}
	_, err := raw.Exec("INSERT INTO publication (session_id, number, document, schedule, head) VALUES (1, 1, ?, ?, 1)",
		document, fitted)
	require.NoError(t, err)
	_, err = raw.Exec("INSERT INTO share_link (token, session_id) VALUES (REPEAT('a', 43), 1)")
	require.NoError(t, err)

	require.NoError(t, s.Migrate(ctx))
	require.NoError(t, s.Migrate(ctx), "a second time changes nothing")
	ada := club.Player{Number: 7, First: "Ada", Last: "Ros", Position: "Centre", Foot: club.Left, Level: "elite",
		Build: club.Stiff, Notes: "wet days"}
	assert.Equal(t, []store.Entry[club.Player]{{ID: 11, Owner: 5, Edition: 3, Is: ada},
		{ID: 12, Owner: 6, Edition: 3, Is: club.Player{First: "Cleo", Last: "Ros"}},
		{ID: 13, Owner: 6, Edition: 3, Is: club.Player{First: "Ada", Last: "ros"}}}, entries[club.Player](t, s))
	assert.Equal(t, []store.Entry[club.Restriction]{
		{ID: 20, Owner: 11, Edition: 3, Is: club.Restriction{NoJumps: true, MaxEffort: 80,
			Spare: []string{"knee", "hip"}, MaxMinutes: 12,
			From: "2026-11-20", Until: "2026-12-01", Review: "2026-11-27"}},
		{ID: 21, Owner: 14, Edition: 3, Is: club.Restriction{NoOverhead: true, From: "2026-11-20"}},
	}, entries[club.Restriction](t, s), "also of who has left; without the reason")
	reasons, err := s.People.Reasons(ctx, store.Account{ID: 1, ClubID: 1, Name: "Dr Ness"}, 11)
	require.NoError(t, err)
	assert.Equal(t, map[uint64]string{20: "a strain"}, reasons)
	audited, err := s.Accounts.AuditOf(ctx, 1, 0)
	require.NoError(t, err)
	assert.Equal(t, "read a reason", audited[0].What, "it is written down who reads one")
	assert.Equal(t, []store.Entry[club.Trial]{{ID: 30, Owner: 11, Edition: 3,
		Is: club.Trial{Test: "Jump", Unit: "cm", Better: club.Higher,
			Day: "2026-11-01", Tries: []float64{30.25, 31, 30}}}}, entries[club.Trial](t, s))
	assert.Equal(t, []store.Entry[club.Unit]{{ID: 40, Owner: 5, Edition: 3,
		Is: club.Unit{Name: "Pair", Players: []uint64{11}}}},
		entries[club.Unit](t, s))
	assert.Len(t, entries[club.Zone](t, s), 1, "of a venue that is there")

	d.Players[0].Roster, d.Players[1].Roster = 11, 12
	session, err := s.Sessions.Session(ctx, 1, 2)
	require.NoError(t, err)
	assert.Equal(t, d, session.Document, "who is one of the club's is named, its own squad before another")
	is, err := shared(ctx, s, "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa",
		time.Date(2026, 11, 25, 12, 0, 0, 0, time.UTC))
	require.NoError(t, err)
	assert.Equal(t, d, is.Document)
	listed, _, err := s.Sessions.Sessions(ctx, 1, wednesday, 10)
	require.NoError(t, err)
	require.Len(t, listed, 2)
	assert.Nil(t, listed[0].Digest, "none was made yet")
	require.NoError(t, s.Sessions.Refitted(ctx, session))
	listed, _, err = s.Sessions.Sessions(ctx, 1, wednesday, 10)
	require.NoError(t, err)
	assert.Equal(t, []uint64{11, 12}, listed[1].Digest.Roster)
	assert.Equal(t, len(d.Players), listed[1].Digest.Heads())

	coach := store.Account{ID: 1, ClubID: 1}
	_, err = s.Clubs.TakeBack(ctx, coach)
	require.NoError(t, err)
	players := entries[club.Player](t, s)
	require.Len(t, players, 4)
	assert.Equal(t, store.Entry[club.Player]{ID: 14, Owner: 5, Edition: 2,
		Is: club.Player{Number: 8, First: "Bea", Last: "Lind"}}, players[1], "who left is back, as the same player")
}

// keptAs is a plan as it was kept in JSON.
func keptAs(t *testing.T, d *plan.Document) (document, fitted string) {
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	a, err := json.Marshal(d)
	require.NoError(t, err)
	b, err := json.Marshal(s)
	require.NoError(t, err)
	return string(a), string(b)
}
