package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"cuestart/core/drill"
)

// SetDose sets the target of drill item of a block. An amount outside the drill's range is
// refused with the range.
func (w *Work) SetDose(block string, item, amount int) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	known := &b.Items[item].Drill
	if amount < known.Range.Min || amount > known.Range.Max {
		return "", In(AtItem(block, item), "%s goes from %s to %s", known.Name, known.Words(known.Range.Min),
			known.Words(known.Range.Max))
	}
	known.Range.Target = amount
	b.Items[item].Written = true
	return fmt.Sprintf("%s: %s", known.Name, known.Words(amount)), nil
}

// StepDose turns the dose of drill item of a block up, or down where steps is
// negative, by so many of its steps, as far as its range goes.
func (w *Work) StepDose(block string, item, steps int) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	r := b.Items[item].Drill.Range
	return w.SetDose(block, item, r.Clamp(r.Target+steps*r.Step))
}

// SetPriority sets how willingly a block is given up.
func (w *Work) SetPriority(block string, priority Priority) (string, error) {
	b := w.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	if priority.Weight() == 0 {
		return "", In(AtBlock(block, "priority"), "the priority is must, should or could")
	}
	b.Priority = priority
	return fmt.Sprintf("%s is a %s", b.Name, priority), nil
}

// Slowest and fastest that a block may be planned to run, against what its doses come to.
const (
	SlowestPace = 3.0
	FastestPace = 0.4
)

// SetPace plans a block to last so many times as long as its doses come to; 0: as long.
func (w *Work) SetPace(block string, times float64) (string, error) {
	b := w.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	if times != 0 && !(times >= FastestPace && times <= SlowestPace) {
		return "", In(AtBlock(block, "pace"), "a block runs between %g and %g times as long", FastestPace, SlowestPace)
	}
	b.Pace = times
	return b.Name + " " + b.PaceWords(), nil
}

// PaceWords say how a block's length is planned: "planned 11 % longer".
func (b *Block) PaceWords() string {
	by := int(math.Round(100 * (b.Pace - 1)))
	switch {
	case b.Pace == 0 || by == 0:
		return "planned as its doses come to"
	case by > 0:
		return fmt.Sprintf("planned %d %% longer", by)
	}
	return fmt.Sprintf("planned %d %% shorter", -by)
}

// Remove takes a block out, and every link to it.
func (w *Work) Remove(block string) (string, error) {
	b := w.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	name := b.Name
	is := func(b Block) bool { return b.ID == block }
	w.Blocks = slices.DeleteFunc(w.Blocks, is)
	for i := range w.Lists {
		w.Lists[i].Blocks = slices.DeleteFunc(w.Lists[i].Blocks, is)
	}
	w.Unlink()
	return name + " removed", nil
}

// Add appends a block of one drill to the end of a phase that the drill serves, for the given
// audience.
func (d *Document) Add(known drill.Drill, phase drill.Phase, who []string, priority Priority) (string, error) {
	if phase != drill.Own && !slices.Contains(Methods[d.Method].Phases, phase) {
		return "", In("add.phase", "there is no such phase in this method")
	}
	if d.Nobody(who) {
		return "", In("add.who", "pick who does it")
	}
	if priority.Weight() == 0 {
		return "", In("add.priority", "the priority is must, should or could")
	}
	if len(d.Blocks) >= MaxBlocks {
		return "", In("add", "a plan has %d blocks at most", MaxBlocks)
	}
	b := Block{ID: d.freeID(), Name: known.Name, Aim: known.Aim, Phase: phase, Who: who, Priority: priority,
		Excusable: slices.Contains(who, Everyone), Items: []Item{{Drill: known}}}
	b.Zone = d.UsualZone(who)
	d.Blocks = slices.Insert(d.Blocks, d.PlaceFor(phase), b)
	return known.Name + " added", nil
}

