package shell

import (
	"html"
	"maps"
	"regexp"
	"strings"
	"sync"

	nethtml "golang.org/x/net/html"

	"cuestart/core/speech"
)

// Pages are written in English, and said in another language as they leave: each piece of text
// and each label is looked up in that language's tables (languages/es.coach.yaml, es.book.yaml
// for the drills of the book), in which # stands for a number and %s for a name. What no table
// knows, such as what a club calls its own drills, stays as it is.

// tables are what each language has for the pieces of pages, read when they are first asked for.
var tables = sync.OnceValue(func() map[string]*speech.Table {
	all := map[string]*speech.Table{}
	for _, tag := range tongues[1:] {
		all[tag.String()] = speech.NewTable(pieces(tag.String()))
	}
	return all
})

// pieces are all pieces of another language than English, of whatever page, by the English ones.
func pieces(lang string) map[string]string {
	all := Texts(lang)
	for _, of := range []string{"coach", "book"} {
		maps.Copy(all, Texts(lang, of))
	}
	return all
}

// Pieces are all pieces of the language by the English ones; nil of English.
func (t Tongue) Pieces() map[string]string {
	if t.Table() == nil {
		return nil
	}
	return pieces(t.Lang)
}

// Table is what the language has for pieces of text; nil of English.
func (t Tongue) Table() *speech.Table { return tables()[t.Lang] }

// Told is a piece of text in the language; as it stands where the language has nothing for it.
func (t Tongue) Told(text string) string { return t.Table().Told(text) }

// labelOf are attributes that people read or hear, and what a page's script has to say.
var labelOf = regexp.MustCompile(`\s(?:aria-label|title|placeholder|alt|aria-description|data-told(?:-[a-z]+)?)="[^"]*"`)

// Page is a page, or a part of one, in the language.
func (t Tongue) Page(text string) string {
	if t.Table() == nil {
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
			keep := name == "option" && !strings.Contains(raw, " value=") || name == "script" || name == "style" ||
				name == "textarea"
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
