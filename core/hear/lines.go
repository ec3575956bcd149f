package hear

import (
	"slices"
	"strings"
)

// clocksOf marks times of the day: "14:20 jog", "at 3.15", "from 15:08 to 15:18", "done by 3.20".
func (h *lined) clocksOf() (all []mark) {
	for i := range h.words {
		at, ok := h.clock(i)
		if !ok {
			continue
		}
		m := mark{role: roleAt, from: i, to: i + 1, n: at, weight: 5, text: "clock"}
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
		// toss 10.30
		case i > 0 && i == len(h.words)-1 &&
			slices.ContainsFunc(h.words[:i], func(w word) bool { return slices.Contains(eventWords, w.is) }):
		case i > 0 && at >= 0 && h.saidAsClock(i):
		case i > 0:
			continue
		}
		all = append(all, m)
	}
	return all
}

// saidAsClock tells whether a number can only be a time of the day: "On ice 19:12", "pen 6:10 with Jo".
func (h *tokens) saidAsClock(i int) bool {
	hour, _, two := strings.Cut(h.words[i].is, ":")
	return two && num(hour) >= 5 && !h.is(i-1, "x", "for", "of", "in", "every", "-", "/") &&
		!h.is(i+1, "x", "min", "s", "-", "/")
}

// clock is a word that is a time of the day, in minutes to go.
func (h *lined) clock(i int) (toGo float64, ok bool) {
	if i >= len(h.words) || !h.words[i].numeral {
		return 0, false
	}
	hour, minute, two := strings.Cut(strings.Replace(h.words[i].is, ".", ":", 1), ":")
	if !two || len(minute) != 2 || minute > "59" {
		return 0, false
	}
	return h.Clock(int(num(hour)), int(num(minute)))
}

// is tells whether a word is one of several.
func (h *tokens) is(i int, words ...string) bool {
	return i >= 0 && i < len(h.words) && slices.Contains(words, h.words[i].is)
}

// linesOf marks how far people go: to the box, sideline to sideline, the length of the court.
func (h *lined) linesOf() (all []mark) {
	for i := range h.words {
		for _, one := range []func(int) (mark, bool){h.toLine, h.lineToLine, h.wholeLength, h.across, h.andBack,
			h.roundIt} {
			if m, ok := one(i); ok {
				all = append(all, m)
			}
		}
	}
	return all
}

// toLine marks "to the box", "out to the 22", "up to half way".
func (h *lined) toLine(i int) (m mark, is bool) {
	if !h.is(i, "to") || h.is(i+1, verbs...) || h.is(i-1, "start", "finish", "begin", "straight") ||
		h.is(i-1, "down") && !h.is(i+1, "the") {
		return m, false
	}
	from, j := i, i+1
	for h.is(from-1, "up", "out", "over", "across", "down") {
		from--
	}
	if _, ok := h.Line(strings.ToLower(h.text(j, min(j+3, len(h.words))))); !ok {
		for h.is(j, "the", "a", "our", "other", "opposite", "their") && j+1 < len(h.words) {
			j++
		}
		if _, ok := h.lineName(strings.ToLower(h.text(j, min(j+2, len(h.words))))); !ok && h.is(j, "far", "first") &&
			j+1 < len(h.words) {
			j++
		}
	}
	for k := min(j+4, len(h.words)); k > j; k-- {
		text := strings.ToLower(h.text(j, k))
		metres, ok := h.lineName(text)
		if h.words[k-1].numeral && h.is(k, "percent") { // "to first 60 %"
			continue
		}
		if ok || k == j+1 && j > i+1 && (goals(text) || h.words[j].numeral) {
			return mark{role: roleLine, from: from, to: k, text: text, n: metres, weight: 3}, true
		}
	}
	if end := h.backFrom(j); j > i+1 && i > 0 && end > 0 { // "to the boat shed doors and back"
		return mark{role: roleLine, from: from, to: end, text: strings.ToLower(h.text(j, end)), weight: 0.5}, true
	}
	return m, false
}

// backFrom is where a place ends from which people come back; 0: there is none, or it is of the body.
func (h *tokens) backFrom(j int) int {
	for k := j + 1; k <= j+4 && k < len(h.words); k++ {
		if h.words[k-1].sign || h.words[k-1].numeral || slices.Contains(bodily, h.words[k-1].is) ||
			h.is(k-1, "floor", "start", "top", "bottom", "side", "left", "right", "middle", "sky", "ceiling", "ear",
				"shin", "outside", "inside") {
			return 0
		}
		if h.is(k, "and", "/", "then") && h.is(k+1, "back", "home") &&
			(k+2 == len(h.words) || h.words[k+2].delimits() || h.words[k+2].numeral ||
				h.is(k+2, "x", "twice", "once", "again")) {
			return k
		}
	}
	return 0
}

// andBack marks a line of the ground said by its number alone where people come back from it: "25 and back".
func (h *lined) andBack(i int) (m mark, ok bool) {
	if !h.words[i].numeral || !h.is(i+1, "and", "&") || !h.is(i+2, "back") || i > 0 && !h.words[i-1].delimits() {
		return m, false
	}
	metres, known := h.Line(h.words[i].is)
	return mark{role: roleLine, from: i, to: i + 1, text: h.words[i].is, n: metres, weight: 4}, known
}

