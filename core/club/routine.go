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
	Fixed  []plan.Fixed `json:"fixed,omitempty"`  // what its day holds, in minutes to go; nil: as the sport has it
	Roles  []string     `json:"roles,omitempty"`  // of the day that its blocks are for
	Lists  []plan.List  `json:"lists,omitempty"`  // with a line of their own
	Season string       `json:"season,omitempty"` // the part of the year that it is for; "": any
	Was    []plan.Block `json:"was,omitempty"`    // its blocks before it was last kept
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
	v.mustName("name", r.Name)
	v.mayName("for", r.For)
	v.mayName("season", r.Season)
	v.when(len(r.Blocks) == 0, "blocks", "a routine has at least one block")
	if _, known := plan.Methods[r.Method]; !known {
		v.add("method", fmt.Sprintf("%q is not a method that is known", r.Method))
	}
	for _, b := range r.Blocks {
		v.mustName("blocks."+b.ID, b.Name)
		v.when(len(b.Items) == 0 || len(b.Items) > plan.MaxItems, "blocks."+b.ID,
			fmt.Sprintf("a block has between 1 and %d drills", plan.MaxItems))
		for _, item := range b.Items {
			if err := item.Drill.Validate(); err != nil {
				v.add("blocks."+b.ID, err.Error())
			}
		}
	}
	for _, s := range r.Slots {
		i := slices.IndexFunc(r.Blocks, func(b plan.Block) bool { return b.ID == s.Block })
		v.when(i < 0 || s.Item < 0 || i >= 0 && s.Item >= len(r.Blocks[i].Items) || len(s.Pool) == 0, "slots",
			"a slot names a block, a place in it and a pool of drills")
	}
	return v.err()
}

// NewRoutine makes a routine of a plan's blocks, and of its lists: who, where and by whom
// by name. Of some blocks, by id, where only those are wanted: then nothing else is in it.
func NewRoutine(d *plan.Document, name, kept string, only ...string) Routine {
	d = d.Clone()
	d.Upgrade()
	r := Routine{Format: d.Format, Name: name, For: kept, Method: d.Method, Blocks: d.Blocks, Lists: d.Lists}
	for _, role := range d.Roles() {
		r.Roles = append(r.Roles, role.Name)
	}
	if len(only) > 0 {
		r.Blocks, r.Lists = nil, nil
		for b := range d.AllBlocks() {
			if slices.Contains(only, b.ID) {
				b.Pin, b.Hold, b.After = nil, plan.Hold{}, nil // its minute is that of its day
				r.Blocks = append(r.Blocks, *b)
			}
		}
	}
	start, err := d.Start.Resolve()
	for _, f := range d.Fixed {
		window, wrong := f.Span.Window(start)
		if err != nil || wrong != nil || len(only) > 0 {
			continue
		}
		f.Who, f.Span = named(d, f.Who), plan.Span{From: clock.BeforeStart(int(-window.From)),
			To: clock.BeforeStart(int(-window.To))}
		r.Fixed = append(r.Fixed, f)
	}
	for i := range r.Blocks {
		byName(d, &r.Blocks[i])
	}
	for l := range r.Lists {
		for i := range r.Lists[l].Blocks {
			byName(d, &r.Lists[l].Blocks[i])
		}
	}
	return r
}

