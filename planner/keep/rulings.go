package keep

import (
	"cmp"
	"context"
	"reflect"
	"slices"
	"strings"
	"time"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/core/today"
	"cuestart/planner"
	"cuestart/planner/books"
	"cuestart/store"
)

// Ruled is what medical staff of a club have ruled, for whom.
type Ruled struct {
	there  map[uint64]string   // all who are or were the club's players, as a board calls them
	named  map[string][]uint64 // their ids by their names
	gone   map[uint64]bool
	all    []planner.Entry[club.Restriction]
	knocks []store.Knock
}

// Ruled is what medical staff of a club have ruled by now.
func (kp *Keep) Ruled(ctx context.Context, clubID uint64) (Ruled, error) {
	ruled, err := kp.people.Ruled(ctx, clubID)
	return ruledBy(ruled), err
}

func ruledBy(ruled store.Ruled) Ruled {
	r := Ruled{there: map[uint64]string{}, named: map[string][]uint64{}, gone: map[uint64]bool{}, all: ruled.Rulings,
		knocks: ruled.Knocks}
	for _, k := range ruled.Players {
		name := planner.FullName(k.First, k.Last)
		r.there[k.ID], r.named[name], r.gone[k.ID] = plan.Player{First: k.First, Last: k.Last}.ShortName(),
			append(r.named[name], k.ID), k.Gone
	}
	return r
}

// who are the club's players that a plan's player may be: the one it names, and whoever of
// that name has left, for leaving and coming back lifts no ruling; where it names none of the
// club's, all of that name. None are known where the club never had anybody of either.
func (all Ruled) who(player plan.Player) (ids []uint64, known bool) {
	ids, known = all.named[planner.FullName(player.First, player.Last)]
	if all.there[player.Roster] == "" {
		return ids, known
	}
	ids = slices.DeleteFunc(slices.Clone(ids), func(id uint64) bool { return id == player.Roster || !all.gone[id] })
	return append(ids, player.Roster), true
}

// Of are the restrictions that a plan has to hold on its day, and in words what
// of them it does not hold yet. Whom the club does not know keeps what the plan
// says.
func (all Ruled) Of(d *plan.Document) (hold []plan.Restriction, newer []string) {
	day, _, _ := planner.CutDay(d.Start.Local)
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

// knocked are the players of a plan who had a knock to the head and may not be in it: medical
// staff have not answered, or have said that they stay out that day.
func (all Ruled) knocked(d *plan.Document) (names []string) {
	day, _, _ := planner.CutDay(d.Start.Local)
	for _, player := range d.Players {
		for _, k := range all.knocks {
			ok := k.Roster != 0 && k.Roster == player.Roster || k.Roster == 0 && k.Name == player.Label()
			zone, err := time.LoadLocation(d.Start.Zone)
			if ok && (!k.Answered || err == nil && k.At.In(zone).Format(time.DateOnly) == day) {
				names = append(names, player.ShortName())
				break
			}
		}
	}
	return names
}

// Publishable is what a plan has to hold to be published, whoever publishes it and by which way: all
// that medical staff have ruled by now, and nobody in it who had a knock to the head that they
// have not answered. It fails with [plan.Problems].
func Publishable(d *plan.Document, ruled store.Ruled) error {
	all := ruledBy(ruled)
	if names := all.knocked(d); names != nil {
		return plan.In("board",
			"Out after a knock to the head, until medical staff have answered: %s. Take them out of the plan first.",
			strings.Join(names, ", "))
	}
	if _, newer := all.Of(d); len(newer) > 0 {
		return plan.In("board", "Medical staff have ruled since this plan was made: take that in first. %s.",
			strings.Join(newer, "; "))
	}
	return nil
}

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
	return club.Restriction{NoJumps: r.NoJumps, NoOverhead: r.NoOverhead, MaxEffort: int(100*r.MaxEffort + 0.5),
		Spare: r.Spare, MaxMinutes: r.MaxMinutes}.Words()
}

// HoldRulings brings a plan up to what medical staff have ruled by now.
func (kp *Keep) HoldRulings(ctx context.Context, clubID uint64, d *plan.Document) error {
	all, err := kp.Ruled(ctx, clubID)
	if err != nil {
		return err
	}
	b, err := kp.books.Book(ctx, clubID)
	if err != nil {
		return err
	}
	Hold(d, all, b)
	return nil
}

// Hold is what a plan holds of what is ruled, with what the book has in place of its drills.
func Hold(d *plan.Document, all Ruled, b *books.Book) {
	d.Restrictions, _ = all.Of(d)
	b.FillForms(d)
	for _, v := range today.Versions(d) {
		item := &d.Block(v.Block).Items[v.Item]
		if stand := b.Item(item.Drill, d.Grade); item.Easier == nil && item.Swap == nil {
			item.Easier, item.Swap = stand.Easier, stand.Swap
		}
	}
}

// Reasons are those of a player's rulings, by ruling: the one door to them. It is for medical
// staff who have proved lately who they are, and it is written down that they read. It fails
// with ErrForbidden.
func (kp *Keep) Reasons(ctx context.Context, by planner.Account, player uint64) (map[uint64]string, error) {
	if err := kp.mayRead(ctx, by); err != nil {
		return nil, err
	}
	return kp.people.Reasons(ctx, by, player)
}

// mayRead fails with ErrForbidden, and with ErrUnproved where the password was not given of
// late.
func (kp *Keep) mayRead(ctx context.Context, by planner.Account) error {
	if err := planner.May(by, planner.ToRead); err != nil {
		return err
	}
	proved, err := kp.base.Prove(ctx, by)
	if err == nil && !proved {
		err = planner.ErrUnproved
	}
	return err
}
