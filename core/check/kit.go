package check

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// queue finds drills in which people wait for more than half of the time.
func queue(r *reading) {
	for b, n := range r.drills() {
		k := b.Items[n].Drill
		all := b.Work(n, b.Amount(n), b.Group)
		own := k.Work(b.Amount(n), drill.Group{People: 1, Lanes: 1})
		group := b.At(n, b.Group)
		if k.Together || all <= 0 || b.Alongside(n) || b.Items[n].AtOnce > 0 /* they take turns on purpose */ ||
			own >= all/2 || all-own < QueueLeast {
			continue
		}
		mend, changes := r.lessQueue(b, k)
		r.add(b.ID, fmt.Sprintf("%s: %d people share %s, and each waits %s of %s", k.Name, group.People,
			plural(k.LanesIn(group), "lane or station", "lanes or stations"), lasting(int(all-own)), lasting(int(all))),
			nil, mend, changes...)
	}
}

// lessQueue is what may make a queue shorter: all the lanes that the place has, or
// a place with more.
func (r *reading) lessQueue(b *schedule.Block, k drill.Drill) (mend string, changes []change) {
	if z := r.Document.Zone(b.Zone); z != nil && b.Stations > 0 && z.Lanes > b.Stations {
		mend, changes = fmt.Sprintf("Use all %d lanes", z.Lanes),
			append(changes, set(b.ID, func(b *plan.Block) { b.Stations = 0 }))
	}
	if b.Zone == "" && b.Stations > 0 {
		mend, changes = "Use more stations",
			append(changes, set(b.ID, func(b *plan.Block) { b.Stations = (len(r.Document.Members(b.Who)) + 1) / 2 }))
	}
	for _, z := range r.Document.Zones {
		if z.ID != b.Zone && z.Lanes > b.Group.Lanes && z.Capacity >= len(b.Members) {
			if len(changes) == 0 {
				mend = fmt.Sprintf("Go to %s: %d lanes", z.Name, z.Lanes)
			}
			if !strings.HasPrefix(mend, "Use") {
				changes = append(changes, set(b.ID, func(b *plan.Block) { b.Zone, b.Stations = z.ID, 0 }))
			}
		}
	}
	if moving := (change)(nil); k.Dose.Kind == drill.Travel && k.Dose.Flow == drill.Regroup {
		moving = alter(b.ID, k.Code, func(k *drill.Drill) { k.Dose.Flow = drill.Continuous })
		if len(changes) == 0 {
			mend = "Keep the lines moving: nobody gathers between trips"
		}
		changes = append([]change{moving}, changes...)
	}
	if len(changes) == 0 {
		return "Take " + k.Name + " out", []change{takeOut(b.ID, k.Code)}
	}
	return mend, changes
}

// kitShort looks at each kind of kit by what it is: a player's, a lane's, the
// group's. What nobody has counted is not there; what nobody counts, since
// players own it or the place has it, suffices.
func kitShort(r *reading) {
	if len(r.Document.Kit) == 0 {
		return // nothing was counted at all
	}
	for b, n := range r.drills() {
		k := b.Items[n].Drill
		for _, kit := range k.Kit {
			r.short(b, n, kit, k.Pieces(b.At(n, b.Group)))
		}
		for _, kit := range k.LaneKit {
			r.short(b, n, kit, k.LanePieces(kit, b.At(n, b.Group)))
		}
		for _, kit := range k.GroupKit {
			r.short(b, n, kit, 1)
		}
	}
}

func (r *reading) short(b *schedule.Block, n int, kit string, wants int) {
	k, have := b.Items[n].Drill, r.Document.Kit[kit]
	if b.Items[n].AtOnce > 0 {
		wants = min(wants, b.Items[n].AtOnce)
	}
	if have >= wants || !drill.Counted(kit) {
		return
	}
	there := fmt.Sprintf("there %s %d", verb(have), have)
	if have == 0 {
		there = "there is none"
	}
	mend, changes := "Take "+k.Name+" out", []change{takeOut(b.ID, k.Code)}
	if other := r.instead(b.ID, func(d drill.Drill) bool { return d.Code == k.Code }); other(r.Document.Clone()) {
		mend, changes = "Do another version of "+k.Name, append([]change{other}, changes...)
	}
	switch {
	case have > 0 && (k.Turns() || slices.Contains(k.LaneKit, kit)):
		mend, changes = fmt.Sprintf("Use %s", plural(have, "lane or station", "lanes or stations")),
			append([]change{set(b.ID, func(b *plan.Block) { b.Stations = have })}, changes...)
	case have > 0 && slices.Contains(k.Kit, kit):
		turns := (wants + have - 1) / have
		mend = fmt.Sprintf("Take %d turns, %d at once", turns, have)
		changes = append([]change{set(b.ID, func(b *plan.Block) { b.Items[n].AtOnce = have })}, changes...)
	}
	r.add(b.ID, fmt.Sprintf("%s wants %d × %s, and %s", k.Name, wants, kit, there), nil, mend, changes...)
}

