package office_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/reach"
)

// What players see is what was published, until it is published again; who
// publishes has to have seen the plan in force.
func TestPlayersSeeWhatWasPublished(t *testing.T) {
	p := open(t, "published", true)
	first := board(t, p, 1)
	assert.Zero(t, first.Publication.Number)
	shared, err := p.Reach.Publish(ctx, coach, 1, first.Revision)
	require.NoError(t, err)
	assert.Equal(t, []any{1, first.Head}, []any{shared.Publication.Number, shared.Publication.Head})
	token := shared.Publication.Token
	seen := func() []plan.Block {
		is, err := p.Reach.Shared(ctx, reach.Way{Token: token})
		require.NoError(t, err)
		return is.Document.Blocks
	}
	assert.Equal(t, first.Document.Blocks, seen())
	changed, err := p.Boards.Change(ctx, coach, 1, first.Revision,
		func(d *plan.Document) (string, error) { return d.StepDose("lineout", 0, 1) })
	require.NoError(t, err)
	assert.NotEqual(t, changed.Publication.Head, changed.Head, "the players have an older plan")
	assert.Equal(t, first.Document.Blocks, seen())
	_, err = p.Reach.Publish(ctx, coach, 1, first.Revision)
	assert.ErrorIs(t, err, planner.ErrStale)
	again, err := p.Reach.Publish(ctx, coach, 1, changed.Revision)
	require.NoError(t, err)
	assert.Equal(t, token, again.Publication.Token, "the link stays")
	assert.Equal(t, changed.Document.Blocks, seen())

	back, err := p.Boards.Undo(ctx, coach, 1, changed.Revision)
	require.NoError(t, err)
	assert.Equal(t, first.Document, back.Document)
	assert.Equal(t, changed.Document.Blocks, seen(), "a step back is not published by itself")
	redone, err := p.Boards.Redo(ctx, coach, 1, back.Revision)
	require.NoError(t, err)
	assert.Equal(t, changed.Document, redone.Document)
	_, err = p.Boards.Redo(ctx, coach, 1, redone.Revision)
	assert.ErrorIs(t, err, planner.ErrNothing)

	gone, err := p.Reach.Withdraw(ctx, coach, 1)
	require.NoError(t, err)
	assert.Empty(t, gone.Publication.Token)
	_, err = p.Reach.Shared(ctx, reach.Way{Token: token})
	assert.ErrorIs(t, err, planner.ErrNotFound)
	for name, err := range map[string]error{
		"publish": does(p.Reach.Publish(ctx, planner.Account{ID: 9, ClubID: 2, Role: planner.Coach}, 1,
			redone.Revision)),
		"withdraw": does(p.Reach.Withdraw(ctx, planner.Account{ID: 9, ClubID: 2, Role: planner.Coach}, 1)),
		"redo": does(p.Boards.Redo(ctx, planner.Account{ID: 9, ClubID: 2, Role: planner.Coach}, 1,
			redone.Revision)),
		"board": does(p.Boards.Board(ctx, 2, 1)),
	} {
		assert.ErrorIs(t, err, planner.ErrNotFound, name)
	}
}

// An edit that changes nothing makes no step; one that does not hold leaves all
// as it was.
func TestNothingChangedIsNoStep(t *testing.T) {
	p := open(t, "nostep", true)
	first := board(t, p, 1)
	same, err := p.Boards.Change(ctx, coach, 1, first.Revision,
		func(d *plan.Document) (string, error) { return "nothing", nil })
	require.NoError(t, err)
	assert.Equal(t, first.Revision, same.Revision)
	assert.Empty(t, same.Undo)
	_, err = p.Boards.Change(ctx, coach, 1, first.Revision, func(d *plan.Document) (string, error) {
		d.Margin = 9999
		return "too much", nil
	})
	var wrong plan.Problems
	assert.ErrorAs(t, err, &wrong)
	_, err = p.Boards.Change(ctx, coach, 1, first.Revision, func(d *plan.Document) (string, error) {
		return d.Remove("gone")
	})
	assert.ErrorIs(t, err, plan.ErrNoSuchBlock)
	assert.Equal(t, first.Document, board(t, p, 1).Document)
}

// A team's link shows nothing of what medical staff ruled; a player's own shows their
// version, as it is ruled now; links end a day after the session, and a plan is not
// published over a ruling that it does not hold.
func TestALinkShowsARulingToItsPlayerAlone(t *testing.T) {
	p := open(t, "own", true)
	b := board(t, p, 1)
	player := b.Document.Players[5]
	all, err := p.Staff.Accounts(ctx, 1)
	require.NoError(t, err)
	medical := all[slices.IndexFunc(all, func(a planner.Account) bool { return a.Role == planner.Medical })]
	b, err = p.Reach.Publish(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	_, err = p.Save(ctx, medical, "ruled",
		planner.Change{Owner: player.Roster, Is: club.Restriction{NoJumps: true, From: "2026-11-01"}})
	require.NoError(t, err)
	_, err = p.Reach.Publish(ctx, coach, 1, b.Revision)
	var wrong plan.Problems
	require.ErrorAs(t, err, &wrong, "the ruling has not been taken in")

	shared, err := p.Reach.Shared(ctx, reach.Way{Token: b.Publication.Token})
	require.NoError(t, err)
	assert.Empty(t, shared.Document.Restrictions)
	links, _, err := p.Reach.OwnLinks(ctx, b)
	require.NoError(t, err)
	require.Len(t, links, len(b.Document.Players))
	parts := strings.Split(links[5].Path, "/")
	require.Equal(t, player.ID, parts[1])
	own, err := p.Reach.Shared(ctx, reach.Way{Token: b.Publication.Token, Person: player.ID, Key: parts[2]})
	require.NoError(t, err)
	assert.Equal(t, []plan.Restriction{{Player: player.ID, NoJumps: true}}, own.Document.Restrictions,
		"at once, before it is published again")
	_, err = p.Reach.Shared(ctx, reach.Way{Token: b.Publication.Token, Person: b.Document.Players[6].ID, Key: parts[2]})
	assert.ErrorIs(t, err, planner.ErrNotFound, "a key opens one player's list")

	p.Now = func() time.Time { return b.Schedule.Start.Add(25 * time.Hour) }
	_, err = p.Reach.Shared(ctx, reach.Way{Token: b.Publication.Token})
	assert.ErrorIs(t, err, planner.ErrNotFound)
	err = p.Reach.SetSeason(ctx, coach, 1, true)
	require.NoError(t, err)
	_, err = p.Reach.Shared(ctx, reach.Way{Token: b.Publication.Token})
	assert.NoError(t, err)
}
