package plan

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"cuestart/core/drill"
)

// MostPieces is how many pieces of a kind of kit are counted.
const MostPieces = 1000

// SetStock says how many pieces there are today of the kit named. What is not named stays
// as it is.
func (party *Party) SetStock(pieces map[string]int) (string, error) {
	var said []string
	next := maps.Clone(party.Kit)
	if next == nil {
		next = map[string]int{}
	}
	for _, name := range slices.Sorted(maps.Keys(pieces)) {
		switch n := pieces[name]; {
		case NameProblem(name) != "":
			return "", In("kit", "%s", NameProblem(name))
		case n < 0 || n > MostPieces:
			return "", In("kit", "say how many there are, 0 to %d", MostPieces)
		case !drill.Counted(name):
			return "", In("kit", "%s is not counted: each has their own, or the place has it", name)
		default:
			next[name] = n
			said = append(said, fmt.Sprintf("%d × %s", n, name))
		}
	}
	if len(said) == 0 {
		return "", In("kit", "name some kit, and how many there are: 20 hurdles")
	}
	party.Kit = next
	return "There are " + strings.Join(said, ", "), nil
}
