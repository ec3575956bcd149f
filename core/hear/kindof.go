package hear

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"
)

// KindLetters are the letters of the kinds that a line may be of, in the order of Kinds.
const KindLetters = "DFHR"

// Kinds are the kinds that a line may be of.
var Kinds = []Kind{Drill, Fixed, Heading, Remark}

// KindFeatures are what speaks for the kinds of which a line may be: its words, of what sort they are, what marks they
// bear, and which kind the readings of it, weighed by hand, would have.
func KindFeatures(line string, known Lexicon) []string {
	h := heard(line, known)
	if len(h.words) == 0 || len(h.words) > longestLine {
		return nil
	}
	return h.kindFeatures(h.readings())
}

// kindOf is which index of Kinds a reading has: whatever is done is one.
func kindOf(is Kind) int { return max(0, slices.Index(Kinds, is)) }

// kinds is how likely a line with such features is of each kind.
func (w *Weights) likely(features []string) (p [len(KindLetters)]float64) {
	return likely(w.kinds, features)
}

// likely is how likely each kind is by weights of features.
func likely(weights map[string][]kindWeight, features []string) (p [len(KindLetters)]float64) {
	for _, feature := range features {
		for _, says := range weights[feature] {
			p[says.kind] += says.by
		}
	}
	most, all := slices.Max(p[:]), 0.0
	for k := range p {
		p[k] = math.Exp(p[k] - most)
		all += p[k]
	}
	for k := range p {
		p[k] /= all
	}
	return p
}

// InList is how likely a line of a list is of each of Kinds, by what speaks for it there: its own kind, its looks, what
// stands around it. The features are those under which the weights were learned.
func InList(features []string) [len(KindLetters)]float64 { return likely(learnt().lists, features) }

// sorted are readings with those first that are of the likeliest kind, each with how likely its kind is.
func (h *hearing) sorted(list []Reading) []Reading {
	p, speaks := h.weights().likely(h.kindFeatures(list)), h.severalFeatures(list)
	for i := range list {
		list[i].Sure, list[i].Kinds = p[kindOf(list[i].Is)], p
	}
	best := slices.Index(p[:], slices.Max(p[:]))
	if h.shirts() {
		best = slices.Index(Kinds, Heading)
	}
	for i := range list {
		if h.asMany(list[i].Is) {
			list[i].Score += oneOrSeveral
		}
	}
	if best > 0 && !slices.ContainsFunc(list, func(r Reading) bool { return kindOf(r.Is) == best }) {
		r := h.with(0, 0, h.all())
		r.Is, r.Name, r.Cues, r.Sure = Kinds[best], strings.Trim(h.text(0, len(h.words)), " .:"), nil, p[best]
		list = append(list, r)
	}
	slices.SortStableFunc(list, func(a, b Reading) int {
		return cmp.Or(-cmp.Compare(btoi(kindOf(a.Is) == best), btoi(kindOf(b.Is) == best)),
			cmp.Compare(b.Score, a.Score))
	})
	if best == 0 {
		h.oneFirst(list, speaks)
	}
	if list[0].Is == Heading {
		list[0].Name = h.withNumber(list[0].Name)
	}
	if best > 0 { // what it is called is not told beside it
		list[0].Cues = slices.DeleteFunc(slices.Clone(list[0].Cues), func(cue string) bool {
			return list[0].Is == Remark || strings.Contains(list[0].Name, cue)
		})
	}
	for _, r := range list[1:] {
		list[0].Score = max(list[0].Score, r.Score)
	}
	return list
}

// shirts tells whether a line is a name, a colon, and the shirts of those for whom what follows is: "Throws: #2".
func (h *sentence) shirts() bool {
	at := slices.IndexFunc(h.words, func(w word) bool { return w.is == ":" })
	return at > 0 && h.is(at+1, "#") && !slices.ContainsFunc(h.words, func(w word) bool {
		return w.numeral && !h.is(slices.IndexFunc(h.words, func(o word) bool { return o.to == w.from }), "#")
	})
}

