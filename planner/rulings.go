package planner

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
	"cuestart/store"
)

// ruled is what medical staff of a club have ruled, for whom.
type ruled struct {
	there  map[uint64]string   // all who are or were the club's players, as a board calls them
	named  map[string][]uint64 // their ids by their names
	gone   map[uint64]bool
	all    []Entry[club.Restriction]
	knocks []store.Knock
}

func (p *Planner) ruled(ctx context.Context, clubID uint64) (ruled, error) {
	is, err := p.store.Ruled(ctx, clubID)
	return ruledBy(is), err
}

func ruledBy(is store.Ruled) ruled {
	r := ruled{there: map[uint64]string{}, named: map[string][]uint64{}, gone: map[uint64]bool{}, all: is.Rulings, knocks: is.Knocks}
	for _, k := range is.Players {
		name := fullName(k.First, k.Last)
		r.there[k.ID], r.named[name], r.gone[k.ID] = plan.Player{First: k.First, Last: k.Last}.ShortName(), append(r.named[name], k.ID), k.Gone
	}
	return r
}

// who are the club's players that a plan's player may be: the one it names, and whoever of
// that name has left, for leaving and coming back lifts no ruling; where it names none of the
// club's, all of that name. None are known where the club never had anybody of either.
func (all ruled) who(player plan.Player) (ids []uint64, known bool) {
	ids, known = all.named[fullName(player.First, player.Last)]
	if all.there[player.Roster] == "" {
		return ids, known
	}
	ids = slices.DeleteFunc(slices.Clone(ids), func(id uint64) bool { return id == player.Roster || !all.gone[id] })
	return append(ids, player.Roster), true
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

// knocked are the players of a plan who had a knock to the head and may not be in it: medical
// staff have not answered, or have said that they stay out that day.
func (all ruled) knocked(d *plan.Document) (names []string) {
	day, _, _ := cutDay(d.Start.Local)
	for _, player := range d.Players {
		for _, k := range all.knocks {
			is := k.Roster != 0 && k.Roster == player.Roster || k.Roster == 0 && k.Name == player.Label()
			zone, err := time.LoadLocation(d.Start.Zone)
			if is && (!k.Answered || err == nil && k.At.In(zone).Format(time.DateOnly) == day) {
				names = append(names, player.ShortName())
				break
			}
		}
	}
	return names
}

// publishable is what a plan has to hold to be published, whoever publishes it and by which way: all
// that medical staff have ruled by now, and nobody in it who had a knock to the head that they
// have not answered. It fails with [plan.Problems].
func publishable(d *plan.Document, is store.Ruled) error {
	all := ruledBy(is)
	if names := all.knocked(d); names != nil {
		return plan.In("board", "Out after a knock to the head, until medical staff have answered: %s. Take them out of the plan first.", strings.Join(names, ", "))
	}
	if _, newer := all.of(d); len(newer) > 0 {
		return plan.In("board", "Medical staff have ruled since this plan was made: take that in first. %s.", strings.Join(newer, "; "))
	}
	return nil
}

func fullName(first, last string) string {
	return strings.Join(strings.Fields(strings.ToLower(first+" "+last)), " ")
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
	return club.Restriction{NoJumps: r.NoJumps, NoOverhead: r.NoOverhead, MaxEffort: int(100*r.MaxEffort + 0.5), Spare: r.Spare, MaxMinutes: r.MaxMinutes}.Words()
}

// holdRulings brings a plan up to what medical staff have ruled by now.
func (p *Planner) holdRulings(ctx context.Context, clubID uint64, d *plan.Document) error {
	all, err := p.ruled(ctx, clubID)
	if err != nil {
		return err
	}
	b, err := p.Book(ctx, clubID)
	if err != nil {
		return err
	}
	hold(d, all, b)
	return nil
}

// hold is what a plan holds of what is ruled, with what the book has in place of its drills.
func hold(d *plan.Document, all ruled, b *Book) {
	d.Restrictions, _ = all.of(d)
	b.fillForms(d)
	for _, v := range today.Versions(d) {
		item := &d.Block(v.Block).Items[v.Item]
		if stand := b.Item(item.Drill, d.Grade); item.Easier == nil && item.Swap == nil {
			item.Easier, item.Swap = stand.Easier, stand.Swap
		}
	}
}

// TakeRulings brings a plan, as it is by now, up to what medical staff have ruled. It fails
// with ErrNotFound.
func (p *Planner) TakeRulings(ctx context.Context, by Account, id uint64) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
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
		hold(d, all, b)
		return "what medical staff ruled", nil
	})
}

// Reasons are those of a player's rulings, by ruling: the one door to them. It is for medical
// staff who have proved lately who they are, and it is written down that they read. It fails
// with ErrForbidden.
func (p *Planner) Reasons(ctx context.Context, by Account, player uint64) (map[uint64]string, error) {
	if err := p.mayRead(ctx, by); err != nil {
		return nil, err
	}
	return p.store.Reasons(ctx, by, player)
}

// mayRead fails with ErrForbidden, and with ErrUnproved where the password was not given of
// late.
func (p *Planner) mayRead(ctx context.Context, by Account) error {
	if err := May(by, ToRead); err != nil {
		return err
	}
	proved, err := p.Prove(ctx, by)
	if err == nil && !proved {
		err = ErrUnproved
	}
	return err
}
