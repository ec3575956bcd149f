package warmth

import (
	"fmt"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
)

// ActiveEffort is the effort that a fixed event marked active is taken to have: walking, easy
// throwing.
const ActiveEffort = 0.3

// Stretch is a time in which a strand does one thing: a drill, or between drills nothing (Drill
// nil).
type Stretch struct {
	From, To float64 // seconds from the start
	Effort   float64
	Block    *plan.Block  // nil: waiting, or called away
	Drill    *drill.Drill // nil: set-up, explaining, a gap, waiting, left out
	Amount   int
	Group    drill.Group // who shares the block
	Share    float64     // of the drill's work that falls into the stretch, 0 to 1
	Indoors  bool
	Celsius  float64 // the air under that roof
}

// Peak is the greatest effort of the stretch.
func (x *Stretch) Peak() float64 {
	if x.Drill == nil {
		return x.Effort
	}
	return x.Drill.PeakEffort(x.Amount)
}

// Load is what the stretch leaves in each of the strand.
func (x *Stretch) Load() drill.Load {
	if x.Drill == nil {
		return drill.Load{}
	}
	return x.Drill.Load(x.Amount, x.Group).Part(x.Share)
}

// Strand is what one strand of a schedule does, from its first block to the
// start, and how warm that makes it.
type Strand struct {
	Players   []string
	Stretches []Stretch // without a gap, from From to the start
	From      clock.Offset
	Due       clock.Offset
	*Curve
}

// Estimate is the warmth at a moment of the plan.
func (s *Strand) Estimate(at clock.Offset) float64 { return s.At(float64(at - s.From)) }

// Load is what all that the strand does leaves in each of its players.
func (s *Strand) Load() (sum drill.Load) {
	for i := range s.Stretches {
		sum = sum.Add(s.Stretches[i].Load())
	}
	return sum
}

// Heaviest is the greatest of each figure that a plan leaves in any player: a coach
// plans for that one.
func Heaviest(strands []Strand) (most drill.Load) {
	for k := range strands {
		most = most.Most(strands[k].Load())
	}
	return most
}

// AirOf is the air of a document outdoors; 18 °C where no temperature is known.
func AirOf(d *plan.Document) Air {
	air := Air{Celsius: plan.Roof, Layers: d.Today.Layers}
	if d.Today.Celsius != nil {
		air.Celsius = *d.Today.Celsius
	}
	return air
}

// Strands works out every strand of a fitted document, in the order of the
// schedule.
func Strands(d *plan.Document, s *schedule.Schedule) []Strand {
	r := reading{document: d, schedule: s, blocks: s.All(d), events: s.Events(d)}
	strands := make([]Strand, len(s.Result.Strands))
	for n, players := range s.Result.Strands {
		strands[n] = r.strand(players, nil)
	}
	return strands
}

// Personal splits from the strands of a document those players who do something
// otherwise: some of the drills, since medical staff ruled so, or others by choice.
func Personal(d *plan.Document, s *schedule.Schedule, strands []Strand) []Strand {
	versions := today.Versions(d)
	chosen := chosenBy(d)
	if len(versions) == 0 && len(chosen) == 0 {
		return strands
	}
	r := reading{document: d, schedule: s, blocks: s.All(d), events: s.Events(d)}
	var all []Strand
	for k := range strands {
		var rest [][]string // of whom nothing is ruled, those who chose alike
		for _, p := range strands[k].Players {
			own := slices.DeleteFunc(slices.Clone(versions), func(v today.Version) bool { return v.Player != p })
			if len(own) > 0 {
				all = append(all, r.strand([]string{p}, own))
				continue
			}
			alike := slices.IndexFunc(rest, func(g []string) bool { return chosen[g[0]] == chosen[p] })
			if alike < 0 {
				alike, rest = len(rest), append(rest, nil)
			}
			rest[alike] = append(rest[alike], p)
		}
		for n, group := range rest {
			if n == 0 && group[0] == strands[k].Players[0] {
				all = append(all, strands[k])
				all[len(all)-1].Players = group
			} else {
				all = append(all, r.strand(group, nil))
			}
		}
	}
	return all
}

// chosenBy tells apart what players do of blocks of choice.
func chosenBy(d *plan.Document) map[string]string {
	chosen := map[string]string{}
	for i := range d.Blocks {
		if b := &d.Blocks[i]; b.Form == plan.ByChoice {
			for player, items := range d.Chosen(b) {
				chosen[player] += fmt.Sprint(b.ID, items)
			}
		}
	}
	return chosen
}

// reading is a document with its schedule.
type reading struct {
	document *plan.Document
	schedule *schedule.Schedule
	blocks   []schedule.Block
	events   []schedule.Event
}

