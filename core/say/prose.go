package say

import (
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/hear"
	"cuestart/core/pattern"
	"cuestart/core/plan"
)

// sentenceEnd parts what is said in one breath: a semicolon, or a full stop before a
// capital letter.
var sentenceEnd = pattern.Must(`;\s*|([a-z)"]{2,}|[a-zA-Z ]\d+|\d ?[ms%])\.\s+([A-Z]|\d{1,2} (?:out|to go|to \d|[a-z]{2,}))`)

// Lines are the lines of a text: what was written in one of its own, or as a sentence.
func Lines(text string) (lines []string) {
	for _, piece := range Pieces(strings.Split(strings.ReplaceAll(text, "\r", ""), "\n")) {
		lines = append(lines, piece.Text)
	}
	return lines
}

// Piece is one thing that is said in a list: a line of it, or a sentence of one.
type Piece struct {
	Line int // of the list, from 0
	Text string
	Said string    // as it was typed, in another language than it is read in; "": as it is
	Ends bool      // nothing is said: what stood under the last heading ends
	Para bool      // it is of one of several paragraphs, which no heading parts
	Dose string    // how much its heading says of each line that says none itself
	Kind hear.Kind // what it is in its list; "": as it is by itself
	Last bool      // it is the last of several sentences of a line that is marked as one of its list
}

// ReadPiece reads one thing of a list.
func (r *Reader) ReadPiece(p Piece) Line {
	text := r.again(p.Text)
	l := r.inList(r.Read(text), text, p.Kind)
	if l.Said = p.Text; text != p.Text && l.Is == IsNote {
		l = r.Read(p.Text)
	}
	if p.Last && l.Is == IsBlock && l.Rounds == 0 && !strings.HasSuffix(text, ":") {
		// it heads nothing: "Shots, 4 each. Danny in goal"
		l = Line{Is: IsNote, Said: l.Said, Note: OneLine(text)}
	}
	l.at(text)
	if l = r.held(l, p); l.Is == IsDrill {
		r.above = &l
	}
	l.Para = p.Para
	if p.Said != "" {
		if l.Said = p.Said; l.Is == IsNote {
			l.Note = p.Said
		}
		for i := range l.Cues {
			l.Cues[i] = ownWords(l.Cues[i], p.Said)
		}
		if l.Name != "" && l.Code == "" {
			l.Name = ownWords(l.Name, p.Said)
		}
	}
	return l
}

// Pieces are the things that a list says, without the marks of its lines, its headings told
// from what is done.
func Pieces(list []string) (all []Piece) {
	return pieces(list, Spanish(list), nil)
}

// Pieces are the things that a list says, in the language of the reader or, where they tell that they
// are, in Spanish.
func (r *Reader) Pieces(list []string) []Piece {
	spanish := r.Language == "es" || Spanish(list)
	all := pieces(list, spanish, r)
	for i, piece := range all {
		if spanish {
			break
		}
		if head, heads := strings.CutPrefix(piece.Text, headMark); heads &&
			r.onlyRemarks(strings.TrimSpace(list[piece.Line]), head) {
			all[i].Text = strings.TrimSpace(list[piece.Line])
		}
	}
	return all
}

// onlyRemarks tells whether what looks like a heading of a list is, as sure as can be, a remark: "bring a jumper for
// after".
func (r *Reader) onlyRemarks(line, head string) bool {
	const enough = 0.85
	if strings.HasSuffix(line, ":") || !strings.Contains(line, strings.TrimSuffix(head, ":")) {
		return false
	}
	l := r.Heard(line)
	return l.Is == IsNote && l.sure >= enough
}

// paragraphs tells whether a list without any heading is parted by its empty lines: each part is one block.
func paragraphs(lines []string) bool {
	parts, long, n := 0, 0, 0
	for _, line := range append(lines, "") {
		text := strings.TrimSpace(line)
		switch {
		case strings.HasPrefix(text, noteMark):
		case text != "":
			if n++; strings.HasPrefix(text, headMark) || section(text) || strings.HasSuffix(text, ":") ||
				marked.MatchString(text) {
				return false
			}
		case n > 0:
			parts, long, n = parts+1, max(long, n), 0
		}
	}
	return parts > 1 && long > 1 && long <= plan.MaxItems
}

// goesOn is a sentence that only says how often or how hard what the one before it says is done.
var goesOn = Spaced(`^` + num +
	`~(?:of (?:those|them|these|each)|goes|times|reps|rounds|sets|each|(?:a|per)~(?:side|leg|arm|hand|foot)|x|at~\d+)\b`)

