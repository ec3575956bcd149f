package keep

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"sort"
	"strings"

	"cuestart/core/club"
	"cuestart/planner"
)

// Difference is what reading a thing in would change.
type Difference struct {
	Line   int
	Label  string
	New    bool
	Same   bool
	Says   []string // "position: Wing, was Centre"
	Change planner.Change
}

// Incoming is a thing that was read from a line of a file.
type Incoming struct {
	Line  int
	Owner uint64 // where it is not that of all
	Is    club.Thing
}

// Clash is an incoming thing that cannot be beside what is there.
type Clash struct {
	Line int
	What string
}

// Differences compares things of one kind and owner that were read in with those that are there:
// players by their names, others by what they may not share. Nothing is changed, and nothing is
// taken out.
func Differences[T club.Thing](ctx context.Context, kp *Keep, clubID, owner uint64,
	incoming []Incoming) ([]Difference, []Clash, error) {
	there, err := planner.Entries[T](ctx, kp.base, clubID)
	if err != nil {
		return nil, nil, err
	}
	known := map[key]planner.Entry[T]{}
	for _, k := range there {
		known[key{k.Owner, same(k.Is)}] = k
	}
	replaced := map[uint64]bool{} // what these shared is free again
	for i := range incoming {
		in := &incoming[i]
		in.Owner = cmp.Or(in.Owner, owner)
		if k, ok := known[key{in.Owner, same(in.Is)}]; ok {
			replaced[k.ID] = true
		}
	}
	var differences []Difference
	var clashes []Clash
	for _, in := range incoming {
		d := Difference{Line: in.Line, Label: in.Is.Label(), Change: planner.Change{Owner: in.Owner, Is: in.Is}}
		k, ok := known[key{in.Owner, same(in.Is)}]
		if ok {
			d.Change.ID, d.Change.Edition = k.ID, k.Edition
			if is, player := in.Is.(club.Player); player && is.Forms == "" {
				// a table does not say in which form they do what
				is.Forms = any(k.Is).(club.Player).Forms
				d.Change.Is, in.Is = is, is
			}
			d.Says = fieldsChanged(k.Is, in.Is)
			d.Same = len(d.Says) == 0
		}
		d.New = !ok
		if other := sharer(there, in); other != nil && !replaced[other.ID] {
			clashes = append(clashes,
				Clash{in.Line, fmt.Sprintf("%s is %s's", strings.TrimPrefix(in.Is.Unique(), "#"), other.Is.Label())})
		}
		differences = append(differences, d)
	}
	return differences, clashes, nil
}

// key is what finds the thing that an incoming one is.
type key struct {
	owner uint64
	as    string
}

// sharer is the thing that has what in may not share with it, or nil.
func sharer[T club.Thing](there []planner.Entry[T], in Incoming) *planner.Entry[T] {
	as := in.Is.Unique()
	if as == "" {
		return nil
	}
	if i := slices.IndexFunc(there,
		func(k planner.Entry[T]) bool { return k.Owner == in.Owner && k.Is.Unique() == as }); i >= 0 {
		return &there[i]
	}
	return nil
}

// same is what tells that two things are one.
func same(t club.Thing) string {
	if p, ok := any(t).(club.Player); ok {
		return strings.ToLower(p.First + " " + p.Last)
	}
	return t.Unique()
}

// fieldsChanged names the fields in which two things of a kind differ.
func fieldsChanged(was, is club.Thing) (says []string) {
	fields := func(t club.Thing) map[string]any {
		text, _ := json.Marshal(t) // they were read from JSON
		m := map[string]any{}
		json.Unmarshal(text, &m)
		return m
	}
	before, after := fields(was), fields(is)
	var names []string
	for name := range after {
		names = append(names, name)
	}
	for name := range before {
		if _, ok := after[name]; !ok {
			names = append(names, name)
		}
	}
	sort.Strings(names)
	for _, name := range names {
		x, y := fmt.Sprint(orNone(before[name])), fmt.Sprint(orNone(after[name]))
		if x != y {
			says = append(says, fmt.Sprintf("%s: %s, was %s", strings.ReplaceAll(name, "_", " "), y, x))
		}
	}
	return says
}

func orNone(value any) any {
	if value == nil || value == "" {
		return "none"
	}
	return value
}

// Import takes differences over, all or none, as one change that can be taken
// back. Two who swap numbers can be read in: numbers are freed first.
func (kp *Keep) Import(ctx context.Context, by planner.Account, said string, differences []Difference) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	var changes []planner.Change
	for _, d := range differences {
		if d.Same {
			continue
		}
		if player, ok := d.Change.Is.(club.Player); ok && d.Change.ID != 0 && player.Number != 0 {
			free := d.Change
			player.Number = 0
			free.Is = player
			changes = append(changes, free)
		}
	}
	freed := len(changes)
	for _, d := range differences {
		if d.Same {
			continue
		}
		c := d.Change
		if slices.ContainsFunc(changes[:freed], func(f planner.Change) bool { return f.ID == c.ID && c.ID != 0 }) {
			c.Edition = 0 // it was checked when its number was freed
		}
		changes = append(changes, c)
	}
	if len(changes) == 0 {
		return nil
	}
	_, err := kp.base.Save(ctx, by, said, changes...)
	return err
}
