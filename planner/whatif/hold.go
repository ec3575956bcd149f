package whatif

import (
	"context"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner/boards"
)

// HoldCost says what it costs that a block of the plan is held: more waiting, blocks cut
// shorter or left out; "" where it costs nothing, or the block is not held.
func (wi *WhatIf) HoldCost(ctx context.Context, b *boards.Board, block string) (string, error) {
	free := b.Document.Clone()
	held := free.Block(block)
	if held == nil || !held.Held() && len(held.After) == 0 {
		return "", nil
	}
	if _, err := free.SetHold(block, plan.Holds{}); err != nil {
		return "", nil
	}
	fitted, err := schedule.Fit(ctx, free, schedule.AtOnce)
	if err != nil {
		return "", err
	}
	var costs []string
	if more := (b.Schedule.Result.Idle - fitted.Result.Idle) / max(1, len(b.Document.Players)); more >= 30 {
		costs = append(costs, clock.Lasting(more/5*5)+" more waiting each")
	}
	without := fitted.Blocks(free)
	for i, now := range b.Blocks {
		switch was := without[i]; {
		case was.Kept && !now.Kept:
			costs = append(costs, "no "+now.Name)
		case was.Kept && was.Length()-now.Length() >= 15:
			costs = append(costs, now.Name+" "+clock.Lasting(was.Length()-now.Length())+" shorter")
		}
	}
	return strings.Join(costs, "; "), nil
}
