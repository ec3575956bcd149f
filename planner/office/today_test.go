package office_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/diary"
	"cuestart/planner/wording"
	"cuestart/store"
)

// A list of its own gets what one of its kind usually holds, for those whom it is for.
func TestAListHoldsWhatIsUsual(t *testing.T) {
	p := open(t, "usual", true)
	b := board(t, p, 1)
	runIn := names(b)
	for when, check := range map[plan.When]func(*plan.List){
		plan.AfterEnd: func(l *plan.List) {
			for i := range l.Blocks {
				assert.Equal(t, drill.After, l.Blocks[i].Phase, l.Blocks[i].Name)
			}
		},
		plan.OnBench: func(l *plan.List) {
			for i := range l.Blocks {
				assert.Equal(t, "Bench", b.Document.Audience(l.Blocks[i].Who), l.Blocks[i].Name)
			}
		},
		plan.AtBreak: func(l *plan.List) { assert.Positive(t, l.Length) },
	} {
		var err error
		b, err = p.Diary.FillList(ctx, coach, 1, b.Revision, when)
		require.NoError(t, err, when)
		l := &b.Document.Lists[slices.IndexFunc(b.Document.Lists, func(l plan.List) bool { return l.When == when })]
		require.NotEmpty(t, l.Blocks, when)
		check(l)
	}
	assert.Equal(t, runIn, names(b), "the run-in is as it was")
	_, err := p.Diary.FillList(ctx, coach, 1, b.Revision, "never")
	assert.Error(t, err)
	assert.ErrorIs(t, does(p.Diary.FillList(ctx, store.Account{ID: 9, ClubID: 2, Role: store.Coach}, 1, b.Revision,
		plan.AfterEnd)), store.ErrNotFound)
}

// Who comes late gets a short list that takes nothing from the others, and loses it when
// they come in time after all.
func TestWhoComesLateHasTheirOwn(t *testing.T) {
	p := open(t, "late", true)
	was := board(t, p, 1)
	others := map[string]string{}
	for i := range was.Blocks {
		others[was.Blocks[i].ID] = strings.Join(was.Blocks[i].Named(), "; ")
	}
	arrives := func(b *boards.Board, at string) (*boards.Board, error) {
		return p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
			return d.SetArrival("p9", at)
		})
	}
	late, err := arrives(was, "14:40")
	require.NoError(t, err)
	for i := range late.Blocks {
		assert.Equal(t, others[late.Blocks[i].ID], strings.Join(late.Blocks[i].Named(), "; "), "the others do as much")
	}
	all := late.Schedule.All(late.Document)
	require.Len(t, all, len(late.Blocks)+1)
	own := &all[len(late.Blocks)]
	assert.Equal(t, []string{"p9"}, own.Members)
	assert.GreaterOrEqual(t, own.Start, clock.Offset(-20*60), "not before they are there")
	after, missed := late.Schedule.Lateness(late.Document, "p9")
	assert.Greater(t, after, 0)
	assert.LessOrEqual(t, own.Length(), missed)
	inTime, err := arrives(late, "")
	require.NoError(t, err)
	assert.Len(t, inTime.Schedule.All(inTime.Document), len(inTime.Blocks))
	assert.Zero(t, inTime.Document.Player("p9").Late)
	var wrong plan.Problems
	assert.ErrorAs(t, does(arrives(inTime, "soon")), &wrong)
}

