package planner_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
	"cuestart/planner"
)

// What players see is what was published, until it is published again; who
// publishes has to have seen the plan in force.
func TestPlayersSeeWhatWasPublished(t *testing.T) {
	p := open(t, "published", true)
	first := board(t, p, 1)
	assert.Zero(t, first.Publication.Number)
	shared, err := p.Publish(ctx, coach, 1, first.Revision)
	require.NoError(t, err)
	assert.Equal(t, []any{1, first.Head}, []any{shared.Publication.Number, shared.Publication.Head})
	token := shared.Publication.Token
	seen := func() *planner.Shared {
		is, err := p.Shared(ctx, token)
		require.NoError(t, err)
		return is
	}
	assert.Equal(t, first.Document, seen().Document)
	changed, err := p.Change(ctx, coach, 1, first.Revision, func(d *plan.Document) (string, error) { return d.StepDose("lineout", 0, 1) })
	require.NoError(t, err)
	assert.NotEqual(t, changed.Publication.Head, changed.Head, "the players have an older plan")
	assert.Equal(t, first.Document, seen().Document)
	_, err = p.Publish(ctx, coach, 1, first.Revision)
	assert.ErrorIs(t, err, planner.ErrStale)
	again, err := p.Publish(ctx, coach, 1, changed.Revision)
	require.NoError(t, err)
	assert.Equal(t, token, again.Publication.Token, "the link stays")
	assert.Equal(t, changed.Document, seen().Document)

	back, err := p.Undo(ctx, coach, 1, changed.Revision)
	require.NoError(t, err)
	assert.Equal(t, first.Document, back.Document)
	assert.Equal(t, changed.Document, seen().Document, "a step back is not published by itself")
	redone, err := p.Redo(ctx, coach, 1, back.Revision)
	require.NoError(t, err)
	assert.Equal(t, changed.Document, redone.Document)
	_, err = p.Redo(ctx, coach, 1, redone.Revision)
	assert.ErrorIs(t, err, planner.ErrNothing)

	gone, err := p.Withdraw(ctx, coach, 1)
	require.NoError(t, err)
	assert.Empty(t, gone.Publication.Token)
	_, err = p.Shared(ctx, token)
	assert.ErrorIs(t, err, planner.ErrWithdrawn)
	for name, err := range map[string]error{
		"publish":  does(p.Publish(ctx, planner.Account{ID: 9, ClubID: 2}, 1, redone.Revision)),
		"withdraw": does(p.Withdraw(ctx, planner.Account{ID: 9, ClubID: 2}, 1)),
		"redo":     does(p.Redo(ctx, planner.Account{ID: 9, ClubID: 2}, 1, redone.Revision)),
		"board":    does(p.Board(ctx, 2, 1)),
	} {
		assert.ErrorIs(t, err, planner.ErrNotFound, name)
	}
}

// An edit that changes nothing makes no step; one that does not hold leaves all
// as it was.
func TestNothingChangedIsNoStep(t *testing.T) {
	p := open(t, "nostep", true)
	first := board(t, p, 1)
	same, err := p.Change(ctx, coach, 1, first.Revision, func(d *plan.Document) (string, error) { return "nothing", nil })
	require.NoError(t, err)
	assert.Equal(t, first.Revision, same.Revision)
	assert.Empty(t, same.Undo)
	_, err = p.Change(ctx, coach, 1, first.Revision, func(d *plan.Document) (string, error) {
		d.Margin = 9999
		return "too much", nil
	})
	var wrong plan.Problems
	assert.ErrorAs(t, err, &wrong)
	_, err = p.Change(ctx, coach, 1, first.Revision, func(d *plan.Document) (string, error) { return d.Remove("gone") })
	assert.ErrorIs(t, err, plan.ErrNoSuchBlock)
	assert.Equal(t, first.Document, board(t, p, 1).Document)
}
