package plan

import (
	"errors"
	"fmt"
	"time"

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
	was, known := d.opens()
	d.Start = start
	d.arrive(was, known)
	return fmt.Sprintf("%s at %s", d.StartName, at.Format("15:04, Mon 2 Jan")), nil
}

// opens is the moment from which work may begin; false where that cannot be told.
func (h *Hours) opens() (time.Time, bool) {
	start, err := h.Start.Resolve()
	if err != nil {
		return start, false
	}
	open, err := h.Open.Offset(start)
	return start.Add(time.Duration(open) * time.Second), err == nil
}

// arrive lets late players come when they come, where the opening was another.
func (d *Document) arrive(was time.Time, known bool) {
	is, still := d.opens()
	if !known || !still {
		return
	}
	for i := range d.Players {
		if p := &d.Players[i]; p.Late > 0 {
			p.Late = min(max(0, p.Late+int(was.Sub(is)/time.Second)), MaxLate)
		}
	}
}

// Arrival is when a player comes, on the venue's clock; "" where they are in time.
func (h *Hours) Arrival(p *Player) string {
	opens, known := h.opens()
	if p.Late == 0 || !known {
		return ""
	}
	return opens.Add(time.Duration(p.Late) * time.Second).Format("15:04")
}

// SetArrival says at what time on the clock, 14:05, a player comes; "": in time.
func (d *Document) SetArrival(player, at string) (string, error) {
	opens, known := d.opens()
	if at == "" || !known {
		return d.SetLate(player, 0)
	}
	start, err := d.Start.Resolve()
	if err != nil {
		return "", In("players", "%s", err)
	}
	offset, err := clock.AtClock(at).Offset(start)
	if err != nil {
		return "", In("players", "%s", err)
	}
	arrives := start.Add(time.Duration(offset) * time.Second)
	return d.SetLate(player, max(0, int(arrives.Sub(opens)/time.Second)))
}

// SetMargin sets the seconds before the start at which work ends.
func (h *Hours) SetMargin(seconds int) (string, error) {
	if seconds < 0 || seconds > 3600 {
		return "", In("margin", "the margin lies between 0 and 60 minutes")
	}
	h.Margin = seconds
	return "done " + clock.Lasting(seconds) + " before", nil
}

// MostSlack is how much sooner than it has to be work may be planned to end, in seconds.
const MostSlack = 1800

// SetSlack plans work to end so many seconds before it has to.
func (h *Hours) SetSlack(seconds int) (string, error) {
	if seconds < 0 || seconds > MostSlack {
		return "", In("margin", "slack lies between 0 and %d minutes", MostSlack/60)
	}
	h.Slack = seconds
	if seconds == 0 {
		return "no slack", nil
	}
	return clock.Lasting(seconds) + " of slack", nil
}

// HeadFields is what a coach says of a session as a whole.
type HeadFields struct {
	Title, Place, StartName, Method string
	Open                            clock.Moment
}

// SetHead changes what is said of the session as a whole. Blocks of a phase that the new method
// lacks are refused rather than lost.
func (d *Document) SetHead(to HeadFields) (string, error) {
	next := *d
	next.Title, next.Place, next.StartName, next.Method, next.Open = to.Title, to.Place, to.StartName, to.Method,
		to.Open
	if problem := NameProblem(to.StartName); problem != "" {
		return "", In("start_name", "%s", problem)
	}
	if len([]rune(to.Place)) > MaxName {
		return "", In("place", "keep it to %d characters", MaxName)
	}
	if err := next.Validate(); err != nil {
		return "", err
	}
	was, known := d.opens()
	*d = next
	d.arrive(was, known)
	return "the session's name, place, method or opening", nil
}

// SetSpare lets doses go up to their maximum where minutes are left, or not.
func (h *Hours) SetSpare(use bool) (string, error) {
	h.UseSpare = use
	if use {
		return "spare minutes used", nil
	}
	return "spare minutes left free", nil
}
