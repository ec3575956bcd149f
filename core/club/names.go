package club

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/pattern"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

// MostNames is how many players are read at once.
const MostNames = 200

// Named is a player read from a line of a message.
type Named struct {
	Line    int // from 1
	Player  Player
	Unknown []string // positions that the sport does not have; they stay as they were said
	Problem string   // why nobody was read, a sentence; ""
	More    bool     // nobody is read from this line on: they are too many
}

// ReadNames reads players from a message or a table: one a line or with commas between, with
// numbers, positions, hands and feet where they stand. A line with a position alone is a
// heading: it holds for those below it. What cannot be read is said with its line.
func ReadNames(text string, plays *sport.Sport) (list []Named) {
	r := nameReader{plays: plays}
	lines := strings.Split(strings.NewReplacer("\r\n", "\n", "\r", "\n", "\u00a0", " ", "\u200b", "", "\ufeff",
		"").Replace(text), "\n")
	r.marked = r.counted(lines)
	for n, line := range lines {
		for _, one := range r.pieces(line) {
			if len(list) == MostNames {
				return append(list, Named{Line: n + 1, More: true,
					Problem: fmt.Sprintf("%d players are read at once: paste the rest after them", MostNames)})
			}
			if named, ok := r.one(one); ok {
				named.Line = n + 1
				list = append(list, named)
			}
		}
	}
	return twice(list)
}

// nameReader reads the lines of one message.
type nameReader struct {
	plays   *sport.Sport
	heading []string // positions that hold until the next heading
	unknown []string // of the heading
	marked  bool     // its numbers only count the lines
}

var (
	countedOf = pattern.Must(`^\s*(\d{1,3})[.)]\s+`)
	bulletOf  = pattern.Must(`^\s*(?:[-*•–·]|[a-zA-Z][.)])\s+`)
	numberOf  = pattern.Must(`^\s*(?:no\.?\s*|#)?(\d{1,3})[.):]?\s+|\s+(?:no\.?\s*|#)?(\d{1,3})\s*$|^\s*(\d{1,3})\s*$|#(\d{1,3})\b`)
	bracketOf = pattern.Must(`\(([^)]*)\)|\[([^\]]*)\]`)
	// "(C)" is a centre
	captainOf  = pattern.Must(`\s*[(\[](?:c|(?i:capt\.?|captain|vc|v-c|vice(?:-captain)?))[)\]]|\s+\b(?i:capt\.?|captain)\b`)
	batsOf     = pattern.Must(`(?i)\b(?:bats?|b)[:\s-]*(left|right|both|switch|l|r|s)\b(?:[ -]?handed)?`)
	throwsOf   = pattern.Must(`(?i)\b(?:throws?|t)[:\s-]*(left|right|both|l|r)\b(?:[ -]?handed)?`)
	batThrowOf = pattern.Must(`(?i)(?:\bb/t:?\s*)?\b([lrs])\s*/\s*([lr])\b`)
	switchOf   = pattern.Must(`(?i)\bswitch[ -]?hitter\b|\bswitch\b`)
	footOf     = pattern.Must(`(?i)\b(left|right|both)[ -]?(?:foot(?:ed)?|feet)\b`)
	handOf     = pattern.Must(`(?i)\b(left|right)[ -]?hand(?:ed|er)?\b|\b(lefty|leftie|southpaw|both hands|ambidextrous)\b`)
	headWords  = []string{"name", "names", "no", "no.", "number", "#", "pos", "pos.", "position", "positions", "player",
		"players", "first", "last", "first name", "last name", "surname", "squad", "team", "shirt"}
)

// counted tells whether the lines are numbered one after the other with a mark, which then is
// no shirt: in rugby union it is.
func (r *nameReader) counted(lines []string) bool {
	next := 1
	for _, line := range lines {
		if m := countedOf.FindStringSubmatch(line); m != nil {
			if n, _ := strconv.Atoi(m[1]); n != next {
				return false
			}
			next++
		}
	}
	return next > 2 && !strings.HasPrefix(r.plays.Key, "rugby")
}

// pieces are the players of a line: a table's row and a line of its own are one, names with
// commas between are several.
func (r *nameReader) pieces(line string) []string {
	if r.marked {
		line = countedOf.ReplaceAllString(line, "")
	}
	line = bulletOf.ReplaceAllString(line, "")
	if strings.TrimSpace(line) == "" || strings.Contains(line, "\t") {
		return []string{line}
	}
	if head, rest, ok := strings.Cut(line, ":"); ok && len(strings.Fields(head)) < 4 {
		if positions, unknown, known := r.positions(head); known {
			if strings.TrimSpace(rest) == "" || strings.Contains(rest, ",") {
				r.heading, r.unknown = positions, unknown
				line = rest
			}
		}
	}
	parts := strings.FieldsFunc(line, func(c rune) bool { return c == ',' || c == ';' })
	names := 0
	for _, part := range parts {
		if r.isName(part) {
			names++
		}
	}
	if names < 2 || len(parts) == 2 && names == 2 && len(strings.Fields(parts[0])) == 1 &&
		len(strings.Fields(parts[1])) == 1 {
		return []string{line} // a name and its position, or a last name before a first
	}
	return parts
}

