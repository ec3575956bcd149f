package hear

import (
	"slices"
	"strconv"
	"strings"
)

// item is one amount of a series with what is said of it: "5 going away", "off the left 5".
type item struct {
	n           float64
	unit        string // s, min, m, yd, ft; "": it is counted
	noun        int    // the word that says what is counted; -1: none
	label, last int    // the words that say how
	end         int    // where the item ends
	each        bool
}

// Words around a number with which it is no part of how many: "the last 5 hard", "8 percent".
var (
	notParts = strings.Fields("last first final the every in at from for to of by off over after only than " +
		"under till until next other no number nos lane lanes # on")
	notLabels = strings.Fields("percent x - or each per a ea e/s of rep reps set sets round rounds times goes " +
		"go total more ish kg min s m yd ft breath breaths people players lanes lines groups teams off rest " +
		"out on/off @")
	ways = strings.Fields("forward forwards backward backwards sideways in out inside outside up down across " +
		"clockwise anticlockwise diagonal diagonally other way off strong weak good bad dominant preferred " +
		"first second bottom top mid close deep body wide overhead underarm overarm bounce side hand foot leg " +
		"shoulder end post corner wing switch both cross line away handed sided footed pod")
)

// seriesOf are marks of amounts that say, one after the other, how each part is done, whatever people call the
// parts: "5 going away, 5 coming to you", "2 min right foot, 2 min left", "10 m forward, 10 m back", "back 5,
// left 5, right 5", "chest, bounce, lob, ten of each". What is said of each part is told.
func (h *lexed) seriesOf() (all []mark) {
	for i := range h.words {
		for _, read := range []func(int) []item{h.behind, h.ahead} {
			if of := read(i); len(of) > 1 {
				all = append(all, h.asSeries(i, of)...)
			}
		}
		all = append(all, h.listedEach(i)...)
	}
	return all
}

// amountAt is the amount that begins at a word; end is 0 where none does.
func (h *tokens) amountAt(i int) (is item) {
	j := i
	if h.is(j, "x") {
		j++
	}
	if j >= len(h.words) || !h.words[j].numeral || strings.Contains(h.words[j].is, ":") ||
		i > 0 && (h.words[i-1].numeral || h.is(i-1, "x") || h.is(i-1, notParts...)) {
		return is
	}
	w := &h.words[j]
	if is.n, is.noun = w.number, -1; w.number < 1 || w.spelt && w.number == 1 && !h.is(j+1, "s", "min") {
		return is
	}
	if j++; h.is(j, "s", "min", "m", "yd", "ft") {
		is.unit = h.words[j].is
		j++
	} else if is.n > 60 {
		return is
	}
	if is.unit == "" && h.is(j, "rep") {
		j++
	}
	is.end = j
	return is
}

// labelEnd is where the words that say how end: at a sign, a number, a word that joins.
func (h *tokens) labelEnd(from int) int {
	i := from
	for i < len(h.words) && !h.words[i].sign && !h.words[i].numeral && !h.is(i, "and", "+", "/", "then", "x", "or") {
		i++
	}
	return i
}

// behindJoint is the word behind what parts two items.
func (h *tokens) behindJoint(i int) int {
	for n := 0; n < 3 && h.is(i, ",", "and", "+", "/", "then"); n++ {
		i++
	}
	return i
}

// behind are the items that begin at a word, with what is said behind each number.
func (h *tokens) behind(i int) (of []item) {
	for at := i; ; {
		is := h.amountAt(at)
		if is.end == 0 || len(of) > 0 && is.unit != of[0].unit && is.unit != "" {
			return of
		}
		is.label, is.last = is.end, h.labelEnd(is.end)
		bare := is.last == is.label && len(of) == 0 && h.is(is.end, "then") // 15, then 15 bent knee
		if is.last == is.label && !bare || is.last-is.label > 5 || h.is(is.label, notLabels...) ||
			h.is(is.label, "to") && h.numeral(is.label+1) {
			return of
		}
		is.end = is.last
		of = append(of, is)
		at = h.behindJoint(is.end)
		if h.is(is.end, "or") {
			return nil
		}
	}
}

