package list

import (
	"math"

	"cuestart/core/drill"
)

// Step is one thing to do of an entry, with its place in time.
type Step struct {
	Doing         int // index in the entry's drills
	Round, Rounds int // 2 of 3; 0 where the block is gone through once
	From, To      int // seconds from the entry's start
	drill.Step
}

// Steps takes a block apart into what is done one after the other. Between them lies
// what is explained, changed and handed over. The drill's share of the block is spread
// over its steps: waiting for a turn is in it. An event has none.
func (e *Entry) Steps() (steps []Step) {
	if e.Block == nil {
		return nil
	}
	amounts := make([]int, len(e.Block.Items))
	for n := range amounts {
		amounts[n] = e.Block.Amount(n)
	}
	at, turn := 0.0, 0
	for _, part := range e.Block.Parts(amounts, e.Block.Group) {
		if part.Work && part.Item == 0 {
			turn++
		}
		if part.Work && !e.Drills[part.Item].Out {
			steps = append(steps, e.spread(part.Item, turn, at, part.Seconds)...)
		}
		at += part.Seconds
	}
	return steps
}

// spread lays the steps of a drill over its seconds of the block.
func (e *Entry) spread(item, turn int, at, seconds float64) (steps []Step) {
	doing := e.Drills[item]
	needed, whole := 0.0, doing.Drill.Steps(doing.Amount)
	for _, one := range whole {
		needed += one.Seconds
	}
	stretch := 0.0
	if needed > 0 {
		stretch = seconds / needed
	}
	for _, one := range whole {
		step := Step{Doing: item, Step: one, From: round(at)}
		if e.Block.Rounds > 1 {
			step.Round, step.Rounds = turn, e.Block.Rounds
		}
		at += one.Seconds * stretch
		step.To = round(at)
		steps = append(steps, step)
	}
	return steps
}

func round(seconds float64) int { return int(math.Round(seconds)) }
