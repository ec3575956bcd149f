package shell

import (
	"errors"
	"io"
	"net/http"

	"cuestart/core/plan"
	"cuestart/planner"
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

// Media types of files.
const (
	CSV  = "text/csv; charset=utf-8"
	JSON = "application/json"
)

func (f File) write(r *Request) { r.send(f.Name, f.Kind, f.Write) }

// Refusal is a page that says one thing. It is an error too, so that it can be
// returned in place of what was asked for.
type Refusal struct {
	Status        int
	Heading, Line string
}

func (f Refusal) Error() string { return f.Heading }

func (f Refusal) write(r *Request) {
	(&Page{Screens: own, Name: "plain", Title: f.Heading, Status: f.Status, Body: f}).write(r)
}

// Problems reads an error of a form: its sentences, or nil if it is none.
func Problems(err error) plan.Problems {
	var found plan.Problems
	switch {
	case errors.As(err, &found):
		return found
	case errors.Is(err, plan.ErrNoSuchBlock):
		return plan.Problems{{Where: "board", What: "This block is no longer in the plan."}}
	case errors.Is(err, planner.ErrNothing):
		return plan.Problems{{Where: "board", What: "There is nothing more to undo or redo."}}
	case errors.Is(err, planner.ErrTaken):
		return plan.Problems{{Where: "taken", What: "Another one has this name or number already."}}
	case errors.Is(err, planner.ErrStale):
		return plan.Problems{{Where: "stale", What: "Somebody else has just changed this. Open it again to see how it is now; your change was not saved."}}
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
	if errors.Is(err, planner.ErrTaken) || errors.Is(err, planner.ErrStale) || errors.Is(err, planner.ErrNothing) {
		status = http.StatusConflict
	}
	page, err := again(wrong)
	if err != nil {
		return nil, err
	}
	page.Status = status
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
