package club

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Routine is a list of blocks that is kept and used again. Its audiences are
// names of units and positions, or [plan.Everyone], so that it fits another day's
// squad; its places and leaders are names.
type Routine struct {
	Format int          `json:"format,omitempty"` // of its blocks, as of [plan.Document]
	Name   string       `json:"name"`
	For    string       `json:"for,omitempty"` // what it is kept for: match day, gym day
	Method string       `json:"method"`
	Blocks []plan.Block `json:"blocks"`
	Slots  []Slot       `json:"slots,omitempty"`
	Fixed  []plan.Fixed `json:"fixed,omitempty"` // what its day holds, in minutes to go; nil: as the sport has it
	Was    []plan.Block `json:"was,omitempty"`   // its blocks before it was last kept
}

// Slot is a place in a block that takes another drill each time.
type Slot struct {
	Block string   `json:"block"` // id of the block
	Item  int      `json:"item"`
	Pool  []string `json:"pool"` // codes of drills
}

func (Routine) Kind() Kind       { return KindRoutine }
func (r Routine) Label() string  { return r.Name }
func (r Routine) Unique() string { return r.Name }
func (r Routine) Validate() error {
	v := problems{}
	v.name("name", r.Name, true)
	v.name("for", r.For, false)
	v.when(len(r.Blocks) == 0, "blocks", "a routine has at least one block")
	if _, known := plan.Methods[r.Method]; !known {
		v.add("method", fmt.Sprintf("%q is not a method that is known", r.Method))
	}
	for _, b := range r.Blocks {
		v.name("blocks."+b.ID, b.Name, true)
		v.when(len(b.Items) == 0 || len(b.Items) > plan.MaxItems, "blocks."+b.ID, fmt.Sprintf("a block has between 1 and %d drills", plan.MaxItems))
		for _, item := range b.Items {
			if err := item.Drill.Validate(); err != nil {
				v.add("blocks."+b.ID, err.Error())
			}
		}
	}
	for _, s := range r.Slots {
		i := slices.IndexFunc(r.Blocks, func(b plan.Block) bool { return b.ID == s.Block })
		v.when(i < 0 || s.Item < 0 || i >= 0 && s.Item >= len(r.Blocks[i].Items) || len(s.Pool) == 0, "slots", "a slot names a block, a place in it and a pool of drills")
	}
	return v.err()
}

// NewRoutine makes a routine of a plan's blocks: who, where and by whom by name.
func NewRoutine(d *plan.Document, name, kept string) Routine {
	d = d.Clone()
	d.Upgrade()
	r := Routine{Format: d.Format, Name: name, For: kept, Method: d.Method, Blocks: d.Blocks}
	start, err := d.Start.Resolve()
	for _, f := range d.Fixed {
		window, wrong := f.Span.Window(start)
		if err != nil || wrong != nil {
			continue
		}
		f.Who, f.Span = named(d, f.Who), plan.Span{From: clock.BeforeStart(int(-window.From)), To: clock.BeforeStart(int(-window.To))}
		r.Fixed = append(r.Fixed, f)
	}
	for i := range r.Blocks {
		b := &r.Blocks[i]
		b.Who = named(d, b.Who)
		if z := d.Zone(b.Zone); z != nil {
			b.Zone = z.Name
		}
		if l := d.Leader(b.Leader); l != nil {
			b.Leader = l.Name
		}
		for _, m := range []*clock.Moment{b.Pin, b.Hold.From, b.Hold.Until} {
			if m == nil || m.Clock == "" {
				continue
			}
			if at, wrong := m.Offset(start); err == nil && wrong == nil { // the clock is that of its day
				*m = clock.BeforeStart(int(-at))
			}
		}
	}
	return r
}

// named are the names of units and players, by their ids.
func named(d *plan.Document, ids []string) (who []string) {
	for _, id := range ids {
		if u := d.Unit(id); u != nil {
			who = append(who, u.Name)
		} else if p := d.Player(id); p != nil {
			who = append(who, strings.TrimSpace(p.First+" "+p.Last))
		} else {
			who = append(who, id)
		}
	}
	return who
}

// audiences finds names among the units and players of a plan.
func audiences(d *plan.Document, names []string) (ids []string) {
	for _, name := range names {
		ids = append(ids, audience(d, name)...)
	}
	return ids
}

// Use puts the routine's blocks into a plan in place of its own, for those of
// the audience who are there, and fills rotating slots from their pools: what
// was done longest ago, or never, comes first. It returns what it went without.
func (r Routine) Use(d *plan.Document, find func(code string) (drill.Drill, bool), recent []string) (says []string) {
	d.Method, d.Blocks = r.Method, nil
	says = r.day(d)
	for _, from := range r.Blocks {
		b := (&plan.Document{Blocks: []plan.Block{from}}).Clone().Blocks[0]
		b.Who = audiences(d, from.Who)
		b.Zone, b.Leader = idOf(d.Zones, from.Zone, func(z plan.Zone) (string, string) { return z.Name, z.ID }), idOf(d.Leaders, from.Leader, func(l plan.Leader) (string, string) { return l.Name, l.ID })
		if len(d.Members(b.Who)) == 0 {
			says = append(says, fmt.Sprintf("%s is left out: nobody for it is here", b.Name))
			continue
		}
		if from.Zone != "" && b.Zone == "" {
			says = append(says, fmt.Sprintf("%s: there is no %s here", b.Name, from.Zone))
		}
		d.Blocks = append(d.Blocks, b)
	}
	d.Format = r.Format
	d.Upgrade()
	d.Unlink()
	for _, s := range r.Slots {
		b := d.Block(s.Block)
		if b == nil {
			continue
		}
		best, age := -1, -1
		for i, code := range s.Pool {
			at := slices.Index(recent, code)
			if at < 0 {
				at = len(recent) + 1
			}
			if k, ok := find(code); ok && at > age && k.Serves(b.Phase) {
				best, age = i, at
			}
		}
		if best >= 0 {
			k, _ := find(s.Pool[best])
			b.Items[s.Item] = plan.Item{Drill: k.For(d.Grade)}
			says = append(says, fmt.Sprintf("%s: %s in its turn", b.Name, k.Name))
		}
	}
	return says
}

