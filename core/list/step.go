package list

import (
	"math"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
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
	at, first := -float64(e.Joined), -1
	round := 0
	for _, part := range e.Block.Parts(amounts, e.Block.Group, e.Way) {
		if part.Work && first < 0 {
			first = part.Item
		}
		if part.Work && part.Item == first {
			round++
		}
		if n := e.place(part.Item); part.Work && n >= 0 && !e.Drills[n].Out && !e.Drills[n].Other {
			steps = append(steps, e.inTurn(n, round, at, part.Seconds)...)
		}
		at += part.Seconds
	}
	steps = slices.DeleteFunc(steps, func(s Step) bool { return s.To <= 0 && e.Joined > 0 })
	for i := range steps {
		steps[i].From = max(0, steps[i].From)
	}
	return steps
}

// inTurn are the steps of a drill in the person's own turn: what lies before and behind
// it is waiting.
func (e *Entry) inTurn(n, round int, at, seconds float64) (steps []Step) {
	doing := e.Drills[n]
	if doing.Turn == 0 {
		return e.spread(n, round, at, seconds)
	}
	one := (seconds + plan.TurnSeconds) / float64(doing.Turns)
	own := at + float64(doing.Turn-1)*one
	wait := func(from, to float64) {
		if to-from >= 1 {
			steps = append(steps, Step{Doing: n, From: nearest(from), To: nearest(to),
				Step: drill.Step{Ways: []drill.Way{drill.Wait}, Amount: nearest(to) - nearest(from),
					Measure: drill.Seconds, Seconds: to - from}})
		}
	}
	wait(at, own)
	steps = append(steps, e.spread(n, round, own, one-plan.TurnSeconds)...)
	wait(own+one-plan.TurnSeconds, at+seconds)
	return steps
}

// spread lays the steps of a drill over its seconds of the block.
func (e *Entry) spread(n, round int, at, seconds float64) (steps []Step) {
	doing := e.Drills[n]
	needed, whole := 0.0, doing.Drill.Steps(doing.Amount)
	for _, one := range whole {
		needed += one.Seconds
	}
	stretch := 0.0
	if needed > 0 {
		stretch = seconds / needed
	}
	for _, one := range whole {
		step := Step{Doing: n, Step: one, From: nearest(at)}
		if e.Block.Rounds > 1 {
			step.Round, step.Rounds = round, e.Block.Rounds
		}
		at += one.Seconds * stretch
		step.To = nearest(at)
		steps = append(steps, step)
	}
	return steps
}

func nearest(seconds float64) int { return int(math.Round(seconds)) }
