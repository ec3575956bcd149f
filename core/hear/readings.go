package hear

import (
	"math"
	"slices"
	"strings"
	"unicode"
)

// no is what a line cannot be.
var no = Reading{Score: math.Inf(-1)}

// all are the marks of the line, by index.
func (h *hearing) all() (list []int) {
	for k := range h.marks {
		list = append(list, k)
	}
	return list
}

// whoFirst is the chunk that says who does it, before a colon or a dash; -1: none.
func (h *hearing) whoFirst() int {
	if len(h.chunks) < 2 || h.chunks[0].from >= h.chunks[0].to {
		return -1
	}
	c, next := &h.chunks[0], &h.chunks[1]
	if next.after != ":" && next.after != "--" || next.from >= next.to {
		return -1
	}
	text := strings.ToLower(h.text(c.from, c.to))
	switch {
	case h.counted(c):
		return -1
	case groupLike(h.words[c.from:c.to]) && next.after == ":" && h.Moves(h.text(next.from, next.to)):
		return 0
	case slices.Contains(h.after(c), "only"), h.words[c.to-1].is == "only":
		return 0
	case h.Person(text) || !h.Moves(text) && (groupLike(h.words[c.from:c.to]) || groupLike(h.words[c.from:c.from+1])):
		return 0
	case c.to-c.from == 1 && strings.HasSuffix(text, "s") && !h.Known(text) && h.Moves(h.text(next.from, next.to)):
		return 0
	case h.Moves(text) || h.Known(text) || c.to-c.from > 3 || len(c.marks) > 0:
		return -1
	}
	_, _, score := h.name(next, true)
	if score > 4 && strings.HasSuffix(text, "s") && !h.Word(text) {
		return 0
	}
	return -1
}

// after is the word that follows a chunk, if any.
func (h *hearing) after(c *chunk) []string {
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
	for k := range h.chunks {
		c := &h.chunks[k]
		if k == who || c.from >= c.to {
			continue
		}
		from, to, score := h.name(c, seen == 0)
		if score -= 1.2 * float64(seen); c.after == "or" {
			score -= 1
		}
		seen++
		if seen > 4 || from >= to {
			continue
		}
		r := h.named(from, to, score-h.others(k, who))
		if who >= 0 {
			r.Who = append(r.Who, h.text(h.chunks[who].from, h.chunks[who].to))
			r.Score += 1
		}
		if r.Score > best.Score {
			best = r
		}
	}
	return best
}

// named is the reading in which words from to are the name of what is done.
func (h *hearing) named(from, to int, score float64) Reading {
	h.name0, h.name1 = from, to
	r := h.with(from, to, h.all())
	r.Is, r.Name = Drill, h.clean(from, to)
	r.Moves = h.Moves(strings.ToLower(r.Name))
	r.Amount = h.amount(r.Name, h.all())
	r.Numbers = h.numbers(from, to)
	r.Score = score + h.sense(r.Name, &r.Amount) - 1.5*float64(r.Numbers)
	if slices.ContainsFunc(h.marks, func(m mark) bool { return m.role == roleLast || m.role == roleFirst }) {
		r.Score += 1.5
	}
	return r
}

// others is how much speaks for it that more than one chunk is done.
func (h *hearing) others(name, who int) (n float64) {
	listed := 0
	for k := range h.chunks {
		c := &h.chunks[k]
		if k == name || k == who || c.from >= c.to || !h.step(c, k > 0) {
			continue
		}
		if t := h.words[c.from].is; c.to-c.from == 1 && slices.Contains(cueFirst, t) {
			continue
		}
		switch {
		case c.after == "then" || c.after == "into" || c.after == "+":
			n += 3
		case h.counted(c):
			n += 2.5
		case c.after == ",":
			listed++
		}
	}
	if listed >= 2 {
		n += 2.5
	}
	return n
}

// step tells whether a chunk may be one of what is done in turn.
func (h *hearing) step(c *chunk, later bool) bool {
	at := c.from
	for at+1 < c.to && (h.words[at].is == "a" || h.words[at].is == "the") {
		at++
	}
	text, first := strings.ToLower(h.text(at, c.to)), h.words[at].is
	joined := c.after == "then" || c.after == "into" || c.after == "+"
	if c.after == "(" || c.after == "or" || h.aside[c.from] {
		return false
	}
	if later && (slices.Contains(notSteps, first) || slices.Contains(cueFirst, first) && !(h.Known(text) && c.to-c.from > 1) && !joined) {
		return false
	}
	_, _, score := h.name(c, false)
	if last := h.words[c.to-1].is; later && c.after == "," && c.to-c.from >= 2 && c.to-c.from <= 3 && (last == "back" || last == "home") {
		return true
	}
	if !later && h.counted(c) && h.joins(c) {
		return true
	}
	if later && c.after == "," && c.to-c.from <= 2 && h.Word(first) && !slices.Contains(cueFirst, first) {
		return true
	}
	return h.Moves(text) || score >= 5 || later && joined && c.to-at <= 4 && (h.Word(first) || c.to-at <= 3)
}

