package office_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/conduct"
	"cuestart/core/drill"
	"cuestart/core/list"
	"cuestart/core/movement"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/reach"
	"cuestart/planner/wording"
)

// A drill of one's own is what its chips say: in the plan, for what the plan holds, in the book
// from then on, and in other plans to come that have it. What is not understood changes nothing.
func TestAnOwnDrillIsWhatItsChipsSay(t *testing.T) {
	p := open(t, "chips", true)
	other := blank(t, p, 1)
	other, _, err := p.Wording.Write(ctx, coach, other.ID, other.Revision, "blorp 8", wording.Place{})
	require.NoError(t, err)
	b := blank(t, p, 0)
	b, _, err = p.Wording.Write(ctx, coach, b.ID, b.Revision, "jog 3 min\n\nblorp 8 (soft hands)", wording.Place{})
	require.NoError(t, err)
	holds := func(b *boards.Board) (has string) {
		for _, one := range b.Principles() {
			if one.Has {
				has += one.ID + ";"
			}
		}
		return has
	}
	assert.NotContains(t, holds(b), "plane turn", "nothing is known of it")
	block := b.Document.Blocks[1].ID
	_, err = p.Wording.Describe(ctx, coach, b.ID, b.Revision, block, 0, map[movement.Chip]string{movement.Works: "fun"})
	assert.ErrorContains(t, err, "say joints, muscles or a direction")
	b = board(t, p, b.ID)
	b, err = p.Wording.Describe(ctx, coach, b.ID, b.Revision, block, 0,
		map[movement.Chip]string{movement.For: "balance", movement.Works: "hips, turning", movement.Fast: "6 s a rep",
			movement.Cue: "soft hands"})
	require.NoError(t, err)
	assert.Contains(t, holds(b), "plane turn", "it turns now")
	k := b.Document.Block(block).Items[0].Drill
	assert.Equal(t, []string{"soft hands"}, k.Cues)
	assert.Equal(t, drill.Activate, b.Document.Block(block).Phase, "alone in its block, that goes with it")
	assert.InDelta(t, 6, k.Dose.RepSeconds, 0)
	follows := board(t, p, other.ID)
	assert.Equal(t, []string{"hip"}, follows.Document.Blocks[0].Items[0].Drill.Regions, "the other plan follows")
	assert.Contains(t, follows.Undo, "as you describe it now")
	bk, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	own := bk.Own["our-blorp"]
	assert.True(t, own.ID != 0 && !own.Is.Draft, "it is the club's now")
	again, _, err := p.Wording.Write(ctx, coach, other.ID, follows.Revision, "blorp 4", wording.Place{})
	require.NoError(t, err)
	assert.Equal(t, []string{"stability"}, again.Document.Blocks[len(again.Document.Blocks)-1].Items[0].Drill.Qualities,
		"and it is written so")
	_, err = p.Wording.Describe(ctx, coach, b.ID, b.Revision, b.Document.Blocks[0].ID, 0,
		map[movement.Chip]string{movement.Works: "hips"})
	assert.ErrorContains(t, err, "is the book's")
	_, err = p.Wording.Describe(ctx, coach, b.ID, b.Revision, block, 0,
		map[movement.Chip]string{movement.Cue: strings.Repeat("x;", 9)})
	assert.ErrorContains(t, err, "six cues")
}

// An own drill has an easier form by its movement; put in its place it keeps what was said.
func TestAnOwnDrillHasAnEasierForm(t *testing.T) {
	p := open(t, "forms", true)
	b := blank(t, p, 0)
	b, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, "single-leg zigzag hop and stick 5 a side",
		wording.Place{})
	require.NoError(t, err)
	block := b.Document.Blocks[0]
	stands := map[string]drill.Drill{}
	for _, s := range b.Stands(&block, 0) {
		stands[s.Word] = s.Drill
	}
	assert.Equal(t, "Zigzag hop and stick, two feet", stands["easier"].Name)
	bk, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	easier, ok := bk.FormOf(block.Items[0].Drill, stands["easier"].Code)
	require.True(t, ok)
	b, err = p.Boards.Change(ctx, coach, b.ID, b.Revision, func(d *plan.Document) (string, error) {
		return d.SwapItem(block.ID, 0, bk.Item(easier, d.Grade))
	})
	require.NoError(t, err)
	is := b.Document.Blocks[0].Items[0]
	assert.Equal(t, "Zigzag hop and stick, two feet", is.Drill.Name)
	assert.Equal(t, "5 a side", is.Drill.Words(is.Drill.Range.Target), "as many as were said")
	assert.Less(t, is.Drill.Effort, block.Items[0].Drill.Effort)
}

