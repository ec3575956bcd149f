package speech

import (
	"regexp"
	"slices"
	"strings"
	"sync"
	"time"
	"unicode"
	"unicode/utf8"

	"cuestart/core/pattern"
)

// Table is what a language has for pieces of text that were written in English: # stands for a
// number, %s for a name. What it does not have, such as what a club calls its own drills, stays
// as it is.
type Table struct {
	exact    map[string]string
	days     []string // of the week, as they are called
	patterns []saidWith
	said     sync.Map // pieces that were looked up, by the English one
	held     int
	mu       sync.Mutex
}

// saidWith is a piece with names in it.
type saidWith struct {
	is   *pattern.Pattern
	has  string // the longest of its words, which are there where it fits
	says string
}

// NewTable is a language by its pieces, each by the English one.
func NewTable(texts map[string]string) *Table {
	t := &Table{exact: map[string]string{}}
	for english, other := range texts {
		t.put(numerals.Replace(english), numerals.Replace(other))
	}
	for day := range time.Saturday + 1 {
		t.days = append(t.days, t.exact[day.String()])
	}
	slices.SortFunc(t.patterns, func(a, b saidWith) int {
		if by := len(b.has) - len(a.has); by != 0 {
			return by
		}
		return strings.Compare(a.is.String(), b.is.String())
	})
	return t
}

// numerals are the ways in which a sentence stands in for a number.
var numerals = strings.NewReplacer("%d", "#", "%g", "#")

func (t *Table) put(english, other string) {
	if !strings.Contains(english, "%s") {
		t.exact[english] = other
		return
	}
	pieces := strings.Split(english, "%s")
	longest := slices.MaxFunc(pieces, func(a, b string) int { return len(a) - len(b) })
	if letters := len(letterOf.FindAllString(strings.Join(pieces, ""), -1)); letters < 6 &&
		!(letters > 1 && (beginsOf.MatchString(english) || strings.Contains(english, "#′"))) {
		// "%s of %s" tells nothing
		return
	}
	for i := range pieces {
		pieces[i] = regexp.QuoteMeta(pieces[i])
	}
	t.patterns = append(t.patterns, saidWith{pattern.Must("^" + strings.Join(pieces, "(.+?)") + "$"), longest, other})
}

var (
	numbersOf = pattern.Must(`\d+(?:[.:,]\d+)*`)
	partsOf   = pattern.Must(`(?:, | – | \()`)
	anyWord   = pattern.Must(`\pL{2}`)
	letterOf  = pattern.Must(`\pL`)
	beginsOf  = pattern.Must(`^[^%\pL]*(?:\p{Lu}|\pL{4})`)
	namesOf   = pattern.Must(`^[^\pL]*(?:\p{Lu}[^ ]* ?){1,4}$`)
	daysOf    = pattern.Must(`\b(Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|Mon|Tue|Wed|Thu|Fri|Sat|Sun) (\d{1,2}) ([A-Z][a-z]+)\b`)
)

// mostHeld is how many pieces are kept that were looked up.
const mostHeld = 20_000

// Told is a piece of text in the language; as it stands where the language has nothing for it, or there is none.
func (t *Table) Told(text string) string {
	if t == nil || !anyWord.MatchString(text) {
		return text
	}
	if is, known := t.said.Load(text); known {
		return is.(string)
	}
	bare := strings.TrimSpace(text)
	is := strings.Replace(text, bare, t.piece(strings.Join(strings.Fields(bare), " ")), 1)
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.held++; t.held > mostHeld {
		t.said.Clear()
		t.held = 1
	}
	t.said.Store(text, is)
	return is
}

