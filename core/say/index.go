package say

import (
	"slices"
	"strings"
	"sync/atomic"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pattern"
	"cuestart/core/sport"
)

// Index finds drills by what coaches call them. Reading does not change it.
type Index struct {
	drills []drill.Drill
	names  []entry
	kit    []string          // what the drills take
	words  map[string]bool   // of their names, in one form
	called map[string]bool   // their names without spaces, and by their words that count
	closes map[string][]int  // names by what they are without spaces
	having map[string][]int  // names by each of their words that count
	begins map[byte][]string // these words by their first letter
	coded  map[string]*drill.Drill
	ground atomic.Pointer[onGround]
}

// onGround are the lines of a sport's ground, ready to be found.
type onGround struct {
	plays *sport.Sport
	names lineNames
}

// lines are those of a sport's ground: made once for readers of the same sport.
func (x *Index) lines(plays *sport.Sport) lineNames {
	if plays == nil {
		return lineNames{}
	}
	if is := x.ground.Load(); is != nil && is.plays == plays {
		return is.names
	}
	names := newLineNames(plays)
	x.ground.Store(&onGround{plays, names})
	return names
}

// entry is a name of a drill.
type entry struct {
	drill int
	name  string   // in lower case
	close string   // without spaces
	words []string // those that count, singular, sorted
	whole bool     // it is meant only where it is said whole
}

// NewIndex makes the drills of a book ready to be found. Those of other sports than that
// ("": of none) are meant only by their whole names.
func NewIndex(book []drill.Drill, sportKey string) *Index {
	x := &Index{drills: book, words: map[string]bool{}, called: map[string]bool{}, closes: map[string][]int{},
		having: map[string][]int{}, begins: map[byte][]string{}, coded: map[string]*drill.Drill{}}
	for i := range book {
		k := &book[i]
		x.coded[k.Code] = k
		for _, kit := range slices.Concat(k.Kit, k.LaneKit, k.GroupKit) {
			if !slices.Contains(x.kit, kit) {
				x.kit = append(x.kit, kit)
			}
		}
		whole := sportKey != "" && len(k.Sports) > 0 && !slices.Contains(k.Sports, sportKey)
		for _, name := range append([]string{k.Name}, k.Also...) {
			plain, words := plainName(name), keyWords(name)
			x.called[unspaced(plain)] = true
			if !whole {
				x.called[strings.Join(words, " ")] = true
			}
			for w := range strings.FieldsSeq(plain) {
				x.words[stem(w)] = true
			}
			x.put(entry{drill: i, name: strings.ToLower(name), close: unspaced(plain), words: words, whole: whole})
		}
	}
	return x
}

// put takes a name in.
func (x *Index) put(e entry) {
	n := len(x.names)
	x.names = append(x.names, e)
	x.closes[e.close] = append(x.closes[e.close], n)
	for _, w := range e.words {
		if x.having[w] == nil {
			x.begins[w[0]] = append(x.begins[w[0]], w)
		}
		x.having[w] = append(x.having[w], n)
	}
}

// near are the names that may be like one: they have one of its words, or one that is a slip of it.
func (x *Index) near(close string, words []string) []int {
	list := slices.Clone(x.closes[close])
	for _, w := range words {
		list = append(list, x.having[w]...)
		for _, other := range x.begins[w[0]] {
			if other != w && slipOf(w, other) {
				list = append(list, x.having[other]...)
			}
		}
	}
	slices.Sort(list)
	return slices.Compact(list)
}

func unspaced(text string) string { return strings.ReplaceAll(text, " ", "") }

var nameSigns = strings.NewReplacer(",", " ", "'", "", ":", " ")

// plainName is a name without hyphens, commas and articles.
func plainName(name string) string {
	return inAHurry.Replace(Fold(nameSigns.Replace(name)))
}

// inAHurry are words of names as they are typed in a hurry.
var inAHurry = strings.NewReplacer("kix", "kicks", "hi knees", "high knees", "strech", "stretch", "lundge", "lunge",
	"glut ", "glute ")

// small are words that tell drills from one another no better than none.
var small = func(words string) map[string]bool {
	of := map[string]bool{}
	for w := range strings.FieldsSeq(words) {
		of[w] = true
	}
	return of
}("a an the of on to in at and or with x some do for from your its it them easy slow slowly")

// keyWords are the words of a name that count, in one form, sorted.
func keyWords(name string) (list []string) {
	all := strings.Fields(plainName(name))
	for _, w := range all {
		if !small[w] {
			list = append(list, stem(w))
		}
	}
	if len(list) == 0 {
		list = all
	}
	slices.Sort(list)
	return slices.Compact(list)
}

// stem is a word in one form: swing of swings, jump of jumping.
func stem(w string) string {
	for _, ending := range []string{"ings", "ing", "ies", "es", "s", "ed"} {
		if rest, ok := strings.CutSuffix(w, ending); ok && len(rest) >= 3 && !strings.HasSuffix(w, "ss") {
			if ending == "ies" {
				return rest + "y"
			}
			if ending == "es" && !strings.HasSuffix(rest, "ch") && !strings.HasSuffix(rest, "sh") &&
				!strings.HasSuffix(rest, "ss") && !strings.HasSuffix(rest, "x") {
				return rest + "e"
			}
			if n := len(rest); n > 3 && rest[n-1] == rest[n-2] && ending != "s" {
				return rest[:n-1] // running, hopped
			}
			return rest
		}
	}
	return w
}

