package account

import (
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/pquerna/otp/totp"

	"cuestart/planner"
	"cuestart/web/shell"
)

// pending is who has given the right password and is asked for their second factor.
type pending struct {
	Email string `json:"email"`
	Back  string `json:"back"`
	Of    string `json:"of"` // of the password that was right: with another, it begins anew
	At    int64  `json:"at"` // Unix seconds
}

// pendingFor is how long somebody may take between their two factors.
const pendingFor = 10 * time.Minute

// of tells a password and factor from others, without saying them.
func of(s planner.Secrets) string {
	return fmt.Sprintf("%x", sha256.Sum256([]byte(s.PasswordHash+" "+s.Factor)))[:24]
}

const tooManyTries = "Too many tries. Wait a quarter of an hour and try again."

func (p pending) text() string {
	text, _ := json.Marshal(p)
	return string(text)
}

// codeBody is the form that asks for the second factor.
type codeBody struct{ Problem string }

func codePage(status int, problem string) *shell.Page {
	return &shell.Page{Screens: screens, Name: "code", Title: "Second factor", Status: status, Body: codeBody{problem}}
}

// Code asks for the second factor.
func Code(r *shell.Request) (shell.Answer, error) {
	if r.Held() == "" {
		return shell.Go("/sign-in"), nil
	}
	return codePage(http.StatusOK, ""), nil
}

// EnterCode signs in who has given both factors.
func (in Room) EnterCode(r *shell.Request) (shell.Answer, error) {
	var who pending
	if json.Unmarshal([]byte(r.Held()), &who) != nil || who.Email == "" {
		return shell.Go("/sign-in"), nil
	}
	found, secrets, err := in.Staff.AccountByEmail(r.Context(), who.Email)
	if errors.Is(err, planner.ErrNotFound) || err == nil && (who.Of != of(secrets) ||
		r.Now().Sub(time.Unix(who.At, 0)) > pendingFor) {
		r.Hold("")
		return shell.Go("/sign-in"), nil
	} else if err != nil {
		return nil, err
	}
	right, tooMany, err := r.Guarded(shell.ByFactor, who.Email, func() (bool, error) {
		if code := r.Form.Text("code"); len(code) > codeLength {
			return in.Staff.UseRecoveryCode(r.Context(), found, code)
		}
		return in.codeRight(r, found.ID, secrets.Factor, r.Form.Text("code"))
	})
	if tooMany {
		return codePage(http.StatusTooManyRequests, tooManyTries), nil
	} else if err != nil {
		return nil, err
	}
	if !right {
		return codePage(http.StatusUnauthorized, "That code is not right, or was used before. Wait for the next one."),
			in.Staff.SignInFailed(r.Context(), found)
	}
	return r.LetIn(found, who.Back)
}

// codeLength is how many figures a code has; a longer one is for when the phone is lost.
const codeLength = 6

// codeStep is how long a code of a second factor is good.
const codeStep = 30 * time.Second

// codeRight tells whether a code is that of a secret now, or a step before or after;
// each is good once.
func (in Room) codeRight(r *shell.Request, account uint64, secret, code string) (bool, error) {
	now := r.Now()
	for _, at := range []time.Time{now, now.Add(-codeStep), now.Add(codeStep)} {
		if is, err := totp.GenerateCode(secret, at); err == nil && is == code && code != "" {
			return in.Staff.UseFactor(r.Context(), account, at.Unix()/int64(codeStep/time.Second))
		}
	}
	return false, nil
}

// againBody asks for the password again. To is where a form was being sent meanwhile,
// and Kept what was in it; "": none was.
type againBody struct {
	Problem, Back, Email, To string
	Kept                     []field
}

// field is a field of a form that waits.
type field struct{ Name, Value string }

// waits is how the fields of a form that waits are named among others.
const waits = "kept."

// kept is the form that waits for the password: as it comes from its own page, or as
// this one has kept it.
func kept(r *shell.Request) (list []field) {
	if r.Query("to") == "" {
		return nil
	}
	for _, name := range r.Form.Names() {
		own, isKept := strings.CutPrefix(name, waits)
		if isKept == r.Form.Has("present") {
			for _, value := range r.Form.List(name) {
				list = append(list, field{own, value})
			}
		}
	}
	return list
}

func againPage(r *shell.Request, status int, problem string) *shell.Page {
	return &shell.Page{Screens: screens, Name: "again", Title: "Your password, please", Status: status,
		Body: againBody{Problem: problem, Back: r.Back(), Email: r.By.Email, To: r.Query("to"), Kept: kept(r)}}
}

// Again asks medical staff for their password, where they have not used it for a while.
func Again(r *shell.Request) (shell.Answer, error) { return againPage(r, http.StatusOK, ""), nil }

