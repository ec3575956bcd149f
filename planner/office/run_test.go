package office_test

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/trial"
	"cuestart/core/week"
	"cuestart/planner"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
	"cuestart/planner/office"
	"cuestart/planner/pitchside"
	"cuestart/store"
)

// saturday is the start of the demo's match, less so many minutes, in milliseconds.
func saturday(minutes int) int64 {
	return time.Date(2026, 11, 28, 15, -minutes, 0, 0, time.UTC).UnixMilli()
}

func onDay(p *office.Office, minutes int) {
	p.Now = func() time.Time { return time.UnixMilli(saturday(minutes)).UTC() }
}

// What is pressed comes in in any order, twice, from a phone whose clock is wrong, for a
// block that is gone: it is kept once, and what is no event is refused in a sentence.
func TestWhatIsPressedIsKeptOnce(t *testing.T) {
	p := open(t, "pressed", true)
	onDay(p, 30)
	events := []conduct.Event{{ID: "b", At: saturday(31), Kind: conduct.Done, Block: "raise"},
		{ID: "a", At: saturday(38), Kind: conduct.Begin, Block: "raise"},
		{ID: "c", At: saturday(-6000), Kind: conduct.Done, Block: "bands"},
		{ID: "d", At: saturday(33), Kind: conduct.Done, Block: "gone"},
		{ID: "e", At: saturday(33), Kind: "dance"}, {ID: "f", At: saturday(33), Kind: conduct.Change},
		{At: saturday(33), Kind: conduct.Done}}
	for range 2 {
		refused, err := p.Pitchside.Pressed(ctx, coach, 1, events)
		require.NoError(t, err)
		require.Len(t, refused, 3)
		assert.Equal(t, pitchside.Refused{ID: "e", Says: "Not kept: nobody knows what was pressed."}, refused[0])
	}
	is, err := p.Pitchside.Running(ctx, 1, 1)
	require.NoError(t, err)
	assert.Len(t, is.Events, 4)
	assert.Equal(t, coach.Name, is.Events[0].By)
	stand, err := is.Stand(p.Now())
	require.NoError(t, err)
	assert.Equal(t, conduct.Finished, stand.Run("raise").State)
	assert.Equal(t, 7*60, int(stand.Run("raise").End-stand.Run("raise").Start))
	assert.Equal(t, saturday(30), stand.Events[3].At, "a clock that is days ahead is none")
	medical := coach
	medical.Role = store.Medical
	_, err = p.Pitchside.Pressed(ctx, medical, 1, events)
	assert.ErrorIs(t, err, planner.ErrForbidden)
	stranger := coach
	stranger.ClubID = 77
	_, err = p.Pitchside.Pressed(ctx, stranger, 1, events)
	assert.ErrorIs(t, err, planner.ErrNotFound)
	_, _, _, err = p.Pitchside.Arrived(ctx, 77, 1, 0)
	assert.ErrorIs(t, err, planner.ErrNotFound)
}

// A change that is taken at the pitch side is the plan in force and what is published; why
// somebody is out is told to medical staff alone.
func TestThePlanFollowsThePitchSide(t *testing.T) {
	p := open(t, "follows", true)
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	_, err = p.Reach.Publish(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	onDay(p, 40)
	running, err := p.Pitchside.Running(ctx, 1, 1)
	require.NoError(t, err)
	stand, err := running.Stand(p.Now())
	require.NoError(t, err)
	is := conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: conduct.Head}
	made, err := stand.Propose(ctx, is, 300)
	require.NoError(t, err)
	_, err = p.Pitchside.Pressed(ctx, coach, 1,
		[]conduct.Event{{ID: "x", At: saturday(40), Kind: conduct.Change, Is: &is, Placed: made.Placed}})
	require.NoError(t, err)
	b, err = p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	assert.Nil(t, b.Document.Player("p7"))
	assert.Equal(t, 2, b.Publication.Number)
	assert.Equal(t, b.Head, b.Publication.Head)
	hurt, err := p.Keep.OpenHurt(ctx, coach)
	require.NoError(t, err)
	require.Len(t, hurt, 1)
	assert.Equal(t, "out after a knock to the head, says "+coach.Name, keep.HurtSays(hurt[0]))
	again, err := p.Pitchside.Running(ctx, 1, 1)
	require.NoError(t, err)
	assert.NotNil(t, again.Document.Player("p7"), "the run keeps the plan that it began with")
}

