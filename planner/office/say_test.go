package office_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/core/today"
	"cuestart/planner/boards"
	"cuestart/planner/diary"
	"cuestart/planner/office"
	"cuestart/planner/wording"
)

// blank is a session whose plan begins empty, for all or for one player.
func blank(t *testing.T, p *office.Office, alone uint64) *boards.Board {
	added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "Mine",
		Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, From: diary.FromEmpty, Alone: alone})
	require.NoError(t, err)
	return board(t, p, added.ID)
}

// names are the blocks of a board, in the order of the list.
func names(b *boards.Board) (list []string) {
	for _, block := range b.Document.Blocks {
		list = append(list, block.Name)
	}
	return list
}

func TestLinesAreHeardBeforeTheyAreWritten(t *testing.T) {
	p := open(t, "heard", true)
	b := blank(t, p, 0)
	const list = "jog 3 x 120 m\nleg swings 8 a side\n--- Potentiate\nwobble jumps 2 x 5, straight after jog"
	heard, err := p.Wording.Hear(ctx, 1, b.ID, list, wording.Place{})
	require.NoError(t, err)
	assert.Len(t, heard.Lines, 4)
	assert.Len(t, heard.Document.Blocks, 3)
	assert.Empty(t, board(t, p, b.ID).Document.Blocks, "hearing changes nothing")

	b, written, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, list, wording.Place{})
	require.NoError(t, err)
	assert.Equal(t, heard.Lines, written.Lines, "what was shown is what is done")
	assert.Equal(t, []string{"Jog", "Leg swings", "Potentiate"}, names(b))
	assert.Equal(t, "straight after Jog", b.Document.HeldWords(b.Document.Block(b.Document.Blocks[2].ID)))
	bk, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	assert.Zero(t, bk.Own["our-wobble-jumps"].ID, "it is the plan's alone until that is used")

	b, _, err = p.Wording.Write(ctx, coach, b.ID, b.Revision, "wobble jumps 3\nskips 20 m",
		wording.Place{Before: b.Document.Blocks[1].ID})
	require.NoError(t, err)
	assert.Equal(t, "Jog", names(b)[0])
	assert.Equal(t, "Leg swings", names(b)[len(names(b))-2], "the rest stays where it was")

	first := b.Document.Blocks[0].ID
	b, _, err = p.Wording.Write(ctx, coach, b.ID, b.Revision, "heel kicks 2 x 20 m", wording.Place{Into: first})
	require.NoError(t, err)
	assert.Len(t, b.Document.Block(first).Items, 2)
	b, err = p.Boards.Undo(ctx, coach, b.ID, b.Revision)
	require.NoError(t, err)
	assert.Len(t, b.Document.Block(first).Items, 1)
	_, err = p.Reach.Publish(ctx, coach, b.ID, b.Revision)
	require.NoError(t, err)
	bk, err = p.Books.Book(ctx, 1)
	require.NoError(t, err)
	own := bk.Own["our-wobble-jumps"]
	assert.True(t, own.ID != 0 && own.Is.Draft, "published: it is the club's, to be completed")
}

func TestWhatCannotBeWrittenChangesNothing(t *testing.T) {
	p := open(t, "refused", true)
	b := blank(t, p, 0)
	for text, says := range map[string]string{
		"":                                      "write a drill",
		" \n\t\n ":                              "write a drill",
		strings.Repeat("skips\n", say.MaxLines): "put in",
		strings.Repeat("ä", say.MaxLength+1):    "keep a line to",
	} {
		_, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, text, wording.Place{})
		assert.ErrorContains(t, err, says)
	}
	_, err := p.Wording.Hear(ctx, 1, b.ID, strings.Repeat("x\n", say.MaxLines+1), wording.Place{})
	assert.ErrorContains(t, err, "lines at a time")
	_, err = p.Wording.Hear(ctx, 2, b.ID, "skips", wording.Place{})
	assert.Error(t, err, "it is another club's")
	_, _, err = p.Wording.Write(ctx, coach, b.ID, b.Revision+1, "skips 20 m", wording.Place{})
	assert.Error(t, err, "somebody else was faster")
	_, _, err = p.Wording.Write(ctx, coach, b.ID, b.Revision, "frobnicate 8", wording.Place{Into: "gone"})
	assert.Error(t, err)
	now := board(t, p, b.ID)
	assert.Equal(t, b.Revision, now.Revision)
	bk, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	assert.Zero(t, bk.Own["our-frobnicate"].ID, "nor is its drill kept")
}

