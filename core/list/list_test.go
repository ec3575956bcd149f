package list_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
)

// jog, swings and throws are drills of different kinds.
var (
	jog = drill.Drill{Code: "jog", Name: "Jog", Aim: "Legs get warm", Phases: []drill.Phase{drill.Raise}, Effort: 0.5,
		Unit: "lengths", Kit: []string{"bottle"},
		Dose:  drill.Dose{Kind: drill.Travel, Metres: 20, Speed: 4, Flow: drill.Continuous},
		Range: drill.Range{Min: 4, Target: 4, Max: 8, Step: 2}}
	swings = drill.Drill{Code: "swings", Name: "Leg swings", Aim: "Hips open", Phases: []drill.Phase{drill.Mobilise},
		Effort: 0.4, Cues: []string{"Tall"},
		Dose:  drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 2, RepSeconds: 1.5},
		Range: drill.Range{Min: 8, Target: 8, Max: 8, Step: 1}}
	throws = drill.Drill{Code: "throws", Name: "Throws", Aim: "Arms get ready", Phases: []drill.Phase{drill.Sport},
		Effort: 0.6, Unit: "throws", Overhead: true, Kit: []string{"ball"}, LaneKit: []string{"cone"},
		Dose: drill.Dose{Kind: drill.Count, ActSeconds: 6}, Range: drill.Range{Min: 4, Target: 10, Max: 10, Step: 1}}
	rolls = drill.Drill{Code: "rolls", Name: "Ball rolls", Aim: "Arms move", Phases: []drill.Phase{drill.Sport},
		Effort: 0.3, Unit: "rolls",
		Dose: drill.Dose{Kind: drill.Count, ActSeconds: 6}, Range: drill.Range{Min: 6, Target: 6, Max: 6, Step: 1}}
)

