package hear

import (
	"slices"
	"strings"
)

// unfit is what a mark costs that cannot be what it was taken for where it stands.
const unfit = -9.0

// fits is how well a mark stands where it stands.
func (h *lined) fits(m *mark) float64 {
	next := h.next(m)
	switch m.role {
	case roleCount:
		return h.fitsCount(m, next)
	case roleWho:
		return h.fitsWho(m, next)
	case roleSets:
		return h.fitsSets(m, next)
	case roleUntil, roleAt, roleFrom:
		return h.fitsWhen(m, next)
	case roleSide, roleWays:
		return h.fitsSide(m, next)
	}
	if h.misplaced(m, next) {
		return unfit
	}
	return 0
}

// misplaced tells whether a mark cannot be what it was taken for.
func (h *lined) misplaced(m *mark, next string) bool {
	parted := m.from == 0 || h.words[m.from-1].delimits()
	switch m.role {
	case roleRungs: // sprints 10 m, 20 m, 30 m are a ladder of one
		return m.text == "bare" &&
			!slices.ContainsFunc(h.words[:m.from],
				func(w word) bool { return w.numeral && int(w.number) == len(m.list) })
	case roleHeld:
		// ball holds 8 per arm
		counts := h.is(m.from, "holds") && m.n <= 12 && h.is(m.to, "each", "per", "a", "ea", "e/s")
		return next == "x" || m.sets > 0 && next != "" || counts || h.inBrackets(m)
	case rolePlace: // "full court 4" is no court of that number
		named := parted || h.is(m.from-1, "on", "at", "in", "to", "by")
		return h.words[m.to-1].numeral && (unitsOnly[next] || next == "min" || !named)
	case roleEfforts:
		one := h.words[m.to-1].is
		return m.to-m.from == 1 && next != "" && (one == "full" || one == "max" || one == "maximal")
	case roleLaps:
		return m.text == "bare" && !strings.EqualFold(h.text(m.from, m.from+1), "lap")
	case roleNone:
		return h.nameless(m, next)
	case roleTime: // "30 s plank, 30 s side plank" are two things
		return m.text == "told" &&
			slices.ContainsFunc(h.words[m.from:m.to],
				func(w word) bool { return !w.numeral && len(w.is) > 3 && h.Moves(w.is) })
	case roleRest: // 11 man break
		return h.is(m.from, "break") && !parted && !h.words[m.from-1].numeral && !h.is(m.from-1, "s", "min")
	case roleFirst: // "visualise the first five minutes"
		return !parted
	case roleFiller:
		space := h.is(m.from, "find", "get") && h.is(m.from+1, "a", "your")
		return !space && (m.from != 0 || m.to == len(h.words) || h.is(m.to, "and") && h.is(m.from, "first") ||
			h.words[m.to].numeral && m.to-m.from == 1 && h.is(0, "first"))
	case roleLengths: // 1 run through
		return strings.HasPrefix(next, "through") ||
			h.is(m.to-1, "run") && slices.Contains([]string{"up", "ups", "out", "outs", "in", "ins"}, next)
	case roleBack:
		return slices.Contains([]string{"knee", "foot", "row", "leg", "line", "squat", "pocket"}, next)
	case roleMetres:
		return h.noMetres(m, next)
	case roleLoad:
		return m.text == "stand" && next != ""
	}
	return false
}

// travels are words behind which a bare number is how far: "jog 800".
var travels = []string{"jog", "run", "jogging", "running", "easy", "steady", "carrera", "trote", "swim", "row", "tempo",
	"skipping"}

// noMetres tells whether a number that may be metres is none.
func (h *tokens) noMetres(m *mark, next string) bool {
	if m.text != "bare" {
		return h.is(m.from-1, "the") // block jumps on the 6 m
	}
	ends := next == "" || next == "easy" || next == "steady" || next == "x"
	return !ends || h.is(m.to, "x", "percent") || !h.is(m.from-1, travels...)
}

