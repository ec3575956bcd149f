package web

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
)

// phaseNames are the phases as a coach says them.
var phaseNames = map[drill.Phase]string{drill.Raise: "Raise", drill.Activate: "Activate", drill.Mobilise: "Mobilise",
	drill.Potentiate: "Potentiate", drill.Sport: "Sport", drill.Own: "Own time", drill.After: "After"}

// letter is what marks a phase; own time has none.
func letter(phase drill.Phase) string {
	if phase == drill.Own || phase == drill.After {
		return ""
	}
	return phaseNames[phase][:1]
}

// tile is the name of a phase's colours and hatch.
func tile(phase drill.Phase) string {
	if phase == drill.Own {
		return "own"
	} else if phase == drill.After {
		return "after"
	}
	return string(phase)
}

// who names an audience: "Whole squad", "Line-out", "Mara T.".
func who(d *plan.Document, ids []string) string {
	var names []string
	for _, id := range ids {
		if id == plan.Everyone {
			return "Whole squad"
		}
		if u := d.Unit(id); u != nil {
			names = append(names, u.Name)
		} else if p := d.Player(id); p != nil {
			names = append(names, p.ShortName())
		}
	}
	switch missing := len(d.Players) - len(d.Members(ids)); {
	case len(names) <= 4:
		return strings.Join(names, ", ")
	case missing == 0:
		return "Whole squad"
	case missing <= 3:
		var without []string
		for _, p := range d.Players {
			if !slices.Contains(d.Members(ids), p.ID) {
				without = append(without, p.ShortName())
			}
		}
		return "All but " + strings.Join(without, ", ")
	}
	return fmt.Sprintf("%s and %d more", strings.Join(names[:3], ", "), len(names)-3)
}

// versions says who does a block otherwise, by what medical staff ruled.
func versions(d *plan.Document, block string) (says []string) {
	for _, v := range today.Versions(d) {
		if v.Block == block {
			says = append(says, d.Player(v.Player).ShortName()+": "+v.Words(d.Block(block).Items[v.Item].Drill))
		}
	}
	return says
}

