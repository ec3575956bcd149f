package check

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
)

// The rules of this file look at what is asked for, before it is fitted: what
// cannot be, who or what stands in the way, and by how long.

// asked is a block as the fit gets it.
type asked struct {
	*runin.Block
	name  string
	least int // seconds
}

// from and to are where a pinned block stands.
func (a asked) from() clock.Offset { return *a.Pin }
func (a asked) to() clock.Offset   { return *a.Pin + clock.Offset(a.least) }

func (a asked) overlaps(b asked) int {
	return clock.Window{From: a.from(), To: a.to()}.Overlap(clock.Window{From: b.from(), To: b.to()})
}

// requests are what is asked for; nil where that cannot be read.
type requests struct {
	*runin.Problem
	blocks []asked
}

func (r *reading) requests() *requests {
	if r.asked == nil {
		r.asked = requestsOf(r.Document)
	}
	return r.asked
}

func requestsOf(d *plan.Document) *requests {
	c, err := schedule.Compile(d)
	if err != nil {
		return &requests{Problem: &runin.Problem{}}
	}
	q := &requests{Problem: &c.Problem}
	for i := range c.Problem.Blocks {
		b := &c.Problem.Blocks[i]
		q.blocks = append(q.blocks, asked{b, c.Document.Blocks[i].Name, b.Levels[0].Seconds})
	}
	return q
}

// pinnedPairs are the pairs of blocks that are set to minutes and overlap, with by
// how many seconds.
func (q *requests) pinnedPairs(report func(a, b asked, seconds int)) {
	for i, a := range q.blocks {
		for _, b := range q.blocks[i+1:] {
			if a.Pin == nil || b.Pin == nil {
				continue
			}
			if seconds := a.overlaps(b); seconds > 0 {
				report(a, b, seconds)
			}
		}
	}
}

// pins finds blocks set to minutes at which they cannot be.
func pins(r *reading) {
	q := r.requests()
	q.pinnedPairs(func(a, b asked, seconds int) {
		both := shared(a.Players, b.Players)
		if len(both) == 0 {
			return
		}
		r.add(b.ID, fmt.Sprintf("%s and %s are both set to a minute and overlap by %s: %s cannot do both", a.name,
			b.name, lasting(seconds), r.names(both)), both, "")
	})
	for _, a := range q.blocks {
		if a.Pin == nil {
			continue
		}
		for _, f := range q.Fixed {
			held := shared(a.Players, f.Players)
			overlap := clock.Window{From: a.from(), To: a.to()}.Overlap(clock.Window{From: f.Start, To: f.End})
			if overlap > 0 && len(held) > 0 && (!a.Excusable || len(held) == len(a.Players)) {
				r.add(a.ID, fmt.Sprintf("%s is set to %s to go: %s %s at %s then, for %s of it", a.name,
					a.from().ToGo(), r.names(held), verb(len(held)), r.eventName(f.ID), lasting(overlap)), held, "")
			}
		}
		for _, p := range q.Players {
			if slices.Contains(a.Players, p.ID) && (a.from() < p.Open || a.to() > p.Due) {
				r.add(a.ID, fmt.Sprintf("%s is set to %s to go, outside the time in which %s may work: %s to %s to go",
					a.name, a.from().ToGo(), r.names([]string{p.ID}), p.Open.ToGo(), p.Due.ToGo()), []string{p.ID}, "")
			}
		}
	}
	r.chained(q)
}

// chained finds blocks that are set to a minute before what they come after.
func (r *reading) chained(q *requests) {
	byID := map[string]asked{}
	for _, a := range q.blocks {
		byID[a.ID] = a
	}
	for _, b := range q.blocks {
		for _, id := range b.After {
			if a := byID[id]; a.Block != nil && a.Pin != nil && b.Pin != nil && b.from() < a.to() {
				r.add(b.ID, fmt.Sprintf("%s comes after %s, and is set to %s to go: %s too soon", b.name, a.name,
					b.from().ToGo(), lasting(int(a.to()-b.from()))), nil, "")
			}
		}
	}
}

// leaderBusy finds leaders of whom more is asked than they have minutes, or who are
// wanted twice at once.
func leaderBusy(r *reading) {
	q := r.requests()
	for _, l := range r.Document.Leaders {
		led := func(a asked) bool { return needs(a, l.ID) > 0 }
		ask := func(id string) []change { return r.askOthers(id, l.ID) }
		q.pinnedPairs(func(a, b asked, seconds int) {
			if led(a) && led(b) {
				r.add(b.ID, fmt.Sprintf("%s leads %s and %s, which are set to overlap by %s", l.Name, a.name, b.name,
					lasting(seconds)), nil, "Ask somebody else to lead "+b.name, ask(b.ID)...)
			}
		})
		q.alone(l.ID, func(a asked, room int) {
			r.add(a.ID,
				fmt.Sprintf("%s leads %s, which takes %s at the least, and is there for %s of the time that "+
					"its players have",
					l.Name, a.name, lasting(a.least), lasting(room)), nil, "Ask somebody else", ask(a.ID)...)
		})
		if over, last := q.crowded(l.ID, 1); over > 0 {
			r.add(last.ID, fmt.Sprintf("%s leads what must be done for %s more than there is time for: %s", l.Name,
				lasting(over),
				q.listing(l.ID)), nil, "Ask somebody else to lead "+last.name, ask(last.ID)...)
		}
	}
}

