package check

import (
	"fmt"
	"maps"
	"math"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/warmth"
)

// limit is what one player should carry of something, and which drills make it up.
type limit struct {
	figure func(drill.Load) int
	most   int
	what   string // of the players, the figure and the limit
	fits   func(drill.Drill) bool
	mend   string
}

func tooLong(r *reading) {
	r.over(limit{figure: func(l drill.Load) int { return (l.Seconds - l.StandSeconds) / 60 },
		most: caps[r.grade()].minutes,
		what: "%s: %d min of active work; for " + r.grade().Name() + " %d are enough",
		fits: func(d drill.Drill) bool { return !d.Quiet() }, mend: "Turn doses down"})
}

func tooManyContacts(r *reading) {
	r.over(limit{figure: func(l drill.Load) int { return l.Contacts }, most: caps[r.grade()].contacts,
		what: "%s: %d ground contacts, %d at the most",
		fits: func(d drill.Drill) bool { return d.ContactsPerUnit > 0 }, mend: "Turn the hardest jumps down first"})
}

func tooManySprints(r *reading) {
	in := r.Document.Measure
	r.over(limit{figure: func(l drill.Load) int { return int(in.In(float64(l.SprintMetres))) },
		most: int(in.In(float64(caps[r.grade()].sprintMetres))),
		what: "%s: %d " + in.Unit() + " at 90 %% and over, %d " +
			in.Unit() + " at the most",
		fits: func(d drill.Drill) bool {
			return d.PeakEffort(d.Range.Max) >= drill.SprintEffort && d.Dose.Kind == drill.Travel
		}, mend: "Turn the sprints down"})
}

// over reports the players whose load is over a limit, the largest figure named, and offers to
// turn down what fits, the hardest first.
func (r *reading) over(x limit) {
	var players []string
	most := 0
	for _, p := range r.Document.Players {
		if n := x.figure(r.carried[p.ID]); n > x.most {
			players = append(players, p.ID)
			most = max(most, n)
		}
	}
	if len(players) == 0 {
		return
	}
	share := float64(x.most) / math.Max(1, float64(most))
	changes := []change{hardestDown(x.fits, 1), hardestDown(x.fits, 3), leastOf(x.fits),
		each(x.fits, func(k *drill.Drill) {
			k.Range.Min = max(1, int(float64(k.Range.Min)*share))
			k.Range.Target = max(k.Range.Min, int(float64(k.Range.Target)*share))
		}), dropLeast(x.fits), takeHardest(x.fits)}
	r.add("", fmt.Sprintf(x.what, r.Names(players), most, x.most), players, x.mend, changes...)
}

func groundTime(r *reading) {
	var players []string
	for _, p := range r.Document.Players {
		if l := r.carried[p.ID]; l.Seconds > 0 && 3*l.GroundSeconds > l.Seconds+l.QuietSeconds {
			players = append(players, p.ID)
		}
	}
	if len(players) == 0 {
		return
	}
	ground := func(d drill.Drill) bool { return d.Ground }
	r.add("", r.Names(players)+": more than a third of the work on the ground", players, "Turn the ground work down",
		leastOf(ground),
		func(d *plan.Document) bool {
			done := false
			for _, b := range slices.Clone(d.Blocks) {
				done = takeAll(b.ID, ground)(d) || done
			}
			return done
		})
}

// oneSide finds what a player does on one side and not on the other: over the whole
// plan, once is one side, twice may be both.
func oneSide(r *reading) {
	for k := range r.strands {
		s := &r.strands[k]
		times, where := map[string]int{}, map[string]*warmth.Stretch{}
		for i := range s.Stretches {
			x := &s.Stretches[i]
			if x.Drill != nil && x.Drill.OneSided && single(x) {
				times[x.Drill.Code]++
				where[x.Drill.Code] = x
			}
		}
		for _, code := range slices.Sorted(maps.Keys(where)) {
			x := where[code]
			if times[code]%2 == 1 {
				r.add(x.Block.ID, x.Drill.Name+" is done on one side only", s.Players, "Do it on both sides",
					alter(x.Block.ID, code, bothSides))
			}
		}
	}
}

// single tells whether a stretch does one side: it says so, or makes one trip.
func single(x *warmth.Stretch) bool {
	switch x.Drill.Dose.Kind {
	case drill.Reps, drill.Hold:
		return x.Drill.Dose.Sides == 1
	case drill.Travel:
		return x.Amount == 1
	}
	return false
}

func bothSides(k *drill.Drill) {
	if k.Dose.Kind == drill.Travel {
		k.Range = drill.Range{Min: 2, Target: 2, Max: max(2, k.Range.Max), Step: 2}
		return
	}
	k.Dose.Sides = 2
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
			r.add(b.ID, fmt.Sprintf("%s names %s not here today", b.Name, plural(missing, "player", "players")), nil,
				"Go on with those who are here",
				func(d *plan.Document) bool {
					b := d.Block(b.ID)
					b.Who = slices.DeleteFunc(b.Who,
						func(id string) bool { return id != plan.Everyone && d.Unit(id) == nil && d.Player(id) == nil })
					return len(b.Who) > 0
				}, drop(b.ID))
		}
	}
}