// shortBefore is a word in short, which its full stop does not end a sentence with: no. 10.
// littleFirst is a sentence that only says that people come in, or that it is over: "10.25 in. Water".
var littleFirst = pattern.Must(`(?i)^(?:(?:[-T]?\d{1,3}|\d{1,2}[:.]\d\d)\S* )?(?:back )?(?:in|out|off|done|finish|finished|over|up)$`)

var shortBefore = pattern.Must(`(?i)\b(?:no|nr|approx|max|min|secs?|mins|reps?|ea|vs|ca)$`)

// thenFirst is a word that only joins a line to the one before it.
var thenFirst = pattern.Must(`(?i)^(?:and |then |after that,? |next,? )+`)

// How somebody tells it: "50 out I roll my hips" is to roll hips, at 50.
var (
	outFirst = pattern.Must(`(?i)^(?:at )?(\d{1,2}) (?:min(?:utes?)? )?(?:out|to go),? (.{3,}?)\.?$`)
	whoTells = pattern.Must(`(?i)^(?:i|we|they|she|he) (roll|stretch|jog|do|bike|row|throw|kick|bowl|skip|walk|swing)\b`)
	ownParts = pattern.Must(`(?i)\b(roll|stretch|circle|rock|swing) (?:my|our|their|her|his) `)
)

// What only says where in the list something stands, or of what sort it is.
var (
	labelFirst = pattern.Must(`(?i)^([a-z]+(?: [a-z]+)?) (?:first|next|then|last|to (?:start|begin|finish)): (.+)$`)
	endsWith   = pattern.Must(`(?i)^(?:it |we )?(?:ends?|finish(?:es)?|starts?|begins?) (?:it )?with (?:an? )?`)
)

// at holds a line that says last when it is, where that was taken for the end of what is told: "30 out the post work: …
// because she shoots low".
func (l *Line) at(text string) {
	m := atLast.FindStringSubmatch(text)
	if m == nil || !l.Does() || l.At != nil || l.Window != nil {
		return
	}
	at := -60 * number(m[1])
	l.At = &at
	for i := range l.Cues {
		l.Cues[i] = strings.TrimSuffix(l.Cues[i], m[0])
	}
	l.Note = strings.TrimSuffix(l.Note, m[0])
}

// atLast is when something is, as [plainly] puts it last.
var atLast = pattern.Must(`, at (\d{1,2})$`)

// plainly is what is told, put as a line.
func plainly(one string) string {
	one = strings.TrimSpace(thenFirst.ReplaceAllString(one, ""))
	if m := labelFirst.FindStringSubmatch(one); m != nil && strings.Contains(m[2], ",") { // "footwork first: shuffle …"
		one = m[2]
	}
	one = endsWith.ReplaceAllString(one, "")
	at := ""
	if m := outFirst.FindStringSubmatch(one); m != nil {
		one, at = m[2], ", at "+m[1]
	}
	one = ownParts.ReplaceAllString(whoTells.ReplaceAllString(one, "$1"), "$1 ")
	return one + at
}

// sentences are the lines of one line of text in which several things are said. What
// stands in brackets or in quotation marks stays whole, and so does a note. Lanes that are
// said of the first hold for the others.
func sentences(text string) (list []string) {
	if strings.HasPrefix(strings.ToLower(text), "note:") {
		return []string{text}
	}
	if apart := besideOthers.FindAllStringIndex(text, -1); labelOf.MatchString(text) && apart != nil {
		// "Forwards: … / Backs: …"
		from := 0
		for _, at := range apart {
			list, from = append(list, sentences(text[from:at[0]])...), at[0]+3
		}
		return append(list, sentences(text[from:])...)
	}
	closed := hideInside(text)
	from, lanes := 0, ""
	put := func(one string) {
		if one = plainly(one); one == "" {
			return
		}
		if m := lanesFirst.FindString(one); m != "" {
			lanes = m
		} else {
			one = lanes + one
		}
		list = append(list, one)
	}
	for _, at := range sentenceEnd.FindAllStringSubmatchIndex(closed, -1) {
		if at[2] < 0 { // a semicolon
			put(text[from:at[0]])
			from = at[1]
			continue
		}
		if littleFirst.MatchString(text[from:at[3]]) || goesOn.MatchString(text[at[4]:]) ||
			shortBefore.MatchString(text[:at[3]]) && text[at[4]] <= '9' {
			// "4 of those, full tilt" is of what stands before it
			continue
		}
		put(text[from : at[3]+1]) // with the full stop
		from, lanes = at[4], ""
	}
	if put(text[from:]); len(list) == 0 {
		return []string{""} // a blank line ends a block
	}
	return list
}

