package pen_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// lists are warm-ups as several people type them.
var lists = []string{`Saturday warm up

Get going - near half
1. easy jog to the 22 and back x 4
2. side shuffles 20 m, 2 each way
3. high knees 15 m

Loosen up (backs)
- leg swings 10 each leg
- worlds greatest 3 a side
- lateral lunges 6 e/s, stay low
- Harbour wobble 8

Jumps, done by 15
3 pogos then sprint 10 m, 4 times
broad jumps 5, stick the last
build-ups 40 m, 60 / 75 / 90
team talk 12 to 9
scrum engagement x 4, Pell`,
	"jog 2 min\nsquats 10. Then lunges 8 a side; sprints 3 x 20 m, backs, at 20\n\nafter the end:\nroll calves " +
		"30 s\nbring: water, tape",
	"Activate\nclams 12 a side\nband walks 10 m\n\nline-out throws 5 5 3 to front middle back\nfixed: Photo " +
		"62-60\nplank 3 x 20 s, rest 10 s"}

// reader is one of a plan.
func reader(d *plan.Document) *say.Reader {
	of := pen.ContextOf(d, "rugby-union", book.Drills())
	of.Index = index
	return say.NewReader(of)
}

// compact is what a plan has, a line each.
func compact(t *testing.T, d *plan.Document) (lines []string) {
	for _, part := range []any{d.Fixed, d.Notes, d.Bring, d.Said} {
		lines = append(lines, fmt.Sprint(part))
	}
	for b := range d.AllBlocks() {
		said, err := json.Marshal(b)
		require.NoError(t, err)
		lines = append(lines, string(said))
	}
	return lines
}

// words are a plan's words, and how many of their lines are written anew.
func words(d *plan.Document) (text string, anew int) {
	var lines []string
	for _, l := range pen.YourWords(reader(d), d) {
		if lines = append(lines, l.Text); l.Anew {
			anew++
		}
	}
	return strings.Join(lines, "\n"), anew
}

// TestWordsStayWithThePlan writes lists, and reads their words again as they stand.
func TestWordsStayWithThePlan(t *testing.T) {
	for n, text := range lists {
		d := empty()
		pen.Rewrite(reader(d), d, text)
		require.NoError(t, d.Validate())
		again, anew := words(d)
		assert.Equal(t, text, again)
		assert.Zero(t, anew)

		was := d.Clone()
		pen.Rewrite(reader(d), d, again)
		assert.Equal(t, compact(t, was), compact(t, d), "list %d read again", n)
	}
}

// TestWhatWasSetByHandIsLeftAlone changes plans by hand, shows that in their words, and reads these
// again with a line edited.
func TestWhatWasSetByHandIsLeftAlone(t *testing.T) {
	d := empty()
	pen.Rewrite(reader(d), d, lists[0])
	find := func(name string) (*plan.Block, int) {
		for b := range d.AllBlocks() {
			for i := range b.Items {
				if strings.HasPrefix(b.Items[i].Drill.Name, name) {
					return b, i
				}
			}
		}
		require.Fail(t, "no "+name)
		return nil, 0
	}
	b, i := find("Leg swing")
	b.Items[i].Drill.Range.Target, b.Items[i].Drill.Range.Max = 6, 10
	b.Pace = 1.2 // no word says it
	scrum, _ := find("Scrum engagement")
	pin := clock.BeforeStart(7 * 60)
	scrum.Pin = &pin
	jog, _ := find("Easy jog")
	_, err := d.RemoveItem(jog.ID, 2)
	require.NoError(t, err)

	text, anew := words(d)
	assert.Contains(t, text, "- Leg swings 6 a side\n")
	assert.NotContains(t, text, "high knees")
	assert.NotContains(t, text, "leg swings 10")
	assert.Contains(t, text, "at 7")
	assert.Contains(t, text, "1. easy jog to the 22 and back x 4\n2. side shuffles 20 m, 2 each way\n")
	assert.Contains(t, text, "Saturday warm up")
	assert.LessOrEqual(t, anew, 4, "only what was changed is written anew:\n%s", text)

	was := d.Clone()
	pen.Rewrite(reader(d), d, strings.Replace(text, "broad jumps 5", "broad jumps 8", 1))
	for _, k := range []string{"Leg swing", "Scrum engagement", "Easy jog"} {
		now, _ := find(k)
		before := was.Block(now.ID)
		require.NotNil(t, before, k)
		assert.Equal(t, before, now, k)
	}
	jump, at := find("Broad jump")
	assert.Equal(t, 8, jump.Items[at].Drill.Range.Target)
	assert.Equal(t, len(was.Blocks), len(d.Blocks))
}

// TestAnyLineMayGo takes lines out of words, or puts one in, and finds the rest as it was.
func TestAnyLineMayGo(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := empty()
		pen.Rewrite(reader(d), d, rapid.SampledFrom(lists).Draw(t, "list"))
		for b := range d.AllBlocks() { // as nobody writes it
			b.Why, b.Pace = "by hand "+b.ID, 1.1
		}
		was := d.Clone()
		text, _ := words(d)
		lines := strings.Split(text, "\n")
		at := rapid.IntRange(0, len(lines)-1).Draw(t, "line")
		if rapid.Bool().Draw(t, "out") {
			lines = append(lines[:at:at], lines[at+1:]...)
		} else {
			lines = append(lines[:at:at], append([]string{"gate opener 6 a side"}, lines[at:]...)...)
		}
		pen.Rewrite(reader(d), d, strings.Join(lines, "\n"))
		if err := d.Validate(); err != nil {
			t.Fatalf("%v", err)
		}
		kept, drills := 0, 0
		for b := range d.AllBlocks() {
			if b.Why == "by hand "+b.ID && b.Pace == 1.1 && was.Block(b.ID) != nil {
				kept++
			}
			drills += len(b.Items)
		}
		blocks, had := 0, 0
		for b := range was.AllBlocks() {
			blocks, had = blocks+1, had+len(b.Items)
		}
		if kept < blocks-3 || drills < had-4 || // a line has three sentences
			drills > had+2 {
			t.Fatalf("%d of %d blocks kept, %d drills of %d:\n%s", kept, blocks, drills, had, strings.Join(lines, "\n"))
		}
		again, _ := words(d)
		if again != strings.Join(lines, "\n") {
			t.Fatalf("%q is not %q", again, strings.Join(lines, "\n"))
		}
	})
}

func ExampleYourWords() {
	d := empty()
	pen.Rewrite(reader(d), d, "- gate opener 6 a side, slow\n- sprints 3 x 20 m")
	d.Blocks[len(d.Blocks)-1].Items[0].Drill.Range.Target = 4 // by hand
	for _, l := range pen.YourWords(reader(d), d) {
		fmt.Println(l.Text)
	}
	// Output:
	// - gate opener 6 a side, slow
	// - Sprints 4 x 20 m
}

func TestEnglishListsAreNotTakenForSpanish(t *testing.T) {
	for _, list := range append(lists, strings.Split("squats 10 a side\nplank 30 s each leg\nhinge con band 8",
		"\n")...) {
		assert.False(t, say.Spanish(strings.Split(list, "\n")) && !strings.Contains(list, " con "), list)
	}
}
