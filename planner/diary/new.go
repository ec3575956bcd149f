package diary

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"time"

	"cuestart/core/clock"
	"cuestart/core/compose"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/store"
)

// How a new session's run-in is made.
const (
	FromComposed = "composed" // chosen and put together for the day
	FromLast     = "last"     // as the last session of its kind
	FromEmpty    = "empty"    // no blocks yet: the coach writes them
)

// NewSession is what a coach states of a session to come.
type NewSession struct {
	Kind    plan.Kind
	Title   string
	Start   clock.Start
	Squad   uint64 // 0: the club's first
	Venue   uint64 // 0: away, at a usual ground of the sport
	Place   string // where there is no venue of the club
	From    string // FromComposed, FromLast, FromEmpty, or the id of a routine
	Minutes int
	Method  string
	Turn    plan.Turn
	Captain uint64
	Roles   map[string][]uint64 // roles of the day, by name
	Out     []uint64            // players who are not there
	Bench   []uint64            // players who do not begin
	Late    map[uint64]int      // minutes after the opening
	Today   plan.Conditions
	Players int    // how many, where the squad has nobody yet
	Alone   uint64 // the one player it is for; 0: the squad
}

// Added is a session that was made.
type Added struct {
	ID uint64
}

// Add makes a session with its run-in. It fails with plan.Problems.
func (di *Diary) Add(ctx context.Context, by planner.Account, n NewSession) (*Added, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	if err := di.validate(n); err != nil {
		return nil, err
	}
	brief, squad, err := di.brief(ctx, by.ClubID, n)
	if err != nil {
		return nil, err
	}
	if start, err := n.Start.Resolve(); err == nil { // minutes that have gone by are not planned into
		gone := max(0, brief.Minutes-int(start.Sub(di.base.Now())/time.Minute))
		brief.Minutes -= gone
		for i := range brief.Players {
			brief.Players[i].Late = max(0, brief.Players[i].Late-60*gone)
		}
	}
	made, err := di.make(ctx, by.ClubID, n, squad, brief)
	if err != nil {
		return nil, err
	}
	carried, err := di.carryPace(ctx, by.ClubID, squad.ID, made.Document)
	if err != nil {
		return nil, err
	}
	known, err := di.books.Playbook(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	known.Book.FillForms(made.Document)
	if made.Schedule == nil || carried {
		if made.Schedule, err = di.boards.Fit(ctx, made.Document, boards.ToCome); err != nil {
			return nil, err
		}
	}
	id, err := di.sessions.AddSession(ctx, by.ClubID, squad.ID,
		store.Fitted{Document: made.Document, Schedule: made.Schedule, Summary: "made", By: by.ID})
	return &Added{id}, err
}

func (di *Diary) validate(n NewSession) error {
	if n.Kind != plan.Match && n.Kind != plan.Training {
		return plan.In("kind", "say whether it is a match or training")
	}
	if problem := plan.NameProblem(n.Title); problem != "" {
		return plan.In("title", "%s", problem)
	}
	if _, err := n.Start.Resolve(); err != nil {
		return plan.In("start", "%s", err)
	}
	return boards.YetToCome(n.Start, di.base.Now())
}

// make makes the plan by the way that was chosen; its schedule is nil where
// making it has not fitted it.
func (di *Diary) make(ctx context.Context, clubID uint64, n NewSession, squad *keep.Squad,
	brief compose.Brief) (*compose.Made, error) {
	switch n.From {
	case FromComposed, "":
		return compose.Compose(ctx, brief)
	case FromEmpty:
		document, says, err := compose.Day(brief)
		if err != nil {
			return nil, err
		}
		document.Note(says...)
		return &compose.Made{Document: document}, nil
	case FromLast:
		last, err := di.last(ctx, clubID, squad, n)
		if err != nil {
			return nil, err
		}
		again(last, brief)
		return &compose.Made{Document: last}, di.open(last, n, brief.Minutes)
	}
	return di.byRoutine(ctx, clubID, squad.ID, n.From, brief)
}

// last is the last plan like a session: of its kind, or else of the other.
func (di *Diary) last(ctx context.Context, clubID uint64, squad *keep.Squad, n NewSession) (*plan.Document, error) {
	kinds := []plan.Kind{plan.Match, plan.Training}
	if n.Kind == plan.Training {
		slices.Reverse(kinds)
	}
	for _, kind := range kinds {
		last, err := di.sessions.Latest(ctx, clubID, squad.ID, kind,
			func(d *plan.Document) bool { return n.like(d, squad) })
		if !errors.Is(err, planner.ErrNotFound) {
			return last, err
		}
	}
	return nil, plan.In("from", "there is no earlier one yet: build one for today, or take a routine")
}

// like tells whether a plan is of such a session: of the one player, or of the squad.
func (n NewSession) like(d *plan.Document, squad *keep.Squad) bool {
	if n.Alone != 0 {
		return len(d.Players) == 1 && d.Players[0].Roster == n.Alone
	}
	return len(d.Players) > 1 || len(squad.Players) == 1 || len(squad.Players) == 0 && n.Players == 1
}

// open opens a plan like the last one: as many minutes before the start as are said, else as
// the last was; and no sooner than now. Who comes late comes when they do, which was said for
// an opening of so many minutes.
func (di *Diary) open(d *plan.Document, n NewSession, minutes int) error {
	start, err := d.Start.Resolve()
	if err != nil {
		return err
	}
	open, err := d.Open.Offset(start)
	if err != nil {
		return err
	}
	seconds := int(-open)
	if n.Minutes > 0 {
		seconds = n.Minutes * 60
	}
	if left := int(start.Sub(di.base.Now()) / time.Second); left > 0 {
		seconds = min(seconds, left)
	}
	d.Open = clock.BeforeStart(seconds)
	for i := range d.Players {
		if late := &d.Players[i].Late; *late > 0 {
			*late = max(0, *late+seconds-minutes*60)
		}
	}
	return nil
}

// byRoutine makes the plan of a routine, by its id.
func (di *Diary) byRoutine(ctx context.Context, clubID, squad uint64, id string,
	brief compose.Brief) (*compose.Made, error) {
	number, _ := strconv.ParseUint(id, 10, 64) // 0, which nothing has, if it is none
	routine, err := di.books.Routine(ctx, clubID, number)
	if errors.Is(err, planner.ErrNotFound) {
		return nil, plan.In("from", "this routine is no longer there")
	} else if err != nil {
		return nil, err
	}
	document, says, err := compose.Day(brief)
	if err != nil {
		return nil, err
	}
	b, err := di.books.Book(ctx, clubID)
	if err != nil {
		return nil, err
	}
	says = append(says, routine.Is.Use(document, b.Find, di.turn(ctx, clubID, squad, brief))...)
	if len(document.Blocks) == 0 {
		return nil, plan.In("from", "nobody of this routine's units is here today")
	}
	document.Note(says...)
	return &compose.Made{Document: document}, nil
}

// again makes a plan of the last one: its day, its place and its people give way to
// today's, and rulings in force come in. Players are known by what the club knows
// them as, or else by their names; places, leaders and units by their names.
func again(d *plan.Document, today compose.Brief) {
	if d.Kind == plan.Match && today.Kind == plan.Training {
		d.Fixed = slices.DeleteFunc(d.Fixed, func(f plan.Fixed) bool { return today.Sport.OfMatch(f.Name) })
	}
	d.Unclock()
	d.Title, d.Kind, d.Start, d.Today, d.Exceptions = today.Title, today.Kind, today.Start, today.Today, nil
	d.Place, d.Kit = today.Place, today.Kit
	ids := people(d, today)
	units(d, today, ids)
	d.Turns, d.Measure = cmp.Or(today.Sport.Begins, d.Turns), today.Sport.System
	d.SetTurn(today.Turn)
	places(d, today)
	d.Notes = nil
	d.DropEmpty()
	d.Fixed = slices.DeleteFunc(d.Fixed, func(f plan.Fixed) bool { return d.Nobody(f.Who) })
	d.Upgrade()
	d.Unlink()
	d.Restrictions = nil
	for _, r := range today.Restrictions {
		if id, ok := ids[r.Player]; ok {
			r.Player = id
			d.Restrictions = append(d.Restrictions, r)
		}
	}
}

// people brings in who is there today, as the club knows them now. It returns the ids in the
// plan of today's: those that they had in it.
func people(d *plan.Document, today compose.Brief) map[string]string {
	ids := map[string]string{}
	if len(today.Players) == 0 {
		return ids
	}
	var players []plan.Player
	for _, now := range today.Players {
		id := now.ID
		if i := slices.IndexFunc(d.Players, func(p plan.Player) bool { return samePlayer(p, now) }); i >= 0 {
			now.ID, now.DueShift = d.Players[i].ID, d.Players[i].DueShift
		} else {
			for n := 2; d.Player(now.ID) != nil || d.Unit(now.ID) != nil; n++ {
				now.ID = fmt.Sprintf("%s-%d", id, n)
			}
		}
		ids[id], players = now.ID, append(players, now)
	}
	d.Players = players
	return ids
}

// units brings the units of today in, under the ids that those of their names have
// in the plan.
func units(d *plan.Document, today compose.Brief, ids map[string]string) {
	for _, u := range today.Units {
		var members []string
		for _, id := range u.Players {
			if in, here := ids[id]; here {
				members = append(members, in)
			}
		}
		if i := slices.IndexFunc(d.Units, func(was plan.Unit) bool { return was.Name == u.Name }); i >= 0 {
			d.Units[i].Players = members
		} else {
			d.Units = append(d.Units, plan.Unit{ID: u.ID, Name: u.Name, Players: members})
		}
	}
	roles(d, today, ids)
	for i := range d.Units {
		d.Units[i].Players = d.Members(d.Units[i].Players)
	}
	d.Units = slices.DeleteFunc(d.Units, func(u plan.Unit) bool { return len(u.Players) == 0 && !u.Today })
}

// roles gives the roles of the plan to those who have them today; what is not said today
// stays with who had it.
func roles(d *plan.Document, today compose.Brief, ids map[string]string) {
	said := slices.Clone(today.Roles)
	if len(today.Bench) > 0 {
		said = append(said, plan.Unit{Name: plan.Bench, Players: today.Bench})
	}
	if today.Captain != "" {
		said = append(said, plan.Unit{Name: plan.Captain, Players: []string{today.Captain}})
	}
	for _, role := range said {
		var players []string
		for _, id := range role.Players {
			players = append(players, ids[id])
		}
		d.SetRole(role.Name, d.Members(players))
	}
}

// places moves the blocks to today's places and leaders of the same names; a block
// whose place is not here goes to the largest one.
func places(d *plan.Document, today compose.Brief) {
	zone, leader := d.ZoneName, d.LeaderName
	largest := ""
	if len(today.Zones) > 0 {
		largest = slices.MaxFunc(today.Zones, func(a, b plan.Zone) int { return a.Capacity - b.Capacity }).ID
	}
	for b := range d.AllBlocks() {
		name, by := zone(b.Zone), leader(b.Leader)
		if b.Zone != "" {
			b.Zone = largest
		}
		b.Leader = ""
		if n := slices.IndexFunc(today.Zones, func(z plan.Zone) bool { return z.Name == name }); n >= 0 {
			b.Zone = today.Zones[n].ID
		}
		if n := slices.IndexFunc(today.Leaders, func(l plan.Leader) bool { return l.Name == by }); n >= 0 {
			b.Leader = today.Leaders[n].ID
		}
	}
	d.Zones, d.Leaders = slices.Clone(today.Zones), slices.Clone(today.Leaders)
}

// samePlayer tells whether players of two plans are one.
func samePlayer(a, b plan.Player) bool {
	if a.Roster > 0 && b.Roster > 0 {
		return a.Roster == b.Roster
	}
	return planner.FullName(a.First, a.Last) == planner.FullName(b.First, b.Last)
}

// carryPace plans the blocks of a new plan as long as those of their names were planned to
// run with this team lately, since a coach took that; it tells whether there were any.
func (di *Diary) carryPace(ctx context.Context, clubID, squad uint64, d *plan.Document) (carried bool, err error) {
	recent, err := di.sessions.Recent(ctx, clubID, squad)
	for i := range d.Blocks {
		b := &d.Blocks[i]
		for _, was := range recent { // the latest first
			n := slices.IndexFunc(was.Blocks, func(x plan.Block) bool { return x.Name == b.Name })
			if n >= 0 && b.Pace == 0 && was.Blocks[n].Pace > 0 {
				b.Pace, carried = was.Blocks[n].Pace, true
			}
		}
	}
	return carried, err
}

// AddPlan makes a session of a plan document that was read in. Its players are
// the squad's of the same name: what a file says of their rows may be another
// club's.
func (di *Diary) AddPlan(ctx context.Context, by planner.Account, squad uint64, d *plan.Document) (uint64, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return 0, err
	}
	if err := boards.YetToCome(d.Start, di.base.Now()); err != nil {
		return 0, err
	}
	found, err := di.keep.Squad(ctx, by.ClubID, squad)
	if err != nil {
		return 0, err
	}
	rows := map[string]uint64{}
	for _, k := range found.Players {
		name := planner.FullName(k.Is.First, k.Is.Last)
		if _, twice := rows[name]; twice {
			rows[name] = 0 // which of them it is nobody knows: rulings for either count
		} else {
			rows[name] = k.ID
		}
	}
	for i := range d.Players {
		player := &d.Players[i]
		name := planner.FullName(player.First, player.Last)
		player.Roster = rows[name]
		delete(rows, name) // a row is one player's
	}
	fitted, err := schedule.Fit(ctx, d, schedule.AtOnce)
	if err != nil {
		return 0, err
	}
	return di.sessions.AddSession(ctx, by.ClubID, found.ID, store.Fitted{Document: d, Schedule: fitted,
		Summary: "imported", By: by.ID})
}
