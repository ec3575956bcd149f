package pen

import (
	"slices"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// knownFor is the drill of the book that a line means, or none, and in which phase the line's
// drill belongs.
func (w *writer) knownFor(l *say.Line) (k drill.Drill, phase drill.Phase) {
	phase = w.phase
	if known := w.book(l.Code); known != nil {
		k = known.Clone()
		if !w.said && len(k.Phases) > 0 {
			phase = k.Phases[0]
		}
		if phase == drill.After && w.list == "" {
			phase = drill.Mobilise
		}
		if !l.Slip && l.Name != "" {
			k.Name = say.Short(say.Capital(l.Name))
		}
	}
	if w.list == plan.AfterEnd {
		phase = drill.After
	} else if phase != drill.Own && !slices.Contains(plan.Methods[w.doc.Method].Phases, phase) {
		phase = drill.Sport
	}
	b := w.doc.Block(w.block)
	if !w.said && k.Code == "" && w.list != plan.AfterEnd {
		if u, known := movement.Of(l.Name); known {
			phase = u.Phase
		} else if phase = guess(l); b != nil && phase == drill.Mobilise { // it may be of any
			phase = b.Phase
		}
	}
	if b != nil && (l.Alongside || w.head != nil && w.head.Form != "") {
		phase = b.Phase // what is done beside another, or is a station, stays with it
	}
	return k, phase
}

// ownTime is what players call the minutes that are theirs.
var ownTime = say.Spaced(`\bown~(?:time|stuff|things?|routines?|prep|preparation|work|minutes)\b`)

// guess is the phase of a drill that nobody knows, where no heading says it.
func guess(l *say.Line) drill.Phase {
	switch d := l.Dose; {
	case l.Is == say.IsLegs:
		return drill.Raise
	case d == nil:
		return drill.Own
	case d.Kind == drill.Time && ownTime.MatchString(l.Name):
		return drill.Own
	case d.Kind == drill.Count || d.Kind == drill.Grid || say.NamesActs(l.Name):
		return drill.Sport
	case d.Kind == drill.Travel && (d.Effort >= drill.HardEffort || len(d.Efforts) > 0):
		return drill.Potentiate
	case d.Kind == drill.Travel:
		return drill.Raise
	case d.Kind == drill.Hold:
		return drill.Activate
	case d.Kind == drill.Time:
		return drill.Sport
	}
	return drill.Mobilise
}

// weigh gives a block under a heading the phase of most of its work, unless the heading
// said one.
func (w *writer) weigh(b *plan.Block, phase drill.Phase) {
	if len(b.Items) == 1 || w.work == nil {
		w.work = map[drill.Phase]float64{}
	}
	n := len(b.Items) - 1
	seconds := b.Work(n, b.Items[n].Drill.Range.Target, w.doc.Group(b))
	if own(&b.Items[n].Drill) {
		seconds /= 1000 // its phase is only guessed
	}
	w.work[phase] += seconds
	if w.said || w.only || w.head == nil || w.list != "" {
		return
	}
	for _, p := range drill.Phases {
		if w.work[p] > w.work[b.Phase] {
			b.Phase = p
		}
	}
	for i := range b.Items {
		settle(&b.Items[i].Drill, b.Phase)
	}
}

// own tells whether a drill is one of the coach's own.
func own(k *drill.Drill) bool { return IsOwn(k.Code) }

// settle gives an own drill, of which only its phase was guessed, what is usual in another.
func settle(k *drill.Drill, phase drill.Phase) {
	if !own(k) || len(k.Phases) != 1 {
		return
	}
	if was := defaults[k.Phases[0]]; k.Aim == was.aim && k.Effort == was.effort {
		k.Aim, k.Effort, k.Phases = defaults[phase].aim, defaults[phase].effort, []drill.Phase{phase}
	}
}
