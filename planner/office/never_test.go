package office_test

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/planner/office"
	"cuestart/planner/reach"
	"cuestart/planner/whatif"
	"cuestart/store"
)

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
	open, err := p.Keep.OpenHurt(ctx, medical)
	require.NoError(t, err)
	require.Len(t, open, 1)
	assert.Equal(t, player.Roster, open[0].Roster)
	stale := medical
	stale.Proved = p.Now().Add(-time.Hour)
	_, err = p.Keep.HurtRead(ctx, stale, open[0].ID)
	assert.ErrorIs(t, err, planner.ErrUnproved)
	assert.ErrorIs(t, p.Keep.AnswerHurt(ctx, stale, open[0].ID, keep.StaysOut), planner.ErrUnproved)
	assert.ErrorIs(t, p.Keep.AnswerHurt(ctx, coach, open[0].ID, keep.StaysOut), planner.ErrForbidden,
		"the club has medical staff")
	stranger := medical
	stranger.ClubID = 2
	assert.ErrorIs(t, p.Keep.AnswerHurt(ctx, stranger, open[0].ID, keep.StaysOut), planner.ErrNotFound)
	assert.ErrorAs(t, p.Keep.AnswerHurt(ctx, medical, open[0].ID, keep.GoesOn), new(plan.Problems),
		"not on the same day")
	_, err = p.Keep.HurtRead(ctx, medical, open[0].ID)
	require.NoError(t, err)
	require.NoError(t, p.Keep.AnswerHurt(ctx, medical, open[0].ID, keep.StaysOut))
	assert.ErrorIs(t, p.Keep.AnswerHurt(ctx, medical, open[0].ID, keep.GoesOn), planner.ErrStale)
	open, err = p.Keep.OpenHurt(ctx, medical)
	require.NoError(t, err)
	assert.Empty(t, open)
	mine, err := p.Keep.HurtOf(ctx, coach, player.Roster)
	require.NoError(t, err)
	require.Len(t, mine, 1, "their page keeps it")
	assert.Equal(t, "Dr Ness: stays out", keep.HurtAnswered(mine[0]))
	audited, err := db.Accounts.AuditOf(ctx, 1, 0)
	require.NoError(t, err)
	assert.Equal(t, []string{"answered who is hurt", "read who is hurt"}, []string{audited[0].What, audited[1].What})
	l, err := p.Learn.Log(ctx, 1, 1)
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
	_, err := p.Save(ctx, medical, "ruled",
		planner.Change{Owner: player.Roster, Is: club.Restriction{NoOverhead: true, From: "2026-11-01"}})
	require.NoError(t, err)
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	refused := func(when string) {
		t.Helper()
		_, err := p.Reach.Publish(ctx, coach, 1, board(t, p, 1).Revision)
		assert.ErrorAs(t, err, new(plan.Problems), when)
	}
	refused("ruled")
	require.NoError(t, p.Keep.RemovePlayer(ctx, coach, squad, player.Roster))
	refused("the player has left the squad")
	added, err := p.Save(ctx, coach, "again",
		planner.Change{Owner: squad.ID, Is: club.Player{First: player.First, Last: player.Last}})
	require.NoError(t, err)
	refused("somebody of the same name is there")
	_, err = p.Boards.Change(ctx, coach, 1, board(t, p, 1).Revision, func(d *plan.Document) (string, error) {
		d.Player("p14").Roster = added[0]
		return "another row", nil
	})
	require.NoError(t, err)
	refused("the plan names the new row")

	left, err := p.Keep.LeftRulings(ctx, medical, squad.ID)
	require.NoError(t, err)
	require.Len(t, left, 1, "medical staff see it, and may lift it")
	_, err = p.Keep.LeftRulings(ctx, coach, squad.ID)
	assert.ErrorIs(t, err, planner.ErrForbidden)
	_, err = p.Save(ctx, medical, "lifted", planner.Change{ID: left[0].Ruling, Is: club.Restriction{}, Gone: true})
	require.NoError(t, err)
	_, err = p.Reach.Publish(ctx, coach, 1, board(t, p, 1).Revision)
	assert.NoError(t, err, "lifted")

	own, err := p.Reach.Shared(ctx, ways(t, p, first)["p3"])
	require.NoError(t, err)
	gone := own.Document.Player("p3")
	squad, err = p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	require.NoError(t, p.Keep.Erase(ctx, coach, squad, gone.Roster))
	for _, way := range []reach.Way{ways(t, p, first)["p3"], {Token: first.Publication.Token, Person: "p3"}} {
		_, err = p.Reach.Shared(ctx, way)
		assert.ErrorIs(t, err, planner.ErrNotFound, "who is forgotten has no page")
	}
}

