package board

import (
	"slices"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/web/shell"
)

// chip is one of the four things that complete a drill of the club's own.
type chip struct {
	Name  movement.Chip
	Label string
	Value string
	Hint  string
	Picks []string // what may be picked; none: it is written
}

// Asked tells whether nothing is known of what ought to be.
func (c chip) Asked() bool { return c.Name == movement.Works && c.Value == "" }

// chipsOf are the chips of a drill; none of one that is the book's.
func chipsOf(k *drill.Drill) (chips []chip) {
	if !say.IsOwn(k.Code) {
		return nil
	}
	for _, c := range []chip{
		{Name: movement.For, Label: "for", Hint: "what does it do?", Picks: movement.Purposes()},
		{Name: movement.Works, Label: "works", Hint: "hips, turning"},
		{Name: movement.Fast, Label: "takes", Hint: "3 s a rep"},
		{Name: movement.Cue, Label: "say", Hint: "a cue"},
	} {
		if c.Value = movement.Says(k, c.Name); c.Name != movement.Fast || c.Value != "" {
			chips = append(chips, c)
		}
	}
	return chips
}

// ChipsOf are the chips of a drill of the chosen block, as a form.
func (b *body) ChipsOf(one item) chipForm {
	return chipForm{b.To("blocks", b.Chosen.ID, "describe"), b.Revision, one}
}

// Describe has a drill of the club's own be what its chips say.
func Describe(r *shell.Request) (shell.Answer, error) {
	f, block := r.Form, r.Param("block")
	item := f.At(plan.AtBlock(block, "items")).Int("item", 0, plan.MaxItems-1)
	said := map[movement.Chip]string{}
	for _, name := range movement.Chips {
		if f.Has(string(name)) {
			said[name] = f.Text(string(name))
		}
	}
	if err := f.Err(); err != nil {
		return changed(r, block, nil, err, nil)
	}
	b, err := r.Planner.Describe(asked(r), r.By, r.ParamID("session"), f.Count("revision"), block, item, said)
	return changed(r, block, b, err, func(page *body) {
		if c := page.Chosen; c != nil && item < len(c.Items) { // what was typed stays
			for i, one := range c.Items[item].Chips {
				if words, has := said[one.Name]; has && (one.Picks == nil || slices.Contains(one.Picks, words)) {
					c.Items[item].Chips[i].Value = words
				}
			}
		}
	})
}
