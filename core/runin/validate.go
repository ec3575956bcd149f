package runin

import (
	"fmt"
	"math"

	"cuestart/core/clock"
)

// Limits of a problem. They bound memory and work; a squad is far below them.
const (
	MaxPlayers   = 500
	MaxBlocks    = 64
	MaxResources = 64
	MaxFixed     = 200
	MaxLevels    = 60
	MaxWalks     = 2000
	LongestWalk  = 3600          // seconds
	horizon      = 7 * 24 * 3600 // seconds either side of the start
)

// Validate finds the first thing wrong with the problem and says where it is, in one sentence.
func (p *Problem) Validate() error {
	if p.Grid < 1 || p.Grid > 3600 {
		return fmt.Errorf("grid: it must lie between 1 and 3600 seconds")
	}
	for _, size := range []struct {
		what     string
		n, limit int
	}{{"players", len(p.Players), MaxPlayers}, {"blocks", len(p.Blocks), MaxBlocks},
		{"resources", len(p.Resources), MaxResources}, {"fixed", len(p.Fixed), MaxFixed},
		{"phases", len(p.Phases), MaxBlocks}, {"walks", len(p.Walks), MaxWalks}} {
		if size.n > size.limit {
			return fmt.Errorf("%s: there are %d, %d is the most", size.what, size.n, size.limit)
		}
	}
	if len(p.Players) == 0 {
		return fmt.Errorf("players: there are none")
	}
	v := checker{problem: p}
	v.names()
	for i := range p.Players {
		v.player(i)
	}
	for i := range p.Resources {
		v.resource(i)
	}
	for i := range p.Fixed {
		v.fixed(i)
	}
	for i := range p.Blocks {
		v.block(i)
	}
	for i, w := range p.Walks {
		if w.From == "" || w.To == "" {
			v.fail(fmt.Sprintf("walks[%d]", i), "it needs two places")
		}
		if w.Seconds < 0 || w.Seconds > LongestWalk {
			v.fail(fmt.Sprintf("walks[%d]", i), "%d seconds from %q to %q are not between 0 and %d", w.Seconds, w.From,
				w.To, LongestWalk)
		}
	}
	v.links()
	return v.err
}

type checker struct {
	problem                            *Problem
	players, resources, blocks, phases map[string]int
	err                                error
}

func (v *checker) fail(where string, what string, args ...any) {
	if v.err == nil {
		v.err = fmt.Errorf("%s: %s", where, fmt.Sprintf(what, args...))
	}
}

func (v *checker) names() {
	index := func(kind string, n int, id func(int) string) map[string]int {
		byID := make(map[string]int, n)
		for i := range n {
			switch _, double := byID[id(i)]; {
			case id(i) == "" || id(i) == Everyone:
				v.fail(fmt.Sprintf("%s[%d]", kind, i), "it needs a name other than %q", id(i))
			case double:
				v.fail(fmt.Sprintf("%s[%d]", kind, i), "%q is there twice", id(i))
			}
			byID[id(i)] = i
		}
		return byID
	}
	p := v.problem
	v.phases = index("phases", len(p.Phases), func(i int) string { return p.Phases[i] })
	v.players = index("players", len(p.Players), func(i int) string { return p.Players[i].ID })
	v.resources = index("resources", len(p.Resources), func(i int) string { return p.Resources[i].ID })
	v.blocks = index("blocks", len(p.Blocks), func(i int) string { return p.Blocks[i].ID })
	index("fixed", len(p.Fixed), func(i int) string { return p.Fixed[i].ID })
}

func (v *checker) span(where string, from, to clock.Offset) {
	if from < -horizon || to > horizon {
		v.fail(where, "%d to %d lies more than a week from the start", from, to)
	}
	if to < from {
		v.fail(where, "it ends at %d, before it begins at %d", to, from)
	}
}

func (v *checker) player(i int) {
	player := &v.problem.Players[i]
	v.span(fmt.Sprintf("players[%d] %q", i, player.ID), player.Open, player.Due)
}

