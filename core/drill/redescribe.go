package drill

import "slices"

// Redescribe has a drill, as a plan has it, follow what it is described as now, and tells
// whether anything of it is otherwise. Its dose stays; its pace, effort and cues follow where
// they are as they were described before.
func (d *Drill) Redescribe(was, now Drill) (follows bool) {
	for _, list := range [][2]*[]string{{&d.Qualities, &now.Qualities}, {&d.Regions, &now.Regions},
		{&d.Planes, &now.Planes}} {
		if !slices.Equal(*list[0], *list[1]) {
			*list[0], follows = slices.Clone(*list[1]), true
		}
	}
	if slices.Equal(d.Cues, was.Cues) && !slices.Equal(d.Cues, now.Cues) {
		d.Cues, follows = slices.Clone(now.Cues), true
	}
	if d.Aim != now.Aim || !slices.Equal(d.Phases, now.Phases) {
		d.Aim, d.Phases, follows = now.Aim, slices.Clone(now.Phases), true
	}
	if d.Effort == was.Effort && d.Effort != now.Effort {
		d.Effort, follows = now.Effort, true
	}
	if d.ContactsPerUnit == was.ContactsPerUnit && d.ContactsPerUnit != now.ContactsPerUnit {
		d.ContactsPerUnit, follows = now.ContactsPerUnit, true
	}
	return d.Dose.TakePace(was.Dose, now.Dose) || follows
}