// The log is what was pressed; what it says reaches the pace, the line on the day, and next
// time; and nobody overwrites another's.
func TestTheLogIsLearntFrom(t *testing.T) {
	p := open(t, "learnt", true)
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	require.Len(t, b.Paces(), 1)
	assert.Equal(t, "Scrum runs 11 % longer here, 4 times", b.Paces()[0].Says)
	require.NotEmpty(t, b.LastTime)
	before, scrum := p.Boards.Likely(b), b.Document.Block("scrum").Seconds([]int{5},
		b.Document.Group(b.Document.Block("scrum")))
	b, err = p.Boards.TakePace(ctx, coach, 1, b.Revision, "scrum")
	require.NoError(t, err)
	assert.Empty(t, b.Paces(), "it is planned so")
	assert.Greater(t, b.Document.Block("scrum").Seconds([]int{5}, b.Document.Group(b.Document.Block("scrum"))), scrum)
	assert.NotEqual(t, before, p.Boards.Likely(b))
	_, err = p.Boards.TakePace(ctx, coach, 1, b.Revision, "scrum")
	assert.ErrorAs(t, err, new(plan.Problems))

	onDay(p, -60)
	l, err := p.Learn.Log(ctx, 1, 1)
	require.NoError(t, err)
	assert.Zero(t, l.Edition)
	assert.Equal(t, "2026/27", l.Season, "as the last time")
	stale := *l
	kept := *l.Log
	stale.Log = &kept
	l.Blocks[0].Actual, l.Blocks[0].Note = 500, "long queue"
	require.NoError(t, p.Learn.KeepLog(ctx, coach, l))
	assert.ErrorIs(t, p.Learn.KeepLog(ctx, coach, &stale), planner.ErrStale)
	l, err = p.Learn.Log(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, uint32(1), l.Edition)
	assert.Equal(t, 500, l.Blocks[0].Actual)
	l.Blocks[0].Actual = 1e6
	assert.ErrorAs(t, p.Learn.KeepLog(ctx, coach, l), new(plan.Problems))
	_, err = p.Learn.Log(ctx, 77, 1)
	assert.ErrorIs(t, err, planner.ErrNotFound)
}

func TestTestsBeforeAndAfter(t *testing.T) {
	p := open(t, "tests", true)
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	one, two, three := squad.Players[0].ID, squad.Players[1].ID, squad.Players[2].ID
	test := trial.Test{Name: "Sprint 10 m", Unit: "s", Lower: true}
	before, after := map[uint64][]float64{one: {1.9, 1.88}, two: {2, 1.97}, three: {1.95}},
		map[uint64][]float64{one: {1.84}, two: {1.93}, three: {1.9}}
	require.NoError(t, p.Learn.SaveTests(ctx, coach, 1, test, before, after))
	tests, err := p.Learn.Tests(ctx, 1, 1, trial.Test{Name: "Sprint 10 m"})
	require.NoError(t, err)
	require.True(t, tests.Both)
	assert.Equal(t, "0.0433 s better (-0.0531 to -0.0336), likely real, n 3", tests.Test.Words(tests.Squad))
	for slip, says := range map[float64]string{-5: "a result is above zero", 9999: "far from the usual"} {
		err := p.Learn.SaveTests(ctx, coach, 1, test, map[uint64][]float64{one: {slip}, two: {2}, three: {1.95}}, after)
		assert.ErrorContains(t, err, says)
	}
	tests, err = p.Learn.Tests(ctx, 1, 1, test)
	require.NoError(t, err)
	assert.Equal(t, []float64{1.9, 1.88}, tests.Players[0].Before, "nothing was changed")
	require.NoError(t, p.Learn.SaveTests(ctx, coach, 1, test, nil, nil))
	_, err = p.Keep.TakeBack(ctx, coach)
	require.NoError(t, err)

	known, effects, err := p.Learn.Effects(ctx, 1, squad.ID, trial.Test{Name: "Jump height"})
	require.NoError(t, err)
	require.Len(t, effects, 2)
	c, ok := effects[0].Against(&effects[1], known)
	require.True(t, ok)
	assert.Equal(t, 8, c.N)
	assert.True(t, c.Real(), known.Words(c))
	require.NoError(t, p.Keep.Erase(ctx, coach, squad, three))
	l, err := p.Learn.Log(ctx, 1, 4)
	require.NoError(t, err)
	names := map[string]int{}
	for _, a := range l.Players {
		names[a.Name]++
	}
	assert.Equal(t, 1, names[store.FormerPlayer], "what was done stays, by nobody's name")
	_, effects, err = p.Learn.Effects(ctx, 1, squad.ID, trial.Test{Name: "Jump height"})
	require.NoError(t, err)
	assert.Equal(t, 7, effects[0].Change.N)
}

