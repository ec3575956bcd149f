package hear

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"cuestart/core/pattern"
)

// counted are the marks of an amount that get their sense from one another.
type counted struct {
	count, times, sets, lengths, held, timed *mark
	back, line, there                        bool // and back; to a line; there and back
	both                                     bool // on both sides, not on each
}

// Letters are the letters of a name that is letters, each of which is done.
func Letters(name string) (list []string) {
	for _, one := range lettersOf.FindAllString(name, -1) {
		list = append(list, one[:1])
	}
	return list
}

// sent are acts by which a ball goes somewhere, and not who does them.
var sent = pattern.Must(`(?i)\b(?:throws?|toss(?:es)?|kicks?|pass|passes|serves?|shots?|pitches|hits?|punts?|pucks?|clears|clearances|drives|strikes|chips|lobs|frees|goals?)$`)

// ofBall are names of what is done with a ball, which goes so far while people stay.
var ofBall = pattern.Must(`(?i)\b(?:pass|throw|kick|toss|shot|shoot|hit|serv|flick|aerial|punt|chip|lob|feed|bowl|catch)`)

// lettersOf are the letters of a name that is letters: Y-T-W.
var lettersOf = pattern.Must(`\b[A-Z](?:-|, |/|\b$)`)

// amount gives what was counted beside a name the sense that its movement allows.
func (h *marked) amount(name string, marks []int) (a Amount) {
	var c counted
	each := slices.IndexFunc(marks, func(k int) bool { return h.marks[k].role == roleEach })
	if n := len(Letters(name)); n > 1 && each >= 0 { // Y-T-W, six of each
		a.Ways = float64(n)
		marks = slices.Delete(slices.Clone(marks), each, each+1)
	}
	for _, k := range marks {
		m := &h.marks[k]
		if !h.crosses(&a, &c, m, name) && !h.counts(&a, &c, m) && !h.goes(&a, &c, m) {
			h.how(&a, &c, m, name)
		}
	}
	if a.Each && h.name1 > h.name0 && only(h.words[h.name0:h.name1], []string{"left", "right", "l", "r"}) {
		// left right, four each
		a.Sides = 2
	}
	if c.timed != nil && c.timed.n >= 60 && c.timed.sets == 0 && c.both { // two minutes, both sides
		a.Sides, a.Ways = 0, 0
	}
	if a.Seconds > 0 && a.Rest > 0 && c.timed == nil { // 20 s on, 10 off
		a.Sets = max(1, a.Sets, cmp.Or(of(c.sets), of(c.times), of(c.count)))
		return a
	}
	if h.bareWay(name, &a) { // A skip 2 x 30, walk back
		a.Trips, a.Metres, a.Sets, a.Reps = a.Sets, a.Reps, 0, 0
	}
	h.place(name, &a, &c)
	if n := float64(len(a.Efforts)); n > 1 && a.Each && c.count != nil { // at 60, 70 and 80 %, two of each
		a.Reps, a.Trips = n*a.Reps, n*a.Trips
	}
	return a
}

// crosses takes a mark of what is crossed by those who go, or come back.
func (h *marked) crosses(a *Amount, c *counted, m *mark, name string) bool {
	if m.role != roleLoad || m.text != "across" || !h.Goes(name) && !slices.ContainsFunc(h.marks,
		func(b mark) bool { return b.role == roleBack && b.from == m.to }) {
		return false
	}
	c.line = true
	metres, known := h.Line(h.text(m.from, m.to))
	if a.Metres = metres; !known {
		a.Metres, _ = h.Line("across")
	}
	return true
}

