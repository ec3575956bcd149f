package plan

import (
	"cmp"
	"math"
	"slices"

	"cuestart/core/drill"
)

// Form says how a block is run.
type Form string

// The forms of a block.
const (
	InOrder    Form = ""         // its drills are done one after the other, by all
	AtStations Form = "stations" // groups do a drill each, change, and so do them all
	ByChoice   Form = "choice"   // each does one of the drills, or some, by choice
)

// Forms lists them, as a coach meets them.
var Forms = []Form{InOrder, AtStations, ByChoice}

// Split says how the groups at stations are made.
type Split string

// The ways to make groups.
const (
	Evenly     Split = ""         // counted off, so that positions mix
	ByPosition Split = "position" // who plays alike stays together
	ByLevel    Split = "level"    // who is as far stays together
	ByHand     Split = "hand"     // as the coach said; who was not said goes to the smallest
)

// Splits lists them.
var Splits = []Split{Evenly, ByPosition, ByLevel, ByHand}

// ChangeSeconds is how long it takes a group to go to its next station, unless a coach
// says otherwise, and who takes turns to hand the kit on.
const (
	ChangeSeconds = 15
	TurnSeconds   = 10
)

// change is the seconds between two stations.
func (b *Block) change() float64 { return float64(cmp.Or(b.Change, ChangeSeconds)) }

// Picks is how many of its drills each does, where that is a choice.
func (b *Block) Picks() int { return min(max(1, b.Pick), len(b.Items)) }

// At is who shares drill item of a block: all of its group, those of one station, or
// who chose the drill.
func (b *Block) At(item int, group drill.Group) drill.Group {
	switch b.Form {
	case AtStations:
		n := len(b.Items)
		group.People = (group.People + n - 1) / n
		if b.Stations == 0 {
			group.Lanes = max(1, group.Lanes/n)
		}
	case ByChoice:
		if item < len(group.Shares) {
			group.People = group.Shares[item]
		}
	}
	return group
}

// Turns is how many turns drill item of a block takes, where there is kit for some of
// its people at once only: 1 where there is enough.
func (b *Block) Turns(item int, group drill.Group) int {
	people, have := b.At(item, group).People, b.Items[item].AtOnce
	if have < 1 || people <= have {
		return 1
	}
	return (people + have - 1) / have
}

// Work is how long amount of drill item of the block takes, in seconds.
func (b *Block) Work(item, amount int, group drill.Group) float64 {
	at, turns := b.At(item, group), b.Turns(item, group)
	if turns > 1 {
		at.People = b.Items[item].AtOnce
	}
	return float64(turns)*b.Items[item].Drill.Work(amount, at) + float64(turns-1)*TurnSeconds
}

// Alongside tells whether drill item is done while the one before it is: it costs no
// time. The first of a block, and a station, stands by itself.
func (b *Block) Alongside(item int) bool {
	return b.Form == InOrder && item > 0 && b.Items[item].Alongside
}

// Kit is how many pieces of each kind of kit the block has in use at once.
func (b *Block) Kit(group drill.Group) map[string]int {
	need := map[string]int{}
	for i, item := range b.Items {
		at, of := b.At(i, group), map[string]int{}
		for _, name := range item.Drill.Kit {
			of[name] = item.Drill.Pieces(at)
			if item.AtOnce > 0 {
				of[name] = min(of[name], item.AtOnce)
			}
		}
		for _, name := range item.Drill.LaneKit {
			of[name] = max(of[name], item.Drill.LanePieces(name, at))
		}
		for _, name := range item.Drill.GroupKit {
			of[name] = max(of[name], min(1, at.People))
		}
		for name, pieces := range of {
			if b.Form == InOrder {
				need[name] = max(need[name], pieces)
			} else {
				need[name] += pieces // they run side by side
			}
		}
	}
	return need
}

// Groups are who begins at each drill of a block at stations, or does each drill of one by
// choice, by the ids of players. Nil where all do all in the listed order.
func (party *Party) Groups(b *Block) (groups [][]string) {
	switch b.Form {
	case AtStations:
		return party.Teams(b)
	case ByChoice:
		groups = make([][]string, len(b.Items))
		chosen := party.Chosen(b)
		for _, id := range party.Members(b.Who) {
			for _, item := range chosen[id] {
				groups[item] = append(groups[item], id)
			}
		}
	}
	return groups
}

// Teams are the groups of a block at stations, by the ids of players: one for each
// station, the first begins at the first. Their sizes differ by one at the most, unless
// a coach made them.
func (party *Party) Teams(b *Block) [][]string {
	teams := make([][]string, len(b.Items))
	members := party.Members(b.Who)
	if b.Split == ByHand {
		return party.byHand(b, teams, members)
	}
	order := slices.Clone(members)
	by := func(key func(*Player) string) {
		slices.SortStableFunc(order,
			func(x, y string) int { return cmp.Compare(key(party.Player(x)), key(party.Player(y))) })
	}
	switch b.Split {
	case ByPosition:
		by(func(p *Player) string { return p.Position })
	case ByLevel:
		by(func(p *Player) string {
			return string(rune('a' + slices.Index(drill.Grades, cmp.Or(p.Level, party.Grade, drill.Club))))
		})
	default:
		for i, id := range order {
			teams[i%len(teams)] = append(teams[i%len(teams)], id)
		}
		return teams
	}
	for i, id := range order { // stretches of the list, as even as can be
		n := i * len(teams) / len(order)
		teams[n] = append(teams[n], id)
	}
	return teams
}

