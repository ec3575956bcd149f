package check

import (
	"fmt"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

func tooLong(r *reading) {
	r.over(func(l drill.Load) int { return l.Seconds / 60 }, caps[r.grade()].minutes, "%s: %d minutes of work, %d are enough",
		func(d drill.Drill) bool { return true }, "Turn doses down")
}

func tooManyContacts(r *reading) {
	r.over(func(l drill.Load) int { return l.Contacts }, caps[r.grade()].contacts, "%s: %d ground contacts, %d at most",
		func(d drill.Drill) bool { return d.ContactsPerUnit > 0 }, "Turn the jumps down")
}

func tooManySprints(r *reading) {
	r.over(func(l drill.Load) int { return l.SprintMetres }, caps[r.grade()].sprintMetres, "%s: %d m at 90 %% and over, %d at most",
		func(d drill.Drill) bool { return d.Effort >= drill.SprintEffort && d.Dose.Kind == drill.Travel }, "Turn the sprints down")
}

func groundTime(r *reading) {
	var players []string
	for _, p := range r.Document.Players {
		if l := r.carried[p.ID]; l.Seconds > 0 && 3*l.GroundSeconds > l.Seconds {
			players = append(players, p.ID)
		}
	}
	if len(players) == 0 {
		return
	}
	ground := func(d drill.Drill) bool { return d.Ground }
	r.add("", r.names(players)+": more than a third of the work on the ground", players, "Turn the ground work down",
		leastOf(ground),
		func(d *plan.Document) bool {
			done := false
			for _, b := range slices.Clone(d.Blocks) {
				done = takeAll(b.ID, ground)(d) || done
			}
			return done
		})
}

func oneSide(r *reading) {
	for b, n := range r.drills() {
		if k := b.Items[n].Drill; k.OneSided && k.Dose.Sides == 1 {
			r.add(b.ID, k.Name+" is done on one side only", nil, "Do it on both", alter(b.ID, k.Code, func(k *drill.Drill) { k.Dose.Sides = 2 }))
		}
	}
}

// queue finds drills in which people wait for more than half of the time.
func queue(r *reading) {
	for b, n := range r.drills() {
		k := b.Items[n].Drill
		all := k.Work(b.Amount(n), b.Group)
		own := k.Work(b.Amount(n), drill.Group{People: 1, Lanes: 1})
		if k.Together || all <= 0 || own >= all/2 {
			continue
		}
		r.add(b.ID, fmt.Sprintf("%s: %d share %d, and wait %.0f of %.0f s", k.Name, b.Group.People, b.Group.Lanes, all-own, all), nil, "Use more lanes or stations",
			set(b.ID, func(b *plan.Block) { b.Stations = 0 }), moreLanes(b.ID, b.Group.People), takeOut(b.ID, k.Code))
	}
}

// moreLanes makes a lane for two of the people in the place of a block.
func moreLanes(block string, people int) change {
	return func(d *plan.Document) bool {
		b := d.Block(block)
		z := d.Zone(b.Zone)
		if z == nil || z.Lanes >= people {
			return false
		}
		b.Stations = 0
		z.Lanes = (people + 1) / 2
		return true
	}
}

func kitShort(r *reading) {
	for b, n := range r.drills() {
		k := b.Items[n].Drill
		wants := k.Pieces(b.Group)
		for _, kit := range k.Kit {
			if have, counted := r.Document.Kit[kit]; counted && have < wants {
				r.add(b.ID, fmt.Sprintf("%s wants %d of %s, and there are %d", k.Name, wants, kit, have), nil, "Take "+k.Name+" out", takeOut(b.ID, k.Code))
			}
		}
	}
}

func partner(r *reading) {
	for i := range r.day.Blocks {
		b := &r.day.Blocks[i]
		missing := 0
		for _, id := range b.Who {
			if id != plan.Everyone && r.day.Unit(id) == nil && r.day.Player(id) == nil {
				missing++
			}
		}
		if missing > 0 {
			r.add(b.ID, fmt.Sprintf("%s names %s not here today", b.Name, plural(missing, "player", "players")), nil, "Go on with those who are here",
				func(d *plan.Document) bool {
					b := d.Block(b.ID)
					b.Who = slices.DeleteFunc(b.Who, func(id string) bool { return id != plan.Everyone && d.Unit(id) == nil && d.Player(id) == nil })
					return len(b.Who) > 0
				}, drop(b.ID))
		}
	}
}

func gridUntried(r *reading) {
	for i := range r.blocks {
		b := &r.blocks[i]
		if b.Kept {
			continue
		}
		for _, item := range b.Items {
			if item.Drill.Dose.Kind == drill.Grid {
				r.add(b.ID, fmt.Sprintf("%s is left out: %d places stay untried", b.Name, item.Drill.Dose.Cells), nil, "Make it a must",
					set(b.ID, func(b *plan.Block) { b.Priority = plan.Must }))
			}
		}
	}
}

func noLeader(r *reading) {
	if len(r.Document.Leaders) == 0 {
		return
	}
	for b := range r.kept() {
		if b.Leader != "" || b.Phase == drill.Own {
			continue
		}
		var tries []change
		for _, l := range r.Document.Leaders {
			tries = append(tries, set(b.ID, func(b *plan.Block) { b.Leader = l.ID }))
		}
		r.add(b.ID, "Nobody leads "+b.Name, nil, "Ask who is free", tries...)
	}
}

func acts(r *reading) {
	for b, n := range r.drills() {
		k := b.Items[n].Drill
		if !k.Turns() {
			continue
		}
		switch units := k.Dose.WithAmount(b.Amount(n)).Units(); {
		case units < actsAtLeast:
			r.add(b.ID, fmt.Sprintf("%s: only %s", k.Name, k.Words(b.Amount(n))), nil, "Do a few more", alter(b.ID, k.Code, moreActs))
		case units > actsAtMost:
			r.add(b.ID, fmt.Sprintf("%s: %d tries each", k.Name, units), nil, "Do fewer", alter(b.ID, k.Code, fewerActs))
		}
	}
}

func moreActs(k *drill.Drill) {
	for k.Dose.WithAmount(k.Range.Min).Units() < actsAtLeast {
		k.Range.Min++
	}
	k.Range.Target, k.Range.Max = max(k.Range.Target, k.Range.Min), max(k.Range.Max, k.Range.Min)
}

func fewerActs(k *drill.Drill) {
	for k.Range.Target > 1 && k.Dose.WithAmount(k.Range.Target).Units() > actsAtMost {
		k.Range.Target--
	}
	k.Range.Min = min(k.Range.Min, k.Range.Target)
}

// trains tells whether any kept drill fits.
func (r *reading) trains(fits func(drill.Drill) bool) bool {
	for b, n := range r.drills() {
		if fits(b.Items[n].Drill) {
			return true
		}
	}
	return false
}

// addTo offers to put a drill of the book that fits into a kept block of its
// phase, or else to add it as a block.
func (r *reading) addTo(fits func(drill.Drill) bool) []change {
	var tries []change
	for _, phase := range []drill.Phase{drill.Mobilise, drill.Activate, drill.Raise} {
		known := r.from(func(d drill.Drill) bool { return d.Serves(phase) && fits(d) && !d.NeedsWarm && !d.Static })
		if known == nil {
			continue
		}
		item := plan.Item{Drill: *known}
		least(&item.Drill)
		for b := range r.kept() {
			if b.Phase == phase && len(b.Items) < plan.MaxItems {
				tries = append(tries, set(b.ID, func(b *plan.Block) { b.Items = append(b.Items, item) }))
			}
		}
		tries = append(tries, extra(known, known.Name, phase, []string{plan.Everyone}))
	}
	return tries
}

func plane(r *reading) {
	if !r.trains(func(d drill.Drill) bool { return len(d.Planes) > 0 }) {
		return // the drills do not say
	}
	for _, p := range planes {
		fits := func(d drill.Drill) bool { return anyOf(d.Planes, p) }
		if !r.trains(fits) {
			r.add(p, "Nothing moves in the "+p+" plane", nil, "Add a drill that does", r.addTo(fits)...)
		}
	}
}

func joint(r *reading) {
	for _, j := range r.Document.Stresses {
		fits := func(d drill.Drill) bool { return anyOf(d.Regions, j) }
		if !r.trains(fits) {
			r.add(j, "Nothing prepares the "+j, nil, "Add a drill that does", r.addTo(fits)...)
		}
	}
}

func noAim(r *reading) {
	for i := range r.day.Blocks {
		b := &r.day.Blocks[i]
		if b.Aim == "" && len(b.Items) > 0 {
			aim := b.Items[0].Drill.Aim
			r.add(b.ID, b.Name+" has no aim", nil, "Take the aim of its first drill", set(b.ID, func(b *plan.Block) { b.Aim = aim }))
		}
	}
}

func sameAgain(r *reading) {
	if len(r.Earlier) < sameTooOften {
		return
	}
	is := r.Document.Content()
	if slices.ContainsFunc(r.Earlier[:sameTooOften], func(was []string) bool { return !slices.Equal(was, is) }) {
		return
	}
	r.add("", fmt.Sprintf("The same plan for the %dth time running", sameTooOften+1), nil, "")
}

func twoChanges(r *reading) {
	if len(r.Earlier) < 2 || !slices.Equal(r.Earlier[0], r.Earlier[1]) {
		return // not a routine that is being read
	}
	changed := 0
	for _, x := range r.Document.Content() {
		if !slices.Contains(r.Earlier[0], x) {
			changed++
		}
	}
	if changed > 1 {
		r.add("", fmt.Sprintf("%s new since last time", plural(changed, "drill is", "drills are")), nil, "")
	}
}
