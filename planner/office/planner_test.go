package office_test

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/demo/demotest"
	"cuestart/mariadb"
	"cuestart/mariadb/mariadbtest"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/diary"
	"cuestart/planner/office"
	"cuestart/planner/whatif"
	"cuestart/store"
)

var server *mariadb.Server

func TestMain(m *testing.M) { os.Exit(mariadbtest.Run(m, &server)) }

var (
	ctx   = context.Background()
	now   = time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)
	coach = store.Account{ID: 1, ClubID: 1, Role: store.Coach}
)

// db is the database of the test that runs.
var db *store.Store

// does leaves the board of a change aside.
func does(_ *boards.Board, err error) error { return err }

func open(t *testing.T, name string, withDemo bool) *office.Office {
	if withDemo {
		db = demotest.Filled(t, server.DSN, name, now)
	} else {
		db = demotest.Open(t, server.DSN, name)
	}
	p := office.New(db)
	p.Now = func() time.Time { return now }
	return p
}

func board(t *testing.T, p *office.Office, id uint64) *boards.Board {
	b, err := p.Boards.Board(ctx, 1, id)
	require.NoError(t, err)
	return b
}

func TestAFindingIsMendedOrKept(t *testing.T) {
	p := open(t, "mend", true)
	rules := func() map[string]string {
		found := map[string]string{}
		for _, f := range board(t, p, 1).Findings {
			found[f.Rule] = f.Reason
		}
		return found
	}
	require.Contains(t, rules(), "queue")
	require.NoError(t, does(p.Boards.Mend(ctx, coach, 1, 1, "queue", "high")))
	assert.NotContains(t, rules(), "queue")
	assert.Equal(t, "High balls at all lanes", board(t, p, 1).Undo)
	require.NoError(t, does(p.Boards.Undo(ctx, coach, 1, 2)))
	assert.Contains(t, rules(), "queue")
	assert.ErrorIs(t, does(p.Boards.Mend(ctx, coach, 1, 77, "queue", "high")), store.ErrStale)
	assert.ErrorIs(t, does(p.Boards.Mend(ctx, coach, 1, 3, "queue", "nowhere")), check.ErrNoMend)

	var wrong plan.Problems
	assert.ErrorAs(t, does(p.Boards.Change(ctx, coach, 1, 3, boards.Except("queue", "high", " "))), &wrong)
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 3, boards.Except("queue", "high", "one good kicker"))))
	assert.Equal(t, "one good kicker", rules()["queue"])
}

func TestARefusedChangeLeavesThePlan(t *testing.T) {
	p := open(t, "refuse", true)
	for name, edit := range map[string]boards.Edit{
		"the past": boards.SetStart(clock.Start{Local: "2026-11-25T09:59", Zone: "Europe/London"},
			p.Now()),
		"a plan that cannot be": func(d *plan.Document) (string, error) { d.Blocks[0].Who = nil; return "", nil },
		"an edit that fails":    func(d *plan.Document) (string, error) { d.Title = "x"; return "", errors.New("no") },
	} {
		assert.Error(t, does(p.Boards.Change(ctx, coach, 1, 1, edit)), name)
	}
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 1,
		func(d *plan.Document) (string, error) { return "nothing", nil })))
	b := board(t, p, 1)
	assert.EqualValues(t, 1, b.Revision, "what changes nothing is not kept as a change")
	assert.Empty(t, b.Undo)
}