// place gives what was counted its sense: laps, lengths, or on the spot.
func (h *marked) place(name string, a *Amount, c *counted) {
	repeats := max(of(c.times), of(c.sets))
	switch goes := h.Goes(name); {
	// so long, over so far
	case c.timed != nil && c.timed.sets == 0 && c.timed.n >= 20 && a.Metres > 0 && a.Trips == 0 && c.count == nil &&
		c.times == nil && !c.back:
		a.Metres = 0
		h.inPlace(name, a, c)
	// boundary laps x 2
	case (c.times != nil || c.count != nil) && h.name1 > h.name0 && h.is(h.name1-1, "lap") && a.Laps == 0:
		a.Laps = max(of(c.times), of(c.count))
	case a.Laps > 0:
		if a.Laps == 1 && repeats > 0 {
			a.Laps = repeats
		} else if repeats > 0 {
			a.Sets = repeats
		}
	case c.lengths != nil && (goes || c.line || a.Metres == 0):
		a.Trips, a.Least = c.lengths.n*max(1, repeats), c.lengths.least
		if c.back {
			a.Trips *= 2
		}
	case a.Metres > 0 && a.Trips == 0 && c.timed != nil && c.timed.sets > 0:
		h.inPlace(name, a, c)
	case c.line && !c.there && !goes && sent.MatchString(name) && (c.times != nil || c.count != nil):
		a.Metres = 0
		h.inPlace(name, a, c)
	case a.Metres > 0 && (goes || a.Trips > 0 || c.count == nil ||
		c.count.to-c.count.from == 1 && a.Sides == 0 && !(a.Each && ofBall.MatchString(name))) ||
		c.line && (goes || c.back || c.count == nil && len(a.Parts) == 0) || c.back && (goes || c.there):
		travel(a, c)
	default:
		h.inPlace(name, a, c)
	}
}

// bareWay tells whether so often so many of what goes somewhere are lengths of so many metres: people walk back, or
// it is said how fast they go.
func (h *lexed) bareWay(name string, a *Amount) bool {
	if a.Sets == 0 || a.Reps < 10 || int(a.Reps)%5 != 0 || a.Metres > 0 || !h.Goes(name) {
		return false
	}
	return len(a.Efforts) > 0 || strings.Contains(strings.ToLower(h.line), "walk back") || runs.MatchString(name) ||
		a.Reps >= 20 && steps.MatchString(name)
}

// steps are what is said to be so often so far where it is twenty or more: nobody counts thirty bounds.
var steps = pattern.Must(`(?i)(?:^|[^-])\b(?:skips?|skipping|bounds?|bounding|carioca|karaoke|grapevine|shuffles?|backpedals?|side steps|sidesteps)$`)

// runs are what is said to be so often so far without a unit.
var runs = pattern.Must(`(?i)\b(?:strides?|sprints?|accels?|accelerations?|flys|flying|build-?ups?|tempo runs?)\b`)

// counts takes a mark that says how many.
func (h *marked) counts(a *Amount, c *counted, m *mark) bool {
	switch m.role {
	case roleCount:
		switch {
		case h.ofAnother(m):
		case c.count == nil:
			c.count = m
		case strings.Contains(h.text(m.from, m.to), "more"): // ten, rest, ten more
			a.Sets, a.Reps, c.count = 2, m.n, m
		case c.count.n < m.n && strings.Contains(h.text(m.from, m.to), "of"):
			c.count = m
		}
	case roleSetsReps:
		a.Sets, a.Reps, a.Least = m.sets, m.n, m.least
	case roleSets:
		c.sets = m
	case roleTimes:
		if c.times == nil || c.times.n < m.n {
			c.times = m
		}
	case roleSide:
		c.both = slices.ContainsFunc(h.words[m.from:m.to], func(w word) bool { return w.is == "both" })
		if once := h.before(m.from); once == nil || once.role != roleTimes || once.n != 1 {
			// "twice, once off each foot" is two
			a.Sides = 2
		}
	case roleWays:
		if a.Ways = max(a.Ways, m.n); h.is(m.from, "both") {
			c.both = true
		}
	case roleParts:
		a.Parts, a.Each = m.list, a.Each || m.n == 1
		if m.text == "sides" {
			a.Sides, a.PartSides = 2, true
		}
	default:
		return false
	}
	return true
}

// before is the mark that ends where a word begins; nil: none.
func (h *marked) before(at int) *mark {
	for i := range h.marks {
		if h.marks[i].to == at {
			return &h.marks[i]
		}
	}
	return nil
}

