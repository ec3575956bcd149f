package planner_test

import (
	"database/sql"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/store"
)

// differs presses at the pitch side that something is different, as its page does.
func differs(t *testing.T, p *planner.Planner, id string, is conduct.Different) {
	t.Helper()
	running, err := p.Running(ctx, 1, 1)
	require.NoError(t, err)
	stand, err := running.Stand(p.Now())
	require.NoError(t, err)
	made, err := stand.Propose(ctx, is, 300)
	require.NoError(t, err)
	refused, err := p.Pressed(ctx, coach, 1, []conduct.Event{{ID: id, At: p.Now().UnixMilli(), Kind: conduct.Change, Is: &is, Placed: made.Placed}})
	require.NoError(t, err)
	require.Empty(t, refused)
}

// seen is the plan that a player sees.
func seen(t *testing.T, p *planner.Planner) *plan.Document {
	t.Helper()
	b := board(t, p, 1)
	d, err := db.Edition(ctx, 1, b.Publication.Number)
	require.NoError(t, err)
	return d.Document
}

func published(t *testing.T, p *planner.Planner) *planner.Board {
	t.Helper()
	b, err := p.Publish(ctx, coach, 1, board(t, p, 1).Revision)
	require.NoError(t, err)
	return b
}

// Whatever is published holds what medical staff have ruled by then, also from the pitch side
// of a run that began before they did; what was in stays in.
func TestThePitchSidePassesOverNoRuling(t *testing.T) {
	p := open(t, "pitchruled", true)
	first := published(t, p)
	rule := func(player string, r club.Restriction) {
		_, err := p.Save(ctx, medical, "ruled", planner.Change{Owner: first.Document.Player(player).Roster, Is: r})
		require.NoError(t, err)
	}
	had := len(first.Document.Restrictions)
	onDay(p, 40)
	differs(t, p, "one", conduct.Different{Is: conduct.IsWeather, Weather: conduct.Rain})
	rule("p14", club.Restriction{NoOverhead: true, From: "2026-11-01"})
	onDay(p, 38)
	differs(t, p, "two", conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: "hurt"})
	assert.Contains(t, seen(t, p).Restrictions, plan.Restriction{Player: "p14", NoOverhead: true})
	assert.Len(t, seen(t, p).Restrictions, had+1)
	rule("p15", club.Restriction{NoJumps: true, From: "2026-11-01"})
	_, err := p.TakeRulings(ctx, coach, 1)
	require.NoError(t, err)
	published(t, p)
	onDay(p, 36)
	differs(t, p, "three", conduct.Different{Is: conduct.IsStart, Seconds: 300, Hold: true})
	assert.Contains(t, seen(t, p).Restrictions, plan.Restriction{Player: "p15", NoJumps: true}, "what was taken in on the board stays in")
	assert.Empty(t, board(t, p, 1).Newer)
}

// A ruling and a publication at one moment: one waits for the other.
func TestNoRulingIsRacedPast(t *testing.T) {
	p := open(t, "raced", true)
	raw, err := sql.Open("mysql", server.DSN("raced"))
	require.NoError(t, err)
	defer raw.Close()
	player := board(t, p, 1).Document.Player("p14").Roster
	raced := 0
	for n := range 25 {
		revision := board(t, p, 1).Revision
		var both sync.WaitGroup
		var problem error
		both.Go(func() {
			_, err := p.Save(ctx, medical, "ruled", planner.Change{Owner: player, Is: club.Restriction{MaxMinutes: n + 1, From: "2026-11-01"}})
			assert.NoError(t, err)
		})
		both.Go(func() {
			time.Sleep(time.Duration(n%5) * 300 * time.Microsecond)
			_, problem = p.Publish(ctx, coach, 1, revision)
		})
		both.Wait()
		if problem == nil {
			var passed bool
			require.NoError(t, raw.QueryRow("SELECT (SELECT MAX(changed_at) FROM ruling) < (SELECT MAX(published_at) FROM publication)").Scan(&passed))
			assert.False(t, passed, "it was published after the ruling, without it")
			raced++
		}
		_, err = p.TakeRulings(ctx, coach, 1)
		require.NoError(t, err)
	}
	t.Log("published before the ruling:", raced, "of 25")
}

