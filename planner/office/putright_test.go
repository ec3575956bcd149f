package office_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// A plan follows when a player's position is put right, or a drill's pace in the book is
// changed, and says so; it follows back when that is taken back.
func TestAPlanFollowsWhatIsPutRight(t *testing.T) {
	p := open(t, "put-right", true)
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	hooker := squad.Players[1]
	require.Equal(t, "Hooker", hooker.Is.Position)
	was := board(t, p, 1)
	is := hooker.Is
	is.Position, is.Own = "Lock", "Neck holds 3 x 10 s\nCalf raises 2 x 10\n"
	_, err = p.Save(ctx, coach, "put right", planner.Change{ID: hooker.ID, Owner: squad.ID, Edition: hooker.Edition,
		Is: is})
	require.NoError(t, err)
	now := board(t, p, 1)
	id := was.Document.Players[1].ID
	assert.Equal(t, "Lock", now.Document.Player(id).Position)
	assert.Equal(t, []string{"Neck holds 3 x 10 s", "Calf raises 2 x 10"}, now.Document.Player(id).Own)
	assert.Contains(t, now.Undo, "is Lock now")
	assert.Equal(t, was.Revision+1, now.Revision)

	b, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	known, ok := b.Find("skips")
	require.True(t, ok)
	slow := club.Drill{Drill: known}
	slow.Dose.TurnSeconds += 20
	before := lengths(now, known.Code)
	require.NotEmpty(t, before, "the match has skips")
	require.NoError(t, p.Books.SaveDrill(ctx, coach, slow, 0))
	slower := board(t, p, 1)
	assert.Contains(t, slower.Undo, "at the book's pace")
	assert.NotEqual(t, before, lengths(slower, known.Code))
	_, err = p.Keep.TakeBack(ctx, coach)
	require.NoError(t, err)
	assert.Equal(t, before, lengths(board(t, p, 1), known.Code))
}

// lengths are the seconds of the blocks that hold a drill.
func lengths(b *boards.Board, code string) (list []int) {
	for i := range b.Blocks {
		for _, item := range b.Blocks[i].Items {
			if item.Drill.Code == code {
				list = append(list, b.Blocks[i].Length())
			}
		}
	}
	return list
}
