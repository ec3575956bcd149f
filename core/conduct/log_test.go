package conduct_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/conduct"
	"cuestart/core/plan"
)

func ExampleChanged() {
	was := []conduct.Content{{Block: "Raise", Drills: []conduct.ContentItem{{Name: "Jog", Amount: 4},
		{Name: "Skips", Amount: 2}}}, {Block: "Hands"}}
	is := []conduct.Content{{Block: "Raise", Drills: []conduct.ContentItem{{Name: "Jog", Amount: 6},
		{Name: "Tag", Amount: 1}}}, {Block: "Neck"}}
	for _, says := range conduct.Changed(was, is) {
		fmt.Println(says)
	}
	// Output:
	// without Hands
	// Raise without Skips
	// Jog: 6, not 4
	// Raise with Tag
	// with Neck
}

func block(l *conduct.Log, id string) *conduct.Logged {
	for i := range l.Blocks {
		if l.Blocks[i].Block == id {
			return &l.Blocks[i]
		}
	}
	return nil
}

// Nobody pressed: the log is the plan, and nothing of it was measured.
func TestTheLogOfWhatWentAsPlanned(t *testing.T) {
	base := day(t)
	base.Document.Restrictions = []plan.Restriction{{Player: "p2", MaxEffort: 0.5}}
	l, err := conduct.AsPlanned(base)
	require.NoError(t, err)
	require.Len(t, l.Blocks, 4)
	for _, b := range l.Blocks {
		assert.Equal(t, b.Planned, b.Actual, b.Name)
		assert.False(t, b.Measured)
		seconds := 0
		for _, d := range b.Drills {
			seconds += d.Seconds
			assert.Equal(t, []string{"p2"}, d.Without, "a ruling keeps them out of %s", d.Name)
		}
		assert.LessOrEqual(t, seconds, b.Actual)
		assert.Equal(t, 1.0, b.Pace)
	}
	assert.Equal(t, []string{"p1", "p2"}, block(l, "throws").Who)
	for _, p := range l.Players {
		assert.Equal(t, conduct.There, p.Was)
		assert.Equal(t, -1, p.Effort)
	}
	assert.Empty(t, l.Differs)
	base.Document.Start.Local = "never"
	_, err = conduct.AsPlanned(base)
	assert.Error(t, err)
}

// The log is what was pressed: how long it lasted by when it was over, who had gone by then,
// what was skipped, what was noted.
func TestTheLogOfWhatWasPressed(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	at := p.at("jog")
	p.press(at, conduct.Event{Kind: conduct.Begin, Block: "jog"})
	p.press(at+360, conduct.Event{Kind: conduct.Done, Block: "jog"})
	p.take(at+370, conduct.Different{Is: conduct.IsOut, Who: []string{"p6"}})
	p.press(at+380, conduct.Event{Kind: conduct.Begin, Block: "swings"})
	p.press(at+600, conduct.Event{Kind: conduct.Done, Block: "swings"})
	p.press(at+610, conduct.Event{Kind: conduct.Skip, Block: "throws"})
	p.press(at+620, conduct.Event{Kind: conduct.Note, Block: "swings", Says: "too fast"})
	p.press(at+621, conduct.Event{Kind: conduct.Note, Block: "swings", Says: "hip first"})
	p.press(at+622, conduct.Event{Kind: conduct.Note, Player: "p3", Says: "limps"})
	p.press(at+623, conduct.Event{Kind: conduct.Note, Block: "swings", Says: "  "})
	p.take(at+630, conduct.Different{Is: conduct.IsLate, Who: []string{"p5"}, Seconds: 3600})
	l := p.stand(0).Log(p.plan)
	jog, swings, throws, run := block(l, "jog"), block(l, "swings"), block(l, "throws"), block(l, "run")
	assert.Equal(t, 360, jog.Actual)
	assert.Equal(t, 320, jog.Planned, "as it was planned before anything was fitted again")
	assert.True(t, jog.Measured)
	assert.Contains(t, jog.Who, "p6", "who went out later was there")
	assert.NotContains(t, swings.Who, "p6")
	assert.Equal(t, "too fast; hip first", swings.Note)
	assert.Zero(t, throws.Actual)
	assert.Empty(t, throws.Who)
	assert.False(t, run.Measured, "nobody said when it was over")
	assert.NotContains(t, run.Who, "p5", "who came after the end did not do it")
	was := map[string]string{}
	for _, one := range l.Players {
		was[one.Person] = one.Was
		if one.Person == "p3" {
			assert.Equal(t, "limps", one.Note)
		}
	}
	assert.Equal(t, map[string]string{"p1": conduct.There, "p2": conduct.There, "p3": conduct.There,
		"p4": conduct.There, "p5": conduct.Late, "p6": conduct.Out}, was)
	assert.Len(t, l.Differs, 2)
	for _, c := range l.Content() {
		assert.NotEqual(t, "throws", c.Block, "what was not done is no content")
	}
}

