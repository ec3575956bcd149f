package today

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Offer is what the day could do to what a coach wrote, for one reason.
type Offer struct {
	IDs  []string // of its factors
	Says string   // "Cold, 4 °C: 30 % more Raise? 3 drills, 0:50 min longer"
}

// Offers lists what the day could do to what a coach wrote and has neither been taken nor
// refused: one for each reason, none of what would change nothing.
func Offers(d *plan.Document) (offers []Offer) {
	if d.Today.Written != plan.Ask {
		return nil
	}
	now := Apply(d)
	effects := map[string][]string{}
	for _, f := range Factors(d) {
		if f.taken(d) || slices.Contains(d.Today.Off, f.ID) {
			continue
		}
		if drills, _ := difference(now, Apply(with(d, f.ID))); drills == 0 {
			continue
		}
		n := slices.IndexFunc(offers, func(o Offer) bool { return o.Says == f.Reason })
		if n < 0 {
			n, offers = len(offers), append(offers, Offer{Says: f.Reason})
		}
		offers[n].IDs, effects[f.Reason] = append(offers[n].IDs, f.ID), append(effects[f.Reason], f.Effect())
	}
	for n := range offers {
		o := &offers[n]
		drills, seconds := difference(now, Apply(with(d, o.IDs...)))
		o.Says = fmt.Sprintf("%s%s: %s? %s, %s", strings.ToUpper(o.Says[:1]), o.Says[1:],
			strings.Join(effects[o.Says], ", "), drill.Number(drills, "drills"), longer(seconds))
	}
	return offers
}

// with is the document with factors taken.
func with(d *plan.Document, ids ...string) *plan.Document {
	taken := *d
	taken.Today.On = slices.Concat(d.Today.On, ids)
	return &taken
}

func longer(seconds int) string {
	switch {
	case seconds > 0:
		return clock.Lasting(seconds) + " longer"
	case seconds < 0:
		return clock.Lasting(-seconds) + " shorter"
	}
	return "as long"
}

// Holds tells whether a factor turns any dose of the document: none that is switched off,
// and what a coach wrote only where they want it.
func (f Factor) Holds(d *plan.Document) bool {
	if slices.Contains(d.Today.Off, f.ID) {
		return false
	}
	return f.taken(d) || slices.ContainsFunc(d.Blocks, func(b plan.Block) bool {
		return slices.ContainsFunc(b.Items, func(i plan.Item) bool { return !i.Written })
	})
}

// difference counts the drills of which the two, applied, do not do the same, and by how many
// seconds the day of who does most of them is longer.
func difference(before, after *plan.Document) (drills, seconds int) {
	by := map[string]int{}
	for i := range before.Blocks {
		b, a := &before.Blocks[i], &after.Blocks[i]
		changed := 0
		for n := range b.Items {
			if b.Items[n].Drill.Range.Target != a.Items[n].Drill.Range.Target {
				changed++
			}
		}
		if drills += changed; changed == 0 {
			continue
		}
		group := before.Group(b)
		for _, id := range before.Members(b.Who) {
			by[id] += a.Seconds(a.Targets(), group) - b.Seconds(b.Targets(), group)
		}
	}
	for _, one := range by {
		if max(one, -one) > max(seconds, -seconds) {
			seconds = one
		}
	}
	return drills, seconds
}

// AsWritten is what [Done] says where the day changes nothing.
const AsWritten = "all as written"

// Done says in a few words what the day has done to the doses: "all as written", "3 doses
// changed for the cold, 4 °C, by you"; nothing of a plan that nobody wrote.
func Done(d *plan.Document) string {
	plain := *d
	plain.Today = plan.Conditions{}
	plain.Grade = ""
	now := Apply(d)
	drills, _ := difference(Apply(&plain), now)
	written := slices.ContainsFunc(d.Blocks, func(b plan.Block) bool {
		return slices.ContainsFunc(b.Items, func(i plan.Item) bool { return i.Written })
	})
	switch {
	case drills == 0 && written:
		return AsWritten
	case drills == 0:
		return ""
	}
	var reasons []string
	mine := true
	for _, f := range Factors(d) {
		if slices.Contains(d.Today.Off, f.ID) {
			continue
		}
		without := *d
		without.Today.Off = append(slices.Clone(d.Today.Off), f.ID)
		if n, _ := difference(Apply(&without), now); n > 0 {
			mine = mine && f.taken(d)
			if !slices.Contains(reasons, f.Reason) {
				reasons = append(reasons, f.Reason)
			}
		}
	}
	says := drill.Number(drills, "doses") + " changed for " + strings.Join(reasons, " and ")
	if mine {
		says += ", by you"
	}
	return says
}
