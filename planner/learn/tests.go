package learn

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/trial"
	"cuestart/planner"
	"cuestart/planner/keep"
)

// Tests are a test before and after a session, of the players of its squad who are in it.
type Tests struct {
	Test     trial.Test
	Known    []trial.Test // tests to choose from: the usual ones, and the club's
	Day      string       // 2026-11-28
	Title    string
	Players  []Tested
	Squad    trial.Change // of those who did both
	Both     bool         // two did, at least
	Noise    float64      // the test's typical error; 0: not known
	Repeats  int          // how many pairs of results it is known from
	Smallest float64      // the smallest change that matters
	Others   int          // players of the session whom the squad does not know
}

// Tested is a player with their tries.
type Tested struct {
	ID            uint64 // the club's player
	Name          string
	Before, After []float64
	Was, Is       float64 // what they come to
	Did           [2]bool // before, after
	Change        trial.Change
}

// Tests returns a test of a session; a test without a name is the one that was done last. It
// fails with ErrNotFound.
func (lr *Learn) Tests(ctx context.Context, clubID, session uint64, test trial.Test) (*Tests, error) {
	running, _, err := lr.pitchside.Whole(ctx, clubID, session)
	if err != nil {
		return nil, err
	}
	id, err := lr.logs.SquadOf(ctx, clubID, session)
	if err != nil {
		return nil, err
	}
	squad, err := lr.keep.Squad(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	all, err := lr.keep.Trials(ctx, clubID, squad)
	if err != nil {
		return nil, err
	}
	plays, err := lr.books.Sport(ctx, clubID)
	if err != nil {
		return nil, err
	}
	d := running.Document
	t := testsOf(squad, all, plays.Measures, d.Players, test, running.Schedule.Start.Format(time.DateOnly))
	t.Title = d.Title
	return t, nil
}

// testsOf is a test of a day, of the players who were there.
func testsOf(squad *keep.Squad, all []planner.Entry[club.Trial], measures []trial.Test, players []plan.Player,
	test trial.Test, day string) *Tests {
	t := &Tests{Day: day, Known: knownTests(all, measures)}
	t.Test = chosenTest(test, all, t.Known, t.Day)
	all = slices.DeleteFunc(slices.Clone(all), func(e planner.Entry[club.Trial]) bool {
		return e.Is.Test != t.Test.Name
	})
	for _, player := range players {
		known := squad.Player(player.Roster)
		if known == nil {
			t.Others++
			continue
		}
		tested := Tested{ID: known.ID, Name: player.ShortName()}
		if player.Number > 0 {
			tested.Name = fmt.Sprint(player.Number, " ", tested.Name)
		}
		for _, e := range all {
			if e.Owner == known.ID && e.Is.Day == t.Day && e.Is.Part == club.Before {
				tested.Before = e.Is.Tries
			} else if e.Owner == known.ID && e.Is.Day == t.Day && e.Is.Part == club.After {
				tested.After = e.Is.Tries
			}
		}
		t.Players = append(t.Players, tested)
	}
	t.judge(all)
	return t
}

// knownTests are what is measured in the sport, the usual tests, and those that a club has done.
func knownTests(all []planner.Entry[club.Trial], measures []trial.Test) []trial.Test {
	list := slices.Clone(measures)
	for _, usual := range trial.Known {
		if !slices.ContainsFunc(list, func(t trial.Test) bool { return t.Name == usual.Name }) {
			list = append(list, usual)
		}
	}
	for _, e := range all {
		i := slices.IndexFunc(list, func(t trial.Test) bool { return t.Name == e.Is.Test })
		test := trial.Test{Name: e.Is.Test, Unit: e.Is.Unit, Lower: e.Is.Better == club.Lower, Mean: e.Is.Mean}
		if i >= 0 {
			list[i] = test // as the club does it
		} else {
			list = append(list, test)
		}
	}
	return list
}

// chosenTest is the test that is asked for; else the one of the day, or the one done last.
func chosenTest(test trial.Test, all []planner.Entry[club.Trial], known []trial.Test, day string) trial.Test {
	if test.Name == "" {
		latest := ""
		for _, e := range all {
			if at := e.Is.Day; at >= latest && (e.Is.Part != "" || latest == "") && at <= day {
				latest, test.Name = at, e.Is.Test
			}
		}
	}
	if i := slices.IndexFunc(known, func(t trial.Test) bool { return t.Name == test.Name }); i >= 0 && test.Unit == "" {
		return known[i]
	}
	if test.Name == "" {
		return known[0]
	}
	return test
}

// judge works out results and changes, by the noise that repeated baselines show.
func (t *Tests) judge(all []planner.Entry[club.Trial]) {
	first, second := repeats(t.Test, all)
	t.Noise, t.Repeats = trial.TypicalError(first, second), len(first)
	var before, after, spread []float64
	for i := range t.Players {
		tested := &t.Players[i]
		tested.Was, tested.Did[0] = t.Test.Result(tested.Before)
		if tested.Is, tested.Did[1] = t.Test.Result(tested.After); tested.Did[0] {
			spread = append(spread, tested.Was)
		}
		if tested.Did[0] && tested.Did[1] {
			before, after = append(before, tested.Was), append(after, tested.Is)
		}
	}
	t.Smallest = trial.Worthwhile(spread)
	for i := range t.Players {
		if tested := &t.Players[i]; tested.Did[0] && tested.Did[1] {
			tested.Change = t.Test.OfPlayer(tested.Was, tested.Is, t.Noise, t.Smallest)
		}
	}
	t.Squad, t.Both = t.Test.OfSquad(before, after, t.Smallest)
}

// repeatWithin is within how many days two baselines of a player are a repeat.
const repeatWithin = 28

// repeats are baselines of players who did the test twice within a few weeks with nothing
// but their usual days between.
func repeats(test trial.Test, all []planner.Entry[club.Trial]) (first, second []float64) {
	byPlayer := map[uint64][]club.Trial{}
	for _, e := range all {
		if e.Is.Part != club.After {
			byPlayer[e.Owner] = append(byPlayer[e.Owner], e.Is)
		}
	}
	for _, list := range byPlayer {
		slices.SortFunc(list, func(a, b club.Trial) int { return strings.Compare(a.Day, b.Day) })
		for i := 1; i < len(list); i++ {
			was, err := time.Parse(time.DateOnly, list[i-1].Day)
			if is, err2 := time.Parse(time.DateOnly, list[i].Day); err != nil || err2 != nil ||
				is.Sub(was) > repeatWithin*24*time.Hour || list[i].Day == list[i-1].Day {
				continue
			}
			a, _ := test.Result(list[i-1].Tries)
			b, _ := test.Result(list[i].Tries)
			first, second = append(first, a), append(second, b)
		}
	}
	return first, second
}

// SaveTests keeps players' tries of a test on the day of a session, before and after. It
// fails with [plan.Problems] where one cannot be.
func (lr *Learn) SaveTests(ctx context.Context, by planner.Account, session uint64, test trial.Test, before,
	after map[uint64][]float64) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	t, err := lr.Tests(ctx, by.ClubID, session, test)
	if err != nil {
		return err
	}
	if problem := plan.NameProblem(test.Name); problem != "" {
		return plan.In("test", "%s", problem)
	}
	var usual []float64
	for _, tries := range before {
		usual = append(usual, tries...)
	}
	for _, tries := range after {
		usual = append(usual, tries...)
	}
	all, err := planner.Entries[club.Trial](ctx, lr.base, by.ClubID)
	if err != nil {
		return err
	}
	var changes []planner.Change
	var wrong plan.Problems
	for _, tested := range t.Players {
		for part, tries := range map[string][]float64{club.Before: before[tested.ID], club.After: after[tested.ID]} {
			for _, x := range tries {
				if problem := test.Problem(x, usual); problem != "" {
					wrong.Add(fmt.Sprint(part, "-", tested.ID), tested.Name+": "+problem)
				}
			}
			is := club.Trial{Test: test.Name, Unit: test.Unit, Better: club.Higher, Mean: test.Mean, Day: t.Day,
				Part: part, Tries: tries}
			if test.Lower {
				is.Better = club.Lower
			}
			if c, some := testChange(all, tested.ID, is); some {
				changes = append(changes, c)
			}
		}
	}
	if err := wrong.Err(); err != nil || len(changes) == 0 {
		return err
	}
	_, err = lr.base.Save(ctx, by, test.Name+" before and after "+t.Title, changes...)
	return err
}

