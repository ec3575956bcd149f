// Package movement understands a drill from its words, where nobody has said more of it: what
// it is for, what it works, how hard it is, how long a rep takes. What it knows stands in
// tables that a coach can read: movements.go, parts.go and modifiers.go.
//
// Seconds and paces are a coach's field values; a drill that was measured, or of which they
// were said, goes by those.
package movement

import (
	"slices"
	"strings"

	"cuestart/core/drill"
)

// Understood is what a drill's words say of it.
type Understood struct {
	Aim        string      `json:"aim"` // a quality, such as "range" or "jump"
	Phase      drill.Phase `json:"phase"`
	Joints     []string    `json:"joints,omitempty"`
	Planes     []string    `json:"planes,omitempty"`
	Effort     float64     `json:"effort"`             // 0 to 1
	Contacts   float64     `json:"contacts,omitempty"` // with the ground, a rep
	Alternates bool        `json:"alternates,omitempty"`
	Travels    bool        `json:"travels,omitempty"`

	Seconds [3]float64 `json:"-"` // a rep, quick, usual and slow; 0: it has no reps
	Pace    [3]float64 `json:"-"` // m/s, slow, usual and quick; 0: it goes nowhere
}

// Of understands a drill by its name, and all else that is said of how it is done; false where
// no word of it is known. The most telling movement leads, parts of the body add joints, what
// else is said changes it.
func Of(name string) (u Understood, known bool) {
	said := wordsOf(name)
	lead, at := leading(said)
	if lead == nil {
		said = wordsOf(InEnglish(name))
		lead, at = leading(said)
	}
	if lead == nil {
		return partsAlone(said)
	}
	u = lead.Understood
	u.Joints, u.Planes = slices.Clone(u.Joints), slices.Clone(u.Planes)
	rest := slices.Concat(said[:at.from], []string{""}, said[at.to:])
	u.add(withoutLegs(rest), lead.bare)
	for i := range modifiers {
		if m := &modifiers[i]; m.words.in(rest) {
			m.change(&u)
		}
	}
	u.Effort = min(1, max(0.05, u.Effort))
	return u, true
}

// Paced is what is understood with the pace that words beside it say: "reset each time",
// "slow"; those that say nothing of how it is done, such as cues, change nothing.
func (u Understood) Paced(words ...string) Understood {
	understood := u
	for _, one := range words {
		said := phrase(wordsOf(one))
		for i := range modifiers {
			if slices.ContainsFunc(modifiers[i].words, func(p phrase) bool { return slices.Equal(p, said) }) {
				modifiers[i].change(&understood)
			}
		}
	}
	u.Seconds, u.Pace = understood.Seconds, understood.Pace
	return u
}

// partsAlone is what a name says that has no movement in it: "ankles".
func partsAlone(said []string) (u Understood, known bool) {
	u = Understood{Aim: "range", Phase: drill.Mobilise, Effort: 0.3, Seconds: [3]float64{1.5, 2.5, 4}}
	u.add(said, bareOfItsOwn)
	return u, len(u.Joints) > 0
}

// bareOfItsOwn is a movement that works only the parts of the body that are named.
const bareOfItsOwn = true

// add takes in the parts of the body that are named. Of a movement that is bare of its own,
// such as a stretch, they are all that it works.
func (u *Understood) add(said []string, bare bool) {
	var joints, planes []string
	for i := range parts {
		if p := &parts[i]; p.words.in(said) {
			joints, planes = union(joints, p.joints), union(planes, p.planes)
		}
	}
	if joints == nil {
		return
	}
	if bare {
		u.Joints, u.Planes = joints, planes
		return
	}
	u.Joints = union(u.Joints, joints)
	if len(u.Planes) == 0 {
		u.Planes = planes
	}
}

// oneOf are words before which a leg is how a movement is done, not what it works.
var oneOf = []string{"single", "one", "two", "double", "straight", "other", "top", "bottom", "front", "back", "each",
	"a", "per"}

// withoutLegs leaves such legs out.
func withoutLegs(said []string) []string {
	kept := slices.Clone(said)
	for i, word := range kept {
		if i > 0 && (word == "leg" || word == "legs") && slices.Contains(oneOf, kept[i-1]) {
			kept[i] = ""
		}
	}
	return kept
}

// union is a list with what of more is not in it yet, in the order of the terms.
func union(list, more []string) []string {
	all := slices.Clone(list)
	for _, one := range more {
		if !slices.Contains(all, one) {
			all = append(all, one)
		}
	}
	order := slices.Concat(drill.Regions, drill.Planes)
	slices.SortStableFunc(all, func(a, b string) int { return slices.Index(order, a) - slices.Index(order, b) })
	return all
}

// span is a part of what is said, by its words.
type span struct{ from, to int }

// leading is the movement whose words tell most, and where they stand: of the most words, then
// what is no mere way of going, then the last.
func leading(said []string) (lead *move, at span) {
	best := -1
	said = placeless(said)
	for from, word := range said {
		for _, c := range beginsWith[word] {
			if !c.words.at(said, from) {
				continue
			}
			score := 100*len(c.words) + from
			if c.of.going {
				score = from // "walking lunges" are lunges
			}
			if score > best {
				best, lead, at = score, c.of, span{from, from + len(c.words)}
			}
		}
	}
	return lead, at
}

// known is one of the phrases by which a movement is called.
type known struct {
	of    *move
	words phrase
}

// beginsWith are these by their first word, as they stand in the table.
var beginsWith = func() map[string][]known {
	by := map[string][]known{}
	for i := range moves {
		for _, words := range moves[i].words {
			if len(words) > 0 {
				by[words[0]] = append(by[words[0]], known{&moves[i], words})
			}
		}
	}
	return by
}()

// Lead is the movement that leads in a name, by the first of its names: that of "Single-leg
// wobble hop" is "hop"; "" where none does, or only with what is named beside it: a stretch.
func Lead(name string) string {
	lead, _ := leading(wordsOf(name))
	if lead == nil {
		lead, _ = leading(wordsOf(InEnglish(name)))
	}
	if lead == nil || lead.bare {
		return ""
	}
	return strings.Join(lead.words[0], " ")
}

// Beside are the words of a name beside the movement that leads in it.
func Beside(name string) []string {
	said := wordsOf(name)
	lead, at := leading(said)
	if lead == nil {
		return said
	}
	return slices.Concat(said[:at.from], said[at.to:])
}
