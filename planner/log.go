package planner

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"cuestart/core/conduct"
	"cuestart/core/plan"
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
	Felt     []Felt
	Changed  []string // what was otherwise than the time before, as it was done
	Before   string   // that time, in words
	Start    time.Time
}

// Felt is what a player said from their phone: how hard it was, what is tight, what they
// did not feel.
type Felt struct {
	Person, Name string
	Effort       int // 0 to 10; -1: not said
	Says         []string
}

// Log is the log of a session: as it is kept, else as what was pressed says, else as it was
// planned. It fails with ErrNotFound.
func (p *Planner) Log(ctx context.Context, clubID, id uint64) (*Log, error) {
	running, _, err := p.whole(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	d, start := running.Document, running.Schedule.Start
	l := &Log{Document: d, Ran: len(running.Events) > 0, Over: p.Now().After(start), Start: start}
	l.Log, err = p.store.Log(ctx, clubID, id)
	if errors.Is(err, ErrNotFound) {
		l.Log, err = p.draft(ctx, clubID, id, running)
	}
	if err != nil {
		return nil, err
	}
	if l.Felt, err = p.felt(ctx, l.Log); err != nil {
		return nil, err
	}
	for i := range l.Players {
		if n := slices.IndexFunc(l.Felt, func(f Felt) bool { return f.Person == l.Players[i].Person }); n >= 0 && l.Players[i].Effort < 0 {
			l.Players[i].Effort = l.Felt[n].Effort
		}
	}
	earlier, err := p.earlierLogs(ctx, clubID, l.Log, 1)
	if err == nil && len(earlier) > 0 {
		l.Changed, l.Before = conduct.Changed(earlier[0].Content, l.Log.Log.Content()), earlier[0].Title+", "+earlier[0].Day
	}
	return l, err
}

// draft is the log of what nobody kept yet.
func (p *Planner) draft(ctx context.Context, clubID, id uint64, running *Running) (*store.Log, error) {
	squad, err := p.store.SquadOf(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	made, err := conduct.AsPlanned(running.Plan)
	if err == nil && len(running.Events) > 0 {
		var stand *conduct.Stand
		if stand, err = conduct.Of(running.Plan, running.Events, max(p.Now().UnixMilli(), running.Schedule.Start.UnixMilli()+1)); err == nil {
			made = stand.Log(running.Plan)
		}
	}
	if err != nil {
		return nil, err
	}
	d := running.Document
	l := &store.Log{Log: *made, Session: id, Squad: squad, Day: running.Schedule.Start.Format(time.DateOnly), Kind: string(d.Kind), Title: d.Title}
	before, err := p.earlierLogs(ctx, clubID, l, 1)
	if len(before) > 0 {
		l.Season = before[0].Season
	}
	return l, err
}

// earlierLogs are the logs of a log's squad and kind before it, the latest first.
func (p *Planner) earlierLogs(ctx context.Context, clubID uint64, l *store.Log, most int) (list []*store.Log, err error) {
	day, err := time.Parse(time.DateOnly, l.Day)
	if err != nil {
		return nil, err
	}
	all, err := p.store.Logs(ctx, clubID, l.Squad, day.AddDate(0, 0, -120), day, 20)
	for _, one := range all {
		if one.Session != l.Session && one.Kind == l.Kind && len(list) < most {
			list = append(list, one)
		}
	}
	return list, err
}

// felt is what the players of a log said of it from their phones.
func (p *Planner) felt(ctx context.Context, l *store.Log) ([]Felt, error) {
	words, err := p.store.Words(ctx, l.Session)
	var list []Felt
	for _, w := range words {
		player := slices.IndexFunc(l.Players, func(a conduct.Attended) bool { return a.Person == w.Person })
		says := feltWords(l, w)
		if player < 0 || says == "" && w.Kind != Effort {
			continue
		}
		i := slices.IndexFunc(list, func(f Felt) bool { return f.Person == w.Person })
		if i < 0 {
			i, list = len(list), append(list, Felt{Person: w.Person, Name: l.Players[player].Name, Effort: -1})
		}
		if n, err := strconv.Atoi(w.Says); w.Kind == Effort && err == nil {
			list[i].Effort = n
		} else if !slices.Contains(list[i].Says, says) {
			list[i].Says = append(list[i].Says, says)
		}
	}
	return list, err
}

// feltWords says what a player felt; "" for what is none of that. That somebody is in pain
// is for medical staff, and is not in a log.
func feltWords(l *store.Log, w Word) string {
	at := ""
	if i := slices.IndexFunc(l.Blocks, func(b conduct.Logged) bool { return b.Block == w.Block }); i >= 0 && w.Item < len(l.Blocks[i].Drills) {
		at = l.Blocks[i].Drills[w.Item].Name
	}
	switch {
	case w.Kind == Sore && at != "":
		return w.Says + " tight at " + at
	case w.Kind == Sore:
		return w.Says + " tight"
	case w.Kind == Easier && at != "":
		return at + " not felt, easier form"
	}
	return ""
}

// KeepLog keeps a log. It fails with [plan.Problems] where it does not hold, with ErrStale
// where somebody else kept another meanwhile, with ErrForbidden and with ErrNotFound.
func (p *Planner) KeepLog(ctx context.Context, by Account, l *Log) error {
	if err := May(by, ToKeep); err != nil {
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
	if err := p.store.SaveLog(ctx, by, l.Log); err != nil {
		return err
	}
	d, err := p.Document(ctx, by.ClubID, l.Session)
	if err != nil {
		return err
	}
	return p.keepOwn(ctx, by, d)
}

// Logs are those of a squad of the last days, the latest first.
func (p *Planner) Logs(ctx context.Context, clubID, squad uint64, days, most int) ([]*store.Log, error) {
	now := p.Now()
	return p.store.Logs(ctx, clubID, squad, now.AddDate(0, 0, -days), now.AddDate(0, 0, 1), most)
}

// Remembered is something of last time for this time.
type Remembered struct {
	Block string // id in this plan; "": about no block
	Says  string
}

// LastTime is what was noted and felt the last time, of who and what is in a plan again.
func (p *Planner) LastTime(ctx context.Context, clubID uint64, b *store.Session) (list []Remembered, err error) {
	squad, err := p.store.SquadOf(ctx, clubID, b.ID)
	if err != nil {
		return nil, err
	}
	day := b.Schedule.Start
	logs, err := p.store.Logs(ctx, clubID, squad, day.AddDate(0, 0, -21), day, 2)
	logs = slices.DeleteFunc(logs, func(l *store.Log) bool { return l.Session == b.ID })
	if err != nil || len(logs) == 0 {
		return nil, err
	}
	last := logs[0]
	for _, one := range last.Blocks {
		if i := slices.IndexFunc(b.Document.Blocks, func(x plan.Block) bool { return x.Name == one.Name }); one.Note != "" && i >= 0 {
			list = append(list, Remembered{b.Document.Blocks[i].ID, one.Name + ": " + one.Note})
		}
	}
	for _, one := range last.Players {
		if player := whoAttended(b.Document, one); one.Note != "" && player != nil {
			list = append(list, Remembered{"", player.ShortName() + ": " + one.Note})
		}
	}
	felt, err := p.felt(ctx, last)
	for _, f := range felt {
		attended := slices.IndexFunc(last.Players, func(a conduct.Attended) bool { return a.Person == f.Person })
		if attended < 0 {
			continue
		}
		if player := whoAttended(b.Document, last.Players[attended]); player != nil && len(f.Says) > 0 {
			list = append(list, Remembered{"", player.ShortName() + ": " + strings.Join(f.Says, ", ")})
		}
	}
	return list, err
}

// whoAttended is the player of a document who attended.
func whoAttended(d *plan.Document, a conduct.Attended) *plan.Player {
	for i := range d.Players {
		if a.Roster > 0 && d.Players[i].Roster == a.Roster {
			return &d.Players[i]
		}
	}
	return nil
}

// Done is how often a drill was done.
type Done struct {
	Code, Name string
	Times      int
	Last       string // 2026-11-28
}

// Season counts how often each drill was done by a squad from a day on, the most often first.
func (p *Planner) Season(ctx context.Context, squad uint64, from time.Time) ([]Done, error) {
	rows, err := p.store.SeasonCounts(ctx, squad, from, p.Now().AddDate(0, 0, 1))
	list := make([]Done, len(rows))
	for i, r := range rows {
		list[i] = Done{r.Code, r.Name, r.Times, r.Last}
	}
	slices.SortStableFunc(list, func(a, b Done) int { return cmp.Or(b.Times-a.Times, strings.Compare(a.Name, b.Name)) })
	return list, err
}
