package runin_test

import (
	"context"
	"fmt"

	"cuestart/core/clock"
	"cuestart/core/runin"
)

// seven minutes for one player: a jog that has to be, and hops that may.
func seven() *runin.Problem {
	jog := runin.Block{ID: "jog", Phase: "raise", Players: []string{runin.Everyone}, Weight: 9, Must: true,
		Levels: []runin.Level{{Seconds: 180, Value: 0.6}, {Seconds: 300, Value: 1}}}
	hops := runin.Block{ID: "hops", Phase: "potentiate", Players: []string{runin.Everyone}, Weight: 3,
		Levels: []runin.Level{{Seconds: 120, Value: 1}}}
	return &runin.Problem{Grid: 5, Phases: []string{"raise", "potentiate"},
		Players: []runin.Player{{ID: "ada", Open: -900, Due: -480}}, Blocks: []runin.Block{jog, hops}}
}

func ExampleFit() {
	r, _ := runin.Fit(context.Background(), seven(), 0)
	for _, b := range r.Blocks {
		fmt.Println(b.ID, b.Start.ToGo(), b.End.ToGo(), b.Why)
	}
	// Output:
	// jog 15′ 10′ in full
	// hops 10′ 8′ in full
}

// What does not fit is an answer too: it says by how much.
func ExampleFit_tooShort() {
	p := seven()
	p.Players[0].Open = -600
	r, _ := runin.Fit(context.Background(), p, 0)
	fmt.Println(r.Feasible, r.ShortBy)
	// Output: false 60
}

func ExampleCutdowns() {
	cuts, _ := runin.Cutdowns(context.Background(), seven(), 0)
	for _, c := range cuts {
		for _, b := range c.Result.Blocks {
			fmt.Println(clock.Duration(c.Less), "less:", b.ID, b.Kept, clock.Duration(int(b.End-b.Start)))
		}
	}
	// Output:
	// 0:00 less: jog true 5:00
	// 0:00 less: hops true 2:00
	// 4:00 less: jog true 3:00
	// 4:00 less: hops false 0:00
}

// The toss takes a minute out of what is left: the jog under way stays as it was,
// the hops come after it.
func ExampleRefit() {
	p := seven()
	was, _ := runin.Fit(context.Background(), p, 0)
	now, _ := runin.Refit(context.Background(), p, was, runin.Live{Now: -720, Moved: 60}, 0)
	for _, b := range now.Blocks {
		fmt.Println(b.ID, b.Start.ToGo(), b.End.ToGo(), b.Why)
	}
	// Output:
	// jog 15′ 10′ under way
	// hops 9′ 7′ in full
}
