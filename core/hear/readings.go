package hear

import (
	"math"
	"slices"
	"strings"

	"cuestart/core/pattern"
)

// no is what a line cannot be.
var no = Reading{Score: math.Inf(-1)}

// all are the marks of the line, by index, but those that its tags say are only told.
func (h *labelled) all() (list []int) {
	for k := range h.marks {
		if !h.onlyTold(&h.marks[k]) {
			list = append(list, k)
		}
	}
	return list
}

// whoFirst is the chunk that says who does it, before a colon or a dash; -1: none.
func (h *parted) whoFirst() int {
	if len(h.chunks) < 2 || h.chunks[0].from >= h.chunks[0].to {
		return -1
	}
	c, next := &h.chunks[0], &h.chunks[1]
	if h.doers {
		return 0
	}
	if next.after == "," && next.from < next.to && h.people(c.from, c.to) &&
		!h.Known(strings.ToLower(h.text(c.from, c.to))) && !h.counted(c) &&
		(h.Moves(strings.ToLower(h.text(next.from, next.to))) || h.Known(strings.ToLower(h.text(next.from, next.to)))) {
		return 0
	}
	if next.after != ":" && next.after != "--" || next.from >= next.to {
		return -1
	}
	text := strings.ToLower(h.text(c.from, c.to))
	switch {
	case h.counted(c):
		return -1
	case c.to-c.from == 1 && h.is(c.from, "forward"): // forwards: they play, and go nowhere
		return 0
	case ofRelay.MatchString(text):
		return 0
	case groupLike(h.words[c.from:c.to]) && next.after == ":" && !h.Known(text):
		return 0
	case slices.Contains(h.after(c), "only"), h.words[c.to-1].is == "only":
		return 0
	case h.Person(h.text(c.from, c.to)) || !h.Moves(text) &&
		(groupLike(h.words[c.from:c.to]) || groupLike(h.words[c.from:c.from+1])):
		return 0
	case c.to-c.from == 1 && strings.HasSuffix(text, "s") && !h.Known(text) &&
		(h.Moves(h.text(next.from, next.to)) || next.after == ":" && h.noun() > c.to && !h.Moves(text)):
		return 0
	case h.Moves(text) || h.Known(text) || c.to-c.from > 3 || len(c.marks) > 0:
		return -1
	}
	_, _, score := h.name(next, first)
	if score > 4 && strings.HasSuffix(text, "s") && !h.Word(text) {
		return 0
	}
	return -1
}

// ofRelay are who runs which leg.
var ofRelay = pattern.Must(`^(?:(?:first|second|third|fourth|last|anchor|lead-off)(?: and |, ?)?)+ legs?$`)

// after is the word that follows a chunk, if any.
func (h *tokens) after(c *chunk) []string {
	if c.to < len(h.words) {
		return []string{h.words[c.to].is}
	}
	return nil
}

// single is the reading in which one drill is done, and all else says how.
func (h *hearing) single() Reading {
	best := no
	who := h.whoFirst()
	seen := 0
	if len(h.marks) > 0 && h.marks[0].from == 0 && h.marks[0].role == roleLine { // "home to first" is what it is called
		best = h.named(0, h.marks[0].to, 4)
	}
	if i := h.noun(); i >= 0 &&
		!slices.ContainsFunc(h.chunks,
			func(c chunk) bool { return c.from < c.to && !only(h.words[c.from:c.to], natural) }) {
		return h.named(i, h.nounEnd(i), 4)
	}
	if r := h.counting(who); r.Is != "" {
		best = r
	}
	last, each := h.whoLast(), h.eachCounted(who)
	for k := range h.chunks {
		c := &h.chunks[k]
		if k == who || k == last || c.from >= c.to || h.aside[c.from] {
			continue
		}
		from, to, score := h.name(c, seen == 0)
		if score -= 1.2 * float64(seen); c.after == "or" || c.after == "" && seen > 0 {
			// what follows how much with no sign between
			score -= 1.5
		}
		seen++
		if seen > 4 || from >= to {
			continue
		}
		if k == 0 && h.label(c) {
			score -= 3.5
		}
		if h.toldLater(k, who) {
			score -= 3.5
		}
		if len(each) > 1 && slices.Contains(each, k) { // the others would be told beside it
			score -= 2 * float64(len(each)-1)
		}
		r := h.named(from, to, score-h.others(k, who))
		h.whose(&r, c, from, who, last)
		if r.Score > best.Score {
			best = r
		}
	}
	return h.byTags(best)
}

