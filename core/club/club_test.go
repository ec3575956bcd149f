package club_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

func ExampleRestriction_Words() {
	r := club.Restriction{NoJumps: true, MaxEffort: 70, Spare: []string{"knee"}, MaxMinutes: 12, From: "2026-11-25",
		Until: "2026-11-30"}
	fmt.Println(r.Words())
	fmt.Println(r.Holds("2026-11-24"), r.Holds("2026-11-30"), r.Holds("2026-12-01"))
	// Output:
	// no jumps, no more than 70 % effort, spare the knee, 12 minutes at most
	// false true false
}

func TestEachThingNamesWhatIsWrongWithIt(t *testing.T) {
	long := strings.Repeat("x", 81)
	squat := drill.Drill{Code: "squat", Name: "Squat", Aim: "Legs", Phases: []drill.Phase{drill.Activate},
		Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}}
	routine := club.Routine{Name: "R", Method: "ramp",
		Blocks: []plan.Block{{ID: "b", Name: "B", Items: []plan.Item{{Drill: squat}}}}}
	bad := func(spoil func(*club.Routine)) club.Routine { r := routine; spoil(&r); return r }
	for where, things := range map[string][]club.Thing{
		"first":      {club.Player{}, club.Player{First: long}, club.Player{First: "a\nb"}},
		"number":     {club.Player{First: "A", Number: 1000}, club.Player{First: "A", Number: -1}},
		"foot":       {club.Player{First: "A", Foot: "third"}},
		"build":      {club.Player{First: "A", Build: "bendy"}},
		"notes":      {club.Player{First: "A", Notes: strings.Repeat("x", 501)}},
		"players":    {club.Unit{Name: "U"}},
		"rules":      {club.Restriction{From: "2026-11-25"}},
		"max_effort": {club.Restriction{From: "2026-11-25", MaxEffort: 101}},
		"spare":      {club.Restriction{From: "2026-11-25", Spare: []string{"soul"}}},
		"from":       {club.Restriction{NoJumps: true}, club.Restriction{NoJumps: true, From: "25.11.2026"}},
		"until": {club.Restriction{NoJumps: true, From: "2026-11-25", Until: "2026-11-24"},
			club.Restriction{NoJumps: true, From: "2026-11-25", Until: "later"}},
		"time_zone": {club.Venue{Name: "V"}, club.Venue{Name: "V", TimeZone: "Moon/Base"}},
		"capacity":  {club.Zone{Name: "Z", Lanes: 1}},
		"lanes":     {club.Zone{Name: "Z", Capacity: 1, Lanes: 100}},
		"closes": {club.Zone{Name: "Z", Capacity: 1, Lanes: 1, Opens: "15:00", Closes: "14:00"},
			club.Zone{Name: "Z", Capacity: 1, Lanes: 1, Closes: "25:00"}},
		"pieces": {club.Kit{Name: "K", Pieces: -1}},
		"name": {club.Staff{}, club.Kit{}, club.Unit{Players: []uint64{1}}, club.Venue{TimeZone: "UTC"},
			club.Drill{Drill: drill.Drill{Code: "x", Aim: "a"}}},
		"role": {club.Staff{Name: "S", Role: long}},
		"start": {club.Fixture{UID: "u", For: plan.Match, Title: "T",
			Start: clock.Start{Local: "soon", Zone: "UTC"}}, club.Sport{Sport: sport.Sport{Key: "k", Name: "N"}}},
		"uid": {club.Fixture{For: plan.Match, Title: "T",
			Start: clock.Start{Local: "2026-11-28T15:00", Zone: "UTC"}}},
		"kind": {club.Fixture{UID: "u", For: "friendly", Title: "T",
			Start: clock.Start{Local: "2026-11-28T15:00", Zone: "UTC"}}},
		"method": {bad(func(r *club.Routine) { r.Method = "mine" })},
		"blocks": {bad(func(r *club.Routine) { r.Blocks = nil })},
		"slots": {bad(func(r *club.Routine) {
			r.Slots = []club.Slot{{Block: "b", Item: 1, Pool: []string{"squat"}}}
		}), bad(func(r *club.Routine) { r.Slots = []club.Slot{{Block: "x", Pool: []string{"squat"}}} })},
		"code":        {club.Drill{Drill: drill.Drill{Name: "n", Aim: "a", Phases: squat.Phases}}},
		"aim":         {club.Drill{Drill: drill.Drill{Code: "c", Name: "n", Phases: squat.Phases}}},
		"max_minutes": {club.Restriction{From: "2026-11-25", MaxMinutes: 999}},
	} {
		for _, thing := range things {
			var wrong plan.Problems
			require.ErrorAs(t, thing.Validate(), &wrong, "%s: %#v", where, thing)
			assert.NotEmpty(t, wrong.At(where), "%s: %v", where, wrong)
		}
	}
	assert.NoError(t, routine.Validate())
	assert.NoError(t, club.Drill{Drill: squat}.Validate())
}

