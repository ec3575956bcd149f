package check

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/pattern"
	"cuestart/core/plan"
)

// MostOwn is how many principles a club may have of its own.
const MostOwn = 20

// clue is a word of a principle, and which drills have what it says.
type clue struct {
	words *pattern.Pattern
	is    func(k *drill.Drill) bool
	phase drill.Phase // where such a drill mostly stands
}

// having are drills that train one of the qualities.
func having(qualities ...string) func(k *drill.Drill) bool {
	return func(k *drill.Drill) bool {
		return slices.ContainsFunc(qualities, func(q string) bool { return anyOf(k.Qualities, q) })
	}
}

func clueOf(words string, phase drill.Phase, is func(k *drill.Drill) bool) clue {
	return clue{pattern.Must(`(?i)\b(?:` + words + `)\b`), is, phase}
}

// clues are the words by which a club says what every warm-up must have. Several in one principle
// have to be in one drill: "power with a stuck landing".
var clues = append([]clue{
	clueOf(`pulse|heart ?rate|get warm|jog\w*|easy run\w*`, drill.Raise, usual[0].is),
	clueOf(`games?|tag|play\w*|fun|competition`, drill.Sport, having("game")),
	clueOf(`stuck landings?|landings?|stick\w*|land\w*`, drill.Potentiate, having("landing")),
	clueOf(`agility|change\w* of direction|cuts?|cutting|footwork|side ?steps?`, drill.Potentiate,
		having("change", "reaction")),
	clueOf(`reactions?|react\w*|reactive`, drill.Potentiate, having("reaction")),
	clueOf(`running technique|running mechanics|running drills?|running form|run technique|sprint drills?|mechanics|technique`,
		drill.Raise, func(k *drill.Drill) bool {
			return having("coordination", "rhythm")(k) && (k.Dose.Kind == drill.Travel || k.Dose.Kind == drill.Line ||
				having("sprint")(k))
		}),
	clueOf(`full (?:effort|speed)|flat out|sprints?|top speed|max(?:imal)? speed`, drill.Potentiate, usual[3].is),
	clueOf(`rising|build\w*(?: up)?|progressive runs?|strides?`, drill.Potentiate, usual[2].is),
	clueOf(`power|explosive|jumps?|jumping|plyo\w*|bounds?|hops?`, drill.Potentiate, having("jump", "landing")),
	clueOf(`accelerations?|starts?|first steps?`, drill.Potentiate, having("acceleration")),
	clueOf(`openers?|mobility|stretch\w*|range|dynamic stretches`, drill.Mobilise, having("range")),
	clueOf(`balance|stability|control|single[- ]leg`, drill.Activate, having("stability", "control")),
	clueOf(`strength\w*|strong|activation|activate|glutes?`, drill.Activate, having("strength", "hold")),
	clueOf(`(?:mini-?)?bands?|banded`, drill.Activate, func(k *drill.Drill) bool {
		return slices.ContainsFunc(slices.Concat(k.Kit, k.LaneKit),
			func(kit string) bool { return strings.Contains(kit, "band") })
	}),
	clueOf(`core|trunk|planks?|abs`, drill.Activate, func(k *drill.Drill) bool {
		return anyOf(k.Regions, "back") && having("strength", "stability", "hold")(k)
	}),
	clueOf(`rolling|foam roll\w*|soft tissue|massage`, drill.Own, having("tissue")),
	clueOf(`position work|craft|skills?|ball work|throws?|throwing|kicks?|kicking|shots?|shooting|passes|passing|hits|hitting`,
		drill.Sport, having("craft")),
	clueOf(`calm|breath\w*|quiet|mental|visuali[sz]\w*`, drill.Own, having("calm")),
	clueOf(`turn\w*|rotation\w*|twist\w*`, drill.Mobilise, func(k *drill.Drill) bool {
		return anyOf(k.Planes, "turn")
	}),
	clueOf(`sideways|lateral|side to side`, drill.Mobilise, func(k *drill.Drill) bool {
		return anyOf(k.Planes, "side")
	}),
	clueOf(`coordination|rhythm`, drill.Raise, having("coordination", "rhythm")),
}, joints()...)

// jointWords are what joints are called beside their names.
var jointWords = map[string]string{"back": `backs?|spine|mid-?back|t-?spine|thoracic`,
	"hip": `hips?|groins?|hamstrings?|adductors?`, "ankle": `ankles?|cal(?:f|ves)|feet|foot`,
	"shoulder": `shoulders?|rotator cuffs?|cuffs?`, "knee": `knees?|quads?`, "neck": `necks?`, "elbow": `elbows?|arms?`,
	"wrist": `wrists?|forearms?|hands?`}

func joints() (list []clue) {
	for _, j := range drill.Regions {
		words := jointWords[j]
		if words == "" {
			words = j + "s?"
		}
		list = append(list, clueOf(words, drill.Mobilise, func(k *drill.Drill) bool { return anyOf(k.Regions, j) }))
	}
	return list
}

// howMany are numbers as they are said.
var howMany = map[string]int{"one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "a": 1, "an": 1, "some": 1}

var countFirst = pattern.Must(`(?i)^\s*(?:at least\s+)?(\d{1,2}|one|two|three|four|five|six|a|an|some)\b`)

// ReadPrinciple reads what every warm-up must have, as a club says it: "three hip openers". It
// fails with a sentence where no word of it is known.
func ReadPrinciple(text string) (p Principle, err error) {
	p.Name, p.Count = strings.TrimSpace(text), 1
	if problem := plan.NameProblem(p.Name); problem != "" {
		return p, fmt.Errorf("%s", problem)
	}
	if m := countFirst.FindStringSubmatch(p.Name); m != nil {
		if p.Count = howMany[strings.ToLower(m[1])]; p.Count == 0 {
			p.Count, _ = strconv.Atoi(m[1])
		}
		if p.Count < 1 || p.Count > 12 {
			return p, fmt.Errorf("%q: between 1 and 12 of it", p.Name)
		}
	}
	var all []func(k *drill.Drill) bool
	rest := p.Name
	for _, c := range clues {
		if at := c.words.FindStringIndex(rest); at != nil {
			rest = rest[:at[0]] + " ; " + rest[at[1]:]
			if all = append(all, c.is); p.In == drill.Own || p.In == "" {
				p.In = c.phase
			}
		}
	}
	if len(all) == 0 {
		return p,
			fmt.Errorf("%q: say it by what the drills do, such as a game, three hip openers, running "+
				"technique, landings, agility",
				p.Name)
	}
	p.ID = "own " + strings.ToLower(p.Name)
	p.Is = func(k *drill.Drill) bool {
		return !slices.ContainsFunc(all, func(is func(*drill.Drill) bool) bool { return !is(k) })
	}
	return p, nil
}

// Usual are the principles that hold for every sport, with the joints that one stresses, as a club
// would say them.
func Usual(stresses []string) []string {
	list := []string{"pulse"}
	for _, joint := range stresses {
		list = append(list, joint+" mobility")
	}
	return append(list, "something that turns", "something sideways", "a stuck landing", "rising runs", "a full effort",
		"a game", "position work")
}

// ownOf are a club's principles; what cannot be read, which was checked when it was said, is none.
func ownOf(own []string) (list []Principle) {
	for _, text := range own {
		if p, err := ReadPrinciple(text); err == nil {
			list = append(list, p)
		}
	}
	return list
}
