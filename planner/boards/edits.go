package boards

import (
	"slices"
	"time"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/plan"
)

// Except is the edit that keeps a finding as it is, with the coach's reason.
func Except(rule, where, reason string) Edit {
	return func(d *plan.Document) (string, error) {
		if !check.Excusable(rule) {
			return "", plan.In("board", "What medical staff ruled is never overruled: mend it, or ask them.")
		}
		if problem := plan.NameProblem(reason); problem != "" {
			return "", plan.In(plan.AtException(rule, where), "say why in a few words")
		}
		d.Exceptions = append(slices.DeleteFunc(d.Exceptions,
			func(e plan.Exception) bool { return e.Rule == rule && e.Where == where }),
			plan.Exception{Rule: rule, Where: where, Reason: reason})
		return "kept: " + reason, nil
	}
}

// SetDay is the edit that sets the day's conditions.
func SetDay(day plan.Conditions) Edit {
	return func(d *plan.Document) (string, error) {
		day.Off, day.On, day.Written, day.DrinkEvery = d.Today.Off, d.Today.On, d.Today.Written, d.Today.DrinkEvery
		d.Today = day
		return "the day's conditions", nil
	}
}

// SetFactors is the edit that takes factors of the day, for what the coach wrote too, or
// refuses them.
func SetFactors(ids []string, on bool) Edit {
	return func(d *plan.Document) (string, error) {
		these := func(other string) bool { return slices.Contains(ids, other) }
		t := &d.Today
		t.Off, t.On = slices.DeleteFunc(slices.Clone(t.Off), these), slices.DeleteFunc(slices.Clone(t.On), these)
		if on {
			t.On = append(t.On, ids...)
			return "doses follow the day", nil
		}
		t.Off = append(t.Off, ids...)
		return "doses stay as they are, whatever the day", nil
	}
}

// SetStart is the edit that moves the start, to a moment that is still to come.
func SetStart(start clock.Start, now time.Time) Edit {
	return func(d *plan.Document) (string, error) {
		if start.Zone == "" {
			start.Zone = d.Start.Zone
		}
		if err := YetToCome(start, now); err != nil {
			return "", err
		}
		return d.SetStart(start)
	}
}

// YetToCome fails where a start has passed.
func YetToCome(start clock.Start, now time.Time) error {
	if at, err := start.Resolve(); err == nil && !at.After(now) {
		return plan.In("start", "%s has passed: pick a start that is still to come", at.Format("15:04 on 2 January"))
	}
	return nil
}
