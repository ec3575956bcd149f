package shell

import (
	"html"
	"regexp"
	"slices"
	"strings"
	"sync"
	"time"

	nethtml "golang.org/x/net/html"
)

// Coaches' pages are written in English, and said in another language as they leave: each piece of text
// and each label is looked up in that language's table (languages/es.coach.yaml), in which # stands for a
// number and %s for a name. What no table knows, such as what a club calls its drills, stays as it is.

// table is what a language has for the pieces of pages.
type table struct {
	exact    map[string]string
	days     []string // of the week, as they are called
	patterns []saidWith
	said     sync.Map // pieces that were looked up, by the English one
	held     int
	mu       sync.Mutex
}

// saidWith is a piece with names in it.
type saidWith struct {
	is   *regexp.Regexp
	has  string // the longest of its words, which are there where it fits
	says string
}

var tables = readTables()

func readTables() map[string]*table {
	all := map[string]*table{}
	for _, tag := range tongues[1:] {
		t := &table{exact: map[string]string{}}
		for _, of := range [][]string{nil, {"coach"}} {
			for english, other := range Texts(tag.String(), of...) {
				t.put(strings.ReplaceAll(strings.ReplaceAll(english, "%d", "#"), "%g", "#"), strings.ReplaceAll(strings.ReplaceAll(other, "%d", "#"), "%g", "#"))
			}
		}
		for day := range time.Saturday + 1 {
			t.days = append(t.days, t.exact[day.String()])
		}
		slices.SortFunc(t.patterns, func(a, b saidWith) int { return len(b.has) - len(a.has) })
		all[tag.String()] = t
	}
	return all
}

func (t *table) put(english, other string) {
	if !strings.Contains(english, "%s") {
		t.exact[english] = other
		return
	}
	pieces := strings.Split(english, "%s")
	longest := slices.MaxFunc(pieces, func(a, b string) int { return len(a) - len(b) })
	if letters := len(letterOf.FindAllString(strings.Join(pieces, ""), -1)); letters < 6 && !(letters > 1 && beginsOf.MatchString(english)) { // "%s of %s" tells nothing
		return
	}
	for i := range pieces {
		pieces[i] = regexp.QuoteMeta(pieces[i])
	}
	t.patterns = append(t.patterns, saidWith{regexp.MustCompile("^" + strings.Join(pieces, "(.+?)") + "$"), longest, other})
}

var (
	numbersOf = regexp.MustCompile(`\d+(?:[.:,]\d+)*`)
	partsOf   = regexp.MustCompile(`(?:[.;:,] | · |, | – | \()`)
	anyWord   = regexp.MustCompile(`\pL{2}`)
	letterOf  = regexp.MustCompile(`\pL`)
	beginsOf  = regexp.MustCompile(`^[^%\pL]*(?:\p{Lu}|\pL{4})`)
	namesOf   = regexp.MustCompile(`^[^\pL]*(?:\p{Lu}[^ ]* ?){1,4}$`)
	daysOf    = regexp.MustCompile(`\b(Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|Mon|Tue|Wed|Thu|Fri|Sat|Sun) (\d{1,2}) ([A-Z][a-z]+)\b`)
)

// mostHeld is how many pieces are kept that were looked up.
const mostHeld = 20_000

// Told is a piece of text in the language; as it stands where the language has nothing for it.
func (t Tongue) Told(text string) string {
	of := tables[t.Lang]
	if of == nil || !anyWord.MatchString(text) {
		return text
	}
	if is, known := of.said.Load(text); known {
		return is.(string)
	}
	bare := strings.TrimSpace(text)
	is := strings.Replace(text, bare, of.piece(strings.Join(strings.Fields(bare), " ")), 1)
	of.mu.Lock()
	defer of.mu.Unlock()
	if of.held++; of.held > mostHeld {
		of.said.Clear()
		of.held = 1
	}
	of.said.Store(text, is)
	return is
}

// piece is a text by the table: whole, or else part by part where all parts are known or names.
func (t *table) piece(text string) string {
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
	at := partsOf.FindAllStringIndex(text, -1)
	if len(at) == 0 {
		return text
	}
	var b strings.Builder
	from, translated := 0, false
	for _, part := range append(at, []int{len(text), len(text)}) {
		one := text[from:part[0]]
		is, known := t.whole(one)
		if end := text[part[0]:min(part[1], part[0]+1)]; !known && (end == "." || end == ":") {
			if is, known = t.whole(one + end); known {
				is = strings.TrimSuffix(is, end)
			}
		}
		name := strings.HasPrefix(text[part[0]:], ":") && len(strings.Fields(one)) <= 5                // what is done, before how much
		if !known && !name && anyWord.MatchString(one) && !namesOf.MatchString(one) && !t.tells(one) { // no half of a sentence
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

// tells tells whether a part is in the language already: a day that was put into it.
func (t *table) tells(part string) bool {
	first, _, _ := strings.Cut(strings.TrimSpace(part), " ")
	return first != "" && slices.Contains(t.days, first)
}

// whole is a text that the table has.
func (t *table) whole(text string) (string, bool) {
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
		if m == nil {
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

// labelOf are attributes that people read or hear, and what a page's script has to say.
var labelOf = regexp.MustCompile(`\s(?:aria-label|title|placeholder|alt|aria-description|data-told(?:-[a-z]+)?)="[^"]*"`)

// Page is a page, or a part of one, in the language.
func (t Tongue) Page(text string) string {
	if tables[t.Lang] == nil {
		return text
	}
	var b strings.Builder
	b.Grow(len(text) + len(text)/16)
	read := nethtml.NewTokenizer(strings.NewReader(text))
	as, deep := "", 0 // an element that stays as it is, and how many of its name are open
	for {
		is := read.Next()
		if is == nethtml.ErrorToken {
			return b.String()
		}
		raw := string(read.Raw())
		name, more := "", false
		if is == nethtml.StartTagToken || is == nethtml.EndTagToken || is == nethtml.SelfClosingTagToken {
			tag, attributes := read.TagName()
			name, more = string(tag), attributes
		}
		switch {
		case is == nethtml.TextToken && deep == 0:
			b.WriteString(t.text(raw))
			continue
		case is == nethtml.StartTagToken && deep > 0 && name == as:
			deep++
		case is == nethtml.EndTagToken && deep > 0 && name == as:
			deep--
		case (is == nethtml.StartTagToken || is == nethtml.SelfClosingTagToken) && deep == 0:
			// an option without a value sends its text: that must not be another one
			keep := name == "option" && !strings.Contains(raw, " value=") || name == "script" || name == "style" || name == "textarea"
			for more {
				var key, value []byte
				key, value, more = read.TagAttr()
				keep = keep || string(key) == "translate" && string(value) == "no"
			}
			raw = labelOf.ReplaceAllStringFunc(raw, func(label string) string {
				key, value, _ := strings.Cut(strings.TrimSuffix(label, `"`), `="`)
				return key + `="` + t.text(value) + `"`
			})
			if keep && is == nethtml.StartTagToken {
				as, deep = name, 1
			}
		}
		b.WriteString(raw)
	}
}

// text is what stands between tags, or in a label.
func (t Tongue) text(raw string) string {
	plain := html.UnescapeString(raw)
	is := t.Told(plain)
	if is == plain {
		return raw
	}
	return html.EscapeString(is)
}
