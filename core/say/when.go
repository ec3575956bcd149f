package say

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"cuestart/core/pattern"
)

// moment is a minute to go, 40 or 12:30, or a time on the clock.
const moment = `(\d{1,3}(?:[:.]\d\d)?)`

// notUnit follows a number that is a minute: none of the units of a dose.
const notUnit = `(?:~(?:min(?:ute)?s?|')?~(?:to go|out|before|mark)?)(?:$|[^\w%:.]|\x01)`

var (
	spanOf  = Spaced(`(?:\b(?:from|at|between)~)?\b` + moment + `~(?:-|to|till|until|and)~` + moment + notUnit)
	untilOf = Spaced(`\b(?:done by|finished by|over by|finish by|finish at|ends? at|by|until|till|no later than|not after|before)~` +
		moment + notUnit)
	sinceOf = Spaced(`\b(?:not before|not until|no earlier than|not earlier than|earliest|after)~` + moment +
		notUnit)
	onwardsOf  = Spaced(`\bfrom~` + moment + `~(?:min(?:ute)?s?~)?(?:to go~)?(?:on|onwards?)\b`)
	sinceLast  = Spaced(`\bfrom~` + moment + notUnit)
	clockAt    = Spaced(`(?:\bat~|@~)(\d{1,2}[:.]\d\d)(?:~(?:h|o'clock))?(?:$|[^\w%]|\x01)`)
	minuteAt   = Spaced(`(?:\bat~|@~|\bT-)(\d{1,3})` + notUnit)
	minutesOut = Spaced(`(?:\bat~)?\b(\d{1,3})~(?:min(?:ute)?s?~)?(?:to go|minutes out|min out|minutes before|min before)(?:$|[^\w%]|\x01)`)
	firstOut   = Spaced(`^(\d{1,2}) out(?: |,)`)
	firstAt    = pattern.Must(`(?i)^(\d{2}),? ([a-z].*(?:\d|,[ \x01]*(?:` + strings.Join(countWords, "|") + `)$).*)$`)
	firstSaid  = Spaced(`^(\d{2}),? ((?:alone|on my own|join|i|we|they|the|nothing|just|everybody|everyone|all|back) .*)$`)
	firstAct   = pattern.Must(`(?i)^([2-9]\d),? ([a-z-]+ .*[,;][ \x01]*(?:\d{1,2}|` + strings.Join(countWords, "|") +
		`)(?: each)?)$`)
	headHold   = pattern.Must(`(?i)^((?:done by|by|at|from|not before|after|before|straight after)\b[^:\x02]{1,30}): `)
	measures   = pattern.Must(`(?i)\b\d{1,3} ?(?:m|metres?|meters?|yards?|s|secs?|seconds?|kg|reps?|steps|x)\b`)
	effortList = pattern.Must(`(?i)(?:at |@ ?)?\d{1,3} ?%?(?:(?:,? ?(?:and|then|to)? ?|/|-)\d{1,3} ?%?)* ?(?:%|per ?cent)`)
	links      = Spaced(`\b(straight after|right after|directly after|immediately after|before|after)~(?:the~)?`)
)

// dayTime is a time on the clock in seconds of the day; -1 where it is none.
func dayTime(text string) int {
	hour, minute, ok := strings.Cut(strings.ReplaceAll(text, ".", ":"), ":")
	h, err := strconv.Atoi(hour)
	m, err2 := strconv.Atoi(minute)
	if !ok || err != nil || err2 != nil || h > 23 || m > 59 || h < 0 || m < 0 {
		return -1
	}
	return h*3600 + m*60
}

// offset is a moment in seconds from the start. With a colon and an hour of the day it
// is the clock, unless that lies far from the start: then it is minutes and seconds.
func (k *knower) offset(text string) int {
	minutes, rest, colon := strings.Cut(strings.ReplaceAll(text, ".", ":"), ":")
	m, _ := strconv.Atoi(minutes)
	if !colon {
		return -60 * m
	}
	if at := dayTime(text); at >= 0 && k.start >= 0 {
		if from := at - k.start; from >= -5*3600 && from <= 3600 {
			return from
		}
	}
	s, _ := strconv.Atoi(rest)
	return -60*m - s
}

// when takes what a line says of its time.
func (s *scan) when(l *Line) {
	s.text = headHold.ReplaceAllString(s.text, "$1, ")
	restore := s.hideAmounts()
	defer restore()
	s.links(l)
	var from, until *int
	put := func(into **int, m []string) {
		if m != nil {
			at := s.offset(m[1])
			*into = &at
			if clock := strings.ReplaceAll(m[1], ".", ":"); s.start >= 0 && dayTime(clock) == s.start+at &&
				strings.Contains(clock, ":") {
				if l.Clocks == nil {
					l.Clocks = map[int]string{}
				}
				l.Clocks[at] = fmt.Sprintf("%05s", clock)
			}
		}
	}
	if m := s.span(); m != nil {
		put(&from, m[:2])
		put(&until, m[1:])
	}
	put(&from, s.take(onwardsOf))
	put(&from, s.take(sinceOf))
	put(&until, s.take(untilOf))
	put(&l.At, s.take(firstOut))
	for _, re := range []*pattern.Pattern{firstAt, firstSaid, firstAct} {
		if m := re.FindStringSubmatch(s.text); m != nil && l.At == nil && number(m[1]) >= 12 &&
			(re != firstAt || !startsWithUnit(m[2])) {
			put(&l.At, m)
			s.text = m[2]
		}
	}
	for _, re := range []*pattern.Pattern{clockAt, minuteAt, minutesOut} {
		if l.At == nil {
			put(&l.At, s.take(re))
		}
	}
	if from == nil && l.At == nil {
		put(&from, s.take(sinceLast))
	}
	if from != nil || until != nil {
		l.Window = &Window{from, until}
	}
}

