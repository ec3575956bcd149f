package pen_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/say"
)

// A list is told by its marks: those go, what has lines under it is a heading under its own
// words, what only greets or says what the day is stays as a note.
func TestAListIsToldByItsMarks(t *testing.T) {
	texts := func(list ...string) (all []string) {
		for _, one := range say.Pieces(list) {
			all = append(all, one.Text)
		}
		return all
	}
	assert.Equal(t, []string{"note: MD warm-up (home) - kick off 3pm", "## Raise - from 38, middle third",
		"jog to the box and back x 2", "## Ball", "rondo 5v2 4 mins", "build-ups 20 m"},
		texts("MD warm-up (home) - kick off 3pm", "1. Raise - from 38, middle third", "a) jog to the box and back x 2",
			"2. Ball", "b) rondo 5v2 4 mins", "c) build-ups 20 m"))
	assert.Equal(t, []string{"## BANDS (2 rounds)", "pull aparts 12", "ER at side 12", "## CATCH w/ Tobin from 35",
		"pulldowns x5 full"},
		texts("BANDS (2 rounds)", "pull aparts 12", "ER at side 12", "CATCH w/ Tobin from 35", "pulldowns x5 full"))
	assert.Equal(t, []string{"jog 3 min", "squats 10", "sprints 3 x 20 m"},
		texts("- jog 3 min", "- squats 10", "- sprints 3 x 20 m"))
	assert.Equal(t, []string{"Mobilise", "hip circles 6", "team talk 68-55"},
		texts("Mobilise", "hip circles 6", "team talk 68-55"), "a phase and an event are read as such")
	assert.Equal(t, []string{"note: Hi Fenn,", "jog 3 min", "squats 10"}, texts("Hi Fenn,", "jog 3 min", "squats 10"))
	assert.Equal(t, []string{"1. Jog"}, texts("1. Jog"), "one line is no list")
	assert.Equal(t, []string{"## Calves, courtside", "calf raises 15", "## Hips", "open books 6 ea"},
		texts("A. Calves, courtside", "a) calf raises 15", "B. Hips", "a) open books 6 ea"),
		"large letters hold small ones")
	assert.Equal(t, []string{"note: Year 8, sports hall, double lesson", "tag 3 min", "## Then balls, in pairs",
		"chest passes 20", "## Pairs, 20 m apart", "bounce passes 20"},
		texts("Year 8, sports hall, double lesson", "tag 3 min", "Then balls, in pairs", "chest passes 20",
			"Pairs, 20 m apart", "bounce passes 20"), "a class, what comes next, who it is for")
	r := say.NewReader(say.Context{})
	assert.Equal(t, "CATCH", r.Read("## CATCH w/ Tobin from 35").Name)
	assert.Equal(t, "IN THE WATER", r.Read("## IN THE WATER from 30").Name)

	d := empty()
	write(d, "1. Raise - from 38\na) jog 3 min\nb) skips 20 m\n2. Ball\na) passing in pairs 2 min\nb) throws "+
		"6\n3. Speed - done by 14\na) build-ups 3 x 20 m\nb) sprints 2 x 10 m")
	var parts []string
	for i := range d.Blocks {
		parts = append(parts, fmt.Sprint(d.Blocks[i].Name, " ", d.Blocks[i].Phase, " ", len(d.Blocks[i].Items)))
	}
	assert.Equal(t, []string{"Raise raise 2", "Ball sport 2", "Speed potentiate 2"}, parts, "each is of its own phase")
}

