package planner

import (
	"slices"

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
		d.Exceptions = append(slices.DeleteFunc(d.Exceptions, func(e plan.Exception) bool { return e.Rule == rule && e.Where == where }),
			plan.Exception{Rule: rule, Where: where, Reason: reason})
		return "kept: " + reason, nil
	}
}

// SetDay is the edit that sets the day's conditions.
func SetDay(day plan.Conditions) Edit {
	return func(d *plan.Document) (string, error) {
		day.Off, day.DrinkEvery = d.Today.Off, d.Today.DrinkEvery
		d.Today = day
		return "the day's conditions", nil
	}
}

// SetFactor is the edit that switches one of the day's factors off or on again.
func SetFactor(id string, on bool) Edit {
	return func(d *plan.Document) (string, error) {
		d.Today.Off = slices.DeleteFunc(d.Today.Off, func(other string) bool { return other == id })
		if !on {
			d.Today.Off = append(d.Today.Off, id)
			return "a factor of the day switched off", nil
		}
		return "a factor of the day switched on", nil
	}
}

// SetStart is the edit that moves the start, to a moment yet to come.
func (p *Planner) SetStart(start clock.Start) Edit {
	return func(d *plan.Document) (string, error) {
		if start.Zone == "" {
			start.Zone = d.Start.Zone
		}
		if err := p.yetToCome(start); err != nil {
			return "", err
		}
		return d.SetStart(start)
	}
}

func (p *Planner) yetToCome(start clock.Start) error {
	if at, err := start.Resolve(); err == nil && !at.After(p.Now()) {
		return plan.In("start", "%s has passed: pick a start that is still to come", at.Format("15:04 on 2 January"))
	}
	return nil
}
