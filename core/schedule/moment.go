package schedule

import (
	"slices"

	"cuestart/core/clock"
	"cuestart/core/plan"
)

// Doing is what players who do the same things do at a moment.
type Doing struct {
	Players []string     // ids
	Block   *Block       // nil: they are at no block
	Event   string       // the fixed event that they are at; "": none
	Until   clock.Offset // when that is over, or the next begins; the start where nothing comes
	Next    *Block       // what they do next; nil: nothing
}

// Moment is what each strand does at a moment, in the order of the schedule.
func (s *Schedule) Moment(d *plan.Document, at clock.Offset) []Doing {
	blocks, events := s.All(d), s.Events(d)
	all := make([]Doing, len(s.Result.Strands))
	for i, players := range s.Result.Strands {
		doing := Doing{Players: players}
		for n := range blocks {
			b := &blocks[n]
			switch {
			case !b.Kept || !b.Has(players[0]):
			case b.Start <= at && at < b.End:
				doing.Block, doing.Until = b, b.End
			case b.Start > at && (doing.Next == nil || b.Start < doing.Next.Start):
				doing.Next = b
			}
		}
		if doing.Block == nil && doing.Next != nil {
			doing.Until = doing.Next.Start
		}
		for _, e := range events {
			if e.Start <= at && at < e.End && slices.Contains(e.Players, players[0]) {
				doing.Block, doing.Event, doing.Until = nil, e.Name, e.End
			}
		}
		all[i] = doing
	}
	return all
}
