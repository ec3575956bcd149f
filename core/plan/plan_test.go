package plan_test

import (
	"fmt"
	"strings"
	"testing"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

func throws() drill.Drill {
	return drill.Drill{Code: "throws", Name: "Throws", Aim: "Aim", Phases: []drill.Phase{drill.Sport}, Unit: "throws",
		Effort: 0.6,
		Dose:   drill.Dose{Kind: drill.Count, ActSeconds: 10}, Range: drill.Range{Min: 2, Target: 4, Max: 6, Step: 1}}
}

func document() *plan.Document {
	block := func(id string, phase drill.Phase, who string) plan.Block {
		return plan.Block{ID: id, Name: strings.ToUpper(id), Phase: phase, Who: []string{who}, Zone: "pitch",
			Priority: plan.Should, Items: []plan.Item{{Drill: throws()}}}
	}
	return &plan.Document{
		Format: plan.Format,
		Title:  "A v B",
		Kind:   plan.Match,
		Party: plan.Party{Players: []plan.Player{{ID: "p1", Number: 1, First: "Ada", Last: "Moss"},
			{ID: "p2", First: "Bo", Last: "Óskar"}, {ID: "p3", Number: 3, First: "Cy"}},
			Units:   []plan.Unit{{ID: "u", Name: "Pair", Players: []string{"p3", "p1", "gone"}}},
			Leaders: []plan.Leader{{ID: "eve", Name: "Eve"}}},
		Site: plan.Site{Zones: []plan.Zone{{ID: "pitch", Name: "Pitch", Capacity: 5, Lanes: 2}}},
		Hours: plan.Hours{StartName: "Throw-in", Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(2400), Margin: 300},
		Work: plan.Work{Fixed: []plan.Fixed{{ID: "talk", Name: "Talk", Who: []string{plan.Everyone},
			Span: plan.Span{From: clock.BeforeStart(3000), To: clock.BeforeStart(2500)}}}, Method: plan.DefaultMethod,
			Blocks: []plan.Block{block("a", drill.Sport, plan.Everyone), block("b", drill.Sport, "u"),
				block("c", drill.Own, "p2")}},
	}
}

func ExampleBlock_Seconds() {
	b := plan.Block{SetUp: 15, Items: []plan.Item{{Drill: throws()}, {Drill: throws(), Explain: 30}}}
	// 15 set-up, 4 × 10 and 30 + 2 × 10 of work, 10 between, 20 to hand over.
	fmt.Println(b.Seconds([]int{4, 2}, drill.Group{People: 1, Lanes: 1}))
	// Output: 135
}

func TestMembersAreTheDocumentsInItsOrderAndOnce(t *testing.T) {
	d := document()
	assert.Equal(t, []string{"p1", "p3"}, d.Members([]string{"u", "p1"}))
	assert.Equal(t, []string{"p1", "p2", "p3"}, d.Members([]string{"p2", plan.Everyone}))
	assert.Empty(t, d.Members([]string{"nobody"}))
	assert.Equal(t, []string{"Ada M.", "Bo Ó.", "Cy"}, []string{d.Players[0].ShortName(), d.Players[1].ShortName(),
		d.Players[2].ShortName()})
	assert.Equal(t, drill.Group{People: 2, Lanes: 2}, d.Group(d.Block("b")))
	d.Block("b").Stations = 1
	assert.Equal(t, 1, d.Group(d.Block("b")).Lanes)
}

func TestValidateNamesThePlace(t *testing.T) {
	require.NoError(t, document().Validate())
	for where, spoil := range map[string]func(*plan.Document){
		"title":             func(d *plan.Document) { d.Title = strings.Repeat("x", 81) },
		"kind":              func(d *plan.Document) { d.Kind = "friendly" },
		"method":            func(d *plan.Document) { d.Method = "mine" },
		"margin":            func(d *plan.Document) { d.Margin = -1 },
		"start":             func(d *plan.Document) { d.Open = clock.BeforeStart(60) },
		"open":              func(d *plan.Document) { d.Open = clock.AtClock("noon") },
		"players":           func(d *plan.Document) { d.Players = nil },
		"players.p3":        func(d *plan.Document) { d.Players[2].DueShift = 99999 },
		"zones.pitch":       func(d *plan.Document) { d.Zones[0].Lanes = 0 },
		"fixed.talk":        func(d *plan.Document) { d.Fixed[0].Span.To = clock.BeforeStart(3000) },
		"blocks":            func(d *plan.Document) { d.Blocks[1].ID = "a" },
		"blocks.b.name":     func(d *plan.Document) { d.Blocks[1].Name = "two\nlines" },
		"blocks.b.phase":    func(d *plan.Document) { d.Blocks[1].Phase = "stretch" },
		"blocks.b.who":      func(d *plan.Document) { d.Blocks[1].Who = []string{"gone"} },
		"blocks.b.zones":    func(d *plan.Document) { d.Blocks[1].Zone = "eve" },
		"blocks.b.hold":     func(d *plan.Document) { d.Blocks[1].After = []string{"b"} },
		"blocks.b.items":    func(d *plan.Document) { d.Blocks[1].Items = nil },
		"blocks.b.set_up":   func(d *plan.Document) { d.Blocks[1].SetUp = -5 },
		"blocks.b.items.0":  func(d *plan.Document) { d.Blocks[1].Items[0].Drill.Dose.ActSeconds = 0 },
		"blocks.b.priority": func(d *plan.Document) { d.Blocks[1].Priority = "maybe" },
	} {
		d := document()
		spoil(d)
		var problems plan.Problems
		require.ErrorAs(t, d.Validate(), &problems, where)
		assert.NotEmpty(t, problems.At(where), "%s: %v", where, problems)
	}
}

func TestEditsSayWhatTheyDidOrLeaveThePlanAlone(t *testing.T) {
	d := document()
	for want, edit := range map[string]func() (string, error){
		"Throws: 6 throws":     func() (string, error) { return d.SetDose("a", 0, 6) },
		"A is a must":          func() (string, error) { return d.SetPriority("a", plan.Must) },
		"done 8:30 min before": func() (string, error) { return d.SetMargin(510) },
		"Throw-in at 15:20, Sat 28 Nov": func() (string, error) {
			return d.SetStart(clock.Start{Local: "2026-11-28T15:20", Zone: "Europe/London"})
		},
	} {
		said, err := edit()
		require.NoError(t, err)
		assert.Equal(t, want, said)
	}
	said, err := d.Step("a", 1)
	require.NoError(t, err)
	assert.Equal(t, "A after B", said)
	assert.Equal(t, []string{"b", "a", "c"}, order(d))
	_, err = d.Step("b", -1) // it is the first
	assert.Error(t, err)

	before := d.Clone()
	for name, edit := range map[string]func() (string, error){
		"too many":      func() (string, error) { return d.SetDose("a", 0, 7) },
		"no such item":  func() (string, error) { return d.SetDose("a", 3, 4) },
		"no such block": func() (string, error) { return d.Remove("z") },
		"no priority":   func() (string, error) { return d.SetPriority("a", "urgent") },
		"nobody":        func() (string, error) { return d.Add(throws(), drill.Sport, []string{"gone"}, plan.Must) },
		"a skipped start": func() (string, error) {
			return d.SetStart(clock.Start{Local: "2027-03-28T01:30", Zone: "Europe/London"})
		},
	} {
		_, err := edit()
		assert.Error(t, err, name)
		assert.Equal(t, before, d, name)
	}

	d.Block("c").After = []string{"a"}
	_, err = d.Remove("a")
	require.NoError(t, err)
	assert.Empty(t, d.Block("c").After, "links to it went with it")
	said, err = d.Add(throws(), drill.Sport, []string{plan.Everyone}, plan.Could)
	require.NoError(t, err)
	assert.Equal(t, "Throws added", said)
	assert.Equal(t, "b", d.Blocks[0].ID)
	assert.True(t, d.Blocks[2].Excusable, "the squad goes on without those called away")
	require.NoError(t, d.Validate())
}

func order(d *plan.Document) (ids []string) {
	for _, b := range d.Blocks {
		ids = append(ids, b.ID)
	}
	return ids
}

// Every school is told in the phases of RAMP, each phase once, and says why one
// would choose it.
func TestMethodsAreWhole(t *testing.T) {
	assert.Len(t, plan.Methods, 5)
	for key, m := range plan.Methods {
		assert.NotEmpty(t, m.Name, key)
		assert.NotEmpty(t, m.Why, key)
		assert.ElementsMatch(t, []drill.Phase{drill.Raise, drill.Activate, drill.Mobilise, drill.Potentiate,
			drill.Sport}, m.Phases, key)
		assert.Equal(t, drill.Sport, m.Phases[len(m.Phases)-1], "%s ends with the sport", key)
		for phase := range m.Steps {
			assert.Contains(t, m.Phases, phase, key)
		}
		d := document()
		d.Method = key
		assert.NoError(t, d.Validate(), key)
	}
}
