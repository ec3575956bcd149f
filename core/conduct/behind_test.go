package conduct_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

func TestWhoIsDoneEarlyIsAhead(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	swings := p.at("swings")
	p.press(swings-60, conduct.Event{Kind: conduct.Done, Block: "jog"})
	by, block := p.stand(swings - 50).Behind()
	assert.Equal(t, -60, by)
	assert.Equal(t, "jog", block)
	by, _ = p.stand(swings + 5).Behind()
	assert.Zero(t, by, "the next has begun when it was planned")
}

// A leader whose blocks nobody marks goes by the plan, also when another's are marked.
func TestWhatNobodyMarksGoesByThePlan(t *testing.T) {
	base := day(t)
	for i := range base.Document.Blocks {
		if base.Document.Blocks[i].ID == "throws" {
			base.Document.Blocks[i].Leader = "pell"
		}
	}
	p := &phone{t: t, by: "Ines", plan: base}
	p.press(p.at("swings"), conduct.Event{Kind: conduct.Done, Block: "jog"})
	p.press(p.at("throws"), conduct.Event{Kind: conduct.Done, Block: "swings"})
	s := p.stand(p.at("run") + 30)
	assert.Equal(t, conduct.Finished, s.Run("throws").State, "Pell's were never marked")
	assert.Equal(t, conduct.Under, s.Run("run").State)
	before := p.stand(p.at("jog") + 100)
	assert.Equal(t, conduct.Under, before.Run("jog").State, "what is pressed later is not known yet")
}

// Whoever stands long after being warm is found, and a top-up of theirs runs at once.
func TestWhoStandsTooLongIsKeptMoving(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	now := p.at("throws") + 20 // two throw, four have nothing to do until the run
	idle := p.stand(now).Idle()
	require.Len(t, idle, 1)
	assert.Equal(t, []string{"p3", "p4", "p5", "p6"}, idle[0].Players)
	assert.Equal(t, "run", idle[0].Next.ID)
	assert.False(t, idle[0].Stands, "not for long")
	assert.Greater(t, idle[0].Warm, 1.0)
	p.take(now, conduct.Different{Is: conduct.IsStart, Seconds: 1200})
	late := p.at("run") + 800
	idle = p.stand(late).Idle()
	require.NotEmpty(t, idle)
	assert.True(t, idle[0].Stands)
	up := p.take(late, conduct.Different{Is: conduct.IsTopUp, Who: []string{plan.Everyone}, Seconds: 120, ID: "top-1"})
	assert.Equal(t, "Whole squad kept moving, 2 min", up.Said)
	assert.Equal(t, conduct.Under, p.stand(late+10).Run("top-1").State)
	assert.Empty(t, p.stand(late+10).Idle())
	assert.Less(t, len(up.Cold), 2)
}

func TestTicksOfAllPhonesAreCounted(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	at := p.at("throws")
	for _, tries := range []int{1, 1, -1} {
		p.press(at, conduct.Event{Kind: conduct.Tick, Block: "throws", Cell: 2, Tries: tries})
	}
	cell := conduct.Cell{Block: "throws", Cell: 2}
	assert.Equal(t, conduct.Count{Tries: 2, Again: true}, p.stand(at).Ticks()[cell])
	p.press(at+1, conduct.Event{Kind: conduct.Tick, Block: "throws", Cell: 2, Tries: 1})
	assert.Equal(t, conduct.Count{Tries: 3}, p.stand(at + 1).Ticks()[cell], "it was come back to")
	p.press(at+2, conduct.Event{Kind: conduct.Back, Of: p.had[0].ID})
	assert.Equal(t, 2, p.stand(at + 2).Ticks()[cell].Tries)
}

// Two who press the same within seconds agree; who knows of the other does not disagree.
func TestOnlyWhatDisagreesIsADispute(t *testing.T) {
	event := func(id, by string, at int64, kind conduct.Kind, after string) conduct.Event {
		return conduct.Event{ID: id, By: by, At: at * 1000, Kind: kind, Block: "jog", After: after}
	}
	for name, c := range map[string]struct {
		one, other conduct.Event
		disputes   int
	}{
		"the same press": {event("a", "Ines", 100, conduct.Done, ""), event("b", "Pell", 110, conduct.Done, ""),
			0},
		"minutes apart": {event("a", "Ines", 100, conduct.Done, ""), event("b", "Pell", 190, conduct.Done, ""),
			1},
		"done and skipped": {event("a", "Ines", 100, conduct.Done, ""), event("b", "Pell", 101, conduct.Skip, ""),
			1},
		"skipped by both": {event("a", "Ines", 100, conduct.Skip, ""), event("b", "Pell", 300, conduct.Skip, ""),
			0},
		"knowing of the other": {event("a", "Ines", 100, conduct.Done, ""),
			event("b", "Pell", 190, conduct.Again, "a"), 0},
		"one who changes their": {event("a", "Ines", 100, conduct.Done, ""), event("b", "Ines", 190, conduct.Skip, ""),
			0},
	} {
		assert.Len(t, conduct.Disputes(conduct.Join([]conduct.Event{c.other}, []conduct.Event{c.one})), c.disputes,
			name)
	}
	start := func(by string, seconds int) conduct.Event {
		return conduct.Event{ID: by, By: by, At: 1, Kind: conduct.Change,
			Is: &conduct.Different{Is: conduct.IsStart, Seconds: seconds}}
	}
	assert.Empty(t, conduct.Disputes([]conduct.Event{start("a", -600), start("b", -600)}), "both heard it called")
	assert.Len(t, conduct.Disputes([]conduct.Event{start("a", -600), start("b", -300)}), 1)
}

