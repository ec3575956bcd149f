package phone

import (
	"cmp"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"cuestart/core/list"
	"cuestart/planner"
	"cuestart/planner/reach"
	"cuestart/share"
	"cuestart/web/shell"
)

// Calendar is what a link shows as a calendar, to take in once or to subscribe to.
func (in Room) Calendar(r *shell.Request) (shell.Answer, error) {
	r.Unlisted()
	feed, err := in.Reach.Feed(r.Context(), way(r))
	if errors.Is(err, planner.ErrNotFound) {
		return nil, shell.Refusal{Status: http.StatusNotFound, Heading: "This link shows nothing",
			Line: "It is not whole, or no longer good. Ask your coach for the link again."}
	} else if err != nil {
		return nil, err
	}
	tongue := r.Tongue()
	var all []share.Appointment
	for _, found := range feed {
		if a := appointment(tongue, found); a != nil {
			a.URL = r.Origin() + base(way(r))
			all = append(all, *a)
		}
	}
	return shell.Raw{Kind: shell.Calendar, Content: []byte(share.WriteAgenda(tongue.T("Run-in"), all))}, nil
}

// appointment is what a person has of a session; nil where they are not in it.
func appointment(tongue shell.Tongue, found *reach.Shared) *share.Appointment {
	d, start := found.Document, found.Schedule.Start
	var entries []list.Entry
	switch p := d.Player(found.Person); {
	case p != nil:
		entries = list.Of(d, found.Schedule, p.ID)
	case found.Leader() != nil:
		entries = list.Led(d, found.Schedule, found.Leader().ID)
	case found.Person == "":
		entries = list.All(d, found.Schedule)
	}
	if len(entries) == 0 {
		return nil
	}
	made := share.Appointed(d, start, entries)
	made.UID = fmt.Sprintf("session-%d-%s@cuestart", found.Session, cmp.Or(found.Person, "all"))
	made.Sequence, made.Cancelled, made.Made = found.Number, found.Removed, found.At
	if carry := list.Carry(entries); found.Person != "" && len(carry) > 0 && found.Leader() == nil {
		made.Description += "\n" + tongue.T("Carry out:") + " " + strings.Join(carry, ", ")
	}
	return &made
}
