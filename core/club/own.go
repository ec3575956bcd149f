package club

import (
	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

// Drill is a drill as a thing of the club: its own, or its change of the
// book's. Gone hides a drill of the book.
type Drill struct {
	drill.Drill
	Gone   bool           `json:"gone,omitempty"`
	Draft  bool           `json:"draft,omitempty"`  // made of a line: what it is taken for is still to be completed
	Figure *figure.Figure `json:"figure,omitempty"` // the club's own; nil: as the book has it
	Plain  bool           `json:"plain,omitempty"`  // without a figure, though the book has one
}

func (Drill) Kind() Kind       { return KindDrill }
func (d Drill) Label() string  { return d.Name }
func (d Drill) Unique() string { return d.Code }
func (d Drill) Validate() error {
	v := problems{}
	v.mustName("name", d.Name)
	v.when(d.Code == "" || len(d.Code) > 80, "code", "a drill needs a code of 1 to 80 letters")
	v.when(len(d.Aim) > 4*plan.MaxName || d.Aim == "", "aim", "say in one line why it is there")
	v.when(len(d.Phases) == 0, "phases", "say in which phase it belongs")
	for where, lines := range map[string][]string{"cues": d.Cues, "faults": d.Faults} {
		v.when(len(lines) > 6, where, "six lines at most")
	}
	if err := d.Drill.Validate(); err != nil && len(v.found) == 0 {
		v.add("dose", err.Error())
	}
	if err := d.Figure.Validate(); err != nil {
		v.add("figure", err.Error())
	}
	return v.err()
}

// Sport is the club's copy of its sport.
type Sport struct{ sport.Sport }

func (Sport) Kind() Kind       { return KindSport }
func (s Sport) Label() string  { return s.Name }
func (s Sport) Unique() string { return s.Key }

// Validate checks the names; what refers to drills is checked where it is saved.
func (s Sport) Validate() error {
	v := problems{}
	v.mustName("name", s.Name)
	v.mustName("start", s.Start)
	v.when(s.Key == "" || len(s.Key) > 40, "key", "begin from a sport that is known")
	for _, p := range s.Positions {
		v.mustName("positions", p)
	}
	return v.err()
}

// Overlay is the book with the club's changes: its own in place of the book's,
// without those it took out, its own new ones last.
func Overlay(book []drill.Drill, own []Drill) []drill.Drill {
	changed := map[string]*Drill{}
	for i := range own {
		changed[own[i].Code] = &own[i]
	}
	all := make([]drill.Drill, 0, len(book)+len(own))
	for _, d := range book {
		mine := changed[d.Code]
		delete(changed, d.Code)
		switch {
		case mine == nil:
			all = append(all, d)
		case !mine.Gone:
			all = append(all, mine.Drill)
		}
	}
	for i := range own {
		if changed[own[i].Code] != nil && !own[i].Gone {
			all = append(all, own[i].Drill)
		}
	}
	return all
}
