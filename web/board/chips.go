package board

import (
	"cuestart/core/plan"
	"cuestart/web/shell"
)

// Describe has a drill of the club's own be what its chips say.
func (in Room) Describe(r *shell.Request) (shell.Answer, error) {
	f, block := r.Form, r.Param("block")
	item := f.At(plan.AtBlock(block, "items")).Int("item", 0, plan.MaxItems-1)
	said := f.Said()
	if err := f.Err(); err != nil {
		return in.changed(r, block, nil, err, nil)
	}
	b, err := in.Wording.Describe(r.Insisting(), r.By, r.ParamID("session"), f.Count("revision"), block, item, said)
	return in.changed(r, block, b, err, func(page *body) {
		if c := page.Chosen; c != nil && item < len(c.Items) {
			c.Items[item].Chips.Keep(said)
		}
	})
}
