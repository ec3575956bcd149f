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
	Change store.Change
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
	kept, err := store.Things[T](ctx, p.Store, clubID)
	if err != nil {
		return nil, nil, err
	}
	type key struct {
		owner uint64
		as    string
	}
	there, unique := map[key]store.Kept[T]{}, map[key]uint64{}
	for _, k := range kept {
		there[key{k.Owner, same(k.Is)}] = k
		if as := k.Is.Unique(); as != "" {
			unique[key{k.Owner, as}] = k.ID
		}
	}
	var differences []Difference
	var clashes []Clash
	changed := map[uint64]bool{}
	for i := range incoming {
		in := &incoming[i]
		in.Owner = cmp.Or(in.Owner, owner)
		if k, ok := there[key{in.Owner, same(in.Is)}]; ok {
			changed[k.ID] = true // what it shared is free again
		}
	}
	for _, in := range incoming {
		d := Difference{Line: in.Line, Label: in.Is.Label(), Change: store.Change{Owner: in.Owner, Is: in.Is}}
		k, ok := there[key{in.Owner, same(in.Is)}]
		if ok {
			d.Change.ID, d.Change.Edition = k.ID, k.Edition
			d.Says = fieldsChanged(k.Is, in.Is)
			d.Same = len(d.Says) == 0
		}
		d.New = !ok
		if as := in.Is.Unique(); as != "" {
			if other, taken := unique[key{in.Owner, as}]; taken && other != k.ID && !changed[other] {
				for _, o := range kept {
					if o.ID == other {
						clashes = append(clashes, Clash{in.Line, fmt.Sprintf("%s is %s's", strings.TrimPrefix(as, "#"), o.Is.Label())})
					}
				}
			}
		}
		differences = append(differences, d)
	}
	return differences, clashes, nil
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
func (p *Planner) Import(ctx context.Context, by store.Account, said string, differences []Difference) error {
	var changes []store.Change
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
		if slices.ContainsFunc(changes[:freed], func(f store.Change) bool { return f.ID == c.ID && c.ID != 0 }) {
			c.Edition = 0 // it was checked when its number was freed
		}
		changes = append(changes, c)
	}
	if len(changes) == 0 {
		return nil
	}
	_, err := p.Keep(ctx, by, said, changes...)
	return err
}

// AddPlan makes a session of a plan document that was read in.
func (p *Planner) AddPlan(ctx context.Context, by store.Account, squad uint64, d *plan.Document) (uint64, error) {
	if err := p.yetToCome(d.Start); err != nil {
		return 0, err
	}
	found, err := p.Squad(ctx, by.ClubID, squad)
	if err != nil {
		return 0, err
	}
	fitted, err := schedule.Fit(ctx, d, atOnce)
	if err != nil {
		return 0, err
	}
	return p.Store.AddSession(ctx, found.ID, store.Fitted{Document: d, Schedule: fitted, Summary: "read in", By: by.ID})
}
