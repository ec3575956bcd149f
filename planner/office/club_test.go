package office_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/planner/boards"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
	"cuestart/planner/office"
	"cuestart/store"
)

func players(t *testing.T, p *office.Office) map[string]store.Entry[club.Player] {
	kept, err := store.Entries[club.Player](ctx, db.Clubs, 1)
	require.NoError(t, err)
	named := map[string]store.Entry[club.Player]{}
	for _, k := range kept {
		named[k.Is.First] = k
	}
	return named
}

// A list that is read in changes what differs, whatever numbers move, and is
// taken back as one.
func TestAListChangesWhatDiffers(t *testing.T) {
	p := open(t, "list", true)
	before := players(t, p)
	orla, wren := before["Orla"].Is, before["Wren"].Is
	orla.Number, wren.Number = wren.Number, orla.Number // they swap shirts
	wren.Position = "Prop"
	list := []keep.Incoming{{Line: 2, Is: orla}, {Line: 3, Is: wren}, {Line: 4, Is: before["Sunniva"].Is},
		{Line: 5, Is: club.Player{First: "Nova", Last: "Brisk", Number: 60}}}
	differences, clashes, err := keep.Differences[club.Player](ctx, p.Keep, 1, 1, list)
	require.NoError(t, err)
	assert.Empty(t, clashes)
	assert.Equal(t, []string{"number: 2, was 1"}, differences[0].Says)
	assert.Equal(t, []string{"number: 1, was 2", "position: Prop, was Hooker"}, differences[1].Says)
	assert.True(t, differences[2].Same)
	assert.True(t, differences[3].New)
	require.NoError(t, p.Keep.Import(ctx, coach, "a list", differences))
	after := players(t, p)
	assert.Equal(t, 2, after["Orla"].Is.Number)
	assert.Equal(t, wren, after["Wren"].Is)
	assert.Len(t, after, len(before)+1)
	assert.Equal(t, before["Sunniva"].Edition, after["Sunniva"].Edition, "what is the same is left alone")
	assert.ErrorIs(t, p.Keep.Import(ctx, coach, "the same again", differences), store.ErrStale)
	_, err = db.Clubs.TakeBack(ctx, coach)
	require.NoError(t, err)
	again := players(t, p)
	assert.Equal(t, before["Orla"].Is, again["Orla"].Is)
	assert.Len(t, again, len(before))

	_, clashes, err = keep.Differences[club.Player](ctx, p.Keep, 1, 1,
		[]keep.Incoming{{Line: 9, Is: club.Player{First: "Nova", Number: 3}}})
	require.NoError(t, err)
	assert.Equal(t, []keep.Clash{{Line: 9, What: "3 is Sunniva Croake's"}}, clashes)
	assert.NoError(t, p.Keep.Import(ctx, coach, "nothing", nil))
}

func TestWhoLeavesTheSquadLeavesItsUnits(t *testing.T) {
	p := open(t, "leaves", true)
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	juno := players(t, p)["Juno"].ID
	require.Len(t, squad.Units, 2)
	require.NoError(t, p.Keep.RemovePlayer(ctx, coach, squad, juno))
	squad, err = p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	assert.Nil(t, squad.Player(juno))
	for _, u := range squad.Units {
		assert.NotContains(t, u.Is.Players, juno)
	}
	_, err = db.Clubs.TakeBack(ctx, coach)
	require.NoError(t, err)
	squad, err = p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	assert.NotNil(t, squad.Player(juno))
	assert.Contains(t, squad.Units[1].Is.Players, juno)
	assert.ErrorIs(t, p.Keep.RemovePlayer(ctx, coach, squad, 4711), store.ErrNotFound)
	_, err = p.Keep.Squad(ctx, 2, squad.ID)
	assert.ErrorIs(t, err, store.ErrNotFound, "another club's")
}

