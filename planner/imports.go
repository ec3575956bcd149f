package planner

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"sort"
	"strings"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/store"
)

// Difference is what reading a thing in would change.
type Difference struct {
	Line   int
	Label  string
	New    bool
	Same   bool
	Says   []string // "position: Wing, was Centre"
	Change Change
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

// Differences compares things of one kind and owner that were read in with
// those that are there: players by their names, others by what they may not
// share. Nothing is changed, and nothing is taken out.
func Differences[T club.Thing](ctx context.Context, p *Planner, clubID, owner uint64, incoming []Incoming) ([]Difference, []Clash, error) {
	there, err := entries[T](ctx, p, clubID)
	if err != nil {
		return nil, nil, err
	}
	known := map[key]Entry[T]{}
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
		d := Difference{Line: in.Line, Label: in.Is.Label(), Change: Change{Owner: in.Owner, Is: in.Is}}
		k, ok := known[key{in.Owner, same(in.Is)}]
		if ok {
			d.Change.ID, d.Change.Edition = k.ID, k.Edition
			if is, player := in.Is.(club.Player); player && is.Forms == "" { // a table does not say in which form they do what
				is.Forms = any(k.Is).(club.Player).Forms
				d.Change.Is, in.Is = is, is
			}
			d.Says = fieldsChanged(k.Is, in.Is)
			d.Same = len(d.Says) == 0
		}
		d.New = !ok
		if other := sharer(there, in); other != nil && !replaced[other.ID] {
			clashes = append(clashes, Clash{in.Line, fmt.Sprintf("%s is %s's", strings.TrimPrefix(in.Is.Unique(), "#"), other.Is.Label())})
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
func sharer[T club.Thing](there []Entry[T], in Incoming) *Entry[T] {
	as := in.Is.Unique()
	if as == "" {
		return nil
	}
	if i := slices.IndexFunc(there, func(k Entry[T]) bool { return k.Owner == in.Owner && k.Is.Unique() == as }); i >= 0 {
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
func (p *Planner) Import(ctx context.Context, by Account, said string, differences []Difference) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	var changes []Change
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
		if slices.ContainsFunc(changes[:freed], func(f Change) bool { return f.ID == c.ID && c.ID != 0 }) {
			c.Edition = 0 // it was checked when its number was freed
		}
		changes = append(changes, c)
	}
	if len(changes) == 0 {
		return nil
	}
	_, err := p.Save(ctx, by, said, changes...)
	return err
}

// AddPlan makes a session of a plan document that was read in. Its players are
// the squad's of the same name: what a file says of their rows may be another
// club's.
func (p *Planner) AddPlan(ctx context.Context, by Account, squad uint64, d *plan.Document) (uint64, error) {
	if err := May(by, ToPlan); err != nil {
		return 0, err
	}
	if err := p.yetToCome(d.Start); err != nil {
		return 0, err
	}
	found, err := p.Squad(ctx, by.ClubID, squad)
	if err != nil {
		return 0, err
	}
	rows := map[string]uint64{}
	for _, k := range found.Players {
		name := fullName(k.Is.First, k.Is.Last)
		if _, twice := rows[name]; twice {
			rows[name] = 0 // which of them it is nobody knows: rulings for either count
		} else {
			rows[name] = k.ID
		}
	}
	for i := range d.Players {
		player := &d.Players[i]
		name := fullName(player.First, player.Last)
		player.Roster = rows[name]
		delete(rows, name) // a row is one player's
	}
	fitted, err := schedule.Fit(ctx, d, schedule.AtOnce)
	if err != nil {
		return 0, err
	}
	return p.store.AddSession(ctx, by.ClubID, found.ID, store.Fitted{Document: d, Schedule: fitted, Summary: "imported", By: by.ID})
}