// byHand are the groups that a coach made; who is in none goes to the smallest.
func (party *Party) byHand(b *Block, teams [][]string, members []string) [][]string {
	placed := map[string]bool{}
	for i := range teams {
		if i < len(b.Groups) {
			for _, id := range party.Members(b.Groups[i]) {
				if !placed[id] && slices.Contains(members, id) {
					teams[i], placed[id] = append(teams[i], id), true
				}
			}
		}
	}
	for _, id := range members {
		if !placed[id] {
			least := 0
			for i := range teams {
				if len(teams[i]) < len(teams[least]) {
					least = i
				}
			}
			teams[least] = append(teams[least], id)
		}
	}
	return teams
}

// Chosen is what each player of a block of choice does, by index of its drills: what
// they chose; who chose nothing, or too little, goes where there is room.
func (party *Party) Chosen(b *Block) map[string][]int {
	chosen, taken := map[string][]int{}, make([]int, len(b.Items))
	members := party.Members(b.Who)
	for _, id := range members {
		for _, item := range b.Choices[id] {
			if item >= 0 && item < len(b.Items) && !slices.Contains(chosen[id], item) && len(chosen[id]) < b.Picks() {
				chosen[id] = append(chosen[id], item)
				taken[item]++
			}
		}
	}
	for _, id := range members {
		for len(chosen[id]) < b.Picks() {
			item := party.roomiest(b, taken, chosen[id])
			chosen[id] = append(chosen[id], item)
			taken[item]++
		}
		slices.Sort(chosen[id])
	}
	return chosen
}

// roomiest is the drill, of those somebody does not do yet, that has most room left:
// pieces of kit where these are counted, else fewest people.
func (party *Party) roomiest(b *Block, taken []int, but []int) (best int) {
	best = -1
	for item := range b.Items {
		if slices.Contains(but, item) {
			continue
		}
		if best < 0 || party.roomAt(b, item)-taken[item] > party.roomAt(b, best)-taken[best] {
			best = item
		}
	}
	return best
}

// roomAt is for how many people drill item of a block has its kit.
func (party *Party) roomAt(b *Block, item int) int {
	room := 1000 // no limit
	for _, name := range slices.Concat(b.Items[item].Drill.Kit, b.Items[item].Drill.LaneKit) {
		if stock, counted := party.Kit[name]; drill.Counted(name) && counted {
			room = min(room, stock)
		} else if drill.Machine(name) {
			room = 0
		}
	}
	return room
}

// Ways are how each player goes through a block: the drills, by index, in their own
// order. Nil where all go the same way.
func (party *Party) Ways(b *Block) map[string][]int {
	switch b.Form {
	case AtStations:
		ways := map[string][]int{}
		for i, team := range party.Teams(b) {
			way := b.from(i)
			for _, id := range team {
				ways[id] = way
			}
		}
		return ways
	case ByChoice:
		return party.Chosen(b)
	}
	return nil
}

// from is the order of the stations for who begins at that of index first.
func (b *Block) from(first int) (way []int) {
	for i := range b.Items {
		way = append(way, (first+i)%len(b.Items))
	}
	return way
}

// stations are the parts of a block whose groups rotate: all is explained first, every
// station lasts as long as the longest.
func (b *Block) stations(amounts []int, group drill.Group, way []int) (parts []Part) {
	longest := 0.0
	for i, item := range b.Items {
		parts = append(parts, Part{Item: i, Seconds: float64(item.Explain)})
		longest = math.Max(longest, b.Work(i, amounts[i], group))
	}
	if len(way) != len(b.Items) {
		way = b.from(0)
	}
	for round := range max(1, b.Rounds) {
		if round > 0 {
			parts = append(parts, Part{Item: NoItem, Seconds: float64(b.RoundRest) + b.change()})
		}
		for n, i := range way {
			if n > 0 {
				parts = append(parts, Part{Item: NoItem, Seconds: b.change()})
			}
			work := b.Work(i, amounts[i], group)
			parts = append(parts, Part{Item: i, Work: true, Seconds: work}, Part{Item: NoItem, Seconds: longest - work})
		}
	}
	return parts
}

// choices are the parts of a block of choice for who does the drills of way; nil: for
// who needs longest. Everybody waits for that one.
func (b *Block) choices(amounts []int, group drill.Group, way []int) (parts []Part) {
	work := make([]float64, len(b.Items))
	order := make([]int, len(b.Items))
	for i, item := range b.Items {
		work[i], order[i] = b.Work(i, amounts[i], group), i
		parts = append(parts, Part{Item: i, Seconds: float64(item.Explain)})
	}
	slices.SortStableFunc(order, func(x, y int) int { return cmp.Compare(work[y], work[x]) })
	longest := order[:b.Picks()]
	if way == nil {
		way = slices.Sorted(slices.Values(longest))
	}
	rest := 0.0
	for _, i := range longest {
		rest += work[i]
	}
	for n, i := range way {
		if n > 0 {
			parts = append(parts, Part{Item: NoItem, Seconds: GapSeconds})
		}
		parts = append(parts, Part{Item: i, Work: true, Seconds: work[i]})
		rest -= work[i]
	}
	return append(parts, Part{Item: NoItem, Seconds: math.Max(0, rest)})
}