// isName tells whether a piece between commas names somebody by itself.
func (r *nameReader) isName(part string) bool {
	part = strings.TrimSpace(bracketOf.ReplaceAllString(part, ""))
	if position, _ := r.plays.Find(part); position != "" || batsOf.MatchString(part) || throwsOf.MatchString(part) ||
		footOf.MatchString(part) || handOf.MatchString(part) || batThrowOf.MatchString(part) {
		return false
	}
	return strings.ContainsFunc(part, unicode.IsLetter)
}

// one reads a player; false where the line is none: empty, a heading, a table's head.
func (r *nameReader) one(text string) (Named, bool) {
	text = captainOf.ReplaceAllString(text, "")
	var n Named
	r.sides(&n.Player, &text)
	if strings.TrimSpace(text) == "" || r.head(text) {
		return n, false
	}
	if positions, unknown, known := r.positions(strings.Trim(text, " :.-\t")); known && len(unknown) == 0 {
		r.heading, r.unknown = positions, nil
		return n, false
	}
	r.number(&n.Player, &text)
	text, positions, unknown := r.place(text)
	if positions == nil {
		positions, unknown = r.heading, r.unknown
	}
	n.Player.Position, n.Unknown = strings.Join(positions, plan.BetweenPositions), unknown
	n.Player.First, n.Player.Last = nameOf(text)
	switch {
	case n.Player.First == "" || !strings.ContainsFunc(n.Player.First, unicode.IsLetter):
		n.Problem = "no name in it"
	case len([]rune(n.Player.First)) > plan.MaxName || len([]rune(n.Player.Last)) > plan.MaxName:
		n.Problem = fmt.Sprintf("a name is up to %d letters long", plan.MaxName)
	case len([]rune(n.Player.Position)) > plan.MaxName:
		n.Problem = fmt.Sprintf("a position is up to %d letters long", plan.MaxName)
	}
	return n, true
}

// head tells whether a line is the head of a table, or a title.
func (r *nameReader) head(text string) bool {
	for _, cell := range strings.FieldsFunc(text, func(c rune) bool { return c == '\t' || c == ',' || c == ';' }) {
		if !slices.Contains(headWords, strings.ToLower(strings.Trim(cell, " :"))) {
			return false
		}
	}
	return true
}

// positions are those that a text names; known, that it names one of the sport's or one of its units.
func (r *nameReader) positions(text string) (positions, unknown []string, known bool) {
	text = strings.TrimSpace(text)
	if i := slices.IndexFunc(r.plays.Units,
		func(u sport.Unit) bool { return strings.EqualFold(u.Name, text) }); i >= 0 &&
		len(r.plays.Units[i].Positions) == 1 {
		return r.plays.Units[i].Positions, nil, true
	}
	positions, unknown = r.plays.FindAll(text)
	return positions, unknown, len(positions) > len(unknown)
}

// number takes the shirt number.
func (r *nameReader) number(p *Player, text *string) {
	m := numberOf.FindStringSubmatchIndex(*text)
	if m == nil {
		return
	}
	if before := strings.TrimSpace((*text)[:m[0]]); strings.ContainsAny(before[max(0, len(before)-1):], "-:") {
		if position, _ := r.plays.Find(strings.TrimSpace((*text)[m[0]:m[1]])); position != "" {
			return // "Ana Birk - 400": what she runs
		}
	}
	for i := 2; i < len(m); i += 2 {
		if m[i] >= 0 {
			p.Number, _ = strconv.Atoi((*text)[m[i]:m[i+1]])
		}
	}
	*text = strings.TrimSpace((*text)[:m[0]] + "\t" + (*text)[m[1]:])
}

// sides takes which hand throws, which side bats and which foot kicks.
func (r *nameReader) sides(p *Player, text *string) {
	take := func(of *pattern.Pattern, set func(m []string)) {
		if m := of.FindStringSubmatch(*text); m != nil {
			set(m)
			*text = strings.TrimSpace(strings.Replace(*text, m[0], "\t", 1))
		}
	}
	side := func(word string) Side {
		switch strings.ToLower(word)[0] {
		case 'l':
			return Left
		case 'r':
			return Right
		}
		return Both
	}
	take(footOf, func(m []string) { p.Foot = side(m[1]) })
	if strings.Contains(strings.Join(r.plays.Shape, " ")+r.plays.Act, "throw") || r.plays.Key == "cricket" {
		take(batThrowOf, func(m []string) { p.Bats, p.Hand = side(m[1]), side(m[2]) })
		take(batsOf, func(m []string) { p.Bats = side(m[1]) })
		take(throwsOf, func(m []string) { p.Hand = side(m[1]) })
		take(switchOf, func([]string) { p.Bats = Both })
	}
	take(handOf, func(m []string) {
		if p.Hand = Left; strings.EqualFold(m[1], "right") {
			p.Hand = Right
		}
		if w := strings.ToLower(m[2]); w == "ambidextrous" || w == "both hands" {
			p.Hand = Both
		}
	})
}