func gridUntried(r *reading) {
	for i := range r.blocks {
		b := &r.blocks[i]
		for n, item := range b.Items {
			k := item.Drill
			cells := max(k.Dose.Cells, len(k.Rows)*len(k.Columns))
			switch {
			case !b.Kept && k.Dose.Kind == drill.Grid:
				r.add(b.ID, fmt.Sprintf("%s is left out: %d places stay untried", b.Name, cells), nil, "Make it a must",
					set(b.ID, func(b *plan.Block) { b.Priority = plan.Must }))
			case b.Kept && k.Dose.Kind == drill.Count && b.Amount(n) < cells:
				r.add(b.ID, fmt.Sprintf("%s: %s for %d places", k.Name, k.Words(b.Amount(n)), cells), nil,
					"One for each place",
					alter(b.ID, k.Code, func(k *drill.Drill) {
						k.Range.Min, k.Range.Target, k.Range.Max = cells, max(cells, k.Range.Target),
							max(cells, k.Range.Max)
					}))
			}
		}
	}
}

// few is up to how many people lead themselves.
const few = 2

// noLeader says once for all which blocks nobody leads.
func noLeader(r *reading) {
	if len(r.Document.Leaders) == 0 {
		return
	}
	var names []string
	var ids []string
	for b := range r.kept() {
		if b.Leader == "" && b.Phase != drill.Own && len(b.Members) > few {
			names, ids = append(names, b.Name), append(ids, b.ID)
		}
	}
	if len(ids) == 0 {
		return
	}
	var tries []change
	for _, l := range r.Document.Leaders {
		tries = append(tries, func(d *plan.Document) bool {
			for _, id := range ids {
				d.Block(id).Leader = l.ID
			}
			return true
		})
	}
	tries = append(tries, func(d *plan.Document) bool { return r.spread(d, ids) })
	where := ids[0]
	if len(ids) > 1 {
		where = ""
	}
	if len(names) > severally {
		names = append(names[:severally], plural(len(names)-severally, "more", "more"))
	}
	r.add(where, "Nobody takes "+listed(names)+" yet", nil, "Ask who is free", tries...)
}

// spread gives blocks to the leaders who have least to do meanwhile.
func (r *reading) spread(d *plan.Document, ids []string) bool {
	for _, id := range ids {
		i := slices.IndexFunc(r.blocks, func(b schedule.Block) bool { return b.ID == id })
		free := slices.IndexFunc(d.Leaders, func(l plan.Leader) bool {
			return !slices.ContainsFunc(r.blocks, func(b schedule.Block) bool {
				return d.Block(b.ID).Leader == l.ID && b.Kept && b.Start < r.blocks[i].End && b.End > r.blocks[i].Start
			})
		})
		if free < 0 {
			return false
		}
		d.Block(id).Leader = d.Leaders[free].ID
	}
	return true
}

func aboveLevel(r *reading) {
	for b, n := range r.drills() {
		if k := b.Items[n].Drill; !k.Suits(r.Document.Grade) {
			r.add(b.ID, fmt.Sprintf("%s is for %s players", k.Name, k.Least.Name()), nil, "Take the easier version",
				r.instead(b.ID, func(d drill.Drill) bool { return !d.Suits(r.Document.Grade) }), takeOut(b.ID, k.Code))
		}
	}
}

// acts adds up what each player throws, kicks and catches: of one drill against
// what was asked for, and of one kind against what tires.
func acts(r *reading) {
	for k := range r.strands {
		s := &r.strands[k]
		done, kinds := map[string]int{}, map[string]int{}
		for i := range s.Stretches {
			x := &s.Stretches[i]
			if x.Drill == nil || !x.Drill.Turns() {
				continue
			}
			units := int(float64(x.Drill.Dose.WithAmount(x.Amount).Units())*x.Share + 0.5)
			done[x.Drill.Code] += units
			for _, kind := range kindsOf(x.Drill) {
				if kinds[kind] += units; kinds[kind] > actsAtMost {
					r.add(x.Block.ID, fmt.Sprintf("%s: %d %s in all, with %s", r.Names(s.Players), kinds[kind], kind,
						x.Drill.Name), s.Players, "Do fewer",
						alter(x.Block.ID, x.Drill.Code, fewerActs), each(drill.Drill.Turns, fewerActs))
				}
			}
		}
		r.tooFew(s, done)
	}
}

// kindsOf are the sums that acts of a drill go into: what they are called, and
// whatever is thrown.
func kindsOf(k *drill.Drill) []string {
	kinds := []string{k.Unit}
	if k.Unit == "" {
		kinds[0] = "tries"
	}
	if k.Throws() && k.Unit != "throws" {
		kinds = append(kinds, "throws")
	}
	return kinds
}