func TestAListIsToldByWordsTimesAndIndents(t *testing.T) {
	texts := func(list ...string) (all []string) {
		for _, one := range say.Pieces(list) {
			if one.Ends {
				all = append(all, "<ends>")
				continue
			}
			all = append(all, one.Text)
		}
		return all
	}
	for name, c := range map[string]struct{ list, want []string }{
		"a word over its drills": {[]string{"jog 3 min", "bands: ER 10, IR 10, scap rows 10", "squats 8"},
			[]string{"jog 3 min", "## bands", "ER 10", "IR 10", "scap rows 10", "<ends>", "squats 8"}},
		"parts of one drill stay with it": {[]string{"arm circles: forward 10, back 10",
			"wall ball - right 25, left 25", "jog 2 min"},
			[]string{"arm circles: forward 10, back 10", "wall ball - right 25, left 25", "jog 2 min"}},
		"people are no heading of this kind": {[]string{"Forwards: bag hits 10, lifts 6",
			"GKs: handling 12, low dives 4", "jog 2 min"},
			[]string{"Forwards: bag hits 10, lifts 6", "GKs: handling 12, low dives 4", "jog 2 min"}},
		"how long it is to go": {[]string{"T-40 bike 3 min", "T-22 catch play 20", "t minus 5: sprints 2",
			"2.30pm squats 8"},
			[]string{"bike 3 min - at 40", "catch play 20 - at 22", "sprints 2 - at 5", "squats 8 - at 14:30"}},
		"numbers that fall are minutes": {[]string{"40 - bike 3 min", "35 - bands 10", "30: squats 8"},
			[]string{"bike 3 min - at 40", "bands 10 - at 35", "squats 8 - at 30"}},
		"numbers that rise are none": {[]string{"5 - squats", "8 - lunges", "10 - hops"},
			[]string{"5 - squats", "8 - lunges", "10 - hops"}},
		"what is further in stands under it": {[]string{"1. Legs (3 min)", "   squats 10", "   lunges 8",
			"2. Skills - launch plays 8 mins"},
			[]string{"## Legs (3 min)", "squats 10", "lunges 8", "<ends>", "Skills: launch plays 8 mins"}},
		"minutes of a heading": {[]string{"GENERAL 5 min", "• jog 2 laps", "• skips 20 m", "CORNERS 5 min"},
			[]string{"## GENERAL (5 min)", "jog 2 laps", "skips 20 m", "<ends>", "CORNERS 5 min"}},
		"minutes in brackets": {[]string{"Team run (28 to 20)", "- sprints 3 x 20 m", "- passes 10"},
			[]string{"## Team run - from 28 to 20", "sprints 3 x 20 m", "passes 10"}},
		"times at the end of headings": {[]string{"Specialists, -60", "- punts 8", "Indy -35", "- routes 6",
			"-20 team plays 8", "Knee, drink, back in at -12"},
			[]string{"## Specialists - at 60", "punts 8", "## Indy - at 35", "routes 6", "<ends>",
				"team plays 8 - at 20", "Knee, drink, back in - at 12"}},
		"parts that begin alike": {[]string{"Pulse", "shuffle 20 m x 2", "tag 90 s", "", "Landings", "two feet 4",
			"left right 4 each"},
			[]string{"Pulse", "shuffle 20 m x 2", "tag 90 s", "", "## Landings", "two feet 4", "left right 4 each"}},
		"each with its own time": {[]string{"52' | drills 20m x2: A march, B skip, straight leg", "42' | band walks 8",
			"34' | strides 3 x 60 m"},
			[]string{"## drills 20m x2 - at 52", "A march 20m x2", "B skip 20m x2", "straight leg 20m x2", "<ends>",
				"band walks 8 - at 42", "strides 3 x 60 m - at 34"}},
		"pictures before lines": {[]string{"➡️ Mobility", "✅ hip openers 8/8", "✅ trunk rotation x10", "➡️ Ball",
			"✅ run-ins 5"},
			[]string{"Mobility", "hip openers 8/8", "trunk rotation x10", "## Ball", "run-ins 5"}},
		"a table of strokes": {[]string{"Exercise | Sets | Coaching", "Jump rope | 2 x 60s | light feet",
			"Pogos | 2 x 15 | stiff", "Squats | 8 |"},
			[]string{"note: Exercise, Sets, Coaching", "Jump rope - 2 x 60s, light feet", "Pogos - 2 x 15, stiff",
				"Squats - 8"}},
		"clocks of headings": {[]string{"9:20-9:26 Move it", "- lunges 6", "9:26-9:33 Ball", "- passes 10"},
			[]string{"## Move it - from 9:20 to 9:26", "lunges 6", "## Ball - from 9:26 to 9:33", "passes 10"}},
		"groups beside one another": {[]string{"Groups", "Forwards: points, 6 each / Backs: blocks 5", "squats 10"},
			[]string{"## Groups", "Forwards: points, 6 each", "Backs: blocks 5", "squats 10"}},
		"a clock over its lines": {[]string{"9.55 jog 3 min", "10.00 Dynamic stretches", "- lunges 6",
			"10.08 rondo 3 min"},
			[]string{"9.55 jog 3 min", "## Dynamic stretches - at 10.00", "lunges 6", "<ends>", "10.08 rondo 3 min"}},
	} {
		assert.Equal(t, c.want, texts(c.list...), name)
	}
	d := empty()
	write(d, "jog 2 min\nleg swings 8\nsprints 2 x 10 m\n\nsquats 10\nthrows 6")
	require.Len(t, d.Blocks, 2, "a paragraph is a block where no heading parts the list")
	assert.Len(t, d.Blocks[0].Items, 3)
	d = empty()
	write(d, "Bands: ER 10, IR 10, scap rows 10\njog 3 min\nsquats 10")
	require.NotEmpty(t, d.Blocks)
	assert.Equal(t, "Bands", d.Blocks[0].Name)
	assert.Len(t, d.Blocks[0].Items, 3)
	assert.NotEqual(t, "Bands", d.Blocks[1].Name)
}