// askOthers gives a block to any leader but one, or to its players.
func (r *reading) askOthers(block, but string) (changes []change) {
	for _, other := range r.Document.Leaders {
		if other.ID != but {
			changes = append(changes, set(block, func(b *plan.Block) { b.Leader = other.ID }))
		}
	}
	return append(changes, set(block, func(b *plan.Block) { b.Leader = "" }))
}

// placeBusy finds places that are wanted for more people, or for longer, than they
// have.
func placeBusy(r *reading) {
	q := r.requests()
	for _, z := range r.Document.Zones {
		move := func(a asked) (changes []change) {
			return []change{roomier(a.ID, len(a.Players), z.ID), set(a.ID, func(b *plan.Block) { b.Zone = "" })}
		}
		q.pinnedPairs(func(a, b asked, seconds int) {
			if in := needs(a, z.ID) + needs(b, z.ID); needs(a, z.ID) > 0 && needs(b, z.ID) > 0 && in > z.Capacity {
				r.add(b.ID, fmt.Sprintf("%s holds %d: %s and %s are set to be there at once for %s, %d people", z.Name,
					z.Capacity, a.name, b.name, lasting(seconds), in), nil, "Go elsewhere with "+b.name, move(b)...)
			}
		})
		q.alone(z.ID, func(a asked, room int) {
			r.add(a.ID,
				fmt.Sprintf("%s is free for %s of the time that the players of %s have, and it takes %s at the least",
					z.Name, lasting(room), a.name, lasting(a.least)), nil, "Go elsewhere", move(a)...)
		})
		for _, a := range q.blocks {
			if window := q.resource(z.ID); a.Pin != nil && needs(a, z.ID) > 0 && !within(window, a.from(), a.to()) {
				r.add(a.ID, fmt.Sprintf("%s is set to %s to go, when %s is not free", a.name, a.from().ToGo(), z.Name),
					nil, "Go elsewhere", roomier(a.ID, len(a.Players), z.ID))
			}
		}
		if over, last := q.crowded(z.ID, z.Capacity); over > 0 {
			r.add(last.ID, fmt.Sprintf("%s is wanted for %s more than it is free: %s", z.Name, lasting(over),
				q.listing(z.ID)), nil, "Go elsewhere with "+last.name, move(last)...)
		}
	}
}

// partnerBusy finds blocks for which one of their people has no time: called away,
// or elsewhere.
func partnerBusy(r *reading) {
	q := r.requests()
	for _, a := range q.blocks {
		if a.Excusable || len(a.Players) < 2 || q.room(a, a.Players, "") >= a.least {
			continue
		}
		for i, p := range a.Players {
			rest := slices.Delete(slices.Clone(a.Players), i, i+1)
			if q.room(a, rest, "") < a.least {
				continue // not this one alone
			}
			r.add(a.ID, fmt.Sprintf("%s has %s in a row for %s, which takes %s at the least%s", r.names([]string{p}),
				lasting(q.room(a, []string{p}, "")), a.name, lasting(a.least), r.why(q, p)), []string{p},
				"Plan it without "+r.names([]string{p}), func(d *plan.Document) bool { return without(d, a.ID, p) },
				drop(a.ID))
		}
	}
}

// why lists what a player is called away to.
func (r *reading) why(q *requests, player string) string {
	var names []string
	for _, f := range q.Fixed {
		if slices.Contains(f.Players, player) {
			names = appendNew(names, r.eventName(f.ID))
		}
	}
	if len(names) == 0 {
		return ""
	}
	return ": " + listed(names)
}

func (in *Input) eventName(id string) string {
	if f := in.Document.Event(id); f != nil {
		return f.Name
	}
	return "not there yet"
}

