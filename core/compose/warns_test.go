package compose_test

import (
	"context"
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/check"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

// day is one of the days that the bench composes for: any sport, method, number of
// players and minutes, in the hall, the cold, the heat and the rain.
func day(r *rand.Rand, sports []sport.Sport) compose.Brief {
	s := &sports[r.IntN(len(sports))]
	b := brief(s, []int{1, 8, 14, 23, 31, 46}[r.IntN(6)])
	b.Kind = []plan.Kind{plan.Match, plan.Training}[r.IntN(2)]
	b.Minutes = []int{12, 15, 20, 30, 45}[r.IntN(5)]
	b.Method = slices.Sorted(maps.Keys(plan.Methods))[r.IntN(len(plan.Methods))]
	air := 16.0
	switch r.IntN(4) {
	case 0: // in the hall
		for i := range b.Zones {
			b.Zones[i].Covered = true
		}
	case 1:
		air = 3
	case 2:
		air = 32
	case 3:
		b.Today.Wet = true
	}
	b.Today.Celsius = &air
	return b
}

// BenchmarkComposedWarns tells in how many of a hundred composed plans something is
// warned of, and in how many of these it could have been avoided: all but those who are
// not warm at the start of a match for which 15 minutes or fewer are given; and in how
// many something is lacking that a warm-up usually has. With WARNS set it says what.
func BenchmarkComposedWarns(b *testing.B) {
	sports := book.Sports()
	r := rand.New(rand.NewPCG(7, 1))
	const days = 400
	warned, avoidable, stopped, lacking := 0, 0, 0, 0
	rules := map[string]int{}
	for range days {
		ask := day(r, sports)
		made, err := compose.Compose(context.Background(), ask)
		require.NoError(b, err)
		tally := check.Count(made.Findings)
		if tally.Stops > 0 {
			stopped++
		}
		if tally.Warns > 0 {
			warned++
		}
		if slices.ContainsFunc(made.Findings, func(f check.Finding) bool {
			return f.Severity == check.Warn && !(f.Rule == "cool-start" && ask.Minutes <= 15)
		}) {
			avoidable++
		}
		lacks := false
		for _, one := range check.Principles(check.Input{Document: made.Document, Schedule: made.Schedule,
			Book: ask.Book, Sport: ask.Sport.Key}) {
			if one.Lacks() {
				lacks = true
				rules["lacks "+one.ID]++
				if os.Getenv("WARNS") == one.ID {
					fmt.Println(ask.Sport.Key, ask.Method, ask.Kind, ask.Minutes, "min", len(ask.Players), "players",
						*ask.Today.Celsius, ask.Today.Wet)
				}
			}
		}
		if lacks {
			lacking++
		}
		for _, f := range made.Findings {
			if f.Severity != check.Note {
				rules[f.Rule]++
				if os.Getenv("WARNS") == f.Rule {
					fmt.Println(ask.Sport.Key, ask.Method, ask.Kind, ask.Minutes, "min", len(ask.Players), "players",
						*ask.Today.Celsius, ask.Today.Wet, "|", f.What)
				}
			}
		}
	}
	if os.Getenv("WARNS") != "" {
		fmt.Println(rules)
	}
	b.ReportMetric(100*float64(avoidable)/days, "compose_warns_pct")
	b.ReportMetric(100*float64(warned)/days, "compose_all_warns_pct")
	b.ReportMetric(100*float64(lacking)/days, "compose_lacks_pct")
	b.ReportMetric(100*float64(stopped)/days, "compose_stops_pct")
}