// Same as last time takes the last like it: where there was no training yet the match, with
// its talk and without its toss; for a squad of one the one before; into the minutes that are
// left, with the pulse first.
func TestSameAsLastTimeTakesTheLastLikeIt(t *testing.T) {
	p := open(t, "last", true)
	b := board(t, p, 1)
	start, err := b.Document.Start.Resolve()
	require.NoError(t, err)
	for id := uint64(2); id < 40; id++ {
		if other, err := p.Boards.Board(ctx, 1, id); err == nil {
			require.NoError(t, p.Boards.Remove(ctx, coach, other.ID))
		}
	}
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	p.Now = func() time.Time { return start.Add(-22 * time.Minute) }
	ask := diary.NewSession{Kind: plan.Training, Title: "Now", Start: b.Document.Start, From: diary.FromLast,
		Late: map[uint64]int{squad.Players[3].ID: 20}}
	added, err := p.Diary.Add(ctx, coach, ask)
	require.NoError(t, err)
	now := board(t, p, added.ID)
	var day []string
	for _, f := range now.Document.Fixed {
		day = append(day, f.Name)
	}
	assert.Contains(t, day, "Team talk")
	assert.NotContains(t, day, "Toss")
	assert.Equal(t, clock.BeforeStart(22*60), now.Document.Open)
	assert.Equal(t, 22*60-10*60, now.Document.Players[3].Late,
		"there at ten to: 20 min after the usual opening of a training")
	for _, block := range now.Blocks {
		if block.Kept {
			assert.GreaterOrEqual(t, block.Start, clock.Offset(-22*60), block.Name)
		}
	}
	raise := slices.IndexFunc(now.Blocks, func(b schedule.Block) bool { return b.Phase == drill.Raise })
	require.GreaterOrEqual(t, raise, 0)
	assert.True(t, now.Blocks[raise].Kept, "the pulse stays")

	for _, title := range []string{"Alone", "Alone again"} {
		ask := diary.NewSession{Kind: plan.Match, Title: title, Start: b.Document.Start, From: diary.FromComposed,
			Alone: squad.Players[9].ID}
		if title != "Alone" {
			ask.From, ask.Kind = diary.FromLast, plan.Training
		}
		added, err := p.Diary.Add(ctx, coach, ask)
		require.NoError(t, err, title)
		assert.Len(t, board(t, p, added.ID).Document.Players, 1)
	}
}

func TestANewSessionIsComposedOrLikeTheLastOfItsKind(t *testing.T) {
	p := open(t, "new", true)
	ask := diary.NewSession{Kind: plan.Training, Title: "Thursday",
		Start: clock.Start{Local: "2026-11-26T18:50", Zone: "Europe/London"}, From: diary.FromLast}
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	ask.Out = []uint64{squad.Players[2].ID}
	added, err := p.Diary.Add(ctx, coach, ask)
	require.NoError(t, err)
	b := board(t, p, added.ID)
	assert.Equal(t, "Thursday", b.Document.Title)
	assert.NotNil(t, b.Document.Block("shields"), "as on Tuesday")
	assert.Len(t, b.Document.Players, 30, "today's people, and one of them is out")
	assert.True(t, b.Schedule.Result.Feasible)

	ground, err := p.Keep.Ground(ctx, 1)
	require.NoError(t, err)
	ask.Kind, ask.From, ask.Title, ask.Venue = plan.Match, diary.FromComposed, "Cup", ground.Venues[0].ID
	ask.Bench = []uint64{squad.Players[15].ID, squad.Players[16].ID}
	ask.Late = map[uint64]int{squad.Players[5].ID: 30}
	added, err = p.Diary.Add(ctx, coach, ask)
	require.NoError(t, err)
	b = board(t, p, added.ID)
	assert.True(t, b.Schedule.Result.Feasible)
	assert.Zero(t, check.Count(b.Findings).Stops)
	assert.Len(t, b.Document.Players, 30)
	assert.Equal(t, "Tidegate", b.Document.Place)
	for _, block := range b.Document.Blocks {
		assert.NotEmpty(t, block.Why, block.ID)
	}
	sessions, _, err := p.Boards.Sessions(ctx, 1, 10)
	require.NoError(t, err)
	assert.Len(t, sessions, 5)

	ask.From, ask.Title = diary.FromEmpty, "My own"
	added, err = p.Diary.Add(ctx, coach, ask)
	require.NoError(t, err)
	own := board(t, p, added.ID)
	assert.Empty(t, own.Document.Blocks)
	assert.NotEmpty(t, own.Document.Fixed, "what a match day holds is there")

	routine := club.NewRoutine(b.Document, "Match day", "matches")
	kept, err := p.Save(ctx, coach, "kept", store.Change{Is: routine})
	require.NoError(t, err)
	ask.From, ask.Title = fmt.Sprint(kept[0]), "By routine"
	added, err = p.Diary.Add(ctx, coach, ask)
	require.NoError(t, err)
	again := board(t, p, added.ID)
	assert.Equal(t, b.Document.Content(), again.Document.Content(), "the same routine on the same day is the same list")
	assert.InEpsilon(t, b.Schedule.Result.Value, again.Schedule.Result.Value, 0.05)
}

