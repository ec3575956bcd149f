package plan_test

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/speech"
)

func timed(name string, seconds int) drill.Drill {
	return drill.Drill{Code: name, Name: name, Aim: "Aim", Phases: []drill.Phase{drill.Raise},
		Dose:  drill.Dose{Kind: drill.Time},
		Range: drill.Range{Min: 1, Target: seconds, Max: 600, Step: 1}}
}

// reps is a drill whose dose takes exactly so many seconds.
func reps(seconds float64) drill.Drill {
	k := timed("reps", 1)
	k.Dose = drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 1, RepSeconds: seconds}
	return k
}

func TestBlocksAgreeWithTheKnownAnswers(t *testing.T) {
	text, err := os.ReadFile("testdata/blocks.json")
	require.NoError(t, err)
	var cases []struct {
		Form                       string
		SetUp                      int `json:"setup"`
		Explain                    []int
		Work                       any
		Rounds, Rest, Change       int
		Seconds                    int
		People, Kit, Pieces, Lanes int
		ZoneLanes                  int     `json:"zone_lanes"`
		WorkSeconds                float64 `json:"work_seconds"`
	}
	require.NoError(t, json.Unmarshal(text, &cases))
	for n, c := range cases {
		name := fmt.Sprint(n, " ", c.Form)
		switch c.Form {
		case "sequence", "stations":
			b := plan.Block{SetUp: c.SetUp, Rounds: c.Rounds, RoundRest: c.Rest, Change: c.Change}
			if c.Form == "stations" {
				b.Form = plan.AtStations
			}
			for i, seconds := range c.Work.([]any) {
				b.Items = append(b.Items, plan.Item{Drill: reps(seconds.(float64)), Explain: c.Explain[i]})
			}
			assert.Equal(t, c.Seconds, b.Seconds(slices.Repeat([]int{1}, len(b.Items)),
				drill.Group{People: 8, Lanes: 1}), name)
		case "turns":
			b := plan.Block{Items: []plan.Item{{Drill: reps(c.Work.(float64)), AtOnce: c.Kit}}}
			assert.InDelta(t, c.WorkSeconds, b.Work(0, 1, drill.Group{People: c.People, Lanes: 1}), 0.01, name)
		case "lanes":
			k := drill.Drill{LaneKit: []string{"hurdle"}, PerLane: map[string]int{"hurdle": c.Pieces}}
			assert.Equal(t, c.Lanes,
				k.LanesIn(drill.Group{People: 40, Lanes: c.ZoneLanes, Stock: map[string]int{"hurdle": c.Kit}}), name)
		default:
			t.Fatal(name)
		}
	}
}

func TestHurdlesMakeTheLines(t *testing.T) {
	k := drill.Drill{LaneKit: []string{"hurdle"}, PerLane: map[string]int{"hurdle": 5},
		Dose: drill.Dose{Kind: drill.Travel}}
	class := drill.Group{People: 42, Lanes: 8, Stock: map[string]int{"hurdle": 20}}
	assert.Equal(t, "4 lines of 11", k.Lines(speech.English, class))
	assert.Equal(t, 20, k.LanePieces("hurdle", class))
	assert.Empty(t, k.Lines(speech.English, drill.Group{People: 3, Lanes: 8}), "nobody waits behind another")
}

// class is a plan for so many pupils with one block of three drills.
func class(pupils int) (*plan.Document, *plan.Block) {
	d := document()
	d.Players, d.Units, d.Blocks, d.Kit = nil, nil, d.Blocks[:1], map[string]int{"bike": 3}
	for i := range pupils {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i), Number: i + 1, First: fmt.Sprint("No ", i),
			Position: []string{"Wing", "Back"}[i%2], Level: drill.Grades[i%3]})
	}
	b := &d.Blocks[0]
	b.Items = []plan.Item{{Drill: timed("one", 40)}, {Drill: timed("two", 60)}, {Drill: timed("three", 30)}}
	return d, b
}