// goes takes a mark that says how far.
func (h *tokens) goes(a *Amount, c *counted, m *mark) bool {
	switch m.role {
	case roleTrips:
		a.Trips, a.Metres, a.Unit = m.sets, m.n, h.unit(m)
	case roleMetres:
		if a.Metres == 0 {
			a.Metres, a.Unit = m.n, h.unit(m)
		}
	case roleLine:
		c.line, a.To = true, m.text
		if a.Metres == 0 {
			a.Metres = m.n
		}
	case roleBack:
		if h.is(m.from, "over") && m.from > 0 && h.words[m.from-1].delimits() { // shoulder circles 10, over and back
			break
		}
		c.back = true
		c.there = c.there || m.to-m.from >= 3
	case roleLengths:
		c.lengths = m
	case roleLaps:
		a.Laps, a.Least = m.n, m.least
	default:
		return false
	}
	return true
}

// how takes a mark that says how long, or how hard.
func (h *marked) how(a *Amount, c *counted, m *mark, name string) {
	switch m.role {
	case roleTime:
		if c.timed != nil { // four minutes: two of them on the left
			return
		}
		if c.timed = m; m.text == "sides" {
			a.Sides = 2
		}
	case roleHeld:
		if c.held = m; m.sets > 0 { // hold 5 x 10
			a.Reps = m.sets
		}
	case roleBreaths:
		a.Breaths = m.n
		if m.sets > 0 {
			a.Reps = m.sets
		}
	case roleOnOff:
		a.Seconds, a.Rest, a.Sets = m.n, m.least, m.sets
	case roleRest:
		a.Rest = m.n
	case roleEfforts:
		if b := h.before(m.from); b != nil && b.role == roleEfforts { // 60% 70% 80%
			a.Efforts = append(slices.Clone(a.Efforts), m.list...)
		} else if len(m.list) > len(a.Efforts) {
			a.Efforts = m.list
		}
	case roleDegrees:
		a.Reps, a.Efforts = m.n, m.list
	case roleEach:
		a.Each = true
	case roleTempo:
		a.Tempo = m.list
	case rolePlace:
		if m.n > 0 && h.Goes(name) { // round the pitch
			a.Laps = max(a.Laps, 1)
		}
	}
}

// ofAnother tells whether a bare number counts something that is no part of what is done: "3
// taggers".
func (h *marked) ofAnother(m *mark) bool {
	if m.to >= len(h.words) || m.to == h.name0 || h.words[m.to].delimits() || h.name1 == 0 {
		return false
	}
	if slices.ContainsFunc(h.marks, func(other mark) bool { return other.from == m.to }) {
		return false
	}
	return m.to-m.from == 1 && (m.from < h.name0 || m.from >= h.name1 && m.from > 0 && h.words[m.from-1].delimits()) &&
		!slices.Contains(natural, h.words[m.to].is) && !h.Word(h.words[m.to].is)
}

// travel gives what is done over a length its number of trips.
func travel(a *Amount, c *counted) {
	trips := a.Trips
	for _, m := range []*mark{c.times, c.count, c.sets} {
		if m == nil {
			continue
		}
		if trips == 0 {
			trips, a.Least = m.n, m.least
		} else if m != c.count {
			trips *= m.n
		}
	}
	if trips == 0 && a.Reps > 0 && a.Sets > 0 { // 3 x 4 over 10 m
		trips = a.Sets * a.Reps
	}
	if trips == 0 && len(a.Efforts) > 1 { // 2 at 70 %, 1 at 95 %
		trips = a.Reps
	}
	for _, n := range a.Parts {
		if len(a.Parts) > 1 && a.Trips == 0 && c.count == nil { // two in lane 1 and two in lane 8
			trips += n
		}
	}
	if trips == 0 {
		trips = max(1, float64(len(a.Efforts)))
	}
	if c.back {
		trips *= 2
		a.Least *= 2
	}
	a.Trips, a.Reps, a.Sets, a.Parts = trips, 0, 0, nil
}

