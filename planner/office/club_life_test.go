package office_test

import (
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
	"cuestart/planner/office"
	"cuestart/planner/reach"
	"cuestart/store"
)

// Two servers on one database: what one changes of the drill book, the other
// knows at the next look, and neither reads it twice for nothing.
func TestTheBookIsKeptUntilItChanges(t *testing.T) {
	one := open(t, "twoservers", true)
	other := office.New(db)
	book := func(p *office.Office) *books.Book {
		b, err := p.Books.Book(ctx, 1)
		require.NoError(t, err)
		return b
	}
	first := book(one)
	assert.Same(t, first, book(one), "nothing changed")
	assert.Equal(t, first.Drills, book(other).Drills)
	ours := first.Drills[0].Clone()
	ours.Code, ours.Name = first.Free("Our own"), "Our own"
	require.NoError(t, one.Books.SaveDrill(ctx, coach, club.Drill{Drill: ours}, 0))
	for _, p := range []*office.Office{one, other} {
		found, ok := book(p).Named("our OWN")
		require.True(t, ok, "both know it")
		assert.Equal(t, ours.Code, found.Code)
	}
	assert.NotEqual(t, ours.Code, book(one).Free("Our own"), "a code is given once")
	_, err := other.Keep.TakeBack(ctx, coach)
	require.NoError(t, err)
	_, ok := book(one).Named("Our own")
	assert.False(t, ok, "taken back on the other")
	elsewhere, err := one.Books.Book(ctx, 1)
	require.NoError(t, err)
	assert.Len(t, elsewhere.Drills, len(first.Drills))
	_, err = one.Books.Book(ctx, 99)
	assert.ErrorIs(t, err, store.ErrNotFound)

	sport, err := one.Books.Sport(ctx, 1)
	require.NoError(t, err)
	mine := *sport
	mine.Start = "First whistle"
	require.NoError(t, one.Books.SaveSport(ctx, coach, mine, 0))
	theirs, err := other.Books.Sport(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, "First whistle", theirs.Start)
	assert.NotEqual(t, "First whistle", sport.Start, "what was read before stays as it was")
	own, err := other.Books.OwnSport(ctx, 1)
	require.NoError(t, err)
	require.NotNil(t, own)
	require.NoError(t, other.Books.ResetSport(ctx, coach))
	own, err = one.Books.OwnSport(ctx, 1)
	require.NoError(t, err)
	assert.Nil(t, own)
}

// A list of sessions is read from digests, which follow every change of a plan,
// every step back, and what medical staff rule.
func TestAListFollowsThePlans(t *testing.T) {
	p := open(t, "lists", true)
	listed := func() boards.Listed {
		all, more, err := p.Boards.Sessions(ctx, 1, 2)
		require.NoError(t, err)
		assert.Equal(t, 1, more)
		require.Len(t, all, 2)
		return all[0]
	}
	agree := func() {
		b, one := board(t, p, 1), listed()
		assert.Equal(t, []any{b.ID, b.Document.Title, b.Document.Place, len(b.Document.Players), b.Verdict(), b.Newer,
			b.Schedule.Start.Unix()},
			[]any{one.ID, one.Title, one.Place, one.Players, one.Verdict, one.Newer, one.Start.Unix()})
	}
	agree()
	assert.False(t, listed().Published)
	require.NoError(t, does(p.Boards.Change(ctx, coach, 1, 1, func(d *plan.Document) (string, error) {
		return d.SetHead(plan.HeadFields{Title: "Another name", Place: "Elsewhere", StartName: d.StartName,
			Method: d.Method, Open: clock.BeforeStart(20 * 60)})
	})))
	assert.Equal(t, "Another name", listed().Title)
	assert.NotEmpty(t, listed().Verdict.Cuts, "twenty minutes are too few for all of it")
	agree()
	require.NoError(t, does(p.Boards.Undo(ctx, coach, 1, 2)))
	assert.Equal(t, "Brackwater v Fellmoor", listed().Title)
	agree()
	require.NoError(t, does(p.Boards.Redo(ctx, coach, 1, 3)))
	assert.Equal(t, "Another name", listed().Title)
	require.NoError(t, does(p.Reach.Publish(ctx, coach, 1, 4)))
	assert.True(t, listed().Published)

	physio := store.Account{ID: 2, ClubID: 1, Role: store.Medical}
	player := board(t, p, 1).Document.Players[0]
	_, err := p.Save(ctx, physio, "ruled",
		planner.Change{Owner: player.Roster, Is: club.Restriction{NoJumps: true, From: "2026-11-25"}})
	require.NoError(t, err)
	assert.Equal(t, []string{player.ShortName() + ": no jumps"}, listed().Newer)
	agree()
	require.NoError(t, does(p.Boards.TakeRulings(ctx, coach, 1)))
	assert.Empty(t, listed().Newer)
	agree()
	require.NoError(t, p.Boards.Remove(ctx, coach, 1))
	all, _, err := p.Boards.Sessions(ctx, 1, 10)
	require.NoError(t, err)
	assert.Len(t, all, 2)
}

