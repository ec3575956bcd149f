package people

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

type unitRow struct {
	ID        uint64 // 0: the sport's, of its positions
	Name, Who string
	Numbers   string
}

type unitForm struct {
	ID      uint64
	Edition uint32
	Name    string
	Members []shell.Tick
}

// groupsOf are the squad's units and those of the sport's positions, by the numbers of
// who is in them.
func groupsOf(squad *keep.Squad, plays *sport.Sport) (groups []unitRow) {
	d := &plan.Document{}
	for _, k := range squad.Players {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint(k.ID), Number: k.Is.Number, First: k.Is.First,
			Last: k.Is.Last})
	}
	add := func(id uint64, name string, in func(planner.Entry[club.Player]) bool) {
		var ids []string
		for _, k := range squad.Players {
			if in(k) {
				ids = append(ids, fmt.Sprint(k.ID))
			}
		}
		row := unitRow{ID: id, Name: name, Who: "nobody yet"}
		if row.Numbers = d.Numbers(ids); len(ids) > 0 {
			row.Who = drill.Number(len(ids), "players")
		}
		groups = append(groups, row)
	}
	for _, u := range squad.Units {
		add(u.ID, u.Is.Name, func(k planner.Entry[club.Player]) bool { return slices.Contains(u.Is.Players, k.ID) })
	}
	for _, u := range plays.Units {
		add(0, u.Name, func(k planner.Entry[club.Player]) bool { return plan.PlaysOneOf(k.Is.Position, u.Positions) })
	}
	return groups
}

func firstNames(squad *keep.Squad, u club.Unit) string {
	var who []string
	for _, k := range squad.Players {
		if slices.Contains(u.Players, k.ID) {
			who = append(who, k.Is.First)
		}
	}
	return strings.Join(who, ", ")
}

func unitFormOf(squad *keep.Squad, id uint64, edition uint32, u club.Unit) *unitForm {
	f := &unitForm{ID: id, Edition: edition, Name: u.Name}
	for _, k := range squad.Players {
		label := k.Is.Label()
		if k.Is.Number > 0 {
			label = fmt.Sprintf("%d %s", k.Is.Number, label)
		}
		f.Members = append(f.Members, shell.Tick{Value: fmt.Sprint(k.ID), Label: label,
			On: slices.Contains(u.Players, k.ID)})
	}
	return f
}

// SaveUnit saves a unit, adds one, or takes it out.
func (in Room) SaveUnit(r *shell.Request) (shell.Answer, error) {
	squad, err := in.squadOf(r)
	if err != nil {
		return nil, err
	}
	f := r.Form
	u := club.Unit{Name: f.Text("name")}
	for _, k := range squad.Players {
		if f.Ticked("players", fmt.Sprint(k.ID)) {
			u.Players = append(u.Players, k.ID)
		}
	}
	id, edition, gone := f.ID("id"), f.Count("edition"), f.Has("gone")
	said := u.Name + " is saved"
	if gone {
		said = u.Name + " is deleted"
	}
	_, err = in.Keep.Save(r.Context(), r.By, said, planner.Change{ID: id, Owner: squad.ID, Edition: edition, Is: u,
		Gone: gone})
	return r.Saved(err, said, shell.Squad(squad.ID), func(wrong plan.Problems) (*shell.Page, error) {
		return in.squadPage(r, squad, wrong, func(b *squadBody) { b.Unit = unitFormOf(squad, id, edition, u) })
	})
}
