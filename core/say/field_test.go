package say

import (
	"math"
	"math/rand"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/hear"
)

const nTags = len(hear.Tags)

// nameTag is the tag of what is done: words that have it are one piece.
const nameTag = 1

// byTag is a number for each tag.
type byTag [nTags]float64

// field are the weights by which the words of a line are tagged (see hear.Lesson), a semi-Markov conditional random
// field: of each feature of a word for each tag, of each feature of words that may be a name, of each tag behind
// another, the last: at the beginning of a line.
type field struct {
	words map[string]*byTag
	spans map[string]*float64
	after [nTags + 1]byTag
}

func newField() *field { return &field{words: map[string]*byTag{}, spans: map[string]*float64{}} }

// each goes through all weights of two fields.
func (f *field) each(g *field, do func(a, b *float64)) {
	for feature, w := range f.words {
		if g.words[feature] == nil {
			g.words[feature] = new(byTag)
		}
		for y := range w {
			do(&w[y], &g.words[feature][y])
		}
	}
	for feature, w := range f.spans {
		if g.spans[feature] == nil {
			g.spans[feature] = new(float64)
		}
		do(w, g.spans[feature])
	}
	for y := range f.after {
		for z := range f.after[y] {
			do(&f.after[y][z], &g.after[y][z])
		}
	}
}

// lattice are all ways in which a line may be tagged.
type lattice struct {
	*field
	*hear.Lesson
	emit   []byTag   // what is said for each tag of each word
	span   []float64 // and for each span as a name
	at, by [][]int   // spans that begin at each word, and that end before it
	a, b   []byTag   // all ways up to each word with each tag, and all ways on from there
	in     []float64 // all ways to a name that begins at each word
	starts []float64 // all ways on from there
	all    float64
}

func logAdd(a, b float64) float64 {
	if a < b {
		a, b = b, a
	}
	if math.IsInf(b, -1) {
		return a
	}
	return a + math.Log1p(math.Exp(b-a))
}

func (f *field) lattice(l *hear.Lesson) *lattice {
	n := len(l.Words)
	t := &lattice{field: f, Lesson: l, emit: make([]byTag, n), span: make([]float64, len(l.Spans)),
		at: make([][]int, n+1), by: make([][]int, n+1),
		a: make([]byTag, n), b: make([]byTag, n), in: make([]float64, n), starts: make([]float64, n+1)}
	for i, features := range l.Words {
		for _, feature := range features {
			if w := f.words[feature]; w != nil {
				for y, v := range w {
					t.emit[i][y] += v
				}
			}
		}
	}
	for k, span := range l.Spans {
		for _, feature := range span.Features {
			if w := f.spans[feature]; w != nil {
				t.span[k] += *w
			}
		}
		t.at[span.From] = append(t.at[span.From], k)
		t.by[span.To] = append(t.by[span.To], k)
	}
	t.forward()
	t.backward()
	return t
}

// before is all ways to a word with a tag, but what the word itself says.
func (t *lattice) before(i, y int) float64 {
	if i == 0 {
		return t.after[nTags][y]
	}
	all := math.Inf(-1)
	for z := range nTags {
		all = logAdd(all, t.a[i-1][z]+t.after[z][y])
	}
	return all
}

func (t *lattice) forward() {
	for i := range t.a {
		t.in[i] = t.before(i, nameTag)
		for y := range nTags {
			if y != nameTag {
				t.a[i][y] = t.before(i, y) + t.emit[i][y]
				continue
			}
			t.a[i][y] = math.Inf(-1)
			for _, k := range t.by[i+1] {
				t.a[i][y] = logAdd(t.a[i][y], t.in[t.Spans[k].From]+t.span[k])
			}
		}
	}
	t.all = math.Inf(-1)
	for _, v := range t.a[len(t.a)-1] {
		t.all = logAdd(t.all, v)
	}
}

func (t *lattice) backward() {
	n := len(t.b)
	t.starts[n] = math.Inf(-1)
	for i := n - 1; i >= 0; i-- {
		for y := range nTags {
			if i == n-1 {
				continue
			}
			all := t.after[y][nameTag] + t.starts[i+1]
			for w := range nTags {
				if w != nameTag {
					all = logAdd(all, t.after[y][w]+t.emit[i+1][w]+t.b[i+1][w])
				}
			}
			t.b[i][y] = all
		}
		t.starts[i] = math.Inf(-1)
		for _, k := range t.at[i] {
			t.starts[i] = logAdd(t.starts[i], t.span[k]+t.b[t.Spans[k].To-1][nameTag])
		}
	}
}

// slope is how the likelihood of the tags that are known grows with each weight.
func (t *lattice) slope() *field {
	is := newField()
	for i, features := range t.Words {
		by := byTag{}
		for y := range nTags {
			if y != nameTag {
				by[y] = -math.Exp(t.a[i][y] + t.b[i][y] - t.all)
			}
		}
		if t.Tags[i] != nameTag {
			by[t.Tags[i]]++
		}
		for _, feature := range features {
			is.addWord(feature, &by)
		}
		t.slopeAfter(is, i)
	}
	for k := range t.Spans {
		by := -math.Exp(t.in[t.Spans[k].From] + t.span[k] + t.b[t.Spans[k].To-1][nameTag] - t.all)
		if slices.Contains(t.Right, k) {
			by++
		}
		if math.Abs(by) > 1e-4 {
			for _, feature := range t.Spans[k].Features {
				is.addSpan(feature, by)
			}
		}
	}
	return is
}

