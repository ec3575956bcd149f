package diary

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"

	"cuestart/core/club"
	"cuestart/core/compose"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/keep"
)

// brief gathers what the club has for a session.
func (di *Diary) brief(ctx context.Context, clubID uint64,
	n NewSession) (b compose.Brief, squad *keep.Squad, err error) {
	if squad, err = di.keep.Squad(ctx, clubID, n.Squad); err != nil {
		return b, nil, err
	}
	ground, err := di.keep.Ground(ctx, clubID)
	if err != nil {
		return b, nil, err
	}
	known, err := di.books.Playbook(ctx, clubID)
	if err != nil {
		return b, nil, err
	}
	b = compose.Brief{Title: n.Title, Kind: n.Kind, Start: n.Start, Minutes: n.Minutes, Method: n.Method,
		Place: n.Place, Grade: drill.Grade(squad.Grade),
		Sport: known.Sport, Turn: n.Turn, Today: n.Today, Book: known.Book.Drills, Steps: boards.Tried}
	b.Minutes = Minutes(n.Kind, n.Minutes)
	side := sport.Side{}
	if n.Kind == plan.Match {
		there, at := known.Sport.At(n.Venue == 0)
		b.Sport, side = &there, at
		b.Turn = cmp.Or(b.Turn, side.Turn)
	}
	di.people(&b, squad, n)
	di.place(&b, ground, n, side)
	recent, err := di.sessions.Recent(ctx, clubID, squad.ID)
	for _, d := range recent {
		for _, block := range d.Blocks {
			for _, item := range block.Items {
				if !slices.Contains(b.Recent, item.Drill.Code) {
					b.Recent = append(b.Recent, item.Drill.Code)
				}
			}
		}
	}
	return b, squad, err
}

// Minutes is how long before the start work may begin: as a coach says, or else what
// is usual for the kind.
func Minutes(kind plan.Kind, said int) int {
	if said > 0 {
		return said
	}
	return map[plan.Kind]int{plan.Match: 50, plan.Training: 30}[kind]
}

func (di *Diary) people(b *compose.Brief, squad *keep.Squad, n NewSession) {
	day, _, _ := planner.CutDay(n.Start.Local)
	for _, k := range squad.Players {
		if slices.Contains(n.Out, k.ID) {
			continue
		}
		id := planner.PlayerID(k.ID)
		player := boards.PlayerOf(k)
		player.Late = n.Late[k.ID] * 60
		b.Players = append(b.Players, player)
		if k.Is.Build == club.Stiff {
			b.Stiff = append(b.Stiff, id)
		}
		if slices.Contains(n.Bench, k.ID) {
			b.Bench = append(b.Bench, id)
		}
		holds, _ := squad.In(k.ID, day)
		for _, r := range holds {
			b.Restrictions = append(b.Restrictions, r.Is.For(id))
		}
	}
	if len(squad.Players) == 0 { // a squad without names: so many, in the sport's positions
		for i := range min(n.Players, plan.MaxPlayers) {
			b.Players = append(b.Players, plan.Player{ID: planner.PlayerID(uint64(i + 1)), Number: i + 1,
				First: fmt.Sprintf("No. %d", i+1), Position: b.Sport.Position(i)})
		}
	}
	if n.Alone != 0 { // no units, no staff, nothing of the team's day
		id := planner.PlayerID(n.Alone)
		b.Players = slices.DeleteFunc(b.Players, func(x plan.Player) bool { return x.ID != id })
		b.Restrictions = slices.DeleteFunc(b.Restrictions, func(x plan.Restriction) bool { return x.Player != id })
		b.Stiff = slices.DeleteFunc(b.Stiff, func(x string) bool { return x != id })
		b.Bench = nil
		return
	}
	if n.Captain != 0 {
		b.Captain = planner.PlayerID(n.Captain)
	}
	b.Roles = rolesOf(n)
	for _, u := range squad.Units {
		unit := plan.Unit{ID: fmt.Sprintf("u%d", u.ID), Name: u.Is.Name}
		for _, id := range u.Is.Players {
			unit.Players = append(unit.Players, planner.PlayerID(id))
		}
		b.Units = append(b.Units, unit)
	}
}

// rolesOf are the roles of the day, in the order of their names.
func rolesOf(n NewSession) (roles []plan.Unit) {
	for _, name := range slices.Sorted(maps.Keys(n.Roles)) {
		role := plan.Unit{Name: name}
		for _, id := range n.Roles[name] {
			role.Players = append(role.Players, planner.PlayerID(id))
		}
		roles = append(roles, role)
	}
	return roles
}

func (di *Diary) place(b *compose.Brief, ground *keep.Ground, n NewSession, side sport.Side) {
	for _, v := range ground.Venues {
		if v.ID != n.Venue {
			continue
		}
		b.Place = v.Is.Name
		for _, z := range v.Zones {
			b.Zones = append(b.Zones, z.Is.Plan(fmt.Sprintf("z%d", z.ID)))
		}
	}
	if len(b.Zones) == 0 { // a ground that the club does not know
		for i, z := range b.Sport.Zones {
			usual := z.Plan(fmt.Sprintf("z%d", i+1))
			usual.Capacity = max(usual.Capacity, 12)
			usual.Free = side.Free(z)
			b.Zones = append(b.Zones, usual)
		}
	}
	for _, s := range ground.Staff {
		if n.Alone != 0 {
			break
		}
		b.Leaders = append(b.Leaders, s.Is.Plan(fmt.Sprintf("l%d", s.ID)))
	}
	if len(ground.Kit) > 0 {
		b.Kit = map[string]int{}
		for _, k := range ground.Kit {
			b.Kit[k.Is.Name] = k.Is.Pieces
		}
	}
}
