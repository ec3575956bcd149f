package plan

import (
	"fmt"
	"slices"
	"strings"
)

// Names of roles that every sport has: who goes to the toss, who does not begin, and all
// the others where somebody does not.
const (
	Captain  = "Captain"
	Bench    = "Bench"
	Starters = "Starters"
)

// Turn says how a match begins for our side.
type Turn string

// The turns. Usual is for days on which it makes no difference, or nobody knows yet.
const (
	Usual Turn = ""
	First Turn = "first" // in action from the first second
	Later Turn = "later"
)

// Turns are what a sport calls them: "Batting first", "Bowling first".
type Turns struct {
	First string `json:"first,omitempty"`
	Later string `json:"later,omitempty"`
}

// Name is what a turn is called; "Not known yet" for [Usual].
func (t Turns) Name(turn Turn) string {
	switch {
	case turn == First && t.First != "":
		return t.First
	case turn == Later && t.Later != "":
		return t.Later
	}
	return map[Turn]string{Usual: "Not known yet", First: "We begin", Later: "They begin"}[turn]
}

// Due is when a position, unit or role has to be ready on a day that begins so, in
// seconds after the start; before it negative, and 0 where it is as everybody.
type Due struct {
	Who   []string `json:"who"` // ids of units and players
	First int      `json:"first,omitempty"`
	Later int      `json:"later,omitempty"`
}

// Fact is something known of today's opponent or partner, that drills can quote:
// "bowler: left-hander, high release".
type Fact struct {
	Name string `json:"name"`
	Says string `json:"says"`
}

// Bring is a thing to carry out, and who does.
type Bring struct {
	What string `json:"what"`
	Who  string `json:"who,omitempty"` // id of a player, a unit or a leader; "": not said
}

// SetTurn says how the day begins. Due times follow, and the blocks of the one day give
// way to those of the other.
func (d *Document) SetTurn(turn Turn) (string, error) {
	if turn != Usual && turn != First && turn != Later {
		return "", In("turn", "say how the day begins")
	}
	d.Turn = turn
	if len(d.Due) > 0 {
		for i := range d.Players {
			d.Players[i].DueShift = 0
		}
	}
	for _, due := range d.Due {
		at := map[Turn]int{First: due.First, Later: due.Later}[turn]
		if at == 0 {
			continue
		}
		for _, id := range d.Members(due.Who) {
			d.Player(id).DueShift = at + d.Margin
		}
	}
	return d.Turns.Name(turn), nil
}

// SetOn says on which days a block is run.
func (d *Document) SetOn(block string, on Turn) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	if on != Usual && on != First && on != Later {
		return "", In(AtBlock(block, "on"), "say on which days")
	}
	if b.On = on; on == Usual {
		return b.Name + " on every day", nil
	}
	return fmt.Sprintf("%s only: %s", b.Name, d.Turns.Name(on)), nil
}

// Roles are the roles of the day.
func (party *Party) Roles() (roles []Unit) {
	for _, u := range party.Units {
		if u.Today {
			roles = append(roles, u)
		}
	}
	return roles
}

// SetRole says who has a role today; nobody has it where there are no players. What
// the role was not known for is added under a new id.
func (d *Document) SetRole(name string, players []string) (string, error) {
	name = strings.TrimSpace(name)
	if problem := NameProblem(name); problem != "" {
		return "", In("roles", "%s", problem)
	}
	for _, id := range players {
		if d.Player(id) == nil {
			return "", In("roles", "this player is not in the plan")
		}
	}
	role := find(d.Units, name, func(u *Unit) string { return u.Name })
	switch {
	case role == nil:
		id := ""
		for n := 1; id == "" || d.Unit(id) != nil; n++ {
			id = fmt.Sprintf("role-%d", n)
		}
		d.Units = append(d.Units, Unit{ID: id, Name: name, Today: true})
		role = &d.Units[len(d.Units)-1]
	case !role.Today:
		return "", In("roles", "%s is a unit of the squad already: take another name", name)
	}
	if extra := len(players) - role.Of; role.Of > 0 && extra > 0 { // the newest take the place of the first
		players = players[extra:]
	}
	role.Players = d.Members(players)
	if all := find(d.Units, Starters, func(u *Unit) string { return u.Name }); name == Bench && all != nil {
		all.Players = slices.DeleteFunc(d.Members([]string{Everyone}),
			func(id string) bool { return slices.Contains(role.Players, id) })
	}
	d.SetTurn(d.Turn)
	if len(role.Players) == 0 {
		return "nobody is " + name, nil
	}
	return fmt.Sprintf("%s: %s", name, d.Audience(role.Players)), nil
}

