package share

import (
	"bytes"
	"encoding/json"
	"io"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/docs/formats"
)

// ReadPlan reads a plan document by its published schema.
func ReadPlan(file []byte) (*plan.Document, error) {
	d := new(plan.Document)
	if err := formats.Read(bytes.NewReader(file), formats.Plan, d); err != nil {
		return nil, err
	}
	return d, d.Validate()
}

// ReadRoutine reads a routine by its published schema.
func ReadRoutine(file []byte) (r club.Routine, err error) {
	if err := formats.Read(bytes.NewReader(file), formats.Routine, &r); err != nil {
		return r, err
	}
	return r, r.Validate()
}

// WriteJSON writes a plan or routine so that it is read back whole.
func WriteJSON(w io.Writer, document any) error {
	e := json.NewEncoder(w)
	e.SetIndent("", " ")
	return e.Encode(document)
}
