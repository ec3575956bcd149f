package check_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/plan"
)

// handMade are the blocks of a plan in their order, each as it is held.
func handMade(d *plan.Document, of []string) (list []string) {
	for i := range d.Blocks {
		if b := &d.Blocks[i]; slices.Contains(of, b.ID) {
			list = append(list, b.ID+" "+d.HeldWords(b))
		}
	}
	return list
}

// Whatever is wrong with a plan whose blocks a coach moved and held: no mend, and no fit
// for fewer minutes, moves or lets go of any of them; the one mend that is asked to may
// list them by the method.
func TestWhatWasDoneByHandIsLeftAlone(t *testing.T) {
	names := make([]string, 0, len(spoiled))
	for name := range spoiled {
		names = append(names, name)
	}
	slices.Sort(names)
	mended := 0
	rapid.Check(t, func(t *rapid.T) {
		d := sound()
		spoiled[rapid.SampledFrom(names).Draw(t, "wrong")](d)
		ids := []string{"raise", "move", "quick", "play"}
		for range rapid.IntRange(0, 2).Draw(t, "moves") {
			d.Move(rapid.SampledFrom(ids).Draw(t, "block"), rapid.SampledFrom(append(ids, "")).Draw(t, "before"))
		}
		until := clock.BeforeStart(60 * rapid.IntRange(6, 20).Draw(t, "until"))
		d.SetHold(rapid.SampledFrom(ids).Draw(t, "held"),
			rapid.SampledFrom([]plan.Holds{{Hold: plan.Hold{Until: &until}}, {At: &until},
				{Hold: plan.Hold{From: &until}}, {Hold: plan.Hold{Straight: "raise"}}}).Draw(t, "hold"))
		if d.Validate() != nil {
			return
		}
		in := input(t, d)
		for _, f := range check.Check(in) {
			next, _, err := check.Mend(context.Background(), in, f.Rule, f.Where)
			if err != nil {
				continue
			}
			mended++
			var both []string
			for _, id := range ids {
				if next.Block(id) != nil {
					both = append(both, id)
				}
			}
			if f.Rule != "order" {
				assert.Equal(t, handMade(d, both), handMade(next, both), f.Rule)
			}
		}
	})
	require.Greater(t, mended, 50)
}

func TestPrinciplesTellWhatAPlanHolds(t *testing.T) {
	d := sound()
	in := input(t, d)
	in.Sport = "rugby-union"
	missing := func() (list []string) {
		for _, p := range check.Principles(in) {
			if !p.Has {
				list = append(list, p.ID)
			}
		}
		return list
	}
	assert.Equal(t, []string{"landing", "game", "craft"}, missing())
	not := func() map[string]string {
		list := map[string]string{}
		for _, p := range check.Principles(in) {
			if p.Not != "" {
				list[p.ID] = p.Not
				assert.False(t, p.Lacks(), p.ID)
			}
		}
		return list
	}
	assert.Equal(t, "from 20 minutes of work on", not()["game"], "nobody does everything in a quarter of an hour")
	assert.Equal(t, "none in the drill book", not()["craft"])
	in.Document.Today.Wet = true
	assert.Equal(t, "not on wet ground", not()["landing"])
	in.Document.Players = in.Document.Players[:1]
	assert.Equal(t, "it takes two", not()["game"])
	d = sound()
	d.Remove("move")
	d.Remove("quick")
	in = input(t, d)
	assert.Contains(t, missing(), "plane turn")
	said, err := check.AddPrinciple(in, "full")(d)
	require.NoError(t, err)
	assert.Equal(t, "sprint added", said)
	assert.Equal(t, "sprint", d.Blocks[1].Name, "in its place in the method's order")
	_, err = check.AddPrinciple(input(t, d), "craft")(d)
	assert.Error(t, err, "nothing of the book does it")
}
