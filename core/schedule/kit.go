package schedule

import (
	"fmt"
	"maps"
	"slices"

	"cuestart/core/drill"
)

// Kit is what is carried out of one kind: as many pieces as are in use at once, or 0
// of what players own.
type Kit struct {
	Name   string
	Pieces int
}

// String is "6 × ball", or "own skates".
func (k Kit) String() string {
	if k.Pieces == 0 {
		return "own " + k.Name
	}
	return fmt.Sprintf("%d × %s", k.Pieces, k.Name)
}

// Carried lists the kit that the kept blocks need, by name. What a place has is not
// carried; blocks that run at the same time need their pieces at the same time.
func Carried(blocks []Block) (list []Kit) {
	most := map[string]int{}
	for i := range blocks {
		if !blocks[i].Kept {
			continue
		}
		now := map[string]int{}
		for n := range blocks { // those that run as this one begins
			if b := &blocks[n]; b.Kept && b.Start <= blocks[i].Start && blocks[i].Start < b.End {
				for kit, pieces := range b.pieces() {
					now[kit] += pieces
				}
			}
		}
		for kit, pieces := range now {
			most[kit] = max(most[kit], pieces)
		}
	}
	for _, kit := range slices.Sorted(maps.Keys(most)) {
		list = append(list, Kit{kit, most[kit]})
	}
	return list
}

// pieces is how many pieces of each kind the block needs at once, of what is carried;
// 0 of what players own.
func (b *Block) pieces() map[string]int {
	need := b.Kit(b.Group)
	for name := range need {
		switch {
		case !drill.Carried(name):
			delete(need, name)
		case !drill.Counted(name):
			need[name] = 0
		}
	}
	return need
}
