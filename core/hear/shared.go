package hear

import (
	"slices"
	"strings"
)

// sharedRow are the names of a line that says three things or more and then, once, how much of each: "jog, skips, heel
// flicks, 10 m each there and back", "knee hugs, quad pulls, lunges: to half court". Of a line that is none, nothing.
func (h *labelled) sharedRow() (names []naming) {
	from := h.sortEnd()
	for from < len(h.words) {
		to := from
		for to < len(h.words) && !h.words[to].sign && !h.words[to].numeral &&
			!h.is(to, "and", "&", "once", "twice", "to", "for", "x", "across", "there") {
			to++
		}
		n := naming{from, to}
		if to == from || !h.done(n, later) {
			break
		}
		names = append(names, n)
		for from = to; h.is(from, ",", "and", "&"); {
			from++
		}
		if from == to {
			break
		}
	}
	if len(names) < 2 || !h.sharedAmount(names[len(names)-1].to) {
		return nil
	}
	if two := len(names) == 2; two && (!h.is(len(h.words)-1, "each") || !h.known(names[0]) || !h.known(names[1])) {
		// "toe touches and trunk twists, 10 each"
		return nil
	}
	return names
}

// known tells whether the book or the table of movements knows words by themselves.
func (h *lexed) known(n naming) bool {
	text := strings.ToLower(h.text(n.from, n.to))
	return h.Known(text) || h.Moves(text)
}

// sortEnd is behind a word or two and a colon at the beginning of a line that say what sort of things follow.
func (h *tokens) sortEnd() int {
	colon := slices.IndexFunc(h.words, func(w word) bool { return w.is == ":" })
	if colon < 1 || colon > 3 || slices.ContainsFunc(h.words[:colon], func(w word) bool { return w.numeral }) ||
		!slices.ContainsFunc(h.words[colon:], func(w word) bool { return w.is == "," }) {
		return 0
	}
	return colon + 1
}

// sharedAmount tells whether what follows the last of several names says how much of each: a sign stands before it, and
// nothing else is done behind it.
func (h *marked) sharedAmount(from int) bool {
	if from >= len(h.words) || !h.is(from, ",", ":", "-", "--", "(", ";", "–", "—") {
		return false
	}
	for h.is(from, ",", ":", "-", "--", "(", ";", "–", "—") {
		from++
	}
	amount, each := false, false
	for _, m := range h.marks {
		if m.to <= from {
			if m.role == roleCount || m.role == roleMetres || m.role == roleTime {
				return false
			}
			continue
		}
		_, counts := fitting[m.role]
		amount = amount || m.from == from && counts
	}
	for i := from; i < len(h.words); i++ {
		each = each || h.is(i, "each", "ea")
	}
	return amount && (each || slices.ContainsFunc(h.marks, func(m mark) bool {
		return m.from >= from && (m.role == roleLine || m.role == roleMetres || m.role == roleLengths)
	}))
}

// sharing is a reading of several things of which each is done as much as one is by another: that of the whole line as
// one thing, which knows how much.
func (h *labelled) sharing(reading Reading) Reading {
	names := h.sharedRow()
	if len(names) == 0 || reading.Amount.None() {
		return no
	}
	r := reading
	first, last := names[0], names[len(names)-1]
	r.Is, r.Name, r.Moves, r.Times = Combo, h.clean(first.from, last.to), true, 1
	r.Amount = Amount{Rest: reading.Amount.Rest, Efforts: reading.Amount.Efforts}
	r.Cues = nil
	for _, n := range names {
		r.Steps = append(r.Steps, Step{h.clean(n.from, n.to), reading.Amount})
	}
	for _, cue := range reading.Cues {
		if !slices.ContainsFunc(r.Steps, func(s Step) bool { return strings.EqualFold(s.Name, cue) }) {
			r.Cues = append(r.Cues, cue)
		}
	}
	h.inRow = true
	return r
}
