package runin

import (
	"fmt"
	"slices"

	"cuestart/core/clock"
)

// Score checks a plan against every rule of its problem and works out its value and idle
// player-seconds, second by second where needed and without anything that the search uses. It
// returns the first rule that the plan breaks, or nil. Who misses what, as r.Blocks states it, is
// checked too.
func Score(p *Problem, r *Result) (value float64, idle int, err error) {
	if len(r.Blocks) != len(p.Blocks) {
		return 0, 0, fmt.Errorf("the plan speaks of %d blocks, the problem of %d", len(r.Blocks), len(p.Blocks))
	}
	for i := range p.Blocks {
		if err := blockRules(p, r, i); err != nil {
			return 0, 0, fmt.Errorf("%s: %w", p.Blocks[i].ID, err)
		}
	}
	if err := resourceRules(p, r); err != nil {
		return 0, 0, err
	}
	for i := range p.Blocks {
		if !r.Blocks[i].Kept {
			continue
		}
		b, s := &p.Blocks[i], &r.Blocks[i]
		members, missed := p.members(b.Players), 0
		var list []Missed
		if b.Excusable {
			for _, player := range members {
				missed += awaySeconds(p, player, clock.Window{From: s.Start, To: s.End}, butExcused)
				if n := awaySeconds(p, player, clock.Window{From: s.Start, To: s.End}, withExcused); n > 0 {
					list = append(list, Missed{p.Players[player].ID, n})
				}
			}
		}
		if !slices.Equal(list, s.Missed) {
			return 0, 0, fmt.Errorf("%s: missed by %v, the plan says %v", b.ID, list, s.Missed)
		}
		attendance := 1 - float64(missed)/float64(len(members)*int(s.End-s.Start))
		value += b.Weight * b.level(s.Level).Value * attendance
	}
	for i := range p.Players {
		idle += idleSeconds(p, r, i)
	}
	return value, idle, nil
}

// members lists the indexes of the players meant by ids, rising.
func (p *Problem) members(ids []string) []int {
	var members []int
	all := slices.Contains(ids, Everyone)
	for i := range p.Players {
		if all || slices.Contains(ids, p.Players[i].ID) {
			members = append(members, i)
		}
	}
	return members
}

func (p *Problem) holds(f *Fixed, player int) bool {
	return slices.Contains(f.Players, Everyone) || slices.Contains(f.Players, p.Players[player].ID)
}

// Whether fixed events that excuse from work count too.
const withExcused, butExcused = true, false

// awaySeconds counts the seconds of the window that fixed events take, those of excused
// ones too or not.
func awaySeconds(p *Problem, player int, w clock.Window, excused bool) (n int) {
	for t := w.From; t < w.To; t++ {
		for i := range p.Fixed {
			if f := &p.Fixed[i]; f.Start <= t && t < f.End && (excused || !f.Excused) && p.holds(f, player) {
				n++
				break
			}
		}
	}
	return n
}

// blockRules checks block i by itself and against the blocks before it.
func blockRules(p *Problem, r *Result, i int) error {
	b, s := &p.Blocks[i], &r.Blocks[i]
	if s.ID != b.ID {
		return fmt.Errorf("the plan calls it %q", s.ID)
	}
	if !s.Kept {
		if b.Must && r.Feasible {
			return fmt.Errorf("a must is left out of a plan that claims to hold")
		}
		return nil
	}
	if s.Level < 0 && r.Feasible || s.Level < -len(b.Once) || s.Level >= len(b.Levels) ||
		int(s.End-s.Start) != b.level(s.Level).Seconds {
		return fmt.Errorf("its length is not that of level %d", s.Level)
	}
	if err := b.holdRule(s, p.Grid); err != nil {
		return err
	}
	members := p.members(b.Players)
	for _, m := range members {
		if player := &p.Players[m]; s.Start < player.Open || s.End > player.Due {
			return fmt.Errorf("it leaves the window of %s", player.ID)
		}
		if !b.Excusable && (awaySeconds(p, m, clock.Window{From: s.Start, To: s.End}, withExcused) > 0 ||
			b.walkedInto(p, m, s)) {
			return fmt.Errorf("%s is called away", p.Players[m].ID)
		}
	}
	if b.Excusable && !b.going && len(members) > 0 {
		for t := s.Start; t < s.End; t++ {
			if !slices.ContainsFunc(members,
				func(m int) bool { return awaySeconds(p, m, clock.Window{From: t, To: t + 1}, withExcused) == 0 }) {
				return fmt.Errorf("everybody is called away")
			}
		}
	}
	for j := range p.Blocks {
		if j == i || !r.Blocks[j].Kept {
			continue
		}
		if err := pairRules(p, r, i, j); err != nil {
			return err
		}
	}
	return nil
}