// Prove takes the password again. A form that was being sent meanwhile is offered to
// be sent now.
func (in Room) Prove(r *shell.Request) (shell.Answer, error) {
	to := r.Query("to")
	if to != "" && !r.Form.Has("present") {
		return againPage(r, http.StatusOK, ""), nil
	}
	right, tooMany, err := in.ownPassword(r)
	if tooMany {
		return againPage(r, http.StatusTooManyRequests, tooManyTries), nil
	} else if err != nil {
		return nil, err
	}
	if !right {
		return againPage(r, http.StatusUnauthorized, "That is not your password."),
			in.Staff.SignInFailed(r.Context(), r.By)
	}
	if err := in.Staff.Proved(r.Context(), r.By); err != nil || to == "" {
		return shell.Go(r.Back()), err
	}
	return &shell.Page{Screens: screens, Name: "resume", Title: "Go on",
		Body: againBody{To: shell.SafePath(to), Kept: kept(r)}}, nil
}

// ownPassword tells whether the form's present password is that of who asks, unless there were
// too many wrong tries.
func (in Room) ownPassword(r *shell.Request) (right, tooMany bool, err error) {
	_, secrets, err := in.Staff.AccountByEmail(r.Context(), r.By.Email)
	if err != nil {
		return false, false, err
	}
	return r.Guarded(shell.ByOwn, r.By.Email,
		func() (bool, error) {
			return in.Passwords.matches(r.Context(), r.Form.Raw("present"), secrets.PasswordHash)
		})
}

// mustOwnPassword says in a sentence, for a field, that it was not their password.
func (in Room) mustOwnPassword(r *shell.Request) (problem string, err error) {
	right, tooMany, err := in.ownPassword(r)
	switch {
	case tooMany:
		problem = tooManyTries
	case !right && err == nil:
		problem = "that is not your password"
	}
	return problem, err
}

// forgotBody asks whose password is to be set anew.
type forgotBody struct {
	Sent    bool
	Problem string
}

// Forgot asks for the e-mail of who has forgotten their password.
func Forgot(*shell.Request) (shell.Answer, error) {
	return &shell.Page{Screens: screens, Name: "forgot", Title: "Forgotten password", Body: forgotBody{}}, nil
}

// SendReset sends a link to set a new password, where the e-mail has an account. The
// answer is the same where it has not.
func (in Room) SendReset(r *shell.Request) (shell.Answer, error) {
	page := &shell.Page{Screens: screens, Name: "forgot", Title: "Forgotten password", Body: forgotBody{Sent: true}}
	email := shell.CleanEmail(r.Form.Raw("email"))
	if len(email) > mostEmail {
		return page, nil
	}
	_, tooMany, err := r.Guarded(shell.ByLetter, email, func() (bool, error) { return false, nil })
	if tooMany {
		page.Status, page.Body = http.StatusTooManyRequests, forgotBody{Problem: tooManyTries}
		return page, nil
	} else if err != nil {
		return nil, err
	}
	return page, in.Staff.Forgot(r.Context(), email, r.Origin())
}

// resetBody sets a new password.
type resetBody struct{ Name, Email, Token, Problem string }

func (in Room) resetPage(r *shell.Request, status int, problem string) (*shell.Page, error) {
	token := r.Param("token")
	who, err := in.Staff.Resets(r.Context(), token)
	if errors.Is(err, planner.ErrNotFound) {
		return nil, shell.Refusal{Status: http.StatusNotFound, Heading: "This link is over",
			Line: "It was used, is older than an hour, or is not whole. Ask for a new one from the sign-in page."}
	}
	return &shell.Page{Screens: screens, Name: "reset", Title: "A new password", Status: status,
		Body: resetBody{Name: who.Name, Email: who.Email, Token: token, Problem: problem}}, err
}

// Reset is the form for a new password.
func (in Room) Reset(r *shell.Request) (shell.Answer, error) {
	return in.resetPage(r, http.StatusOK, "")
}

// SetReset sets the new password, and ends every sign-in of its owner.
func (in Room) SetReset(r *shell.Request) (shell.Answer, error) {
	page, err := in.resetPage(r, http.StatusUnprocessableEntity, "")
	if err != nil {
		return nil, err
	}
	b := page.Body.(resetBody)
	if b.Problem = passwordProblem(r.Form.Raw("password"), b.Name, b.Email); b.Problem != "" {
		page.Body = b
		return page, nil
	}
	hash, err := in.Passwords.hashed(r.Context(), r.Form.Raw("password"))
	if err != nil {
		return nil, err
	}
	who, err := in.Staff.Reset(r.Context(), b.Token, hash)
	if err != nil {
		return nil, err
	}
	r.Hold("")
	return shell.Go("/sign-in"), r.Know(who) // who gets its letters is not kept out by those who guess
}
