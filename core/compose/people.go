package compose

import (
	"fmt"
	"slices"
	"strings"
	"unicode"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/core/today"
)

// units makes the document's units of the squad's own and the sport's, of
// positions that somebody plays today.
func (d *day) units() {
	taken := map[string]bool{}
	for _, p := range d.doc.Players {
		taken[p.ID] = true
	}
	for _, z := range d.doc.Zones {
		taken[z.ID] = true
	}
	add := func(name string, players []string) {
		if len(players) == 0 || slices.ContainsFunc(d.doc.Units, func(u plan.Unit) bool { return u.Name == name }) {
			return
		}
		id := "u-" + slug(name)
		for n := 2; taken[id]; n++ {
			id = fmt.Sprintf("u-%s-%d", slug(name), n)
		}
		taken[id] = true
		d.doc.Units = append(d.doc.Units, plan.Unit{ID: id, Name: name, Players: players})
	}
	for _, u := range d.Units {
		if here := d.doc.Members(u.Players); len(here) > 0 {
			add(u.Name, here)
		}
	}
	for _, u := range d.Sport.Units {
		var players []string
		for _, p := range d.doc.Players {
			if plan.PlaysOneOf(p.Position, u.Positions) {
				players = append(players, p.ID)
			}
		}
		add(u.Name, players)
	}
	if bench := d.doc.Members(d.Bench); len(bench) > 0 && len(bench) < len(d.doc.Players) {
		var begin []string
		for _, p := range d.doc.Players {
			if !slices.Contains(bench, p.ID) {
				begin = append(begin, p.ID)
			}
		}
		add(plan.Starters, begin)
		add(sport.Bench, bench)
		d.doc.Units[len(d.doc.Units)-1].Today = true
	}
	if len(d.doc.Players) > 1 {
		d.roles(add)
	}
}

// roles are those of the day: the sport's, and what else the brief says. Nobody may have
// one yet.
func (d *day) roles(add func(name string, players []string)) {
	names := make([]string, 0, len(d.Sport.Roles)+1)
	if d.Kind == plan.Match {
		names = append(names, plan.Captain)
	}
	for _, r := range d.Sport.Roles {
		names = append(names, r.Name)
	}
	for _, r := range d.Roles {
		if !slices.Contains(names, r.Name) {
			names = append(names, r.Name)
		}
	}
	for _, name := range names {
		var players []string
		if i := slices.IndexFunc(d.Roles, func(r plan.Unit) bool { return r.Name == name }); i >= 0 {
			players = d.doc.Members(d.Roles[i].Players)
		}
		if name == plan.Captain && d.doc.Player(d.Captain) != nil {
			players = []string{d.Captain}
		}
		before := len(d.doc.Units)
		if add(name, append(players, "")); len(d.doc.Units) > before { // "": it may be nobody's
			u := &d.doc.Units[before]
			u.Players, u.Today, u.Of = players, true, d.Sport.HowMany(name)
		}
	}
}

// slug is a name in letters that an id may hold.
func slug(name string) string {
	words := strings.FieldsFunc(strings.ToLower(name),
		func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) })
	return strings.Join(words, "-")
}

// who resolves a position, a unit or the bench to ids of the document: that of a unit where there
// is one, else of players.
func (d *day) who(names ...string) (ids []string) {
	for _, name := range names {
		if i := slices.IndexFunc(d.doc.Units, func(u plan.Unit) bool { return u.Name == name }); i >= 0 {
			ids = append(ids, d.doc.Units[i].ID)
			continue
		}
		for _, p := range d.doc.Players {
			if plan.Plays(p.Position, name) {
				ids = append(ids, p.ID)
			}
		}
	}
	return ids
}

// due says when the roles that begin earlier or later than others have to be ready.
func (d *day) due() {
	if d.Kind == plan.Training {
		return
	}
	d.doc.Turns, d.doc.Measure = d.Sport.Begins, d.Sport.System
	for _, due := range d.Sport.Due {
		if who := d.who(due.Who); len(who) > 0 {
			d.doc.Due = append(d.doc.Due, plan.Due{Who: who, First: due.First * 60, Later: due.Later * 60})
		}
	}
	d.doc.SetTurn(d.Turn)
}

// late tells whether a player misses a third of the time.
func (c *composer) late(p *plan.Player) bool { return p.MissesMuch(c.free()) }

// excuse takes those who came late and are cold yet out of hard work. It reports whether that is
// what the finding was about.
func (d *day) excuse(f check.Finding) bool {
	b := d.doc.Block(f.Where)
	if f.Rule != "deep-cold" || b == nil ||
		slices.ContainsFunc(f.Players, func(id string) bool { return d.doc.Player(id).Late == 0 }) {
		return false
	}
	d.leave(b, f.Players, "comes late and is cold yet")
	return true
}

// warmLonger lets the squad's Raise not be cut, then do as much as it may, then
// hold one drill more. It reports whether there was anything to lengthen.
func (c *composer) warmLonger() (longer bool) {
	b := c.doc.Block(string(drill.Raise))
	if b == nil {
		return false
	}
	for i := range b.Items {
		r := &b.Items[i].Drill.Range
		longer = longer || r.Min < r.Target || r.Target < r.Max
		if r.Min == r.Target {
			r.Target = r.Max
		}
		r.Min = r.Target
	}
	if longer || len(b.Items) >= itemsAtMost {
		return longer
	}
	k := c.best(drill.Raise, func(k drill.Drill) bool { return k.Effort >= 0.5 }, leastRaise, c.doc.Group(b),
		&coverage{}, false)
	if k != nil {
		c.done.add(*k, c.Sport.Stresses)
		b.Items = append(b.Items, c.item(*k))
	}
	return k != nil
}

// leave takes players out of a block, and the block out with its last player.
func (d *day) leave(b *plan.Block, players []string, why string) {
	for _, id := range players {
		d.says = append(d.says, fmt.Sprintf("%s leaves out %s: %s", d.doc.Player(id).ShortName(), b.Name, why))
	}
	b.Who = slices.DeleteFunc(d.doc.Members(b.Who), func(id string) bool { return slices.Contains(players, id) })
	if len(b.Who) == 0 {
		d.doc.Remove(b.ID)
	}
}

// rulings takes players out of blocks in which a drill touches what medical staff ruled for them
// and nothing stands in for it.
func (d *day) rulings() {
	for _, v := range today.Versions(d.doc) {
		b := d.doc.Block(v.Block)
		if v.Drill != nil || b == nil || !slices.Contains(d.doc.Members(b.Who), v.Player) {
			continue
		}
		d.leave(b, []string{v.Player}, v.Reason)
	}
}