// What was changed on the board since the first press stays when something is pressed; where
// both changed one thing the pitch side holds, and both sides are told.
func TestAPitchChangeUndoesNothingOfTheBoard(t *testing.T) {
	p := open(t, "pitchmerge", true)
	published(t, p)
	onDay(p, 45)
	differs(t, p, "one", conduct.Different{Is: conduct.IsWeather, Weather: conduct.Rain})
	b := board(t, p, 1)
	_, err := p.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) { return d.Remove("high") })
	require.NoError(t, err)
	onDay(p, 44)
	differs(t, p, "two", conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: "hurt"})
	for name, d := range map[string]*plan.Document{"in force": board(t, p, 1).Document, "published": seen(t, p)} {
		assert.Nil(t, d.Block("high"), "%s: it was taken out", name)
		assert.Nil(t, d.Player("p7"), name)
		assert.True(t, d.Today.Wet, name)
	}
	trouble, clash, err := p.RunTold(ctx, 1)
	require.NoError(t, err)
	assert.Empty(t, trouble+clash)

	b = board(t, p, 1)
	_, err = p.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		d.Today.Wet = false
		return "dry again", nil
	})
	require.NoError(t, err)
	onDay(p, 43)
	cold := 3.0
	differs(t, p, "three", conduct.Different{Is: conduct.IsWeather, Celsius: &cold})
	is := board(t, p, 1)
	assert.False(t, is.Document.Today.Wet, "of the day, what each changed")
	b = board(t, p, 1)
	_, err = p.Change(ctx, coach, 1, b.Revision, func(d *plan.Document) (string, error) {
		warm := 20.0
		d.Today.Celsius = &warm
		return "20 °C", nil
	})
	require.NoError(t, err)
	onDay(p, 42)
	cold = 1
	differs(t, p, "four", conduct.Different{Is: conduct.IsWeather, Celsius: &cold})
	_, clash, err = p.RunTold(ctx, 1)
	require.NoError(t, err)
	assert.Contains(t, clash, "the pitch side's holds")
	assert.Equal(t, 1.0, *board(t, p, 1).Document.Today.Celsius)
	assert.Contains(t, board(t, p, 1).Undo, "changed on the board and at the pitch side")
}

// What was taken at the pitch side is put in force by the next start where the process was
// killed before; while something stands in the way that is said, and tried again.
func TestWhatIsDueIsFinished(t *testing.T) {
	p := open(t, "due", true)
	first := published(t, p)
	onDay(p, 40)
	is := conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: conduct.Head}
	event := conduct.Event{ID: "x", At: saturday(40), Kind: conduct.Change, Is: &is}
	_, _, err := db.JoinEvents(ctx, coach, 1, []store.Arriving{{Event: event, Changes: true, Hurt: []store.Hurt{{Person: "p7", Roster: first.Document.Player("p7").Roster, Name: "Isla", Once: "x", Kind: store.HurtHead, By: "Ines", Pressed: p.Now(), Made: p.Now()}}}}, p.Now())
	require.NoError(t, err)
	assert.NotNil(t, seen(t, p).Player("p7"), "killed here")
	require.NoError(t, p.CatchUp(ctx))
	assert.Nil(t, seen(t, p).Player("p7"))
	due, err := db.Due(ctx)
	require.NoError(t, err)
	assert.Empty(t, due)

	b := board(t, p, 1)
	_, err = p.Undo(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	back := board(t, p, 1)
	require.NotNil(t, back.Document.Player("p7"))
	_, err = p.Publish(ctx, coach, 1, back.Revision)
	var wrong plan.Problems
	require.ErrorAs(t, err, &wrong, "who had a knock to the head is in no plan that is published")
	assert.Contains(t, wrong[0].What, "until medical staff have answered")
	onDay(p, 38)
	differs(t, p, "y", conduct.Different{Is: conduct.IsWeather, Weather: conduct.Rain})
	trouble, _, err := p.RunTold(ctx, 1)
	require.NoError(t, err)
	assert.Contains(t, trouble, "knock to the head")
	assert.True(t, board(t, p, 1).Document.Today.Wet, "it is in force, if not with the players")
	assert.False(t, seen(t, p).Today.Wet)
	require.NoError(t, p.CatchUp(ctx))
	before := board(t, p, 1).Head
	onDay(p, 30) // what is under way is over its time by now
	require.NoError(t, p.CatchUp(ctx))
	assert.Equal(t, before, board(t, p, 1).Head, "trying again makes no edition")
	_, err = p.ChangeFor(ctx, coach, 1, board(t, p, 1).Revision, "", func(d *plan.Document) (string, error) { return d.SetOut("p7") })
	require.NoError(t, err)
	require.NoError(t, p.CatchUp(ctx))
	assert.True(t, seen(t, p).Today.Wet, "tried again")
	trouble, _, err = p.RunTold(ctx, 1)
	require.NoError(t, err)
	assert.Empty(t, trouble)
}

