package conduct

import (
	"slices"

	"cuestart/core/clock"
	"cuestart/core/today"
	"cuestart/core/warmth"
)

// Behind is by how many seconds the session lies behind its plan, negative ahead of it, and
// the id of the block that it is so for: the one that is waited for.
func (s *Stand) Behind() (seconds int, block string) {
	first := true
	for i := range s.Runs {
		r := &s.Runs[i]
		var by int
		switch r.State {
		case Over, Under:
			by = int(r.End - r.Planned.To)
		case Finished:
			if by = int(r.End - r.Planned.To); !r.Said || by > 0 && !s.delays(r) ||
				by < 0 && (s.Now >= r.Planned.To || s.followed(i)) {
				continue
			}
		default:
			continue
		}
		if first || by > seconds {
			seconds, block, first = by, r.ID, false
		}
	}
	return seconds, block
}

// delays tells whether a block that was over late still holds another up.
func (s *Stand) delays(r *Run) bool {
	return slices.ContainsFunc(s.Runs, func(next Run) bool {
		return next.State == Ahead && next.WaitsFor == r.ID && next.Start > next.Planned.From
	})
}

// followed tells whether a later block with players of block i has begun.
func (s *Stand) followed(i int) bool {
	for j := range s.Runs {
		if b := &s.Runs[j]; j != i && b.Planned.From >= s.Runs[i].Planned.To && b.State != Ahead &&
			b.State != LeftOut && s.share(i, j) {
			return true
		}
	}
	return false
}

// Idle is players who are at nothing now.
type Idle struct {
	Players []string     // ids
	Since   clock.Offset // when they were done with their last block; before the first block they do not idle
	Next    *Run         // nil: nothing comes
	Event   string       // what they are called away to; "": they stand
	Warm    float64      // °C above rest, an estimate
	Stands  bool         // too long for somebody who was warm: they want a top-up
}

// What standing too long is, and when a top-up is no use any more.
const (
	standsAfter = 300 // seconds
	nextWithin  = 120 // seconds until the next block
)

// Idle is who does nothing now, by what they do.
func (s *Stand) Idle() (list []Idle) {
	doing := s.Schedule.Moment(s.Document, s.Now)
	strands := warmth.Strands(today.Apply(s.Document), s.Schedule)
	for n, group := range doing {
		if group.Block != nil && s.Run(group.Block.ID).State != Finished || len(group.Players) == 0 {
			continue
		}
		idle := Idle{Players: group.Players, Event: group.Event, Since: -1 << 30}
		for i := range s.Runs {
			r := &s.Runs[i]
			switch {
			case !r.Has(group.Players[0]) || r.State == LeftOut:
			case r.State == Ahead && (idle.Next == nil || r.Start < idle.Next.Start):
				idle.Next = r
			case r.State == Over || r.State == Under:
				idle.Since = s.Now // at a block that lasts longer than planned
			case r.State == Finished:
				idle.Since = max(idle.Since, min(r.End, s.Now))
			}
		}
		if idle.Since == s.Now {
			continue
		}
		idle.Warm = strands[n].Estimate(s.Now)
		worked := idle.Since > -1<<30
		soon := idle.Next != nil && idle.Next.Start-s.Now < nextWithin
		idle.Stands = worked && idle.Event == "" && s.Now-idle.Since >= standsAfter && !soon &&
			s.Now < clock.Offset(-s.Document.Margin)
		list = append(list, idle)
	}
	return list
}

// Quiet tells whether these are the minutes before the start in which nothing is asked of
// anybody any more.
func (s *Stand) Quiet() bool {
	return s.Now >= clock.Offset(-s.Document.Margin) && s.Now < 0
}

// Cell is a cell of a grid: of a block, a drill of it and its place.
type Cell struct {
	Block string
	Item  int
	Cell  int
}

// Count is how often a cell was tried, and whether it is to be come back to.
type Count struct {
	Tries int
	Again bool
}

// Ticks counts the tries of grids, those of all phones together.
func (s *Stand) Ticks() map[Cell]Count {
	all := map[Cell]Count{}
	for _, e := range Standing(s.Events) {
		if e.Kind != Tick {
			continue
		}
		at := Cell{e.Block, e.Item, e.Cell}
		c := all[at]
		if e.Tries < 0 {
			c.Again = true
		} else {
			c.Tries, c.Again = c.Tries+e.Tries, false
		}
		all[at] = c
	}
	return all
}
