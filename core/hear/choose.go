package hear

import (
	"slices"
	"strings"
	"unicode"
)

// hearing is a line while it is read: each of the types below stands on the one before it and may use no later one.
type hearing struct {
	labelled
}

// tokens are the words of a line, and what can be said of one by those beside it.
type tokens struct {
	words []word
}

// sentence is a line with its words.
type sentence struct {
	tokens
	line string
}

// lexed is a sentence by one who knows what its words may be: people, drills, places.
type lexed struct {
	sentence
	Lexicon
}

// lined is a sentence by one who knows the lines of the ground, too, and the clock.
type lined struct {
	lexed
}

// marked is a sentence with the marks that explain it best.
type marked struct {
	lined
	marks []mark // in order, none over another
	name0 int    // words of the name that is tried
	name1 int
}

// parted is one whose words that no role wants lie in chunks, each with the marks that stand with it.
type parted struct {
	marked
	asks   bool   // something is asked of people
	aside  []bool // words of a condition
	chunks []chunk
	tried  map[int]trimmed // of the chunks that begin at a word
	doers  bool            // the first chunk says who does what follows it
}

// labelled is one of which is known what each word is there for.
type labelled struct {
	parted
	by           *Weights // that it is read by; nil: those that were learned
	tags         []tag    // what each word is there for; nil: not yet known
	names        []naming // what is done, by their tags
	called       int      // how many things are done, by their tags
	inRow        bool     // each with how many of it behind it
	numbersFirst bool     // or before it
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
func (h *parted) mark() {
	all := append(marksOf(h.words), h.namesOf()...)
	h.conditions()
	h.toldAside()
	all = slices.DeleteFunc(all, func(m mark) bool {
		// "lead leg x 4" is what is done
		return h.aside[m.from] || h.aside[m.to-1] || m.role == roleOwn && m.from == 0 && h.ends(m.to)
	})
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

// ends tells whether nothing but an amount stands from a word on.
func (h *tokens) ends(i int) bool {
	return i == len(h.words) || h.words[i].numeral || h.words[i].sign || h.words[i].is == "x"
}

// perMark is what each mark costs: one that explains much goes before several.
const perMark = 1.0

// conditions finds what is said for when something is otherwise: from "if" to the end of its
// sentence, where that does not begin the line. Nothing of it counts.
func (h *parted) conditions() {
	h.aside = make([]bool, len(h.words))
	for i := 1; i < len(h.words); i++ {
		w := &h.words[i]
		starts := h.words[i-1].delimits() || h.words[i-1].is == "or"
		if aside := w.is == "while" && i+2 < len(h.words) &&
			(h.people(i+1, i+2) || h.is(i+1, "the") && h.people(i+2, i+3)); starts && aside {
			// while the others do something else
			for ; i < len(h.words) && h.words[i].is != "." && h.words[i].is != ")" && h.words[i].is != ";"; i++ {
				h.aside[i] = true
			}
			continue
		}
		if w.is == "last" && (starts || h.is(i+2, "s", "min", "m", "of")) && h.numeral(i+1) && h.lastOf(i) {
			// the last 2 of them hard
			for ; i < len(h.words) && h.words[i].is != "." && h.words[i].is != ")"; i++ {
				h.aside[i] = true
			}
			continue
		}
		if !starts || !(w.is == "if" || w.is == "unless" || w.is == "late" || w.is == "when" || w.is == "whoever") {
			continue
		}
		for ; i < len(h.words) && h.words[i].is != "." && h.words[i].is != ")" && h.words[i].is != ";" &&
			!(h.words[i].is == "," && w.is == "if" && h.words[i-1].numeral); i++ {
			h.aside[i] = true
		}
	}
}

// lastOf tells whether "last" and a number are of what is done at the end of it: more follows than how long, and
// how much it is in all was said before.
func (h *tokens) lastOf(i int) bool {
	if !slices.ContainsFunc(h.words[:i], func(w word) bool { return w.numeral }) {
		return false
	}
	i += 2
	if h.is(i, "min", "s", "m", "yd", "of") {
		i++
	}
	return i < len(h.words) && !h.words[i].delimits()
}

// toldAside finds brackets in which people are told something: "(count to 3 before you move)".
func (h *parted) toldAside() {
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

// next is the word behind a mark; "" where a sign or nothing follows.
func (h *tokens) next(m *mark) string {
	if m.to < len(h.words) && !h.words[m.to].delimits() {
		return h.words[m.to].is
	}
	return ""
}

// namesOf are marks for what is known by name: people, staff, places, lines, drills.
func (h *lined) namesOf() (all []mark) {
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
			case j-i > 1 && !h.is(i, "at", "from", "to", "by", "in") && h.Known(low) &&
				strings.ContainsAny(low, "0123456789"):
				add(roleNone, i, 4)
			case h.Person(low):
				h.person(i, j, add)
			case j < len(h.words) && !h.is(j, "and", "+", "/", "only") && h.coordinated(i, j): // setter + middles
				add(roleWho, i, 2)
			}
			h.context(i, j, text, add)
		}
	}
	return slices.Concat(all, h.linesOf(), h.clocksOf(), h.seriesOf())
}

