package drill

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/speech"
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
		return min(group.People, d.LanesIn(group))
	}
	return group.People
}

// PiecesALane is how many pieces of kit of that name stand in each lane: one, where
// nobody said more.
func (d Drill) PiecesALane(kit string) int { return max(1, d.PerLane[kit]) }

// LaneKitSaid is the kit that stands in each lane as it is written, with how many pieces
// where that is not one: "5 hurdle", "cone".
func (d Drill) LaneKitSaid() (list []string) {
	for _, kit := range d.LaneKit {
		if n := d.PiecesALane(kit); n > 1 {
			kit = fmt.Sprintf("%d %s", n, kit)
		}
		list = append(list, kit)
	}
	return list
}

// SetLaneKit takes the kit that stands in each lane as it is written.
func (d *Drill) SetLaneKit(list []string) {
	d.LaneKit, d.PerLane = nil, nil
	for _, one := range list {
		number, name, two := strings.Cut(one, " ")
		if n, err := strconv.Atoi(strings.TrimSuffix(number, "×")); two && err == nil && n > 0 && n <= 100 {
			one = strings.TrimSpace(strings.TrimPrefix(strings.TrimSpace(name), "×"))
			if n > 1 {
				if d.PerLane == nil {
					d.PerLane = map[string]int{}
				}
				d.PerLane[one] = n
			}
		}
		d.LaneKit = append(d.LaneKit, one)
	}
}

// LanesIn is how many lanes or stations the drill has in use at once: those that there
// are, as far as what was counted of the kit that stands in each suffices.
func (d Drill) LanesIn(group Group) int {
	lanes := max(1, group.Lanes)
	for _, kit := range d.LaneKit {
		if stock, counted := group.Stock[kit]; counted && Counted(kit) {
			lanes = min(lanes, stock/d.PiecesALane(kit))
		}
	}
	return max(1, lanes)
}

// LanePieces is how many pieces of kit of that name the lanes in use want.
func (d Drill) LanePieces(kit string, group Group) int {
	if d.Together {
		return min(1, group.People) * d.PiecesALane(kit)
	}
	return min(group.People, d.LanesIn(group)) * d.PiecesALane(kit)
}

// Lines says how people spread over the lanes where they queue: "4 lines of 11"; "" where
// nobody waits behind another.
func (d Drill) Lines(say speech.Say, group Group) string {
	lanes := d.LanesIn(group)
	if d.Dose.Kind != Travel && d.Dose.Kind != Line && !d.Turns() || d.Together || group.People <= lanes {
		return ""
	}
	each := (group.People + lanes - 1) / lanes
	if d.Turns() && lanes == 1 {
		return say("%d in turn", group.People)
	}
	if d.Turns() {
		return say("%s, %d at each", NumberIn(say, lanes, "stations"), each)
	}
	return say("%s of %d", NumberIn(say, lanes, "lines"), each)
}

// Owned is what players bring themselves, and fittings are what a place has: no
// club counts either.
var (
	owned = []string{"skates", "boots", "shoes", "glove", "gloves", "stick", "racket", "bat", "helmet", "pads",
		"chair", "towel", "bottle"}
	fittings = []string{"wall", "post", "posts", "net", "goal", "bench", "bar", "bars", "low step", "step", "stairs",
		"line", "lines", "boards", "basket", "hoop", "table", "water"}
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
	return slices.ContainsFunc([]string{"pair", "partner", "chase", "opposed", "mirror", "throw-downs", "front toss",
		"feeds"}, func(word string) bool { return strings.Contains(name, word) })
}
