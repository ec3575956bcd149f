package runin

import (
	"math"
	"slices"
	"sync"
)

// descend looks for multipliers that bring the bound of the root down towards target, the best
// score known, and keeps the best of them. It spends about steps steps more, but one round at
// least. The steps are as long as Polyak 1969 has them, along slopes that keep part of those
// before (Camerini 1975).
func (x *relaxation) descend(target float64, steps int) (lowest float64) {
	steps += x.spent()
	best, lowest := slices.Clone(x.multipliers), math.Inf(1)
	slope, along := make([]float64, len(best)), make([]float64, len(best))
	scale, stale := 1.0, 0
	for {
		bound := x.slope(slope)
		if stale++; bound < lowest-1e-4*math.Abs(lowest) {
			stale = 0
		}
		if bound < lowest {
			lowest = bound
			copy(best, x.multipliers)
		}
		if stale > 8 {
			scale, stale = scale*0.6, 0
		}
		if math.IsInf(target, -1) {
			target = 0.9 * bound
		}
		norm := 0.0
		for j, g := range slope {
			along[j] = g + momentum*along[j]
			norm += x.weight[j] * along[j] * along[j]
		}
		step := scale * (bound - target) / norm
		if bound-target < enough*math.Abs(target) || norm == 0 || scale < 1e-3 || x.spent() >= steps ||
			x.ctx.Err() != nil {
			break
		}
		for j, d := range along {
			x.multipliers[j] -= step * x.weight[j] * d
		}
		for j := x.prices; j < len(x.multipliers); j++ {
			x.multipliers[j] = max(0, x.multipliers[j])
		}
		x.refresh()
	}
	if !slices.Equal(x.multipliers, best) {
		copy(x.multipliers, best)
		x.refresh()
	}
	return lowest
}

// placesPerStep is how many places of tables cost a step.
const placesPerStep = 500

// enough is how near the target, in parts of it, the search does the rest sooner.
const enough = 0.0005

// momentum is how much of the slopes before is kept.
const momentum = 0.8

// spent is how many steps the tables have taken so far.
func (x *relaxation) spent() int {
	filled := 0
	for k := range x.rows {
		filled += x.rows[k].filled
	}
	return filled / placesPerStep
}

// slope gives the bound of the root, and how it changes with each multiplier.
func (x *relaxation) slope(slope []float64) (bound float64) {
	clear(slope[:x.prices])
	for n := range x.offers {
		o := &x.offers[n]
		copy(slope[o.at:], o.amount)
		bound += o.worth[x.span]
	}
	values, chosen := make([]float64, len(x.rows)), make([][]choice, len(x.rows))
	var both sync.WaitGroup
	for half := range 2 {
		both.Go(func() {
			for k := half; k < len(x.rows); k += 2 {
				values[k], chosen[k] = x.choose(k)
			}
		})
	}
	both.Wait()
	for k := range x.rows {
		r := &x.rows[k]
		bound += values[k]
		for _, ch := range chosen[k] {
			c := &r.copies[ch.copy]
			slope[c.at+ch.level]++
			slope[c.at+len(c.levels)] += float64(ch.end - c.levels[ch.level].seconds - x.span/2)
			x.needs(&x.blocks[c.block], func(n, amount int) {
				at := x.offers[n].at
				for t := ch.end - c.levels[ch.level].seconds; t < ch.end; t++ {
					slope[at+t] -= c.part * float64(amount)
				}
			})
		}
	}
	x.balance(slope)
	return bound
}

// balance keeps the multipliers of a block's copies summing to nothing, and
// prices from falling below it.
func (x *relaxation) balance(slope []float64) {
	for i := range x.blocks {
		b := &x.blocks[i]
		for l := range len(b.levels) + 1 {
			mean := 0.0
			for _, at := range x.copies[i] {
				mean += slope[at+l] / float64(len(b.strands))
			}
			for _, at := range x.copies[i] {
				slope[at+l] -= mean
			}
		}
	}
	for j := x.prices; j < len(slope); j++ {
		if x.multipliers[j] == 0 && slope[j] > 0 {
			slope[j] = 0
		}
	}
}

// choice is a block that a strand takes: which copy, its level, its end.
type choice struct{ copy, level, end int }

// choose gives the best that strand k can do by itself, and how.
func (x *relaxation) choose(k int) (value float64, chosen []choice) {
	r := &x.rows[k]
	end := x.index(x.strands[k].due)
	t := x.table(r, x.strands[k].blocks)
	phased := t.phased[end] > t.aside[end]
	value = max(t.phased[end], t.aside[end])
	for value > never {
		list := t.list(phased)
		for end > 0 && list[end-1] == list[end] {
			end--
		}
		ch, rest, ok := x.taken(r, t, end, phased)
		if !ok {
			break
		}
		chosen = append(chosen, ch)
		c := &r.copies[ch.copy]
		t, end = rest, ch.end-c.levels[ch.level].seconds
		if x.blocks[c.block].phase >= 0 {
			phased = rest.phased[end] > rest.aside[end]+r.stop[end]
		}
	}
	return value, chosen
}

// taken is the choice that ends at end and makes the best of table t.
func (x *relaxation) taken(r *row, t *table, end int, phased bool) (choice, *table, bool) {
	list := t.list(phased)
	for i := range t.options {
		o := &t.options[i]
		rl := &r.copies[o.copy].levels[o.level]
		if &o.to[0] == &list[0] && end >= rl.first && end <= rl.last &&
			rl.value[end]+(o.from[end-rl.seconds]+o.by) == list[end] {
			return choice{o.copy, o.level, end}, o.rest, true
		}
	}
	return choice{}, nil, false
}
