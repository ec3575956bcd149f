package hear

import (
	"slices"
	"strings"
)

// notParts are words after which a number is no part of how many: "the last 5 hard".
var notParts = strings.Fields("last first final the every in at from for to of by off over after only than under till until next other no number nos lane lanes # x")

// parted makes one amount of counts that say how each part is done, whatever people call it: "ground balls 5
// going away, 5 coming to you", "10 throws low and 10 high". What is said of each is told.
func (h *hearing) parted() {
	h.partedBefore()
	for k := range h.marks {
		first := &h.marks[k]
		if !h.bare(first) && !h.things(first) {
			continue
		}
		of := []*mark{first}
		for n := k + 1; n < len(h.marks) && h.bare(&h.marks[n]) && h.follows(of[len(of)-1], &h.marks[n]); n++ {
			of = append(of, &h.marks[n])
		}
		last := of[len(of)-1]
		if len(of) < 2 || h.is(last.to, "then", "into", "or", "+") || !h.toldOf(last.to, h.piece(last.to)) || !h.partsOf(of) {
			continue
		}
		first.role, first.text = roleParts, "told"
		for _, m := range of {
			if first.list = append(first.list, m.n); m != first {
				m.role = roleNone
			}
		}
		return
	}
}

// partedBefore does so where the words stand before the numbers: "sprints half court 4, full 2".
func (h *hearing) partedBefore() {
	for k := 0; k+1 < len(h.marks); k++ {
		first, next := &h.marks[k], &h.marks[k+1]
		ends := next.to == len(h.words) || h.words[next.to].delimits()
		if !h.bare(first) || !h.bare(next) || first.from == 0 || !h.is(first.to, ",") || !ends || h.words[first.from-1].delimits() {
			continue
		}
		from := first.to + 1
		if n := next.from - from; n < 1 || n > 2 || !only(h.words[from:next.from], placeWords) && !only(h.words[from:next.from], natural) {
			continue
		}
		if h.Moves(strings.ToLower(h.text(0, first.from))) {
			first.role, first.list, first.text, next.role = roleParts, []float64{first.n, next.n}, "before", roleNone
			return
		}
	}
}

// partsOf tells whether counts are of one thing: named before the first, or, where both are alike, behind it.
func (h *hearing) partsOf(of []*mark) bool {
	first := of[0]
	if h.things(first) {
		return h.toldOf(first.to, h.piece(first.to))
	}
	if under := h.is(first.from-1, ":", "--"); first.from > 0 && !under || first.from > 1 && !h.people(0, first.from-1) && !h.Person(strings.ToLower(h.text(0, first.from-1))) {
		return h.is(first.to, "then") || h.toldOf(first.to, h.piece(first.to))
	}
	alike := !slices.ContainsFunc(of, func(m *mark) bool { return m.n != first.n })
	text := strings.ToLower(h.text(first.to, h.piece(first.to)))
	last := of[len(of)-1]
	return alike && (h.Moves(text) || h.Known(text) || h.piece(first.to)-first.to == 2 && h.piece(last.to)-last.to == 1)
}

// bare tells whether a mark is a number that counts and says no more.
func (h *hearing) bare(m *mark) bool {
	return m.role == roleCount && m.to-m.from == 1 && m.n >= 1 && m.n <= 60 && !h.is(m.from-1, notParts...) && !h.inBrackets(m)
}

// things tells whether a mark counts what it names, and nothing else of the line is done: "10 shots close, 5 long".
func (h *hearing) things(m *mark) bool {
	return m.role == roleCount && m.to-m.from == 2 && h.words[m.from].numeral && !h.words[m.to-1].numeral && m.n <= 60 && (m.from == 0 || h.is(m.from-1, ":", "--"))
}

// piece is where what is said of a count ends: at a sign, a number, a word that joins.
func (h *hearing) piece(from int) int {
	i := from
	for i < len(h.words) && !h.words[i].delimits() && !h.words[i].numeral && !h.is(i, "and", "+", "/", "then", "or") {
		if i > from && slices.ContainsFunc(h.marks, func(m mark) bool { return m.from == i && (m.role == roleLeader || m.role == roleWho) }) {
			break
		}
		i++
	}
	return i
}

// follows tells whether the next count stands right behind what is said of one, with no more than a comma or
// a word that joins between.
func (h *hearing) follows(m, next *mark) bool {
	i := h.piece(m.to)
	for i < next.from && h.is(i, ",", "and", "+", "/", "then") {
		i++
	}
	return i == next.from && (i > m.to || h.is(m.to, "then", "and"))
}

// toldOf tells whether words from to say how, and name nothing that is done.
func (h *hearing) toldOf(from, to int) bool {
	if from >= to || to-from > 4 {
		return false
	}
	text := strings.ToLower(h.text(from, to))
	first := h.words[from].is
	marked := slices.ContainsFunc(h.marks, func(m mark) bool { return from <= m.from && m.from < to && m.role != roleLine && m.role != rolePlace })
	return !marked && (!h.Moves(text) || only(h.words[from:to], placeWords) || only(h.words[from:to], formWords)) && !h.Known(text) && first != "x" && first != "min" && !unitsOnly[first] && !slices.Contains(groupWords, first) && !h.Person(text)
}
