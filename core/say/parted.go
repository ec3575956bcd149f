package say

import (
	"cmp"
	"slices"
	"strings"

	"cuestart/core/hear"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

// parting is a list while it is parted into the things that it says.
type parting struct {
	*sketch
	person func(string) bool // tells whether a text names somebody
	clock  func(heading string) string
	shown  []string // as they were typed, where the list is read in another language
	ends   []bool   // before which lines what stood under a heading ends
	para   bool
	each   bool   // most of its lines have a word before what is done
	heads  string // how the heading above is called
	holds  string // how much it says of each line
	all    []Piece
}

func pieces(list []string, spanish bool, r *Reader) []Piece {
	list = ruledOff(list)
	shown := list
	if spanish {
		list = slices.Clone(list)
		for i := range list {
			list[i] = dosesInEnglish(list[i])
		}
	}
	p := &parting{sketch: outline(list, r), person: func(string) bool { return false },
		clock: func(heading string) string { return heading }, shown: shown}
	if r != nil {
		p.person, p.clock = lexicon{r}.Person, r.clocked
	}
	p.ends, p.para, p.each = partEnds(list, p.plain), paragraphs(p.plain), eachLabelled(p.plain)
	p.colons = slices.ContainsFunc(p.plain,
		func(line string) bool { return strings.HasSuffix(strings.TrimSpace(line), ":") })
	for i, line := range p.plain {
		p.line(i, line)
	}
	return p.all
}

// line adds what a line says.
func (p *parting) line(i int, line string) {
	if p.ends[i] {
		p.holds, p.heads = "", ""
		p.all = append(p.all, Piece{Line: i, Ends: true})
	}
	if text := strings.TrimSpace(line); strings.HasPrefix(line, headMark) || strings.HasSuffix(text, ":") ||
		section(text) {
		p.holds, p.heads = p.dose[i], headName(strings.TrimPrefix(text, headMark))
		if section(text) { // a phase is no name of a drill
			p.heads = ""
		}
	}
	if m := labelled.FindStringSubmatch(line); m != nil && p.ends[i] && section(m[1]) {
		// "5. Skills - passing in fours 4 min", among headings
		line = m[1] + ": " + m[2]
	}
	if head, drills := unfold(line, p.ends[i], p.person); len(p.plain) > 2 && drills != nil {
		p.heads = headName(strings.TrimPrefix(head, headMark))
		p.all = append(p.all, unfolded(i, head, drills, head != "" && among(p.shown, p.plain, i))...)
		return
	}
	if p.label(i, line) {
		return
	}
	under := len(p.all) > 0 && strings.HasPrefix(p.all[len(p.all)-1].Text, headMark)
	if p.heads != "" && amountAlone(line) && (p.are[i] == hear.Drill || under) { // Sprint, and below it: 3 x 15 m, full
		line = p.heads + " " + strings.TrimSpace(line)
	}
	p.sentences(i, line)
}

// label adds a heading and what is done under it of a line that has both: "Quiet: lie down, 1
// minute", among headings with colons.
func (p *parting) label(i int, line string) bool {
	m := labelIn(line)
	if m == nil || strings.HasPrefix(line, noteMark) || !(p.colons && headsOne(m[1], m[2], p.person) ||
		p.each && anyAmount.MatchString(m[2]) && !event(m[1])) {
		return false
	}
	if first, _, _ := strings.Cut(m[2],
		","); !hasWord.MatchString(oneAmount.ReplaceAllString(amountWords.ReplaceAllString(first, " "), " ")) {
		m[2] = headName(m[1]) + " " + m[2]
	}
	p.heads = headName(m[1])
	p.all = append(p.all, Piece{Line: i, Text: p.clock(headMark + m[1] + m[3])}, Piece{Line: i, Text: m[2]})
	return true
}

// labelIn is the label of a line, what stands behind it, and the time before it, "1.50 Raise: jog x
// 4"; nil: it has none.
func labelIn(line string) []string {
	when := timeFirst.FindString(line)
	m := labelled.FindStringSubmatch(line[len(when):])
	if m == nil {
		return nil
	}
	if when = strings.Trim(when, " T-–—"); when != "" {
		when = " - at " + when
	}
	return append(m, when)
}

// timeFirst is the time of the day, or minutes to go with a sign, at the front of a line.
var timeFirst = pattern.Must(`^(?:\d{1,2}[.:]\d\d|T ?-? ?\d{1,3}|-\d{1,3}) +(?:[-–—] +)?`)

// sentences adds the sentences of a line; those that only tell of what stands before them are told with it.
func (p *parting) sentences(i int, line string) {
	parts := slices.Concat(apply(sentences(line), p.byPeople)...)
	for n, one := range parts {
		if n > 0 && asides.MatchString(one) && !anyAmount.MatchString(one) {
			last := &p.all[len(p.all)-1]
			last.Text = strings.TrimRight(last.Text, ". ") + " (" + strings.TrimRight(one, ". ") + ")"
			continue
		}
		piece := Piece{Line: i, Text: one, Para: p.para, Dose: cmp.Or(p.dose[i], p.holds),
			Last: n > 0 && n == len(parts)-1 && p.marks != nil && p.marks[i] != unmarked}
		if len(parts) == 1 {
			piece.Kind = p.are[i]
			if p.typed[i] != p.shown[i] {
				piece.Said = strings.TrimSpace(p.shown[i])
			}
		}
		p.all = append(p.all, piece)
	}
}

// byPeople parts a sentence in which several people, or groups, do something each, with its amount: "shooters shoot 20,
// defenders w Kay intercepts x6".
func (p *parting) byPeople(text string) []string {
	parts := outside(text, ',')
	for i, part := range parts {
		parts[i] = strings.TrimSpace(part)
		first, rest, _ := strings.Cut(parts[i], " ")
		if len(parts) < 2 || !p.person(first) && !hear.Group(first) || !anyAmount.MatchString(rest) ||
			!hasWord.MatchString(oneAmount.ReplaceAllString(amountWords.ReplaceAllString(rest, " "), " ")) ||
			goesOn.MatchString(rest) {
			return []string{text}
		}
	}
	return parts
}

// apply is what is made of each of several texts.
func apply(list []string, do func(string) []string) (all [][]string) {
	for _, one := range list {
		all = append(all, do(one))
	}
	return all
}

// ruler is a line of signs alone, with which parts are ruled off.
var ruler = pattern.Must(`^\s*(?:[-–—_=*~#•.]\s*){2,}$`)

// ruledOff is a list with empty lines where it is ruled off.
func ruledOff(list []string) []string {
	list = slices.Clone(list)
	for i, line := range list {
		if ruler.MatchString(line) {
			list[i] = ""
		}
	}
	return list
}

// eachLabelled tells whether a list without headings has a word before what is done in most of its
// lines, three at least:
// "Throwing – 20 m x 8, 30 m x 6".
func eachLabelled(lines []string) bool {
	labels, others := 0, 0
	for _, line := range lines {
		switch m := labelIn(line); {
		// in the form of a plan
		case strings.HasPrefix(line, headMark), strings.HasSuffix(strings.TrimSpace(line), ":"),
			strings.Contains(line, `"`):
			return false
		case m != nil && len(strings.Fields(m[1])) < 5 && amounts(m[2]) > 1:
			labels++
		case anyAmount.MatchString(line) && !strings.HasPrefix(line, noteMark):
			others++
		}
	}
	return labels > 2 && 2*labels > others
}

// amounts is in how many parts of a text an amount is said.
func amounts(text string) (n int) {
	for _, part := range outside(text, ',') {
		if anyAmount.MatchString(part) {
			n++
		}
	}
	return n
}

// headsOne tells whether a label heads what follows it, one drill with its amount: it is a word or two, and neither
// people nor what is done.
func headsOne(label, drill string, person func(string) bool) bool {
	return len(strings.Fields(label)) < 3 && doses(drill) && movement.Lead(label) == "" && !hear.Group(label) &&
		!person(label) && !notLabels.MatchString(label) && !event(label) && !strings.ContainsAny(label, "()")
}

// amountAlone tells whether a line says how much, and not of what.
func amountAlone(line string) bool {
	rest := oneAmount.ReplaceAllString(amountWords.ReplaceAllString(line, " "), " ")
	return anyAmount.MatchString(line) && !ofFigures.MatchString(line) &&
		!hasWord.MatchString(effortWords.ReplaceAllString(rest, " "))
}

// ofFigures is a name that is figures: 90/90, 5-10-5, 4v4.
var ofFigures = pattern.Must(`(?i)^(?:90[/-]90s?|\d{1,2}-\d{1,2}-\d{1,2}|\d{1,2} ?(?:v|vs|on) ?\d{1,2}|\d-\d)\b`)

// effortWords are how hard something is done.
var effortWords = pattern.Must(`(?i)\b(?:full|flat|out|all|max|easy|hard|quick|fast|slow|steady|build|building|pace|speed)\b`)

// unfolded are the drills of a line under its head, or, where that heads nothing, with it told of each.
func unfolded(line int, head string, drills []string, told bool) (all []Piece) {
	if head != "" && !told {
		all = append(all, Piece{Line: line, Text: head})
	}
	for _, one := range drills {
		if told {
			one += " (" + strings.TrimPrefix(head, headMark) + ")"
		}
		all = append(all, Piece{Line: line, Text: one})
	}
	return all
}

// asides are sentences that only say how what stands before them is done: "Walking only at first."
var asides = pattern.Must(`(?i)^(?:[a-z]+ ){0,3}(?:only|at first|nice and [a-z]+|no racing|not a race|quality|relaxed)\b[a-z ]*\.?$`)
