package hear

import (
	"slices"
	"strings"
)

// gives are what a mark of a role gives, as a span calls it.
var gives = map[role]string{
	roleWho: "who", roleLeader: "leader", rolePlace: "where", roleLine: "dose", roleFiller: "", roleNone: "",
	roleAt: "when", roleFrom: "when", roleUntil: "when", roleDone: "when", roleLast: "when", roleFirst: "when",
	roleBefore: "when", roleAfter: "when", roleStraight: "when",
}

// Spans are the pieces of a line that gave something, in order: what its marks gave, and where the
// names that were read of it, and what is told, stand in it.
func Spans(line string, known Lexicon, names, cues []string) (list []Span) {
	line = strings.ToValidUTF8(line, "")
	cut := len(listMark.FindString(line))
	h := &hearing{}
	h.Lexicon, h.line, h.words = known, line, split(line[cut:])
	if len(h.words) == 0 || len(h.words) > longestLine {
		return nil
	}
	for i := range h.words {
		h.words[i].from += cut
		h.words[i].to += cut
	}
	h.mark()
	taken := make([]bool, len(line))
	put := func(from, to int, gave string) {
		for i := from; i < to; i++ {
			if taken[i] {
				return
			}
		}
		for i := from; i < to; i++ {
			taken[i] = true
		}
		list = append(list, Span{from, to, gave})
	}
	for gave, texts := range map[string][]string{"name": names, "cue": cues} {
		for _, text := range texts {
			if at := strings.Index(strings.ToLower(line), strings.ToLower(text)); text != "" && at >= 0 &&
				at+len(text) <= len(line) {
				put(at, at+len(text), gave)
			}
		}
	}
	for i := range h.marks {
		m := &h.marks[i]
		gave, other := gives[m.role]
		if !other {
			gave = "dose"
		}
		if gave != "" {
			put(h.words[m.from].from, h.words[m.to-1].to, gave)
		}
	}
	slices.SortFunc(list, func(a, b Span) int { return a.From - b.From })
	return list
}
