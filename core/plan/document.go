// Package plan holds the plan of one session's run-in: who warms up, at what,
// where, by whom led, and counted back from which start. A [Document] stands by
// itself; it can be kept, copied, exported and fitted without anything else.
package plan

import (
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/core/stake"
)

// Format is the version of the document that this package writes.
const Format = 2

// Kind is what the run-in leads up to.
type Kind string

// The kinds of session.
const (
	Match    Kind = "match"
	Training Kind = "training"
)

// Everyone, as a member of [Block.Who] or [Fixed.Who], means all players.
const Everyone = "*"

// Document is the plan of one session. Its blocks are listed in the order in which
// they are run; a phase colours a block and is judged, it moves nothing.
type Document struct {
	Format int    `json:"format"`
	Title  string `json:"title"`
	Kind   Kind   `json:"kind"`
	Hours
	Site
	Party
	Work
	Told
}

// Hours are the day's times: the start that is counted back from, and when work may begin and has to end.
type Hours struct {
	StartName string       `json:"start_name"` // what the sport calls it: Kick-off
	Start     clock.Start  `json:"start"`
	Open      clock.Moment `json:"open"`                // the earliest work may begin
	Margin    int          `json:"margin"`              // seconds before the start at which work ends
	Slack     int          `json:"slack,omitempty"`     // seconds that it is planned to end sooner than it has to
	UseSpare  bool         `json:"use_spare,omitempty"` // doses may go up to their maximum where minutes are left
	Due       []Due        `json:"due,omitempty"`       // who has to be ready when, by how the day begins
}

// Site is where it takes place, and in what air.
type Site struct {
	Place   string         `json:"place,omitempty"`
	Zones   []Zone         `json:"zones,omitempty"`
	Today   Conditions     `json:"today,omitzero"`
	Measure measure.System `json:"measure,omitzero"` // what lengths, air and wind are said in
}

// Party is who takes part today, what was ruled for them, and what they have with them.
type Party struct {
	Players      []Player       `json:"players"`
	Units        []Unit         `json:"units,omitempty"`
	Leaders      []Leader       `json:"leaders,omitempty"`
	Restrictions []Restriction  `json:"restrictions,omitempty"`
	Grade        drill.Grade    `json:"grade,omitempty"` // "": club
	Turn         Turn           `json:"turn,omitempty"`  // how the day begins
	Turns        Turns          `json:"turns,omitzero"`  // what the sport calls that
	Kit          map[string]int `json:"kit,omitempty"`   // how many there are; what is not named suffices
	Bring        []Bring        `json:"bring,omitempty"` // to carry out beside the drills' kit
}

// Work is what is done, and what stands at fixed times among it.
type Work struct {
	Method   string   `json:"method"` // a key of Methods
	Blocks   []Block  `json:"blocks"`
	Fixed    []Fixed  `json:"fixed,omitempty"`
	Stresses []string `json:"stresses,omitempty"` // the joints that the sport stresses
	// with a start line of their own: after the end, at half-time, on the bench
	Lists []List `json:"lists,omitempty"`
}

// Told is what the plan has to say beside what is done, and what it was told in.
type Told struct {
	Facing     []Fact      `json:"facing,omitempty"` // what is known of today's opponent or partner
	Exceptions []Exception `json:"kept,omitempty"`   // findings that the coach keeps, and why
	// how the plan was fitted to its day: what it goes without, what takes its turn; sentences
	Notes []string `json:"notes,omitempty"`
	Said  []Said   `json:"said,omitempty"` // the lines in which it was written
}

// Restriction is what licensed medical staff ruled for a player. It is never
// overruled by a plan.
type Restriction struct {
	Player     string   `json:"player"`
	NoJumps    bool     `json:"no_jumps,omitempty"`
	NoOverhead bool     `json:"no_overhead,omitempty"`
	MaxEffort  float64  `json:"max_effort,omitempty"`  // 0: no limit
	Spare      []string `json:"spare,omitempty"`       // joints
	MaxMinutes int      `json:"max_minutes,omitempty"` // of work; 0: no limit
}

// Exception is a finding that the coach keeps, with the reason.
type Exception struct {
	Rule   string `json:"rule"`
	Where  string `json:"where,omitempty"`
	Reason string `json:"reason"`
}

