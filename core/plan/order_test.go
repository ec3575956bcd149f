package plan_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// listed are the ids of the blocks, in their order.
func listed(d *plan.Document) (ids []string) {
	for _, b := range d.Blocks {
		ids = append(ids, b.ID)
	}
	return ids
}

// ordered is a plan with a block of each phase, for one player or all.
func ordered() *plan.Document {
	d := document()
	d.Blocks = nil
	for _, one := range []struct {
		id    string
		phase drill.Phase
		who   string
	}{{"run", drill.Raise, plan.Everyone}, {"band", drill.Activate, "p1"}, {"reach", drill.Mobilise, "p2"},
		{"hop", drill.Potentiate, plan.Everyone}, {"throw", drill.Sport, "u"}} {
		d.Blocks = append(d.Blocks, plan.Block{ID: one.id, Name: one.id, Phase: one.phase, Who: []string{one.who},
			Zone: "pitch", Priority: plan.Should, Items: []plan.Item{{Drill: throws()}}})
	}
	return d
}

func TestABlockGoesWhereTheCoachPutsIt(t *testing.T) {
	for name, c := range map[string]struct {
		block, before string
		want          []string
		says          string
	}{
		"across phases": {block: "throw", before: "run", want: []string{"throw", "run", "band", "reach", "hop"},
			says: "throw before run"},
		"later": {block: "run", before: "throw", want: []string{"band", "reach", "hop", "run", "throw"},
			says: "run before throw"},
		"last": {block: "band", before: "", want: []string{"run", "reach", "hop", "throw", "band"},
			says: "band last"},
		"where it stands": {block: "band", before: "reach", want: []string{"run", "band", "reach", "hop", "throw"},
			says: "band before reach"},
	} {
		d := ordered()
		d.Block(c.block).Loose = true
		says, err := d.Move(c.block, c.before)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, listed(d), name)
		assert.Equal(t, c.says, says, name)
		assert.False(t, d.Block(c.block).Loose, "%s: it is firm from then on", name)
	}
	d := ordered()
	for _, wrong := range [][2]string{{"nobody", ""}, {"run", "nobody"}, {"run", "run"}} {
		_, err := d.Move(wrong[0], wrong[1])
		assert.Error(t, err, "%v", wrong)
	}
	assert.Equal(t, listed(ordered()), listed(d), "refused: nothing moved")
}

// However often blocks are moved, none is lost or doubled, each stands where it was put
// last, and the others keep the order that they had.
func TestMovesTouchNothingElse(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := ordered()
		for range rapid.IntRange(1, 8).Draw(t, "moves") {
			was := listed(d)
			block, before := rapid.SampledFrom(was).Draw(t, "block"),
				rapid.SampledFrom(append(slices.Clone(was), "")).Draw(t, "before")
			if block == before {
				continue
			}
			_, err := d.Move(block, before)
			require.NoError(t, err)
			now := listed(d)
			i := slices.Index(now, block)
			if before == "" {
				require.Equal(t, len(now)-1, i)
			} else {
				require.Equal(t, before, now[i+1])
			}
			without := func(ids []string) []string {
				return slices.DeleteFunc(slices.Clone(ids), func(id string) bool { return id == block })
			}
			require.Equal(t, without(was), without(now))
		}
	})
}

func TestAStepPassesWhomItSharesAPlayerWith(t *testing.T) {
	d := ordered()
	says, err := d.Step("throw", -1)
	require.NoError(t, err)
	assert.Equal(t, "throw before hop", says)
	assert.Equal(t, []string{"run", "band", "reach", "throw", "hop"}, listed(d))
	_, err = d.Step("throw", -1) // reach is for a player of no part in it
	require.NoError(t, err)
	assert.Equal(t, []string{"run", "throw", "band", "reach", "hop"}, listed(d))
	says, err = d.Step("throw", 1)
	require.NoError(t, err)
	assert.Equal(t, "throw after band", says)
	assert.Equal(t, []string{"run", "band", "throw", "reach", "hop"}, listed(d), "and back")
	_, err = d.Step("run", -1)
	assert.ErrorContains(t, err, "run has nothing before it")
	_, err = d.Step("hop", 1)
	assert.ErrorContains(t, err, "hop has nothing after it")
	_, err = d.Step("nobody", 1)
	assert.ErrorIs(t, err, plan.ErrNoSuchBlock)

	d.Blocks[1].Phase, d.Blocks[1].Loose = drill.Own, true
	assert.Equal(t, "run", d.Neighbour(2, -1).ID, "own time that lies anywhere is passed over")
	d.Blocks[1].Loose = false
	assert.Equal(t, "band", d.Neighbour(2, -1).ID)
}

