package warmth

import (
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// ActiveEffort is the effort that a fixed event marked active is taken to
// have: walking, easy throwing.
const ActiveEffort = 0.3

// Stretch is a time in which a strand does one thing: a drill, or between
// drills nothing (Drill nil).
type Stretch struct {
	From, To float64 // seconds from the start
	Effort   float64
	Block    *plan.Block  // nil: waiting, or called away
	Drill    *drill.Drill // nil: set-up, explaining, a gap, waiting
	Amount   int
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

// AirOf is the air of a document; 18 °C where no temperature is known.
func AirOf(d *plan.Document) Air {
	air := Air{Celsius: 18, Layers: d.Today.Layers}
	if d.Today.Celsius != nil {
		air.Celsius = *d.Today.Celsius
	}
	return air
}

// Strands works out every strand of a fitted document, in the order of the
// schedule.
func Strands(d *plan.Document, s *schedule.Schedule) []Strand {
	air, blocks, events := AirOf(d), s.Blocks(d), s.Events(d)
	strands := make([]Strand, len(s.Result.Strands))
	for n, players := range s.Result.Strands {
		var busy []Stretch
		for i := range blocks {
			if b := &blocks[i]; b.Kept && b.Has(players[0]) {
				busy = append(busy, stretches(b)...)
			}
		}
		for _, e := range events {
			if slices.Contains(e.Players, players[0]) {
				busy = cutOut(busy, e)
			}
		}
		slices.SortStableFunc(busy, func(a, b Stretch) int { return int(a.From - b.From) })
		strands[n] = fill(players, busy, air)
		for _, p := range s.Players {
			if p.ID == players[0] {
				strands[n].Due = p.Due
			}
		}
	}
	return strands
}

// stretches takes a block apart. What its length is over, being on the grid,
// goes to the handover.
func stretches(b *schedule.Block) (list []Stretch) {
	amounts := make([]int, len(b.Items))
	for n := range b.Items {
		amounts[n] = b.Amount(n)
	}
	at, end := float64(b.Start), float64(b.End)
	parts := b.Parts(amounts, b.Group)
	parts[len(parts)-1].Seconds = end - at
	for _, part := range parts {
		to := min(at+part.Seconds, end)
		if to <= at {
			continue
		}
		x := Stretch{From: at, To: to, Block: b.Block}
		if part.Work {
			x.Drill, x.Amount = &b.Items[part.Item].Drill, amounts[part.Item]
			x.Effort = x.Drill.Effort
		}
		list = append(list, x)
		at = to
	}
	return list
}

// cutOut takes the time of a fixed event out of what a strand does: it is away
// meanwhile, at a little effort if the event keeps it warm.
func cutOut(busy []Stretch, e schedule.Event) (rest []Stretch) {
	from, to := float64(e.Start), float64(e.End)
	for _, b := range busy {
		if b.From < from {
			left := b
			left.To = min(b.To, from)
			rest = append(rest, left)
		}
		if b.To > to {
			right := b
			right.From = max(b.From, to)
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
	pieces := make([]Piece, len(s.Stretches))
	for i, x := range s.Stretches {
		pieces[i] = Piece{x.Effort, x.To - x.From}
	}
	s.Curve = Run(pieces, air)
	return s
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
	for _, x := range s.Stretches {
		if x.Effort >= drill.HardEffort {
			f.HardSeconds += int(x.To - x.From + 0.5)
		}
		if x.Effort >= drill.SprintEffort {
			f.SinceFull = max(0, int(-x.To))
			if x.To > -600 {
				f.FullLast10++
			}
		}
	}
	return f
}
