package book

import (
	"net/http"
	"net/url"

	"cuestart/core/movement"
	"cuestart/core/plan"
	"cuestart/web/shell"
)

// Describe has a drill of the club's own be called and be what its chips say.
func (in Room) Describe(r *shell.Request) (shell.Answer, error) {
	code, said := r.Param("code"), r.Form.Said()
	err := in.Wording.DescribeDrill(r.Context(), r.By, code, r.Form.Text("name"), said)
	return r.Saved(err, "Kept. Plans to come follow", shell.Drill(code), in.opened(r, code, said))
}

// Merge makes a drill of the club's own another one: they were two names of one drill.
func (in Room) Merge(r *shell.Request) (shell.Answer, error) {
	code, into := r.Param("code"), r.Form.Text("into")
	err := in.Wording.MergeDrill(r.Context(), r.By, code, into)
	return r.Saved(err, "They are one now: "+into, "/drills?"+url.Values{"q": {into}}.Encode(), in.opened(r, code, nil))
}

// opened shows the drill again with what was wrong, and what was said of its chips.
func (in Room) opened(r *shell.Request, code string, said map[movement.Chip]string) func(plan.Problems) (*shell.Page,
	error) {
	return func(wrong plan.Problems) (*shell.Page, error) {
		b, err := in.Books.Book(r.Context(), r.Club())
		if err != nil {
			return nil, err
		}
		d, ok := b.Find(code)
		if !ok {
			return shell.Gone(wrong)
		}
		body, err := in.drillsOf(r, b)
		if err != nil {
			return nil, err
		}
		body.Edits = true
		body.Open = openOf(b, d, url.Values{"drill": {code}})
		body.Open.Problem = wrong[0].What
		body.Open.Chips.Keep(said)
		return &shell.Page{Screens: screens, Name: "drills", Title: "Drill book", Nav: "drills",
			Status: http.StatusUnprocessableEntity, Body: body}, nil
	}
}
