package office_test

import (
	"fmt"
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

// A coach of any sport puts in the list that they have, in a club that has nothing yet,
// and it stands in that order with those holds; nothing of it is lost, and it is there
// the next week.
func TestAnybodysListIsTheirPlan(t *testing.T) {
	for sport, c := range map[string]struct {
		list   string
		blocks []string // names, in order
		says   []string // doses and holds that are there
	}{
		"Netball": {`Raise
side shuffles 4 x 10 m, then skips 4 x 10 m
# Mobilise
hip circles 6 each way, both legs
spider reach 4 a side
# Potentiate
jump and stick 2 x 3, rest 20 s
sprints 3 x 10 m at 70, 90, 100
Circle work: goal shooters and goal attacks, done by 12
shots 10 from left, middle and right`, []string{"Raise", "Mobilise", "Potentiate", "Circle work"},
			[]string{"4 lengths of 10 m", "6 each way, a side", "2 × 3 jumps", "at 70, 90, 100 %", "done by 12′"}},
		"Hockey": {`jog 4 widths
open the gate 8 a leg
--- Sport
push passes in pairs 2 min, straight after open the gate
drag flicks 5, 20 to 16`, []string{"Jog", "Open the gate", "Sport", "Drag flicks"}, []string{"4 ", "8 a side", "2 min", "straight after Open the gate", "20′ to 16′"}},
		"Handball": {`bike 4 min, 60 %
ankle rocks 8 a side
groin rocks 10
step and save, low left, low right, high left, high right, 4 each
penalties 6, at 15`, []string{"Bike", "Ankle rocks, groin rocks", "Step and save", "Penalties"}, []string{"4 min at 60 %", "8 a side", "4", "6 ", "at 15′"}},
		"Class": {`tag in a box 3 min
out with skips, back with side steps, 12 m
Circuit: 2 rounds, 30 s rest
squats 8-10
plank 20 s
hops 6 a leg`, []string{"Tag in a box, line: skips", "Circuit"}, []string{"3 min", "skips", "10 reps", "20 s", "6 a side"}},
	} {
		p := open(t, "list"+strings.ToLower(sport), false)
		coach, _, err := db.Clubs.Found(ctx, "Hollinmere", sport, "Firsts", "club",
			store.Account{Email: sport + "@b.example", Name: "A", Role: store.Coach}, "hash")
		require.NoError(t, err, sport)
		added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: sport,
			Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, From: diary.FromEmpty, Players: 12})
		require.NoError(t, err, sport)
		b := board(t, p, added.ID)
		b, heard, err := p.Wording.Write(ctx, coach, b.ID, b.Revision, c.list, wording.Place{})
		require.NoError(t, err, sport)
		for _, line := range heard.Lines {
			assert.Empty(t, line.Problem, "%s: %s", sport, line.Line.Said)
			assert.Empty(t, line.Line.Note, "%s: %s", sport, line.Line.Said)
		}
		assert.Equal(t, c.blocks, names(b), sport)
		assert.True(t, b.Schedule.Result.Feasible, "%s: %s", sport, b.Schedule.Result.Why)
		all := ""
		for i := range b.Document.Blocks {
			block := &b.Document.Blocks[i]
			all += "\n" + b.Document.HeldWords(block)
			for _, item := range block.Items {
				all += "\n" + item.Drill.Name + ": " + item.Drill.Words(item.Drill.Range.Target)
			}
		}
		for _, one := range c.says {
			assert.Contains(t, all, one, sport)
		}
		next, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "Next",
			Start: clock.Start{Local: "2026-12-05T14:00", Zone: "Europe/London"}, From: diary.FromLast, Players: 12})
		require.NoError(t, err, sport)
		again := board(t, p, next.ID)
		assert.Equal(t, names(b), names(again), "%s: the next week", sport)
		for i := range b.Document.Blocks {
			assert.Equal(t, b.Document.HeldWords(&b.Document.Blocks[i]),
				again.Document.HeldWords(&again.Document.Blocks[i]), sport)
		}
	}
}

