package plan

import (
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
)

// An edit changes a document in place and returns what it did, in a few words
// that name it when it is undone. On an error the document is unchanged.

// ErrNoSuchBlock is returned by edits of a block that the plan does not have.
var ErrNoSuchBlock = errors.New("this block is no longer in the plan")

// Clone is a deep copy of the document.
func (d *Document) Clone() *Document {
	text, err := json.Marshal(d)
	if err != nil {
		panic(err) // the document holds nothing that JSON cannot
	}
	copied := new(Document)
	if err := json.Unmarshal(text, copied); err != nil {
		panic(err)
	}
	return copied
}

// SetStart moves the start.
func (d *Document) SetStart(start clock.Start) (string, error) {
	at, err := start.Resolve()
	if err != nil {
		return "", Problems{{"start", err.Error()}}
	}
	d.Start = start
	return fmt.Sprintf("%s at %s", d.StartName, at.Format("15:04, Mon 2 Jan")), nil
}

// SetMargin sets the seconds before the start at which work ends.
func (d *Document) SetMargin(seconds int) (string, error) {
	if seconds < 0 || seconds > 3600 {
		return "", Problems{{"margin", "the margin lies between 0 and 60 minutes"}}
	}
	d.Margin = seconds
	return "margin " + clock.Duration(seconds), nil
}

// HeadFields is what a coach says of a session as a whole.
type HeadFields struct {
	Title, Place, StartName, Method string
	Open                            clock.Moment
}

// SetHead changes what is said of the session as a whole. Blocks of a phase
// that the new method lacks are refused rather than lost.
func (d *Document) SetHead(to HeadFields) (string, error) {
	next := *d
	next.Title, next.Place, next.StartName, next.Method, next.Open = to.Title, to.Place, to.StartName, to.Method, to.Open
	if problem := NameProblem(to.StartName); problem != "" {
		return "", Problems{{"start_name", problem}}
	}
	if len([]rune(to.Place)) > MaxName {
		return "", Problems{{"place", fmt.Sprintf("keep it to %d characters", MaxName)}}
	}
	if err := next.Validate(); err != nil {
		return "", err
	}
	*d = next
	return "the session's name, place, method or opening", nil
}

// SetSpare lets doses go up to their maximum where minutes are left, or not.
func (d *Document) SetSpare(use bool) (string, error) {
	d.UseSpare = use
	if use {
		return "spare minutes used", nil
	}
	return "spare minutes left free", nil
}

// SetDose sets the target of drill item of a block. An amount outside the
// drill's range is refused with the range.
func (d *Document) SetDose(block string, item, amount int) (string, error) {
	b := d.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	known := &b.Items[item].Drill
	if amount < known.Range.Min || amount > known.Range.Max {
		return "", Problems{{fmt.Sprintf("blocks.%s.items.%d", block, item),
			fmt.Sprintf("%s goes from %s to %s", known.Name, known.Words(known.Range.Min), known.Words(known.Range.Max))}}
	}
	known.Range.Target = amount
	return fmt.Sprintf("%s: %s", known.Name, known.Words(amount)), nil
}

// SetPriority sets how willingly a block is given up.
func (d *Document) SetPriority(block string, priority Priority) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	if priority.Weight() == 0 {
		return "", Problems{{"blocks." + block + ".priority", "the priority is must, should or could"}}
	}
	b.Priority = priority
	return fmt.Sprintf("%s is a %s", b.Name, priority), nil
}

// Swap exchanges a block with its neighbour in the same phase: the one before
// it (by -1) or after it (by 1) in the list.
func (d *Document) Swap(block string, by int) (string, error) {
	i := slices.IndexFunc(d.Blocks, func(b Block) bool { return b.ID == block })
	if i < 0 {
		return "", ErrNoSuchBlock
	}
	for j := i + by; j >= 0 && j < len(d.Blocks); j += by {
		if d.Blocks[j].Phase == d.Blocks[i].Phase {
			d.Blocks[i], d.Blocks[j] = d.Blocks[j], d.Blocks[i]
			if by < 0 {
				return fmt.Sprintf("%s before %s", d.Blocks[j].Name, d.Blocks[i].Name), nil
			}
			return fmt.Sprintf("%s after %s", d.Blocks[j].Name, d.Blocks[i].Name), nil
		}
	}
	return "", Problems{{"blocks." + block, fmt.Sprintf("%s has no neighbour there in its phase", d.Blocks[i].Name)}}
}

