package runin

import (
	"cmp"
	"math"
	"math/bits"
	"slices"
	"sort"

	"cuestart/core/clock"
)

// model is a problem made ready for the search: players gathered into strands,
// names turned into indexes, rules into masks.
type model struct {
	problem *Problem
	unit    int     // seconds in one unit of the model's times: the grid if all times lie on it, else 1
	grid    int     // in units
	lambda  float64 // what one idle player-second costs, beside the value
	walks   [][]int // from place to place; none where nobody walks
	strands []strand
	blocks  []block
	closed  [][]span // by exclusive resource: when it is not free
	units   []int    // for each vector place of an exclusive resource, the resource
	users   []uint64 // of each such place, the blocks that need it
	waits   uint64   // blocks that links may keep waiting
	tangled bool     // links stand against the order of phases: no order holds all blocks
	shared  []int    // resources that several blocks may hold at once
	layout
}

// strand is the players who share blocks, fixed events and window.
type strand struct {
	players   []int // indexes, rising
	open, due int
	blocks    uint64 // of these blocks
	events    []event
	closed    []span // when fixed events hold them, merged
	counted   []span // when such events hold them whose time counts as missed, merged
	active    []span // when such events keep them warm, by start
}

// event is a fixed event as its players live it.
type event struct {
	span
	place           int
	active, excused bool
}

type block struct {
	phase     int // -1: outside the order
	place     int // -1: wherever they are
	strands   []int
	people    int
	levels    []level
	once      int // how many of the levels are for where the musts do not fit
	low       int // the shortest level that may be chosen
	must      bool
	excusable bool
	pinned    bool
	pin       int
	closed    []span // when it cannot run, merged and rising; covers all time outside its window
	later     uint64 // blocks that, if kept, start after it has ended
	linked    []int  // blocks that it has to wait for through a link
	units     []int  // vector places of exclusive resources
	shares    []share
}

type level struct {
	seconds int
	gain    float64
}

type share struct{ resource, amount int } // resource: index into model.shared

func newModel(p *Problem) *model {
	m := &model{problem: p, unit: unitOf(p)}
	m.grid = p.Grid / m.unit
	places := m.readPlaces()
	m.gatherStrands(places)
	m.blocks = make([]block, len(p.Blocks))
	for i := range p.Blocks {
		m.readBlock(i, places)
	}
	m.orderBlocks()
	m.tangled = m.isTangled()
	m.readResources()
	for i := range m.blocks {
		m.blocks[i].closed = merge(m.blocks[i].closed)
	}
	m.readLayout()
	return m
}

// unitOf is the grid where every time of the problem is a multiple of it.
func unitOf(p *Problem) int {
	on := func(times ...clock.Offset) bool {
		return !slices.ContainsFunc(times, func(t clock.Offset) bool { return int(t)%p.Grid != 0 })
	}
	for _, x := range p.Players {
		if !on(x.Open, x.Due) {
			return 1
		}
	}
	for _, r := range p.Resources {
		for _, w := range r.Free {
			if !on(w[0], w[1]) {
				return 1
			}
		}
	}
	for _, f := range p.Fixed {
		if !on(f.Start, f.End) {
			return 1
		}
	}
	for _, b := range p.Blocks {
		for _, at := range b.Window {
			if at != nil && !on(*at) {
				return 1
			}
		}
		for _, l := range b.Levels {
			if !on(clock.Offset(l.Seconds)) {
				return 1
			}
		}
	}
	return p.Grid
}

func (m *model) at(o clock.Offset) int { return int(o) / m.unit }