// A player who is called otherwise in the squad's list by now is the same player.
func TestARulingFindsThePlayerWhateverTheName(t *testing.T) {
	p := open(t, "renamed", true)
	squad, err := p.Keep.Squad(ctx, 1, 0)
	require.NoError(t, err)
	in := board(t, p, 1).Document.Players[0]
	k := squad.Player(in.Roster)
	require.NotNil(t, k)
	k.Is.Last = "Married-Otherwise"
	_, err = p.Save(ctx, coach, "renamed", planner.Change{ID: k.ID, Is: k.Is})
	require.NoError(t, err)
	physio := store.Account{ID: 2, ClubID: 1, Role: store.Medical}
	_, err = p.Save(ctx, physio, "ruled",
		planner.Change{Owner: k.ID, Is: club.Restriction{Spare: []string{"knee"}, From: "2026-11-25"}})
	require.NoError(t, err)
	in = board(t, p, 1).Document.Players[0]
	assert.Equal(t, "Married-Otherwise", in.Last, "the plan follows")
	assert.Equal(t, []string{in.ShortName() + ": spare the knee"}, board(t, p, 1).Newer)
	added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Match, Title: "The next",
		Start: clock.Start{Local: "2026-12-19T15:00", Zone: "Europe/London"}, From: diary.FromLast})
	require.NoError(t, err)
	next := board(t, p, added.ID).Document
	i := 0
	for next.Players[i].Roster != k.ID {
		i++ // or the test ends here
	}
	assert.Contains(t, next.Restrictions, plan.Restriction{Player: next.Players[i].ID, Spare: []string{"knee"}})
}

func TestStaffComeInByInvitation(t *testing.T) {
	p := open(t, "invited", true)
	empty, err := p.Staff.Empty(ctx)
	require.NoError(t, err)
	assert.False(t, empty)
	_, err = p.Keep.Found(ctx, keep.Founding{Club: "Second", Sport: "x", Squad: "y", Grade: "club", Name: "A",
		Email: "a@b.example", PasswordHash: "hash"})
	assert.ErrorIs(t, err, planner.ErrTaken)
	for _, role := range []planner.Role{planner.Assistant, planner.Medical} {
		_, err = p.Staff.Invite(ctx, planner.Account{ID: 1, ClubID: 1, Role: role}, "X", "x@y.example", planner.Coach,
			"https://cue.example")
		assert.ErrorIs(t, err, planner.ErrForbidden, role)
	}
	invite := func(name, email string, role planner.Role) string {
		waits, err := p.Staff.Invite(ctx, coach, name, email, role, "https://cue.example")
		require.NoError(t, err)
		require.False(t, waits)
		return newestToken(t, p)
	}
	token := invite("Ulla Renn", "ulla@brackwater.example", planner.Assistant)
	invited, err := p.Staff.Invited(ctx, token)
	require.NoError(t, err)
	assert.Equal(t, []any{"Brackwater", "Ulla Renn", planner.Assistant},
		[]any{invited.ClubName, invited.Name, invited.Role})
	_, err = p.Staff.Invited(ctx, token+"x")
	assert.ErrorIs(t, err, planner.ErrNotFound)
	joined, err := p.Staff.Join(ctx, token, "hash")
	require.NoError(t, err)
	again, _, err := p.Staff.AccountByEmail(ctx, joined.Email)
	require.NoError(t, err)
	assert.Equal(t, "Ulla Renn", again.Name)
	all, err := p.Staff.Accounts(ctx, 1)
	require.NoError(t, err)
	assert.Len(t, all, 3)
	_, err = p.Staff.Join(ctx, invite("Somebody", demo.Email, planner.Coach), "hash")
	assert.ErrorIs(t, err, planner.ErrTaken, "the e-mail has an account")
	late := invite("Late", "late@brackwater.example", planner.Coach)
	p.Now = func() time.Time { return now.Add(7*24*time.Hour + time.Second) }
	_, err = p.Staff.Join(ctx, late, "hash")
	assert.ErrorIs(t, err, planner.ErrNotFound, "a week, and no longer")
}