func TestARoutineRemembersHowItWas(t *testing.T) {
	p := open(t, "routine", true)
	require.NoError(t, p.Diary.SaveRoutine(ctx, coach, 1, diary.Keep{Name: "Match day", For: "home"}))
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 1,
		func(d *plan.Document) (string, error) { return d.SetDose("lineout", 0, 12) })))
	require.NoError(t, p.Diary.SaveRoutine(ctx, coach, 1, diary.Keep{Name: "Match day", For: "home"}))
	kept, err := store.Entries[club.Routine](ctx, db.Clubs, 1)
	require.NoError(t, err)
	kept = slices.DeleteFunc(kept, func(k store.Entry[club.Routine]) bool { return k.Is.Name != "Match day" })
	require.Len(t, kept, 1, "kept in place of the one before")
	assert.Equal(t, []string{"Line-out throws: 12 throws, was 9"}, kept[0].Is.Changed())
	day, err := p.Diary.UsualDay(ctx, 1)
	require.NoError(t, err)
	cost := kept[0].Is.Cost(day)
	assert.Positive(t, cost.Seconds)
	assert.Contains(t, cost.Kit, "ball")
	var wrong plan.Problems
	assert.ErrorAs(t, p.Diary.SaveRoutine(ctx, coach, 1, diary.Keep{Name: " ", For: ""}), &wrong)

	// Used on another day, its blocks stand again, and a place that rotates takes its turn.
	routine := kept[0].Is
	routine.Slots = []club.Slot{{Block: "raise", Item: 1, Pool: []string{"shuffle-and-cross", "back-skips"}}}
	_, err = p.Save(ctx, coach, "slots", store.Change{ID: kept[0].ID, Is: routine})
	require.NoError(t, err)
	added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "Next",
		Start: clock.Start{Local: "2026-12-12T15:00", Zone: "Europe/London"}, From: fmt.Sprint(kept[0].ID)})
	require.NoError(t, err)
	b := board(t, p, added.ID)
	assert.Equal(t, "back-skips", b.Document.Block("raise").Items[1].Drill.Code, "the other was done lately")
	assert.Contains(t, fmt.Sprint(b.Document.Notes), "Skips backwards in its turn")
}

func TestTheDaysFactorsAreSwitchedOneByOne(t *testing.T) {
	p := open(t, "factors", true)
	air := 2.0
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 1,
		boards.SetDay(plan.Conditions{Celsius: &air, HardYesterday: true}))))
	cold := board(t, p, 1)
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 2, boards.SetFactors([]string{"cold-raise"}, false))))
	off := board(t, p, 1)
	assert.Less(t, off.Schedule.Amounts[0][0], cold.Schedule.Amounts[0][0], "the raise is not longer any more")
	assert.Equal(t, cold.Schedule.Amounts[4], off.Schedule.Amounts[4], "the day after a hard day still counts")
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 3, boards.SetFactors([]string{"cold-raise"}, true))))
	assert.Equal(t, cold.Schedule.Amounts, board(t, p, 1).Schedule.Amounts)
}

