package schedule

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/runin"
)

// why says in a coach's words what became of a block.
func why(b *plan.Block, dosings []Dosing, s *runin.Scheduled) string {
	full := dosings[len(dosings)-1]
	// What is beyond the target is a bonus, not a cut.
	if i := slices.IndexFunc(dosings, func(d Dosing) bool { return d.Value >= 1 }); i >= 0 {
		full = dosings[i]
	}
	switch {
	case !s.Kept && b.Priority == plan.Must:
		return fmt.Sprintf("a must, and not even %s of it fits", clock.Lasting(dosings[0].Seconds))
	case !s.Kept:
		return fmt.Sprintf("a %s: its %s would take minutes that others use better", b.Priority, clock.Lasting(dosings[0].Seconds))
	case dosings[s.Level].Seconds >= full.Seconds:
		return ""
	}
	var less []string
	for i, item := range b.Items {
		from, to := full.Amounts[i], dosings[s.Level].Amounts[i]
		if from == to {
			continue
		}
		words := fmt.Sprintf("%s, not %s", item.Drill.Words(to), item.Drill.Figure(from))
		if len(b.Items) > 1 {
			words = item.Drill.Name + " " + words
		}
		less = append(less, words)
	}
	return fmt.Sprintf("%s: %s shorter", strings.Join(less, "; "), clock.Lasting(full.Seconds-dosings[s.Level].Seconds))
}

// changed says what becomes of a block from one cut to the next.
func changed(b *plan.Block, dosings []Dosing, x runin.Change) string {
	length := func(level int) string { return clock.Lasting(dosings[level].Seconds) }
	switch {
	case x.Now < 0:
		return "no " + b.Name
	case x.Was < 0:
		return fmt.Sprintf("%s %s", b.Name, length(x.Now))
	}
	return fmt.Sprintf("%s %s → %s", b.Name, length(x.Was), length(x.Now))
}
