// Package today applies the day's facts to a plan: factors that turn doses up or down, each with
// a reason, and the restrictions of medical staff.
package today

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Factor is one reason to do more or less of something today.
type Factor struct {
	ID     string      `json:"id"`
	Phase  drill.Phase `json:"phase"`  // "": reps and acts of every phase
	Times  float64     `json:"times"`  // what the target is multiplied by
	Reason string      `json:"reason"` // such as "cold, 4 °C"
	Set    bool        `json:"set"`    // by hand: it is done at once, to said numbers too
}

// Words writes the factor as a coach reads it: "cold, 4 °C: 30 % more Raise".
func (f Factor) Words() string { return f.Reason + ": " + f.Effect() }

// Effect is what the factor does: "30 % more Raise".
func (f Factor) Effect() string {
	percent, way := math.Round(100*(f.Times-1)), "more"
	if percent < 0 {
		percent, way = -percent, "less"
	}
	what := "reps and acts"
	if f.Phase != "" {
		what = f.Phase.Name()
	}
	return fmt.Sprintf("%.0f\u00a0%% %s %s", percent, way, what)
}

// air are the factors of temperature, by band; a coach's defaults, editable by
// switching them off.
var air = map[plan.Air]struct{ raise, sport float64 }{
	plan.Cold: {1.3, 1.25},
	plan.Cool: {1.15, 1.1},
	plan.Warm: {0.85, 0.9},
	plan.Hot:  {0.7, 0.85},
}

// windy is the wind in m/s from which standing about cools; a coach's default.
const windy = 8

// Factors lists what applies to the document today, including the ones that its coach has
// switched off.
func Factors(d *plan.Document) (factors []Factor) {
	t := d.Today
	if a, counts := air[t.Air()]; counts {
		band := string(t.Air())
		reason := band + ", " + d.Measure.Air(*t.Celsius)
		factors = append(factors, Factor{ID: band + "-raise", Phase: drill.Raise, Times: a.raise, Reason: reason},
			Factor{ID: band + "-sport", Phase: drill.Sport, Times: a.sport, Reason: reason})
	}
	if t.Wind >= windy {
		factors = append(factors, Factor{ID: "wind-raise", Phase: drill.Raise, Times: 1.1,
			Reason: "wind, " + d.Measure.Wind(t.Wind)})
	}
	if d.Grade == drill.Junior {
		factors = append(factors, Factor{ID: "junior", Phase: drill.Potentiate, Times: 0.6, Reason: "juniors"})
	}
	for _, f := range []struct {
		is bool
		Factor
	}{
		{t.HardYesterday, Factor{ID: "hard-yesterday", Phase: drill.Potentiate, Times: 0.7,
			Reason: "the day after a hard day"}},
		{t.TiredBlock, Factor{ID: "tired-block", Phase: drill.Potentiate, Times: 0.8,
			Reason: "a tired block of the season"}},
		{t.Light, Factor{ID: "light", Phase: drill.Potentiate, Times: 0.5, Reason: "a light session follows"}},
		{t.HardNext, Factor{ID: "hard-next", Times: 0.5, Reason: "a hard session follows"}},
	} {
		if f.is {
			f.Set = true
			factors = append(factors, f.Factor)
		}
	}
	return factors
}

// juniorExplain is what the time to explain a drill is multiplied by.
const juniorExplain = 1.5

// outdoor tells whether the factor comes of the air or the wind, which a place
// under a roof has not.
func (f Factor) outdoor() bool {
	return strings.HasPrefix(f.ID, "wind-") || slices.Contains([]plan.Air{plan.Cold, plan.Cool, plan.Warm, plan.Hot},
		plan.Air(strings.SplitN(f.ID, "-", 2)[0]))
}

// Apply returns the document with today's factors worked into its targets, block
// by block: all that are on into what composing chose, into what a coach wrote only those
// that they set by hand or took. The document itself is left as it is; one that has nothing
// to apply is returned unchanged.
func Apply(d *plan.Document) *plan.Document {
	factors := slices.DeleteFunc(Factors(d), func(f Factor) bool { return slices.Contains(d.Today.Off, f.ID) })
	junior := d.Grade == drill.Junior
	if len(factors) == 0 && !junior {
		return d
	}
	changed := *d
	changed.Blocks = slices.Clone(d.Blocks)
	for i := range changed.Blocks {
		b := &changed.Blocks[i]
		b.Items = slices.Clone(b.Items)
		if junior {
			for n := range b.Items {
				b.Items[n].Explain = int(float64(b.Items[n].Explain)*juniorExplain + 0.5)
			}
		}
		for _, written := range []bool{false, true} {
			scaleFor(d, b, factors, written)
		}
	}
	return &changed
}