// Who is hurt is with medical staff, whatever becomes of the plan, until they have answered:
// what is said is read with a fresh password, and that it was read is written down.
func TestWhoIsHurtIsToldUntilAnswered(t *testing.T) {
	p := open(t, "answered", true)
	first := published(t, p)
	onDay(p, 40)
	player := first.Document.Player("p7")
	differs(t, p, "x", conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: conduct.Head})
	require.Nil(t, board(t, p, 1).Document.Player("p7"))
	medical := medical
	medical.Proved = p.Now()
	open, err := p.OpenHurt(ctx, medical)
	require.NoError(t, err)
	require.Len(t, open, 1)
	assert.Equal(t, player.Roster, open[0].Roster)
	stale := medical
	stale.Proved = p.Now().Add(-time.Hour)
	_, err = p.HurtRead(ctx, stale, open[0].ID)
	assert.ErrorIs(t, err, planner.ErrUnproved)
	assert.ErrorIs(t, p.AnswerHurt(ctx, stale, open[0].ID, planner.StaysOut), planner.ErrUnproved)
	assert.ErrorIs(t, p.AnswerHurt(ctx, coach, open[0].ID, planner.StaysOut), planner.ErrForbidden, "the club has medical staff")
	stranger := medical
	stranger.ClubID = 2
	assert.ErrorIs(t, p.AnswerHurt(ctx, stranger, open[0].ID, planner.StaysOut), planner.ErrNotFound)
	assert.ErrorAs(t, p.AnswerHurt(ctx, medical, open[0].ID, planner.GoesOn), new(plan.Problems), "not on the same day")
	_, err = p.HurtRead(ctx, medical, open[0].ID)
	require.NoError(t, err)
	require.NoError(t, p.AnswerHurt(ctx, medical, open[0].ID, planner.StaysOut))
	assert.ErrorIs(t, p.AnswerHurt(ctx, medical, open[0].ID, planner.GoesOn), planner.ErrStale)
	open, err = p.OpenHurt(ctx, medical)
	require.NoError(t, err)
	assert.Empty(t, open)
	mine, err := p.HurtOf(ctx, coach, player.Roster)
	require.NoError(t, err)
	require.Len(t, mine, 1, "their page keeps it")
	assert.Equal(t, "Dr Ness: stays out", planner.HurtAnswered(mine[0]))
	audited, err := db.AuditOf(ctx, 1, 0)
	require.NoError(t, err)
	assert.Equal(t, []string{"answered who is hurt", "read who is hurt"}, []string{audited[0].What, audited[1].What})
	l, err := p.Log(ctx, 1, 1)
	require.NoError(t, err)
	for _, said := range l.Differs {
		assert.NotContains(t, said, "stays", "why is for who has to know")
		assert.NotContains(t, said, "head")
	}
}