// UsualZone is where an audience works already, or else the roomiest place, if it holds them:
// what nobody said where to do is never left out for want of room.
func (d *Document) UsualZone(who []string) string {
	if like := slices.IndexFunc(d.Blocks, func(other Block) bool { return slices.Equal(other.Who, who) }); like >= 0 {
		return d.Blocks[like].Zone
	}
	if z := d.Roomiest(); z != nil && z.Capacity >= len(d.Members(who)) {
		return z.ID
	}
	return ""
}

// Roomiest is the place that holds most people; nil where there are none.
func (s *Site) Roomiest() *Zone {
	if len(s.Zones) == 0 {
		return nil
	}
	zone := slices.MaxFunc(s.Zones, func(a, b Zone) int { return a.Capacity - b.Capacity })
	return s.Zone(zone.ID)
}

// BlockFields is what a coach says of a block beside its drills.
type BlockFields struct {
	Name, Aim    string
	Who          []string
	Zone, Leader string // ids; "": none
	Stations     int
}

// SetBlock changes what is said of a block.
func (d *Document) SetBlock(block string, to BlockFields) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	at := func(field string) string { return AtBlock(block, field) }
	if problem := NameProblem(to.Name); problem != "" {
		return "", In(at("name"), "%s", problem)
	}
	if d.Nobody(to.Who) {
		return "", In(at("who"), "nobody is in it: pick a unit or players")
	}
	if to.Stations < 0 || to.Stations > 100 {
		return "", In(at("stations"), "there are between 1 and 100 stations")
	}
	if to.Zone != "" && d.Zone(to.Zone) == nil || to.Leader != "" && d.Leader(to.Leader) == nil {
		return "", In(at("zone"), "this place or leader is not of this plan")
	}
	if to.Aim == "" {
		to.Aim = b.Aims()
	}
	b.Name, b.Aim, b.Zone, b.Leader, b.Stations = to.Name, to.Aim, to.Zone, to.Leader, to.Stations
	if !slices.Equal(b.Who, to.Who) {
		b.Who, b.Excusable = to.Who, slices.Contains(to.Who, Everyone)
	}
	return to.Name + " changed", nil
}

// SetZone has a block done in another place.
func (d *Document) SetZone(block, zone string) (string, error) {
	b, z := d.Block(block), d.Zone(zone)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	if z == nil {
		return "", In(AtBlock(block, "zone"), "this place is not of this plan")
	}
	if b.Zone != zone {
		b.Stations = 0 // they were of the other place
	}
	b.Zone = zone
	return fmt.Sprintf("%s: %s", b.Name, z.Name), nil
}

// SetLeader has a leader lead a block.
func (d *Document) SetLeader(block, leader string) (string, error) {
	b, l := d.Block(block), d.Leader(leader)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	if l == nil {
		return "", In(AtBlock(block, "leader"), "this leader is not of this plan")
	}
	b.Leader = leader
	return fmt.Sprintf("%s leads %s", l.Name, b.Name), nil
}

// AddItem puts a drill into a block, last.
func (w *Work) AddItem(block string, item Item) (string, error) {
	b := w.Block(block)
	switch {
	case b == nil:
		return "", ErrNoSuchBlock
	case len(b.Items) >= MaxItems:
		return "", In(AtBlock(block, "items"), "a block has between 1 and %d drills", MaxItems)
	}
	b.Items = append(b.Items, item)
	return fmt.Sprintf("%s in %s", item.Drill.Name, b.Name), nil
}

// MoveItem moves drill item of a block by so many places, as far as there are.
func (w *Work) MoveItem(block string, item, by int) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	to := min(max(0, item+by), len(b.Items)-1)
	moved := b.Items[item]
	named := b.Name == b.Holds()
	b.Items = slices.Insert(slices.Delete(b.Items, item, item+1), to, moved)
	b.renumber(item, to)
	if named {
		b.Name = b.Holds()
	}
	return fmt.Sprintf("%s moved in %s", moved.Drill.Name, b.Name), nil
}

