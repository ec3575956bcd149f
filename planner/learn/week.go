package learn

import (
	"context"
	"slices"
	"strconv"
	"strings"
	"time"

	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/week"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/store"
)

// Week is what a week gave a squad, and what it still owes.
type Week struct {
	Squad    *keep.Squad
	Monday   time.Time
	Sessions []WeekSession
	Targets  []planner.Entry[club.Target]
	Given    map[string]week.Given // by player, see Weekly
	Owed     []week.Owed
	Fills    []drill.Drill  // what would give something that is owed, the most first
	Next     *boards.Listed // the squad's next session, to put it into; nil: none is planned
	People   []Weekly
}

// WeekSession is a session of a week.
type WeekSession struct {
	ID     uint64
	Title  string
	Day    time.Time
	Logged bool // else it counts as it is planned
}

// Weekly is a player of a week.
type Weekly struct {
	Key, Name string // Key is the club's id of the player as text
}

// Week adds up the week of a squad of the club that a day lies in: what was logged, else what
// is planned. It fails with ErrNotFound.
func (lr *Learn) Week(ctx context.Context, clubID, squadID uint64, day time.Time) (*Week, error) {
	squad, err := lr.keep.Squad(ctx, clubID, squadID)
	if err != nil {
		return nil, err
	}
	known, err := lr.books.Playbook(ctx, clubID)
	if err != nil {
		return nil, err
	}
	w := &Week{Squad: squad, Monday: mondayOf(day)}
	until := w.Monday.AddDate(0, 0, 7)
	logs, err := lr.logs.Logs(ctx, clubID, squad.ID, w.Monday, until.AddDate(0, 0, -1), 60)
	if err != nil {
		return nil, err
	}
	rest, err := lr.logs.Unlogged(ctx, clubID, squad.ID, w.Monday, until)
	if err != nil {
		return nil, err
	}
	for _, k := range squad.Players {
		w.People = append(w.People,
			Weekly{id(k.ID), strings.TrimSpace(plan.Player{First: k.Is.First, Last: k.Is.Last}.ShortName())})
	}
	var work []week.Work
	for _, l := range logs {
		at, err := time.Parse(time.DateOnly, l.Day)
		if err != nil {
			return nil, err
		}
		w.Sessions = append(w.Sessions, WeekSession{ID: l.Session, Title: l.Title, Day: at, Logged: true})
		w.nameless(&l.Log)
		work = append(work, workOf(&l.Log, l.Day, known.Book, nil)...)
	}
	for _, u := range rest {
		planned, err := conduct.AsPlanned(u.Plan)
		if err != nil {
			continue // its start is none
		}
		w.Sessions = append(w.Sessions, WeekSession{ID: u.Session, Title: u.Plan.Document.Title, Day: u.Day,
			Logged: false})
		w.nameless(planned)
		work = append(work, workOf(planned, u.Day.Format(time.DateOnly), known.Book, u.Plan.Document)...)
	}
	slices.SortFunc(w.Sessions, func(a, b WeekSession) int { return a.Day.Compare(b.Day) })
	return w, lr.owe(ctx, clubID, w, work, known)
}

// nameless has a squad that nobody has named be as many as were planned for.
func (w *Week) nameless(l *conduct.Log) {
	for _, a := range l.Players {
		if len(w.Squad.Players) == 0 &&
			!slices.ContainsFunc(w.People, func(weekly Weekly) bool { return weekly.Key == a.Person }) {
			w.People = append(w.People, Weekly{a.Person, a.Name})
		}
	}
}

// owe sets a week against its squad's targets.
func (lr *Learn) owe(ctx context.Context, clubID uint64, w *Week, work []week.Work, known books.Playbook) error {
	targets, err := planner.Entries[club.Target](ctx, lr.base, clubID)
	if err != nil {
		return err
	}
	var wanted []week.Target
	for _, t := range targets {
		if t.Is.Squad == w.Squad.ID {
			w.Targets, wanted = append(w.Targets, t), append(wanted, t.Is)
		}
	}
	var players []string
	for _, weekly := range w.People {
		players = append(players, weekly.Key)
	}
	w.Given, w.Owed = week.Of(work), week.Owing(players, work, wanted)
	suit := drill.Query{Sport: known.Sport.Key, Grade: drill.Grade(w.Squad.Grade)}.Find(known.Book.Drills)
	w.Fills = week.Fills(suit, w.Owed)
	sessions, _, err := lr.boards.Sessions(ctx, clubID, 40)
	for i := range sessions {
		if sessions[i].Squad == w.Squad.Name && sessions[i].Start.After(lr.base.Now()) {
			w.Next = &sessions[i]
			break
		}
	}
	return err
}

