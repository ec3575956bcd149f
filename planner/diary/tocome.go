package diary

import (
	"context"
	"slices"
	"strings"
	"time"

	"cuestart/core/club"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// ToCome is a fixture that has no run-in yet.
type ToCome struct {
	planner.Entry[club.Fixture]
	At time.Time
}

// ToCome lists the fixtures that are still to come and that none of the sessions
// is the run-in of, the nearest first.
func (di *Diary) ToCome(ctx context.Context, clubID uint64, sessions []boards.Listed) (list []ToCome, err error) {
	all, err := di.keep.Fixtures(ctx, clubID)
	if err != nil {
		return nil, err
	}
	since := di.base.Now().Add(-boards.StillListed)
	for _, f := range all {
		at, err := f.Is.Start.Resolve()
		if err != nil || at.Before(since) {
			continue
		}
		planned := func(s boards.Listed) bool { return s.Start.Equal(at) && strings.EqualFold(s.Title, f.Is.Title) }
		if !slices.ContainsFunc(sessions, planned) {
			list = append(list, ToCome{f, at})
		}
	}
	slices.SortStableFunc(list, func(a, b ToCome) int { return a.At.Compare(b.At) })
	return list, nil
}
