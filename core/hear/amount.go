package hear

import (
	"math"
	"slices"
	"strings"
)

// amount gives what was counted beside a name the sense that its movement allows. times is what
// was said of how often all of it is done, where the marks say that apart.
func (h *hearing) amount(name string, marks []int) (a Amount) {
	var count, times, sets, lengths, held, timed, apart *mark
	back, line, there, sided := false, false, false, 1.0
	for _, k := range marks {
		m := &h.marks[k]
		switch m.role {
		case roleCount:
			if h.ofAnother(m) {
				continue
			}
			if count == nil {
				count = m
			} else if strings.Contains(h.text(m.from, m.to), "more") { // ten, rest, ten more
				a.Sets, a.Reps = 2, m.n
				count = m
			} else if count.n < m.n && strings.Contains(h.text(m.from, m.to), "of") {
				count = m
			}
		case roleSetsReps:
			a.Sets, a.Reps, a.Least = m.sets, m.n, m.least
		case roleSets:
			sets = m
		case roleTimes:
			times = m
		case roleSide:
			a.Sides = 2
			if strings.Contains(h.text(m.from, m.to), "repeat") {
				a.Sides = 2
			}
		case roleWays:
			a.Ways = max(a.Ways, m.n)
		case roleParts:
			a.Parts = m.list
			if m.text == "sides" {
				a.Sides, a.PartSides = 2, true
			}
		case roleTime:
			if timed == nil {
				timed = m
			}
		case roleHeld:
			held = m
		case roleBreaths:
			a.Breaths = m.n
			if m.sets > 0 {
				a.Reps = m.sets
			}
		case roleOnOff:
			a.Seconds, a.Rest = m.n, m.least
		case roleRest:
			a.Rest = m.n
		case roleTrips:
			a.Trips, a.Metres, a.Unit = m.sets, m.n, h.unit(m)
		case roleMetres:
			if a.Metres == 0 {
				a.Metres, a.Unit = m.n, h.unit(m)
			}
		case roleApart:
			apart = m
		case roleLine:
			line, a.To = true, m.text
			if a.Metres == 0 {
				a.Metres = m.n
			}
		case roleBack:
			back = true
			there = there || m.to-m.from >= 3
		case roleLengths:
			lengths = m
		case roleLaps:
			a.Laps, a.Least = m.n, m.least
		case roleEfforts:
			if len(m.list) > len(a.Efforts) {
				a.Efforts = m.list
			}
		case roleDegrees:
			a.Reps, a.Efforts = m.n, m.list
		case roleTempo:
			a.Tempo = m.list
		case rolePlace:
			if m.n > 0 && h.Goes(name) { // round the pitch
				a.Laps = max(a.Laps, 1)
			}
		}
	}
	if a.Seconds > 0 && a.Rest > 0 && timed == nil { // 20 s on, 10 off
		a.Sets = max(1, of(times), of(sets), of(count))
		return a
	}
	repeats := max(of(times), of(sets))
	switch goes := h.Goes(name); {
	case a.Laps > 0:
		if back {
			a.Ways = max(a.Ways, 1)
		}
		if a.Laps == 1 && repeats > 0 {
			a.Laps = repeats
		} else if repeats > 0 {
			a.Sets = repeats
		}
		return a
	case lengths != nil && (goes || line || a.Metres == 0):
		a.Trips, a.Least = lengths.n*max(1, repeats), lengths.least
		if back {
			a.Trips *= 2
		}
		return a
	case a.Metres > 0 || line && (goes || back || count == nil && len(a.Parts) == 0) || back && (goes || there):
		h.travel(&a, count, times, sets, back, sided)
		return a
	case apart != nil && goes && apart.text == "from":
	}
	h.inPlace(name, &a, count, times, sets, held, timed)
	return a
}

// ofAnother tells whether a bare number counts something that is no part of what is done: "3
// taggers".
func (h *hearing) ofAnother(m *mark) bool {
	if m.to >= len(h.words) || m.to == h.name0 || h.words[m.to].delimits() || h.name1 == 0 {
		return false
	}
	if slices.ContainsFunc(h.marks, func(other mark) bool { return other.from == m.to }) {
		return false
	}
	return m.to-m.from == 1 && (m.from < h.name0 || m.from >= h.name1 && m.from > 0 && h.words[m.from-1].delimits()) && !slices.Contains(natural, h.words[m.to].is) && !h.Word(h.words[m.to].is)
}

