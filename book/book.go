// Package book holds what comes with Cue Start: the drills, and the sports. A
// club keeps its own changes beside it, so that a newer book never overwrites
// them.
package book

import (
	"bytes"
	"embed"
	"encoding/json"
	"fmt"
	"strings"
	"sync"

	"go.yaml.in/yaml/v3"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

//go:embed drills/*.yaml sports/*.yaml
var files embed.FS

// parts are the files of drills, in the order that a coach meets them.
var parts = []string{"raise", "activate", "mobilise", "potentiate", "sport", "positions", "after"}

// played are the files of sports, in the order in which they are listed.
var played = []string{"rugby-union", "football", "futsal", "hockey", "ice-hockey", "netball", "basketball",
	"volleyball", "handball", "cricket", "baseball",
	"softball", "roller-derby", "ultimate", "lacrosse", "korfball", "american-football", "australian-football",
	"speed-skating", "tennis", "padel",
	"athletics", "other", "class"}

type content struct {
	drills  []drill.Drill
	byCode  map[string]drill.Drill
	figures map[string]*figure.Figure
	sports  []sport.Sport
}

// all is the book, read once. It is built in and its test reads it, so that a
// mistake in it is a bug.
var all = sync.OnceValue(func() content {
	c := content{byCode: map[string]drill.Drill{}, figures: map[string]*figure.Figure{}}
	for _, part := range parts {
		text, err := files.ReadFile("drills/" + part + ".yaml")
		if err != nil {
			panic(err)
		}
		drills, err := Read(text)
		if err != nil {
			panic(err)
		}
		for _, d := range drills {
			c.drills = append(c.drills, d.Drill)
			c.figures[d.Code] = d.Figure
		}
	}
	for _, d := range c.drills {
		c.byCode[d.Code] = d
	}
	for _, key := range played {
		text, err := files.ReadFile("sports/" + key + ".yaml")
		is := sport.Sport{}
		if err == nil {
			err = decode(text, &is)
		}
		if err != nil {
			panic(fmt.Errorf("sport %s: %w", key, err))
		}
		c.sports = append(c.sports, is)
	}
	return c
})

// Drills returns the drills of the book, by phase.
func Drills() []drill.Drill { return all().drills }

// Find returns the drill of that code.
func Find(code string) (drill.Drill, bool) {
	d, ok := all().byCode[code]
	return d, ok
}

// Figure returns how the drill of that code looks, or nil where it is not drawn.
func Figure(code string) *figure.Figure { return all().figures[code] }

// Sports returns the sports of the book.
func Sports() []sport.Sport { return all().sports }

// Sport returns the sport of that key or name, in any case, also where more is said of it: "tennis doubles".
func Sport(name string) (sport.Sport, bool) {
	for _, s := range all().sports {
		if s.Key == name || strings.EqualFold(s.Name, name) ||
			strings.EqualFold(s.Key, strings.ReplaceAll(name, " ", "-")) {
			return s, true
		}
	}
	for _, s := range all().sports {
		if more, ok := strings.CutPrefix(strings.ToLower(name), strings.ReplaceAll(s.Key, "-", " ")+" "); ok &&
			more != "" {
			return s, true
		}
	}
	return sport.Sport{}, false
}

// Read reads drills with their figures from YAML. Its keys are those of the drill's JSON;
// an unknown key, a code used twice, a drill or a figure that does not hold is an error.
func Read(text []byte) (drills []club.Drill, err error) {
	if err := decode(text, &drills); err != nil {
		return nil, err
	}
	codes := map[string]bool{}
	for _, d := range drills {
		if err := d.Drill.Validate(); err != nil {
			return nil, err
		}
		if err := d.Figure.Validate(); err != nil {
			return nil, fmt.Errorf("drill %s: %w", d.Code, err)
		}
		if codes[d.Code] {
			return nil, fmt.Errorf("drill %s is there twice", d.Code)
		}
		codes[d.Code] = true
	}
	return drills, nil
}

func decode(text []byte, into any) error {
	var entries any
	if err := yaml.Unmarshal(text, &entries); err != nil {
		return fmt.Errorf("the book is not YAML: %w", err)
	}
	asJSON, err := json.Marshal(entries)
	if err != nil {
		return fmt.Errorf("the book: %w", err)
	}
	decoder := json.NewDecoder(bytes.NewReader(asJSON))
	decoder.DisallowUnknownFields()
	if err := decoder.Decode(into); err != nil {
		return fmt.Errorf("the book: %w", err)
	}
	return nil
}

// NewBlock is a block of drills of the book, its aim theirs. It panics on a code that the book does not have.
func NewBlock(id, name string, phase drill.Phase, priority plan.Priority, codes ...string) plan.Block {
	b := plan.Block{ID: id, Name: name, Phase: phase, Priority: priority}
	for _, code := range codes {
		known, ok := Find(code)
		if !ok {
			panic("no drill " + code)
		}
		b.Items = append(b.Items, plan.Item{Drill: known})
	}
	b.Aim = b.Aims()
	return b
}
