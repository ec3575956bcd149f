package compose_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/check"
	"cuestart/core/compose"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

// placed is a drill of a composed plan with the block that it is in, in the list's order.
type placed struct {
	drill.Drill
	Block *plan.Block
	Keep  bool
}

func drillsOf(made *compose.Made) (list []placed) {
	for i := range made.Document.Blocks {
		b := &made.Document.Blocks[i]
		for _, item := range b.Items {
			list = append(list, placed{item.Drill, b, made.Schedule.Result.Blocks[i].Kept})
		}
	}
	return list
}

func composed(t *testing.T, b compose.Brief) *compose.Made {
	made, err := compose.Compose(context.Background(), b)
	require.NoError(t, err)
	return made
}

func known(t *testing.T, key string) *sport.Sport {
	s, ok := book.Sport(key)
	require.True(t, ok, key)
	return &s
}

// Every method lists its phases in its own order, and what is composed says its steps.
func TestAMethodIsTheOrderOfTheList(t *testing.T) {
	for method, is := range plan.Methods {
		for _, key := range []string{"rugby-union", "netball", "football"} {
			if _, ok := book.Sport(key); !ok {
				continue
			}
			b := brief(known(t, key), 14)
			b.Method = method
			made := composed(t, b)
			assert.True(t, made.Document.InMethodOrder(), "%s %s", method, key)
			assert.True(t, made.Schedule.Result.Feasible, "%s %s: %s", method, key, made.Schedule.Result.Why)
			var phases []drill.Phase
			for _, block := range made.Document.Blocks {
				if block.Phase != drill.Own && !slices.Contains(phases, block.Phase) {
					phases = append(phases, block.Phase)
				}
			}
			assert.Equal(t, is.Phases, phases, "%s %s: each of them is there", method, key)
			for _, f := range made.Findings {
				assert.NotEqual(t, "order", f.Rule, "%s %s: %s", method, key, f.What)
			}
		}
	}
}

// In the brief static method the last of the range is held, briefly and once warm; no
// other method holds anything still.
func TestHoldsAreBriefAndOnlyWhereTheMethodHasThem(t *testing.T) {
	for method, is := range plan.Methods {
		b := brief(known(t, "rugby-union"), 15)
		b.Method = method
		statics := 0
		for _, k := range drillsOf(composed(t, b)) {
			if !k.Static {
				continue
			}
			statics++
			assert.Equal(t, drill.Mobilise, k.Block.Phase, "%s: %s", method, k.Name)
			assert.LessOrEqual(t, k.HeldSeconds(k.Range.Target), 30.0, "%s: %s", method, k.Name)
		}
		if is.StaticOnceWarm {
			assert.Positive(t, statics, method)
		} else {
			assert.Zero(t, statics, method)
		}
	}
}

// Five stages begin with soft tissue where the minutes allow it.
func TestSoftTissueWantsMinutes(t *testing.T) {
	soft := func(minutes int) (n int) {
		b := brief(known(t, "rugby-union"), 15)
		b.Method, b.Minutes = "five-stages", minutes
		for _, k := range drillsOf(composed(t, b)) {
			if slices.Contains(k.Qualities, "tissue") {
				n++
			}
		}
		return n
	}
	assert.Zero(t, soft(20))
	assert.Positive(t, soft(50))
}

// Who is alone gets nothing that takes two, no queue and no team's words.
func TestNobodyAloneIsGivenAPartner(t *testing.T) {
	for _, s := range book.Sports() {
		for _, method := range []string{"ramp", "countdown"} {
			b := brief(&s, 1)
			b.Method, b.Kind = method, plan.Training
			made := composed(t, b)
			for _, k := range drillsOf(made) {
				assert.False(t, k.WantsPartner(), "%s %s: %s", s.Key, method, k.Name)
				assert.False(t, k.Dose.ByPair, "%s %s: %s", s.Key, method, k.Name)
			}
			for _, f := range made.Findings {
				assert.NotContains(t, []string{"queue", "idle"}, f.Rule, "%s %s: %s", s.Key, method, f.What)
				assert.NotEqual(t, check.Stop, f.Severity, "%s %s: %s", s.Key, method, f.What)
			}
		}
	}
}

// Juniors are given nothing that is above them, whatever the sport.
func TestJuniorsStayBelowTheMost(t *testing.T) {
	for _, s := range book.Sports() {
		b := brief(&s, 16)
		b.Grade = drill.Junior
		contacts := 0.0
		for _, k := range drillsOf(composed(t, b)) {
			assert.True(t, k.Suits(drill.Junior), "%s: %s", s.Key, k.Name)
			assert.False(t, k.Collision, "%s: %s at full contact", s.Key, k.Name)
			if slices.Contains(k.Block.Who, plan.Everyone) {
				contacts += k.ContactsPerUnit * float64(k.Range.Target)
			}
		}
		assert.LessOrEqual(t, contacts, 60.0, "%s: ground contacts of a junior", s.Key)
	}
}

// More minutes never take a must away, and fewer drop the coulds first.
func TestMinutesDecideHowMuchIsIn(t *testing.T) {
	seconds := map[int]int{}
	for _, minutes := range []int{15, 25, 40, 60} {
		b := brief(known(t, "rugby-union"), 22)
		b.Minutes = minutes
		made := composed(t, b)
		require.True(t, made.Schedule.Result.Feasible, "%d min: %s", minutes, made.Schedule.Result.Why)
		for i, block := range made.Document.Blocks {
			if is := made.Schedule.Result.Blocks[i]; is.Kept {
				seconds[minutes] += int(is.End-is.Start) * len(made.Document.Members(block.Who)) / 22
			}
			assert.True(t, made.Schedule.Result.Blocks[i].Kept || block.Priority != plan.Must, "%d min: %s is a must",
				minutes, block.Name)
		}
		assert.LessOrEqual(t, seconds[minutes], 60*minutes)
	}
	assert.Less(t, seconds[15], seconds[25])
	assert.Less(t, seconds[25], seconds[40])
	assert.LessOrEqual(t, seconds[40], seconds[60]+60, "but for a rep here and there: %v", seconds)
}