func day(players int) *plan.Document {
	d := &plan.Document{
		Party: plan.Party{Leaders: []plan.Leader{{ID: "l1", Name: "Ines"}}},
		Site:  plan.Site{Zones: []plan.Zone{{ID: "z1", Name: "Near half", Capacity: 40, Lanes: 6}}},
		Work:  plan.Work{Method: "ramp"},
	}
	unit := plan.Unit{ID: "u1", Name: "Line-out"}
	for n := 1; n <= players; n++ {
		p := plan.Player{ID: fmt.Sprintf("p%d", n), First: "P", Last: fmt.Sprint(n),
			Position: []string{"Prop", "Wing"}[n%2]}
		d.Players = append(d.Players, p)
		if n%3 == 0 {
			unit.Players = append(unit.Players, p.ID)
		}
	}
	if len(unit.Players) > 0 {
		d.Units = []plan.Unit{unit}
	}
	return d
}

func simple(code string, seconds int) drill.Drill {
	return drill.Drill{Code: code, Name: strings.ToUpper(code), Aim: "Aim", Phases: []drill.Phase{drill.Raise},
		Dose: drill.Dose{Kind: drill.Time}, ContactsPerUnit: 3, Kit: []string{"ball"},
		Range: drill.Range{Min: seconds, Target: seconds, Max: seconds, Step: 1}}
}

func withBlocks(d *plan.Document) *plan.Document {
	pin := clock.BeforeStart(600)
	d.Blocks = []plan.Block{
		{ID: "all", Name: "All", Phase: drill.Raise, Who: []string{plan.Everyone}, Zone: "z1", Leader: "l1",
			Priority: plan.Must, Pin: &pin, Items: []plan.Item{{Drill: simple("jog", 60)}}},
		{ID: "unit", Name: "Unit", Phase: drill.Raise, Who: []string{"u1"}, Zone: "z1", Priority: plan.Should,
			After: []string{"one"}, Items: []plan.Item{{Drill: simple("pass", 100)}}},
		{ID: "one", Name: "One", Phase: drill.Raise, Who: []string{"p2"}, Priority: plan.Could,
			Items: []plan.Item{{Drill: simple("kick", 30)}}},
	}
	return d
}

// A routine that is kept and used on a day with the same people is the plan it
// came from; with others it names whom it went without.
func TestARoutineFitsAnotherDay(t *testing.T) {
	from := withBlocks(day(9))
	r := club.NewRoutine(from, "Match day", "home")
	require.NoError(t, r.Validate())
	assert.Equal(t, []string{"Line-out"}, r.Blocks[1].Who)
	assert.Equal(t, "P 2", r.Blocks[2].Who[0])
	find := func(string) (drill.Drill, bool) { return drill.Drill{}, false }
	same := day(9)
	assert.Empty(t, r.Use(same, find, nil))
	assert.Equal(t, from.Blocks, same.Blocks)

	few := day(1)
	few.Zones = nil
	says := r.Use(few, find, nil)
	assert.Contains(t, says, "Unit is left out: nobody for it is here")
	assert.Contains(t, says, "All: there is no Near half here")
	require.Len(t, few.Blocks, 1)
	assert.Empty(t, few.Blocks[0].Zone)
}

