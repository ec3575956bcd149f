package phone

import (
	"strings"

	"cuestart/core/clock"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/planner/reach"
	"cuestart/web/shell"
)

// laterBody is a list with a line of its own, as a player has it: after the end, at
// half-time, on the bench.
type laterBody struct {
	shell.Tongue
	Name, Line, Lasts, When string
	Link                    string // to go through it step by step
	Items                   []item
}

// laterOf writes a player's lists; "" where they have none.
func (in Room) laterOf(r *shell.Request, tongue shell.Tongue, found *reach.Shared) (string, error) {
	var all strings.Builder
	lines := schedule.Lists(found.Document)
	for i := range lines {
		l := &lines[i]
		body := laterBody{Tongue: tongue, Name: l.Name, Line: l.Line, Link: base(way(r)) + "?list=" + l.ID}
		items, seconds, err := in.laterItems(r, tongue, found, l)
		if err != nil {
			return "", err
		}
		if len(items) == 0 {
			continue
		}
		body.Items, body.Lasts, body.When = items, clock.Lasting(seconds), whenLater(tongue, l)
		all.WriteString(strings.Join(strings.Fields(screens.Render("mine", "later", body)), " "))
	}
	return all.String(), nil
}

// whenLater says when a list is done.
func whenLater(tongue shell.Tongue, l *schedule.Line) string {
	switch {
	case l.When == plan.AtBreak:
		return tongue.T("done %s before: %s", clock.Lasting(l.Margin), l.Line)
	case l.When == plan.OnBench && l.Every > 0:
		return tongue.T("every %d min of play", l.Every)
	case l.When == plan.OnBench:
		return tongue.T("while you wait")
	}
	return tongue.T("from: %s", l.Line)
}

// laterItems are a player's blocks of a list, and how long they last.
func (in Room) laterItems(r *shell.Request, tongue shell.Tongue, found *reach.Shared,
	l *schedule.Line) (items []item, seconds int, err error) {
	entries := list.Of(l.Document, l.Schedule, found.Person)
	for i := range entries {
		one, err := in.itemOf(r, tongue, l.Document, &entries[i], found.ClubID)
		if err != nil {
			return nil, 0, err
		}
		one.ToGo = clock.Duration(int(entries[i].From))
		if !l.Forward() {
			one.ToGo = entries[i].From.ToGo()
		}
		items, seconds = append(items, one), seconds+one.Seconds
	}
	return items, seconds, nil
}

// laterAlone is a list step by step, at a player's own pace.
func (in Room) laterAlone(r *shell.Request, tongue shell.Tongue, found *reach.Shared, id string) (shell.Answer, error) {
	lines := schedule.Lists(found.Document)
	for i := range lines {
		l := &lines[i]
		if l.ID != id {
			continue
		}
		items, _, err := in.laterItems(r, tongue, found, l)
		if err != nil {
			return nil, err
		}
		for n := range items {
			items[n].ToGo, items[n].State = clock.Lasting(items[n].Seconds), "now"
		}
		p := found.Document.Player(found.Person)
		b := &mineBody{Tongue: tongue, Base: base(way(r)), Back: base(way(r)), Own: true, Name: l.Name,
			Title:     p.ShortName() + ", " + found.Document.Title,
			StartName: l.Line, NowMilli: r.Now().UnixMilli(), Items: items}
		return &shell.Page{Screens: screens, Name: "mine", Title: l.Name, Body: b, Phone: true, Tongue: tongue}, nil
	}
	return nil, planner.ErrNotFound
}