// counting is the reading in which what is counted is what is done: "slips: 12 catches each off the face".
func (h *hearing) counting(who int) Reading {
	i := h.noun()
	if i < 0 || i > 1 && !h.is(i-2, ":", "--") {
		return no
	}
	score := 3.2 - h.others(-1, who)
	if slices.ContainsFunc(h.marks,
		func(m mark) bool { return (m.to == i+1 || m.noun == i+1) && m.role == roleParts }) {
		score = 7
	}
	r := h.named(i, h.nounEnd(i), score)
	if who >= 0 {
		r.Who = append(r.Who, h.text(h.chunks[who].from, h.chunks[who].to))
		r.Score += 1.5
	}
	return r
}

// toldLater tells whether a chunk stands behind one that has its amount, and has none: it says how; or is of what
// is done at the end of it: "push 4 lengths, last 5 m sprint".
func (h *parted) toldLater(k, who int) bool {
	c, from := &h.chunks[k], h.chunks[k].from
	for from > 0 && !h.words[from-1].delimits() {
		from--
	}
	if k > 0 && from < c.from && h.is(from, "last", "first", "final") {
		return true
	}
	if c.after != "," && c.after != "" && c.after != "--" || h.counted(c) {
		return false
	}
	named := false
	for n := range k {
		is := &h.chunks[n]
		named = named || n != who && is.from < is.to && !h.label(is) &&
			!h.is(is.to-1, "do", "does", "get", "take", "start", "go", "goes", "have", "has")
		if named && n != who && h.numbered(is) {
			return true
		}
	}
	return false
}

// whose fills in who does what is named from a word of a chunk on: who stands before it, in the chunk that
// says who, and at the end; -1: no such chunk.
func (h *parted) whose(r *Reading, c *chunk, from, who, last int) {
	switch {
	case from == c.from || h.is(from-1, "its"):
	case h.whereFor(c.from, from, c.to):
		r.Cues = append(r.Cues, h.text(c.from, from-1))
	case h.is(c.from, "but", "bar", "except"):
		r.Not = append(r.Not, h.text(c.from+1, from))
	default:
		r.Who = append(r.Who, h.text(c.from, from))
	}
	if who >= 0 && h.is(h.chunks[who].from, "but", "bar", "except") {
		r.Not = append(r.Not, h.text(h.chunks[who].from+1, h.chunks[who].to))
		r.Score++
	} else if who >= 0 {
		r.Who = append(r.Who, h.text(h.chunks[who].from, h.chunks[who].to))
		r.Score += 1.5
	}
	if last >= 0 {
		c := &h.chunks[last]
		r.Who = append(r.Who, strings.Trim(strings.TrimSuffix(h.text(c.from, c.to), " and the"), " ,"))
		r.Cues = slices.DeleteFunc(r.Cues,
			func(cue string) bool { return strings.HasPrefix(h.text(c.from, len(h.words)), cue) })
	}
}

// whoLast is the chunk that says who does it behind a comma at the end: "second balls, 6, centre backs and
// the no 4"; -1: none.
func (h *parted) whoLast() int {
	k := len(h.chunks) - 1
	if k < 1 {
		return -1
	}
	c := &h.chunks[k]
	to := c.to
	for to > c.from && h.is(to-1, "and", "the", "+") {
		to--
	}
	if c.after != "," || c.from >= to || !h.people(c.from, to) && !h.Person(strings.ToLower(h.text(c.from, to))) ||
		h.Known(strings.ToLower(h.text(c.from, to))) {
		return -1
	}
	if slices.ContainsFunc(c.marks, func(m int) bool { return h.marks[m].role != roleWho }) {
		return -1
	}
	return k
}