// mostParts is how many parts of one name a list has.
const mostParts = 4

// withNumber is a name with the number right behind it that is of it: Gym 1.
func (h *marked) withNumber(name string) string {
	marked := h.owners()
	for i := 1; i < len(h.words); i++ {
		timed := marked[i] >= 0 && timed(h.marks[marked[i]].role)
		if h.words[i].numeral && h.words[i].number <= mostParts && !timed && h.words[i-1].to < h.words[i].from &&
			name != "" && strings.HasSuffix(h.text(0, i), name) && (i+1 == len(h.words) || h.words[i+1].delimits()) {
			return name + " " + h.text(i, i+1)
		}
	}
	return name
}

// several tells whether several things are done by a reading, in turn or one of them.
func (is Kind) several() bool { return is == Combo || is == Choice }

// oneFirst puts those readings first in which as many things are done as is likelier: one, or several.
func (h *labelled) oneFirst(list []Reading, speaks []string) {
	many := h.inRow || h.weights().manyLikely(append(speaks, h.nowMany(list)...)) ||
		slices.ContainsFunc(list, func(r Reading) bool {
			return len(r.Steps) > 2 &&
				!slices.ContainsFunc(r.Steps, func(s Step) bool {
					return s.Amount.None() || !h.Moves(strings.ToLower(s.Name))
				})
		})
	slices.SortStableFunc(list, func(a, b Reading) int {
		return -cmp.Compare(btoi(kindOf(a.Is) == 0 && a.Is.several() == many),
			btoi(kindOf(b.Is) == 0 && b.Is.several() == many))
	})
}

// SeveralFeatures are what speaks for one thing being done in a line, or several, where its words are tagged by some
// weights.
func SeveralFeatures(line string, known Lexicon, by *Weights) []string {
	h := heard(line, known)
	if len(h.words) == 0 || len(h.words) > longestLine {
		return nil
	}
	h.by = by
	list := h.readings()
	of := h.severalFeatures(list)
	for i := range list {
		if h.asMany(list[i].Is) {
			list[i].Score += oneOrSeveral
		}
	}
	slices.SortStableFunc(list, func(a, b Reading) int {
		return cmp.Or(-cmp.Compare(btoi(kindOf(a.Is) == 0), btoi(kindOf(b.Is) == 0)), cmp.Compare(b.Score, a.Score))
	})
	return append(of, h.nowMany(list)...)
}

// nowMany is whether the first of the readings is of several things, and how many the tags name.
func (h *labelled) nowMany(list []Reading) []string {
	now := strconv.Itoa(btoi(list[0].Is.several()))
	return []string{"now|" + now, "now|" + now + strconv.Itoa(min(h.called, 3))}
}

// severalFeatures are what speaks for one thing or several: the shape of a line, how many names its tags have, and what
// steps it would have.
func (h *labelled) severalFeatures(list []Reading) []string {
	of := h.shapes(h.tagger(), list)
	var reading, many Reading
	for _, r := range list {
		switch r.Is {
		case Drill:
			reading = r
		case Combo:
			many = r
		}
	}
	known, amounts := 0, 0
	for _, s := range many.Steps {
		known += btoi(h.Known(strings.ToLower(s.Name)))
		amounts += btoi(!s.Amount.None())
	}
	called, steps, margin := strconv.Itoa(min(h.called, 3)), strconv.Itoa(min(len(many.Steps), 4)), "-"
	if many.Is != "" {
		margin = strconv.Itoa(max(-5, min(5, int(many.Score-reading.Score))))
	}
	for _, feature := range []string{"margin|" + margin, "steps|" + steps, "known|" + strconv.Itoa(known) + steps,
		"amounts|" + strconv.Itoa(amounts) + steps,
		"both|" + strconv.Itoa(known) + strconv.Itoa(amounts) + steps} {
		of = append(of, feature, feature+"|"+called)
	}
	return append(of, "names|"+called)
}

