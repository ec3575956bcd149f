package account

import (
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"cuestart/book"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

type signInBody struct {
	Email, Problem, Back string
}

func signInPage(status int, b signInBody) *shell.Page {
	return &shell.Page{Screens: screens, Name: "signin", Title: "Sign in", Status: status, Body: b}
}

// SignIn is the form that signs somebody in; where there is no club yet, the one
// that makes it.
func (in Room) SignIn(r *shell.Request) (shell.Answer, error) {
	empty, err := in.Staff.Empty(r.Context())
	if empty {
		return shell.Go("/welcome"), err
	}
	return signInPage(http.StatusOK, signInBody{Back: r.Back()}), err
}

// Enter signs somebody in, or asks for the second factor of who has one.
func (in Room) Enter(r *shell.Request) (shell.Answer, error) {
	email := shell.CleanEmail(r.Form.Raw("email"))
	refuse := func(status int, problem string) (shell.Answer, error) {
		return signInPage(status, signInBody{Email: r.Form.Raw("email"), Problem: problem, Back: r.Back()}), nil
	}
	found, secrets, err := in.Staff.AccountByEmail(r.Context(), email)
	if errors.Is(err, planner.ErrNotFound) {
		secrets.PasswordHash, err = in.Passwords.nobody(), nil
	}
	if err != nil {
		return nil, err
	}
	right, tooMany, err := r.Guarded(shell.ByPassword, email, func() (bool, error) {
		right, err := in.Passwords.matches(r.Context(), r.Form.Raw("password"), secrets.PasswordHash)
		return right && found.ID != 0, err
	})
	if tooMany {
		return refuse(http.StatusTooManyRequests, tooManyTries)
	} else if err != nil {
		return nil, err
	}
	if !right {
		if found.ID != 0 {
			err = in.Staff.SignInFailed(r.Context(), found)
		}
		page, _ := refuse(http.StatusUnauthorized, "The e-mail and password do not belong together.")
		return page, err
	}
	if found.Factor {
		r.Hold(pending{Email: email, Back: r.Back(), Of: of(secrets), At: r.Now().Unix()}.text())
		return shell.Go("/sign-in/code"), nil
	}
	return r.LetIn(found, r.Back())
}

// Leave signs out.
func Leave(r *shell.Request) (shell.Answer, error) { return shell.Go("/sign-in"), r.LetOut() }

// welcomeBody is the form that makes the first club.
type welcomeBody struct {
	Club, Squad, Sport, Grade, Name, Email string
	Zone, Units                            string
	Problems                               plan.Problems
}

func (b welcomeBody) page() *shell.Page {
	return &shell.Page{Screens: screens, Name: "welcome", Title: "Welcome", Body: b}
}

// Welcome is the form that makes the first club.
func (in Room) Welcome(r *shell.Request) (shell.Answer, error) {
	empty, err := in.Staff.Empty(r.Context())
	if !empty {
		return shell.Go("/sign-in"), err
	}
	return welcomeBody{Grade: string(drill.Club)}.page(), err
}

// Found makes the first club, and signs its coach in.
func (in Room) Found(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	b := welcomeBody{Club: f.Text("club"), Squad: f.Text("squad"), Sport: f.Raw("sport"), Grade: f.Raw("grade"),
		Name: f.Text("name"), Email: f.Raw("email"), Zone: f.Text("time_zone"), Units: f.Raw("units")}
	b.check(f)
	err := f.Err()
	if err == nil {
		empty, err := in.Staff.Empty(r.Context())
		if err == nil && !empty {
			err = planner.ErrTaken
		}
		var coach planner.Account
		if err == nil {
			coach, err = in.found(r, b)
		}
		if errors.Is(err, planner.ErrTaken) {
			return shell.Go("/sign-in"), nil
		} else if err != nil {
			return nil, err
		}
		return r.LetIn(coach, "")
	}
	return r.Changed(err, nil, func(wrong plan.Problems) (*shell.Page, error) {
		b.Problems = wrong
		return b.page(), nil
	})
}

func (in Room) found(r *shell.Request, b welcomeBody) (planner.Account, error) {
	hash, err := in.Passwords.hashed(r.Context(), r.Form.Raw("password"))
	if err != nil {
		return planner.Account{}, err
	}
	return in.Keep.Found(r.Context(), keep.Founding{Club: b.Club, Sport: b.Sport, Squad: b.Squad, Grade: b.Grade,
		Name:  b.Name,
		Email: shell.CleanEmail(b.Email), PasswordHash: hash, Zone: b.Zone, Units: b.Units,
		Language: shell.Foreign(r.Tongue().Lang)})
}

// Grades are the levels of a squad, as a coach says them.
func (welcomeBody) Grades() map[string]string {
	return map[string]string{"junior": "Juniors", "club": "Club", "elite": "Elite"}
}

// Sports are those that Cue Start knows; another is made of the nearest one.
func (welcomeBody) Sports() (list []shell.Choice) {
	for _, s := range book.Sports() {
		list = append(list, shell.Choice{Value: s.Key, Label: s.Name})
	}
	return list
}

// check finds what is wrong with the form, field by field.
func (b *welcomeBody) check(f *shell.Form) {
	f.Must("club", plan.NameProblem(b.Club))
	f.Must("squad", plan.NameProblem(b.Squad))
	f.Must("name", plan.NameProblem(b.Name))
	if _, known := book.Sport(b.Sport); !known {
		f.Refuse("sport", "pick the sport, or the one that is nearest to yours")
	}
	if _, err := time.LoadLocation(b.Zone); err != nil || b.Zone == "Local" {
		f.Refuse("time_zone", "write it as Europe/Dublin or America/Chicago")
	}
	if !slices.Contains([]string{"", "m", "yd", "ft"}, b.Units) {
		f.Refuse("units", "pick metres, yards or feet")
	}
	if drill.Grade(b.Grade).Name() == "" {
		f.Refuse("grade", "pick a level")
	}
	if !emailLike(shell.CleanEmail(b.Email)) {
		f.Refuse("email", "write an e-mail address such as coach@club.example")
	}
	f.Must("password", passwordProblem(f.Raw("password"), b.Email, b.Club, b.Name))
}

// mostEmail is how long an e-mail address may be.
const mostEmail = 254

func emailLike(email string) bool {
	return len(email) <= mostEmail && strings.Count(email, "@") == 1 && !strings.HasPrefix(email, "@") &&
		!strings.HasSuffix(email, "@") && !strings.ContainsAny(email, " \r\n\t")
}
