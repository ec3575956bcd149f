// Package runintest makes run-in problems to test and measure with.
package runintest

import (
	"fmt"
	"math/rand/v2"

	"cuestart/core/clock"
	"cuestart/core/runin"
)

// Size says how large a problem is.
type Size struct{ Players, Blocks, Groups, Resources, Grid, Minutes int }

// The sizes that the engine's times are stated for.
var (
	Small  = Size{8, 8, 3, 2, 60, 22}
	Middle = Size{23, 16, 6, 4, 15, 30}
	Large  = Size{46, 28, 10, 7, 15, 42}
	XLarge = Size{80, 40, 14, 9, 15, 50}
)

// Problem makes a problem of that size; the same seed makes the same one.
// Early phases belong mostly to everybody, the sport to groups that may
// overlap, and the minutes are short of what the targets need.
func Problem(seed uint64, size Size) *runin.Problem {
	r := rand.New(rand.NewPCG(seed, 1))
	grid := func(seconds int) int { return seconds / size.Grid * size.Grid }
	open, due := clock.Offset(-grid(size.Minutes*60)-300), clock.Offset(-300)
	p := &runin.Problem{Grid: size.Grid, Phases: []string{"raise", "activate", "mobilise", "potentiate", "sport"}}
	for i := range size.Players {
		player := runin.Player{ID: fmt.Sprintf("p%d", i+1), Open: open, Due: due}
		if r.IntN(12) == 0 {
			player.Open += 300
		}
		p.Players = append(p.Players, player)
	}
	for i := range size.Resources {
		res := runin.Resource{ID: fmt.Sprintf("r%d", i+1), Capacity: 1 + r.IntN(4)/3}
		if r.IntN(3) == 0 {
			res.Free = [][2]clock.Offset{{open, due - clock.Offset(grid(60*(1+r.IntN(4))))}}
		}
		p.Resources = append(p.Resources, res)
	}
	groups := make([][]string, size.Groups)
	for i, player := range p.Players {
		g := i % size.Groups
		if i >= size.Groups {
			g = r.IntN(size.Groups)
		}
		groups[g] = append(groups[g], player.ID)
	}
	team := func() (ids []string) {
		ids = append(ids, groups[r.IntN(len(groups))]...)
		if r.IntN(3) == 0 {
			for _, id := range groups[r.IntN(len(groups))] {
				if !contains(ids, id) {
					ids = append(ids, id)
				}
			}
		}
		return ids
	}
	for i := range 1 + r.IntN(2) {
		from := open + clock.Offset(grid(60*(3+r.IntN(size.Minutes*2/3))))
		p.Fixed = append(p.Fixed, runin.Fixed{ID: fmt.Sprintf("f%d", i+1), Players: team(), Start: from, End: from + clock.Offset(grid(60*(2+r.IntN(3)))), Active: r.IntN(3) == 0})
	}
	early := size.Blocks * 2 / 5
	for i := range size.Blocks {
		b := runin.Block{ID: fmt.Sprintf("b%d", i+1), Weight: []float64{1, 3, 3, 9}[r.IntN(4)]}
		if i < early {
			b.Phase = p.Phases[i*4/early]
			b.Players = []string{runin.Everyone}
			if r.IntN(4) == 0 {
				b.Players, b.Loose = team(), r.IntN(2) == 0
			} else {
				b.Must, b.Excusable = b.Weight == 9 && r.IntN(2) == 0, r.IntN(3) == 0
			}
		} else {
			b.Phase, b.Players, b.Loose = "sport", team(), r.IntN(2) == 0
			if r.IntN(8) == 0 {
				b.Phase = ""
			}
			if r.IntN(3) > 0 {
				b.Needs = []runin.Need{{Resource: p.Resources[r.IntN(len(p.Resources))].ID, Amount: 1}}
			}
			if i > early && r.IntN(8) == 0 {
				b.After = []string{p.Blocks[r.IntN(i)].ID}
			}
		}
		shortest := grid(60 + 30*r.IntN(7))
		longest := grid(shortest + 30*(1+r.IntN(6)))
		b.Levels = []runin.Level{{Seconds: shortest, Value: 0.6}}
		if middle := grid((shortest + longest) / 2); middle > shortest && middle < longest {
			b.Levels = append(b.Levels, runin.Level{Seconds: middle, Value: 0.6 + 0.4*float64(middle-shortest)/float64(longest-shortest)})
		}
		if longest > shortest {
			b.Levels = append(b.Levels, runin.Level{Seconds: longest, Value: 1})
		}
		p.Blocks = append(p.Blocks, b)
	}
	return p
}

func contains(list []string, id string) bool {
	for _, x := range list {
		if x == id {
			return true
		}
	}
	return false
}
