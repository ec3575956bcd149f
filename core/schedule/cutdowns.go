package schedule

import (
	"context"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/runin"
)

// Cut is a cut-down of a plan document, in a coach's words.
type Cut struct {
	Less    int      `json:"less"`           // seconds
	Minutes int      `json:"minutes"`        // left on the ground, in seconds
	Work    int      `json:"work"`           // seconds of work of whoever has most
	Says    []string `json:"says,omitempty"` // what changes from the cut before
}

// Cutdowns are the plans of a document for 5, 10, 15 … minutes less, down to the
// least that holds the musts; the first is the full plan. Steps is as in [Fit],
// for each. It fails with [plan.Problems] where the document is not valid.
func Cutdowns(ctx context.Context, d *plan.Document, steps int) ([]Cut, error) {
	c, err := Compile(d)
	if err != nil {
		return nil, err
	}
	solved, err := runin.Cutdowns(ctx, &c.Problem, steps)
	if err != nil {
		return nil, err
	}
	open, due := clock.Offset(0), clock.Offset(-24*3600)
	for _, p := range c.Problem.Players {
		open, due = min(open, p.Open), max(due, p.Due)
	}
	cuts := make([]Cut, len(solved))
	for n, x := range solved {
		cuts[n] = Cut{Less: x.Less, Minutes: int(due-open) - x.Less}
		work := map[string]int{}
		for i, s := range x.Result.Blocks {
			if s.Kept {
				for _, id := range c.Problem.Blocks[i].Players {
					work[id] += int(s.End - s.Start)
					cuts[n].Work = max(cuts[n].Work, work[id])
				}
			}
			if at := slices.IndexFunc(x.Changes, func(change runin.Change) bool { return change.ID == s.ID }); at >= 0 {
				cuts[n].Says = append(cuts[n].Says, c.changed(i, x.Changes[at]))
			}
		}
	}
	return cuts, nil
}
