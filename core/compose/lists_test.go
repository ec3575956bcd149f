package compose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// What is put into a list with one press is sound by the list's own rules, in every sport.
func TestUsualListsAreSoundInEverySport(t *testing.T) {
	for _, s := range book.Sports() {
		b := brief(&s, 12)
		d, _, err := compose.Day(b)
		require.NoError(t, err)
		for _, when := range plan.Whens {
			blocks, err := compose.Usual(b, when)
			require.NoError(t, err)
			require.NotEmpty(t, blocks, "%s: %s", s.Key, when)
			for _, block := range blocks {
				_, err := d.InsertInto(when, block)
				require.NoError(t, err)
			}
		}
		require.NoError(t, d.Validate(), s.Key)
		for _, line := range schedule.Lists(d) {
			assert.Empty(t, line.Findings(), "%s: %s", s.Key, line.When)
			if line.When == plan.AfterEnd {
				static := 0
				for i := range line.Document.Blocks {
					for _, item := range line.Document.Blocks[i].Items {
						if item.Drill.Static {
							static++
						}
					}
				}
				assert.Positive(t, static, "%s: something is held", s.Key)
			}
		}
	}
}

// Roles of the day come into the plan, the sport's and others; what hangs on one that nobody
// has waits, and what is for the other way to begin does too.
func TestRolesAndTheWayADayBeginsReachThePlan(t *testing.T) {
	cricket, _ := book.Sport("cricket")
	b := brief(&cricket, 14)
	b.Captain = "p3"
	b.Roles = []plan.Unit{{Name: "New-ball bowlers", Players: []string{"p4", "p10"}}, {Name: "Twelfth", Players: []string{"p14"}}}
	for turn, name := range map[plan.Turn]string{plan.First: "New ball: line and length", plan.Later: "Openers: today's new ball"} {
		b.Turn = turn
		made := composed(t, b)
		d := made.Document
		var roles []string
		for _, r := range d.Roles() {
			roles = append(roles, r.Name)
		}
		assert.Subset(t, roles, []string{plan.Captain, "New-ball bowlers", "Openers of the day", "Twelfth"})
		for i := range d.Blocks {
			block := &d.Blocks[i]
			if block.On != plan.Usual && block.On != turn {
				assert.Contains(t, d.Idle(block), "only on a day that begins so")
				assert.False(t, made.Schedule.Result.Blocks[i].Kept)
			}
			if block.Name == name && turn == plan.Later {
				assert.Equal(t, "nobody is Openers of the day today", d.Idle(block))
			}
		}
	}
}