// evening is a training of four: all jog, two swing and two throw, led by Ida, and a talk
// for all.
func evening() *plan.Document {
	return &plan.Document{
		Format: plan.Format,
		Title:  "Training",
		Kind:   plan.Training,
		Party: plan.Party{Players: []plan.Player{{ID: "p1", Number: 1, First: "Ada"},
			{ID: "p2", Number: 2, First: "Bo"},
			{ID: "p3", Number: 3, First: "Cy"}, {ID: "p4", Number: 4, First: "Di"}},
			Leaders: []plan.Leader{{ID: "ida", Name: "Ida"}, {ID: "jon", Name: "Jon"}}},
		Site: plan.Site{Zones: []plan.Zone{{ID: "z1", Name: "Hall", Capacity: 20, Lanes: 4},
			{ID: "z2", Name: "Yard", Capacity: 20, Lanes: 4}}},
		Hours: plan.Hours{StartName: "Start", Start: clock.Start{Local: "2026-11-28T19:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(2400), Margin: 120},
		Work: plan.Work{Fixed: []plan.Fixed{{ID: "talk", Name: "Team talk", Who: []string{plan.Everyone},
			Span: plan.Span{From: clock.BeforeStart(2300), To: clock.BeforeStart(2000)}}}, Method: plan.DefaultMethod,
			Blocks: []plan.Block{
				{ID: "all", Name: "Jog", Aim: "Warm", Phase: drill.Raise, Who: []string{plan.Everyone}, Zone: "z1",
					Priority: plan.Must, Items: []plan.Item{{Drill: jog, Explain: 20}}},
				{ID: "hips", Name: "Hips", Aim: "Open", Phase: drill.Mobilise, Who: []string{"p1", "p2"}, Zone: "z1",
					Priority: plan.Must, Rounds: 2, RoundRest: 30, Items: []plan.Item{{Drill: swings}, {Drill: jog}}},
				{ID: "arms", Name: "Arms", Aim: "Throw", Phase: drill.Sport, Who: []string{"p3", "p4"}, Zone: "z2",
					Leader: "ida", Priority: plan.Must, Items: []plan.Item{{Drill: throws, Easier: &rolls}}},
			}},
	}
}

func fitted(t require.TestingT, d *plan.Document) *schedule.Schedule {
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	require.True(t, s.Result.Feasible, s.Result.Why)
	return s
}

func names(entries []list.Entry) string {
	var all []string
	for _, e := range entries {
		all = append(all, e.Name)
	}
	return strings.Join(all, ", ")
}

func ExampleOf() {
	d := evening()
	s, _ := schedule.Fit(context.Background(), d, 0)
	for _, e := range list.Of(d, s, "p3") {
		fmt.Println(e.From.ToGo(), e.Name)
	}
	// Output:
	// 38′20″ Team talk
	// 5′40″ Jog
	// 3′20″ Arms
}

func TestEverybodyHasTheirOwnList(t *testing.T) {
	d := evening()
	s := fitted(t, d)
	assert.Equal(t, "Team talk, Jog, Hips", names(list.Of(d, s, "p1")))
	assert.Equal(t, "Team talk, Jog, Arms", names(list.Of(d, s, "p4")))
	assert.Equal(t, "Team talk, Arms", names(list.Led(d, s, "ida")))
	assert.Equal(t, "Team talk", names(list.Led(d, s, "jon")))
	assert.Equal(t, 4, len(list.All(d, s)))
	assert.Empty(t, list.Of(d, s, "nobody"))
	arms := list.Of(d, s, "p3")[2]
	assert.Equal(t, []string{"p4"}, arms.With, "with whom, where that is not everybody")
	assert.Nil(t, list.Of(d, s, "p3")[1].With)
	assert.Equal(t, []string{"ball", "cone"}, arms.Kit())
	assert.Equal(t, []string{"bottle", "ball"}, list.Carry(list.Of(d, s, "p3")),
		"what is theirs alone, not what stands in a lane")
	assert.Nil(t, list.Of(d, s, "p3")[0].Steps(), "an event has no steps")
}

// What medical staff rule is in the list of that player alone.
func TestARulingIsInOnesOwnListAlone(t *testing.T) {
	d := evening()
	s := fitted(t, d)
	d.Restrictions = []plan.Restriction{{Player: "p3", NoOverhead: true}}
	mine := list.Of(d, s, "p3")[2].Drills[0]
	assert.Equal(t, "Ball rolls", mine.Drill.Name)
	assert.Equal(t, "Throws", mine.Instead)
	assert.Equal(t, 6, mine.Amount)
	assert.Equal(t, "Throws", list.Of(d, s, "p4")[2].Drills[0].Drill.Name)
	assert.Equal(t, "Throws", list.Led(d, s, "ida")[1].Drills[0].Drill.Name, "a leader leads what is planned")
	d.Blocks[2].Items[0].Easier = nil
	out := list.Of(d, s, "p3")[2]
	assert.True(t, out.Drills[0].Out)
	assert.Empty(t, out.Steps())
	assert.NotContains(t, list.Carry(list.Of(d, s, "p3")), "ball")
}

func TestABlockIsSteppedRoundByRound(t *testing.T) {
	d := evening()
	hips := list.Of(d, fitted(t, d), "p1")[2]
	var told []string
	for _, s := range hips.Steps() {
		told = append(told, fmt.Sprintf("%d/%d %s %d %v", s.Round, s.Rounds, hips.Drills[s.Doing].Drill.Name, s.Amount,
			s.Ways))
	}
	require.Len(t, told, 12)
	assert.Equal(t, []string{"1/2 Leg swings 8 [left]", "1/2 Leg swings 8 [right]", "1/2 Jog 20 []"}, told[:3])
	assert.Equal(t, "2/2 Leg swings 8 [left]", told[6])
	alone := list.Alone(d.Blocks)
	assert.Equal(t, "Jog, Hips, Arms", names(alone), "a routine has no day")
	assert.Equal(t, alone[0].To, alone[1].From)
	assert.NotEmpty(t, alone[1].Steps())
}

// Steps lie within their block, in the order of time, and begin after what is explained.
func TestStepsLieInTheirBlock(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := plan.Block{ID: "b", Name: "B", Rounds: rapid.IntRange(0, 4).Draw(t, "rounds"),
			RoundRest: rapid.IntRange(0, 60).Draw(t, "rest"), SetUp: rapid.IntRange(0, 60).Draw(t, "set-up")}
		for range rapid.IntRange(1, 4).Draw(t, "drills") {
			b.Items = append(b.Items,
				plan.Item{Drill: rapid.SampledFrom([]drill.Drill{jog, swings, throws, rolls}).Draw(t, "drill"),
					Explain: rapid.IntRange(0, 30).Draw(t, "explain")})
		}
		e := list.Alone([]plan.Block{b})[0]
		at := b.SetUp + b.Items[0].Explain
		for _, s := range e.Steps() {
			assert.GreaterOrEqual(t, s.From, at-1)
			assert.GreaterOrEqual(t, s.To, s.From)
			at = s.To
		}
		assert.LessOrEqual(t, at, e.Seconds())
	})
}

