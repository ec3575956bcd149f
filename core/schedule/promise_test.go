package schedule_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
)

// written draws a plan as a coach writes it: blocks of any phases, in any order, for the
// squad, a few or one, on any day.
func written(t *rapid.T, minutes int) *plan.Document {
	air := rapid.Float64Range(-10, 38).Draw(t, "air")
	d := &plan.Document{
		Format: plan.Format,
		Title:  "A v B",
		Kind:   plan.Match,
		Party:  plan.Party{Grade: rapid.SampledFrom([]drill.Grade{drill.Club, drill.Junior}).Draw(t, "grade")},
		Site: plan.Site{Today: plan.Conditions{Celsius: &air},
			Zones: []plan.Zone{{ID: "z", Name: "Ground", Capacity: 40, Lanes: 6, Metres: 20,
				Covered: rapid.Bool().Draw(t, "indoors")}}},
		Hours: plan.Hours{Start: clock.Start{Local: "2026-11-28T15:00", Zone: "UTC"},
			Open: clock.BeforeStart(minutes*60 + 300), Margin: 300},
		Work: plan.Work{Method: plan.DefaultMethod},
	}
	for i := range 6 {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i), First: "P", Last: fmt.Sprint(i)})
	}
	for i := range rapid.IntRange(2, 5).Draw(t, "blocks") {
		b := plan.Block{ID: fmt.Sprint("b", i), Name: fmt.Sprint("B", i),
			Phase: drill.Phases[rapid.IntRange(0, 4).Draw(t, "phase")], Zone: "z", Priority: plan.Should,
			Who:    rapid.SampledFrom([][]string{{plan.Everyone}, {"p0", "p1"}, {"p2"}}).Draw(t, "who"),
			Rounds: rapid.IntRange(0, 3).Draw(t, "rounds")}
		b.Excusable = b.Who[0] == plan.Everyone
		for n := range rapid.IntRange(1, 3).Draw(t, "drills") {
			amount := rapid.IntRange(1, 12).Draw(t, "amount")
			b.Items = append(b.Items,
				plan.Item{Written: true, Drill: drill.Drill{Code: fmt.Sprint("d", i, n), Name: fmt.Sprint("D", n),
					Aim: "why", Phases: []drill.Phase{b.Phase},
					Effort: rapid.SampledFrom([]float64{0.3, 0.5, 0.95}).Draw(t, "effort"),
					Dose: drill.Dose{Kind: drill.Reps, Sets: rapid.IntRange(1, 3).Draw(t, "sets"), Sides: 1,
						RepSeconds: 3, RestSeconds: 10},
					Range: drill.Range{Min: (amount + 1) / 2, Target: amount, Max: amount + (amount+1)/2, Step: 1}}})
		}
		d.Blocks = append(d.Blocks, b)
	}
	return d
}

// While there are minutes for it, everything is as it was written: in frost and heat, for
// juniors, under a roof.
func TestWhatWasWrittenStaysWhileThereAreMinutes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := written(t, 400)
		s, err := schedule.Fit(context.Background(), d, 0)
		require.NoError(t, err)
		require.True(t, s.Result.Feasible, s.Result.Why)
		for i, b := range s.Blocks(d) {
			require.True(t, b.Kept, b.Name)
			assert.Empty(t, b.Cut)
			assert.Equal(t, max(1, d.Blocks[i].Rounds), max(1, b.Rounds))
			for n, item := range d.Blocks[i].Items {
				assert.Equal(t, item.Drill.Words(item.Drill.Range.Target), b.Items[n].Drill.Words(b.Amount(n)))
			}
		}
	})
}

// With fewer minutes no dose is longer, none comes back, rounds and sets go before reps, and
// the pulse stays as long as anything does.
func TestFewerMinutesLengthenNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := written(t, rapid.IntRange(10, 40).Draw(t, "minutes"))
		c, err := schedule.Compile(d)
		require.NoError(t, err)
		cuts, err := runin.Cutdowns(context.Background(), &c.Problem, 2000)
		require.NoError(t, err)
		for n, cut := range cuts {
			for i, b := range cut.Result.Blocks {
				if n > 0 {
					was := cuts[n-1].Result.Blocks[i]
					assert.LessOrEqual(t, b.End-b.Start, was.End-was.Start, "%s with %d s less", b.ID, cut.Less)
				}
				if c.Problem.Blocks[i].Pulse && cut.Result.Feasible {
					assert.True(t, b.Kept, "the pulse stays")
				}
			}
		}
	})
}

// What if there were so many minutes, and as many minutes to go at the pitch side, have one
// answer.
func TestWhatIfAndThePitchSideAnswerAlike(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := written(t, rapid.IntRange(15, 40).Draw(t, "minutes"))
		s, err := schedule.Fit(context.Background(), d, 2000)
		require.NoError(t, err)
		minutes := rapid.IntRange(8, 14).Draw(t, "left")
		supposed := d.Clone()
		_, err = s.Suppose(supposed, schedule.Supposed{Is: schedule.IfMinutes, Minutes: minutes})
		require.NoError(t, err)
		desk, err := schedule.Fit(context.Background(), supposed, 2000)
		require.NoError(t, err)
		var stood []schedule.Stood
		for _, b := range s.Blocks(d) {
			stood = append(stood, schedule.Stood{Block: b.ID, Kept: b.Kept, Start: b.Start, End: b.End})
		}
		pitch, err := schedule.Refit(context.Background(), d, stood, clock.Offset(-minutes*60), 2000)
		require.NoError(t, err)
		assert.Equal(t, desk.Result.Feasible, pitch.Result.Feasible)
		assert.InDelta(t, desk.Result.Value, pitch.Result.Value, 1e-6)
		assert.Equal(t, desk.Result.Idle, pitch.Result.Idle)
		at := pitch.Blocks(d)
		for i, b := range desk.Blocks(d) {
			assert.Equal(t, []any{b.Kept, b.Start, b.End, b.Cut}, []any{at[i].Kept, at[i].Start, at[i].End, at[i].Cut},
				b.ID)
		}
	})
}
