package board

import (
	"cuestart/planner"
	"cuestart/web/shell"
)

// linksBody is the ways in that a session's link gives.
type linksBody struct {
	ID          uint64
	Title       string
	Publication planner.Publication
	Link        string // the team's; "": there is none
	Own         []ownLink
	Edits       bool
}

type ownLink struct {
	Name, Link string
	Ruled      bool
}

// To is the address of something under the session.
func (b linksBody) To(under ...string) string { return shell.Session(b.ID, under...) }

// Links are the team's link and each player's own.
func Links(r *shell.Request) (shell.Answer, error) {
	board, err := r.Planner.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	b := linksBody{ID: board.ID, Title: board.Document.Title, Publication: board.Publication, Edits: r.Coach()}
	if board.Publication.Token == "" {
		return linksPage(b), nil
	}
	b.Link = r.Origin() + shell.Link(board.Publication.Token)
	own, err := r.Planner.OwnLinks(r.Context(), board)
	for _, o := range own {
		b.Own = append(b.Own, ownLink{o.Player.Label(), b.Link + o.Path, o.Ruled})
	}
	return linksPage(b), err
}

func linksPage(b linksBody) *shell.Page {
	return &shell.Page{Screens: screens, Name: "links", Title: "Links of " + b.Title, Nav: "runin", Body: b}
}

// SetSeason lets the links stay good after the session, or end a day after it.
func SetSeason(r *shell.Request) (shell.Answer, error) {
	_, err := r.Planner.SetSeason(r.Context(), r.By, r.ParamID("session"), r.Form.Has("season"))
	return shell.Go(shell.Session(r.ParamID("session"), "links")), err
}