// Roles, lists and what is only of its day: a routine asks for the roles and keeps the
// lists; one block of it goes alone, without its minute, and beside what a plan has.
func TestARoutineHangsOnRolesAndKeepsItsLists(t *testing.T) {
	from := withBlocks(day(9))
	_, err := from.SetRole("Starter", []string{"p2"})
	require.NoError(t, err)
	starter := from.Roles()[0].ID
	from.Blocks[2].Who = []string{starter}
	_, err = from.InsertInto(plan.AfterEnd, plan.Block{Name: "Roll", Phase: drill.After, Who: []string{"u1"},
		Priority: plan.Should, Items: []plan.Item{{Drill: simple("roll", 30)}}})
	require.NoError(t, err)
	from.Blocks[0].Form, from.Blocks[0].Split = plan.AtStations, plan.ByHand
	from.Blocks[0].Groups = [][]string{{"p1"}, {"p2"}}
	r := club.NewRoutine(from, "Day", "home")
	assert.Equal(t, []string{"Starter"}, r.Roles)
	assert.Equal(t, plan.Evenly, r.Blocks[0].Split, "hand-made groups are of their day")
	assert.Nil(t, r.Blocks[0].Groups)
	find := func(string) (drill.Drill, bool) { return drill.Drill{}, false }

	other := day(9)
	_, err = other.SetRole("Starter", []string{"p7"})
	require.NoError(t, err)
	assert.Empty(t, r.Use(other, find, nil))
	assert.Equal(t, []string{"p7"}, other.Members(other.Block("one").Who), "today's starter does it")
	require.Len(t, other.Lists, 1)
	assert.Equal(t, []string{"p3", "p6", "p9"}, other.Members(other.Lists[0].Blocks[0].Who))

	nobody := day(9)
	assert.Empty(t, r.Use(nobody, find, nil), "nobody has the role yet, and nothing is lost")
	require.NotNil(t, nobody.Block("one"))
	assert.Empty(t, nobody.Members(nobody.Block("one").Who))

	alone := club.NewRoutine(from, "Kick", "", "one")
	require.Len(t, alone.Blocks, 1)
	assert.Empty(t, alone.Lists)
	beside := withBlocks(day(9))
	says, err := alone.Into(beside)
	require.NoError(t, err)
	assert.Empty(t, says)
	require.Len(t, beside.Blocks, 4)
	assert.Equal(t, "One", beside.Blocks[3].Name)
	assert.NotEqual(t, "one", beside.Blocks[3].ID, "that is another block's")
	both := club.NewRoutine(from, "Two", "", "all", "unit")
	few := day(1)
	says, err = both.Into(few)
	require.NoError(t, err)
	assert.Contains(t, says, "Unit is left out: nobody for it is here")
	require.Len(t, few.Blocks, 1)
	assert.Nil(t, few.Blocks[0].Pin, "its minute was that of its day")
	assert.Empty(t, few.Blocks[0].After)
	for len(few.Blocks) < plan.MaxBlocks {
		few.Insert(few.Blocks[0].Clone(), "")
	}
	_, err = both.Into(few)
	assert.Error(t, err)
	assert.Len(t, few.Blocks, plan.MaxBlocks)
}

