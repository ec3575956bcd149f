package hear

import (
	"slices"
	"strings"
)

// countedRow are the names of a line that says one thing after the other, how many of each behind it or before it: "leg
// swings 10, hips 10, shoulders 10 each way", "high catches 3 each and direct hits 4", "5 squats, 5 lunges". Of a line
// that is none, nothing.
func (h *labelled) countedRow() (names []naming) {
	from, ahead := 0, false
	if len(h.names) > 0 {
		from = h.names[0].from
	}
	label := h.peopleAhead(from)
	if label > 0 {
		from = label
	}
	if from > 0 && h.words[from-1].numeral {
		from, ahead = from-1, true
	}
	h.numbersFirst = ahead
	for i := range from {
		if h.words[i].numeral && h.tags[i] != tagWhen { // two rounds of them
			return nil
		}
	}
	for from < len(h.words) && !(len(names) > 1 && h.onlyWhen(from)) {
		to := h.rowEnd(from, ahead)
		n, counted := h.behindName(from, to)
		if ahead {
			n, counted = h.aheadOfName(from, to)
		}
		if !counted || !h.done(n, len(names) == 0 && !ahead || label > 0 && !h.said(n)) {
			return nil
		}
		names = append(names, n)
		for from = to; from < len(h.words) &&
			(h.words[from].delimits() || h.is(from, "and", "then", "&", "+")); from++ {
			if len(names) > 1 && h.onlyWhen(from) {
				break
			}
			if !h.is(from, ",", ";", "and", "then", "&", "+") {
				return nil
			}
		}
	}
	return names
}

// peopleAhead is where what people do begins behind them and a colon; 0: none stand before a name.
func (h *labelled) peopleAhead(name int) int {
	colon := slices.IndexFunc(h.words, func(w word) bool { return w.is == ":" })
	if colon < 1 || colon >= name || !slices.ContainsFunc(h.tags[:colon], func(t tag) bool { return t == tagWho }) ||
		slices.ContainsFunc(h.words[:colon], func(w word) bool { return w.numeral && !w.spelt }) {
		return 0
	}
	return colon + 1
}

// said tells whether words say only where or how something is done.
func (h *tokens) said(n naming) bool {
	last := strings.TrimSuffix(h.words[max(n.from, n.to-1)].is, "s")
	return slices.Contains(ways, last) || slices.Contains(placeWords, last) || slices.Contains(natural, last) ||
		slices.Contains(eachWords, last)
}

// onlyWhen tells whether nothing but when it is follows, behind a dash: "- at 38".
func (h *marked) onlyWhen(from int) bool {
	for h.is(from, "-", "--") {
		from++
	}
	return from > 0 && h.is(from-1, "-", "--") && slices.ContainsFunc(h.marks, func(m mark) bool {
		return m.from == from && m.to == len(h.words) && (m.role == roleAt || m.role == roleFrom ||
			m.role == roleUntil || m.role == roleDone)
	})
}

// behindName is the name before an amount alone, "hips 10": false where words are no such thing.
func (h *sentence) behindName(from, to int) (n naming, counted bool) {
	n = naming{from, from}
	for n.to < to && !h.words[n.to].numeral && !(h.is(n.to, "x") && n.to+1 < to && h.words[n.to+1].numeral) {
		n.to++
	}
	return n, n.to < to && h.countedAlone(n.to, to)
}

// aheadOfName is the name behind a number, "5 lunges each leg": false where words are no such thing.
func (h *sentence) aheadOfName(from, to int) (n naming, counted bool) {
	n = naming{from + 1, to}
	if h.is(n.from, "x") {
		n.from++
	}
	if n.from >= to || !h.words[from].numeral || h.words[from].number > 60 {
		return n, false
	}
	for i := n.from; i < to; i++ {
		if h.words[i].numeral {
			return n, false
		}
		if i > n.from && h.is(i, "each", "a", "per", "/", "e/s", "ea") {
			n.to = i
			return n, h.eachOnly(i, to)
		}
	}
	return n, true
}

