// Package phone is what a link shows: who are you, a player's own run-in, a leader's
// page, the wall of the dressing room; and what is said from there.
package phone

import (
	"embed"
	"errors"
	"fmt"
	"html/template"
	"net/http"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/reach"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

// What a part of a page is made from, where that is more than one thing.
type (
	moveOn struct {
		On shell.Tongue
		Is move
	}
	ledOn struct {
		Simple bool
		Is     led
	}
	toldOn struct {
		Simple bool
		On     led
		Is     told
	}
)

var screens = shell.Parse(files, template.FuncMap{
	"on":   func(on shell.Tongue, is move) moveOn { return moveOn{on, is} },
	"lead": func(simple bool, is led) ledOn { return ledOn{simple, is} },
	"tell": func(simple bool, on led, is told) toldOn { return toldOn{simple, on, is} },
})

// squadBody lets a player find their own list.
type squadBody struct {
	shell.Tongue
	Title, Day, StartName, Start string
	Token                        string
	Players                      []entry
}

type entry struct{ ID, Name, Number string }

// way is how the address of a request comes to what is shared.
func way(r *shell.Request) reach.Way {
	w := reach.Way{Token: r.Param("token"), Person: r.Param("player"), Key: r.Param("key")}
	if leader := r.Param("leader"); leader != "" {
		w.Person = reach.LeaderMark + leader
	}
	return w
}

// base is the address of a way.
func base(w reach.Way) string {
	path := shell.Link(w.Token)
	for _, part := range []string{w.Person, w.Key} {
		if part != "" {
			path += "/" + part
		}
	}
	return path
}

// shared finds what a link shows. A wrong, an old and a guessed one are told apart by
// nothing.
func (in Room) shared(r *shell.Request) (*reach.Shared, error) {
	r.Unlisted()
	found, err := in.Reach.Shared(r.Context(), way(r))
	if errors.Is(err, planner.ErrNotFound) {
		return nil, shell.Refusal{Status: http.StatusNotFound, Heading: "This link shows nothing",
			Line: "It is not whole, or no longer good. Ask your coach for the link again."}
	}
	return found, err
}

// Squad asks who is there.
func (in Room) Squad(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	tongue := r.Tongue()
	d, start := found.Document, found.Schedule.Start
	b := squadBody{Tongue: tongue, Title: d.Title, Day: tongue.Day(start), StartName: d.StartName,
		Start: clock.Clock(start, 0), Token: r.Param("token")}
	for _, p := range d.Players {
		b.Players = append(b.Players, entry{p.ID, p.ShortName(), number(&p)})
	}
	return &shell.Page{Screens: screens, Name: "squad", Title: d.Title, Body: b, Phone: true, Tongue: tongue}, nil
}

// number is a player's shirt number, or "".
func number(p *plan.Player) string {
	if p.Number == 0 {
		return ""
	}
	return fmt.Sprint(p.Number)
}
