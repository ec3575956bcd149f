package compose_test

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/book"
	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/compose"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/sport"
)

// brief is a squad of that many at the sport's usual ground.
func brief(s *sport.Sport, players int) compose.Brief {
	b := compose.Brief{Title: "A v B", Kind: plan.Match, Start: clock.Start{Local: "2026-11-28T15:00",
		Zone: "Europe/London"}, Minutes: 50, Sport: s,
		Book: book.Drills(), Steps: 1000, Leaders: []plan.Leader{{ID: "l1", Name: "Ines"}, {ID: "l2", Name: "Pell"},
			{ID: "l3", Name: "Dorrit"}}}
	for n := range players {
		b.Players = append(b.Players, plan.Player{ID: fmt.Sprintf("p%d", n+1), Number: n + 1, First: "P",
			Last: fmt.Sprint(n + 1), Position: s.Positions[n%len(s.Positions)]})
	}
	for i, z := range s.Zones {
		b.Zones = append(b.Zones, plan.Zone{ID: fmt.Sprintf("z%d", i+1), Name: z.Name,
			Capacity: max(z.Capacity, players), Lanes: z.Lanes, Metres: float64(z.Metres), Surface: z.Surface})
	}
	return b
}

func Example() {
	rugby, _ := book.Sport("rugby-union")
	made, err := compose.Compose(context.Background(), brief(&rugby, 15))
	fmt.Println(err, check.Count(made.Findings).Stops, made.Schedule.Result.Feasible)
	fmt.Println(made.Document.Blocks[0].Why)
	// Output:
	// <nil> 0 true
	// Pulse first, then the feet; ankle, knee, hip, back and shoulder, front, side and turn plane
}

func TestEveryComposedPlanIsSoundAndSaysWhy(t *testing.T) {
	sports := book.Sports()
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.SampledFrom(sports).Draw(t, "sport")
		b := brief(&s, rapid.IntRange(2, 30).Draw(t, "players"))
		b.Kind = rapid.SampledFrom([]plan.Kind{plan.Match, plan.Training}).Draw(t, "kind")
		b.Minutes = rapid.SampledFrom([]int{25, 35, 50, 75}).Draw(t, "minutes")
		b.Grade = rapid.SampledFrom([]drill.Grade{"", drill.Junior, drill.Club, drill.Elite}).Draw(t, "grade")
		b.Turn = rapid.SampledFrom([]plan.Turn{plan.Usual, plan.First, plan.Later}).Draw(t, "turn")
		b.Method = rapid.SampledFrom([]string{"", "ramp", "five-stages", "brief-static", "ground-up",
			"countdown"}).Draw(t, "method")
		air := rapid.Float64Range(-5, 38).Draw(t, "air")
		b.Today = plan.Conditions{Celsius: &air, Wet: rapid.Bool().Draw(t, "wet"),
			Uneven: rapid.Bool().Draw(t, "uneven"), Light: rapid.Bool().Draw(t, "light"),
			HardYesterday: rapid.Bool().Draw(t, "hard")}
		if rapid.Bool().Draw(t, "bare") {
			b.Kit = map[string]int{}
		}
		for i := range b.Players {
			switch rapid.IntRange(0, 12).Draw(t, "player") {
			case 0:
				b.Bench = append(b.Bench, b.Players[i].ID)
			case 1:
				if i == 0 {
					continue // somebody is there
				}
				b.Players[i].Late = 60 * rapid.IntRange(1, 40).Draw(t, "late")
			case 2:
				b.Players[i].Loose = true
			case 4:
				b.Stiff = append(b.Stiff, b.Players[i].ID)
			case 3:
				b.Restrictions = append(b.Restrictions, plan.Restriction{Player: b.Players[i].ID, NoJumps: true,
					MaxEffort: 0.7, Spare: []string{"shoulder"}})
			}
		}
		made, err := compose.Compose(context.Background(), b)
		require.NoError(t, err)
		for _, f := range made.Findings {
			assert.NotEqual(t, check.Stop, f.Severity, "%s at %s: %s", f.Rule, f.Where, f.What)
		}
		assert.True(t, made.Schedule.Result.Feasible || b.Minutes < 50, made.Schedule.Result.Why)
		for _, block := range made.Document.Blocks {
			assert.NotEmpty(t, block.Why, block.ID)
			assert.NotEmpty(t, block.Aim, block.ID)
			for _, item := range block.Items {
				assert.True(t, item.Drill.Suits(b.Grade), "%s is for a higher level", item.Drill.Code)
			}
		}
		if rapid.IntRange(0, 3).Draw(t, "again") == 0 {
			again, err := compose.Compose(context.Background(), b)
			require.NoError(t, err)
			x, _ := json.Marshal(made)
			y, _ := json.Marshal(again)
			assert.Equal(t, string(x), string(y))
		}
	})
}