// Nobody drew it: it looks as what moves most alike, or like nothing.
func TestAnOwnDrillLooksLikeItsMovement(t *testing.T) {
	b := books.NewBook(book.Drills(), nil)
	for name, like := range map[string]string{
		"Zigzag single-leg hop and stick": "hop-and-stick",
		"Backwards bear walk":             "bear-crawl",
		"Wall calf raise slow":            "calf-raises",
		"Penguin squats":                  "air-squat",
		"Wobble reach":                    "",
		"Blorp":                           "",
		"Superman hold":                   "",
	} {
		k := drill.Drill{Code: pen.OwnCode(name), Name: name}
		if like == "" {
			assert.Nil(t, b.Looks(&k), name)
			continue
		}
		require.NotNil(t, b.Looks(&k), name)
		assert.Same(t, book.Figure(like), b.Looks(&k), name)
	}
}

// The book is searched by every name that a line may be written in, typed any way.
func TestSearchKnowsWhatLinesAreCalled(t *testing.T) {
	p := open(t, "search", true)
	for text, first := range map[string]string{"carioca": "quick-cross", "Karaoke": "quick-cross",
		"lateral lunge": "side-lunge", "good mornings": "hinge-hands-hips", "butt kick": "heel-kicks",
		"inch worm": "plank-walk"} {
		found, err := p.Books.Search(ctx, 1, drill.Query{Text: text})
		require.NoError(t, err)
		require.NotEmpty(t, found, text)
		assert.Equal(t, first, found[0].Code, text)
	}
	found, err := p.Books.Search(ctx, 1, drill.Query{Text: "xyzzy"})
	require.NoError(t, err)
	assert.Empty(t, found)
}

// Two names of one drill are made one, one is called otherwise: plans to come follow, the old
// names stay ones that lines may be written in.
func TestTwoNamesOfOneDrillAreMadeOne(t *testing.T) {
	p := open(t, "merge", true)
	b := blank(t, p, 0)
	b, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, "wobble reach 8 a side\n\nblorp 6\n\nzig runs 20 m",
		wording.Place{})
	require.NoError(t, err)
	_, err = p.Reach.Publish(ctx, coach, b.ID, b.Revision)
	require.NoError(t, err)
	require.NoError(t, p.Wording.DescribeDrill(ctx, coach, "our-wobble-reach", "Reach for the stars",
		map[movement.Chip]string{movement.Works: "shoulders"}))
	require.NoError(t, p.Wording.MergeDrill(ctx, coach, "our-blorp", "Reach for the stars"))
	bk, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	assert.Zero(t, bk.Own["our-blorp"].ID)
	assert.ElementsMatch(t, []string{"wobble reach", "blorp"}, bk.Own["our-wobble-reach"].Is.Also)
	b = board(t, p, b.ID)
	first, second := b.Document.Blocks[0].Items[0].Drill, b.Document.Blocks[1].Items[0].Drill
	assert.Equal(t, "Reach for the stars", first.Name)
	assert.Equal(t, "our-wobble-reach", second.Code)
	assert.Equal(t, "Blorp", second.Name, "it is called as it was written")
	assert.Equal(t, []string{"shoulder"}, second.Regions)
	assert.Equal(t, 6, second.Range.Target, "and as many")
	b, _, err = p.Wording.Write(ctx, coach, b.ID, b.Revision, "blorp 4", wording.Place{})
	require.NoError(t, err)
	last := b.Document.Blocks[len(b.Document.Blocks)-1]
	assert.Equal(t, "our-wobble-reach", last.Items[len(last.Items)-1].Drill.Code)
	assert.ErrorContains(t, p.Wording.MergeDrill(ctx, coach, "our-zig-runs", "nothing of that name"), "pick a drill")
	assert.ErrorContains(t, p.Wording.MergeDrill(ctx, coach, "our-zig-runs", "our-zig-runs"), "pick a drill")
	assert.ErrorIs(t, p.Wording.MergeDrill(ctx, coach, "our-gone", "Skips"), planner.ErrNotFound)
	assert.Error(t, p.Wording.DescribeDrill(ctx, coach, "our-zig-runs", strings.Repeat("x", 300), nil))
	assert.Error(t, p.Wording.MergeDrill(ctx, medical, "our-zig-runs", "Skips"))
}

