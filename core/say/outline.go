package say

import (
	"maps"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/hear"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

// mark is what stands before a line of a list: a number, a letter, a dash.
type mark int

const (
	unmarked mark = iota
	bulleted
	numbered
	lettered
	large // a large letter
)

var (
	byNumber  = pattern.Must(`^\s*\(?(?:\d{1,2}|[ivx]{1,4}|[IVX]{1,4})[.)]\s+`)
	byLetter  = pattern.Must(`^\s*\(?[A-Za-z][.)]\s+`)
	byCapital = pattern.Must(`^\s*\(?[A-Z][.)]\s+`)
	byBullet  = pattern.Must(`^\s*(?:[-*•·–—>]|o(?:\t| {2,}))\s*([^-–—*#=\s])`)
)

// Pictures before a line: a tick, a square or a dot is a bullet, any other says nothing.
var (
	byTick    = pattern.Must(`^\s*[✅☑✔✓▪▫◾◽◦●○🔹🔸🔷🔶🟢🔵🟠⚪⚫]\x{FE0F}?\s*(\S)`)
	byPicture = pattern.Must(`^\s*(?:[\x{2190}-\x{21FF}\x{2600}-\x{27BF}\x{2B00}-\x{2BFF}\x{1F000}-\x{1FAFF}]\x{FE0F}?\x{200D}?)+\s*(\S)`)
)

// noLetters is a list whose lines are not marked by letters.
const noLetters = false

// unmark is a line without its mark, and which it was. A letter is one of an outline only where
// others are: "I" and "x" stand for themselves.
func unmark(line string, letters bool) (text string, m mark) {
	switch {
	case byNumber.MatchString(line) && !(letters && byLetter.MatchString(line)):
		return byNumber.ReplaceAllString(line, ""), numbered
	case letters && byCapital.MatchString(line):
		return byLetter.ReplaceAllString(line, ""), large
	case letters && byLetter.MatchString(line):
		return byLetter.ReplaceAllString(line, ""), lettered
	case byTick.MatchString(line):
		return byTick.ReplaceAllString(line, "$1"), bulleted
	case byPicture.MatchString(line):
		return byPicture.ReplaceAllString(line, "$1"), unmarked
	case byBullet.MatchString(line):
		return byBullet.ReplaceAllString(line, "$1"), bulleted
	}
	return line, unmarked
}

// What makes a line more than a heading: an amount of something. Minutes to go and what stands
// in brackets make it none.
var (
	inBrackets = pattern.Must(`\([^)]*\)`)
	headTimes  = pattern.Must(`(?i)\b(?:from|at|until|till|to|by|done by|before|after|off|last|first|under|u|t|-)[ -]*\d{1,2}(?:[:.]\d\d)?(?:~?(?:'|min\w*))?(?: ?(?:to|-|–) ?\d{1,2})?\b|\b\d{1,2}[:.]\d\d\b|\b\d{1,2} ?(?:to|-|–) ?\d{1,2}\b(?: ?(?:min\w*|'))?(?:$|[,;(])|\b\d{1,2} ?(?:m|metres?|meters?|yds?|yards?) (?:apart|between)\b`)
	outOf      = pattern.Must(`(?i)\b\d{1,2} ?(?:min\w*|')? (?:out|to go)\b|\bto the \d\d\b`)
	inCapitals = pattern.Must(`^[A-Z][A-Z/&+' -]{2,}(?:[^a-z]|$)`)
	anyAmount  = pattern.Must(`(?i)\d|\b(?:dozen|couple of|two|three|four|five|six|eight|ten|twelve|fifteen|twenty|thirty|twice|each way|each side|there and back|until|a side)\b`)
	titleWords = pattern.Must(`(?i)\b(?:warm[- ]?ups?|game ?day|match ?day|md|comp(?:etition)? day|kick[- ]?off|ko|throw[- ]in|first (?:bounce|serve|pitch|ball|whistle)|puck drop|push[- ]?back|bully[- ]?off|centre pass|face[- ]?off|(?:home|away) (?:game|match)|tip[- ]?off|starting time|start(?:s)? (?:at )?\d)\b`)
	clockWords = pattern.Must(`(?i)\b\d{1,2}(?:[:.]\d\d)? ?(?:am|pm|o'?clock)\b`)
	dayWords   = pattern.Must(`(?i)\b(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?\b|\b(?:calentamiento|entrada en calor|rutina|sesi[oó]n|lunes|martes|mi[eé]rcoles|jueves|viernes|s[aá]bado|domingo)\b|\b(?:pre[- ]?(?:game|match|comp)|match prep|game prep|routine|w[ /-]?up|wu|session|plan)\b`)
	headEnds   = pattern.Must(`(?i)[,(:;]| [-–—] | (?:w|w/|with|from|at|until|till|to|by|done by|before|after|led by|\d{1,2}(?:[:.]\d\d)?(?: ?(?:-|–|to) ?\d{1,2}(?:[:.]\d\d)?|'| ?min| out))\b`)
	ownWay     = pattern.Must(`"|:(?:[^\d()]|$)`) // a heading with a colon, a name in quotation marks
	squadWords = pattern.Must(`(?i)\b(?:squad|class|year \d+|yr \d+|lesson|u\d{2}s?|girls|boys|v\d|final|(?:heat|race|meet|comp|test) day|vs?|versus)\b`)
	openers    = pattern.Must(`(?i)^(?:first|then|next|now|after that|to finish|finally|lastly|last)\b,? `)
	greetings  = pattern.Must(`(?i)^(?:hi|hello|hey|dear|morning|evening|thanks|thank you|cheers|good luck|see you|regards|love)\b`)
)

// startsAt is a time of the day in a title.
var startsAt = pattern.Must(`(?i)\b\d{1,2}[:.]\d\d\b|\b\d+ ?m\b`)

// longestAside is how long a line may be that is kept as a note at once: of a longer one each
// sentence is looked at.
const longestAside = 150

// ofMinutes is a heading that says how long what stands under it takes: "GENERAL 5 min".
var ofMinutes = pattern.Must(`(?i)^([A-Za-z][A-Za-z '&/-]*?)(?: [-–—])? (\d{1,2} ?(?:min|mins|minutes|'))(?: (\([^)]*\)))?$`)

// titled tells whether a line is a title: what the day is.
func titled(lines []string, i int) bool {
	return i < len(lines) && (titleWords.MatchString(lines[i]) || dayWords.MatchString(lines[i])) &&
		!doses(titleWords.ReplaceAllString(lines[i], ""))
}

// fallingIn is a span of minutes to go in brackets, or behind a heading's words.
var fallingIn = pattern.Must(`(?i) *\((?:from )?(\d{1,2}) ?(?:to|-|–) ?(\d{1,2})(?: ?min)?\)`)

// heads tells whether a line may be the heading of what follows it: it says no amount of
// anything, and is short.
func heads(text string) bool { return headsIn(text, 7) }

// headsIn is heads of at most so many words.
func headsIn(text string, longest int) bool {
	bare := strings.TrimSpace(headTimes.ReplaceAllString(outOf.ReplaceAllString(inBrackets.ReplaceAllString(text, ""),
		""), ""))
	return bare != "" && len(strings.Fields(bare)) <= longest && !anyAmount.MatchString(bare) &&
		!strings.HasSuffix(bare, "!") && !strings.HasSuffix(bare, "?")
}

// sketch is a list while it is told what its lines are.
type sketch struct {
	typed, plain []string // as they were typed, and without their marks
	marks        []mark
	when         []string          // when a line begins, as its front says
	colons       bool              // some of its headings have one
	shaped       bool              // each of its parts begins with a line that says no amount
	are          map[int]hear.Kind // what each line is, where a reader made the whole of it out
	dose         []string          // how much is said of each line that says none itself, at its heading or at itself
}

// outline takes the marks from a list's lines, and marks its headings, its title and what only
// greets: a list is told by its marks and its blank lines, whatever is done in it, and by what the
// reader, where there is one, makes of it as a whole.
//
// Of lines that say at their front when they begin, that is said behind what is done.
func outline(lines []string, r *Reader) *sketch {
	k := sketched(lines)
	if k == nil {
		return &sketch{typed: lines, plain: lines, dose: make([]string, len(lines))}
	}
	told := k.byRules()
	if r != nil {
		told = k.asWhole(told, r)
	}
	k.plain = told
	return k
}

// sketched is a list without its marks and without what its lines say at their front of when they begin; nil
// where it has too few lines to be one.
func sketched(lines []string) *sketch {
	k := &sketch{typed: lines, plain: make([]string, len(lines)), marks: make([]mark, len(lines)),
		when: make([]string, len(lines)), dose: make([]string, len(lines))}
	falling := falls(lines, onlySigned)
	letters, said := lettersOf(lines), 0
	for i, line := range withMinutes(withClocks(lines)) {
		if strings.TrimSpace(line) != "" {
			said++
		}
		k.colons = k.colons || strings.HasSuffix(strings.TrimSpace(line), ":")
		if k.plain[i], k.marks[i] = unmark(line, letters > 1); falling &&
			bareToGo.MatchString(strings.TrimSpace(line)) {
			k.plain[i], k.marks[i] = line, unmarked
		}
	}
	if said < 3 {
		return nil
	}
	uncount(k.plain, k.marks)
	uncell(k.plain)
	falling = falling || falls(k.plain, signedOrNot)
	spans, apart := spansFall(k.plain), fallsApart(k.plain)
	if apart == nil && slices.ContainsFunc(k.plain,
		func(line string) bool { return saysToGo.MatchString(strings.TrimSpace(line)) }) {
		apart = map[int]string{}
		for i, line := range k.plain {
			if m := countedTwice.FindStringSubmatch(strings.TrimSpace(line)); m != nil {
				apart[i] = m[1]
			}
		}
	}
	for i := range k.plain {
		k.plain[i], k.when[i] = front(k.plain[i], apart[i], falling, spans)
	}
	k.shaped = shaped(k.plain, k.marks)
	return k
}

// front is a line without what it says at its front, or at its end, of when it begins, and that:
// apart are its minutes to go among lines that fall, falling tells whether numbers of the list
// fall, spans whether spans do.
func front(line, apart string, falling, spans bool) (rest, when string) {
	text := strings.TrimSpace(line)
	if m := clocksHead.FindStringSubmatch(text); m != nil {
		return m[3], " - from " + m[1] + " to " + m[2]
	}
	if m := spanHead.FindStringSubmatch(text); m != nil && spans {
		return m[3], " - from " + m[1] + " to " + m[2]
	}
	if apart != "" {
		return numberFront.ReplaceAllString(line, "$2"), " - at " + apart
	}
	if rest, at := whenFirst(text, falling); at != "" {
		return rest, " - at " + at
	}
	if m := endToGo.FindStringSubmatch(text); m != nil && falling {
		return m[1] + m[3], " - at " + m[2]
	}
	return line, ""
}

// byRules are the lines, marked where they are a heading, a title or a note by their own looks and
// by what stands below.
func (k *sketch) byRules() []string {
	bare, when := slices.Clone(k.plain), slices.Clone(k.when)
	for i, first := 0, true; i < len(k.typed); i++ {
		text := strings.TrimSpace(k.plain[i])
		if text == "" {
			continue
		}
		is := k.told(i, first)
		if first = first && len(strings.Fields(text)) < 3 && strings.HasPrefix(is, headMark) &&
			titled(k.plain, k.next(i)); first {
			is = noteMark + text
		}
		if k.plain[i] = is; !strings.HasPrefix(is, noteMark) {
			k.plain[i] += k.when[i]
		}
	}
	told := k.plain
	k.plain, k.when = bare, when
	return told
}

// shaped tells whether each part of a list, as empty lines part it, begins with a line that may be its heading:
// whatever such a line is called, "Landings", it is one.
func shaped(lines []string, marks []mark) bool {
	parts := 0
	for i := range lines {
		long := i+2 < len(lines) && strings.TrimSpace(lines[i]) != "" && strings.TrimSpace(lines[i+1]) != "" &&
			strings.TrimSpace(lines[i+2]) != ""
		if !long || i > 0 && strings.TrimSpace(lines[i-1]) != "" {
			continue
		}
		name, _, _ := strings.Cut(strings.TrimSpace(lines[i]), " - ")
		if marks[i] != unmarked || !heads(lines[i]) || len(strings.Fields(inBrackets.ReplaceAllString(name, ""))) > 3 ||
			!anyAmount.MatchString(lines[i+1]) {
			return false
		}
		parts++
	}
	return parts > 1
}

// next is the line below, but for empty ones.
func (k *sketch) next(i int) int {
	for i++; i < len(k.typed) && strings.TrimSpace(k.typed[i]) == ""; i++ {
	}
	return i
}

// told is a line, marked as a heading or a note where it is one; first tells whether nothing but a
// title stands above it.
func (k *sketch) told(i int, first bool) string {
	text, n := strings.TrimSpace(k.plain[i]), k.next(i)
	switch own := k.marks[i] == unmarked; {
	case n < len(k.typed) && k.stationsAbove(i, text):
		head, _ := stations(text)
		return headMark + head
	case section(text) && k.when[i] != "" && n < len(k.typed):
		return headMark + text
	case own && n < len(k.typed) && eachOver.MatchString(text) && k.doseAbove(i, text):
		name, _ := doseOver(text)
		return headMark + name
	case strings.HasPrefix(text, noteMark) || strings.HasPrefix(text, drillMark) || ownWay.MatchString(text) ||
		section(text) || marked.MatchString(text) && own:
		return k.plain[i]
	case first && own && i+1 < len(k.typed) && strings.TrimSpace(k.typed[i+1]) == "" && startsAt.MatchString(text) &&
		movement.Lead(startsAt.ReplaceAllString(text, "")) == "":
		return noteMark + text
	case first && own && startsAt.MatchString(text) && (titleWords.MatchString(text) || dayWords.MatchString(text)) &&
		!doses(startsAt.ReplaceAllString(titleWords.ReplaceAllString(text, ""), "")):
		return noteMark + text
	// a title over a heading
	case first && own && (n > i+1 || hear.Group(text)) && n < len(k.typed) && heads(text) && !event(text) &&
		!strings.ContainsAny(text, "0123456789") && heads(k.plain[n]) && k.next(n) < len(k.typed) &&
		k.above(n, k.next(n), k.plain[n]):
		return noteMark + text
	case greetings.MatchString(text) && len(text) <= longestAside, first && own && n < len(k.typed) && k.title(text, n):
		return noteMark + text
	case n < len(k.typed) && k.minutesHead(i, n, text):
		return headMark + strings.TrimSpace(ofMinutes.ReplaceAllString(text, "$1 ($2) $3"))
	case k.doseBelow(i, text):
		return noteMark + text
	case own && n < len(k.typed) && k.marks[n] != unmarked && k.doseAbove(i, text):
		name, dose := doseOver(text)
		if k.allSaid(n) { // nobody takes it from the heading: it is told there
			name += " (" + dose + ")"
		}
		return headMark + name
	case n < len(k.typed) && (heads(text) || own && k.marks[n] > bulleted && inCapitals.MatchString(text) &&
		headsIn(text, 12)) && k.above(i, n, text):
		k.dose[i] = holds(text)
		if m := clockFront.FindStringSubmatch(text); m != nil {
			text, k.when[i] = m[2], " - at "+m[1]
		}
		return headMark + fallingIn.ReplaceAllString(text, " - from $1 to $2")
	case k.when[i] == "" && saysNothing(text) && len(text) <= longestAside:
		return noteMark + text
	}
	return k.plain[i]
}

// minutesHead tells whether a line with lines below it that are its own says how long these take.
func (k *sketch) minutesHead(i, n int, text string) bool {
	capitals := inCapitals.MatchString(text)
	under := k.marks[n] != unmarked || indent(k.typed[n]) > indent(k.typed[i]) ||
		capitals && !inCapitals.MatchString(k.plain[n])
	if k.marks[i] != unmarked {
		under = deeper(k.marks[i], k.marks[n], text, k.plain[n], k.colons)
	}
	named := movement.Lead(text) == "" || capitals
	return under && named && ofMinutes.MatchString(text) && heads(ofMinutes.ReplaceAllString(text, "$1"))
}

// doseBelow tells whether a line says how much there is of each of those above it.
func (k *sketch) doseBelow(i int, text string) bool {
	m := ofAll.FindStringSubmatch(text)
	return m != nil && heldDose.MatchString(m[1]) && movement.Lead(thereBack.ReplaceAllString(m[1], "")) == "" &&
		k.below(i, m[1])
}

// stationsAbove tells whether a line says how long is worked at each of the stations below it.
func (k *sketch) stationsAbove(i int, text string) bool {
	_, dose := stations(text)
	if dose != "" {
		k.dose[i] = dose
	}
	return dose != ""
}

// doseAbove tells whether a line names what follows it and says how much there is of each of it.
func (k *sketch) doseAbove(i int, text string) bool {
	name, dose := doseOver(text)
	if name != "" {
		k.dose[i] = dose
	}
	return name != ""
}

// allSaid tells whether each line from n on, to the end of its part, says itself how much there is.
func (k *sketch) allSaid(n int) bool {
	for ; n < len(k.plain) && strings.TrimSpace(k.plain[n]) != "" && k.marks[n] != unmarked; n++ {
		if !anyAmount.MatchString(k.plain[n]) {
			return false
		}
	}
	return true
}

// title tells whether a text over line n says what day it is, or stands over a heading.
func (k *sketch) title(text string, n int) bool {
	if !anyAmount.MatchString(text) && strings.HasSuffix(strings.TrimSpace(k.plain[n]), ":") {
		return true
	}
	day := titleWords.MatchString(text) || dayWords.MatchString(text) ||
		squadWords.MatchString(text) && len(strings.Fields(text)) > 2
	return day && !doses(titleWords.ReplaceAllString(text, ""))
}

// above tells whether what stands in line n belongs under line i.
func (k *sketch) above(i, n int, text string) bool {
	if clockFront.MatchString(text) && clockFront.MatchString(strings.TrimSpace(k.plain[n])) { // each has its own time
		return false
	}
	if k.shaped && n == i+1 && (i == 0 || strings.TrimSpace(k.typed[i-1]) == "") && n+1 < len(k.typed) &&
		strings.TrimSpace(k.typed[n+1]) != "" {
		return true
	}
	return k.counted(i, text) || indent(k.typed[n]) > indent(k.typed[i]) && n == i+1 ||
		deeper(k.marks[i], k.marks[n], text, k.plain[n], k.colons) || parts(k.typed, i, text) && !heads(k.plain[n])
}

// counted tells whether a word or two open a part, two or more lines of which all say how much: "Shots" over what is
// thrown from where.
func (k *sketch) counted(i int, text string) bool {
	opens := (i == 0 || strings.TrimSpace(k.typed[i-1]) == "") && k.marks[i] == unmarked
	if !opens || len(strings.Fields(text)) > 2 || anyAmount.MatchString(text) || event(text) {
		return false
	}
	n := i + 1
	for n < len(k.plain) && strings.TrimSpace(k.plain[n]) != "" {
		if !strings.ContainsAny(k.plain[n], "123456789") {
			return false
		}
		n++
	}
	return n > i+2
}

// bareNumber is a number before a word, or a name of figures, as some count their lines: "2 Inchworms", "3 1v1s 5".
var bareNumber = pattern.Must(`^\s*(\d{1,2}) +([A-Za-z].*|\d{1,2} ?[vx/×-] ?\d.*)$`)

// uncount takes the numbers from lines that are counted from 1 on without a sign: three and more.
func uncount(lines []string, marks []mark) {
	number := func(i int) int {
		if m := bareNumber.FindStringSubmatch(lines[i]); m != nil && marks[i] == unmarked {
			n, _ := strconv.Atoi(m[1])
			return n
		}
		return 0
	}
	for i := 0; i < len(lines); i++ {
		n := 0
		for i+n < len(lines) && number(i+n) == n+1 {
			n++
		}
		if n < 3 {
			continue
		}
		for k := range n {
			lines[i+k], marks[i+k] = bareNumber.ReplaceAllString(lines[i+k], "$2"), numbered
		}
		i += n - 1
	}
}

// cellToGo is a row of which the first cell is when.
var cellToGo = pattern.Must(`^\s*\|? ?(-?\d{1,3} ?(?:'|′|mins?)|\d{1,2}[:.]\d\d) +\| +([^|]+?) *\|?$`)

// uncell makes lines of a table's rows: what is done, how much, and what is told; its head is a note.
func uncell(lines []string) {
	rows := 0
	for _, line := range lines {
		if strings.Contains(line, " | ") {
			rows++
		}
	}
	for i := range lines {
		if m := cellToGo.FindStringSubmatch(lines[i]); m != nil { // when, and what
			lines[i] = m[1] + " - " + m[2]
		} else if rows >= 3 { // a table of strokes
			lines[i] = strings.ReplaceAll(strings.Trim(lines[i], "| "), " | ", "\t")
		}
	}
	rows = 0
	for _, line := range lines {
		if strings.Contains(strings.TrimSpace(line), "\t") {
			rows++
		}
	}
	if rows < 3 {
		return
	}
	first := true
	for i, line := range lines {
		cells := strings.FieldsFunc(line, func(r rune) bool { return r == '\t' })
		if len(cells) < 2 {
			continue
		}
		if lines[i] = cells[0] + " - " + strings.Join(cells[1:], ", "); first && !anyAmount.MatchString(line) {
			lines[i] = noteMark + strings.Join(cells, ", ")
		}
		first = false
	}
}

// What a list's headings, and what is a note in it, begin with where a line of it is read by
// itself.
const (
	headMark = "## "
	noteMark = "note: "

	// drillMark is how a coach says that a line is a drill, whatever it looks like.
	drillMark = "drill: "
)

// AsTyped is a line as it was typed, without what a list put before it.
func AsTyped(said string) string {
	return strings.TrimPrefix(strings.TrimPrefix(strings.TrimPrefix(said, headMark), noteMark), drillMark)
}

// section tells whether a line is the head of a part that has its own name here: a phase, a
// list after the end.
func section(text string) bool {
	list, _ := listHead(text)
	return list != "" || afterWhich.MatchString(text) || slices.ContainsFunc(slices.Collect(maps.Values(phaseNames)),
		func(names []string) bool { return slices.Contains(names, Fold(text)) })
}

// headName is what a heading is called: its words before who, where and when.
func headName(text string) string {
	text = strings.TrimSpace(inBrackets.ReplaceAllString(text, " ("))
	if at := headEnds.FindStringIndex(text); at != nil && at[0] > 1 {
		text = text[:at[0]]
	}
	return strings.Trim(text, " .:-#*=")
}

// saysNothing tells whether a line of a list is no drill: it says no amount, and no word of it
// is known to move anything.
func saysNothing(text string) bool {
	if _, known := movement.Of(text); known || anyAmount.MatchString(text) {
		return false
	}
	return len(strings.Fields(text)) > 3 || event(text)
}

// doses tells whether a line says how much of a movement.
func doses(text string) bool {
	text = clockWords.ReplaceAllString(text, "")
	return movement.Lead(text) != "" && anyAmount.MatchString(headTimes.ReplaceAllString(text, ""))
}

// parts tells whether a line that says when stands after an empty one, with a line straight below
// it: what is done of it has no amount.
func parts(lines []string, i int, text string) bool {
	opens := i == 0 || strings.TrimSpace(lines[i-1]) == ""
	when := headTimes.FindStringIndex(text)
	return opens && when != nil && i+1 < len(lines) && strings.TrimSpace(lines[i+1]) != "" &&
		len(strings.Fields(text[:when[0]])) <= 3 && when[0] > 0 && !event(text)
}

// deeper tells whether a line with the mark below belongs to one with the mark above that may
// be a heading: by the marks, or where an amount follows what says none and names no movement,
// or is in capitals; in a list that has headings with colons only those in capitals are more.
func deeper(above, below mark, text, next string, colons bool) bool {
	switch {
	case above == numbered && (below == lettered || below == bulleted),
		above == large && below != large && below != unmarked,
		above == lettered && (below == bulleted || below == numbered):
		return true
	case above == unmarked && below != unmarked:
		return true
	case above != unmarked || event(text):
		return false
	case inCapitals.MatchString(text), openers.MatchString(text) && !heads(next) && len(strings.Fields(text)) <= 9,
		hear.Group(strings.Trim(strings.Fields(text)[0], ",.")) && !heads(next) && movement.Lead(text) == "":
		return true
	}
	return !colons && movement.Lead(text) == "" && !heads(next) && len(strings.Fields(text)) <= 8
}

// event tells whether a line names something of the day that is fixed, or a pause.
func event(text string) bool {
	words := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return !unicode.IsLetter(r) })
	for _, w := range words {
		if slices.Contains(eventNames, w) || slices.Contains(pauses, w) {
			return true
		}
	}
	return hear.Event(text)
}

// pauses are what is neither a heading nor a drill.
var pauses = strings.Fields("water drink drinks tape whistle parade anthem shirts bibs helmets jersey jerseys " +
	"rest break music phones toilet")