// gatherStrands groups the players; strands are sorted by what they have in
// common, so that the order of the players does not matter.
func (m *model) gatherStrands(places map[string]int) {
	p := m.problem
	inBlock := make([]uint64, len(p.Players))
	for i := range p.Blocks {
		for _, player := range p.members(p.Blocks[i].Players) {
			inBlock[player] |= 1 << i
		}
	}
	events := make([][]event, len(p.Players))
	for i := range p.Fixed {
		f := &p.Fixed[i]
		e := event{span: span{m.at(f.Start), m.at(f.End)}, place: placed(places, f.Place), active: f.Active,
			excused: f.Excused}
		for _, player := range p.members(f.Players) {
			events[player] = append(events[player], e)
		}
	}
	for player := range p.Players {
		slices.SortStableFunc(events[player],
			func(a, b event) int { return cmp.Or(a.from-b.from, a.to-b.to, a.place-b.place) })
		s := strand{open: m.at(p.Players[player].Open), due: m.at(p.Players[player].Due), blocks: inBlock[player],
			events: events[player]}
		same := slices.IndexFunc(m.strands, func(t strand) bool {
			return t.open == s.open && t.due == s.due && t.blocks == s.blocks && slices.Equal(t.events, s.events)
		})
		if same < 0 {
			same = len(m.strands)
			m.strands = append(m.strands, s.spread())
		}
		m.strands[same].players = append(m.strands[same].players, player)
	}
	sort.SliceStable(m.strands, func(i, j int) bool {
		a, b := &m.strands[i], &m.strands[j]
		if x, y := bits.Reverse64(a.blocks), bits.Reverse64(b.blocks); x != y {
			return x > y
		}
		if a.open != b.open {
			return a.open < b.open
		}
		return a.due < b.due
	})
}

// spread is the strand with what its events come to.
func (s strand) spread() strand {
	for _, e := range s.events {
		s.closed = append(s.closed, e.span)
		if !e.excused {
			s.counted = append(s.counted, e.span)
		}
		if e.active {
			s.active = append(s.active, e.span)
		}
	}
	s.closed, s.counted = merge(s.closed), merge(s.counted)
	return s
}

// away is when the strand's events keep it from a block at a place, with the walks
// there and back.
func (m *model) away(s *strand, place int) (spans []span) {
	for _, e := range s.events {
		walk := m.walk(place, e.place)
		spans = append(spans, span{e.from - walk, e.to + walk})
	}
	return spans
}

func (m *model) readBlock(i int, places map[string]int) {
	from, to := &m.problem.Blocks[i], &m.blocks[i]
	to.place = placed(places, from.Place)
	to.phase = slices.Index(m.problem.Phases, from.Phase)
	to.must, to.excusable = from.Must, from.Excusable
	if from.Pin != nil {
		to.pinned, to.pin = true, m.at(*from.Pin)
	}
	if from.Window[0] != nil {
		to.closed = append(to.closed, span{-2 * horizon, m.at(*from.Window[0])})
	}
	if from.Window[1] != nil {
		to.closed = append(to.closed, span{m.at(*from.Window[1]), 2 * horizon})
	}
	for _, l := range from.Levels {
		to.levels = append(to.levels, level{l.Seconds / m.unit, from.Weight * l.Value})
	}
	for k := range m.strands {
		s := &m.strands[k]
		if s.blocks&(1<<i) == 0 {
			continue
		}
		to.strands = append(to.strands, k)
		to.people += len(s.players)
		to.closed = append(to.closed, span{-2 * horizon, s.open}, span{s.due, 2 * horizon})
		if !to.excusable {
			to.closed = append(to.closed, m.away(s, to.place)...)
		}
	}
	if to.excusable && !from.going {
		to.closed = append(to.closed, m.nobody(to.strands)...)
	}
}

// nobody is when events hold all of some strands: nothing goes on without everybody.
func (m *model) nobody(strands []int) (spans []span) {
	for n, k := range strands {
		closed := m.strands[k].closed
		if n == 0 {
			spans = slices.Clone(closed)
			continue
		}
		var both []span
		for _, a := range spans {
			for _, b := range closed {
				if s := (span{max(a.from, b.from), min(a.to, b.to)}); s.from < s.to {
					both = append(both, s)
				}
			}
		}
		spans = both
	}
	return spans
}

