package say

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

var (
	outAndBack = pattern.Must(`(?i)^[ \x01,]*(?:go |run )?out(?: with| in|:)? (.+?)[,;]?[ \x01]+(?:and[ \x01]+)?(?:come )?back(?: with| in|:)? (.+)$`)
	// A line as a sheet prints it: "Line: skips: 2 trips: out with skips, back with jog, 20 m".
	linePrinted = Spaced(`^.*?\b` + num + `~trips?~[:\x05,]?~(out .+)$`)
	zonesOf     = Spaced(`\b` + num + `~x~` + dec + `~(?:m|metres?|meters?|yards?)\b`)
	howOften    = Spaced(`\b(once|twice|` + num + `~(?:x|times|trips|rounds))\b`)
	legSplit    = Spaced(`~(?:\bthen\b|\+|,|\band\b)~`)
	roundsOf    = Spaced(`\b(?:` + num + `~(?:-|to|or)~)?` + num + `~rounds?\b`)
	drillSplit  = Spaced(`~(?:[,;]~(?:and~)?then\b|\bthen\b|\+)~`)
	atOnce      = Spaced(`\b(?:at the same time|meanwhile)\b`)
)

// legs reads a line that goes out with some drills and back with others.
func (s *scan) legs(l *Line) bool {
	text, cues := s.cues(s.text)
	printed := linePrinted.FindStringSubmatch(text)
	if printed != nil {
		text = printed[2]
	}
	m := outAndBack.FindStringSubmatch(text)
	if m == nil {
		return false
	}
	whole := newScan(s.Reader, m[1]+"\x04"+m[2], s.hidden)
	trips, metres := 1, 0.0
	if z := whole.take(zonesOf); z != nil {
		metres = decimal(z[2]) // so many zones of so many metres
	} else if z := whole.take(lengthsOf); z != nil {
		trips, metres = number(z[1]), decimal(z[2])
	} else if len(metresOf.FindAllStringIndex(whole.text, 2)) == 1 {
		metres = decimal(whole.take(metresOf)[1])
	}
	if printed != nil {
		trips = number(printed[1])
	} else if o := whole.take(howOften); o != nil {
		trips = max(1, times(strings.NewReplacer("trips", "", "rounds", "").Replace(o[1])))
	}
	out, back, _ := strings.Cut(whole.text, "\x04")
	l.Is, l.Trips, l.Cues = IsLegs, trips, cues
	l.Out, l.Back = s.way(out, metres), s.way(back, metres)
	if len(l.Out) == 0 || len(l.Back) == 0 {
		l.Out, l.Back, l.Cues, l.Trips = nil, nil, nil, 0
		return false
	}
	var names []string
	for _, leg := range l.Out {
		names = append(names, leg.Name)
	}
	l.Name = strings.Join(names, ", ")
	return true
}

// way is the legs of one way.
func (s *scan) way(text string, metres float64) (legs []Leg) {
	for _, part := range legSplit.Split(text, -1) {
		one := newScan(s.Reader, part, s.hidden)
		leg := Leg{Metres: metres}
		if z := one.take(metresOf); z != nil {
			leg.Metres = decimal(z[1])
		}
		leg.Where = one.over()
		name, _ := one.name(one.text)
		if name == "" {
			continue
		}
		leg.Name = name
		if k, _ := s.Index.Find(name); k != nil {
			leg.Code = k.Code
		}
		legs = append(legs, leg)
	}
	return legs
}

// over takes the place that a leg leads over.
func (s *scan) over() string {
	for _, at := range overWhere.FindAllStringIndex(s.text, -1) {
		for _, z := range s.Zones {
			if n := prefixOf(s.text[at[1]:], z); n > 0 {
				s.text = s.text[:at[0]] + soft + s.text[at[1]+n:]
				return z
			}
		}
	}
	return ""
}

var overWhere = Spaced(`\b(?:over|through|across|along|in|on)~(?:the~)?`)

// fixed reads something that is fixed: a known one, or a word for one with a span.
func (s *scan) fixed(l *Line) bool {
	name, _ := s.name(s.text)
	spoken := strings.ToLower(s.show(strings.TrimSpace(softRun.ReplaceAllString(segments(s.text)[0].text, " "))))
	if slices.Contains(eventNames, spoken) { // with its last word: kit on
		name = s.show(strings.TrimSpace(softRun.ReplaceAllString(segments(s.text)[0].text, " ")))
	}
	spoken = strings.ToLower(name)
	is := ""
	for _, f := range s.Fixed {
		if Fold(f) == Fold(name) || Fold(f) == Fold(softRun.ReplaceAllString(segments(s.text)[0].text, " ")) {
			is = f
		}
	}
	if is == "" && (s.stands || slices.Contains(eventNames, spoken) ||
		slices.Contains(eventNames, LastWord(spoken)) && len(strings.Fields(spoken)) < 4) {
		is = name
	}
	if is == "" {
		return false
	}
	switch w := l.Window; {
	case w != nil && w[0] != nil && w[1] != nil:
		l.From, l.To, l.Window = w[0], w[1], nil
	case l.At != nil:
		d := newScan(s.Reader, s.text, s.hidden).dose(l)
		seconds := 120
		if d != nil && d.Seconds > 0 {
			seconds = d.Seconds
		}
		to := *l.At + seconds
		l.From, l.To, l.At = l.At, &to, nil
	default:
		return false
	}
	l.Is, l.Name = IsFixed, is
	return true
}