// impossible says that the musts do not fit, for whom it is tightest, and with whom
// and where.
func impossible(r *reading) {
	res := r.Schedule.Result
	if res.Feasible {
		return
	}
	var by []string
	if res.ShortBy > 0 {
		by = append(by, "short by "+lasting(res.ShortBy))
	}
	for _, b := range r.blocks {
		if b.Priority == plan.Must && (!b.Kept || r.Schedule.OnlyOnce(b.ID)) {
			by = append(by, fmt.Sprintf("%s%s%s", b.Name, in(" with ", r.Document.LeaderName(b.Leader)),
				in(" on ", r.Document.ZoneName(b.Zone))))
		}
	}
	what := "What must be done does not fit"
	if len(by) > 0 {
		what += ": " + listed(by)
	}
	var tries []change
	for _, n := range []int{1, 2} {
		tries = append(tries, func(d *plan.Document) bool {
			left := n
			for i := len(r.blocks) - 1; i >= 0 && left > 0; i-- {
				if b := d.Block(r.blocks[i].ID); b != nil && b.Priority == plan.Must &&
					(!r.blocks[i].Kept || r.Schedule.OnlyOnce(b.ID)) {
					b.Priority, left = plan.Should, left-1
				}
			}
			return left < n
		})
	}
	r.add("", what, nil, "Let what does not fit go first", tries...)
}

func in(word, name string) string {
	if name == "" {
		return ""
	}
	return word + name
}

// needs is how much of a resource a block takes while it runs.
func needs(a asked, resource string) int {
	for _, n := range a.Needs {
		if n.Resource == resource {
			return n.Amount
		}
	}
	return 0
}

func shared(a, b []string) (both []string) {
	for _, x := range a {
		if slices.Contains(b, x) {
			both = append(both, x)
		}
	}
	return both
}

func within(free []clock.Window, from, to clock.Offset) bool {
	return slices.ContainsFunc(free, func(w clock.Window) bool { return w.From <= from && to <= w.To })
}

// resource is when a resource may be used.
func (q *requests) resource(id string) (free []clock.Window) {
	for _, x := range q.Resources {
		if x.ID != id {
			continue
		}
		for _, span := range x.Free {
			free = append(free, clock.Window{From: span[0], To: span[1]})
		}
		if len(x.Free) > 0 {
			return free
		}
	}
	return []clock.Window{{From: -48 * 3600, To: 48 * 3600}}
}

// room is the longest time in a row, in seconds, in which all players are free, and
// so is the resource ("": whatever it needs but players).
func (q *requests) room(a asked, players []string, resource string) int {
	free := []clock.Window{{From: -48 * 3600, To: 48 * 3600}}
	if resource != "" {
		free = q.resource(resource)
	}
	for _, p := range q.Players {
		if slices.Contains(players, p.ID) {
			free = clip(free, p.Open, p.Due)
		}
	}
	for _, f := range q.Fixed {
		if !a.Excusable && len(shared(players, f.Players)) > 0 {
			free = cut(free, f.Start, f.End)
		}
	}
	longest := 0
	for _, w := range free {
		longest = max(longest, w.Seconds())
	}
	return longest
}

// alone reports blocks that have no room with one resource, and would have some
// without it.
func (q *requests) alone(resource string, report func(a asked, room int)) {
	for _, a := range q.blocks {
		if needs(a, resource) == 0 {
			continue
		}
		if room := q.room(a, a.Players, resource); room < a.least && q.room(a, a.Players, "") >= a.least {
			report(a, room)
		}
	}
}

// crowded is by how many seconds the musts that need a resource exceed it, and the
// last of them that could go elsewhere.
func (q *requests) crowded(resource string, capacity int) (over int, last asked) {
	wanted := 0
	from, to := clock.Offset(0), clock.Offset(-48*3600)
	for _, a := range q.blocks {
		if n := needs(a, resource); n > 0 && a.Must {
			wanted += a.least * min(n, capacity)
			last = a
			for _, p := range q.Players {
				if slices.Contains(a.Players, p.ID) {
					from, to = min(from, p.Open), max(to, p.Due)
				}
			}
		}
	}
	have := 0
	for _, w := range clip(q.resource(resource), from, to) {
		have += w.Seconds()
	}
	return wanted/max(1, capacity) - have, last
}

// listing names the musts that need a resource.
func (q *requests) listing(resource string) string {
	var names []string
	for _, a := range q.blocks {
		if a.Must && needs(a, resource) > 0 {
			names = append(names, a.name)
		}
	}
	return strings.TrimSpace(listed(names))
}

func clip(free []clock.Window, from, to clock.Offset) (rest []clock.Window) {
	for _, w := range free {
		if w = (clock.Window{From: max(w.From, from), To: min(w.To, to)}); w.Seconds() > 0 {
			rest = append(rest, w)
		}
	}
	return rest
}

func cut(free []clock.Window, from, to clock.Offset) (rest []clock.Window) {
	for _, w := range free {
		for _, part := range []clock.Window{{From: w.From, To: min(w.To, from)}, {From: max(w.From, to), To: w.To}} {
			if part.Seconds() > 0 {
				rest = append(rest, part)
			}
		}
	}
	return rest
}