// The holds and the order that a coach gave are there after whatever comes: another
// start, fewer minutes, a mend of everything that can be mended.
func TestWhatTheCoachOrderedStays(t *testing.T) {
	p := open(t, "stays", true)
	b := blank(t, p, 0)
	b, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, `sprints 3 x 15 m at 70, 80, 90
leg swings 8 a side
kit on 25-22
neck holds 3 x 6 s, before kit on
scrum sets 6, 20 to 14
jog 3 x 60 m, straight after leg swings`, wording.Place{})
	require.NoError(t, err)
	held := func() (list []string) {
		for i := range b.Document.Blocks {
			list = append(list, b.Document.Blocks[i].Name+": "+b.Document.HeldWords(&b.Document.Blocks[i]))
		}
		return list
	}
	want := held()
	assert.Equal(t, []string{"Sprints: before Kit on", "Leg swings: before Kit on", "Neck holds: before Kit on",
		"Scrum sets: 20′ to 14′", "Jog: straight after Leg swings"}, want)
	assert.True(t, b.Schedule.Result.Feasible)
	for _, start := range []string{"2026-11-28T15:05", "2026-11-28T14:40", "2026-11-29T10:00"} {
		b, err = p.Boards.Change(ctx, coach, b.ID, b.Revision, func(d *plan.Document) (string, error) {
			return d.SetStart(clock.Start{Local: start, Zone: "Europe/London"})
		})
		require.NoError(t, err)
		assert.Equal(t, want, held(), start)
	}
	mends := 0
	for i := 0; i < len(b.Findings); i++ {
		f := b.Findings[i]
		if f.Mend == "" || f.Rule == "order" {
			continue
		}
		next, err := p.Boards.Mend(ctx, coach, b.ID, b.Revision, f.Rule, f.Where)
		if err != nil {
			continue
		}
		b, i, mends = next, -1, mends+1
		var left []string // a mend may take a drill out, as it says
		for _, was := range want {
			if name, _, _ := strings.Cut(was, ":"); slices.Contains(names(b), name) {
				left = append(left, was)
			}
		}
		require.Equal(t, left, held(), "mending %s", f.Rule)
		require.Less(t, mends, 30, "mends that never end")
	}
	assert.Positive(t, mends)
}

func TestAHoldsCostIsSaid(t *testing.T) {
	p := open(t, "cost", true)
	b := board(t, p, 1)
	cost, err := p.WhatIf.HoldCost(ctx, b, "bands")
	require.NoError(t, err)
	assert.Empty(t, cost, "it is not held")
	held := ""
	for _, block := range b.Document.Blocks {
		if block.Name == "Bands" || block.Name == "Scrum" {
			held = block.ID
		}
	}
	require.NotEmpty(t, held)
	b, err = p.Boards.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		m := clock.BeforeStart(45 * 60)
		return d.SetHold(held, plan.Holds{At: &m})
	})
	require.NoError(t, err)
	cost, err = p.WhatIf.HoldCost(ctx, b, held)
	require.NoError(t, err)
	assert.Regexp(t, `more waiting each|shorter|no `, cost)
	cost, err = p.WhatIf.HoldCost(ctx, b, "nobody")
	require.NoError(t, err)
	assert.Empty(t, cost)
}

func TestAPlanForOneIsForOne(t *testing.T) {
	p := open(t, "alone", true)
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	who := squad.Players[9]
	b := blank(t, p, who.ID)
	require.Len(t, b.Document.Players, 1)
	assert.Equal(t, who.Is.Last, b.Document.Players[0].Last)
	for _, u := range b.Document.Units {
		assert.Equal(t, []string{b.Document.Players[0].ID}, u.Players, "no units of others")
	}
	for _, f := range b.Document.Fixed {
		assert.NotContains(t, strings.ToLower(f.Name), "talk", "nobody talks to oneself")
	}
	b, heard, err := p.Wording.Write(ctx, coach, b.ID, b.Revision,
		"bike 4 min\nleg swings 8 a leg\nkicks at posts 10\nstrides 3 x 30 m", wording.Place{})
	require.NoError(t, err)
	for _, line := range heard.Lines {
		assert.Empty(t, line.Problem, line.Line.Said)
	}
	assert.True(t, b.Schedule.Result.Feasible)
	for _, f := range b.Findings {
		assert.NotContains(t, f.What, "queue", "nobody waits for oneself: %s", f.What)
	}
	_, err = p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "x",
		Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, From: diary.FromEmpty, Alone: 999})
	assert.Error(t, err, "nobody of that number is in the squad")
}

