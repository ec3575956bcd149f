package plan_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Whatever a coach does in whatever order: an edit is refused and changes
// nothing, or leaves a plan that holds.
func TestEveryEditIsWholeOrRefused(t *testing.T) {
	blocks := rapid.SampledFrom([]string{"a", "b", "c", "b4", "b5", "gone"})
	players := rapid.SampledFrom([]string{"p1", "p2", "p3", "gone"})
	who := rapid.SampledFrom([][]string{{plan.Everyone}, {"u"}, {"p1"}, {"p2", "p3"}, {"gone"}, nil})
	names := rapid.SampledFrom([]string{"Fine", "", "two\nlines"})
	moments := rapid.SampledFrom([]clock.Moment{clock.BeforeStart(1200), clock.BeforeStart(600), clock.AtClock("14:30"),
		clock.AtClock("soon")})
	hops := throws()
	hops.Code, hops.Phases = "hops", []drill.Phase{drill.Potentiate, drill.Own}
	rapid.Check(t, func(t *rapid.T) {
		d := document()
		for range rapid.IntRange(1, 25).Draw(t, "edits") {
			before, err := json.Marshal(d)
			require.NoError(t, err)
			known := rapid.SampledFrom([]drill.Drill{throws(), hops}).Draw(t, "drill")
			said := ""
			block, item, player := blocks.Draw(t, "at"), rapid.IntRange(-1, 2).Draw(t, "which"),
				players.Draw(t, "whose")
			switch rapid.IntRange(0, 27).Draw(t, "edit") {
			case 25:
				said, err = d.SetExact(block, item, rapid.Bool().Draw(t, "exact"))
			case 26:
				said, err = d.SetZone(block, rapid.SampledFrom([]string{"pitch", "gone"}).Draw(t, "zone"))
			case 27:
				said, err = d.ShiftFixed(rapid.SampledFrom([]string{"talk", "gone"}).Draw(t, "event"),
					rapid.IntRange(-900, 900).Draw(t, "from by"), rapid.IntRange(-900, 900).Draw(t, "to by"))
			case 13:
				said, err = d.SetForm(block,
					plan.FormFields{Form: rapid.SampledFrom(append(plan.Forms, "heap")).Draw(t, "form"),
						Rounds: rapid.IntRange(-1, 21).Draw(t, "rounds"),
						Change: rapid.IntRange(0, 700).Draw(t, "change"), Pick: rapid.IntRange(-1, 3).Draw(t, "pick"),
						Split: rapid.SampledFrom(plan.Splits).Draw(t, "split")})
			case 14:
				said, err = d.SetChoice(block, player, rapid.SampledFrom([][]int{nil, {0}, {1}, {7}}).Draw(t, "chosen"))
			case 15:
				said, err = d.SetGroup(block, player, item)
			case 16:
				said, err = d.SetAlongside(block, item, rapid.Bool().Draw(t, "beside"))
			case 17:
				said, err = d.SetAtOnce(block, item, rapid.IntRange(-1, 200).Draw(t, "at once"))
			case 18:
				said, err = d.SetSides(block, item, rapid.IntRange(-1, 3).Draw(t, "sides"))
			case 19:
				said, err = d.SetTurn(rapid.SampledFrom([]plan.Turn{plan.Usual, plan.First, plan.Later,
					"never"}).Draw(t, "turn"))
			case 20:
				said, err = d.SetOn(block, rapid.SampledFrom([]plan.Turn{plan.Usual, plan.Later, "never"}).Draw(t,
					"on"))
			case 21:
				said, err = d.SetRole(rapid.SampledFrom([]string{"Starter", "Pair", plan.Bench, ""}).Draw(t, "role"),
					rapid.SampledFrom([][]string{nil, {"p1"}, {"gone"}}).Draw(t, "has it"))
			case 22:
				said, err = d.RemoveRole(rapid.SampledFrom([]string{"role-1", "u", "gone"}).Draw(t, "role"))
			case 23:
				var id string
				if id, err = d.InsertInto(rapid.SampledFrom([]plan.When{plan.AfterEnd, plan.AtBreak, "never"}).Draw(t,
					"when"), d.Blocks[0].Clone()); err == nil {
					said = id
				}
			case 24:
				said, err = d.SetList(rapid.SampledFrom([]string{"after-1", "break-1"}).Draw(t, "list"),
					plan.ListFields{Name: names.Draw(t, "name"), Line: "Whistle",
						Length: rapid.IntRange(-1, 9000).Draw(t, "length"),
						Margin: rapid.IntRange(0, 600).Draw(t, "margin")})

			case 0:
				said, err = d.SetBlock(blocks.Draw(t, "block"),
					plan.BlockFields{Name: names.Draw(t, "name"), Who: who.Draw(t, "who"),
						Zone:     rapid.SampledFrom([]string{"", "pitch", "moon"}).Draw(t, "zone"),
						Leader:   rapid.SampledFrom([]string{"", "eve", "moon"}).Draw(t, "leader"),
						Stations: rapid.IntRange(-1, 101).Draw(t, "stations")})
			case 1:
				said, err = d.AddItem(blocks.Draw(t, "block"), plan.Item{Drill: known})
			case 2:
				said, err = d.RemoveItem(blocks.Draw(t, "block"), rapid.IntRange(-1, 3).Draw(t, "item"))
			case 3:
				said, err = d.SetFixed(plan.Fixed{ID: rapid.SampledFrom([]string{"", "talk", "gone"}).Draw(t, "id"),
					Name: names.Draw(t, "name"), Who: who.Draw(t, "who"),
					Span: plan.Span{From: moments.Draw(t, "from"), To: moments.Draw(t, "to")}})
			case 4:
				said, err = d.RemoveFixed(rapid.SampledFrom([]string{"talk", "fixed-2", "gone"}).Draw(t, "id"))
			case 5:
				said, err = d.SetLate(players.Draw(t, "player"), rapid.IntRange(-1, 90_000).Draw(t, "late"))
			case 6:
				said, err = d.SetOut(players.Draw(t, "player"))
			case 7:
				said, err = d.Add(known, rapid.SampledFrom([]drill.Phase{drill.Sport, drill.Own, drill.Raise}).Draw(t,
					"phase"), who.Draw(t, "who"), rapid.SampledFrom([]plan.Priority{plan.Must, "maybe"}).Draw(t,
					"priority"))
			case 8:
				said, err = d.Remove(blocks.Draw(t, "block"))
			case 9:
				said, err = d.Step(blocks.Draw(t, "block"), rapid.SampledFrom([]int{-1, 1}).Draw(t, "by"))
			case 10:
				said, err = d.SetDose(blocks.Draw(t, "block"), rapid.IntRange(-1, 2).Draw(t, "item"),
					rapid.IntRange(0, 9).Draw(t, "amount"))
			case 12:
				said, err = d.SetHead(plan.HeadFields{Title: names.Draw(t, "name"), Place: "Tidegate",
					StartName: names.Draw(t, "start name"),
					Method:    rapid.SampledFrom([]string{"ramp", "countdown", "mine"}).Draw(t, "method"),
					Open:      moments.Draw(t, "open")})
			case 11:
				said, err = d.SetPriority(blocks.Draw(t, "block"),
					rapid.SampledFrom([]plan.Priority{plan.Could, "maybe"}).Draw(t, "priority"))
			}
			if err != nil {
				after, _ := json.Marshal(d)
				assert.JSONEq(t, string(before), string(after), "refused with %v", err)
				continue
			}
			assert.NotEmpty(t, said)
			require.NoError(t, d.Validate(), "after %q", said)
		}
	})
}