// SetBench says whether a player does not begin today. Who does is then Starters.
func (d *Document) SetBench(player string, on bool) (string, error) {
	if d.Player(player) == nil {
		return "", In("players", "this player is not in the plan")
	}
	bench := []string{}
	if u := find(d.Units, Bench, func(u *Unit) string { return u.Name }); u != nil {
		bench = slices.DeleteFunc(slices.Clone(u.Players), func(id string) bool { return id == player })
	}
	if on {
		bench = append(bench, player)
	}
	if find(d.Units, Starters, func(u *Unit) string { return u.Name }) == nil {
		id := "starters"
		for n := 2; d.Unit(id) != nil || d.Player(id) != nil; n++ {
			id = fmt.Sprintf("starters-%d", n)
		}
		d.Units = append(d.Units, Unit{ID: id, Name: Starters, Players: d.Members([]string{Everyone})})
	}
	return d.SetRole(Bench, bench)
}

// OnBench tells whether a player does not begin today.
func (party *Party) OnBench(player string) bool {
	u := find(party.Units, Bench, func(u *Unit) string { return u.Name })
	return u != nil && slices.Contains(u.Players, player)
}

// RemoveRole forgets a role of the day. One that blocks are for stays.
func (d *Document) RemoveRole(id string) (string, error) {
	u := d.Unit(id)
	if u == nil || !u.Today {
		return "", In("roles", "this role is no longer in the plan")
	}
	for b := range d.AllBlocks() {
		if slices.Contains(b.Who, id) {
			return "", In("roles", "%s is for %s: give the block to somebody else first", b.Name, u.Name)
		}
	}
	name := u.Name
	d.Units = slices.DeleteFunc(d.Units, func(u Unit) bool { return u.ID == id })
	d.Due = slices.DeleteFunc(d.Due, func(due Due) bool { return slices.Contains(due.Who, id) })
	return name + " is no role today", nil
}

// AllBlocks yields the blocks of the run-in, then those of the lists.
func (w *Work) AllBlocks() func(yield func(*Block) bool) {
	return func(yield func(*Block) bool) {
		for i := range w.Blocks {
			if !yield(&w.Blocks[i]) {
				return
			}
		}
		for l := range w.Lists {
			for i := range w.Lists[l].Blocks {
				if !yield(&w.Lists[l].Blocks[i]) {
					return
				}
			}
		}
	}
}

// Idle says why a block is not run today: it is for days that begin otherwise, or for a
// role that nobody has. "" where it is run.
func (party *Party) Idle(b *Block) string {
	if turn := party.turned(); b.On != Usual && b.On != turn {
		return "only on a day that begins so: " + party.Turns.Name(b.On)
	}
	if len(party.Members(b.Who)) > 0 {
		return ""
	}
	if role := party.unfilled(b.Who); role != "" {
		return "nobody is " + role + " today"
	}
	return ""
}

// turned is how the day begins, or is taken to.
func (party *Party) turned() Turn {
	if party.Turn == Usual {
		return First
	}
	return party.Turn
}

// Nobody tells whether ids stand for nobody who can be here today: not even a role that
// somebody may yet be given.
func (party *Party) Nobody(ids []string) bool {
	return len(party.Members(ids)) == 0 && party.unfilled(ids) == ""
}

// unfilled names the roles among ids that nobody has, where there is nothing but such.
func (party *Party) unfilled(ids []string) string {
	var names []string
	for _, id := range ids {
		u := party.Unit(id)
		if u == nil || !u.Today {
			return ""
		}
		names = append(names, u.Name)
	}
	return strings.Join(names, ", ")
}

