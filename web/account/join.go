package account

import (
	"errors"
	"fmt"
	"net/http"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/web/shell"
)

// joinBody is the form that somebody answers who was invited.
type joinBody struct {
	Name, Email, Role, Club string
	Token                   string
	Problems                plan.Problems
}

// invited is whom the path's link invites.
func (in Room) invited(r *shell.Request) (planner.Account, error) {
	who, err := in.Staff.Invited(r.Context(), r.Param("token"))
	return who, over(err)
}

// over says that an invitation is over.
func over(err error) error {
	if errors.Is(err, planner.ErrNotFound) {
		return shell.Refusal{Status: http.StatusNotFound, Heading: "This invitation is over",
			Line: "It was used, is older than a week, or the address is not whole. Ask your coach for a new one."}
	}
	if errors.Is(err, planner.ErrWaits) {
		return shell.Refusal{Status: http.StatusForbidden, Heading: "Your medical staff have to confirm this first",
			Line: "The club has medical staff by now, and only they let others see what is medical. They see " +
				"your invitation; you get a new letter once they have confirmed it."}
	}
	return err
}

func joinPage(who planner.Account, token string, wrong plan.Problems) *shell.Page {
	b := joinBody{Name: who.Name, Email: who.Email, Role: who.Role.Name(), Club: who.ClubName, Token: token,
		Problems: wrong}
	return &shell.Page{Screens: screens, Name: "join", Title: "Join " + who.ClubName, Body: b}
}

// Invited is the form of who was invited.
func (in Room) Invited(r *shell.Request) (shell.Answer, error) {
	who, err := in.invited(r)
	return joinPage(who, r.Param("token"), nil), err
}

// Join makes the account of who was invited.
func (in Room) Join(r *shell.Request) (shell.Answer, error) {
	who, err := in.invited(r)
	if err != nil {
		return nil, err
	}
	token, password := r.Param("token"), r.Form.Raw("password")
	r.Form.Must("password", passwordProblem(password, who.Email, who.Name, who.ClubName))
	if err = r.Form.Err(); err == nil {
		var hash string
		if hash, err = in.Passwords.hashed(r.Context(), password); err != nil {
			return nil, err
		}
		joined, err := in.Staff.Join(r.Context(), token, hash)
		if err == nil {
			return r.LetIn(joined, "")
		}
		if !errors.Is(err, planner.ErrTaken) {
			return nil, over(err)
		}
		again := joinPage(who, token,
			plan.Problems{{Where: "password",
				What: fmt.Sprintf("%s signs in here already: ask to be invited with another address", who.Email)}})
		again.Status = http.StatusConflict
		return again, nil
	}
	return r.Changed(err, nil, func(wrong plan.Problems) (*shell.Page, error) {
		return joinPage(who, token, wrong),
			nil
	})
}