// Names that are none lose nothing: each line is answered, and what is published is the club's
// under a code of its own.
func TestOddNamesAreDrillsLikeAnyOther(t *testing.T) {
	p := open(t, "odd_names", true)
	b := blank(t, p, 0)
	odd := []string{strings.Repeat("long ", 56) + "walk 8", "12345 8", "תרגיל 8", "体操 8", "体操二 6", "💪💪 8", "?!? 8",
		"wobble 8", "WOBBLE 6"}
	b, heard, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, strings.Join(odd, "\n\n"), wording.Place{})
	require.NoError(t, err)
	answered := 0
	for _, line := range heard.Lines {
		if line.Line.Said != "" {
			answered++
			assert.True(t, line.Block != "" || line.Problem != "" || line.Line.Note != "" ||
				line.Line.Is == say.IsNote || line.Line.Is == say.IsBlock, line.Line.Said)
		}
	}
	assert.Equal(t, len(odd), answered)
	_, err = p.Reach.Publish(ctx, coach, b.ID, b.Revision)
	require.NoError(t, err)
	bk, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	codes := map[string]string{}
	for _, block := range b.Document.Blocks {
		for _, item := range block.Items {
			if pen.IsOwn(item.Drill.Code) {
				assert.NotZero(t, bk.Own[item.Drill.Code].ID, item.Drill.Name)
				if other, taken := codes[item.Drill.Code]; taken {
					assert.True(t, strings.EqualFold(other, item.Drill.Name), "%s and %s are one drill", other,
						item.Drill.Name)
				}
				codes[item.Drill.Code] = item.Drill.Name
			}
		}
	}
	assert.GreaterOrEqual(t, len(codes), 5)
}

// A player who is put on the easier form of a drill does it so in this plan and whenever it
// comes again; nobody else does, and a ruling goes first.
func TestAPlayerDoesTheEasierFormNextTimeToo(t *testing.T) {
	p := open(t, "eased", true)
	b := blank(t, p, 0)
	b, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, "single-leg zigzag hop and stick 5 a side",
		wording.Place{})
	require.NoError(t, err)
	first, block, who := b.ID, b.Document.Blocks[0].ID, b.Document.Players[3].ID
	b, err = p.Boards.PutForm(ctx, coach, b.ID, b.Revision, block, 0, who, plan.Easier)
	require.NoError(t, err)
	does := func(b *boards.Board, player string) string {
		for _, e := range list.Of(b.Document, b.Schedule, player) {
			for _, d := range e.Drills {
				if strings.Contains(strings.ToLower(d.Drill.Name), "zigzag") {
					return d.Drill.Name + ", " + d.Drill.Words(d.Amount)
				}
			}
		}
		return "nothing"
	}
	assert.Equal(t, "Zigzag hop and stick, two feet, 5 a side", does(b, who))
	assert.Equal(t, "Single-leg zigzag hop and stick, 5 a side", does(b, b.Document.Players[4].ID))
	b, err = p.Boards.Change(ctx, coach, b.ID, b.Revision, func(d *plan.Document) (string, error) {
		return d.SetDose(block, 0, 3)
	})
	require.NoError(t, err)
	assert.Equal(t, "Zigzag hop and stick, two feet, 3 a side", does(b, who), "another dose is theirs too")
	b, err = p.Boards.Change(ctx, coach, b.ID, b.Revision, func(d *plan.Document) (string, error) {
		return d.SetDose(block, 0, 5)
	})
	require.NoError(t, err)
	_, err = p.Boards.PutForm(ctx, coach, b.ID, b.Revision, block, 0, who, "sideways")
	assert.Error(t, err)
	next := blank(t, p, 0)
	next, _, err = p.Wording.Write(ctx, coach, next.ID, next.Revision, "single-leg zigzag hop and stick 4 a side",
		wording.Place{})
	require.NoError(t, err)
	assert.Equal(t, "Zigzag hop and stick, two feet, 4 a side", does(next, who),
		"next time too, as many as were said then")

	// Who leads says so of another; it is one press at the coach's board.
	b = board(t, p, next.ID)
	b, err = p.Boards.Change(ctx, coach, b.ID, b.Revision, func(d *plan.Document) (string, error) {
		d.Blocks[0].Leader = d.Leaders[0].ID
		return "led", nil
	})
	require.NoError(t, err)
	b, err = p.Reach.Publish(ctx, coach, b.ID, b.Revision)
	require.NoError(t, err)
	other := b.Document.Players[7].ID
	leads, err := p.Reach.Shared(ctx, waysTo(t, p, b)[reach.LeaderMark+b.Document.Leaders[0].ID])
	require.NoError(t, err)
	require.NoError(t, p.Reach.Tell(ctx, leads, planner.Word{Once: "x1", Kind: planner.Easier,
		Block: b.Document.Blocks[0].ID, Says: other}))
	assert.Error(t, p.Reach.Tell(ctx, leads, planner.Word{Once: "x2", Kind: planner.Easier,
		Block: b.Document.Blocks[0].ID, Says: "nobody"}))
	told, err := p.Reach.Told(ctx, coach, b)
	require.NoError(t, err)
	require.Len(t, told, 1)
	assert.Contains(t, told[0].Says, "needs an easier form of Single-leg zigzag hop and stick, says ")
	assert.Equal(t, "From now on: Zigzag hop and stick, two feet", told[0].Plan)
	require.NoError(t, p.Reach.TakeIn(ctx, coach, b.ID, told[0].ID, true))
	assert.Equal(t, "Zigzag hop and stick, two feet, 4 a side", does(board(t, p, next.ID), other))

	b, err = p.Boards.PutForm(ctx, coach, first, board(t, p, first).Revision, block, 0, who, "")
	require.NoError(t, err)
	assert.Equal(t, "Single-leg zigzag hop and stick, 5 a side", does(b, who))
	assert.Equal(t, "Single-leg zigzag hop and stick, 4 a side", does(board(t, p, next.ID), who),
		"and the other plan follows")
}

