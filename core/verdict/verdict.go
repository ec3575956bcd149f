// Package verdict says in one sentence whether a plan can be run as it is: whether
// it fits into its minutes, and how much the checks found.
package verdict

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/pattern"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// Verdict says in one sentence whether a plan can be run as it is, in a second what
// it took, and lists what was given up.
type Verdict struct {
	Holds bool         `json:"holds"` // it fits, and the checks found no stop
	Head  string       `json:"head"`
	Line  string       `json:"line"`
	Cuts  []Less       `json:"cuts,omitempty"`
	First clock.Offset `json:"first"` // when the first block begins; 0: nothing is planned
}

// Less is a block that was shortened or left out, or somebody called away.
type Less struct {
	What string `json:"what"`
	Why  string `json:"why"`
}

// Of is the verdict on a fitted document with what the checks found in it.
func Of(d *plan.Document, s *schedule.Schedule, findings []check.Finding) Verdict {
	var gone, less, missed []Less
	var names []string // of what is left out
	v := Verdict{}
	for _, b := range s.Blocks(d) {
		if !b.Kept {
			gone = append(gone, Less{"Left out: " + b.Name, b.Cut})
			names = append(names, b.Name)
			continue
		}
		if b.Cut != "" {
			less = append(less, Less{"Shorter: " + b.Name, b.Cut})
		}
		v.First = min(v.First, b.Start)
		missed = append(missed, away(d, s, &b)...)
	}
	v.Cuts = slices.Concat(gone, less, missed)
	found := check.Count(findings)
	v.Holds = s.Result.Feasible && found.Stops == 0
	v.Line = fmt.Sprintf("all in full, from %s to %s to go", v.First.ToGo(), clock.Offset(-d.Margin-d.Slack).ToGo())
	if len(gone)+len(less) > 0 {
		v.Line = counted(len(less), "shortened", len(gone), "left out")
	}
	switch {
	case len(d.Blocks) == 0:
		v.Holds, v.Head, v.Line = s.Result.Feasible, "Nothing is planned yet.",
			"Write it as you say it, build the warm-up for this day, or take a routine"
	case !s.Result.Feasible:
		v.Head, v.Line = tooShort(names, s.Result.ShortBy), shortfall(d, s)
	case found.Stops > 0:
		v.Head = fmt.Sprintf("Don't run this yet: %s to put right.", things(found.Stops))
	case found.Warns > 0 && len(gone) > 0:
		v.Head = fmt.Sprintf("Fits, without %s. Look at %s.", without(names), things(found.Warns))
	case found.Warns > 0:
		v.Head = fmt.Sprintf("It fits, but look at %s.", things(found.Warns))
	case len(gone) > 0:
		v.Head = fmt.Sprintf("Fits, without %s.", without(names))
	default:
		v.Head = "It fits."
	}
	return v
}

// tooShort says that the minutes hold less than the least of everything.
func tooShort(gone []string, by int) string {
	head := "Don't run this yet: it does not fit"
	if by > 0 {
		head = "Too short by " + clock.Lasting(by)
	}
	if len(gone) > 0 {
		return fmt.Sprintf("%s, even without %s.", head, without(gone))
	}
	return head + ": each thing once."
}

// without names what is left out, two of them at most.
func without(gone []string) string {
	switch n := len(gone); n {
	case 1:
		return gone[0]
	case 2:
		return gone[0] + " and " + gone[1]
	default:
		return fmt.Sprintf("%s, %s and %d more", gone[0], gone[1], n-2)
	}
}

// things counts them in a sentence.
func things(n int) string {
	if n == 1 {
		return "1 thing"
	}
	return fmt.Sprintf("%d things", n)
}

// Late says that a plan's moment has gone, or ""; start is its start, startName what
// the sport calls that.
func (v Verdict) Late(start, now time.Time, startName string) string {
	since := func(t time.Time) string { return Ago(now.Sub(t)) }
	switch first := start.Add(time.Duration(v.First) * time.Second); {
	case !now.Before(start):
		return fmt.Sprintf("%s was %s.", startName, since(start))
	case v.First < 0 && now.After(first.Add(time.Minute)):
		return fmt.Sprintf("Work was to begin %s, at %s.", since(first), first.Format("15:04"))
	}
	return ""
}

