package say

import (
	"flag"
	"fmt"
	"math"
	"math/rand"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/hear"
)

// learn writes the weights anew that say which words of a line are its name:
//
//	go test ./core/say -run TestNamesAreLearned -learn
var learn = flag.Bool("learn", false, "write core/hear/weights.go from testdata/names.tsv")

// lesson is a line of which the name is known.
type lesson struct {
	hear.Case
	line, name string
	right      []int // of what may be the name, what is
}

// What speaks for a name is learned from lines of many sports; it holds for lines that were left out.
func TestNamesAreLearned(t *testing.T) {
	all := lessons(t)
	if *learn {
		require.NoError(t, os.WriteFile("../hear/weights.go", []byte(written(learned(all))), 0o644))
	}
	var taught, left []lesson
	for i, one := range all {
		if i%5 == 0 {
			left = append(left, one)
		} else {
			taught = append(taught, one)
		}
	}
	weights, right := learned(taught), 0
	for _, one := range left {
		if best := one.best(weights); slices.Contains(one.right, best) {
			right++
		} else if best >= 0 {
			t.Logf("%s: %q, not %q", one.line, one.Names[best], one.name)
		}
	}
	t.Logf("%d of %d names of lines that were left out", right, len(left))
	assert.Greater(t, right, len(left)*84/100)
}

// lessons are the lines of names.tsv: a sport, with es: before it where the line is in Spanish, a line as it was
// typed, what is done in it.
func lessons(t *testing.T) (all []lesson) {
	text, err := os.ReadFile("testdata/names.tsv")
	require.NoError(t, err)
	readers := map[string]*Reader{}
	for row := range strings.Lines(string(text)) {
		cell := strings.Split(strings.TrimSpace(row), "\t")
		require.Len(t, cell, 3, row)
		r := readers[cell[0]]
		if r == nil {
			sport, spanish := strings.CutPrefix(cell[0], "es:")
			in := Context{Sport: sport, Start: "15:00", Book: book.Drills()}
			if spanish {
				in.Language = "es"
			}
			if plays, known := book.Sport(sport); known {
				in.Plays, in.Sport = &plays, plays.Key
			}
			r = NewReader(in)
			readers[cell[0]] = r
		}
		line := cell[1]
		if r.Language == "es" {
			line = dosesInEnglish(line)
		}
		_, line = r.roster(tidySigns(line))
		one := lesson{hear.CaseOf(line, lexicon{r}), cell[1], cell[2], nil}
		most := 1
		for i, name := range one.Names {
			switch like := alike(cell[2], name); {
			case like > most:
				one.right, most = []int{i}, like
			case like == most:
				one.right = append(one.right, i)
			}
		}
		all = append(all, one)
	}
	return all
}

// little are words without which a name is the same.
var little = strings.Fields("the a an of with and to in on your w")

var noLetters = regexp.MustCompile(`[^a-z0-9 ]`)

// alike is how well what was read is a name: 2 in every word that matters, 1 with one word too many.
func alike(name, read string) int {
	words := func(text string) (list []string) {
		text = noLetters.ReplaceAllString(strings.NewReplacer("’", "", "'", "", "-", "").Replace(strings.ToLower(text)), " ")
		for w := range strings.FieldsSeq(text) {
			if !slices.Contains(little, w) {
				list = append(list, stem(w))
			}
		}
		slices.Sort(list)
		return slices.Compact(list)
	}
	is, of := words(name), words(read)
	for _, w := range is {
		if !slices.ContainsFunc(of, func(o string) bool {
			return o == w || len(w) > 3 && len(o) > 3 && o[:3] == w[:3] && max(len(o), len(w))-min(len(o), len(w)) < 2
		}) {
			return 0
		}
	}
	return 2 - min(2, max(0, len(of)-len(is)))
}

// learned are weights under which the names of lessons are likeliest, none larger than it need be: a log-linear
// model, by stochastic gradients with a step for each weight (AdaGrad).
func learned(lessons []lesson) map[string]float64 {
	const rounds, shrink, step = 12, 0.01, 0.3
	weights, squares := map[string]float64{}, map[string]float64{}
	random := rand.New(rand.NewSource(1))
	for range rounds {
		for _, i := range random.Perm(len(lessons)) {
			for feature, slope := range lessons[i].slope(weights) {
				slope -= shrink * weights[feature]
				squares[feature] += slope * slope
				weights[feature] += step * slope / math.Sqrt(squares[feature]+1e-6)
			}
		}
	}
	return weights
}

// slope is how the likelihood of what is right grows with each weight.
func (l *lesson) slope(weights map[string]float64) map[string]float64 {
	if len(l.right) == 0 {
		return nil
	}
	scores, most := l.scores(weights)
	all, right := 0.0, 0.0
	for i := range scores {
		scores[i] = math.Exp(scores[i] - most)
		all += scores[i]
		if slices.Contains(l.right, i) {
			right += scores[i]
		}
	}
	slope := map[string]float64{}
	for i, features := range l.Features {
		by := -scores[i] / all
		if slices.Contains(l.right, i) {
			by += scores[i] / right
		}
		if math.Abs(by) < 1e-4 {
			continue
		}
		for _, feature := range features {
			slope[feature] += by
		}
	}
	return slope
}

// scores are how well weights speak for each name, and for the best.
func (l *lesson) scores(weights map[string]float64) (scores []float64, most float64) {
	most = math.Inf(-1)
	for _, features := range l.Features {
		score := 0.0
		for _, feature := range features {
			score += weights[feature]
		}
		scores, most = append(scores, score), max(most, score)
	}
	return scores, most
}

// best is the name that weights speak for.
func (l *lesson) best(weights map[string]float64) int {
	scores, most := l.scores(weights)
	return slices.Index(scores, most)
}

// written is the file of weights; those that hardly matter are left out.
func written(weights map[string]float64) string {
	var keys []string
	for feature, weight := range weights {
		if math.Abs(weight) >= 0.05 {
			keys = append(keys, feature)
		}
	}
	slices.Sort(keys)
	var b strings.Builder
	b.WriteString("// Code generated by go test ./core/say -run TestNamesAreLearned -learn; DO NOT EDIT.\n\npackage hear\n\n" +
		"// weights are what each feature of words speaks for it that they are the name of what is done.\nvar weights = map[string]float64{\n")
	for _, feature := range keys {
		fmt.Fprintf(&b, "\t%q: %.2f,\n", feature, weights[feature])
	}
	return b.String() + "}\n"
}
