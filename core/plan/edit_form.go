package plan

import (
	"fmt"
	"slices"

	"cuestart/core/drill"
)

// FormFields is how a coach runs a block.
type FormFields struct {
	Form      Form
	Split     Split
	Rounds    int // 0: once
	Least     int // the fewest rounds that will do; 0: not said
	RoundRest int // seconds
	Change    int // seconds; 0: as usual
	Pick      int // 0: one
}

// SetForm says how a block is run. Groups and choices that were made stay, for when it
// is run so again.
func (d *Document) SetForm(block string, to FormFields) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	next := *b
	next.Form, next.Split, next.Rounds, next.RoundRest, next.Change, next.Pick = to.Form, to.Split, to.Rounds,
		to.RoundRest, to.Change, to.Pick
	next.LeastRounds = to.Least
	if to.Form != InOrder && len(b.Items) < 2 {
		return "", In(AtBlock(block, "form"), "it has one drill: put in another for stations or a choice")
	}
	v := validator{doc: d}
	if v.rounds(&next); v.problems == nil {
		v.form(&next)
	}
	if err := v.problems.Err(); err != nil {
		return "", err
	}
	*b = next
	return fmt.Sprintf("%s %s", b.Name, formWords[to.Form]), nil
}

// SetChoice says which drills of a block of choice a player does; none: as there is
// room.
func (d *Document) SetChoice(block, player string, items []int) (string, error) {
	b, p := d.Block(block), d.Player(player)
	switch {
	case b == nil:
		return "", ErrNoSuchBlock
	case p == nil:
		return "", In(AtBlock(block, "choice"), "this player is not in the plan")
	case slices.ContainsFunc(items, func(i int) bool { return i < 0 || i >= len(b.Items) }):
		return "", In(AtBlock(block, "choice"), "this drill is no longer in the block")
	}
	if b.Choices == nil {
		b.Choices = Choices{}
	}
	if b.Choices[player] = items; len(items) == 0 {
		delete(b.Choices, player)
		return p.ShortName() + " has no choice of their own", nil
	}
	return fmt.Sprintf("%s: %s", p.ShortName(), b.Items[items[0]].Drill.Name), nil
}

// Choose says that a player does a drill of a block by choice, in place of one that they
// had chosen before where they have chosen all that they may.
func (d *Document) Choose(block, player string, item int) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	if b.Form != ByChoice {
		return "", In(AtBlock(block, "choice"), "in %s there is nothing to choose", b.Name)
	}
	before := slices.DeleteFunc(slices.Clone(b.Choices[player]), func(i int) bool { return i == item })
	return d.SetChoice(block, player, append([]int{item}, before[:min(len(before), b.Picks()-1)]...))
}

// SetGroup says at which station of a block a player begins, from 0; the groups are made
// by hand from then on, as they stood.
func (d *Document) SetGroup(block, player string, station int) (string, error) {
	b, p := d.Block(block), d.Player(player)
	switch {
	case b == nil:
		return "", ErrNoSuchBlock
	case p == nil || station < 0 || station >= len(b.Items):
		return "", In(AtBlock(block, "groups"), "this player or station is not in the block")
	}
	groups := d.Teams(b)
	for i := range groups {
		groups[i] = slices.DeleteFunc(groups[i], func(id string) bool { return id == player })
	}
	groups[station] = append(groups[station], player)
	b.Split, b.Groups = ByHand, groups
	return fmt.Sprintf("%s begins at %s", p.ShortName(), b.Items[station].Drill.Name), nil
}

// SetAlongside says whether drill item of a block is done while the one before it is.
func (w *Work) SetAlongside(block string, item int, beside bool) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	if item == 0 && beside {
		return "", In(AtItem(block, item), "there is no drill before it to go with")
	}
	b.Items[item].Alongside = beside
	if beside {
		return fmt.Sprintf("%s alongside %s", b.Items[item].Drill.Name, b.Items[item-1].Drill.Name), nil
	}
	return b.Items[item].Drill.Name + " on its own", nil
}

// SetExact has drill item of a block done exactly as written, whatever the day and the
// minutes; or lets it go from half as much to half as much again.
func (w *Work) SetExact(block string, item int, exact bool) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	k := &b.Items[item].Drill
	r := &k.Range
	k.Dose.Exact = exact
	r.Min, r.Max = r.Target, r.Target
	if exact {
		return fmt.Sprintf("%s: exactly %s", k.Name, k.Words(r.Target)), nil
	}
	room := r.Target / 2 / r.Step * r.Step
	r.Min, r.Max = r.Target-room, min(r.Target+room, drill.MaxAmount)
	return fmt.Sprintf("%s: %s to %s", k.Name, k.Words(r.Min), k.Words(r.Max)), nil
}

// SetAtOnce says how many do drill item of a block at once, the others taking turns; 0:
// all.
func (w *Work) SetAtOnce(block string, item, people int) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	if people < 0 || people > MaxPlayers {
		return "", In(AtItem(block, item), "between 1 and all do it at once")
	}
	b.Items[item].AtOnce = people
	if people == 0 {
		return b.Items[item].Drill.Name + ", all at once", nil
	}
	return fmt.Sprintf("%s, %d at once", b.Items[item].Drill.Name, people), nil
}

// SetSides says on which sides drill item of a block is done: 1, 2 or 0, each player's
// own.
func (w *Work) SetSides(block string, item, sides int) (string, error) {
	b := w.Block(block)
	if b == nil || item < 0 || item >= len(b.Items) {
		return "", ErrNoSuchBlock
	}
	k := &b.Items[item].Drill
	if k.Dose.Kind != drill.Reps && k.Dose.Kind != drill.Hold || sides < 0 || sides > 2 {
		return "", In(AtItem(block, item), "only repetitions and holds have sides")
	}
	k.Dose.OwnSide, k.Dose.Sides = sides == 0, max(1, sides)
	return fmt.Sprintf("%s: %s", k.Name, k.Words(k.Range.Target)), nil
}
