package board

import (
	"cmp"
	"encoding/json"
	"errors"
	"strings"

	"cuestart/planner/boards"
	"cuestart/web/shell"
)

// clash is a change of what somebody else changed meanwhile: it can be made all the same.
type clash struct {
	Names, By, Did, Mine string
	To                   string // where the change is sent again
	Fields               []shell.Choice
}

// clashOf is the clash that an error tells of, or nil.
func clashOf(r *shell.Request, err error) *clash {
	var contested *boards.Contested
	if !errors.As(err, &contested) {
		return nil
	}
	c := &clash{Names: strings.Join(contested.Names, ", "), By: cmp.Or(contested.By, "Somebody else"),
		Did: contested.Did, Mine: contested.Mine,
		To: r.Path()}
	for _, name := range r.Form.Names() {
		for _, value := range r.Form.List(name) {
			c.Fields = append(c.Fields, shell.Choice{Value: value, Label: name})
		}
	}
	return c
}

// said is what an open board is told of the plan in force.
type said struct {
	Revision uint32 `json:"revision"`
	Says     string `json:"says"` // who did what; "": it was who looks
}

// tellPlan tells an open board which plan is in force, where it is another than it was told.
func (in Room) tellPlan(r *shell.Request, had uint32, send func(event, data string) error) (uint32, error) {
	revision, made, err := in.Boards.InForce(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil || revision == had {
		return had, err
	}
	is := said{Revision: revision}
	if made.Account != r.By.ID {
		is.Says = cmp.Or(made.By, "Somebody else") + ": " + made.Summary
	}
	text, err := json.Marshal(is)
	if err != nil {
		return had, err
	}
	return revision, send("plan", string(text))
}