func TestASlotTakesWhoseTurnItIs(t *testing.T) {
	r := club.NewRoutine(withBlocks(day(9)), "R", "")
	r.Slots = []club.Slot{{Block: "all", Item: 0, Pool: []string{"jog", "hop", "gone", "skip"}}}
	find := func(code string) (drill.Drill, bool) { return simple(code, 45), code != "gone" }
	for takes, turn := range map[string]func([]drill.Drill) *drill.Drill{"jog": nil,
		"skip": func(pool []drill.Drill) *drill.Drill { return &pool[2] }} {
		d := day(9)
		says := r.Use(d, find, turn)
		assert.Equal(t, takes, d.Blocks[0].Items[0].Drill.Code, "what is gone is passed over")
		assert.Contains(t, says[len(says)-1], "in its turn")
	}
}

func TestTheCostIsThatOfTheBusiest(t *testing.T) {
	r := club.NewRoutine(withBlocks(day(9)), "R", "")
	c := r.Cost(day(9))
	assert.Equal(t, 60+20+100+20, c.Seconds, "who is in the unit")
	assert.Equal(t, 6, c.Load.Contacts)
	assert.Equal(t, 80+120, c.Ground)
	assert.Equal(t, []string{"ball"}, c.Kit)
}

func TestWhatChangedIsSaid(t *testing.T) {
	r := club.NewRoutine(withBlocks(day(9)), "R", "")
	assert.Empty(t, r.Changed(), "it was kept once")
	was := club.NewRoutine(withBlocks(day(9)), "R", "")
	r.Was = was.Blocks
	assert.Empty(t, r.Changed())
	r.Blocks[0].Items[0].Drill.Range = drill.Range{Min: 60, Target: 90, Max: 90, Step: 30}
	r.Blocks[1].Items = append(r.Blocks[1].Items, plan.Item{Drill: simple("hop", 10)})
	r.Blocks[1].Priority = plan.Must
	r.Blocks = append(r.Blocks[:2], plan.Block{ID: "new", Name: "New"})
	assert.Equal(t, []string{"One is gone", "JOG: 1:30 min, was 1 min", "Unit was a should, is a must",
		"Unit: HOP is new", "New is new"}, r.Changed())
}

// The club's changes lie over the book, whatever either holds.
func TestTheOverlayKeepsTheClubsOwn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var book []drill.Drill
		for n := range rapid.IntRange(0, 8).Draw(t, "book") {
			book = append(book, simple(fmt.Sprintf("d%d", n), 10))
		}
		var own []club.Drill
		seen := map[string]bool{}
		for range rapid.IntRange(0, 8).Draw(t, "own") {
			code := fmt.Sprintf("d%d", rapid.IntRange(0, 12).Draw(t, "code"))
			if !seen[code] {
				seen[code] = true
				own = append(own, club.Drill{Drill: simple(code, 99), Gone: rapid.Bool().Draw(t, "gone")})
			}
		}
		got := map[string]int{}
		for _, d := range club.Overlay(book, own) {
			got[d.Code]++
			assert.Equal(t, 1, got[d.Code], "%s is there once", d.Code)
			assert.Equal(t, seen[d.Code], d.Range.Target == 99, "%s is the club's where it has one", d.Code)
		}
		for _, o := range own {
			assert.Equal(t, !o.Gone, got[o.Code] == 1, o.Code)
		}
		for _, d := range book {
			assert.True(t, seen[d.Code] || got[d.Code] == 1, d.Code)
		}
	})
}

func TestAZoneIsFreeInItsHours(t *testing.T) {
	assert.Empty(t, club.Zone{Name: "Z"}.Plan("z").Free)
	z := club.Zone{Name: "Z", Opens: "13:30", Covered: true}.Plan("z")
	assert.Equal(t, clock.AtClock("13:30"), z.Free[0].From)
	assert.Negative(t, z.Free[0].To.Before, "and on after the start")
	assert.True(t, z.Covered)
	assert.Equal(t, clock.AtClock("14:55"), club.Zone{Name: "Z", Closes: "14:55"}.Plan("z").Free[0].To)
}
