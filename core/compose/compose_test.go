package compose_test

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
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
	"cuestart/core/sport"
)

// brief is a squad of that many at the sport's usual ground.
func brief(s *sport.Sport, players int) compose.Brief {
	b := compose.Brief{Title: "A v B", Kind: plan.Match, Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, Minutes: 50, Sport: s,
		Book: book.Drills(), Steps: 1000, Leaders: []plan.Leader{{ID: "l1", Name: "Ines"}, {ID: "l2", Name: "Pell"}, {ID: "l3", Name: "Dorrit"}}}
	for n := range players {
		b.Players = append(b.Players, plan.Player{ID: fmt.Sprintf("p%d", n+1), Number: n + 1, First: "P", Last: fmt.Sprint(n + 1), Position: s.Positions[n%len(s.Positions)]})
	}
	for i, z := range s.Zones {
		b.Zones = append(b.Zones, plan.Zone{ID: fmt.Sprintf("z%d", i+1), Name: z.Name, Capacity: max(z.Capacity, players), Lanes: z.Lanes, Metres: z.Metres, Surface: z.Surface})
	}
	return b
}

func Example() {
	rugby, _ := book.Sport("rugby-union")
	made, err := compose.Compose(context.Background(), brief(&rugby, 15))
	fmt.Println(err, check.Stops(made.Findings), made.Schedule.Result.Feasible)
	fmt.Println(made.Document.Blocks[0].Why)
	// Output:
	// <nil> 0 true
	// Pulse first, then the feet; ankle, knee, hip, back and shoulder, front, side and turn plane; about 4:10
}

func TestEveryComposedPlanIsSoundAndSaysWhy(t *testing.T) {
	sports := book.Sports()
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.SampledFrom(sports).Draw(t, "sport")
		b := brief(&s, rapid.IntRange(2, 30).Draw(t, "players"))
		b.Kind = rapid.SampledFrom([]plan.Kind{plan.Match, plan.Training}).Draw(t, "kind")
		b.Minutes = rapid.SampledFrom([]int{25, 35, 50, 75}).Draw(t, "minutes")
		b.Grade = rapid.SampledFrom([]drill.Grade{"", drill.Junior, drill.Club, drill.Elite}).Draw(t, "grade")
		b.Turn = rapid.SampledFrom([]compose.Turn{compose.Usual, compose.First, compose.Later}).Draw(t, "turn")
		b.Method = rapid.SampledFrom([]string{"", "ramp", "five-stages", "brief-static", "ground-up", "countdown"}).Draw(t, "method")
		air := rapid.Float64Range(-5, 38).Draw(t, "air")
		b.Today = plan.Conditions{Celsius: &air, Wet: rapid.Bool().Draw(t, "wet"), Uneven: rapid.Bool().Draw(t, "uneven"), Light: rapid.Bool().Draw(t, "light"), HardYesterday: rapid.Bool().Draw(t, "hard")}
		if rapid.Bool().Draw(t, "bare") {
			b.Kit = map[string]int{}
		}
		for i := range b.Players {
			switch rapid.IntRange(0, 12).Draw(t, "player") {
			case 0:
				b.Bench = append(b.Bench, b.Players[i].ID)
			case 1:
				b.Players[i].Late = 60 * rapid.IntRange(1, 40).Draw(t, "late")
			case 2:
				b.Players[i].Loose = true
			case 3:
				b.Restrictions = append(b.Restrictions, plan.Restriction{Player: b.Players[i].ID, NoJumps: true, MaxEffort: 0.7, Spare: []string{"shoulder"}})
			}
		}
		made, err := compose.Compose(context.Background(), b)
		require.NoError(t, err)
		for _, f := range made.Findings {
			if f.Severity == check.Stop {
				for i, bl := range made.Document.Blocks {
					r := made.Schedule.Result.Blocks[i]
					fmt.Println("XX", bl.ID, bl.Phase, r.Kept, r.Start.ToGo(), r.End.ToGo(), r.Why, len(bl.Who))
					for _, it := range bl.Items {
						fmt.Println("    ", it.Drill.Code, it.Drill.Range, it.Drill.Effort)
					}
				}
				fmt.Println("XX", f.Players, made.Says)
			}
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
		again, err := compose.Compose(context.Background(), b)
		require.NoError(t, err)
		x, _ := json.Marshal(made)
		y, _ := json.Marshal(again)
		assert.Equal(t, string(x), string(y))
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
			assert.False(t, slices.Contains([]string{"plane", "joint", "no-full", "no-step"}, f.Rule), "%s: %s", s.Key, f.What)
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