// label tells whether a chunk only says of what sort is what follows it after a colon: "dry land:
// squats".
func (h *parted) label(c *chunk) bool {
	if len(h.chunks) < 2 || h.chunks[1].after != ":" || len(c.marks) > 0 || c.to-c.from > 3 {
		return false
	}
	next := &h.chunks[1]
	if next.from >= next.to || slices.Contains(cueFirst, h.words[next.from].is) {
		return false
	}
	text := strings.ToLower(h.text(next.from, next.to))
	counted := next.to-next.from <= 3 && len(next.marks) > 0 && h.numbered(next) &&
		!slices.Contains(preps, h.words[next.from].is)
	return (h.Moves(text) || h.Known(text) || counted) && !h.Known(strings.ToLower(h.text(c.from, c.to)))
}

// noun is the word of what is counted, of a line that names nothing else: "20 kicks"; -1: none.
func (h *marked) noun() int {
	for _, m := range h.marks {
		if m.noun > 0 {
			return m.noun - 1
		}
		if m.role == roleDegrees && m.to-m.from > 2 && strings.HasSuffix(h.words[m.from+1].is, "s") &&
			!h.words[m.from+1].sign {
			// three balls at 70, three at 80
			return m.from + 1
		}
		if last := &h.words[m.to-1]; (m.role == roleCount || m.role == roleLaps ||
			m.role == roleParts && m.text == "told" && m.noun == 0) && m.to-m.from > 1 && !last.numeral &&
			(m.role == roleLaps || h.Word(last.is) || h.Moves(last.is)) {
			if at := slices.IndexFunc(h.words[m.from:m.to], func(w word) bool { return w.is == "lap" }); at >= 0 {
				// "laps of the hall"
				return m.from + at
			}
			return m.to - 1
		}
	}
	return -1
}

// nounEnd is where what is counted ends that begins at a word: "ten drop goals from in front".
func (h *marked) nounEnd(i int) int {
	end := i + 1
	if !slices.ContainsFunc(h.marks, func(m mark) bool { return m.noun == i+1 }) {
		return end
	}
	for end < len(h.words) && !h.words[end].sign && !h.words[end].numeral && h.Word(h.words[end].is) &&
		!h.strong(end, end+1) && !slices.Contains(preps, h.words[end].is) {
		end++
	}
	return end
}

// named is the reading in which words from to are the name of what is done.
func (h *labelled) named(from, to int, score float64) Reading {
	h.name0, h.name1 = from, to
	r := h.with(from, to, h.all())
	r.Is, r.Name = Drill, h.clean(from, to)
	r.Moves = h.Moves(strings.ToLower(r.Name))
	if h.is(to, "hold") && h.words[to-1].to < h.words[to].from &&
		slices.ContainsFunc(h.marks,
			func(m mark) bool { return m.role == roleHeld && m.from == to && m.sets == 0 && h.numeral(to+1) }) &&
		!h.Known(strings.ToLower(r.Name)) {
		r.Name += " " + h.text(to, to+1) // "split squat hold 20 s"
	}
	if only(h.words[from:to], littleWords) {
		score -= 8
	}
	r.Amount = h.amount(r.Name, h.all())
	for _, cue := range h.untold(from, &r.Amount) {
		r.Cues = append(slices.DeleteFunc(r.Cues, func(is string) bool { return strings.HasSuffix(cue, is) }), cue)
	}
	if last := h.words[to-1].is; slices.Contains(eventWords, last) && r.Amount.Reps >= 5 &&
		!h.Known(strings.ToLower(r.Name)) {
		// "presentation 47" is when, not how many
		score -= 5
	}
	r.Numbers = h.numbers(from, to)
	r.Score = score + sense(r.Name, &r.Amount) - 1.5*float64(r.Numbers)
	if slices.ContainsFunc(h.marks, func(m mark) bool { return m.role == roleLast || m.role == roleFirst }) {
		r.Score += 1.5
	}
	return r
}

