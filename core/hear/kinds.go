package hear

import (
	"slices"
	"strings"
	"unicode"

	"cuestart/core/pattern"
)

// timed tells whether a role says when, who or where, which headings and fixed things have.
func timed(is role) bool {
	switch is {
	case roleAt, roleFrom, roleUntil, roleDone, roleLast, roleFirst, roleWho, roleLeader, rolePlace, roleFiller,
		roleBefore, roleAfter, roleStraight, roleNone:
		return true
	}
	return false
}

var phaseWords = strings.Fields("raise activate activation mobilise mobilize mobility potentiate potentiation " +
	"pulse prep dynamic static primer build-up pre-activation stretching stretches strength speed skills ball " +
	"technical warm-up warmup cool-down cooldown")

// heading is the reading in which the line names what follows.
func (h *hearing) heading() Reading {
	r := h.with(0, 0, h.all())
	r.Is = Heading
	first := slices.IndexFunc(h.chunks, func(c chunk) bool { return c.from < c.to })
	if first < 0 {
		if len(h.marks) > 0 && h.marks[0].role == roleWho {
			r.Name, r.Score = h.marks[0].text, 2
			if capitals(h.text(h.marks[0].from, h.marks[0].to)) && len(h.marks) == 1 ||
				len(h.marks) == 2 && h.marks[1].role == roleTime && h.is(h.marks[1].from-1, "(") {
				// FRONT ROW (10 mins)
				r.Name, r.Score = h.text(h.marks[0].from, h.marks[0].to), 7
				if len(h.marks) == 2 {
					r.Cues = append(r.Cues, h.text(h.marks[1].from, h.marks[1].to))
				}
			}
			return r
		}
		return no
	}
	c := &h.chunks[first]
	if who := h.whoFirst(); who >= 0 || h.is(h.chunks[first].from, "station") && h.plain() > 1 { // they do what follows
		return no
	}
	r.Name = strings.Trim(h.text(c.from, c.to), " .:")
	if h.is(c.from, "only") && c.to-c.from == 1 && c.from > 0 { // Pitchers only
		r.Name, r.Cues = strings.Trim(h.text(0, c.from), " .:"), nil
	}
	r.Score = 1 + h.headed() + h.heads(c) - 0.7*float64(max(0, c.to-c.from-4)) - 1.5*float64(max(0, h.plain()-2))
	for _, w := range h.words {
		if slices.Contains(tells, w.is) {
			r.Score--
		}
	}
	if only(h.words[c.from:c.to], littleWords) || h.is(c.from, "for", "in", "on", "at", "with") && c.to-c.from <= 2 {
		r.Score -= 8
	}
	return r
}

// partWords number the parts of a list.
var partWords = []string{"part", "phase", "block", "stage", "station"}

// headed is how well the marks of a line are those of a heading: who, where and when, and how long
// it takes in brackets, but no amount of anything.
func (h *marked) headed() (s float64) {
	for _, m := range h.marks {
		switch {
		case m.role == roleUntil:
			s += 2
		case timed(m.role), m.role == roleApart:
			s += 0.5
		case m.role == roleTime && h.is(m.from-1, "("):
			s += 1.5
		case m.role == roleCount && h.is(m.from-1, partWords...):
		default:
			s -= 4
		}
	}
	return s
}

// heads is how well words are the name of a heading.
func (h *marked) heads(c *chunk) (s float64) {
	text, words := h.text(c.from, c.to), h.words[c.from:c.to]
	switch {
	case capitals(text):
		s += 5
	case slices.ContainsFunc(words[:len(words)-1], func(w word) bool { return slices.Contains(partWords, w.is) }) &&
		words[len(words)-1].numeral:
		s += 8
	case slices.Contains(phaseWords, words[0].is):
		s += 3
	}
	if h.Moves(strings.ToLower(text)) && !capitals(text) {
		s -= 3
	}
	if groupLike(words) {
		s += 3
	}
	if slices.Contains([]string{"técnica", "tecnica", "technique"}, words[0].is) {
		s += 6
	}
	if titles(words) {
		s += 5
	}
	if text := strings.ToLower(text); len(words) <= 4 && (strings.HasPrefix(text, "warm up") ||
		strings.HasPrefix(text, "warm down") || strings.HasPrefix(text, "cool down")) {
		s += 6
	}
	if group := groupLike(words) || len(words) == 1 && words[0].is == "forward"; group &&
		slices.ContainsFunc(h.marks, func(m mark) bool { return m.role == roleUntil }) {
		// fwds 40-32
		s += 4
	}
	if only(words, body) || only(words, phaseWords) {
		s += 4
	}
	return s
}

