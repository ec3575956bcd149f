package phone

import (
	"time"

	"cuestart/planner"
	"cuestart/web/shell"
)

// Say keeps what somebody says from their phone: that they are late, want an easier
// form, are tight, in pain; or the ticks of a leader's grid. A press that comes twice,
// or late, counts once, as of when it was pressed.
func (in Room) Say(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	pressed := time.UnixMilli(int64(r.Form.ID("pressed")))
	err = in.Reach.Tell(r.Context(), found, planner.Word{Once: r.Form.Raw("once"), Kind: r.Form.Raw("kind"),
		Block: r.Form.Raw("block"), Item: int(r.Form.Count("item")),
		Says: r.Form.Raw("says"), Pressed: pressed})
	if wrong := shell.Problems(err); wrong != nil {
		return shell.Sentence{Status: 422, Line: r.Tongue().Word(wrong[0].What)}, nil
	}
	return shell.Done{}, err
}

// Seen keeps that somebody says that they have seen an edition.
func (in Room) Seen(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	return shell.Done{}, in.Reach.Opened(r.Context(), found, int(r.Form.Count("number")), true)
}