// byName names who does a block, where and led by whom. What single players chose or
// which group they were in is of their day.
func byName(d *plan.Document, b *plan.Block) {
	b.Who, b.Choices, b.Groups = named(d, b.Who), nil, nil
	if b.Split == plan.ByHand {
		b.Split = plan.Evenly
	}
	if z := d.Zone(b.Zone); z != nil {
		b.Zone = z.Name
	}
	if l := d.Leader(b.Leader); l != nil {
		b.Leader = l.Name
	}
	start, err := d.Start.Resolve()
	for _, m := range []*clock.Moment{b.Pin, b.Hold.From, b.Hold.Until} {
		if m == nil || m.Clock == "" {
			continue
		}
		if at, wrong := m.Offset(start); err == nil && wrong == nil { // the clock is that of its day
			*m = clock.BeforeStart(int(-at))
		}
	}
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

// Use puts the routine's blocks into a plan in place of its own, for those of the audience who
// are there, and fills rotating slots from their pools with the drill whose turn it is; nil: the
// first. It returns what it went without.
func (r Routine) Use(d *plan.Document, find func(code string) (drill.Drill, bool),
	turn func(pool []drill.Drill) *drill.Drill) (says []string) {
	d.Method, d.Blocks = r.Method, nil
	r.roles(d)
	says = r.day(d)
	for i := range r.Blocks {
		b, without := placed(d, &r.Blocks[i])
		if says = append(says, without...); b != nil {
			d.Blocks = append(d.Blocks, *b)
		}
	}
	if len(r.Lists) > 0 {
		d.Lists = nil
	}
	for _, l := range r.Lists {
		var blocks []plan.Block
		for i := range l.Blocks {
			b, without := placed(d, &l.Blocks[i])
			if says = append(says, without...); b != nil {
				blocks = append(blocks, *b)
			}
		}
		l.Blocks = blocks
		d.Lists = append(d.Lists, l)
	}
	d.Format = r.Format
	d.Upgrade()
	d.Unlink()
	return append(says, r.fillSlots(d, find, turn)...)
}

// fillSlots puts the drill whose turn it is into each slot of a plan.
func (r Routine) fillSlots(d *plan.Document, find func(code string) (drill.Drill, bool),
	turn func(pool []drill.Drill) *drill.Drill) (says []string) {
	for _, s := range r.Slots {
		b := d.Block(s.Block)
		if b == nil {
			continue
		}
		var pool []drill.Drill
		for _, code := range s.Pool {
			if k, ok := find(code); ok && k.Serves(b.Phase) {
				pool = append(pool, k)
			}
		}
		if len(pool) == 0 {
			continue
		}
		k := &pool[0]
		if turn != nil {
			k = turn(pool)
		}
		b.Items[s.Item] = plan.Item{Drill: k.For(d.Grade)}
		says = append(says, fmt.Sprintf("%s: %s in its turn", b.Name, k.Name))
	}
	return says
}

// roles makes sure that the plan knows the roles that the routine is for: nobody has them
// yet.
func (r Routine) roles(d *plan.Document) {
	for _, name := range r.Roles {
		if !slices.ContainsFunc(d.Units, func(u plan.Unit) bool { return u.Name == name }) {
			d.SetRole(name, nil)
		}
	}
}

// placed is a kept block for a plan, with what it goes without; nil where nobody for it is
// here.
func placed(d *plan.Document, from *plan.Block) (b *plan.Block, without []string) {
	block := from.Clone()
	block.Who = audiences(d, from.Who)
	block.Zone, block.Leader = idOf(d.Zones, from.Zone, func(z plan.Zone) (string, string) { return z.Name, z.ID }),
		idOf(d.Leaders, from.Leader, func(l plan.Leader) (string, string) { return l.Name, l.ID })
	if d.Nobody(block.Who) {
		return nil, []string{fmt.Sprintf("%s is left out: nobody for it is here", block.Name)}
	}
	if from.Zone != "" && block.Zone == "" {
		without = append(without, fmt.Sprintf("%s: there is no %s here", block.Name, from.Zone))
	}
	return &block, without
}

// Into puts the routine's blocks into a plan beside its own, last. It returns what it went
// without, and fails where a plan would hold too many.
func (r Routine) Into(d *plan.Document) (says []string, err error) {
	if len(d.Blocks)+len(r.Blocks) > plan.MaxBlocks {
		return nil, plan.In("routine", "a plan has %d blocks at most", plan.MaxBlocks)
	}
	r.roles(d)
	ids := map[string]string{}
	for i := range r.Blocks {
		b, without := placed(d, &r.Blocks[i])
		if says = append(says, without...); b == nil {
			continue
		}
		if b.Phase != drill.Own && !slices.Contains(plan.Methods[d.Method].Phases, b.Phase) {
			b.Phase = drill.Sport
		}
		old := b.ID
		for n, id := range b.After {
			b.After[n] = ids[id]
		}
		b.Hold.Straight, b.Hold.Before, b.Hold.After = ids[b.Hold.Straight], "", ""
		ids[old] = d.Insert(*b, "")
	}
	d.Unlink()
	return says, nil
}

// day puts what the routine's day holds into a plan, for those who are there.
func (r Routine) day(d *plan.Document) (says []string) {
	if r.Fixed != nil {
		d.Fixed = nil
	}
	for _, f := range r.Fixed {
		if f.Who = audiences(d, f.Who); !d.Nobody(f.Who) {
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
		if plan.Plays(p.Position, name) || strings.TrimSpace(p.First+" "+p.Last) == name {
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
	was, document := &plan.Document{Work: plan.Work{Blocks: r.Was}}, &plan.Document{Work: plan.Work{Blocks: r.Blocks}}
	for _, b := range was.Blocks {
		if document.Block(b.ID) == nil {
			says = append(says, b.Name+" is gone")
		}
	}
	for _, b := range document.Blocks {
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
				says = append(says, fmt.Sprintf("%s: %s, was %s", item.Drill.Name,
					item.Drill.Words(item.Drill.Range.Target), item.Drill.Figure(old.Items[i].Drill.Range.Target)))
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
