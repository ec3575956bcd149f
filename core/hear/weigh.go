package hear

import (
	"slices"
	"strconv"
	"strings"
)

// naming is words of a line that may be the name of what is done.
type naming struct{ from, to int }

// longestSpan is of how many words names are.
const longestSpan = 9

// weigher tells what speaks for spans of a line as the name: features, each with a weight that was learned from
// lines of which it is known what their words are there for (said.tsv).
type weigher struct {
	*parted
	owner   []int    // the mark that each word belongs to; -1: none
	who     int      // the chunk that says who does it; -1: none
	kinds   []string // of which kind each word is
	exact   []string // and what exactly
	amounts []bool   // of each chunk, whether it says how many
}

func (h *labelled) weigher() *weigher {
	w := &weigher{parted: &h.parted, owner: h.owners(), who: h.whoFirst()}
	for i := range h.words {
		w.kinds = append(w.kinds, w.kindOf(i))
		w.exact = append(w.exact, w.exactlyOf(i))
	}
	for k := range h.chunks {
		w.amounts = append(w.amounts, h.numbered(&h.chunks[k]))
	}
	return w
}

// closed are the words that are looked at one by one: they are few, and stand around names rather than in them.
var closed = func() map[string]bool {
	is := map[string]bool{}
	spanish := strings.Fields("de del con en a al la el los las un una y por para desde hasta cada hacia sobre " +
		"entre sin")
	for _, list := range [][]string{cueFirst, tells, preps, natural, body, littleWords, joins, notSteps, endsName,
		spanish} {
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
	case w.owner[i] >= 0:
		return "m" + strconv.Itoa(int(w.marks[w.owner[i]].role))
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
	case w.owner[i] >= 0:
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
	if sided(w.words[s.from : s.from+1]) {
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
