// Package runintest makes run-in problems to test and measure with.
package runintest

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/runin"
)

// Size says how large a problem is, and how short of minutes.
type Size struct{ Players, Blocks, Groups, Resources, Grid, Minutes int }

// The sizes that the engine's times are stated for. Tight and Crowded are the
// hard ones: most of what is optional has to be left out.
var (
	Small   = Size{Players: 8, Blocks: 8, Groups: 3, Resources: 2, Grid: 60, Minutes: 22}
	Middle  = Size{Players: 23, Blocks: 16, Groups: 6, Resources: 4, Grid: 15, Minutes: 30}
	Large   = Size{Players: 46, Blocks: 28, Groups: 10, Resources: 7, Grid: 15, Minutes: 42}
	XLarge  = Size{Players: 80, Blocks: 40, Groups: 14, Resources: 9, Grid: 15, Minutes: 50}
	Tight   = Size{Players: 40, Blocks: 36, Groups: 10, Resources: 3, Grid: 15, Minutes: 20}
	Crowded = Size{Players: 80, Blocks: 40, Groups: 14, Resources: 4, Grid: 15, Minutes: 28}
)

// maker makes one problem.
type maker struct {
	Size
	*rand.Rand
	problem   *runin.Problem
	open, due clock.Offset
	groups    [][]string
}

// Problem makes a problem of that size; the same seed makes the same one. Early phases belong
// mostly to everybody, the sport to groups that may overlap, and the minutes are short of what
// the targets need.
func Problem(seed uint64, size Size) *runin.Problem {
	m := &maker{Size: size, Rand: rand.New(rand.NewPCG(seed, 1)),
		problem: &runin.Problem{Grid: size.Grid, Phases: []string{"raise", "activate", "mobilise", "potentiate",
			"sport"}}}
	m.open, m.due = clock.Offset(-m.grid(size.Minutes*60)-300), -300
	m.players()
	m.resources()
	m.gather()
	m.fixed()
	for i := range size.Blocks {
		b := m.block(i)
		b.Levels = m.levels()
		m.problem.Blocks = append(m.problem.Blocks, b)
	}
	return m.problem
}

// grid brings seconds down to the grid.
func (m *maker) grid(seconds int) int { return seconds / m.Grid * m.Grid }

func (m *maker) players() {
	for i := range m.Players {
		player := runin.Player{ID: fmt.Sprintf("p%d", i+1), Open: m.open, Due: m.due}
		if m.IntN(12) == 0 {
			player.Open += 300
		}
		m.problem.Players = append(m.problem.Players, player)
	}
}

func (m *maker) resources() {
	for i := range m.Resources {
		r := runin.Resource{ID: fmt.Sprintf("r%d", i+1), Capacity: 1 + m.IntN(4)/3}
		if m.IntN(3) == 0 {
			r.Free = [][2]clock.Offset{{m.open, m.due - clock.Offset(m.grid(60*(1+m.IntN(4))))}}
		}
		m.problem.Resources = append(m.problem.Resources, r)
	}
}

// gather puts each player into a group, and somebody into each.
func (m *maker) gather() {
	m.groups = make([][]string, m.Groups)
	for i, player := range m.problem.Players {
		g := i % m.Groups
		if i >= m.Groups {
			g = m.IntN(m.Groups)
		}
		m.groups[g] = append(m.groups[g], player.ID)
	}
}

// team is a group, or two of them.
func (m *maker) team() (ids []string) {
	ids = append(ids, m.groups[m.IntN(len(m.groups))]...)
	if m.IntN(3) == 0 {
		for _, id := range m.groups[m.IntN(len(m.groups))] {
			if !slices.Contains(ids, id) {
				ids = append(ids, id)
			}
		}
	}
	return ids
}

func (m *maker) fixed() {
	for i := range 1 + m.IntN(2) {
		from := m.open + clock.Offset(m.grid(60*(3+m.IntN(m.Minutes*2/3))))
		m.problem.Fixed = append(m.problem.Fixed, runin.Fixed{ID: fmt.Sprintf("f%d", i+1), Players: m.team(),
			Start: from,
			End:   from + clock.Offset(m.grid(60*(2+m.IntN(3)))), Active: m.IntN(3) == 0})
	}
}

// block is block i without its levels: two in five belong to the phases before
// the sport.
func (m *maker) block(i int) runin.Block {
	b := runin.Block{ID: fmt.Sprintf("b%d", i+1), Weight: []float64{1, 3, 3, 9}[m.IntN(4)]}
	early := m.Blocks * 2 / 5
	if i < early {
		b.Phase = m.problem.Phases[i*4/early]
		b.Players = []string{runin.Everyone}
		if m.IntN(4) == 0 {
			b.Players, b.Loose = m.team(), m.IntN(2) == 0
		} else {
			b.Must, b.Excusable = b.Weight == 9 && m.IntN(2) == 0, m.IntN(3) == 0
		}
		return b
	}
	b.Phase, b.Players, b.Loose = "sport", m.team(), m.IntN(2) == 0
	if m.IntN(8) == 0 {
		b.Phase = ""
	}
	if m.IntN(3) > 0 {
		b.Needs = []runin.Need{{Resource: m.problem.Resources[m.IntN(len(m.problem.Resources))].ID, Amount: 1}}
	}
	if i > early && m.IntN(8) == 0 {
		b.After = []string{m.problem.Blocks[m.IntN(i)].ID}
	}
	return b
}

// levels are two or three lengths.
func (m *maker) levels() []runin.Level {
	shortest := m.grid(60 + 30*m.IntN(7))
	longest := m.grid(shortest + 30*(1+m.IntN(6)))
	levels := []runin.Level{{Seconds: shortest, Value: 0.6}}
	if middle := m.grid((shortest + longest) / 2); middle > shortest && middle < longest {
		levels = append(levels, runin.Level{Seconds: middle,
			Value: 0.6 + 0.4*float64(middle-shortest)/float64(longest-shortest)})
	}
	if longest > shortest {
		levels = append(levels, runin.Level{Seconds: longest, Value: 1})
	}
	return levels
}