// pairRules checks block i against block j, both kept.
func pairRules(p *Problem, r *Result, i, j int) error {
	b, s, c, t := &p.Blocks[i], &r.Blocks[i], &p.Blocks[j], &r.Blocks[j]
	if slices.Contains(b.After, c.ID) && t.End > s.Start {
		return fmt.Errorf("it starts before %s has ended", c.ID)
	}
	if b.Straight == c.ID && s.Start != p.straight(j, i, t.End) {
		return fmt.Errorf("it does not start when %s ends", c.ID)
	}
	if walk := p.between(i, j); t.End <= s.Start && s.Start < t.End+walk {
		return fmt.Errorf("it starts before one can walk there from %s", c.ID)
	}
	if !intersect(p.members(b.Players), p.members(c.Players)) {
		return nil
	}
	if t.Start < s.End && s.Start < t.End {
		return fmt.Errorf("somebody is in %s at the same time", c.ID)
	}
	if p.ordered(j, i) && t.End > s.Start {
		return fmt.Errorf("it starts before %s, which comes first", c.ID)
	}
	return nil
}

// level is one of the block's levels, as a plan names it.
func (b *Block) level(n int) Level {
	if n < 0 {
		return b.Once[len(b.Once)+n]
	}
	return b.Levels[n]
}

// walkedInto tells whether a player has to walk to a fixed event, or back from one, while
// the block runs.
func (b *Block) walkedInto(p *Problem, player int, s *Scheduled) bool {
	return slices.ContainsFunc(p.Fixed, func(f Fixed) bool {
		walk := p.walk(b.Place, f.Place)
		return p.holds(&f, player) && s.Start < f.End+walk && f.Start-walk < s.End
	})
}

// holdRule checks where a block starts by itself: on the grid, at its pin, in its window.
func (b *Block) holdRule(s *Scheduled, grid int) error {
	if int(s.Start)%grid != 0 {
		return fmt.Errorf("it starts off the grid, at %d", s.Start)
	}
	if b.Pin != nil && s.Start != *b.Pin {
		return fmt.Errorf("it starts at %d, not at its pin %d", s.Start, *b.Pin)
	}
	if from, until := b.Window[0], b.Window[1]; from != nil && s.Start < *from || until != nil && s.End > *until {
		return fmt.Errorf("it leaves its window")
	}
	return nil
}

// ordered tells whether block i comes before block j in a strand with both.
func (p *Problem) ordered(i, j int) bool {
	b, c := &p.Blocks[i], &p.Blocks[j]
	if b.Phase == "" || c.Phase == "" {
		return false
	}
	if b.Phase != c.Phase {
		return slices.Index(p.Phases, b.Phase) < slices.Index(p.Phases, c.Phase)
	}
	return i < j && !(b.Loose && c.Loose)
}

func intersect(a, b []int) bool {
	return slices.ContainsFunc(a, func(x int) bool { return slices.Contains(b, x) })
}

func resourceRules(p *Problem, r *Result) error {
	for k := range p.Resources {
		for i, s := range r.Blocks {
			if !s.Kept || p.use(i, &p.Resources[k]) == 0 {
				continue
			}
			if err := resourceRule(p, r, &p.Resources[k], s); err != nil {
				return fmt.Errorf("%s: %w", s.ID, err)
			}
		}
	}
	return nil
}

// resourceRule checks that a resource is free while s runs, and not used beyond
// its capacity where s starts: usage only rises where a block starts.
func resourceRule(p *Problem, r *Result, resource *Resource, s Scheduled) error {
	for t := s.Start; t < s.End && resource.Free != nil; t++ {
		if !slices.ContainsFunc(resource.Free, func(w [2]clock.Offset) bool { return w[0] <= t && t < w[1] }) {
			return fmt.Errorf("%s is not free at %d", resource.ID, t)
		}
	}
	total := 0
	for j, t := range r.Blocks {
		if t.Kept && t.Start <= s.Start && s.Start < t.End {
			total += p.use(j, resource)
		}
	}
	if total > resource.Capacity {
		return fmt.Errorf("%s is used beyond its capacity", resource.ID)
	}
	return nil
}

// idleSeconds counts the seconds from the start of the player's first kept block that has a phase
// to the due time in which the player is neither at a kept block nor in an active fixed event
// that begins after that start.
func idleSeconds(p *Problem, r *Result, player int) (idle int) {
	first, due := p.Players[player].Due, p.Players[player].Due
	var at []clock.Window
	for i, s := range r.Blocks {
		if !s.Kept || !slices.Contains(p.members(p.Blocks[i].Players), player) {
			continue
		}
		at = append(at, clock.Window{From: s.Start, To: s.End})
		if p.Blocks[i].Phase != "" {
			first = min(first, s.Start)
		}
	}
	for t := first; t < due; t++ {
		away, warm := false, false
		for i := range p.Fixed {
			if f := &p.Fixed[i]; f.Start <= t && t < f.End && p.holds(f, player) {
				away = true
				warm = warm || f.Active && f.Start > first
			}
		}
		working := !away && slices.ContainsFunc(at, func(w clock.Window) bool { return w.From <= t && t < w.To })
		if !working && !warm {
			idle++
		}
	}
	return idle
}
