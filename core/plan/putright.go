package plan

import (
	"fmt"
	"maps"
	"slices"

	"cuestart/core/drill"
)

// Known is what a club knew of a player of its, and knows now.
type Known struct{ Was, Now Player }

// PutRight has the plan follow what its club knows of its players by now and did not before:
// their names, numbers, positions, sides, level and own lines. Units are the positions of those that fall
// out of positions, by name; such a unit, and a block for all who play somewhere, is for who
// plays there now. It says what is otherwise now, nil where nothing is.
func (d *Document) PutRight(players []Known, units map[string][]string) (said []string) {
	was := d.Clone()
	for _, k := range players {
		i := slices.IndexFunc(d.Players, func(p Player) bool { return p.Roster > 0 && p.Roster == k.Now.Roster })
		if i < 0 {
			continue
		}
		p := &d.Players[i]
		next := *p
		follow(&next.Number, k.Was.Number, k.Now.Number)
		follow(&next.First, k.Was.First, k.Now.First)
		follow(&next.Last, k.Was.Last, k.Now.Last)
		follow(&next.Position, k.Was.Position, k.Now.Position)
		follow(&next.Hand, k.Was.Hand, k.Now.Hand)
		follow(&next.Foot, k.Was.Foot, k.Now.Foot)
		follow(&next.Bats, k.Was.Bats, k.Now.Bats)
		follow(&next.Level, k.Was.Level, k.Now.Level)
		follow(&next.Loose, k.Was.Loose, k.Now.Loose)
		if !slices.Equal(k.Was.Own, k.Now.Own) {
			next.Own = k.Now.Own
		}
		if !maps.Equal(k.Was.Forms, k.Now.Forms) {
			next.Forms = maps.Clone(k.Now.Forms)
		}
		if says := p.otherwise(&next); says != "" {
			said = append(said, says)
		}
		*p = next
	}
	if said == nil {
		return nil
	}
	for i := range d.Units {
		u := &d.Units[i]
		positions, falls := units[u.Name]
		if falls && !u.Today && slices.Equal(was.playing(positions), was.Members(u.Players)) {
			u.Players = d.playing(positions)
		}
	}
	for b := range d.AllBlocks() {
		for _, position := range was.positions() {
			at, then := was.playing([]string{position}), d.playing([]string{position})
			if len(at) > 1 && len(then) > 0 && slices.Equal(was.Members(b.Who), at) &&
				!slices.ContainsFunc(b.Who, func(id string) bool { return d.Unit(id) != nil }) {
				b.Who = then
			}
		}
	}
	return said
}

// follow has a field be what is known now, where that is not what was known before.
func follow[T comparable](field *T, was, now T) {
	if was != now {
		*field = now
	}
}

// otherwise says what of a player is otherwise by now; "" where nothing is.
func (p *Player) otherwise(now *Player) string {
	switch {
	case p.Label() != now.Label():
		return now.Label() + ", not " + p.Label()
	case p.Position != now.Position && now.Position != "":
		return fmt.Sprintf("%s is %s now", now.ShortName(), now.Position)
	case p.Number != now.Number:
		return fmt.Sprintf("%s wears %d now", now.ShortName(), now.Number)
	case p.Position != now.Position || p.Hand != now.Hand || p.Foot != now.Foot || p.Bats != now.Bats ||
		p.Level != now.Level || p.Loose != now.Loose || !slices.Equal(p.Own, now.Own) ||
		!maps.Equal(p.Forms, now.Forms):
		return now.ShortName() + " is put right"
	}
	return ""
}

// positions are those that somebody plays.
func (party *Party) positions() (list []string) {
	for _, p := range party.Players {
		for _, one := range Positions(p.Position) {
			if !slices.Contains(list, one) {
				list = append(list, one)
			}
		}
	}
	return list
}

// playing are the ids of who plays at one of the positions.
func (party *Party) playing(positions []string) (ids []string) {
	for _, p := range party.Players {
		if PlaysOneOf(p.Position, positions) {
			ids = append(ids, p.ID)
		}
	}
	return ids
}