// renumber keeps choices and groups with their drills, where drill from went to another
// place, or out (NoItem).
func (b *Block) renumber(from, to int) {
	for player, items := range b.Choices {
		var kept []int
		for _, i := range items {
			switch {
			case i == from && to == NoItem:
				continue
			case i == from:
				i = to
			case i > from && (to == NoItem || i <= to):
				i--
			case i < from && to != NoItem && i >= to:
				i++
			}
			kept = append(kept, i)
		}
		if b.Choices[player] = kept; kept == nil {
			delete(b.Choices, player)
		}
	}
	if from < len(b.Groups) {
		group := b.Groups[from]
		b.Groups = slices.Delete(b.Groups, from, from+1)
		if to != NoItem {
			b.Groups = slices.Insert(b.Groups, min(to, len(b.Groups)), group)
		}
	}
}

// SwapItem puts another drill in place of drill item of a block.
func (w *Work) SwapItem(block string, item int, with Item) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	was, named := b.Items[item].Drill.Name, b.Name == b.Holds()
	b.Items[item] = b.Items[item].As(with)
	if named {
		b.Name = b.Holds()
	}
	return fmt.Sprintf("%s instead of %s", with.Drill.Name, was), nil
}

// As is another drill in the place of this one: as many as were said, at its own pace.
func (i *Item) As(with Item) Item {
	with.Explain = i.Explain
	if i.Written && i.Drill.Dose.Kind == with.Drill.Dose.Kind {
		dose, own := i.Drill.Dose, with.Drill.Dose
		dose.RepSeconds, dose.Speed, dose.ActSeconds, dose.Tempo = own.RepSeconds, own.Speed, own.ActSeconds, own.Tempo
		with.Written, with.Drill.Dose, with.Drill.Range = true, dose, i.Drill.Range
	}
	return with
}

// RemoveItem takes a drill out of a block, and the block out with its last one.
func (w *Work) RemoveItem(block string, item int) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	if len(b.Items) == 1 {
		return w.Remove(block)
	}
	said, named := fmt.Sprintf("%s out of %s", b.Items[item].Drill.Name, b.Name), b.Name == b.Holds()
	b.Items = slices.Delete(b.Items, item, item+1)
	b.renumber(item, NoItem)
	if len(b.Items) < 2 {
		b.Form = InOrder
	}
	if named {
		b.Name = b.Holds()
	}
	return said, nil
}

// MaxCues is how many things may be told about one drill, MaxTold how many letters they may have.
const (
	MaxCues = 6
	MaxTold = 400
)

// Tell sets what the players are told about a drill of a block: a thing each between semicolons,
// at most MaxCues; "" is nothing.
func (b *Block) Tell(item int, text string) (string, error) {
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	var cues []string
	for _, cue := range strings.FieldsFunc(text, func(c rune) bool { return c == ';' || c == '\n' }) {
		if cue = strings.TrimSpace(cue); cue != "" {
			cues = append(cues, cue)
		}
	}
	if len(cues) > MaxCues || utf8.RuneCountInString(text) > MaxTold {
		return "", In(AtItem(b.ID, item), "tell them at most %d things, in %d letters", MaxCues, MaxTold)
	}
	k := &b.Items[item].Drill
	k.Cues = cues
	return "what is told at " + k.Name, nil
}

// Insert puts a new block into the list, before the one of that id or last, under an id
// of its own, which it returns.
func (w *Work) Insert(b Block, before string) string {
	b.ID = w.freeID()
	at := slices.IndexFunc(w.Blocks, func(other Block) bool { return other.ID == before })
	if at < 0 {
		at = len(w.Blocks)
	}
	w.Blocks = slices.Insert(w.Blocks, at, b)
	return b.ID
}

// PlayerLeads makes a player one who can lead, and returns the leader's id.
func (party *Party) PlayerLeads(player string) string {
	p := party.Player(player)
	if p == nil {
		return ""
	}
	id := "leads-" + player
	if party.Leader(id) == nil {
		party.Leaders = append(party.Leaders, Leader{ID: id, Name: p.ShortName(), Role: "Player"})
	}
	return id
}

func (w *Work) freeID() string {
	for n := len(w.Blocks) + 1; ; n++ {
		if id := fmt.Sprintf("b%d", n); w.Block(id) == nil {
			return id
		}
	}
}
