package plan_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/plan"
)

// Whoever is put in is in, whoever is taken out is out, and nobody else comes or goes,
// however the block says who is at it.
func TestPutTouchesNobodyElse(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := &plan.Document{Work: plan.Work{Blocks: []plan.Block{{ID: "b", Name: "Bands"}}}}
		ids := []string{"p1", "p2", "p3", "p4", "p5", "p6"}
		for _, id := range ids {
			d.Players = append(d.Players, plan.Player{ID: id, First: id})
		}
		some := rapid.SliceOfNDistinct(rapid.SampledFrom(ids), 1, 5, rapid.ID)
		d.Units = []plan.Unit{{ID: "u1", Name: "Ones", Players: some.Draw(t, "ones")},
			{ID: "u2", Name: "Twos", Players: some.Draw(t, "twos")}, {ID: "u3", Name: "Nobody yet", Today: true}}
		d.Blocks[0].Who = rapid.SliceOfNDistinct(rapid.SampledFrom(append([]string{plan.Everyone, "u1", "u2"}, ids...)),
			1, 4, rapid.ID).Draw(t, "who")
		before := d.Members(d.Blocks[0].Who)
		who, in := rapid.SampledFrom(append([]string{plan.Everyone, "u1", "u2"}, ids...)).Draw(t, "put"),
			rapid.Bool().Draw(t, "in")
		those := d.Members([]string{who})
		said, err := d.Put("b", []string{who}, in)
		after := d.Members(d.Blocks[0].Who)
		if err != nil {
			assert.ErrorContains(t, err, "Bands needs somebody")
			assert.Equal(t, before, after)
			return
		}
		assert.NotEmpty(t, said)
		for _, p := range ids {
			want := slices.Contains(before, p)
			if slices.Contains(those, p) {
				want = in
			}
			assert.Equal(t, want, slices.Contains(after, p), p)
		}
		assert.LessOrEqual(t, len(d.Blocks[0].Who), len(after), "it is said shortly")
		if len(after) == len(ids) {
			assert.Equal(t, []string{plan.Everyone}, d.Blocks[0].Who)
		}
	})
}

func TestWhoIsSaidByUnits(t *testing.T) {
	d := &plan.Document{
		Party: plan.Party{Players: []plan.Player{{ID: "p1"}, {ID: "p2"}, {ID: "p3"}, {ID: "p4"}},
			Units: []plan.Unit{{ID: "pair", Players: []string{"p1", "p2"}},
				{ID: "three", Players: []string{"p1", "p2", "p3"}}}},
		Work: plan.Work{Blocks: []plan.Block{{ID: "b", Name: "Bands", Who: []string{"p1"}}}},
	}
	for _, step := range []struct {
		who string
		in  bool
		is  []string
	}{{"p2", true, []string{"pair"}}, {"p3", true, []string{"three"}}, {"p4", true, []string{"*"}},
		{"p2", false, []string{"p1", "p3", "p4"}}, {"three", true, []string{"*"}}, {"p4", false, []string{"three"}}} {
		_, err := d.Put("b", []string{step.who}, step.in)
		require.NoError(t, err)
		assert.Equal(t, step.is, d.Blocks[0].Who, step.who)
	}
	for _, who := range []string{"", "nobody", "u9"} {
		_, err := d.Put("b", []string{who}, true)
		assert.Error(t, err, who)
	}
	_, err := d.Put("gone", []string{"p1"}, true)
	assert.ErrorIs(t, err, plan.ErrNoSuchBlock)
	_, err = d.Put("b", []string{plan.Everyone}, false)
	assert.ErrorContains(t, err, "take the block out instead")
}
