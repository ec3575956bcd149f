package hear

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// tag is what a word of a line is there for.
type tag int

const (
	tagTold tag = iota // what people are told, and what only joins
	tagName
	tagWho
	tagNot // who does not
	tagLeader
	tagWhere
	tagWhen
	tagReps
	tagLeast // the least that will do: the 8 of 8-10
	tagSets  // sets, rounds, and how often anything that has its own amount
	tagTime
	tagHold
	tagBreaths
	tagRest
	tagMetres
	tagLengths
	tagLaps
	tagLine   // to which line of the ground
	tagBack   // and back
	tagSides  // on each side, both ways
	tagPart   // a part of what is counted, each of which is done
	tagEffort // how hard
	tagEvent  // what happens at a time, and is none of the work
	tagTitle  // what a block is called
	tags
)

// Tags are the letters by which lessons call what words are there for, in the order of their tags.
const Tags = "ONWXLCIQJSTHYRMKAUBZPEFG"

// group is words next to one another with one tag; of an amount they have one number.
type group struct {
	tag
	from, to int
}

// grouped are the groups of a line.
func (h *tokens) grouped(of []tag) (all []group) {
	numbered := false
	for i, t := range of {
		n := len(all) - 1
		number := h.words[i].numeral || h.is(i, "once", "twice", "thrice")
		if n >= 0 && all[n].to == i && all[n].tag == t && !(number && numbered && t >= tagReps && t != tagTime &&
			t != tagPart && t != tagLine && t != tagSides) {
			all[n].to = i + 1
			numbered = numbered || number
			continue
		}
		all, numbered = append(all, group{t, i, i + 1}), number
	}
	return slices.DeleteFunc(all, func(g group) bool { return g.tag == tagTold })
}

// fewWords are numbers in words that are none of the numerals.
var fewWords = map[string]float64{"once": 1, "twice": 2, "thrice": 3, "couple": 2, "few": 3, "dozen": 12}

// count is the number that a group says, or the word behind it; 1 where neither says one.
func (h *sentence) count(g group) (n float64) {
	for i := g.from; i < min(len(h.words), g.to+1) && n == 0; i++ {
		if w := &h.words[i]; w.numeral && i < g.to {
			n = w.number
		} else if n = fewWords[w.is]; n > 0 && h.is(i-2, "half") {
			n /= 2
		}
	}
	if n = max(n, 1); strings.Contains(strings.ToLower(h.text(g.from, min(len(h.words), g.to+5))), "and a half") {
		n += 0.5
	}
	return n
}

// lasts is for how many seconds a group says; a number alone are seconds, and so is one of another unit before it.
func (h *sentence) lasts(g group) float64 {
	text, _ := joined(h.words[g.from:g.to])
	if _, n := span(text); n > 0 {
		return n
	}
	for i := g.to; i < len(h.words); i++ { // 30, 20 and 10 s
		if h.is(i, "min") && h.numeral(i-1) {
			return 60 * h.count(g)
		}
	}
	return h.count(g)
}

// far is how many metres a group says.
func (h *sentence) far(g group) float64 {
	text, _ := joined(h.words[g.from:g.to])
	if !strings.ContainsAny(text, "mydftk") {
		text += " " + h.unitBehind(g.to)
	}
	return metres(strconv.FormatFloat(h.count(g), 'f', -1, 64), text)
}

// unitBehind is the unit of the next length that says one.
func (h *tokens) unitBehind(i int) string {
	for ; i < len(h.words); i++ {
		if h.is(i, "m", "yd", "ft", "km") && h.numeral(i-1) {
			return h.words[i].is
		}
	}
	return "m"
}

// tallied is what is said of how much while it is put together.
type tallied struct {
	Amount
	counts, times, lengths []float64
	parts                  int
	least, trips           float64
	goes, back             bool // over a length; there and back
}

// tally is how much the tags of a line say of something: what is counted, timed or run over adds up, sets, sides and
// ways multiply it.
func (h *lined) tally(of []tag, name string) Amount {
	t := tallied{}
	groups := h.grouped(of)
	for k, g := range groups {
		switch {
		case h.ofThose(g, groups):
		case k > 0 && t.ofLast(g, groups[k-1]):
			t.counts[1] *= 2
		default:
			h.take(&t, g)
		}
	}
	a := &t.Amount
	a.Least = t.least
	if t.parts > 1 && len(t.counts) == 1 {
		for len(t.counts) < t.parts {
			t.counts = append(t.counts, t.counts[0])
		}
	}
	switch {
	case a.Laps > 0:
	case len(t.lengths) > 0 || t.goes || t.trips > 0:
		t.travel()
	case len(t.times) > 0:
		t.lasts()
	default:
		t.count()
		a.Counted = a.Hold > 0 && !h.Still(name) && (a.Reps > 1 || len(a.Parts) > 0)
		if a.Hold > 0 && a.Reps == 0 && len(a.Parts) == 0 {
			a.Reps = max(1, a.Sets)
			a.Sets = 0
		}
	}
	return *a
}

// ofLast tells whether a side is said of the last of two counts alone, straight behind it:
// "twelve from nine metres, from the wings eight a side".
func (t *tallied) ofLast(g, before group) bool {
	return g.tag == tagSides && before.tag == tagReps && before.to == g.from && len(t.counts) == 2 &&
		t.counts[0] != t.counts[1] && t.Sides == 0
}

