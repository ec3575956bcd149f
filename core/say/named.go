package say

import (
	"cmp"
	"regexp"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/pattern"
	"cuestart/core/sport"
)

// lineNames finds the named lines of a sport's ground in what is said.
type lineNames struct {
	whole, to, between *pattern.Pattern // nil: the sport has none
}

// newLineNames reads the lines of a sport. A name that is a number wants its article, "to the 22",
// or to be said twice: "22 to 22".
func newLineNames(plays *sport.Sport) (names lineNames) {
	if len(plays.Lines) == 0 {
		return names
	}
	var words, digits, whole []string
	for _, l := range plays.Lines {
		for _, one := range append([]string{l.Name}, l.Also...) {
			one = strings.TrimPrefix(one, "the ")
			said := strings.NewReplacer(" ", "~", "-", "[- ]?").Replace(regexp.QuoteMeta(one))
			switch {
			case strings.Trim(one, "0123456789") == "":
				digits = append(digits, said)
			case strings.Contains(one, " to ") || strings.Contains(one, " of "):
				whole = append(whole, said)
			default:
				words = append(words, said)
			}
		}
	}
	longest := func(a, b string) int { return len(b) - len(a) }
	slices.SortFunc(words, longest)
	slices.SortFunc(digits, longest)
	name, again := strings.Join(words, "|"), ""
	if len(digits) > 0 {
		number := strings.Join(digits, "|")
		name += "|the~(?:" + number + ")"
		again = "|" + number
	}
	const back = `(~(?:and|an|n|&|'n)~(?:jog~|walk~|run~)?back\b|~there~and~back\b)?`
	if len(whole) > 0 {
		names.whole = Spaced(`\b(?:from~)?(?:the~)?(` + strings.Join(whole, "|") + `)\b()` + back)
	}
	names.to = Spaced(`[ ,(\x01](?:out~)?to~(?:the~|a~|our~|their~|far~|other~|opposite~)*?(` + name +
		`)(?:~line)?\b()` + back)
	names.between = Spaced(`\b(?:from~)?(?:the~)?(` + name + again +
		`)(?:~line)?~to~(?:the~|far~|other~|opposite~)*?(` + name + again + `)(?:~line)?\b` + back)
	return names
}

// lineOf takes how far it is to a line of the ground: "to the 22 and back", "sideline to sideline".
// What line it is stands among the cues.
func (s *scan) lineOf(l *Line, d *Dose) bool {
	if d.Kind != "" && (d.Kind != drill.Travel || d.Metres > 0) {
		return false
	}
	if s.Plays == nil {
		return false
	}
	said, metres, back := s.takeLine()
	if metres == 0 {
		return false
	}
	said = strings.TrimPrefix(strings.ToLower(strings.ReplaceAll(said, soft, " ")), "the ")
	d.Kind, d.To, d.Metres, d.Trips = drill.Travel, said, metres, max(1, d.Trips, len(d.Efforts))
	for _, re := range []*pattern.Pattern{lengths, timesOf, timesLast, ofThem, onceTwice} {
		if m := s.take(re); m != nil {
			if d.Trips = max(1, number(m[1])); re == onceTwice {
				d.Trips = times(m[1])
			}
			break
		}
	}
	if back {
		d.Trips *= 2
	}
	l.Cues = append(l.Cues, "to the "+said)
	return true
}

// takeLine takes the line that is named: as it was said, how far it is, and whether it is back again;
// 0 where there is none.
func (s *scan) takeLine() (said string, metres float64, back bool) {
	hidden := s.text
	s.text = marks.ReplaceAllStringFunc(s.text, func(m string) string { // "the 22" was kept from being a number
		held := s.hidden[[]rune(m)[1]-0xE000]
		if _, ok := s.Plays.Line(held); ok {
			return held
		}
		return m
	})
	for _, re := range []*pattern.Pattern{s.lines.whole, s.lines.between, s.lines.to} {
		if re == nil {
			continue
		}
		m := re.FindStringSubmatch(s.text)
		if m == nil || metresOf.MatchString(strings.Replace(s.text, m[0], " ", 1)) {
			continue
		}
		if metres = s.farTo(m[1], m[2]); metres > 0 {
			s.take(re)
			return cmp.Or(m[2], m[1]), metres, m[3] != ""
		}
	}
	s.text = hidden
	return "", 0, false
}

// ofThem is how many of something that was said: "6 of them".
var ofThem = Spaced(`\b` + num + `~of~(?:them|these|those)\b`)

// farTo is how far it is to a line, or from one to another; 0 where there is none. Who goes from an
// end, or a side, begins there.
func (s *scan) farTo(from, to string) float64 {
	first, ok := s.Plays.Line(from)
	if to == "" || !ok {
		return first.Metres
	}
	second, ok := s.Plays.Line(to)
	switch {
	case !ok || first.Name != second.Name && strings.Trim(from+to, "0123456789") == "":
		return 0
	case first.Name == second.Name, first.Metres >= s.Plays.Length && !first.Across,
		first.Metres >= s.Plays.Width && first.Across:
		return second.Metres
	}
	return max(first.Metres, second.Metres) - min(first.Metres, second.Metres)
}