// untold is what is told of how people stand before a name, and over what length something is done for so
// long.
func (h *marked) untold(name int, a *Amount) (cues []string) {
	for k := range h.marks {
		switch m := &h.marks[k]; {
		case m.role == roleLoad && m.to == name, m.role == roleMetres && a.Metres == 0 && a.Seconds > 0:
			cues = append(cues, h.text(m.from, m.to))
		}
	}
	return cues
}

// littleWords name nothing by themselves.
var littleWords = strings.Fields("on off at away along ends end there here home and then it that this them i " +
	"we they go goes all the a to for from with again too also start starts begin finish finishes until till")

// others is how much speaks for it that more than one chunk is done.
func (h *parted) others(name, who int) (n float64) {
	listed := 0
	for k := range h.chunks {
		c := &h.chunks[k]
		if k == name || k == who || c.from >= c.to || !h.step(c, k > 0) {
			continue
		}
		if t := h.words[c.from].is; c.to-c.from == 1 && slices.Contains(cueFirst, t) {
			continue
		}
		joined := c.after == "then" || c.after == "into" || c.after == "+"
		if joined {
			n += 3
		}
		if h.counted(c) {
			n += 2.5
		} else if c.after == "," {
			listed++
		}
	}
	if listed >= 2 {
		n += 2.5
	}
	return n
}

// step tells whether a chunk may be one of what is done in turn.
func (h *parted) step(c *chunk, later bool) bool {
	at := c.from
	for at+1 < c.to && (h.words[at].is == "a" || h.words[at].is == "the") {
		at++
	}
	text, first := strings.ToLower(h.text(at, c.to)), h.words[at].is
	joined := c.after == "then" || c.after == "into" || c.after == "+"
	if c.from < len(h.words) && h.words[c.from].numeral && slices.ContainsFunc(h.marks,
		func(m mark) bool { return m.role == roleNone && m.from == c.from && m.to == c.from+1 }) {
		// so many of one thing
		return false
	}
	if c.after == "(" || c.after == "or" || h.aside[c.from] || only(h.words[c.from:c.to], placeWords) ||
		later && only(h.words[c.from:c.to], postures) {
		return false
	}
	if later && c.after == "," && c.to-c.from > 1 && h.sharedEach() != nil &&
		h.words[h.chunkBefore(c).from].is == first {
		// push and brake, push and turn
		return true
	}
	if later && (slices.Contains(notSteps, first) || slices.Contains(cueFirst, first) &&
		!(h.Known(text) && c.to-c.from > 1) && !joined) {
		return false
	}
	if later && joined && h.is(c.from+1, "the", "your", "it") && !h.counted(c) && h.numbered(h.chunkBefore(c)) &&
		!h.Moves(text) {
		// ten, then lift the toe
		return false
	}
	_, _, score := h.name(c, later)
	if last := h.words[c.to-1].is; later && c.after == "," && c.to-c.from >= 2 && c.to-c.from <= 3 &&
		(last == "back" || last == "home") {
		return true
	}
	if !later && h.joins(c) && (h.counted(c) || h.numbered(c)) {
		return true
	}
	if later && c.after == "," && c.to-c.from <= 2 && h.Word(first) && !slices.Contains(cueFirst, first) {
		return true
	}
	return h.Moves(text) || score >= 5 || later && joined && c.to-at <= 4 && (h.Word(first) || c.to-at <= 3)
}

// chunkBefore is the one before a chunk; the first is its own.
func (h *parted) chunkBefore(c *chunk) *chunk {
	for k := range h.chunks {
		if &h.chunks[k] == c && k > 0 {
			return &h.chunks[k-1]
		}
	}
	return c
}

// joins tells whether the next chunk is joined to one.
func (h *parted) joins(c *chunk) bool {
	for k := range h.chunks {
		if h.chunks[k].from >= c.to && h.chunks[k].from < h.chunks[k].to {
			return h.chunks[k].after == "then" || h.chunks[k].after == "into"
		}
	}
	return false
}