// ahead are the items that begin at a word, with what is said before each number.
func (h *tokens) ahead(i int) (of []item) {
	if i == 0 || h.words[i].sign || h.words[i].numeral || h.words[i-1].numeral ||
		!h.is(i-1, ":", "--", ",") && !slices.Contains(preps, h.words[i].is) && !h.strong(i, i+1) {
		return nil
	}
	for at := i; ; {
		last := h.labelEnd(at)
		if last == at || last-at > 4 {
			break
		}
		is := h.amountAt(last)
		if is.end > 0 && h.is(is.end, "each", "ea") { // front to back 10 each, side to side 10 each
			is.end, is.each = is.end+1, true
		}
		if is.end == 0 || len(of) > 0 && is.unit != of[0].unit && is.unit != "" || h.is(is.end, notLabels...) {
			break
		}
		is.label, is.last = at, last
		of = append(of, is)
		at = h.behindJoint(is.end)
	}
	if n := len(of); n == 0 || of[n-1].end < len(h.words) && !h.words[of[n-1].end].delimits() {
		return nil
	}
	return of
}

// asSeries is the mark of a series that begins at a word, where its labels say how and name nothing that is done.
func (h *lexed) asSeries(i int, of []item) []mark {
	first, before := &of[0], of[0].label < of[0].end && of[0].last < of[0].end
	if !before {
		h.thing(of)
	}
	strong := true
	for k := range of {
		if label := &of[k]; label.last > label.label {
			if !h.says(label.label, label.last) {
				return nil
			}
			strong = strong && h.strong(label.label, label.last)
		}
	}
	named := first.noun >= 0 || h.namedBefore(i) || strong && i > 0 && h.is(i-1, rows...)
	if !named || !strong && before && !h.is(i-1, ":", "--") {
		return nil
	}
	m := mark{role: roleParts, from: i, to: of[len(of)-1].end, text: "told", weight: 1, noun: first.noun + 1}
	if strong {
		m.weight = 4*float64(len(of)) - 5
	}
	if first.each {
		m.n = 1
	}
	for k := range of {
		m.list = append(m.list, of[k].n)
	}
	if h.sidesOf(of) {
		m.text, m.weight = "sides", m.weight+1
	}
	if first.unit != "" && !m.measured(first.unit, strong) {
		return nil
	}
	return []mark{m}
}

// measured makes the mark of a series one of times or of lengths, in the unit of its first item; false where it
// can be neither.
func (m *mark) measured(unit string, strong bool) bool {
	of, total, alike := float64(len(m.list)), 0.0, true
	for _, n := range m.list {
		total += n
		alike = alike && n == m.list[0]
	}
	if m.weight += 3; unit != "s" && unit != "min" {
		m.role, m.sets, m.n = roleTrips, of, metres(strconv.FormatFloat(m.list[0], 'f', -1, 64), " "+unit)
		return alike && strong
	}
	if m.role, m.n = roleTime, total; unit == "min" {
		m.n *= 60
	}
	if !alike {
		m.text = "told"
		return true
	}
	if m.n /= of; m.text != "sides" {
		m.sets = of
	}
	return true
}

// sidesOf tells whether two items are the two sides.
func (h *tokens) sidesOf(of []item) bool {
	if len(of) != 2 {
		return false
	}
	has := func(k int, w ...string) bool {
		return slices.ContainsFunc(h.words[of[k].label:of[k].last],
			func(one word) bool { return slices.Contains(w, one.is) })
	}
	return has(0, "left", "l") && has(1, "right", "r") || has(0, "right", "r") && has(1, "left", "l")
}

// thing finds what is counted, where the first item names it: "10 shots close, 10 mid, 5 long".
func (h *lexed) thing(of []item) {
	first := &of[0]
	w := h.words[first.label].is
	if first.unit != "" || first.last-first.label < 2 || slices.Contains(preps, w) ||
		h.strong(first.label, first.label+1) || !h.Word(w) && !h.Moves(w) && !strings.HasSuffix(w, "s") {
		return
	}
	first.noun = first.label
	for k := range of {
		if h.is(of[k].label, w) && of[k].last-of[k].label > 1 {
			of[k].label++
		}
	}
}

