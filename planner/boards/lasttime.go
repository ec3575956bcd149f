package boards

import (
	"context"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

// Felt is what a player said from their phone: how hard it was, what is tight, what they
// did not feel.
type Felt struct {
	Person, Name string
	Effort       int // 0 to 10; -1: not said
	Says         []string
}

// Felt is what the players of a log said of it from their phones.
func (bd *Boards) Felt(ctx context.Context, l *store.Log) ([]Felt, error) {
	words, err := bd.shares.Words(ctx, l.Session)
	var list []Felt
	for _, w := range words {
		player := slices.IndexFunc(l.Players, func(a conduct.Attended) bool { return a.Person == w.Person })
		says := feltWords(l, w)
		if player < 0 || says == "" && w.Kind != planner.Effort {
			continue
		}
		i := slices.IndexFunc(list, func(f Felt) bool { return f.Person == w.Person })
		if i < 0 {
			i, list = len(list), append(list, Felt{Person: w.Person, Name: l.Players[player].Name, Effort: -1})
		}
		if n, err := strconv.Atoi(w.Says); w.Kind == planner.Effort && err == nil {
			list[i].Effort = n
		} else if !slices.Contains(list[i].Says, says) {
			list[i].Says = append(list[i].Says, says)
		}
	}
	return list, err
}

// feltWords says what a player felt; "" for what is none of that. That somebody is in pain
// is for medical staff, and is not in a log.
func feltWords(l *store.Log, w planner.Word) string {
	at := ""
	if i := slices.IndexFunc(l.Blocks, func(b conduct.Logged) bool { return b.Block == w.Block }); i >= 0 &&
		w.Item < len(l.Blocks[i].Drills) {
		at = l.Blocks[i].Drills[w.Item].Name
	}
	switch {
	case w.Kind == planner.Sore && at != "":
		return w.Says + " tight at " + at
	case w.Kind == planner.Sore:
		return w.Says + " tight"
	case w.Kind == planner.Easier && at != "":
		return at + " not felt, easier form"
	}
	return ""
}

// Remembered is something of last time for this time.
type Remembered struct {
	Block string // id in this plan; "": about no block
	Says  string
}

// LastTime is what was noted and felt the last time, of who and what is in a plan again.
func (bd *Boards) LastTime(ctx context.Context, clubID uint64, b *store.Session) (list []Remembered, err error) {
	squad, err := bd.logs.SquadOf(ctx, clubID, b.ID)
	if err != nil {
		return nil, err
	}
	day := b.Schedule.Start
	logs, err := bd.logs.Logs(ctx, clubID, squad, day.AddDate(0, 0, -21), day, 2)
	logs = slices.DeleteFunc(logs, func(l *store.Log) bool { return l.Session == b.ID })
	if err != nil || len(logs) == 0 {
		return nil, err
	}
	last := logs[0]
	for _, logged := range last.Blocks {
		if i := slices.IndexFunc(b.Document.Blocks,
			func(x plan.Block) bool { return x.Name == logged.Name }); logged.Note != "" && i >= 0 {
			list = append(list, Remembered{b.Document.Blocks[i].ID, logged.Name + ": " + logged.Note})
		}
	}
	for _, one := range last.Players {
		if player := whoAttended(b.Document, one); one.Note != "" && player != nil {
			list = append(list, Remembered{"", player.ShortName() + ": " + one.Note})
		}
	}
	felt, err := bd.Felt(ctx, last)
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
