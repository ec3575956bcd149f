package movement

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/pattern"
)

// Chip is one of the four things that complete a drill of one's own.
type Chip string

// The chips: what it is for, what it works, how fast it goes, what is told of it.
const (
	For   Chip = "for"
	Works Chip = "works"
	Fast  Chip = "fast"
	Cue   Chip = "cue"
	Look  Chip = "look" // what to look for: beside the four, in the book
)

// Chips are all of them, in the order in which they are asked.
var Chips = []Chip{For, Works, Fast, Cue, Look}

// purpose is something that a drill may be for, as it is said, and what follows from it
// where its words say nothing.
type purpose struct {
	quality, words string
	phase          drill.Phase
	effort         float64
}

// purposes are what a drill may be for, from the mildest on.
var purposes = []purpose{
	{quality: "calm", words: "calm, breathing", phase: drill.Own, effort: 0.1},
	{quality: "tissue", words: "loosening what is tight", phase: drill.Own, effort: 0.15},
	{quality: "range", words: "moving further", phase: drill.Mobilise, effort: 0.35},
	{quality: "hold", words: "holding still", phase: drill.Activate, effort: 0.3},
	{quality: "control", words: "control", phase: drill.Activate, effort: 0.3},
	{quality: "stability", words: "balance", phase: drill.Activate, effort: 0.35},
	{quality: "strength", words: "waking muscles up", phase: drill.Activate, effort: 0.4},
	{quality: "pulse", words: "getting warm", phase: drill.Raise, effort: 0.5},
	{quality: "rhythm", words: "running well", phase: drill.Raise, effort: 0.5},
	{quality: "coordination", words: "coordination", phase: drill.Raise, effort: 0.5},
	{quality: "game", words: "a game", phase: drill.Raise, effort: 0.6},
	{quality: "craft", words: "the sport itself", phase: drill.Sport, effort: 0.6},
	{quality: "landing", words: "landing well", phase: drill.Potentiate, effort: 0.7},
	{quality: "jump", words: "jumping", phase: drill.Potentiate, effort: 0.85},
	{quality: "change", words: "turning fast", phase: drill.Potentiate, effort: 0.85},
	{quality: "reaction", words: "reacting", phase: drill.Potentiate, effort: 0.85},
	{quality: "acceleration", words: "starting fast", phase: drill.Potentiate, effort: 0.9},
	{quality: "sprint", words: "sprinting", phase: drill.Potentiate, effort: 0.95},
}

// Purposes are the words of what a drill may be for.
func Purposes() (words []string) {
	for _, p := range purposes {
		words = append(words, p.words)
	}
	return words
}

// planeSaid are planes as a coach says them.
var planeSaid = map[string]string{"front": "forwards and back", "side": "sideways", "turn": "turning"}

// Says is what a chip of a drill holds, as it is said; "" where nothing is known of it.
func Says(k *drill.Drill, chip Chip) string {
	switch chip {
	case For:
		for _, p := range purposes {
			if slices.Contains(k.Qualities, p.quality) {
				return p.words
			}
		}
	case Works:
		words := slices.Clone(k.Regions)
		for _, p := range k.Planes {
			if len(k.Planes) < len(drill.Planes) {
				words = append(words, planeSaid[p])
			}
		}
		return strings.Join(words, ", ")
	case Fast:
		return pace(&k.Dose)
	case Cue:
		return strings.Join(k.Cues, "; ")
	case Look:
		return strings.Join(k.Faults, "; ")
	}
	return ""
}

// pace is how fast a dose goes: "3 s a rep", "8 s a length".
func pace(d *drill.Dose) string {
	round := func(s float64) string { return strconv.FormatFloat(math.Round(10*s)/10, 'f', -1, 64) }
	switch d.Kind {
	case drill.Reps:
		return round(d.RepSeconds) + " s a rep"
	case drill.Travel:
		if d.Speed > 0 && len(d.Efforts) == 0 {
			return round(d.Metres/d.Speed) + " s a length"
		}
	case drill.Count, drill.Grid:
		return round(d.ActSeconds) + " s each"
	}
	return ""
}

var (
	secondsSaid = pattern.Must(`(?i)(\d+(?:[.,]\d+)?) ?(?:s\b|sec|")`)
	speedSaid   = pattern.Must(`(?i)(\d+(?:[.,]\d+)?) ?m/s`)
	bareSaid    = pattern.Must(`^ *(\d+(?:[.,]\d+)?) *$`)
)

