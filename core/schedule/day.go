package schedule

import (
	"math"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/odds"
	"cuestart/core/pace"
	"cuestart/core/plan"
	"cuestart/core/runin"
)

// Day is the schedule as it is to be run: each block waits for its players, but for those
// who are called away meanwhile, and for its place, leader and kit. Paces are the team's own,
// by the names of blocks.
func (s *Schedule) Day(d *plan.Document, paces map[string]pace.Pace) odds.Day {
	day := odds.Day{Due: map[string]clock.Offset{}, Room: map[string]int{}}
	c, err := Compile(d)
	if err != nil {
		return day // a plan that cannot be read has no day
	}
	for _, p := range c.Problem.Players {
		day.Due[p.ID] = p.Due + clock.Offset(d.Slack)
	}
	for _, r := range c.Problem.Resources {
		day.Room[r.ID] = r.Capacity
	}
	needs := map[string]*runin.Block{}
	for i := range c.Problem.Blocks {
		needs[c.Problem.Blocks[i].ID] = &c.Problem.Blocks[i]
	}
	for _, b := range s.Blocks(d) {
		of := needs[b.ID]
		if !b.Kept || of == nil {
			continue
		}
		block := odds.Block{ID: b.ID, Start: b.Start, End: b.End, Needs: map[string]int{}}
		if own, known := paces[b.Name]; known {
			block.Sigma = own.Sigma
			if block.Mu = own.Mu; b.Pace > 0 { // it is planned so already
				block.Mu -= math.Log(b.Pace)
			}
		}
		for _, p := range b.Members {
			if !s.away(p, b.Start, b.End) {
				block.Players = append(block.Players, p)
			}
		}
		for _, n := range of.Needs {
			block.Needs[n.Resource] = n.Amount
		}
		day.Blocks = append(day.Blocks, block)
	}
	return day
}

// away tells whether a player is at an event in a piece of time.
func (s *Schedule) away(player string, from, to clock.Offset) bool {
	return slices.ContainsFunc(s.Fixed, func(w Window) bool {
		return w.Start < to && w.End > from && (slices.Contains(w.Players, player) ||
			slices.Contains(w.Players, runin.Everyone))
	})
}
