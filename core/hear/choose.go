package hear

import (
	"slices"
	"strings"
	"unicode"
)

// hearing is a line while it is read.
type hearing struct {
	Lexicon
	line   string
	words  []word
	asks   bool   // something is asked of people
	aside  []bool // words of a condition
	marks  []mark // that explain it best, in order, none over another
	chunks []chunk
	tried  map[int]trimmed // of the chunks that begin at a word
	name0  int             // words of the name that is tried
	name1  int
}

// chunk is words that no role wants, with the marks that stand with them.
type chunk struct {
	from, to int    // words
	after    string // what parts it from what stands before: , . : -- ( then into + or; "" only a mark
	marks    []int  // that follow it, up to the next chunk
	before   []int  // that stand before it, since the last sign
}

// mark chooses the marks that explain most of the line: the best way through its words, on which
// a word that nobody explains costs nothing, and a number that nobody explains much.
func (h *hearing) mark() {
	all := append(marksOf(h.words), h.namesOf()...)
	h.conditions()
	h.toldAside()
	all = slices.DeleteFunc(all, func(m mark) bool { return h.aside[m.from] || h.aside[m.to-1] })
	n := len(h.words)
	best, took := make([]float64, n+1), make([]int, n+1)
	for i := n - 1; i >= 0; i-- {
		best[i], took[i] = best[i+1], -1
		switch w := &h.words[i]; {
		case h.aside[i] || !w.numeral || w.spelt && w.number == 1:
		case w.spelt:
			best[i]--
		default:
			best[i] -= 4
		}
		for k := range all {
			m := &all[k]
			if m.from != i {
				continue
			}
			if score := float64(m.to-m.from) + m.weight - perMark + h.fits(m) + best[m.to]; score > best[i] {
				best[i], took[i] = score, k
			}
		}
	}
	for i := 0; i < n; {
		if took[i] < 0 {
			i++
			continue
		}
		m := all[took[i]]
		h.marks = append(h.marks, m)
		i = m.to
	}
}

// perMark is what each mark costs: one that explains much goes before several.
const perMark = 1.0

// conditions finds what is said for when something is otherwise: from "if" to the end of its
// sentence, where that does not begin the line. Nothing of it counts.
func (h *hearing) conditions() {
	h.aside = make([]bool, len(h.words))
	for i := 1; i < len(h.words); i++ {
		w := &h.words[i]
		starts := h.words[i-1].delimits() || h.words[i-1].is == "or"
		if aside := w.is == "while" && i+2 < len(h.words) && (h.people(i+1, i+2) || h.is(i+1, "the") && h.people(i+2, i+3)); starts && aside { // while the others do something else
			for ; i < len(h.words) && h.words[i].is != "." && h.words[i].is != ")" && h.words[i].is != ";"; i++ {
				h.aside[i] = true
			}
			continue
		}
		if !starts || !(w.is == "if" || w.is == "unless" || w.is == "late" || w.is == "when" || w.is == "whoever") {
			continue
		}
		for ; i < len(h.words) && h.words[i].is != "." && h.words[i].is != ")" && h.words[i].is != ";" && !(h.words[i].is == "," && w.is == "if" && h.words[i-1].numeral); i++ {
			h.aside[i] = true
		}
	}
}

// toldAside finds brackets in which people are told something: "(count to 3 before you move)".
func (h *hearing) toldAside() {
	for i := range h.words {
		if h.words[i].is != "(" {
			continue
		}
		told, end := false, i+1
		for end < len(h.words) && h.words[end].is != ")" {
			told = told || slices.Contains(tells, h.words[end].is)
			end++
		}
		for k := i + 1; told && k < end; k++ {
			h.aside[k] = true
		}
	}
}

// unfit is what a mark costs that cannot be what it was taken for where it stands.
const unfit = -9.0