// TakePace has the plan's drills of that code, where nobody gave them a pace of their own,
// last as the book's drill does now, and says in how many blocks; "" where none follows.
func (w *Work) TakePace(was, now drill.Drill) string {
	blocks := 0
	for b := range w.AllBlocks() {
		follows := false
		for i := range b.Items {
			k := &b.Items[i].Drill
			if k.Code == was.Code && k.Dose.TakePace(was.Dose, now.Dose) {
				follows = true
			}
		}
		if follows {
			blocks++
		}
	}
	if blocks == 0 {
		return ""
	}
	return fmt.Sprintf("%s at the book's pace: %s", now.Name, drill.Number(blocks, "blocks"))
}

// Redescribe has the plan's drills of now's code be what it is described as: what it is for,
// what it works, how hard it is, its pace and its cues, where they are as was said before and
// nobody gave this one others. It says so, "" where nothing follows.
func (w *Work) Redescribe(was, now drill.Drill) string {
	follows := false
	for b := range w.AllBlocks() {
		alone := !slices.ContainsFunc(b.Items, func(i Item) bool { return i.Drill.Code != now.Code })
		for i := range b.Items {
			k := &b.Items[i].Drill
			if k.Code != now.Code {
				continue
			}
			if alone && len(now.Phases) > 0 && len(was.Phases) > 0 && b.Phase == was.Phases[0] &&
				b.Phase != drill.After && slices.Contains(append(Methods[w.Method].Phases, drill.Own), now.Phases[0]) {
				b.Phase = now.Phases[0]
			}
			if k.Redescribe(was, now) {
				follows = true
			}
		}
	}
	if !follows {
		return ""
	}
	return now.Name + " as you describe it now"
}

// Recall has the plan's drills of a code that were called as was be called as now, and says
// so; "" where there are none.
func (w *Work) Recall(was, now drill.Drill) string {
	if was.Name == now.Name {
		return ""
	}
	return w.eachOf(was.Code, func(k *drill.Drill) bool {
		called := k.Name == was.Name
		if called {
			k.Name = now.Name
		}
		return called
	}, was.Name+" is called "+now.Name)
}

// Merge has the plan's drills of the code of was be the drill now, under their own names and
// doses, and says so; "" where there are none.
func (d *Document) Merge(was, now drill.Drill) string {
	for i := range d.Players { // who did the one in another form does the other so
		if p := &d.Players[i]; p.Forms[was.Code] != "" {
			p.Forms[now.Code] = p.Forms[was.Code]
			delete(p.Forms, was.Code)
		}
	}
	return d.eachOf(was.Code, func(k *drill.Drill) bool {
		is := now.Clone()
		is.Name, is.Range, is.Cues = k.Name, k.Range, k.Cues
		if k.Dose.Kind == is.Dose.Kind {
			k.Dose.TakePace(was.Dose, is.Dose)
		}
		is.Dose = k.Dose
		if len(is.Cues) == 0 {
			is.Cues = slices.Clone(now.Cues)
		}
		*k = is
		return true
	}, was.Name+" is "+now.Name)
}

// eachOf changes the plan's drills of a code; it says says where one was changed.
func (w *Work) eachOf(code string, change func(*drill.Drill) bool, says string) string {
	changed := false
	for b := range w.AllBlocks() {
		named := b.Name == b.Holds()
		for i := range b.Items {
			if b.Items[i].Drill.Code == code && change(&b.Items[i].Drill) {
				changed = true
			}
		}
		if named {
			b.Name = b.Holds()
		}
	}
	if !changed {
		return ""
	}
	return says
}

// PutForm puts a player on another form of a drill, or with "" on the usual one, and says so.
func (party *Party) PutForm(player, code, way string) string {
	p := party.Player(player)
	if p == nil || p.Forms[code] == way {
		return ""
	}
	if way == "" {
		delete(p.Forms, code)
		return p.ShortName() + " does it as everybody does"
	}
	if p.Forms == nil {
		p.Forms = map[string]string{}
	}
	p.Forms[code] = way
	return p.ShortName() + " does the " + way + " form"
}
