package say

import (
	"slices"
	"strconv"
	"strings"

	"cuestart/core/pattern"
)

// named is a name, folded, and what it stands for.
type named struct{ fold, is string }

// personNames are the ways in which a player is named: whole, by the first name, by the
// last if nobody shares it, by "first l".
func personNames(p Player, all []Player) (list []named) {
	is := p.Name
	if p.Number > 0 {
		is = strconv.Itoa(p.Number)
	}
	list = append(list, named{Fold(p.Name), is})
	first, last, two := strings.Cut(p.Name, " ")
	if !two {
		return list
	}
	alike := func(same func(first, last string) bool) int {
		n := 0
		for _, o := range all {
			if f, l, _ := strings.Cut(o.Name, " "); same(f, l) {
				n++
			}
		}
		return n
	}
	if alike(func(f, _ string) bool { return f == first }) == 1 {
		list = append(list, named{Fold(first), is})
	}
	if alike(func(_, l string) bool { return l == last }) == 1 {
		list = append(list, named{Fold(last), is})
	}
	return append(list, named{Fold(first + " " + string([]rune(last)[:1])), is})
}

func sharesFirst(first string, names []string) bool {
	n := 0
	for _, name := range names {
		if f, _, _ := strings.Cut(name, " "); f == first {
			n++
		}
	}
	return n > 1
}

var (
	parted    = Spaced(`~(?:,|&|/|\+|\band\b|\bplus\b|\bwith\b)~`)
	ledBy     = Spaced(`^(?:led by|lead by|leader|coach|taken by|run by|by|with)~:?~(.+)$`)
	leads     = Spaced(`^(.+?)~(?:leads?|takes (?:it|this|them)|runs (?:it|this|them)|is in charge)$`)
	forWhom   = Spaced(`^(?:for|only|just|the)~(.+)$`)
	whomOnly  = Spaced(`^(.+?)~(?:only|alone|do this|do it)$`)
	whereIn   = Spaced(`^(?:in|on|at|inside|into|over in|out on)~(?:the~)?(.+)$`)
	inWhere   = Spaced(`\b(?:in|on|at|inside)~(?:the~)?`)
	hashed    = pattern.Must(`^(?:#\d{1,3})(?:(?:,? and |, ?| & | )#\d{1,3})*`)
	shirts    = pattern.Must(`#\d{1,3}`)
	priority  = Spaced(`^(?:a )?(must|should|could)$`)
	anyOrder  = Spaced(`^in any order$`)
	colonHead = pattern.Must(`^([^:\x02]{1,60}):\s*`)
)

// whole takes what a line says as a whole: when, who, where, by whom.
func (s *scan) whole(l *Line) {
	s.whoFirst(l)
	if first, rest, two := strings.Cut(s.text, ": "); two && !strings.ContainsAny(first, ",;") {
		if head, _, more := strings.Cut(rest, ":"); more && s.headed(head) { // "pupils: one of: bike, jog"
			s.text = first + ", " + rest
		}
	}
	if at := strings.Index(s.text, ": "); at > 0 && at < 90 &&
		(!strings.ContainsAny(s.text[:at], ",;") || s.headed(s.text[:at])) {
		s.text = s.text[:at] + colon + s.text[at+1:]
	}
	s.when(l)
	s.numbersTogether(l)
	s.each(func(text string) bool { return s.form(l, text) || s.attribute(l, text) })
	s.inText(l)
}

