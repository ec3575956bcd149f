package learn

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/pitchside"
	"cuestart/store"
)

// Kept is the log of a session as it is kept.
type Kept = store.Log

// Log is what was done of a session, and what its players felt.
type Log struct {
	*store.Log
	Document *plan.Document // of when it began
	Ran      bool           // something was pressed at the pitch side
	Over     bool           // its start is past
	Felt     []boards.Felt
	Changed  []string // what was otherwise than the time before, as it was done
	Before   string   // that time, in words
	Start    time.Time
}

// Log is the log of a session: as it is kept, else as what was pressed says, else as it was
// planned. It fails with ErrNotFound.
func (lr *Learn) Log(ctx context.Context, clubID, id uint64) (*Log, error) {
	running, _, err := lr.pitchside.Whole(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	d, start := running.Document, running.Schedule.Start
	l := &Log{Document: d, Ran: len(running.Events) > 0, Over: lr.base.Now().After(start), Start: start}
	l.Log, err = lr.logs.Log(ctx, clubID, id)
	if errors.Is(err, planner.ErrNotFound) {
		l.Log, err = lr.draft(ctx, clubID, id, running)
	}
	if err != nil {
		return nil, err
	}
	if l.Felt, err = lr.boards.Felt(ctx, l.Log); err != nil {
		return nil, err
	}
	for i := range l.Players {
		if n := slices.IndexFunc(l.Felt, func(f boards.Felt) bool { return f.Person == l.Players[i].Person }); n >= 0 &&
			l.Players[i].Effort < 0 {
			l.Players[i].Effort = l.Felt[n].Effort
		}
	}
	earlier, err := lr.earlierLogs(ctx, clubID, l.Log, 1)
	if err == nil && len(earlier) > 0 {
		l.Changed, l.Before = conduct.Changed(earlier[0].Content, l.Log.Log.Content()),
			earlier[0].Title+", "+earlier[0].Day
	}
	return l, err
}

// draft is the log of what nobody kept yet.
func (lr *Learn) draft(ctx context.Context, clubID, id uint64, running *pitchside.Running) (*store.Log, error) {
	squad, err := lr.logs.SquadOf(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	log, err := conduct.AsPlanned(running.Plan)
	if err == nil && len(running.Events) > 0 {
		var stand *conduct.Stand
		if stand, err = conduct.Of(running.Plan, running.Events,
			max(lr.base.Now().UnixMilli(), running.Schedule.Start.UnixMilli()+1)); err == nil {
			log = stand.Log(running.Plan)
		}
	}
	if err != nil {
		return nil, err
	}
	d := running.Document
	l := &store.Log{Log: *log, Session: id, Squad: squad, Day: running.Schedule.Start.Format(time.DateOnly),
		Kind: string(d.Kind), Title: d.Title}
	before, err := lr.earlierLogs(ctx, clubID, l, 1)
	if len(before) > 0 {
		l.Season = before[0].Season
	}
	return l, err
}

// earlierLogs are the logs of a log's squad and kind before it, the latest first.
func (lr *Learn) earlierLogs(ctx context.Context, clubID uint64, l *store.Log,
	most int) (list []*store.Log, err error) {
	day, err := time.Parse(time.DateOnly, l.Day)
	if err != nil {
		return nil, err
	}
	all, err := lr.logs.Logs(ctx, clubID, l.Squad, day.AddDate(0, 0, -120), day, 20)
	for _, log := range all {
		if log.Session != l.Session && log.Kind == l.Kind && len(list) < most {
			list = append(list, log)
		}
	}
	return list, err
}

// KeepLog keeps a log. It fails with [plan.Problems] where it does not hold, with ErrStale
// where somebody else kept another meanwhile, with ErrForbidden and with ErrNotFound.
func (lr *Learn) KeepLog(ctx context.Context, by planner.Account, l *Log) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	const mostSeconds = 4 * 3600
	for i := range l.Blocks {
		if b := &l.Blocks[i]; b.Actual < 0 || b.Actual > mostSeconds {
			return plan.In(fmt.Sprint("block.", i), "%s lasted between nothing and four hours", b.Name)
		}
	}
	for _, a := range l.Players {
		if a.Effort < -1 || a.Effort > 10 {
			return plan.In("players", "effort lies between 0 and 10")
		}
	}
	if len([]rune(l.Season)) > 40 || len([]rune(l.Note)) > conduct.MaxSays {
		return plan.In("note", "keep the note to %d characters and the season to 40", conduct.MaxSays)
	}
	if err := lr.logs.SaveLog(ctx, by, l.Log); err != nil {
		return err
	}
	d, err := lr.boards.Document(ctx, by.ClubID, l.Session)
	if err != nil {
		return err
	}
	return lr.boards.KeepOwn(ctx, by, d)
}

// Logs are those of a squad of the last days, the latest first.
func (lr *Learn) Logs(ctx context.Context, clubID, squad uint64, days, most int) ([]*store.Log, error) {
	now := lr.base.Now()
	return lr.logs.Logs(ctx, clubID, squad, now.AddDate(0, 0, -days), now.AddDate(0, 0, 1), most)
}

// Done is how often a drill was done.
type Done struct {
	Code, Name string
	Times      int
	Last       string // 2026-11-28
}

// Season counts how often each drill was done by a squad from a day on, the most often first.
func (lr *Learn) Season(ctx context.Context, squad uint64, from time.Time) ([]Done, error) {
	rows, err := lr.logs.SeasonCounts(ctx, squad, from, lr.base.Now().AddDate(0, 0, 1))
	list := make([]Done, len(rows))
	for i, r := range rows {
		list[i] = Done{Code: r.Code, Name: r.Name, Times: r.Times, Last: r.Last}
	}
	slices.SortStableFunc(list, func(a, b Done) int { return cmp.Or(b.Times-a.Times, strings.Compare(a.Name, b.Name)) })
	return list, err
}
