package plan

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/pattern"
	"cuestart/core/speech"
)

// Seconds that a block needs between two drills, and to hand over to the next.
const (
	GapSeconds      = 10
	HandoverSeconds = 20
)

// NoItem, as the index of a part's drill, means that it belongs to none.
const NoItem = -1

// Part is a stretch of a block that is spent on one thing.
type Part struct {
	Item    int  // index of the drill that is explained or done, or NoItem
	Work    bool // the drill is done; else it is set up, explained, changed or handed over
	Seconds float64
}

// Parts takes a block apart at the given amount of each drill, for who goes through it
// that way (nil: as the block is listed, or takes longest): set-up, then its drills as
// its form has them, and the handover. It is the one place that says what a block's
// minutes are made of; they are as many whichever the way.
func (b *Block) Parts(amounts []int, group drill.Group, way []int) []Part {
	parts := make([]Part, 0, 3*len(b.Items)+2)
	parts = append(parts, Part{Item: NoItem, Seconds: float64(b.SetUp)})
	switch b.Form {
	case AtStations:
		parts = append(parts, b.stations(amounts, group, way)...)
	case ByChoice:
		parts = append(parts, b.choices(amounts, group, way)...)
	default:
		parts = append(parts, b.inOrder(amounts, group)...)
	}
	parts = append(parts, Part{Item: NoItem, Seconds: HandoverSeconds})
	if b.Pace > 0 {
		for i := range parts {
			parts[i].Seconds *= b.Pace
		}
	}
	return parts
}

// inOrder are each drill with its explaining and the gaps between, as often as there
// are rounds.
func (b *Block) inOrder(amounts []int, group drill.Group) (parts []Part) {
	for round := range max(1, b.Rounds) {
		if round > 0 {
			parts = append(parts, Part{Item: NoItem, Seconds: float64(b.RoundRest)})
		}
		for i, item := range b.Items {
			if i > 0 && !b.Alongside(i) {
				parts = append(parts, Part{Item: NoItem, Seconds: GapSeconds})
			}
			if round == 0 {
				parts = append(parts, Part{Item: i, Seconds: float64(item.Explain)})
			}
			if !b.Alongside(i) {
				parts = append(parts, Part{Item: i, Work: true, Seconds: b.Work(i, amounts[i], group)})
			}
		}
	}
	return parts
}

// Seconds is the length of the block at the given amount of each drill, rounded
// up to the grid.
func (b *Block) Seconds(amounts []int, group drill.Group) int {
	total := 0.0
	for _, part := range b.Parts(amounts, group, nil) {
		total += part.Seconds
	}
	return clock.CeilTo(total, clock.Grid)
}

// theirs is how minutes are called that are a player's own.
var theirs = pattern.Must(`(?i)\b(?:own|individual|personal|propi[oa]s?)\b`)

// Frame tells whether the block is own time and nothing else: each player's own lines stand
// in it.
func (b *Block) Frame() bool {
	return b.Phase == drill.Own && len(b.Items) == 1 && b.Items[0].Drill.Dose.Kind == drill.Time &&
		theirs.MatchString(b.Items[0].Drill.Name)
}

// OwnLines are what each of some players always does in a block that is own time: "Ada B.:
// calf raises 10"; none of another block.
func (party *Party) OwnLines(b *Block, players []string) (lines []string) {
	for _, id := range players {
		if p := party.Player(id); b.Frame() && len(p.Own) > 0 {
			lines = append(lines, p.ShortName()+": "+strings.Join(p.Own, "; "))
		}
	}
	return lines
}

// RoundWords says how often the block is gone through, done so often today: "3 rounds",
// "2–3 rounds", or where it is done less "2 rounds of 2–3".
func (b *Block) RoundWords(say speech.Say, done int) string {
	words := drill.NumberIn(say, done, "rounds")
	if b.LeastRounds == 0 || b.LeastRounds >= b.Rounds {
		return words
	}
	whole := fmt.Sprintf("%d–%d", b.LeastRounds, b.Rounds)
	if done < b.Rounds {
		return say("%s of %s", words, whole)
	}
	return strings.Replace(words, strconv.Itoa(done), whole, 1)
}

// Says is what the block is for: its aim, or where it has none what its drills are
// for.
func (b *Block) Says() string {
	if b.Aim != "" {
		return b.Aim
	}
	return b.Aims()
}

// LineName is what the name of a line of legs begins with.
const LineName = "Line: "

// Holds names the block for its drills: "Skips", "Pogos, tuck jumps", "Jog, skips and 3
// more".
func (b *Block) Holds() string {
	var names []string
	lines := len(b.Items) > 1 &&
		!slices.ContainsFunc(b.Items, func(i Item) bool { return !strings.HasPrefix(i.Drill.Name, LineName) })
	for i, item := range b.Items {
		name := item.Drill.Name
		if lines { // "Lines: skips, high knees"
			name = strings.TrimPrefix(name, LineName)
			if i == 0 {
				name = "Lines: " + name
			}
		} else if i > 0 {
			name = strings.ToLower(name[:1]) + name[1:]
		}
		names = append(names, name)
	}
	if len(names) <= 2 {
		if name := strings.Join(names, ", "); len([]rune(name)) <= MaxName {
			return name
		}
		return names[0]
	}
	name := fmt.Sprintf("%s and %d more", strings.Join(names[:2], ", "), len(names)-2)
	if len([]rune(name)) > MaxName {
		name = names[0]
	}
	return name
}

// Aims is what the block's drills are for, the first two.
func (b *Block) Aims() string {
	var aims []string
	for _, item := range b.Items {
		if aim := strings.TrimSpace(item.Drill.Aim); aim != "" && len(aims) < 2 && !slices.Contains(aims, aim) {
			aims = append(aims, aim)
		}
	}
	return strings.Join(aims, "; ")
}

// Follow lets what blocks say of themselves follow their drills, which were
// otherwise in the document before: what a coach wrote stays.
func (w *Work) Follow(before *Document) {
	for i := range w.Blocks {
		b := &w.Blocks[i]
		was := before.Block(b.ID)
		if was == nil || slices.EqualFunc(was.Items, b.Items,
			func(x, y Item) bool { return x.Drill.Code == y.Drill.Code }) || b.Aim != was.Aim {
			continue
		}
		if was.Aim == was.Aims() ||
			slices.ContainsFunc(was.Items, func(i Item) bool { return i.Drill.Aim == was.Aim }) {
			b.Aim = b.Aims()
		}
		b.Why = ""
	}
}

// Targets is the target of each drill.
func (b *Block) Targets() []int {
	amounts := make([]int, len(b.Items))
	for i, item := range b.Items {
		amounts[i] = item.Drill.Range.Target
	}
	return amounts
}
