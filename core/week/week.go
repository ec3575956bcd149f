// Package week adds up what sessions of a week gave each player, by joint and quality and by
// plane, sets it against a coach's targets, and says what is still owed and which drill of a
// pool would give it.
package week

import (
	"cmp"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
)

// Work is a drill that a player did on a day, or is planned to do where nothing was logged.
type Work struct {
	Player  string // id
	Day     string // 2026-11-28
	Drill   *drill.Drill
	Seconds float64 // at work
}

// hardEffort is the effort from which work counts as hard.
const hardEffort = 0.8

// Target is what a week should hold of something for every player.
type Target = club.Target

// meets tells whether a piece of work counts for the target.
func meets(t Target, w Work) bool {
	if t.Hard {
		return w.Drill.Effort >= hardEffort
	}
	return (t.Region == "" || slices.Contains(w.Drill.Regions, t.Region)) &&
		(t.Quality == "" || slices.Contains(w.Drill.Qualities, t.Quality))
}

// Cell is a joint and a quality.
type Cell struct{ Region, Quality string }

// Given is what a week gave one player.
type Given struct {
	Seconds map[Cell]float64
	Planes  map[string]float64 // seconds by plane
	Days    int                // on which there was any work
	Hard    int                // on which some of it was hard
}

// Of adds up work by player. A drill's seconds count whole for each of its joints, qualities
// and planes: they are worked at the same time.
func Of(work []Work) map[string]Given {
	all, days := map[string]Given{}, map[string]map[string]bool{}
	for _, w := range work {
		g, known := all[w.Player]
		if !known {
			g = Given{Seconds: map[Cell]float64{}, Planes: map[string]float64{}}
			days[w.Player] = map[string]bool{}
		}
		for _, region := range w.Drill.Regions {
			for _, quality := range w.Drill.Qualities {
				g.Seconds[Cell{region, quality}] += w.Seconds
			}
		}
		for _, plane := range w.Drill.Planes {
			g.Planes[plane] += w.Seconds
		}
		hard, met := days[w.Player][w.Day]
		if !met {
			g.Days++
		}
		if !hard && w.Drill.Effort >= hardEffort {
			g.Hard++
			hard = true
		}
		days[w.Player][w.Day] = hard
		all[w.Player] = g
	}
	return all
}

// Owed is a target that a player's week does not meet.
type Owed struct {
	Target
	Player string
	Has    int // days
}

// Owing are the targets that players' weeks do not meet, in the order of the targets, then of
// the players.
func Owing(players []string, work []Work, targets []Target) (list []Owed) {
	for _, t := range targets {
		days := map[string]map[string]bool{}
		for _, w := range work {
			if meets(t, w) {
				if days[w.Player] == nil {
					days[w.Player] = map[string]bool{}
				}
				days[w.Player][w.Day] = true
			}
		}
		for _, p := range players {
			if has := len(days[p]); !t.AtMost && has < t.Days || t.AtMost && has > t.Days {
				list = append(list, Owed{t, p, has})
			}
		}
	}
	return list
}

// Turn is the drill of a pool whose turn it is: the one that was used least recently, by the
// day it was used last ("": never); among those of the same day the one that gives most of
// what is owed, and then the first of the pool. Nil where the pool is empty.
func Turn(pool []drill.Drill, last map[string]string, owed []Owed) *drill.Drill {
	if len(pool) == 0 {
		return nil
	}
	gives := func(d *drill.Drill) (n int) {
		for _, o := range owed {
			if Gives(o, d) {
				n++
			}
		}
		return n
	}
	order := make([]*drill.Drill, len(pool))
	for i := range pool {
		order[i] = &pool[i]
	}
	return slices.MinFunc(order, func(a, b *drill.Drill) int {
		return cmp.Or(strings.Compare(last[a.Code], last[b.Code]), gives(b)-gives(a))
	})
}

// Fills are the drills that give something that is owed, those that give it to most players
// first; none that is hard where hard days are over their target.
func Fills(book []drill.Drill, owed []Owed) (list []drill.Drill) {
	full := slices.ContainsFunc(owed, func(o Owed) bool { return o.Hard && o.AtMost })
	gives := map[string]int{}
	for i := range book {
		d := &book[i]
		if full && d.Effort >= hardEffort {
			continue
		}
		for _, o := range owed {
			if Gives(o, d) {
				gives[d.Code]++
			}
		}
		if gives[d.Code] > 0 {
			list = append(list, *d)
		}
	}
	slices.SortStableFunc(list, func(a, b drill.Drill) int { return gives[b.Code] - gives[a.Code] })
	return list
}

// Gives tells whether a drill gives something of what a player is owed.
func Gives(o Owed, d *drill.Drill) bool { return !o.AtMost && meets(o.Target, Work{Drill: d}) }