func dated(d *plan.Document, s *schedule.Schedule, player string) list.Dated {
	return list.Dated{StartName: d.StartName, Start: s.Start, Entries: list.Of(d, s, player),
		Place: func(e *list.Entry) string {
			if e.Block == nil {
				return ""
			}
			return d.ZoneName(e.Block.Zone)
		},
		Leader: func(e *list.Entry) string {
			if e.Block == nil {
				return ""
			}
			return d.LeaderName(e.Block.Leader)
		}}
}

// What changed is said to each as it is for them.
func TestWhatChangedIsSaidToEach(t *testing.T) {
	was := evening()
	before := fitted(t, was)
	for name, c := range map[string]struct {
		edit   func(*plan.Document)
		p1, p3 []string
	}{
		"nothing": {edit: func(*plan.Document) {}},
		"a dose": {edit: func(d *plan.Document) {
			d.Blocks[2].Items[0].Drill.Range.Target = 8
			d.Blocks[2].Items[0].Drill.Range.Max = 8
		}, p3: []string{"8 throws (2 fewer)"}},
		"a place":  {edit: func(d *plan.Document) { d.Blocks[2].Zone = "z1" }, p3: []string{"Arms now at: Hall"}},
		"a leader": {edit: func(d *plan.Document) { d.Blocks[2].Leader = "jon" }, p3: []string{"now led by Jon"}},
		"a drill more": {edit: func(d *plan.Document) {
			d.Blocks[2].Items = append(d.Blocks[2].Items,
				plan.Item{Drill: rolls})
		}, p3: []string{"with Ball rolls"}},
		"another": {edit: func(d *plan.Document) { d.Blocks[2].Items[0].Drill = rolls },
			p3: []string{"with Ball rolls", "without Throws"}},
		"out": {edit: func(d *plan.Document) { d.Blocks = d.Blocks[:2] }, p3: []string{"Arms is out"}},
		"new": {edit: func(d *plan.Document) {
			more := d.Blocks[2]
			more.ID, more.Name = "more", "More arms"
			d.Blocks = append(d.Blocks, more)
		}, p3: []string{"New: More arms at "}},
		"the start": {edit: func(d *plan.Document) { d.Start.Local = "2026-11-28T19:30" },
			p1: []string{"Start now 19:30"}, p3: []string{"Start now 19:30"}},
		"an event": {edit: func(d *plan.Document) { d.Fixed[0].Span.From = clock.BeforeStart(2360) },
			p1: []string{"Team talk now at 39′20″"}, p3: []string{"Team talk now at 39′20″"}},
	} {
		is := evening()
		c.edit(is)
		after := fitted(t, is)
		for player, want := range map[string][]string{"p1": c.p1, "p3": c.p3} {
			said := list.Changes(speech.English, dated(was, before, player), dated(is, after, player))
			if len(want) == 0 {
				assert.Empty(t, said, "%s for %s", name, player)
			}
			for _, one := range want {
				assert.Contains(t, strings.Join(said, ". "), one, "%s for %s", name, player)
			}
		}
	}
}

func TestManyChangesAreCounted(t *testing.T) {
	var before, after list.Dated
	for n := range 10 {
		after.Entries = append(after.Entries, list.Entry{Key: fmt.Sprint(n), Name: fmt.Sprint("Block ", n),
			From: clock.Offset(-600 + n), To: -500})
	}
	before.Start, after.Start = time.Unix(0, 0), time.Unix(0, 0)
	said := list.Changes(speech.English, before, after)
	assert.Len(t, said, 7)
	assert.Equal(t, "and 4 more changes", said[6])
}
