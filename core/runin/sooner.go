package runin

// sooner remembers where an excusable block may end, from a latest end on, and
// how much is missed of it there: both depend on that end alone, and finding
// them takes a walk along the grid.
type sooner map[[3]int]choices

type choices struct {
	at     []int     // ends, the latest first
	missed []absence // what is missed there, falling
}

func (c sooner) ends(m *model, i, l, end int) choices {
	key := [3]int{i, l, end}
	found, known := c[key]
	if known {
		return found
	}
	b := &m.blocks[i]
	seconds := b.levels[l].seconds
	missed := m.missed(b, end-seconds, end)
	found = choices{[]int{end}, []absence{missed}}
	for at, ok := end, true; missed.counts > 0; {
		if at, ok = m.latest(b, seconds, at-1); !ok {
			break
		}
		if less := m.missed(b, at-seconds, at); less.counts < missed.counts {
			found.at, found.missed = append(found.at, at), append(found.missed, less)
			missed = less
		}
	}
	c[key] = found
	return found
}