// Who does a drill in its easier form does the one so that it is made one with: here, in their
// squad, and in the next plan.
func TestAFormGoesWithTheDrill(t *testing.T) {
	p := open(t, "with", true)
	b := blank(t, p, 0)
	b, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision,
		"single-leg zigzag hop 5 a side\n\nsingle-leg wobble hop 4 a side", wording.Place{})
	require.NoError(t, err)
	b, err = p.Reach.Publish(ctx, coach, b.ID, b.Revision)
	require.NoError(t, err)
	player := b.Document.Players[2].ID
	_, err = p.Boards.PutForm(ctx, coach, b.ID, b.Revision, b.Document.Blocks[0].ID, 0, player, plan.Easier)
	require.NoError(t, err)
	require.NoError(t, p.Wording.MergeDrill(ctx, coach, "our-single-leg-zigzag-hop", "Single-leg wobble hop"))
	forms := map[string]string{"our-single-leg-wobble-hop": plan.Easier}
	assert.Equal(t, forms, board(t, p, b.ID).Document.Player(player).Forms)
	roster := b.Document.Player(player).Roster
	next := blank(t, p, 0)
	i := slices.IndexFunc(next.Document.Players, func(p plan.Player) bool { return p.Roster == roster })
	assert.Equal(t, forms, next.Document.Players[i].Forms)
}

// What players say of a drill from their phones stands by it in the book, for who plans, and
// without their names.
func TestWhatPlayersSayOfADrillStandsByIt(t *testing.T) {
	p := open(t, "felt", true)
	b, ways := reached(t, p)
	for i, player := range []string{"p15", "p14"} {
		mine, err := p.Reach.Shared(ctx, ways[player])
		require.NoError(t, err)
		block := b.Document.Block("high")
		if !slices.Contains(b.Document.Members(block.Who), player) {
			continue
		}
		require.NoError(t, p.Reach.Tell(ctx, mine, planner.Word{Once: fmt.Sprint(i), Kind: planner.Sore, Says: "calf",
			Block: "high"}))
		require.NoError(t, p.Reach.Tell(ctx, mine, planner.Word{Once: fmt.Sprint("e", i), Kind: planner.Easier,
			Block: "high"}))
	}
	code := b.Document.Block("high").Items[0].Drill.Code
	onDay(p, -60)
	l, err := p.Learn.Log(ctx, 1, b.ID)
	require.NoError(t, err)
	l.Blocks[slices.IndexFunc(l.Blocks, func(b conduct.Logged) bool { return b.Block == "high" })].Actual = 60
	require.NoError(t, p.Learn.KeepLog(ctx, coach, l))
	said, err := p.Learn.FeltOf(ctx, coach, code)
	require.NoError(t, err)
	require.Len(t, said, 2, "%v", said)
	assert.Contains(t, said[0]+said[1], "calf tight, ")
	assert.Contains(t, said[0]+said[1], "easier form was asked for, ")
	said, err = p.Learn.FeltOf(ctx, medical, code)
	require.NoError(t, err)
	assert.Empty(t, said, "who does not plan")
}