// ways are the players' own ways in.
func ways(t *testing.T, p *office.Office, b *boards.Board) map[string]reach.Way {
	links, _, err := p.Reach.OwnLinks(ctx, b)
	require.NoError(t, err)
	all := map[string]reach.Way{}
	for _, l := range links {
		all[l.Person] = reach.Way{Token: b.Publication.Token, Person: l.Person,
			Key: l.Path[strings.LastIndex(l.Path, "/")+1:]}
	}
	return all
}

// Of two medical invitations that went out while the club had no medical staff, the second is
// confirmed by the first who joined.
func TestWhoIsMedicalIsDecidedAtJoining(t *testing.T) {
	p := open(t, "vouched", false)
	head, err := p.Keep.Found(ctx, keep.Founding{Club: "Hollinmere", Sport: "netball", Squad: "Firsts", Grade: "club",
		Name: "Ada", Email: "ada@hollinmere.example", PasswordHash: "x"})
	require.NoError(t, err)
	invite := func(name string) string {
		waits, err := p.Staff.Invite(ctx, head, name, name+"@hollinmere.example", planner.Medical,
			"https://cue.example")
		require.NoError(t, err)
		assert.False(t, waits)
		return newestToken(t, p)
	}
	one, two := invite("kit"), invite("ada-again")
	physio, err := p.Staff.Join(ctx, one, "hash")
	require.NoError(t, err)
	_, err = p.Staff.Join(ctx, two, "hash")
	assert.ErrorIs(t, err, planner.ErrWaits)
	pending, err := p.Staff.Invitations(ctx, head.ClubID)
	require.NoError(t, err)
	require.Len(t, pending, 1)
	assert.True(t, pending[0].Waits, "medical staff see it")
	require.NoError(t, p.Staff.Confirm(ctx, physio, pending[0].ID, "https://cue.example"))
	_, err = p.Staff.Join(ctx, two, "hash")
	assert.ErrorIs(t, err, planner.ErrNotFound, "the first letter is good no more")
	_, err = p.Staff.Join(ctx, newestToken(t, p), "hash")
	assert.NoError(t, err)
}

// What is dropped on a board that is behind is what was seen there: by the blocks' names, not
// by their places in a list that has changed since.
func TestADropOnAnOlderBoardIsOfThatBoard(t *testing.T) {
	p := open(t, "olddrop", true)
	first := board(t, p, 1)
	_, err := p.Boards.Change(ctx, coach, 1, first.Revision,
		func(d *plan.Document) (string, error) { return d.Remove(d.Blocks[0].ID) })
	require.NoError(t, err)
	blocks := first.Schedule.Blocks(first.Document)
	team := blocks[slices.IndexFunc(blocks, func(b schedule.Block) bool { return b.ID == "jumps" })]
	b, err := p.WhatIf.Drop(ctx, coach, 1, first.Revision, whatif.Drop{Does: whatif.Order, Block: team.ID,
		At: first.Schedule.Blocks(first.Document)[1].Start - 600})
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
	day, err := p.Keep.Today(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, "2026-11-26", day)
}

