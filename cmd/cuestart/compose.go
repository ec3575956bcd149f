package main

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/compose"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/docs/formats"
)

// brief is what a file says of a session to come.
type brief struct {
	Sport   string          `json:"sport"`
	Kind    plan.Kind       `json:"kind"`
	Title   string          `json:"title"`
	Start   clock.Start     `json:"start"`
	Minutes int             `json:"minutes"`
	Method  string          `json:"method"`
	Grade   drill.Grade     `json:"grade"`
	Turn    plan.Turn       `json:"turn"`
	Players players         `json:"players"`
	Bench   []string        `json:"bench"`
	Stiff   []string        `json:"stiff"`
	Captain string          `json:"captain"`
	Leaders []string        `json:"leaders"`
	Kit     map[string]int  `json:"kit"`
	Indoors bool            `json:"indoors"`
	Today   plan.Conditions `json:"today"`
}

// players are so many, or who they are.
type players struct {
	n    int
	list []plan.Player
}

func (p *players) UnmarshalJSON(text []byte) error {
	if json.Unmarshal(text, &p.n) == nil {
		return nil
	}
	return json.Unmarshal(text, &p.list)
}

// composePlan makes a plan of a brief.
func composePlan(ctx context.Context, name string, steps int) (any, error) {
	in := brief{Kind: plan.Match, Title: "Warm-up", Start: clock.Start{Local: "2030-01-05T15:00", Zone: "Etc/UTC"},
		Minutes: 50}
	if err := readFile(name, formats.Brief, &in); err != nil {
		return nil, err
	}
	asked, err := in.whole()
	if err != nil {
		return nil, malformed{fmt.Errorf("%s: %w", name, err)}
	}
	asked.Steps = cmp.Or(steps, 3_000)
	made, err := compose.Compose(ctx, asked)
	var wrong plan.Problems
	if errors.As(err, &wrong) {
		return nil, malformed{fmt.Errorf("%s: %w", name, err)}
	} else if err != nil {
		return nil, err
	}
	return made.Document, nil
}

// whole is the brief with what it leaves open as is usual for its sport.
func (b *brief) whole() (asked compose.Brief, err error) {
	s, known := book.Sport(b.Sport)
	if !known {
		return asked, fmt.Errorf("sport: %q is not a sport that is known", b.Sport)
	}
	asked = compose.Brief{Title: b.Title, Kind: b.Kind, Start: b.Start, Minutes: b.Minutes, Method: b.Method,
		Grade: b.Grade, Sport: &s, Turn: b.Turn, Captain: b.Captain,
		Players: b.Players.list, Stiff: b.Stiff, Bench: b.Bench, Kit: b.Kit, Today: b.Today, Book: book.Drills()}
	if len(asked.Players) == 0 {
		for i := range cmp.Or(b.Players.n, 2*len(s.Positions)) {
			asked.Players = append(asked.Players, plan.Player{ID: fmt.Sprintf("p%d", i+1), Number: i + 1,
				First: fmt.Sprintf("No. %d", i+1), Position: s.Position(i)})
		}
	}
	for i, z := range s.Zones {
		asked.Zones = append(asked.Zones, plan.Zone{ID: fmt.Sprintf("z%d", i+1), Name: z.Name,
			Capacity: max(z.Capacity, len(asked.Players)), Lanes: z.Lanes, Metres: float64(z.Metres),
			Surface: z.Surface, Covered: b.Indoors})
	}
	for i, l := range b.Leaders {
		asked.Leaders = append(asked.Leaders, plan.Leader{ID: fmt.Sprintf("l%d", i+1), Name: l})
	}
	return asked, nil
}