func TestGroupsAreMadeAndRotate(t *testing.T) {
	d, b := class(8)
	b.Form = plan.AtStations
	assert.Equal(t, [][]string{{"p0", "p3", "p6"}, {"p1", "p4", "p7"}, {"p2", "p5"}}, d.Teams(b), "counted off")
	b.Split = plan.ByPosition
	assert.Equal(t, [][]string{{"p1", "p3", "p5"}, {"p7", "p0", "p2"}, {"p4", "p6"}}, d.Teams(b), "who plays alike")
	b.Split = plan.ByLevel
	assert.Equal(t, []string{"p0", "p3", "p6"}, d.Teams(b)[0], "the juniors")
	b.Split, b.Groups = plan.ByHand, [][]string{{"p7"}, {"p0", "p1", "p7", "gone"}}
	assert.Equal(t, [][]string{{"p7", "p3", "p5"}, {"p0", "p1", "p6"}, {"p2", "p4"}}, d.Teams(b),
		"as the coach said, the others to the smallest")
	assert.Equal(t, []int{1, 2, 0}, d.Ways(b)["p0"], "the second group begins at the second station")
	require.NoError(t, d.Validate())
}

func TestAChoiceIsSplitByWhatThereIs(t *testing.T) {
	d, b := class(9)
	b.Form = plan.ByChoice
	b.Items[0].Drill.Kit = []string{"bike"}
	b.Choices = plan.Choices{"p8": {0}, "p7": {0}, "p6": {0, 2, 1}, "gone": {1}, "p5": {7}}
	shares := d.Group(b).Shares
	assert.Equal(t, 3, shares[0], "as many as there are bikes")
	assert.Equal(t, 9, shares[0]+shares[1]+shares[2])
	for _, id := range []string{"p6", "p7", "p8"} {
		assert.Equal(t, []int{0}, d.Chosen(b)[id], "what they chose stays")
	}
	assert.Equal(t, 80, b.Seconds(b.Targets(), d.Group(b)), "as long as the longest")
	b.Pick = 2
	assert.Len(t, d.Chosen(b)["p0"], 2)
	assert.Equal(t, 130, b.Seconds(b.Targets(), d.Group(b)), "60 and 40, 10 between, 20 to hand over")
	b.Choices["p0"] = []int{1}
	if _, err := d.SetOut("p0"); assert.NoError(t, err) {
		assert.NotContains(t, d.Blocks[0].Choices, "p0")
	}
}

func TestWhatGoesAlongsideCostsNoTime(t *testing.T) {
	d, b := class(3)
	all := b.Seconds(b.Targets(), d.Group(b))
	b.Items[2].Alongside = true
	assert.Equal(t, all-40, b.Seconds(b.Targets(), d.Group(b)), "neither its 30 s nor the gap before it")
	assert.False(t, b.Alongside(0), "the first has nothing to go alongside")
}

// Whichever way somebody goes through a block: it lasts as long, and they work no longer
// than it.
func TestEveryWayThroughABlockLastsAsLong(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d, b := class(rapid.IntRange(1, 30).Draw(t, "people"))
		b.Form = rapid.SampledFrom(plan.Forms).Draw(t, "form")
		b.Split = rapid.SampledFrom(plan.Splits).Draw(t, "split")
		b.Rounds, b.RoundRest = rapid.IntRange(0, 3).Draw(t, "rounds"), rapid.IntRange(0, 60).Draw(t, "rest")
		b.Pick, b.Change, b.SetUp = rapid.IntRange(0, 4).Draw(t, "pick"), rapid.IntRange(0, 30).Draw(t, "change"),
			rapid.IntRange(0, 90).Draw(t, "set up")
		b.Items[1].Alongside = rapid.Bool().Draw(t, "alongside")
		for i := range b.Items {
			b.Items[i].AtOnce = rapid.IntRange(0, 12).Draw(t, "at once")
		}
		b.Choices = plan.Choices{"p0": rapid.SliceOfN(rapid.IntRange(-1, 4), 0, 3).Draw(t, "chosen")}
		require.NoError(t, d.Validate())
		group, ways := d.Group(b), d.Ways(b)
		sum := func(way []int) (all float64) {
			for _, part := range b.Parts(b.Targets(), group, way) {
				require.GreaterOrEqual(t, part.Seconds, 0.0)
				all += part.Seconds
			}
			return all
		}
		people := 0
		for _, team := range d.Teams(b) {
			people += len(team)
		}
		assert.Equal(t, len(d.Players), people, "nobody is in two groups, nor in none")
		for _, p := range d.Players {
			assert.InDelta(t, sum(nil), sum(ways[p.ID]), 1e-6, p.ID)
		}
	})
}

