package links

import (
	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/planner/reach"
	"cuestart/web/shell"
)

// publishBody is what publishing brings whom, before it is done.
type publishBody struct {
	*reach.Preview
	Next  int
	Stops int // findings to put right first
}

// To is the address of something under the session.
func (b publishBody) To(under ...string) string { return shell.Session(b.ID, under...) }

// Seers is who sees it at once: "12 players and 2 leaders".
func (b publishBody) Seers() string {
	seers := drill.Number(len(b.Document.Players), "players")
	if n := len(b.Document.Leaders); n > 0 {
		seers += " and " + drill.Number(n, "leaders")
	}
	return seers
}

// Preview shows what publishing the plan would bring whom.
func (in Room) Preview(r *shell.Request) (shell.Answer, error) {
	p, err := in.Reach.Preview(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	b := publishBody{Preview: p, Next: p.Publication.Number + 1, Stops: check.Count(p.Findings).Stops}
	return &shell.Page{Screens: screens, Name: "publish", Title: "Publish " + p.Document.Title, Nav: "runin", Body: b},
		nil
}
