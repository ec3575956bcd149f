package planner

import (
	"cmp"
	"context"
	"reflect"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/core/today"
)

// ruled is what medical staff of a club have ruled, for whom.
type ruled struct {
	there map[uint64]string   // the club's players, as a board calls them
	named map[string][]uint64 // their ids by their names
	all   []Entry[club.Restriction]
}

func (p *Planner) ruled(ctx context.Context, clubID uint64) (r ruled, err error) {
	players, err := entries[club.Player](ctx, p, clubID)
	if err != nil {
		return r, err
	}
	r.there, r.named = map[uint64]string{}, map[string][]uint64{}
	for _, k := range players {
		name := fullName(k.Is.First, k.Is.Last)
		r.there[k.ID], r.named[name] = plan.Player{First: k.Is.First, Last: k.Is.Last}.ShortName(), append(r.named[name], k.ID)
	}
	r.all, err = entries[club.Restriction](ctx, p, clubID)
	return r, err
}

// who are the club's players that a plan's player may be: the one it names, or
// where that is none of the club's, all of that name. None are known where the
// club has nobody of either.
func (all ruled) who(player plan.Player) (ids []uint64, known bool) {
	if all.there[player.Roster] != "" {
		return []uint64{player.Roster}, true
	}
	ids, known = all.named[fullName(player.First, player.Last)]
	return ids, known
}

// of are the restrictions that a plan has to hold on its day, and in words what
// of them it does not hold yet. Whom the club does not know keeps what the plan
// says.
func (all ruled) of(d *plan.Document) (hold []plan.Restriction, newer []string) {
	day, _, _ := cutDay(d.Start.Local)
	for _, player := range d.Players {
		ids, known := all.who(player)
		var before, now []plan.Restriction
		for _, r := range d.Restrictions {
			if r.Player == player.ID {
				before = append(before, r)
			}
		}
		for _, r := range all.all {
			if slices.Contains(ids, r.Owner) && r.Is.Holds(day) {
				now = append(now, r.Is.For(player.ID))
			}
		}
		if !known {
			now = before
		}
		hold = append(hold, now...)
		name := player.ShortName()
		if player.First == "" {
			name = all.there[player.Roster]
		}
		switch {
		case sameRulings(before, now):
		case len(now) == 0:
			newer = append(newer, name+": lifted")
		default:
			var words []string
			for _, r := range now {
				words = append(words, Words(r))
			}
			newer = append(newer, name+": "+strings.Join(words, ", "))
		}
	}
	return hold, newer
}

func fullName(first, last string) string { return strings.ToLower(first + " " + last) }

// sameRulings tells whether two sets of restrictions of a player are one.
func sameRulings(a, b []plan.Restriction) bool {
	sorted := func(list []plan.Restriction) []plan.Restriction {
		list = slices.Clone(list)
		slices.SortFunc(list, func(x, y plan.Restriction) int { return cmp.Compare(Words(x), Words(y)) })
		return list
	}
	return len(a) == len(b) && (len(a) == 0 || reflect.DeepEqual(sorted(a), sorted(b)))
}

// Words says what a plan's restriction rules.
func Words(r plan.Restriction) string {
	return club.Restriction{NoJumps: r.NoJumps, NoOverhead: r.NoOverhead, MaxEffort: int(100*r.MaxEffort + 0.5), Spare: r.Spare, MaxMinutes: r.MaxMinutes}.Words()
}

// TakeRulings brings a plan, as it is by now, up to what medical staff have ruled. It fails
// with ErrNotFound.
func (p *Planner) TakeRulings(ctx context.Context, by Account, id uint64) (*Board, error) {
	revision, _, err := p.store.InForce(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	all, err := p.ruled(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	b, err := p.Book(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		d.Restrictions, _ = all.of(d)
		for _, v := range today.Versions(d) { // what the book has in its place
			item := &d.Block(v.Block).Items[v.Item]
			if stand := b.Item(item.Drill, d.Grade); item.Easier == nil && item.Swap == nil {
				item.Easier, item.Swap = stand.Easier, stand.Swap
			}
		}
		return "what medical staff ruled", nil
	})
}