// Running is the document without what is not run today; itself where all of it is.
func (d *Document) Running() *Document {
	if !slices.ContainsFunc(d.Blocks, func(b Block) bool { return d.Idle(&b) != "" }) {
		return d
	}
	run := *d
	run.Blocks = slices.Clone(d.Blocks)
	for i := range run.Blocks {
		run.Blocks[i].After = slices.Clone(run.Blocks[i].After)
	}
	run.Blocks = slices.DeleteFunc(run.Blocks, func(b Block) bool { return d.Idle(&b) != "" })
	run.Unlink()
	return &run
}

// Quote puts what is known of today's opponent or partner into a text that asks for it:
// "feed as {bowler}". What is not known stays as its name.
func (t *Told) Quote(text string) string {
	if !strings.Contains(text, "{") {
		return text
	}
	for _, f := range t.Facing {
		text = strings.ReplaceAll(text, "{"+f.Name+"}", f.Says)
	}
	return strings.NewReplacer("{", "today's ", "}", "").Replace(text)
}

// SetFacing says what is known of today's opponent or partner, a line each: "bowler:
// left-hander, high release".
func (t *Told) SetFacing(text string) (string, error) {
	var facts []Fact
	for _, line := range strings.Split(strings.ReplaceAll(text, "\r", ""), "\n") {
		name, says, two := strings.Cut(line, ":")
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		if !two {
			name, says = "opponent", line
		}
		f := Fact{Name: strings.ToLower(strings.TrimSpace(name)), Says: strings.TrimSpace(says)}
		if NameProblem(f.Name) != "" || NameProblem(f.Says) != "" || strings.ContainsAny(line, "{}") {
			return "",
				In("facing",
					"write a line such as \u201cbowler: left-hander, high release\u201d, of up to %d characters",
					MaxName)
		}
		facts = append(facts, f)
	}
	if len(facts) > mostFacts {
		return "", In("facing", "%d lines at most", mostFacts)
	}
	t.Facing = facts
	return "who we meet today", nil
}

// SetBring says what is carried beside the drills' kit, a thing a line, with who does
// after a colon: "first-aid bag: Pell".
func (party *Party) SetBring(text string) (string, error) {
	var list []Bring
	for _, line := range strings.Split(strings.ReplaceAll(text, "\r", ""), "\n") {
		what, who, two := strings.Cut(line, ":")
		if what = strings.TrimSpace(what); what == "" {
			continue
		}
		bring := Bring{What: what}
		if problem := NameProblem(what); problem != "" {
			return "", In("bring", "%s", problem)
		}
		if who = strings.TrimSpace(who); two && who != "" {
			if bring.Who = party.named(who); bring.Who == "" {
				return "", In("bring", "%q is nobody of this plan: name a player, a unit or one of the staff", who)
			}
		}
		list = append(list, bring)
	}
	if len(list) > mostBring {
		return "", In("bring", "%d things at most", mostBring)
	}
	party.Bring = list
	return "what to bring", nil
}

const (
	mostFacts = 12
	mostBring = 30
)

// named is the id of a player, a unit or a leader by name, of a player by number too.
func (party *Party) named(name string) string {
	name = strings.TrimPrefix(name, "#")
	for _, p := range party.Players {
		if strings.EqualFold(name, p.ShortName()) || strings.EqualFold(name, strings.TrimSpace(p.First+" "+p.Last)) ||
			p.Number > 0 && name == fmt.Sprint(p.Number) {
			return p.ID
		}
	}
	for _, u := range party.Units {
		if strings.EqualFold(name, u.Name) {
			return u.ID
		}
	}
	for _, l := range party.Leaders {
		if first, _, _ := strings.Cut(l.Name, " "); strings.EqualFold(name, l.Name) || strings.EqualFold(name, first) {
			return l.ID
		}
	}
	for _, p := range party.Players {
		if strings.EqualFold(name, p.First) {
			return p.ID
		}
	}
	return ""
}

// WhoBrings names who brings a thing; "" where that was not said.
func (party *Party) WhoBrings(b Bring) string {
	if l := party.Leader(b.Who); l != nil {
		return l.Name
	}
	if b.Who == "" {
		return ""
	}
	return party.Audience([]string{b.Who})
}
