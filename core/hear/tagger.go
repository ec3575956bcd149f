package hear

import (
	"math"
	"strconv"
	"strings"
	"unicode/utf8"
)

// tagger tells what each word of a line is there for: exactly one run of them is the name of what is done, and all
// others have the tags that are likeliest with it, each by what it is, what stands beside it, and the tag before it.
// Its weights were learned from lines of many people (said.tsv): a conditional random field, in which the name is one
// piece with features of its own.
type tagger struct {
	*weigher
	known  []string // of each word, whether it begins or is in a name that is known
	people []bool   // of each word, whether it is of people
	whole  string   // what the line as a whole speaks of
}

func (h *labelled) tagger() *tagger {
	t := &tagger{weigher: h.weigher(), known: make([]string, len(h.words)), people: make([]bool, len(h.words))}
	for i := range h.words {
		t.people[i] = t.people[i] || h.people(i, i+1) || !h.words[i].sign && h.Person(h.text(i, i+1))
		for j := min(len(h.words), i+6); j > i; j-- {
			if h.words[j-1].sign || t.known[i] != "" {
				continue
			}
			text := h.text(i, j)
			if h.Known(strings.ToLower(text)) {
				t.known[i] = "B"
				for k := i + 1; k < j; k++ {
					t.known[k] = "I"
				}
			}
			if j > i+1 && h.Person(text) {
				for k := i; k < j; k++ {
					t.people[k] = true
				}
			}
		}
	}
	low := strings.ToLower(h.line)
	for name, ok := range map[string]bool{"sent": ofBall.MatchString(low), "still": h.Still(low), "goes": h.Goes(low)} {
		if ok {
			t.whole += name
		}
	}
	return t
}

// as is a word as features have it: numbers by how large they are.
func (t *tagger) as(i int) string {
	switch {
	case i < 0:
		return "^"
	case i >= len(t.words):
		return "$"
	case !t.words[i].numeral:
		return t.words[i].is
	}
	switch n := t.words[i].number; {
	case strings.Contains(t.words[i].is, ":"):
		return "#:"
	case n != math.Trunc(n):
		return "#."
	case n == 1:
		return "#1"
	case n <= 5:
		return "#5"
	case n <= 12:
		return "#12"
	case n <= 30:
		return "#30"
	case n <= 60:
		return "#60"
	}
	return "#more"
}

// role is the role of the mark that a word belongs to, and whether it is its first.
func (t *tagger) role(i int) string {
	if i < 0 || i >= len(t.words) || t.owner[i] < 0 {
		return "-"
	}
	r := strconv.Itoa(int(t.marks[t.owner[i]].role))
	if t.marks[t.owner[i]].from == i {
		return r + "B"
	}
	return r
}

// ofWord are what speaks for the tags of a word.
func (t *tagger) ofWord(i int) (of []string) {
	add := func(key string, parts ...string) { of = append(of, key+strings.Join(parts, "|")) }
	is, before, behind := t.as(i), t.as(i-1), t.as(i+1)
	add("w", is)
	add("b", before)
	add("a", behind)
	add("bw", before, is)
	add("wa", is, behind)
	add("bb", t.as(i-2), before)
	add("aa", behind, t.as(i+2))
	add("k", t.kind(i))
	add("kb", t.kind(i-1), t.kind(i))
	add("ka", t.kind(i), t.kind(i+1))
	add("r", t.role(i))
	add("rb", t.role(i-1), t.role(i))
	add("ra", t.role(i), t.role(i+1))
	add("rw", t.role(i), is)
	add("c", t.class(i))
	add("cb", t.class(i-1), t.class(i))
	add("ca", t.class(i), t.class(i+1))
	add("cba", t.class(i-1), t.class(i), t.class(i+1))
	add("caa", t.class(i), t.class(i+1), t.class(i+2))
	add("cbb", t.class(i-2), t.class(i-1), t.class(i))
	add("bc", before, t.class(i))
	add("ac", t.class(i), behind)
	if t.people[i] {
		add("p", strconv.FormatBool(i == 0 || t.words[i-1].delimits()))
	}
	if t.known[i] != "" {
		add("known")
	}
	if t.aside[i] {
		add("aside")
	}
	if end := t.end(i); end != "" {
		add("end", end)
		add("endB", t.class(i-1), end)
		add("endA", end, t.class(i+1))
	}
	add("ahead", t.ahead(i), t.class(i))
	add("aheadp", t.ahead(i), strconv.FormatBool(i == 0 || t.words[i-1].delimits()))
	t.standing(i, add)
	if t.words[i].numeral {
		t.ofNumber(i, add)
	}
	return of
}

