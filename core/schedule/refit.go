package schedule

import (
	"context"
	"fmt"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/runin"
)

// Stood is how a block stands while a plan is under way.
type Stood struct {
	Block      string       // id
	Kept       bool         // it is in the plan
	Begun      bool         // or was done
	Skip       bool         // it is not done any more
	Start, End clock.Offset // as it was, or is to be
	Amounts    []int        // of its drills
	Less       *Less        // what else is cut of it
	Why        string       // what the plan says of it
}

// As is the schedule of a plan whose blocks are where they stand: what neither has begun nor
// is planned is left out. It fails where the document's times are none.
func As(d *plan.Document, stood []Stood) (*Schedule, error) {
	c := &Compiled{Document: d}
	if err := c.day(d); err != nil {
		return nil, err
	}
	s := &Schedule{Start: c.Start, Players: c.Problem.Players,
		Result:  &runin.Result{Feasible: true, Blocks: make([]runin.Scheduled, len(d.Blocks))},
		Amounts: make([][]int, len(d.Blocks)), Less: make([]*Less, len(d.Blocks))}
	for i := range d.Blocks {
		b := &s.Result.Blocks[i]
		b.ID, b.Why = d.Blocks[i].ID, "left out"
		if n := slices.IndexFunc(stood, func(s Stood) bool { return s.Block == b.ID }); n >= 0 {
			is := stood[n]
			if b.Why = is.Why; is.Kept && is.End > is.Start {
				b.Kept, b.Start, b.End = true, is.Start, is.End
				s.Amounts[i], s.Less[i] = is.Amounts, is.Less
			}
		}
	}
	for _, f := range c.Problem.Fixed {
		s.Fixed = append(s.Fixed, Window{ID: f.ID, Players: f.Players, Start: f.Start, End: f.End})
	}
	s.Result.Strands = strandsOf(d)
	return s, nil
}

// Refit fits what is left of a plan under way: what has begun stays as it stood, the rest is
// fitted between now and everybody's due time, with at most steps steps. It fails with
// [plan.Problems] where the document is not valid.
func Refit(ctx context.Context, d *plan.Document, stood []Stood, now clock.Offset, steps int) (*Schedule, error) {
	c, err := Compile(d)
	if err != nil {
		return nil, err
	}
	live := runin.Live{Now: clock.Offset(clock.CeilTo(float64(now), clock.Grid))}
	was := &runin.Result{Blocks: make([]runin.Scheduled, len(c.Problem.Blocks))}
	begun := map[string]Stood{}
	for i := range c.Problem.Blocks {
		b := &c.Problem.Blocks[i]
		is := Stood{}
		if n := slices.IndexFunc(stood, func(s Stood) bool { return s.Block == b.ID }); n >= 0 {
			is = stood[n]
		}
		was.Blocks[i] = runin.Scheduled{ID: b.ID}
		switch {
		case is.Begun:
			begun[b.ID] = is
			was.Blocks[i] = c.under(i, is, live.Now)
		case is.Skip:
			live.Skip = append(live.Skip, b.ID)
		case is.Kept:
			was.Blocks[i].Kept, was.Blocks[i].Start, was.Blocks[i].End = true, live.Now,
				live.Now+clock.Offset(b.Levels[0].Seconds)
		}
	}
	c.apart(was, live.Now)
	c.crowd(was, live.Now)
	r, err := runin.Refit(ctx, &c.Problem, was, live, steps)
	if err != nil {
		return nil, fmt.Errorf("what is left of the plan: %w", err)
	}
	made := c.schedule(r)
	for i := range r.Blocks {
		b := &r.Blocks[i]
		if is, ok := begun[b.ID]; ok {
			b.Kept, b.Start, b.End, b.Why = true, is.Start, max(is.End, was.Blocks[i].End), ""
			if is.End <= now {
				b.End = is.End
			}
		} else if slices.Contains(live.Skip, b.ID) {
			b.Why = "skipped"
		}
	}
	r.Strands = strandsOf(d)
	return made.spread(d, c.Document), nil
}

// under is a block that has begun, with the length that it has for its only one.
func (c *Compiled) under(i int, stood Stood, now clock.Offset) runin.Scheduled {
	b := &c.Problem.Blocks[i]
	from := min(stood.Start-((stood.Start%clock.Grid)+clock.Grid)%clock.Grid, now-clock.Grid)
	to := clock.Offset(clock.CeilTo(float64(stood.End-from), clock.Grid)) + from
	seconds := max(clock.Grid, int(to-from))
	b.Levels, b.Once = []runin.Level{{Seconds: seconds, Value: 1}}, nil
	c.Dosings[i], c.once[i] = []Dosing{{Amounts: stood.Amounts, Less: stood.Less, Seconds: seconds, Value: 1}}, 0
	return runin.Scheduled{ID: b.ID, Kept: true, Start: from, End: from + clock.Offset(seconds)}
}

// apart takes who is at two blocks under way out of the one that began first; where nobody
// would be left in it, as in a pair's own block while the squad has begun without them, out
// of the other.
func (c *Compiled) apart(was *runin.Result, now clock.Offset) {
	going := func(i int) bool { return was.Blocks[i].Kept && was.Blocks[i].Start < now && was.Blocks[i].End > now }
	for i := range c.Problem.Blocks {
		for j := range c.Problem.Blocks {
			if i != j && going(i) && going(j) && was.Blocks[i].Start < was.Blocks[j].Start && !c.leave(i, j) {
				c.leave(j, i)
			}
		}
	}
}

// crowd lets blocks under way be where they are, also where there is no room for all of them,
// or not for so long. The one that began last holds the place against what comes.
func (c *Compiled) crowd(was *runin.Result, now clock.Offset) {
	var going []int
	for i, b := range was.Blocks {
		if b.Kept && b.Start < now && b.End > now {
			going = append(going, i)
		}
	}
	slices.SortFunc(going, func(a, b int) int { return int(was.Blocks[b].Start - was.Blocks[a].Start) })
	left, free := map[string]int{}, map[string][][2]clock.Offset{}
	for _, r := range c.Problem.Resources {
		left[r.ID], free[r.ID] = r.Capacity, r.Free
	}
	for _, i := range going {
		b, from, to := &c.Problem.Blocks[i], was.Blocks[i].Start, was.Blocks[i].End
		within := func(span [2]clock.Offset) bool { return span[0] <= from && to <= span[1] }
		b.Needs = slices.DeleteFunc(slices.Clone(b.Needs), func(n runin.Need) bool {
			if left[n.Resource] < n.Amount || len(free[n.Resource]) > 0 && !slices.ContainsFunc(free[n.Resource],
				within) {
				return true
			}
			left[n.Resource] -= n.Amount
			return false
		})
	}
}

// leave takes the players of block j out of block i, unless nobody would be left.
func (c *Compiled) leave(i, j int) bool {
	rest := slices.DeleteFunc(slices.Clone(c.Problem.Blocks[i].Players),
		func(id string) bool { return slices.Contains(c.Problem.Blocks[j].Players, id) })
	if len(rest) > 0 {
		c.Problem.Blocks[i].Players = rest
	}
	return len(rest) > 0
}
