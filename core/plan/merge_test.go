package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/plan"
)

// edited is the document after a few changes that any coach might make.
func edited(t *rapid.T, d *plan.Document, name string, only []string) *plan.Document {
	d = d.Clone()
	for range rapid.IntRange(1, 4).Draw(t, name) {
		block := rapid.SampledFrom(only).Draw(t, name+" block")
		switch rapid.IntRange(0, 5).Draw(t, name+" edit") {
		case 0:
			d.StepDose(block, 0, rapid.IntRange(-2, 2).Draw(t, name+" steps"))
		case 1:
			d.SetPriority(block, rapid.SampledFrom(plan.Priorities).Draw(t, name+" priority"))
		case 2:
			d.Remove(block)
		case 3:
			d.Move(block, rapid.SampledFrom([]string{"a", "b", "c", ""}).Draw(t, name+" before"))
		case 4:
			d.Add(throws(), "sport", []string{"p1"}, plan.Could)
		case 5:
			d.Put(block, []string{"p2"}, rapid.Bool().Draw(t, name+" in"))
		}
	}
	return d
}

// Where only one changed something, the merge is that; whatever two change, what comes of
// it has both or says where they clash, and holds no block twice.
func TestMergingLosesNothing(t *testing.T) {
	all := []string{"a", "b", "c"}
	rapid.Check(t, func(t *rapid.T) {
		base := document()
		mine, theirs := edited(t, base, "mine", all), edited(t, base, "theirs", all)
		for _, insist := range []bool{false, true} {
			merged, clashes, err := plan.Merge(base, mine, base, insist)
			require.NoError(t, err)
			assert.Empty(t, clashes)
			assert.Equal(t, mine, merged)
			merged, clashes, err = plan.Merge(base, base, theirs, insist)
			require.NoError(t, err)
			assert.Empty(t, clashes)
			assert.Equal(t, theirs, merged)
		}
		merged, clashes, err := plan.Merge(base, mine, theirs, false)
		require.NoError(t, err)
		seen := map[string]bool{}
		for _, b := range merged.Blocks {
			require.False(t, seen[b.ID], "%s twice", b.ID)
			seen[b.ID] = true
		}
		if len(clashes) > 0 {
			return
		}
		for _, b := range base.Blocks {
			x, y, z := mine.Block(b.ID), theirs.Block(b.ID), merged.Block(b.ID)
			if x == nil || y == nil {
				assert.Nil(t, z, "what either took out is out")
			} else if was := base.Block(b.ID); assert.NotNil(t, z) {
				assert.Contains(t, []plan.Priority{x.Priority, y.Priority}, z.Priority)
				if x.Priority != was.Priority {
					assert.Equal(t, x.Priority, z.Priority)
				}
			}
		}
		added := func(d *plan.Document) (n int) {
			for _, b := range d.Blocks {
				if base.Block(b.ID) == nil {
					n++
				}
			}
			return n
		}
		assert.Equal(t, added(mine)+added(theirs), added(merged), "what either added is there")
	})
}

// What both changed is named, and is as was insisted on.
func TestAClashIsAChoice(t *testing.T) {
	base := document()
	mine, theirs := base.Clone(), base.Clone()
	mine.SetPriority("a", plan.Could)
	mine.Move("b", "a")
	theirs.SetPriority("a", plan.Must)
	theirs.SetPriority("c", plan.Could)
	kept, clashes, err := plan.Merge(base, mine, theirs, false)
	require.NoError(t, err)
	assert.Equal(t, []plan.Clash{{Where: "blocks.a", Name: base.Block("a").Name}}, clashes)
	assert.Equal(t, plan.Must, kept.Block("a").Priority)
	assert.Equal(t, "b", kept.Blocks[0].ID, "my order, which they left alone")
	assert.Equal(t, plan.Could, kept.Block("c").Priority)
	insisted, _, err := plan.Merge(base, mine, theirs, true)
	require.NoError(t, err)
	assert.Equal(t, plan.Could, insisted.Block("a").Priority)
	assert.Equal(t, plan.Could, insisted.Block("c").Priority, "the rest of theirs stays")
}

// What medical staff ruled meanwhile stays as it is by now, all of it, also for who insists.
func TestARulingOutlivesAMerge(t *testing.T) {
	base := document()
	base.Restrictions = []plan.Restriction{{Player: "p1", NoJumps: true}}
	mine, theirs := base.Clone(), base.Clone()
	mine.Restrictions = nil
	mine.SetPriority("a", plan.Could)
	theirs.Restrictions = []plan.Restriction{{Player: "p1", NoJumps: true}, {Player: "p1", MaxMinutes: 10},
		{Player: "p2", NoOverhead: true}}
	for _, insist := range []bool{false, true} {
		merged, clashes, err := plan.Merge(base, mine, theirs, insist)
		require.NoError(t, err)
		assert.Empty(t, clashes)
		assert.Equal(t, theirs.Restrictions, merged.Restrictions)
		assert.Equal(t, plan.Could, merged.Block("a").Priority)
	}
	theirs.SetOut("p1")
	merged, _, err := plan.Merge(base, mine, theirs, true)
	require.NoError(t, err)
	assert.Equal(t, []plan.Restriction{{Player: "p2", NoOverhead: true}}, merged.Restrictions)
}

// Two who write at once keep the words of both, under the ids that their blocks have.
func TestTheWordsOfBothAreKept(t *testing.T) {
	base := document()
	base.Said = []plan.Said{{Text: "jog 2 min", Parts: []plan.SaidPart{{Text: "jog 2 min", Block: base.Blocks[0].ID}}}}
	write := func(text string) *plan.Document {
		d := base.Clone()
		b := d.Blocks[0].Clone()
		b.Name, b.After, b.Hold = text, nil, plan.Hold{}
		id := d.Insert(b, "")
		d.KeepSaid(append(d.Said, plan.Said{Text: text, Parts: []plan.SaidPart{{Text: text, Block: id}}}))
		return d
	}
	both, clashes, err := plan.Merge(base, write("squats 10"), write("plank 30 s"), false)
	require.NoError(t, err)
	assert.Empty(t, clashes)
	require.Len(t, both.Said, 3)
	for _, line := range both.Said[1:] {
		assert.Equal(t, line.Text, both.Block(line.Parts[0].Block).Name)
	}
}
