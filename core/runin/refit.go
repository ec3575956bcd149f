package runin

import (
	"context"
	"fmt"
	"maps"
	"slices"

	"cuestart/core/clock"
)

// Live is how things stand while a plan is under way. Times are relative to the start as it was
// planned.
type Live struct {
	Now     clock.Offset
	Moved   int                     // seconds by which the start was put off; negative: called earlier
	Arrives map[string]clock.Offset // late players: when each can begin
	Out     []string                // players who drop out
	Lost    []string                // resources that are gone from now on
	Skip    []string                // blocks, not begun, that are not done any more
}

// Refit solves the rest of a problem that is under way: what was done or has
// begun stays as it was, the rest is fitted again between now and the new due
// times. What was planned and is overtaken, since a later block was begun first, may still
// come; what was not planned comes only in its order. The answer speaks of the problem's
// blocks, in times relative to the planned start; its value and its idle are those of the rest only.
//
// It fails where the problem is malformed, where was is no answer to it, and where
// live names a player or resource that it does not have.
func Refit(ctx context.Context, p *Problem, was *Result, live Live, steps int) (*Result, error) {
	if err := p.Validate(); err != nil {
		return nil, err
	}
	if len(was.Blocks) != len(p.Blocks) {
		return nil, fmt.Errorf("the plan speaks of %d blocks, the problem of %d", len(was.Blocks), len(p.Blocks))
	}
	rest, index, err := remaining(p, was, live)
	if err != nil {
		return nil, err
	}
	answer := &Result{Feasible: true, Blocks: make([]Scheduled, len(p.Blocks))}
	for i, s := range was.Blocks {
		answer.Blocks[i] = Scheduled{ID: s.ID, Why: "it could no longer come in its order"}
		if s.Kept && s.Start < live.Now {
			answer.Blocks[i] = s
			answer.Blocks[i].Why = "done"
			if s.End > live.Now {
				answer.Blocks[i].Why = "under way"
			}
		}
	}
	if len(rest.Players) == 0 || len(rest.Blocks) == 0 {
		return answer, nil
	}
	r, err := Fit(ctx, rest, steps)
	if err != nil {
		return nil, fmt.Errorf("the rest of the plan: %w", err)
	}
	for n, i := range index {
		if was.Blocks[i].Kept && was.Blocks[i].Start < live.Now {
			continue // under way
		}
		answer.Blocks[i] = r.Blocks[n]
	}
	answer.Feasible, answer.Value, answer.Bound, answer.Idle, answer.IdleBound = r.Feasible, r.Value, r.Bound, r.Idle,
		r.IdleBound
	answer.ShortBy, answer.Why, answer.Binds, answer.Stopped, answer.Strands = r.ShortBy, r.Why, r.Binds, r.Stopped,
		r.Strands
	return answer, nil
}

// remaining is the problem of what is left to do, and which blocks of the whole its blocks are.
// Blocks under way are in it, pinned where they are.
func remaining(p *Problem, was *Result, live Live) (rest *Problem, index []int, err error) {
	if err := live.check(p); err != nil {
		return nil, nil, err
	}
	rest = &Problem{Grid: p.Grid, Phases: p.Phases, Walks: p.Walks}
	for _, player := range p.Players {
		if !slices.Contains(live.Out, player.ID) {
			rest.Players = append(rest.Players, live.player(p, was, player))
		}
	}
	for _, r := range p.Resources {
		if slices.Contains(live.Lost, r.ID) {
			r.Free = [][2]clock.Offset{{-horizon, live.Now}}
		}
		rest.Resources = append(rest.Resources, r)
	}
	for _, f := range p.Fixed {
		if f.Start >= live.Now { // what is still to come moves with the start
			f.Start, f.End = f.Start+clock.Offset(live.Moved), f.End+clock.Offset(live.Moved)
		}
		if f.Players = staying(p, f.Players, live.Out); len(f.Players) > 0 {
			rest.Fixed = append(rest.Fixed, f)
		}
	}
	left := map[string]bool{}
	for i := range p.Blocks {
		if b, ok := live.block(p, was, i); ok {
			rest.Blocks, index = append(rest.Blocks, b), append(index, i)
			left[b.ID] = true
		}
	}
	for i := range rest.Blocks { // what is done needs no waiting for
		rest.Blocks[i].After = slices.DeleteFunc(slices.Clone(rest.Blocks[i].After),
			func(id string) bool { return !left[id] })
		if !left[rest.Blocks[i].Straight] {
			rest.Blocks[i].Straight = ""
		}
	}
	return rest, index, nil
}