// nameless tells whether a number is none of a name: "two foot landings" is one where another counts.
func (h *lined) nameless(m *mark, next string) bool {
	switch m.text {
	case "named":
		counts := h.besideCount(m) ||
			slices.ContainsFunc(h.words[m.to:], func(w word) bool { return w.numeral && (!w.spelt || w.number > 2) })
		begins := m.from == 0 || h.words[m.from-1].delimits() || h.clocked(m.from-1)
		return next == "" || !begins || !counts || unitsOnly[next] ||
			h.is(m.to, "x", "each", "on", "and", "then", "or", "to", "per", "with", "in", "at", "from", "of", "for")
	case "angle":
		return !h.angle(m)
	case "game": // 5 a side, 2 min
		return m.from > 0 || next != "" && !(h.numeral(m.to) && h.is(m.to+1, "min", "s")) || m.to >= len(h.words)
	case "part":
		return next != "" || m.from > 2 || m.from > 0 && h.is(m.from, "block")
	}
	return false
}

// clocked tells whether a word is a time of the day.
func (h *lined) clocked(i int) bool {
	_, ok := h.clock(i)
	return ok
}

// angle tells whether a number is one of degrees: another stands behind it that counts.
func (h *tokens) angle(m *mark) bool {
	return m.from > 0 && m.to+1 < len(h.words) && h.words[m.to].numeral && !h.words[m.from-1].delimits() &&
		!h.is(m.to+1, "x", "to", "-")
}

// fitsSide is how well sides and ways stand where they stand.
func (h *lexed) fitsSide(m *mark, next string) float64 {
	ok, counted := h.is(m.from, "a", "an"), m.from > 0 && h.words[m.from-1].numeral
	switch {
	case m.text == "both" && (next != "" || m.from == 0 || !h.words[m.from-1].delimits()):
		return unfit
	case m.text == "other" && (m.from == 0 || !h.words[m.from-1].delimits() && !h.is(m.from, "then", "and")):
		return unfit
	// "a calf stretch"
	case ok && next != "" && h.Word(next) && !counted && (h.Moves(next) || h.Moves(h.words[m.to-1].is+" "+next)),
		next == "together",
		// "tag in a box"
		ok && h.is(m.to-1, "court", "box", "wall", "goal", "corner", "spot", "end", "basket") && !counted:
		return unfit
	}
	return 0
}

// fitsWhen is how well a time stands where it stands: a range that falls is when, one that rises is
// how many.
func (h *lexed) fitsWhen(m *mark, next string) float64 {
	last := next == ""
	switch {
	case m.role == roleUntil && m.from == 0 && m.n > m.least, m.text == "before" && last:
		return 1
	case m.role == roleUntil && !last && !slices.Contains([]string{"with", "@", "by", "in", "at", "for", "on"}, next):
		return -4
	case m.role == roleUntil:
		return 2
	// "ER at 90, 8 to 10": how far, or how hard
	case m.role == roleAt && m.text != "clock" && m.n >= 60 && h.besideCount(m) &&
		!(next == "" && h.is(m.from-1, "--")):
		return unfit
	case m.role == roleAt && h.is(m.from, "@") && h.words[0].numeral && h.is(1, "x"): // 4 x 25 @ 30 begin every 30 s
		return unfit
	case m.role == roleAt && h.is(m.from, "at") && next == "and" && h.is(m.to+1, tells...):
		return 0
	case m.role == roleAt && h.is(m.to-1, "out", "go") &&
		slices.Contains([]string{"with", "in", "and", "so", "all", "for"}, next):
		return 0
	// at 18 hookers throw
	case m.role == roleAt && h.is(m.from, "at") && (slices.Contains(groupWords, next) || h.Person(next)):
		return 0
	case m.text == "clock", m.role == roleAt && h.is(m.from, "at") &&
		(slices.Contains(pronouns, next) || next == "for" && (!h.numeral(m.to+1) || h.is(m.to+2, "min", "s")) ||
			next == "to" && h.is(m.to+1, "the") && h.is(m.to+2, "start", "session", "off")):
		return 0
	// at 70, 90, 100 %
	case h.is(m.to, ",", "/") && h.numeral(m.to+1) && m.n >= 30 &&
		(strings.Contains(h.line, "%") || h.words[m.to+1].number > m.n), !last:
		return -4
	}
	return 0
}

// besideCount tells whether how many is said beside a mark.
func (h *tokens) besideCount(m *mark) bool {
	for i := range h.words {
		w := &h.words[i]
		if (i < m.from || i >= m.to) && w.numeral && !w.spelt &&
			!(h.is(i+1, "min", "s") || strings.Contains(w.is, ":")) {
			return true
		}
	}
	return false
}