func TestEverySportsMatchDayIsWhole(t *testing.T) {
	for _, s := range book.Sports() {
		b := brief(&s, 2*len(s.Positions))
		made, err := compose.Compose(context.Background(), b)
		require.NoError(t, err, s.Key)
		require.True(t, made.Schedule.Result.Feasible, "%s: %s", s.Key, made.Schedule.Result.Why)
		routines := 0
		for i, block := range made.Document.Blocks {
			if block.Phase == drill.Sport && made.Schedule.Result.Blocks[i].Kept {
				routines++
			}
		}
		assert.Positive(t, routines, s.Key)
		for _, f := range made.Findings {
			assert.False(t, slices.Contains([]string{"plane", "joint", "no-full", "no-step"}, f.Rule), "%s: %s", s.Key,
				f.What)
		}
	}
}

func TestABriefThatDoesNotHoldIsRefused(t *testing.T) {
	rugby, _ := book.Sport("rugby-union")
	for field, spoil := range map[string]func(*compose.Brief){
		"sport":   func(b *compose.Brief) { b.Sport = nil },
		"minutes": func(b *compose.Brief) { b.Minutes = 0 },
		"players": func(b *compose.Brief) { b.Players = nil },
		"method":  func(b *compose.Brief) { b.Method = "none" },
	} {
		b := brief(&rugby, 10)
		spoil(&b)
		_, err := compose.Compose(context.Background(), b)
		var wrong plan.Problems
		require.ErrorAs(t, err, &wrong, field)
		assert.NotEmpty(t, wrong.At(field), "%s: %v", field, err)
	}
}

// A plan carries what the day, the kit and the people allow, and says so.
func TestTheDayDecidesWhatIsIn(t *testing.T) {
	rugby, _ := book.Sport("rugby-union")
	all := func(made *compose.Made, fits func(drill.Drill) bool) (n int) {
		for _, b := range made.Document.Blocks {
			for _, item := range b.Items {
				if fits(item.Drill) {
					n++
				}
			}
		}
		return n
	}
	make := func(change func(*compose.Brief)) *compose.Made {
		b := brief(&rugby, 20)
		change(&b)
		made, err := compose.Compose(context.Background(), b)
		require.NoError(t, err)
		require.Zero(t, check.Count(made.Findings).Stops)
		return made
	}
	wet := make(func(b *compose.Brief) { b.Today.Wet = true })
	assert.Zero(t, all(wet, func(d drill.Drill) bool {
		return d.Ground || d.ContactsPerUnit > 0 && d.Effort >= drill.HardEffort
	}))
	bare := make(func(b *compose.Brief) { b.Kit = map[string]int{"ball": 2} })
	assert.Zero(t, all(bare, func(d drill.Drill) bool {
		return slices.ContainsFunc(append(d.Kit, d.LaneKit...),
			func(kit string) bool { return kit != "ball" && drill.Counted(kit) })
	}))
	assert.Contains(t, strings.Join(bare.Document.Notes, ";"), "No kicks at posts: there is no tee")
	lifted := make(func(b *compose.Brief) { b.Today.AfterLoss = true })
	assert.Positive(t, all(lifted,
		func(d drill.Drill) bool { return slices.Contains(d.Qualities, "game") && d.Serves(drill.Raise) }),
		"a game lifts the mood")
	light := make(func(b *compose.Brief) { b.Kind, b.Today.Light = plan.Training, true })
	assert.Zero(t, all(light, func(d drill.Drill) bool { return d.Effort >= drill.SprintEffort }))
	loose := make(func(b *compose.Brief) { b.Players[3].Loose, b.Stiff = true, []string{"p6", "p7"} })
	assert.Equal(t, []string{"p4"}, loose.Document.Block("control").Who)
	assert.Equal(t, []string{"p6", "p7"}, loose.Document.Block("stiff").Who)
	assert.Zero(t, all(loose, func(d drill.Drill) bool { return d.EndRange }))
	young := make(func(b *compose.Brief) { b.Grade = drill.Junior })
	assert.Zero(t, all(young, func(d drill.Drill) bool { return d.Collision || d.Least != drill.Junior }))
	alone := make(func(b *compose.Brief) { b.Leaders = nil })
	assert.Contains(t, strings.Join(alone.Document.Notes, ";"), "players lead it")
	strangers := make(func(b *compose.Brief) {
		for i := range b.Players {
			b.Players[i].Position = "Cellist"
		}
	})
	assert.Contains(t, strings.Join(strangers.Document.Notes, ";"), "No scrum: no ")
	for _, b := range alone.Document.Blocks {
		assert.LessOrEqual(t, len(b.Items), 3, "kept simple")
	}
	usual := make(func(*compose.Brief) {})
	again := make(func(b *compose.Brief) {
		for _, block := range usual.Document.Blocks {
			for _, item := range block.Items {
				b.Recent = append(b.Recent, item.Drill.Code)
			}
		}
	})
	assert.Less(t, all(again, func(d drill.Drill) bool {
		return d.Phases[0] != drill.Sport && all(usual, func(e drill.Drill) bool { return e.Code == d.Code }) > 0
	}), all(usual, func(d drill.Drill) bool { return d.Phases[0] != drill.Sport }), "what was done lately gives way")
}

