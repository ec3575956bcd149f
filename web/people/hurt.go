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
func hurtOf(r *shell.Request, player uint64) ([]shell.HurtRow, error) {
	list, err := r.Planner.Keep.HurtOf(r.Context(), r.By, player)
	return shell.HurtRows(r, list), err
}

// hurt puts who is hurt and was not answered at the head of the page.
func (b *squadBody) hurt(r *shell.Request) error {
	list, err := r.Planner.Keep.OpenHurt(r.Context(), r.By)
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
func Hurt(r *shell.Request) (shell.Answer, error) { return hurtPage(r, nil) }

func hurtPage(r *shell.Request, wrong plan.Problems) (*shell.Page, error) {
	h, err := r.Planner.Keep.HurtRead(r.Context(), r.By, r.ParamID("id"))
	if err != nil {
		return nil, err
	}
	mayAnswer := r.Planner.Keep.MayAnswer(r.Context(), r.By)
	if mayAnswer != nil && !errors.Is(mayAnswer, planner.ErrForbidden) {
		return nil, mayAnswer
	}
	today := r.Planner.Now().In(h.Pressed.Location()).Format(time.DateOnly)
	b := hurtBody{Hurt: h, Row: shell.HurtRows(r, []keep.Hurt{h})[0], Answers: mayAnswer == nil && h.Answer == "", Staff: r.Medical(), Head: h.Kind == keep.HurtHead, Problems: wrong}
	b.Again = !b.Head || h.Pressed.Format(time.DateOnly) != today
	squad, err := r.Planner.Keep.SquadOf(r.Context(), r.Club(), h.Roster)
	if err != nil {
		return nil, err
	}
	if squad != 0 && r.Medical() {
		b.Rule = shell.Squad(squad, "ruling", h.Roster)
	}
	return &shell.Page{Screens: screens, Name: "hurt", Title: h.Name, Nav: "squad", Body: b}, nil
}

// AnswerHurt keeps what is answered.
func AnswerHurt(r *shell.Request) (shell.Answer, error) {
	err := r.Planner.Keep.AnswerHurt(r.Context(), r.By, r.ParamID("id"), r.Form.Raw("answer"))
	if errors.Is(err, planner.ErrStale) {
		err = plan.In("answer", "Somebody has answered already: see below.")
	}
	return r.Saved(err, "Answered. Who runs the session sees it", "/today", func(wrong plan.Problems) (*shell.Page, error) { return hurtPage(r, wrong) })
}