// end is how a word ends, where it is longer than that.
func (t *tagger) end(i int) string {
	const letters = 3
	is := t.words[i].is
	if t.words[i].sign || t.words[i].numeral || utf8.RuneCountInString(is) <= letters {
		return ""
	}
	at := len(is)
	for range letters {
		_, wide := utf8.DecodeLastRuneInString(is[:at])
		at -= wide
	}
	return is[at:]
}

// ahead is how far the next known name is, or the next word that moves.
func (t *tagger) ahead(i int) string {
	moves := "-"
	for k := i + 1; k < min(len(t.words), i+4) && !t.words[k].delimits(); k++ {
		if t.known[k] == "B" {
			return "k" + strconv.Itoa(k-i)
		}
		if moves == "-" && strings.Contains(t.kinds[k], "M") {
			moves = "m" + strconv.Itoa(k-i)
		}
	}
	return moves
}

// sums tells whether a number is that of others of the line together.
func (t *tagger) sums(i int) string {
	before, after := 0.0, 0.0
	for k := range t.words {
		if t.words[k].numeral && k < i {
			before += t.words[k].number
		} else if t.words[k].numeral && k > i {
			after += t.words[k].number
		}
	}
	switch n := t.words[i].number; {
	case after == n && n > 0:
		return "after"
	case before == n && n > 0:
		return "before"
	}
	return ""
}

// numbers is how many numbers stand before and behind a word.
func (t *tagger) numbers(i int) string {
	a, b := 0, 0
	for k := range t.words {
		if t.words[k].numeral && k < i {
			a++
		} else if t.words[k].numeral && k > i {
			b++
		}
	}
	return strconv.Itoa(min(a, 3)) + "/" + strconv.Itoa(min(b, 3))
}

// classes are words of one sort: what is said of them is said of all.
var classes = func() map[string]string {
	of := map[string]string{}
	for _, list := range []struct {
		name  string
		words []string
	}{
		{"prep", preps}, {"people", groupWords}, {"body", body}, {"place", placeWords}, {"form", formWords},
		{"how", natural},
		{"way", ways}, {"tells", tells}, {"cue", cueFirst}, {"event", eventWords}, {"joins", joins},
		{"each", []string{"each", "ea", "per", "either", "both", "every", "e/s"}},
		{"label",
			strings.Fields(`zone zones z court courts cage cages net nets station stations level rate box spot number no page
			group gear stage week day channel area corner pod bay mat pitch`)}, // their number says which
		{"weight", strings.Fields("kg kgs lb lbs kilo kilos pound pounds cm mm deg degrees")},
		{"acts", strings.Fields(`balls ball shots shot throws throw catches catch swings swing serves passes reps rep kicks makes make
			strokes stroke attempts touches hits hit pitches reads draws bowls deliveries jumps lifts steps`)},
		{"round", strings.Fields("rounds round sets set lots circuits circuit blocks bouts")},
		{"unit", []string{"s", "min"}}, {"length", []string{"m", "yd", "ft", "km"}},
		{"times", []string{"x", "time", "goes"}},
	} {
		for _, w := range list.words {
			of[w] = list.name
		}
	}
	return of
}()

// class is of what sort a word is.
func (t *tagger) class(i int) string {
	if i < 0 || i >= len(t.words) {
		return "|"
	}
	w := &t.words[i]
	switch is := classes[w.is]; {
	case w.numeral:
		return "#"
	case t.people[i]:
		return "people"
	case w.sign:
		return w.is
	case is != "":
		return is
	}
	return t.kinds[i]
}