// inPlace gives what is counted, held or timed its sense.
func (h *lexed) inPlace(name string, a *Amount, c *counted) {
	still := h.Still(name)
	if c.count != nil && a.Reps == 0 && len(a.Parts) == 0 {
		a.Reps, a.Least = c.count.n, c.count.least
	}
	again(a, c, still)
	switch {
	case c.timed != nil && c.timed.sets > 0 && still:
		a.Hold, a.Reps = c.timed.n, c.timed.sets
	case c.timed != nil && c.timed.sets > 0 && c.timed.text == "told": // two minutes one way, two the other
		a.Seconds = c.timed.n * c.timed.sets
	case c.timed != nil && c.timed.sets > 0:
		a.Seconds, a.Sets = c.timed.n, c.timed.sets
	case c.held != nil:
		a.Counted = !still && (a.Reps > 0 || len(a.Parts) > 0)
		if a.Hold = c.held.n; a.Reps == 0 && len(a.Parts) == 0 {
			a.Reps = 1
		}
	case a.Breaths > 0 && (c.count != nil || c.times != nil || a.Sets > 0 || len(a.Parts) > 0):
		a.Counted = true
	case c.timed != nil && (still || a.Reps > 0 && c.timed.n <= 30 && c.count != nil):
		a.Counted = !still && c.timed.n <= 5
		if a.Hold = c.timed.n; a.Reps == 0 {
			a.Reps = 1
		}
	case c.timed != nil:
		if a.Seconds, a.Least = c.timed.n, c.timed.least; a.Reps > 0 && a.Sets == 0 { // 5 x 30 s
			a.Sets, a.Reps = a.Reps, 0
		}
	case a.Breaths > 0 && a.Reps == 0:
		a.Reps = 1
	}
	if a.Reps == 1 && a.Hold == 0 && a.Breaths == 0 && a.Seconds == 0 && c.count == nil && c.times == nil {
		a.Reps = 0
	}
}

// again gives sets, and "x 4", their sense beside what is counted.
func again(a *Amount, c *counted, still bool) {
	switch {
	case c.sets != nil && c.times != nil && a.Reps == 0:
		a.Sets, a.Reps = c.sets.n, c.times.n
	case c.sets != nil:
		a.Sets, a.LeastSets = c.sets.n, c.sets.least
	case c.times == nil:
	case c.held != nil && c.count == nil && a.Reps == 0 && !still:
		a.Reps, a.Least = c.times.n, c.times.least
	case (a.Reps > 0 || c.timed != nil || c.held != nil || len(a.Parts) > 0 || a.Breaths > 0) && a.Sets == 0:
		a.Sets, a.LeastSets = c.times.n, c.times.least
	case a.Reps == 0:
		a.Reps, a.Least = c.times.n, c.times.least
	}
}

// unit is in what a length was said.
func (h *tokens) unit(m *mark) string {
	for _, w := range h.words[m.from:m.to] {
		if w.is == "yd" || w.is == "ft" {
			return w.is
		}
	}
	return ""
}

func of(m *mark) float64 {
	if m == nil {
		return 0
	}
	return m.n
}

// sense is how likely an amount of a movement is: nobody does 90 sprints, a stretch ten times
// on each side, reps of what is held.
func sense(name string, a *Amount) (s float64) {
	each := max(1, a.Sets) * max(1, a.Sides)
	reps := a.Reps * each
	switch {
	case reps > 120, a.Trips > 40, a.Laps > 20, a.Metres > 400 && a.Trips > 4:
		s -= 6
	case reps > 40 && a.Reps > 30:
		s -= 2
	case a.Hold > 180, a.Seconds > 2400:
		s -= 4
	}
	if a.Hold*reps > 600 {
		s -= 3
	}
	if !a.None() {
		s += 1.5
	}
	if math.IsNaN(s) {
		return -9
	}
	return s
}

// numbers are those that no role explains, beside the ones in a name and in cues.
func (h *marked) numbers(from, to int) (n int) {
	for i := range h.words {
		if !h.words[i].numeral || i >= from && i < to {
			continue
		}
		if !slices.ContainsFunc(h.marks, func(m mark) bool { return m.from <= i && i < m.to }) && !h.words[i].spelt {
			n++
		}
	}
	return n
}