// with fills in what marks say of who, where and when, and the cues: what is left, in order.
func (h *labelled) with(from, to int, marks []int) (r Reading) {
	minutes := func(n float64) *int { s := -int(math.Round(60 * n)); return &s }
	for _, k := range marks {
		m := &h.marks[k]
		text := h.text(m.from, m.to)
		switch m.role {
		case roleWho:
			if m.from > 0 && slices.Contains([]string{"but", "bar", "except"}, h.words[m.from-1].is) {
				r.Not = append(r.Not, text)
			} else if h.is(m.from, "except", "bar") && m.to-m.from > 1 {
				r.Not = append(r.Not, h.text(m.from+1, m.to))
			} else {
				r.Who = append(r.Who, text)
			}
		case roleLeader:
			r.Leader = m.text
		case rolePlace:
			r.Where = m.text
		case roleAt:
			r.At = minutes(m.n)
		case roleFrom:
			r.From = minutes(m.n)
		case roleUntil:
			r.From, r.To = minutes(m.n), minutes(m.least)
		case roleDone:
			r.Done = minutes(m.n)
		case roleLast:
			r.From, r.To = minutes(m.n), minutes(0)
		case roleFirst:
			r.Cues = append(r.Cues, text)
		case roleBefore:
			r.Before = m.text
		case roleAfter:
			r.After = m.text
		case roleStraight:
			r.After, r.Right = m.text, true
		case roleEvery:
			r.Every = m.text
		}
	}
	r.Cues = append(r.Cues, h.cues(from, to)...)
	return r
}

// cues are what no role wanted, by the signs that part them.
func (h *labelled) cues(from, to int) (list []string) {
	start := 0
	shut := func(end int) {
		a, b := start, end
		if a < to && from < b { // the piece that the name stands in: what follows the name
			a = max(a, to)
		}
		if who := h.whoFirst(); who >= 0 && a < h.chunks[who].to {
			return
		}
		for a < b && (h.explained(a) || h.is(a, "for", "and", "then", "do")) {
			a++
		}
		for b > a && (h.explained(b-1) || h.is(b-1, "for", "and", "then")) {
			b--
		}
		if text := strings.Trim(h.text(a, b), " ,.:;-–—()"); text != "" {
			list = append(list, text)
		}
	}
	for i := range h.words {
		if h.words[i].delimits() {
			shut(i)
			start = i + 1
		}
	}
	shut(len(h.words))
	return list
}

// explained tells whether a word is a sign, or of a mark.
func (h *labelled) explained(i int) bool {
	return h.words[i].sign || slices.ContainsFunc(h.marks, func(m mark) bool {
		return m.from <= i && i < m.to && m.text != "told" && !h.onlyTold(&m) &&
			!slices.Contains([]role{roleNone, roleOwn, roleApart, roleLoad}, m.role)
	})
}

// clean is a name as it is kept: as it was typed, without what only begins a sentence.
func (h *sentence) clean(from, to int) string {
	if to-from > 1 && h.is(from, "a") && h.is(from+1, "skip", "skips", "march", "marches", "run", "runs", "switch",
		"switches") {
		// it is their letter
		return strings.Trim(h.text(from, to), " ,.:;-–—")
	}
	for from < to && (h.words[from].sign || to-from > 1 && h.is(from, "a", "and", "its")) {
		from++
	}
	if to-from > 1 && (h.words[from].is == "do" || h.words[from].is == "some" || h.words[from].is == "the") {
		from++
	}
	if to-from > 2 && h.is(from, "back", "up", "in") && h.is(from+1, "for") { // everyone back for centre passes
		from += 2
	}
	for to-from > 1 && h.is(to-1, "a", "an", "the", "in", "on", "to", "of", "for", "and", "with", "at", "next", "now") {
		to--
	}
	return strings.Trim(h.text(from, to), " ,.:;-–—")
}