// Remove takes a block out, and every link to it.
func (d *Document) Remove(block string) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	name := b.Name
	d.Blocks = slices.DeleteFunc(d.Blocks, func(b Block) bool { return b.ID == block })
	for i := range d.Blocks {
		d.Blocks[i].After = slices.DeleteFunc(d.Blocks[i].After, func(id string) bool { return id == block })
	}
	return name + " removed", nil
}

// Add appends a block of one drill to the end of a phase that the drill
// serves, for the given audience.
func (d *Document) Add(known drill.Drill, phase drill.Phase, who []string, priority Priority) (string, error) {
	if !known.Serves(phase) {
		return "", Problems{{"add.phase", fmt.Sprintf("%s does not belong in that phase", known.Name)}}
	}
	if len(d.Members(who)) == 0 {
		return "", Problems{{"add.who", "pick who does it"}}
	}
	if priority.Weight() == 0 {
		return "", Problems{{"add.priority", "the priority is must, should or could"}}
	}
	if len(d.Blocks) >= MaxBlocks {
		return "", Problems{{"add", fmt.Sprintf("a plan has %d blocks at most", MaxBlocks)}}
	}
	b := Block{ID: d.freeID(), Name: known.Name, Aim: known.Aim, Phase: phase, Who: who, Priority: priority,
		Excusable: slices.Contains(who, Everyone), Items: []Item{{Drill: known}}}
	if like := slices.IndexFunc(d.Blocks, func(other Block) bool { return slices.Equal(other.Who, who) }); like >= 0 {
		b.Zone = d.Blocks[like].Zone
	}
	at := len(d.Blocks)
	for i := len(d.Blocks) - 1; i >= 0; i-- {
		if d.Blocks[i].Phase == phase {
			at = i + 1
			break
		}
	}
	d.Blocks = slices.Insert(d.Blocks, at, b)
	return known.Name + " added", nil
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
	where := "blocks." + block
	if problem := NameProblem(to.Name); problem != "" {
		return "", Problems{{where + ".name", problem}}
	}
	if len(d.Members(to.Who)) == 0 {
		return "", Problems{{where + ".who", "nobody is in it: pick a unit or players"}}
	}
	if to.Stations < 0 || to.Stations > 100 {
		return "", Problems{{where + ".stations", "there are between 1 and 100 stations"}}
	}
	if to.Zone != "" && d.Zone(to.Zone) == nil || to.Leader != "" && d.Leader(to.Leader) == nil {
		return "", Problems{{where + ".zone", "this place or leader is not of this plan"}}
	}
	b.Name, b.Aim, b.Zone, b.Leader, b.Stations = to.Name, to.Aim, to.Zone, to.Leader, to.Stations
	if !slices.Equal(b.Who, to.Who) {
		b.Who, b.Excusable = to.Who, slices.Contains(to.Who, Everyone)
	}
	return to.Name + " changed", nil
}

// AddItem puts a drill into a block, last.
func (d *Document) AddItem(block string, item Item) (string, error) {
	b := d.Block(block)
	switch {
	case b == nil:
		return "", ErrNoSuchBlock
	case len(b.Items) >= MaxItems:
		return "", Problems{{"blocks." + block + ".items", fmt.Sprintf("a block has between 1 and %d drills", MaxItems)}}
	case !item.Drill.Serves(b.Phase):
		return "", Problems{{"blocks." + block + ".items", fmt.Sprintf("%s does not belong in that phase", item.Drill.Name)}}
	}
	b.Items = append(b.Items, item)
	return fmt.Sprintf("%s in %s", item.Drill.Name, b.Name), nil
}