// ofThose tells whether a count is only of those that another group counts: "30 takes, tennis ball first 10".
func (h *sentence) ofThose(g group, all []group) bool {
	return g.tag == tagReps && h.is(g.from-1, "first", "last") && slices.ContainsFunc(all, func(other group) bool {
		return other != g && other.tag == tagReps && h.count(other) > h.count(g)
	})
}

// take adds what a group says.
func (h *lined) take(t *tallied, g group) {
	a := &t.Amount
	switch g.tag {
	case tagReps:
		t.counts = append(t.counts, h.count(g))
	case tagLeast:
		t.least = h.count(g)
	case tagSets:
		a.Sets = max(1, a.Sets) * h.count(g)
	case tagTime:
		t.times = append(t.times, h.lasts(g))
	case tagHold:
		a.Hold = h.lasts(g)
	case tagBreaths:
		a.Breaths = h.count(g)
	case tagRest:
		a.Rest = h.lasts(g)
	case tagMetres:
		t.lengths = append(t.lengths, h.far(g))
		a.Unit = h.unit(&mark{from: g.from, to: g.to})
	case tagLengths:
		t.trips += h.count(g)
	case tagLaps:
		a.Laps += h.count(g)
	case tagLine:
		t.goes, a.To = true, h.text(g.from, g.to)
		if m, known := h.lineName(strings.ToLower(a.To)); known && a.Metres == 0 {
			a.Metres = m
		}
	case tagBack:
		t.goes, t.back = true, true
	case tagSides:
		h.both(a, g)
	case tagPart:
		t.parts++
	case tagEffort:
		if e := h.effortOf(g); e > 0 {
			a.Efforts = append(a.Efforts, e)
		}
	}
}

// both takes what is done on each side, each way, or each way on each side.
func (h *tokens) both(a *Amount, g group) {
	way, side := false, false
	for i := g.from; i < g.to; i++ {
		way = way || h.is(i, "way", "direction", "directions", "ways")
		side = side || h.is(i, "side", "leg", "arm", "hand", "foot", "shoulder", "hip", "knee", "ankle", "legs", "arms",
			"feet", "ft")
	}
	if side && way {
		a.Ways = 2
	}
	a.Sides = 2
}

// effortOf is the share of their best that a group says.
func (h *tokens) effortOf(g group) float64 {
	for i := g.from; i < g.to; i++ {
		if n := h.words[i].number; h.words[i].numeral && n >= 10 {
			return n / 100
		}
	}
	text, _ := joined(h.words[g.from:g.to])
	return effort(text)
}

// travel puts lengths together: so many, each as often as there are sets, sides and ways.
func (t *tallied) travel() {
	a := &t.Amount
	n := t.trips
	for _, c := range t.counts {
		n += c
	}
	if n == 0 {
		n = max(1, float64(len(t.lengths)))
		if len(a.Efforts) > 1 && a.Sets == 0 {
			n = float64(len(a.Efforts))
		}
	}
	if t.back {
		n *= 2
	}
	if len(t.lengths) > 0 {
		a.Metres = t.lengths[0]
	}
	a.Trips, a.Sets = n*max(1, a.Sets), 0
}

// inTotal are numbers of which the first may be all others together: it is how much there is, "10: 5 left, 5 right".
func inTotal(numbers []float64) []float64 {
	if len(numbers) < 3 {
		return numbers
	}
	rest := 0.0
	for _, n := range numbers[1:] {
		rest += n
	}
	if numbers[0] == rest {
		return numbers[:1]
	}
	return numbers
}

// lasts puts times together: so long, as often as there are sets and parts.
func (t *tallied) lasts() {
	a := &t.Amount
	t.times = inTotal(t.times)
	total, alike := 0.0, true
	for _, s := range t.times {
		total += s
		alike = alike && s == t.times[0]
	}
	a.Seconds = total
	if n := float64(len(t.times)); n > 1 && alike {
		a.Seconds, a.Sets = t.times[0], n*max(1, a.Sets)
	}
	if len(t.counts) == 1 {
		a.Sets = max(1, a.Sets) * t.counts[0]
	}
	if t.parts > 1 {
		a.Sets = max(1, a.Sets) * float64(t.parts)
	}
}

// count puts what is counted together.
func (t *tallied) count() {
	a := &t.Amount
	t.counts = inTotal(t.counts)
	switch len(t.counts) {
	case 0:
		a.Reps, a.Sets = a.Sets, 0
	case 1:
		a.Reps = t.counts[0]
	default:
		a.Parts = t.counts
	}
}

// Totals are how much an amount is in all: how many, how many lengths, metres, laps, seconds of work or hold, rest.
func (a *Amount) Totals() [6]float64 {
	each := max(1, a.Sets) * max(1, a.Sides) * max(1, a.Ways)
	reps := a.Reps
	for _, n := range a.Parts {
		reps += n
	}
	if a.PartSides {
		each /= 2
	}
	work := a.Seconds * each
	if a.Seconds > 0 && a.Reps > 0 {
		work *= a.Reps
	}
	if a.Seconds > 0 {
		reps = 0
	}
	held := a.Hold + 4*a.Breaths
	if held > 0 && reps == 0 {
		reps = 1
	}
	if held > 0 && !a.Counted {
		work += held * reps * each
		reps = 0
	}
	return [6]float64{reps * each, a.Trips * max(1, a.Sides, a.Ways), a.Metres, a.Laps * max(1, a.Sets),
		math.Round(work), a.Rest}
}