func TestANewClubPlansWithoutNames(t *testing.T) {
	first := open(t, "first", false)
	founder, _, err := db.Clubs.Found(ctx, "Hollinmere", "Netball", "Firsts", "club",
		store.Account{Email: "a@b.example", Name: "A", Role: store.Coach}, "hash")
	require.NoError(t, err)
	ask := diary.NewSession{Kind: plan.Match, Title: "A v B",
		Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}}
	var wrong plan.Problems
	_, err = first.Diary.Add(ctx, founder, ask)
	require.ErrorAs(t, err, &wrong)
	assert.NotEmpty(t, wrong.At("players"))
	ask.Players = 12
	added, err := first.Diary.Add(ctx, founder, ask)
	require.NoError(t, err)
	b := board(t, first, added.ID)
	assert.Len(t, b.Document.Players, 12)
	assert.Equal(t, "First centre pass", b.Document.StartName)
	assert.Zero(t, check.Count(b.Findings).Stops)
	teams, err := first.Keep.Teams(ctx, founder.ClubID)
	require.NoError(t, err)
	w, err := first.Learn.Week(ctx, founder.ClubID, teams[0].ID, time.Date(2026, 11, 28, 0, 0, 0, 0, time.UTC))
	require.NoError(t, err)
	assert.Len(t, w.People, 12)
	assert.NotEmpty(t, w.Given[w.People[3].Key].Seconds, "who has no name is in the week all the same")
	for field, spoil := range map[string]func(*diary.NewSession){
		"kind":    func(n *diary.NewSession) { n.Kind = "" },
		"title":   func(n *diary.NewSession) { n.Title = "" },
		"start":   func(n *diary.NewSession) { n.Start.Local = "2026-11-20T15:00" },
		"from":    func(n *diary.NewSession) { n.From = "77" },
		"minutes": func(n *diary.NewSession) { n.Minutes = 2 },
	} {
		bad := ask
		spoil(&bad)
		_, err := first.Diary.Add(ctx, founder, bad)
		require.ErrorAs(t, err, &wrong)
		assert.NotEmpty(t, wrong.At(field), field)
	}
}

// A ruling that comes after the plan is said on its board at once, and one press
// takes it in; so it is when it is lifted.
func TestALaterRulingReachesThePlan(t *testing.T) {
	p := open(t, "later", true)
	physio := coach
	physio.Role = store.Medical
	mara := players(t, p)["Mara"].ID
	assert.Empty(t, board(t, p, 1).Newer)
	ids, err := p.Save(ctx, physio, "ruled",
		store.Change{Owner: mara, Is: club.Restriction{NoOverhead: true, From: "2026-11-25", Until: "2026-11-30"}})
	require.NoError(t, err)
	assert.Equal(t, []string{"Mara T.: nothing overhead"}, board(t, p, 1).Newer)
	assert.Empty(t, board(t, p, 3).Newer, "it is over by then")
	require.NoError(t, does(p.Boards.TakeRulings(ctx, coach, 1)))
	b := board(t, p, 1)
	assert.Empty(t, b.Newer)
	assert.Equal(t, []plan.Restriction{{Player: "p15", NoOverhead: true}}, b.Document.Restrictions)
	assert.Zero(t, check.Count(b.Findings).Stops)
	var says []string
	for _, v := range today.Versions(b.Document) {
		says = append(says, v.Words(b.Document.Block(v.Block).Items[v.Item].Drill))
	}
	assert.Contains(t, says, "Ball drop and catch, 8 catches a side, for High balls: nothing overhead",
		"the easier form, as the book has it")
	var wrong plan.Problems
	require.ErrorAs(t, does(p.Boards.Change(ctx, coach, 1, 2,
		boards.Except("restriction", "high", "she says she is fine"))), &wrong)
	assert.Contains(t, wrong.At("board"), "never overruled")
	_, err = p.Save(ctx, physio, "lifted", store.Change{ID: ids[0], Is: club.Restriction{}, Gone: true})
	require.NoError(t, err)
	assert.Equal(t, []string{"Mara T.: lifted"}, board(t, p, 1).Newer)
	require.NoError(t, does(p.Boards.TakeRulings(ctx, coach, 1)))
	assert.Empty(t, board(t, p, 1).Document.Restrictions)
}