func TestWhoIsOutLeavesNothingBehind(t *testing.T) {
	d := document()
	d.Restrictions = []plan.Restriction{{Player: "p2", NoJumps: true}}
	d.Fixed = append(d.Fixed, plan.Fixed{ID: "toss", Name: "Toss", Who: []string{"p2"},
		Span: plan.Span{From: clock.BeforeStart(900), To: clock.BeforeStart(800)}})
	said, err := d.SetOut("p2")
	require.NoError(t, err)
	assert.Equal(t, "Bo Ó. is out; C too", said)
	assert.Equal(t, []string{"C: nobody for it today"}, d.Notes)
	text, err := json.Marshal(d)
	require.NoError(t, err)
	assert.NotContains(t, string(text), `"p2"`)
	assert.Nil(t, d.Block("c"), "a block of their own goes with them")
	_, err = d.SetOut("p1")
	require.NoError(t, err)
	_, err = d.SetOut("p3")
	assert.ErrorContains(t, err, "nobody would be left")
}

func TestABlockForEverybodyGoesOnWithoutSome(t *testing.T) {
	d := document()
	_, err := d.SetBlock("b", plan.BlockFields{Name: "All", Who: []string{plan.Everyone}})
	require.NoError(t, err)
	assert.True(t, d.Block("b").Excusable)
	_, err = d.SetBlock("b", plan.BlockFields{Name: "Pair", Who: []string{"u"}})
	require.NoError(t, err)
	assert.False(t, d.Block("b").Excusable, "a unit's block is not")
}

func TestWhatIsToldAtADrillIsSaidAThingEach(t *testing.T) {
	d := &plan.Document{Work: plan.Work{Blocks: []plan.Block{{ID: "a", Items: []plan.Item{{Drill: throws()}}}}}}
	for text, cues := range map[string][]string{" tall ;; no bounce\n": {"tall", "no bounce"}, " ; ": nil,
		"élan": {"élan"}} {
		said, err := d.Block("a").Tell(0, text)
		require.NoError(t, err)
		assert.Contains(t, said, throws().Name)
		assert.Equal(t, cues, d.Blocks[0].Items[0].Drill.Cues)
	}
	kept := d.Blocks[0].Items[0].Drill.Cues
	for _, much := range []string{"1;2;3;4;5;6;7", strings.Repeat("é", plan.MaxTold+1)} {
		_, err := d.Block("a").Tell(0, much)
		assert.ErrorContains(t, err, "tell them at most 6 things")
	}
	for _, at := range []struct {
		block string
		item  int
	}{{"b", 0}, {"a", 1}, {"a", -1}} {
		_, err := d.Block(at.block).Tell(at.item, "tall")
		assert.ErrorIs(t, err, plan.ErrNoSuchBlock)
	}
	assert.Equal(t, kept, d.Blocks[0].Items[0].Drill.Cues)
}
