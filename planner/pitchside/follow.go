package pitchside

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/store"
)

// followedFor is how long after its start a session at whose pitch side something was taken is still followed.
const followedFor = 30 * 24 * time.Hour

// CatchUp puts in force, and out to the players, what was taken at pitch sides and could not
// be: for the database was away, the process was killed, or a ruling stood against it; and
// goes on with forgetting people. It is called every few seconds.
func (ps *Pitchside) CatchUp(ctx context.Context) error {
	if err := ps.people.FinishErasing(ctx); err != nil {
		return err
	}
	due, err := ps.runs.Due(ctx, ps.base.Now().Add(-followedFor))
	for _, one := range due {
		by, err := ps.accounts.Account(ctx, one.Club, one.By)
		if errors.Is(err, planner.ErrNotFound) { // they have left: what they pressed holds
			by, err = planner.Account{ID: one.By, ClubID: one.Club, Role: planner.Coach}, nil
		}
		if err != nil {
			return err
		}
		ps.follow(ctx, by, one.Session)
	}
	return err
}

// follow brings the plan in force, and what is published, to how a session stands at the
// pitch side. That it could not is said there and on the board, and it is tried again.
func (ps *Pitchside) follow(ctx context.Context, by planner.Account, id uint64) {
	err := error(nil)
	for n := 0; n == 0 || errors.Is(err, planner.ErrStale) && n < boards.Attempts; n++ {
		err = ps.followOnce(ctx, by, id)
	}
	if err == nil {
		ps.base.Tell()
		return
	}
	trouble := "the players do not have the change yet: it is tried again"
	var wrong plan.Problems
	if errors.As(err, &wrong) {
		trouble = wrong[0].What
	} else {
		slog.Error("a plan does not follow the pitch side", "session", id, "error", err)
	}
	if err := ps.runs.SetTrouble(context.WithoutCancel(ctx), id, trouble); err != nil {
		slog.Error("that a plan does not follow is not noted", "session", id, "error", err)
	}
	ps.base.Tell()
}

func (ps *Pitchside) followOnce(ctx context.Context, by planner.Account, id uint64) error {
	running, run, err := ps.Whole(ctx, by.ClubID, id)
	if err != nil || run == nil {
		return err
	}
	session, err := ps.boards.Session(ctx, by.ClubID, id)
	if err != nil {
		return err
	}
	stand, err := running.Stand(ps.base.Now())
	if err != nil {
		return err
	}
	f, err := ps.following(ctx, by, run, stand, session)
	if err != nil {
		return err
	}
	f.Seen = running.Arrived
	same, err := equal(f.Document, session.Document)
	if err != nil {
		return err
	}
	if same && run.Followed != nil && run.Seen == f.Seen { // it is in force: only publishing it is left
		return ps.runs.Republish(ctx, by.ClubID, session, f)
	}
	err = ps.runs.Follow(ctx, by.ClubID, session, f)
	var refused plan.Problems
	if errors.As(err, &refused) { // it is in force, and the players see the last that may be seen
		f.Check = nil
		err = errors.Join(ps.runs.Follow(ctx, by.ClubID, session, f), err)
		if errors.Is(err, planner.ErrStale) {
			return planner.ErrStale
		}
	}
	return err
}

// following is what is to be put in force: what the pitch side has changed since it last was,
// joined with what the board has changed since, and what is ruled by now. Where both changed
// one thing, the pitch side holds, for people are at it; that is said on both sides, and the
// board's stays in the history.
func (ps *Pitchside) following(ctx context.Context, by planner.Account, run *store.Run, stand *conduct.Stand,
	session *store.Session) (f store.Following, err error) {
	base, mine, theirs := run.Followed, stand.Document, session.Document.Clone()
	if base == nil {
		base = run.Document
	}
	base = base.Clone()
	base.Upgrade()
	theirs.Upgrade()
	merged, clashes, err := plan.Merge(base, mine, theirs, plan.Insist)
	if err != nil {
		return f, err
	}
	if err := ps.keep.HoldRulings(ctx, by.ClubID, merged); err != nil {
		return f, err
	}
	if err := merged.Validate(); err != nil {
		return f, err
	}
	fitted, err := ps.stood(ctx, stand, merged)
	if err != nil {
		return f, err
	}
	f = store.Following{Fitted: store.Fitted{Document: merged, Schedule: fitted,
		Summary: "pitch side: " + lastSaid(stand), By: by.ID}, Pitch: mine, Check: keep.Publishable}
	if len(clashes) > 0 {
		c := boards.ClashOf(session, clashes, "").(*boards.Contested)
		f.Clash = fmt.Sprintf("%s changed on the board and at the pitch side: the pitch side's holds (the "+
			"board's is kept under Saved)",
			strings.Join(c.Names, ", "))
		f.Summary += "; " + f.Clash
	}
	return f, nil
}

// lastSaid is what is different by now, the last of it.
func lastSaid(s *conduct.Stand) string {
	if len(s.Said) == 0 {
		return "as planned again"
	}
	return s.Said[len(s.Said)-1]
}

// stood is the schedule of a plan as its session stands. What is at the pitch side stays where
// it is there; only where the board has changed blocks since is what is left fitted again.
func (ps *Pitchside) stood(ctx context.Context, stand *conduct.Stand, d *plan.Document) (*schedule.Schedule, error) {
	start, err := d.Start.Resolve()
	if err != nil {
		return nil, err
	}
	stood := stand.Stood()
	moved := clock.Offset(start.Unix() - stand.Unix(0))
	for i := range stood {
		stood[i].Start, stood[i].End = stood[i].Start-moved, stood[i].End-moved
	}
	same, err := equal(stand.Document.Blocks, d.Blocks)
	if err != nil {
		return nil, err
	}
	if same && moved == 0 {
		return schedule.As(d, stood)
	}
	return schedule.Refit(ctx, d, stood, stand.Now-moved, schedule.AtOnce)
}

// equal tells whether two things say the same.
func equal(a, b any) (bool, error) {
	one, err := json.Marshal(a)
	other, err2 := json.Marshal(b)
	return bytes.Equal(one, other), errors.Join(err, err2)
}

// RunTold is what the pitch side and the board are to be told of a session that runs: why the
// players do not have what was changed, and what was changed in both places. Both are "" where
// nothing is amiss.
func (ps *Pitchside) RunTold(ctx context.Context, id uint64) (trouble, clash string, err error) {
	return ps.runs.Told(ctx, id)
}

// catchUpEvery is how often what is due is looked for.
const catchUpEvery = 3 * time.Second

// KeepUp catches up at once, which finishes what a killed process left, and from then on every
// few seconds, until ctx ends.
func (ps *Pitchside) KeepUp(ctx context.Context) {
	for {
		if err := ps.CatchUp(ctx); err != nil && ctx.Err() == nil {
			slog.Error("pitch sides cannot be followed", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(catchUpEvery):
		}
	}
}