// Player is one of the squad who takes part today.
type Player struct {
	ID       string      `json:"id"`
	Roster   uint64      `json:"roster,omitempty"` // the club's player; 0: nobody it knows
	Number   int         `json:"number,omitempty"` // 0: none
	First    string      `json:"first"`
	Last     string      `json:"last"`
	Position string      `json:"position,omitempty"`
	Late     int         `json:"late,omitempty"` // seconds after Open that the player comes; nobody waits for them
	Loose    bool        `json:"hypermobile,omitempty"`
	Hand     drill.Way   `json:"hand,omitempty"` // that the player uses: left, right; "": not said
	Foot     drill.Way   `json:"foot,omitempty"`
	Bats     drill.Way   `json:"bats,omitempty"`  // the side of the bat; "": as the hand
	Level    drill.Grade `json:"level,omitempty"` // "": as the squad
	Over     bool        `json:"over,omitempty"`  // who comes late works on over the drink and the line-up
	Own      []string    `json:"own,omitempty"`   // what they always do in own time, a line each
	// seconds that the player's due time lies later (earlier if negative) than the squad's
	DueShift int `json:"due_shift,omitempty"`

	// Forms are drills, by code, that the player does in another form: [Easier] or [Harder].
	Forms map[string]string `json:"forms,omitempty"`
}

// The other forms of a drill, as a player may do it.
const (
	Easier = "easier"
	Harder = "harder"
)

// ShortName is the first name and the initial of the last: "Mara T."
func (p Player) ShortName() string {
	for _, initial := range p.Last {
		return p.First + " " + string(initial) + "."
	}
	return p.First
}

// Unit is a position group or any other set of players that works together.
type Unit struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	Players []string `json:"players"`
	Today   bool     `json:"today,omitempty"` // a role of the day, such as the starter: it may be nobody's yet
	Of      int      `json:"of,omitempty"`    // how many have the role; 0: any number
}

// Zone is a place where blocks happen.
type Zone struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	Capacity int      `json:"capacity"`         // people at once
	Lanes    int      `json:"lanes"`            // lanes or stations side by side
	Metres   float64  `json:"metres,omitempty"` // of a lane; 0: not known
	Surface  string   `json:"surface,omitempty"`
	Covered  bool     `json:"covered,omitempty"`     // stays dry
	Celsius  *float64 `json:"air_celsius,omitempty"` // under its roof; nil: not said
	Fittings []string `json:"fittings,omitempty"`    // what it has: wall, posts, bars, shade; none: not said
	Free     []Span   `json:"free,omitempty"`        // none: always free
	Lies     *Lie     `json:"lies,omitempty"`        // nil: nobody laid it on the plan of the ground
}

// Has tells whether the zone has a fitting of that name: a wall, posts; one of several
// counts.
func (z Zone) Has(fitting string) bool {
	one := func(name string) string { return strings.TrimSuffix(strings.ToLower(name), "s") }
	return slices.ContainsFunc(z.Fittings, func(has string) bool { return one(has) == one(fitting) })
}

// Span is from one moment to another.
type Span struct {
	From clock.Moment `json:"from"`
	To   clock.Moment `json:"to"`
}

// Window places the span on the time line of start.
func (s Span) Window(start time.Time) (clock.Window, error) {
	from, err := s.From.Offset(start)
	if err != nil {
		return clock.Window{}, err
	}
	to, err := s.To.Offset(start)
	return clock.Window{From: from, To: to}, err
}

// Leader is one of the staff, who can lead one block at a time.
type Leader struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Role string `json:"role,omitempty"`
	Free []Span `json:"free,omitempty"` // when they are there; none: all day
}

// Fixed is a thing of the day that the plan flows around: a talk, the toss.
type Fixed struct {
	ID     string   `json:"id"`
	Name   string   `json:"name"`
	Who    []string `json:"who"` // ids of units and players, or Everyone
	Span   Span     `json:"span"`
	Active bool     `json:"active,omitempty"` // it keeps the players warm
	Zone   string   `json:"zone,omitempty"`   // where it is; "": wherever they are
}

// Priority says how willingly a coach gives a block up; package stake says what follows.
type Priority = stake.Priority

// The priorities.
const (
	Must   = stake.Must
	Should = stake.Should
	Could  = stake.Could
)

// Priorities lists them, the heaviest first.
var Priorities = stake.Priorities

// Whether a block is the first that raises somebody's pulse.
const FirstPulse, LaterPulse = true, false

// Stakes is what decides when the block goes, with pulse telling whether it is the first that
// raises somebody's pulse.
func (b *Block) Stakes(pulse bool) stake.Block {
	return stake.Block{Priority: b.Priority, Timed: b.Timed(), Pulse: pulse}
}