// workOf is the work of a log, by the club's players.
func workOf(l *conduct.Log, day string, book *books.Book, d *plan.Document) (work []week.Work) {
	roster := map[string]string{}
	for _, a := range l.Players {
		if roster[a.Person] = a.Person; a.Roster > 0 { // who has no name yet counts all the same
			roster[a.Person] = id(a.Roster)
		}
	}
	for _, b := range l.Blocks {
		for _, drill := range b.Drills {
			k, ok := book.Find(drill.Code)
			if !ok && d != nil {
				if block := d.Block(b.Block); block != nil && drill.Item < len(block.Items) {
					k, ok = block.Items[drill.Item].Drill, true
				}
			}
			if !ok || drill.Seconds == 0 {
				continue
			}
			for _, person := range b.Who {
				if key := roster[person]; key != "" && !slices.Contains(drill.Without, person) {
					work = append(work, week.Work{Player: key, Day: day, Drill: &k, Seconds: float64(drill.Seconds)})
				}
			}
		}
	}
	return work
}

func mondayOf(day time.Time) time.Time {
	back := (int(day.Weekday()) + 6) % 7
	return time.Date(day.Year(), day.Month(), day.Day()-back, 0, 0, 0, 0, time.UTC)
}

// FillNext puts a drill into a squad's next session, for those who owe what it gives, or for
// all where most do. It says what it did, and fails with [plan.Problems] where there is no
// session to come, or no such drill.
func (lr *Learn) FillNext(ctx context.Context, by planner.Account, squadID uint64, day time.Time,
	code string) (session uint64, said string, err error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return 0, "", err
	}
	w, err := lr.Week(ctx, by.ClubID, squadID, day)
	if err != nil {
		return 0, "", err
	}
	i := slices.IndexFunc(w.Fills, func(d drill.Drill) bool { return d.Code == code })
	switch {
	case w.Next == nil:
		return 0, "", plan.In("fill", "No session is planned yet that it could go into.")
	case i < 0:
		return 0, "", plan.In("fill", "That is not owed any more.")
	}
	k := w.Fills[i]
	b, err := lr.boards.Board(ctx, by.ClubID, w.Next.ID)
	if err != nil {
		return 0, "", err
	}
	owe := map[string]bool{}
	for _, o := range w.Owed {
		if week.Gives(o, &k) {
			owe[o.Player] = true
		}
	}
	_, err = lr.boards.Change(ctx, by, w.Next.ID, b.Revision, func(d *plan.Document) (string, error) {
		var who []string
		for _, player := range d.Players {
			if owe[id(player.Roster)] {
				who = append(who, player.ID)
			}
		}
		if len(who) == 0 {
			return "", plan.In("fill", "Nobody who owes it is in that session.")
		}
		if 2*len(who) > len(d.Players) {
			who = []string{plan.Everyone}
		}
		said, err = d.Add(k.For(d.Grade), phaseFor(d, &k), who, plan.Should)
		return said + ", which the week still owes", err
	})
	return w.Next.ID, k.Name + " put into " + w.Next.Title, err
}

// phaseFor is the phase of a plan's method that a drill serves; its own time, where none is.
func phaseFor(d *plan.Document, k *drill.Drill) drill.Phase {
	for _, phase := range plan.Methods[d.Method].Phases {
		if k.Serves(phase) {
			return phase
		}
	}
	return drill.Own
}

// RoutineDone is how often a routine was run.
type RoutineDone struct {
	Name  string
	Times int
	Last  string
}

// RoutinesDone counts how often each of a club's routines was run, by logs that have most of
// its blocks.
func (lr *Learn) RoutinesDone(ctx context.Context, clubID uint64, logs []*store.Log) ([]RoutineDone, error) {
	routines, err := lr.books.Routines(ctx, clubID)
	var list []RoutineDone
	for _, r := range routines {
		done := RoutineDone{Name: r.Is.Name}
		for _, l := range logs {
			if ran(r.Is, l.Content) {
				done.Times++
				done.Last = max(done.Last, l.Day)
			}
		}
		if done.Times > 0 {
			list = append(list, done)
		}
	}
	return list, err
}

// ran tells whether what was done has most of a routine's blocks.
func ran(r club.Routine, content []conduct.Content) bool {
	like := 0
	for _, b := range r.Blocks {
		if slices.ContainsFunc(content, func(c conduct.Content) bool { return c.Block == b.Name }) {
			like++
		}
	}
	return like > 0 && 5*like >= 4*len(r.Blocks)
}

// PastUnlogged are the sessions of a squad of the last days that are over and whose logs
// nobody kept, the latest first.
func (lr *Learn) PastUnlogged(ctx context.Context, clubID, squad uint64, days int) ([]WeekSession, error) {
	now := lr.base.Now()
	rest, err := lr.logs.Unlogged(ctx, clubID, squad, now.AddDate(0, 0, -days), now)
	var list []WeekSession
	for _, u := range rest {
		list = append(list, WeekSession{ID: u.Session, Title: u.Plan.Document.Title, Day: u.Day})
	}
	slices.Reverse(list)
	return list, err
}

// id is an id of the club's as text.
func id(n uint64) string { return strconv.FormatUint(n, 10) }
