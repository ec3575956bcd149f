package hear

import (
	"math"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// Weights are what lines are read by: what each feature of a word says for each tag, what each
// feature of words says for their being the name, what each tag says for the one behind it, what
// each feature of a line says for its kind, and for several things being done in it.
type Weights struct {
	words map[string][]tagWeight
	spans map[string]float64
	after [tags + 1][tags]float64 // the last: at the beginning of a line
	kinds map[string][]kindWeight
	many  map[string]float64
	lists map[string][]kindWeight // as kinds, in a list
}

// kindWeight is what a feature of a line says for the kind with an index.
type kindWeight struct {
	kind int
	by   float64
}

// tagWeight is what a feature says for a tag.
type tagWeight struct {
	tag
	by float64
}

// learnt are the weights that were learned; they are read when a line is first tagged.
var learnt = sync.OnceValue(func() *Weights { return WeightsOf(weightTable + listTable) })

// weights are what a line is read by.
func (h *labelled) weights() *Weights {
	if h.by == nil {
		h.by = learnt()
	}
	return h.by
}

// WeightsOf are the weights of a table of them: in each row what a feature is of (w: a word, s:
// words that may be the name, t: a tag before another, k: the kind of a line, l: its kind in a
// list, m: several things), the feature, and behind a tab letters with what it says for each in
// hundredths.
func WeightsOf(table string) *Weights {
	w := &Weights{words: map[string][]tagWeight{}, spans: map[string]float64{}, kinds: map[string][]kindWeight{},
		many: map[string]float64{}, lists: map[string][]kindWeight{}}
	for row := range strings.Lines(table) {
		feature, says, _ := strings.Cut(strings.TrimSuffix(row, "\n"), "\t")
		of, feature := feature[0], feature[1:]
		for len(says) > 0 {
			end := 1
			for end < len(says) && (says[end] < 'A' || says[end] > 'Z') {
				end++
			}
			n, _ := strconv.Atoi(says[1:end])
			w.put(of, feature, says[0], float64(n)/100)
			says = says[end:]
		}
	}
	return w
}

// put adds what a feature says for what a letter stands for.
func (w *Weights) put(of byte, feature string, letter byte, by float64) {
	switch of {
	case 'w':
		w.words[feature] = append(w.words[feature], tagWeight{tag(strings.IndexByte(Tags, letter)), by})
	case 's':
		w.spans[feature] = by
	case 'm':
		w.many[feature] = by
	case 'k':
		w.kinds[feature] = append(w.kinds[feature], kindWeight{strings.IndexByte(KindLetters, letter), by})
	case 'l':
		w.lists[feature] = append(w.lists[feature], kindWeight{strings.IndexByte(KindLetters, letter), by})
	case 't':
		from := tags
		if feature != "^" {
			from = tag(strings.IndexByte(Tags, feature[0]))
		}
		w.after[from][strings.IndexByte(Tags, letter)] = by
	}
}

// manyLikely tells whether a line with such features is likelier of several things that are done than of one.
func (w *Weights) manyLikely(features []string) bool {
	all := 0.0
	for _, feature := range features {
		all += w.many[feature]
	}
	return all > 0
}

// way is the likeliest way to a tag of a word.
type way struct {
	score float64
	from  tag // the tag before it
	name  int // the words that end there as a name
}

// path are the likeliest ways in which the words of a line may be tagged.
type path struct {
	*Weights
	emit  [][tags]float64
	spans []naming
	says  []float64 // what is said for each span as a name
	end   [][]int   // spans that end before each word
	to    [][tags]way
	units []bool // of each word, whether it is the unit of the number before it
}

// tagged are the tags of a line that are likeliest, and the words that are names, in order.
func (h *labelled) tagged() (of []tag, names []naming) {
	t := h.tagger()
	w := path{Weights: h.weights(), emit: make([][tags]float64, len(h.words)), spans: t.spans(),
		end: make([][]int, len(h.words)+1), to: make([][tags]way, len(h.words))}
	for i := range h.words {
		w.units = append(w.units, i > 0 && h.words[i-1].numeral && h.is(i, "s", "min", "m", "yd", "ft", "km"))
		for _, feature := range t.ofWord(i) {
			for _, says := range w.words[feature] {
				w.emit[i][says.tag] += says.by
			}
		}
	}
	w.says = make([]float64, len(w.spans))
	for k, s := range w.spans {
		for _, feature := range t.ofSpan(s.from, s.to) {
			w.says[k] += w.Weights.spans[feature]
		}
		w.end[s.to] = append(w.end[s.to], k)
	}
	for i := range w.to {
		for y := range tags {
			w.to[i][y] = w.best(i, y)
		}
	}
	return w.back()
}

// best is the likeliest way to a tag of a word.
func (w *path) best(i int, y tag) way {
	if y != tagName {
		score, from := w.before(i, y)
		return way{score + w.emit[i][y], from, 0}
	}
	best := way{score: math.Inf(-1)}
	for _, k := range w.end[i+1] {
		if score, from := w.before(w.spans[k].from, y); score+w.says[k] > best.score {
			best = way{score + w.says[k], from, k}
		}
	}
	return best
}

// before is the likeliest way to a word with a tag, but what the word itself says; a unit is there for what its number
// is.
func (w *path) before(i int, y tag) (score float64, from tag) {
	if i == 0 {
		return w.after[tags][y], tags
	}
	score, from = math.Inf(-1), y
	for z := range tags {
		if w.units[i] && z != y && y >= tagReps {
			continue
		}
		if v := w.to[i-1][z].score + w.after[z][y]; v > score {
			score, from = v, z
		}
	}
	return score, from
}

// back goes the likeliest way back from the end of the line.
func (w *path) back() (of []tag, names []naming) {
	of = make([]tag, len(w.to))
	y, i := tagTold, len(of)-1
	for z := range tags {
		if w.to[i][z].score > w.to[i][y].score {
			y = z
		}
	}
	for i >= 0 {
		here := w.to[i][y]
		if y != tagName {
			of[i], y = y, here.from
			i--
			continue
		}
		name := w.spans[here.name]
		for k := name.from; k < name.to; k++ {
			of[k] = tagName
		}
		names, i, y = append(names, name), name.from-1, here.from
	}
	slices.Reverse(names)
	return of, names
}
