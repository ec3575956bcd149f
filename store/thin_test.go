package store_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/demo/demotest"
)

// A plan that is changed two hundred times over forty days keeps all of the last
// thirty, and of those before the last of each day; what is published stays.
func TestALongHistoryIsThinned(t *testing.T) {
	ctx, s := context.Background(), open(t, "thin")
	_, raw := older(t, "thin", 18)
	require.NoError(t, demo.Fill(ctx, s, wednesday, demotest.Cheap))
	_, err := raw.Exec("UPDATE plan_edition SET made_at = '2026-11-24 12:00:00'")
	require.NoError(t, err)
	session, err := s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	next := fitted(t, session, 10)
	var token string
	for n := 2; n <= 200; n++ {
		next.At = wednesday.Add(time.Duration(n) * 288 * time.Minute) // 5 a day
		if n == 30 {
			token, err = s.Shares.Publish(ctx, 1, 1, session.Revision, anything)
			require.NoError(t, err)
			next.Document.Title = "Later"
		}
		session, err = s.Sessions.ChangePlan(ctx, 1, session, next)
		require.NoError(t, err)
	}
	var kept []int
	rows, err := raw.Query("SELECT number FROM plan_edition WHERE session_id = 1 ORDER BY number")
	require.NoError(t, err)
	for rows.Next() {
		var n int
		require.NoError(t, rows.Scan(&n))
		kept = append(kept, n)
	}
	assert.Equal(t, []int{1, 2, 7, 12, 17, 22, 27, 29, 32, 37, 42, 47}, kept[:12],
		"the last of each day, and what is published")
	assert.Equal(t, 200, kept[len(kept)-1])
	assert.Greater(t, len(kept), 155, "all of thirty days")
	is, err := shared(ctx, s, token, soon)
	require.NoError(t, err)
	assert.NotEqual(t, "Later", is.Document.Title)
	back := 0
	for s.Sessions.Undo(ctx, 1, 1, session.Revision+uint32(back)) == nil {
		back++
	}
	assert.Equal(t, len(kept)-1, back)
	session, err = s.Sessions.Session(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, "Brackwater v Fellmoor", session.Document.Title)
	assert.Empty(t, session.Undo)
}