// joins tells whether the next chunk is joined to one.
func (h *hearing) joins(c *chunk) bool {
	for k := range h.chunks {
		if h.chunks[k].from > c.from && h.chunks[k].from < h.chunks[k].to {
			return h.chunks[k].after == "then" || h.chunks[k].after == "into"
		}
	}
	return false
}

// with fills in what marks say of who, where and when, and the cues: what is left, in order.
func (h *hearing) with(from, to int, marks []int) (r Reading) {
	minutes := func(n float64) *int { s := -int(math.Round(60 * n)); return &s }
	for _, k := range marks {
		m := &h.marks[k]
		text := h.text(m.from, m.to)
		switch m.role {
		case roleWho:
			if m.from > 0 && slices.Contains([]string{"but", "bar", "except"}, h.words[m.from-1].is) {
				r.Not = append(r.Not, text)
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
	r.Cues = h.cues(from, to)
	return r
}

// cues are what no role wanted, by the signs that part them.
func (h *hearing) cues(from, to int) (list []string) {
	start := 0
	shut := func(end int) {
		a, b := start, end
		if a < to && from < b { // the piece that the name stands in: what follows the name
			a = max(a, to)
		}
		if who := h.whoFirst(); who >= 0 && a < h.chunks[who].to {
			return
		}
		plain := false
		for i := a; i < b; i++ {
			if !slices.ContainsFunc(h.marks, func(m mark) bool { return m.from <= i && i < m.to && m.role != roleHeld && m.role != roleBreaths }) && !h.words[i].sign {
				plain = true
			}
		}
		if text := strings.Trim(h.text(a, b), " ,.:;-–—()"); plain && text != "" {
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

// clean is a name as it is kept: as it was typed, without what only begins a sentence.
func (h *hearing) clean(from, to int) string {
	for from < to && (h.words[from].sign || to-from > 1 && (h.words[from].is == "a" || h.words[from].is == "and")) {
		from++
	}
	if to-from > 1 && (h.words[from].is == "do" || h.words[from].is == "some" || h.words[from].is == "the") {
		from++
	}
	return strings.Trim(h.text(from, to), " ,.:;-–—")
}

// notSteps are what people are told to do beside what is done in turn.
var notSteps = strings.Fields("swap switch sit rest change drink water walk jog back home repeat go on off down up you let see come be stay keep keeping stretch it that them after over")

// combo is the reading in which several steps are done in turn, as one.
func (h *hearing) combo() Reading {
	who := h.whoFirst()
	var steps []int
	firm, own := false, 0
	for k := range h.chunks {
		c := &h.chunks[k]
		if k == who || c.from >= c.to || c.after == "(" || c.after == "or" {
			continue
		}
		joined := c.after == "then" || c.after == "into" || c.after == "+"
		if !h.step(c, len(steps) > 0) {
			continue
		}
		if h.counted(c) {
			own++
		}
		if len(steps) > 0 && joined {
			firm = true
		}
		steps = append(steps, k)
	}
	if len(steps) < 2 {
		return h.hyphened()
	}
	listed := 0
	for _, k := range steps {
		if c := &h.chunks[k]; c.to-c.from <= 4 {
			listed++
		}
	}
	switch {
	case firm && len(steps) >= 2, own >= 2 && own >= len(steps)-1:
	case listed >= 3 && listed == len(steps) && !h.counted(&h.chunks[steps[0]]):
	default:
		return no
	}
	r := h.stepped(steps)
	if firm {
		r.Score += 2.5
	}
	return r
}

// counted tells whether a chunk has an amount of its own.
func (h *hearing) counted(c *chunk) bool {
	for _, k := range slices.Concat(c.before, c.marks) {
		switch h.marks[k].role {
		case roleCount, roleSetsReps, roleTime, roleHeld, roleBreaths, roleTrips, roleMetres, roleLine, roleBack, roleParts, roleLaps, roleLengths, roleTimes:
			return true
		}
	}
	last := h.words[c.to-1].is
	return c.to-c.from > 1 && (last == "back" || last == "home" || last == "out" || last == "down" || last == "up")
}

// repeats tells whether a chunk says how often it is done over.
func (h *hearing) repeats(c *chunk) bool {
	return slices.ContainsFunc(c.marks, func(k int) bool {
		is := h.marks[k].role
		return is == roleTrips || is == roleTimes || is == roleSetsReps
	})
}

// stepped is the combo of chunks.
func (h *hearing) stepped(steps []int) Reading {
	r := h.with(0, 0, h.all())
	r.Is, r.Times, r.Cues = Combo, 0, nil
	last, both := steps[len(steps)-1], 1.0
	apart := slices.ContainsFunc(steps[:len(steps)-1], func(k int) bool { return h.repeats(&h.chunks[k]) }) // each is done so often
	total := 0.0
	for _, k := range steps {
		c := &h.chunks[k]
		from, to, score := h.name(c, false)
		total += score
		marks := slices.Concat(c.before, c.marks)
		var own []int
		for _, m := range marks {
			mk := &h.marks[m]
			switch {
			case (mk.role == roleTimes || mk.role == roleSets) && (k == last && !apart || mk.from < c.from):
				r.Times = max(r.Times, mk.n)
			case mk.role == roleTrips && k == last && !apart && h.chunks[last].after != "+":
				r.Times = max(r.Times, mk.sets)
				one := *mk
				one.role = roleMetres
				h.marks[m] = one
				own = append(own, m)
			case mk.role == roleSetsReps && k == steps[0] && len(steps) > 1 && slices.ContainsFunc(h.words[mk.from:mk.to], func(w word) bool { return w.is == "round" || w.is == "set" }):
				r.Times = max(r.Times, mk.sets)
				one := *mk
				one.role = roleCount
				h.marks[m] = one
				own = append(own, m)
			case (mk.role == roleSide || mk.role == roleWays) && k == last:
				both = mk.n
			case mk.role == roleRest:
			case mk.role == roleEfforts:
			case mk.role == roleCount && k == last && len(steps) > 1 && (strings.Contains(h.text(mk.from, mk.to), "of") || slices.ContainsFunc(marks, func(m int) bool { return h.marks[m].role == roleMetres && h.marks[m].to <= mk.from })):
				r.Times = mk.n
			default:
				own = append(own, m)
			}
		}
		name := h.clean(from, to)
		h.name0, h.name1 = from, to
		a := h.amount(name, own)
		if a.None() {
			a.Reps = 1
		}
		r.Steps = append(r.Steps, Step{name, a})
	}
	for k := range h.chunks { // pieces beside the steps: how often, how hard
		if slices.Contains(steps, k) {
			continue
		}
		c := &h.chunks[k]
		for _, m := range slices.Concat(c.before, c.marks) {
			mk := &h.marks[m]
			switch mk.role {
			case roleTimes, roleSets, roleCount:
				r.Times = max(r.Times, mk.n)
			case roleParts:
				for _, n := range mk.list {
					r.Times += n
				}
			}
		}
	}
	all := h.amount("", h.all())
	r.Amount = Amount{Rest: all.Rest, Efforts: all.Efforts}
	if r.Times > 1 {
		r.Times *= both
	}
	r.Times = max(1, r.Times)
	r.Name = h.clean(h.chunks[steps[0]].from, h.chunks[last].to)
	for _, one := range h.cues(h.chunks[steps[0]].from, h.chunks[last].to) {
		r.Cues = append(r.Cues, one)
	}
	if who := h.whoFirst(); who >= 0 {
		r.Who = append(r.Who, h.text(h.chunks[who].from, h.chunks[who].to))
	}
	r.Moves = true
	r.Score = total/float64(len(steps)) + 2.5 + 0.5*float64(len(steps))
	return r
}

// hyphened is a combo written as one word: catch-turn-throw.
func (h *hearing) hyphened() Reading {
	for k := range h.chunks {
		c := &h.chunks[k]
		if c.from >= c.to {
			continue
		}
		parts := strings.Split(strings.ToLower(h.words[c.from].is), "-")
		if len(parts) < 3 || c.to-c.from > 2 {
			continue
		}
		for _, p := range parts {
			if !h.Word(p) && !h.Moves(p) {
				return no
			}
		}
		r := h.with(c.from, c.to, h.all())
		a := h.amount("", h.all())
		r.Is, r.Name, r.Moves = Combo, h.clean(c.from, c.to), true
		r.Times = max(1, a.Sets) * max(1, a.Reps)
		for _, n := range a.Parts {
			r.Times += n
		}
		if len(a.Parts) > 0 {
			r.Times--
		}
		for _, p := range parts {
			r.Steps = append(r.Steps, Step{Name: p, Amount: Amount{Reps: 1}})
		}
		r.Amount = Amount{Rest: a.Rest, Efforts: a.Efforts}
		r.Score = 9
		return r
	}
	return no
}

// choice is the reading in which one of several is done.
func (h *hearing) choice() Reading {
	ors := 0
	var parts []int
	for k := range h.chunks {
		c := &h.chunks[k]
		if c.from >= c.to {
			continue
		}
		if c.after == "or" {
			ors++
		}
		next := k+1 < len(h.chunks) && h.chunks[k+1].after == "or"
		if c.after == "or" || next || c.after == "," && ors == 0 {
			parts = append(parts, k)
		}
	}
	if ors == 0 || len(parts) < 2 {
		return no
	}
	r := h.with(h.chunks[parts[0]].from, h.chunks[parts[len(parts)-1]].to, h.all())
	r.Is = Choice
	total := 0.0
	for _, k := range parts {
		from, to, score := h.name(&h.chunks[k], k == parts[0])
		total += score
		r.Choices = append(r.Choices, h.clean(from, to))
	}
	if h.chunks[parts[len(parts)-1]].after != "or" || h.chunks[parts[0]].after == "," && parts[0] > 0 && total < 4 {
		return no
	}
	r.Name = strings.Join(r.Choices, " or ")
	r.Moves = total/float64(len(parts)) > 3
	r.Amount = h.amount(r.Choices[0], h.all())
	r.Score = total/float64(len(parts)) + 2.5 + h.sense(r.Choices[0], &r.Amount)
	if slices.ContainsFunc(r.Choices, func(one string) bool { return len(strings.Fields(one)) > 5 }) {
		r.Score -= 4
	}
	return r
}

// timed tells whether a role says when, who or where, which headings and fixed things have.
func timed(is role) bool {
	switch is {
	case roleAt, roleFrom, roleUntil, roleDone, roleLast, roleFirst, roleWho, roleLeader, rolePlace, roleFiller, roleBefore, roleAfter, roleStraight, roleNone:
		return true
	}
	return false
}

var phaseWords = strings.Fields("raise activate activation mobilise mobilize mobility potentiate potentiation pulse prep dynamic static primer build-up pre-activation stretching stretches strength speed skills ball technical warm-up warmup cool-down cooldown")

// heading is the reading in which the line names what follows.
func (h *hearing) heading() Reading {
	r := h.with(0, 0, h.all())
	r.Is = Heading
	first := slices.IndexFunc(h.chunks, func(c chunk) bool { return c.from < c.to })
	if first < 0 {
		if len(h.marks) > 0 && h.marks[0].role == roleWho {
			r.Name, r.Score = h.marks[0].text, 2
			return r
		}
		return no
	}
	c := &h.chunks[first]
	r.Name = strings.Trim(h.text(c.from, c.to), " .:")
	s, amounts, inside := 1.0, 0, 0
	for _, m := range h.marks {
		if timed(m.role) {
			s += 0.5
			if m.role == roleUntil {
				s += 1.5
			}
		} else if m.role == roleTime && m.from > 0 && h.words[m.from-1].is == "(" {
			inside++
		} else {
			amounts++
		}
	}
	low := strings.ToLower(r.Name)
	words := h.words[c.from:c.to]
	switch {
	case capitals(r.Name):
		s += 5
	case slices.Contains([]string{"part", "phase", "block", "stage", "station"}, words[0].is) && (len(words) < 3 && len(h.words) > 1 && h.words[c.from+1].numeral || len(words) == 2):
		s += 5
	case slices.Contains(phaseWords, words[0].is):
		s += 3
	}
	if h.Moves(low) && !capitals(r.Name) {
		s -= 3
	}
	if groupLike(words) {
		s += 2
	}
	if titles(words) {
		s += 5
	}
	if only(words, body) || only(words, phaseWords) {
		s += 4
	}
	s += 1.5*float64(inside) - 4*float64(amounts) - 0.7*float64(max(0, c.to-c.from-4)) - 1.5*float64(max(0, h.plain()-2))
	for _, w := range h.words {
		if slices.Contains(tells, w.is) {
			s--
		}
	}
	r.Score = s
	return r
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
		return !slices.Contains(of, w.is) && !slices.Contains(of, w.is+"s") && !slices.Contains([]string{"and", "+", "the", "warm", "general", "easy", "ankles"}, w.is)
	})
}

// plain are how many chunks there are.
func (h *hearing) plain() (n int) {
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
var eventWords = strings.Fields(`toss talk talks anthem briefing lineup line-up meeting register check photo photos presentation tape taping strapping jerseys shirts kit helmets bibs ref refs
	umpire umpires officials call-room resurface video knock-up huddle parade handshakes inspection weigh-in scrutineering classification arrival arrive bus chat teamsheet numbers drinks water jewellery team-talk gaffer boss doors handover changeover`)

// eventPairs are of two words.
var eventPairs = []string{"call room", "knock up", "coin toss", "line up", "kit on", "bibs off", "shirts on", "team talk", "stick check", "equipment check", "captains meeting", "anthems on"}

// fixed is the reading in which the line is something of the day that is fixed.
func (h *hearing) fixed() Reading {
	r := h.with(0, 0, h.all())
	r.Is = Fixed
	s, events := -1.0, 0
	var plain []word
	for i := range h.words {
		if !slices.ContainsFunc(h.marks, func(m mark) bool {
			return m.from <= i && i < m.to && (m.role == roleBefore || m.role == roleAfter || m.role == roleStraight)
		}) {
			plain = append(plain, h.words[i])
		}
	}
	text, _ := joined(plain)
	for _, two := range eventPairs {
		if strings.Contains(" "+text+" ", " "+two+" ") {
			events++
			s += 1.5
			break
		}
	}
	if events == 0 {
		for i, w := range plain {
			if i == 0 && (slices.Contains(eventWords, w.is) || slices.Contains(eventWords, strings.TrimSuffix(w.is, "s"))) {
				s += 4
			}
			if slices.Contains(tells, w.is) {
				s -= 2
			}
			if slices.Contains(eventWords, w.is) || slices.Contains(eventWords, strings.TrimSuffix(w.is, "s")) {
				events++
			}
		}
	}
	if events == 0 {
		return no
	}
	s += 3.5
	first := slices.IndexFunc(h.chunks, func(c chunk) bool { return c.from < c.to })
	if first < 0 {
		return no
	}
	c := &h.chunks[first]
	end := c.to
	r.Name = h.clean(c.from, end)
	if slices.Contains(eventWords, h.words[end-1].is) {
		s += 2
	}
	when := false
	for i := range h.marks {
		switch m := &h.marks[i]; m.role {
		case roleUntil, roleAt, roleFrom, roleDone:
			when = true
			s += 2.5
		case roleCount:
			if m.to == len(h.words) && m.n >= 5 { // "ref talks to front rows 30"
				minutes := -int(60 * m.n)
				r.At = &minutes
				when = true
				s += 2
			} else {
				s -= 3
			}
		case roleTime:
			if i+1 == len(h.marks) {
				when = true
			}
		case roleSetsReps, roleTrips, roleSide, roleLaps, roleMetres, roleLine, roleTimes:
			s -= 5
		}
	}
	if !when {
		s--
	}
	if r.From != nil && r.At == nil {
		r.At = r.From
	}
	low := strings.ToLower(r.Name)
	if h.Known(low) {
		s -= 3
	}
	r.Score = s + 1
	return r
}

// containers are where things are kept.
var containers = strings.Fields("bag bags tin tub shed van car boot bin bucket crate cupboard locker container")

var remarkFirst = strings.Fields("remember nb note anyone dont don't please bring make hi hello hey thanks cheers ring no phones nothing everyone's sorry if last water")

// remark is the reading in which the line tells something beside what is done.
func (h *hearing) remark() Reading {
	r := Reading{Is: Remark, Cues: []string{strings.TrimSpace(h.line)}}
	s := -1.0
	amounts := 0
	for _, m := range h.marks {
		if !timed(m.role) && m.role != roleEfforts && !(m.role == roleCount && h.words[m.from].spelt) && m.role != roleBack {
			amounts++
		}
	}
	said := 0
	for i, w := range h.words {
		if slices.Contains(tells, w.is) {
			said++
		}
		if slices.Contains(containers, w.is) && i > 1 {
			s += 2.5
		}
		if i == 0 && slices.Contains(remarkFirst, w.is) {
			s += 2
		}
	}
	s += 1.5*float64(said) - 3*float64(amounts)
	if first := slices.IndexFunc(h.chunks, func(c chunk) bool { return c.from < c.to }); first >= 0 {
		c := &h.chunks[first]
		if c.to-c.from >= 5 {
			s += 1.5
		}
		if h.Moves(strings.ToLower(h.text(c.from, c.to))) {
			s--
		}
	}
	if strings.HasSuffix(strings.TrimSpace(h.line), "!") || strings.HasSuffix(strings.TrimSpace(h.line), "?") {
		s++
	}
	r.Score = s
	return r
}
