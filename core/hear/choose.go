package hear

import (
	"math"
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
		if !starts || !(w.is == "if" || w.is == "unless" || w.is == "late" || w.is == "when" || w.is == "whoever") {
			continue
		}
		for ; i < len(h.words) && h.words[i].is != "." && h.words[i].is != ")" && h.words[i].is != ";" && !(h.words[i].is == "," && w.is == "if" && h.words[i-1].numeral); i++ {
			h.aside[i] = true
		}
	}
}

// unfit is what a mark costs that cannot be what it was taken for where it stands.
const unfit = -9.0

// fits is how well a mark stands where it stands.
func (h *hearing) fits(m *mark) float64 {
	next := ""
	if m.to < len(h.words) && !h.words[m.to].delimits() {
		next = h.words[m.to].is
	}
	last := next == ""
	switch m.role {
	case roleCount:
		return h.fitsCount(m, next)
	case roleWho:
		return h.fitsWho(m, next)
	case roleHeld:
		if next == "x" {
			return unfit
		}
	case roleEfforts:
		if one := h.words[m.to-1].is; m.to-m.from == 1 && !last && (one == "full" || one == "max" || one == "maximal") {
			return unfit
		}
	case roleFiller:
		if m.from != 0 || m.to == len(h.words) {
			return unfit
		}
	case roleUntil: // a range that falls is when, one that rises is how many
		if !last && !slices.Contains([]string{"with", "@", "by", "in", "at", "for", "on"}, next) {
			return -4
		}
		return 2
	case roleAt, roleFrom:
		if m.text == "before" && last {
			return 1
		}
		if !last {
			return -4
		}
	case roleBack:
		if slices.Contains([]string{"knee", "foot", "row", "leg", "line", "squat", "pocket"}, next) {
			return unfit
		}
	case roleSide, roleWays:
		if next == "together" {
			return unfit
		}
	}
	return 0
}

