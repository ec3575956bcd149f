package plan

import (
	"fmt"
	"slices"
)

// When says which line a [List] goes by.
type When string

// The lines. After runs forward from the end of the session: the whistle, the bell, the
// end of the lift. AtBreak runs backward from the restart after half-time. OnBench is
// done again and again while the others play.
const (
	AfterEnd When = "after"
	AtBreak  When = "break"
	OnBench  When = "bench"
)

// Whens lists them.
var Whens = []When{AfterEnd, AtBreak, OnBench}

// List is a small plan with a start line of its own. Its blocks follow each other; those
// that share nobody run side by side.
type List struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	When   When    `json:"when"`
	Line   string  `json:"line"`             // what its line is called: Final whistle, Second half
	Length int     `json:"length,omitempty"` // seconds that there are; 0: as long as it takes
	Margin int     `json:"margin,omitempty"` // at the break: seconds before the restart at which work ends
	Every  int     `json:"every,omitempty"`  // on the bench: minutes of play from one time to the next
	Blocks []Block `json:"blocks,omitempty"`
}

// Forward tells whether it runs from its line on.
func (l *List) Forward() bool { return l.When != AtBreak }

// usualLists are what a list is until a coach says otherwise.
var usualLists = map[When]List{
	AfterEnd: {Name: "After the end", Line: "Final whistle"},
	AtBreak:  {Name: "Half-time", Line: "Second half", Length: 15 * 60, Margin: 60},
	OnBench:  {Name: "Bench", Line: "Each top-up", Length: 4 * 60, Every: 15},
}

// List returns the list of that id, or nil.
func (w *Work) List(id string) *List {
	return find(w.Lists, id, func(l *List) string { return l.ID })
}

// ListOf returns the list that a block is in, or nil: it is of the run-in.
func (w *Work) ListOf(block string) *List {
	for i := range w.Lists {
		if find(w.Lists[i].Blocks, block, idOfBlock) != nil {
			return &w.Lists[i]
		}
	}
	return nil
}

// On is the document with the blocks of one of its lists for its own: what is known of
// people, places and rulings holds for them too.
func (d *Document) On(l *List) *Document {
	on := *d
	on.Blocks, on.Lists, on.Fixed = l.Blocks, nil, nil
	return &on
}

// AddList adds a list of its kind, empty, and returns its id.
func (w *Work) AddList(when When) (id string, err error) {
	usual, known := usualLists[when]
	if !known {
		return "", In("lists", "a list is for after the end, for half-time or for the bench")
	}
	if len(w.Lists) >= mostLists {
		return "", In("lists", "a plan has %d lists at most", mostLists)
	}
	for n := 1; id == "" || w.List(id) != nil; n++ {
		id = fmt.Sprintf("%s-%d", when, n)
	}
	usual.ID, usual.When = id, when
	w.Lists = append(w.Lists, usual)
	return id, nil
}

const mostLists = 8

// InsertInto puts a new block last into the first list of its kind, which is added where
// there is none, and returns the block's id.
func (w *Work) InsertInto(when When, b Block) (id string, err error) {
	at := slices.IndexFunc(w.Lists, func(l List) bool { return l.When == when })
	if at < 0 {
		if _, err := w.AddList(when); err != nil {
			return "", err
		}
		at = len(w.Lists) - 1
	}
	l := &w.Lists[at]
	if len(l.Blocks) >= MaxItems {
		return "", In(AtList(l.ID), "it has %d blocks at most", MaxItems)
	}
	b.ID = w.freeID()
	l.Blocks = append(l.Blocks, b)
	return b.ID, nil
}

// ListFields is what a coach says of a list beside its blocks.
type ListFields struct {
	Name, Line            string
	Length, Margin, Every int
}

// SetList changes what is said of a list.
func (w *Work) SetList(id string, to ListFields) (string, error) {
	l := w.List(id)
	if l == nil {
		return "", In("lists", "this list is no longer in the plan")
	}
	next := *l
	next.Name, next.Line, next.Length, next.Margin, next.Every = to.Name, to.Line, to.Length, to.Margin, to.Every
	if problem := next.problem(); problem != "" {
		return "", In(AtList(id), "%s", problem)
	}
	*l = next
	return l.Name + " changed", nil
}

// AtList is the place of a list.
func AtList(id string) string { return "lists." + id }

// problem says what is wrong with a list beside its blocks, or "".
func (l *List) problem() string {
	switch {
	case NameProblem(l.Name) != "":
		return NameProblem(l.Name)
	case NameProblem(l.Line) != "":
		return NameProblem(l.Line)
	case !slices.Contains(Whens, l.When):
		return "a list is for after the end, for half-time or for the bench"
	case l.Length < 0 || l.Length > 2*3600 || l.Margin < 0 || l.Length > 0 && l.Margin >= l.Length:
		return "it lasts up to two hours, and work ends within them"
	case l.Every < 0 || l.Every > 120:
		return "top-ups come every 1 to 120 minutes"
	case len(l.Blocks) > MaxItems:
		return fmt.Sprintf("it has %d blocks at most", MaxItems)
	}
	return ""
}

// RemoveList takes a list out.
func (w *Work) RemoveList(id string) (string, error) {
	l := w.List(id)
	if l == nil {
		return "", In("lists", "this list is no longer in the plan")
	}
	name := l.Name
	w.Lists = slices.DeleteFunc(w.Lists, func(l List) bool { return l.ID == id })
	return name + " removed", nil
}