// day puts what the routine's day holds into a plan, for those who are there.
func (r Routine) day(d *plan.Document) (says []string) {
	if r.Fixed != nil {
		d.Fixed = nil
	}
	for _, f := range r.Fixed {
		if f.Who = audiences(d, f.Who); len(d.Members(f.Who)) > 0 {
			d.Fixed = append(d.Fixed, f)
		} else {
			says = append(says, f.Name+" is left out: nobody for it is here")
		}
	}
	return says
}

// audience finds a name among the units and players of a plan.
func audience(d *plan.Document, name string) []string {
	if name == plan.Everyone {
		return []string{name}
	}
	if id := idOf(d.Units, name, func(u plan.Unit) (string, string) { return u.Name, u.ID }); id != "" {
		return []string{id}
	}
	var ids []string
	for _, p := range d.Players {
		if p.Position == name || strings.TrimSpace(p.First+" "+p.Last) == name {
			ids = append(ids, p.ID)
		}
	}
	return ids
}

func idOf[T any](list []T, name string, of func(T) (name, id string)) string {
	for _, t := range list {
		if n, id := of(t); n == name && name != "" {
			return id
		}
	}
	return ""
}

// Cost is what a routine asks of a squad, with every dose at its target.
type Cost struct {
	Seconds int        // of the busiest player
	Load    drill.Load // the most that any player carries of each
	Ground  int        // seconds that places are held, all together
	Kit     []string   // what has to be there
}

// Cost works out what the routine asks of the people and places of a plan.
func (r Routine) Cost(d *plan.Document) (c Cost) {
	d = d.Clone()
	r.Use(d, func(string) (drill.Drill, bool) { return drill.Drill{}, false }, nil)
	seconds, loads := map[string]int{}, map[string]drill.Load{}
	for i := range d.Blocks {
		b := &d.Blocks[i]
		group, sum := d.Group(b), drill.Load{}
		amounts := make([]int, len(b.Items))
		for n, item := range b.Items {
			amounts[n] = item.Drill.Range.Target
			sum = sum.Add(item.Drill.Load(amounts[n], group))
			for _, kit := range slices.Concat(item.Drill.Kit, item.Drill.LaneKit) {
				if !slices.Contains(c.Kit, kit) {
					c.Kit = append(c.Kit, kit)
				}
			}
		}
		for _, id := range d.Members(b.Who) {
			seconds[id] += b.Seconds(amounts, group)
			loads[id] = loads[id].Add(sum)
			c.Seconds = max(c.Seconds, seconds[id])
			c.Load.Contacts = max(c.Load.Contacts, loads[id].Contacts)
			c.Load.SprintMetres = max(c.Load.SprintMetres, loads[id].SprintMetres)
			c.Load.Acts = max(c.Load.Acts, loads[id].Acts)
			c.Load.HardSeconds = max(c.Load.HardSeconds, loads[id].HardSeconds)
			c.Load.GroundSeconds = max(c.Load.GroundSeconds, loads[id].GroundSeconds)
		}
		if b.Zone != "" {
			c.Ground += b.Seconds(amounts, group)
		}
	}
	slices.Sort(c.Kit)
	return c
}

// Changed says in a coach's words what changed from how the routine was.
func (r Routine) Changed() (says []string) {
	if r.Was == nil {
		return nil
	}
	was, is := &plan.Document{Blocks: r.Was}, &plan.Document{Blocks: r.Blocks}
	for _, b := range was.Blocks {
		if is.Block(b.ID) == nil {
			says = append(says, b.Name+" is gone")
		}
	}
	for _, b := range is.Blocks {
		old := was.Block(b.ID)
		if old == nil {
			says = append(says, b.Name+" is new")
			continue
		}
		if old.Priority != b.Priority {
			says = append(says, fmt.Sprintf("%s was a %s, is a %s", b.Name, old.Priority, b.Priority))
		}
		for _, item := range b.Items {
			i := slices.IndexFunc(old.Items, func(o plan.Item) bool { return o.Drill.Code == item.Drill.Code })
			switch {
			case i < 0:
				says = append(says, fmt.Sprintf("%s: %s is new", b.Name, item.Drill.Name))
			case old.Items[i].Drill.Range.Target != item.Drill.Range.Target:
				says = append(says, fmt.Sprintf("%s: %s, was %s", item.Drill.Name, item.Drill.Words(item.Drill.Range.Target), item.Drill.Figure(old.Items[i].Drill.Range.Target)))
			}
		}
		for _, item := range old.Items {
			if !slices.ContainsFunc(b.Items, func(n plan.Item) bool { return n.Drill.Code == item.Drill.Code }) {
				says = append(says, fmt.Sprintf("%s: %s is gone", b.Name, item.Drill.Name))
			}
		}
	}
	return says
}