// fits is how well a mark stands where it stands.
func (h *hearing) fits(m *mark) float64 {
	next := h.next(m)
	switch m.role {
	case roleCount:
		return h.fitsCount(m, next)
	case roleWho:
		return h.fitsWho(m, next)
	case roleRungs:
		if m.text == "bare" && !slices.ContainsFunc(h.words[:m.from], func(w word) bool { return w.numeral && int(w.number) == len(m.list) }) {
			return unfit // sprints 10 m, 20 m, 30 m are a ladder of one
		}
	case roleHeld:
		if next == "x" || m.sets > 0 && next != "" || h.inBrackets(m) {
			return unfit
		}
	case rolePlace:
		named := m.from == 0 || h.words[m.from-1].delimits() || h.is(m.from-1, "on", "at", "in", "to", "by")
		if h.words[m.to-1].numeral && (unitsOnly[next] || next == "min" || !named) { // "full court 4" is no court of that number
			return unfit
		}
	case roleEfforts:
		if one := h.words[m.to-1].is; m.to-m.from == 1 && next != "" && (one == "full" || one == "max" || one == "maximal") {
			return unfit
		}
	case roleNone:
		if m.text == "named" && (next == "" || m.from > 0 && !h.words[m.from-1].delimits() && !h.clocked(m.from-1) || !h.besideCount(m) && !slices.ContainsFunc(h.words[m.to:], func(w word) bool { return w.numeral && !w.spelt }) || unitsOnly[next] || h.is(m.to, "x", "each", "on", "and", "then", "or", "to", "per", "with", "in", "at", "from", "of", "for")) {
			return unfit
		}
		if m.text == "angle" && !h.angle(m) || m.text == "part" && (next != "" || m.from > 2 || m.from > 0 && h.is(m.from, "block")) {
			return unfit
		}
	case roleFirst:
		if m.from > 0 && !h.words[m.from-1].delimits() { // "visualise the first five minutes"
			return unfit
		}
	case roleFiller:
		if space := h.is(m.from, "find", "get") && h.is(m.from+1, "a", "your"); !space && (m.from != 0 || m.to == len(h.words) || h.is(m.to, "and") && h.is(m.from, "first") || h.words[m.to].numeral && m.to-m.from == 1 && h.is(0, "first")) {
			return unfit
		}
	case roleLengths:
		if strings.HasPrefix(next, "through") || h.is(m.to-1, "run") && (next == "up" || next == "ups" || next == "out" || next == "outs" || next == "in" || next == "ins") { // 1 run through
			return unfit
		}
	case roleSets:
		return h.fitsSets(m, next)
	case roleUntil, roleAt, roleFrom:
		return h.fitsWhen(m, next)
	case roleBack:
		if slices.Contains([]string{"knee", "foot", "row", "leg", "line", "squat", "pocket"}, next) {
			return unfit
		}
	case roleMetres:
		if m.text == "bare" && (next != "" && next != "easy" && next != "steady" && next != "x" || h.is(m.to, "x", "percent") || m.from == 0 || !h.is(m.from-1, "jog", "run", "jogging", "running", "easy", "steady", "carrera", "trote", "swim", "row", "tempo", "skipping")) { // jog 800
			return unfit
		}
	case roleLoad:
		if m.text == "stand" && next != "" {
			return unfit
		}
	case roleSide, roleWays:
		return h.fitsSide(m, next)
	}
	return 0
}

// clocked tells whether a word is a time of the day.
func (h *hearing) clocked(i int) bool {
	_, is := h.clock(i)
	return is
}

// angle tells whether a number is one of degrees: another stands behind it that counts.
func (h *hearing) angle(m *mark) bool {
	return m.from > 0 && m.to+1 < len(h.words) && h.words[m.to].numeral && !h.words[m.from-1].delimits() && !h.is(m.to+1, "x", "to", "-")
}

// fitsSide is how well sides and ways stand where they stand.
func (h *hearing) fitsSide(m *mark, next string) float64 {
	one, counted := h.is(m.from, "a", "an"), m.from > 0 && h.words[m.from-1].numeral
	switch {
	case m.text == "other" && (m.from == 0 || !h.words[m.from-1].delimits() && !h.is(m.from, "then", "and")):
		return unfit
	case one && next != "" && h.Word(next) && !counted && (h.Moves(next) || h.Moves(h.words[m.to-1].is+" "+next)), // "a calf stretch"
		next == "together",
		one && h.is(m.to-1, "box", "wall", "goal", "corner", "spot", "end", "basket") && !counted: // "tag in a box"
		return unfit
	}
	return 0
}

// next is the word behind a mark; "" where a sign or nothing follows.
func (h *hearing) next(m *mark) string {
	if m.to < len(h.words) && !h.words[m.to].delimits() {
		return h.words[m.to].is
	}
	return ""
}