func (m *model) orderBlocks() {
	for i := range m.blocks {
		for j := range m.blocks {
			shared := slices.ContainsFunc(m.blocks[i].strands,
				func(s int) bool { return slices.Contains(m.blocks[j].strands, s) })
			if i != j && shared && m.problem.ordered(i, j) {
				m.blocks[i].later |= 1 << j
			}
			if slices.Contains(m.problem.Blocks[j].After, m.problem.Blocks[i].ID) {
				m.blocks[i].later |= 1 << j
				m.blocks[j].linked = append(m.blocks[j].linked, i)
				m.waits |= 1 << i
			}
		}
	}
}

// isTangled tells whether some blocks must each end before the other starts.
func (m *model) isTangled() bool {
	done := uint64(0)
	for range m.blocks {
		for i := range m.blocks {
			if m.blocks[i].later&^done == 0 {
				done |= 1 << i
			}
		}
	}
	return done != 1<<len(m.blocks)-1
}

// idleBefore is what the waiting of strand s costs when its first block that has a phase starts
// at first, before any work is credited: the time until due less the active events that begin
// after first.
func (m *model) idleBefore(s *strand, first int) int {
	idle, covered := s.due-first, first
	for _, a := range s.active {
		if a.from <= first {
			continue
		}
		from, to := max(a.from, covered), min(a.to, s.due)
		if to > from {
			idle -= to - from
			covered = to
		}
	}
	return idle
}

// absence is the player-units of a block that fixed events take, and how many of them
// count as missed.
type absence struct{ away, counts int }

// missed is what fixed events take of block b at [from, to).
func (m *model) missed(b *block, from, to int) (a absence) {
	if !b.excusable {
		return absence{}
	}
	for _, k := range b.strands {
		s := &m.strands[k]
		if len(s.closed) > 0 {
			a.away += len(s.players) * overlap(s.closed, from, to)
			a.counts += len(s.players) * overlap(s.counted, from, to)
		}
	}
	return a
}

// latest is the latest end of b, at length seconds, no later than end, at which
// it starts on the grid and clear of its closed times.
func (m *model) latest(b *block, seconds, end int) (int, bool) {
	for {
		start := end - seconds
		if m.grid > 1 {
			start = floorTo(start, m.grid)
		}
		end = start + seconds
		// The spans are few and merged: the first that reaches into [start, end) decides.
		hit := false
		for i := len(b.closed) - 1; i >= 0; i-- {
			if c := b.closed[i]; c.from < end && start < c.to {
				if c.from <= -2*horizon { // before everybody's window
					return 0, false
				}
				end, hit = c.from, true
				break
			}
		}
		if !hit {
			return end, true
		}
	}
}

// most is the gain of a block in full.
func (b *block) most() float64 { return b.levels[len(b.levels)-1].gain }

// lattice is the least by which the values of two plans differ, or less than that: half
// of what is asked of a value where somebody may miss a part.
func (s *searcher) lattice() float64 {
	const finest, scale = 0.0005, 1e6
	common := 0
	for i := range s.blocks {
		b := &s.blocks[i]
		if b.excusable && slices.ContainsFunc(b.strands, func(k int) bool { return len(s.strands[k].counted) > 0 }) {
			return finest
		}
		if s.musts&(1<<i) == 0 {
			common = gcd(common, int(math.Round(b.most()*scale)))
		}
		for _, l := range b.levels {
			common = gcd(common, int(math.Round((b.most()-l.gain)*scale)))
		}
	}
	return max(finest, float64(common)/scale-2*same)
}

func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// rivals tells whether two blocks compete for a strand or a resource.
func (b *block) rivals(c *block) bool {
	return slices.ContainsFunc(b.strands, func(k int) bool { return slices.Contains(c.strands, k) }) ||
		slices.ContainsFunc(b.units, func(u int) bool { return slices.Contains(c.units, u) }) ||
		slices.ContainsFunc(b.shares, func(x share) bool {
			return slices.ContainsFunc(c.shares, func(y share) bool { return x.resource == y.resource })
		})
}