// A week owes what its targets say, a press puts what gives it into the next session, and a
// week without a session is one.
func TestAWeekIsFilled(t *testing.T) {
	p := open(t, "week", true)
	day := time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)
	w, err := p.Learn.Week(ctx, 1, 0, day)
	require.NoError(t, err)
	require.NotEmpty(t, w.Owed)
	require.NotEmpty(t, w.Fills)
	require.NotNil(t, w.Next)
	missing := func(owed []week.Owed) (days int) {
		for _, o := range owed {
			days += o.Days - o.Has
		}
		return days
	}
	owed := missing(w.Owed)
	session, said, err := p.Learn.FillNext(ctx, coach, 0, day, w.Fills[0].Code)
	require.NoError(t, err)
	assert.Equal(t, uint64(1), session)
	assert.Contains(t, said, "put into Brackwater v Fellmoor")
	w, err = p.Learn.Week(ctx, 1, 0, day)
	require.NoError(t, err)
	assert.Less(t, missing(w.Owed), owed)
	_, _, err = p.Learn.FillNext(ctx, coach, 0, day, "no-such-drill")
	assert.ErrorContains(t, err, "not owed any more")
	empty, err := p.Learn.Week(ctx, 1, 0, day.AddDate(-3, 0, 0))
	require.NoError(t, err)
	assert.Empty(t, empty.Sessions)
	_, err = p.Save(ctx, coach, "a target", planner.Change{Is: club.Target{Squad: 1, Region: "tail", Days: 2}})
	assert.ErrorAs(t, err, new(plan.Problems))
	done, err := p.Learn.Season(ctx, 1, day.AddDate(0, -2, 0))
	require.NoError(t, err)
	assert.Equal(t, 7, done[0].Times)
}

// What a leader ticks on their own page is in the coach's grid, and in the log.
func TestALeadersTicksAreInTheLog(t *testing.T) {
	p := open(t, "leaderticks", true)
	for n, says := range []string{"0:1", "0:2 3:1:a"} {
		require.NoError(t, db.Shares.AddWord(ctx, 1, store.Word{Person: "l-pell", Once: fmt.Sprint(n),
			Kind: planner.Grid, Block: "kicks", Says: says, Pressed: time.UnixMilli(saturday(40)),
			Made: time.UnixMilli(saturday(40))}))
	}
	onDay(p, 39)
	running, err := p.Pitchside.Running(ctx, 1, 1)
	require.NoError(t, err)
	assert.False(t, running.Begun)
	require.Len(t, running.Events, 3, "the newest of the grid alone")
	stand, err := running.Stand(p.Now())
	require.NoError(t, err)
	assert.Equal(t, conduct.Count{Tries: 2}, stand.Ticks()[conduct.Cell{Block: "kicks"}])
	_, err = p.Pitchside.Pressed(ctx, coach, 1,
		[]conduct.Event{{ID: "mine", At: saturday(39), Kind: conduct.Tick, Block: "kicks", Tries: 1}})
	require.NoError(t, err)
	onDay(p, -60)
	l, err := p.Learn.Log(ctx, 1, 1)
	require.NoError(t, err)
	for _, b := range l.Blocks {
		if b.Block == "kicks" {
			assert.Contains(t, b.Drills[0].Ticks, "3 of 2")
			assert.Contains(t, b.Drills[0].Ticks, "1 of 2, to come back to")
		}
	}
	require.NoError(t, p.Learn.KeepLog(ctx, coach, l))
	again, err := p.Learn.Log(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, l.Blocks, again.Blocks)
}

// A pace that was taken stays: a plan made of a routine, or built anew, has it again; and a
// rotating slot takes what the week owes among what was never done.
func TestATakenPaceStays(t *testing.T) {
	p := open(t, "paced", true)
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	_, err = p.Boards.TakePace(ctx, coach, 1, b.Revision, "scrum")
	require.NoError(t, err)
	routines, err := p.Books.Routines(ctx, 1)
	require.NoError(t, err)
	match := routines[0]
	require.Equal(t, "Match day, home", match.Is.Name)
	book, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	var pool, owed []string
	for _, d := range book.Drills {
		neck := slices.Contains(d.Regions, "neck") && slices.Contains(d.Qualities, "strength")
		switch {
		case !d.Serves("mobilise") || d.Code == "neck-four":
		case neck:
			owed = append(owed, d.Code)
		case len(pool) < 4 && !slices.Contains(d.Regions, "hip"):
			pool = append(pool, d.Code)
		}
	}
	require.NotEmpty(t, owed)
	match.Is.Slots = []club.Slot{{Block: "neck", Item: 0, Pool: append(pool, owed[0])}}
	_, err = p.Save(ctx, coach, "slots", planner.Change{ID: match.ID, Edition: match.Edition, Is: match.Is})
	require.NoError(t, err)
	made, err := p.Diary.Add(ctx, coach, diary.NewSession{Title: "Next", Kind: plan.Match,
		Start: clock.Start{Local: "2026-12-12T15:00", Zone: "Europe/London"}, From: fmt.Sprint(match.ID), Minutes: 45})
	require.NoError(t, err)
	b, err = p.Boards.Board(ctx, 1, made.ID)
	require.NoError(t, err)
	i := slices.IndexFunc(b.Document.Blocks, func(x plan.Block) bool { return x.Name == "Scrum" })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, 1.11, b.Document.Blocks[i].Pace)
	assert.Empty(t, b.Paces(), "it is not offered again")
	i = slices.IndexFunc(b.Document.Blocks, func(x plan.Block) bool { return x.Name == "Neck holds" })
	require.GreaterOrEqual(t, i, 0)
	turned := b.Document.Blocks[i].Items[0].Drill
	assert.Equal(t, owed[0], turned.Code, "%s: the week owes neck strength", turned.Name)
}