// titles tells whether words are what a whole list is called.
func titles(words []word) bool {
	return slices.ContainsFunc(words, func(w word) bool {
		return slices.Contains([]string{"warmup", "warm-up", "routine", "session", "plan", "matchday", "gameday"}, w.is)
	})
}

// only tells whether words are of a list and of nothing else.
func only(words []word, of []string) bool {
	return !slices.ContainsFunc(words, func(w word) bool {
		return !slices.Contains(of, w.is) && !slices.Contains(of, w.is+"s") &&
			!slices.Contains([]string{"and", "+", "the", "warm", "general", "easy", "ankles"}, w.is)
	})
}

// plain are how many chunks there are.
func (h *parted) plain() (n int) {
	for _, c := range h.chunks {
		if c.from < c.to {
			n++
		}
	}
	return n
}

func capitals(text string) bool {
	letters, large := 0, 0
	for _, r := range text {
		if unicode.IsLetter(r) {
			letters++
			if unicode.IsUpper(r) {
				large++
			}
		}
	}
	return letters > 3 && large == letters
}

// eventWords are of what is fixed on a day.
var eventWords = strings.Fields(`charla sorteo himno himnos foto presentación vestidor vestuario toss talk talks anthem briefing lineup line-up meeting register check photo photos presentation tape taping strapping jerseys shirts kit helmets bibs ref refs
	umpire umpires officials call-room resurface video knock-up huddle parade handshakes inspection weigh-in scrutineering classification arrival arrive bus chat teamsheet numbers toilet toilets drinks drink water whistle hooter horn jewellery team-talk gaffer boss doors handover changeover handout zamboni resurfacing warmups-off briefings meeting meetings`)

// eventPairs are of two words.
var eventPairs = []string{"call room", "knock up", "coin toss", "line up", "kit on", "bibs off", "shirts on",
	"team talk", "stick check", "equipment check", "captains meeting", "anthems on", "pitch inspection",
	"ground inspection", "kit check", "team sheets", "bus leaves", "gates open", "meet at"}

// Event tells whether a text names something of the day that is fixed: a call room, a register.
func Event(text string) bool {
	words := split(text)
	is, _ := joined(words)
	for _, two := range eventPairs {
		if strings.Contains(" "+is+" ", " "+two+" ") {
			return true
		}
	}
	return len(words) > 0 && slices.Contains(eventWords, words[0].is)
}

// fixed is the reading in which the line is something of the day that is fixed.
func (h *hearing) fixed() Reading {
	first := slices.IndexFunc(h.chunks, func(c chunk) bool { return c.from < c.to })
	s := h.event()
	if s == 0 || first < 0 {
		return no
	}
	r := h.with(0, 0, h.all())
	c := &h.chunks[first]
	r.Is, r.Name, r.Amount = Fixed, h.clean(c.from, c.to), h.amount("", h.all())
	if slices.Contains(eventWords, h.words[c.to-1].is) {
		s += 2
	}
	when, more := h.when(&r)
	if s += more; !when {
		s--
	}
	if r.From != nil && r.At == nil {
		r.At = r.From
	}
	if h.Known(strings.ToLower(r.Name)) {
		s -= 3
	}
	r.Score = s
	return r
}