// testChange is what is to become of a player's test; false where it stays as it is.
func testChange(all []planner.Entry[club.Trial], player uint64, trial club.Trial) (planner.Change, bool) {
	i := slices.IndexFunc(all, func(e planner.Entry[club.Trial]) bool {
		return e.Owner == player && e.Is.Test == trial.Test && e.Is.Day == trial.Day && e.Is.Part == trial.Part
	})
	switch {
	case i < 0 && len(trial.Tries) == 0:
		return planner.Change{}, false
	case i < 0:
		return planner.Change{Owner: player, Is: trial}, true
	case len(trial.Tries) == 0:
		return planner.Change{ID: all[i].ID, Edition: all[i].Edition, Is: all[i].Is, Gone: true}, true
	}
	same := slices.Equal(all[i].Is.Tries, trial.Tries) && all[i].Is.Mean == trial.Mean && all[i].Is.Unit == trial.Unit
	return planner.Change{ID: all[i].ID, Edition: all[i].Edition, Is: trial}, !same
}

// Effect is what a session's run-in did to a test.
type Effect struct {
	Session   uint64
	Title     string
	Day       string
	Change    trial.Change
	Both      bool
	Words     string
	Different []string           // from the session before it with this test
	byPlayer  map[uint64]float64 // change by player
}

