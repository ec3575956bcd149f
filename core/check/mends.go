package check

import (
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

// from finds the first drill of the book that fits.
func (r *reading) from(fits func(drill.Drill) bool) *drill.Drill {
	for _, d := range r.Book {
		if len(d.Sports) == 0 && d.Suits(r.Document.Grade) && fits(d) {
			found := d.For(r.Document.Grade)
			return &found
		}
	}
	return nil
}

// extra adds a block of one drill for players, last in a phase. It is a must,
// so that the fit does not leave it out again.
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
		b := plan.Block{ID: id, Name: name, Aim: known.Aim, Phase: phase, Who: who, Priority: plan.Must, Excusable: len(players) > 6, Items: []plan.Item{{Drill: *known}}}
		least(&b.Items[0].Drill)
		d.Blocks = append(d.Blocks, b)
		return true
	}
}

// inFull turns the dose of the block that was added last up to what its drill
// is meant to be.
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

// unpin lets every pinned block go.
func unpin(d *plan.Document) bool {
	done := false
	for i := range d.Blocks {
		done = done || d.Blocks[i].Pin != nil
		d.Blocks[i].Pin = nil
	}
	return done
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

func plural(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}