// event is how well the words of a line name something of the day; 0: they name nothing.
func (h *parted) event() (s float64) {
	var plain []word
	for i := range h.words {
		if !slices.ContainsFunc(h.marks, func(m mark) bool {
			return m.from <= i && i < m.to && (m.role == roleEvery || m.role == roleBefore || m.role == roleAfter ||
				m.role == roleStraight)
		}) {
			plain = append(plain, h.words[i])
		}
	}
	text, _ := joined(plain)
	if i := slices.IndexFunc(plain, func(w word) bool { return w.is == "toss" }); i > 0 &&
		!slices.Contains([]string{"coin", "the", "captains", "captain's", "and", "for", "captain"}, plain[i-1].is) &&
		!plain[i-1].delimits() {
		// an overhead toss is a throw
		return 0
	}
	is := func(w string) bool {
		return slices.Contains(eventWords, w) || slices.Contains(eventWords, strings.TrimSuffix(w, "s"))
	}
	switch {
	case slices.ContainsFunc(eventPairs, func(two string) bool { return strings.HasPrefix(text+" ", two+" ") }):
		return 7
	case slices.ContainsFunc(eventPairs, func(two string) bool { return strings.Contains(" "+text+" ", " "+two+" ") }):
		s = 5
		for _, w := range plain {
			if slices.Contains(tells, w.is) {
				s -= 4
			}
		}
		return max(s, 0)
	case !slices.ContainsFunc(plain, func(w word) bool { return is(w.is) }):
		return h.onOff()
	case is(plain[0].is):
		s += 4
	}
	for _, w := range plain {
		if slices.Contains(tells, w.is) {
			s -= 2
		}
	}
	return s + 3.5
}

// onOff is how well a line says who is out, in or ready, or what is on, at a time, and no more; 0: it does not.
func (h *parted) onOff() float64 {
	if h.plain() != 1 || len(h.marks) > 2 || !slices.ContainsFunc(h.marks, func(m mark) bool {
		return m.role == roleAt && m.text != "clock" || m.role == roleEfforts && h.is(m.from, "at", "@")
	}) {
		return 0
	}
	c := &h.chunks[slices.IndexFunc(h.chunks, func(c chunk) bool { return c.from < c.to })]
	last := c.to - 1
	if h.is(last+1, "out") && !h.numeral(last) {
		last++
	}
	at := h.marks[slices.IndexFunc(h.marks, func(m mark) bool { return m.role == roleAt || m.role == roleEfforts })]
	before := at.role == roleAt &&
		slices.ContainsFunc(h.words[at.from:at.to], func(w word) bool { return w.is == "before" })
	if c.to-c.from > 5 || h.Moves(strings.ToLower(h.text(c.from, c.to))) ||
		h.Known(strings.ToLower(h.text(c.from, c.to))) || !before && !h.is(last, "on", "off", "out", "in", "up", "open",
		"opens", "ready", "over", "closes", "leaves", "starts", "ours", "free", "dressed", "changed") {
		return 0
	}
	return 5
}

// when tells whether the marks of a line say when something is, and how well they are those of it.
func (h *marked) when(r *Reading) (when bool, s float64) {
	for i := range h.marks {
		switch m := &h.marks[i]; m.role {
		case roleUntil, roleAt, roleFrom, roleDone:
			when = true
			s += 2.5
		case roleCount:
			// "presentation 47, all in"
			behind := slices.Contains(eventWords, h.words[max(0, m.from-1)].is) &&
				(m.to == len(h.words) || h.words[m.to].delimits())
			if m.to < len(h.words) && !behind || m.n < 5 {
				s -= 3
				continue
			}
			minutes := -int(60 * m.n) // "ref talks to front rows 30"
			r.At, when = &minutes, true
			s += 2
		case roleEfforts:
			if h.is(m.from, "at", "@") && m.to-m.from == 2 && r.At == nil { // inspection at 40
				minutes := -int(60 * h.words[m.to-1].number)
				r.At, when = &minutes, true
				s++
			}
		case roleTime:
			when = when || i+1 == len(h.marks)
		case roleSetsReps, roleTrips, roleSide, roleLaps, roleMetres, roleLine, roleTimes:
			s -= 5
		}
	}
	return when, s
}

// containers are where things are kept.
var containers = strings.Fields("bag bags tin tub shed van car boot bin bucket crate cupboard locker container")

var remarkFirst = strings.Fields("remember nb note anyone dont don't please bring make meet hi hello hey " +
	"thanks cheers ring no phones nothing everyone's sorry if last water")