// LastWord is the last word of a text; "" of none.
func LastWord(text string) string {
	words := strings.Fields(text)
	if len(words) == 0 {
		return ""
	}
	return words[len(words)-1]
}

// rounds takes how often a block is gone through, and the rest between.
func (s *counting) rounds(l *Line) bool {
	m := s.take(roundsOf)
	if m == nil {
		return false
	}
	d := &Dose{}
	s.rest(d)
	l.RestSeconds = d.RestSeconds
	l.often(m)
	return true
}

// often is how many rounds a match says, and how few will do.
func (l *Line) often(m []string) {
	if l.Rounds = number(m[2]); m[1] != "" {
		l.LeastRounds = min(number(m[1]), l.Rounds)
	}
}

// block reads the heading of a block: a name with rounds, or with a colon and no dose.
func (s *scan) block(l *Line) bool {
	defer func() { s.text = strings.Replace(s.text, colon, ":", 1) }()
	text := s.text
	if s.rounds(l) {
		s.text = strings.Replace(s.text, colon, ", ", 1)
		probe := newScan(s.Reader, s.text, slices.Clone(s.hidden))
		if probe.dose(&Line{}) != nil || drillSplit.MatchString(s.text) {
			return false
		}
		var name string
		name, l.Note = s.name(s.text)
		if strings.Contains(movement.Lead(name), "breath") { // "box breathing, 4 rounds"
			s.text, l.Rounds = fmt.Sprintf("%s, %d", text[:roundsOf.FindStringIndex(text)[0]], l.Rounds), 0
			return false
		}
		l.Is, l.Name = IsBlock, name
		return true
	}
	head, rest, parted := strings.Cut(text, colon)
	if !parted {
		head, rest, parted = strings.Cut(text, ":")
	}
	if !parted || strings.Trim(rest, " ,"+soft) != "" || head == "" {
		return false
	}
	head, l.Cues = s.cues(head)
	l.Name, l.Note = s.name(head)
	l.Is = IsBlock
	return l.Name != ""
}

// drills reads one drill, or several that a line joins.
func (s *scan) drills(l *Line) {
	var list []Line
	for _, part := range drillSplit.Split(s.text, -1) {
		for _, one := range s.shareDose(part) {
			list = append(list, s.drill(one))
		}
	}
	list = slices.DeleteFunc(list, func(line Line) bool {
		if line.Name == "" && len(list) > 1 {
			l.Note = strings.TrimSpace(l.Note + " " + line.Note)
			return true
		}
		return false
	})
	switch {
	case len(list) == 0 && l.says():
		l.Is = IsBlock // it is said of the block it stands in
	case len(list) == 0:
		l.Is, l.Note = IsNote, l.Said
	case len(list) == 1:
		line := list[0]
		if many := s.regions(&line); many != nil {
			l.Is, l.Drills = IsDrills, many
			return
		}
		l.Is, l.Name, l.Code, l.Dose, l.Exact, l.Cues, l.Likely, l.Slip = IsDrill, line.Name, line.Code, line.Dose,
			line.Exact, line.Cues, line.Likely, line.Slip
		l.AtOnce, l.Waves, l.PerLane, l.Alongside = line.AtOnce, line.Waves, line.PerLane, line.Alongside
		l.Note = strings.TrimSpace(l.Note + " " + line.Note)
		if l.Name == "" {
			l.Is, l.Note = IsNote, l.Said
		}
	default:
		l.Is, l.Drills = IsDrills, list
	}
}

// says tells whether something was understood of the line that is no drill.
func (l *Line) says() bool {
	return l.Who != nil || l.Where != "" || l.Leader != "" || l.At != nil || l.Window != nil || l.Before != "" ||
		l.After != "" || l.StraightAfter != "" || l.Priority != ""
}