// coordinated tells whether words are people and people, where a piece begins: "setter + middles".
func (h *lexed) coordinated(from, to int) bool {
	if (to-from)%2 == 0 || to-from < 3 || from > 0 && !h.words[from-1].delimits() {
		return false
	}
	for i := from; i < to; i++ {
		w := h.words[i].is
		if (i-from)%2 == 1 && !h.is(i, "and", "+", "/") || (i-from)%2 == 0 && !slices.Contains(groupWords, w) &&
			!h.Person(h.text(i, i+1)) && !h.Person(w+"s") {
			return false
		}
	}
	return true
}

// person marks who is named, where that is no part of what is done.
func (h *lexed) person(i, j int, add func(role, int, float64)) {
	first, last := i == 0 || h.words[i-1].delimits() || slices.Contains(joins, h.words[i-1].is) ||
		h.words[i-1].numeral && h.is(i-2, "at", "@", "from"), j == len(h.words) || h.words[j].delimits() ||
		slices.Contains(joins, h.words[j].is) || h.words[j].is == "only"
	if first || last && !(h.Word(strings.ToLower(h.text(i, j))) && !h.words[i-1].numeral) {
		// "quick sets" are no people
		add(roleWho, i, 1)
	}
}

var joins = []string{"for", "and", "+", "/", "then", "but", "bar", "except", "with"}

// context marks people, leaders and places by the words before them.
func (h *lexed) context(i, j int, text string, add func(role, int, float64)) {
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
	case slices.Contains([]string{"in", "at", "on", "by", "to", "near", "behind"}, before) &&
		h.Place(strings.TrimPrefix(low, "the ")):
		add(rolePlace, i-1, 2)
	case h.Place(low) && h.words[i-1].delimits():
		add(rolePlace, i, 1)
	}
}

// leaders are who leads in lists that name nobody.
var leaders = []string{"physio", "coach", "gaffer", "skipper", "captain", "captains", "s&c", "assistant",
	"skills coach", "cox", "keeper coach", "goalie coach", "trainer", "manager", "segundo entrenador",
	"segunda entrenadora", "entrenador", "entrenadora", "fisio", "prepa", "utilero", "ayudante", "capitán", "capitana"}

// text is what stands in words from to, as it was typed.
func (h *sentence) text(from, to int) string {
	if from >= to {
		return ""
	}
	return strings.TrimSpace(h.line[h.words[from].from:h.words[to-1].to])
}

// chunk gathers the words that no mark explains.
func (h *hearing) chunk() {
	marked := h.owners()
	c := chunks{parted: &h.parted, open: -1}
	for i := 0; i < len(h.words); i++ {
		w := &h.words[i]
		article := h.is(i, "a", "an", "the", "and") && (i+1 == len(h.words) || marked[i+1] >= 0 ||
			h.words[i+1].delimits())
		switch joint := h.joint(i); {
		case marked[i] >= 0:
			c.mark(marked[i])
		// "20 s of plank and ten calf raises"
		case w.is == "and" && c.open >= 0 && i+1 < len(h.words) && marked[i+1] >= 0 && h.numbered(&h.chunks[c.open]) &&
			h.marks[marked[i+1]].role == roleCount:
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
func (h *parted) settle() {
	if len(h.chunks) > 1 && h.chunks[1].after == "" { // the outfielders do four widths of …
		c := &h.chunks[0]
		to := c.to
		for to > c.from && h.is(to-1, "do", "does", "get", "take", "start") {
			to--
		}
		if to > c.from && to < c.to && (h.people(c.from, to) || h.Person(strings.ToLower(h.text(c.from, to)))) {
			c.to, h.doers = to, true
		}
	}
	for k := 1; k+1 < len(h.chunks); k++ {
		c, last, next := &h.chunks[k], &h.chunks[k-1], &h.chunks[k+1]
		if c.from == c.to && c.after == "," && last.from < last.to && !h.counted(last) &&
			(next.after == "then" || next.after == "into") {
			last.marks, c.marks = append(last.marks, c.marks...), nil
		}
	}
}

// owners are the marks that each word belongs to; -1: none.
func (h *marked) owners() []int {
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
	*parted
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
func (h *marked) joint(i int) string {
	w := &h.words[i]
	next := func(words ...string) bool { return i+1 < len(h.words) && slices.Contains(words, h.words[i+1].is) }
	switch {
	case w.is == "then" && i > 0:
		return "then"
	case (w.is == "back" || w.is == "home") && next("with", "in", "doing") && i > 0 && h.words[i-1].delimits():
		return "then"
	case w.is == "into" && !next("space", "it", "the", "your", "position", "wall", "net", "bag", "bags", "pads", "pad",
		"mat", "ground", "shield", "hands", "goal", "basket"):
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
func (h *marked) marksEnd(i int) bool {
	return slices.ContainsFunc(h.marks, func(m mark) bool { return m.to == i && m.role != roleWho })
}
