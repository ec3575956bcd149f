package shell

import (
	"context"
	"errors"
	"io"
	"mime/multipart"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/planner"
)

// Request is one question to the site: who asks, for which club, with which form.
type Request struct {
	Planner *planner.Planner
	By      planner.Account // who is signed in; zero where nobody is
	Form    *Form           // what was sent
	TooMany bool            // guessing is slowed down: see [Routes.Slowed]

	shell *Shell
	gin   *gin.Context
}

// errSignedOut sends to the sign-in.
var errSignedOut = errors.New("nobody is signed in")

// mustBeSignedIn finds who is signed in, and fails where nobody is.
func (r *Request) mustBeSignedIn() error {
	ctx := r.Context()
	if id := r.shell.sessions.GetInt64(ctx, accountKey); id > 0 {
		found, err := r.Planner.Account(ctx, uint64(id))
		if !errors.Is(err, planner.ErrNotFound) {
			r.By = found
			return err
		}
	}
	if r.gin.Request.Method == http.MethodGet {
		r.shell.sessions.Put(ctx, backKey, r.gin.Request.URL.RequestURI())
	}
	return errSignedOut
}

// Context ends when who asks has gone away.
func (r *Request) Context() context.Context { return r.gin.Request.Context() }

// Club is the id of the club that asks.
func (r *Request) Club() uint64 { return r.By.ClubID }

// Coach tells whether who asks may change what the club keeps.
func (r *Request) Coach() bool { return r.By.ID != 0 && r.By.Role != planner.Medical }

// Medical tells whether who asks makes rulings.
func (r *Request) Medical() bool { return r.By.Role == planner.Medical }

// Param is a part of the path, by its name there.
func (r *Request) Param(name string) string { return r.gin.Param(name) }

// ParamID is a part of the path that is an id; 0, which nothing has, if it is none.
func (r *Request) ParamID(name string) uint64 { return readID(r.gin.Param(name)) }

// Query is what the address asks for, "" where it does not say.
func (r *Request) Query(name string) string { return r.gin.Query(name) }

// QueryID is what the address asks for as an id; 0, which nothing has, if it is none.
func (r *Request) QueryID(name string) uint64 { return readID(r.gin.Query(name)) }

// Asked is everything that the address asks for.
func (r *Request) Asked() url.Values { return r.gin.Request.URL.Query() }

// Wants tells whether the page's script asks for that part of it alone.
func (r *Request) Wants(part string) bool { return part != "" && r.gin.GetHeader(partHeader) == part }

// partHeader names a part of a page, in a question and in its answer.
const partHeader = "X-Part"

// Header is what the page's script says under a name, or "".
func (r *Request) Header(name string) string { return r.gin.GetHeader(name) }

// Cookie is what the browser keeps under a name, or "".
func (r *Request) Cookie(name string) string {
	value, _ := r.gin.Cookie(name)
	return value
}

// File is a file of the form.
func (r *Request) File(name string) (*multipart.FileHeader, error) { return r.gin.FormFile(name) }

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

// Unlisted keeps the answer out of what search engines list.
func (r *Request) Unlisted() { r.gin.Header("X-Robots-Tag", "noindex") }

// readID reads an id; 0, which nothing has, if it is none.
func readID(text string) uint64 {
	n, _ := strconv.ParseUint(text, 10, 64)
	return n
}

// send offers a file to be saved.
func (r *Request) send(name, kind string, write func(io.Writer) error) {
	r.gin.Header("Content-Disposition", `attachment; filename="`+name+`"`)
	r.gin.Header("Content-Type", kind)
	r.gin.Status(http.StatusOK)
	if err := write(r.gin.Writer); err != nil {
		r.shell.Log.Error("a file was not sent whole", "name", name, "error", err)
	}
}
