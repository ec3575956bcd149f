package verdict_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/odds"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
	"cuestart/core/verdict"
	"cuestart/demo"
)

func TestTheVerdictNamesWhatWasCut(t *testing.T) {
	d := &plan.Document{Hours: plan.Hours{Margin: 300}}
	for i := 1; i <= 3; i++ {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i), Number: i, First: fmt.Sprint("Name", i),
			Last: "Z"})
	}
	d.Blocks = []plan.Block{{ID: "a", Name: "Raise", Phase: drill.Raise}, {ID: "b", Name: "Bands"},
		{ID: "c", Name: "Sprints", Phase: drill.Potentiate}}
	s := &schedule.Schedule{Amounts: make([][]int, 3), Result: &runin.Result{Feasible: true, Blocks: []runin.Scheduled{
		{ID: "a", Kept: true, Start: -1500, End: -900, Missed: []runin.Missed{{Player: "p2", Seconds: 90}}},
		{ID: "b", Why: "a should"},
		{ID: "c", Kept: true, Start: -900, End: -300, Why: "2 sprints, not 4: 1:00 shorter"}}}}
	v := verdict.Of(d, s, nil)
	assert.True(t, v.Holds)
	assert.Equal(t, "Fits, without Bands.", v.Head)
	assert.Equal(t, "1 shortened, 1 left out", v.Line)
	assert.Equal(t, []verdict.Less{{What: "Left out: Bands", Why: "a should"},
		{What: "Shorter: Sprints", Why: "2 sprints, not 4: 1:00 shorter"},
		{What: "Name2 Z. is elsewhere for 1:30 min of Raise", Why: "the others carry on"}}, v.Cuts)
	s.Result.Blocks[1] = runin.Scheduled{ID: "b", Kept: true, Start: -950, End: -900}
	s.Result.Blocks[2].Why = ""
	assert.Equal(t, "all in full, from 25′ to 5′ to go", verdict.Of(d, s, nil).Line)
	warn, stop := check.Finding{Severity: check.Warn}, check.Finding{Severity: check.Stop}
	assert.Equal(t, "It fits, but look at 2 things.",
		verdict.Of(d, s, []check.Finding{warn, warn, {Severity: check.Warn, Reason: "kept"},
			{Severity: check.Note}}).Head)
	v = verdict.Of(d, s, []check.Finding{warn, stop})
	assert.Equal(t, "Don't run this yet: 1 thing to put right.", v.Head)
	assert.False(t, v.Holds)
	start := time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)
	assert.Empty(t, v.Late(start, start.Add(-26*time.Minute), "Kick-off"))
	assert.Equal(t, "Work was to begin 5 min ago, at 14:35.", v.Late(start, start.Add(-20*time.Minute), "Kick-off"))
	assert.Equal(t, "Kick-off was 3 hours ago.", v.Late(start, start.Add(3*time.Hour), "Kick-off"))
	s.Result.Feasible, s.Result.ShortBy, s.Result.Why, s.Result.Binds = false, 120, "the musts take 9:00",
		[]string{"p1", "p2"}
	v = verdict.Of(d, s, nil)
	assert.False(t, v.Holds)
	assert.Equal(t, "Start 2 min sooner, or drop a must. The musts take 9:00. Tightest for 1 2 Name1, Name2", v.Line)
	empty := &schedule.Schedule{Result: &runin.Result{Feasible: true}}
	assert.Equal(t, "Nothing is planned yet.", verdict.Of(&plan.Document{}, empty, nil).Head)
}

// evening is a training of three players: a jog for all, hops for two of them, a
// talk before, and one who comes late.
func evening() *plan.Document {
	jog := drill.Drill{Code: "jog", Name: "Jog", Aim: "Pulse up", Phases: []drill.Phase{drill.Raise}, Effort: 0.5,
		Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 120, Target: 240, Max: 300, Step: 30}}
	hops := drill.Drill{Code: "hops", Name: "Hops", Aim: "Springy feet", Phases: []drill.Phase{drill.Potentiate},
		Effort: 0.9, Unit: "hops", ContactsPerUnit: 2,
		Dose: drill.Dose{Kind: drill.Count, ActSeconds: 15}, Range: drill.Range{Min: 2, Target: 4, Max: 6, Step: 1}}
	return &plan.Document{
		Format: plan.Format,
		Title:  "Thursday",
		Kind:   plan.Training,
		Party: plan.Party{Players: []plan.Player{{ID: "p1", Roster: 11, First: "Ada", Last: "Moss"},
			{ID: "p2", Roster: 12, First: "Bo", Last: "Lind"}, {ID: "p3", First: "Cy", Late: 120}},
			Units:        []plan.Unit{{ID: "u", Name: "Pair", Players: []string{"p1", "p2"}}},
			Restrictions: []plan.Restriction{{Player: "p2", MaxMinutes: 20}}},
		Site: plan.Site{Place: "Tidegate"},
		Hours: plan.Hours{StartName: "Start", Start: clock.Start{Local: "2026-11-26T18:50", Zone: "Europe/London"},
			Open: clock.BeforeStart(1200), Margin: 120},
		Work: plan.Work{Fixed: []plan.Fixed{{ID: "talk", Name: "Talk", Who: []string{plan.Everyone},
			Span: plan.Span{From: clock.BeforeStart(1100), To: clock.BeforeStart(1000)}, Active: true}},
			Method: plan.DefaultMethod, Blocks: []plan.Block{
				{ID: "jog", Name: "Jog", Phase: drill.Raise, Who: []string{plan.Everyone}, Priority: plan.Must,
					Excusable: true, Items: []plan.Item{{Drill: jog}}},
				{ID: "hops", Name: "Hops", Phase: drill.Potentiate, Who: []string{"u"}, Priority: plan.Could,
					Items: []plan.Item{{Drill: hops}}},
			}},
	}
}

