// Package book holds the drills that come with Cue Start.
package book

import (
	"bytes"
	_ "embed"
	"encoding/json"
	"fmt"
	"sync"

	"go.yaml.in/yaml/v3"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

//go:embed drills.yaml
var text []byte

// Drills returns the drills of the book, by phase.
var Drills = sync.OnceValue(func() []drill.Drill {
	drills, err := Read(text)
	if err != nil {
		panic(err) // the book is built in, and its test reads it
	}
	return drills
})

// Find returns the drill of that code.
func Find(code string) (drill.Drill, bool) {
	for _, d := range Drills() {
		if d.Code == code {
			return d, true
		}
	}
	return drill.Drill{}, false
}

// Read reads drills from YAML. Its keys are those of the drill's JSON; an
// unknown key, a code used twice or a drill that does not hold is an error.
func Read(text []byte) ([]drill.Drill, error) {
	var entries []any
	if err := yaml.Unmarshal(text, &entries); err != nil {
		return nil, fmt.Errorf("the drill book is not YAML: %w", err)
	}
	asJSON, err := json.Marshal(entries)
	if err != nil {
		return nil, fmt.Errorf("the drill book: %w", err)
	}
	var drills []drill.Drill
	decoder := json.NewDecoder(bytes.NewReader(asJSON))
	decoder.DisallowUnknownFields()
	if err := decoder.Decode(&drills); err != nil {
		return nil, fmt.Errorf("the drill book: %w", err)
	}
	codes := map[string]bool{}
	for _, d := range drills {
		if err := d.Validate(); err != nil {
			return nil, err
		}
		if codes[d.Code] {
			return nil, fmt.Errorf("drill %s is there twice", d.Code)
		}
		codes[d.Code] = true
	}
	return drills, nil
}

// NewBlock is a block of drills of the book; its aim is that of its first
// drill. It panics on a code that the book does not have.
func NewBlock(id, name string, phase drill.Phase, priority plan.Priority, codes ...string) plan.Block {
	b := plan.Block{ID: id, Name: name, Phase: phase, Priority: priority}
	for _, code := range codes {
		known, ok := Find(code)
		if !ok {
			panic("no drill " + code)
		}
		b.Items = append(b.Items, plan.Item{Drill: known})
	}
	b.Aim = b.Items[0].Drill.Aim
	return b
}
