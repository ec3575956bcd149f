package pen

import (
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// Limits of a combination's rep, in seconds.
const (
	shortestCombo = 1.0
	longestCombo  = 120.0
)

// combo makes one drill of steps that are done in turn: a rep of it is all of them, with no gap
// between. It is as hard as the hardest of them, and works what each does.
func (w *writer) combo(l, with *say.Line) (plan.Item, drill.Phase) {
	line := *l
	line.Is, line.Drills, line.Dose = say.IsDrill, nil, nil
	_, phase := w.knownFor(&say.Line{Is: say.IsDrill, Name: l.Name})
	k := w.ownDrill(&line, phase, with, w.lane(with))
	seconds, contacts, effort := 0.0, 0.0, 0.0
	alone := drill.Group{People: 1, Lanes: 1}
	for i := range l.Drills {
		step := l.Drills[i]
		item, of := w.item(&step, with)
		d := item.Drill
		seconds += d.Work(d.Range.Target, alone)
		contacts += d.ContactsPerUnit * float64(d.Range.Target)
		effort = max(effort, d.Effort)
		if i == len(l.Drills)-1 && !w.said { // it leads up to the last of them
			phase = of
		}
		for _, pair := range []struct{ to, from *[]string }{{&k.Regions, &d.Regions}, {&k.Planes, &d.Planes},
			{&k.Qualities, &d.Qualities}} {
			*pair.to = say.AppendNew(*pair.to, *pair.from)
		}
		k.Kit, k.LaneKit, k.GroupKit = say.AppendNew(k.Kit, d.Kit), say.AppendNew(k.LaneKit, d.LaneKit),
			say.AppendNew(k.GroupKit, d.GroupKit)
	}
	k.Phases = []drill.Phase{phase}
	k.Effort, k.ContactsPerUnit = effort, contacts
	k.Dose = drill.Dose{Kind: drill.Reps, Sets: 1, Sides: 1, RepSeconds: min(longestCombo, max(shortestCombo, seconds))}
	times := max(1, min(l.Times, drill.MaxAmount))
	if l.RestSeconds > 0 && times <= 20 {
		k.Dose.Sets, k.Dose.RestSeconds = times, min(600, l.RestSeconds)
		times = 1
	}
	k.Range = around(k, times)
	cues := slices.Clone(l.Cues)
	if steps := l.StepsSaid(); steps != "" {
		cues = slices.Insert(cues, 0, steps)
	}
	if len(cues) > 0 {
		k.Cues = cues[:min(len(cues), 6)]
	}
	return plan.Item{Drill: k.For(w.doc.Grade), Written: true}, phase
}

// choice makes one drill of several of which one is done: the first, under the name of all.
func (w *writer) choice(l, with *say.Line) (plan.Item, drill.Phase) {
	first := l.Drills[0]
	first.Cues = l.Cues
	item, phase := w.item(&first, with)
	if item.Drill.Code == OwnCode(first.Name) {
		item.Drill.Code = OwnCode(l.Name)
	}
	item.Drill.Name = say.Short(say.Capital(l.Name))
	return item, phase
}

// audience are the ids of those who do a line: who was said, but for who does not.
func (w *writer) audience(l *say.Line) []string {
	who := w.ids(l.Who)
	if len(l.Not) == 0 {
		return who
	}
	if len(who) == 0 {
		who = []string{plan.Everyone}
	}
	not := w.doc.Members(w.ids(l.Not))
	return slices.DeleteFunc(slices.Clone(w.doc.Members(who)), func(id string) bool { return slices.Contains(not, id) })
}

// others are cues for people that the plan does not know.
func others(l *say.Line) (cues []string) {
	for _, one := range l.Whom {
		if not, ok := strings.CutPrefix(one, "not "); ok {
			cues = append(cues, "not for "+not)
		} else {
			cues = append(cues, "for "+one)
		}
	}
	return cues
}