// attribute reads a segment that says one thing about the line.
func (s *scan) attribute(l *Line, text string) bool {
	if m := priority.FindStringSubmatch(text); m != nil {
		l.Priority = strings.ToLower(m[1])
		return true
	}
	if anyOrder.MatchString(text) {
		l.Loose = true
		return true
	}
	if l.Leader == "" {
		if m := leads.FindStringSubmatch(text); m != nil && s.lead(l, m[1]) {
			return true
		}
		if m := ledBy.FindStringSubmatch(text); m != nil && (s.staffer(l, m[1]) ||
			!strings.HasPrefix(strings.ToLower(text), "with") && s.lead(l, m[1])) {
			return true
		}
		if s.staffer(l, text) {
			return true
		}
	}
	if l.Where == "" {
		if l.Where = s.zone(text, byWholeName); l.Where != "" {
			return true
		}
		if m := whereIn.FindStringSubmatch(text); m != nil {
			if l.Where = s.zone(m[1], byLastWord); l.Where != "" {
				return true
			}
		}
	}
	for _, re := range []*pattern.Pattern{nil, forWhom, whomOnly} {
		who := text
		if re != nil {
			m := re.FindStringSubmatch(text)
			if m == nil {
				continue
			}
			who = m[1]
		}
		if found := s.audience(who); found != nil {
			l.Who = AppendNew(l.Who, found)
			return true
		}
	}
	return false
}

// AppendNew is a list with those of more that it lacks.
func AppendNew(list, more []string) []string {
	for _, one := range more {
		if !slices.Contains(list, one) {
			list = append(list, one)
		}
	}
	return list
}

// staffer reads a staff name as the leader.
func (s *scan) staffer(l *Line, name string) bool {
	name = Fold(name)
	for _, one := range s.staff {
		if one.fold == name {
			l.Leader = one.is
			return true
		}
	}
	return false
}

// lead reads a staff or player's name as the leader.
func (s *scan) lead(l *Line, name string) bool {
	if s.staffer(l, name) {
		return true
	}
	if who := s.person(name); who != "" && !slices.Contains(s.Units, who) {
		l.Leader = who
		return true
	}
	return false
}

// Whether a place is known by its whole name only, or by its last word too.
const byWholeName, byLastWord = false, true

// zone is a place by its name; by its last word where that says enough.
func (k *knower) zone(text string, partly bool) string {
	text = Fold(text)
	found := ""
	for _, z := range k.Zones {
		if Fold(z) == text {
			return z
		}
		if words := strings.Fields(Fold(z)); partly && len(words) > 0 && words[len(words)-1] == text {
			if found != "" {
				return "" // two of them: it does not say which
			}
			found = z
		}
	}
	return found
}

// audience reads a list of people; nil where any of it is none.
func (k *knower) audience(text string) (who []string) {
	if slices.Contains(everyoneNames, Fold(text)) {
		return []string{"*"}
	}
	if one := k.person(text); one != "" {
		return []string{one}
	}
	parts := parted.Split(text, -1)
	for _, part := range parts {
		one := k.person(part)
		if one == "" {
			one = k.shirt(part, len(parts) > 1)
		}
		if one == "" {
			return nil
		}
		who = append(who, one)
	}
	return who
}

// person is a unit or player by name.
func (k *knower) person(name string) string {
	name = Fold(name)
	for _, one := range k.people {
		if one.fold == name {
			return one.is
		}
	}
	if isPlace(name) {
		return ""
	}
	for _, one := range k.people { // backs for back, kickers for kicker
		if (slices.Contains(k.Units, one.is) || slices.Contains(k.Positions, one.is)) &&
			strings.TrimSuffix(one.fold, "s") == strings.TrimSuffix(name, "s") && name != "" {
			return one.is
		}
	}
	return ""
}

// amongPlayers is a number that stands among players.
const amongPlayers = true

// shirt is a player by number; a bare one only beside others.
func (k *knower) shirt(text string, bare bool) string {
	digits, hash := strings.CutPrefix(strings.TrimSpace(text), "#")
	if !hash {
		digits = strings.TrimSpace(strings.TrimPrefix(strings.ToLower(digits), "number"))
	}
	n, err := strconv.Atoi(digits)
	if err != nil || !hash && !bare {
		return ""
	}
	for _, p := range k.Players {
		if p.Number == n {
			return strconv.Itoa(n)
		}
	}
	return ""
}

