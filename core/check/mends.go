package check

import (
	"cmp"
	"fmt"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// takeOut removes a drill from a block, and the block with its last drill.
func takeOut(block, code string) change {
	return takeAll(block, func(k drill.Drill) bool { return k.Code == code })
}

// takeAll removes every drill of a block that fits, and an emptied block.
func takeAll(block string, fits func(drill.Drill) bool) change {
	return func(d *plan.Document) bool {
		b := d.Block(block)
		if b == nil {
			return false
		}
		n := len(b.Items)
		b.Items = slices.DeleteFunc(b.Items, func(i plan.Item) bool { return fits(i.Drill) })
		if len(b.Items) == 0 {
			return drop(block)(d)
		}
		return len(b.Items) < n
	}
}

// drop removes a block.
func drop(block string) change {
	return func(d *plan.Document) bool {
		_, err := d.Remove(block)
		return err == nil
	}
}

// alter changes the drills of that code in a block.
func alter(block, code string, how func(*drill.Drill)) change {
	return func(d *plan.Document) bool {
		b := d.Block(block)
		if b == nil {
			return false
		}
		done := false
		for i := range b.Items {
			if b.Items[i].Drill.Code == code {
				how(&b.Items[i].Drill)
				done = true
			}
		}
		return done
	}
}

// least turns a dose down to its minimum.
func least(k *drill.Drill) { k.Range.Target = k.Range.Min }

// each changes every drill of the plan that fits.
func each(fits func(drill.Drill) bool, how func(*drill.Drill)) change {
	return func(d *plan.Document) bool {
		for i := range d.Blocks {
			for n := range d.Blocks[i].Items {
				if k := &d.Blocks[i].Items[n].Drill; fits(*k) {
					how(k)
				}
			}
		}
		return true
	}
}

// leastOf turns the doses of every drill that fits down to their minimum.
func leastOf(fits func(drill.Drill) bool) change { return each(fits, least) }

// set changes a block.
func set(block string, how func(*plan.Block)) change {
	return func(d *plan.Document) bool {
		b := d.Block(block)
		if b != nil {
			how(b)
		}
		return b != nil
	}
}

// whole changes the document.
func whole(how func(*plan.Document)) change {
	return func(d *plan.Document) bool {
		how(d)
		return true
	}
}

// from finds the first drill of the book that fits and that there is kit for.
func (in *Input) from(fits func(drill.Drill) bool) *drill.Drill {
	for _, d := range in.Book {
		if len(d.Sports) == 0 && d.Suits(in.Document.Grade) && in.equipped(d) && fits(d) {
			found := d.For(in.Document.Grade)
			return &found
		}
	}
	return nil
}

// fromFew is the same for a plan in which there is only one to do it.
func (in *Input) fromFew(fits func(drill.Drill) bool) *drill.Drill {
	return in.from(func(d drill.Drill) bool { return fits(d) && d.Dose.Kind == drill.Travel })
}

// equipped tells whether the club has kit for a drill: all that was counted is
// enough for everybody.
func (in *Input) equipped(d drill.Drill) bool {
	for _, kit := range append(slices.Clone(d.Kit), d.LaneKit...) {
		if drill.Counted(kit) && in.Document.Kit[kit] < len(in.Document.Players) {
			return false
		}
	}
	return true
}

// instead puts in place of each fitting drill of a block its easier version or its
// swap, where that does not fit and there is kit for it.
func (r *reading) instead(block string, fits func(drill.Drill) bool) change {
	return func(d *plan.Document) bool {
		b := d.Block(block)
		if b == nil {
			return false
		}
		done := false
		for i := range b.Items {
			if !fits(b.Items[i].Drill) {
				continue
			}
			other := r.version(&b.Items[i], fits)
			if other == nil {
				return false
			}
			b.Items[i] = plan.Item{Drill: other.For(d.Grade), Explain: b.Items[i].Explain}
			done = true
		}
		return done
	}
}

// version is an easier version of an item's drill, or its swap, that does not fit.
func (r *reading) version(item *plan.Item, fits func(drill.Drill) bool) *drill.Drill {
	for _, one := range []*drill.Drill{item.Easier, item.Swap, r.known(item.Drill.Easier), r.known(item.Drill.Swap)} {
		if one != nil && one.Code != item.Drill.Code && !fits(*one) && r.equipped(*one) && one.Suits(r.Document.Grade) {
			return one
		}
	}
	return nil
}

func (in *Input) known(code string) *drill.Drill {
	if i := slices.IndexFunc(in.Book, func(d drill.Drill) bool { return d.Code == code && code != "" }); i >= 0 {
		return &in.Book[i]
	}
	return nil
}

// hardestDown turns down to their least the n hardest drills of the plan that fit.
func hardestDown(fits func(drill.Drill) bool, n int) change {
	return func(d *plan.Document) bool {
		list := hardest(d, fits)
		for _, k := range list[:min(n, len(list))] {
			least(k)
		}
		return len(list) > 0
	}
}

// takeHardest takes the hardest drill out that fits.
func takeHardest(fits func(drill.Drill) bool) change {
	return func(d *plan.Document) bool {
		list := hardest(d, fits)
		if len(list) == 0 {
			return false
		}
		for _, b := range d.Blocks {
			if slices.ContainsFunc(b.Items, func(i plan.Item) bool { return i.Drill.Code == list[0].Code }) {
				return takeOut(b.ID, list[0].Code)(d)
			}
		}
		return false
	}
}

// hardest lists the drills of a plan that fit and can be turned down, by effort and
// by how much of it there is.
func hardest(d *plan.Document, fits func(drill.Drill) bool) (list []*drill.Drill) {
	for i := range d.Blocks {
		for n := range d.Blocks[i].Items {
			if k := &d.Blocks[i].Items[n].Drill; fits(*k) && k.Range.Target > k.Range.Min {
				list = append(list, k)
			}
		}
	}
	slices.SortStableFunc(list, func(a, b *drill.Drill) int {
		return cmp.Or(cmp.Compare(b.Effort, a.Effort), cmp.Compare(b.ContactsPerUnit*float64(b.Range.Target),
			a.ContactsPerUnit*float64(a.Range.Target)))
	})
	return list
}

// extra adds a block of one drill for players, last in a phase. It is a must, so that the fit
// does not leave it out again.
func extra(known *drill.Drill, name string, phase drill.Phase, players []string) change {
	return func(d *plan.Document) bool {
		if known == nil || len(d.Blocks) >= plan.MaxBlocks {
			return false
		}
		who := players
		if len(d.Members(players)) == len(d.Players) {
			who = []string{plan.Everyone}
		}
		id := "x1"
		for n := 2; d.Block(id) != nil; n++ {
			id = fmt.Sprintf("x%d", n)
		}
		b := plan.Block{ID: id, Name: name, Aim: known.Aim, Phase: phase, Who: who, Priority: plan.Must,
			Excusable: len(players) > 6, Loose: phase == drill.Own, Items: []plan.Item{{Drill: *known}}}
		least(&b.Items[0].Drill)
		d.Blocks = slices.Insert(d.Blocks, d.PlaceFor(phase), b)
		return true
	}
}

// inFull turns the dose of the block that was added last up to what its drill is meant to be.
func inFull(known *drill.Drill, add change) change {
	return func(d *plan.Document) bool {
		if !add(d) {
			return false
		}
		d.Blocks[len(d.Blocks)-1].Items[0].Drill.Range = known.Range
		return true
	}
}

// all makes several changes one; it fails if one of them does.
func all(changes ...change) change {
	return func(d *plan.Document) bool {
		for _, c := range changes {
			if !c(d) {
				return false
			}
		}
		return true
	}
}

// before puts a drill into a block, before the one of that code.
func before(block, code string, known *drill.Drill) change {
	return func(d *plan.Document) bool {
		b := d.Block(block)
		if b == nil || known == nil || len(b.Items) >= plan.MaxItems {
			return false
		}
		at := slices.IndexFunc(b.Items, func(i plan.Item) bool { return i.Drill.Code == code })
		if at < 0 {
			return false
		}
		item := plan.Item{Drill: *known}
		least(&item.Drill)
		b.Items = slices.Insert(b.Items, at, item)
		return true
	}
}

// lastPhase is the last phase of the document's method.
func lastPhase(d *plan.Document) drill.Phase {
	phases := plan.Methods[d.Method].Phases
	return phases[len(phases)-1]
}

// dropLeast takes out the block of a fitting drill that is least willingly kept.
func dropLeast(fits func(drill.Drill) bool) change {
	return func(d *plan.Document) bool {
		for _, priority := range []plan.Priority{plan.Could, plan.Should} {
			i := slices.IndexFunc(d.Blocks, func(b plan.Block) bool {
				return b.Priority == priority &&
					slices.ContainsFunc(b.Items, func(i plan.Item) bool { return fits(i.Drill) })
			})
			if i >= 0 {
				return drop(d.Blocks[i].ID)(d)
			}
		}
		return false
	}
}