// shareDose parts "push and brake, push and turn, four each" into drills of that dose.
func (s *scan) shareDose(text string) []string {
	list := segments(text)
	list = slices.DeleteFunc(list, func(g segment) bool { return g.text == "" })
	if len(list) == 0 || strings.Trim(text, " ,;."+soft) == "" {
		return nil
	}
	last := list[len(list)-1].text
	if parts := s.eachOwn(list); parts != nil {
		return parts
	}
	if len(list) < 3 || !eachDose.MatchString(last) || strings.Contains(text, " x ") {
		return []string{text}
	}
	var parts []string
	for _, g := range list[:len(list)-1] {
		if anyDigit.MatchString(g.text) || startsCount.MatchString(g.text) || isPlace(g.text) ||
			strings.Contains(g.text, ":") || len(parts) > 0 && strings.HasPrefix(g.text, "\x02") {
			return []string{text}
		}
		parts = append(parts, g.text+" "+strings.TrimSuffix(last, " each"))
	}
	return parts
}

// eachOwn parts "jog 3 min, skips 20 m, high knees 20 m" where a drill's name begins each
// of them; the last dose is that of all that have none, if it says so.
func (s *scan) eachOwn(list []segment) (parts []string) {
	shared := ""
	last := list[len(list)-1].text
	for i, g := range list {
		begins := s.begins(s.show(g.text))
		switch {
		case begins:
			parts = append(parts, g.text)
		case i == 0:
			return nil
		default:
			parts[len(parts)-1] += ", " + g.text
		}
	}
	if at := firstDigit.FindStringIndex(last); at != nil && strings.HasSuffix(last, " each") {
		shared = strings.TrimSuffix(last[at[0]:], " each")
	}
	if len(parts) < 2 {
		return nil
	}
	for i, p := range parts {
		if !anyDigit.MatchString(p) && shared != "" {
			parts[i] += " " + shared
		} else if !anyDigit.MatchString(p) && !numberWord.MatchString(p) {
			return nil // only names: one drill and what is said of it
		}
	}
	return parts
}

// begins tells whether a segment begins with the name of a drill.
func (s *scan) begins(text string) bool {
	if s.Index.finds(text) {
		return true
	}
	if at := firstDigit.FindStringIndex(text); at != nil {
		text = text[:at[0]]
	}
	known, _ := s.Index.Find(text)
	return known != nil
}

var firstDigit = pattern.Must(`\d`)

var (
	numberWord  = Spaced(`\b` + num + `\b`)
	eachDose    = pattern.Must(`(?i)^` + num + `(?: [a-z]+)? each(?: [a-z]+)?$`)
	startsCount = Spaced(`^` + num + `\b`)
	anyDigit    = pattern.Must(`\d`)
)

// drill reads a part of a line that is one drill.
func (s *scan) drill(text string) (l Line) {
	l.Is = IsDrill
	text, l.Cues = s.cues(text)
	text = s.beside(&l, text)
	part := newScan(s.Reader, text, s.hidden)
	part.turns(&l)
	d := part.dose(&l)
	s.hidden = part.hidden
	l.Name, l.Note = part.name(part.text)
	k, likely, spelt := s.Index.seek(l.Name)
	if k == nil && l.Note != "" { // a name with a comma in it
		if whole, _ := s.Index.Find(l.Name + ", " + l.Note); whole != nil {
			k, likely, l.Name, l.Note = whole, nil, l.Name+", "+l.Note, ""
		}
	}
	if l.Name == "" && d != nil { // "full court four": the dose is what it is called
		l.Name = strings.Trim(anyDigit.ReplaceAllString(s.show(segments(text)[0].text), ""), " x%")
		l.Name = strings.TrimSpace(numberWord.ReplaceAllString(l.Name, ""))
	}
	if m := leadNumber.FindStringSubmatch(l.Name); k == nil && m != nil && d != nil && d.Kind == drill.Travel {
		if other, _, _ := s.Index.seek(m[2]); other != nil { // "two sprints to the line and back"
			k, likely, spelt, l.Name = other, nil, true, m[2]
			d.Trips = max(1, d.Trips) * number(m[1])
		}
	}
	if k != nil {
		l.Code, l.Slip = k.Code, !spelt
	}
	for _, other := range likely {
		l.Likely = append(l.Likely, other.Name)
	}
	if d != nil {
		if k == nil && d.By == "" && NamesActs(l.Name) && pairwise.MatchString(l.Name) {
			d.By = "pair"
			l.Name = strings.TrimSpace(pairwise.ReplaceAllString(l.Name, ""))
		}
		if NamesActs(l.Name) && d.Metres > 0 && (k == nil || k.Dose.Kind != drill.Travel) {
			if l.Note == "" {
				l.Note = fmt.Sprintf("%g m", d.Metres) // from there
			}
			d.ofActs()
		}
		d.settle(k, l.Name)
		l.Dose = d
	}
	return l
}
