package whatif

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/store"
)

// Better is a better fit of a plan than the one that was found at once.
type Better struct {
	Says     string // what is better: "1:40 less waiting for 9 players"
	schedule *schedule.Schedule
}

// searchFor is how long a better fit is looked for, at most.
const searchFor = 8 * time.Second

// What of a better fit is worth a word: a tenth of the least dose of a could, or a few
// seconds of waiting for each player.
const (
	worthGain    = 0.01
	worthWaiting = 10
)

// worth tells whether a fit is better than another by more than nobody would see.
func worth(is, was *schedule.Schedule) bool {
	gained := is.Result.Value - was.Result.Value
	return is.Result.Feasible && (gained >= worthGain ||
		gained > -worthGain/10 && was.Result.Idle-is.Result.Idle >= worthWaiting*len(is.Players))
}

// Better looks for a better fit of a session's plan, with the steps that it is worth; nil:
// there is none worth a word. It works once for each revision. It fails with ErrNotFound.
func (wi *WhatIf) Better(ctx context.Context, clubID, id uint64) (*Better, error) {
	session, err := wi.boards.Session(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	return wi.better.Get(ctx, fmt.Sprint(id, " ", session.Revision),
		func(ctx context.Context) (*Better, error) { return wi.search(ctx, session) })
}

func (wi *WhatIf) search(ctx context.Context, session *store.Session) (*Better, error) {
	was := session.Schedule
	if wi.boards.Begun(session) || !was.Result.Feasible || was.Result.Proven() {
		return nil, nil
	}
	ctx, cancel := context.WithTimeout(ctx, searchFor)
	defer cancel()
	schedule, err := wi.boards.FitIn(ctx, session.Document, boards.ToCome, 0)
	if err != nil || !worth(schedule, was) {
		return nil, err
	}
	return &Better{betterWords(session, schedule), schedule}, nil
}

// betterWords says what is better, as a coach would see it.
func betterWords(session *store.Session, is *schedule.Schedule) string {
	d, was := session.Document, session.Schedule
	var parts []string
	if less := (was.Result.Idle - is.Result.Idle) / max(1, len(d.Players)); less >= 10 {
		parts = append(parts, fmt.Sprintf("%s less waiting for each of %d players", clock.Lasting(less),
			len(d.Players)))
	}
	before := was.Blocks(d)
	for _, b := range is.Blocks(d) {
		i := slices.IndexFunc(before, func(o schedule.Block) bool { return o.ID == b.ID })
		switch old := &before[i]; {
		case b.Kept && !old.Kept:
			parts = append(parts, b.Name+" fits in too")
		case !b.Kept && old.Kept:
			parts = append(parts, "without "+b.Name)
		case b.Kept && b.Length() > old.Length():
			parts = append(parts, fmt.Sprintf("%s %s longer", b.Name, clock.Lasting(b.Length()-old.Length())))
		case b.Kept && b.Length() < old.Length():
			parts = append(parts, fmt.Sprintf("%s %s shorter", b.Name, clock.Lasting(old.Length()-b.Length())))
		}
	}
	if len(parts) > 4 {
		parts = append(parts[:3], fmt.Sprintf("%d more", len(parts)-3))
	}
	if len(parts) == 0 {
		parts = []string{"a calmer order"}
	}
	return strings.Join(parts, ", ")
}

// TakeBetter puts the better fit that was found in place. It fails with ErrNothing where
// there is none, with ErrStale where the plan is not revision any more, and with
// ErrNotFound.
func (wi *WhatIf) TakeBetter(ctx context.Context, by planner.Account, id uint64,
	revision uint32) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	session, err := wi.boards.Session(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	if session.Revision != revision {
		return nil, planner.ErrStale
	}
	found, err := wi.Better(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	if found == nil {
		return nil, planner.ErrNothing
	}
	changed, err := wi.sessions.ChangePlan(ctx, by.ClubID, session,
		store.Fitted{Document: session.Document, Schedule: found.schedule, Summary: "a better fit: " + found.Says,
			By: by.ID})
	if err != nil {
		return nil, err
	}
	changed.Made.By = by.Name
	wi.base.Tell()
	return wi.boards.Show(ctx, by.ClubID, changed)
}