// Roles of the day are asked for once: routines hang on them, the next session asks for
// them again, and what is for nobody today costs nothing.
func TestARoleCarriesItsRoutine(t *testing.T) {
	p := open(t, "roles", true)
	b := board(t, p, 1)
	b, err := p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		return d.SetRole("Starter", []string{"p10"})
	})
	require.NoError(t, err)
	b, heard, err := p.Wording.Write(ctx, coach, 1, b.Revision, "starter: kicks at posts 6, at 40", wording.Place{})
	require.NoError(t, err)
	own := b.Document.Block(heard.Lines[0].Block)
	require.NotNil(t, own)
	assert.Equal(t, []string{"p10"}, b.Document.Members(own.Who))
	require.NoError(t, p.Diary.SaveRoutine(ctx, coach, 1, diary.Keep{Name: "Starter's day", For: "anywhere",
		Only: []string{own.ID}}))
	kept, err := p.Books.Routines(ctx, 1)
	require.NoError(t, err)
	at := slices.IndexFunc(kept, func(k planner.Entry[club.Routine]) bool { return k.Is.Name == "Starter's day" })
	require.GreaterOrEqual(t, at, 0)
	require.Len(t, kept[at].Is.Blocks, 1, "one block, and not the squad's")

	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	next := diary.NewSession{Kind: plan.Match, Title: "Next",
		Start: clock.Start{Local: "2026-12-05T14:00", Zone: "Europe/London"}, From: diary.FromEmpty}
	next.Roles = map[string][]uint64{"Starter": {squad.Players[14].ID}}
	added, err := p.Diary.Add(ctx, coach, next)
	require.NoError(t, err)
	other := board(t, p, added.ID)
	starters := other.Document.Roles()
	require.True(t, slices.ContainsFunc(starters,
		func(u plan.Unit) bool { return u.Name == "Starter" && len(u.Players) == 1 }), "%v", starters)
	put, err := p.Diary.PutRoutine(ctx, coach, added.ID, other.Revision, kept[at].ID)
	require.NoError(t, err)
	block := put.Document.Blocks[len(put.Document.Blocks)-1]
	who := put.Document.Members(block.Who)
	require.Len(t, who, 1)
	assert.Equal(t, squad.Players[14].Is.Number, put.Document.Player(who[0]).Number, "today's starter does it")
	var wrong plan.Problems
	assert.ErrorAs(t, does(p.Diary.PutRoutine(ctx, coach, added.ID, put.Revision, 4711)), &wrong)
	assert.ErrorAs(t, does(p.Diary.PutRoutine(ctx, store.Account{ID: 9, ClubID: 2, Role: store.Coach}, added.ID,
		put.Revision, kept[at].ID)), &wrong, "another club's is not there")

	again, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "After",
		Start: clock.Start{Local: "2026-12-12T14:00", Zone: "Europe/London"}, From: diary.FromLast})
	require.NoError(t, err)
	last := board(t, p, again.ID)
	assert.True(t, strings.Contains(strings.Join(names(last), " "), "Kicks at posts"), "%v", names(last))
}

// What a coach says in whole sentences is read as lines; how much there is holds today.
func TestSentencesAreLines(t *testing.T) {
	p := open(t, "sentence_lines", true)
	b := blank(t, p, 0)
	b, heard, err := p.Wording.Write(ctx, coach, b.ID, b.Revision,
		`Tag in a box to begin. Then four lanes: out with skips, back with side steps; out with high knees, back with heel kicks (tall; quick). We have ten ropes and twenty hurdles. After the bell they stretch calves and thighs, fifteen seconds each.`,
		wording.Place{})
	require.NoError(t, err)
	require.Len(t, heard.Lines, 5)
	for _, line := range heard.Lines {
		assert.Empty(t, line.Problem, line.Line.Said)
		assert.Empty(t, line.Line.Note, line.Line.Said)
	}
	assert.Equal(t, []string{"Tag in a box", "Lines: skips, high knees"}, names(b))
	assert.Equal(t, []int{10, 20}, []int{b.Document.Kit["rope"], b.Document.Kit["hurdle"]})
	assert.Equal(t, 4, b.Document.Blocks[1].Stations)
	require.Len(t, b.Document.Lists, 1)
	after := b.Document.Lists[0]
	assert.Equal(t, "Bell", after.Line)
	require.Len(t, after.Blocks, 1)
	assert.Len(t, after.Blocks[0].Items, 2)
	for _, bad := range []string{"we have 5000 hurdles", "we have 2 posts"} {
		b, heard, err = p.Wording.Write(ctx, coach, b.ID, b.Revision, bad+"\njog 2 min", wording.Place{})
		require.NoError(t, err)
		assert.NotEmpty(t, heard.Lines[0].Problem, bad)
	}
}