// scaleFor turns those drills of a block that a coach wrote, or the others, by what the
// factors come to.
func scaleFor(d *plan.Document, b *plan.Block, factors []Factor, written bool) {
	times, every := 1.0, 1.0
	for _, f := range factors {
		switch {
		case written && !f.taken(d), f.outdoor() && d.Indoors(b):
		case f.Phase == "":
			every *= f.Times
		case f.Phase == b.Phase:
			times *= f.Times
		}
	}
	may := func(i *plan.Item) bool { return i.Written == written }
	if times == 1 && every == 1 || !slices.ContainsFunc(b.Items, func(i plan.Item) bool { return may(&i) }) {
		return
	}
	group := d.Group(b)
	scale(b, times, group, may)
	if every == 1 {
		return
	}
	scale(b, every, group, func(i *plan.Item) bool { return i.Written == written && i.Drill.Dose.Counted() })
	if !slices.ContainsFunc(b.Items, func(i plan.Item) bool { return i.Written != written || i.Drill.Dose.Exact }) {
		b.Rounds = min(b.Rounds, 1)
	}
}

// taken tells whether a factor is for what a coach wrote too: it was set by hand, or taken.
func (f Factor) taken(d *plan.Document) bool {
	return f.Set || d.Today.Written == plan.Always || slices.Contains(d.Today.On, f.ID)
}

// Version is how a player does a drill that a restriction touches.
type Version struct {
	Block, Player string
	Item          int
	Drill         *drill.Drill // nil: left out
	Reason        string       // in plain words, without a diagnosis
}

// Words says what the player does, in place of what: "Ball drop and catch, 8
// catches, for High balls: nothing overhead".
func (v Version) Words(instead drill.Drill) string {
	if v.Drill == nil {
		return fmt.Sprintf("leave out %s: %s", instead.Name, v.Reason)
	}
	return fmt.Sprintf("%s, %s, for %s: %s", v.Drill.Name, v.Drill.Words(v.Drill.Range.Target), instead.Name, v.Reason)
}

// Versions lists what restrictions change: the easier version where that respects all that is
// ruled for the player, else the swap, else the player leaves the drill out. A player whom the
// coach put on another form of a drill does that, where nothing that is ruled speaks against it.
func Versions(d *plan.Document) (versions []Version) {
	for _, p := range d.Players {
		ruled := d.Ruled(p.ID)
		if len(ruled) == 0 && len(p.Forms) == 0 {
			continue
		}
		for i := range d.Blocks {
			b := &d.Blocks[i]
			if !slices.Contains(d.Members(b.Who), p.ID) {
				continue
			}
			for n, item := range b.Items {
				if way, form := item.Form(&p); form != nil && touched(ruled, *form) == "" {
					versions = append(versions, Version{Block: b.ID, Player: p.ID, Item: n, Drill: form,
						Reason: "the " + way + " form for them"})
					continue
				}
				if reason := touched(ruled, item.Drill); reason != "" {
					versions = append(versions, Version{Block: b.ID, Player: p.ID, Item: n, Drill: standIn(ruled, item),
						Reason: reason})
				}
			}
		}
	}
	return versions
}

// touched says which part of any of the rulings a drill touches, or "".
func touched(ruled []plan.Restriction, d drill.Drill) string {
	for _, r := range ruled {
		if reason := Touches(r, d); reason != "" {
			return reason
		}
	}
	return ""
}

// Says lists, in words, who does a block otherwise.
func Says(d *plan.Document, block string) (says []string) {
	for _, v := range Versions(d) {
		if v.Block == block {
			says = append(says, d.Player(v.Player).ShortName()+": "+v.Words(d.Block(block).Items[v.Item].Drill))
		}
	}
	return says
}

// standIn is what a player does in place of a drill that rulings touch; nil:
// nothing does.
func standIn(ruled []plan.Restriction, item plan.Item) *drill.Drill {
	for _, stand := range []*drill.Drill{item.Easier, item.Swap} {
		if stand != nil && touched(ruled, *stand) == "" {
			return stand
		}
	}
	return nil
}

// Touches says which part of the restriction a drill touches, or "".
func Touches(r plan.Restriction, d drill.Drill) string {
	switch {
	case r.NoJumps && d.ContactsPerUnit > 0:
		return "no jumps"
	case r.NoOverhead && d.Overhead:
		return "nothing overhead"
	case r.MaxEffort > 0 && d.PeakEffort(d.Range.Max) > r.MaxEffort:
		return fmt.Sprintf("no more than %.0f %% effort", 100*r.MaxEffort)
	}
	for _, joint := range r.Spare {
		if slices.Contains(d.Regions, joint) {
			return "spare the " + joint
		}
	}
	return ""
}