func TestALineOverAFullBlockNamesWhatIsThere(t *testing.T) {
	d := empty()
	text := "Everything\n"
	for range 11 {
		text += "squats 10\n"
	}
	for _, one := range write(d, text+"jog 20 m + skips 20 m + squats 4") {
		for _, n := range one.Items {
			require.NotNil(t, d.Block(one.Block))
			assert.Less(t, n, len(d.Block(one.Block).Items))
		}
	}
	assert.Len(t, d.Blocks, 2)
}

func TestPlacesHoweverTheyAreSaid(t *testing.T) {
	for text, want := range map[string]string{
		"baskets, five spots, three each":                                 "3 in each of 5 places",
		"baskets 3 in each of 5 places":                                   "3 in each of 5 places",
		"quick releases: from up top, left alley, right alley, five each": "5 in each of 3 places",
		"full kicks: 2 near left, 2 near right, 3 far left, 1 far right": "2 near left, 2 near right, 3 far " +
			"left, 1 far right",
		"Line: skips: 2 trips: out with skips, back with jog, 20 m": "2 trips: out with skips, back with " +
			"jog, 20 m",
		"sprints: 2 sprints of 20 m at 90 %, 4 lines of 9": "2 sprints of 20 m at 90 %",
	} {
		d := empty()
		write(d, text)
		require.NotEmpty(t, d.Blocks, text)
		k := d.Blocks[0].Items[0].Drill
		assert.Equal(t, want, k.Words(k.Range.Target), text)
	}
}

func TestRegionsAreDrillsEach(t *testing.T) {
	for text, want := range map[string][]string{
		"after the bell they stretch calves and thighs, fifteen seconds each, once": {"static-calf", "static-thigh"},
		"roll calves, hips and back 30 s each": {"roll-calves", "roll-hips",
			"roll-mid-back"},
		"roll hips and calves, five minutes": {"roll-hips", "roll-calves"},
		"roll calves 30 s, slowly":           {"roll-calves"},
	} {
		d := empty()
		became := write(d, text)
		b := d.Block(became[0].Block)
		require.NotNil(t, b, text)
		var codes []string
		for _, item := range b.Items {
			codes = append(codes, item.Drill.Code)
		}
		assert.Equal(t, want, codes, text)
		if strings.Contains(text, "minutes") {
			assert.Equal(t, 150, b.Items[0].Drill.Range.Target, "so long for both")
		}
	}
}

func TestNonsenseIsNotTakenSilently(t *testing.T) {
	for _, text := range []string{
		"full kicks 0 near left, 0 near right, 0 far left, 0 far right",
		"throws 0 0 0 to front middle back",
		"seven stations, 30 s: rope, plank",
		"0 in each of 0 places",
	} {
		d := empty()
		became := write(d, text)
		require.NoError(t, d.Validate(), text)
		assert.True(t, became[0].Line.Doubtful() || became[0].Problem != "", text)
		for b := range d.AllBlocks() {
			for _, item := range b.Items {
				assert.NotContains(t, item.Drill.Words(item.Drill.Range.Target), " 0 ", text)
			}
		}
	}
}