// remark is the reading in which the line tells something beside what is done.
func (h *parted) remark() Reading {
	r := Reading{Is: Remark, Cues: []string{strings.TrimSpace(h.line)}}
	s := -1.0
	amounts := 0
	for _, m := range h.marks {
		if !timed(m.role) && m.role != roleEfforts && !(m.role == roleCount && h.words[m.from].spelt) &&
			m.role != roleBack {
			amounts++
		}
	}
	said := 0
	if h.asks {
		said++
	}
	for _, w := range h.words {
		if slices.Contains(tells, w.is) {
			said++
		}
	}
	s += h.kept(amounts) + 1.5*float64(said) - 3*float64(amounts)
	if first := slices.IndexFunc(h.chunks, func(c chunk) bool { return c.from < c.to }); first >= 0 {
		c := &h.chunks[first]
		if c.to-c.from >= 5 {
			s += 1.5
		}
		if h.Moves(strings.ToLower(h.text(c.from, c.to))) {
			s--
		}
		if said > 0 && len(h.marks) == 0 {
			s += 2
		}
		if h.asks && amounts == 0 {
			s += 2
		}
	}
	r.Score = h.aboutPeople(s, amounts)
	return r
}

// kept is how well the words of a line are of where things are, or of what nobody is to do.
func (h *marked) kept(amounts int) (s float64) {
	for i, w := range h.words {
		if slices.Contains(containers, w.is) && i > 1 {
			s += 2.5
			if amounts == 0 && slices.ContainsFunc(h.words[:i], func(w word) bool {
				return slices.Contains([]string{"stay", "stays", "live", "lives", "go", "goes", "keep"}, w.is)
			}) {
				s += 4
			}
		}
		if i == 0 && w.is == "keep" && amounts == 0 && len(h.marks) == 0 {
			s += 5
		}
		if i == 0 && slices.Contains(remarkFirst, w.is) {
			s += 2
		}
		if i == 0 && slices.Contains([]string{"don't", "dont", "never", "nobody", "no"}, w.is) && amounts == 0 {
			s += 2
		}
	}
	return s
}

// aboutPeople is how well a line that scores s so far tells how people stand, come together or what the week
// owes them.
func (h *sentence) aboutPeople(s float64, amounts int) float64 {
	switch {
	case formation.MatchString(h.line) && amounts <= 1:
		s += 10
	case joining.MatchString(h.line):
		s = max(s+6, 5)
	case amounts == 0 && gathers.MatchString(h.line):
		s += 6
	}
	if ofWeek.MatchString(h.line) || ofDay.MatchString(h.line) {
		s += 14
	}
	if strings.HasSuffix(strings.TrimSpace(h.line), "!") || strings.HasSuffix(strings.TrimSpace(h.line), "?") {
		s++
	}
	return s
}

// gathers is how people are called together.
var gathers = pattern.Must(`(?i)^(?:(?:right|ok|okay|so|now|lads|girls|boys|guys|everyone|all),? )*(?:line up|gather|come in|circle up|listen|bring it in|huddle up|get in)\b`)

// joining is who comes to whom, and what everybody does at a time that is no drill.
var joining = pattern.Must(`(?i)^(?:\S+ )?\S+ (?:leaves?|head off|heads off|split off|splits off|peel off|peels off)(?: off)? (?:with|to) |\bjoins? (?:the|us|in)\b|^(?:at|from) \d{1,2} (?:they|we|you|everyone|everybody|all) (?:all )?(?:sit|come|go|stop|finish|are|get|meet|gather|huddle)\b`)

// formation is how people stand, and nothing that they do.
var formation = pattern.Must(`(?i)^(?:in |make |get in(?:to)? |form )?(?:\d+|two|three|four|five|six|a|one) (?:even |equal |big )?(?:lines?|groups?|circles?|rows?|queues?|teams?)(?: (?:on|at|behind|facing|of|by|along|in)\b[a-z0-9 ]*)?[.!]?$`)

// What is no part of this warm-up: what is owed in the week, when the day begins.
var (
	ofWeek = pattern.Must(`(?i)\b(?:once|twice|\d times|thrice) (?:a|this|per|each|every) week\b`)
	ofDay  = pattern.Must(`(?i)^(?:kick[- ]?off|start|bus|meet|tip[- ]?off|throw[- ]?in|puck drop|push[- ]?back|bully off|first (?:ball|pitch|serve|whistle|race)) (?:is|are) (?:at|by|now) |^(?:ko|kick[- ]?off|kick|starts?|tip[- ]?off|tip|throw[- ]?in|puck drop|push[- ]?back|bully off|centre pass|first (?:ball|pitch|serve|whistle|race)) (?:is |at )*(?:\d{1,2} ?[ap]m|\d{1,2}[:.]\d\d ?(?:[ap]m)?)(?:[^a-z0-9]|$)`)
)
