package runin

import (
	"slices"

	"cuestart/core/clock"
)

// readResources keeps the resources that can bind: those of which no two
// users fit side by side as a place in the state's list, the others as lists.
func (m *model) readResources() {
	for r := range m.problem.Resources {
		resource := &m.problem.Resources[r]
		uses, total := m.usesOf(resource)
		var amounts []int
		var users uint64
		for i, amount := range uses {
			if amount == 0 {
				continue
			}
			amounts, users = append(amounts, amount), users|1<<i
			if amount > resource.Capacity {
				m.blocks[i].closed = append(m.blocks[i].closed, span{-2 * horizon, 2 * horizon})
			}
			m.blocks[i].closed = append(m.blocks[i].closed, m.notFree(resource.Free)...)
		}
		if total <= resource.Capacity {
			continue
		}
		slices.Sort(amounts)
		exclusive := len(amounts) < 2 || amounts[0]+amounts[1] > resource.Capacity
		for i, amount := range uses {
			switch b := &m.blocks[i]; {
			case amount == 0:
			case exclusive:
				b.units = append(b.units, len(m.units))
			default:
				b.shares = append(b.shares, share{len(m.shared), amount})
			}
		}
		if exclusive {
			m.units, m.users = append(m.units, r), append(m.users, users)
			m.closed = append(m.closed, merge(m.notFree(resource.Free)))
		} else {
			m.shared = append(m.shared, r)
		}
	}
}

// usesOf is how much of a resource each block needs, and all of them together.
func (m *model) usesOf(r *Resource) (uses []int, total int) {
	uses = make([]int, len(m.blocks))
	for i := range m.problem.Blocks {
		uses[i] = m.problem.use(i, r)
		total += uses[i]
	}
	return uses, total
}

// use is how much of a resource block i needs.
func (p *Problem) use(i int, r *Resource) (amount int) {
	for _, need := range p.Blocks[i].Needs {
		if need.Resource == r.ID {
			amount += need.Amount
		}
	}
	return amount
}

// notFree is the time outside the free spans; nil, as free, means always free.
func (m *model) notFree(free [][2]clock.Offset) []span {
	if free == nil {
		return nil
	}
	var open []span
	for _, w := range free {
		open = append(open, span{m.at(w[0]), m.at(w[1])})
	}
	var closed []span
	from := -2 * horizon
	for _, w := range merge(open) {
		closed = append(closed, span{from, w.from})
		from = w.to
	}
	return append(closed, span{from, 2 * horizon})
}
