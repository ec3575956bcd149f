package plan

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"cuestart/core/drill"
)

// Audience names who is meant by ids: "Whole squad", "Line-out", "Mara T.".
func (party *Party) Audience(ids []string) string {
	var names []string
	if len(party.Players) == 1 {
		return party.Players[0].ShortName()
	}
	for _, id := range ids {
		if id == Everyone {
			return "Whole squad"
		}
		if u := party.Unit(id); u != nil {
			names = append(names, u.Name)
		} else if p := party.Player(id); p != nil {
			names = append(names, p.ShortName())
		}
	}
	members := party.Members(ids)
	switch missing := len(party.Players) - len(members); {
	case len(names) <= 4:
		return strings.Join(names, ", ")
	case missing == 0:
		return "Whole squad"
	case missing <= 3:
		var without []string
		for _, p := range party.Players {
			if !slices.Contains(members, p.ID) {
				without = append(without, p.ShortName())
			}
		}
		return "All but " + strings.Join(without, ", ")
	}
	return fmt.Sprintf("%s and %d more", strings.Join(names[:3], ", "), len(names)-3)
}

// Numbers writes the shirt numbers of players as a coach does: "1–3", "4 5", "9 12 13". Players
// without a number are counted: "+2".
func (party *Party) Numbers(ids []string) string {
	var list []int
	without := 0
	for _, id := range ids {
		if p := party.Player(id); p != nil && p.Number > 0 {
			list = append(list, p.Number)
		} else {
			without++
		}
	}
	slices.Sort(list)
	var parts []string
	for i := 0; i < len(list); {
		j := i
		for j+1 < len(list) && list[j+1] == list[j]+1 {
			j++
		}
		if j-i >= 2 {
			parts = append(parts, fmt.Sprintf("%d–%d", list[i], list[j]))
		} else {
			for k := i; k <= j; k++ {
				parts = append(parts, fmt.Sprint(list[k]))
			}
		}
		i = j + 1
	}
	if without > 0 {
		parts = append(parts, fmt.Sprintf("+%d", without))
	}
	return strings.Join(parts, " ")
}

// GroupNames names the players of a small group: their shirt numbers where all have one, else
// their names; "" where there is nobody.
func (party *Party) GroupNames(ids []string) string {
	var names, here []string
	numbered := true
	for _, id := range ids {
		if p := party.Player(id); p != nil {
			names, here = append(names, p.ShortName()), append(here, id)
			numbered = numbered && p.Number > 0
		}
	}
	if numbered {
		return party.Numbers(here)
	}
	return strings.Join(names, ", ")
}

// FewNumbers is Numbers, as far as they fit, and how many more there are.
func (party *Party) FewNumbers(ids []string, fit func(string) bool) string {
	all := party.Numbers(ids)
	if fit(all) {
		return all
	}
	for n := len(ids) - 1; n > 0; n-- {
		if text := fmt.Sprintf("%s +%d", party.Numbers(ids[:n]), len(ids)-n); fit(text) {
			return text
		}
	}
	return drill.Number(len(ids), "players")
}

// FirstNames lists the first names of players, as many as fit, and how many more
// there are.
func (party *Party) FirstNames(ids []string, fit func(string) bool) string {
	first := map[string]int{}
	for _, p := range party.Players {
		first[p.First]++
	}
	var names []string
	for _, id := range ids {
		if p := party.Player(id); p != nil && first[p.First] > 1 {
			names = append(names, p.ShortName()) // two of one name would read alike
		} else if p != nil {
			names = append(names, p.First)
		}
	}
	if len(names) == len(party.Players) && len(names) > 3 {
		return "everybody"
	}
	for n := len(names); n > 0; n-- {
		text := strings.Join(names[:n], ", ")
		if n < len(names) {
			text += fmt.Sprintf(" +%d", len(names)-n)
		}
		if fit(text) || n == 1 {
			return text
		}
	}
	return ""
}

// ZoneName is the name of the zone of that id, or "".
func (s *Site) ZoneName(id string) string {
	if z := s.Zone(id); z != nil {
		return z.Name
	}
	return ""
}

// LeaderName is the name of the leader of that id, or "".
func (party *Party) LeaderName(id string) string {
	if l := party.Leader(id); l != nil {
		return l.Name
	}
	return ""
}

// Label is the full name, with the number before it where there is one.
func (p Player) Label() string {
	name := strings.TrimSpace(p.First + " " + p.Last)
	if p.Number > 0 {
		return fmt.Sprintf("%d %s", p.Number, name)
	}
	return name
}

// AddCaution adds what a drill's caution says and said does not say yet. To stop
// on pain, and that a knock to the head means out, is said of everything anyway.
func AddCaution(said []string, caution string) []string {
	for _, part := range strings.Split(caution, ";") {
		part = strings.TrimSpace(part)
		small := strings.ToLower(part)
		if part == "" || strings.HasPrefix(small, "stop on") || strings.Contains(small, "knock to the head") ||
			small == "nothing to mind" {
			continue
		}
		first, size := utf8.DecodeRuneInString(part)
		part = string(unicode.ToUpper(first)) + part[size:]
		if !slices.ContainsFunc(said, func(s string) bool { return strings.Contains(strings.ToLower(s), small) }) {
			said = append(said, part)
		}
	}
	return said
}