// fitsWhen is how well a time stands where it stands: a range that falls is when, one that rises is
// how many.
func (h *hearing) fitsWhen(m *mark, next string) float64 {
	last := next == ""
	switch {
	case m.role == roleUntil && m.from == 0 && m.n > m.least, m.text == "before" && last:
		return 1
	case m.role == roleUntil && !last && !slices.Contains([]string{"with", "@", "by", "in", "at", "for", "on"}, next):
		return -4
	case m.role == roleUntil:
		return 2
	case m.role == roleAt && m.text != "clock" && m.n >= 60 && h.besideCount(m): // "ER at 90, 8 to 10": how far, or how hard
		return unfit
	case m.role == roleAt && h.is(m.from, "at") && next == "and" && h.is(m.to+1, tells...):
		return 0
	case m.role == roleAt && h.is(m.to-1, "out", "go") && slices.Contains([]string{"with", "in", "and", "so", "all", "for"}, next):
		return 0
	case m.text == "clock", m.role == roleAt && h.is(m.from, "at") && (slices.Contains(pronouns, next) || next == "for" && !h.numeral(m.to+1) || next == "to" && h.is(m.to+1, "the") && h.is(m.to+2, "start", "session", "off")):
		return 0
	case h.is(m.to, ",", "/") && h.numeral(m.to+1) && m.n >= 30 && (strings.Contains(h.line, "%") || h.words[m.to+1].number > m.n), !last: // at 70, 90, 100 %
		return -4
	}
	return 0
}

// besideCount tells whether how many is said beside a mark.
func (h *hearing) besideCount(m *mark) bool {
	for i := range h.words {
		w := &h.words[i]
		if (i < m.from || i >= m.to) && w.numeral && !w.spelt && !(h.is(i+1, "min", "s") || strings.Contains(w.is, ":")) {
			return true
		}
	}
	return false
}

// fitsSets is how well sets stand where they stand: fifteen sets to the outside are balls that are
// set, and so are twenty.
func (h *hearing) fitsSets(m *mark, next string) float64 {
	of := h.words[m.to-1].is
	if slices.Contains([]string{"to", "from", "off", "across", "over"}, next) || m.n > 10 && (of == "set" || of == "sets") {
		return unfit
	}
	return 0
}

// pronouns are who does something at a time: "at 9 I come back".
var pronouns = strings.Fields("i we they he she you everyone everybody all")

// inBrackets tells whether a mark stands in brackets beside other words: what is told, not how much.
func (h *hearing) inBrackets(m *mark) bool {
	from, to := m.from, m.to
	for from > 0 && !h.words[from-1].delimits() {
		from--
	}
	for to < len(h.words) && !h.words[to].delimits() {
		to++
	}
	return h.is(from-1, "(") && h.is(to, ")") && to-from-(m.to-m.from) >= 2
}

// fitsWho is how well people stand where they stand: bare numbers name players only at the
// beginning, before a colon or what they do: "9 and 7: passes".
func (h *hearing) fitsWho(m *mark, next string) float64 {
	switch {
	case m.text == "shirts" && (m.from != 0 || next == ""): // twenty seconds, and ten
		return unfit
	case m.text != "numbers":
		return 0
	case m.from == 0 && h.is(m.to, ":"):
		return 3
	case m.from != 0 || next == "" || unitsOnly[next] || slices.Contains([]string{"percent", "x", "min"}, next):
		return unfit
	}
	return 0
}

