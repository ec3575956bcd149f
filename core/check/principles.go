package check

import (
	"fmt"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Principle is something that a warm-up usually has, and whether this one has it.
type Principle struct {
	ID   string // a word, or "joint ankle", "plane side"
	Name string
	Has  bool
	Not  string       // why it is not asked for today: "wet ground"; "": it is
	Add  *drill.Drill // what would add it; nil: nothing of the book does
	In   drill.Phase  // where

	Is      func(k *drill.Drill) bool // whether a drill has it; nil for the order
	Count   int                       // of how many drills it takes
	Missing int                       // how many of them are
}

// Lacks tells whether the plan does not have what is asked for.
func (p *Principle) Lacks() bool { return !p.Has && p.Not == "" }

// principle is a row of what a warm-up usually has. What takes its time is asked from
// so many seconds of work on.
type principle struct {
	id, name string
	phase    drill.Phase
	is       func(k *drill.Drill) bool
	from     int
}

// Seconds of work, by the player who does the most, from which on there is room for what a
// warm-up can be without: landings are learnt and games are played in a session, in a
// quarter of an hour everybody gets warm and up to speed.
const (
	RoomToLand  = 20 * 60
	roomToPlay  = 20 * 60
	roomToCraft = 15 * 60
)

// usual are the principles that hold for every sport (Jeffreys 2007).
var usual = []principle{
	{id: "pulse", name: "pulse", phase: drill.Raise, is: func(k *drill.Drill) bool {
		return k.Effort >= drill.DynamicEffort && (anyOf(k.Qualities, "pulse") || k.Serves(drill.Raise))
	}},
	{id: "landing", name: "landing stuck", phase: drill.Potentiate,
		is:   func(k *drill.Drill) bool { return anyOf(k.Qualities, "landing") },
		from: RoomToLand},
	{id: "steps", name: "rising steps", phase: drill.Potentiate, is: func(k *drill.Drill) bool {
		return slices.ContainsFunc(k.Efforts(k.Range.Target),
			func(e float64) bool { return e >= drill.RisingEffort && e < drill.SprintEffort })
	}},
	{id: "full", name: "a full effort", phase: drill.Potentiate,
		is: func(k *drill.Drill) bool { return k.PeakEffort(k.Range.Target) >= drill.SprintEffort }},
	{id: "game", name: "a game", phase: drill.Sport, is: func(k *drill.Drill) bool {
		return anyOf(k.Qualities, "game")
	}, from: roomToPlay},
	{id: "craft", name: "position work", phase: drill.Sport,
		is:   func(k *drill.Drill) bool { return anyOf(k.Qualities, "craft") },
		from: roomToCraft},
}

// Principles tells what a plan has of what a warm-up usually has, and what would add the
// rest.
func Principles(in Input) (list []Principle) {
	r := &reading{Input: in, blocks: in.Schedule.Blocks(in.Document)}
	work := r.longest()
	if in.Own != nil {
		for _, p := range ownOf(in.Own) {
			list = append(list, r.judged(p, p.ID, 0, work))
		}
		return list
	}
	rows := slices.Clone(usual[:1])
	for _, j := range in.Document.Stresses {
		rows = append(rows, principle{id: "joint " + j, name: j, phase: drill.Mobilise,
			is: func(k *drill.Drill) bool { return anyOf(k.Regions, j) }})
	}
	for _, p := range drill.Planes {
		rows = append(rows, principle{id: "plane " + p, name: planeNames[p], phase: drill.Mobilise,
			is: func(k *drill.Drill) bool { return anyOf(k.Planes, p) }})
	}
	for _, row := range append(rows, usual[1:]...) {
		list = append(list, r.judged(Principle{ID: row.id, Name: row.name, In: row.phase, Is: row.is, Count: 1}, row.id,
			row.from, work))
	}
	return append(list, Principle{ID: "order", Name: "the method's order", Has: in.Document.InMethodOrder()})
}

// judged tells whether a plan of so many seconds of work has what a principle asks for, and else
// what would add it.
func (r *reading) judged(p Principle, id string, from, work int) Principle {
	has := map[string]bool{}
	for b := range r.kept() {
		for i := range b.Items {
			if k := &b.Items[i].Drill; p.Is(k) {
				has[k.Code+k.Name] = true
			}
		}
	}
	p.Missing = max(0, p.Count-len(has))
	if p.Has = p.Missing == 0; !p.Has {
		row := principle{id: id, name: p.Name, phase: p.In, is: p.Is, from: from}
		p.Add, p.Not = r.adds(row, has), r.notToday(row, work)
	}
	return p
}

// longest is how many seconds the player works who works most.
func (r *reading) longest() (most int) {
	for _, x := range r.Document.Players {
		seconds := 0
		for b := range r.kept() {
			if slices.Contains(b.Members, x.ID) {
				seconds += int(b.End - b.Start)
			}
		}
		most = max(most, seconds)
	}
	return most
}

// notToday is why a row is not asked of a plan of so many seconds of work today; "": it is.
func (r *reading) notToday(row principle, work int) string {
	outdoors := slices.ContainsFunc(r.Document.Zones, func(z plan.Zone) bool { return !z.Covered })
	switch {
	case row.id == "game" && len(r.Document.Players) == 1:
		return "it takes two"
	case row.id == "craft" &&
		!slices.ContainsFunc(r.Book, func(k drill.Drill) bool { return row.is(&k) && anyOf(k.Sports, r.Sport) }):
		return "none in the drill book"
	case row.id == "landing" && r.Document.Today.Wet && outdoors:
		return "not on wet ground"
	case work < row.from:
		return fmt.Sprintf("from %d minutes of work on", row.from/60)
	}
	return ""
}

// planeNames are the planes as a coach says them.
var planeNames = map[string]string{"front": "forwards and back", "side": "sideways", "turn": "turning"}

// adds is the drill of the book that adds a principle most simply, beside those that the plan has:
// the easiest to do here, in its phase.
func (r *reading) adds(row principle, has map[string]bool) (found *drill.Drill) {
	for i := range r.Book {
		k := &r.Book[i]
		if has[k.Code+k.Name] {
			continue
		}
		if !k.Serves(row.phase) || !row.is(k) || !k.Suits(r.Document.Grade) || !r.equipped(*k) ||
			len(r.Document.Players) == 1 && k.WantsPartner() || r.Document.Today.Wet && (k.Ground || k.Jumps()) ||
			k.Collision || k.Static {
			continue
		}
		if len(k.Sports) > 0 && !anyOf(k.Sports, r.Sport) || len(k.Sports) == 0 && row.id == "craft" {
			continue
		}
		if found == nil || len(k.Kit)+len(k.LaneKit) < len(found.Kit)+len(found.LaneKit) {
			found = k
		}
	}
	return found
}

// AddPrinciple puts what a plan lacks into it, in its place in the method's order.
func AddPrinciple(in Input, id string) func(*plan.Document) (string, error) {
	lacks := Principles(in)
	return func(d *plan.Document) (string, error) {
		for _, p := range lacks {
			if p.ID == id && p.Add != nil {
				return d.Add(p.Add.For(d.Grade), p.In, []string{plan.Everyone}, plan.Should)
			}
		}
		return "", plan.In("board", "no drill of the book adds that here: write one yourself")
	}
}