func TestTheMethodsOrderIsAskedFor(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := ordered()
		d.Blocks = rapid.Permutation(d.Blocks).Draw(t, "listed")
		was := d.Clone()
		assert.Equal(t, slices.Equal(listed(d), listed(ordered())), d.InMethodOrder())
		d.Relist()
		assert.Equal(t, listed(ordered()), listed(d))
		assert.True(t, d.InMethodOrder())

		old := was.Clone()
		old.Format = 1
		old.Upgrade()
		assert.Equal(t, listed(ordered()), listed(old), "until format 2 the method said the order")
		assert.Equal(t, plan.Format, old.Format)
		was.Upgrade()
		assert.NotEqual(t, 1, was.Format)
		moved := listed(was)
		was.Upgrade()
		assert.Equal(t, moved, listed(was), "what is of this format stays as it is listed")
	})
	d := document()
	d.Format, d.Blocks[2].After = 1, []string{"b"}
	d.Upgrade()
	assert.Equal(t, []string{"a", "b", "c"}, listed(d), "own time goes with what it follows")
	assert.True(t, d.Block("c").Loose)
	assert.False(t, d.Block("a").Loose)
}

func minutes(n int) *clock.Moment {
	m := clock.BeforeStart(60 * n)
	return &m
}

func TestAHoldIsSaidAndLimits(t *testing.T) {
	at := func(n int) *clock.Offset {
		o := clock.Offset(-60 * n)
		return &o
	}
	half := clock.Moment{Clock: "14:38"}
	for words, c := range map[string]struct {
		hold plan.Holds
		from *clock.Offset
		to   *clock.Offset
	}{
		"at 26′": {plan.Holds{At: minutes(26)}, nil, nil},
		"26′ to 18′": {plan.Holds{Hold: plan.Hold{From: minutes(26), Until: minutes(18)}}, at(26),
			at(18)},
		"not before 14:38":             {plan.Holds{Hold: plan.Hold{From: &half}}, at(22), nil},
		"done by 20′":                  {plan.Holds{Hold: plan.Hold{Until: minutes(20)}}, nil, at(20)},
		"done by 20′, before Kit on":   {plan.Holds{Hold: plan.Hold{Until: minutes(20), Before: "kit"}}, nil, at(25)},
		"after Kit on":                 {plan.Holds{Hold: plan.Hold{After: "kit"}}, at(23), nil},
		"not before 20′, after Kit on": {plan.Holds{Hold: plan.Hold{From: minutes(20), After: "kit"}}, at(20), nil},
		"after run, straight after hop": {plan.Holds{Hold: plan.Hold{Straight: "hop"}, Follows: []string{"run"}}, nil,
			nil},
	} {
		d := ordered()
		d.Fixed = append(d.Fixed, plan.Fixed{ID: "kit", Name: "Kit on", Who: []string{plan.Everyone},
			Span: plan.Span{From: *minutes(25), To: *minutes(23)}})
		says, err := d.SetHold("throw", c.hold)
		require.NoError(t, err, words)
		assert.Equal(t, "throw is held "+words, says)
		b := d.Block("throw")
		assert.True(t, b.Held() || len(b.After) > 0)
		assert.Equal(t, c.hold.At != nil || c.hold.From != nil && c.hold.Until != nil, b.Timed(), words)
		start, err := d.Start.Resolve()
		require.NoError(t, err)
		window, err := d.Window(b, start)
		require.NoError(t, err)
		assert.Equal(t, [2]*clock.Offset{c.from, c.to}, window, words)
		require.NoError(t, d.Validate(), words)

		says, err = d.SetHold("throw", plan.Holds{})
		require.NoError(t, err)
		assert.Equal(t, "throw may move", says)
		assert.Empty(t, d.HeldWords(d.Block("throw")))
	}
}