// startsWithUnit tells whether a text begins with what numbers count.
func startsWithUnit(text string) bool {
	word := strings.ToLower(strings.FieldsFunc(text, func(r rune) bool { return r == ' ' || r == ',' })[0])
	return unitWord(word) || slices.Contains(actNames, word) || slices.Contains(actNames, word+"s") ||
		strings.HasPrefix(text, "x ") || startsCounted.MatchString(text)
}

var startsCounted = pattern.Must(`(?i)^(?:[a-z-]+ )?(?:` + repWords + `|` + strings.Join(actNames, "|") + `)\b`)

// span takes a span of minutes to go: it falls, as time does.
func (s *scan) span() []string {
	for _, at := range spanOf.FindAllStringSubmatchIndex(s.text, -1) {
		m := []string{"", s.text[at[2]:at[3]], s.text[at[4]:at[5]]}
		if strings.Contains(s.text[at[3]:at[4]], "and") && !strings.HasPrefix(strings.ToLower(s.text[at[0]:]),
			"between") {
			continue
		}
		if s.offset(m[1]) >= s.offset(m[2]) ||
			at[4] > 0 && tempoOf.MatchString(s.text[at[0]:min(len(s.text), at[5]+2)]) {
			continue
		}
		s.text = s.text[:at[0]] + soft + s.text[at[5]:]
		for _, end := range []string{" min", " to go", " out"} {
			if rest, ok := strings.CutPrefix(s.text[at[0]+1:], end); ok {
				s.text = s.text[:at[0]+1] + rest
			}
		}
		return m
	}
	return nil
}

// degreesOf are degrees, or shares of effort, beside an amount: "ER at 90, 8 to 10", "2 @ 85".
var degreesOf = pattern.Must(`(?i)\d{1,2} ?@ ?(?:[6-9][05]|100)\b|(?:\bat |@ ?)(?:[6-9][05]|100),? (?:x ?)?\d{1,2}(?: ?(?:-|to) ?\d{1,2})?(?: ?(?:per|each|ea|a side|e/s|reps?)\b|,|$)`)

// hideAmounts keeps per cents, metres and seconds from being read as minutes.
func (s *taking) hideAmounts() (restore func()) {
	var kept []string
	for _, re := range []*pattern.Pattern{effortList, measures, degreesOf} {
		s.text = re.ReplaceAllStringFunc(s.text, func(m string) string {
			kept = append(kept, m)
			return "\x03" + string(rune(0xF000+len(kept)-1))
		})
	}
	return func() {
		for n := len(kept) - 1; n >= 0; n-- {
			s.text = strings.Replace(s.text, "\x03"+string(rune(0xF000+n)), kept[n], 1)
		}
	}
}

// links takes "before kit on", "after scrum", "straight after scrum".
func (s *scan) links(l *Line) {
	for from := 0; from < len(s.text); {
		at := links.FindStringSubmatchIndex(s.text[from:])
		if at == nil {
			return
		}
		word, rest := strings.ToLower(s.text[from+at[2]:from+at[3]]), s.text[from+at[1]:]
		name, length := s.target(rest)
		if m := marks.FindString(rest); m != "" && strings.HasPrefix(rest, m) { // in quotation marks
			if name, length = s.target(s.show(m)); length == len(s.show(m)) {
				length = len(m)
			}
		}
		if length == 0 {
			from += at[1]
			continue
		}
		switch word {
		case "before":
			l.Before = name
		case "after":
			l.After = name
		default:
			l.StraightAfter = name
		}
		s.text = s.text[:from+at[0]] + soft + rest[length:]
	}
}

// target finds the longest name of something fixed or a block that a text begins with.
func (k *knower) target(text string) (name string, length int) {
	for _, list := range [][]string{k.Fixed, k.Blocks} {
		for _, one := range list {
			if n := prefixOf(text, one); n > length {
				name, length = one, n
			}
		}
	}
	for n := len(k.Blocks) - 1; n >= 0 && length == 0; n-- { // by its first word, where that says enough
		first, _, more := strings.Cut(k.Blocks[n], " ")
		if more && len(first) > 3 {
			if at := prefixOf(text, first); at > 0 && !strings.HasPrefix(text[at:], " of") {
				name, length = k.Blocks[n], at
			}
		}
	}
	return name, length
}

// prefixOf is how much of a text the name takes that it begins with; 0 where it does
// not. Hyphens and spaces are alike.
func prefixOf(text, name string) int {
	at := 0
	for _, r := range name {
		r = unicode.ToLower(r)
		if at >= len(text) {
			return 0
		}
		c := rune(text[at])
		width := 1
		if c >= 0x80 {
			c, width = utf8.DecodeRuneInString(text[at:])
			c = unicode.ToLower(c)
		} else if c >= 'A' && c <= 'Z' {
			c += 'a' - 'A'
		}
		if c != r && !((c == ' ' || c == '-') && (r == ' ' || r == '-')) {
			return 0
		}
		at += width
	}
	if at > len(text) || at < len(text) && isWord(text[at]) {
		return 0
	}
	return at
}

func isWord(c byte) bool {
	return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || c == '\'' || c >= 0x80
}