// Leaving, coming back under the same name, and being forgotten lift no ruling, and open no
// link.
func TestNothingThatHappensToAListLosesARuling(t *testing.T) {
	p := open(t, "leavers", true)
	first := published(t, p)
	player := first.Document.Player("p14")
	_, err := p.Save(ctx, medical, "ruled", planner.Change{Owner: player.Roster, Is: club.Restriction{NoOverhead: true, From: "2026-11-01"}})
	require.NoError(t, err)
	squad, err := p.Squad(ctx, 1, 0)
	require.NoError(t, err)
	refused := func(when string) {
		t.Helper()
		_, err := p.Publish(ctx, coach, 1, board(t, p, 1).Revision)
		assert.ErrorAs(t, err, new(plan.Problems), when)
	}
	refused("ruled")
	require.NoError(t, p.RemovePlayer(ctx, coach, squad, player.Roster))
	refused("the player has left the squad")
	added, err := p.Save(ctx, coach, "again", planner.Change{Owner: squad.ID, Is: club.Player{First: player.First, Last: player.Last}})
	require.NoError(t, err)
	refused("somebody of the same name is there")
	_, err = p.Change(ctx, coach, 1, board(t, p, 1).Revision, func(d *plan.Document) (string, error) {
		d.Player("p14").Roster = added[0]
		return "another row", nil
	})
	require.NoError(t, err)
	refused("the plan names the new row")

	left, err := p.LeftRulings(ctx, medical, squad.ID)
	require.NoError(t, err)
	require.Len(t, left, 1, "medical staff see it, and may lift it")
	_, err = p.LeftRulings(ctx, coach, squad.ID)
	assert.ErrorIs(t, err, planner.ErrForbidden)
	_, err = p.Save(ctx, medical, "lifted", planner.Change{ID: left[0].Ruling, Is: club.Restriction{}, Gone: true})
	require.NoError(t, err)
	_, err = p.Publish(ctx, coach, 1, board(t, p, 1).Revision)
	assert.NoError(t, err, "lifted")

	own, err := p.Shared(ctx, ways(t, p, first)["p3"])
	require.NoError(t, err)
	gone := own.Document.Player("p3")
	squad, err = p.Squad(ctx, 1, 0)
	require.NoError(t, err)
	require.NoError(t, p.Erase(ctx, coach, squad, gone.Roster))
	for _, way := range []planner.Way{ways(t, p, first)["p3"], {Token: first.Publication.Token, Person: "p3"}} {
		_, err = p.Shared(ctx, way)
		assert.ErrorIs(t, err, planner.ErrNotFound, "who is forgotten has no page")
	}
}

// ways are the players' own ways in.
func ways(t *testing.T, p *planner.Planner, b *planner.Board) map[string]planner.Way {
	links, _, err := p.OwnLinks(ctx, b)
	require.NoError(t, err)
	all := map[string]planner.Way{}
	for _, l := range links {
		all[l.Person] = planner.Way{Token: b.Publication.Token, Person: l.Person, Key: l.Path[strings.LastIndex(l.Path, "/")+1:]}
	}
	return all
}

// Of two medical invitations that went out while the club had no medical staff, the second is
// confirmed by the first who joined.
func TestWhoIsMedicalIsDecidedAtJoining(t *testing.T) {
	p := open(t, "vouched", false)
	head, err := p.Found(ctx, planner.Founding{Club: "Hollinmere", Sport: "netball", Squad: "Firsts", Grade: "club", Name: "Ada", Email: "ada@hollinmere.example", PasswordHash: "x"})
	require.NoError(t, err)
	invite := func(name string) string {
		waits, err := p.Invite(ctx, head, name, name+"@hollinmere.example", planner.Medical, "https://cue.example")
		require.NoError(t, err)
		assert.False(t, waits)
		return newestToken(t, p)
	}
	one, two := invite("kit"), invite("ada-again")
	physio, err := p.Join(ctx, one, "hash")
	require.NoError(t, err)
	_, err = p.Join(ctx, two, "hash")
	assert.ErrorIs(t, err, planner.ErrWaits)
	pending, err := p.Invitations(ctx, head.ClubID)
	require.NoError(t, err)
	require.Len(t, pending, 1)
	assert.True(t, pending[0].Waits, "medical staff see it")
	require.NoError(t, p.Confirm(ctx, physio, pending[0].ID, "https://cue.example"))
	_, err = p.Join(ctx, two, "hash")
	assert.ErrorIs(t, err, planner.ErrNotFound, "the first letter is good no more")
	_, err = p.Join(ctx, newestToken(t, p), "hash")
	assert.NoError(t, err)
}