func TestWhoComesLateGetsTheirOwn(t *testing.T) {
	rugby, _ := book.Sport("rugby-union")
	b := brief(&rugby, 20)
	b.Players[1].Late, b.Players[4].Late = 25*60, 120
	b.Captain = "p8"
	made, err := compose.Compose(context.Background(), b)
	require.NoError(t, err)
	require.True(t, made.Schedule.Result.Feasible)
	lists := made.Schedule.All(made.Document)[len(made.Document.Blocks):]
	own := slices.IndexFunc(lists, func(b schedule.Block) bool { return b.Has("p2") })
	require.GreaterOrEqual(t, own, 0)
	assert.GreaterOrEqual(t, lists[own].Items[0].Drill.Effort, drill.DynamicEffort, "it begins with the pulse")
	assert.Zero(t, check.Count(made.Findings).Stops, "nobody sprints on a cold body")
	toss := slices.IndexFunc(made.Document.Fixed, func(f plan.Fixed) bool { return f.Name == "Toss" })
	require.GreaterOrEqual(t, toss, 0)
	assert.Equal(t, []string{"p8"}, made.Document.Members(made.Document.Fixed[toss].Who), "the captain")
}

func TestARoleIsDueByItsTurn(t *testing.T) {
	baseball, _ := book.Sport("baseball")
	for turn, due := range map[plan.Turn]clock.Offset{plan.Usual: 0, plan.First: -4 * 60, plan.Later: 8 * 60} {
		b := brief(&baseball, 9)
		b.Turn = turn
		made, err := compose.Compose(context.Background(), b)
		require.NoError(t, err)
		for i, p := range made.Document.Players {
			if p.Position == "Pitcher" {
				if turn == plan.Usual {
					due = clock.Offset(-made.Document.Margin)
				}
				assert.Equal(t, due, made.Schedule.Players[i].Due, "%q", turn)
			}
		}
	}
}

func TestADayIsTheBriefWithoutBlocks(t *testing.T) {
	rugby, _ := book.Sport("rugby-union")
	b := brief(&rugby, 15)
	b.Units = []plan.Unit{{ID: "x", Name: "Throw and catch", Players: []string{"p2", "p4", "gone"}},
		{ID: "y", Name: "Nobody", Players: []string{"gone"}}}
	d, says, err := compose.Day(b)
	require.NoError(t, err)
	assert.Empty(t, d.Blocks)
	assert.Len(t, d.Fixed, 5, "the toss too, for whoever is made captain")
	assert.Contains(t, strings.Join(says, ";"), "no captain chosen")
	assert.Equal(t, "Throw and catch", d.Units[0].Name)
	assert.Equal(t, []string{"p2", "p4"}, d.Units[0].Players)
	for _, z := range d.Zones {
		assert.Equal(t, clock.BeforeStart(0), z.Free[0].To, "%s is played on", z.Name)
	}
}

// Twenty-five minutes with ten of them in the call room are too few for every event's own
// work: some of it goes, and nobody jumps or throws cold.
func TestNobodyIsLeftColdForWantOfTime(t *testing.T) {
	s, _ := book.Sport("athletics")
	for n, method := range []string{"ramp", "five-stages", "brief-static", "ground-up", "countdown"} {
		b := brief(&s, 10+3*n)
		b.Minutes, b.Method = 25, method
		made, err := compose.Compose(context.Background(), b)
		require.NoError(t, err)
		assert.Zero(t, check.Count(made.Findings).Stops, method)
		raised := false
		for _, block := range made.Schedule.Blocks(made.Document) {
			raised = raised || block.Kept && block.Phase == drill.Raise
		}
		assert.True(t, raised, "%s: the body is raised first", method)
	}
}
