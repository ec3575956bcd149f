// Package today applies the day's facts to a plan: factors that turn doses up
// or down, each with a reason, and the restrictions of medical staff.
package today

import (
	"fmt"
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Factor is one reason to do more or less of something today.
type Factor struct {
	ID     string      `json:"id"`
	Phase  drill.Phase `json:"phase"`
	Times  float64     `json:"times"`  // what the target is multiplied by
	Reason string      `json:"reason"` // such as "cold, 4 °C"
}

// Words writes the factor as a coach reads it: "cold, 4 °C: Raise × 1.3".
func (f Factor) Words(phase string) string {
	return fmt.Sprintf("%s: %s × %.4g", f.Reason, phase, f.Times)
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

// Factors lists what applies to the document today, including the ones that
// its coach has switched off.
func Factors(d *plan.Document) (factors []Factor) {
	t := d.Today
	if a, counts := air[t.Air()]; counts {
		band := string(t.Air())
		reason := fmt.Sprintf("%s, %.4g °C", band, *t.Celsius)
		factors = append(factors, Factor{band + "-raise", drill.Raise, a.raise, reason}, Factor{band + "-sport", drill.Sport, a.sport, reason})
	}
	if t.Wind >= windy {
		factors = append(factors, Factor{"wind-raise", drill.Raise, 1.1, fmt.Sprintf("wind, %.3g m/s", t.Wind)})
	}
	if t.HardYesterday {
		factors = append(factors, Factor{"hard-yesterday", drill.Potentiate, 0.7, "the day after a hard day"})
	}
	if t.TiredBlock {
		factors = append(factors, Factor{"tired-block", drill.Potentiate, 0.8, "a tired block of the season"})
	}
	if d.Grade == drill.Junior {
		factors = append(factors, Factor{"junior", drill.Potentiate, 0.6, "juniors"})
	}
	if t.Light {
		factors = append(factors, Factor{"light", drill.Potentiate, 0.5, "a light session follows"})
	}
	return factors
}

// juniorExplain is what the time to explain a drill is multiplied by.
const juniorExplain = 1.5

// Apply returns the document with today's factors worked into its targets:
// clamp(round to step(target × Π factors), min, max). The document itself is
// left as it is. A document that has nothing to apply is returned unchanged.
func Apply(d *plan.Document) *plan.Document {
	times := map[drill.Phase]float64{}
	for _, f := range Factors(d) {
		if slices.Contains(d.Today.Off, f.ID) {
			continue
		}
		if times[f.Phase] == 0 {
			times[f.Phase] = 1
		}
		times[f.Phase] *= f.Times
	}
	junior := d.Grade == drill.Junior
	if len(times) == 0 && !junior {
		return d
	}
	changed := *d
	changed.Blocks = slices.Clone(d.Blocks)
	for i := range changed.Blocks {
		b := &changed.Blocks[i]
		b.Items = slices.Clone(b.Items)
		for n := range b.Items {
			apply(&b.Items[n], times[b.Phase], junior)
		}
	}
	return &changed
}

// apply works a phase's factor (0: there is none) into a drill of it.
func apply(item *plan.Item, factor float64, junior bool) {
	if junior {
		item.Explain = int(float64(item.Explain)*juniorExplain + 0.5)
	}
	if factor != 0 {
		r := &item.Drill.Range
		r.Target = r.Clamp(int(float64(r.Target)*factor + 0.5))
	}
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

// Versions lists what restrictions change: the easier version where that
// respects them, else the swap, else the player leaves the drill out.
func Versions(d *plan.Document) (versions []Version) {
	for _, r := range d.Restrictions {
		for i := range d.Blocks {
			b := &d.Blocks[i]
			if !slices.Contains(d.Members(b.Who), r.Player) {
				continue
			}
			for n, item := range b.Items {
				if reason := Touches(r, item.Drill); reason != "" {
					versions = append(versions, Version{Block: b.ID, Player: r.Player, Item: n, Drill: standIn(r, item), Reason: reason})
				}
			}
		}
	}
	return versions
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

// standIn is what a player does in place of a drill that the restriction
// touches; nil: nothing does.
func standIn(r plan.Restriction, item plan.Item) *drill.Drill {
	for _, stand := range []*drill.Drill{item.Easier, item.Swap} {
		if stand != nil && Touches(r, *stand) == "" {
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
	case r.MaxEffort > 0 && d.Effort > r.MaxEffort:
		return fmt.Sprintf("no more than %.0f %% effort", 100*r.MaxEffort)
	}
	for _, joint := range r.Spare {
		if slices.Contains(d.Regions, joint) {
			return "spare the " + joint
		}
	}
	return ""
}
