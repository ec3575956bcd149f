package board

import (
	"cuestart/planner/whatif"
	"cuestart/web/shell"
)

// betterBody is a better fit, offered.
type betterBody struct {
	ID       uint64
	Revision uint32
	Found    *whatif.Better // nil: there is none
	Edits    bool
}

// To is the address of something under the session.
func (b *betterBody) To(under ...string) string { return shell.Session(b.ID, under...) }

// Better looks for a better fit, while the board is looked at.
func Better(r *shell.Request) (shell.Answer, error) {
	revision, _, err := r.Planner.Boards.InForce(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	found, err := r.Planner.WhatIf.Better(r.Context(), r.Club(), r.ParamID("session"))
	return &shell.Page{Screens: screens, Name: "better", Part: "better", Title: "A better fit", Nav: "runin", Body: &betterBody{r.ParamID("session"), revision, found, r.Coach()}}, err
}

// TakeBetter puts it in place.
func TakeBetter(r *shell.Request) (shell.Answer, error) {
	b, err := r.Planner.WhatIf.TakeBetter(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"))
	return changed(r, "", b, err, nil)
}