// Who is out before anything began was not there.
func TestWhoNeverCameIsAway(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	p.take(p.at("jog")-300, conduct.Different{Is: conduct.IsOut, Who: []string{"p4"}})
	for _, one := range p.stand(0).Log(p.plan).Players {
		if one.Person == "p4" {
			assert.Equal(t, conduct.Away, one.Was)
		}
	}
}

// Half-time has a line of its own: its blocks run to that, are marked like others, and are
// logged.
func TestHalfTimeRunsByItsOwnLine(t *testing.T) {
	base := day(t)
	id, err := base.Document.AddList(plan.AtBreak)
	require.NoError(t, err)
	b := base.Document.Blocks[1].Clone()
	b.ID, b.Name = "again", "again"
	_, err = base.Document.InsertInto(plan.AtBreak, b)
	require.NoError(t, err)
	p := &phone{t: t, by: "Ines", plan: base}
	assert.Empty(t, p.stand(2400).Lines, "it was not started")
	line := base.Schedule.Start.Unix() + 3300
	p.press(2400, conduct.Event{Kind: conduct.Line, List: id, To: line})
	s := p.stand(3000)
	require.Len(t, s.Lines, 1)
	half := s.Lines[0]
	assert.Equal(t, clock.Offset(-300), half.Now)
	require.Len(t, half.Runs, 1)
	run := half.Runs[0]
	assert.Equal(t, conduct.Under, run.State)
	assert.LessOrEqual(t, int(run.End), -60, "it ends before the restart")
	p.press(3100, conduct.Event{Kind: conduct.Done, Block: run.ID})
	s = p.stand(3200)
	assert.Equal(t, conduct.Finished, s.Lines[0].Runs[0].State)
	assert.True(t, block(s.Log(base), run.ID).Measured)
}

// Who marks some blocks and then forgets: the others are taken to have gone as planned, however
// late the log is looked at.
func TestWhatNobodySaidIsOverWentAsPlanned(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	p.press(p.at("swings"), conduct.Event{Kind: conduct.Done, Block: "jog"})
	for _, at := range []clock.Offset{0, 3600} {
		l := p.stand(at).Log(p.plan)
		for _, id := range []string{"swings", "throws", "run"} {
			assert.LessOrEqual(t, block(l, id).Actual, block(l, id).Planned, "%s at %d", id, at)
			assert.False(t, block(l, id).Measured)
		}
		assert.Equal(t, block(l, "swings").Planned, block(l, "swings").Actual)
	}
}

// A length that is filled in is shared out over the drills; who was not there did nothing.
func TestALogIsFilledIn(t *testing.T) {
	base := day(t)
	l, err := conduct.AsPlanned(base)
	require.NoError(t, err)
	jog, throws := block(l, "jog"), block(l, "throws")
	was := jog.Drills[0].Seconds
	jog.Lasted(2 * jog.Actual)
	assert.Equal(t, 2*was, jog.Drills[0].Seconds)
	assert.True(t, jog.Measured)
	throws.Lasted(0)
	assert.Zero(t, throws.Drills[0].Seconds)
	throws.Who = nil
	l.Players[0].Was = conduct.Away
	l.Attend(base.Document)
	assert.NotContains(t, jog.Who, "p1")
	assert.Empty(t, throws.Who)
	throws.Lasted(60)
	l.Attend(base.Document)
	assert.Equal(t, []string{"p2"}, throws.Who, "it was done after all")
	assert.Equal(t, 60, throws.Drills[0].Seconds)
}