// noFitting finds drills that want what their place does not have, where it was said what
// places have.
func noFitting(r *reading) {
	if !slices.ContainsFunc(r.day.Zones, func(z plan.Zone) bool { return len(z.Fittings) > 0 }) {
		return
	}
	for b, n := range r.drills() {
		z, k := r.day.Zone(b.Zone), b.Items[n].Drill
		if z == nil {
			continue
		}
		for _, kit := range slices.Concat(k.Kit, k.LaneKit) {
			if !drill.Carried(kit) && !z.Has(kit) {
				mend, changes := r.elsewhere(b, k, kit)
				r.add(b.ID, fmt.Sprintf("%s wants %s, and %s has none", k.Name, kit, z.Name), nil, mend, changes...)
			}
		}
	}
}

// elsewhere is where a drill finds a fitting, or that it is left out.
func (r *reading) elsewhere(b *schedule.Block, k drill.Drill, fitting string) (mend string, changes []change) {
	for _, other := range r.Document.Zones {
		if other.Has(fitting) && other.Capacity >= len(b.Members) {
			return "Go to " + other.Name, []change{set(b.ID, func(b *plan.Block) { b.Zone = other.ID }),
				takeOut(b.ID, k.Code)}
		}
	}
	return "Take " + k.Name + " out", []change{takeOut(b.ID, k.Code)}
}

func verb(n int) string {
	if n == 1 {
		return "is"
	}
	return "are"
}

// longLine finds a line whose way out is longer than the place; its mend shortens every
// leg by the same share.
func (r *reading) longLine(b *schedule.Block, k drill.Drill, z *plan.Zone) {
	share := z.Metres / k.Dose.Reach()
	shorten := alter(b.ID, k.Code, func(k *drill.Drill) {
		k.Dose.Legs = slices.Clone(k.Dose.Legs)
		for i := range k.Dose.Legs {
			k.Dose.Legs[i].Metres = max(1, math.Floor(k.Dose.Legs[i].Metres*share))
		}
	})
	r.add(b.ID, fmt.Sprintf("%s goes out %s, and %s is %s long", k.Name, k.Dose.Length(k.Dose.Reach()), z.Name,
		k.Dose.Length(z.Metres)), nil, "Shorten its legs", shorten, takeOut(b.ID, k.Code))
}

// emptyStation finds stations that nobody begins at.
func emptyStation(r *reading) {
	for b := range r.kept() {
		if b.Form == plan.AtStations && len(b.Members) < len(b.Items) {
			r.add(b.ID, fmt.Sprintf("%s has %d stations for %s", b.Name, len(b.Items),
				plural(len(b.Members), "player", "players")), nil, "One after the other instead",
				set(b.ID, func(b *plan.Block) { b.Form = plan.InOrder }))
		}
	}
}

// tooFar finds lengths that are longer than the place.
func tooFar(r *reading) {
	for b, n := range r.drills() {
		k, z := b.Items[n].Drill, r.day.Zone(b.Zone)
		if z != nil && z.Metres > 0 && k.Dose.Kind == drill.Line && k.Dose.Reach() > z.Metres {
			r.longLine(b, k, z)
		}
		if z == nil || z.Metres <= 0 || k.Dose.Kind != drill.Travel || k.Dose.Metres <= z.Metres || k.Dose.To != "" {
			continue // a line of the ground lies beyond a place of it
		}
		changes := []change{alter(b.ID, k.Code, func(k *drill.Drill) { k.Dose.Metres = z.Metres })}
		r.add(b.ID, fmt.Sprintf("%s goes over %s, and %s is %s long", k.Name, k.Dose.Length(k.Dose.Metres), z.Name,
			k.Dose.Length(z.Metres)), nil, "Go over "+k.Dose.Length(z.Metres),
			append(changes, takeOut(b.ID, k.Code))...)
	}
}