// piece is a text by the table: whole, or else sentence by sentence, or what stands before a
// colon and what stands behind it, or part by part where all parts are known or names.
func (t *Table) piece(text string) string {
	if is, known := t.whole(text); known {
		return is
	}
	text = daysOf.ReplaceAllStringFunc(text, func(day string) string {
		m := daysOf.FindStringSubmatch(day)
		if t.exact[m[1]] == "" || t.exact[m[3]] == "" {
			return day
		}
		return t.exact[m[1]] + " " + m[2] + " " + t.exact[m[3]]
	})
	for _, between := range []string{" · ", ". ", "; "} {
		if all := strings.Split(text, between); len(all) > 1 {
			for i, one := range all {
				if all[i] = t.piece(one); all[i] == one && between == ". " && i+1 < len(all) {
					all[i] = strings.TrimSuffix(t.piece(one+"."), ".")
				}
			}
			return strings.Join(all, between)
		}
	}
	if head, rest, has := strings.Cut(text, ": "); has && anyWord.MatchString(rest) {
		is, known := t.whole(head)
		if !known {
			is, known = t.whole(head + ":")
			is = strings.TrimSuffix(is, ":")
		}
		if behind := t.piece(rest); known || behind != rest && len(strings.Fields(head)) <= 8 {
			if !known {
				is = head
			}
			return is + ": " + behind
		}
	}
	return t.parts(text)
}

// parts is a text part by part, where all of them are known or names.
func (t *Table) parts(text string) string {
	at := partsOf.FindAllStringIndex(text, -1)
	if len(at) == 0 {
		return t.row(text)
	}
	var b strings.Builder
	from, translated := 0, false
	for _, part := range append(at, []int{len(text), len(text)}) {
		one := text[from:part[0]]
		is, known := t.whole(one)
		if !known && anyWord.MatchString(one) && !namesOf.MatchString(one) && !t.tells(one) { // no half of a sentence
			return text
		} else if !known {
			is = one
		}
		translated = translated || known
		b.WriteString(is + text[part[0]:part[1]])
		from = part[1]
	}
	if !translated {
		return text
	}
	return b.String()
}

// row is a row of words that the language has, such as joints, each by itself; else the text as it stands.
func (t *Table) row(text string) string {
	words := strings.Fields(text)
	for i, word := range words {
		other := t.exact[word]
		if other == "" || strings.ToLower(word) != word {
			return text
		}
		words[i] = other
	}
	return strings.Join(words, " ")
}

// tells tells whether a part is in the language already: a day that was put into it.
func (t *Table) tells(part string) bool {
	first, _, _ := strings.Cut(strings.TrimSpace(part), " ")
	return first != "" && slices.Contains(t.days, first)
}

// whole is a text that the table has, as it stands or as a sentence that begins with a small letter there.
func (t *Table) whole(text string) (string, bool) {
	if is, known := t.asItStands(text); known {
		return is, true
	}
	first, wide := utf8.DecodeRuneInString(text)
	if !unicode.IsUpper(first) || !strings.Contains(text, " ") {
		return text, false
	}
	is, known := t.asItStands(string(unicode.ToLower(first)) + text[wide:])
	if !known {
		return text, false
	}
	began, wide := utf8.DecodeRuneInString(is)
	return string(unicode.ToUpper(began)) + is[wide:], true
}

func (t *Table) asItStands(text string) (string, bool) {
	numbers := numbersOf.FindAllString(text, -1)
	plain := numbersOf.ReplaceAllString(text, "#")
	fill := func(says string) string {
		for _, n := range numbers {
			says = strings.Replace(says, "#", n, 1)
		}
		return says
	}
	for _, end := range []string{"", ".", ":"} {
		if is, known := t.exact[strings.TrimSuffix(plain, end)]; known && strings.HasSuffix(plain, end) {
			return fill(is + end), true
		}
	}
	for i := range t.patterns {
		p := &t.patterns[i]
		if !strings.Contains(plain, p.has) {
			continue
		}
		m := p.is.FindStringSubmatch(plain)
		if m == nil || slices.ContainsFunc(m[1:], func(name string) bool {
			return strings.Contains(name, "; ") || strings.Contains(name, ". ")
		}) {
			// no name
			continue
		}
		is := p.says
		for _, name := range m[1:] {
			if other, known := t.exact[name]; known {
				name = other
			}
			is = strings.Replace(is, "%s", name, 1)
		}
		return fill(is), true
	}
	return text, false
}
