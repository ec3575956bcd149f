package runin

// layout says where in a list of ints each thing lies that the blocks placed so
// far take, from the due times backwards. For each strand there are three: the
// moment from which it is taken (at its index), the start of its first block that
// has a phase (from firstAt on), and the player-seconds of its work outside the
// order that come before that start (from pendingAt on). For each exclusive
// resource there is the moment from which it is taken (from unitAt on), for each
// block the moment by which links make it end (from linkAt on). Where there are
// walks, there is for each strand (from reachAt on) and for each exclusive resource
// (from unitReachAt on) the moment by which it has to be done at each place. Each shared
// resource has a list, where shareAt says: its length, then start and amount of
// each use, rising by start.
type layout struct {
	firstAt, pendingAt, unitAt, linkAt int
	reachAt, unitReachAt               int
	shareAt                            []int
	size                               int
}

func (m *model) readLayout() {
	n := len(m.strands)
	m.layout = layout{firstAt: n, pendingAt: 2 * n, unitAt: 3 * n, linkAt: 3*n + len(m.units)}
	m.reachAt = m.linkAt + len(m.blocks)
	m.unitReachAt = m.reachAt + n*len(m.walks)
	m.size = m.unitReachAt + len(m.units)*len(m.walks)
	for r := range m.shared {
		m.shareAt = append(m.shareAt, m.size)
		m.size++
		for i := range m.blocks {
			for _, sh := range m.blocks[i].shares {
				if sh.resource == r {
					m.size += 2
				}
			}
		}
	}
}

// nothing makes taken that of no block at all.
func (m *model) nothing(taken []int) {
	clear(taken)
	for k := range m.strands {
		taken[k], taken[m.firstAt+k] = m.strands[k].due, m.strands[k].due
	}
	for i := m.unitAt; i < m.unitReachAt+len(m.units)*len(m.walks); i++ {
		taken[i] = 2 * horizon
	}
}

// limit is the latest moment at which block i could end beside what is taken.
func (m *model) limit(taken []int, i int) int {
	b := &m.blocks[i]
	limit := taken[m.linkAt+i]
	for _, k := range b.strands {
		limit = min(limit, taken[k])
	}
	for _, u := range b.units {
		limit = min(limit, taken[m.unitAt+u])
	}
	if b.place >= 0 {
		for _, k := range b.strands {
			limit = min(limit, taken[m.reachAt+k*len(m.walks)+b.place])
		}
		for _, u := range b.units {
			limit = min(limit, taken[m.unitReachAt+u*len(m.walks)+b.place])
		}
	}
	for _, sh := range b.shares {
		// Uses rise by start: what is used just before an end grows with it.
		free := m.problem.Resources[m.shared[sh.resource]].Capacity - sh.amount
		for uses := m.uses(taken, sh.resource); len(uses) > 0; uses = uses[2:] {
			if free -= uses[1]; free < 0 {
				limit = min(limit, uses[0])
				break
			}
		}
	}
	return limit
}

// uses are start and amount of each use of a shared resource, one after the
// other, rising by start.
func (m *model) uses(taken []int, resource int) []int {
	at := m.shareAt[resource]
	return taken[at+1:][:2*taken[at]]
}

// put takes what block i takes from start to end, of which fixed events take
// missed player-seconds. It returns the player-seconds of work that now lie after
// the first block of their strand.
func (m *model) put(taken []int, i, start, end int, missed absence) (worked int) {
	b := &m.blocks[i]
	for _, k := range b.strands {
		taken[k] = start
	}
	if b.phase >= 0 {
		worked = b.people*(end-start) - missed.away
		first, pending := taken[m.firstAt:m.pendingAt], taken[m.pendingAt:m.unitAt]
		for _, k := range b.strands {
			worked += pending[k]
			first[k], pending[k] = start, 0
		}
	} else {
		for _, k := range b.strands {
			away := 0
			if missed.away > 0 {
				away = overlap(m.strands[k].closed, start, end)
			}
			taken[m.pendingAt+k] += len(m.strands[k].players) * (end - start - away)
		}
	}
	for _, u := range b.units {
		taken[m.unitAt+u] = start
	}
	if b.place >= 0 {
		m.walked(taken, b, start)
	}
	for _, j := range b.linked {
		taken[m.linkAt+j] = min(taken[m.linkAt+j], start)
	}
	for _, sh := range b.shares {
		m.use(taken, sh.resource, start, sh.amount)
	}
	return worked
}

// walked keeps how early everybody in b has to be done elsewhere.
func (m *model) walked(taken []int, b *block, start int) {
	places := len(m.walks)
	for _, k := range b.strands {
		m.reach(taken[m.reachAt+k*places:][:places], b.place, start)
	}
	for _, u := range b.units {
		if m.problem.Resources[m.units[u]].Walks {
			m.reach(taken[m.unitReachAt+u*places:][:places], b.place, start)
		}
	}
}

// use puts a use into the list of a shared resource.
func (m *model) use(taken []int, resource, start, amount int) {
	list := taken[m.shareAt[resource]:]
	n := list[0]
	for ; n > 0 && list[2*n-1] > start; n-- {
		list[2*n+1], list[2*n+2] = list[2*n-1], list[2*n]
	}
	list[2*n+1], list[2*n+2] = start, amount
	list[0]++
}

// attended is the share of block b that is not missed, from 0 to 1.
func (b *block) attended(seconds int, missed absence) float64 {
	if missed.counts == 0 {
		return 1
	}
	return 1 - float64(missed.counts)/float64(b.people*seconds)
}