func TestADayTurnsInOneGo(t *testing.T) {
	d := document()
	d.Turns = plan.Turns{First: "Batting first", Later: "Bowling first"}
	d.Units = append(d.Units, plan.Unit{ID: "r", Name: "Opening bats", Today: true})
	d.Due = []plan.Due{{Who: []string{"r"}, First: -240, Later: 600}}
	bowl := d.Block("b")
	bowl.On, d.Block("c").Who = plan.Later, []string{"r"}
	require.NoError(t, d.Validate())
	assert.Equal(t, []string{"", "only on a day that begins so: Bowling first", "nobody is Opening bats today"},
		[]string{d.Idle(d.Block("a")), d.Idle(bowl), d.Idle(d.Block("c"))})
	said, err := d.SetRole("Opening bats", []string{"p2"})
	assert.NoError(t, err)
	assert.Equal(t, "Opening bats: Bo Ó.", said)
	d.SetTurn(plan.First)
	assert.Equal(t, 60, d.Player("p2").DueShift, "due 4 minutes before the start, a minute after the others")
	assert.Len(t, d.Running().Blocks, 2)
	said, err = d.SetTurn(plan.Later)
	assert.NoError(t, err)
	assert.Equal(t, []any{"Bowling first", 900}, []any{said, d.Player("p2").DueShift})
	assert.Same(t, d, d.Running(), "nothing stays out")
	_, err = d.RemoveRole("r")
	assert.EqualError(t, err, "roles: C is for Opening bats: give the block to somebody else first")
}

func TestWhatIsKnownOfTodayIsQuoted(t *testing.T) {
	d := document()
	_, err := d.SetFacing("Bowler: left-hander, high release\n\nwindy from the far end")
	assert.NoError(t, err)
	assert.Equal(t, "Feed as left-hander, high release; today's keeper waits",
		d.Quote("Feed as {bowler}; {keeper} waits"))
	_, err = d.SetFacing("a: {b}")
	assert.Error(t, err)
	_, err = d.SetBring("first-aid bag: eve\nice\nflags: 3")
	assert.NoError(t, err)
	assert.Equal(t, []plan.Bring{{What: "first-aid bag", Who: "eve"}, {What: "ice"}, {What: "flags", Who: "p3"}},
		d.Bring)
	_, err = d.SetBring("ice: nobody at all")
	assert.ErrorContains(t, err, "nobody of this plan")
	assert.Len(t, d.Bring, 3, "nothing is lost")
}

// What nobody said where to do stands in the roomiest place, or in none where that holds fewer:
// nothing is left out for want of room, and lines are as many as there is room for.
func TestWhatNobodyPlacedIsNotLeftOutForRoom(t *testing.T) {
	d := &plan.Document{
		Site: plan.Site{Zones: []plan.Zone{{ID: "a", Capacity: 4, Lanes: 2}, {ID: "b", Capacity: 16, Lanes: 6}}},
	}
	for i := range 16 {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i)})
	}
	assert.Equal(t, "b", d.UsualZone([]string{plan.Everyone}))
	d.Players = append(d.Players, plan.Player{ID: "one more"})
	assert.Empty(t, d.UsualZone([]string{plan.Everyone}))
	assert.Equal(t, 6, d.Group(&plan.Block{Who: []string{plan.Everyone}}).Lanes)
}
