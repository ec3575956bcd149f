package diary

import (
	"context"
	"fmt"

	"cuestart/core/compose"
	"cuestart/core/drill"
	"cuestart/core/week"
)

// turn tells which drill of a pool has its turn in a new session: the one that was planned or
// done longest ago, among equals the one that gives most of what its week owes.
func (di *Diary) turn(ctx context.Context, clubID, squad uint64, brief compose.Brief) func([]drill.Drill) *drill.Drill {
	last, err := di.logs.LastDone(ctx, squad)
	if err != nil {
		last = map[string]string{} // it goes by the plans alone
	}
	for code, day := range last {
		last[code] = "done " + day
	}
	for i, code := range brief.Recent { // the latest first
		last[code] = fmt.Sprintf("planned %06d", len(brief.Recent)-i)
	}
	var owed []week.Owed
	if start, err := brief.Start.Resolve(); err == nil {
		if w, err := di.learn.Week(ctx, clubID, squad, start); err == nil {
			owed = w.Owed
		}
	}
	return func(pool []drill.Drill) *drill.Drill { return week.Turn(pool, last, owed) }
}