func (f *field) addWord(feature string, by *byTag) {
	w := f.words[feature]
	if w == nil {
		w = new(byTag)
		f.words[feature] = w
	}
	for y := range by {
		w[y] += by[y]
	}
}

func (f *field) addSpan(feature string, by float64) {
	w := f.spans[feature]
	if w == nil {
		w = new(float64)
		f.spans[feature] = w
	}
	*w += by
}

// slopeAfter is the slope of the tags behind others at a word.
func (t *lattice) slopeAfter(is *field, i int) {
	known := func(i int) int {
		if i < 0 {
			return nTags
		}
		return t.Tags[i]
	}
	begins := slices.ContainsFunc(t.Right, func(k int) bool { return t.Spans[k].From == i })
	if t.Tags[i] != nameTag || begins {
		is.after[known(i-1)][t.Tags[i]]++
	}
	for y := range nTags + 1 {
		to := t.after[nTags]
		from := 0.0
		switch {
		case i == 0 && y < nTags, i > 0 && y == nTags:
			continue
		case i > 0:
			to, from = t.after[y], t.a[i-1][y]
		}
		for w := range nTags {
			on := t.emit[i][w] + t.b[i][w]
			if w == nameTag {
				on = t.starts[i]
			}
			is.after[y][w] -= math.Exp(from + to[w] + on - t.all)
		}
	}
}

// taught are weights under which the tags of lines are likeliest, by stochastic gradients with a step for each weight
// (AdaGrad); the mean of the later rounds.
func taught(lines []*said, rounds int) *field {
	lines = slices.DeleteFunc(slices.Clone(lines), func(one *said) bool { return !one.tagged() })
	f, squares, mean := newField(), newField(), newField()
	random := rand.New(rand.NewSource(1))
	for round := range rounds {
		for _, i := range random.Perm(len(lines)) {
			slope := f.lattice(lines[i].Lesson).slope()
			slope.each(squares, func(by, sum *float64) { *sum += *by * *by })
			f.climb(slope, squares)
		}
		if share := float64(rounds - rounds/3); round >= rounds/3 {
			f.each(mean, func(w, m *float64) { *m += *w / share })
		}
	}
	return mean
}

// climb takes a step up a slope.
func (f *field) climb(slope, squares *field) {
	const step, shrink = 0.1, 0.005
	up := func(w, by, sum *float64) {
		if *by != 0 {
			*w += step * (*by - shrink**w) / math.Sqrt(*sum+1e-4)
		}
	}
	for feature, by := range slope.words {
		w := f.words[feature]
		if w == nil {
			w = new(byTag)
			f.words[feature] = w
		}
		for y := range by {
			if math.Abs(by[y]) > 1e-3 {
				up(&w[y], &by[y], &squares.words[feature][y])
			}
		}
	}
	for feature, by := range slope.spans {
		w := f.spans[feature]
		if w == nil {
			w = new(float64)
			f.spans[feature] = w
		}
		up(w, by, squares.spans[feature])
	}
	for y := range slope.after {
		for z := range slope.after[y] {
			up(&f.after[y][z], &slope.after[y][z], &squares.after[y][z])
		}
	}
}

// hundredths are weights in hundredths behind their letters; those that hardly matter are left out.
func hundredths(letters string, least float64, weights []float64) (text string) {
	for y, w := range weights {
		if math.Abs(w) >= least {
			text += string(letters[y]) + strconv.Itoa(int(math.Round(100*w)))
		}
	}
	return text
}

// written are the rows of the table of weights; those that hardly matter are left out.
func (f *field) written(least float64) string {
	var rows []string
	row := func(of, feature string, weights ...float64) {
		if text := hundredths(hear.Tags, least, weights); text != "" {
			rows = append(rows, of+feature+"\t"+text)
		}
	}
	for feature, w := range f.words {
		row("w", feature, w[:]...)
	}
	for feature, w := range f.spans {
		row("s", feature, *w)
	}
	for y := range f.after {
		from := "^"
		if y < nTags {
			from = string(hear.Tags[y])
		}
		row("t", from, f.after[y][:]...)
	}
	slices.Sort(rows)
	return strings.Join(rows, "\n") + "\n"
}

// likeliest are the tags of a line's words that are likeliest each by itself.
func (t *lattice) likeliest() (of []int) {
	named := make([]float64, len(t.Words))
	for k := range t.Spans {
		p := math.Exp(t.in[t.Spans[k].From] + t.span[k] + t.b[t.Spans[k].To-1][nameTag] - t.all)
		for i := t.Spans[k].From; i < t.Spans[k].To; i++ {
			named[i] += p
		}
	}
	for i := range t.Words {
		best, most := nameTag, named[i]
		for y := range nTags {
			if p := math.Exp(t.a[i][y] + t.b[i][y] - t.all); y != nameTag && p > most {
				best, most = y, p
			}
		}
		of = append(of, best)
	}
	return of
}
