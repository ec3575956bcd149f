package planner

import (
	"fmt"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Starter is a short plan that works for any squad of that many players: the
// four phases and a game, half an hour from the first step to the margin.
func Starter(players int) *plan.Document {
	d := &plan.Document{Format: plan.Format, StartName: "Start", Method: plan.DefaultMethod, Margin: 300, Open: clock.BeforeStart(35 * 60),
		Zones: []plan.Zone{{ID: "ground", Name: "Ground", Capacity: max(30, players), Lanes: 6}}}
	for n := 1; n <= players; n++ {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprintf("p%d", n), Number: n, First: "Player", Last: fmt.Sprint(n)})
	}
	for i, b := range []struct {
		name     string
		phase    drill.Phase
		priority plan.Priority
		drills   []string
	}{
		{"Raise", drill.Raise, plan.Must, []string{"easy-lengths", "shuffle-and-cross"}},
		{"Activate", drill.Activate, plan.Should, []string{"band-side-walk", "plank-reach"}},
		{"Moving range", drill.Mobilise, plan.Must, []string{"lunge-reach", "leg-swings", "mid-back-turns"}},
		{"Jumps and sprints", drill.Potentiate, plan.Must, []string{"jump-and-stick", "strides-rising", "sprints"}},
		{"Game", drill.Sport, plan.Could, []string{"touch-game"}},
	} {
		block := book.NewBlock(fmt.Sprintf("b%d", i+1), b.name, b.phase, b.priority, b.drills...)
		block.Who, block.Zone, block.Excusable = []string{plan.Everyone}, "ground", true
		d.Blocks = append(d.Blocks, block)
	}
	return d
}
