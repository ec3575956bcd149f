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
	w := &writer{Reader: r, doc: d}
	line, _ := r.ReadAttributes(Attributes(d, b))
	switch part {
	case PartWhere:
		line.Where = ""
	case PartLed:
		line.Leader = ""
	case PartWhen:
		line = timed(line, say.Line{})
	default:
		if len(said.Who) == 0 && !saysMore(&said) {
			line.Who = nil
		}
	}
	line = with(line, said)
	who := w.ids(line.Who)
	if d.Nobody(who) {
		return "", plan.In(plan.AtBlock(block, "said"), "say who does it: everyone, a unit, names or numbers")
	}
	was := b.Clone()
	if !slices.Equal(b.Who, who) {
		b.Who, b.Excusable = who, slices.Contains(who, plan.Everyone)
	}
	b.Zone, b.Leader, b.Loose = w.zoneID(line.Where), w.leaderID(line.Leader), line.Loose
	b.Priority = plan.Should
	if line.Priority != "" {
		b.Priority = plan.Priority(line.Priority)
	}
	b.Rounds, b.LeastRounds, b.RoundRest = min(line.Rounds, 20), min(line.LeastRounds, 20),
		min(int(line.RestSeconds), 600)
	b.Pin, b.Hold, b.After = nil, plan.Hold{}, nil
	if problem := w.hold(b, &line); problem != "" {
		*d.Block(block) = was
		return "", plan.In(plan.AtBlock(block, "said"), "%s", problem)
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

// timed is a line at the time that another one says.
func timed(l, other say.Line) say.Line {
	l.At, l.Window, l.Before, l.After, l.StraightAfter = other.At, other.Window, other.Before, other.After,
		other.StraightAfter
	l.Clocks = other.Clocks
	return l
}

// saysMore tells whether a line says anything of a block beside who does it.
func saysMore(l *say.Line) bool {
	return when(l) || l.Where != "" || l.Leader != "" || l.Loose || l.Priority != "" || l.Rounds > 0
}

// with is a line with what another one says in place of what it says itself.
func with(l say.Line, other say.Line) say.Line {
	if when(&other) {
		l = timed(l, other)
	}
	if len(other.Who) > 0 {
		l.Who = other.Who
	}
	for _, field := range [][2]*string{{&l.Where, &other.Where}, {&l.Leader, &other.Leader},
		{&l.Priority, &other.Priority}} {
		if *field[1] != "" {
			*field[0] = *field[1]
		}
	}
	if other.Rounds > 0 {
		l.Rounds, l.LeastRounds, l.RestSeconds = other.Rounds, other.LeastRounds, other.RestSeconds
	}
	l.Loose = l.Loose || other.Loose
	return l
}
