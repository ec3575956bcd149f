package say

import (
	"fmt"
	"strings"

	"cuestart/core/pattern"
)

// taking is what is left of a line on its way: what a rule takes is replaced by a soft break, and what must not be read
// twice is hidden behind a mark.
type taking struct {
	text   string
	hidden []string
}

// counting takes how much: what needs nothing but the line itself.
type counting struct{ taking }

// scan is a line on its way to one who knows what it may speak of.
type scan struct {
	*Reader
	counting
	stands bool // said to be fixed
}

// newScan begins with a text in which some was hidden before.
func newScan(r *Reader, text string, hidden []string) *scan {
	return &scan{Reader: r, counting: counting{taking{text, hidden}}}
}

const (
	soft  = "\x01"
	colon = "\x05" // in place of one that may part a block's name from what is said of it
)

// take removes the first match of a pattern and returns its groups; nil where there is
// none.
func (s *taking) take(re *pattern.Pattern) []string {
	at := re.FindStringSubmatchIndex(s.text)
	if at == nil {
		return nil
	}
	groups := make([]string, len(at)/2)
	for n := range groups {
		if at[2*n] >= 0 {
			groups[n] = s.text[at[2*n]:at[2*n+1]]
		}
	}
	end := at[1]
	if end > at[0] && (s.text[end-1] == ',' || s.text[end-1] == ';') { // it parts what stands beside it
		end--
	}
	s.text = s.text[:at[0]] + soft + s.text[end:]
	return groups
}

// takeIf takes a pattern only where a condition holds: else nothing is touched.
func (s *taking) takeIf(holds bool, re *pattern.Pattern) []string {
	if !holds {
		return nil
	}
	return s.take(re)
}

// hide puts a mark in place of a part of the text.
func (s *taking) hide(from, to int) {
	s.text = s.text[:from] + s.keep(s.text[from:to]) + s.text[to:]
}

// keep hides a text that stays in the line as it is, and returns its mark.
func (s *taking) keep(text string) string {
	s.hidden = append(s.hidden, text)
	return fmt.Sprintf("\x02%c", rune(0xE000+len(s.hidden)-1))
}

var marks = pattern.Must("\x02(.)")

// show puts back what was hidden.
func (s *taking) show(text string) string {
	for range 3 {
		text = marks.ReplaceAllStringFunc(text, func(m string) string {
			return s.hidden[[]rune(m)[1]-0xE000]
		})
	}
	return text
}

var (
	brackets = pattern.Must(`\(([^()]*)\)?|\[([^\[\]]*)\]?`)
	bracket  = pattern.Must("\x02(.)")
)

// hideBrackets keeps what stands in brackets from being read as anything else.
func (s *taking) hideBrackets() {
	for {
		at := brackets.FindStringIndex(s.text)
		if at == nil {
			return
		}
		s.hide(at[0], at[1])
	}
}

var quoted = pattern.Must(`"([^"]+)"`)

// hideQuoted keeps a name in quotation marks as it is.
func (s *taking) hideQuoted() {
	for {
		at := quoted.FindStringSubmatchIndex(s.text)
		if at == nil {
			return
		}
		s.text = s.text[:at[0]] + s.keep(s.text[at[2]:at[3]]) + s.text[at[1]:]
	}
}

// cues takes the hidden brackets of a text out and returns what they say.
func (s *taking) cues(text string) (rest string, cues []string) {
	rest = bracket.ReplaceAllStringFunc(text, func(m string) string {
		held := s.hidden[[]rune(m)[1]-0xE000]
		if !strings.HasPrefix(held, "(") && !strings.HasPrefix(held, "[") {
			return m
		}
		for _, cue := range strings.Split(strings.Trim(s.show(held), "()[] "), ";") {
			if cue = strings.TrimSpace(cue); cue != "" {
				cues = append(cues, cue)
			}
		}
		return soft
	})
	return rest, cues
}

// hideKnown keeps the name of a known drill that a line begins with whole.
func (s *scan) hideKnown() {
	if n := s.Index.prefix(s.text); n > 0 {
		s.hide(0, n)
	}
}

// segment is a part of a text between commas, with its place.
type segment struct {
	from, to int
	text     string
}

func segments(text string) (list []segment) {
	from := 0
	for i := 0; i <= len(text); i++ {
		if i < len(text) && text[i] != ',' && text[i] != ';' && text[i] != colon[0] {
			continue
		}
		list = append(list, segment{from, i, strings.Trim(text[from:i], " "+soft)})
		from = i + 1
	}
	return list
}

// drop removes a segment with the comma before it.
func (s *taking) drop(g segment) {
	s.text = s.text[:g.from] + soft + s.text[g.to:]
}

// each offers every segment to a rule, which says whether it takes it.
func (s *taking) each(rule func(text string) bool) {
	for again := true; again; {
		again = false
		for _, g := range segments(s.text) {
			if g.text != "" && rule(g.text) {
				s.drop(g)
				again = true
				break
			}
		}
	}
}

var (
	softRun = pattern.Must(`[ \x01]+`)
	loose   = pattern.Must(`(?i)^(?:with|of|for|to|and|then|at|by|in|on|a|the|x|do|some|-|/|:)(?: |$)|(?: |^)(?:with|of|for|to|and|then|at|by|in|on|a|the|x|each|only|from|-|/|:)$`)
)

// name is what is left of a text: the first segment with words in it, and what stands
// beside.
func (s *taking) name(text string) (name, note string) {
	var notes []string
	for _, g := range segments(text) {
		one := strings.Trim(softRun.ReplaceAllString(g.text, " "), " -:.!?")
		for loose.MatchString(one) {
			one = strings.TrimSpace(loose.ReplaceAllString(one, ""))
		}
		switch one = strings.Trim(s.show(one), " "); {
		case one == "":
		case name == "":
			name = one
		default:
			notes = append(notes, one)
		}
	}
	return name, strings.Join(notes, ", ")
}