// fitsWho is how well people stand where they stand: bare numbers name players only at the
// beginning, before a colon or what they do: "9 and 7: passes".
func (h *hearing) fitsWho(m *mark, next string) float64 {
	switch {
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
	first, spelt := m.from == 0 || h.words[m.from-1].delimits(), h.words[m.from].spelt
	alone := m.to-m.from == 1
	switch {
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

// clocksOf marks times of the day: "14:20 jog", "at 3.15", "from 15:08 to 15:18", "done by 3.20".
func (h *hearing) clocksOf() (all []mark) {
	for i := range h.words {
		at, ok := h.clock(i)
		if !ok {
			continue
		}
		m := mark{role: roleAt, from: i, to: i + 1, n: at, weight: 5}
		until, ranges := h.clock(i + 2)
		switch {
		case ranges && h.is(i+1, "to", "-", "until"):
			m.role, m.to, m.least = roleUntil, i+3, until
			if h.is(i-1, "from") {
				m.from--
			}
		case h.is(i-1, "from"):
			m.role, m.from = roleFrom, i-1
		case h.is(i-1, "by") && h.is(i-2, "done", "finished", "finish", "in", "off"):
			m.role, m.from = roleDone, i-2
		case h.is(i-1, "at", "@"):
			m.from--
		case i > 0:
			continue
		}
		all = append(all, m)
	}
	return all
}

// clock is a word that is a time of the day, in minutes to go.
func (h *hearing) clock(i int) (toGo float64, ok bool) {
	if i >= len(h.words) || !h.words[i].numeral {
		return 0, false
	}
	hour, minute, two := strings.Cut(strings.Replace(h.words[i].is, ".", ":", 1), ":")
	if !two || len(minute) != 2 || minute > "59" {
		return 0, false
	}
	return h.Clock(int(num(hour)), int(num(minute)))
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
var leaders = []string{"physio", "coach", "gaffer", "skipper", "captain", "captains", "s&c", "assistant", "skills coach", "cox", "keeper coach", "goalie coach", "trainer", "manager"}

// is tells whether a word is one of several.
func (h *hearing) is(i int, words ...string) bool {
	return i >= 0 && i < len(h.words) && slices.Contains(words, h.words[i].is)
}

// linesOf marks how far people go: to the box, sideline to sideline, the length of the court.
func (h *hearing) linesOf() (all []mark) {
	for i := range h.words {
		for _, one := range []func(int) (mark, bool){h.toLine, h.lineToLine, h.wholeLength, h.roundIt} {
			if m, is := one(i); is {
				all = append(all, m)
			}
		}
	}
	return all
}

// toLine marks "to the box", "out to the 22", "up to half way".
func (h *hearing) toLine(i int) (m mark, is bool) {
	if !h.is(i, "to") || h.is(i-1, "start", "finish", "begin", "down", "straight") {
		return m, false
	}
	from, j := i, i+1
	for h.is(from-1, "up", "out", "over", "across") {
		from--
	}
	if _, ok := h.Line(strings.ToLower(h.text(j, min(j+3, len(h.words))))); !ok {
		for h.is(j, "the", "a", "our", "other", "opposite", "their") && j+1 < len(h.words) {
			j++
		}
		if _, ok := h.lineName(strings.ToLower(h.text(j, min(j+2, len(h.words))))); !ok && h.is(j, "far", "first") && j+1 < len(h.words) {
			j++
		}
	}
	for k := min(j+3, len(h.words)); k > j; k-- {
		text := strings.ToLower(h.text(j, k))
		metres, ok := h.lineName(text)
		if ok || k == j+1 && j > i+1 && (goals(text) || h.words[j].numeral) {
			return mark{role: roleLine, from: from, to: k, text: text, n: metres, weight: 3}, true
		}
	}
	return m, false
}

// lineToLine marks "sideline to sideline", "try line to the 10".
func (h *hearing) lineToLine(i int) (m mark, is bool) {
	for j := i + 1; j <= i+3 && j < len(h.words); j++ {
		if !h.is(j, "to") {
			continue
		}
		a, k := strings.ToLower(h.text(i, j)), j+1
		for h.is(k, "the", "far", "other", "opposite") {
			k++
		}
		_, known := h.lineName(a)
		known = known || strings.HasSuffix(a, " line") && j-i == 2 && !h.Moves(h.words[i].is)
		for end := min(k+3, len(h.words)); known && end > k; end-- {
			b := strings.ToLower(h.text(k, end))
			metres, ok := h.lineName(b)
			ok = ok || end == k+1 && k > j+1 && h.words[k].numeral
			ends := end == len(h.words) || h.words[end].delimits() || h.is(end, "x", "and")
			if ok || ends && end-k <= 2 && !h.words[k].numeral {
				return mark{role: roleLine, from: i, to: end, text: b, n: metres, weight: 4}, true
			}
		}
	}
	return m, false
}

// wholeLength marks "length of the court", "width of the field".
func (h *hearing) wholeLength(i int) (m mark, is bool) {
	if !h.is(i, "length", "width") || !h.is(i+1, "of") {
		return m, false
	}
	j := i + 2
	for h.is(j, "the", "our") {
		j++
	}
	if j >= len(h.words) {
		return m, false
	}
	return mark{role: roleLine, from: i, to: j + 1, text: strings.ToLower(h.text(i, j+1)), weight: 4}, true
}

// roundIt marks "round the pitch".
func (h *hearing) roundIt(i int) (m mark, is bool) {
	if !h.is(i, "round", "around") || !h.is(i+1, "the", "our", "both") || i+2 >= len(h.words) || !fields(h.words[i+2].is) {
		return m, false
	}
	end := i + 3
	if h.is(end, "fence", "track", "lines") {
		end++
	}
	return mark{role: rolePlace, from: i, to: end, text: h.text(i+1, end), n: 1, weight: 2}, true
}

func (h *hearing) lineName(text string) (metres float64, ok bool) {
	for _, cut := range []string{"", " line"} {
		if metres, ok = h.Line(strings.TrimSuffix(text, cut)); ok {
			return metres, true
		}
	}
	return 0, goals(text)
}

// goals tells whether a word is what people run to on many grounds.
func goals(text string) bool {
	return slices.Contains(strings.Fields("box half halfway line sideline touchline baseline endline post posts cone cones fence wall net net-post end 22 45 65 21 brick marker markers bench tree gate edge hash fifty try-line goal-line far-end dot dots blue stump stumps crease rope"), text) || text == "half way" || text == "far end" || text == "try line" || text == "goal line" || text == "half court" || text == "far blue" || text == "service line" || text == "base line"
}

func fields(text string) bool {
	return slices.Contains(strings.Fields("pitch field court courts rink hall gym track ground oval park outfield infield ice pool diamond boundary rope box"), text)
}

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
	case w.is == "into" && !next("space", "it", "the", "your", "position"):
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

// Words with which a cue begins, and which stand in what people tell rather than do.
var (
	cueFirst = strings.Fields(`keep no not don't dont do never if when while as until till so that this it they swap switch change alternate alternating
		land look eyes chest head heads hips hip elbow elbows knee knees feet foot toes toe back arms arm hands hand ball all both same
		slow slowly easy nice light big soft quiet loose tall low long full good proper hard fast quick high up down off on over under in out
		at from with without by for to the your their my his her facing holding walk walking finish get stay stop breathe breath reach drive push pull
		squeeze stick stand sit relax build easy-does-it own any anywhere everyone only just plus rest water drink then and or but second third last first other
		one two free easy-peasy outside inside opposite chucking calling ready next catch-up let lets let's try call shout count chat talk use bring leave wear put take
		whatever whoever whistle game race between before after than like left right focus think throwing hitting kicking`)
	tells   = strings.Fields("you your you're youre we we're were i i'm im me us is are was isn't isnt can can't cant will won't wont dont don't should somebody someone anyone nobody please pls remember nb forget sorry thanks there's theres it's its he she they who'll who don't")
	preps   = strings.Fields("off on over under in out at from with without by for to through around round holding facing against before after while until till if every using off chucking behind along across")
	natural = strings.Fields("low high big small slow easy loose tall soft quiet hard fast nice good full long short wide")
	body    = strings.Fields("hips hands feet knees arms legs chest head eyes elbows toes heels shoulders back")
)

// name is how well words from to could be what is done, best trimmed: the part that is the
// name, and its score.
func (h *hearing) name(c *chunk, first bool) (from, to int, score float64) {
	best, tried := h.tried[c.from]
	if !tried {
		best.from, best.to, best.score = h.trim(c)
		if h.tried == nil {
			h.tried = map[int]trimmed{}
		}
		h.tried[c.from] = best
	}
	score = best.score
	if first {
		score += 1.5
	}
	if c.after == "(" {
		score -= 4
	}
	return best.from, best.to, score
}

// trimmed is the part of a chunk that is best as a name.
type trimmed struct {
	from, to int
	score    float64
}

// longestName is of how many words what is done may be called.
const longestName = 12

// trim tries every way to cut a chunk to a name.
func (h *hearing) trim(c *chunk) (from, to int, score float64) {
	from, to, score = c.from, c.from, math.Inf(-1)
	for a := c.from; a < c.to && a <= c.from+4; a++ {
		if a > c.from && !h.Person(strings.ToLower(h.text(c.from, a))) && !groupLike(h.words[c.from:a]) {
			continue
		}
		for b := min(c.to, a+longestName); b > a; b-- {
			if b < c.to && !h.parts(a, b) {
				continue
			}
			if s := h.nameScore(a, b, c); s > score {
				from, to, score = a, b, s
			}
		}
	}
	return from, to, score
}

// parts tells whether a name may end before word b: a preposition or a cue follows.
func (h *hearing) parts(a, b int) bool {
	w := h.words[b].is
	if (w == "up" || w == "down") && b+1 < len(h.words) && h.words[b+1].is == "the" {
		return true
	}
	if slices.Contains(preps, w) {
		return w != "with" && w != "to" && w != "in" || !h.Moves(h.text(b, min(len(h.words), b+3)))
	}
	if slices.Contains(natural, w) && b+1 < len(h.words) && slices.Contains(body, h.words[b+1].is) {
		return true
	}
	return slices.Contains([]string{"no", "keep", "hands", "eyes", "easy", "all", "alternating", "facing", "cos", "because", "cause", "so", "first", "which", "only"}, w)
}

func (h *hearing) nameScore(a, b int, c *chunk) float64 {
	text := strings.ToLower(h.text(a, b))
	s, known := 0.0, 0
	if h.Moves(text) || sided(h.words[a:b]) {
		s += 4
	}
	if groupLike(h.words[a:b]) && !h.Known(text) {
		s -= 5
	}
	if h.Known(text) {
		s += 3
	}
	for i := a; i < b; i++ {
		w := h.words[i].is
		if h.Word(w) {
			known++
		}
		if slices.Contains(tells, w) {
			s -= 2
		}
		if h.words[i].numeral && !strings.Contains(w, "/") {
			s--
		}
	}
	s += 2 * float64(known) / float64(b-a)
	if slices.Contains(cueFirst, h.words[a].is) && !h.Known(text) {
		s -= 4
	}
	if groupLike(h.words[a:a+1]) && b-a > 1 && !h.Known(text) {
		s -= 3
	}
	s -= 0.6 * float64(max(0, b-a-4))
	// what is left behind the name is a cue: a word each costs a little, so that a name stays whole
	s -= 0.3 * float64(min(3, c.to-b))
	// a name that ends in "with a shuttle" is longer than it need be
	for i := a + 1; i < b; i++ {
		if slices.Contains(preps, h.words[i].is) && h.Moves(h.text(a, i)) && b-i > 2 {
			s -= 0.5 * float64(b-i)
			break
		}
	}
	return s
}

// sided tells whether words are of sides that play: 4v4, 3 on 2.
func sided(words []word) bool {
	return slices.ContainsFunc(words, func(w word) bool {
		return len(w.is) >= 3 && w.is[0] >= '1' && w.is[0] <= '9' && (strings.Contains(w.is, "v") || strings.Contains(w.is, " on ") || strings.Contains(w.is, "-"))
	})
}

// Group tells whether a text names people and nothing that they do: starters, year 8s.
func Group(text string) bool {
	words := split(text)
	return len(words) > 0 && groupLike(words)
}

// groupLike tells whether words may be people that nobody knows: "year 8s", "skill guys".
func groupLike(words []word) bool {
	last := strings.TrimSuffix(words[len(words)-1].is, "'s")
	if last == "only" && len(words) > 1 {
		last = strings.TrimSuffix(words[len(words)-2].is, "'s")
	}
	return slices.Contains(groupWords, last) || slices.Contains(groupWords, words[0].is) && slices.ContainsFunc(words, func(w word) bool { return w.is == "+" || w.is == "and" || w.is == "/" })
}

var groupWords = strings.Fields(`everyone everybody all squad team group lads girls boys guys ladies players subs bench starters reserves juniors seniors pairs threes fours twos
	forwards backs keepers keeper gk gks goalies goalie pitchers pitcher catchers bowlers batters fielders outfielders infielders mids defenders attackers wings wingers centres guards bigs
	setters hitters liberos libs outsides middles rucks throwers jumpers sprinters kickers qbs wrs o-line d-line ol dl ol/dl pack d-men men pivots shooters rowers crew
	pointers ones twos threes partners leads seconds year 8s 7s 9s 10s u12s u14s u16s u18s squad-a unit relievers starters anyone`)