// What is dropped on a board that is behind is what was seen there: by the blocks' names, not
// by their places in a list that has changed since.
func TestADropOnAnOlderBoardIsOfThatBoard(t *testing.T) {
	p := open(t, "olddrop", true)
	first := board(t, p, 1)
	_, err := p.Change(ctx, coach, 1, first.Revision, func(d *plan.Document) (string, error) { return d.Remove(d.Blocks[0].ID) })
	require.NoError(t, err)
	blocks := first.Schedule.Blocks(first.Document)
	team := blocks[slices.IndexFunc(blocks, func(b schedule.Block) bool { return b.ID == "jumps" })]
	b, err := p.Drop(ctx, coach, 1, first.Revision, planner.Drop{Does: planner.Order, Block: team.ID, At: first.Schedule.Blocks(first.Document)[1].Start - 600})
	require.NoError(t, err)
	assert.Nil(t, b.Document.Block(first.Document.Blocks[0].ID), "what was taken out stays out")
	assert.NotNil(t, b.Document.Block(team.ID))
	now := b.Schedule.Blocks(first.Document)
	require.Len(t, now, len(first.Document.Blocks))
	assert.False(t, now[0].Kept, "a block that the schedule does not know is not placed")
}

// The day on which a ruling holds is the club's, wherever the server is.
func TestTodayIsTheClubsDay(t *testing.T) {
	p := open(t, "clubday", true)
	p.Now = func() time.Time { return time.Date(2026, 11, 25, 23, 30, 0, 0, time.FixedZone("far west", -10*3600)) }
	day, err := p.Today(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, "2026-11-26", day)
}

// Events with odd names, of nothing, too many or days ahead are refused one by one, and the
// rest is kept.
func TestOddEventsAreRefusedOneByOne(t *testing.T) {
	p := open(t, "odd", true)
	onDay(p, 30)
	at := saturday(31)
	refused, err := p.Pressed(ctx, coach, 1, []conduct.Event{
		{ID: "\xff\xfe", At: at, Kind: conduct.Done, Block: "raise"}, {ID: "naïve", At: at, Kind: conduct.Done, Block: "raise"}, {ID: "a\nb", At: at, Kind: conduct.Done, Block: "raise"},
		{ID: "dance", At: at, Kind: conduct.Change, Is: &conduct.Different{Is: "dance"}}, {ID: "far", At: at, Kind: conduct.Change, Is: &conduct.Different{Is: conduct.IsStart, Seconds: 1 << 30}},
		{ID: "other", At: at, Account: 99, Kind: conduct.Done, Block: "raise"}, {ID: "good", At: at, Kind: conduct.Done, Block: "raise"}})
	require.NoError(t, err)
	require.Len(t, refused, 6)
	assert.Equal(t, "Not kept: nobody knows what is different.", refused[3].Says)
	assert.Contains(t, refused[5].Says, "somebody else on this phone")
	is, err := p.Running(ctx, 1, 1)
	require.NoError(t, err)
	require.Len(t, is.Events, 1)
	p.Now = func() time.Time { return now }
	refused, err = p.Pressed(ctx, coach, 1, []conduct.Event{{ID: "early", At: now.UnixMilli(), Kind: conduct.Done, Block: "raise"}})
	require.NoError(t, err)
	require.Len(t, refused, 1)
	assert.Contains(t, refused[0].Says, "can be pressed from 1")
}

