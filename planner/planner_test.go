package planner_test

import (
	"context"
	"errors"
	"os"
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/mariadb"
	"cuestart/mariadb/mariadbtest"
	"cuestart/planner"
	"cuestart/store"
)

var server *mariadb.Server

func TestMain(m *testing.M) { os.Exit(mariadbtest.Run(m, &server)) }

var (
	ctx   = context.Background()
	now   = time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)
	coach = store.Account{ID: 1, ClubID: 1}
)

func open(t *testing.T, name string, withDemo bool) *planner.Planner {
	s, err := store.Open(ctx, server.DSN(name))
	require.NoError(t, err)
	require.NoError(t, s.Migrate(ctx))
	t.Cleanup(func() { s.Close() })
	if withDemo {
		require.NoError(t, demo.Fill(ctx, s, now))
	}
	p := planner.New(s)
	p.Now = func() time.Time { return now }
	return p
}

func board(t *testing.T, p *planner.Planner, id uint64) *planner.Board {
	b, err := p.Board(ctx, 1, id)
	require.NoError(t, err)
	return b
}

func TestAFindingIsMendedOrKept(t *testing.T) {
	p := open(t, "mend", true)
	rules := func() map[string]string {
		found := map[string]string{}
		for _, f := range board(t, p, 1).Findings {
			found[f.Rule] = f.Kept
		}
		return found
	}
	require.Contains(t, rules(), "queue")
	require.NoError(t, p.Mend(ctx, coach, 1, 1, "queue", "high"))
	assert.NotContains(t, rules(), "queue")
	assert.Equal(t, "Use more lanes or stations", board(t, p, 1).Undo)
	require.NoError(t, p.Undo(ctx, coach, 1, 2))
	assert.Contains(t, rules(), "queue")
	assert.ErrorIs(t, p.Mend(ctx, coach, 1, 1, "queue", "high"), store.ErrStale)
	assert.ErrorIs(t, p.Mend(ctx, coach, 1, 3, "queue", "nowhere"), check.ErrNoMend)

	var wrong plan.Problems
	assert.ErrorAs(t, p.Change(ctx, coach, 1, 3, planner.Keep("queue", "high", " ")), &wrong)
	require.NoError(t, p.Change(ctx, coach, 1, 3, planner.Keep("queue", "high", "one good kicker")))
	assert.Equal(t, "one good kicker", rules()["queue"])
}

func TestARefusedChangeLeavesThePlan(t *testing.T) {
	p := open(t, "refuse", true)
	for name, edit := range map[string]planner.Edit{
		"the past":              p.SetStart(clock.Start{Local: "2026-11-25T09:59", Zone: "Europe/London"}),
		"a plan that cannot be": func(d *plan.Document) (string, error) { d.Blocks[0].Who = nil; return "", nil },
		"an edit that fails":    func(d *plan.Document) (string, error) { d.Title = "x"; return "", errors.New("no") },
	} {
		assert.Error(t, p.Change(ctx, coach, 1, 1, edit), name)
	}
	require.NoError(t, p.Change(ctx, coach, 1, 1, func(d *plan.Document) (string, error) { return "nothing", nil }))
	b := board(t, p, 1)
	assert.EqualValues(t, 1, b.Edition, "what changes nothing is not kept as a change")
	assert.Empty(t, b.Undo)
}

func TestANewSessionIsLikeTheLastOfItsKind(t *testing.T) {
	p := open(t, "new", true)
	id, err := p.Add(ctx, coach, planner.NewSession{Kind: plan.Training, Title: "Thursday", Start: clock.Start{Local: "2026-11-26T18:50", Zone: "Europe/London"}})
	require.NoError(t, err)
	b := board(t, p, id)
	assert.Equal(t, "Thursday", b.Document.Title)
	assert.NotNil(t, b.Document.Block("shields"), "as on Tuesday")
	assert.True(t, b.Schedule.Result.Feasible)
	sessions, err := p.Sessions(ctx, 1)
	require.NoError(t, err)
	assert.Len(t, sessions, 4)

	first := open(t, "first", false)
	founder, _, err := first.Store.Found(ctx, "Hollinmere", "Netball", "Firsts", "club", store.Account{Email: "a@b.example", Name: "A", Role: store.Coach}, "hash")
	require.NoError(t, err)
	ask := planner.NewSession{Kind: plan.Match, Title: "A v B", Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}}
	var wrong plan.Problems
	_, err = first.Add(ctx, founder, ask)
	require.ErrorAs(t, err, &wrong)
	assert.NotEmpty(t, wrong.At("players"))
	ask.Players = 12
	id, err = first.Add(ctx, founder, ask)
	require.NoError(t, err)
	b = board(t, first, id)
	assert.Len(t, b.Document.Players, 12)
	assert.Zero(t, check.Stops(b.Findings))
	for field, spoil := range map[string]func(*planner.NewSession){
		"kind":  func(n *planner.NewSession) { n.Kind = "" },
		"title": func(n *planner.NewSession) { n.Title = "" },
		"start": func(n *planner.NewSession) { n.Start.Local = "2026-11-20T15:00" },
	} {
		bad := ask
		spoil(&bad)
		_, err := first.Add(ctx, founder, bad)
		require.ErrorAs(t, err, &wrong)
		assert.NotEmpty(t, wrong.At(field), field)
	}
}

func TestCutDownsAreThere(t *testing.T) {
	p := open(t, "cuts", true)
	cuts, err := p.CutDowns(ctx, board(t, p, 1))
	require.NoError(t, err)
	require.Greater(t, len(cuts), 3)
	assert.Equal(t, 40*60, cuts[0].Minutes)
	said := ""
	for _, cut := range cuts {
		said += strings.Join(cut.Says, ", ") + "\n"
	}
	assert.Contains(t, said, "no Bands", "a should goes before the musts do")
	for n := 1; n < len(cuts); n++ {
		assert.Less(t, cuts[n].Minutes, cuts[n-1].Minutes)
		assert.LessOrEqual(t, cuts[n].Work, cuts[n-1].Work)
	}
}
