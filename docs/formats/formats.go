// Package formats holds the JSON Schemas of the files that Cue Start reads, and
// reads files by them.
package formats

import (
	"bytes"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"strconv"
	"strings"
	"sync"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"golang.org/x/text/language"
	"golang.org/x/text/message"
)

//go:embed *.schema.json
var schemas embed.FS

// The formats, by the name of their schema.
const (
	Problem = "problem"
	Plan    = "plan"
	Warmth  = "warmth"
	Drills  = "drills"
	Routine = "routine"
	Say     = "say"
	Brief   = "brief"
	Figure  = "figure"
)

// MaxBytes is the largest file that is read.
const MaxBytes = 16 << 20

var compiled = map[string]func() *jsonschema.Schema{
	Problem: sync.OnceValue(func() *jsonschema.Schema { return compile(Problem) }),
	Plan:    sync.OnceValue(func() *jsonschema.Schema { return compile(Plan) }),
	Warmth:  sync.OnceValue(func() *jsonschema.Schema { return compile(Warmth) }),
	Routine: sync.OnceValue(func() *jsonschema.Schema { return compile(Routine) }),
	Brief:   sync.OnceValue(func() *jsonschema.Schema { return compile(Brief) }),
	Say:     sync.OnceValue(func() *jsonschema.Schema { return compile(Say) }),
	Drills:  sync.OnceValue(func() *jsonschema.Schema { return compile(Drills) }),
	Figure:  sync.OnceValue(func() *jsonschema.Schema { return compile(Figure) }),
}

// compile makes a built-in schema ready; that it can be is tested.
func compile(name string) *jsonschema.Schema {
	c := jsonschema.NewCompiler()
	for one := range maps.Keys(map[string]bool{Plan: true, Figure: true, name: true}) {
		// drills are those of a plan, with figures
		text, err := schemas.ReadFile(one + ".schema.json")
		if err != nil {
			panic(err)
		}
		document, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
		if err != nil {
			panic(err)
		}
		if err := c.AddResource(one, document); err != nil {
			panic(err)
		}
	}
	return c.MustCompile(name)
}

// Read reads one JSON value of a format into a Go value. Anything else than the format allows is
// an error of one sentence that names the place. It never reads more than MaxBytes and a little.
func Read(from io.Reader, format string, into any) error {
	text, err := io.ReadAll(io.LimitReader(from, MaxBytes+1))
	if err != nil {
		return fmt.Errorf("it cannot be read: %w", err)
	}
	if len(text) > MaxBytes {
		return fmt.Errorf("it is larger than %d MB", MaxBytes>>20)
	}
	value, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	if err != nil {
		return notJSON(text, err)
	}
	var invalid *jsonschema.ValidationError
	if err := compiled[format]().Validate(value); errors.As(err, &invalid) {
		return sentence(invalid)
	} else if err != nil {
		return err
	}
	decoder := json.NewDecoder(bytes.NewReader(text))
	decoder.DisallowUnknownFields()
	if err := decoder.Decode(into); err != nil {
		return notJSON(text, err)
	}
	return nil
}

// notJSON says where a text stops being JSON.
func notJSON(text []byte, err error) error {
	var syntax *json.SyntaxError
	if errors.As(err, &syntax) {
		before := text[:min(int(syntax.Offset), len(text))]
		line := 1 + bytes.Count(before, []byte("\n"))
		column := len(before) - bytes.LastIndexByte(before, '\n') - 1
		return fmt.Errorf("line %d, column %d: %s", line, column, syntax)
	}
	return fmt.Errorf("it is not one JSON value: %s", strings.ReplaceAll(err.Error(), "\n", " "))
}

// sentence is the deepest of what a schema has against a value.
func sentence(e *jsonschema.ValidationError) error {
	for len(e.Causes) > 0 {
		e = e.Causes[0]
	}
	place := "the file"
	if len(e.InstanceLocation) > 0 {
		place = ""
		for _, step := range e.InstanceLocation {
			if _, err := strconv.Atoi(step); err == nil {
				place += "[" + step + "]"
			} else {
				place = strings.TrimPrefix(place+"."+step, ".")
			}
		}
	}
	what := e.ErrorKind.LocalizedString(message.NewPrinter(language.English))
	if len(what) > 300 {
		what = what[:300] + "…"
	}
	return fmt.Errorf("%s: %s", place, what)
}
