package schedule

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Verdict says in one line whether a plan holds, in a second what it took, and
// lists what was given up.
type Verdict struct {
	Holds bool   `json:"holds"`
	Head  string `json:"head"`
	Line  string `json:"line"`
	Cuts  []Less `json:"cuts,omitempty"`
}

// Less is a block that was shortened or left out, or somebody called away.
type Less struct {
	What string `json:"what"`
	Why  string `json:"why"`
}

// Judge is the verdict on a fitted document.
func (s *Schedule) Judge(d *plan.Document) Verdict {
	var gone, less, missed []Less
	first := clock.Offset(0)
	for _, b := range s.Blocks(d) {
		if !b.Kept {
			gone = append(gone, Less{b.Name + " is left out", b.Cut})
			continue
		}
		if b.Cut != "" {
			less = append(less, Less{b.Name + " is shortened", b.Cut})
		}
		if b.Phase != drill.Own {
			first = min(first, b.Start)
		}
		for _, m := range b.Missed {
			missed = append(missed, Less{fmt.Sprintf("%s misses %s of %s", d.Player(m.Player).ShortName(), clock.Duration(m.Seconds), b.Name), missedWhy(d, m.Player)})
		}
	}
	v := Verdict{Holds: s.Result.Feasible, Cuts: slices.Concat(gone, less, missed)}
	switch {
	case !v.Holds:
		v.Head, v.Line = "It does not hold.", s.shortfall(d)
	case len(gone)+len(less) > 0:
		v.Head, v.Line = "It holds, with less.", counted(len(less), "shortened", len(gone), "left out")
	case len(d.Blocks) == 0:
		v.Head, v.Line = "Nothing is planned yet.", "Add the first block below the board"
	default:
		v.Head = "It holds."
		v.Line = fmt.Sprintf("all in full, from %s to %s to go", first.MinutesToGo(), clock.Offset(-d.Margin).MinutesToGo())
	}
	return v
}

// shortfall says why the musts do not fit, by how much, and for whom it is
// tightest.
func (s *Schedule) shortfall(d *plan.Document) string {
	line := strings.ToUpper(s.Result.Why[:1]) + s.Result.Why[1:]
	if by := s.Result.ShortBy; by > 0 {
		line = fmt.Sprintf("Open %s sooner, or give up a must. %s", clock.Duration(by), line)
	}
	if n := len(s.Result.Binds); n == 0 || n == len(d.Players) {
		return line
	}
	short := func(text string) bool { return len(text) < 30 }
	return line + ". Tightest for " + strings.TrimSpace(d.Numbers(s.Result.Binds)+" "+d.FirstNames(s.Result.Binds, short))
}

func missedWhy(d *plan.Document, player string) string {
	if p := d.Player(player); p != nil && p.Late > 0 {
		return "comes later; the rest goes on"
	}
	return "called away meanwhile; the rest goes on"
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

// Heaviest is the greatest of each figure that the blocks leave in any player: a
// coach plans for that one.
func Heaviest(blocks []Block) (most drill.Load) {
	for _, load := range Loads(blocks) {
		most = most.Most(load)
	}
	return most
}
