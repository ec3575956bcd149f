package plan

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/speech"
)

// mostSaid is how many differences are said one by one.
const mostSaid = 4

// Difference says what another version of the document has otherwise, in a few
// words: "Short sprints added for Mara T.; Team run: 2 lengths, not 3".
func (d *Document) Difference(to *Document) string {
	var said []string
	say := func(text string, args ...any) { said = append(said, fmt.Sprintf(text, args...)) }
	for i := range d.Blocks {
		if b := &d.Blocks[i]; to.Block(b.ID) == nil {
			say("%s out", b.Name)
		}
	}
	for i := range to.Blocks {
		b := &to.Blocks[i]
		if was := d.Block(b.ID); was != nil {
			was.difference(b, d, to, say)
		} else {
			say("%s added for %s", b.Name, to.whom(b.Who))
		}
	}
	if order := reordered(d.Blocks, to.Blocks); order != "" {
		say("in the order %s", order)
	}
	if d.Slack != to.Slack {
		say("%s of slack", clock.Lasting(to.Slack))
	}
	if d.Margin != to.Margin {
		say("work ends %s before the start", clock.Lasting(to.Margin))
	}
	if d.Today.Layers != to.Today.Layers {
		say("layers on while waiting")
	}
	if d.Today.DrinkEvery != to.Today.DrinkEvery {
		say("a drink every %d min", to.Today.DrinkEvery)
	}
	for _, p := range d.Players {
		if q := to.Player(p.ID); q != nil && q.DueShift != p.DueShift {
			say("%s is due %s before the start", p.ShortName(), clock.Lasting(to.Margin-q.DueShift))
		}
	}
	if len(said) > mostSaid {
		said = append(said[:mostSaid-1], fmt.Sprintf("%d more changes", len(said)-mostSaid+1))
	}
	return strings.Join(said, "; ")
}

// reordered names the blocks of both versions in the order of the other one, where
// that is not the same; "" where it is.
func reordered(from, to []Block) string {
	at, moved := -1, false
	var names []string
	for i := range to {
		if n := slices.IndexFunc(from, func(b Block) bool { return b.ID == to[i].ID }); n >= 0 {
			moved = moved || n < at
			at, names = n, append(names, to[i].Name)
		}
	}
	if !moved {
		return ""
	}
	return strings.Join(names, ", ")
}

// whom is an audience within a sentence.
func (party *Party) whom(ids []string) string {
	return strings.Replace(party.Audience(ids), "Whole squad", "the whole squad", 1)
}

// difference says what another version of the block has otherwise.
func (b *Block) difference(to *Block, d, after *Document, say func(string, ...any)) {
	if !slices.Equal(b.Who, to.Who) {
		say("%s for %s", b.Name, after.whom(to.Who))
	}
	if b.Zone != to.Zone {
		say("%s on %s", b.Name, orNone(after.ZoneName(to.Zone), "any ground"))
	}
	if b.Leader != to.Leader {
		say("%s leads %s", orNone(after.LeaderName(to.Leader), "nobody"), b.Name)
	}
	if b.Stations != to.Stations {
		at := "all lanes"
		if to.Stations > 0 {
			at = drill.Number(to.Stations, "stations")
		}
		say("%s at %s", b.Name, at)
	}
	if b.Priority != to.Priority {
		say("%s is a %s", b.Name, to.Priority)
	}
	if was, is := d.HeldWords(b), after.HeldWords(to); was != is {
		say("%s %s", b.Name, orNone(is, "may move"))
	}
	if b.Aim != to.Aim && len(b.Items) == len(to.Items) && b.Says() != to.Says() || b.Aim == "" && to.Aim != "" {
		say("%s: %s", b.Name, to.Aim)
	}
	if b.Form != to.Form {
		say("%s %s", b.Name, formWords[to.Form])
	}
	if b.Rounds != to.Rounds || b.LeastRounds != to.LeastRounds {
		say("%s: %s", b.Name, to.RoundWords(speech.English, max(1, to.Rounds)))
	}
	if b.Pace != to.Pace {
		say("%s %s", b.Name, to.PaceWords())
	}
	if b.On != to.On {
		on := "every day"
		if to.On != Usual {
			on = after.Turns.Name(to.On)
		}
		say("%s: %s", b.Name, on)
	}
	b.items(to, say)
}

// formWords say how a block is run.
var formWords = map[Form]string{InOrder: "in order", AtStations: "at stations", ByChoice: "by choice"}

// items says which drills of the block are others, or done more or less.
func (b *Block) items(to *Block, say func(string, ...any)) {
	find := func(list []Item, code string) *Item {
		return find(list, code, func(i *Item) string { return i.Drill.Code })
	}
	for i := range b.Items {
		if k := &b.Items[i].Drill; find(to.Items, k.Code) == nil {
			say("%s out of %s", k.Name, b.Name)
		}
	}
	for i := range to.Items {
		k := &to.Items[i].Drill
		was := find(b.Items, k.Code)
		switch {
		case was == nil:
			say("%s in %s", k.Name, b.Name)
		case was.Drill.Words(was.Drill.Range.Target) != k.Words(k.Range.Target):
			say("%s: %s, not %s", k.Name, k.Words(k.Range.Target), was.Drill.Figure(was.Drill.Range.Target))
		case was.AtOnce != to.Items[i].AtOnce && to.Items[i].AtOnce > 0:
			say("%s: %d at once, in turns", k.Name, to.Items[i].AtOnce)
		case was.AtOnce != to.Items[i].AtOnce:
			say("%s: all at once", k.Name)
		case was.Alongside != to.Items[i].Alongside:
			if to.Items[i].Alongside {
				say("%s alongside", k.Name)
			} else {
				say("%s on its own", k.Name)
			}
		case was.Drill.Range.Min != k.Range.Min:
			say("%s: no less than %s", k.Name, k.Words(k.Range.Min))
		}
	}
}

func orNone(text, none string) string {
	if text == "" {
		return none
	}
	return text
}
