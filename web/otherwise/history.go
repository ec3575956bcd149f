package otherwise

import (
	"cmp"
	"fmt"

	"cuestart/core/plan"
	"cuestart/planner/boards"
	"cuestart/web/shell"
)

// history is what was changed in a plan, when and by whom.
type history struct {
	ID       uint64
	Title    string
	Revision uint32
	Edits    bool
	Steps    []historyStep
}

type historyStep struct {
	boards.Step
	When string
	Now  bool   // the plan in force
	Open bool   // it is looked at
	Else string // what the plan in force has otherwise
}

// To is the address of something under the session.
func (h *history) To(under ...string) string { return shell.Session(h.ID, under...) }

// History is the page.
func (in Room) History(r *shell.Request) (shell.Answer, error) { return in.historyPage(r) }

func (in Room) historyPage(r *shell.Request) (*shell.Page, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	steps, err := in.Boards.History(r.Context(), r.Club(), b.ID)
	if err != nil {
		return nil, err
	}
	h := &history{ID: b.ID, Title: b.Document.Title, Revision: b.Revision, Edits: r.Coach()}
	look := r.QueryCount("look")
	for _, s := range steps {
		step := historyStep{Step: s, When: s.At.In(b.Schedule.Start.Location()).Format("Mon 2 Jan 15:04"),
			Now: s.Number == int(b.Head), Open: s.Number == look}
		step.By = cmp.Or(step.By, "Cue Start")
		if step.Open {
			if step.Else, err = in.Boards.Since(r.Context(), r.Club(), b.ID, s.Number); err != nil {
				return nil, err
			}
		}
		h.Steps = append(h.Steps, step)
	}
	return &shell.Page{Screens: screens, Name: "history", Title: h.Title + ", what changed", Nav: "runin", Body: h}, nil
}

// GoBack brings the plan back to how it was after a step.
func (in Room) GoBack(r *shell.Request) (shell.Answer, error) {
	step := r.Form.Int("step", 1, 1<<30)
	err := r.Form.Err()
	if err == nil {
		_, err = in.Boards.GoBack(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"), step,
			fmt.Sprintf("back to step %d", step))
	}
	return r.Changed(err, shell.Go(shell.Session(r.ParamID("session"))),
		func(plan.Problems) (*shell.Page, error) { return in.historyPage(r) })
}
