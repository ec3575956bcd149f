package people

import (
	"errors"
	"net/http"
	"strings"
	"sync"

	"github.com/alexedwards/argon2id"

	"cuestart/book"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/web/shell"
)

// nobody is a hash to compare with where there is no account, so that the time
// of the answer does not tell.
var nobody = sync.OnceValue(func() string {
	hash, _ := argon2id.CreateHash("nobody", argon2id.DefaultParams)
	return hash
})

type signInBody struct {
	Email, Problem string
}

func signInPage(status int, b signInBody) *shell.Page {
	return &shell.Page{Screens: screens, Name: "signin", Title: "Sign in", Status: status, Body: b}
}

// SignIn is the form that signs somebody in; where there is no club yet, the one
// that makes it.
func SignIn(r *shell.Request) (shell.Answer, error) {
	empty, err := r.Planner.Empty(r.Context())
	if empty {
		return shell.Go("/welcome"), err
	}
	return signInPage(http.StatusOK, signInBody{}), err
}

// Enter signs somebody in.
func Enter(r *shell.Request) (shell.Answer, error) {
	refuse := func(status int, problem string) (shell.Answer, error) {
		return signInPage(status, signInBody{Email: r.Form.Raw("email"), Problem: problem}), nil
	}
	if r.TooMany {
		return refuse(http.StatusTooManyRequests, "Too many tries. Wait a quarter of an hour and try again.")
	}
	found, hash, err := r.Planner.AccountByEmail(r.Context(), shell.CleanEmail(r.Form.Raw("email")))
	if errors.Is(err, planner.ErrNotFound) {
		hash, err = nobody(), nil
	}
	if err != nil {
		return nil, err
	}
	if right, err := argon2id.ComparePasswordAndHash(r.Form.Raw("password"), hash); err != nil || !right || found.ID == 0 {
		return refuse(http.StatusUnauthorized, "The e-mail and password do not belong together.")
	}
	return r.LetIn(found)
}

// Leave signs out.
func Leave(r *shell.Request) (shell.Answer, error) { return shell.Go("/sign-in"), r.LetOut() }

// welcomeBody is the form that makes the first club.
type welcomeBody struct {
	Club, Squad, Sport, Grade, Name, Email string
	Problems                               plan.Problems
}

func (b welcomeBody) page() *shell.Page {
	return &shell.Page{Screens: screens, Name: "welcome", Title: "Welcome", Body: b}
}

// Welcome is the form that makes the first club.
func Welcome(r *shell.Request) (shell.Answer, error) {
	empty, err := r.Planner.Empty(r.Context())
	if !empty {
		return shell.Go("/sign-in"), err
	}
	return welcomeBody{Grade: string(drill.Club)}.page(), err
}

// Found makes the first club, and signs its coach in.
func Found(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	b := welcomeBody{Club: f.Text("club"), Squad: f.Text("squad"), Sport: f.Raw("sport"), Grade: f.Raw("grade"), Name: f.Text("name"), Email: f.Raw("email")}
	b.check(f)
	err := f.Err()
	if err == nil {
		coach, err := found(r, b)
		if errors.Is(err, planner.ErrTaken) {
			return shell.Go("/sign-in"), nil
		} else if err != nil {
			return nil, err
		}
		return r.LetIn(coach)
	}
	return r.Changed(err, nil, func(wrong plan.Problems) (*shell.Page, error) {
		b.Problems = wrong
		return b.page(), nil
	})
}

func found(r *shell.Request, b welcomeBody) (planner.Account, error) {
	hash, err := argon2id.CreateHash(r.Form.Raw("password"), argon2id.DefaultParams)
	if err != nil {
		return planner.Account{}, err
	}
	return r.Planner.Found(r.Context(), planner.Founding{Club: b.Club, Sport: b.Sport, Squad: b.Squad, Grade: b.Grade, Name: b.Name,
		Email: shell.CleanEmail(b.Email), PasswordHash: hash})
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
	if drill.Grade(b.Grade).Name() == "" {
		f.Refuse("grade", "pick a level")
	}
	if !emailLike(shell.CleanEmail(b.Email)) {
		f.Refuse("email", "write an e-mail address such as coach@club.example")
	}
	f.Must("password", passwordProblem(f.Raw("password")))
}

// mostEmail is how long an e-mail address may be.
const mostEmail = 254

func emailLike(email string) bool {
	return len(email) <= mostEmail && strings.Count(email, "@") == 1 && !strings.HasPrefix(email, "@") && !strings.HasSuffix(email, "@") && !strings.ContainsAny(email, " \r\n\t")
}

// passwordProblem says what is wrong with a new password, or "".
func passwordProblem(password string) string {
	if n := len([]rune(password)); n < 10 || n > 200 {
		return "use 10 characters or more, such as three words of your own"
	}
	return ""
}
