package plan

import (
	"errors"
	"fmt"

	"cuestart/core/clock"
)

// An edit changes a document in place and returns what it did, in a few words
// that name it when it is undone. On an error the document is unchanged.

// ErrNoSuchBlock is returned by edits of a block that the plan does not have.
var ErrNoSuchBlock = errors.New("this block is no longer in the plan")

// SetStart moves the start.
func (d *Document) SetStart(start clock.Start) (string, error) {
	at, err := start.Resolve()
	if err != nil {
		return "", In("start", "%s", err)
	}
	d.Start = start
	return fmt.Sprintf("%s at %s", d.StartName, at.Format("15:04, Mon 2 Jan")), nil
}

// SetMargin sets the seconds before the start at which work ends.
func (d *Document) SetMargin(seconds int) (string, error) {
	if seconds < 0 || seconds > 3600 {
		return "", In("margin", "the margin lies between 0 and 60 minutes")
	}
	d.Margin = seconds
	return "done " + clock.Lasting(seconds) + " before", nil
}

// HeadFields is what a coach says of a session as a whole.
type HeadFields struct {
	Title, Place, StartName, Method string
	Open                            clock.Moment
}

// SetHead changes what is said of the session as a whole. Blocks of a phase
// that the new method lacks are refused rather than lost.
func (d *Document) SetHead(to HeadFields) (string, error) {
	next := *d
	next.Title, next.Place, next.StartName, next.Method, next.Open = to.Title, to.Place, to.StartName, to.Method, to.Open
	if problem := NameProblem(to.StartName); problem != "" {
		return "", In("start_name", "%s", problem)
	}
	if len([]rune(to.Place)) > MaxName {
		return "", In("place", "keep it to %d characters", MaxName)
	}
	if err := next.Validate(); err != nil {
		return "", err
	}
	*d = next
	return "the session's name, place, method or opening", nil
}

// SetSpare lets doses go up to their maximum where minutes are left, or not.
func (d *Document) SetSpare(use bool) (string, error) {
	d.UseSpare = use
	if use {
		return "spare minutes used", nil
	}
	return "spare minutes left free", nil
}
