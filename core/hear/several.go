package hear

import (
	"slices"
	"strings"
)

// several is the reading in which each name that the tags of a line have is done, in turn or one of them; none where
// they have only one.
func (h *hearing) several() Reading {
	if h.called < 2 || !h.inRow && (h.saidAgain() || slices.ContainsFunc(h.names[1:], h.saysHow)) {
		return no
	}
	first, last := h.names[0], h.names[len(h.names)-1]
	end := last.to
	for h.inRow && end < len(h.words) && (h.words[end].numeral || h.is(end, eachWords...) || h.is(end, "s", "min")) &&
		!h.onlyWhen(end) {
		end++
	}
	r := h.with(first.from, end, h.all())
	r.Is, r.Moves, r.Times, r.Score = Combo, true, 1, 4
	r.Name = h.clean(first.from, last.to)
	h.whoByTags(&r, h.tags)
	shared := make([]tag, len(h.words))
	for _, g := range h.grouped(h.tags) {
		if h.nameOf(g) < 0 {
			copy(shared[g.from:g.to], h.tags[g.from:g.to])
		}
	}
	if h.oneOfThem() {
		r.Is, r.Amount = Choice, h.tally(h.tags, "")
		for _, name := range h.names {
			r.Choices = append(r.Choices, h.clean(name.from, name.to))
		}
		r.Name = strings.Join(r.Choices, " or ")
		return r
	}
	all := h.tally(shared, "")
	each := strings.Contains(strings.ToLower(h.text(last.to, len(h.words))), " of each")
	if r.Amount = (Amount{Rest: all.Rest, Efforts: all.Efforts}); !each {
		r.Times = max(1, all.Sets) * max(1, all.Reps) * max(1, all.Sides) * max(1, all.Trips, all.Laps)
	}
	for k, name := range h.names {
		own := make([]tag, len(h.words))
		for _, g := range h.grouped(h.tags) {
			if h.nameOf(g) == k || each && h.nameOf(g) < 0 {
				copy(own[g.from:g.to], h.tags[g.from:g.to])
			}
		}
		step := Step{h.clean(name.from, name.to), h.tally(own, "")}
		if step.Amount.None() {
			step.Amount.Reps = 1
		}
		r.Steps = append(r.Steps, step)
	}
	return r
}

// saidAgain tells whether the names of a line are one, said again with how many: "tuck jumps: 3 x 5 jumps".
func (h *labelled) saidAgain() bool {
	last := func(n naming) string { return strings.TrimSuffix(h.words[n.to-1].is, "s") }
	for _, n := range h.names[1:] {
		if last(n) != last(h.names[0]) || n.to-n.from > 1 {
			return false
		}
	}
	return true
}

// saysHow tells whether a name is none, but how what stands before it is done: "leg cradles, walking", "side to side".
func (h *tokens) saysHow(n naming) bool {
	ok := n.to-n.from == 1 && strings.HasSuffix(h.words[n.from].is, "ing")
	return h.is(n.from-1, ",") && (ok || only(h.words[n.from:n.to], ways) || only(h.words[n.from:n.to], placeWords) ||
		h.is(n.from, "side") && h.is(n.from+1, "to"))
}

// oneOfThem tells whether one of the names of a line is done: "or" stands between two of them.
func (h *labelled) oneOfThem() bool {
	for k := 1; k < len(h.names); k++ {
		if h.is(h.names[k].from-1, "or", "/") {
			return true
		}
	}
	return false
}

// nameOf is which name a group of words is of: the one of its piece, else, of all but the last piece, the one before
// it; -1: it is of all.
func (h *labelled) nameOf(g group) int {
	if h.inRow {
		return h.rowName(g)
	}
	from, to := g.from, g.to
	for from > 0 && !h.severs(from-1) {
		from--
	}
	for to < len(h.words) && !h.severs(to) {
		to++
	}
	before := -1
	for k, name := range h.names {
		if from <= name.from && name.to <= to {
			return k
		}
		if name.to <= g.from {
			before = k
		}
	}
	if before == len(h.names)-1 {
		return -1
	}
	return before
}

// severs tells whether a word parts what is done from what is done next.
func (h *tokens) severs(i int) bool {
	return h.words[i].delimits() || h.is(i, "then", "and", "+", "into")
}
