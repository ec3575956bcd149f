package otherwise

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
func (in Room) Better(r *shell.Request) (shell.Answer, error) {
	revision, _, err := in.Boards.InForce(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	found, err := in.WhatIf.Better(r.Context(), r.Club(), r.ParamID("session"))
	return &shell.Page{Screens: screens, Name: "better", Part: "better", Title: "A better fit", Nav: "runin",
		Body: &betterBody{ID: r.ParamID("session"), Revision: revision, Found: found, Edits: r.Coach()}}, err
}