// across marks "across and back", "across x 4": from one side of the ground to the other.
func (h *lined) across(i int) (m mark, ok bool) {
	if !h.is(i, "across") || i == 0 || h.is(i+1, "and", "&") && !h.is(i+2, "back", "return") ||
		i+1 < len(h.words) && !h.is(i+1, "and", "&", "x", ",", "(") && !h.words[i+1].numeral {
		return m, false
	}
	metres, known := h.Line("across")
	return mark{role: roleLine, from: i, to: i + 1, text: "across", n: metres, weight: 3}, known
}

// lineToLine marks "sideline to sideline", "try line to the 10".
func (h *lined) lineToLine(i int) (m mark, is bool) {
	for j := i + 1; j <= i+3 && j < len(h.words); j++ {
		if !h.is(j, "to") {
			continue
		}
		a, k := strings.ToLower(h.text(i, j)), j+1
		if metres, ok := h.Line(strings.ToLower(h.text(i, min(j+2, len(h.words))))); ok {
			// "home to first" is a line's own name
			return mark{role: roleLine, from: i, to: min(j+2, len(h.words)),
				text: strings.ToLower(h.words[min(j+1, len(h.words)-1)].is), n: metres, weight: 4}, true
		}
		for h.is(k, "the", "far", "other", "opposite") {
			k++
		}
		if one := h.words[i].is; j == i+1 && h.is(j+1, one) && !h.words[i].sign && !slices.Contains(bodily, one) {
			// wall to wall
			metres, _ := h.lineName(one)
			return mark{role: roleLine, from: i, to: j + 2, text: one, n: metres, weight: 4}, true
		}
		if j == i+2 && h.is(j+1, h.words[i].is) && h.is(j+2, h.words[i+1].is) && !h.words[i].numeral &&
			!slices.Contains(bodily, h.words[i].is) && !slices.Contains(bodily, h.words[i+1].is) {
			// lane line to lane line
			metres, _ := h.lineName(strings.ToLower(h.text(i, j)))
			return mark{role: roleLine, from: i, to: j + 3, text: strings.ToLower(h.text(i, j)), n: metres, weight: 4},
				true
		}
		_, known := h.lineName(a)
		if h.is(k+2, "line") && h.is(k+1, "m", "yd") && h.words[k].numeral { // goal line to the 5 m line
			return mark{role: roleLine, from: i, to: k + 3, text: strings.ToLower(h.text(k, k+3)),
				n: metres(h.words[k].is, " "+h.words[k+1].is), weight: 5}, known
		}
		known = known || strings.HasSuffix(a, " line") && j-i == 2 && !h.Moves(h.words[i].is)
		for end := min(k+3, len(h.words)); known && end > k; end-- {
			b := strings.ToLower(h.text(k, end))
			metres, ok := h.lineName(b)
			if h.is(k, verbs...) {
				break
			}
			ok = ok || end == k+1 && k > j+1 && h.words[k].numeral
			ends := end == len(h.words) || h.words[end].delimits() || h.is(end, "x", "and")
			if ok || ends && end-k <= 2 && !h.words[k].numeral && !h.words[end-1].numeral {
				return mark{role: roleLine, from: i, to: end, text: b, n: metres, weight: 4}, true
			}
		}
	}
	return m, false
}

// verbs are what follows "to" and is no place.
var verbs = strings.Fields("begin start finish go do get be warm")

// bodily are what touch one another: hand to hand goes nowhere.
var bodily = strings.Fields("side hand cheek face chest back knee foot toe heel shoulder hip head volley kick " +
	"front elbow one two arm leg nose eye")

// wholeLength marks "length of the court", "width of the field".
func (h *lined) wholeLength(i int) (m mark, ok bool) {
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
	if j+1 < len(h.words) && h.Moves(strings.ToLower(h.text(j, j+2))) { // widths of side skips
		return m, false
	}
	if _, known := h.lineName(h.words[j].is); !known && !fields(h.words[j].is) &&
		!h.is(j, "mat", "lane", "floor", "road", "boat", "corridor", "green", "zone", "key", "net") {
		return m, false
	}
	return mark{role: roleLine, from: i, to: j + 1, text: strings.ToLower(h.text(i, j+1)), weight: 4}, true
}

// roundIt marks "round the pitch".
func (h *sentence) roundIt(i int) (m mark, ok bool) {
	if !h.is(i, "round", "around") || !h.is(i+1, "the", "our", "both") || i+2 >= len(h.words) ||
		!fields(h.words[i+2].is) {
		return m, false
	}
	end := i + 3
	if h.is(end, "fence", "track", "lines") {
		end++
	}
	return mark{role: rolePlace, from: i, to: end, text: h.text(i+1, end), n: 1, weight: 2}, true
}

func (h *lined) lineName(text string) (metres float64, ok bool) {
	for _, cut := range []string{"", " line"} {
		if metres, ok = h.Line(strings.TrimSuffix(text, cut)); ok {
			return metres, true
		}
	}
	return 0, goals(text)
}

// goals tells whether a word is what people run to on many grounds.
func goals(text string) bool {
	return slices.Contains(strings.Fields("box half halfway line sideline touchline baseline endline post "+
		"posts cone cones fence wall net net-post end 22 45 65 21 brick marker markers bench tree gate edge "+
		"hash fifty try-line goal-line far-end dot dots blue stump stumps crease rope"),
		text) || text == "half way" || text == "far end" || text == "try line" || text == "goal line" ||
		text == "half court" || text == "far blue" || text == "service line" || text == "base line"
}

func fields(text string) bool {
	return slices.Contains(strings.Fields("pitch field court courts rink hall gym track ground oval park "+
		"outfield infield ice pool diamond boundary rope box"),
		text)
}
