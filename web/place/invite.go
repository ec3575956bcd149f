package place

import (
	"net/http"
	"strings"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/web/shell"
)

// Invite makes a link for somebody to join the staff with.
func Invite(r *shell.Request) (shell.Answer, error) {
	f := r.Form.At("invite")
	sent := invitation{Name: f.Text("name"), Email: shell.CleanEmail(f.Raw("email")), Role: f.Raw("role")}
	f.Must("name", plan.NameProblem(sent.Name))
	if strings.Count(sent.Email, "@") != 1 || len(sent.Email) < 3 {
		f.Refuse("email", "write an e-mail address such as physio@club.example")
	}
	role := planner.Role(sent.Role)
	if role.Name() == "" || r.By.Role != planner.Coach {
		f.Refuse("role", "a coach picks a role: coach, assistant or medical")
	}
	again := func(wrong plan.Problems) (*shell.Page, error) {
		return groundPage(r, wrong, func(b *groundBody) { b.Invited = sent })
	}
	token, err := "", f.Err()
	if err == nil {
		token, err = r.Planner.Invite(r.Context(), r.By, sent.Name, sent.Email, role)
	}
	if err != nil {
		return r.Changed(err, nil, again)
	}
	p, err := groundPage(r, nil, func(b *groundBody) {
		b.Invited, b.Link = sent, r.Origin()+"/join/"+token
	})
	if err == nil {
		p.Status = http.StatusOK
	}
	return p, err
}