// standing is where in the line a word stands.
func (t *tagger) standing(i int, add func(string, ...string)) {
	from, to, signs, numbers := i, i, 0, 0
	for from > 0 && !t.words[from-1].delimits() {
		from--
	}
	for to < len(t.words) && !t.words[to].delimits() {
		to++
	}
	for k := range i {
		if t.words[k].delimits() {
			signs++
		}
		if t.words[k].numeral {
			numbers++
		}
	}
	first, after := t.as(from), t.as(from-1)
	nth := strconv.Itoa(min(signs, 2))
	add("piece", nth, strconv.Itoa(min(numbers, 1)))
	add("after", after)
	add("next", t.as(to))
	add("opens", first)
	add("opens", first, strconv.Itoa(min(i-from, 2)))
	add("shape", after, t.as(to), strconv.FormatBool(numbers > 0))
	if strings.ToUpper(t.text(i, i+1)) == t.text(i, i+1) {
		add("capitals", strconv.FormatBool(i == 0))
	} else if t.kind(i) != "sign" && strings.Contains(t.kind(i), "A") {
		add("capital", wordBefore(t.words, i))
	}
}

// wordBefore is the word before one.
func wordBefore(words []word, i int) string {
	if i == 0 {
		return "^"
	}
	return words[i-1].is
}

// ofNumber are what speaks for what a number counts: the numbers beside it, what the line is about.
func (t *tagger) ofNumber(i int, add func(string, ...string)) {
	unit, last, later := "", "-", "-"
	if t.is(i+1, "s", "min", "m", "yd", "ft", "percent", "x", "km") {
		unit = t.words[i+1].is
	}
	for k := i - 1; k >= 0 && last == "-"; k-- {
		if t.words[k].numeral {
			last = t.role(k)
			if t.words[k].number == t.words[i].number {
				last += "="
			}
		}
	}
	for k := i + 1; k < len(t.words) && later == "-"; k++ {
		if t.words[k].numeral {
			later = t.role(k)
			if t.words[k].number == t.words[i].number {
				later += "="
			}
		}
	}
	add("n", t.as(i), unit)
	add("sum", t.sums(i))
	add("ns", t.numbers(i), t.role(i))
	add("nn", t.numbers(i), t.class(i+1))
	add("nl", last, t.role(i))
	add("na", t.role(i), later)
	add("nw", t.whole, unit)
	add("nr", t.whole, t.role(i))
}

// ofSpan are what speaks for words being the name.
func (t *tagger) ofSpan(a, b int) (of []string) {
	add := func(feature string) { of = append(of, feature) }
	t.edges(naming{from: a, to: b}, add)
	t.inside(naming{from: a, to: b}, add)
	t.before(a, add)
	t.behind(a, b, add)
	signs, numbers, behind := 0, false, false
	for i := range t.words {
		switch {
		case i < a && t.words[i].delimits():
			signs++
		case i < a:
			numbers = numbers || t.words[i].numeral
		case i >= b:
			behind = behind || t.words[i].numeral
		}
	}
	add("nth|" + strconv.Itoa(min(signs, 3)))
	add("nth|" + strconv.Itoa(min(signs, 3)) + strconv.FormatBool(numbers) + strconv.FormatBool(behind))
	marked := 0
	for i := a; i < b; i++ {
		add("word|" + t.words[i].is)
		if t.owner[i] >= 0 {
			marked++
			add("marked|" + t.role(i))
		}
	}
	add("marked|" + strconv.Itoa(min(marked, 2)))
	t.parting(a, b, add)
	t.beside(a, b, add)
	add("final|" + t.words[b-1].is)
	add("initial|" + t.words[a].is)
	return of
}

// parting are what speaks for a part of a span being the name.
func (t *tagger) parting(a, b int, add func(string)) {
	for k := a + 1; k < b; k++ {
		if t.Known(strings.ToLower(t.text(k, b))) {
			add("suffix|known")
			add("suffix|known|" + t.class(k-1) + "|" + strconv.Itoa(min(2, k-a)))
			if t.people[k-1] {
				add("suffix|people")
			}
			break
		}
	}
	for k := b - 1; k > a; k-- {
		if t.Known(strings.ToLower(t.text(a, k))) {
			add("prefix|known")
			add("prefix|known|" + t.class(k))
			break
		}
	}
}

// beside are what the words beside a span, and its own ends, say of its being the whole of the name.
func (t *tagger) beside(a, b int, add func(string)) {
	if b < len(t.words) && !t.words[b].delimits() {
		if t.Known(strings.ToLower(t.text(a, b+1))) {
			add("longer|known")
		}
		if strings.Contains(t.kinds[b], "M") {
			add("longer|M" + strconv.FormatBool(strings.Contains(t.kinds[b-1], "M")))
		}
	}
	if a > 0 && !t.words[a-1].delimits() {
		add("longer|B" + t.class(a-1) + strconv.FormatBool(t.Word(t.words[a-1].is)))
	}
	add("lastEnd|" + t.end(b-1))
	add("firstEnd|" + t.end(a))
	add("classes|" + t.class(a) + "|" + t.class(b-1))
	add("around|" + t.class(a-1) + "|" + t.class(b))
	add("around2|" + t.class(a-1) + "|" + t.class(b) + "|" + t.class(b+1))
}