// What a plan lacks of what a warm-up usually holds goes in with one press.
func TestWhatIsLackingGoesInAtOnce(t *testing.T) {
	p := open(t, "lacking", true)
	b := blank(t, p, 0)
	b, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, "jog 3 x 60 m", wording.Place{})
	require.NoError(t, err)
	lacking := func() (list []check.Principle) {
		for _, one := range b.Principles() {
			if !one.Has {
				list = append(list, one)
			}
		}
		return list
	}
	was := lacking()
	require.NotEmpty(t, was)
	for _, one := range was {
		next, err := p.Boards.AddPrinciple(ctx, coach, b.ID, b.Revision, one.ID)
		if err != nil {
			assert.NotEmpty(t, err.Error(), one.ID)
			continue
		}
		b = next
	}
	assert.Less(t, len(lacking()), len(was))
	_, err = p.Boards.AddPrinciple(ctx, coach, b.ID, b.Revision, "levitation")
	assert.Error(t, err)
	lines := b.Lines()
	assert.NotEmpty(t, lines)
	empty := blank(t, p, 0)
	empty, heard, err := p.Wording.Write(ctx, coach, empty.ID, empty.Revision, strings.Join(lines, "\n"),
		wording.Place{})
	require.NoError(t, err)
	assert.Equal(t, names(b), names(empty), "%+v", heard.Lines)
	assert.Equal(t, lines, empty.Lines(), "what is copied as lines is that plan again")
}

// What a coach writes is what is planned, in frost too; what the cold asks for is an offer, for
// one press, undone with one.
func TestTheColdIsAnOfferForWhatWasWritten(t *testing.T) {
	p := open(t, "offer", true)
	b := blank(t, p, 0)
	b, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision,
		"Warm up:\njog 3 x 60 m\nleg swings 8 a side\npress-ups 8-10", wording.Place{})
	require.NoError(t, err)
	require.Len(t, b.Document.Blocks, 1, "a heading is a block")
	frost := -4.0
	require.NoError(t, does(p.Boards.Change(ctx, coach, b.ID, b.Revision,
		boards.SetDay(plan.Conditions{Celsius: &frost}))))
	as := board(t, p, b.ID)
	written := []string{"Jog: 3 lengths of 60 m, 8 lines of 4", "Leg swings: 8 a side", "Press-ups: 8–10 reps"}
	assert.Equal(t, written, as.Blocks[0].Named())
	assert.Equal(t, "all as written", today.Done(as.Document))
	offers := today.Offers(as.Document)
	require.Len(t, offers, 1)
	assert.Regexp(t, `^Cold, -4 °C: 30\x{a0}% more Raise\? \d drills?, [\d:]+ (min|s) longer$`, offers[0].Says)
	require.NoError(t, does(p.Boards.Change(ctx, coach, b.ID, as.Revision, boards.SetFactors(offers[0].IDs, true))))
	taken := board(t, p, b.ID)
	assert.NotEqual(t, written, taken.Blocks[0].Named())
	assert.Empty(t, today.Offers(taken.Document))
	assert.Contains(t, today.Done(taken.Document), "for cold, -4 °C, by you")
	require.NoError(t, does(p.Boards.Undo(ctx, coach, b.ID, taken.Revision)))
	assert.Equal(t, written, board(t, p, b.ID).Blocks[0].Named())
}

// A list of no session is pasted, takes its title for its name, and is used like any routine.
func TestAListOfNoSession(t *testing.T) {
	p := open(t, "nosession", true)
	id, err := p.Wording.WriteList(ctx, coach, "",
		"Knees at home\n\nbridges 2 x 12\nHarbour wobble 8 a side\nwall sit 40 s x 3")
	require.NoError(t, err)
	r, err := p.Books.Routine(ctx, coach.ClubID, id)
	require.NoError(t, err)
	assert.Equal(t, "Knees at home", r.Is.Name)
	assert.Len(t, r.Is.Blocks[0].Items, 3)
	book, err := p.Books.Book(ctx, coach.ClubID)
	require.NoError(t, err)
	_, known := book.Find(r.Is.Blocks[0].Items[1].Drill.Code)
	assert.True(t, known, "its own drill is the club's")

	var wrong plan.Problems
	_, err = p.Wording.WriteList(ctx, coach, "knees at home", "bridges 12")
	require.ErrorAs(t, err, &wrong, "two of a name")
	_, err = p.Wording.WriteList(ctx, coach, "Nothing", "\n\n")
	require.ErrorAs(t, err, &wrong)
	_, err = p.Wording.WriteList(ctx, coach, "Long", strings.Repeat("a line of far too many\n", 1000))
	require.ErrorAs(t, err, &wrong)
}
