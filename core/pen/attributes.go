package pen

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/plan"
	"cuestart/core/say"
)

// Part is one of the things that are said of a block beside its drills.
type Part string

// The parts that can be said, and changed, by themselves.
const (
	PartWho   Part = "who"
	PartWhere Part = "where"
	PartLed   Part = "led"
	PartWhen  Part = "when"
)

// Parts prints what is said of a block part by part; "" where nothing is.
func Parts(d *plan.Document, b *plan.Block) map[Part]string {
	p := &printer{doc: d}
	return map[Part]string{PartWho: p.who(b.Who), PartWhere: d.ZoneName(b.Zone),
		PartLed: d.LeaderName(b.Leader), PartWhen: strings.Join(p.holds(b), ", ")}
}

// Attributes prints what is said of a block beside its drills: who does it, where, led
// by whom, when, how willingly it is given up, how often its drills are gone through.
func Attributes(d *plan.Document, b *plan.Block) string {
	p := &printer{doc: d}
	return strings.Join(p.attributes(b), ", ")
}

// SetPart reads what is said of a part of a block, and changes that, with whatever else the text
// says; the rest stays. Where, by whom and when are let go by saying nothing. It fails with
// [plan.Problems] at the block, naming what was not understood.
func SetPart(r *say.Reader, d *plan.Document, block string, part Part, text string) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", plan.ErrNoSuchBlock
	}
	said, left := r.ReadAttributes(text)
	if left != "" {
		return "", plan.In(plan.AtBlock(block, "said"), "%q is nobody, no place and no time of this plan", left)
	}
	w, was := &writer{Reader: r, doc: d}, b.Clone()
	who := w.ids(said.Who)
	if len(said.Who) > 0 && d.Nobody(who) || len(said.Who) == 0 && part != PartWhere && part != PartLed &&
		part != PartWhen && !saysMore(&said) {
		return "", plan.In(plan.AtBlock(block, "said"), "say who does it: everyone, a unit, names or numbers")
	}
	if len(said.Who) > 0 && !slices.Equal(b.Who, who) {
		b.Who, b.Excusable = who, slices.Contains(who, plan.Everyone)
	}
	if said.Where != "" || part == PartWhere {
		b.Zone = w.zoneID(said.Where)
	}
	if said.Leader != "" || part == PartLed {
		b.Leader = w.leaderID(said.Leader)
	}
	b.Loose = b.Loose || said.Loose
	if said.Priority != "" {
		b.Priority = plan.Priority(said.Priority)
	}
	if said.Rounds > 0 {
		b.Rounds, b.LeastRounds, b.RoundRest = min(said.Rounds, 20), min(said.LeastRounds, 20),
			min(int(said.RestSeconds), 600)
	}
	if when(&said) || part == PartWhen {
		b.Pin, b.Hold, b.After = nil, plan.Hold{}, nil
		if problem := w.hold(b, &said); problem != "" {
			*d.Block(block) = was
			return "", plan.In(plan.AtBlock(block, "said"), "%s", problem)
		}
	}
	b = d.Block(block)
	if words := d.HeldWords(b); words != "" && words != d.HeldWords(&was) {
		return fmt.Sprintf("%s is held %s", b.Name, words), nil
	}
	return b.Name + ": " + Attributes(d, b), nil
}

// when tells whether a line says when.
func when(l *say.Line) bool {
	return l.At != nil || l.Window != nil || l.Before != "" || l.After != "" || l.StraightAfter != ""
}

// saysMore tells whether a line says anything of a block beside who does it.
func saysMore(l *say.Line) bool {
	return when(l) || l.Where != "" || l.Leader != "" || l.Loose || l.Priority != "" || l.Rounds > 0
}