// A plan of the format before, whose phases came in the method's order however they were
// listed, looks as it did; from its first change on the list is its order.
func TestAnEarlierPlanLooksAsItDid(t *testing.T) {
	p := open(t, "earlier", true)
	d := board(t, p, 1).Document.Clone()
	d.Format, d.Title, d.Start.Local = 1, "Earlier", "2026-12-19T15:00"
	d.Blocks = append(d.Blocks[4:], d.Blocks[:4]...)
	for i := range d.Blocks {
		d.Blocks[i].Loose = false
	}
	id, err := p.Diary.AddPlan(ctx, coach, 1, d)
	require.NoError(t, err)
	was := board(t, p, id)
	assert.True(t, was.Schedule.Result.Feasible)
	starts := func(b *boards.Board) map[string]clock.Offset {
		at := map[string]clock.Offset{}
		for _, block := range b.Blocks {
			if block.Kept && block.Phase != drill.Own {
				at[block.Name] = block.Start
			}
		}
		return at
	}
	for _, f := range was.Findings {
		assert.NotEqual(t, "order", f.Rule, "nobody ordered it otherwise: %s", f.What)
	}
	now, err := p.Boards.Change(ctx, coach, id, was.Revision, func(d *plan.Document) (string, error) {
		d.Title = "Earlier, renamed"
		return "renamed", nil
	})
	require.NoError(t, err)
	assert.Equal(t, plan.Format, now.Document.Format)
	assert.True(t, now.Document.InMethodOrder(), "it is listed as it ran")
	assert.Equal(t, starts(was), starts(now))
	back, err := p.Boards.Undo(ctx, coach, id, now.Revision)
	require.NoError(t, err)
	assert.Equal(t, starts(was), starts(back), "and taken back it is as before")
}

// A routine keeps the order and the holds that a plan was given, and a drill that a line
// made is the club's own until it is completed.
func TestWhatWasWrittenIsKept(t *testing.T) {
	p := open(t, "kept", true)
	b := blank(t, p, 0)
	b, _, err := p.Wording.Write(ctx, coach, b.ID, b.Revision,
		"sprints 3 x 15 m, 24 to 20\nwobble walks 2 x 20 m\njog 3 x 60 m, straight after wobble walks\nneck "+
			"holds 3 x 6 s, before line up",
		wording.Place{})
	require.NoError(t, err)
	require.NoError(t, p.Diary.SaveRoutine(ctx, coach, b.ID, diary.Keep{Name: "Ours", For: "anywhere"}))
	kept, err := store.Entries[club.Routine](ctx, db.Clubs, 1)
	require.NoError(t, err)
	kept = slices.DeleteFunc(kept, func(k store.Entry[club.Routine]) bool { return k.Is.Name != "Ours" })
	require.Len(t, kept, 1)
	added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "Again",
		Start: clock.Start{Local: "2026-12-12T15:00", Zone: "Europe/London"}, From: fmt.Sprint(kept[0].ID)})
	require.NoError(t, err)
	again := board(t, p, added.ID)
	assert.Equal(t, names(b), names(again))
	for i := range b.Document.Blocks {
		assert.Equal(t, b.Document.HeldWords(&b.Document.Blocks[i]),
			again.Document.HeldWords(&again.Document.Blocks[i]), b.Document.Blocks[i].Name)
	}

	bk, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	own := bk.Own["our-wobble-walks"]
	require.True(t, own.Is.Draft)
	own.Is.Draft, own.Is.Aim = false, "Feet find the ground"
	_, err = p.Save(ctx, coach, "completed", planner.Change{ID: own.ID, Edition: own.Edition, Is: own.Is})
	require.NoError(t, err)
	again, _, err = p.Wording.Write(ctx, coach, again.ID, again.Revision, "wobble walks 3 x 20 m", wording.Place{})
	require.NoError(t, err)
	var aims []string
	for _, block := range again.Document.Blocks {
		aims = append(aims, block.Items[0].Drill.Aim)
	}
	assert.Contains(t, aims, "Feet find the ground", "the completed one is written from then on")
	bk, err = p.Books.Book(ctx, 1)
	require.NoError(t, err)
	assert.False(t, bk.Own["our-wobble-walks"].Is.Draft)
}
