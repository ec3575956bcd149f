package people

import (
	"errors"
	"time"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

// hurtOf lists what a player was hurt by.
func (in Room) hurtOf(r *shell.Request, player uint64) ([]shell.HurtRow, error) {
	list, err := in.Keep.HurtOf(r.Context(), r.By, player)
	return shell.HurtRows(r, list), err
}

// hurt puts who is hurt and was not answered at the head of the page.
func (b *squadBody) hurt(in Room, r *shell.Request) error {
	list, err := in.Keep.OpenHurt(r.Context(), r.By)
	b.Hurt = shell.HurtRows(r, list)
	return err
}

// hurtBody is one of them, to be answered.
type hurtBody struct {
	keep.Hurt
	Row      shell.HurtRow
	Answers  bool // who looks may answer
	Staff    bool // as medical staff; else a coach of a club that has none
	Head     bool // a knock to the head: nobody goes on that day
	Again    bool // it is another day: they may go on
	Rule     string
	Problems plan.Problems
}

// Hurt is what is known of somebody hurt, to be answered. What a player says of their pain is
// there for medical staff alone.
func (in Room) Hurt(r *shell.Request) (shell.Answer, error) { return in.hurtPage(r, nil) }

func (in Room) hurtPage(r *shell.Request, wrong plan.Problems) (*shell.Page, error) {
	h, err := in.Keep.HurtRead(r.Context(), r.By, r.ParamID("id"))
	if err != nil {
		return nil, err
	}
	mayAnswer := in.Keep.MayAnswer(r.Context(), r.By)
	if mayAnswer != nil && !errors.Is(mayAnswer, planner.ErrForbidden) {
		return nil, mayAnswer
	}
	today := r.Now().In(h.Pressed.Location()).Format(time.DateOnly)
	b := hurtBody{Hurt: h, Row: shell.HurtRows(r, []keep.Hurt{h})[0], Answers: mayAnswer == nil && h.Answer == "",
		Staff: r.Medical(), Head: h.Kind == keep.HurtHead, Problems: wrong}
	b.Again = !b.Head || h.Pressed.Format(time.DateOnly) != today
	squad, err := in.Keep.SquadOf(r.Context(), r.Club(), h.Roster)
	if err != nil {
		return nil, err
	}
	if squad != 0 && r.Medical() {
		b.Rule = shell.Squad(squad, "ruling", h.Roster)
	}
	return &shell.Page{Screens: screens, Name: "hurt", Title: h.Name, Nav: "squad", Body: b}, nil
}

// AnswerHurt keeps what is answered.
func (in Room) AnswerHurt(r *shell.Request) (shell.Answer, error) {
	err := in.Keep.AnswerHurt(r.Context(), r.By, r.ParamID("id"), r.Form.Raw("answer"))
	if errors.Is(err, planner.ErrStale) {
		err = plan.In("answer", "Somebody has answered already: see below.")
	}
	return r.Saved(err, "Answered. Who runs the session sees it", "/today",
		func(wrong plan.Problems) (*shell.Page, error) { return in.hurtPage(r, wrong) })
}
