package demo

import (
	"context"
	"math"
	"time"

	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/store"
)

// slow is how much longer the scrum took than planned in the last matches, the latest first.
var slow = []float64{1.16, 1.09, 1.14, 1.12}

// noted is what was noted in the last match, by block.
var noted = map[string]string{"Line-out": "lifts late on the left: one walk-through first",
	"Bands": "half of them sat on the bench: check before"}

// logged is the log of a session of so many weeks ago: as it was planned, but for the scrum,
// with how hard it was and what was noted.
func logged(ctx context.Context, s *store.Store, coach store.Account, session, squad uint64, d *plan.Document,
	fitted *schedule.Schedule, ago int) error {
	log, err := conduct.AsPlanned(conduct.Plan{Document: d, Schedule: fitted})
	if err != nil {
		return err
	}
	for i := range log.Blocks {
		b := &log.Blocks[i]
		if b.Name == "Scrum" {
			b.Actual, b.Measured = int(math.Round(float64(b.Planned)*slow[ago])), true
		}
		if ago == 0 {
			b.Note = noted[b.Name]
		}
	}
	for i := range log.Players {
		if p := &log.Players[i]; (i+ago)%3 > 0 { // two of three say
			p.Effort = 4 + (i*7+ago*3)%4
		} else if (i+ago)%9 == 6 {
			p.Was = conduct.Late
		}
	}
	l := &store.Log{Log: *log, Session: session, Squad: squad, Day: fitted.Start.Format(time.DateOnly),
		Kind: string(d.Kind), Title: d.Title, Season: "2026/27"}
	return s.Logs.SaveLog(ctx, coach, l)
}

// jumps are the jump tests before and after the run-ins of the last two matches, by player: a
// shorter and the usual one.
func jumps(players []uint64, matches []time.Time) (changes []store.Change) {
	before := []float64{31.1, 33.4, 29.8, 35.2, 36.4, 38.3, 34.1, 36.5}
	gains := [][]float64{{1.6, 1.1, 0.9, 1.8, 1.2, 1.5, 0.7, 1.3}, {0.6, 0.9, -0.2, 1.0, 0.3, 0.8, 0.2, 0.5}}
	noise := []float64{0.2, -0.3, 0.1, 0.3, -0.2, 0.1, -0.1, 0.2}
	test := func(player uint64, day time.Time, part string, best float64) store.Change {
		return store.Change{Owner: player, Is: club.Trial{Test: "Jump height", Unit: "cm", Better: club.Higher,
			Day: day.Format(time.DateOnly), Part: part,
			Tries: []float64{round(best - 0.9), round(best), round(best - 0.4)}}}
	}
	for n, day := range matches {
		for i, height := range before {
			is := height + float64(n)*noise[i]
			changes = append(changes, test(players[2+i], day, club.Before, is),
				test(players[2+i], day, club.After, is+gains[n][i]))
		}
	}
	return changes
}

func round(x float64) float64 { return math.Round(10*x) / 10 }

// targets are what the demo's weeks should hold.
func targets(squad uint64) []club.Target {
	return []club.Target{{Squad: squad, Region: "neck", Quality: "strength", Days: 2},
		{Squad: squad, Region: "hip", Quality: "range", Days: 2}, {Squad: squad, Hard: true, Days: 3, AtMost: true}}
}

// learnt fills in tests around the last matches before one, and targets.
func learnt(ctx context.Context, s *store.Store, clubID, squad uint64, players []uint64, match time.Time) error {
	matches := []time.Time{match.AddDate(0, 0, -7), match.AddDate(0, 0, -14)}
	_, err := s.Clubs.Fill(ctx, clubID, append(jumps(players, matches), of(0, targets(squad))...)...)
	return err
}
