package movement

import (
	"bufio"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/drill"
)

// move is a movement of the table.
type move struct {
	words phrases
	bare  bool // what it works is what is named beside it
	going bool // a way of going, which is one of doing where something else is named
	Understood
}

// part is a part of the body.
type part struct {
	words          phrases
	joints, planes []string
}

// modifier changes a movement.
type modifier struct {
	words  phrases
	change func(*Understood)
}

var (
	moves     = rows(movesText, 9, moveOf)
	parts     = rows(partsText, 2, func(w phrases, c []string) part { return part{w, fields(c[0]), fields(c[1])} })
	modifiers = rows(modifiersText, 1, func(w phrases, c []string) modifier { return modifier{w, changeOf(c[0])} })
)

// rows reads a table; one that is wrong is a bug.
func rows[T any](text string, columns int, row func(phrases, []string) T) (list []T) {
	lines := bufio.NewScanner(strings.NewReader(text))
	for lines.Scan() {
		if line := strings.TrimSpace(lines.Text()); line != "" && line[0] != '#' {
			cells := strings.Split(line, " | ")
			if len(cells) != columns+1 {
				panic(fmt.Sprintf("movement: %d columns: %s", len(cells), line))
			}
			list = append(list, row(phrasesOf(cells[0]), cells[1:]))
		}
	}
	return list
}

func moveOf(words phrases, c []string) move {
	phase, ok := drill.PhaseOf(c[1])
	if !ok {
		panic("movement: no such phase: " + c[1])
	}
	m := move{words: words, Understood: Understood{Aim: c[0], Phase: phase, Joints: fields(c[2]), Planes: fields(c[3]),
		Effort: number(c[4]), Contacts: number(c[5]),
		Alternates: strings.Contains(c[6], "alternates"), Travels: strings.Contains(c[6], "travels"),
		Seconds: three(c[7]), Pace: three(c[8])}}
	m.bare = strings.Contains(c[6], "bare") || len(m.Joints) == 0
	m.going = strings.Contains(c[6], "going")
	return m
}

func fields(cell string) []string {
	if cell == "-" {
		return nil
	}
	return strings.Fields(cell)
}

func number(text string) float64 {
	n, err := strconv.ParseFloat(text, 64)
	if err != nil {
		panic("movement: no number: " + text)
	}
	return n
}

func three(cell string) (list [3]float64) {
	for i, one := range fields(cell) {
		list[i] = number(one)
	}
	return list
}

// changeOf reads what a modifier does: "effortx1.25 planes+turn travels=no".
func changeOf(cell string) func(*Understood) {
	var all []func(*Understood)
	for _, one := range strings.Fields(cell) {
		at := strings.IndexAny(one, "x+=")
		for _, name := range []string{"alternates", "contacts", "effort", "seconds", "planes", "joints", "phase",
			"pace", "travels", "aim"} {
			if strings.HasPrefix(one, name) {
				at = len(name)
			}
		}
		all = append(all, changes(one[:at], one[at], one[at+1:]))
	}
	return func(u *Understood) {
		for _, change := range all {
			change(u)
		}
	}
}

// changes is one change of a field.
func changes(field string, how byte, by string) func(*Understood) {
	figure := func(of func(*Understood) []*float64) func(*Understood) {
		return func(u *Understood) {
			for _, f := range of(u) {
				switch {
				case by == "-":
					*f = 0
				case how == 'x':
					*f *= number(by)
				case how == '+' && *f > 0:
					*f += number(by)
				case how == '=':
					*f = number(by)
				}
			}
		}
	}
	terms := func(of func(*Understood) *[]string) func(*Understood) {
		return func(u *Understood) {
			list := strings.Split(by, "+")
			if how == '+' {
				list = union(*of(u), list)
			}
			*of(u) = list
		}
	}
	switch field {
	case "effort":
		return figure(func(u *Understood) []*float64 { return []*float64{&u.Effort} })
	case "contacts":
		return figure(func(u *Understood) []*float64 { return []*float64{&u.Contacts} })
	case "seconds":
		return figure(func(u *Understood) []*float64 { return []*float64{&u.Seconds[0], &u.Seconds[1], &u.Seconds[2]} })
	case "pace":
		return figure(func(u *Understood) []*float64 { return []*float64{&u.Pace[0], &u.Pace[1], &u.Pace[2]} })
	case "planes":
		return terms(func(u *Understood) *[]string { return &u.Planes })
	case "joints":
		return terms(func(u *Understood) *[]string { return &u.Joints })
	case "aim":
		return func(u *Understood) { u.Aim = by }
	case "phase":
		return func(u *Understood) { u.Phase, _ = drill.PhaseOf(by) }
	case "alternates":
		return func(u *Understood) { u.Alternates = by == "yes" }
	case "travels":
		return func(u *Understood) { u.Travels = by == "yes" }
	}
	panic("movement: no such field: " + field)
}

// phrase is words that belong together; phrases are several for one thing.
type (
	phrase  []string
	phrases []phrase
)

func phrasesOf(cell string) (list phrases) {
	for _, words := range strings.Split(cell, ",") {
		list = append(list, phrase(wordsOf(words)))
	}
	return list
}

// at tells whether the phrase stands in what is said from a word on.
func (p phrase) at(said []string, from int) bool {
	return from+len(p) <= len(said) && slices.Equal(p, phrase(said[from:from+len(p)]))
}

// in tells whether one of the phrases stands in what is said.
func (list phrases) in(said []string) bool {
	return slices.ContainsFunc(list, func(p phrase) bool {
		for from := range said {
			if p.at(said, from) {
				return true
			}
		}
		return false
	})
}

// wordsOf are the words of a text in one form: small, without hyphens and articles, singular.
func wordsOf(text string) (words []string) {
	before := ""
	for w := range strings.FieldsFuncSeq(strings.ToLower(text),
		func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) && r != '\'' && r != '%' }) {
		w = singular(strings.ReplaceAll(w, "'", ""))
		if article := w == "the" || w == "your" || w == "a" && (before == "with" || before == "to" ||
			before == "on"); !article {
			words = append(words, w)
		}
		before = w
	}
	return words
}

// round are words after which a place is named, which is no movement: a football pitch.
var round = []string{"round", "around", "across", "along"}

// placeless leaves out the places that something goes round or across, of two words at most.
func placeless(said []string) []string {
	kept := slices.Clone(said)
	for i, w := range said {
		if slices.Contains(round, w) {
			for n := i + 1; n < len(said) && n <= i+3 && said[n-1] != "pitch"; n++ {
				kept[n] = ""
			}
		}
	}
	return kept
}

// singular is a word without the ending of many: jumps, lunges, touches, flies.
func singular(w string) string {
	switch {
	case len(w) < 4 || strings.HasSuffix(w, "ss") || strings.HasSuffix(w, "us"):
		return w
	case strings.HasSuffix(w, "ies"):
		return w[:len(w)-3] + "y"
	case strings.HasSuffix(w, "ches") || strings.HasSuffix(w, "shes") || strings.HasSuffix(w, "sses") ||
		strings.HasSuffix(w, "xes"):
		return w[:len(w)-2]
	case strings.HasSuffix(w, "s"):
		return w[:len(w)-1]
	}
	return w
}