// before are what the words say that stand before a name, up to a sign or a mark.
func (t *tagger) before(a int, add func(string)) {
	from := a
	for from > 0 && !t.words[from-1].delimits() && t.owner[from-1] < 0 {
		from--
	}
	if from == a {
		return
	}
	add("left|" + strconv.Itoa(min(a-from, 4)))
	if t.Moves(strings.ToLower(t.text(from, a))) {
		add("left|moves")
	}
	if t.parted.people(from, a) || t.Person(t.text(from, a)) {
		add("left|people")
	}
	if t.does(from, a) {
		add("left|does")
	}
}

// behind are what the words say that stand behind a name, up to a sign or a mark.
func (t *tagger) behind(a, b int, add func(string)) {
	to := b
	for to < len(t.words) && !t.words[to].delimits() && t.owner[to] < 0 {
		to++
	}
	if to == b {
		return
	}
	right := strings.ToLower(t.text(b, to))
	add("right|" + strconv.Itoa(min(to-b, 4)))
	if t.Moves(right) {
		add("right|moves")
	}
	if t.Known(strings.ToLower(t.text(a, b)) + " " + right) {
		add("right|known")
	}
	if only(t.words[b:to], placeWords) {
		add("right|place")
	}
	if only(t.words[b:to], natural) {
		add("right|natural")
	}
}

// spans are all words that may be the name.
func (t *tagger) spans() (all []naming) {
	for a := range t.words {
		if t.words[a].sign || t.aside[a] {
			continue
		}
		for b := a + 1; b <= len(t.words) && b <= a+longestSpan && !t.words[b-1].delimits(); b++ {
			if !t.words[b-1].sign {
				all = append(all, naming{from: a, to: b})
			}
		}
	}
	return all
}

// Lesson is a line of which it is known what its words are there for: what speaks for the tags of each word, what for
// each of the runs of words that may be the name, and the tags.
type Lesson struct {
	Words [][]string
	Spans []NameSpan
	Tags  []int
	Right []int // which of the runs are names
}

// NameSpan are words from to of a line, and what speaks for them as the name.
type NameSpan struct {
	From, To int
	Features []string
}

// LessonOf is what there is to learn from a line with its pieces in braces, each with the letter of what it is there
// for: "{N heel flicks} {U halfway} {B and back}".
func LessonOf(said string, known Lexicon) (lesson Lesson) {
	line, marks := unbraced(said)
	h := heard(line, known)
	if len(h.words) == 0 || len(h.words) > longestLine {
		return lesson
	}
	t := h.tagger()
	for i := range h.words {
		lesson.Words = append(lesson.Words, t.ofWord(i))
		lesson.Tags = append(lesson.Tags, int(marks[h.words[i].from]))
	}
	for k, s := range t.spans() {
		lesson.Spans = append(lesson.Spans, NameSpan{s.from, s.to, t.ofSpan(s.from, s.to)})
		name := func(i int) bool { return i >= 0 && i < len(lesson.Tags) && lesson.Tags[i] == int(tagName) }
		whole := !name(s.from-1) && !name(s.to)
		for i := s.from; i < s.to; i++ {
			whole = whole && name(i)
		}
		if whole {
			lesson.Right = append(lesson.Right, k)
		}
	}
	return lesson
}

// Unbraced is a line of a lesson as it was typed.
func Unbraced(said string) string {
	line, _ := unbraced(said)
	return line
}

// unbraced is a line as it was typed, and the tag of each of its bytes.
func unbraced(said string) (line string, marks []tag) {
	var b strings.Builder
	now := tagTold
	for i := 0; i < len(said); i++ {
		switch c := said[i]; {
		case c == '{' && i+2 < len(said) && said[i+2] == ' ':
			now = tag(max(0, strings.IndexByte(Tags, said[i+1])))
			i += 2
		case c == '}':
			now = tagTold
		default:
			b.WriteByte(c)
			marks = append(marks, now)
		}
	}
	return b.String(), marks
}
