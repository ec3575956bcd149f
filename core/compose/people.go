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
func (c *composer) units() {
	taken := map[string]bool{}
	for _, p := range c.doc.Players {
		taken[p.ID] = true
	}
	for _, z := range c.doc.Zones {
		taken[z.ID] = true
	}
	add := func(name string, players []string) {
		if len(players) == 0 || slices.ContainsFunc(c.doc.Units, func(u plan.Unit) bool { return u.Name == name }) {
			return
		}
		id := "u-" + slug(name)
		for n := 2; taken[id]; n++ {
			id = fmt.Sprintf("u-%s-%d", slug(name), n)
		}
		taken[id] = true
		c.doc.Units = append(c.doc.Units, plan.Unit{ID: id, Name: name, Players: players})
	}
	for _, u := range c.Units {
		if here := c.doc.Members(u.Players); len(here) > 0 {
			add(u.Name, here)
		}
	}
	for _, u := range c.Sport.Units {
		var players []string
		for _, p := range c.doc.Players {
			if plan.PlaysOneOf(p.Position, u.Positions) {
				players = append(players, p.ID)
			}
		}
		add(u.Name, players)
	}
	if bench := c.doc.Members(c.Bench); len(bench) > 0 && len(bench) < len(c.doc.Players) {
		var begin []string
		for _, p := range c.doc.Players {
			if !slices.Contains(bench, p.ID) {
				begin = append(begin, p.ID)
			}
		}
		add(plan.Starters, begin)
		add(sport.Bench, bench)
		c.doc.Units[len(c.doc.Units)-1].Today = true
	}
	if len(c.doc.Players) > 1 {
		c.roles(add)
	}
}

// roles are those of the day: the sport's, and what else the brief says. Nobody may have
// one yet.
func (c *composer) roles(add func(name string, players []string)) {
	names := make([]string, 0, len(c.Sport.Roles)+1)
	if c.Kind == plan.Match {
		names = append(names, plan.Captain)
	}
	for _, r := range c.Sport.Roles {
		names = append(names, r.Name)
	}
	for _, r := range c.Roles {
		if !slices.Contains(names, r.Name) {
			names = append(names, r.Name)
		}
	}
	for _, name := range names {
		var players []string
		if i := slices.IndexFunc(c.Roles, func(r plan.Unit) bool { return r.Name == name }); i >= 0 {
			players = c.doc.Members(c.Roles[i].Players)
		}
		if name == plan.Captain && c.doc.Player(c.Captain) != nil {
			players = []string{c.Captain}
		}
		before := len(c.doc.Units)
		if add(name, append(players, "")); len(c.doc.Units) > before { // "": it may be nobody's
			u := &c.doc.Units[before]
			u.Players, u.Today, u.Of = players, true, c.Sport.HowMany(name)
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
func (c *composer) who(names ...string) (ids []string) {
	for _, name := range names {
		if i := slices.IndexFunc(c.doc.Units, func(u plan.Unit) bool { return u.Name == name }); i >= 0 {
			ids = append(ids, c.doc.Units[i].ID)
			continue
		}
		for _, p := range c.doc.Players {
			if plan.Plays(p.Position, name) {
				ids = append(ids, p.ID)
			}
		}
	}
	return ids
}

// due says when the roles that begin earlier or later than others have to be ready.
func (c *composer) due() {
	if c.Kind == plan.Training {
		return
	}
	c.doc.Turns, c.doc.Measure = c.Sport.Begins, c.Sport.System
	for _, due := range c.Sport.Due {
		if who := c.who(due.Who); len(who) > 0 {
			c.doc.Due = append(c.doc.Due, plan.Due{Who: who, First: due.First * 60, Later: due.Later * 60})
		}
	}
	c.doc.SetTurn(c.Turn)
}

// late tells whether a player misses a third of the time.
func (c *composer) late(p *plan.Player) bool { return p.MissesMuch(c.free()) }

// excuse takes those who came late and are cold yet out of hard work. It reports whether that is
// what the finding was about.
func (c *composer) excuse(f check.Finding) bool {
	b := c.doc.Block(f.Where)
	if f.Rule != "deep-cold" || b == nil ||
		slices.ContainsFunc(f.Players, func(id string) bool { return c.doc.Player(id).Late == 0 }) {
		return false
	}
	c.leave(b, f.Players, "comes late and is cold yet")
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
func (c *composer) leave(b *plan.Block, players []string, why string) {
	for _, id := range players {
		c.says = append(c.says, fmt.Sprintf("%s leaves out %s: %s", c.doc.Player(id).ShortName(), b.Name, why))
	}
	b.Who = slices.DeleteFunc(c.doc.Members(b.Who), func(id string) bool { return slices.Contains(players, id) })
	if len(b.Who) == 0 {
		c.doc.Remove(b.ID)
	}
}

// rulings takes players out of blocks in which a drill touches what medical staff ruled for them
// and nothing stands in for it.
func (c *composer) rulings() {
	for _, v := range today.Versions(c.doc) {
		b := c.doc.Block(v.Block)
		if v.Drill != nil || b == nil || !slices.Contains(c.doc.Members(b.Who), v.Player) {
			continue
		}
		c.leave(b, []string{v.Player}, v.Reason)
	}
}
