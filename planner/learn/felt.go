package learn

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"

	"cuestart/core/conduct"
	"cuestart/planner"
	"cuestart/store"
)

// How far back what players said of a drill is looked for.
const (
	feltDays = 120
	feltLogs = 25
)

// FeltOf is what the club's players have said of a drill from their phones, by the logs of the
// last months: the most frequent first and without their names, "calf tight, 3 times". Who
// does not plan is told nothing.
func (lr *Learn) FeltOf(ctx context.Context, by planner.Account, code string) (list []string, err error) {
	if planner.May(by, planner.ToPlan) != nil {
		return nil, nil
	}
	teams, err := lr.keep.Teams(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	times := map[string]int{}
	for _, team := range teams {
		logs, err := lr.Logs(ctx, by.ClubID, team.ID, feltDays, feltLogs)
		if err != nil {
			return nil, err
		}
		for _, l := range logs {
			if err := lr.feltIn(ctx, l, code, times); err != nil {
				return nil, err
			}
		}
	}
	for _, says := range slices.SortedFunc(maps.Keys(times),
		func(a, b string) int { return cmp.Or(times[b]-times[a], cmp.Compare(a, b)) }) {
		often := ", once"
		if times[says] > 1 {
			often = fmt.Sprintf(", %d times", times[says])
		}
		list = append(list, says+often)
	}
	return list, nil
}

// feltIn counts what was said of a drill of a log.
func (lr *Learn) feltIn(ctx context.Context, l *store.Log, code string, times map[string]int) error {
	is := func(d conduct.LoggedDrill) bool { return d.Code == code }
	if !slices.ContainsFunc(l.Blocks, func(b conduct.Logged) bool { return slices.ContainsFunc(b.Drills, is) }) {
		return nil
	}
	words, err := lr.shares.Words(ctx, l.Session)
	for _, w := range words {
		i := slices.IndexFunc(l.Blocks, func(b conduct.Logged) bool { return b.Block == w.Block })
		if i < 0 || w.Item >= len(l.Blocks[i].Drills) || !is(l.Blocks[i].Drills[w.Item]) {
			continue
		}
		if says := feltOf(w); says != "" {
			times[says]++
		}
	}
	return err
}

// feltOf is what a word says of a drill, without who says so.
func feltOf(w planner.Word) string {
	switch w.Kind {
	case planner.Sore:
		return w.Says + " tight"
	case planner.Easier:
		return "not felt: the easier form was asked for"
	}
	return ""
}
