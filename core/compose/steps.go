package compose

import (
	"slices"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// besides are what may stand for a step of Potentiate where nothing of its kind suits the
// place and the number of people: the same efforts, by whatever raises them.
var besides = []func(drill.Drill) bool{
	func(k drill.Drill) bool { return k.Effort >= 0.5 && k.Effort < drill.SprintEffort },
	func(k drill.Drill) bool { return k.Effort >= drill.RisingEffort && k.Effort < drill.SprintEffort },
	func(k drill.Drill) bool { return k.Effort >= drill.SprintEffort },
}

// upwards are the joints from the ground.
var upwards = []string{"ankle", "knee", "hip", "back", "shoulder"}

// stride are the parts of a stride, in the order in which it is put together.
var stride = []string{"ankle-springs", "wall-drive", "fall-and-go", "strides-rising"}

// methodSteps are the steps that a method's own idea asks for, or what juniors need; nil
// where it asks for nothing of its own.
func (c *composer) methodSteps(phase drill.Phase) (steps []func(drill.Drill) bool) {
	switch {
	case c.Grade == drill.Junior && phase == drill.Raise: // one game, one thing to learn
		return []func(drill.Drill) bool{
			func(k drill.Drill) bool { return slices.Contains(k.Qualities, "game") },
			func(k drill.Drill) bool {
				return slices.Contains(k.Qualities, "coordination") && !slices.Contains(k.Qualities, "game")
			}}
	case c.Grade == drill.Junior && phase == drill.Potentiate:
		return []func(drill.Drill) bool{func(k drill.Drill) bool { return k.Teaches() }, func(k drill.Drill) bool {
			return k.Effort >= drill.RisingEffort && k.Effort < drill.SprintEffort && !k.Teaches()
		}}
	case c.brisk && c.Kind == plan.Match && phase == drill.Raise && !c.Today.AfterLoss:
		quick := func(k drill.Drill) bool { return k.Effort >= 0.5 }
		return []func(drill.Drill) bool{quick, quick, quick}
	case c.Method == "ground-up" && phase == drill.Mobilise:
		for n, joint := range upwards {
			if c.brisk && n%2 == 1 {
				continue // ankle, hip, shoulder
			}
			steps = append(steps, func(k drill.Drill) bool { return len(k.Regions) > 0 && k.Regions[0] == joint })
		}
	case c.Method == "ground-up" && phase == drill.Potentiate && !c.brisk:
		for _, code := range stride {
			steps = append(steps, func(k drill.Drill) bool { return k.Code == code })
		}
	}
	return steps
}

// fromTheGround orders drills by the first joint that they work.
func fromTheGround(items []plan.Item) {
	rank := func(k *drill.Drill) int {
		for i, joint := range upwards {
			if len(k.Regions) > 0 && k.Regions[0] == joint {
				return i
			}
		}
		return len(upwards)
	}
	slices.SortStableFunc(items, func(x, y plan.Item) int { return rank(&x.Drill) - rank(&y.Drill) })
}

// rising is a drill that leads up to full effort by itself.
func rising(k drill.Drill) bool {
	efforts := k.Efforts(k.Range.Target)
	return efforts[0] < drill.SprintEffort && slices.Max(efforts) >= drill.SprintEffort && k.Dose.Kind == drill.Travel
}

// stepsOf are what the first drills of a phase have to be.
func stepsOf(phase drill.Phase, kind plan.Kind, day plan.Conditions) []func(drill.Drill) bool {
	has := func(k drill.Drill, qualities ...string) bool {
		return slices.ContainsFunc(qualities, func(q string) bool { return slices.Contains(k.Qualities, q) })
	}
	switch phase {
	case drill.Raise:
		steps := []func(drill.Drill) bool{func(k drill.Drill) bool {
			return has(k, "pulse") && k.Effort >= 0.4 && k.Effort <= 0.6
		}}
		if day.AfterLoss || kind == plan.Training {
			steps = append(steps, func(k drill.Drill) bool { return has(k, "game") })
		}
		return steps
	case drill.Potentiate:
		steps := []func(drill.Drill) bool{
			func(k drill.Drill) bool { return has(k, "jump", "landing") && k.Effort < drill.SprintEffort },
			func(k drill.Drill) bool {
				return has(k, "sprint", "change", "acceleration", "reaction") && k.Effort >= 0.7 &&
					k.Effort < drill.SprintEffort
			},
		}
		if kind == plan.Match || !day.Light {
			steps = append(steps, func(k drill.Drill) bool {
				return has(k, "sprint", "acceleration", "change", "reaction") && k.Effort >= drill.SprintEffort
			})
		}
		return steps
	}
	return nil
}