// says tells whether words say how, and name nothing that is done.
func (h *lexed) says(from, to int) bool {
	if from >= to || to-from > 4 {
		return false
	}
	text, first := strings.ToLower(h.text(from, to)), h.words[from].is
	if slices.Contains(notLabels, first) || h.is(to-1, "each", "ea") ||
		slices.Contains(groupWords, first) && to-from == 1 {
		return false
	}
	return h.strong(from, to) || !h.Moves(text) && !h.Known(text)
}

// strong tells whether words can be nothing but a side, a way, a place or a form.
func (h *tokens) strong(from, to int) bool {
	if slices.Contains(preps, h.words[from].is) {
		return to-from > 1 || slices.Contains(ways, h.words[from].is)
	}
	for i := from; i < to; i++ {
		w := h.words[i].is
		if w != "the" && (w != "to" || i == from) && w != "r" && w != "l" && !slices.Contains(placeWords, w) &&
			!slices.Contains(ways, w) && !slices.Contains(natural, w) && !slices.Contains(formWords, w) &&
			!slices.Contains(body, w) {
			return false
		}
	}
	return true
}

// namedBefore tells whether something that may be done stands before a word: more than people and what begins a
// sentence, and no label of a row of drills.
func (h *lexed) namedBefore(i int) bool {
	to := i
	for to > 0 && (h.words[to-1].sign || h.is(to-1, "x", "for", "do")) {
		to--
	}
	from := to
	for from > 0 && !h.words[from-1].delimits() {
		from--
	}
	if text := strings.ToLower(h.text(from, to)); from < to && (h.Moves(text) || h.Known(text)) &&
		!slices.Contains(rows, h.words[to-1].is) {
		return true
	}
	if from == to || h.people(from, to) || h.Person(strings.ToLower(h.text(from, to))) {
		return false
	}
	return !slices.Contains(rows, h.words[to-1].is)
}

// rows are what a row of drills is called.
var rows = strings.Fields("drill drills ladder series circuit complex sequence progression flow combo stations")

// listedEach is the mark of parts that are listed, with how many of each behind them: "chest, bounce, lob - ten of
// each".
func (h *lexed) listedEach(i int) []mark {
	is := h.amountAt(i)
	if is.end == 0 || is.unit != "" && is.unit != "s" && is.unit != "min" || i < 4 || !h.is(i-1, ",", "--", "(") {
		return nil
	}
	end := is.end
	if h.is(end, "of") {
		end++
	}
	if !h.is(end, "each") || end+1 < len(h.words) && !h.words[end+1].delimits() {
		return nil
	}
	parts, at := h.listedBefore(i - 1)
	if parts < 2 || !h.namedBefore(at) {
		return nil
	}
	m := mark{role: roleParts, from: at, to: end + 1, text: "told", weight: 4}
	if is.unit != "" {
		m.role, m.n, m.sets = roleTime, is.n, float64(parts)
		if is.unit == "min" {
			m.n *= 60
		}
		return []mark{m}
	}
	for range parts {
		m.list = append(m.list, is.n)
	}
	return []mark{m}
}

// listedBefore is how many parts are listed up to a word, and where the first begins; 0: none, or what is listed is
// done itself.
func (h *lexed) listedBefore(at int) (parts, first int) {
	for at > 0 {
		from := at
		for from > 0 && !h.words[from-1].sign && !h.is(from-1, "then", "and") {
			from--
		}
		if from == 0 || !h.is(from-1, ":", "--", ",", "then", "and") { // the name stands before the first
			if at-from < 2 || !h.strong(at-1, at) {
				return 0, 0
			}
			return parts + 1, at - 1
		}
		// pound, cross, between
		act := at-from == 1 && !h.Known(h.words[from].is) && !strings.HasSuffix(h.words[from].is, "s")
		if at-from < 1 || at-from > 3 || at-from > 2 && !h.strong(from, at) || !act && !h.says(from, at) {
			return 0, 0
		}
		parts++
		if at = from; h.is(at-1, ":", "--") {
			break
		}
		for at > 0 && h.is(at-1, ",", "then", "and") {
			at--
		}
	}
	return parts, at
}