// newestToken is that of the link in the letter that was written last.
func newestToken(t *testing.T, p *office.Office) string {
	letters, err := p.Staff.Letters(ctx)
	require.NoError(t, err)
	require.NotEmpty(t, letters)
	found := regexp.MustCompile(`https://\S+/([\w-]{20,})`).FindStringSubmatch(letters[0].Body)
	require.Len(t, found, 2, letters[0].Body)
	return found[1]
}

// A coach makes nobody medical staff: an invitation waits until one of them confirms
// it, and its link is in the letter alone. What members may do to each other ends there.
func TestMedicalStaffAreConfirmedByMedicalStaff(t *testing.T) {
	p := open(t, "confirmed", true)
	all, err := p.Staff.Accounts(ctx, 1)
	require.NoError(t, err)
	medical := all[slices.IndexFunc(all, func(a planner.Account) bool { return a.Role == planner.Medical })]
	before, err := p.Staff.Letters(ctx)
	require.NoError(t, err)
	waits, err := p.Staff.Invite(ctx, coach, "Me Again", "me2@brackwater.example", planner.Medical,
		"https://cue.example")
	require.NoError(t, err)
	assert.True(t, waits)
	after, err := p.Staff.Letters(ctx)
	require.NoError(t, err)
	assert.Len(t, after, len(before), "no link goes out")
	pending, err := p.Staff.Invitations(ctx, 1)
	require.NoError(t, err)
	require.Len(t, pending, 1)
	assert.ErrorIs(t, p.Staff.Confirm(ctx, coach, pending[0].ID, "https://cue.example"), planner.ErrForbidden)
	require.NoError(t, p.Staff.Confirm(ctx, medical, pending[0].ID, "https://cue.example"))
	joined, err := p.Staff.Join(ctx, newestToken(t, p), "hash")
	require.NoError(t, err)
	assert.Equal(t, planner.Medical, joined.Role)

	assert.ErrorIs(t, p.Staff.SetRole(ctx, coach, coach.ID, planner.Medical), planner.ErrForbidden)
	assert.ErrorIs(t, p.Staff.RemoveMember(ctx, coach, medical.ID), planner.ErrForbidden,
		"else the next one would be confirmed by nobody")
	assert.ErrorIs(t, p.Staff.SetRole(ctx, coach, coach.ID, planner.Assistant), planner.ErrTaken,
		"the club needs a coach")
	require.NoError(t, p.Staff.RemoveMember(ctx, medical, joined.ID))
	_, _, err = p.Staff.AccountByEmail(ctx, joined.Email)
	assert.ErrorIs(t, err, planner.ErrNotFound)

	log, err := p.Staff.AuditLog(ctx, planner.Account{ID: coach.ID, ClubID: 1}, 0)
	require.NoError(t, err)
	var what []string
	for _, a := range log {
		what = append(what, a.What)
	}
	assert.Equal(t, []string{"removed a member", "joined as medical staff", "confirmed an invitation",
		"invited medical staff"}, what[:4])
	_, err = p.Staff.AuditLog(ctx, medical, 0)
	assert.ErrorIs(t, err, planner.ErrForbidden, "it is the head's")
}