func TestAPlanFileBecomesASession(t *testing.T) {
	p := open(t, "planfile", true)
	d := board(t, p, 1).Document.Clone()
	d.Title, d.Start.Local = "From a file", "2026-12-19T15:00"
	theirs := d.Clone() // as another club knows them
	theirs.Players[0].Roster, theirs.Players[1].Roster = d.Players[1].Roster, 4711
	id, err := p.Diary.AddPlan(ctx, coach, 1, theirs)
	require.NoError(t, err)
	assert.Equal(t, d, board(t, p, id).Document, "its players are this club's of that name")
	d.Start.Local = "2020-12-19T15:00"
	var wrong plan.Problems
	_, err = p.Diary.AddPlan(ctx, coach, 1, d)
	assert.ErrorAs(t, err, &wrong)
	_, err = p.Diary.AddPlan(ctx, coach, 4711, board(t, p, 1).Document)
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestTheClubsSportIsItsCopy(t *testing.T) {
	p := open(t, "sportcopy", true)
	plays, err := p.Books.Sport(ctx, 1)
	require.NoError(t, err)
	plays.Start = "First kick"
	require.NoError(t, p.Books.SaveSport(ctx, coach, *plays, 0))
	assert.ErrorIs(t, p.Books.SaveSport(ctx, coach, *plays, 9), store.ErrStale)
	plays, err = p.Books.Sport(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, "First kick", plays.Start)
	require.NoError(t, p.Books.ResetSport(ctx, coach))
	require.NoError(t, p.Books.ResetSport(ctx, coach), "it is as it came already")
	plays, err = p.Books.Sport(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, "Kick-off", plays.Start)
}

// A routine keeps what its day holds, and gives it to another day; a unit that was made
// after a plan can be picked in it.
func TestWhatADayHoldsAndWhoIsNewReachThePlan(t *testing.T) {
	p := open(t, "reach", true)
	b := board(t, p, 1)
	b, err := p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		return d.SetFixed(plan.Fixed{Name: "Kit check", Who: []string{plan.Everyone},
			Span: plan.Span{From: clock.BeforeStart(3000), To: clock.BeforeStart(2900)}})
	})
	require.NoError(t, err)
	require.NoError(t, p.Diary.SaveRoutine(ctx, coach, 1, diary.Keep{Name: "With its check", For: ""}))
	routines, err := store.Entries[club.Routine](ctx, db.Clubs, 1)
	require.NoError(t, err)
	added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "Next",
		Start: clock.Start{Local: "2026-12-12T15:00", Zone: "Europe/London"},
		From:  fmt.Sprint(routines[len(routines)-1].ID)})
	require.NoError(t, err)
	next := board(t, p, added.ID)
	i := slices.IndexFunc(next.Document.Fixed, func(f plan.Fixed) bool { return f.Name == "Kit check" })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, plan.Span{From: clock.BeforeStart(3000), To: clock.BeforeStart(2900)}, next.Document.Fixed[i].Span)

	two := []uint64{b.Document.Players[0].Roster, b.Document.Players[4].Roster}
	_, err = p.Save(ctx, coach, "a pair", store.Change{Owner: 1, Is: club.Unit{Name: "New pair", Players: two}})
	require.NoError(t, err)
	pair := func() *plan.Unit {
		units, err := p.Boards.Units(ctx, 1, b.Document)
		require.NoError(t, err)
		for i := range units {
			if units[i].Name == "New pair" {
				return &units[i]
			}
		}
		return nil
	}
	made := pair()
	require.NotNil(t, made)
	assert.Equal(t, []string{b.Document.Players[0].ID, b.Document.Players[4].ID}, made.Players)
	b, err = p.Boards.ChangeFor(ctx, coach, 1, b.Revision, made.ID, func(d *plan.Document) (string, error) {
		return d.SetBlock("lineout", plan.BlockFields{Name: "Line-out", Who: []string{made.ID}})
	})
	require.NoError(t, err)
	assert.Equal(t, "New pair", b.Document.Audience(b.Document.Block("lineout").Who))
	assert.Nil(t, pair(), "the plan knows it now")

	// The same as last time: today's place, people and leaders.
	again, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "Again",
		Start: clock.Start{Local: "2026-12-19T15:00", Zone: "Europe/London"}, From: diary.FromLast, Place: "Elsewhere"})
	require.NoError(t, err)
	same := board(t, p, again.ID)
	assert.Equal(t, "Elsewhere", same.Document.Place)
	assert.Empty(t, same.Document.Exceptions)
	for _, block := range same.Document.Blocks {
		assert.True(t, len(same.Document.Members(block.Who)) > 0 ||
			same.Document.Idle(&block) == "nobody is Bench today", block.Name)
		assert.True(t, block.Zone == "" || same.Document.Zone(block.Zone) != nil, block.Name)
		assert.True(t, block.Leader == "" || same.Document.Leader(block.Leader) != nil, block.Name)
	}
}
