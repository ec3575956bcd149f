package check

import (
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Principle is something that a warm-up usually has, and whether this one has it.
type Principle struct {
	ID   string // a word, or "joint ankle", "plane side"
	Name string
	Has  bool
	Add  *drill.Drill // what would add it; nil: nothing of the book does
	In   drill.Phase  // where
}

// principle is a row of what a warm-up usually has.
type principle struct {
	id, name string
	phase    drill.Phase
	is       func(k *drill.Drill) bool
}

// usual are the principles that hold for every sport (Jeffreys 2007).
var usual = []principle{
	{"pulse", "pulse", drill.Raise, func(k *drill.Drill) bool {
		return k.Effort >= drill.DynamicEffort && (anyOf(k.Qualities, "pulse") || k.Serves(drill.Raise))
	}},
	{"landing", "landing stuck", drill.Potentiate, func(k *drill.Drill) bool { return anyOf(k.Qualities, "landing") }},
	{"steps", "rising steps", drill.Potentiate, func(k *drill.Drill) bool {
		return slices.ContainsFunc(k.Efforts(k.Range.Target), func(e float64) bool { return e >= drill.RisingEffort && e < drill.SprintEffort })
	}},
	{"full", "a full effort", drill.Potentiate, func(k *drill.Drill) bool { return k.PeakEffort(k.Range.Target) >= drill.SprintEffort }},
	{"game", "a game", drill.Sport, func(k *drill.Drill) bool { return anyOf(k.Qualities, "game") }},
	{"craft", "position work", drill.Sport, func(k *drill.Drill) bool { return anyOf(k.Qualities, "craft") }},
}

// Principles tells what a plan has of what a warm-up usually has, and what would add the
// rest.
func Principles(in Input) (list []Principle) {
	r := &reading{Input: in, blocks: in.Schedule.Blocks(in.Document)}
	rows := slices.Clone(usual[:1])
	for _, j := range in.Document.Stresses {
		rows = append(rows, principle{"joint " + j, j, drill.Mobilise, func(k *drill.Drill) bool { return anyOf(k.Regions, j) }})
	}
	for _, p := range drill.Planes {
		rows = append(rows, principle{"plane " + p, planeNames[p], drill.Mobilise, func(k *drill.Drill) bool { return anyOf(k.Planes, p) }})
	}
	for _, row := range append(rows, usual[1:]...) {
		p := Principle{ID: row.id, Name: row.name, In: row.phase}
		for b := range r.kept() {
			p.Has = p.Has || slices.ContainsFunc(b.Items, func(i plan.Item) bool { return row.is(&i.Drill) })
		}
		if !p.Has {
			p.Add = r.adds(row)
		}
		list = append(list, p)
	}
	return append(list, Principle{ID: "order", Name: "the method's order", Has: in.Document.InMethodOrder()})
}

// planeNames are the planes as a coach says them.
var planeNames = map[string]string{"front": "forwards and back", "side": "sideways", "turn": "turning"}

// adds is the drill of the book that adds a principle most simply: the easiest to do
// here, in its phase.
func (r *reading) adds(row principle) (found *drill.Drill) {
	for i := range r.Book {
		k := &r.Book[i]
		if !k.Serves(row.phase) || !row.is(k) || !k.Suits(r.Document.Grade) || !r.equipped(*k) || len(r.Document.Players) == 1 && k.WantsPartner() || r.Document.Today.Wet && (k.Ground || k.Jumps()) || k.Collision || k.Static {
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