// What is done beside one another: "Forwards: points, 6 each / Backs: hook and block, 5 each".
var (
	labelOf      = pattern.Must(`^[A-Z][A-Za-z ]{1,20}:`)
	besideOthers = pattern.Must(` / [A-Z][A-Za-z ]{1,20}: `)
)

// Label is who does a line, or what it is of, before its colon; "" where it has none.
func (l *Line) Label() string { return strings.TrimSuffix(labelOf.FindString(l.Said), ":") }

// Does tells whether a line is something that people do.
func (l *Line) Does() bool {
	return l.Is == IsDrill || l.Is == IsDrills || l.Is == IsCombo || l.Is == IsChoice || l.Is == IsLegs
}

// hideInside is a text of the same length, with what stands in brackets or quotation marks
// made unreadable.
func hideInside(text string) string {
	out := []byte(text)
	for _, re := range []*pattern.Pattern{brackets, quoted} {
		for _, at := range re.FindAllStringIndex(text, -1) {
			for i := at[0]; i < at[1]; i++ {
				out[i] = 'x'
			}
			if first := text[min(at[0]+1, len(text)-1)]; re == quoted && first >= 'A' && first <= 'Z' {
				// a sentence may begin with it
				out[at[0]] = 'X'
			}
		}
	}
	return string(out)
}

// stockOf reads "I have ten ropes and twenty hurdles": how many there are today, by the
// name of the kit. Nil where the text says something else.
func (k *knower) stockOf(text string) map[string]int {
	m := stockSaid.FindStringSubmatch(strings.TrimSuffix(text, "."))
	if m == nil {
		return nil
	}
	stock := map[string]int{}
	for _, part := range stockSplit.Split(m[1], -1) {
		one := stockPart.FindStringSubmatch(part)
		if one == nil {
			return nil
		}
		stock[k.kitNamed(one[2])] = number(one[1])
	}
	return stock
}

var (
	stockSaid  = Spaced(`^(?:(?:i|we|you)(?:'ve|~have)?(?:~got)?|there~are|have|kit:|stock:)~(` + num + `~.+)$`)
	stockSplit = Spaced(`~(?:,~and|,|\band|\+)~`)
	stockPart  = Spaced(`^~` + num + `~([a-z][a-z -]*?)(?:~(?:today|there|here|only))?~$`)
)

// kitNamed is kit by the name that the club or the book has for it: "hurdles" are a hurdle.
func (k *knower) kitNamed(said string) string {
	said = strings.TrimSpace(said)
	for _, kit := range slices.Concat(k.Kit, k.Index.kit) {
		if Fold(kit) == Fold(said) || Fold(kit) == single(Fold(said)) || single(Fold(kit)) == single(Fold(said)) {
			return kit
		}
	}
	return single(said)
}

// single is one of what a word says many of.
func single(many string) string {
	for _, end := range []string{"sses", "ches", "xes"} {
		if strings.HasSuffix(many, end) {
			return strings.TrimSuffix(many, "es")
		}
	}
	return strings.TrimSuffix(many, "s")
}

// regions parts "stretch calves and thighs" into a drill for each, where each is known
// with that verb; nil where it says something else.
func (s *scan) regions(l *Line) []Line {
	verb, rest, two := strings.Cut(l.Name, " ")
	if !two || l.Code != "" && l.Note == "" || !regionVerb.MatchString(verb) {
		return nil
	}
	var list []Line
	if l.Note != "" && l.Note != "once" {
		rest += ", " + l.Note
	}
	regions := regionSplit.Split(rest, -1)
	for _, region := range regions {
		name := strings.ToLower(verb) + " " + strings.TrimSpace(region)
		k, _ := s.Index.Find(single(strings.TrimSpace(region)) + " " + strings.ToLower(verb))
		if k == nil {
			if k, _ = s.Index.Find(name); k == nil {
				return nil
			}
		}
		line := *l
		line.Name, line.Code, line.Likely, line.Note = name, k.Code, nil, ""
		if l.Dose != nil {
			dose := *l.Dose
			if dose.Kind == drill.Time && dose.Seconds >= 60 && !dose.each { // so long for all of them
				dose.Seconds = max(5, dose.Seconds/len(regions)/5*5)
			}
			dose.settle(k, name)
			line.Dose = &dose
		}
		list = append(list, line)
	}
	if len(list) < 2 {
		return nil
	}
	return list
}

var (
	regionVerb  = Spaced(`^(?:stretch|roll|hold|rock|circle)$`)
	regionSplit = Spaced(`~(?:,~and|,|\band|\+|&)~`)
)
