package office_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
)

// A club begins at home: in its own units and time, with a ground, and what a week of its sport should
// hold; a pasted squad is put right by the next paste, and nobody is lost by one.
func TestAClubBeginsAtHome(t *testing.T) {
	p := open(t, "begins", false)
	coach, err := p.Keep.Found(ctx, keep.Founding{Club: "Hollinmere", Sport: "softball", Squad: "Firsts", Grade: "club",
		Name: "Ada", Email: "ada@hollinmere.example", PasswordHash: "x", Zone: "America/Denver"})
	require.NoError(t, err)
	plays, err := p.Books.Sport(ctx, coach.ClubID)
	require.NoError(t, err)
	assert.Equal(t, measure.System{Yards: true, Fahrenheit: true, Miles: true}, plays.System, "as is usual there")
	ground, err := p.Keep.Ground(ctx, coach.ClubID)
	require.NoError(t, err)
	require.Len(t, ground.Venues, 1)
	assert.Equal(t, club.Venue{Name: "Home", TimeZone: "America/Denver"}, ground.Venues[0].Is)
	require.Len(t, ground.Venues[0].Zones, len(plays.Zones))
	assert.Equal(t, "45 yd", plays.System.Length(ground.Venues[0].Zones[0].Is.Metres), "even in its units")
	require.NoError(t, p.Keep.OtherZones(ctx, coach, ground.Venues[0].ID))
	assert.ErrorIs(t, p.Keep.OtherZones(ctx, coach, 99), planner.ErrNotFound)

	squad, err := p.Keep.Squad(ctx, coach.ClubID, 0)
	require.NoError(t, err)
	took, err := p.Keep.TakeNames(ctx, coach, squad,
		"1 Ana Birk - slapper, bats L\n2 Cleo Daunt - rover\n3 Eve Fenn - CF")
	require.NoError(t, err)
	assert.Equal(t, 3, took.Added, took.Problems)
	squad, _ = p.Keep.Squad(ctx, coach.ClubID, 0)
	assert.Equal(t, []keep.Asked{{Said: "rover", Like: squad.AskPositions(plays)[0].Like}}, squad.AskPositions(plays))
	require.NoError(t, p.Keep.AnswerPosition(ctx, coach, squad, "rover", "Centre field"))
	squad, _ = p.Keep.Squad(ctx, coach.ClubID, 0)
	took, err = p.Keep.TakeNames(ctx, coach, squad, "Ana Birk\n9 Cleo Daunt\n1 Rhea Gale, rover\n"+strings.Repeat("x",
		100))
	require.NoError(t, err)
	assert.Equal(t, []int{1, 1, 1}, []int{took.Added, took.Changed, took.Same},
		"the rest of what is known of them stays")
	assert.Len(t, took.Problems, 2, "a number that somebody has, a name that is too long: %v", took.Problems)
	assert.Equal(t, strings.Repeat("x", 100)+"\n", took.Left)
	squad, _ = p.Keep.Squad(ctx, coach.ClubID, 0)
	var all []string
	for _, k := range squad.Players {
		all = append(all, fmt.Sprint(k.Is.Number, " ", k.Is.First, " ", k.Is.Position, " ", k.Is.Bats))
	}
	assert.ElementsMatch(t, []string{"1 Ana Hitter left", "3 Eve Centre field ", "9 Cleo Centre field ",
		"0 Rhea Centre field "}, all)
	took, err = p.Keep.TakeNames(ctx, coach, squad, "5 Ivy Noyce\n5 Jo Oakes")
	require.NoError(t, err)
	assert.Equal(t, 2, took.Added)
	assert.Equal(t, []string{"Line 2: number 5 is somebody else's: Jo Oakes has none"}, took.Problems,
		"the first keeps it, and it is said")
	viewer := coach
	viewer.Role = planner.Medical
	_, err = p.Keep.TakeNames(ctx, viewer, squad, "Uma")
	assert.Error(t, err, "who may not keep the squad")
}

// Away, the ground is the squad's from so many minutes before the start; at home from the hours of
// its own. Where the sport settles who begins at home, nobody has to say it, and what is said goes.
func TestAMatchAwayIsAnotherDay(t *testing.T) {
	p := open(t, "away", false)
	coach, err := p.Keep.Found(ctx, keep.Founding{Club: "Hollinmere", Sport: "ice-hockey", Squad: "Firsts",
		Grade: "club", Name: "Ada", Email: "ada@hollinmere.example", PasswordHash: "x", Zone: "Europe/London"})
	require.NoError(t, err)
	ground, err := p.Keep.Ground(ctx, coach.ClubID)
	require.NoError(t, err)
	match := diary.NewSession{Kind: plan.Match, Title: "Saturday",
		Start: clock.Start{Local: "2026-12-12T15:00", Zone: "Europe/London"}, Players: 16, Minutes: 60}
	made := func(n diary.NewSession) *plan.Document {
		added, err := p.Diary.Add(ctx, coach, n)
		require.NoError(t, err)
		b, err := p.Boards.Board(ctx, coach.ClubID, added.ID)
		require.NoError(t, err)
		for _, x := range b.Blocks {
			for _, z := range b.Document.Zones {
				if x.Kept && x.Zone == z.ID && z.Surface == "ice" && n.Venue == 0 {
					assert.GreaterOrEqual(t, x.Start, clock.Offset(-25*60), "%s on ice that is not ours yet", x.Name)
				}
			}
		}
		return b.Document
	}
	away := made(match)
	match.Venue = ground.Venues[0].ID
	home := made(match)
	assert.Equal(t, []plan.Turn{plan.Later, plan.First}, []plan.Turn{away.Turn, home.Turn}, "who has the last change")
	plays, err := p.Books.Sport(ctx, coach.ClubID)
	require.NoError(t, err)
	there, _ := plays.At(true)
	assert.Equal(t, plays.Margin+1, there.Margin)
	assert.Equal(t,
		"On the road: the ground is yours 25 min before, work ends 1 min sooner, last change theirs unless you "+
			"say otherwise.",
		plays.Says(true))
	match.Turn = plan.Later
	assert.Equal(t, plan.Later, made(match).Turn)
	match.Kind, match.Venue, match.Turn = plan.Training, 0, ""
	assert.Equal(t, plan.Usual, made(match).Turn, "a training is nobody's match")
}