// warn adds what a drill's caution says that has not been said yet. To stop on
// pain, and that a knock to the head means out, is said of everything anyway.
func warn(said []string, caution string) []string {
	for _, part := range strings.Split(caution, ";") {
		part = strings.TrimSpace(part)
		small := strings.ToLower(part)
		if part == "" || strings.HasPrefix(small, "stop on") || strings.Contains(small, "knock to the head") || small == "nothing to mind" {
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

func zoneName(d *plan.Document, id string) string {
	if z := d.Zone(id); z != nil {
		return z.Name
	}
	return ""
}

func fixedName(d *plan.Document, id string) string {
	for _, f := range d.Fixed {
		if f.ID == id {
			return f.Name
		}
	}
	if (schedule.Window{ID: id}).Late() != "" {
		return "Not there yet"
	}
	return id
}

func leaderName(d *plan.Document, id string) string {
	if l := d.Leader(id); l != nil {
		return l.Name
	}
	return ""
}

// numbers writes the shirt numbers of players as a coach does: "1–3", "4 5",
// "9 12 13". Players without a number are counted: "+2".
func numbers(d *plan.Document, ids []string) string {
	var list []int
	without := 0
	for _, id := range ids {
		if p := d.Player(id); p != nil && p.Number > 0 {
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

// firstNames lists the first names of players, as many as fit.
func firstNames(d *plan.Document, ids []string, fit func(string) bool) string {
	var names []string
	for _, id := range ids {
		if p := d.Player(id); p != nil {
			names = append(names, p.First)
		}
	}
	if len(names) == len(d.Players) && len(names) > 3 {
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

// doses writes what each drill of a block asks for at the given amounts.
func doses(b *plan.Block, amounts []int) []string {
	var words []string
	for i, item := range b.Items {
		amount := item.Drill.Range.Target
		if amounts != nil {
			amount = amounts[i]
		}
		words = append(words, item.Drill.Words(amount))
	}
	return words
}

// verdict says in one line whether a plan holds, and in a second what it took.
type verdict struct {
	Holds      bool
	Head, Line string
	Cuts       []cut
}

// cut is a block that was shortened or left out, or somebody called away.
type cut struct{ What, Why string }

func judge(d *plan.Document, s *schedule.Schedule) verdict {
	shortened, out := 0, 0
	v := verdict{Holds: s.Result.Feasible}
	first := clock.Offset(0)
	var gone, less, missed []cut
	for i := range s.Result.Blocks {
		r, b := &s.Result.Blocks[i], &d.Blocks[i]
		switch {
		case !r.Kept:
			out++
			gone = append(gone, cut{b.Name + " is left out", r.Why})
			continue
		case r.Why != "":
			shortened++
			less = append(less, cut{b.Name + " is shortened", r.Why})
		}
		if d.Blocks[i].Phase != drill.Own {
			first = min(first, r.Start)
		}
		for _, m := range r.Missed {
			missed = append(missed, cut{fmt.Sprintf("%s misses %s of %s", d.Player(m.Player).ShortName(), clock.Duration(m.Seconds), b.Name), missedWhy(d, m.Player)})
		}
	}
	v.Cuts = slices.Concat(gone, less, missed)
	switch {
	case !v.Holds:
		v.Head = "It does not hold."
		v.Line = strings.ToUpper(s.Result.Why[:1]) + s.Result.Why[1:]
		if by := s.Result.ShortBy; by > 0 {
			v.Line = fmt.Sprintf("Open %s sooner, or give up a must. %s", clock.Duration(by), v.Line)
		}
		if len(s.Result.Binds) > 0 && len(s.Result.Binds) < len(d.Players) {
			v.Line += ". Tightest for " + strings.Join(nonEmpty(numbers(d, s.Result.Binds), firstNames(d, s.Result.Binds, func(t string) bool { return len(t) < 30 })), " ")
		}
	case out+shortened > 0:
		v.Head = "It holds, with less."
		v.Line = strings.Join(count(shortened, "shortened", out, "left out"), ", ")
	case len(d.Blocks) == 0:
		v.Head = "Nothing is planned yet."
		v.Line = "Add the first block below the board"
	default:
		v.Head = "It holds."
		v.Line = fmt.Sprintf("all in full, from %s to %s to go", first.MinutesToGo(), clock.Offset(-d.Margin).MinutesToGo())
	}
	return v
}

func missedWhy(d *plan.Document, player string) string {
	if p := d.Player(player); p != nil && p.Late > 0 {
		return "comes later; the rest goes on"
	}
	return "called away meanwhile; the rest goes on"
}

func count(pairs ...any) (words []string) {
	for i := 0; i < len(pairs); i += 2 {
		if n := pairs[i].(int); n > 0 {
			words = append(words, fmt.Sprintf("%d %s", n, pairs[i+1]))
		}
	}
	return words
}

// carried is what the run-in leaves in the players of a unit, or of all: the
// heaviest loaded of them, since a coach plans for that one.
func carried(d *plan.Document, s *schedule.Schedule) drill.Load {
	most := drill.Load{}
	for _, load := range schedule.Loads(s.Blocks(d)) {
		most.Seconds = max(most.Seconds, load.Seconds)
		most.HardSeconds = max(most.HardSeconds, load.HardSeconds)
		most.GroundSeconds = max(most.GroundSeconds, load.GroundSeconds)
		most.StandSeconds = max(most.StandSeconds, load.StandSeconds)
		most.Contacts = max(most.Contacts, load.Contacts)
		most.SprintMetres = max(most.SprintMetres, load.SprintMetres)
		most.Acts = max(most.Acts, load.Acts)
	}
	return most
}
