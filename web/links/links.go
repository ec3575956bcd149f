package links

import (
	"fmt"
	"strings"

	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/reach"
	"cuestart/share"
	"cuestart/web/shell"
)

// linksBody is the ways in to a session, and who has come by which.
type linksBody struct {
	ID              uint64
	Title, Sub      string
	Publication     planner.Publication
	Link            string // the team's; "": there is none
	Leaders, People []ownLink
	Edits           bool
	Waits           int // who has not opened the newest
	Nudge           string
	Codes           []code // on the page of codes
	One             bool   // it is held up
}

type ownLink struct {
	Person, Name, Link string // Link "": it is withdrawn
	Ruled, Leader      bool
	Seen               string // which edition they have open, and since when
	Behind             bool   // it is not the newest
}

// ownOn is somebody's link on its page.
type ownOn struct {
	On *linksBody
	Is ownLink
}

// code is a link as a QR code.
type code struct {
	Name string
	share.Code
}

// To is the address of something under the session.
func (b linksBody) To(under ...string) string { return shell.Session(b.ID, under...) }

// Links are the team's link and each person's own, and who has seen what by it.
func (in Room) Links(r *shell.Request) (shell.Answer, error) {
	_, b, err := in.linksOf(r)
	if err != nil {
		return nil, err
	}
	return &shell.Page{Screens: screens, Name: "links", Title: "Links of " + b.Title, Nav: "runin", Body: b}, nil
}

func (in Room) linksOf(r *shell.Request) (*boards.Board, *linksBody, error) {
	board, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, nil, err
	}
	b := &linksBody{ID: board.ID, Title: board.Document.Title,
		Sub:         fmt.Sprintf("%s %s", board.Document.StartName, board.Schedule.Start.Format("Mon 2 Jan 15:04")),
		Publication: board.Publication, Edits: r.Coach()}
	if board.Publication.Token == "" {
		return board, b, nil
	}
	b.Link = r.Origin() + shell.Link(board.Publication.Token)
	players, leaders, err := in.Reach.OwnLinks(r.Context(), board)
	if err != nil {
		return nil, nil, err
	}
	readers, err := in.Reach.Readers(r.Context(), board)
	if err != nil {
		return nil, nil, err
	}
	seen := map[string]reach.Reader{}
	for _, reader := range readers {
		seen[reader.Person] = reader
	}
	own := func(o reach.OwnLink) ownLink {
		link := ownLink{Person: o.Person, Name: o.Name, Ruled: o.Ruled}
		if o.Path != "" {
			link.Link = b.Link + o.Path
		}
		link.Seen, link.Behind = seenWords(board, seen[o.Person])
		if link.Behind {
			b.Waits++
		}
		return link
	}
	for _, o := range leaders {
		leads := own(o)
		leads.Leader = true
		b.Leaders = append(b.Leaders, leads)
	}
	for _, o := range players {
		b.People = append(b.People, own(o))
	}
	b.Nudge = b.nudge(board)
	return board, b, nil
}

// seenWords say what of a session somebody has seen, and whether that is not the newest.
func seenWords(b *boards.Board, s reach.Reader) (words string, behind bool) {
	zone := b.Schedule.Start.Location()
	switch {
	case s.Number == 0:
		return "not opened", true
	case s.Number < b.Publication.Number:
		return fmt.Sprintf("has plan %d", s.Number), true
	}
	words, at := "opened ", s.At
	if !s.Answered.IsZero() {
		words, at = "said OK ", s.Answered
	}
	words += at.In(zone).Format("Mon 15:04")
	if !s.Own {
		words += ", by the team's link"
	}
	return words, false
}

// nudge is a text to send to those who have not opened the newest plan.
func (b *linksBody) nudge(board *boards.Board) string {
	var names []string
	for _, p := range b.People {
		if p.Behind {
			names = append(names, p.Name)
		}
	}
	if len(names) == 0 {
		return ""
	}
	return fmt.Sprintf("%s, %s. Please open the run-in, plan %d: %s\n%s", b.Title, b.Sub, board.Publication.Number,
		b.Link, strings.Join(names, ", "))
}

// SetSeason lets the link go on to the squad's next session, or end a day after this one.
func (in Room) SetSeason(r *shell.Request) (shell.Answer, error) {
	return backToLinks(r, in.Reach.SetSeason(r.Context(), r.By, r.ParamID("session"), r.Form.Has("season")))
}

// Renew gives somebody a new link, or with gone none.
func (in Room) Renew(r *shell.Request) (shell.Answer, error) {
	return backToLinks(r, in.Reach.RenewKey(r.Context(), r.By, r.ParamID("session"), r.Param("person"),
		r.Form.Has("gone")))
}

func backToLinks(r *shell.Request, err error) (shell.Answer, error) {
	return shell.Go(shell.Session(r.ParamID("session"), "links")), err
}

// Codes are the links as QR codes: all of them to print, or with a person that one to
// hold up.
func (in Room) Codes(r *shell.Request) (shell.Answer, error) {
	_, b, err := in.linksOf(r)
	if err != nil {
		return nil, err
	}
	person := r.Query("person")
	b.One = person != ""
	add := func(name, link string) error {
		if link == "" {
			return nil
		}
		made, err := share.QR(link)
		b.Codes = append(b.Codes, code{name, made})
		return err
	}
	if person == "team" || person == "" {
		if err := add("The team", b.Link); err != nil {
			return nil, err
		}
	}
	for _, list := range [][]ownLink{b.Leaders, b.People} {
		for _, p := range list {
			if person == "" || person == p.Person {
				if err := add(p.Name, p.Link); err != nil {
					return nil, err
				}
			}
		}
	}
	return &shell.Page{Screens: screens, Name: "codes", Title: "QR codes of " + b.Title, Nav: "runin", Body: b}, nil
}
