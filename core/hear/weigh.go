package hear

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// naming is words of a line that may be the name of what is done, and the chunk that they stand in; -1: they are of
// what is counted, as in "20 kicks".
type naming struct{ from, to, chunk int }

// Longest names, and how far into a chunk they may begin, in words.
const longestSpan, latestSpan = 9, 7

// namings are all that may be the name of what is done.
func (h *hearing) namings() (all []naming) {
	for k := range h.chunks {
		c := &h.chunks[k]
		if c.from >= c.to || h.aside[c.from] {
			continue
		}
		for a := c.from; a < min(c.to, c.from+latestSpan); a++ {
			for b := a + 1; b <= min(c.to, a+longestSpan); b++ {
				all = append(all, naming{a, b, k})
			}
		}
	}
	if i := h.noun(); i >= 0 {
		all = append(all, naming{i, h.nounEnd(i), -1})
	}
	return all
}

// weigher tells what speaks for spans of a line as the name: features, each with a weight that was learned from
// lines of which the name is known (names.tsv).
type weigher struct {
	*hearing
	marks   []int    // that each word belongs to; -1: none
	who     int      // the chunk that says who does it; -1: none
	kinds   []string // of which kind each word is
	exact   []string // and what exactly
	amounts []bool   // of each chunk, whether it says how many
}

func (h *hearing) weigher() *weigher {
	w := &weigher{hearing: h, marks: h.marked(), who: h.whoFirst()}
	for i := range h.words {
		w.kinds = append(w.kinds, w.kindOf(i))
		w.exact = append(w.exact, w.exactlyOf(i))
	}
	for k := range h.chunks {
		w.amounts = append(w.amounts, h.numbered(&h.chunks[k]))
	}
	return w
}

// likeliest is the span that is likeliest the name, and how much likelier it is than it is not; not ok: there is none.
func (h *hearing) likeliest() (best naming, ok bool) {
	w, most := h.weigher(), math.Inf(-1)
	for _, s := range h.namings() {
		total := 0.0
		w.features(s, func(feature string) { total += weights[feature] })
		if total > most {
			best, most, ok = s, total, true
		}
	}
	return best, ok
}

// closed are the words that are looked at one by one: they are few, and stand around names rather than in them.
var closed = func() map[string]bool {
	is := map[string]bool{}
	spanish := strings.Fields("de del con en a al la el los las un una y por para desde hasta cada hacia sobre entre sin")
	for _, list := range [][]string{cueFirst, tells, preps, natural, body, littleWords, joins, notSteps, endsName, spanish} {
		for _, w := range list {
			is[w] = true
		}
	}
	return is
}()

// exactly is what a word is where names begin and end: itself where it is one of few, else its kind.
func (w *weigher) exactly(i int) string {
	if i < 0 || i >= len(w.words) {
		return w.kind(i)
	}
	return w.exact[i]
}

func (w *weigher) exactlyOf(i int) string {
	switch {
	case w.words[i].sign:
		return w.words[i].is
	case w.marks[i] >= 0:
		return "m" + strconv.Itoa(int(w.hearing.marks[w.marks[i]].role))
	case w.words[i].numeral:
		return "#"
	case closed[w.words[i].is]:
		return w.words[i].is
	}
	return w.kinds[i]
}

// kind is of what kind a word is: whether names of drills have it, whether it moves, how it ends.
func (w *weigher) kind(i int) string {
	switch {
	case i < 0:
		return "start"
	case i >= len(w.words):
		return "end"
	}
	return w.kinds[i]
}

func (w *weigher) kindOf(i int) string {
	switch {
	case w.words[i].sign:
		return "sign"
	case w.marks[i] >= 0:
		return "mark"
	case w.words[i].numeral:
		return "#"
	}
	is, kind := w.words[i].is, ""
	if slices.Contains(preps, is) {
		return "prep"
	}
	if w.Word(is) {
		kind += "W"
	}
	if w.Moves(is) {
		kind += "M"
	}
	for _, ending := range []string{"ing", "s", "ly"} {
		if strings.HasSuffix(is, ending) {
			kind += ending
			break
		}
	}
	if closed[is] {
		kind += "c"
	}
	if first := w.text(i, i+1)[0]; i > 0 && first >= 'A' && first <= 'Z' {
		kind += "A"
	}
	return kind + "."
}

// features are what speaks for or against a span as the name.
func (w *weigher) features(s naming, add func(string)) {
	if s.chunk < 0 {
		add("noun")
		add("noun|" + strconv.Itoa(min(3, w.plain())))
		if w.Moves(w.words[s.from].is) {
			add("noun|moves")
		}
		return
	}
	w.edges(s, add)
	w.inside(s, add)
	w.around(s, add)
	w.beside(s, add)
}