// whoFirst takes people that a line begins with: before a colon, by numbers, or all.
func (s *scan) whoFirst(l *Line) {
	if m := colonHead.FindStringSubmatch(s.text); m != nil {
		who := s.audience(m[1])
		for _, position := range s.Positions { // "forwards: lifts" is whom, though forwards is also where to
			if who == nil && Fold(m[1]) == Fold(position)+"s" {
				who = []string{position}
			}
		}
		if one := s.shirt(m[1], amongPlayers); one != "" {
			who = []string{one}
		}
		if who != nil {
			l.Who, s.text = who, s.text[len(m[0]):]
			s.hideKnown()
			return
		}
	}
	if m := hashed.FindString(s.text); m != "" {
		if who := s.audience(strings.Join(shirts.FindAllString(m, -1), ", ")); who != nil {
			l.Who, s.text = who, s.text[len(m):]
			return
		}
	}
	for _, all := range []string{"everyone", "everybody", "all players", "whole squad", "the whole squad"} {
		if n := prefixOf(s.text, all); n > 0 && n < len(s.text) {
			l.Who, s.text = []string{"*"}, s.text[n:]
			return
		}
	}
	for _, u := range s.Units {
		if n := prefixOf(s.text, u); n > 0 && n < len(s.text) && s.text[n] == ' ' &&
			strings.HasSuffix(strings.ToLower(u), "s") && s.Index.finds(s.text[n:]) && !s.Index.finds(s.text) {
			l.Who, s.text = []string{u}, s.text[n:]
			return
		}
	}
}

// bracketed takes people, a place or a leader from the brackets of a heading: "Loosen up (backs)".
func (s *scan) bracketed(l *Line) {
	l.Cues = slices.DeleteFunc(l.Cues, func(cue string) bool {
		if who := s.audience(cue); who != nil && len(l.Who) == 0 {
			l.Who = who
		} else if zone := s.zone(cue, byWholeName); zone != "" && l.Where == "" {
			l.Where = zone
		} else {
			return l.Leader == "" && (s.staffer(l, cue) || s.lead(l, strings.TrimPrefix(cue, "with ")))
		}
		return true
	})
}

var pairOfNumbers = pattern.Must(`,[ \x01]*(\d{1,3}(?:, ?\d{1,3})* and \d{1,3})[ \x01]*(?:$|,)`)

// numbersTogether takes "10 and 15", "1, 2 and 3" that stand between commas.
func (s *scan) numbersTogether(l *Line) {
	at := pairOfNumbers.FindStringSubmatchIndex(s.text)
	if at == nil {
		return
	}
	if who := s.audience(s.text[at[2]:at[3]]); who != nil {
		l.Who = AppendNew(l.Who, who)
		s.text = s.text[:at[2]] + soft + s.text[at[3]:]
	}
}

// inText takes a place, people or a leader that stand within a segment: "in the hall",
// or a name at the end.
func (s *scan) inText(l *Line) {
	for from := 0; l.Where == "" && from < len(s.text); {
		at := inWhere.FindStringIndex(s.text[from:])
		if at == nil {
			break
		}
		rest := s.text[from+at[1]:]
		for _, z := range s.Zones {
			if n := prefixOf(rest, z); n > 0 {
				l.Where, s.text = z, s.text[:from+at[0]]+soft+rest[n:]
				break
			}
		}
		from += at[1]
	}
	for _, g := range segments(s.text) {
		words := strings.Fields(strings.ReplaceAll(g.text, soft, " "))
		for n := 1; n < len(words) && n <= 4; n++ { // a name needs what it belongs to before it
			tail := strings.Join(words[len(words)-n:], " ")
			before := strings.Join(words[:len(words)-n], " ")
			bare := forOrWith.ReplaceAllString(before, "")
			if strings.Contains(tail, "\x02") || !endsDose.MatchString(before) {
				continue
			}
			if s.attribute(l, tail) {
				s.text = s.text[:g.from] + bare + s.text[g.to:]
				s.inText(l)
				return
			}
		}
	}
}

var forOrWith = Spaced(` (?:for|with|by|the)+$`)

// endsDose is a text that ends in a dose, so that what follows is no part of a name.
var endsDose = Spaced(`(?:\d|\b(?:side|leg|arm|way|ways|each|s|sec|min|m|metres|reps|all|pairs|breaths|twice|once|times|for|with))(?:'|%|~)*$`)