// Who is removed or suspended is signed in no more; a sign-in ends after twelve hours
// without use.
func TestASignInEnds(t *testing.T) {
	p := open(t, "ends", true)
	id, err := p.Staff.SignIn(ctx, coach, "a browser")
	require.NoError(t, err)
	who, err := p.Staff.SignedIn(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, coach.ID, who.ID)
	p.Now = func() time.Time { return now.Add(11 * time.Hour) }
	_, err = p.Staff.SignedIn(ctx, id)
	require.NoError(t, err, "it is used")
	fresh, err := p.Prove(ctx, who)
	require.NoError(t, err)
	assert.False(t, fresh, "the password is eleven hours old")
	p.Now = func() time.Time { return now.Add(24 * time.Hour) }
	_, err = p.Staff.SignedIn(ctx, id)
	assert.ErrorIs(t, err, planner.ErrNotFound)
	id, err = p.Staff.SignIn(ctx, coach, "a browser")
	require.NoError(t, err)
	_, err = p.Staff.Invite(ctx, coach, "Second", "second@brackwater.example", planner.Coach, "https://cue.example")
	require.NoError(t, err)
	second, err := p.Staff.Join(ctx, newestToken(t, p), "hash")
	require.NoError(t, err)
	require.NoError(t, p.Staff.Suspend(ctx, second, coach.ID, true))
	_, err = p.Staff.SignedIn(ctx, id)
	assert.ErrorIs(t, err, planner.ErrNotFound)
	require.NoError(t, p.Staff.Suspend(ctx, second, coach.ID, false))
	require.NoError(t, p.Staff.Forgot(ctx, demo.Email, "https://cue.example"))
	token := newestToken(t, p)
	_, err = p.Staff.Reset(ctx, token, "another hash")
	require.NoError(t, err)
	_, err = p.Staff.Reset(ctx, token, "a third")
	assert.ErrorIs(t, err, planner.ErrNotFound, "a link is good once")
	_, secrets, err := p.Staff.AccountByEmail(ctx, demo.Email)
	require.NoError(t, err)
	assert.Equal(t, "another hash", secrets.PasswordHash)
}

// A change that is sent twice is made once; another is another.
func TestWhatIsSentTwiceIsMadeOnce(t *testing.T) {
	p := open(t, "once", true)
	add := func(name string) error {
		_, err := p.Save(planner.Once(ctx, coach.ID, name), coach, "added",
			planner.Change{Owner: 1, Is: club.Player{First: "Twin"}})
		return err
	}
	before, err := p.Keep.Squad(ctx, 1, 1)
	require.NoError(t, err)
	require.NoError(t, add("one"))
	assert.ErrorIs(t, add("one"), planner.ErrDone)
	require.NoError(t, add("two"))
	after, err := p.Keep.Squad(ctx, 1, 1)
	require.NoError(t, err)
	assert.Len(t, after.Players, len(before.Players)+2)
}

// A person's data are theirs to have, and to have forgotten: in every plan that is kept
// they are a former player then.
func TestAPersonIsForgotten(t *testing.T) {
	p := open(t, "forgotten", true)
	squad, err := p.Keep.Squad(ctx, 1, 1)
	require.NoError(t, err)
	b := board(t, p, 1)
	i := slices.IndexFunc(b.Document.Players, func(x plan.Player) bool { return x.Roster == squad.Players[0].ID })
	require.GreaterOrEqual(t, i, 0)
	whom := squad.Players[0]
	_, err = p.Reach.Publish(ctx, coach, 1, b.Revision)
	require.NoError(t, err)
	person, err := p.Keep.Person(ctx, coach, squad, whom.ID)
	require.NoError(t, err)
	assert.NotEmpty(t, person.Tests)
	assert.Contains(t, fmt.Sprint(person.Sessions), b.Document.Title)
	require.NoError(t, p.Keep.Erase(ctx, coach, squad, whom.ID))
	after := board(t, p, 1)
	assert.Equal(t, store.FormerPlayer, after.Document.Players[i].First)
	shared, err := p.Reach.Shared(ctx, reach.Way{Token: after.Publication.Token})
	require.NoError(t, err)
	for _, d := range []*plan.Document{after.Document, shared.Document} {
		text, err := json.Marshal(d)
		require.NoError(t, err)
		assert.NotContains(t, string(text), whom.Is.Last)
	}
	squad, err = p.Keep.Squad(ctx, 1, 1)
	require.NoError(t, err)
	assert.Nil(t, squad.Player(whom.ID))
	_, err = p.Keep.TakeBack(ctx, coach)
	assert.ErrorIs(t, err, planner.ErrNothing, "and is not brought back")
}

