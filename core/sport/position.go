package sport

import (
	"cmp"
	"maps"
	"slices"
	"strings"
	"unicode"

	"cuestart/core/plan"
)

// Find is the position of the sport that a text means: its name in any case, or what its
// players call it, one of it or several. Where there is none, near is the one that the text is
// likest to; "" where it is like none.
func (s *Sport) Find(text string) (position, near string) {
	said := plainly(text)
	if said == "" {
		return "", ""
	}
	if p := s.Means(text); p != "" {
		return p, ""
	}
	if list := s.Nearest(text, 1); len(list) > 0 && slips(said, plainly(list[0])) < len([]rune(said))/2+1 {
		near = list[0]
	}
	return "", near
}

// Means is the position of the sport that a text calls by one of its names; "" where none is.
func (s *Sport) Means(text string) string {
	said := plainly(text)
	singular := strings.TrimSuffix(said, "s")
	if strings.HasSuffix(said, "men") {
		singular = strings.TrimSuffix(said, "men") + "man"
	}
	for _, as := range []string{said, singular} {
		if p := s.called(as); as != "" && p != "" {
			return p
		}
	}
	return ""
}

// called is the position that goes by a plain text; "" where none does.
func (s *Sport) called(said string) string {
	for _, p := range s.Positions {
		if plainly(p) == said {
			return p
		}
	}
	for _, p := range s.Positions {
		if slices.ContainsFunc(s.Called[p], func(a string) bool { return plainly(a) == said }) {
			return p
		}
	}
	return ""
}

// FindAll is Find of a text that may name several: "LW/C", "back and wing". What it does
// not know stands as it was said; unknown are those.
func (s *Sport) FindAll(text string) (positions, unknown []string) {
	if position, _ := s.Find(text); position != "" {
		return []string{position}, nil
	}
	for _, one := range plan.Positions(text) {
		position, _ := s.Find(one)
		if position == "" {
			position, unknown = one, append(unknown, one)
		}
		if !slices.Contains(positions, position) {
			positions = append(positions, position)
		}
	}
	return positions, unknown
}

// Nearest are up to n positions of the sport, those first to which, or to what they are
// called, a text is likest.
func (s *Sport) Nearest(text string, n int) []string {
	said := plainly(text)
	far := map[string]int{}
	for _, p := range s.Positions {
		far[p] = slips(said, plainly(p))
		for _, a := range s.Called[p] {
			if len(a) > 3 { // a short form is like everything
				far[p] = min(far[p], slips(said, plainly(a)))
			}
		}
	}
	list := slices.Clone(s.Positions)
	slices.SortStableFunc(list, func(a, b string) int { return far[a] - far[b] })
	return list[:min(n, len(list))]
}

// With is the sport in which a position goes by a further word, or with as "" has one of that name
// more; nil where as is none of its positions.
func (s Sport) With(said, as string) *Sport {
	if as == "" {
		s.Positions = append(slices.Clone(s.Positions), said)
		return &s
	}
	if !slices.Contains(s.Positions, as) {
		return nil
	}
	s.Called = maps.Clone(s.Called)
	if s.Called == nil {
		s.Called = map[string][]string{}
	}
	s.Called[as] = append(slices.Clone(s.Called[as]), said)
	return &s
}

// Filled is the sport with what it does not say taken from another, such as from the one that
// it was a copy of: positions of its own are kept.
func (s Sport) Filled(from Sport) Sport {
	if s.Called == nil {
		s.Called = from.Called
	}
	if s.Length == 0 {
		s.Length, s.Width, s.Lap = from.Length, from.Width, from.Lap
	}
	if s.Lines == nil {
		s.Lines = from.Lines
	}
	if s.Shape == nil {
		s.Shape, s.Elsewhere, s.Kit, s.Measures, s.Targets, s.Example = from.Shape, from.Elsewhere, from.Kit,
			from.Measures, from.Targets, from.Example
	}
	s.Act = cmp.Or(s.Act, from.Act)
	if s.Home == (Side{}) && s.Away == (Side{}) {
		s.Home, s.Away = from.Home, from.Away
	}
	if s.Begins == (plan.Turns{}) {
		s.Begins = from.Begins
	}
	return s
}

// plainly is a text without case, spaces and marks.
func plainly(text string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) {
			return unicode.ToLower(r)
		}
		return -1
	}, text)
}

// slips is how many letters have to be changed, put in or left out to make a of b.
func slips(a, b string) int {
	x, y := []rune(a), []rune(b)
	row := make([]int, len(y)+1)
	for j := range row {
		row[j] = j
	}
	for i := range x {
		corner := row[0]
		row[0] = i + 1
		for j := range y {
			above := row[j+1]
			change := corner
			if x[i] != y[j] {
				change++
			}
			row[j+1] = min(change, above+1, row[j]+1)
			corner = above
		}
	}
	return row[len(y)]
}

// AlsoUnit is what else a unit of the sport is called, such as OF and outfielders; none where the
// sport is not known, or has no unit of that name.
func (s *Sport) AlsoUnit(name string) []string {
	if s == nil {
		return nil
	}
	for _, u := range s.Units {
		if u.Name == name {
			return u.Also
		}
	}
	return nil
}