// A hold that can never be kept is refused in words, and what held before still does.
func TestAHoldThatCannotBe(t *testing.T) {
	for says, to := range map[string]plan.Holds{
		"60′ lies outside the work, which runs from 40′ to 5′": {At: minutes(60)},
		"5′ lies outside the work":                             {At: minutes(5)},
		"not before 18′ and done by 26′ leaves no time between": {Hold: plan.Hold{From: minutes(18),
			Until: minutes(26)}},
		"not before 20′ and done by 20′ leaves no time between": {Hold: plan.Hold{From: minutes(20),
			Until: minutes(20)}},
		"that lies outside the work, which runs from 40′ to 5′": {Hold: plan.Hold{Until: minutes(45)}},
		"that lies outside": {Hold: plan.Hold{From: minutes(4)}},
		"at 30′ contradicts the rest of it": {At: minutes(30),
			Hold: plan.Hold{Until: minutes(35)}},
		"that is not among what the day holds":                     {Hold: plan.Hold{Before: "fireworks"}},
		"a block cannot follow itself":                             {Hold: plan.Hold{Straight: "throw"}},
		"hop already comes after throw: both cannot come first":    {Hold: plan.Hold{Straight: "hop"}},
		"the block that it should follow is no longer in the plan": {Follows: []string{"gone"}},
		`"25:70" is not a time of day`:                             {At: &clock.Moment{Clock: "25:70"}},
		"run already comes after throw: both cannot come first":    {Follows: []string{"reach"}},
	} {
		d := ordered()
		_, err := d.SetHold("hop", plan.Holds{Hold: plan.Hold{Straight: "throw"}})
		require.NoError(t, err)
		_, err = d.SetHold("run", plan.Holds{Follows: []string{"throw"}})
		require.NoError(t, err)
		_, err = d.SetHold("reach", plan.Holds{Follows: []string{"run"}})
		require.NoError(t, err)
		d.SetHold("throw", plan.Holds{At: minutes(30)})
		was := d.Clone()
		_, err = d.SetHold("throw", to)
		assert.ErrorContains(t, err, says)
		assert.Equal(t, was, d, "%s: nothing changed", says)
	}
	d := ordered()
	_, err := d.SetHold("nobody", plan.Holds{})
	assert.ErrorIs(t, err, plan.ErrNoSuchBlock)
}

// What a block is held by may go; the block stays.
func TestWhatIsGoneHoldsNothing(t *testing.T) {
	d := ordered()
	for block, to := range map[string]plan.Holds{"hop": {Hold: plan.Hold{Straight: "run", Before: "talk"}},
		"reach": {Hold: plan.Hold{After: "talk"}, Follows: []string{"run", "band"}}} {
		b := d.Block(block)
		b.Hold, b.After = to.Hold, to.Follows
	}
	_, err := d.Remove("run")
	require.NoError(t, err)
	assert.Empty(t, d.Block("hop").Hold.Straight)
	assert.Equal(t, []string{"band"}, d.Block("reach").After)
	d.Fixed = nil
	d.Unlink()
	assert.Equal(t, plan.Hold{}, d.Block("hop").Hold)
	assert.Equal(t, plan.Hold{}, d.Block("reach").Hold)
	assert.Equal(t, []string{"band", "reach", "hop", "throw"}, listed(d))
	require.NoError(t, d.Validate())
}

func TestANewBlockStandsWithItsPhase(t *testing.T) {
	d := ordered()
	for phase, place := range map[drill.Phase]int{drill.Own: 0, drill.Raise: 1, drill.Activate: 2, drill.Mobilise: 3,
		drill.Potentiate: 4, drill.Sport: 5} {
		assert.Equal(t, place, d.PlaceFor(phase), "%v", phase)
	}
	d.Move("run", "")
	assert.Equal(t, 5, d.PlaceFor(drill.Activate), "after the last of it or of an earlier one, wherever that was put")
	d.Blocks = nil
	assert.Equal(t, 0, d.PlaceFor(drill.Sport))
}

// Drills of a block are moved, taken elsewhere and put beside others.
func TestDrillsMoveInTheirBlock(t *testing.T) {
	d := ordered()
	b := d.Block("hop")
	for _, name := range []string{"Two", "Three"} {
		k := throws()
		k.Code, k.Name = name, name
		b.Items = append(b.Items, plan.Item{Drill: k})
	}
	names := func() (list []string) {
		for _, i := range d.Block("hop").Items {
			list = append(list, i.Drill.Name)
		}
		return list
	}
	says, err := d.MoveItem("hop", 0, 1)
	require.NoError(t, err)
	assert.Equal(t, []string{"Two", "Throws", "Three"}, names())
	assert.NotEmpty(t, says)
	_, err = d.MoveItem("hop", 2, -1)
	require.NoError(t, err)
	assert.Equal(t, []string{"Two", "Three", "Throws"}, names())
	for _, wrong := range []struct {
		block    string
		item, by int
	}{{"nobody", 0, 1}, {"hop", 3, -1}, {"hop", -1, 1}} {
		_, err := d.MoveItem(wrong.block, wrong.item, wrong.by)
		assert.Error(t, err, "%+v", wrong)
	}
	d.MoveItem("hop", 0, -1)
	d.MoveItem("hop", 2, 1)
	assert.Equal(t, []string{"Two", "Three", "Throws"}, names(), "no further than the first and the last")
}