// A session that has as many presses as are kept says so, and still keeps who is hurt; a phone
// gets what others pressed in pieces.
func TestAFullSessionStillKeepsWhoIsHurt(t *testing.T) {
	p := open(t, "full", true)
	onDay(p, 30)
	var many []store.Arriving
	for n := range store.MostEvents {
		many = append(many, store.Arriving{Event: conduct.Event{ID: fmt.Sprint("n", n), At: saturday(31), Kind: conduct.Note, Block: "raise", Says: strings.Repeat("x", 100)}})
	}
	_, full, err := db.JoinEvents(ctx, coach, 1, many, p.Now())
	require.NoError(t, err)
	require.Empty(t, full)
	refused, err := p.Pressed(ctx, coach, 1, []conduct.Event{{ID: "one more", At: saturday(30), Kind: conduct.Done, Block: "raise"},
		{ID: "hurt", At: saturday(30), Kind: conduct.Change, Is: &conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: conduct.Head}}})
	require.NoError(t, err)
	require.Len(t, refused, 1)
	assert.Contains(t, refused[0].Says, "20000 presses already")
	hurt, err := p.OpenHurt(ctx, coach)
	require.NoError(t, err)
	assert.Len(t, hurt, 1)
	all, pieces, last := 0, 0, uint32(0)
	for more := true; more; pieces++ {
		var some []conduct.Event
		some, last, more, err = p.Arrived(ctx, 1, 1, last)
		require.NoError(t, err)
		bytes := 0
		for _, e := range some {
			bytes += len(e.Says) + 60
		}
		assert.Less(t, bytes, 1_000_000)
		all += len(some)
	}
	assert.Equal(t, store.MostEvents+1, all)
	assert.Greater(t, pieces, 2)
}

// A role has what stands in the table, and a new one nothing; every use case that names who
// asks looks into it.
func TestEveryUseCaseAsksWhetherItMay(t *testing.T) {
	acts, roles := planner.Acts()
	for _, act := range acts {
		assert.NotEmpty(t, roles[act], act)
		assert.ErrorIs(t, planner.May(store.Account{ID: 5, ClubID: 1, Role: "masseur"}, act), planner.ErrForbidden)
		assert.ErrorIs(t, planner.May(store.Account{Role: store.Coach}, act), planner.ErrForbidden, "nobody")
	}
	assert.Equal(t, []planner.Role{planner.Medical}, roles[planner.ToRead])
	assert.Equal(t, []planner.Role{planner.Medical}, roles[planner.ToRule])
	said, err := os.ReadFile("../docs/security.md")
	require.NoError(t, err)
	for _, act := range acts {
		var names []string
		for _, role := range roles[act] {
			names = append(names, role.Name())
		}
		assert.Contains(t, string(said), fmt.Sprintf("| %s | %s |", act, strings.Join(names, ", ")), "the document has the same table")
	}
	// Those that are asked before anybody is signed in, or ask about the account itself.
	exempt := []string{"SignIn", "SignInFailed", "Prove", "Proved", "IsHead", "Audit", "KnowBrowser", "UseRecoveryCode", "RecoveryCodes", "mayChange", "mayRead"}
	files, err := filepath.Glob("*.go")
	require.NoError(t, err)
	asks := 0
	for _, name := range files {
		if strings.HasSuffix(name, "_test.go") {
			continue
		}
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		file, err := parser.ParseFile(token.NewFileSet(), name, text, 0)
		require.NoError(t, err)
		for _, d := range file.Decls {
			f, ok := d.(*ast.FuncDecl)
			if !ok || f.Recv == nil || !f.Name.IsExported() || slices.Contains(exempt, f.Name.Name) || !asksFor(f) {
				continue
			}
			body := string(text[f.Body.Pos()-1 : f.Body.End()-1])
			assert.Regexp(t, `\b(May|mayRead|mayChange|MayAnswer|IsHead)\(`, body, "%s asks nobody", f.Name.Name)
			asks++
		}
	}
	assert.Greater(t, asks, 60)
}

// asksFor tells whether a use case takes an account.
func asksFor(f *ast.FuncDecl) bool {
	return slices.ContainsFunc(f.Type.Params.List, func(p *ast.Field) bool {
		is, ok := p.Type.(*ast.Ident)
		return ok && is.Name == "Account"
	})
}