// tooFew finds what a player does much less of than the plan asks for.
func (r *reading) tooFew(s *warmth.Strand, done map[string]int) {
	asked := map[string]int{}
	at := map[string]string{}
	for b, n := range r.drills() {
		known := &r.Document.Block(b.ID).Items[n].Drill
		if known.Turns() && b.Has(s.Players[0]) {
			asked[known.Code] += known.Dose.WithAmount(known.Range.Target).Units()
			at[known.Code] = b.ID
		}
	}
	for _, code := range slices.Sorted(maps.Keys(done)) {
		n := done[code]
		if float64(n) >= actsShare*float64(asked[code]) || r.content(s.Players) {
			continue
		}
		k := r.itemOf(at[code], code)
		r.add(at[code], fmt.Sprintf("%s: %d of %d %s", k.Name, n, asked[code], kindsOf(k)[0]), s.Players,
			"Do no fewer than asked for", alter(at[code], code, moreActs))
	}
}

func (in *Input) itemOf(block, code string) *drill.Drill {
	b := in.Document.Block(block)
	return &b.Items[slices.IndexFunc(b.Items, func(i plan.Item) bool { return i.Drill.Code == code })].Drill
}

func moreActs(k *drill.Drill) { k.Range.Min = k.Range.Target }

func fewerActs(k *drill.Drill) {
	for k.Range.Target > 1 && k.Dose.WithAmount(k.Range.Target).Units() > actsAtMost/2 {
		k.Range.Target--
	}
	k.Range.Min = min(k.Range.Min, k.Range.Target)
}

// lacking are the players whose own list has no drill that fits.
func (r *reading) lacking(fits func(*drill.Drill) bool, asks func(player string) bool) (players []string) {
	for k := range r.strands {
		s := &r.strands[k]
		works := slices.ContainsFunc(s.Stretches, func(x warmth.Stretch) bool { return x.Drill != nil })
		if !works || r.content(s.Players) || !asks(s.Players[0]) ||
			slices.ContainsFunc(s.Stretches, func(x warmth.Stretch) bool { return x.Drill != nil && fits(x.Drill) }) {
			continue
		}
		players = append(players, s.Players...)
	}
	return players
}

// addTo offers to put a drill of the book that fits into a kept block of its
// phase, or else to add it as a block.
func (r *reading) addTo(fits func(drill.Drill) bool, players []string) []change {
	var tries []change
	for _, phase := range []drill.Phase{drill.Mobilise, drill.Activate, drill.Raise} {
		known := r.from(func(d drill.Drill) bool { return d.Serves(phase) && fits(d) && !d.NeedsWarm && !d.Static })
		if known == nil {
			continue
		}
		item := plan.Item{Drill: *known}
		least(&item.Drill)
		for b := range r.kept() {
			if b.Phase == phase && len(b.Items) < plan.MaxItems &&
				!slices.ContainsFunc(players, func(p string) bool { return !b.Has(p) }) {
				tries = append(tries, set(b.ID, func(b *plan.Block) { b.Items = append(b.Items, item) }))
			}
		}
		tries = append(tries, extra(known, known.Name, phase, players))
	}
	return tries
}

// anybody is whom a rule asks by default.
func anybody(string) bool { return true }

func plane(r *reading) {
	says := func(k *drill.Drill) bool { return len(k.Planes) > 0 }
	if len(r.lacking(says, anybody)) > 0 {
		return // the drills do not say
	}
	for _, p := range drill.Planes {
		if players := r.lacking(func(k *drill.Drill) bool { return anyOf(k.Planes, p) }, anybody); len(players) > 0 {
			r.add(p, r.Names(players)+": "+planeWords[p], players, "Add one",
				r.addTo(func(k drill.Drill) bool { return anyOf(k.Planes, p) }, players)...)
		}
	}
}

// planeWords say that nothing moves in a plane.
var planeWords = map[string]string{"front": "nothing forwards and back yet", "side": "nothing sideways yet",
	"turn": "no turning yet"}

// joint looks at the joints that the sport stresses, but for those that a player
// has to spare.
func joint(r *reading) {
	for _, j := range r.Document.Stresses {
		asks := func(player string) bool {
			return !slices.ContainsFunc(r.Document.Ruled(player),
				func(x plan.Restriction) bool { return slices.Contains(x.Spare, j) })
		}
		if players := r.lacking(func(k *drill.Drill) bool { return anyOf(k.Regions, j) }, asks); len(players) > 0 {
			r.add(j, r.Names(players)+": nothing for the "+j+" yet", players, "Add one",
				r.addTo(func(k drill.Drill) bool { return anyOf(k.Regions, j) }, players)...)
		}
	}
}

func noAim(r *reading) {
	for i := range r.day.Blocks {
		if b := &r.day.Blocks[i]; b.Aim == "" {
			r.add(b.ID, b.Name+" has no aim", nil, "Take the aim of its drills",
				set(b.ID, func(b *plan.Block) { b.Aim = b.Aims() }))
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