// A ruling is made by medical staff alone, and holds on its days.
func TestARulingGoesBeforeThePlan(t *testing.T) {
	p := open(t, "ruling", true)
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	knee := club.Restriction{NoJumps: true, Spare: []string{"knee"}, From: "2026-11-25", Until: "2026-11-30",
		Reason: "a secret"}
	_, err = p.Save(ctx, coach, "ruled", store.Change{Owner: squad.Players[0].ID, Is: knee})
	assert.ErrorIs(t, err, planner.ErrForbidden)
	physio := coach
	physio.Role = store.Medical
	_, err = p.Save(ctx, physio, "a drill", store.Change{Is: club.Kit{Name: "ball", Pieces: 1}})
	assert.ErrorIs(t, err, planner.ErrForbidden)
	_, err = p.Save(ctx, physio, "ruled", store.Change{Owner: squad.Players[0].ID, Is: knee})
	require.NoError(t, err)
	for day, n := range map[string]int{"2026-11-28": 2, "2026-12-05": 1, "2026-12-26": 0} {
		// the demo has one of its own
		added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "x",
			Start: clock.Start{Local: day + "T15:00", Zone: "Europe/London"}})
		require.NoError(t, err)
		b := board(t, p, added.ID)
		assert.Len(t, b.Document.Restrictions, n, day)
		assert.Zero(t, check.Count(b.Findings).Stops)
		text, err := json.Marshal(b.Document)
		require.NoError(t, err)
		assert.NotContains(t, string(text), "secret", "the coach sees the effect, not the reason")
	}
}

func TestTheClubsBookIsItsOwn(t *testing.T) {
	p := open(t, "book", true)
	b, err := p.Books.Book(ctx, 1)
	require.NoError(t, err)
	n := len(b.Drills)
	skips, _ := b.Find("skips")
	skips.Aim = "Ours"
	require.NoError(t, p.Books.SaveDrill(ctx, coach, club.Drill{Drill: skips}, 0))
	gone, _ := b.Find("bounds")
	require.NoError(t, p.Books.SaveDrill(ctx, coach, club.Drill{Drill: gone, Gone: true}, 0))
	skips.Code, skips.Name, skips.Harder = "our-skips", "Our skips", "nowhere"
	var wrong plan.Problems
	require.ErrorAs(t, p.Books.SaveDrill(ctx, coach, club.Drill{Drill: skips}, 0), &wrong)
	assert.NotEmpty(t, wrong.At("harder"))
	skips.Harder = ""
	require.NoError(t, p.Books.SaveDrill(ctx, coach, club.Drill{Drill: skips}, 0))
	b, err = p.Books.Book(ctx, 1)
	require.NoError(t, err)
	assert.Len(t, b.Drills, n)
	changed, _ := b.Find("skips")
	assert.Equal(t, "Ours", changed.Aim)
	_, there := b.Find("bounds")
	assert.False(t, there)
	require.NoError(t, p.Books.ResetDrill(ctx, coach, "skips"))
	b, _ = p.Books.Book(ctx, 1)
	changed, _ = b.Find("skips")
	assert.NotEqual(t, "Ours", changed.Aim)
}

// weather is a forecast that answers after a while.
type weather struct {
	after time.Duration
	air   float64
	err   error
}

func (w weather) Hours(ctx context.Context, _ string, _ time.Time) (celsius, rain, wind [24]float64, err error) {
	time.Sleep(w.after)
	for h := range celsius {
		celsius[h] = w.air
	}
	return celsius, rain, wind, w.err
}

func TestNoPlanWaitsForTheForecast(t *testing.T) {
	p := office.New(&store.Store{})
	_, ok := p.Diary.Forecast(ctx, "Tidegate", now)
	assert.False(t, ok, "there is none")
	for name, w := range map[string]weather{"slow": {after: time.Minute}, "wrong": {air: 4000},
		"not a number": {air: math.NaN()}, "away": {err: errors.New("no")}} {
		p.Diary.Weather = w
		_, ok := p.Diary.Forecast(ctx, "Tidegate", now)
		assert.False(t, ok, name)
	}
	p.Diary.Weather = weather{air: 4}
	day, ok := p.Diary.Forecast(ctx, "Tidegate", now)
	assert.True(t, ok)
	assert.Equal(t, 4.0, *day.Celsius)
}

