package compose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/compose"
	"cuestart/core/drill"
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

// A late-comer's own list takes 3 to 8 minutes, begins with a pulse and ends with rising
// sprints, in every sport and at every level.
func TestACatchUpIsShortAndWhole(t *testing.T) {
	for _, s := range book.Sports() {
		for _, grade := range drill.Grades {
			b := brief(&s, 8)
			b.Grade, b.Players[3].Late = grade, 1800
			made, found := compose.CatchUp(b, "p4")
			require.True(t, found, s.Key)
			seconds := made.Seconds(made.Targets(), drill.Group{People: 1, Lanes: 1})
			assert.True(t, seconds >= 180 && seconds <= 480, "%s, %s: %d s", s.Key, grade, seconds)
			assert.Equal(t, "late-pulse", made.Items[0].Drill.Code)
			assert.Equal(t, "late-sprints", made.Items[len(made.Items)-1].Drill.Code)
			assert.Empty(t, made.Leader+made.Zone, "it takes nothing from others")
		}
	}
	b := brief(&book.Sports()[0], 3)
	_, found := compose.CatchUp(b, "gone")
	assert.False(t, found)
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
