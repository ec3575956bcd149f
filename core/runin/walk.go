package runin

import "cuestart/core/clock"

// readPlaces numbers the places that somebody walks to or from, and takes the
// walks between them in whole units, rounded up.
func (m *model) readPlaces() map[string]int {
	places := map[string]int{}
	number := func(place string) int {
		n, known := places[place]
		if !known {
			n = len(places)
			places[place] = n
		}
		return n
	}
	for _, w := range m.problem.Walks {
		number(w.From)
		number(w.To)
	}
	for range places {
		m.walks = append(m.walks, make([]int, len(places)))
	}
	for _, w := range m.problem.Walks {
		units := (w.Seconds + m.unit - 1) / m.unit
		m.walks[places[w.From]][places[w.To]], m.walks[places[w.To]][places[w.From]] = units, units
	}
	return places
}

// placed is the number of a place; -1 where nobody walks to it.
func placed(places map[string]int, place string) int {
	if n, known := places[place]; known && place != "" {
		return n
	}
	return -1
}

// walk is the way between two places.
func (m *model) walk(from, to int) int {
	if from < 0 || to < 0 {
		return 0
	}
	return m.walks[from][to]
}

// walk is the way between two places in seconds.
func (p *Problem) walk(from, to string) clock.Offset {
	for _, w := range p.Walks {
		if w.From == from && w.To == to || w.From == to && w.To == from {
			return clock.Offset(w.Seconds)
		}
	}
	return 0
}

// between is the walk from block i to block j, or back, of players or of who leads
// both.
func (p *Problem) between(i, j int) clock.Offset {
	b, c := &p.Blocks[i], &p.Blocks[j]
	walk := p.walk(b.Place, c.Place)
	if walk == 0 || intersect(p.members(b.Players), p.members(c.Players)) {
		return walk
	}
	for k := range p.Resources {
		r := &p.Resources[k]
		if mine, theirs := p.use(i, r), p.use(j, r); r.Walks && mine > 0 && theirs > 0 && mine+theirs > r.Capacity {
			return walk
		}
	}
	return 0
}

// straight is when block j starts, straight after block i has ended at end.
func (p *Problem) straight(i, j int, end clock.Offset) clock.Offset {
	start := int(end + p.between(i, j))
	return clock.Offset(floorTo(start+p.Grid-1, p.Grid))
}

// reach lowers, in a list by place, the moment by which one has to be done there so as
// to begin at a place at start.
func (m *model) reach(list []int, place, start int) {
	if place < 0 {
		return
	}
	for p, walk := range m.walks[place] {
		list[p] = min(list[p], start-walk)
	}
}
