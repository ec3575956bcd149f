package drill

import (
	"slices"
	"strings"
)

// Turns tells whether people take turns at the drill's stations, so that its kit
// is wanted at each of these rather than by each player.
func (d Drill) Turns() bool { return d.Dose.Kind == Count || d.Dose.Kind == Grid }

// Pieces is how many of each kind of the drill's own kit the group wants: a piece
// each; one where the group works as one or plays one game; one a station where
// people take turns.
func (d Drill) Pieces(group Group) int {
	switch {
	case d.Together, slices.Contains(d.Qualities, "game"):
		return min(1, group.People)
	case d.Turns():
		return min(group.People, group.Lanes)
	}
	return group.People
}

// LanePieces is how many of each kind of what stands in a lane the group wants:
// one a lane that is used.
func (d Drill) LanePieces(group Group) int {
	if d.Together {
		return min(1, group.People)
	}
	return min(group.People, max(1, group.Lanes))
}

// Owned is what players bring themselves, and fittings are what a place has: no
// club counts either.
var (
	owned    = []string{"skates", "boots", "shoes", "glove", "gloves", "stick", "racket", "bat", "helmet", "pads", "chair", "towel", "bottle"}
	fittings = []string{"wall", "post", "posts", "net", "goal", "bench", "bar", "bars", "low step", "step", "stairs", "line", "lines", "boards", "basket", "hoop", "table", "water"}
)

// Machine tells whether kit of that name is there only where it was counted: nobody
// takes for granted that there is a bike.
func Machine(kit string) bool { return slices.Contains(machines, strings.ToLower(kit)) }

var machines = []string{"bike", "rower", "erg", "treadmill", "sled"}

// Counted tells whether a club counts kit of that name: not what a player owns,
// nor what a place has.
func Counted(kit string) bool {
	name := strings.ToLower(kit)
	return !slices.Contains(owned, name) && !slices.Contains(fittings, name)
}

// Carried tells whether a player may carry kit of that name out: not what a place
// has.
func Carried(kit string) bool { return !slices.Contains(fittings, strings.ToLower(kit)) }

// WantsPartner tells whether nobody can do the drill alone.
func (d Drill) WantsPartner() bool {
	if d.Dose.ByPair || d.Together || slices.Contains(d.Qualities, "game") {
		return true
	}
	name := strings.ToLower(d.Name)
	return slices.ContainsFunc([]string{"pair", "partner", "chase", "opposed", "mirror", "throw-downs", "front toss", "feeds"}, func(word string) bool { return strings.Contains(name, word) })
}