func (v *checker) resource(i int) {
	r := &v.problem.Resources[i]
	where := fmt.Sprintf("resources[%d] %q", i, r.ID)
	if r.Capacity < 0 || r.Capacity > 1e6 {
		v.fail(where, "its capacity %d is not between 0 and a million", r.Capacity)
	}
	if len(r.Free) > MaxFixed {
		v.fail(where, "it has more than %d free spans", MaxFixed)
	}
	for _, span := range r.Free {
		v.span(where, span[0], span[1])
	}
}

func (v *checker) members(where string, ids []string) {
	if len(ids) == 0 {
		v.fail(where, "it has no players")
	}
	for _, id := range ids {
		if _, ok := v.players[id]; !ok && id != Everyone {
			v.fail(where, "there is no player %q", id)
		}
	}
}

func (v *checker) fixed(i int) {
	f := &v.problem.Fixed[i]
	where := fmt.Sprintf("fixed[%d] %q", i, f.ID)
	v.members(where, f.Players)
	v.span(where, f.Start, f.End)
}

func (v *checker) block(i int) {
	b := &v.problem.Blocks[i]
	where := fmt.Sprintf("blocks[%d] %q", i, b.ID)
	v.members(where, b.Players)
	if _, ok := v.phases[b.Phase]; !ok && b.Phase != "" {
		v.fail(where, "there is no phase %q", b.Phase)
	}
	if !(b.Weight >= 0 && b.Weight <= 1e6) { // true for NaN
		v.fail(where, "its weight must lie between 0 and a million")
	}
	if len(b.Levels) == 0 || len(b.Levels) > MaxLevels || len(b.Once) > MaxLevels {
		v.fail(where, "it has %d levels: 1 to %d are allowed", len(b.Levels), MaxLevels)
	}
	v.levels(where+" once", b.Once)
	v.levels(where+" levels", b.Levels)
	if b.Pin != nil {
		if *b.Pin < -horizon || *b.Pin > horizon {
			v.fail(where, "its pin lies more than a week from the start")
		} else if int(*b.Pin)%v.problem.Grid != 0 {
			v.fail(where, "its pin %d is not on the grid of %d seconds", *b.Pin, v.problem.Grid)
		}
	}
	for _, need := range b.Needs {
		if _, ok := v.resources[need.Resource]; !ok {
			v.fail(where, "there is no resource %q", need.Resource)
		}
		if need.Amount < 0 || need.Amount > 1e6 {
			v.fail(where, "it needs %d of %q", need.Amount, need.Resource)
		}
	}
	for _, at := range b.Window {
		if at != nil && (*at < -horizon || *at > horizon) {
			v.fail(where, "its window reaches more than a week from the start")
		}
	}
	for _, id := range b.follows() {
		if _, ok := v.blocks[id]; !ok {
			v.fail(where, "it comes after %q, which is not a block", id)
		}
	}
}

// levels are lengths that never fall, of worths that never do.
func (v *checker) levels(where string, levels []Level) {
	for l, level := range levels {
		at := fmt.Sprintf("%s[%d]", where, l)
		if level.Seconds < 1 || level.Seconds > horizon || math.IsNaN(level.Value) || level.Value < 0 ||
			level.Value > 1e6 {
			v.fail(at, "it needs seconds of 1 or more and a value of 0 or more")
		}
		if l > 0 && (level.Seconds < levels[l-1].Seconds || level.Value < levels[l-1].Value) {
			v.fail(at, "levels go from the shortest to the longest, and none is worth less than the one before it")
		}
	}
}

// links finds a cycle among the after links.
func (v *checker) links() {
	if v.err != nil {
		return
	}
	const open, done = 1, 2
	state := make([]int, len(v.problem.Blocks))
	var visit func(int)
	visit = func(i int) {
		state[i] = open
		for _, id := range v.problem.Blocks[i].follows() {
			switch j := v.blocks[id]; state[j] {
			case open:
				v.fail(fmt.Sprintf("blocks[%d] %q", i, v.problem.Blocks[i].ID),
					"its after links run in a circle through %q", id)
			case 0:
				visit(j)
			}
		}
		state[i] = done
	}
	for i := range state {
		if state[i] == 0 {
			visit(i)
		}
	}
}
