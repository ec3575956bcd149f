package compose_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/check"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/sport"
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
	b.Roles = []plan.Unit{{Name: "New-ball bowlers", Players: []string{"p4", "p10"}},
		{Name: "Twelfth", Players: []string{"p14"}}}
	for turn, name := range map[plan.Turn]string{plan.First: "New ball: line and length",
		plan.Later: "Openers: today's new ball"} {
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

// What a club says that every warm-up must have is in what is composed for it, where there is time.
func TestAClubsPrinciplesAreComposed(t *testing.T) {
	plays := *known(t, "football")
	plays.Principles = []sport.Principle{{Words: "three hip openers"}, {Words: "core"},
		{Words: "a game", Kind: plan.Training}, {Words: "power with a stuck landing", Kind: plan.Match}}
	core, err := check.ReadPrinciple("core")
	require.NoError(t, err)
	trunk := func(k placed) bool { return core.Is(&k.Drill) }
	require.False(t, slices.ContainsFunc(drillsOf(composed(t, brief(known(t, "football"), 18))), trunk),
		"nobody asked for it")
	for kind, more := range map[plan.Kind]string{plan.Match: "power with a stuck landing", plan.Training: "a game"} {
		b := brief(&plays, 18)
		b.Kind, b.Minutes = kind, 55
		made := composed(t, b)
		has := map[string]bool{}
		for _, p := range check.Principles(check.Input{Document: made.Document, Schedule: made.Schedule, Book: b.Book,
			Sport: plays.Key, Own: plays.PrinciplesOf(kind)}) {
			has[p.Name] = p.Has
		}
		assert.Equal(t, map[string]bool{"three hip openers": true, "core": true, more: true}, has, kind)
	}
}