// Effects are what the sessions of a squad did to a test, as the club does it, the latest
// first, each with what it had otherwise than the one before.
func (lr *Learn) Effects(ctx context.Context, clubID, squad uint64, test trial.Test) (trial.Test, []Effect, error) {
	logs, err := lr.Logs(ctx, clubID, squad, 365, 60)
	if err != nil {
		return test, nil, err
	}
	known, err := lr.keep.Squad(ctx, clubID, squad)
	if err != nil {
		return test, nil, err
	}
	all, err := lr.keep.Trials(ctx, clubID, known)
	if err != nil {
		return test, nil, err
	}
	plays, err := lr.books.Sport(ctx, clubID)
	if err != nil {
		return test, nil, err
	}
	test = chosenTest(test, nil, knownTests(all, plays.Measures), "")
	var list []Effect
	var contents []int
	for i, l := range logs {
		var players []plan.Player
		for _, a := range l.Players {
			players = append(players, plan.Player{ID: a.Person, Roster: a.Roster, First: a.Name})
		}
		t := testsOf(known, all, plays.Measures, players, test, l.Day)
		e := Effect{Session: l.Session, Title: l.Title, Day: l.Day, Change: t.Squad, Both: t.Both,
			byPlayer: map[uint64]float64{}}
		for _, tested := range t.Players {
			if tested.Did[0] && tested.Did[1] {
				e.byPlayer[tested.ID] = tested.Is - tested.Was
			}
		}
		if len(e.byPlayer) == 0 {
			continue
		}
		if e.Words = t.Test.Words(t.Squad); !t.Both {
			e.Words = "one player alone: no squad figure yet"
		}
		list, contents = append(list, e), append(contents, i)
	}
	for n := range list {
		if n+1 < len(list) {
			list[n].Different = conduct.Changed(logs[contents[n+1]].Content, logs[contents[n]].Content)
		}
	}
	return test, list, nil
}

// Against is by how much more one session's run-in changed a test than another's, player by
// player who did both; false with fewer than two of them.
func (e *Effect) Against(o *Effect, test trial.Test) (trial.Change, bool) {
	var mine, theirs []float64
	for id, by := range e.byPlayer {
		if other, both := o.byPlayer[id]; both {
			mine, theirs = append(mine, by), append(theirs, other)
		}
	}
	return test.Compared(mine, theirs, 0)
}
