package people

import (
	"cuestart/core/plan"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

// namesForm is where names are pasted, with what could not be read of those before.
type namesForm struct {
	Text    string
	Said    string   // what was read
	Wrong   []string // what was not, a sentence each
	Example string
}

// TakeNames puts pasted names into a squad. Lines that nobody was read from are shown again.
func (in Room) TakeNames(r *shell.Request) (shell.Answer, error) {
	squad, err := in.squadOf(r)
	if err != nil {
		return nil, err
	}
	text := r.Form.Raw("names")
	took, err := in.Keep.TakeNames(r.Context(), r.By, squad, text)
	if err == nil && len(took.Problems) > 0 {
		if squad, err = in.squadOf(r); err != nil {
			return nil, err
		}
		return in.squadPage(r, squad, nil, func(b *squadBody) {
			b.Names = &namesForm{Text: took.Left, Said: took.Words(), Wrong: took.Problems}
		})
	}
	next := shell.Squad(squad.ID)
	if r.Form.Raw("back") == "today" && len(squad.Players) == 0 {
		next = "/today"
		if again, err := in.squadOf(r); err == nil && in.asks(r, again) {
			next = shell.Squad(squad.ID) // where it asks what they play
		}
	}
	return r.Saved(err, took.Words(), next, func(wrong plan.Problems) (*shell.Page, error) {
		return in.squadPage(r, squad, wrong, func(b *squadBody) { b.Names = &namesForm{Text: text} })
	})
}

// AnswerPosition keeps what a position is that the sport did not have.
func (in Room) AnswerPosition(r *shell.Request) (shell.Answer, error) {
	squad, err := in.squadOf(r)
	if err != nil {
		return nil, err
	}
	said, as := r.Form.Raw("said"), r.Form.Raw("as")
	err = in.Keep.AnswerPosition(r.Context(), r.By, squad, said, as)
	word := said + " is a position of yours now"
	if as != "" {
		word = said + " is " + as
	}
	return r.Saved(err, word, shell.Squad(squad.ID), func(wrong plan.Problems) (*shell.Page, error) {
		return in.squadPage(r, squad, wrong, nil)
	})
}

// asks tells whether there are positions of a squad to ask about.
func (in Room) asks(r *shell.Request, squad *keep.Squad) bool {
	plays, err := in.Books.Sport(r.Context(), r.Club())
	return err == nil && len(squad.AskPositions(plays)) > 0
}
