package schedule

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
)

// why says in a coach's words what became of a block.
func (c *Compiled) why(n int, s *runin.Scheduled) string {
	b, dosings := &c.Document.Blocks[n], c.Dosings[n][c.once[n]:]
	full := dosings[len(dosings)-1]
	// What is beyond the target is a bonus, not a cut.
	if i := slices.IndexFunc(dosings, func(d Dosing) bool { return d.Value >= 1 }); i >= 0 {
		full = dosings[i]
	}
	if small := c.tooSmall(n); small != "" && !s.Kept {
		return small
	}
	switch {
	case !s.Kept && b.Priority == plan.Must:
		return fmt.Sprintf("no room for it (%s), though it is a must", clock.Lasting(dosings[0].Seconds))
	case !s.Kept:
		return fmt.Sprintf("no room for it (%s): make it a must, or give more minutes",
			clock.Lasting(dosings[0].Seconds))
	}
	is := c.dosing(n, s.Level)
	if is.Seconds >= full.Seconds {
		return ""
	}
	less := shorter(b, full, is)
	joint := ": "
	if len(b.Items) > 1 {
		joint = "; "
	}
	return strings.Join(less, "; ") + joint + clock.Lasting(full.Seconds-is.Seconds) + " shorter"
}

// tooSmall says that the place of block n does not hold its people, or "".
func (c *Compiled) tooSmall(n int) string {
	b := &c.Document.Blocks[n]
	z := c.Document.Zone(b.Zone)
	if people := len(c.Problem.Blocks[n].Players); z != nil && people > z.Capacity {
		return fmt.Sprintf("%s holds %d, and they are %d", z.Name, z.Capacity, people)
	}
	return ""
}

// shorter says what a block does less of than in full.
func shorter(b *plan.Block, full, dosing Dosing) (less []string) {
	done := dosing.Less.Of(b)
	if done.Rounds < b.Rounds {
		less = append(less, fmt.Sprintf("%s, not %d", drill.Number(done.Rounds, "rounds"), b.Rounds))
	}
	for i, item := range b.Items {
		from, to := item.Drill.Words(full.Amounts[i]), done.Items[i].Drill.Words(dosing.Amounts[i])
		if from == to {
			continue
		}
		if done.Items[i].Drill.Dose.Sets == item.Drill.Dose.Sets &&
			done.Items[i].Drill.Dose.HoldSeconds == item.Drill.Dose.HoldSeconds {
			from = item.Drill.Figure(full.Amounts[i])
		}
		words := fmt.Sprintf("%s, not %s", to, from)
		if len(b.Items) > 1 {
			words = item.Drill.Name + ": " + words
		}
		less = append(less, words)
	}
	return less
}

// changed says what becomes of a block from one cut to the next.
func (c *Compiled) changed(n int, x runin.Change) string {
	b := &c.Document.Blocks[n]
	length := func(level int) string { return clock.Lasting(c.dosing(n, level).Seconds) }
	switch {
	case x.Now < 0:
		return "no " + b.Name
	case x.Was < 0:
		return fmt.Sprintf("%s %s", b.Name, length(x.Now))
	}
	return fmt.Sprintf("%s %s → %s", b.Name, length(x.Was), length(x.Now))
}