func TestWhatIsNoEventIsSaid(t *testing.T) {
	long := make([]byte, 500)
	for says, e := range map[string]conduct.Event{
		"it has no name":                    {At: 1, Kind: conduct.Done},
		"nobody knows what was pressed":     {ID: "a", At: 1, Kind: "x"},
		"it has no time":                    {ID: "a", Kind: conduct.Done},
		"it says too much":                  {ID: "a", At: 1, Kind: conduct.Note, Says: string(long)},
		"it is about nothing in the plan":   {ID: "a", At: 1, Kind: conduct.Done, Block: string(long)},
		"it ticks no cell":                  {ID: "a", At: 1, Kind: conduct.Tick, Cell: -1},
		"it says nothing that is different": {ID: "a", At: 1, Kind: conduct.Change},
		"":                                  {ID: "a", At: 1, Kind: conduct.Done, Block: "jog"},
	} {
		assert.Equal(t, says, e.Problem())
	}
}

// What a refit leaves out, keeps and moves: skipped stays skipped, what is under way stays
// with the doses that it has, and what was overtaken may still come.
func TestARefitOfWhatStood(t *testing.T) {
	base := day(t)
	blocks := base.Schedule.Blocks(base.Document)
	at := map[string]clock.Offset{}
	for _, b := range blocks {
		at[b.ID] = b.Start
	}
	now := at["throws"] + 60
	stood := []schedule.Stood{{Block: "jog", Kept: true, Begun: true, Start: at["jog"], End: at["jog"] + 300,
		Amounts: []int{300}}, {Block: "swings", Skip: true},
		{Block: "throws", Kept: true, Begun: true, Start: at["throws"], End: now + 77, Amounts: []int{120}},
		{Block: "run", Kept: true}}
	s, err := schedule.Refit(t.Context(), base.Document, stood, now, 500)
	require.NoError(t, err)
	after := map[string]schedule.Block{}
	for _, b := range s.Blocks(base.Document) {
		after[b.ID] = b
	}
	assert.False(t, after["swings"].Kept)
	assert.Equal(t, "skipped", after["swings"].Cut)
	throws := after["throws"]
	assert.Equal(t, 120, throws.Amount(0))
	assert.Equal(t, at["throws"], throws.Start)
	assert.GreaterOrEqual(t, int(throws.End), int(now+77))
	run := after["run"]
	assert.True(t, run.Kept)
	assert.GreaterOrEqual(t, run.Start, throws.End, "two of them are still at it")
	base.Document.Start.Local = "never"
	_, err = schedule.Refit(t.Context(), base.Document, stood, now, 500)
	assert.Error(t, err)
	_, err = schedule.As(base.Document, stood)
	assert.Error(t, err)
}

// A pair is still at its own block when the squad begins without it: both go on, and what is
// left is fitted.
func TestASquadBeginsWithoutAPair(t *testing.T) {
	base := day(t)
	for i := range base.Document.Blocks {
		base.Document.Blocks[i].Excusable = base.Document.Blocks[i].ID != "throws"
	}
	p := &phone{t: t, by: "Ines", plan: base}
	now := p.at("jog") - 300
	p.press(now, conduct.Event{Kind: conduct.Begin, Block: "throws"})
	p.press(now+100, conduct.Event{Kind: conduct.Begin, Block: "jog"})
	s := p.stand(now + 130)
	assert.Equal(t, conduct.Under, s.Run("throws").State)
	assert.Equal(t, conduct.Under, s.Run("jog").State)
	made := p.take(now+130, conduct.Different{Is: conduct.IsStart, Seconds: -300})
	assert.True(t, made.Fits, made.Why)
	assert.Empty(t, made.Goes)
	again := p.stand(now + 131)
	assert.Equal(t, s.Unix(s.Run("jog").Start), again.Unix(again.Run("jog").Start))
}

// What is under way in a place that is lost, with no other one, is finished there: it is no
// reason why nothing else fits.
func TestWhatIsUnderWayInALostPlaceIsFinished(t *testing.T) {
	base := day(t)
	base.Document.Zones = base.Document.Zones[:1]
	p := &phone{t: t, by: "Ines", plan: base}
	now := p.at("swings") + 60
	made, err := p.stand(now).Propose(t.Context(), conduct.Different{Is: conduct.IsPlace, ID: "pitch"}, schedule.AtOnce)
	require.NoError(t, err)
	assert.Contains(t, made.Goes, "run", "it has no place any more")
	assert.False(t, made.Fits, "and it was a must")
	for _, place := range made.Placed {
		if place.Block == "swings" {
			assert.True(t, place.Kept)
			assert.Equal(t, conduct.Under, place.State)
		}
	}
}