// fitsCount is how well a number stands as one of reps: "land two feet", "one hand pick up" and
// "3 on 0" count nothing.
func (h *hearing) fitsCount(m *mark, next string) float64 {
	first, spelt := m.from == 0 || h.words[m.from-1].delimits() || h.is(m.from-1, "do", "them", "with", "of", "have", "and"), h.words[m.from].spelt
	alone := m.to-m.from == 1
	noun := h.words[m.to-1]
	switch {
	case !alone && m.n > 1 && !noun.numeral && !strings.HasSuffix(noun.is, "s") && noun.is != "rep" && next != "" && (h.Moves(next) || strings.HasSuffix(next, "s")): // "3 block starts"
		return unfit
	case h.is(m.from-1, "the") && m.from > 1 && h.is(m.from-2, "from", "at", "on", "off", "past", "behind", "inside", "outside") && alone: // "from the 45"
		return unfit
	case h.is(m.from-1, "off", "from", "after", "every"), m.least > m.n, alone && h.is(m.from-1, "to") && !h.is(m.from-2, "up") && m.from > 1 && !h.words[m.from-2].numeral:
		return unfit
	case spelt && m.n > 2 && (slices.Contains(natural, next) || h.is(m.to+1, "each", "per", "both", "either")):
		return 0
	case spelt && next != "" && !first && alone && m.weight < 1 && !slices.Contains([]string{"on", "each", "per", "a", "ea", "e/s", "x"}, next), spelt && m.n == 1 && alone, next == "v",
		next == "on" && alone && m.to+1 < len(h.words) && h.words[m.to+1].numeral:
		return -3
	}
	return 0
}

// namesOf are marks for what is known by name: people, staff, places, lines, drills.
func (h *hearing) namesOf() (all []mark) {
	for i := range h.words {
		for j := i + 1; j <= len(h.words) && j <= i+6; j++ {
			text := h.text(i, j)
			if h.words[j-1].sign && !strings.HasSuffix(text, "%") {
				if d := &h.words[j-1]; d.delimits() {
					break
				}
			}
			low := strings.ToLower(text)
			add := func(role role, from int, weight float64) {
				all = append(all, mark{role: role, from: from, to: j, text: text, weight: weight})
			}
			switch {
			case j-i > 1 && h.Known(low) && strings.ContainsAny(low, "0123456789"):
				add(roleNone, i, 4)
			case h.Person(low):
				h.person(i, j, add)
			}
			h.context(i, j, text, add)
		}
	}
	return slices.Concat(all, h.linesOf(), h.clocksOf())
}

// person marks who is named, where that is no part of what is done.
func (h *hearing) person(i, j int, add func(role, int, float64)) {
	first, last := i == 0 || h.words[i-1].delimits() || slices.Contains(joins, h.words[i-1].is), j == len(h.words) || h.words[j].delimits() || slices.Contains(joins, h.words[j].is) || h.words[j].is == "only"
	if first || last {
		add(roleWho, i, 1)
	}
}

var joins = []string{"for", "and", "+", "/", "then", "but", "bar", "except", "with"}

// context marks people, leaders and places by the words before them.
func (h *hearing) context(i, j int, text string, add func(role, int, float64)) {
	if i == 0 {
		return
	}
	low := strings.ToLower(text)
	before := h.words[i-1].is
	proper := j-i <= 2 && unicode.IsUpper([]rune(text)[0]) && !h.Word(low) && h.words[i].from > 0
	staffed := h.Leads(low) || slices.Contains(leaders, strings.TrimPrefix(low, "the "))
	switch {
	case (before == "except" || before == "bar") && (proper || h.Person(low)):
		all := mark{role: roleWho, from: i - 1, to: j, text: "not", weight: 2}
		add(all.role, all.from, all.weight)
	case before == "with" && (staffed || proper && i > 1 || proper && j-i == 1):
		add(roleLeader, i-1, 3)
	case before == "by" && i > 1 && slices.Contains([]string{"led", "run", "taken"}, h.words[i-2].is):
		add(roleLeader, i-2, 4)
	case slices.Contains([]string{"in", "at", "on", "by", "to", "near", "behind"}, before) && h.Place(strings.TrimPrefix(low, "the ")):
		add(rolePlace, i-1, 2)
	case h.Place(low) && h.words[i-1].delimits():
		add(rolePlace, i, 1)
	}
}

// leaders are who leads in lists that name nobody.
var leaders = []string{"physio", "coach", "gaffer", "skipper", "captain", "captains", "s&c", "assistant", "skills coach", "cox", "keeper coach", "goalie coach", "trainer", "manager", "segundo entrenador", "segunda entrenadora", "entrenador", "entrenadora", "fisio", "prepa", "utilero", "ayudante", "capitán", "capitana"}

// text is what stands in words from to, as it was typed.
func (h *hearing) text(from, to int) string {
	if from >= to {
		return ""
	}
	return strings.TrimSpace(h.line[h.words[from].from:h.words[to-1].to])
}

