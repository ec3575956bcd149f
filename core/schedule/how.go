package schedule

import (
	"fmt"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/speech"
)

// How says how the block is run, as a coach does: "3 rounds, 30 s between", "7 stations of
// 6, change in 15 s", "one of: Bike 3, Rower 2, Jog 18"; "" where its drills are gone through
// once, one after the other.
func (b *Block) How(say speech.Say) string {
	var words []string
	switch b.Form {
	case plan.AtStations:
		words = append(words, b.stations(say)...)
	case plan.ByChoice:
		words = append(words, b.choice(say))
	}
	if asked := max(b.Rounds, b.asked); asked > 1 {
		whole := *b.Block
		whole.Rounds = asked
		words = append(words, whole.RoundWords(say, max(1, b.Rounds)))
		if b.RoundRest > 0 {
			words = append(words, say("%s between", clock.Lasting(b.RoundRest)))
		}
	}
	return strings.Join(words, ", ")
}

// stations say how many there are, of how many people, and how long each lasts.
func (b *Block) stations(say speech.Say) []string {
	change := b.Change
	if change == 0 {
		change = plan.ChangeSeconds
	}
	longest := 0.0
	for n := range b.Items {
		longest = max(longest, b.Work(n, b.Amount(n), b.Group))
	}
	of := (b.Group.People + len(b.Items) - 1) / len(b.Items)
	return []string{say("%s of %d", drill.NumberIn(say, len(b.Items), "stations"), of),
		say("%s each", clock.Lasting(int(longest+0.5))), say("change in %s", clock.Lasting(change))}
}

// choice says what there is to choose, and how many do it.
func (b *Block) choice(say speech.Say) string {
	names := make([]string, len(b.Items))
	for n := range b.Items {
		names[n] = b.Items[n].Drill.Name
		if b.Group.People > 1 {
			names[n] += fmt.Sprintf(" %d", b.At(n, b.Group).People)
		}
	}
	head := say("one of")
	if b.Picks() > 1 {
		head = say("%d of", b.Picks())
	}
	return head + ": " + strings.Join(names, ", ")
}

// Spread says how the people of drill n share what there is: "4 lines of 11", "3 turns of
// 12", "alongside"; "" where all do it at once.
func (b *Block) Spread(say speech.Say, n int) string {
	if b.Alongside(n) {
		return say("alongside")
	}
	if turns := b.Turns(n, b.Group); turns > 1 {
		return say("%s of %d", drill.NumberIn(say, turns, "turns"), b.Items[n].AtOnce)
	}
	return b.Items[n].Drill.Lines(say, b.At(n, b.Group))
}

// Here says who begins at each drill of a block at stations, or does each of one by choice:
// "begin here: 1–3 7"; none where all do all in the listed order.
func (b *Block) Here(say speech.Say, d *plan.Document) (lines []string) {
	for _, group := range d.Groups(b.Block) {
		line := ""
		switch names := d.GroupNames(group); {
		case names == "":
		case b.Form == plan.AtStations:
			line = say("begin here: %s", names)
		default:
			line = say("do this: %s", names)
		}
		lines = append(lines, line)
	}
	return lines
}
