package share

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"strings"

	"cuestart/core/club"
	"cuestart/core/figure"
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

// mostFigure is the longest text of a figure that is read.
const mostFigure = 64 << 10

// ReadFigure reads how a drill looks from JSON. What is no figure is an error of one
// sentence; so is one that no body does, which is returned too.
func ReadFigure(text string) (*figure.Figure, error) {
	if len(text) > mostFigure {
		return nil, fmt.Errorf("the text is longer than a figure can be")
	}
	f := new(figure.Figure)
	decoder := json.NewDecoder(strings.NewReader(text))
	decoder.DisallowUnknownFields()
	if err := decoder.Decode(f); err != nil {
		return nil, fmt.Errorf("this is no figure: %s", strings.TrimPrefix(err.Error(), "json: "))
	}
	return f, f.Validate()
}