// travel gives what is done over a length its number of trips.
func (h *hearing) travel(a *Amount, count, times, sets *mark, back bool, _ float64) {
	trips := a.Trips
	for _, m := range []*mark{times, count, sets} {
		if m == nil {
			continue
		}
		if trips == 0 {
			trips = m.n
			a.Least = m.least
		} else if m != count {
			trips *= m.n
		}
	}
	if trips == 0 && a.Reps > 0 && a.Sets > 0 { // 3 x 4 over 10 m
		trips = a.Sets * a.Reps
	}
	if trips == 0 {
		trips = max(1, float64(len(a.Efforts)))
	}
	if back {
		trips *= 2
		a.Least *= 2
	}
	a.Trips, a.Reps, a.Sets = trips, 0, 0
	if len(a.Parts) > 0 {
		a.Parts = nil
	}
}

// inPlace gives what is counted, held or timed its sense.
func (h *hearing) inPlace(name string, a *Amount, count, times, sets, held, timed *mark) {
	still := h.Still(name)
	if count != nil && a.Reps == 0 && len(a.Parts) == 0 {
		a.Reps, a.Least = count.n, count.least
	}
	switch {
	case sets != nil && times != nil && a.Reps == 0:
		a.Sets, a.Reps = sets.n, times.n
	case sets != nil:
		a.Sets, a.LeastSets = sets.n, sets.least
	case times != nil && held != nil && count == nil && a.Reps == 0 && !still:
		a.Reps, a.Least = times.n, times.least
	case times != nil && (a.Reps > 0 || timed != nil || held != nil || len(a.Parts) > 0 || a.Breaths > 0) && a.Sets == 0:
		a.Sets, a.LeastSets = times.n, times.least
	case times != nil && a.Reps == 0:
		a.Reps, a.Least = times.n, times.least
	}
	switch {
	case timed != nil && timed.sets > 0 && still:
		a.Hold, a.Reps = timed.n, timed.sets
	case timed != nil && timed.sets > 0:
		a.Seconds, a.Sets = timed.n, timed.sets
	case held != nil:
		a.Counted = !still && (a.Reps > 0 || len(a.Parts) > 0)
		a.Hold = held.n
		if a.Reps == 0 && len(a.Parts) == 0 {
			a.Reps = 1
			if still && a.Ways > 1 {
				a.Parts = nil
			}
		}
	case a.Breaths > 0 && (count != nil || times != nil || a.Sets > 0 || len(a.Parts) > 0):
		a.Counted = true
	case timed != nil && (still || a.Reps > 0 && timed.n <= 30 && count != nil):
		a.Hold = timed.n
		if a.Reps == 0 {
			a.Reps = 1
		}
	case timed != nil:
		a.Seconds, a.Least = timed.n, timed.least
		if a.Reps > 0 && a.Sets == 0 { // 5 x 30 s
			a.Sets, a.Reps = a.Reps, 0
		}
	case a.Breaths > 0 && a.Reps == 0:
		a.Reps = 1
	}
	if a.Reps == 1 && a.Hold == 0 && a.Breaths == 0 && a.Seconds == 0 && count == nil && times == nil {
		a.Reps = 0
	}
	if a.Ways > 2 && a.Hold == 0 && a.Reps > 0 && !still {
		return
	}
}

// unit is in what a length was said.
func (h *hearing) unit(m *mark) string {
	for _, w := range h.words[m.from:m.to] {
		if w.is == "yd" || w.is == "ft" {
			return w.is
		}
	}
	return ""
}

func of(m *mark) float64 {
	if m == nil {
		return 0
	}
	return m.n
}

// sense is how likely an amount of a movement is: nobody does 90 sprints, a stretch ten times
// on each side, reps of what is held.
func (h *hearing) sense(name string, a *Amount) (s float64) {
	each := max(1, a.Sets) * max(1, a.Sides)
	reps := a.Reps * each
	switch {
	case reps > 120, a.Trips > 40, a.Laps > 20, a.Metres > 400 && a.Trips > 4:
		s -= 6
	case reps > 40 && a.Reps > 30:
		s -= 2
	case a.Hold > 180, a.Seconds > 2400:
		s -= 4
	}
	if a.Hold*reps > 600 {
		s -= 3
	}
	if !a.None() {
		s += 1.5
	}
	if math.IsNaN(s) {
		return -9
	}
	return s
}

// numbers are those that no role explains, beside the ones in a name and in cues.
func (h *hearing) numbers(from, to int) (n int) {
	for i := range h.words {
		if !h.words[i].numeral || i >= from && i < to {
			continue
		}
		if !slices.ContainsFunc(h.marks, func(m mark) bool { return m.from <= i && i < m.to }) && !h.words[i].spelt {
			n++
		}
	}
	return n
}