// check finds what live names and the problem does not have.
func (live Live) check(p *Problem) error {
	for _, id := range append(slices.Clone(live.Out), slices.Sorted(maps.Keys(live.Arrives))...) {
		if !slices.ContainsFunc(p.Players, func(x Player) bool { return x.ID == id }) {
			return fmt.Errorf("there is no player %q", id)
		}
	}
	for _, id := range live.Lost {
		if !slices.ContainsFunc(p.Resources, func(r Resource) bool { return r.ID == id }) {
			return fmt.Errorf("there is no resource %q", id)
		}
	}
	return nil
}

// player is a player with the window that is left.
func (live Live) player(p *Problem, was *Result, player Player) Player {
	player.Due += clock.Offset(live.Moved)
	player.Open = max(player.Open, live.Now)
	arrives, late := live.Arrives[player.ID]
	if late {
		player.Open = max(player.Open, arrives)
	}
	for i, s := range was.Blocks {
		if s.Kept && s.Start < live.Now && s.End > live.Now && p.inBlock(i, player.ID) && !late {
			player.Open, player.Due = s.Start, max(player.Due, s.End)
		}
	}
	player.Open = min(player.Open, player.Due)
	return player
}

// block is what is left of block i; false where nothing is.
func (live Live) block(p *Problem, was *Result, i int) (b Block, left bool) {
	b = p.Blocks[i]
	if b.Players = staying(p, b.Players, live.Out); len(b.Players) == 0 || p.passed(was, live.Now, i) ||
		slices.Contains(live.Skip, b.ID) {
		return b, false
	}
	s := was.Blocks[i]
	if !s.Kept || s.Start >= live.Now {
		if b.Pin != nil {
			pin := *b.Pin + clock.Offset(floorTo(live.Moved, p.Grid))
			b.Pin = &pin
		}
		b.Window = b.Window.moved(clock.Offset(live.Moved))
		return b, true
	}
	if s.End <= live.Now {
		return b, false
	}
	pin := s.Start
	b.Phase = "" // it is where it is: what it overtook may still come
	b.Pin, b.Must, b.Excusable, b.Levels = &pin, true, true, b.Levels[s.Level:s.Level+1]
	b.Window, b.Straight, b.going = Window{}, "", true
	b.Players = slices.DeleteFunc(slices.Clone(b.Players), func(id string) bool {
		_,
			late := live.Arrives[id]
		return late
	})
	b.Needs = slices.DeleteFunc(slices.Clone(b.Needs),
		func(n Need) bool { return slices.Contains(live.Lost, n.Resource) })
	return b, len(b.Players) > 0
}

// passed tells whether block i, which was not planned, comes in its order before one that
// has begun.
func (p *Problem) passed(was *Result, now clock.Offset, i int) bool {
	if was.Blocks[i].Kept {
		return false
	}
	members := p.members(p.Blocks[i].Players)
	for j, s := range was.Blocks {
		if s.Kept && s.Start < now && p.ordered(i, j) && intersect(members, p.members(p.Blocks[j].Players)) {
			return true
		}
	}
	return false
}

func (p *Problem) inBlock(i int, player string) bool {
	return slices.Contains(p.Blocks[i].Players, Everyone) || slices.Contains(p.Blocks[i].Players, player)
}

// staying is the players meant by ids without those who are out, by name.
func staying(p *Problem, ids, out []string) (rest []string) {
	for _, m := range p.members(ids) {
		if id := p.Players[m].ID; !slices.Contains(out, id) {
			rest = append(rest, id)
		}
	}
	return rest
}
