package shell

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"

	"github.com/klauspost/compress/gzhttp"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// Answer is what is sent back: a [Page], [Go], a [File] or a [Refusal].
type Answer interface{ write(*Request) }

// Go leads to a path of this site.
type Go string

func (to Go) write(r *Request) { r.gin.Redirect(http.StatusSeeOther, SafePath(string(to))) }

// Resend leads to a path of this site, and takes the form that was sent along.
type Resend string

func (to Resend) write(r *Request) {
	r.gin.Redirect(http.StatusTemporaryRedirect, SafePath(string(to)))
}

// File offers a file to be saved.
type File struct {
	Name, Kind string // Kind is its media type
	Write      func(io.Writer) error
}

// Raw is a file that the page itself takes, or that another program opens by its address.
type Raw struct {
	Kind    string // its media type
	Content []byte
	Core    bool // it is the script that runs the core, compiled for the browser
}

func (f Raw) write(r *Request) {
	if f.Core {
		r.gin.Header("Content-Security-Policy",
			"default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'")
	}
	r.gin.Data(http.StatusOK, f.Kind, f.Content)
}

// Sentence is what a page's script shows as it is: why something was not done.
type Sentence struct {
	Status int
	Line   string
}

func (s Sentence) write(r *Request) { r.gin.String(s.Status, "%s", r.Speaks().Told(s.Line)) }

// Done is what a page's script gets where nothing is to be shown.
type Done struct{}

func (Done) write(r *Request) { r.gin.Status(http.StatusNoContent) }

// Stream tells an open page what is new, until the page is gone: server-sent events. Run
// sends them.
type Stream struct {
	Run func(ctx context.Context, send func(event, data string) error) error
}

// sendWithin is how long an event may take to leave: whoever takes longer is gone.
const sendWithin = 10 * time.Second

func (s Stream) write(r *Request) {
	h := r.gin.Writer.Header()
	h.Set("Content-Type", "text/event-stream")
	h.Set("X-Accel-Buffering", "no")
	h.Set(gzhttp.HeaderNoCompression, "yes") // it would hold events back, and memory for each page
	r.gin.Status(http.StatusOK)
	if r.gin.Request.Method == http.MethodHead {
		return
	}
	out := http.NewResponseController(r.gin.Writer)
	err := out.SetReadDeadline(time.Time{}) // nothing more is read: the page only listens
	if err != nil {
		r.shell.Log.Debug("a page cannot listen for long", "error", err)
	}
	err = s.Run(r.Context(), func(event, data string) error {
		err := out.SetWriteDeadline(time.Now().Add(sendWithin))
		if err == nil {
			_, err = fmt.Fprintf(r.gin.Writer, "event: %s\ndata: %s\n\n", event,
				strings.ReplaceAll(data, "\n", "\ndata: "))
		}
		return errors.Join(err, out.Flush())
	})
	if err != nil && r.Context().Err() == nil {
		r.shell.Log.Debug("a page went away", "error", err)
	}
}

// Media types of files.
const (
	CSV      = "text/csv; charset=utf-8"
	JSON     = "application/json"
	PDF      = "application/pdf"
	SVG      = "image/svg+xml"
	JPEG     = "image/jpeg"
	Calendar = "text/calendar; charset=utf-8"
)

func (f File) write(r *Request) { r.send(f.Name, f.Kind, f.Write) }

// Refusal is a page that says one thing. It is an error too, so that it can be
// returned in place of what was asked for.
type Refusal struct {
	Status        int
	Heading, Line string
}

func (f Refusal) Error() string { return f.Heading }

// saysHeader marks an answer that is a sentence for the page that asked in the background.
const saysHeader = "X-Says"

func (f Refusal) write(r *Request) {
	if r.Header(partHeader) != "" {
		r.gin.Header(saysHeader, "yes")
		Sentence{f.Status, f.Heading + ": " + f.Line}.write(r)
		return
	}
	(&Page{Screens: own, Name: "plain", Title: f.Heading, Status: f.Status, Body: f}).write(r)
}

// Problems reads an error of a form: its sentences, or nil if it is none.
func Problems(err error) plan.Problems {
	var found plan.Problems
	var contested *boards.Contested
	switch {
	case errors.As(err, &found):
		return found
	case errors.As(err, &contested):
		return plan.Problems{{Where: "board", What: contested.Error() + " It was not saved."}}
	case errors.Is(err, plan.ErrNoSuchBlock):
		return plan.Problems{{Where: "board", What: "This block is no longer in the plan."}}
	case errors.Is(err, planner.ErrNothing):
		return plan.Problems{{Where: "board", What: "There is nothing more to undo or redo."}}
	case errors.Is(err, planner.ErrTaken):
		return plan.Problems{{Where: "taken", What: "Another one has this name or number already."}}
	case errors.Is(err, planner.ErrStale):
		return plan.Problems{{Where: "stale",
			What: "Somebody else has just changed this. Open it again to see how it is now; your change was not " +
				"saved."}}
	}
	return nil
}

// Changed answers a form that changes something: with done where there is no
// error, with the form again and what is wrong with it where it was refused, and
// else with the error. A refusal is 422, what somebody else's change is the cause
// of 409.
func (r *Request) Changed(err error, done Answer, again func(wrong plan.Problems) (*Page, error)) (Answer, error) {
	if err == nil {
		return done, nil
	}
	wrong := Problems(err)
	if wrong == nil {
		return nil, err
	}
	status := http.StatusUnprocessableEntity
	if contested := (*boards.Contested)(nil); errors.As(err, &contested) || errors.Is(err, planner.ErrTaken) ||
		errors.Is(err, planner.ErrStale) || errors.Is(err, planner.ErrNothing) {
		status = http.StatusConflict
	}
	page, err := again(wrong)
	if err != nil {
		return nil, err
	}
	page.Status, page.wrong = status, wrong
	return page, nil
}

// Saved is [Request.Changed] for what the club keeps: it is said, and leads on to
// next.
func (r *Request) Saved(err error, said, next string, again func(wrong plan.Problems) (*Page, error)) (Answer, error) {
	if err == nil {
		r.Say(said)
	}
	return r.Changed(err, Go(next), again)
}

// Gone is a form that cannot be shown again, for [Request.Saved].
func Gone(wrong plan.Problems) (*Page, error) {
	return nil, Refusal{http.StatusConflict, "That was not saved", wrong[0].What}
}
