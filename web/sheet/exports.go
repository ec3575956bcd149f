package sheet

import (
	"fmt"
	"io"
	"net/http"

	"cuestart/core/list"
	"cuestart/share"
	"cuestart/web/shell"
)

// SavePlan saves a session's plan as JSON.
func (in Room) SavePlan(r *shell.Request) (shell.Answer, error) {
	d, err := in.Boards.Document(r.Context(), r.Club(), r.ParamID("session"))
	return shell.File{Name: "plan.json", Kind: shell.JSON, Write: func(w io.Writer) error {
		return share.WriteJSON(w, d)
	}}, err
}

// SaveCalendar saves a session's plan for a calendar: what it is now, published or not.
func (in Room) SaveCalendar(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	entries := list.All(b.Document, b.Schedule)
	if len(entries) == 0 {
		return nil, shell.Refusal{Status: http.StatusNotFound, Heading: "Nothing is planned yet",
			Line: "Put a block into the plan first."}
	}
	a := share.Appointed(b.Document, b.Schedule.Start, entries)
	a.UID, a.Sequence, a.Made = fmt.Sprintf("session-%d-staff@cuestart", b.ID), int(b.Head), b.Made.At
	return shell.File{Name: "run-in.ics", Kind: shell.Calendar, Write: func(w io.Writer) error {
		_, err := io.WriteString(w, share.WriteAgenda("Run-in", []share.Appointment{a}))
		return err
	}}, nil
}

// SaveSheet saves a session's plan as CSV, a line a drill.
func (in Room) SaveSheet(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	return shell.File{Name: "run-in.csv", Kind: shell.CSV, Write: func(w io.Writer) error {
		return share.WriteList(w, b.Document, b.Schedule)
	}}, nil
}
