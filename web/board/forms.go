package board

import (
	"cuestart/core/plan"
	"cuestart/web/shell"
)

// formForm is who does a drill otherwise, as a form.
type formForm struct {
	To       string
	Revision uint32
	Item     item
}

// FormsOf is who does a drill of the chosen block otherwise.
func (b *body) FormsOf(one item) formForm {
	return formForm{b.To("blocks", b.Chosen.ID, "forms"), b.Revision, one}
}

// PutForm puts a player on the easier or the harder form of a drill, or back on the usual one.
func (in Room) PutForm(r *shell.Request) (shell.Answer, error) {
	f, block := r.Form, r.Param("block")
	item := f.At(plan.AtBlock(block, "items")).Int("item", 0, plan.MaxItems-1)
	player, way := f.Raw("usual"), ""
	for _, form := range []string{plan.Easier, plan.Harder} {
		if f.Raw(form) != "" {
			player, way = f.Raw(form), form
		}
	}
	if err := f.Err(); err != nil {
		return in.changed(r, block, nil, err, nil)
	}
	b, err := in.Boards.PutForm(r.Insisting(), r.By, r.ParamID("session"), f.Count("revision"), block, item, player,
		way)
	return in.changed(r, block, b, err, nil)
}