// asMany tells whether the tags of a line say as many things as a kind has that are done; whether one of several is
// done they do not say, nor how many a word with hyphens has.
func (h *labelled) asMany(is Kind) bool {
	hyphened := slices.ContainsFunc(h.words, func(w word) bool { return strings.Count(w.is, "-") > 1 })
	switch is {
	case Drill:
		return h.called == 1
	case Combo:
		return h.called > 1 || h.called == 1 && hyphened
	}
	return is == Choice && (h.called == 1 || h.oneOfThem())
}

// oneOrSeveral is what the tags of a line say for one thing, or for several, being done.
const oneOrSeveral = 3.0

func btoi(ok bool) int {
	if ok {
		return 1
	}
	return 0
}

// kindFeatures are what speaks for the kinds of a line whose readings are known, the best first.
func (h *labelled) kindFeatures(list []Reading) (of []string) {
	t := h.tagger()
	add := func(key string, parts ...string) { of = append(of, key+strings.Join(parts, "|")) }
	n := len(t.words)
	for i := -1; i < n; i++ {
		add("b", t.as(i), t.as(i+1))
		if i >= 0 {
			add("w", t.as(i))
		}
	}
	add("f", t.as(0))
	add("f", t.as(0), t.as(1))
	add("l", t.as(n-1))
	return append(of, h.shapes(t, list)...)
}

// shapes are of what sorts the words of a line are, its marks, and its readings, the best first.
func (h *marked) shapes(t *tagger, list []Reading) (of []string) {
	add := func(key string, parts ...string) { of = append(of, key+strings.Join(parts, "|")) }
	n := len(t.words)
	words, numbers, called := 0, 0, 0
	for i := -1; i < n; i++ {
		add("d", t.class(i), t.class(i+1))
		if i < 0 {
			continue
		}
		add("c", t.class(i))
		add("e", t.class(i-1), t.class(i), t.class(i+1))
		switch w := &t.words[i]; {
		case w.numeral:
			numbers++
		case !w.sign:
			words++
			if t.Word(w.is) {
				called++
			}
		}
	}
	add("n", strconv.Itoa(min(words, 7)), strconv.Itoa(min(numbers, 3)))
	add("called", strconv.Itoa(4*called/max(1, words)), strconv.Itoa(min(words, 4)), strconv.FormatBool(numbers > 0))
	last := "^"
	for i := range h.marks {
		role := strconv.Itoa(int(h.marks[i].role))
		add("r", role)
		add("s", last, role)
		last = role
	}
	add("s", last, "$")
	text := strings.Trim(h.text(0, n), " .!:-*#")
	low := strings.ToLower(text)
	if capitals(text) {
		add("capitals")
	}
	add("is", strconv.FormatBool(h.Known(low)), strconv.FormatBool(h.Moves(low)), strconv.Itoa(min(words, 4)),
		strconv.FormatBool(numbers > 0))
	if h.Person(text) {
		add("person")
	}
	h.ofReadings(list, add)
	return of
}

// ofReadings are what the readings of a line say of its kind.
func (h *lexed) ofReadings(list []Reading, add func(string, ...string)) {
	if len(list) == 0 {
		return
	}
	margin := 9
	if len(list) > 1 {
		margin = min(9, int(list[0].Score-list[1].Score))
	}
	best := string(list[0].Is)
	add("hand", best)
	add("hand", best, strconv.Itoa(margin))
	add("hand", best, "s", strconv.Itoa(max(-2, min(12, int(list[0].Score)))))
	for _, r := range list {
		if r.Is == Drill {
			low := strings.ToLower(r.Name)
			add("name", strconv.FormatBool(h.Known(low)), strconv.FormatBool(h.Moves(low)),
				strconv.FormatBool(r.Amount.None()), strconv.FormatBool(len(r.Who) > 0))
			add("name", strconv.FormatBool(h.Known(low)), strconv.FormatBool(h.Moves(low)),
				strconv.FormatBool(r.Amount.None()), strconv.Itoa(min(4, len(strings.Fields(low)))),
				strconv.Itoa(min(2, len(r.Cues))))
		}
	}
}
