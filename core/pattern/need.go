package pattern

import (
	"regexp/syntax"
	"slices"
	"strings"
)

// need is a piece of text, in small letters, and the letters in it; without a text any digit.
type need struct {
	text    string
	letters uint32
}

const (
	aDigit = "#" // in a set of texts: any digit
	digits = 1 << 26
	large  = 1 << 27 // letters
	beyond = 1 << 28 // ASCII
	most   = 48      // texts in a set; one with more tells little
)

// May says whether a text has one of the pieces that every match has. Where it has none, no part of it has.
func (p *Pattern) May(text string) bool {
	p.once.Do(func() { p.needs = needsOf(p.expression) })
	if p.needs == nil {
		return true
	}
	has := lettersOf(text)
	if has&beyond != 0 && strings.ContainsAny(text, "\u017f\u212a") { // they are s and k where case does not matter
		return true
	}
	within := strings.Contains
	if has&large != 0 {
		within = folded
	}
	for i := range p.needs {
		if n := &p.needs[i]; n.letters&^has == 0 && within(text, n.text) {
			return true
		}
	}
	return false
}

// lettersOf are the letters in a text, a bit each, and whether there are large ones and others than ASCII.
func lettersOf(text string) (has uint32) {
	for i := range len(text) {
		has |= bits[text[i]]
	}
	return has
}

// bits are what each byte of a text adds to its letters.
var bits = func() (of [256]uint32) {
	for c := range 26 {
		of['a'+c], of['A'+c] = 1<<c, 1<<c|large
	}
	for c := '0'; c <= '9'; c++ {
		of[c] = digits
	}
	for c := 0x80; c < len(of); c++ {
		of[c] = beyond
	}
	return of
}()

// folded says whether a piece in small letters is in a text, large and small alike.
func folded(text, piece string) bool {
	if piece == "" {
		return true
	}
	for i := 0; i+len(piece) <= len(text); i++ {
		if small(text[i]) == piece[0] && strings.EqualFold(text[i:i+len(piece)], piece) {
			return true
		}
	}
	return false
}

func small(c byte) byte {
	if c >= 'A' && c <= 'Z' {
		return c + 'a' - 'A'
	}
	return c
}

// needsOf are the pieces of which one is in whatever an expression matches; nil: nothing is known.
func needsOf(expression string) (all []need) {
	re, err := syntax.Parse(expression, syntax.Perl)
	if err != nil {
		return nil
	}
	for _, text := range of(re).anyOf() {
		if text == aDigit {
			all = append(all, need{"", digits})
			continue
		}
		all = append(all, need{text, lettersOf(text) &^ (large | beyond)})
	}
	return all
}

// texts is what is known of an expression's matches: all that they can be, or pieces of which one is in each.
type texts struct{ whole, pieces []string }

// anyOf are pieces of which one is in each match; nil: not known.
func (t texts) anyOf() []string {
	if t.whole == nil {
		return t.pieces
	}
	if len(t.whole) > most || slices.Contains(t.whole, "") {
		return nil
	}
	return t.whole
}

// of is what is known of an expression's matches.
func of(re *syntax.Regexp) texts {
	switch re.Op {
	case syntax.OpEmptyMatch, syntax.OpBeginLine, syntax.OpEndLine, syntax.OpBeginText, syntax.OpEndText,
		syntax.OpWordBoundary, syntax.OpNoWordBoundary:
		return texts{whole: []string{""}}
	case syntax.OpLiteral:
		return literal(string(re.Rune))
	case syntax.OpCharClass:
		return class(re.Rune)
	case syntax.OpCapture:
		return of(re.Sub[0])
	case syntax.OpQuest:
		if is := of(re.Sub[0]); is.whole != nil {
			return texts{whole: append(slices.Clone(is.whole), "")}
		}
	case syntax.OpPlus:
		return texts{pieces: of(re.Sub[0]).anyOf()}
	case syntax.OpRepeat:
		if re.Min > 0 {
			return texts{pieces: of(re.Sub[0]).anyOf()}
		}
	case syntax.OpAlternate:
		return either(re.Sub)
	case syntax.OpConcat:
		return inOrder(re.Sub)
	}
	return texts{}
}

// literal is what is known of a text: letters beyond ASCII are not looked for.
func literal(text string) texts {
	text = strings.ToLower(text)
	longest := ""
	for piece := range strings.FieldsFuncSeq(text, func(r rune) bool { return r >= 0x80 || r == '#' }) {
		if len(piece) > len(longest) {
			longest = piece
		}
	}
	switch longest {
	case text:
		return texts{whole: []string{text}}
	case "":
		return texts{}
	}
	return texts{pieces: []string{longest}}
}

// class is what is known of a class of letters, as pairs from and to.
func class(ranges []rune) (is texts) {
	for i := 0; i < len(ranges); i += 2 {
		if ranges[i] < '0' || ranges[i+1] > '9' {
			return few(ranges)
		}
	}
	return texts{pieces: []string{aDigit}}
}

// few are the letters of a class of a few.
func few(ranges []rune) (is texts) {
	for i := 0; i < len(ranges); i += 2 {
		if ranges[i+1] >= 0x80 || ranges[i+1]-ranges[i] > 8 {
			return texts{}
		}
		for r := ranges[i]; r <= ranges[i+1]; r++ {
			if r == '#' {
				return texts{}
			}
			is.whole = append(is.whole, strings.ToLower(string(r)))
		}
	}
	if slices.Sort(is.whole); len(is.whole) > 16 {
		return texts{}
	}
	is.whole = slices.Compact(is.whole)
	return is
}

// either is what is known where one of several matches.
func either(list []*syntax.Regexp) texts {
	all := texts{whole: []string{}, pieces: []string{}}
	for _, sub := range list {
		is := of(sub)
		if is.whole == nil || all.whole == nil || len(all.whole)+len(is.whole) > most {
			all.whole = nil
		} else {
			all.whole = append(all.whole, is.whole...)
		}
		pieces := is.anyOf()
		if pieces == nil || all.pieces == nil || len(all.pieces)+len(pieces) > most {
			all.pieces = nil
		} else {
			all.pieces = append(all.pieces, pieces...)
		}
	}
	if all.whole != nil {
		all.pieces = nil
	}
	return all
}

// inOrder is what is known where several match one behind the other: the most telling of the pieces.
func inOrder(list []*syntax.Regexp) texts {
	var best []string
	better := func(pieces []string) {
		if pieces != nil && telling(pieces) > telling(best) {
			best = pieces
		}
	}
	sofar, all := []string{""}, true
	for _, sub := range list {
		is := of(sub)
		if is.whole != nil && len(sofar)*len(is.whole) <= most {
			sofar = each(sofar, is.whole)
			continue
		}
		better(texts{whole: sofar}.anyOf())
		if all, sofar = false, []string{""}; is.whole != nil {
			sofar = is.whole
			continue
		}
		better(is.pieces)
	}
	if all {
		return texts{whole: sofar}
	}
	better(texts{whole: sofar}.anyOf())
	return texts{pieces: best}
}

// each is each of one list with each of another behind it.
func each(list, then []string) (all []string) {
	for _, a := range list {
		for _, b := range then {
			all = append(all, a+b)
		}
	}
	return all
}

// telling says how much it tells that one of these pieces is in a text: the shortest counts, then how few they are.
func telling(pieces []string) int {
	if len(pieces) == 0 {
		return -1
	}
	shortest := len(slices.MinFunc(pieces, func(a, b string) int { return len(a) - len(b) }))
	return shortest*most - len(pieces) + 1
}
