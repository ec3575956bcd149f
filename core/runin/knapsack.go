package runin

import (
	"cmp"
	"container/heap"
	"slices"
)

// knapsack is an upper bound of the score: the most that whole levels of
// blocks are worth when only the minutes of each strand and exclusive resource
// count, whatever the order and the waiting. Unlike the prices alone it does
// not take a block by halves. It looks at the most promising nodes first, so
// many at most; the best bound that is left is the answer.
func (s *searcher) knapsack(nodes int) float64 {
	root := s.root()
	k := &packing{searcher: s}
	first := &node{}
	for n := range s.strands {
		first.room = append(first.room, s.room(root, n))
	}
	for u := range s.units {
		first.room = append(first.room, s.unitRoom(root, u))
	}
	for i := range s.blocks {
		p := packed{must: s.musts&(1<<i) != 0}
		b := &s.blocks[i]
		p.uses = slices.Clone(b.strands)
		for _, u := range b.units {
			p.uses = append(p.uses, len(s.strands)+u)
		}
		for _, l := range b.levels {
			gain := l.gain
			if b.phase < 0 { // it can only fill time that would be waited through
				gain += s.lambda * float64(b.people*l.seconds)
			}
			p.levels = append(p.levels, level{l.seconds, gain})
			p.most = max(p.most, gain)
		}
		for _, use := range p.uses {
			p.price += s.prices[use]
		}
		k.blocks = append(k.blocks, p)
	}
	slices.SortStableFunc(k.blocks, func(a, b packed) int { return cmp.Compare(b.most, a.most) })
	// What the blocks from n on are worth at the prices of their minutes.
	k.rest = make([]float64, len(k.blocks)+1)
	for n := len(k.blocks) - 1; n >= 0; n-- {
		worth := 0.0
		for _, l := range k.blocks[n].levels {
			worth = max(worth, l.gain-k.blocks[n].price*float64(l.seconds))
		}
		k.rest[n] = k.rest[n+1] + worth
	}
	first.bound = k.bound(first)
	open := nodeHeap{first}
	for range nodes {
		top := heap.Pop(&open).(*node)
		if top.n == len(k.blocks) || top.bound <= s.bestScore+eps {
			return max(top.bound, s.bestScore)
		}
		k.expand(top, func(next *node) { heap.Push(&open, next) })
		if len(open) == 0 {
			return s.bestScore
		}
	}
	return max(open[0].bound, s.bestScore)
}

type packing struct {
	*searcher
	blocks []packed
	rest   []float64 // by block
}

type packed struct {
	uses   []int
	levels []level
	most   float64
	price  float64 // of a second
	must   bool
}

// node is a choice of levels for the first n blocks.
type node struct {
	n     int
	gain  float64
	room  []int // left of each strand and exclusive resource
	bound float64
}

func (k *packing) bound(x *node) float64 {
	if x.n == len(k.blocks) {
		return x.gain
	}
	bound := x.gain + k.rest[x.n]
	for i, room := range x.room {
		bound += k.prices[i] * float64(room)
	}
	return bound
}

// expand emits the nodes in which one more block is decided.
func (k *packing) expand(x *node, emit func(*node)) {
	b := &k.blocks[x.n]
	for _, l := range b.levels {
		if slices.ContainsFunc(b.uses, func(u int) bool { return x.room[u] < l.seconds }) {
			continue
		}
		next := &node{n: x.n + 1, gain: x.gain + l.gain, room: slices.Clone(x.room)}
		for _, u := range b.uses {
			next.room[u] -= l.seconds
		}
		if next.bound = k.bound(next); next.bound > k.bestScore+eps {
			emit(next)
		}
	}
	if !b.must {
		next := &node{n: x.n + 1, gain: x.gain, room: x.room}
		if next.bound = k.bound(next); next.bound > k.bestScore+eps {
			emit(next)
		}
	}
}

// nodeHeap gives the node of the highest bound first.
type nodeHeap []*node

func (h nodeHeap) Len() int           { return len(h) }
func (h nodeHeap) Less(i, j int) bool { return h[i].bound > h[j].bound }
func (h nodeHeap) Swap(i, j int)      { h[i], h[j] = h[j], h[i] }
func (h *nodeHeap) Push(x any)        { *h = append(*h, x.(*node)) }
func (h *nodeHeap) Pop() any {
	old := *h
	last := old[len(old)-1]
	*h = old[:len(old)-1]
	return last
}