// Block is a few drills in order, run as one for one audience.
type Block struct {
	ID    string      `json:"id"`
	Name  string      `json:"name"`
	Aim   string      `json:"aim"`
	Why   string      `json:"why,omitempty"` // why it was put in, where the plan was composed
	Phase drill.Phase `json:"phase"`
	On    Turn        `json:"on,omitempty"` // the days on which it is run; "": all
	Who   []string    `json:"who"`          // ids of units and players, or Everyone
	Zone  string      `json:"zone,omitempty"`
	// fewer lanes than the zone has, such as two tees; 0: all of them
	Stations int      `json:"stations,omitempty"`
	Leader   string   `json:"leader,omitempty"`
	Priority Priority `json:"priority"`
	// may swap places with loose neighbours in the list; own time may lie anywhere
	Loose     bool          `json:"loose,omitempty"`
	Excusable bool          `json:"excusable,omitempty"` // goes on without those called away meanwhile
	Pin       *clock.Moment `json:"pin,omitempty"`
	Hold      Hold          `json:"hold,omitzero"`
	After     []string      `json:"after,omitempty"` // ids of blocks that end first
	SetUp     int           `json:"set_up,omitempty"`
	Form      Form          `json:"form,omitempty"`  // how it is run
	Split     Split         `json:"split,omitempty"` // stations: how its groups are made
	// stations: the groups that a coach made, ids of units and players
	Groups    [][]string `json:"groups,omitempty"`
	Change    int        `json:"change,omitempty"`     // stations: seconds to go to the next; 0: ChangeSeconds
	Pick      int        `json:"pick,omitempty"`       // choice: how many of its drills each does; 0: one
	Choices   Choices    `json:"choices,omitempty"`    // choice: what players chose
	Rounds    int        `json:"rounds,omitempty"`     // how often its drills are gone through; 0: once
	RoundRest int        `json:"round_rest,omitempty"` // seconds between rounds

	// LeastRounds is how few rounds will do, where a coach said that: 2–3 rounds; 0: not said.
	LeastRounds int `json:"least_rounds,omitempty"`

	// what its seconds are multiplied by, since it runs longer or shorter with this team; 0: by
	// nothing
	Pace  float64 `json:"pace,omitempty"`
	Note  string  `json:"note,omitempty"` // what was said of it and not understood
	Items []Item  `json:"items"`
}

// Choices are the drills that players chose, by index in the block and by player's id.
type Choices map[string][]int

// Item is a drill in a block.
type Item struct {
	Drill   drill.Drill `json:"drill"`
	Explain int         `json:"explain,omitempty"` // seconds to explain it, where it is new to the group

	// Written: a coach wrote it, or set its dose by hand: the day's factors are an offer, and
	// where it has to be shorter rounds and sets go first.
	Written bool `json:"written,omitempty"`

	AtOnce    int  `json:"at_once,omitempty"`   // how many have the kit of it at once, the others take turns; 0: all
	Alongside bool `json:"alongside,omitempty"` // done while the one before it is, such as visualising

	// Easier and Swap stand in for the drill where a restriction touches it.
	Easier *drill.Drill `json:"easier,omitempty"`
	Swap   *drill.Drill `json:"swap,omitempty"`

	// Harder, as Easier, is what players do who do the drill in that form.
	Harder *drill.Drill `json:"harder,omitempty"`
}

// Form is what a player does in place of the drill, since they do it in that form; nil: there
// is none.
func (i *Item) Form(p *Player) (way string, is *drill.Drill) {
	switch way = p.Forms[i.Drill.Code]; way {
	case Easier:
		return way, i.Easier
	case Harder:
		return way, i.Harder
	}
	return "", nil
}

// Shrinks tells whether rounds and sets of the drill go first where its block is shortened:
// of what a coach wrote, unless they said what is the least, or that it is exact.
func (i *Item) Shrinks() bool { return i.Written && !i.Drill.Range.Said && !i.Drill.Dose.Exact }

// SetsShrink tells whether sets of the drill go where its block is shortened: of what
// [Item.Shrinks], and where a coach said how few sets will do.
func (i *Item) SetsShrink() bool {
	return i.Shrinks() || i.Written && i.Drill.Dose.LeastSets > 0 && !i.Drill.Dose.Exact
}

// OneHold tells whether it is one hold of some seconds, which is held shorter.
func (i *Item) OneHold() bool {
	d := &i.Drill.Dose
	return i.Shrinks() && d.Kind == drill.Hold && i.Drill.Range.Target == 1 && d.Breaths == 0
}