// RemoveItem takes a drill out of a block, and the block out with its last one.
func (d *Document) RemoveItem(block string, item int) (string, error) {
	b := d.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	if len(b.Items) == 1 {
		return d.Remove(block)
	}
	said := fmt.Sprintf("%s out of %s", b.Items[item].Drill.Name, b.Name)
	b.Items = slices.Delete(b.Items, item, item+1)
	return said, nil
}

// SetFixed changes a fixed event, or adds it where its id is "".
func (d *Document) SetFixed(f Fixed) (string, error) {
	if problem := NameProblem(f.Name); problem != "" {
		return "", Problems{{"fixed", problem}}
	}
	if len(d.Members(f.Who)) == 0 {
		return "", Problems{{"fixed", "say whom it holds"}}
	}
	start, err := d.Start.Resolve()
	if err != nil {
		return "", Problems{{"start", err.Error()}}
	}
	if window, err := f.Span.Window(start); err != nil || window.To <= window.From {
		return "", Problems{{"fixed", "it ends before it starts"}}
	}
	if f.ID == "" {
		for n := len(d.Fixed) + 1; f.ID == "" || find(d.Fixed, f.ID, func(f Fixed) string { return f.ID }) != nil; n++ {
			f.ID = fmt.Sprintf("fixed-%d", n)
		}
		d.Fixed = append(d.Fixed, f)
		return f.Name + " added", nil
	}
	known := find(d.Fixed, f.ID, func(f Fixed) string { return f.ID })
	if known == nil {
		return "", Problems{{"fixed", "this is no longer in the plan"}}
	}
	*known = f
	return f.Name + " changed", nil
}

// RemoveFixed takes a fixed event out.
func (d *Document) RemoveFixed(id string) (string, error) {
	i := slices.IndexFunc(d.Fixed, func(f Fixed) bool { return f.ID == id })
	if i < 0 {
		return "", Problems{{"fixed", "this is no longer in the plan"}}
	}
	name := d.Fixed[i].Name
	d.Fixed = slices.Delete(d.Fixed, i, i+1)
	return name + " taken out", nil
}

// SetLate says by how many seconds a player comes late; 0: in time.
func (d *Document) SetLate(player string, seconds int) (string, error) {
	p := d.Player(player)
	if p == nil {
		return "", Problems{{"players", "this player is not in the plan"}}
	}
	if seconds < 0 || seconds > 24*3600 {
		return "", Problems{{"players", "late or due lies outside the day"}}
	}
	p.Late = seconds
	if seconds == 0 {
		return p.ShortName() + " is in time", nil
	}
	return fmt.Sprintf("%s comes %s late", p.ShortName(), clock.Duration(seconds)), nil
}

// SetOut takes a player out of the plan, of its units and of blocks of their own.
func (d *Document) SetOut(player string) (string, error) {
	p := d.Player(player)
	if p == nil {
		return "", Problems{{"players", "this player is not in the plan"}}
	}
	if len(d.Players) == 1 {
		return "", Problems{{"players", "nobody would be left"}}
	}
	name := p.ShortName()
	is := func(id string) bool { return id == player }
	d.Players = slices.DeleteFunc(d.Players, func(p Player) bool { return p.ID == player })
	for i := range d.Units {
		d.Units[i].Players = slices.DeleteFunc(d.Units[i].Players, is)
	}
	d.Restrictions = slices.DeleteFunc(d.Restrictions, func(r Restriction) bool { return r.Player == player })
	for _, b := range slices.Clone(d.Blocks) {
		if len(d.Members(b.Who)) == 0 {
			d.Remove(b.ID)
			continue
		}
		kept := d.Block(b.ID)
		kept.Who = slices.DeleteFunc(kept.Who, is)
	}
	d.Fixed = slices.DeleteFunc(d.Fixed, func(f Fixed) bool { return len(d.Members(f.Who)) == 0 })
	return name + " is out", nil
}

func (d *Document) freeID() string {
	for n := len(d.Blocks) + 1; ; n++ {
		if id := fmt.Sprintf("b%d", n); d.Block(id) == nil {
			return id
		}
	}
}
