package say

import (
	"slices"
	"strconv"
	"strings"

	"cuestart/core/hear"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

// What stands at the front of a line and says when it begins: "T-40", "-35", "40' -", "2.30pm".
var (
	toGoFirst  = pattern.Must(`(?i)^(?:t ?(?:-|–|−|minus) ?|t minus )(\d{1,3})(?: ?(?:mins?|'|′))?\b[:.,]?(?: ?[-–—])? +(\S.*)$`)
	bareToGo   = pattern.Must(`^[-–−](\d{1,3})(?: ?(?:mins?|'|′))?[:.,]?(?: ?[-–—])? +([^\d\s].*)$`)
	dashToGo   = pattern.Must(`^(\d{1,3}) ?(?:mins?|'|′)?(?:[:.,]| ?[-–—])+ *([^\d\s].*)$`)
	minutesGo  = pattern.Must(`(?i)^(\d{1,3}) ?(?:mins?|minutes?|'|′) (?:before|out|to go)(?: (?:the )?(?:match|game|start|session|KO|kick[- ]?off))?[:,]?(?: ?[-–—])? +(\S.*)$`)
	clockAhead = pattern.Must(`(?i)^(\d{1,2})(?:[:.](\d\d))? ?(am|pm)[:.,]?(?: ?[-–—])? +(\S.*)$`)
	clocksHead = pattern.Must(`^(\d{1,2}[:.]\d\d) ?(?:-|–|—|to|until) ?(\d{1,2}[:.]\d\d)[:,]?(?: ?[-–—])? +(\S.*)$`)
	clockFront = pattern.Must(`^(\d{1,2}[:.]\d\d)[:,]?(?: ?[-–—])? +(\S.*)$`)
)

// whenFirst is a line that says at its front when it begins: what is done, and when; "" where it does not.
// Bare numbers are minutes to go only where those of the list fall.
func whenFirst(line string, falls bool) (rest, when string) {
	if m := toGoFirst.FindStringSubmatch(line); m != nil {
		return m[2], m[1]
	}
	if m := minutesGo.FindStringSubmatch(line); m != nil {
		return m[2], m[1]
	}
	if m := clockAhead.FindStringSubmatch(line); m != nil {
		hour, _ := strconv.Atoi(m[1])
		if hour %= 12; strings.EqualFold(m[3], "pm") {
			hour += 12
		}
		minute, _ := strconv.Atoi(m[2])
		return m[4], clockOf(hour, minute)
	}
	for _, re := range []*pattern.Pattern{bareToGo, dashToGo} {
		if m := re.FindStringSubmatch(line); m != nil && falls {
			return m[2], m[1]
		}
	}
	return line, ""
}

func clockOf(hour, minute int) string {
	return strconv.Itoa(hour) + ":" + strconv.Itoa(minute/10) + strconv.Itoa(minute%10)
}

// bareClock is a line that begins with a time of the day in four figures: "1000 whole squad".
var bareClock = pattern.Must(`^(\s*[-*•]?\s*)([01]?\d|2[0-3])([0-5]\d) +([A-Za-z(].*)$`)

// withClocks are the lines of a list with a colon in times of the day that begin them in four
// figures; they are those where three or more rise.
func withClocks(lines []string) []string {
	all, last, n := slices.Clone(lines), 0, 0
	for i, line := range lines {
		m := bareClock.FindStringSubmatch(line)
		if m == nil || len(m[2]) < 2 || metresFirst.MatchString(m[4]) {
			continue
		}
		at, _ := strconv.Atoi(m[2] + m[3])
		if at <= last {
			return lines
		}
		all[i], last, n = m[1]+m[2]+":"+m[3]+" "+m[4], at, n+1
	}
	if n < 3 {
		return lines
	}
	return all
}

// metresFirst is what follows a number of metres.
var metresFirst = pattern.Must(`(?i)^(?:m|metres?|yds?|yards?|free|easy|swim|row|erg|jog|run|skips?|steps)\b`)

// minutesEnd is a line that says at its end how long or how far, metresSaid what can only be metres.
var (
	minutesEnd = pattern.Must(`^(.*\pL.*?[ :])(\d{1,2})m$`)
	metresSaid = pattern.Must(`\b(?:1[1-9]|[2-9]\d|\d{3,}) ?m\b|\b\d+ ?(?:metres|yds|yards)\b|[x×] ?\d+ ?m\b|\b\d+ ?m ?[x×]`)
)

// withMinutes are the lines of a list in which m are minutes, with min for it: where three or
// more end in so many, most of them of what goes nowhere, and nothing in the list can only be
// metres.
func withMinutes(lines []string) []string {
	all, n, goes := slices.Clone(lines), 0, 0
	for i, line := range lines {
		if metresSaid.MatchString(line) {
			return lines
		}
		m := minutesEnd.FindStringSubmatch(strings.TrimSpace(line))
		if m == nil {
			continue
		}
		if of, known := movement.Of(m[1]); known && of.Travels {
			goes++
		}
		all[i], n = m[1]+m[2]+" min", n+1
	}
	if n < 3 || 3*goes > n {
		return lines
	}
	return all
}

// spanHead is a line that says at its front from when to when it is: "40 - 34 Raise".
var spanHead = pattern.Must(`^(\d{1,2})(?: ?(?:mins?|'|′))? ?(?:-|–|—|to) ?(\d{1,2})(?: ?(?:mins?|'|′))?[:.,]?(?: ?[-–—])? +([A-Za-z*].*)$`)

// spansFall tells whether two or more lines say so, each later than the one above and none as
// long as a count of a drill could be meant.
func spansFall(lines []string) bool {
	last, n := 1000, 0
	for _, line := range lines {
		m := spanHead.FindStringSubmatch(strings.TrimSpace(line))
		if m == nil {
			continue
		}
		from, _ := strconv.Atoi(m[1])
		to, _ := strconv.Atoi(m[2])
		if from <= to || from >= last {
			return false
		}
		last, n = from, n+1
	}
	return n >= 2
}

// fallsApart are the lines that begin with minutes to go, three or more, each later than the one
// above, and with others between them that do not, "60 Specialists", "45 Skill on air", or of
// which most cannot be so many of something: "55 easy jog 6 min", "35 spikes on", "25 call room".
func fallsApart(lines []string) map[int]string {
	of, first, last, apart, before, counts, others, moves := map[int]string{}, 0, 1000, 0, -1, 0, 0, false
	for i, line := range lines {
		m := numberFront.FindStringSubmatch(line)
		if m == nil {
			if strings.TrimSpace(line) != "" {
				others++
			}
			continue
		}
		at, _ := strconv.Atoi(m[1])
		if at >= last {
			return nil
		}
		if first == 0 {
			first = at
		}
		if before >= 0 && i-before > 1 {
			apart++
		}
		moving := movement.Lead(m[2]) != ""
		moves = moves || moving && before == i-1
		if moving && !anyAmount.MatchString(m[2]) {
			counts++
		}
		of[i], last, before = m[1], at, i
	}
	if 3*counts <= len(of) && (len(of) > 3 && others <= len(of)/2 || len(of) > 4 && first >= 25 && first-last >= 15) {
		return of
	}
	if len(of) < 3 || apart < len(of)-1 || moves {
		return nil
	}
	return of
}

// numberFront is a line that begins with a number, whatever follows it: "33 1 x 120".
var numberFront = pattern.Must(`^\s*(\d{1,2}) +([A-Za-z].*|\d+ ?[x×] ?\d.*)$`)

// countedTwice is a line with a number before what is done and a count behind it: in a list that
// says minutes to go, the first is one of them, "18 goal kicks x 4 each side".
var countedTwice = pattern.Must(`^(\d{2}) +([A-Za-z][^\d]* x ?\d{1,2}\b.*)$`)

// saysToGo is a line that says from or at how many minutes to go what stands in it, or below it, is done.
var saysToGo = pattern.Must(`(?i)^(?:from|at) \d{1,2}\b(?:$|[:, ])`)

// endToGo is a line that says at its end when it begins: "Indy -35".
var endToGo = pattern.Must(`^(.*?[A-Za-z)])(?:,| [-–—])? (?:at )?[-–−](\d{1,3})(?: ?(?:mins?|'|′))?( \(.*\))?$`)

// Which numbers count as falling.
const onlySigned, signedOrNot = true, false

// falls tells whether several lines begin or end with numbers that fall, as minutes to go do; signed
// tells whether only those with a minus count.
func falls(lines []string, signed bool) bool {
	last, n := 1000, 0
	for _, line := range lines {
		number, text := "", strings.TrimSpace(line)
		if m := bareToGo.FindStringSubmatch(text); m != nil {
			number = m[1]
		} else if m := dashToGo.FindStringSubmatch(text); m != nil && !signed {
			number = m[1]
		} else if m := endToGo.FindStringSubmatch(text); m != nil {
			number = m[2]
		}
		if number == "" {
			continue
		}
		at, _ := strconv.Atoi(number)
		if at >= last {
			return false
		}
		last, n = at, n+1
	}
	return n >= 3
}

// labelled is a line of several drills under a word that says what they are: "bands: ER 10, IR 10".
var labelled = pattern.Must(`^((?:drills|dynamics?|moves|run drills|running drills|sprint drills|mobility|footwork|movement prep) \d+ ?(?:m|yds?|yards|metres)(?: x ?\d+)?|[A-Za-z][A-Za-z'&/ -]*?(?: (?:on|at) (?:the )?\d{1,2}m?)?(?: in [2345]s)?(?: \([^)]*\))?|[Ii]n (?:[2345]s|pairs|twos|threes|fours))(?: ?: | [-–—] )(\S.*)$`)

// Whether a line stands among headings.
const aPeer, noPeer = true, false

// unfold parts a line of several drills, each with its own amount, from the word before them that says
// what they are; nil where it is no such line. Parts and sides of one drill stay with it. A peer of headings
// may have one drill alone.
func unfold(text string, peer bool, person func(string) bool) (head string, drills []string) {
	when := atEnd.FindString(text)
	text = strings.TrimSuffix(text, when)
	m := labelled.FindStringSubmatch(text)
	if m == nil || strings.Contains(text, `"`) {
		return "", nil
	}
	label, together := strings.TrimSpace(inBrackets.ReplaceAllString(m[1], "")), inGroups.MatchString(m[1])
	if !together && (len(strings.Fields(label)) > 5 || hear.Group(label) || notLabels.MatchString(label) ||
		event(label) && !beforeWhat.MatchString(label) || section(label) || person(label) ||
		anyAmount.MatchString(label) && !oneDose.MatchString(m[1])) {
		return "", nil
	}
	ofBody := stretched.MatchString(label)
	moves, parts := 0, 0
	for _, one := range outside(m[2], ',') {
		one = strings.TrimPrefix(strings.TrimPrefix(one, "and "), "then ")
		if of := oneDose.FindStringSubmatch(m[1]); of != nil && !anyAmount.MatchString(one) {
			// "drills 20 m x 2: A skip, B skip"
			one = strings.TrimRight(one, " .") + " " + of[1]
		}
		bare := amountWords.ReplaceAllString(inBrackets.ReplaceAllString(one, " "), " ")
		name := strings.TrimSpace(oneAmount.ReplaceAllString(bare, " "))
		if name == "" || !hasWord.MatchString(name) || !anyAmount.MatchString(inBrackets.ReplaceAllString(one, "")) ||
			len(strings.Fields(name)) > 6 || cueWords.MatchString(name) {
			return "", nil
		}
		if partOnly.MatchString(name) {
			parts++
		} else if movement.Lead(name) != "" {
			moves++
		}
		drills = append(drills, one)
	}
	if len(drills) < 2 && !(peer && movement.Lead(label) == "" && parts == 0) ||
		!peer && moves == 0 && (parts > 0 || !ofBody && movement.Lead(label) != "" || len(drills) < 3) {
		return "", nil
	}
	if inPlaces.MatchString(label) { // where they are is told with each
		for i := range drills {
			drills[i] += " (" + openers.ReplaceAllString(strings.ToLower(label), "") + ")"
		}
		return "", drills
	}
	return headMark + strings.TrimSpace(m[1]) + when, drills
}

var hasWord = pattern.Must(`\pL{2,}|\b[A-Z]\b`)

// oneDose is a label that says how much of each of what follows it.
var oneDose = pattern.Must(`(?i)^[a-z ]+? (\d+ ?(?:m|yds?|yards|metres)(?: x ?\d+)?)$`)

// inPlaces is a label that only says where what follows it is done.
var inPlaces = pattern.Must(`(?i)^(?:then |next |now )?(?:in|on|at|by) (?:the|a|your) `)

// beforeWhat is a label that says before or after what of the day its drills are.
var beforeWhat = pattern.Must(`(?i)^(?:before|after) `)

// atEnd is when a line begins, as the list's own form has it.
var atEnd = pattern.Must(` - (?:at [\d:.]+|from [\d:.]+ to [\d:.]+)$`)

// partEnds tells before which lines what stood under a heading ends: those that stand no deeper than it
// and are no headings, and what follows a line that is a heading and all that stands under it.
func partEnds(typed, lines []string) []bool {
	ends, open, under, deep, below := make([]bool, len(lines)), false, mark(0), 0, unmarked
	letters := lettersOf(typed)
	for i, line := range lines {
		text := strings.TrimSpace(line)
		_, m := unmark(typed[i], letters > 1)
		_, drills := unfold(line, noPeer, func(string) bool { return false })
		if drills != nil && among(typed, lines, i) {
			drills, text = nil, "inner"
		}
		switch in := indent(typed[i]); {
		case text == "" || strings.HasPrefix(text, noteMark):
		case strings.HasPrefix(text, headMark) || section(text) || strings.HasSuffix(text, ":") || drills != nil:
			open, under, deep, below = true, m, in, -1
			if drills != nil {
				deep, under = in, -1
			}
		// it has a time of its own
		case open && (atEnd.MatchString(text) || clockFront.MatchString(text)) && in <= deep:
			ends[i] = true
			_, own := unfold(line, aPeer, func(string) bool { return false })
			open, under = own != nil || labelled.MatchString(text), -1
		case open && (under == -1 && in <= deep || under > unmarked && m == under && in <= deep || in < deep ||
			m == unmarked && below > unmarked && in <= deep):
			ends[i], open = true, false
		case below == -1:
			below = m
		}
	}
	return ends
}

// among tells whether a line of several drills under a word stands under a heading, or counted, among lines of one
// drill each: the word heads nothing, it is told of them.
func among(typed, lines []string, i int) bool {
	nobody := func(string) bool { return false }
	_, m := unmark(typed[i], noLetters)
	plain, labels, under := 0, 1, m == numbered
	for _, step := range []int{-1, 1} {
		for n := i + step; n >= 0 && n < len(lines); n += step {
			text := strings.TrimSpace(lines[n])
			if heading := strings.HasPrefix(text, headMark) || strings.HasSuffix(text, ":") || section(text); heading ||
				text == "" {
				under = under || heading && step < 0
				break
			}
			if head, drills := unfold(lines[n], noPeer, nobody); drills != nil && head != "" {
				labels++
			} else if anyAmount.MatchString(text) && !strings.HasPrefix(text, noteMark) && !labelled.MatchString(text) {
				plain++
			}
		}
	}
	return under && plain > labels
}

// lettersOf is how many lines begin with a letter of an outline.
func lettersOf(lines []string) (n int) {
	for _, line := range lines {
		if byLetter.MatchString(line) {
			n++
		}
	}
	return n
}

// notLabels are people, and what is told, before a colon.
var notLabels = pattern.Must(`(?i)^(?:the )?(?:forwards?|fixed|bring|have|kit|lead(?:er)?s?|nb|note|cues?|remember|focus|score|scoring|today|rest)\b`)

// What several parts of the body, or of a group's work, stand under.
var (
	stretched = pattern.Must(`(?i)^(?:static |dynamic |then )?(?:stretch(?:es|ing)?|(?:foam )?roll(?:ing)?|mobility|mobs|activation)\b`)
	inGroups  = pattern.Must(`(?i)^in (?:[2345]s|pairs|twos|threes|fours)$`)
)

// What is no name in a part of a line: how much, which side, which way.
var (
	oneAmount   = pattern.Must(`(?i)\d+(?:[.:]\d+)? ?(?:m|s|x|yds?|yards?|ft|feet|secs?|seconds?|mins?|minutes?|metres?|meters?|reps?|%|'|ea|e/s)?\b/?|[×/@]`)
	amountWords = pattern.Must(`(?i)\b(?:x ?\d+|each|ea|per|a|side|leg|arm|hand|foot|way|of|and|the|on|to|both|twice|once|sets?|reps?|rounds?|times?|holds?|rest|then|dozen|couple|two|three|four|five|six|eight|ten|twelve|fifteen|twenty|thirty)\b`)
	cueWords    = pattern.Must(`(?i)\b(?:pace|quarter|effort|apart|you|your|their|first|last|minutes? to go)\b`)
	partOnly    = pattern.Must(`(?i)^(?:(?:left|right|front|back|side|forwards?|backwards?|in|out|up|down|high|low|inside|outside|middle|near|far|wide|narrow|short|long|strong|weak|easy|hard|full|fast|slow|steady|light|heavy|clockwise|anticlockwise|from|at|off|over|under|with|no|l|r|fwd|bwd|fh|bh|straight|bent|quick|pause|palms?|thumbs?|toes|heels) ?)+$`)
)

// outside parts a text at a sign that does not stand in brackets or quotation marks.
func outside(text string, sign byte) (parts []string) {
	closed, from := hideInside(text), 0
	for i := range closed {
		if closed[i] == sign {
			parts, from = append(parts, strings.TrimSpace(text[from:i])), i+1
		}
	}
	return append(parts, strings.TrimSpace(text[from:]))
}

// indent is how far in a line begins.
func indent(line string) (n int) {
	for _, c := range line {
		switch c {
		case '\t':
			n += 4
		case ' ', '\u00a0':
			n++
		default:
			return n
		}
	}
	return 0
}