// edges are the words with which a span begins and ends, and those before and behind it.
func (w *weigher) edges(s naming, add func(string)) {
	first, last := w.kind(s.from), w.kind(s.to-1)
	behind := w.exactly(s.to)
	add("before|" + w.exactly(s.from-1))
	add("first|" + w.exactly(s.from))
	add("begins|" + w.kind(s.from-1) + "|" + first)
	add("last|" + w.exactly(s.to-1))
	add("behind|" + behind)
	add("ends|" + last + "|" + w.kind(s.to))
	add("ends|" + last + "|" + behind + "|")
}

// inside are the words of a span together.
func (w *weigher) inside(s naming, add func(string)) {
	length := strconv.Itoa(min(s.to-s.from, 6))
	text := strings.ToLower(w.text(s.from, s.to))
	add("length|" + length)
	moves, known := w.Moves(text), w.Known(text)
	add("is|" + strconv.FormatBool(moves) + strconv.FormatBool(known))
	if moves {
		add("moves|" + length)
	}
	if known {
		add("known|" + length)
	}
	if sided(w.hearing.words[s.from : s.from+1]) {
		add("sides|" + length)
	}
	if w.people(s.from, s.to) || w.Person(w.text(s.from, s.to)) {
		add("people")
	}
	if w.placedFrom(s.from, s.to) > s.from {
		add("placed")
	}
	words, joining := 0, 0
	for i := s.from; i < s.to; i++ {
		if w.Word(w.words[i].is) {
			words++
		}
		if i == s.from {
			continue
		}
		if is := w.exactly(i); closed[is] || is == "#" {
			add("in|" + is)
		}
		if slices.Contains(preps, w.words[i].is) {
			joining++
		}
	}
	add("words|" + strconv.Itoa(4*words/(s.to-s.from)))
	add("joining|" + strconv.Itoa(min(joining, 3)))
}

// around is the rest of the chunk in which a span stands.
func (w *weigher) around(s naming, add func(string)) {
	c := &w.chunks[s.chunk]
	switch left := s.from - c.from; {
	case left == 0:
		add("left|0")
	case w.people(c.from, s.from) || w.Person(w.text(c.from, s.from)):
		add("left|people")
	case w.agents(c.from, s.from):
		add("left|agents")
	case w.does(c.from, s.from):
		add("left|does")
	default:
		add("left|" + strconv.Itoa(min(left, 4)))
		if w.Moves(strings.ToLower(w.text(c.from, s.from))) {
			add("left|moves")
		}
	}
	right := c.to - s.to
	if add("right|" + strconv.Itoa(min(right, 4))); right == 0 {
		return
	}
	if w.Moves(strings.ToLower(w.text(s.to, c.to))) {
		add("right|moves")
	}
	if w.Known(strings.ToLower(w.text(s.from, c.to))) {
		add("right|known")
	}
	if only(w.hearing.words[s.to:c.to], placeWords) {
		add("right|place")
	}
	if only(w.hearing.words[s.to:c.to], natural) {
		add("right|natural")
	}
}

// beside is where in the line the chunk of a span stands: which it is, behind what, with or without an amount.
func (w *weigher) beside(s naming, add func(string)) {
	c, nth, earlier := &w.chunks[s.chunk], 0, false
	for i := range s.chunk {
		if w.chunks[i].from < w.chunks[i].to && i != w.who {
			nth++
		}
		earlier = earlier || w.amounts[i]
	}
	add("chunk|" + strconv.Itoa(min(nth, 3)))
	add("after|" + c.after + "|" + strconv.Itoa(min(nth, 2)))
	add("amount|" + strconv.FormatBool(w.amounts[s.chunk]) + strconv.FormatBool(earlier))
	if s.chunk == w.who {
		add("who")
	}
	if slices.Contains(cueFirst, w.words[s.from].is) {
		add("cue|" + strconv.Itoa(min(nth, 1)))
	}
	if from, to, _ := w.name(c, s.chunk == 0); from == s.from && to == s.to {
		add("rule")
	}
}

// Case is a line of which the name is known, for learning: what may be the name, and what speaks for each.
type Case struct {
	Names    []string
	Features [][]string
}

// CaseOf is what there is to learn from a line.
func CaseOf(line string, known Lexicon) (is Case) {
	h := heard(line, known)
	if len(h.words) == 0 || len(h.words) > longestLine {
		return is
	}
	w := h.weigher()
	for _, s := range h.namings() {
		var of []string
		w.features(s, func(feature string) { of = append(of, feature) })
		is.Names, is.Features = append(is.Names, h.clean(s.from, s.to)), append(is.Features, of)
	}
	return is
}
