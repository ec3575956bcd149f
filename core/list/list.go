// Package list makes everybody's own list of a plan that was fitted: what a player
// does, or a leader leads, one thing after the other, down to the single step.
package list

import (
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
)

// Entry is a block or an event of the day, as one person has it.
type Entry struct {
	Key      string // id of the block or the event
	From, To clock.Offset
	Name     string
	Block    *schedule.Block // nil: an event
	Drills   []Doing
	With     []string // ids of who does it with the player; none: everybody, or nobody
	Missed   int      // seconds of it that the player is called away
	Joined   int      // seconds of it that are over when the player comes, late; From is that moment
	Way      []int    // the player's own way through the block; nil: as it is listed
	Zone     string   // id of its place; "": wherever they are
	Walk     int      // seconds of the walk to it from what comes before
	Own      []string // own time: what the player always does, a line each
}

// Doing is a drill of a block, as one person does it.
type Doing struct {
	Item    int // of the block
	Drill   drill.Drill
	Amount  int
	Instead string      // the drill it stands in for, by a ruling
	Out     bool        // by a ruling the person leaves the drill out
	Other   bool        // it is of a choice, and the person does others
	group   drill.Group // who shares it
	Beside  bool        // done while the one before it is
	Turn    int         // the person's turn of Turns, from 1; 0: not known, or all at once
	Turns   int         // in how many turns the kit goes round; 0: all at once
	AtOnce  int         // how many do it in each of these
}

// Seconds is how long the entry lasts.
func (e *Entry) Seconds() int { return int(e.To - e.From) }

// Of is a player's list, in the order of time. The rulings that the document holds for
// them are kept; blocks that are left out are not in it.
func Of(d *plan.Document, s *schedule.Schedule, player string) []Entry { return Each(d, s)(player) }

// Each is [Of] for many players: what is the same for all of them is worked out once. The lists share
// the blocks that they point to.
func Each(d *plan.Document, s *schedule.Schedule) func(player string) []Entry {
	versions, blocks, events := today.Versions(d), s.All(d), s.Events(d)
	return func(player string) []Entry {
		entries := own(d, collect(d, blocks, func(b *schedule.Block) bool { return b.Has(player) }), versions, player)
		all := withEvents(entries, events, func(e *schedule.Event) bool { return slices.Contains(e.Players, player) })
		return walked(d, arrived(all, s, player))
	}
}

// own makes entries those of one player: with their sides, their way, and what stands in by a ruling.
func own(d *plan.Document, entries []Entry, versions []today.Version, player string) []Entry {
	for i := range entries {
		e := &entries[i]
		e.With = company(d, e.Block, player)
		e.own(d.Player(player))
		for _, v := range versions {
			if v.Player == player && v.Block == e.Key {
				e.Drills[v.Item] = instead(e.Drills[v.Item], v.Drill)
			}
		}
		e.goRound()
		for _, m := range e.Block.Missed {
			if m.Player == player {
				e.Missed = m.Seconds
			}
		}
	}
	return entries
}

// walked finds the walks from each entry's place to the next one's.
func walked(d *plan.Document, entries []Entry) []Entry {
	last := ""
	for i := range entries {
		if zone := entries[i].Zone; zone != "" {
			entries[i].Walk = schedule.Walk(d, last, zone)
			last = zone
		}
	}
	return entries
}

// arrived leaves out what is over before a player comes, and begins what is under way
// then: nobody is told to be where they cannot be.
func arrived(entries []Entry, s *schedule.Schedule, player string) []Entry {
	at := slices.IndexFunc(s.Fixed, func(w schedule.Window) bool { return w.Late() == player })
	if at < 0 {
		return entries
	}
	here := s.Fixed[at].End
	free := here // for what others have begun
	for i := range entries {
		if entries[i].Key == schedule.ShortListID(player) {
			free = entries[i].To
		}
	}
	from := func(e *Entry) clock.Offset {
		if e.Block != nil && e.Key != schedule.ShortListID(player) {
			return free
		}
		return here
	}
	entries = slices.DeleteFunc(entries, func(e Entry) bool { return e.To <= from(&e) && e.Key != s.Fixed[at].ID })
	for i := range entries {
		e := &entries[i]
		if by := int(from(e) - e.From); by > 0 && e.Key != s.Fixed[at].ID {
			if e.From += clock.Offset(by); e.Block != nil {
				e.Joined, e.Missed = by, max(0, e.Missed-by)
			}
		}
	}
	slices.SortStableFunc(entries, func(a, b Entry) int { return int(a.From - b.From) })
	return entries
}

// Led is what a leader leads, in the order of time, with the events of the whole squad. Who
// is the only leader leads what has none named.
func Led(d *plan.Document, s *schedule.Schedule, leader string) []Entry {
	entries := collect(d, s.All(d), func(b *schedule.Block) bool {
		return b.Leader == leader || b.Leader == "" && len(d.Leaders) == 1
	})
	for i := range entries {
		entries[i].With = entries[i].Block.Members
	}
	return walked(d, withEvents(entries, s.Events(d), func(e *schedule.Event) bool {
		return len(e.Players) == len(d.Players)
	}))
}

// All is the whole plan as one list, in the order of time.
func All(d *plan.Document, s *schedule.Schedule) []Entry {
	entries := collect(d, s.All(d), func(*schedule.Block) bool { return true })
	return withEvents(entries, s.Events(d), func(*schedule.Event) bool { return true })
}