// Ago says how long ago something was.
func Ago(d time.Duration) string {
	switch minutes := int(d.Minutes()); {
	case minutes < 1:
		return "just now"
	case minutes < 120:
		return fmt.Sprintf("%d min ago", minutes)
	case minutes < 48*60:
		return fmt.Sprintf("%d hours ago", minutes/60)
	}
	return fmt.Sprintf("%d days ago", int(d.Hours()/24))
}

// shortfall says why the musts do not fit, by how much, and for whom it is
// tightest.
func shortfall(d *plan.Document, s *schedule.Schedule) string {
	line := "There is no time for all that must be done"
	if why := s.Result.Why; why != "" {
		why = named(d, why)
		line = strings.ToUpper(why[:1]) + why[1:]
	}
	if by := s.Result.ShortBy; by > 0 {
		line = fmt.Sprintf("Start %s sooner, or drop a must. %s", clock.Lasting(by), line)
	}
	if n := len(s.Result.Binds); n == 0 || n == len(d.Players) {
		return line
	}
	short := func(text string) bool { return len(text) < 30 }
	return line + ". Tightest for " +
		strings.TrimSpace(d.Numbers(s.Result.Binds)+" "+d.FirstNames(s.Result.Binds, short))
}

// overfull is how the fit says that a place or kit is too small for a must, by their ids.
var overfull = pattern.Must(`^(\S+), a must, needs (\d+) of (\S+), which holds (\d+)$`)

// named is what the fit says, with names in place of ids.
func named(d *plan.Document, why string) string {
	m := overfull.FindStringSubmatch(why)
	if m == nil || d.Block(m[1]) == nil {
		return why
	}
	place := m[3]
	if z := d.Zone(place); z != nil {
		place = z.Name
	}
	return fmt.Sprintf("%s is for %s, and %s holds %s", d.Block(m[1]).Name, m[2], place, m[4])
}

// away says who is not there for a part of a block, once for all who are at the same thing.
func away(d *plan.Document, s *schedule.Schedule, b *schedule.Block) (list []Less) {
	var at []string // where they are, in the order in which it is met
	who, longest := map[string][]string{}, map[string]int{}
	for _, m := range b.Missed {
		where := whereabouts(d, s, b, m.Player)
		if who[where] == nil {
			at = append(at, where)
		}
		who[where] = append(who[where], m.Player)
		longest[where] = max(longest[where], m.Seconds)
	}
	for _, where := range at {
		players := who[where]
		names, verb := d.Player(players[0]).ShortName(), "is"
		if others := len(players) - 1; others > 0 {
			names, verb = fmt.Sprintf("%s and %s", names, drill.Number(others, "others")), "are"
		}
		list = append(list, Less{fmt.Sprintf("%s %s %s for %s of %s", names, verb, where, clock.Lasting(longest[where]),
			b.Name),
			"the others carry on"})
	}
	return list
}

// whereabouts is where a player is who misses a part of a block: at what is fixed for them
// meanwhile, or not there yet.
func whereabouts(d *plan.Document, s *schedule.Schedule, b *schedule.Block, player string) string {
	if p := d.Player(player); p != nil && p.Late > 0 {
		return "not there yet"
	}
	for _, w := range s.Fixed {
		if f := d.Event(w.ID); f != nil && slices.Contains(w.Players, player) && w.Start < b.End && w.End > b.Start {
			return "at " + f.Name
		}
	}
	return "elsewhere"
}

// counted says two counts, without those that are 0.
func counted(n int, what string, m int, other string) string {
	var words []string
	if n > 0 {
		words = append(words, fmt.Sprintf("%d %s", n, what))
	}
	if m > 0 {
		words = append(words, fmt.Sprintf("%d %s", m, other))
	}
	return strings.Join(words, ", ")
}