// Set has a drill be what was said of it. It fails with a sentence where that is not
// understood.
func Set(k *drill.Drill, chip Chip, said string) error {
	said = strings.TrimSpace(said)
	switch chip {
	case For:
		i := slices.IndexFunc(purposes, func(p purpose) bool {
			return strings.EqualFold(p.words, said) || p.quality == said
		})
		if i < 0 {
			return fmt.Errorf("pick what it is for: %s", strings.Join(Purposes(), ", "))
		}
		is := purposes[i]
		k.Qualities, k.Phases, k.Effort = []string{is.quality}, []drill.Phase{is.phase}, is.effort
		k.Aim = strings.ToUpper(is.words[:1]) + is.words[1:]
	case Works:
		return works(k, said)
	case Fast:
		return fast(k, said)
	case Cue:
		return several(&k.Cues, said, "six cues at most")
	case Look:
		return several(&k.Faults, said, "six things to look for at most")
	default:
		return fmt.Errorf("there is no such part of a drill")
	}
	return nil
}

// several has a list be what was said, parted by semicolons: six at most.
func several(list *[]string, said, tooMany string) error {
	const most = 6
	all := strings.FieldsFunc(said, func(r rune) bool { return r == ';' || r == '\n' })
	for i := range all {
		all[i] = strings.TrimSpace(all[i])
	}
	if all = slices.DeleteFunc(all, func(one string) bool { return one == "" }); len(all) > most {
		return errors.New(tooMany)
	}
	*list = all
	return nil
}

// works has a drill work the joints, muscles and directions that are named.
func works(k *drill.Drill, said string) error {
	var u Understood
	words := wordsOf(strings.ReplaceAll(said, "forwards and back", "forwards"))
	u.add(words, bareOfItsOwn)
	var planes []string
	for plane, names := range map[string][]string{"front": {"forwards", "forward", "straight"},
		"side": {"sideways", "side", "lateral"}, "turn": {"turning", "turn", "rotation", "twist"}} {
		if slices.ContainsFunc(names, func(name string) bool { return slices.Contains(words, name) }) {
			planes = append(planes, plane)
		}
	}
	if u.Joints == nil && planes == nil {
		return fmt.Errorf("say joints, muscles or a direction: hips, hamstrings, turning")
	}
	if u.Joints != nil {
		k.Regions, k.Planes = u.Joints, u.Planes
	}
	if planes != nil {
		k.Planes = union(nil, planes)
	}
	return nil
}

// fast has a drill go as fast as is said: "25 s a length", "3 s a rep", "2 m/s", "slow".
func fast(k *drill.Drill, said string) error {
	dose := k.Dose
	d := &dose
	field, usual := paceOf(d)
	if field == nil {
		return fmt.Errorf("this one is done by the clock: change its minutes instead")
	}
	number := func(m []string) float64 {
		n, _ := strconv.ParseFloat(strings.ReplaceAll(m[1], ",", "."), 64)
		return n
	}
	length := max(1, d.Metres)
	switch {
	case speedSaid.MatchString(said) && d.Kind == drill.Travel:
		*field = number(speedSaid.FindStringSubmatch(said))
	case secondsSaid.MatchString(said) || bareSaid.MatchString(said):
		m := secondsSaid.FindStringSubmatch(said)
		if m == nil {
			m = bareSaid.FindStringSubmatch(said)
		}
		if *field = number(m); d.Kind == drill.Travel {
			*field = length / max(0.1, number(m))
		}
	default:
		u, _ := Of(k.Name)
		factor, ok := map[string]float64{"slow": 1.5, "slowly": 1.5, "very slow": 2, "quick": 0.75, "fast": 0.75,
			"usual": 1}[strings.ToLower(said)]
		if !ok {
			return fmt.Errorf("say how fast: 25 s a length, 3 s a rep, slow, quick")
		}
		if d.Kind == drill.Travel {
			factor = 1 / factor
			usual = max(u.Pace[1], 0)
		} else if u.Seconds[1] > 0 {
			usual = u.Seconds[1]
		}
		if usual == 0 {
			usual = *field
		}
		*field = usual * factor
	}
	d.Tempo, d.Efforts = nil, nil
	if err := d.Validate(); err != nil {
		return err
	}
	k.Dose = dose
	return nil
}

// paceOf is the field of a dose that holds its pace, and what it holds; nil where it has none.
func paceOf(d *drill.Dose) (field *float64, usual float64) {
	switch d.Kind {
	case drill.Reps:
		return &d.RepSeconds, d.RepSeconds
	case drill.Travel:
		return &d.Speed, d.Speed
	case drill.Count, drill.Grid:
		return &d.ActSeconds, d.ActSeconds
	}
	return nil, 0
}