func TestAFixtureWaitsForItsRunIn(t *testing.T) {
	p := open(t, "fixtures", true)
	fixture := func(title, local string) planner.Change {
		return planner.Change{Is: club.Fixture{UID: title, For: plan.Match, Title: title,
			Start: clock.Start{Local: local, Zone: "Europe/London"}}}
	}
	ids, err := p.Save(ctx, coach, "three", fixture("Far", "2027-01-09T15:00"), fixture("Near", "2026-12-12T15:00"),
		fixture("Gone", "2026-10-03T15:00"), fixture("Brackwater v Fellmoor", "2026-11-28T15:00"))
	require.NoError(t, err)
	waiting := func() (titles []string) {
		sessions, _, err := p.Boards.Sessions(ctx, 1, 10)
		require.NoError(t, err)
		list, err := p.Diary.ToCome(ctx, 1, sessions)
		require.NoError(t, err)
		for _, f := range list {
			titles = append(titles, f.Is.Title)
		}
		return titles
	}
	assert.Equal(t, []string{"Near", "Far"}, waiting(), "the nearest first, none that was or that has its run-in")
	require.NoError(t, p.Keep.Planned(ctx, coach, ids[1]))
	require.NoError(t, p.Keep.Planned(ctx, coach, ids[1]), "gone already is no failure")
	assert.Equal(t, []string{"Far"}, waiting())
	_, err = p.Keep.Fixture(ctx, 1, ids[1])
	assert.ErrorIs(t, err, planner.ErrNotFound)
	_, err = p.Keep.Fixture(ctx, 2, ids[0])
	assert.ErrorIs(t, err, planner.ErrNotFound, "another club's")
}

func TestAFurtherSquadHasItsOwnName(t *testing.T) {
	p := open(t, "squads", true)
	var wrong plan.Problems
	for _, bad := range []struct {
		name  string
		grade drill.Grade
	}{{"", drill.Club}, {"Thirds", "world"}, {"a\nb", drill.Club}} {
		_, err := p.Keep.AddSquad(ctx, coach, bad.name, bad.grade)
		assert.ErrorAs(t, err, &wrong, "%q", bad.name)
	}
	_, err := p.Keep.AddSquad(ctx, coach, "Under 16", drill.Junior)
	assert.ErrorIs(t, err, planner.ErrTaken)
	id, err := p.Keep.AddSquad(ctx, coach, "Thirds", drill.Club)
	require.NoError(t, err)
	squad, err := p.Keep.Squad(ctx, 1, id)
	require.NoError(t, err)
	assert.Empty(t, squad.Players)
	_, err = p.Keep.Squad(ctx, 2, id)
	assert.ErrorIs(t, err, planner.ErrNotFound)
	_, err = p.Save(ctx, coach, "two at once", planner.Change{Owner: id, Is: club.Player{Number: 5, First: "Nova"}},
		planner.Change{Owner: id, Is: club.Player{Number: 5, First: "Zilla"}})
	assert.ErrorIs(t, err, planner.ErrTaken)
	_, err = p.Save(ctx, coach, "nothing", planner.Change{})
	assert.Error(t, err, "a change that names no thing is a bug, not a panic")
	_, err = p.Save(ctx, coach, "nowhere", planner.Change{Owner: 4711, Is: club.Player{First: "Nova"}})
	assert.ErrorIs(t, err, planner.ErrNotFound)
	_, err = p.Save(ctx, coach, "ruled",
		planner.Change{Owner: 1, Is: club.Restriction{NoJumps: true, From: "2026-11-25"}})
	assert.ErrorIs(t, err, planner.ErrForbidden)
}