// fitsSets is how well sets stand where they stand: fifteen sets to the outside are balls that are
// set, and so are twenty.
func (h *sentence) fitsSets(m *mark, next string) float64 {
	of := h.words[m.to-1].is
	if m.n > 1 && next != "" && next != "x" && strings.HasSuffix(strings.ToLower(h.text(m.from, m.to)), " set") {
		// 3 set shots
		return unfit
	}
	if slices.Contains([]string{"to", "from", "off", "across", "over"}, next) ||
		m.n > 10 && (of == "set" || of == "sets") {
		return unfit
	}
	return 0
}

// pronouns are who does something at a time: "at 9 I come back".
var pronouns = strings.Fields("i we they he she you everyone everybody all")

// inBrackets tells whether a mark stands in brackets beside other words: what is told, not how much.
func (h *tokens) inBrackets(m *mark) bool {
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
func (h *lexed) fitsWho(m *mark, next string) float64 {
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

// groupsOf tells whether a number is of how many there are in each: "boxes of 6, 2 touch, 3 min".
func (h *tokens) groupsOf(m *mark) bool {
	if !h.is(m.from-1, "of") || m.from < 2 || !h.timed(m) {
		return false
	}
	of := h.words[m.from-2].is
	return strings.HasSuffix(of, "s") && !(m.from > 2 && h.words[m.from-3].numeral) &&
		!slices.Contains([]string{"sets", "reps", "rounds", "lots", "goes", "series"}, of)
}

// timed tells whether how long is said elsewhere in a line.
func (h *tokens) timed(m *mark) bool {
	for i := range h.words {
		if (i < m.from || i >= m.to) && h.words[i].numeral && h.is(i+1, "s", "min") {
			return true
		}
	}
	return false
}

// kitWords are what there is of, rather than what is done so often.
var kitWords = map[string]bool{"balls": true, "ball": true, "pucks": true, "lines": true, "line": true, "feeders": true,
	"groups": true, "grids": true, "teams": true, "cones": true, "lanes": true, "channels": true, "goals": true,
	"touch": true, "touches": true}

// fitsCount is how well a number stands as one of reps: "land two feet", "one hand pick up" and
// "3 on 0" count nothing.
func (h *lexed) fitsCount(m *mark, next string) float64 {
	first, spelt := m.from == 0 || h.words[m.from-1].delimits() ||
		h.is(m.from-1, "do", "them", "with", "of", "have", "and"), h.words[m.from].spelt
	alone := m.to-m.from == 1
	noun := h.words[m.to-1]
	one := strings.ToLower(h.text(m.to-1, m.to))
	switch {
	case h.groupsOf(m), !alone && m.n <= 4 && kitWords[one] && h.timed(m):
		return unfit
	// "two step block jump"
	case !alone && m.n > 1 && next != "" && one == "step" && !h.is(m.to, "each", "per", "forward", "back", "in", "out"):
		return unfit
	// "3 block starts"
	case !alone && m.n > 1 && !noun.numeral && !strings.HasSuffix(noun.is, "s") && noun.is != "rep" && next != "" &&
		(h.Moves(next) || strings.HasSuffix(next, "s")):
		return unfit
	// "from the 45"
	case h.is(m.from-1, "the") && m.from > 1 && h.is(m.from-2, "from", "at", "on", "off", "past", "behind", "inside",
		"outside") && alone:
		return unfit
	case next == "pm" || next == "am", alone && h.is(m.from-1, "last", "final") && m.from > 1,
		h.is(m.from-1, "off", "from", "after", "every"), h.is(m.from-1, "on") && h.is(m.from-2, "land", "landing",
			"finish", "stop", "go", "jump"), m.least > m.n, alone && h.is(m.from-1, "to") && !h.is(m.from-2, "up") &&
			m.from > 1 && !h.words[m.from-2].numeral:
		return unfit
	case spelt && m.n > 2 && (slices.Contains(natural, next) || h.is(m.to+1, "each", "per", "both", "either")):
		return 0
	case spelt && next != "" && !first && alone && m.weight < 1 &&
		!slices.Contains([]string{"on", "each", "per", "a", "ea", "e/s", "x"}, next), spelt && m.n == 1 && alone,
		next == "v",
		next == "on" && alone && m.to+1 < len(h.words) && h.words[m.to+1].numeral:
		return -3
	}
	return 0
}