// strand is what players with the same list do, with versions of their own.
func (r *reading) strand(players []string, versions []today.Version) Strand {
	var busy []Stretch
	for i := range r.blocks {
		if b := &r.blocks[i]; b.Kept && b.Has(players[0]) {
			if b.ID == schedule.ShortListID(players[0]) { // instead of what the others do meanwhile
				busy = cutOut(busy, schedule.Event{Window: schedule.Window{Start: b.Start, End: b.End}})
			}
			busy = append(busy, r.stretches(b, players[0], versions)...)
		}
	}
	for _, e := range r.events {
		if slices.Contains(e.Players, players[0]) {
			busy = cutOut(busy, e)
		}
	}
	slices.SortStableFunc(busy, func(a, b Stretch) int { return int(a.From - b.From) })
	strand := fill(players, busy, AirOf(r.document))
	for _, p := range r.schedule.Players {
		if p.ID == players[0] {
			strand.Due = p.Due
		}
	}
	return strand
}

// stretches takes a block apart. What its length is over, being on the grid, goes to the
// handover.
func (r *reading) stretches(b *schedule.Block, player string, versions []today.Version) (list []Stretch) {
	amounts := make([]int, len(b.Items))
	for n := range b.Items {
		amounts[n] = b.Amount(n)
	}
	at, end := float64(b.Start), float64(b.End)
	parts := b.Parts(amounts, b.Group, b.Ways[player])
	parts[len(parts)-1].Seconds = end - at
	for _, part := range parts {
		to := min(at+part.Seconds, end)
		if to <= at {
			continue
		}
		x := Stretch{From: at, To: to, Block: b.Block, Group: b.Group, Share: 1, Indoors: r.document.Indoors(b.Block),
			Celsius: r.document.RoofAir(b.Block)}
		if part.Work {
			x.Drill, x.Amount, x.Group = &b.Items[part.Item].Drill, amounts[part.Item], b.At(part.Item, b.Group)
			x.otherwise(b.ID, part.Item, versions)
		}
		if x.Drill != nil {
			x.Effort = x.Drill.Effort
		}
		list = append(list, x)
		at = to
	}
	return list
}

// otherwise takes what stands in for the drill, if something does.
func (x *Stretch) otherwise(block string, item int, versions []today.Version) {
	for _, v := range versions {
		if v.Block != block || v.Item != item {
			continue
		}
		if x.Drill = v.Drill; v.Drill != nil {
			x.Amount = v.Drill.Range.Target
		}
	}
}

// cutOut takes the time of a fixed event out of what a strand does: it is away
// meanwhile, at a little effort if the event keeps it warm.
func cutOut(busy []Stretch, e schedule.Event) (rest []Stretch) {
	from, to := float64(e.Start), float64(e.End)
	for _, b := range busy {
		if b.From < from {
			left := b
			left.To = min(b.To, from)
			left.Share *= (left.To - left.From) / (b.To - b.From)
			rest = append(rest, left)
		}
		if b.To > to {
			right := b
			right.From = max(b.From, to)
			right.Share *= (right.To - right.From) / (b.To - b.From)
			rest = append(rest, right)
		}
	}
	if e.Active {
		rest = append(rest, Stretch{From: from, To: to, Effort: ActiveEffort})
	}
	return rest
}

// fill joins the stretches with waiting, up to the start.
func fill(players []string, busy []Stretch, air Air) Strand {
	s := Strand{Players: players}
	if len(busy) == 0 {
		s.Curve = Run(nil, air)
		return s
	}
	s.From = clock.Offset(busy[0].From)
	at := busy[0].From
	for _, b := range busy {
		if b.From > at {
			s.Stretches = append(s.Stretches, Stretch{From: at, To: b.From})
		}
		if b.To > at {
			b.From = max(b.From, at)
			s.Stretches = append(s.Stretches, b)
			at = b.To
		}
	}
	if at < 0 {
		s.Stretches = append(s.Stretches, Stretch{From: at, To: 0})
	}
	s.Curve = Run(piecesOf(s.Stretches, air), air)
	return s
}

// piecesOf are the pieces of stretches. Who waits is where they were last.
func piecesOf(stretches []Stretch, air Air) []Piece {
	celsius := plan.Roof
	pieces := make([]Piece, len(stretches))
	indoors := false
	for i, x := range stretches {
		if x.Block != nil {
			indoors, celsius = x.Indoors, x.Celsius
		}
		pieces[i] = Piece{Effort: x.Effort, Seconds: x.To - x.From}
		if indoors {
			pieces[i].Air = &Air{Celsius: celsius, Layers: air.Layers}
		}
	}
	return pieces
}

// Facts are counted, not estimated.
type Facts struct {
	SinceFull   int // seconds from the end of the last effort of 90 % and more to the start; -1: there is none
	FullLast10  int // stretches of such effort that end in the last ten minutes
	HardSeconds int // at 80 % and more
}

// Facts counts what a strand does at high effort.
func (s *Strand) Facts() Facts {
	f := Facts{SinceFull: -1}
	for i := range s.Stretches {
		x := &s.Stretches[i]
		if x.Effort >= drill.HardEffort {
			f.HardSeconds += int(x.To - x.From + 0.5)
		}
		if x.Peak() >= drill.SprintEffort {
			f.SinceFull = max(0, int(-x.To))
			if x.To > -600 {
				f.FullLast10++
			}
		}
	}
	return f
}
