package warmth

import (
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// TopUp is a short block that brings a strand back above the line.
type TopUp struct {
	Players    []string
	Drill      drill.Drill
	Amount     int
	Start, End clock.Offset
	Estimate   float64 // °C over rest at the start, with it
	Enough     bool    // the estimate is above the line
}

// TopUps finds, for each strand that the estimate leaves below Warm at the start, the top-up of
// least work that lifts it above: a Raise or Potentiate drill of the book, done last before the
// strand is due. Where no single one is enough it is the one that lifts most. Work is effort
// times seconds.
func TopUps(d *plan.Document, strands []Strand, book []drill.Drill) (list []TopUp) {
	for k := range strands {
		s := &strands[k]
		if len(s.Stretches) == 0 || s.End() >= Warm {
			continue
		}
		var best TopUp
		least := 0.0
		for _, known := range book {
			if !known.Serves(drill.Raise) && !known.Serves(drill.Potentiate) || known.Ground ||
				known.ContactsPerUnit > 0 {
				continue
			}
			known = known.For(d.Grade)
			for amount := known.Range.Min; amount <= known.Range.Max; amount += known.Range.Step {
				group := drill.Group{People: len(s.Players), Lanes: len(s.Players)}
				block := plan.Block{Items: []plan.Item{{Drill: known}}}
				seconds := block.Seconds([]int{amount}, group)
				start := s.Due - clock.Offset(seconds)
				if start < s.lastWork() {
					break
				}
				end, work := s.with(float64(start), known.Effort, known.Work(amount, group)),
					known.Effort*known.Work(amount, group)
				better := end >= Warm && (!best.Enough || work < least) ||
					!best.Enough && end > best.Estimate && end < Warm
				if better {
					best = TopUp{Players: s.Players, Drill: known, Amount: amount, Start: start, End: s.Due,
						Estimate: end, Enough: end >= Warm}
					least = work
				}
			}
		}
		if best.Amount > 0 {
			list = append(list, best)
		}
	}
	return list
}

// lastWork is the end of the strand's last block.
func (s *Strand) lastWork() (last clock.Offset) {
	last = s.From
	for _, x := range s.Stretches {
		if x.Block != nil {
			last = clock.Offset(x.To)
		}
	}
	return last
}

// with is the estimate at the start with some more work from a moment on.
func (s *Strand) with(from, effort, seconds float64) float64 {
	var before []Stretch
	for _, x := range s.Stretches {
		if x.To = min(x.To, from); x.To > x.From {
			before = append(before, x)
		}
	}
	pieces := append(piecesOf(before, s.air), Piece{Effort: effort, Seconds: seconds},
		Piece{Seconds: max(0, -from-seconds)})
	return Run(pieces, s.air).End()
}