// place takes the position from where it stands: in brackets, behind a dash or comma, in a cell of
// a table, before a colon, or as the last or first words.
func (r *nameReader) place(text string) (name string, positions, unknown []string) {
	if m := bracketOf.FindStringSubmatch(text); m != nil {
		inside := strings.Trim(m[1]+m[2], " ")
		positions, unknown = r.plays.FindAll(inside)
		return strings.Replace(text, m[0], "", 1), positions, unknown
	}
	cells := strings.FieldsFunc(strings.NewReplacer(" - ", "\t", " – ", "\t", " — ", "\t", ": ", "\t", ",", "\t", ";",
		"\t").Replace(text), func(c rune) bool { return c == '\t' })
	var names []string
	for n, cell := range cells {
		if found, left, known := r.positions(cell); positions == nil && known && (len(names) > 0 || n < len(cells)-1) {
			positions, unknown = found, left
		} else if cell = strings.TrimSpace(cell); cell != "" {
			names = append(names, cell)
		}
	}
	if len(names) == 2 && positions == nil && strings.ContainsAny(text, "-–—:\t(,") &&
		len(strings.Fields(names[0])) > 1 {
		return names[0], []string{names[1]}, []string{names[1]} // it stands where a position does
	}
	if len(names) == 2 && strings.Contains(text, ",") && !strings.Contains(text, "\t") &&
		len(strings.Fields(names[0])) == 1 {
		slices.Reverse(names) // Birk, Ana
	}
	name = strings.Join(names, " ")
	if positions != nil {
		return name, positions, unknown
	}
	return r.edge(name)
}

// edge takes a position that a name ends or begins with: "Ana Birk LW", "GK Ana Birk". A word in
// small letters that is a name too stays one.
func (r *nameReader) edge(name string) (string, []string, []string) {
	words := strings.Fields(name)
	for n := min(3, len(words)-1); n > 0; n-- {
		for _, at := range []int{len(words) - n, 0} {
			said, rest := strings.Join(words[at:min(len(words), at+n)], " "),
				slices.Concat(words[:at], words[min(len(words), at+n):])
			if strings.ToLower(said) != said && strings.ToUpper(said) != said && len(rest) < 2 {
				continue // "Ana Wing": a name
			}
			if found, unknown, known := r.positions(said); known && len(unknown) == 0 &&
				(at > 0 || strings.ToUpper(said) == said || n > 1) {
				return r.twoWords(rest, found)
			}
		}
	}
	return name, nil, nil
}

// twoWords takes one position more from the end of a name that had one: "Ana Birk P starter".
func (r *nameReader) twoWords(words, positions []string) (string, []string, []string) {
	if last := words[len(words)-1]; len(words) > 2 && strings.ToUpper(last) == last {
		if more, unknown, known := r.positions(last); known && len(unknown) == 0 {
			words, positions = words[:len(words)-1], appendNew(more, positions)
		}
	}
	return strings.Join(words, " "), positions, nil
}

// appendNew is a list with those of another that it has not.
func appendNew(list, more []string) []string {
	list = slices.Clone(list)
	for _, one := range more {
		if !slices.Contains(list, one) {
			list = append(list, one)
		}
	}
	return list
}

// nameOf parts a name: the first word, and the rest.
func nameOf(text string) (first, last string) {
	words := strings.Fields(strings.Trim(strings.Map(func(c rune) rune {
		if unicode.IsControl(c) || unicode.Is(unicode.Cf, c) {
			return ' '
		}
		return c
	}, text), " .,;:-–—*"))
	if len(words) == 0 {
		return "", ""
	}
	return words[0], strings.Join(words[1:], " ")
}

// twice says who is there more than once: the same name with the same number.
func twice(list []Named) []Named {
	for i := range list {
		n := &list[i]
		for _, o := range list[:i] {
			if n.Problem != "" || o.Problem != "" {
				continue
			}
			if strings.EqualFold(n.Player.Label(), o.Player.Label()) &&
				(n.Player.Number == 0 || n.Player.Number == o.Player.Number) {
				n.Problem = n.Player.Label() + " is there twice: taken once"
			}
		}
	}
	return list
}