// rowEnd is where what begins at a word ends: at a comma, or at what joins it to something else with its own amount.
func (h *tokens) rowEnd(from int, ahead bool) int {
	for to, numbers := from, 0; to < len(h.words); to++ {
		if h.words[to].delimits() && !h.is(to, "/") || numbers > 0 && h.is(to, "and", "then", "&", "+") {
			return to
		}
		if ahead && numbers > 0 && h.words[to].numeral || !ahead && numbers > 0 && h.begins(to) {
			return to
		}
		if h.words[to].numeral {
			numbers++
		}
	}
	return len(h.words)
}

// begins tells whether a word behind an amount, with no sign between, begins the next name: it
// says neither of what there is so much nor that it is so much each.
func (h *tokens) begins(i int) bool {
	thing := h.words[i-1].numeral && (kitWords[h.words[i].is] || countNouns[h.words[i].is])
	return !h.words[i].numeral && !thing && !h.is(i, eachWords...) && !h.is(i, "s", "min")
}

// countNouns are what is counted, rather than what is done next: "4 steps".
var countNouns = map[string]bool{"steps": true, "step": true, "strokes": true, "hits": true, "shots": true,
	"throws": true, "passes": true, "catches": true, "swings": true, "goes": true, "makes": true, "taps": true,
	"contacts": true, "reps": true, "rep": true, "m": true, "yd": true, "ft": true}

// countedAlone tells whether words are one amount and no more: "10", "x 8", "5 each way", "3 each".
func (h *tokens) countedAlone(from, to int) bool {
	if h.is(from, "x") {
		from++
	}
	if from >= to || !h.words[from].numeral || h.words[from].number > 60 {
		return false
	}
	if h.is(from+1, "s", "min") && from+1 < to {
		from++
	}
	return h.eachOnly(from+1, to)
}

// eachOnly tells whether words say no more than that it is so many each.
func (h *tokens) eachOnly(from, to int) bool {
	for i := from; i < to; i++ {
		if !h.is(i, eachWords...) {
			return false
		}
	}
	return true
}

// eachWords are words that say no more than that it is so many each.
var eachWords = strings.Fields("each ea e/s way ways side sides a per / leg arm reps times x")

// done tells whether words name something that is done, rather than say how: the first is taken for a name where it has
// no sign and no word of its own.
func (h *labelled) done(n naming, first bool) bool {
	if n.to == n.from || n.to-n.from > 4 || slices.Contains(preps, h.words[n.from].is) ||
		slices.Contains(notLabels, h.words[n.from].is) {
		return false
	}
	for i := n.from; i < n.to; i++ {
		if h.words[i].sign {
			return false
		}
	}
	if first || slices.Contains(h.names, n) {
		return true
	}
	text := strings.ToLower(h.text(n.from, n.to))
	last := h.words[n.to-1].is
	one := strings.TrimSuffix(last, "s")
	things := len(last) > 3 && one != last && !slices.Contains(ways, one) && !slices.Contains(placeWords, one) &&
		!slices.Contains(natural, one)
	return slices.Contains(joints, text) || (things || h.Known(text) || h.Moves(text)) && !h.strong(n.from, n.to)
}

// joints are what is moved where nothing more is said of it.
var joints = strings.Fields("ankles knees hips wrists elbows shoulders neck necks calves hamstrings hammies " +
	"quads groins glutes")

// rowName is which name of a row a group of words is of: the one it stands straight before, where
// numbers do, else the one before it.
func (h *labelled) rowName(g group) int {
	of := -1
	for k, name := range h.names {
		if h.numbersFirst && (name.from == g.to || name.from == g.to+1 && h.is(g.to, "x")) {
			return k
		}
		if name.to <= g.from {
			of = k
		}
	}
	return of
}

// takeRow takes the words of a row for names, and its numbers for how many.
func (h *labelled) takeRow(names []naming) {
	h.names, h.inRow = names, true
	for i := max(0, names[0].from-2); i < len(h.words); i++ {
		switch {
		case h.onlyWhen(i):
			for ; i < len(h.words); i++ {
				h.tags[i] = tagWhen
			}
		case slices.ContainsFunc(names, func(n naming) bool { return n.from <= i && i < n.to }):
			h.tags[i] = tagName
		case h.words[i].numeral && h.is(i+1, "s", "min"):
			h.tags[i], h.tags[i+1] = tagTime, tagTime
		case h.words[i].numeral:
			h.tags[i] = tagReps
		}
	}
}
