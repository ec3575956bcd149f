package shell

import (
	"slices"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pen"
)

// Chip is one of the four things that complete a drill of the club's own.
type Chip struct {
	Name  movement.Chip
	Label string
	Value string
	Hint  string
	Picks []string // what may be picked; none: it is written
}

// Asked tells whether nothing is known of what ought to be.
func (c Chip) Asked() bool { return c.Name == movement.Works && c.Value == "" }

// Chips are those of one of several drills on a page.
type Chips struct {
	Nth   int
	Chips []Chip
}

// ChipsOf are the chips of a drill, the nth of its page; none of one that is the book's.
func ChipsOf(k *drill.Drill, nth int) Chips {
	of := Chips{Nth: nth}
	if !pen.IsOwn(k.Code) {
		return of
	}
	for _, c := range []Chip{
		{Name: movement.For, Label: "for", Hint: "what does it do?", Picks: movement.Purposes()},
		{Name: movement.Works, Label: "works", Hint: "hips, turning"},
		{Name: movement.Fast, Label: "takes", Hint: "3 s a rep"},
		{Name: movement.Cue, Label: "say", Hint: "a cue"},
	} {
		if c.Value = movement.Says(k, c.Name); c.Name != movement.Fast || c.Value != "" {
			of.Chips = append(of.Chips, c)
		}
	}
	return of
}

// WithLook are the chips of a drill with what to look for: for the book, where there is room.
func (c Chips) WithLook(k *drill.Drill) Chips {
	if c.Chips != nil {
		c.Chips = append(c.Chips, Chip{Name: movement.Look, Label: "look for", Hint: "a fault",
			Value: movement.Says(k, movement.Look)})
	}
	return c
}

// Said is what a form says of the chips that it has.
func (f *Form) Said() map[movement.Chip]string {
	said := map[movement.Chip]string{}
	for _, name := range movement.Chips {
		if f.Has(string(name)) {
			said[name] = f.Text(string(name))
		}
	}
	return said
}

// Keep has the chips hold what was typed, though it was refused.
func (c Chips) Keep(said map[movement.Chip]string) {
	for i, chip := range c.Chips {
		if words, has := said[chip.Name]; has && (chip.Picks == nil || slices.Contains(chip.Picks, words)) {
			c.Chips[i].Value = words
		}
	}
}