// Find is the drill that a name means, and others that it may mean instead. A name means
// a drill if it is one of that drill's names, in any order of words and with small
// slips, or if it shortens just one.
func (x *Index) Find(name string) (known *drill.Drill, likely []*drill.Drill) {
	known, likely, _ = x.seek(name)
	return known, likely
}

// Means are the codes of the drills that a name may mean, the surest first: those that a line
// of that name would be, also as other people call them and with small slips.
func (x *Index) Means(name string) (codes []string) {
	known, likely := x.Find(name)
	if known != nil {
		codes = append(codes, known.Code)
	}
	for _, k := range likely {
		codes = append(codes, k.Code)
	}
	return codes
}

// seek is find, and whether the name was spelt as the drill's.
func (x *Index) seek(name string) (known *drill.Drill, likely []*drill.Drill, spelt bool) {
	plain, words := plainName(name), keyWords(name)
	if plain == "" {
		return nil, nil, false
	}
	best, found, close := 0, []int(nil), unspaced(plain)
	for _, i := range x.near(close, words) {
		e := &x.names[i]
		score := e.likeness(close, words)
		if score == 0 || score < best || score == slips && otherMove(name, e.name) {
			continue
		}
		if score > best {
			best, found = score, nil
		}
		if !slices.Contains(found, e.drill) {
			found = append(found, e.drill)
		}
	}
	if shorter := plainEnd.ReplaceAllString(plain, ""); len(found) == 0 && shorter != plain && shorter != "" {
		return x.seek(shorter)
	}
	if len(found) == 0 {
		return nil, nil, false
	}
	if len(found) == 1 && best >= shortens {
		return &x.drills[found[0]], nil, best != slips
	}
	if best >= sameWords {
		known, found = &x.drills[found[0]], found[1:]
	}
	for _, i := range found[:min(len(found), 4)] {
		likely = append(likely, &x.drills[i])
	}
	return known, likely, best != slips
}

// otherMove tells whether two names that are nearly spelt alike are of other movements, such
// as to skate and a skater.
func otherMove(a, b string) bool {
	is, other := movement.Lead(a), movement.Lead(b)
	return is != "" && other != "" && is != other
}

// plainEnd are words that drills are called with or without.
var plainEnd = pattern.Must(` (?:holds?|drills?|exercises?|work)$`)

// How alike a name is to one of a drill's.
const (
	overlaps  = 1 // most of the words that count
	shortens  = 2 // all words that were said are the drill's
	slips     = 3 // the same words but for small slips
	sameWords = 4 // the same words in another order or form
	same      = 5
)

func (e *entry) likeness(close string, words []string) int {
	switch {
	case e.close == close:
		return same
	case e.whole:
		return 0
	case slices.Equal(e.words, words):
		return sameWords
	}
	hit, slip := 0, false
	for _, w := range words {
		near := slices.ContainsFunc(e.words, func(v string) bool { return v == w })
		if !near && slices.ContainsFunc(e.words, func(v string) bool { return slipOf(w, v) }) {
			near, slip = true, true
		}
		if near {
			hit++
		}
	}
	switch {
	case hit == len(words) && hit == len(e.words):
		return slips
	case hit == len(words) && 2*hit > len(e.words) && !slip:
		return shortens
	case hit == len(words) && 2*hit >= len(e.words) && len(words) > 1:
		return overlaps
	case hit > 1 && 3*hit >= 2*len(words) && 3*hit >= 2*len(e.words):
		return overlaps
	}
	return 0
}

// slipOf tells whether a word is another with a letter too many, too few, wrong or
// swapped; short words have to be right.
func slipOf(a, b string) bool {
	if len(a) < 5 || len(b) < 5 || a[0] != b[0] {
		return false
	}
	if len(a) < len(b) {
		a, b = b, a
	}
	if len(a)-len(b) > 1 {
		return false
	}
	i := 0
	for i < len(b) && a[i] == b[i] {
		i++
	}
	if len(a) > len(b) {
		return a[i+1:] == b[i:]
	}
	if i == len(b) {
		return true
	}
	return a[i+1:] == b[i+1:] || i+1 < len(a) && a[i] == b[i+1] && a[i+1] == b[i] && a[i+2:] == b[i+2:]
}

// finds tells whether a text begins with the name of a drill.
func (x *Index) finds(text string) bool { return x.prefix(strings.TrimLeft(text, " "+soft)) > 0 }

// prefix is how much of a text the longest name takes that it begins with, of names
// that a rule might take for something else.
func (x *Index) prefix(text string) (length int) {
	for i := range x.names {
		if n := prefixOf(text, x.names[i].name); n > length {
			length = n
		}
	}
	return length
}

// Means is the code of the drill that a name means; "" where it is none.
func (k *knower) Means(name string) string {
	if known, _, spelt := k.Index.seek(name); known != nil && spelt {
		return known.Code
	}
	return ""
}

// Coded is the drill of the book that has a code; nil: there is none.
func (x *Index) Coded(code string) *drill.Drill { return x.coded[code] }