func TestCutDownsAreThere(t *testing.T) {
	p := open(t, "cuts", true)
	cuts, err := p.Boards.Cutdowns(ctx, board(t, p, 1))
	require.NoError(t, err)
	require.Greater(t, len(cuts), 3)
	assert.Equal(t, 40*60, cuts[0].Minutes)
	said := ""
	for _, cut := range cuts {
		said += strings.Join(cut.Says, ", ") + "\n"
	}
	assert.Contains(t, said, "no Bands", "a should goes before the musts do")
	for n := 1; n < len(cuts); n++ {
		assert.Less(t, cuts[n].Minutes, cuts[n-1].Minutes)
		assert.LessOrEqual(t, cuts[n].Work, cuts[n-1].Work)
	}
}

// Dragging tells the truth: what is said to move does when the block is dropped, and nothing
// else; dragging itself changes nothing.
func TestADragSaysWhatADropDoes(t *testing.T) {
	p := open(t, "drags", true)
	for _, to := range []whatif.Drop{{Does: whatif.Order, Block: "bands", At: -1500},
		{Does: whatif.Order, Block: "jumps", At: -2290}, {Does: whatif.Order, Block: "high", At: -1300},
		{Does: whatif.Order, Block: "move", At: -1000}, {Does: whatif.Hold, Block: "jumps", At: -1500},
		{Does: whatif.Order, Block: "raise", At: -60}, {Does: whatif.Doses, Block: "move", By: 40},
		{Does: whatif.Doses, Block: "bands", By: -30}, {Does: whatif.Doses, Block: "raise", By: -9000},
		{Does: whatif.Doses, Block: "raise", By: -10}, {Does: whatif.Join, Block: "high", Who: []string{"p1", "p2"}},
		{Does: whatif.Join, Block: "high", Who: []string{"p1"}}, {Does: whatif.Shift, Event: "toss", By: 130},
		{Does: whatif.Longer, Event: "toss", By: 60}, {Does: whatif.Sooner, Event: "toss", By: 900},
		{Does: whatif.Goes, Block: "bands", Zone: "gone"}, {Does: whatif.TakeOut, Block: "neck"}} {
		was := board(t, p, 1)
		says, err := p.WhatIf.Drag(ctx, 1, 1, to)
		require.NoError(t, err)
		require.Equal(t, was.Revision, board(t, p, 1).Revision)
		is, err := p.WhatIf.Drop(ctx, coach, 1, was.Revision, to)
		if says.Refused {
			assert.True(t, err != nil || !is.Schedule.Result.Feasible, says.Says)
			continue
		}
		require.NoError(t, err, says.Says)
		moves := map[string]whatif.Moved{}
		for _, m := range says.Moves {
			moves[m.ID] = m
		}
		for i := range is.Blocks {
			now := &is.Blocks[i]
			m, moved := moves[now.ID]
			if !moved {
				old := was.Blocks[slices.IndexFunc(was.Blocks, func(b schedule.Block) bool { return b.ID == now.ID })]
				assert.Equal(t, []any{old.Kept, old.Start, old.End}, []any{now.Kept, now.Start, now.End}, "%s: %s",
					to.Block, now.Name)
			} else if now.Kept {
				assert.Equal(t, []any{m.Start, m.End}, []any{now.Start, now.End}, "%s: %s", to.Block, now.Name)
			}
		}
	}
	_, err := p.WhatIf.Drag(ctx, 1, 1, whatif.Drop{Does: whatif.Order, Block: "gone", At: -900})
	assert.ErrorIs(t, err, plan.ErrNoSuchBlock)
	_, err = p.WhatIf.Drag(ctx, 2, 1, whatif.Drop{Does: whatif.Order, Block: "bands", At: -900})
	assert.ErrorIs(t, err, planner.ErrNotFound, "another club's is not there")
}
