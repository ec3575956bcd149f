package shell

import (
	"slices"
	"strings"

	"cuestart/core/plan"
)

// Choice is something to pick from a list.
type Choice struct{ Value, Label string }

// IDChoice is something of the club to pick from a list.
type IDChoice struct {
	ID    uint64
	Label string
}

// Tick is a box that is ticked or not.
type Tick struct {
	Value, Label string
	On           bool
}

// tickGroup is boxes under one name.
type tickGroup struct {
	Label, Name string
	Ticks       []Tick
}

// Ticks are the boxes of all words, ticked where they are on.
func Ticks(all, on []string) (list []Tick) {
	for _, w := range all {
		list = append(list, Tick{w, w, slices.Contains(on, w)})
	}
	return list
}

// MethodChoice is a school of warming up to pick.
type MethodChoice struct{ Key, Name, Why string }

// Methods are the schools in the order that they are offered.
func Methods() (list []MethodChoice) {
	for _, key := range []string{plan.DefaultMethod, "five-stages", "brief-static", "ground-up", "countdown"} {
		m := plan.Methods[key]
		list = append(list, MethodChoice{key, m.Name, m.Why})
	}
	return list
}

// Joined puts the words that are not empty together.
func Joined(between string, words ...string) string {
	return strings.Join(slices.DeleteFunc(words, func(w string) bool { return w == "" }), between)
}