// Events with odd names, of nothing, too many or days ahead are refused one by one, and the
// rest is kept.
func TestOddEventsAreRefusedOneByOne(t *testing.T) {
	p := open(t, "odd", true)
	onDay(p, 30)
	at := saturday(31)
	refused, err := p.Pitchside.Pressed(ctx, coach, 1, []conduct.Event{
		{ID: "\xff\xfe", At: at, Kind: conduct.Done, Block: "raise"},
		{ID: "naïve", At: at, Kind: conduct.Done, Block: "raise"},
		{ID: "a\nb", At: at, Kind: conduct.Done, Block: "raise"},
		{ID: "dance", At: at, Kind: conduct.Change, Is: &conduct.Different{Is: "dance"}},
		{ID: "far", At: at, Kind: conduct.Change, Is: &conduct.Different{Is: conduct.IsStart, Seconds: 1 << 30}},
		{ID: "other", At: at, Account: 99, Kind: conduct.Done, Block: "raise"},
		{ID: "good", At: at, Kind: conduct.Done, Block: "raise"}})
	require.NoError(t, err)
	require.Len(t, refused, 6)
	assert.Equal(t, "Not kept: nobody knows what is different.", refused[3].Says)
	assert.Contains(t, refused[5].Says, "somebody else on this phone")
	is, err := p.Pitchside.Running(ctx, 1, 1)
	require.NoError(t, err)
	require.Len(t, is.Events, 1)
	p.Now = func() time.Time { return now }
	refused, err = p.Pitchside.Pressed(ctx, coach, 1,
		[]conduct.Event{{ID: "early", At: now.UnixMilli(), Kind: conduct.Done, Block: "raise"}})
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
		many = append(many, store.Arriving{Event: conduct.Event{ID: fmt.Sprint("n", n), At: saturday(31),
			Kind: conduct.Note, Block: "raise", Says: strings.Repeat("x", 100)}})
	}
	_, full, err := db.Runs.JoinEvents(ctx, coach, 1, many, p.Now())
	require.NoError(t, err)
	require.Empty(t, full)
	refused, err := p.Pitchside.Pressed(ctx, coach, 1,
		[]conduct.Event{{ID: "one more", At: saturday(30), Kind: conduct.Done, Block: "raise"},
			{ID: "hurt", At: saturday(30), Kind: conduct.Change,
				Is: &conduct.Different{Is: conduct.IsOut, Who: []string{"p7"}, Why: conduct.Head}}})
	require.NoError(t, err)
	require.Len(t, refused, 1)
	assert.Contains(t, refused[0].Says, "20000 presses already")
	hurt, err := p.Keep.OpenHurt(ctx, coach)
	require.NoError(t, err)
	assert.Len(t, hurt, 1)
	all, pieces, last := 0, 0, uint32(0)
	for more := true; more; pieces++ {
		var some []conduct.Event
		some, last, more, err = p.Pitchside.Arrived(ctx, 1, 1, last)
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
	said, err := os.ReadFile("../../docs/security.md")
	require.NoError(t, err)
	for _, act := range acts {
		var names []string
		for _, role := range roles[act] {
			names = append(names, role.Name())
		}
		assert.Contains(t, string(said), fmt.Sprintf("| %s | %s |", act, strings.Join(names, ", ")),
			"the document has the same table")
	}
	// Those that are asked before anybody is signed in, or ask about the account itself.
	exempt := []string{"SignIn", "SignInFailed", "Prove", "Proved", "IsHead", "Audit", "KnowBrowser", "UseRecoveryCode",
		"RecoveryCodes"}
	files, err := filepath.Glob("../*/*.go")
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
			assert.Regexp(t, `\b(May|mayRead|mayChange|MayAnswer|IsHead|base\.Save)\(`, body, "%s asks nobody",
				f.Name.Name)
			asks++
		}
	}
	assert.Greater(t, asks, 60)
}

// asksFor tells whether a use case takes an account.
func asksFor(f *ast.FuncDecl) bool {
	return slices.ContainsFunc(f.Type.Params.List, func(p *ast.Field) bool {
		is, ok := p.Type.(*ast.SelectorExpr)
		return ok && is.Sel.Name == "Account"
	})
}
