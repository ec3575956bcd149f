package planner_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/planner"
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
shots 10 from left, middle and right`, []string{"Side shuffles, skips", "Hip circles, spider reach", "Jump and stick, sprints", "Circle work"},
			[]string{"4 lengths of 10 m", "6 each way, a side", "2 × 3 jumps", "at 70, 90, 100 %", "done by 12′"}},
		"Hockey": {`jog 4 widths
open the gate 8 a leg
--- Sport
push passes in pairs 2 min, straight after open the gate
drag flicks 5, 20 to 16`, []string{"Jog", "Open the gate", "Push passes in pairs", "Drag flicks"}, []string{"4 ", "8 a side", "2 min", "straight after Open the gate", "20′ to 16′"}},
		"Handball": {`bike 4 min, 60 %
ankle rocks 8 a side
groin rocks 10
step and save, low left, low right, high left, high right, 4 each
penalties 6, at 15`, []string{"Bike", "Ankle rocks, groin rocks and 1 more", "Penalties"}, []string{"4 min at 60 %", "8 a side", "4", "6 ", "at 15′"}},
		"Class": {`tag in a box 3 min
out with skips, back with side steps, 12 m
Circuit: 2 rounds, 30 s rest
squats 8-10
plank 20 s
hops 6 a leg`, []string{"Tag in a box, line: skips", "Circuit"}, []string{"3 min", "skips", "10 reps", "20 s", "6 a side"}},
	} {
		p := open(t, "list"+strings.ToLower(sport), false)
		coach, _, err := db.Found(ctx, "Hollinmere", sport, "Firsts", "club", store.Account{Email: sport + "@b.example", Name: "A", Role: store.Coach}, "hash")
		require.NoError(t, err, sport)
		added, err := p.Add(ctx, coach, planner.NewSession{Kind: plan.Match, Title: sport, Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, From: planner.FromEmpty, Players: 12})
		require.NoError(t, err, sport)
		b := board(t, p, added.ID)
		b, heard, err := p.Write(ctx, coach, b.ID, b.Revision, c.list, planner.Place{})
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
		next, err := p.Add(ctx, coach, planner.NewSession{Kind: plan.Match, Title: "Next", Start: clock.Start{Local: "2026-12-05T14:00", Zone: "Europe/London"}, From: planner.FromLast, Players: 12})
		require.NoError(t, err, sport)
		again := board(t, p, next.ID)
		assert.Equal(t, names(b), names(again), "%s: the next week", sport)
		for i := range b.Document.Blocks {
			assert.Equal(t, b.Document.HeldWords(&b.Document.Blocks[i]), again.Document.HeldWords(&again.Document.Blocks[i]), sport)
		}
	}
}