func fitted(t testing.TB, d *plan.Document) *schedule.Schedule {
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	return s
}

func TestADigestSaysWhatAListShows(t *testing.T) {
	d := evening()
	s := fitted(t, d)
	is := verdict.DigestOf(d, s)
	assert.Equal(t, []any{"Thursday", "Start", "Tidegate", verdict.DigestVersion, s.Start,
		verdict.Of(d, s, check.Check(check.Input{Document: d, Schedule: s}))},
		[]any{is.Title, is.StartName, is.Place, is.Version, is.Start, is.Verdict})
	assert.Equal(t, 3, is.Heads())
	assert.Equal(t, []uint64{11}, is.Roster, "the club's, whom nothing is ruled for")
	people := is.People()
	assert.Equal(t, d.Restrictions, people.Restrictions)
	assert.Equal(t, d.Start, people.Start)
	assert.Equal(t, []plan.Player{{ID: "p2", Roster: 12, First: "Bo", Last: "Lind"}, {ID: "p3", First: "Cy"}},
		people.Players[:2], "who is ruled for, and whom the club does not know")
	assert.EqualValues(t, 11, people.Players[2].Roster)
	assert.Equal(t, []string{"Jog/jog", "Hops/hops"}, d.Content())
}

// A verdict begins with what matters: a plan that does not hold, then what it
// does without.
func TestAVerdictNamesWhatWasCut(t *testing.T) {
	d := evening()
	d.Fixed = nil
	whole := verdict.Of(d, fitted(t, d), nil)
	assert.True(t, whole.Holds)
	assert.Empty(t, whole.Cuts)
	d.Open = clock.BeforeStart(420)
	short := verdict.Of(d, fitted(t, d), nil)
	assert.True(t, short.Holds, short.Head)
	require.NotEmpty(t, short.Cuts)
	for _, c := range short.Cuts {
		assert.NotEmpty(t, c.What)
		assert.NotEmpty(t, c.Why)
	}
	d.Open = clock.BeforeStart(180)
	none := verdict.Of(d, fitted(t, d), nil)
	assert.False(t, none.Holds)
	assert.NotEqual(t, whole.Head, none.Head)
}

// A plan whose blocks are as long as planned on a day in two is said so, with what would
// help; slack that is planned does.
func TestHowItWillGoOnTheDay(t *testing.T) {
	d := demo.HomeMatch(time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC))
	odd := func() (odds.Odds, verdict.Likely) {
		s, err := schedule.Fit(context.Background(), d, 3000)
		require.NoError(t, err)
		day := s.Day(d, nil)
		assert.Len(t, day.Due, len(d.Players))
		o := odds.Of(day)
		return o, verdict.LikelyOf(d, o)
	}
	tight, says := odd()
	assert.Less(t, tight.Holds, 0.93)
	assert.Regexp(t, `^Runs late about .+ days? in .+\.$`, says.Head)
	assert.Contains(t, says.Line, d.Block(says.Block).Name+" is what makes it late. Finish ")
	assert.Equal(t, tight.Earlier, says.Wants)
	said, err := d.SetSlack(says.Wants)
	require.NoError(t, err)
	assert.Contains(t, said, "of slack")
	eased, says := odd()
	assert.GreaterOrEqual(t, eased.Holds, 0.93)
	assert.Greater(t, eased.Holds, tight.Holds)
	if eased.Earlier == 0 {
		assert.Equal(t, "Hardly ever late.", says.Head)
		assert.Contains(t, says.Line, "to spare")
	}
	_, err = d.SetSlack(plan.MostSlack + 1)
	assert.Error(t, err)
	d.Slack = -1
	assert.Error(t, d.Validate())
	assert.Empty(t, verdict.LikelyOf(d, odds.Of(odds.Day{})).Head, "of nothing nothing is said")
	for share, head := range map[float64]string{0.01: "Runs late nearly every day.",
		0.44:  "Runs late about three days in five.",
		0.949: "Runs late about one day in ten."} {
		assert.Equal(t, head, verdict.LikelyOf(d, odds.Odds{Holds: share, Earlier: 60}).Head)
	}
}
