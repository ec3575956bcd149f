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

func (d *Document) freeID() string {
	for n := len(d.Blocks) + 1; ; n++ {
		if id := fmt.Sprintf("b%d", n); d.Block(id) == nil {
			return id
		}
	}
}
