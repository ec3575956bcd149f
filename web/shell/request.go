package shell

import (
	"context"
	"errors"
	"io"
	"net/http"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"cuestart/live"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// Request is one question to the site: who asks, for which club, with which form.
type Request struct {
	By   planner.Account // who is signed in; zero where nobody is
	Form *Form           // what was sent

	asks
	shell *Shell
}

// Errors that lead elsewhere: to sign in, to give the password again, to set a second
// factor.
var (
	errSignedOut = errors.New("nobody is signed in")
	errProve     = planner.ErrUnproved
	errFactor    = errors.New("a second factor has to be set")
)

// mustBeSignedIn finds who is signed in, and fails where nobody is.
func (r *Request) mustBeSignedIn() error {
	ctx := r.Context()
	id := r.shell.sessions.GetInt64(ctx, signInKey)
	if id == 0 {
		return errSignedOut
	}
	found, err := r.shell.Office.Staff.SignedIn(ctx, uint64(id))
	if errors.Is(err, planner.ErrNotFound) {
		return errSignedOut
	} else if err != nil {
		return err
	}
	r.By = found
	r.gin.Header("X-Account", strconv.FormatUint(found.ID, 10)) // what keeps pages keeps them for this account alone
	if path := r.gin.Request.URL.Path; found.NeedsFactor && path != "/me" && !strings.HasPrefix(path, "/me/") {
		return errFactor
	}
	if once := r.Form.values.Get("once"); once != "" && len(once) <= mostOnce && utf8.ValidString(once) {
		r.gin.Request = r.gin.Request.WithContext(planner.Once(ctx, found.ID, once))
	}
	return nil
}

// mostOnce is how long the name of a change may be.
const mostOnce = 64

// MustProve fails where medical staff have not proved lately who they are.
func (r *Request) MustProve() error {
	ok, err := r.shell.Office.Prove(r.Context(), r.By)
	if err == nil && !ok {
		err = errProve
	}
	return err
}

// Back is where a form leads back to: what it says, or where it is shown.
func (r *Request) Back() string {
	if back := r.Form.Raw("back"); back != "" {
		return short(back)
	}
	return short(r.gin.Query("back"))
}

// here is the address that is asked for, where it is one to come back to.
func (r *Request) here() string {
	if r.gin.Request.Method != http.MethodGet {
		return ""
	}
	return short(r.gin.Request.URL.RequestURI())
}

// mostBack is how long an address to come back to may be.
const mostBack = 500

func short(address string) string {
	if len(address) > mostBack {
		return ""
	}
	return address
}

// Context ends when who asks has gone away.
func (r *Request) Context() context.Context { return r.gin.Request.Context() }

// Within is the same request under another context: of what is worked out for others too, who
// wait on when who asks has gone away.
func (r *Request) Within(ctx context.Context) *Request {
	own, asked := *r, r.gin.Copy()
	asked.Request = r.gin.Request.WithContext(ctx)
	own.gin = asked
	return &own
}

// Insisting is the context of a change of a plan: one that is sent again takes the place of what
// somebody else changed.
func (r *Request) Insisting() context.Context {
	if r.Form.Has("insist") {
		return boards.Insist(r.Context())
	}
	return r.Context()
}

// Now is the moment, by the clock that the use cases go by.
func (r *Request) Now() time.Time { return r.shell.Office.Now() }

// Club is the id of the club that asks.
func (r *Request) Club() uint64 { return r.By.ClubID }

// May tells whether who asks may do something.
func (r *Request) May(act planner.Act) bool { return planner.May(r.By, act) == nil }

// Coach tells whether who asks may change what the club plans and keeps.
func (r *Request) Coach() bool { return r.May(planner.ToPlan) && r.May(planner.ToKeep) }

// Medical tells whether who asks makes rulings.
func (r *Request) Medical() bool { return r.May(planner.ToRule) }

// Live tells open pages what is new.
func (r *Request) Live() *live.Hub { return r.shell.Live }

// Say has something said on the next page.
func (r *Request) Say(what string) { r.shell.sessions.Put(r.Context(), saidKey, what) }

// Origin is how others reach the site, such as https://cue.example.
func (r *Request) Origin() string {
	switch {
	case r.shell.URL != "":
		return strings.TrimSuffix(r.shell.URL, "/")
	case r.shell.Secure:
		return "https://" + r.gin.Request.Host
	}
	return "http://" + r.gin.Request.Host
}

// Demo tells whether the site is a demo, whose letters are shown.
func (r *Request) Demo() bool { return r.shell.Outbox }

// Unlisted keeps the answer out of what search engines list.
func (r *Request) Unlisted() { r.gin.Header("X-Robots-Tag", "noindex") }

// send offers a file to be saved.
func (r *Request) send(name, kind string, write func(io.Writer) error) {
	r.gin.Header("Content-Disposition", `attachment; filename="`+name+`"`)
	r.gin.Header("Content-Type", kind)
	r.gin.Status(http.StatusOK)
	if err := write(r.gin.Writer); err != nil {
		r.shell.Log.Error("a file was not sent whole", "name", name, "error", err)
	}
}