// Members resolves ids of units and players, or Everyone, to the ids of players, in the order of
// the document and each once. Ids that nobody has are passed over.
func (party *Party) Members(who []string) []string {
	all := slices.Contains(who, Everyone)
	wanted := map[string]bool{}
	for _, id := range who {
		if all {
			break
		}
		wanted[id] = true
		if unit := party.Unit(id); unit != nil {
			for _, member := range unit.Players {
				wanted[member] = true
			}
		}
	}
	members := make([]string, 0, len(party.Players))
	for i := range party.Players {
		if p := &party.Players[i]; all || wanted[p.ID] {
			members = append(members, p.ID)
		}
	}
	return members
}

// Block returns the block of that id, of the run-in or of one of the lists, or nil.
func (w *Work) Block(id string) *Block {
	if b := find(w.Blocks, id, idOfBlock); b != nil {
		return b
	}
	for i := range w.Lists {
		if b := find(w.Lists[i].Blocks, id, idOfBlock); b != nil {
			return b
		}
	}
	return nil
}

func idOfBlock(b *Block) string { return b.ID }

// Unit returns the unit of that id, or nil.
func (party *Party) Unit(id string) *Unit {
	return find(party.Units, id, func(u *Unit) string { return u.ID })
}

// Zone returns the zone of that id, or nil.
func (s *Site) Zone(id string) *Zone {
	return find(s.Zones, id, func(z *Zone) string { return z.ID })
}

// Leader returns the leader of that id, or nil.
func (party *Party) Leader(id string) *Leader {
	return find(party.Leaders, id, func(l *Leader) string { return l.ID })
}

// Player returns the player of that id, or nil.
func (party *Party) Player(id string) *Player {
	return find(party.Players, id, func(p *Player) string { return p.ID })
}

func find[T any](list []T, id string, idOf func(*T) string) *T {
	for i := range list {
		if idOf(&list[i]) == id {
			return &list[i]
		}
	}
	return nil
}

// Event returns the fixed event of that id, or nil.
func (w *Work) Event(id string) *Fixed {
	return find(w.Fixed, id, func(f *Fixed) string { return f.ID })
}

// Uses is which sides the player uses.
func (p *Player) Uses() drill.Uses { return drill.Uses{Hand: p.Hand, Foot: p.Foot, Bats: p.Bats} }

// Group is who shares the doses of the block: its players, the lanes of its zone or
// its own stations, with the kit that there is.
func (d *Document) Group(b *Block) drill.Group {
	members := d.Members(b.Who)
	group := drill.Group{People: len(members), Lanes: 1, Stock: d.Kit}
	for _, id := range members {
		p := d.Player(id)
		if uses := p.Uses(); uses.Hand == drill.Both || uses.Foot == drill.Both || uses.Bats == drill.Both {
			group.Sides = append(group.Sides, uses)
		}
	}
	zone := d.Zone(b.Zone)
	if b.Zone == "" { // nobody said where: they make as many lines as there is room for
		zone = d.Roomiest()
	}
	if zone != nil {
		group.Lanes = zone.Lanes
	}
	if b.Stations > 0 {
		group.Lanes = b.Stations
	}
	if b.Form == ByChoice {
		group.Shares = make([]int, len(b.Items))
		for _, items := range d.Chosen(b) {
			for _, i := range items {
				group.Shares[i]++
			}
		}
	}
	return group
}

// Indoors tells whether the block is done under a roof, where there is no wind and
// no outdoor air. What has no place is where all the places are.
func (s *Site) Indoors(b *Block) bool {
	if z := s.Zone(b.Zone); z != nil {
		return z.Covered
	}
	return len(s.Zones) > 0 && !slices.ContainsFunc(s.Zones, func(z Zone) bool { return !z.Covered })
}

// Roof is the air under a roof in °C, unless somebody says otherwise.
const Roof = 18.0

// RoofAir is the air in °C where a block is done under a roof.
func (s *Site) RoofAir(b *Block) float64 {
	if z := s.Zone(b.Zone); z != nil && z.Celsius != nil {
		return *z.Celsius
	}
	return Roof
}

// Ruled is what medical staff ruled for a player.
func (party *Party) Ruled(player string) (list []Restriction) {
	for _, r := range party.Restrictions {
		if r.Player == player {
			list = append(list, r)
		}
	}
	return list
}

// Content is what tells one plan from another: its blocks and their drills.
func (w *Work) Content() (list []string) {
	for _, b := range w.Blocks {
		for _, i := range b.Items {
			list = append(list, b.Name+"/"+i.Drill.Code)
		}
	}
	return list
}