// chunk gathers the words that no mark explains.
func (h *hearing) chunk() {
	marked := h.marked()
	c := chunks{hearing: h, open: -1}
	for i := 0; i < len(h.words); i++ {
		w := &h.words[i]
		article := h.is(i, "a", "an", "the", "and") && (i+1 == len(h.words) || marked[i+1] >= 0 || h.words[i+1].delimits())
		switch joint := h.joint(i); {
		case marked[i] >= 0:
			c.mark(marked[i])
		case w.is == "and" && c.open >= 0 && i+1 < len(h.words) && marked[i+1] >= 0 && h.numbered(&h.chunks[c.open]) && h.marks[marked[i+1]].role == roleCount: // "20 s of plank and ten calf raises"
			c.part(i, ",")
		case w.delimits():
			c.part(i, w.is)
		case joint != "":
			c.part(i, joint)
		case c.open < 0 && article:
		case c.open < 0:
			h.chunks = append(h.chunks, chunk{from: i, to: i + 1, after: c.after, before: c.pending})
			c.open, c.after, c.pending = len(h.chunks)-1, "", nil
		default:
			h.chunks[c.open].to = i + 1
		}
	}
	c.part(len(h.words), "")
}

// settle gives how much that stands alone between commas to what it is of: "puckouts, 10, then saves 3 x 6".
func (h *hearing) settle() {
	for k := 1; k+1 < len(h.chunks); k++ {
		c, last, next := &h.chunks[k], &h.chunks[k-1], &h.chunks[k+1]
		if c.from == c.to && c.after == "," && last.from < last.to && !h.counted(last) && (next.after == "then" || next.after == "into") {
			last.marks, c.marks = append(last.marks, c.marks...), nil
		}
	}
}

// marked is the mark that each word belongs to; -1: none.
func (h *hearing) marked() []int {
	marked := make([]int, len(h.words))
	for i := range marked {
		marked[i] = -1
	}
	for k, m := range h.marks {
		for i := m.from; i < m.to && m.role != roleNone; i++ {
			marked[i] = k
		}
	}
	return marked
}

// chunks are those of a line while they are gathered.
type chunks struct {
	*hearing
	after   string // what parts the next from what stands before it
	open    int    // the chunk that words go to; -1: none
	pending []int  // marks since the last sign, before any word
}

// mark takes a mark to the chunk before it, or keeps it for the next.
func (c *chunks) mark(k int) {
	c.open = -1
	if len(c.chunks) > 0 && c.after == "" {
		if last := &c.chunks[len(c.chunks)-1]; !slices.Contains(last.marks, k) {
			last.marks = append(last.marks, k)
		}
	} else if !slices.Contains(c.pending, k) {
		c.pending = append(c.pending, k)
	}
}

// part ends a piece; one of marks alone is a chunk without words.
func (c *chunks) part(i int, by string) {
	c.open = -1
	if len(c.pending) > 0 {
		c.chunks = append(c.chunks, chunk{from: i, to: i, after: c.after, marks: c.pending})
		c.pending = nil
	}
	c.after = by
}

// joint is a word that joins what is done in turn; "" where it is none.
func (h *hearing) joint(i int) string {
	w := &h.words[i]
	next := func(words ...string) bool { return i+1 < len(h.words) && slices.Contains(words, h.words[i+1].is) }
	switch {
	case w.is == "then" && i > 0:
		return "then"
	case (w.is == "back" || w.is == "home") && next("with", "in", "doing") && i > 0 && h.words[i-1].delimits():
		return "then"
	case w.is == "into" && !next("space", "it", "the", "your", "position", "wall", "net", "bag", "bags", "pads", "pad", "mat", "ground", "shield", "hands", "goal", "basket"):
		return "into"
	case w.is == "straight" && next("into"):
		return "into"
	case w.is == "+" && (i == 0 || h.marksEnd(i) || i+1 < len(h.words) && h.words[i+1].numeral):
		return "+"
	case w.is == "or" && i > 0 && !next("so", "more", "less"):
		return "or"
	}
	return ""
}

// marksEnd tells whether a mark ends before a word.
func (h *hearing) marksEnd(i int) bool {
	return slices.ContainsFunc(h.marks, func(m mark) bool { return m.to == i && m.role != roleWho })
}