// Alone is a list of blocks without a day: what a routine holds, for one person, one
// block straight after the other from 0 on.
func Alone(blocks []plan.Block) (entries []Entry) {
	at := clock.Offset(0)
	for i := range blocks {
		b := &schedule.Block{Block: &blocks[i], Kept: true, Members: []string{""},
			Group: drill.Group{People: 1, Lanes: 1}, Start: at}
		amounts := make([]int, len(b.Items))
		for n := range amounts {
			amounts[n] = b.Amount(n)
		}
		b.End = at + clock.Offset(b.Seconds(amounts, b.Group))
		entries, at = append(entries, entry(new(plan.Document), b)), b.End
	}
	return entries
}

// own makes the entry a player's: their sides, their way through it, and their turn where the kit goes
// round.
func (e *Entry) own(p *plan.Player) {
	if p == nil {
		return
	}
	player := p.ID
	if e.Block.Frame() {
		e.Own = p.Own
	}
	e.Way = e.Block.Ways[player]
	for n := range e.Drills {
		e.Drills[n].Drill = e.Drills[n].Drill.Own(p.Uses())
		if e.Block.Form == plan.ByChoice {
			e.Drills[n].Other = !slices.Contains(e.Way, n)
		}
		if e.Drills[n].Turns > 0 {
			e.Drills[n].Turn = 1 + e.mates(n, player)/e.Block.Items[n].AtOnce
		}
	}
}

// goRound puts stations in the order in which the person comes to them.
func (e *Entry) goRound() {
	if e.Block.Form != plan.AtStations {
		return
	}
	slices.SortStableFunc(e.Drills,
		func(a, b Doing) int { return slices.Index(e.Way, a.Item) - slices.Index(e.Way, b.Item) })
}

// place is the index in the entry's drills of a drill of the block.
func (e *Entry) place(item int) int {
	return slices.IndexFunc(e.Drills, func(d Doing) bool { return d.Item == item })
}

// mates is how many of those who do drill n with a player come before them.
func (e *Entry) mates(n int, player string) (before int) {
	for _, id := range e.Block.Members {
		if id == player {
			break
		}
		with := e.Block.Ways[id]
		if e.Block.Form == plan.InOrder || e.Block.Form == plan.ByChoice && slices.Contains(with, n) ||
			e.Block.Form == plan.AtStations && slices.Equal(with, e.Way) {
			before++
		}
	}
	return before
}

func collect(d *plan.Document, blocks []schedule.Block, mine func(*schedule.Block) bool) (entries []Entry) {
	for i := range blocks {
		if b := &blocks[i]; b.Kept && mine(b) {
			entries = append(entries, entry(d, b))
		}
	}
	return entries
}

func entry(d *plan.Document, b *schedule.Block) Entry {
	e := Entry{Key: b.ID, From: b.Start, To: b.End, Name: b.Name, Block: b, Zone: b.Zone}
	for n := range b.Items {
		doing := Doing{Item: n, Drill: b.Items[n].Drill, Amount: b.Amount(n), Beside: b.Alongside(n),
			group: b.At(n, b.Group)}
		doing.Drill = quoted(d, doing.Drill)
		if turns := b.Turns(n, b.Group); turns > 1 {
			doing.Turns, doing.AtOnce = turns, b.Items[n].AtOnce
		}
		e.Drills = append(e.Drills, doing)
	}
	return e
}

// quoted is a drill whose cues say what is known of today's opponent or partner.
func quoted(d *plan.Document, k drill.Drill) drill.Drill {
	for i, cue := range k.Cues {
		if said := d.Quote(cue); said != cue {
			k.Cues = slices.Clone(k.Cues)
			k.Cues[i] = said
		}
	}
	return k
}

func withEvents(entries []Entry, events []schedule.Event, mine func(*schedule.Event) bool) []Entry {
	for i := range events {
		if e := &events[i]; mine(e) {
			entries = append(entries, Entry{Key: e.ID, From: e.Start, To: e.End, Name: e.Name, Zone: e.Zone})
		}
	}
	slices.SortStableFunc(entries, func(a, b Entry) int { return int(a.From - b.From) })
	return entries
}

// instead is what a player does in place of a drill; nil: nothing.
func instead(d Doing, stand *drill.Drill) Doing {
	if stand == nil {
		d.Out = true
		return d
	}
	d.Instead, d.Drill, d.Amount = d.Drill.Name, *stand, stand.Range.Target
	return d
}

// company is who a player does a block with, where that is not everybody.
func company(d *plan.Document, b *schedule.Block, player string) []string {
	if len(b.Members) == len(d.Players) || len(b.Members) == 1 {
		return nil
	}
	return slices.DeleteFunc(slices.Clone(b.Members), func(id string) bool { return id == player })
}

// Kit is what the entry takes, by name.
func (e *Entry) Kit() (kit []string) {
	for _, d := range e.Drills {
		if !d.Out && !d.Other {
			kit = appendNew(kit, slices.Concat(d.Drill.Kit, d.Drill.LaneKit, d.Drill.GroupKit)...)
		}
	}
	return kit
}

// Carry is what a player takes out for a list: the kit that is theirs alone.
func Carry(entries []Entry) (kit []string) {
	for i := range entries {
		for _, d := range entries[i].Drills {
			group := entries[i].Block.Group
			for _, one := range d.Drill.Kit {
				if !d.Out && !d.Other && drill.Carried(one) && d.Drill.Pieces(group) >= group.People {
					kit = appendNew(kit, one)
				}
			}
		}
	}
	return kit
}

func appendNew(list []string, more ...string) []string {
	for _, one := range more {
		if !slices.Contains(list, one) {
			list = append(list, one)
		}
	}
	return list
}

// Brought is what a person brings beside their drills' kit: what is theirs by name, or of
// a unit that they are in.
func Brought(d *plan.Document, person string) (things []string) {
	for _, b := range d.Bring {
		if b.Who == person || b.Who != "" && b.Who != plan.Everyone &&
			slices.Contains(d.Members([]string{b.Who}), person) {
			things = appendNew(things, b.What)
		}
	}
	return things
}
